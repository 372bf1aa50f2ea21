//! `seek`: trials of chosen length where they teach most for their cost, then the proof itself.

use rust_decimal::Decimal;
use rust_decimal::prelude::{FromPrimitive, ToPrimitive};

use super::estimate::{Estimate, Former, Reach, SHORTEST, Weighed};
use super::ground::{Ground, Move, Outcome, neighbour};
use super::track::Track;
use crate::inference::family::{self, Member};
use crate::inference::hazard::{Hazard, Survival};
use crate::inference::laws::Laws;
use crate::model::evidence::{Bound, Known};
use crate::model::kind::{Expected, Kind, laws, loads};
use crate::model::moment::Span;
use crate::model::plan::Proof;
use crate::model::reason::{Foresight, Reason, StageEnd};
use crate::model::rung::Rung;
use crate::model::setting::Setting;
use crate::model::strategy::{Assurance, Margin, Steps};
use crate::model::verdict::Verdict;

/// What setting up a trial costs, in seconds of testing: with an adapter, and by hand.
const SETTING_UP: f64 = 5.0;
const SETTING_UP_BY_HAND: f64 = 300.0;

/// Before anything fell, a trial leaps no farther than this, in steps, so that the first fall is a shallow one: farther
/// where each change costs a person's time.
const FIRST_LEAPS: usize = 1;
const FIRST_LEAPS_BY_HAND: usize = 3;

/// What others say of a limit is wrong in about this share: a border bends, or has a step.
const WRONG: f64 = 0.02;

/// How sure it must be that a rung is within the limit before a first trial leaps there.
const BELIEVED: f64 = 0.9;

/// Trials after which the proof decides, whatever is known.
const MOST_TRIALS: u32 = 40;

/// Standard deviations to both sides of the mean that hold 95 % of a normal distribution.
const TWO_SIDED: f64 = 1.96;

/// How far on the easier side of the first rung the limit may lie, in steps.
const EASIER: f64 = -2.0;

/// How far beyond the rungs that may be tried the limit may lie, in steps.
const BEYOND: f64 = 12.0;

/// Finds the limit of one setting from falls beyond it.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Seek {
    steps: Steps,
    /// The rungs from the one that the stage stands on to the hardest that is allowed.
    rungs: Vec<Rung>,
    /// How many steps the setting may move in one trial, beyond the hardest rung that held.
    leap: usize,
    /// And before anything fell.
    first_leaps: usize,
    /// What setting up a trial costs, in seconds of testing.
    setting_up: f64,
    /// How much easier than what it believes to hold is what it puts to the proof.
    margin: Margin,
    /// What ended the rungs; none where nobody wants to go on from there.
    limit: Option<Known>,
    estimate: Estimate,
    target: Span,
    trials: u32,
    has_fallen: bool,
    /// Whether something fell as chance has it near a limit.
    has_erred: bool,
    /// The hardest rung that held for any time.
    held: usize,
    /// The hardest rung that others say is easy enough for the first trial.
    believed: usize,
    /// The easiest rung that slipped, where one did: the limit is another one there.
    slipped: Option<(usize, Outcome)>,
    /// The easiest rung that the proof did not hold at, and how it ended.
    refused: Option<(usize, Outcome)>,
    /// The hardest rung that may be put to the proof.
    proves_up_to: usize,
    /// What is on trial.
    at: usize,
    /// For how long; none for the proof itself.
    length: Option<Span>,
}

impl Seek {
    /// The setting that it climbs.
    pub(super) fn setting(&self) -> &str {
        &self.steps.setting
    }

