//! Where things are kept: the XDG base directories, unless the user says otherwise.

use std::fs;
use std::os::unix::fs::DirBuilderExt;
use std::path::{Path, PathBuf};

use anyhow::{Context, Result};
use etcetera::base_strategy::{BaseStrategy, Xdg};
use tracing::Level;
use tracing_subscriber::filter::Targets;
use tracing_subscriber::prelude::*;

use crate::cli::Common;
use crate::complaint::BadInput;
use crate::telling::{files, ledger};

/// The usual ledger's file name.
pub(crate) const LEDGER: &str = "periculum.ledger";

/// The file name of the ledger that the demo keeps for itself.
pub(crate) const DEMO_LEDGER: &str = "demo.ledger";

/// What `--ledger` takes for the demo's, where no file is called so.
const DEMO: &str = "demo";

/// The ledger file: the one that was named, or this one in the user's data folder.
pub(crate) fn ledger(common: &Common, usual: &str) -> Result<PathBuf> {
    match &common.ledger {
        Some(path) if path.as_os_str() == DEMO && !path.is_file() => in_data_folder(DEMO_LEDGER),
        Some(path) => Ok(path.clone()),
        None => in_data_folder(usual),
    }
}

/// The same for commands that only read it.
///
/// # Errors
/// Where there is none.
pub(crate) fn ledger_to_read(common: &Common) -> Result<PathBuf> {
    let path = ledger(common, LEDGER)?;
    if path.is_file() {
        return Ok(path);
    }
    let what = match &common.ledger {
        Some(_) => ledger::no_ledger(path.display()),
        None => ledger::NO_CLIMB_TO_USE.to_owned(),
    };
    Err(BadInput(what).into())
}

/// The folder in which climbs of this ledger keep pictures: beside it.
pub(crate) fn pictures_of(ledger: &Path) -> PathBuf {
    ledger.with_extension("pictures")
}

/// A command as it has to be typed for the ledger of this path.
pub(crate) fn typed(command: &str, ledger: &Path) -> String {
    let is = |name: &str| in_data_folder(name).is_ok_and(|path| path == ledger);
    if is(LEDGER) {
        files::command(command)
    } else if is(DEMO_LEDGER) {
        files::command_for(command, DEMO)
    } else {
        files::command_for(command, ledger.display())
    }
}

/// Makes a folder that is the user's alone.
pub(crate) fn make_folder(folder: &Path) -> std::io::Result<()> {
    fs::DirBuilder::new().recursive(true).mode(0o700).create(folder)
}

fn in_data_folder(name: &str) -> Result<PathBuf> {
    Ok(base()?.data_dir().join("periculum").join(name))
}

/// The file that lists which programs of their own the user has allowed.
pub(crate) fn permits() -> Result<PathBuf> {
    Ok(base()?.config_dir().join("periculum").join("allowed-programs.txt"))
}

/// The file in which the user says how the interface is to look and to be used.
pub(crate) fn preferences() -> Result<PathBuf> {
    Ok(base()?.config_dir().join("periculum").join("config.toml"))
}

/// The file that keeps what this machine had set before it was changed.
pub(crate) fn kept() -> Result<PathBuf> {
    let base = base()?;
    Ok(base.state_dir().unwrap_or_else(|| base.data_dir()).join("periculum").join("to-put-back.jsonl"))
}

/// The file that keeps what people looked for and picked in the interface, by ledger.
pub(crate) fn looked_at() -> Result<PathBuf> {
    let base = base()?;
    Ok(base.state_dir().unwrap_or_else(|| base.data_dir()).join("periculum").join("looked-at.json"))
}

/// The log's file.
pub(crate) fn log() -> Result<PathBuf> {
    let base = base()?;
    Ok(base.state_dir().unwrap_or_else(|| base.data_dir()).join("periculum").join("periculum.log"))
}

/// Starts the log, to a file in the user's state folder; `PERICULUM_LOG` says how much is logged, and else this level.
///
/// The log lives as long as what is returned. Not being able to log is no reason not to work.
pub(crate) fn start_log(usual: Level) -> Option<tracing_appender::non_blocking::WorkerGuard> {
    let folder = base().ok()?.state_dir()?.join("periculum");
    make_folder(&folder).ok()?;
    let (writer, guard) = tracing_appender::non_blocking(tracing_appender::rolling::never(folder, "periculum.log"));
    let wanted = std::env::var("PERICULUM_LOG").ok().and_then(|wanted| wanted.parse().ok());
    let wanted = wanted.unwrap_or_else(|| Targets::new().with_default(usual));
    let lines = tracing_subscriber::fmt::layer().with_writer(writer).with_ansi(false);
    tracing_subscriber::registry().with(lines.with_filter(wanted)).try_init().ok()?;
    Some(guard)
}

fn base() -> Result<Xdg> {
    Xdg::new().context(ledger::NO_HOME)
}
