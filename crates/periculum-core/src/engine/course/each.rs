//! `each`: every core or group by itself, the others parked; then all together, a common margin back.

use rust_decimal::Decimal;

use super::back::{easier, in_steps, whose};
use super::ground::{Ground, Move, Outcome};
use super::walk::Walk;
use crate::model::reason::{Alone, Reason, StageEnd};
use crate::model::rung::Rung;
use crate::model::strategy;
use crate::model::verdict::Verdict;

/// Finds the limit of each setting alone, then how far all must step back to hold together, and what that is worth
/// beside one common value.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Each {
    each: strategy::Each,
    base: Rung,
    maxima: Vec<Alone>,
    phase: Phase,
}

#[derive(Clone, Debug, PartialEq)]
enum Phase {
    /// One setting climbs.
    Alone(Box<Walk>),
    /// All have their own limits, each so many steps back.
    Together { rung: Rung, back: Vec<u32> },
    /// All have the value that the weakest has; what they came to together is kept.
    Common { together: Rung, proved_in: u32, back: Vec<u32>, score: f64 },
}

impl Each {
    pub(super) fn new(each: &strategy::Each, base: &Rung) -> Self {
        let walk = Walk::new(&each.steps[0], None, &parked(each, base, 0));
        Self { each: each.clone(), base: base.clone(), maxima: Vec::new(), phase: Phase::Alone(Box::new(walk)) }
    }

    /// The setting that climbs by itself now; none where all are tried together.
    pub(super) fn climbs_alone(&self) -> Option<&str> {
        match &self.phase {
            Phase::Alone(walk) => Some(walk.setting()),
            Phase::Together { .. } | Phase::Common { .. } => None,
        }
    }

    pub(super) fn first(&mut self, ground: Ground) -> Move {
        self.climb_alone(0, ground)
    }

    fn climb_alone(&mut self, index: usize, ground: Ground) -> Move {
        let mut walk = Walk::new(&self.each.steps[index], None, &parked(&self.each, &self.base, index));
        let wanted = walk.go_harder(ground);
        self.phase = Phase::Alone(Box::new(walk));
        self.take(wanted, ground)
    }

    pub(super) fn after(&mut self, outcome: &Outcome, ground: Ground) -> Move {
        match &mut self.phase {
            Phase::Alone(walk) => {
                let wanted = walk.after(outcome, ground);
                self.take(wanted, ground)
            }
            Phase::Together { rung, back } => {
                let (rung, back) = (rung.clone(), back.clone());
                self.after_together(rung, back, outcome, ground)
            }
            Phase::Common { together, proved_in, back, score } => {
                let common = outcome.scores.last().filter(|_| outcome.verdict == Verdict::Held);
                let gain = common.map(|common| *score / common - 1.0);
                let (rung, proved_in, back) = (together.clone(), *proved_in, back.clone());
                self.settle(rung, proved_in, &back, gain)
            }
        }
    }

    /// What a walk wants, until its setting's limit is known; then the next setting's, then all together.
    fn take(&mut self, wanted: Move, ground: Ground) -> Move {
        let rung = match wanted {
            Move::Settle { rung, .. } => rung,
            other => return other,
        };
        let index = self.maxima.len();
        let steps = &self.each.steps[index];
        let value = rung.get(&steps.setting).unwrap_or_default();
        self.maxima.push(Alone { setting: steps.setting.clone(), value });
        if self.maxima.len() < self.each.steps.len() {
            return self.climb_alone(self.maxima.len(), ground);
        }
        let limits = self.limits();
        let back = in_steps(self.each.margin, &self.each.steps, &limits, |setting| self.base.get(setting), ground);
        let most = back.iter().copied().max().unwrap_or_default();
        self.try_together(back, Reason::Together { back: most }, ground)
    }

    /// Every setting at the limit that it has alone.
    fn limits(&self) -> Rung {
        self.maxima.iter().fold(self.base.clone(), |rung, one| rung.with(&one.setting, one.value))
    }

    fn try_together(&mut self, back: Vec<u32>, reason: Reason, ground: Ground) -> Move {
        let rung = easier(&self.each.steps, &back, &self.limits(), |setting| self.base.get(setting), ground);
        self.phase = Phase::Together { rung: rung.clone(), back };
        Move::Try(rung, reason)
    }

    /// What whose core failed gives way first, and then all of them.
    fn give_way(&mut self, before: &Rung, back: &[u32], outcome: &Outcome, ground: Ground) -> Move {
        let one_more = |only: &[usize]| {
            let more = |(place, count): (usize, &u32)| count + u32::from(only.contains(&place));
            back.iter().enumerate().map(more).collect::<Vec<u32>>()
        };
        let all: Vec<usize> = (0..back.len()).collect();
        if let Some(whose) = whose(&self.each.steps, outcome, ground) {
            let settings = whose.iter().map(|place| self.each.steps[*place].setting.clone()).collect();
            let reason = Reason::GivesWay { settings, cores: outcome.cores.iter().copied().collect() };
            match self.try_together(one_more(&whose), reason, ground) {
                Move::Try(rung, _) if rung == *before => {}
                next => return next,
            }
        }
        let further = one_more(&all);
        let most = further.iter().copied().max().unwrap_or_default();
        self.try_together(further, Reason::Together { back: most }, ground)
    }

    fn after_together(&mut self, rung: Rung, back: Vec<u32>, outcome: &Outcome, ground: Ground) -> Move {
        if outcome.verdict != Verdict::Held {
            let next = self.give_way(&rung, &back, outcome, ground);
            let nowhere_to_go = matches!(&next, Move::Try(wanted, _) if *wanted == rung);
            let (verdict, incident) = (outcome.verdict, outcome.incident);
            return if nowhere_to_go { Move::GiveUp(StageEnd::NothingHeld { verdict, incident }) } else { next };
        }
        let values = || self.each.steps.iter().filter_map(|steps| rung.get(&steps.setting));
        let easiest = self.easiest(values(), ground);
        match (easiest, outcome.scores.last()) {
            (Some(value), Some(score)) if values().any(|other| other != value) => {
                let common = self.each.steps.iter().fold(rung.clone(), |rung, steps| rung.with(&steps.setting, value));
                self.phase = Phase::Common { together: rung, proved_in: outcome.trial, back, score: *score };
                Move::Try(common, Reason::Common { value })
            }
            _ => self.settle(rung, outcome.trial, &back, None),
        }
    }

    /// The easiest of these values for the settings, which are all harder in the same direction.
    fn easiest(&self, values: impl Iterator<Item = Decimal>, ground: Ground) -> Option<Decimal> {
        let setting = ground.rig.setting(&self.each.steps[0].setting)?;
        values.reduce(|easiest, value| if setting.is_harder(value, easiest) { value } else { easiest })
    }

    fn settle(&self, rung: Rung, proved_in: u32, back: &[u32], gain: Option<f64>) -> Move {
        let most = back.iter().copied().max().unwrap_or_default();
        let apart = if back.iter().any(|count| *count != most) { back.to_vec() } else { Vec::new() };
        let end = StageEnd::EachKnown { alone: self.maxima.clone(), back: most, apart, gain };
        Move::Settle { rung, proved_in: Some(proved_in), end }
    }
}

/// The rung that one setting climbs from: it stands where the stage does, and the others are parked.
fn parked(each: &strategy::Each, base: &Rung, climbing: usize) -> Rung {
    let others = each.steps.iter().zip(&each.park).enumerate().filter(|(index, _)| *index != climbing);
    others.fold(base.clone(), |rung, (_, (steps, park))| rung.with(&steps.setting, *park))
}
