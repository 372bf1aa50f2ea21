//! What a load is to the frame.

use std::io;
use std::time::Duration;

use crate::kernel::Kernel;

/// What is to be known of a load before it works.
#[derive(Clone, Copy, Debug)]
pub struct About {
    /// Its name, as in `dense`.
    pub name: &'static str,
    /// What it makes work, in a few words.
    pub stresses: &'static str,
    /// What the size of its problem counts, as in `unknowns`.
    pub size_name: &'static str,
    /// The unit of its rate, as in `GFLOP/s`.
    pub unit: &'static str,
    /// The size where nobody says otherwise.
    pub usual_size: u64,
    /// The smallest size that makes sense, and the largest.
    pub sizes: (u64, u64),
    /// Whether the rates of all cores add up to one of the machine; else the mean core's stands for it.
    pub adds_up: bool,
}

/// A kind of load.
pub trait Load: Sync {
    /// What is to be known of it.
    fn about(&self) -> &About;

    /// The nearest size that the load can have, not above this one where there is a smaller one.
    fn nearest(&self, size: u64) -> u64 {
        let (smallest, largest) = self.about().sizes;
        size.clamp(smallest, largest)
    }

    /// Memory that one core holds at this size, bytes.
    fn bytes(&self, size: u64) -> u64;

    /// Work of one round at this size, in the unit of the rate times a second.
    fn work(&self, size: u64) -> f64;

    /// What the time of a round at this size goes with, where that is not its work.
    fn effort(&self, size: u64) -> f64 {
        self.work(size)
    }

    /// How long a core sleeps in one round at this size at the most.
    fn rests(&self, _size: u64) -> Duration {
        Duration::ZERO
    }

    /// The work of one core at this size, with the memory it needs.
    ///
    /// # Errors
    /// When the system has not so much memory.
    fn begin(&self, kernel: Kernel, size: u64, seed: u64) -> io::Result<Box<dyn Work>>;

    /// The largest size whose memory is not above this many bytes on one core, and the smallest where none is; the
    /// usual one where memory does not depend on it.
    fn size_for(&self, bytes: u64) -> u64 {
        let (mut below, mut above) = self.about().sizes;
        if self.bytes(below) == self.bytes(above) {
            return self.about().usual_size;
        }
        while below < above {
            let middle = below + (above - below).div_ceil(2);
            if self.bytes(self.nearest(middle)) <= bytes {
                below = middle;
            } else {
                above = middle - 1;
            }
        }
        self.nearest(below)
    }
}

/// The work of one core.
pub trait Work {
    /// Puts everything that a round starts from, tables that last included, back to what the seed stands for.
    fn restart(&mut self);

    /// The size that it works at, in the load's own measure.
    fn size(&self) -> u64;

    /// A digest of everything that lasts from round to round and that rounds start from; always the same where nothing does.
    fn inputs(&self) -> u64 {
        0
    }

    /// Works one round and checks what can be checked within it; lets `touch` strike where faults could.
    fn round(&mut self, touch: &mut Touch) -> Option<Fault>;

    /// A digest of each part of the round's result. A round's are the same as any other round's from the same seed,
    /// on any core, or something is wrong; empty where the rounds check everything themselves.
    fn digests(&self) -> &[u64] {
        &[]
    }

    /// The same, to be made useless before a round: what a round leaves out shows then.
    fn digests_mut(&mut self) -> &mut [u64] {
        &mut []
    }

    /// What the digest of this number is of, as in `tile 3, 5`.
    fn part(&self, index: usize) -> String {
        format!("part {}", index + 1)
    }

    /// A check that says something about a result by itself, made of those that a reference is taken from, and of
    /// those that differ from it.
    fn inspect(&mut self) -> Option<Fault> {
        None
    }

    /// Whether its rate is a measurement of its own, in the load's unit, and not work over time.
    fn reading(&self) -> Option<f64> {
        None
    }
}

/// Something wrong with a result.
#[derive(Clone, Debug, PartialEq)]
pub struct Fault {
    /// What is wrong.
    pub kind: FaultKind,
    /// Where in the result, where that is known.
    pub part: Option<String>,
    /// What was expected, as bits or a bound.
    pub expected: String,
    /// What was found.
    pub found: String,
    /// Whether the same place was wrong again when it was read or worked again at once; none where nobody tried.
    pub repeats: Option<bool>,
}

/// What kind of thing a fault is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, serde::Serialize, serde::Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum FaultKind {
    /// A result was wrong.
    Result,
    /// A word in memory was not what had been written.
    Memory,
    /// A picture was not as it was to be.
    Artefact,
}

impl Fault {
    /// A wrong result, with what was expected and found.
    pub fn result(expected: impl Into<String>, found: impl Into<String>) -> Self {
        Self { kind: FaultKind::Result, part: None, expected: expected.into(), found: found.into(), repeats: None }
    }

    /// What results are compared with is no longer what it was.
    pub(crate) fn of_reference(part: &str) -> Self {
        let fault = Self::result("the reference as it was found", "another one").in_part(part);
        Self { kind: FaultKind::Memory, ..fault }
    }

    /// The same fault in a part of the result.
    #[must_use]
    pub fn in_part(mut self, part: impl Into<String>) -> Self {
        self.part = Some(part.into());
        self
    }
}

/// Where a round may be disturbed.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Site {
    /// The processor.
    pub core: usize,
    /// Which of its rounds, from 1.
    pub round: u64,
    /// What is about to be used, as in `factors`.
    pub what: &'static str,
}

/// Something that disturbs the work, as tests do to see that every check catches it.
pub trait Disturb: Send + Sync {
    /// Called with the bytes of what is about to be used.
    fn strike(&self, site: Site, bytes: &mut [u8]);
}

/// Nothing disturbs the work.
pub struct NoDisturbance;

impl Disturb for NoDisturbance {
    fn strike(&self, _: Site, _: &mut [u8]) {}
}

/// A round's way to let itself be disturbed.
pub struct Touch<'a> {
    pub(super) disturb: &'a dyn Disturb,
    pub(super) core: usize,
    pub(super) round: u64,
}

impl<'a> Touch<'a> {
    /// For a round outside any run.
    pub fn of(disturb: &'a dyn Disturb, core: usize, round: u64) -> Self {
        Self { disturb, core, round }
    }

    /// Lets these numbers be disturbed before they are used.
    pub fn at<T: bytemuck::Pod>(&mut self, what: &'static str, numbers: &mut [T]) {
        let site = Site { core: self.core, round: self.round, what };
        self.disturb.strike(site, bytemuck::cast_slice_mut(numbers));
    }
}
