//! What a climb has seen along one setting, from stock up to a mark and beyond.

use super::ground::{Ground, Seen, neighbour};
use crate::inference::hazard::Observation;
use crate::inference::laws::Laws;
use crate::model::axis::Axis;
use crate::model::plan::Proof;
use crate::model::rung::Rung;
use crate::model::strategy::Steps;

/// The rungs of one setting, and what trials of them and beside them say.
pub(super) struct Track {
    /// From stock, or the easiest rung that can be reached, to the hardest that was tried.
    pub(super) rungs: Vec<Rung>,
    /// The place of the mark among them.
    pub(super) mark: usize,
    /// What they say, in steps from the first of them.
    pub(super) laws: Laws,
    /// Whether one of them fell.
    pub(super) has_fallen: bool,
}

impl Track {
    /// What the climb so far says of the rungs around a mark, under the works of a proof.
    pub(super) fn of(steps: &Steps, mark: &Rung, proof: &Proof, ground: Ground) -> Self {
        // Rungs lie a step apart, which is one of the ladder where the plan says none.
        let step = ground.rig.setting(&steps.setting).map(|setting| setting.ladder.widest_gap());
        let steps = &Steps { step: steps.step.or(step), ..steps.clone() };
        let mut rungs = from_stock(steps, mark, ground);
        let at_mark = rungs.len() - 1;
        let works = proof.works();
        let seen: Vec<&Seen> = ground.seen.iter().filter(|seen| seen.works.is_subset(&works)).collect();
        let was_moved = |name: &str| seen.iter().any(|seen| seen.rung.get(name) != mark.get(name));
        let axis = Axis::new(ground.rig, ground.use_name, &[steps], Some(&steps.setting), was_moved);
        let placed = |seen: &&Seen| {
            let has_held = matches!(seen.observation, Observation::Held(_));
            Some((axis.distance(&rungs[0], &seen.rung, has_held)?, seen.observation))
        };
        let placed: Vec<(f64, Observation)> = seen.iter().filter_map(placed).collect();
        let farthest = placed.iter().map(|(rung, _)| *rung).fold(at_mark as f64, f64::max);
        let kind = axis.kind(ground.kinds, proof);
        let mut laws = axis.laws(ground.rig, ground.use_name, (&rungs[0], farthest), kind, ground.beliefs());
        placed.iter().for_each(|(rung, observation)| laws.observe(*rung, *observation));
        while (rungs.len() as f64) <= farthest {
            let Ok(harder) = neighbour(steps, steps.step, &rungs[rungs.len() - 1], ground, true) else { break };
            rungs.push(harder);
        }
        let has_fallen = placed.iter().any(|(_, observation)| !matches!(observation, Observation::Held(_)));
        Self { rungs, mark: at_mark, laws, has_fallen }
    }
}

/// This rung and all easier ones down to stock, from the easiest on.
fn from_stock(steps: &Steps, mark: &Rung, ground: Ground) -> Vec<Rung> {
    let stock = ground.rig.setting(&steps.setting).map(|setting| setting.stock);
    let mut rungs = vec![mark.clone()];
    while rungs[rungs.len() - 1].get(&steps.setting) != stock {
        let Ok(easier) = neighbour(steps, steps.step, &rungs[rungs.len() - 1], ground, false) else { break };
        rungs.push(easier);
    }
    rungs.reverse();
    rungs
}
