//! What a mark is worth: how often its rung survives its proof, by everything that the climb has seen of it and of rungs around it.

use std::collections::BTreeSet;

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;

use crate::engine::{ClimbEnd, Mark};
use crate::inference::drift::Drifting;
use crate::inference::hazard::{Observation, Survival};
use crate::inference::laws::{Aim, Laws};
use crate::inference::prior::Beliefs;
use crate::inference::worked::Worked;
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
    /// What nobody saw, where the claim would not be sure without it.
    pub granted: Option<Granted>,
    /// What is more likely than not of the law by which the rig fails, and widens what can be said.
    pub suspects: Vec<Suspect>,
}

/// What nobody saw of a rig, and for how long it worked so.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Granted {
    /// That it did at stock without a failure, as rigs usually have.
    Usually(Span),
    /// What its owner says, with so many failures.
    Told(Span, u32),
}

impl Granted {
    fn of(rig: &Rig) -> Self {
        if rig.history.is_empty() {
            return Self::Usually(Span::from_seconds(Worked::USUALLY.seconds as u64));
        }
        let told = || rig.history.iter();
        Self::Told(told().map(|one| one.loaded).sum(), told().fold(0, |all: u32, one| all.saturating_add(one.failures)))
    }
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
    /// The limit has moved since the climb began.
    Drift {
        /// By so many steps it came down; less than nothing where it went up.
        steps: f64,
    },
    /// This trial ended as none should have, by everything else that was seen.
    Unlikely {
        /// The trial.
        trial: u32,
    },
}

impl Suspect {
    /// Whether it puts in doubt by which law the rig fails at all, so that nothing is sure.
    fn leaves_nothing_sure(&self) -> bool {
        matches!(self, Self::Drift { .. } | Self::Unlikely { .. })
    }
}

/// What is at least as likely as this is suspected.
const LIKELY: f64 = 0.5;

impl Suspect {
    fn all(laws: &Laws) -> impl Iterator<Item = Self> {
        let (likely, hours) = laws.background();
        let background = (likely >= LIKELY).then_some(Self::Background { hours });
        background.into_iter().chain((laws.flatter() >= LIKELY).then_some(Self::Flatter))
    }
}

/// A fall is told no sooner than this, seconds.
const SHORTEST_FALL: f64 = 5.0;

/// What was less likely than this, divided among all trials, should not have happened.
const UNLIKELY: f64 = 0.01;

/// One trial beside the rung.
struct Seen {
    trial: u32,
    /// How long ago it was: nothing is the last trial, and one the first.
    ago: f64,
    /// How much harder its rung is, in steps.
    distance: f64,
    observation: Observation,
    ran: Span,
}

impl Claim {
    /// What a climb says of a rung of one of its stages, in the state that the rig has now, under a proof of its plan; none of proofs
    /// that take no time by themselves, and where nothing comparable was tried.
    pub fn of(story: &Story, rig: &Rig, plan: &Plan, (rung, stage): (&Rung, usize), proof: usize) -> Option<Self> {
        Self::over(&[], (story, rig, plan), (rung, stage), proof)
    }

    /// The same where these settings count as moved by the stage, whatever it moved.
    pub(super) fn over(
        settings: &[&str],
        climb: (&Story, &Rig, &Plan),
        (rung, stage): (&Rung, usize),
        proof: usize,
    ) -> Option<Self> {
        let known = |beliefs| Known::by(beliefs, settings, climb, (rung, stage), proof);
        let Known { proof, wants, seen, laws, before, earlier, .. } = known(Beliefs::PRESENT)?;
        let aim = wants.aim(proof.length());
        let mut drifting = Drifting::from(&before);
        seen.iter().for_each(|one| drifting.observe(one.distance, one.ago, one.observation));
        let holds = seen.iter().filter(|one| matches!(one.observation, Observation::Held(_))).count();
        let is_in_reach = is_in_reach(proof, &seen);
        let would_be_sure = |laws: &Laws| is_enough(&laws.survival(0.0, aim.proof, aim.sure), &wants);
        let is_granted = is_in_reach
            && would_be_sure(&laws)
            && known(Beliefs::UNUSED).is_some_and(|unused| !would_be_sure(&unused.laws));
        Some(Self {
            proof: proof.name.clone(),
            survival: is_in_reach.then(|| survival(&laws, &drifting, &aim)),
            wants,
            falls: (seen.len() - holds) as u32,
            holds: holds as u32,
            longest: longest(&seen),
            earlier,
            granted: is_granted.then(|| Granted::of(climb.1)),
            suspects: Suspect::all(&laws).chain(drift(&drifting)).chain(unlikely(&laws, &seen)).collect(),
        })
    }

    /// The same under the proof that the mark held.
    pub fn of_mark(story: &Story, rig: &Rig, plan: &Plan, mark: &Mark) -> Option<Self> {
        let proof = plan.proofs.iter().position(|proof| proof.name == mark.proof)?;
        Self::of(story, rig, plan, (&mark.rung, mark.stage), proof)
    }

    /// What a climb in which nothing held says of stock, under the proof of the stage that it came to.
    pub fn of_stock(story: &Story, rig: &Rig, plan: &Plan) -> Option<Self> {
        let ClimbEnd::NothingHeld { stage } = story.ended.as_ref()?.end else { return None };
        let proof = plan.stages.get(stage)?.proof;
        Self::of(story, rig, plan, (&rig.stock(), stage), proof)
    }

    /// Whether the rung may be called as good for the proof as is wanted, as surely as is wanted.
    pub fn is_sure(&self) -> bool {
        !self.is_in_doubt() && self.survival.is_some_and(|survival| is_enough(&survival, &self.wants))
    }