    /// A search from this rung, for a rung that survives a proof of this length as is wanted.
    pub(super) fn weighing(
        steps: &Steps,
        margin: Margin,
        base: &Rung,
        (proof, wanted): (&Proof, &Assurance),
        ground: Ground,
    ) -> Self {
        let target = proof.length();
        let aim = wanted.aim(target);
        let laws_of = |setting: &Setting| {
            let step = steps.step.unwrap_or_else(|| setting.ladder.widest_gap());
            let value = base.get(&steps.setting).unwrap_or(setting.stock);
            let hardest = setting.steps(value, setting.hardest(ground.use_name), step);
            let kind = Kind::of(ground.kinds, &steps.setting, proof);
            laws(ground.rig, (setting, step), (base, hardest), kind, ground.beliefs())
        };
        let estimate = |rungs: usize| {
            let laws = ground
                .rig
                .setting(&steps.setting)
                .map_or_else(|| Laws::unexpected(rungs as f64, ground.beliefs().usual), laws_of);
            Estimate::Weighed(Weighed { laws, aim, rules: ground.rules })
        };
        let (rungs, limit) = harder_ones(steps, base, ground);
        let search = Self::estimating(steps, margin, (rungs, Some(limit)), target, estimate, ground);
        Self { first_leaps: search.leap, ..search }
    }

    /// A search from stock up to this rung, for whoever wants to claim something of a soak: it knows what the climb has seen so far, and
    /// learns on the rungs up to the hardest of them.
    pub(super) fn soaking(
        steps: &Steps,
        margin: Margin,
        mark: &Rung,
        (proof, wanted): (&Proof, &Assurance),
        ground: Ground,
    ) -> Self {
        let Track { rungs, mark, laws, has_fallen } = Track::of(steps, mark, proof, ground);
        let aim = wanted.aim(proof.length());
        let estimate = |_| Estimate::Weighed(Weighed { laws, aim, rules: ground.rules });
        let search = Self::estimating(steps, margin, (rungs, None), proof.length(), estimate, ground);
        Self { held: mark, proves_up_to: mark, has_fallen, has_erred: has_fallen, ..search }
    }

    /// The same by the rules up to 6, for the limit of the proof.
    pub(super) fn new(steps: &Steps, margin: Margin, base: &Rung, target: Span, ground: Ground) -> Self {
        let estimate = |rungs: usize| {
            let model = Hazard::unknown(EASIER, rungs as f64 - 1.0 + BEYOND, target.seconds());
            Estimate::Former(Former { model })
        };
        let (rungs, limit) = harder_ones(steps, base, ground);
        Self::estimating(steps, margin, (rungs, Some(limit)), target, estimate, ground)
    }

    fn estimating(
        steps: &Steps,
        margin: Margin,
        (rungs, limit): (Vec<Rung>, Option<Known>),
        target: Span,
        estimate: impl FnOnce(usize) -> Estimate,
        ground: Ground,
    ) -> Self {
        let setting = ground.rig.setting(&steps.setting);
        let jump = setting.and_then(|setting| setting.largest_jump);
        let value = |rung: &Rung| rung.get(&steps.setting).unwrap_or_default();
        let is_near = |rung: &&Rung| jump.is_none_or(|jump| (value(rung) - value(&rungs[0])).abs() <= jump);
        let leap = rungs.iter().skip(1).take_while(is_near).count().max(1);
        let is_by_hand = setting.is_some_and(|setting| setting.takes_effect.needs_somebody());
        Self {
            steps: steps.clone(),
            leap,
            first_leaps: if is_by_hand { FIRST_LEAPS_BY_HAND } else { FIRST_LEAPS },
            setting_up: if is_by_hand { SETTING_UP_BY_HAND } else { SETTING_UP },
            margin,
            limit,
            estimate: estimate(rungs.len()),
            proves_up_to: rungs.len() - 1,
            rungs,
            target,
            trials: 0,
            has_fallen: false,
            has_erred: false,
            held: 0,
            believed: 0,
            slipped: None,
            refused: None,
            at: 0,
            length: None,
        }
    }

    /// How long the trial takes that was asked for last; none for the proof itself.
    pub(super) fn length(&self) -> Option<Span> {
        self.length
    }

