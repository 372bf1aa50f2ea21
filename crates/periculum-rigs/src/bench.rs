//! The small traits of a rig, as a driver sees it.

use std::collections::BTreeMap;
use std::io;

use periculum_core::model::errand::Errand;
use periculum_core::model::incident::Incident;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{PassOrder, PassReport, Progress};
use periculum_core::model::rung::{Change, InForce};

/// Changes settings.
pub trait Apply {
    /// Makes a change and waits until it is in force.
    ///
    /// # Errors
    /// The incident, when it can't be made or the rig does not survive it.
    fn apply(&mut self, change: &Change) -> Result<(), Incident>;

    /// Makes ready for an errand that somebody completes: what is in force at the next start is written down, several lines of
    /// a file in one step.
    ///
    /// # Errors
    /// The incident, when that is impossible.
    fn prepare(&mut self, _errand: &Errand) -> Result<(), Incident> {
        Ok(())
    }

    /// Puts back what was there before the first change, as far as it takes effect at once; tells what could not be.
    fn put_back(&mut self) -> Vec<String> {
        Vec::new()
    }
}

/// Tells what is in force.
pub trait ReadBack {
    /// The reported value of every setting that can be read; the others are missing.
    fn read_back(&mut self) -> InForce;
}

/// Reads sensors.
pub trait Sense {
    /// The readings of now by sensor name, in each sensor's unit; a sensor that does not answer is missing.
    fn sense(&mut self) -> BTreeMap<String, f64>;

    /// What the hardware counted or the kernel logged since the last call.
    fn noticed(&mut self) -> Vec<Incident> {
        Vec::new()
    }

    /// The other programs that use the processor now, busiest first: name and percent of one core. It may take a moment.
    fn others(&mut self) -> Vec<(String, f64)> {
        Vec::new()
    }
}

/// Something a running pass has to tell.
#[derive(Clone, Debug, PartialEq)]
pub enum PassNews {
    /// It came further.
    Progress(Progress),
    /// It is over; nothing follows.
    Ended(PassReport),
}

/// Restarts the machine by itself when it stands still.
pub trait Guard {
    /// Says that a trial is under way and all goes on: a machine that does not hear this for long starts anew.
    fn guard(&mut self) {}

    /// Says that nothing is tried, so that nothing is to be watched.
    fn stand_down(&mut self) {}
}

/// Runs passes, one at a time.
pub trait RunPasses {
    /// Starts a pass; what becomes of it is told by [`RunPasses::wait`], a failed start as an ended pass.
    fn start(&mut self, order: &PassOrder);

    /// Breaks the running pass off at once; its end is told as usual.
    fn stop(&mut self);

    /// How much later than it was ordered the running pass began to work, since it had to get ready.
    fn late(&self) -> Span {
        Span::ZERO
    }

    /// Lets at most this much of the rig's time go by, less when the pass ends, and tells what the pass has to say.
    fn wait(&mut self, at_most: Span) -> Vec<PassNews>;
}

/// Keeps a rig's time.
pub trait KeepTime {
    /// The time on the rig's clock.
    fn now(&self) -> Moment;

    /// Whether the clock is virtual, so that [`RunPasses::wait`] returns at once.
    fn is_virtual(&self) -> bool;
}

/// Tells which start of which machine a rig is on.
pub trait Identify {
    /// The boot identifier of now, which no two starts share; none where a rig is not started with settings.
    fn boot(&self) -> Option<String> {
        None
    }

    /// Starts the machine anew; it ends this program soon.
    ///
    /// # Errors
    /// Where that can't be done.
    fn restart(&mut self) -> io::Result<()> {
        Err(io::Error::other("this rig is not started with its settings"))
    }
}

/// All that a driver sees of a rig.
pub trait Bench: Apply + ReadBack + Sense + Guard + RunPasses + KeepTime + Identify {}

impl<T: Apply + ReadBack + Sense + Guard + RunPasses + KeepTime + Identify> Bench for T {}
