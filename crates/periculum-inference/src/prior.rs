//! What is believed of the laws by which a rig may fail before anything is seen.

use libm::{exp, log};
use serde::{Deserialize, Serialize};

use crate::worked::Worked;

/// Slopes are so many times less or more than expected at most, as a power of e.
const SLOPES: f64 = 2.1;
const SLOPE_POINTS: usize = 15;

/// So many points tell slopes apart where all are as likely, and what is known of them comes from elsewhere.
const EVEN_POINTS: usize = 29;

/// What is expected is spread by Student's t distribution of so many degrees of freedom, whose long tails let a rig that is different
/// be believed.
const FREEDOM: f64 = 6.0;

/// The scale of the logarithm of slopes where nothing is known of their kind.
pub(super) const SLOPE_SPREAD: f64 = 0.45;

/// Where a limit is expected, it may be anywhere else with about this weight beside that of what is expected: it is another kind.
const WRONG_KIND: f64 = 0.01;

/// How slowly failures grow rarer on the easier side, and the share of rigs that are so: at the same pace as they grow more frequent,
/// ever more slowly, or more slowly where a second mechanism is left that gives way less.
const TAILS: [(Tail, f64); 3] = [
    (Tail { depth: 0.0, flatness: 1.0 }, 0.74),
    (Tail { depth: 0.0, flatness: 0.58 }, 0.16),
    (Tail { depth: 4.0, flatness: 0.35 }, 0.10),
];

/// The same as the rules of 8 had it.
const TAILS_OF_8: [(Tail, f64); 3] = [
    (Tail { depth: 0.0, flatness: 1.0 }, 0.74),
    (Tail { depth: 0.0, flatness: 0.65 }, 0.16),
    (Tail { depth: 4.0, flatness: 0.35 }, 0.10),
];

/// The same as the rules of 7 had it.
const TAILS_OF_7: [(Tail, f64); 3] = [
    (Tail { depth: 0.0, flatness: 1.0 }, 0.74),
    (Tail { depth: 0.0, flatness: 0.7 }, 0.12),
    (Tail { depth: 0.0, flatness: 0.4 }, 0.06),
];

/// What fails at every rung, in hours from one failure to the next, and the share of rigs that have it: something else than what is
/// climbed, or another setting that is at its own limit.
pub(super) const BACKGROUND: [(f64, f64); 6] =
    [(f64::INFINITY, 0.87), (100.0, 0.08), (20.0, 0.015), (4.0, 0.015), (1.0, 0.01), (0.25, 0.01)];

/// How many backgrounds are told apart.
pub const BACKGROUND_COUNT: usize = BACKGROUND.len();

/// The same in failures in a second.
pub(super) const BACKGROUNDS: [f64; BACKGROUND_COUNT] = {
    let (mut all, mut at) = ([0.0; BACKGROUND_COUNT], 0);
    while at < all.len() {
        all[at] = 1.0 / (3600.0 * BACKGROUND[at].0);
        at += 1;
    }
    all
};

/// How failures grow rarer on the easier side of a limit.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize)]
pub struct Tail {
    /// From where they are rarer than at the limit by so many factors of e …
    pub depth: f64,
    /// … the slope is this share of that on the harder side.
    pub flatness: f64,
}

impl Tail {
    /// Whether failures grow rarer more slowly than they grow more frequent.
    pub(super) fn is_flat(&self) -> bool {
        self.flatness < 1.0
    }
}

/// What is expected before anything is seen, in steps.
#[derive(Clone, Debug, PartialEq)]
pub struct Prior {
    /// How rigs may fail.
    pub mechanisms: Vec<Mechanism>,
    /// Where the limit is, and give or take how much; anywhere where nobody knows.
    pub limit: Option<(f64, f64)>,
    /// What it did at stock before.
    pub used: Worked,
    /// Whether what is said has to be as sure by each mechanism alone as by all of them together.
    pub by_each: bool,
}

/// What is believed of rigs before anything is seen of them.
#[derive(Clone, Copy)]
pub struct Beliefs {
    /// Of one of which nothing is known but what is usual for steps of such a slope.
    pub usual: fn(f64) -> Prior,
    /// So few earlier climbs of a kind say where its limits lie and no more: a fall or two each tell next to nothing of slopes.
    pub few: u32,
    /// Whether what is said of one whose kind is known has to be as sure by each mechanism alone as by all of them together.
    pub by_each: bool,
}