    /// The same search where something is known from another one: the limit is expected here, in steps, give or take
    /// so much, and the slopes are those that the other one found.
    pub(super) fn expecting(self, limit: f64, deviation: f64, other: &Self) -> Self {
        self.expecting_unless_wrong(limit, deviation, 0.0, other)
    }

    /// The same where that may be wrong, and is believed as far as it is nearly sure.
    pub(super) fn believing(self, limit: f64, deviation: f64, other: &Self) -> Self {
        let search = self.expecting_unless_wrong(limit, deviation, WRONG, other);
        let is_believed = |rung: &usize| search.estimate.within(*rung as f64) >= BELIEVED;
        let believed = (0..search.rungs.len()).rev().find(is_believed).unwrap_or(0);
        Self { believed, ..search }
    }

    fn expecting_unless_wrong(self, limit: f64, deviation: f64, wrong: f64, other: &Self) -> Self {
        let estimate = match (self.estimate, &other.estimate) {
            (Estimate::Former(mine), Estimate::Former(other)) => {
                Estimate::Former(Former { model: mine.model.expecting(limit, deviation, wrong, &other.model) })
            }
            (estimate, _) => estimate,
        };
        Self { estimate, ..self }
    }

    pub(super) fn first(&mut self, ground: Ground) -> Move {
        if self.rungs.len() == 1 {
            return self.settle(None);
        }
        self.choose(ground)
    }

    pub(super) fn after(&mut self, outcome: &Outcome, ground: Ground) -> Move {
        let was_proof = self.length.is_none();
        self.learn(outcome);
        if was_proof && outcome.verdict == Verdict::Held {
            return self.settle(Some(outcome.trial));
        }
        if was_proof {
            let (verdict, incident) = (outcome.verdict, outcome.incident);
            if self.at == 0 {
                return Move::GiveUp(StageEnd::NothingHeld { verdict, incident });
            }
            self.refused = Some((self.at, outcome.clone()));
        }
        self.choose(ground)
    }

    /// Takes in how the trial ended that was asked for last.
    pub(super) fn learn(&mut self, outcome: &Outcome) {
        if let Some(observation) = outcome.observation() {
            self.estimate.observe(self.at as f64, observation);
        }
        if outcome.verdict == Verdict::Held {
            self.held = self.held.max(self.at);
            return;
        }
        if !outcome.is_error() && self.slipped.as_ref().is_none_or(|(known, _)| self.at < *known) {
            self.slipped = Some((self.at, outcome.clone()));
        }
        (self.has_fallen, self.believed) = (true, 0);
        self.has_erred |= outcome.is_error();
        self.held = self.held.min(self.at.saturating_sub(1));
    }

    /// The next trial: where it takes most from what is not known for what it costs, or the proof.
    fn choose(&mut self, ground: Ground) -> Move {
        let most = self.most();
        let is_last = most == self.hardest_allowed() && self.candidate() == most;
        let lesson = if is_last { None } else { self.lesson() };
        let is_affordable =
            |length: &f64| ground.left.is_none_or(|left| left.seconds() >= length + self.target.seconds());
        match lesson.filter(|(_, length)| is_affordable(length)) {
            Some((at, length)) => self.put_to_trial(at, Some(Span::from_seconds(length as u64))),
            None => self.put_to_trial(self.candidate(), None),
        }
    }

    /// The trial that teaches most, and its length in seconds; none where enough is known, or nothing more is to be
    /// learnt in reason.
    pub(super) fn lesson(&mut self) -> Option<(usize, f64)> {
        if self.trials >= MOST_TRIALS {
            return None;
        }
        let Self { held, has_fallen, setting_up, .. } = *self;
        let reach = Reach { held, highest: self.highest(), has_fallen, setting_up };
        let lesson = self.estimate.lesson(reach)?;
        self.trials += 1;
        Some(lesson)
    }

