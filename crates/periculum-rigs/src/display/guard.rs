//! Brings an old mode back by itself, in a process of its own: whoever made the new one may die, freeze or see nothing any more.

use std::io::{self, Read, Write};
use std::process::{Child, Command, ExitCode, Stdio};
use std::sync::mpsc::{RecvTimeoutError, channel};
use std::thread;
use std::time::Duration;

use rustix::process::setsid;

use super::screen::Screen;

/// What this program is called with to be one.
pub const COMMAND: &str = "display-guard";

/// What it is told where the new mode is to stay.
const KEEP: u8 = b'k';

/// What it says once it stands.
const READY: u8 = b'r';

/// The process that holds an old mode.
#[derive(Debug)]
pub(crate) struct Guard {
    process: Child,
}

impl Guard {
    /// A guard who brings back what an output shows now, unless it is told within this time that the new mode is to stay.
    pub(crate) fn of(output: &str, within: Duration) -> Result<Self, String> {
        let told = |error: io::Error| format!("nobody would bring the old mode back: {error}");
        let program = std::env::current_exe().map_err(told)?;
        let mut command = Command::new(program);
        command.args([COMMAND, output, &within.as_millis().to_string()]);
        let mut process =
            command.stdin(Stdio::piped()).stdout(Stdio::piped()).stderr(Stdio::null()).spawn().map_err(told)?;
        let mut word = [0];
        let stands =
            process.stdout.take().is_some_and(|mut said| said.read_exact(&mut word).is_ok() && word == [READY]);
        if stands {
            return Ok(Self { process });
        }
        // Whoever does not stand brings nothing back.
        let _ = process.kill();
        let _ = process.wait();
        Err("nobody would bring the old mode back: the process that should does not stand".into())
    }

    /// Lets the new mode stay.
    pub(crate) fn keep(mut self) {
        if let Some(mut words) = self.process.stdin.take() {
            // A guard who is gone has brought the old mode back already, which is read then.
            let _ = words.write_all(&[KEEP]);
        }
    }
}

impl Drop for Guard {
    /// Without a word, the old mode comes back now.
    fn drop(&mut self) {
        drop(self.process.stdin.take());
        let _ = self.process.wait();
    }
}

/// The guard's own side.
///
/// # Errors
/// When there is nothing to hold.
pub fn stand(output: &str, within: Duration) -> Result<ExitCode, String> {
    // Whoever ends the terminal ends this too early.
    let _ = setsid();
    let screen = Screen::open()?;
    let held = screen.output(output)?;
    let mode = held.mode();
    io::stdout().write_all(&[READY]).and_then(|()| io::stdout().flush()).map_err(|error| error.to_string())?;
    let (sender, words) = channel();
    thread::spawn(move || {
        let mut word = [0];
        // An end without a word is one that says: back.
        let is_kept = io::stdin().read_exact(&mut word).is_ok() && word == [KEEP];
        let _ = sender.send(is_kept);
    });
    match words.recv_timeout(within) {
        Ok(true) => Ok(ExitCode::SUCCESS),
        Ok(false) | Err(RecvTimeoutError::Timeout | RecvTimeoutError::Disconnected) => {
            // What the server has become meanwhile is not what it was; only the mode is known to be well.
            let now = screen.output(output).unwrap_or(held);
            screen.set(&now, mode).map(|()| ExitCode::SUCCESS)
        }
    }
}
