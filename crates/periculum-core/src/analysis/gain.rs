//! What a mark gains over stock: of harder rungs that do not stand nothing is told here, though they gain more.

use std::collections::BTreeMap;

use crate::analysis::faster::Faster;
use crate::analysis::scores::{Benchmark, Measure, benchmarks};
use crate::engine::Mark;
use crate::inference::comparison::Comparison;
use crate::model::pass::Score;
use crate::model::plan::Plan;
use crate::model::rig::Rig;
use crate::story::Story;
use crate::story::series::Series;

/// What a mark gains, and by what that is known.
#[derive(Clone, Debug, PartialEq)]
pub enum Gain {
    /// By everything that was measured with its noise in its trial and at stock.
    Faster(Faster),
    /// It is stock.
    AtStock,
    /// By all scores of its level of the first thing that was measured at both.
    Level(Measure, Comparison),
    /// By the score of its trial.
    Trial(Score, Comparison),
}

impl Gain {
    /// What a mark of a climb gains; none where nothing was measured at both.
    pub fn of_mark(
        mark: &Mark,
        (story, rig, plan): (&Story, &Rig, &Plan),
        traces: &BTreeMap<String, Series>,
    ) -> Option<Self> {
        let trial = story.trial(mark.trial)?;
        if let Some(faster) = Faster::of(story, trial) {
            return Some(Self::Faster(faster));
        }
        if mark.rung == rig.stock() {
            return Some(Self::AtStock);
        }
        let at_mark = |Benchmark { what, levels, .. }: &Benchmark| {
            let level = levels.iter().find(|level| level.trials.contains(&mark.trial))?;
            Some(Self::Level(what.clone(), level.over_baseline?.of_scores(what.less_is_better)))
        };
        let of_level = benchmarks(story, rig, plan, traces).iter().find_map(at_mark);
        of_level.or_else(|| story.gain_of(trial).map(|(score, gain)| Self::Trial(score.clone(), gain)))
    }
}
