//! Whether a rung is faster than stock, by everything that its proof measures: more of one may be less of another.

use crate::analysis::at_stock::{reference, scores_in};
use crate::analysis::scores::Measure;
use crate::inference::comparison::{Comparison, Says, compare};
use crate::inference::statistics::mean;
use crate::model::verdict::Verdict;
use crate::story::{Story, TrialStory};

/// What a trial's scores say of its rung beside stock.
#[derive(Clone, Debug, PartialEq)]
pub struct Faster {
    /// What they say together.
    pub says: Pace,
    /// How each differs from what it was at stock, in the order in which they were measured.
    pub by: Vec<(Measure, Comparison)>,
}

/// What several scores say together.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Pace {
    /// Some are clearly better, and none is clearly worse.
    Faster,
    /// Some are clearly worse, and none is clearly better.
    Slower,
    /// Some are clearly better, others clearly worse.
    Mixed,
    /// None is clearly another.
    Alike,
}

impl Faster {
    /// Of a trial that did not fall; none of the baseline itself, where fewer than two measures are known at stock with their noise, or
    /// where nothing else than at stock was measured.
    pub fn of(story: &Story, trial: &TrialStory) -> Option<Self> {
        if story.is_baseline(trial) || !matches!(trial.verdict, Some(Verdict::Held | Verdict::Slipped)) {
            return None;
        }
        let mut measures: Vec<Measure> = Vec::new();
        for measure in trial.passes.iter().flat_map(Measure::of_pass) {
            if !measures.contains(&measure) {
                measures.push(measure);
            }
        }
        let compared = measures.into_iter().filter_map(|what| {
            let here: Vec<f64> = scores_in(trial, &what).collect();
            // Several passes of one trial have no noise of their own beside that of its start.
            let comparison = compare(&reference(story, &what), &[mean(&here)]);
            comparison.low.is_finite().then_some((what, comparison))
        });
        let by: Vec<(Measure, Comparison)> = compared.collect();
        (by.len() > 1).then(|| Self { says: together(&by), by })
    }

    /// Those that are clearly better, or clearly worse.
    pub fn clear(&self, better: bool) -> impl Iterator<Item = &(Measure, Comparison)> {
        self.by.iter().filter(move |(what, comparison)| is_better(what, comparison) == Some(better))
    }
}

/// Whether a score is better or worse; neither where noise could be all there is.
fn is_better(what: &Measure, comparison: &Comparison) -> Option<bool> {
    match comparison.says() {
        Says::Same => None,
        Says::More => Some(!what.less_is_better),
        Says::Less => Some(what.less_is_better),
    }
}

fn together(by: &[(Measure, Comparison)]) -> Pace {
    let any = |wanted: bool| by.iter().any(|(what, comparison)| is_better(what, comparison) == Some(wanted));
    match (any(true), any(false)) {
        (true, false) => Pace::Faster,
        (false, true) => Pace::Slower,
        (true, true) => Pace::Mixed,
        (false, false) => Pace::Alike,
    }
}