    /// A trial that is made whatever is known: the hardest one that may be, for a moment.
    pub(super) fn glance(&mut self) -> Option<(usize, f64)> {
        let highest = self.highest();
        self.trials += u32::from(highest > 0);
        (highest > 0).then_some((highest, SHORTEST))
    }

    /// What is known of the limit, in the setting's unit, and its standard deviation in steps.
    pub(super) fn limit(&self) -> (f64, f64) {
        let (limit, deviation) = self.estimate.limit();
        (self.value_at(limit), deviation)
    }

    /// The hardest value that could be claimed once it had survived the proof.
    pub(super) fn claimable(&self) -> Decimal {
        self.value(self.estimate.candidate(self.most(), |rung| self.margin_at(rung)))
    }

    /// Where a rung fails once in ten minutes, in steps from the one that the search began at, and its standard deviation; none where one
    /// law alone was believed.
    pub(super) fn ten_minutes(&self) -> Option<(f64, f64)> {
        match &self.estimate {
            Estimate::Weighed(weighed) => Some(weighed.laws.figures()[0]),
            Estimate::Former(_) => None,
        }
    }

    /// What this search says of the next one along the same setting from this rung on, whose limit is expected so many steps from there,
    /// give or take so many.
    pub(super) fn as_kind(&self, proof: &Proof, beside: &Rung, (limit, spread): (f64, f64)) -> Option<Kind> {
        let Estimate::Weighed(weighed) = &self.estimate else { return None };
        // One rung alone has no step, and teaches nothing of the next row.
        let step = Some((self.value_at(1.0) - self.value_at(0.0)).abs()).filter(|step| *step > 0.0)?;
        let per_unit = |member: Member| Member { slope: member.slope - libm::log(step), ..member };
        let mechanisms: Vec<Member> = family::of_one(&weighed.laws).into_iter().map(per_unit).collect();
        let [_, (slope, slope_spread)] = weighed.laws.figures();
        Some(Kind {
            setting: self.steps.setting.clone(),
            loads: loads(proof),
            beside: beside.clone(),
            limit: Expected { mean: self.value_at(limit), spread: spread * step },
            slope: Expected { mean: slope - libm::log(step), spread: slope_spread },
            mechanisms,
            climbs: 0,
        })
    }

    /// How many trials were asked for.
    pub(super) fn trials(&self) -> u32 {
        self.trials
    }

    /// What is known of the limit, in the setting's unit, on the rungs that may be tried: what it is at best, and the least
    /// and the greatest value that it may have with 95 %.
    pub(super) fn limit_on_rungs(&self) -> (f64, [f64; 2]) {
        let (limit, deviation) = self.estimate.limit();
        let value = |steps: f64| self.value_at(steps.clamp(0.0, self.rungs.len() as f64 - 1.0));
        let ends = [limit - TWO_SIDED * deviation, limit + TWO_SIDED * deviation].map(value);
        (value(limit), [ends[0].min(ends[1]), ends[0].max(ends[1])])
    }

    /// What is known of the limit, in steps from the rung that the search began at.
    pub(super) fn limit_in_steps(&self) -> f64 {
        self.estimate.limit().0
    }

    pub(super) fn put_to_trial(&mut self, at: usize, length: Option<Span>) -> Move {
        (self.at, self.length) = (at, length);
        let setting = self.steps.setting.clone();
        let reason = match length {
            // Before anything fell, nothing is known but how long the ladder is.
            Some(length) => Reason::Learn { setting, length, foresight: self.has_fallen.then(|| self.foresight(at)) },
            None => Reason::Confirm { setting, foresight: self.foresight(at) },
        };
        Move::Try(self.rungs[at].clone(), reason)
    }

    /// The hardest rung that may be put to the proof: with its margin surely enough within the limit, and below what did
    /// not hold.
    fn candidate(&self) -> usize {
        let most = self.most();
        if self.rules_out_nothing() && most == self.hardest_allowed() {
            return most;
        }
        self.estimate.candidate(most, |rung| self.margin_at(rung))
    }

