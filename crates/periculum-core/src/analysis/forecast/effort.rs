//! What climbs take, and what several of them say of the next one.

use crate::model::moment::Span;

/// The share of climbs that lies between the least and the most.
const WITHIN: f64 = 0.9;

/// What a climb takes.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Effort {
    /// How long passes run, and the rig rests, together.
    pub time: Span,
    /// How many trials there are.
    pub trials: u32,
    /// How often somebody has to change something by hand.
    pub by_hand: u32,
    /// How often the machine has to be started anew for a change.
    pub restarts: u32,
}

impl Effort {
    pub(super) fn with(self, other: &Self) -> Self {
        Self::each(|of| of(&self) + of(other))
    }

    /// The middle of several.
    pub(super) fn middle(all: &[Self]) -> Self {
        Self::each(|of| {
            let mut sorted: Vec<u64> = all.iter().map(of).collect();
            sorted.sort_unstable();
            sorted[sorted.len() / 2]
        })
    }

    /// From the least to the most of several, and beyond by as much as so few of them may have missed.
    pub(super) fn range(all: &[Self]) -> [Self; 2] {
        let count = all.len() as f64;
        let stretch = (WITHIN * (count + 1.0) / (count - 1.0) - 1.0).max(0.0) / 2.0;
        let ends = |of: fn(&Self) -> u64| {
            let (least, most) = all.iter().map(of).fold((u64::MAX, 0), |(a, b), one| (a.min(one), b.max(one)));
            let beyond = (stretch * (most - least) as f64).round() as u64;
            // What something takes is never foretold as nothing.
            (least.saturating_sub(beyond).max(least / 2), most + beyond)
        };
        [Self::each(|of| ends(of).0), Self::each(|of| ends(of).1)]
    }

    /// Each figure for itself: what takes least time need not take the fewest trials.
    fn each(of: impl Fn(fn(&Self) -> u64) -> u64) -> Self {
        let count = |figure: fn(&Self) -> u64| u32::try_from(of(figure)).unwrap_or(u32::MAX);
        Self {
            time: Span::from_millis(of(|effort| effort.time.millis())),
            trials: count(|effort| effort.trials.into()),
            by_hand: count(|effort| effort.by_hand.into()),
            restarts: count(|effort| effort.restarts.into()),
        }
    }
}
