//! Where things are kept: the XDG base directories, unless the user says otherwise.

use std::fs;
use std::path::PathBuf;

use anyhow::{Context, Result};
use etcetera::base_strategy::{BaseStrategy, Xdg};

use crate::cli::Common;

/// The ledger file: the one that was named, or this one in the user's data folder.
pub(crate) fn ledger(common: &Common, usual: &str) -> Result<PathBuf> {
    match &common.ledger {
        Some(path) => Ok(path.clone()),
        None => Ok(base()?.data_dir().join("periculum").join(usual)),
    }
}

/// The file that lists which programs of their own the user has allowed.
pub(crate) fn permits() -> Result<PathBuf> {
    Ok(base()?.config_dir().join("periculum").join("allowed-programs.txt"))
}

/// The file that keeps what this machine had set before it was changed.
pub(crate) fn kept() -> Result<PathBuf> {
    let base = base()?;
    Ok(base.state_dir().unwrap_or_else(|| base.data_dir()).join("periculum").join("to-put-back.jsonl"))
}

/// Starts the log, to a file in the user's state folder; `PERICULUM_LOG` says how much is logged.
///
/// The log lives as long as what is returned. Not being able to log is no reason not to work.
pub(crate) fn start_log() -> Option<tracing_appender::non_blocking::WorkerGuard> {
    let folder = base().ok()?.state_dir()?.join("periculum");
    fs::create_dir_all(&folder).ok()?;
    let (writer, guard) = tracing_appender::non_blocking(tracing_appender::rolling::never(folder, "periculum.log"));
    let filter = tracing_subscriber::EnvFilter::try_from_env("PERICULUM_LOG")
        .unwrap_or_else(|_| tracing_subscriber::EnvFilter::new("info"));
    tracing_subscriber::fmt().with_writer(writer).with_ansi(false).with_env_filter(filter).try_init().ok()?;
    Some(guard)
}

fn base() -> Result<Xdg> {
    Xdg::new().context("there is no home folder to keep a ledger in; set HOME, or give one with --ledger FILE")
}
