//! Trials and climbs that were picked to be compared.

use periculum_core::analysis::contrast::{Fact, facts_of_climb, facts_of_trial};

use super::climbed::Climbed;
use super::telling;

/// Something that was picked.
pub(super) struct Picked {
    pub(super) climb: i64,
    /// The trial; none for the climb as a whole.
    pub(super) trial: Option<u32>,
    /// What it is, and which specimen of which rig.
    pub(super) title: [String; 2],
    pub(super) facts: Vec<Fact>,
}

impl Picked {
    /// A climb, or one of its trials; none where it has no such trial.
    pub(super) fn of(climbed: &Climbed, trial: Option<u32>) -> Option<Self> {
        let Climbed { number, story, rig, plan, traces, .. } = climbed;
        let facts = match trial {
            None => facts_of_climb(story, rig, plan, traces),
            Some(trial) => facts_of_trial(story.trial(trial)?, story, rig, plan, traces),
        };
        let what = trial.map_or_else(|| telling::climb(*number), |trial| telling::trial_of_climb(trial, *number));
        let seed = telling::seed_words(climbed.seed);
        Some(Self { climb: *number, trial, title: [what, format!("{}{seed}, {}", rig.name, plan.name)], facts })
    }

    /// Whether it is this climb, or this trial of it.
    fn is(&self, climb: i64, trial: Option<u32>) -> bool {
        (self.climb, self.trial) == (climb, trial)
    }
}

/// What was picked, in the order in which it was.
#[derive(Default)]
pub(super) struct Picks(Vec<Picked>);

impl Picks {
    /// What was picked before, in front of what has been picked since.
    pub(super) fn restore(&mut self, before: Vec<Picked>) {
        let since = std::mem::take(&mut self.0);
        let is_new = |picked: &Picked| !before.iter().any(|old| old.is(picked.climb, picked.trial));
        let since: Vec<Picked> = since.into_iter().filter(is_new).collect();
        self.0 = before.into_iter().chain(since).collect();
    }

    pub(super) fn iter(&self) -> impl Iterator<Item = &Picked> {
        self.0.iter()
    }

    pub(super) fn count(&self) -> usize {
        self.0.len()
    }

    pub(super) fn has(&self, climb: i64, trial: Option<u32>) -> bool {
        self.0.iter().any(|picked| picked.is(climb, trial))
    }

    /// The trials of this climb that were picked.
    pub(super) fn trials_of(&self, climb: i64) -> impl Iterator<Item = u32> {
        self.0.iter().filter(move |picked| picked.climb == climb).filter_map(|picked| picked.trial)
    }

    /// Picks it.
    pub(super) fn pick(&mut self, climbed: &Climbed, trial: Option<u32>) {
        self.0.extend(Picked::of(climbed, trial));
    }

    /// Puts it back.
    pub(super) fn put_back(&mut self, climb: i64, trial: Option<u32>) {
        self.0.retain(|picked| !picked.is(climb, trial));
    }

    /// Puts the last one back.
    pub(super) fn drop_last(&mut self) {
        self.0.pop();
    }

    /// Looks again at what was picked of this climb, which may have gone on.
    pub(super) fn look_again(&mut self, climbed: &Climbed) {
        for picked in self.0.iter_mut().filter(|picked| picked.climb == climbed.number) {
            if let Some(now) = Picked::of(climbed, picked.trial) {
                *picked = now;
            }
        }
    }
}
