//! The `periculum` command.

use std::process::ExitCode;

fn main() -> ExitCode {
    periculum::run()
}