    /// Whether something is suspected that leaves nothing sure.
    pub(super) fn is_in_doubt(&self) -> bool {
        self.suspects.iter().any(Suspect::leaves_nothing_sure)
    }
}

/// Whether a rung survives as often as is wanted, as surely as is wanted.
pub(super) fn is_enough(survival: &Survival, wants: &Assurance) -> bool {
    survival.low >= to_float(wants.survives)
}

/// What is known of a rung under a proof.
pub(super) struct Known<'a> {
    pub(super) proof: &'a Proof,
    pub(super) wants: Assurance,
    /// The settings along which its stage found it.
    pub(super) axis: Axis<'a>,
    /// The trials that say something of it.
    seen: Vec<Seen>,
    /// What they leave of the laws by which its rig may fail, and what was known before them.
    pub(super) laws: Laws,
    before: Laws,
    earlier: u32,
}

impl<'a> Known<'a> {
    /// By what is believed of rigs before anything is seen, where these settings count as moved by the stage, whatever it moved.
    pub(super) fn by(
        beliefs: Beliefs,
        settings: &[&str],
        (story, rig, plan): (&Story, &'a Rig, &'a Plan),
        (rung, stage): (&Rung, usize),
        proof: usize,
    ) -> Option<Self> {
        let wants = plan.stages.get(stage).and_then(|stage| stage.wants).unwrap_or_default();
        let proof = plan.proofs.get(proof)?;
        let axis = axis(settings, (story, rig, plan), (rung, stage));
        let works = works(proof);
        let seen = |trial: &TrialStory| {
            let (observation, ran) = observation(trial, &works).filter(|_| trial.state == story.last_state())?;
            let distance = axis.distance(rung, &trial.rung, matches!(observation, Observation::Held(_)))?;
            let ago = story.last_state_ago(trial);
            (distance.abs() <= NEAR).then_some(Seen { trial: trial.number, ago, distance, observation, ran })
        };
        let seen: Vec<Seen> = story.trials.iter().filter_map(seen).collect();
        if seen.is_empty() || proof.length() == Span::ZERO {
            return None;
        }
        let farthest = seen.iter().map(|one| one.distance).fold(0.0, f64::max);
        let kind = axis.kind(&story.kinds, proof);
        let before = axis.laws(rig, &plan.use_name, (rung, farthest), kind, beliefs);
        let mut laws = before.clone();
        seen.iter().for_each(|one| laws.observe(one.distance, one.observation));
        let earlier = kind.map_or(0, |kind| kind.climbs);
        Some(Self { proof, wants, axis, seen, laws, before, earlier })
    }
}

/// How a rung survives a proof where these settings count as moved, as far as its limit has not: what a claim says of it, but for what
/// puts all claims of a climb in doubt.
pub(super) fn survival_of(
    settings: &[&str],
    climb: (&Story, &Rig, &Plan),
    at: (&Rung, usize),
    proof: usize,
) -> Option<(Survival, Assurance)> {
    let Known { proof, wants, seen, laws, .. } = Known::by(Beliefs::PRESENT, settings, climb, at, proof)?;
    let aim = wants.aim(proof.length());
    is_in_reach(proof, &seen).then(|| (laws.survival(0.0, aim.proof, aim.sure), wants))
}

fn longest(seen: &[Seen]) -> Span {
    seen.iter().map(|one| one.ran).max().unwrap_or(Span::ZERO)
}

fn is_in_reach(proof: &Proof, seen: &[Seen]) -> bool {
    proof.length().seconds() <= REACH * longest(seen).seconds()
}

/// How a rung survives, and no more surely than if the limit may have moved, where that is likely.
fn survival(laws: &Laws, drifting: &Drifting, aim: &Aim) -> Survival {
    let still = laws.survival(0.0, aim.proof, aim.sure);
    if drift(drifting).is_none() {
        return still;
    }
    let moved = drifting.survival(0.0, aim);
    Survival { low: still.low.min(moved.low), mean: moved.mean, high: still.high.max(moved.high) }
}

fn drift(drifting: &Drifting) -> Option<Suspect> {
    let (likely, steps) = drifting.moved();
    (likely >= LIKELY).then_some(Suspect::Drift { steps })
}

/// The first trial that ended as none should have (a posterior predictive check, as in Gelman et al., Bayesian Data Analysis, 2013, 6.3).
fn unlikely(laws: &Laws, seen: &[Seen]) -> Option<Suspect> {
    let bearable = UNLIKELY / seen.len() as f64;
    let chance = |one: &Seen| match one.observation {
        Observation::Held(seconds) => laws.mean_survival(one.distance, seconds),
        Observation::Fell(seconds) | Observation::FellBetween(_, seconds) => {
            1.0 - laws.mean_survival(one.distance, seconds.max(SHORTEST_FALL))
        }
    };
    let found = seen.iter().find(|one| chance(one) < bearable)?;
    Some(Suspect::Unlikely { trial: found.trial })
}

fn to_float(share: Decimal) -> f64 {
    share.to_f64().unwrap_or(1.0)
}

/// The settings along which a stage found a rung, and these.
fn axis<'a>(
    settings: &[&str],
    (story, rig, plan): (&Story, &'a Rig, &Plan),
    (rung, stage): (&Rung, usize),
) -> Axis<'a> {
    let steps: Vec<&Steps> = plan.stages.iter().flat_map(|stage| stage.strategy.steps()).collect();
    let of_stage: Vec<&TrialStory> = story.trials.iter().filter(|trial| trial.stage == stage).collect();
    let moved_there = |name: &str| of_stage.iter().any(|trial| trial.rung.get(name) != rung.get(name));
    let was_moved = |name: &str| settings.contains(&name) || moved_there(name);
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
