//! The binary of Periculum: its command line and its terminal interface.
//!
//! Everything here is glue. [`driving`] carries out what the engine decides, [`commands`] are one file each, and
//! [`tui`] shows what the engine states. Start reading at [`run`].

mod briefing;
mod bundle;
mod cli;
mod climbing;
mod commands;
mod complaint;
mod driving;
mod earlier;
mod exit;
mod handing_out;
mod headless;
mod interrupt;
mod loading;
mod notice;
mod output;
mod permits;
mod pictures;
mod places;
mod practice;
mod recalling;
mod remaining;
mod reports;
mod rig_states;
mod starting;
mod telling;
mod tui;

use std::process::ExitCode;

use clap::Parser;

use crate::cli::Arguments;

/// Runs the command that the arguments ask for and tells how it ended.
pub fn run() -> ExitCode {
    let arguments = Arguments::parse();
    match commands::run(arguments) {
        Ok(code) => code,
        Err(error) => {
            complaint::tell(&error);
            complaint::exit_code(&error)
        }
    }
}
