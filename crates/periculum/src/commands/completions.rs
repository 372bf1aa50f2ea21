//! `periculum completions`: what a shell needs to complete commands, made from the table of commands itself.

use std::io::{self, Write};
use std::process::ExitCode;

use anyhow::Result;
use clap::CommandFactory;

use crate::cli::{Arguments, Completions};

pub(super) fn run(completions: &Completions) -> Result<ExitCode> {
    let mut script = Vec::new();
    clap_complete::generate(completions.shell, &mut Arguments::command(), "periculum", &mut script);
    io::stdout().write_all(&script)?;
    Ok(ExitCode::SUCCESS)
}
