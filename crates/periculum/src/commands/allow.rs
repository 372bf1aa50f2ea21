//! `periculum allow`: shows the programs that a file defines or what a rig's settings are written to, and allows it or not.

use std::io::IsTerminal;
use std::path::PathBuf;
use std::process::ExitCode;
use std::sync::Arc;

use anyhow::Result;
use periculum_core::model::program::{Output, Program};
use periculum_core::model::quantity::harmless;
use periculum_rigs::granted::Written;
use periculum_rigs::linux::{restarting, written_by};

use crate::briefing::{Briefing, SourceFile, is_climbable, is_rig, read_programs, read_rig_file};
use crate::cli::{Allow, Common};
use crate::climbing::patiently;
use crate::complaint::{BadInput, FAILED};
use crate::output::{say, say_lines, styled};
use crate::permits::Permits;
use crate::places;
use crate::telling::allowing;

pub(super) fn run(allow: &Allow, common: &Common) -> Result<ExitCode> {
    let file = SourceFile::read(&allow.file)?;
    let mut permits = Permits::read(places::permits()?)?;
    let rig = match (is_rig(&file), is_climbable(&file)) {
        (true, _) => Some((Arc::new(read_rig_file(file.clone())?.0), false)),
        // A plan may raise ceilings, and have no programs of its own.
        (_, true) if read_programs(file.clone())?.is_empty() => {
            let briefing = Briefing::read(&allow.file)?;
            Some((briefing.rig, briefing.plan.restarts_itself))
        }
        _ => None,
    };
    if let Some((rig, restarts_itself)) = rig {
        let (root, of) = (common.sysroot.clone(), Arc::clone(&rig));
        let mut written = patiently(move || written_by(&root, &of))?;
        written.extend(restarts_itself.then(restarting));
        if written.is_empty() {
            return Err(BadInput(allowing::writes_nothing(allow.file.display())).into());
        }
        if let Some(missing) = written.iter().find(|one| !one.is_there && !allow.forget) {
            let what = allowing::target_is_missing(&missing.label, &missing.target);
            return Err(BadInput(allowing::rig_lists(&what)).into());
        }
        for one in &written {
            say_lines(&told(one, permits.allow_written(&one.digest())));
        }
        written.iter().for_each(|one| permits.set_written(one, !allow.forget));
        return decide(allow, &permits, allowing::WILL_WRITE);
    }
    let programs = read_programs(file)?;
    if programs.is_empty() {
        return Err(BadInput(allowing::defines_no_program(allow.file.display())).into());
    }
    for program in &programs {
        say_lines(&described(program, permits.allow(program)));
    }
    programs.iter().for_each(|program| permits.set(program, !allow.forget));
    decide(allow, &permits, allowing::WILL_RUN)
}

/// Writes the permissions where the user is sure.
fn decide(allow: &Allow, permits: &Permits, what: &str) -> Result<ExitCode> {
    let is_sure = allow.yes || allow.forget || asks(what)?;
    if !is_sure {
        say(allowing::NOTHING_CHANGED);
        return Ok(ExitCode::from(FAILED));
    }
    permits.write()?;
    let done = if allow.forget { allowing::NO_LONGER_ALLOWED } else { "Allowed" };
    say(allowing::as_file_says(done, permits.path().display()));
    Ok(ExitCode::SUCCESS)
}

/// Everything that the permission is given for, as it is digested.
fn told(written: &Written, is_allowed: bool) -> String {
    let shown = |file: &PathBuf| format!("    {}\n", harmless(&file.display().to_string()));
    let files: String = written.files.iter().map(shown).collect();
    let files = if files.is_empty() { String::new() } else { allowing::is_written_to(&files) };
    let terms: String =
        written.terms.iter().map(|(name, value)| format!("  {}: {}\n", harmless(name), harmless(value))).collect();
    let allowed = if is_allowed { allowing::ALREADY } else { "" };
    let (label, target) = (harmless(&written.label), harmless(&written.target));
    allowing::asked_of_setting(&label, &target, allowed, &files, &terms, written.digest())
}

fn asks(what: &str) -> Result<bool> {
    if !std::io::stdin().is_terminal() {
        return Err(BadInput(allowing::NOBODY_TO_ASK.into()).into());
    }
    styled(std::io::stdout(), &allowing::allow_it(what));
    let mut answer = String::new();
    std::io::stdin().read_line(&mut answer)?;
    Ok(answer.trim() == "yes")
}

/// Everything that a permission is given for.
fn described(program: &Program, is_allowed: bool) -> String {
    let Program { name, run, folder, limit, status, output, score } = program;
    let words: Vec<String> = run.iter().map(|word| format!("    {:?}\n", harmless(word))).collect();
    let output = match output {
        Output::Any => "anything".to_owned(),
        Output::Same => allowing::SAME_IN_EVERY_RUN.to_owned(),
        Output::Digest(digest) => format!("SHA-256 {digest}"),
    };
    let score = score.as_ref().map_or("none".to_owned(), |score| {
        let pattern = score.pattern.as_ref().map(|pattern| allowing::from_pattern(harmless(pattern)));
        format!("{} {}{}", harmless(&score.formula), harmless(&score.unit), pattern.unwrap_or_default())
    });
    let folder = folder.as_ref().map_or(allowing::FOLDER_OF_PERICULUM.to_owned(), |folder| harmless(folder));
    allowing::asked_of_program(
        harmless(name),
        if is_allowed { allowing::ALREADY } else { "" },
        words.concat(),
        folder,
        limit,
        status,
        output,
        score,
        program.digest(),
    )
}
