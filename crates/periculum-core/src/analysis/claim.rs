//! What a mark is worth: how often its rung survives its proof, by everything that the climb has seen of it and of rungs around it.

use std::collections::BTreeSet;

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;

use crate::engine::Mark;
use crate::inference::hazard::{Observation, Survival};
use crate::inference::laws::Laws;
use crate::model::axis::Axis;
use crate::model::incident_kind::IncidentKind;
use crate::model::moment::Span;
use crate::model::pass::Threads;
use crate::model::plan::{Plan, Proof};
use crate::model::rig::Rig;
use crate::model::rung::Rung;
use crate::model::strategy::{Assurance, Steps};
use crate::model::verdict::Verdict;
use crate::story::{PassStory, Story, TrialStory};

/// A proof that is longer than this many times the longest trial that counts says nothing: that is too far to reach.
const REACH: f64 = 20.0;

/// What lies farther from the rung than this, in steps, says nothing of it.
const NEAR: f64 = 40.0;

/// What can be said of a rung under a proof.
#[derive(Clone, Debug, PartialEq)]
pub struct Claim {
    /// The proof's name.
    pub proof: String,
    /// What is wanted of the rung.
    pub wants: Assurance,
    /// How often the rung survives it, as sure as is wanted; none where the proof is too long for what was seen.
    pub survival: Option<Survival>,
    /// How many trials that fell it rests on.
    pub falls: u32,
    /// How many that held.
    pub holds: u32,
    /// The longest of them.
    pub longest: Span,
    /// How many earlier climbs of rigs of its kind, which said before what is to be expected.
    pub earlier: u32,
    /// What is more likely than not of the law by which the rig fails, and widens what can be said.
    pub suspects: Vec<Suspect>,
}

/// Why a rig does not fail by its limit alone.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Suspect {
    /// Something fails at every rung, about once in so many hours.
    Background {
        /// So many.
        hours: f64,
    },
    /// Failures grow rarer only slowly towards easier rungs.
    Flatter,
}

/// What is at least as likely as this is suspected.
const LIKELY: f64 = 0.5;

impl Suspect {
    fn all(laws: &Laws) -> Vec<Self> {
        let (likely, hours) = laws.background();
        let background = (likely >= LIKELY).then_some(Self::Background { hours });
        background.into_iter().chain((laws.flatter() >= LIKELY).then_some(Self::Flatter)).collect()
    }
}

/// One trial beside the rung.
struct Seen {
    /// How much harder its rung is, in steps.
    distance: f64,
    observation: Observation,
    ran: Span,
}

impl Claim {
    /// What a climb says of a rung of one of its stages, in the state that the rig has now, under a proof of its plan; none of proofs
    /// that take no time by themselves, and where nothing comparable was tried.
    pub fn of(story: &Story, rig: &Rig, plan: &Plan, (rung, stage): (&Rung, usize), proof: usize) -> Option<Self> {
        let wants = plan.stages.get(stage).and_then(|stage| stage.wants).unwrap_or_default();
        let proof = plan.proofs.get(proof)?;
        let target = proof.length().seconds();
        let axis = axis(story, rig, plan, (rung, stage));
        let works = works(proof);
        let seen = |trial: &TrialStory| {
            let (observation, ran) = observation(trial, &works).filter(|_| trial.state == story.last_state())?;
            let distance = axis.distance(rung, &trial.rung, matches!(observation, Observation::Held(_)))?;
            (distance.abs() <= NEAR).then_some(Seen { distance, observation, ran })
        };
        let seen: Vec<Seen> = story.trials.iter().filter_map(seen).collect();
        if seen.is_empty() || target <= 0.0 {
            return None;
        }
        let farthest = seen.iter().map(|one| one.distance).fold(0.0, f64::max);
        let kind = axis.kind(&story.kinds, proof);
        let mut laws = axis.laws(rig, &plan.use_name, (rung, farthest), kind);
        seen.iter().for_each(|one| laws.observe(one.distance, one.observation));
        let holds = seen.iter().filter(|one| matches!(one.observation, Observation::Held(_))).count();
        let longest = seen.iter().map(|one| one.ran).max().unwrap_or(Span::ZERO);
        let is_in_reach = target <= REACH * longest.seconds();
        Some(Self {
            proof: proof.name.clone(),
            survival: is_in_reach.then(|| laws.survival(0.0, target, to_float(wants.sure))),
            wants,
            falls: (seen.len() - holds) as u32,
            holds: holds as u32,
            longest,
            earlier: kind.map_or(0, |kind| kind.climbs),
            suspects: Suspect::all(&laws),
        })
    }

    /// The same under the proof that the mark held.
    pub fn of_mark(story: &Story, rig: &Rig, plan: &Plan, mark: &Mark) -> Option<Self> {
        let proof = plan.proofs.iter().position(|proof| proof.name == mark.proof)?;
        Self::of(story, rig, plan, (&mark.rung, mark.stage), proof)
    }

    /// Whether the rung may be called as good for the proof as is wanted, as surely as is wanted.
    pub fn is_sure(&self) -> bool {
        self.survival.is_some_and(|survival| survival.low >= to_float(self.wants.survives))
    }
}

fn to_float(share: Decimal) -> f64 {
    share.to_f64().unwrap_or(1.0)
}

/// The settings along which a stage found a rung.
fn axis<'a>(story: &Story, rig: &'a Rig, plan: &Plan, (rung, stage): (&Rung, usize)) -> Axis<'a> {
    let steps: Vec<&Steps> = plan.stages.iter().flat_map(|stage| stage.strategy.steps()).collect();
    let of_stage: Vec<&TrialStory> = story.trials.iter().filter(|trial| trial.stage == stage).collect();
    let was_moved = |name: &str| of_stage.iter().any(|trial| trial.rung.get(name) != rung.get(name));
    let climbed = plan.stages.get(stage).and_then(|stage| stage.strategy.setting());
    Axis::new(rig, &plan.use_name, &steps, climbed, was_moved)
}

/// What a proof is made of, however long each of it takes.
fn works(proof: &Proof) -> BTreeSet<(&str, Threads)> {
    proof.passes.iter().map(|pass| (pass.load.as_str(), pass.threads)).collect()
}

/// What a trial says of its rung under these works, and how long it was at them: an error is a fall, and what has other reasons says
/// only that there was none so far.
pub(super) fn observation(trial: &TrialStory, works: &BTreeSet<(&str, Threads)>) -> Option<(Observation, Span)> {
    let counts = |pass: &&PassStory| works.contains(&(pass.order.load.as_str(), pass.order.threads));
    let verdict = trial.verdict.filter(|verdict| *verdict != Verdict::Void)?;
    let is_error = verdict == Verdict::Fell || trial.incident == Some(IncidentKind::CorrectedError);
    let is_of_works = trial.passes.last().is_none_or(|last| counts(&last));
    let ran: Span = match trial.passes.iter().all(|pass| counts(&pass)) {
        true => trial.tested,
        false => trial.passes.iter().filter(counts).filter_map(|pass| pass.report.as_ref()).map(|it| it.ran).sum(),
    };
    let observation = match is_error && is_of_works {
        true => Observation::Fell(ran.seconds()),
        false => Observation::Held(ran.seconds()),
    };
    (is_error && is_of_works || ran > Span::ZERO).then_some((observation, ran))
}
