//! What the rig scores at stock, start by start of the machine: what a start leaves otherwise, and nobody can set, shows there.

use crate::analysis::scores::Measure;
use crate::inference::scatter::{Scatter, scatter};
use crate::model::verdict::Verdict;
use crate::story::{Story, TrialStory};

/// The scores of a measure in the baseline, one group for each start of the machine that it was spread over. Trials that were found
/// to be disturbed do not count.
pub fn by_start(story: &Story, what: &Measure) -> Vec<Vec<f64>> {
    let disturbed: Vec<u32> = story.trials.iter().filter_map(|trial| trial.reason.disturbed()).collect();
    let mut starts: Vec<Vec<f64>> = vec![Vec::new()];
    for trial in story.trials.iter().filter(|trial| story.is_baseline(trial)) {
        if trial.reason.wants_start() {
            starts.push(Vec::new());
        }
        let is_whole = trial.reason.length().is_none();
        let counts = is_whole && trial.verdict == Some(Verdict::Held) && !disturbed.contains(&trial.number);
        let scores = scores_in(trial, what).filter(|_| counts);
        starts.last_mut().into_iter().for_each(|start| start.extend(scores.clone()));
    }
    starts.retain(|start| !start.is_empty());
    starts
}

/// How much a measure scatters from start to start, and within one; none where the baseline was not spread over several.
pub fn between_starts(story: &Story, what: &Measure) -> Option<Scatter> {
    scatter(&by_start(story, what))
}

/// The scores that others are compared with: of each of several starts the first, since what is measured after a start of its own
/// varies as starts do.
pub(super) fn reference(story: &Story, what: &Measure) -> Vec<f64> {
    let starts = by_start(story, what);
    match &starts[..] {
        [only] => only.clone(),
        several => several.iter().filter_map(|start| start.first().copied()).collect(),
    }
}

/// What the passes of a trial scored of a measure.
pub(super) fn scores_in<'a>(trial: &'a TrialStory, what: &'a Measure) -> impl Iterator<Item = f64> + Clone + 'a {
    trial.passes.iter().filter_map(|pass| what.score_of(pass))
}
