//! Ctrl-C and being told to end: the climb stops or waits in good order.

use std::thread;
use std::time::Duration;

use anyhow::Result;
use crossbeam_channel::Sender;
use periculum_core::engine::Said;

use signal_hook::consts::{SIGHUP, SIGINT, SIGTERM};
use signal_hook::iterator::Signals;

use crate::complaint::INTERRUPTED;

/// A program that was told to end has ended after this long, whatever hangs.
const LONGEST_ENDING: Duration = Duration::from_millis(1900);

/// Ends the program where it has not ended in good order by then: the record is on the disk, the load dies with its parent, and
/// what was changed is kept to be put back.
fn end_anyway(give_back: fn()) {
    thread::sleep(LONGEST_ENDING);
    tracing::error!("something hung, so the program was ended without waiting for it");
    give_back();
    std::process::exit(INTERRUPTED.into());
}

/// Turns signals into words of the operator: an interrupt stops the climb, anything else makes it wait as it stands, since
/// the machine may be on its way to the start that the climb waits for.
///
/// Whoever holds the other end of `ended` is told when this process is to end, even when the climb is over. What was
/// taken of the terminal is given back where the program has to be ended anyway.
pub(crate) fn listen(words: Sender<Said>, ended: Option<Sender<()>>, give_back: fn()) -> Result<()> {
    let mut signals = Signals::new([SIGINT, SIGTERM, SIGHUP])?;
    thread::spawn(move || {
        for signal in signals.forever() {
            if signal != SIGINT {
                thread::spawn(move || end_anyway(give_back));
            }
            let said = if signal == SIGINT { Said::Stop } else { Said::Suspend };
            let hears = words.send(said).is_ok();
            let waits = ended.as_ref().is_some_and(|ended| ended.send(()).is_ok());
            if !hears && !waits {
                return;
            }
        }
    });
    Ok(())
}
