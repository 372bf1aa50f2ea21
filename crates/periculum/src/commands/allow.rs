//! `periculum allow`: shows the programs that a file defines, and lets them run or not.

use std::io::{IsTerminal, Write};
use std::process::ExitCode;

use anyhow::Result;
use periculum_core::program::{Output, Program};
use periculum_core::quantity::harmless;

use crate::briefing::{SourceFile, read_programs};
use crate::cli::Allow;
use crate::complaint::{BadInput, FAILED};
use crate::permits::Permits;
use crate::places;

pub(super) fn run(allow: &Allow) -> Result<ExitCode> {
    let programs = read_programs(SourceFile::read(&allow.file)?)?;
    if programs.is_empty() {
        return Err(BadInput(format!("{} defines no program", allow.file.display())).into());
    }
    let mut permits = Permits::read(places::permits()?)?;
    for program in &programs {
        println!("{}", described(program, permits.allow(program)));
    }
    let is_sure = allow.yes || allow.forget || asks()?;
    if !is_sure {
        println!("Nothing was changed.");
        return Ok(ExitCode::from(FAILED));
    }
    programs.iter().for_each(|program| permits.set(program, !allow.forget));
    permits.write()?;
    let done = if allow.forget { "No longer allowed" } else { "Allowed" };
    println!("{done}, as {} says.", permits.path().display());
    Ok(ExitCode::SUCCESS)
}

fn asks() -> Result<bool> {
    if !std::io::stdin().is_terminal() {
        return Err(BadInput("nobody is there to be asked; say --yes to allow these programs".into()).into());
    }
    print!("Periculum will run this as you, whenever a plan or a proof says so. Allow it? [yes/no] ");
    std::io::stdout().flush()?;
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
        Output::Same => "the same in every run of a pass".to_owned(),
        Output::Digest(digest) => format!("SHA-256 {digest}"),
    };
    let score = score.as_ref().map_or("none".to_owned(), |score| {
        let pattern = score.pattern.as_ref().map(|pattern| format!(", from /{}/", harmless(pattern)));
        format!("{} {}{}", harmless(&score.formula), score.unit, pattern.unwrap_or_default())
    });
    format!(
        "{name}{}\n  runs, without a shell:\n{}  in folder: {}\n  for at most: {limit}\n  right when it exits with: \
         {status}\n  and its output is: {output}\n  score: {score}\n  digest: {}\n",
        if is_allowed { " (allowed already)" } else { "" },
        words.concat(),
        folder.as_ref().map_or("the one that Periculum runs in".into(), |folder| harmless(folder)),
        program.digest()
    )
}
