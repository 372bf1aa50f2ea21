//! `periculum man`: manual pages, made from the table of commands itself.

use std::fs;
use std::io::{self, Write};
use std::path::Path;
use std::process::ExitCode;

use anyhow::{Context, Result};
use clap::{Command, CommandFactory};

use crate::cli::{Arguments, Man};
use crate::output::say;
use crate::places;
use crate::telling::files;

pub(super) fn run(man: &Man) -> Result<ExitCode> {
    let mut command = Arguments::command();
    // Commands know the names of what they belong to once all is put together.
    command.build();
    let Some(folder) = &man.output else {
        io::stdout().write_all(&page(command)?)?;
        return Ok(ExitCode::SUCCESS);
    };
    places::make_folder(folder).with_context(|| files::cannot_write(folder.display()))?;
    let shown = command.get_subcommands().filter(|sub| !sub.is_hide_set() && sub.get_name() != "help");
    for sub in shown.cloned().collect::<Vec<_>>() {
        write(folder, sub)?;
    }
    write(folder, command)?;
    say(folder.display().to_string());
    Ok(ExitCode::SUCCESS)
}

fn write(folder: &Path, command: Command) -> Result<()> {
    let name = command.get_display_name().unwrap_or(command.get_name()).to_owned();
    let path = folder.join(name).with_extension("1");
    fs::write(&path, page(command)?).with_context(|| files::cannot_write(path.display()))
}

fn page(command: Command) -> io::Result<Vec<u8>> {
    let mut page = Vec::new();
    clap_mangen::Man::new(command).render(&mut page)?;
    Ok(page)
}
