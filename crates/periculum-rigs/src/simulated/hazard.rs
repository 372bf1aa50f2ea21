//! The clockwork of failures: each part of what works fails when it has taken as much hazard as it was dealt, so that failures
//! are a Poisson process whose rate follows heat and settings.

use periculum_core::model::incident::Incident;
use periculum_core::model::moment::Span;

use super::device::Strained;
use super::random::Stream;

/// How finely time is cut.
pub(super) const TICK: Span = Span::from_millis(250);

/// After so long it is looked at whether a pass still changes.
pub(super) const SETTLED: Span = Span::from_seconds(30);

/// A pass whose hazard changes by a smaller share from one such look to the next goes on in one stride.
const STEADY_ENOUGH: f64 = 1e-3;

/// A pass that runs, or one that has just failed and was not told so far.
#[derive(Clone, Debug)]
pub(super) struct Running {
    pub(super) length: Span,
    pub(super) ran: Span,
    pub(super) random: Stream,
    /// The unit of its work.
    pub(super) unit: &'static str,
    /// For each part the sum of hazard over time at which it fails: an exponential draw makes it a Poisson process.
    endurance: Vec<f64>,
    /// The sum of hazard over time of all parts.
    pub(super) dose: f64,
    /// How it stood when it was last looked at whether anything still changes.
    looked_at: Standing,
    pub(super) work: f64,
    pub(super) end: Option<End>,
}

/// How a pass stood at some time, and what had changed since the time before.
#[derive(Clone, Debug, Default)]
struct Standing {
    ran: Span,
    endurance: Vec<f64>,
    work: f64,
    /// The sum of hazard over time in the settled time before.
    dose: f64,
}

/// How a pass ended.
#[derive(Clone, Debug)]
pub(super) enum End {
    Finished,
    Stopped,
    Failed(Incident),
}

impl Running {
    /// A pass of this length on so many parts, each of which is dealt its endurance.
    pub(super) fn new(length: Span, parts: usize, unit: &'static str, mut random: Stream) -> Self {
        Self {
            length,
            ran: Span::ZERO,
            unit,
            endurance: (0..parts).map(|_| random.exponential()).collect(),
            random,
            dose: 0.0,
            looked_at: Standing::default(),
            work: 0.0,
            end: None,
        }
    }

    /// A pass that nothing ends before its time, for whoever only sums up its hazard.
    pub(super) fn endless(self) -> Self {
        Self { endurance: vec![f64::INFINITY; self.endurance.len()], ..self }
    }

    /// Takes what its parts did and dared in a tick; tells the first that fails of it.
    pub(super) fn take(&mut self, parts: &[Strained]) -> Option<usize> {
        let seconds = TICK.seconds();
        for (part, strained) in parts.iter().enumerate() {
            self.work += strained.work * seconds;
            let dose = strained.hazard * seconds;
            self.dose += dose;
            self.endurance[part] -= dose;
            if self.endurance[part] < 0.0 {
                return Some(part);
            }
        }
        None
    }

    /// Whether its hazard no longer changes, looked at once in a while.
    pub(super) fn has_settled(&mut self, is_steady: bool) -> bool {
        let look = &self.looked_at;
        if self.ran < look.ran + SETTLED {
            return false;
        }
        let taken: f64 = look.endurance.iter().zip(&self.endurance).map(|(before, now)| before - now).sum();
        let is_even = !look.endurance.is_empty() && (taken - look.dose).abs() <= taken * STEADY_ENOUGH;
        if is_even && is_steady {
            return true;
        }
        self.looked_at = Standing { ran: self.ran, endurance: self.endurance.clone(), work: self.work, dose: taken };
        false
    }

    /// Lets it run on as it did since it was looked at: to its end, to just before a part fails, or for at most this long. Tells
    /// how long that was.
    pub(super) fn stride(&mut self, at_most: Span) -> Span {
        let look = std::mem::take(&mut self.looked_at);
        let since = self.ran - look.ran;
        let rates: Vec<f64> =
            look.endurance.iter().zip(&self.endurance).map(|(before, now)| (before - now) / since.seconds()).collect();
        let lives = self.endurance.iter().zip(&rates).map(|(left, rate)| left / rate).fold(f64::INFINITY, f64::min);
        let left = at_most.seconds().min((self.length - self.ran).seconds()).min(lives);
        let ticks = (left / TICK.seconds()).floor() - 1.0;
        if ticks < 1.0 {
            return Span::ZERO;
        }
        let span = Span::from_millis(ticks as u64 * TICK.millis());
        self.endurance.iter_mut().zip(&rates).for_each(|(left, rate)| *left -= rate * span.seconds());
        self.work += (self.work - look.work) / since.seconds() * span.seconds();
        self.ran += span;
        span
    }
}
