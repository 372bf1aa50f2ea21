//! Ctrl-C and being told to end: the climb stops in good order.

use std::thread;

use anyhow::Result;
use crossbeam_channel::Sender;
use periculum_core::engine::Said;
use signal_hook::consts::{SIGHUP, SIGINT, SIGTERM};
use signal_hook::iterator::Signals;

/// Turns signals into words of the operator: an interrupt stops the climb, anything else makes it wait.
pub(crate) fn listen(words: Sender<Said>) -> Result<()> {
    let mut signals = Signals::new([SIGINT, SIGTERM, SIGHUP])?;
    thread::spawn(move || {
        for signal in signals.forever() {
            let said = if signal == SIGINT { Said::Stop } else { Said::Leave };
            if words.send(said).is_err() {
                return;
            }
        }
    });
    Ok(())
}
