//! Errors as the user sees them: what, where, what to do instead; and the exit code of each kind.

use std::io::IsTerminal;
use std::path::PathBuf;
use std::process::ExitCode;

use crate::output::{lines, styled};
use annotate_snippets::{AnnotationKind, Level, Renderer, Snippet};
use periculum_core::files::Problem;
use periculum_core::model::quantity::harmless;
use periculum_ledger::LedgerError;

/// Something was wrong with what the user gave: exit code 2, as for a wrong command line.
pub(crate) const BAD_INPUT: u8 = 2;

/// What was asked for could not be done: exit code 1.
pub(crate) const FAILED: u8 = 1;

/// A climb came to its end in good order and found nothing to mark.
pub(crate) const NOTHING_FOUND: u8 = 3;

/// A score is not known as well as was asked for.
pub(crate) const NOT_SURE: u8 = 4;

/// How a shell says that somebody interrupted; also where a climb waits.
pub(crate) const INTERRUPTED: u8 = 130;

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
        let source = shown(&self.source_text);
        let reports = self.problems.iter().map(|problem| {
            let what = harmless(&problem.what);
            let end = source.len();
            let place = problem.at.start.min(end)..problem.at.end.min(end);
            let snippet =
                Snippet::source(&source).path(&path).annotation(AnnotationKind::Primary.span(place).label("here"));
            let group = Level::ERROR.primary_title(&what).element(snippet);
            match problem.help.as_deref().map(harmless) {
                Some(help) => renderer.render(&[group.element(Level::HELP.message(&help))]),
                None => renderer.render(&[group]),
            }
        });
        reports.collect::<Vec<_>>().join("\n\n")
    }
}

/// The same text with everything that steers a terminal replaced, byte for byte as long, so that places stay.
fn shown(source: &str) -> String {
    let shown = |c: char| {
        let is_harmless = matches!(c, '\n' | '\t') || harmless(c.encode_utf8(&mut [0; 4])) == c.to_string();
        if is_harmless { c.to_string() } else { "?".repeat(c.len_utf8()) }
    };
    source.chars().map(shown).collect()
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
        // Its text was made harmless part by part, and its colours are our own.
        styled(std::io::stderr(), &format!("{}\n\n{}\n", bad.render(&renderer), harmless(&bad.to_string())));
        return;
    }
    lines(std::io::stderr(), &format!("periculum: {error:#}"));
}

/// The exit code of an error's kind.
pub(crate) fn exit_code(error: &anyhow::Error) -> ExitCode {
    let is_no_ledger = matches!(
        error.downcast_ref(),
        Some(LedgerError::NoFile { .. } | LedgerError::NoSuchClimb { .. } | LedgerError::TooNew { .. })
    );
    let is_input = error.is::<BadFile>() || error.is::<BadInput>() || is_no_ledger;
    ExitCode::from(if is_input { BAD_INPUT } else { FAILED })
}
