//! The refresh rate of a display as a setting, through the X server.

mod guard;
mod limits;
mod screen;
mod timings;

use std::time::Duration;

use periculum_core::Decimal;

pub(crate) use guard::Guard;
pub use guard::{COMMAND, stand};
use screen::{Output, Screen};
use timings::Timings;

/// An output that shows a picture.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Shown {
    /// What the server calls it.
    pub name: String,
    /// Pixels across and down.
    pub size: (u16, u16),
    /// Pictures a second.
    pub rate: Decimal,
    /// Pixels a second.
    pub clock: u32,
    /// The highest rate that the screen says it can; none where it says nothing.
    pub highest: Option<u32>,
}

/// Every output that shows a picture.
///
/// # Errors
/// Why nobody knows.
pub fn outputs() -> Result<Vec<Shown>, String> {
    let screen = Screen::open()?;
    let shown = |output: Output| {
        let timings = output.timings()?;
        let highest = screen.limits(&output).map(|limits| limits.rate);
        let size = (timings.across.shown, timings.down.shown);
        Some(Shown { rate: timings.rate(), clock: timings.clock, size, highest, name: output.name })
    };
    Ok(screen.outputs()?.into_iter().filter_map(shown).collect())
}

/// The rate that an output has now, Hz.
pub(crate) fn rate(output: &str) -> Result<Decimal, String> {
    let unknown = || format!("the mode of {output} is none that the server knows");
    Screen::open()?.output(output)?.timings().map(|timings| timings.rate()).ok_or_else(unknown)
}

/// Has an output show its picture at this rate, Hz, with the totals of the mode of now, or with reduced blanking.
pub(crate) fn show(output: &str, rate: Decimal, is_reduced: bool) -> Result<(), String> {
    let screen = Screen::open()?;
    let output = screen.output(output)?;
    let wanted = output.timings().and_then(|now| at(now, rate, is_reduced));
    screen.show(&output, wanted.ok_or_else(|| format!("no mode has {rate} Hz"))?, is_reduced)
}

fn at(now: Timings, rate: Decimal, is_reduced: bool) -> Option<Timings> {
    if is_reduced { Timings::reduced((now.across.shown, now.down.shown), rate) } else { now.at(rate) }
}

/// What stands against so high a rate on an output: the screen says that it does not go so far.
pub(crate) fn objection(output: &str, highest: Decimal, is_reduced: bool) -> Result<Option<String>, String> {
    let screen = Screen::open()?;
    let output = screen.output(output)?;
    let Some(limits) = screen.limits(&output) else { return Ok(None) };
    if highest > Decimal::from(limits.rate) {
        return Ok(Some(format!("the screen says that it goes to {} Hz", limits.rate)));
    }
    let clock = output.timings().and_then(|now| at(now, highest, is_reduced)).map(|timings| u64::from(timings.clock));
    let is_beyond = clock.zip(limits.clock).is_some_and(|(clock, most)| clock > most);
    Ok(is_beyond.then(|| {
        format!("the screen says that it takes {} MHz of pixels", limits.clock.unwrap_or_default() / 1_000_000)
    }))
}

/// How long the old mode waits for a word before it comes back, when somebody has so long to say it.
pub(crate) fn patience(confirm: Duration) -> Duration {
    confirm + Duration::from_secs(1)
}
