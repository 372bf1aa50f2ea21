//! What a simulated rig is made of: a piece of hardware that is set, works, gets warm and fails.

use std::fmt;

use periculum_core::Decimal;
use periculum_core::model::incident::Incident;
use periculum_core::model::incident_kind::IncidentKind;
use periculum_core::model::pass::Threads;
use periculum_core::model::rung::Rung;
use periculum_core::model::task::Task;

use super::random::Stream;

/// What a device is to do.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Work<'a> {
    /// The load's name.
    pub(super) load: &'a str,
    /// How much of the device is loaded.
    pub(super) threads: Threads,
}

/// What a part of a device that works, such as a core, did and dared in a tick.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(super) struct Strained {
    /// Failures in a second.
    pub(super) hazard: f64,
    /// Work in a second, in the load's unit.
    pub(super) work: f64,
}

/// One piece of simulated hardware, which knows nothing of clocks, plans and passes. What it does follows from what is set, what
/// it works on and the ticks that went by; chance is the rig's.
pub(super) trait Device: fmt::Debug + Send {
    /// The rig's settings that drive it.
    fn settings(&self) -> Vec<&str>;

    /// The names of the loads that it runs.
    fn loads(&self) -> Vec<&'static str>;

    /// The tests of it that somebody has to start and to read, each with what they write down.
    fn tests(&self) -> Vec<(&'static str, Task)> {
        Vec::new()
    }

    /// What a sensor's `source` may name.
    fn sources(&self) -> Vec<String>;

    /// Takes what is set of its settings.
    fn set(&mut self, rung: &Rung);

    /// Whether it answers at rest with what is set.
    fn is_alive(&self) -> bool;

    /// Begins to work on this, or to rest; tells the unit of its work, which is none where it does not know the load.
    fn work(&mut self, work: Option<Work>) -> Option<&'static str>;

    /// The clocks in MHz of its parts that work; rates are shared out by them.
    fn clocks(&self) -> Vec<f64>;

    /// How far these clocks are really reached, of 1.
    fn reached(&self) -> f64 {
        1.0
    }

    /// Lets a tick of so many seconds go by, and tells of each part that works.
    ///
    /// Returns why it has been holding back for too long to count as doing what it was set to; none where it has not.
    fn tick(&mut self, seconds: f64, parts: &mut Vec<Strained>) -> Option<String>;

    /// What a sensor reads, given the noise of a meter as a draw of mean 0 and deviation 1.
    fn reading(&self, source: &str, noise: f64) -> Option<f64>;

    /// What goes wrong when a part that works fails now.
    fn failure(&self, part: usize, random: &mut Stream) -> Incident;

    /// Whether its settings that take effect at once are back at stock after this happened, though the machine lives on.
    fn loses_on(&self, _kind: IncidentKind) -> bool {
        false
    }

    /// It starts anew, and may come up with less than it was set to, or not at all; tells what went wrong.
    fn starts_anew(&mut self, _random: &mut Stream) -> Option<Incident> {
        None
    }

    /// Whether somebody who changes something on it has to switch the machine off for it.
    fn is_off_while_changed(&self) -> bool {
        false
    }

    /// What it makes of its settings where that is not what they were set to, as it reports them.
    fn rounds_to(&self) -> Vec<(String, Decimal)> {
        Vec::new()
    }

    /// What its screen says at the end of a load, where somebody has to read it there: by this rate of its work, and where the picture
    /// was garbled with that to be seen.
    fn screen(&self, _load: &str, _rate: f64, _is_garbled: bool) -> Vec<(String, String)> {
        Vec::new()
    }

    /// The true voltage that it gets now, V, where it has one.
    fn voltage(&self) -> Option<f64> {
        None
    }

    /// The same device once more.
    fn copy(&self) -> Box<dyn Device>;
}

impl Clone for Box<dyn Device> {
    fn clone(&self) -> Self {
        self.copy()
    }
}