    /// Whether everything held that is allowed, so that the proof is all there is left to learn by.
    fn rules_out_nothing(&self) -> bool {
        matches!(self.estimate, Estimate::Weighed(_)) && !self.has_erred && self.held == self.hardest_allowed()
    }

    /// The margin above a rung, in steps.
    fn margin_at(&self, rung: usize) -> f64 {
        match self.margin {
            Margin::Steps(count) => f64::from(count),
            Margin::Share(share) => {
                let [margin, step] = [share * self.value(rung), self.value(1) - self.value(0)];
                (margin / step).to_f64().unwrap_or(0.0).abs()
            }
        }
    }

    /// The hardest rung that the proof may go to.
    fn most(&self) -> usize {
        let refused = self.refused.as_ref().map_or(usize::MAX, |(at, _)| at - 1);
        self.highest().min(refused).min(self.proves_up_to)
    }

    /// The hardest rung that a trial may go to.
    fn highest(&self) -> usize {
        let leap = if self.has_fallen { self.leap } else { self.leap.min(self.first_leaps) };
        (self.held + leap).max(self.believed).min(self.hardest_allowed())
    }

    /// The hardest rung below every other limit.
    fn hardest_allowed(&self) -> usize {
        let slipped = self.slipped.as_ref().map_or(usize::MAX, |(at, _)| at.saturating_sub(1));
        slipped.min(self.rungs.len() - 1)
    }

    fn foresight(&self, rung: usize) -> Foresight {
        let (limit, deviation) = self.estimate.limit();
        let Survival { mean, low, high } = self.estimate.survival(rung as f64);
        let limit = Decimal::from_f64(self.value_at(limit)).unwrap_or_default().round_dp(4).normalize();
        Foresight { survival: mean, low, high, within: self.estimate.within(rung as f64), limit, deviation }
    }

    fn value(&self, rung: usize) -> Decimal {
        self.rungs[rung].get(&self.steps.setting).unwrap_or_default()
    }

    /// The setting's value at a number of steps, between rungs too.
    fn value_at(&self, steps: f64) -> f64 {
        let step = self.rungs.get(1).map_or(0.0, |_| (self.value(1) - self.value(0)).to_f64().unwrap_or(0.0));
        self.value(0).to_f64().unwrap_or(0.0) + steps * step
    }

    fn settle(&self, proved_in: Option<u32>) -> Move {
        let rung = self.rungs[self.at].clone();
        let setting = self.steps.setting.clone();
        let last = self.at + 1 == self.rungs.len();
        let end = match &self.slipped {
            Some((at, outcome)) if *at == self.at + 1 => StageEnd::NextDidNotHold {
                setting,
                value: self.value(*at),
                verdict: outcome.verdict,
                incident: outcome.incident,
            },
            _ if last || self.at == self.proves_up_to => match &self.limit {
                Some(limit) => {
                    StageEnd::AtLimit { setting, value: self.value(self.at), limit: Bound::Known(limit.clone()) }
                }
                None => StageEnd::Soaked,
            },
            _ => {
                let (next, target) = (self.at + 1, self.target);
                StageEnd::LimitKnown { setting, value: self.value(next), target, foresight: self.foresight(next) }
            }
        };
        Move::Settle { rung, proved_in, end }
    }
}

/// This rung and all harder ones that are allowed, and what ends them.
fn harder_ones(steps: &Steps, base: &Rung, ground: Ground) -> (Vec<Rung>, Known) {
    let mut rungs = vec![base.clone()];
    loop {
        match neighbour(steps, steps.step, &rungs[rungs.len() - 1], ground, true) {
            Ok(harder) => rungs.push(harder),
            Err(limit) => return (rungs, limit),
        }
    }
}