impl Beliefs {
    /// By the rules of now.
    pub const PRESENT: Self = Self { usual: Prior::usual, few: 2, by_each: true };
    /// By those of 9.
    pub const OF_9: Self = Self { few: 0, ..Self::PRESENT };
    /// By those of 8.
    pub const OF_8: Self = Self { usual: Prior::of_8, by_each: false, ..Self::OF_9 };
    /// By those of 7.
    pub const OF_7: Self = Self { usual: |slope| Prior::of_7(slope, None), ..Self::OF_8 };
    /// By the rules of now, of one of which nobody knows whether it was ever used before.
    pub const UNUSED: Self =
        Self { usual: |slope| Prior { used: Worked::NEVER, ..Prior::usual(slope) }, ..Self::PRESENT };
}

/// Rigs that give way equally slowly on the easier side of their limit.
#[derive(Clone, Debug, PartialEq)]
pub struct Mechanism {
    /// How.
    pub tail: Tail,
    /// The share of all rigs that are of it, by what else fails, from nothing to most.
    pub shares: [f64; BACKGROUND_COUNT],
    /// Slopes on the harder side in factors of e a step, and the logarithm of the weight of each.
    slopes: Vec<(f64, f64)>,
}

impl Mechanism {
    /// Rigs whose slopes are expected around this one, in factors of e a step; their logarithms have this scale.
    pub fn expected(tail: Tail, slope: f64, spread: f64, shares: [f64; BACKGROUND_COUNT]) -> Self {
        let slopes = slope_powers(spread).map(|(power, weight)| (slope * exp(power), log(weight)));
        Self { tail, shares, slopes: slopes.to_vec() }
    }

    /// Rigs all of whose slopes around this one are as likely.
    fn even(tail: Tail, slope: f64) -> Self {
        let power = |index: usize| SLOPES * (2.0 * index as f64 / (EVEN_POINTS - 1) as f64 - 1.0);
        let slopes = (0..EVEN_POINTS).map(|index| (slope * exp(power(index)), 0.0)).collect();
        Self { tail, shares: [1.0; BACKGROUND_COUNT], slopes }
    }

    /// Its slopes, and for each and each background the logarithm of its weight.
    pub(super) fn weighed(&self) -> impl Iterator<Item = (f64, [f64; BACKGROUND_COUNT])> {
        let of_shares = self.shares.map(log);
        self.slopes.iter().map(move |(slope, of_slope)| (*slope, of_shares.map(|of_share| of_slope + of_share)))
    }
}

impl Prior {
    /// Where nothing is known but what is usual for such steps.
    pub fn usual(slope: f64) -> Self {
        Self { used: Worked::USUALLY, ..Self::with(&TAILS, slope, SLOPE_SPREAD) }
    }

    /// The same as the rules of 8 had it.
    pub fn of_8(slope: f64) -> Self {
        Self::with(&TAILS_OF_8, slope, SLOPE_SPREAD)
    }

    /// The same as the rules of 7 had it, with slopes spread so far.
    pub fn of_7(slope: f64, spread: Option<f64>) -> Self {
        Self::with(&TAILS_OF_7, slope, spread.unwrap_or(SLOPE_SPREAD))
    }

    /// Where all laws are as likely, for whoever only wants to know what was seen.
    pub fn even(slope: f64) -> Self {
        Self { used: Worked::USUALLY, ..Self::of(TAILS.map(|(tail, _)| Mechanism::even(tail, slope)).to_vec()) }
    }

    /// Of rigs of these mechanisms, whose limit may be anywhere, that were never used: all mechanisms together count.
    pub fn of(mechanisms: Vec<Mechanism>) -> Self {
        Self { mechanisms, limit: None, used: Worked::NEVER, by_each: false }
    }

    fn with(tails: &[(Tail, f64)], slope: f64, spread: f64) -> Self {
        let mechanism = |(tail, share): &(Tail, f64)| {
            Mechanism::expected(*tail, slope, spread, BACKGROUND.map(|(_, of)| share * of))
        };
        Self::of(tails.iter().map(mechanism).collect())
    }

    /// The logarithm of the weight of a limit.
    pub(super) fn of_limit(&self, limit: f64) -> f64 {
        let Some((mean, spread)) = self.limit else { return 0.0 };
        log(student((limit - mean) / spread) + WRONG_KIND)
    }
}

/// The density of Student's t distribution, but for a factor.
pub(super) fn student(off: f64) -> f64 {
    exp(-0.5 * (FREEDOM + 1.0) * log(1.0 + off * off / FREEDOM))
}

/// Points from which a slope is chosen, as powers of e and what each counts for: dense where it is expected, and out to where no rig's is.
fn slope_powers(spread: f64) -> [(f64, f64); SLOPE_POINTS] {
    let half = (SLOPE_POINTS / 2) as f64;
    let (near, cubic) = (0.4 * spread, (SLOPES - 0.4 * spread * half).max(0.0) / (half * half * half));
    std::array::from_fn(|index| {
        let place = index as f64 - half;
        let width = near + 3.0 * cubic * place * place;
        let power = near * place + cubic * place * place * place;
        (power, student(power / spread) * width)
    })
}
