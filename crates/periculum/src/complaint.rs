//! Errors as the user sees them: what, where, what to do instead; and the exit code of each kind.

use std::io::IsTerminal;
use std::path::PathBuf;
use std::process::ExitCode;

use annotate_snippets::{AnnotationKind, Level, Renderer, Snippet};
use periculum_core::file::Problem;
use periculum_core::quantity::harmless;

/// Something was wrong with what the user gave: exit code 2, as for a wrong command line.
pub(crate) const BAD_INPUT: u8 = 2;

/// What was asked for could not be done: exit code 1.
pub(crate) const FAILED: u8 = 1;

/// A file with problems in it.
#[derive(Debug, thiserror::Error)]
#[error("{path} has {} {}", problems.len(), if problems.len() == 1 { "problem" } else { "problems" })]
pub(crate) struct BadFile {
    pub(crate) path: PathBuf,
    pub(crate) source_text: String,
    pub(crate) problems: Vec<Problem>,
}

impl BadFile {
    /// Every problem with its line, its column and what to write instead.
    pub(crate) fn render(&self, renderer: &Renderer) -> String {
        let path = harmless(&self.path.display().to_string());
        let reports = self.problems.iter().map(|problem| {
            let what = harmless(&problem.what);
            let end = self.source_text.len();
            let place = problem.at.start.min(end)..problem.at.end.min(end);
            let snippet = Snippet::source(&self.source_text)
                .path(&path)
                .annotation(AnnotationKind::Primary.span(place).label("here"));
            let group = Level::ERROR.primary_title(&what).element(snippet);
            match problem.help.as_deref().map(harmless) {
                Some(help) => renderer.render(&[group.element(Level::HELP.message(&help))]),
                None => renderer.render(&[group]),
            }
        });
        reports.collect::<Vec<_>>().join("\n\n")
    }
}

/// Something was wrong with what the user gave.
#[derive(Debug, thiserror::Error)]
#[error("{0}")]
pub(crate) struct BadInput(pub(crate) String);

/// Tells an error on standard error.
pub(crate) fn tell(error: &anyhow::Error) {
    tracing::error!("{error:#}");
    if let Some(bad) = error.downcast_ref::<BadFile>() {
        let coloured = std::io::stderr().is_terminal() && std::env::var_os("NO_COLOR").is_none();
        let renderer = if coloured { Renderer::styled() } else { Renderer::plain() };
        eprintln!("{}\n\n{bad}", bad.render(&renderer));
        return;
    }
    eprintln!("periculum: {error:#}");
}

/// The exit code of an error's kind.
pub(crate) fn exit_code(error: &anyhow::Error) -> ExitCode {
    let is_input = error.is::<BadFile>() || error.is::<BadInput>();
    ExitCode::from(if is_input { BAD_INPUT } else { FAILED })
}
