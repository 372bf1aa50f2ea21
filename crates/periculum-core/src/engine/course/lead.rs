//! `lead`: the operator says each rung, and a strategy only says what it would try.

use rust_decimal::Decimal;

use super::ground::{Ground, Move, Outcome, neighbour};
use crate::engine::question::Suggestion;
use crate::model::depth::Depth;
use crate::model::ladder::Direction;
use crate::model::reason::{Reason, StageEnd};
use crate::model::rig::Rig;
use crate::model::rung::Rung;
use crate::model::setting::Setting;
use crate::model::strategy::Steps;
use crate::model::verdict::Verdict;

/// Follows the operator.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Lead {
    /// The setting that moved last, and how far; the plan's before anything moved.
    steps: Steps,
    /// What is on trial, or was last.
    at: Rung,
    tried: Vec<Tried>,
}

/// A rung that was tried.
#[derive(Clone, Debug, PartialEq)]
struct Tried {
    trial: u32,
    rung: Rung,
    held: bool,
    depth: Depth,
}

impl Lead {
    pub(super) fn new(setting: &str, base: &Rung, ground: Ground) -> Self {
        let step = ground.rig.setting(setting).and_then(|setting| setting.usual_step(ground.use_name));
        Self { steps: Steps::of(setting, step), at: base.clone(), tried: Vec::new() }
    }

    pub(super) fn first(&self, ground: Ground) -> Move {
        Move::Ask(self.suggestion(ground))
    }

    pub(super) fn after(&mut self, outcome: &Outcome, ground: Ground) -> Move {
        let held = outcome.verdict == Verdict::Held;
        self.tried.push(Tried { trial: outcome.trial, rung: self.at.clone(), held, depth: outcome.depth() });
        Move::Ask(self.suggestion(ground))
    }

    /// The rung that was tried last; where the stage stands before the first.
    pub(in crate::engine) fn at(&self) -> &Rung {
        &self.at
    }

    /// The operator wants this rung next.
    pub(in crate::engine) fn go_to(&mut self, rung: &Rung, rig: &Rig) {
        let moved = rig.settings.iter().find_map(|setting| {
            let (from, to) = (self.at.get(&setting.name)?, rung.get(&setting.name)?);
            (setting.is_harder(from, to)).then(|| Steps::of(&setting.name, Some((to - from).abs())))
        });
        self.steps = moved.unwrap_or_else(|| self.steps.clone());
        self.at = rung.clone();
    }

    /// The rung that held last, and in which trial; none that did not hold afterwards.
    pub(in crate::engine) fn held(&self) -> Option<(&Rung, u32)> {
        let stands = |one: &&Tried| one.held && !self.tried.iter().any(|other| other.is_later_fall_of(one));
        self.tried.iter().rev().find(stands).map(|one| (&one.rung, one.trial))
    }

    /// That is enough: the stage is over where it held last.
    pub(in crate::engine) fn end(&self) -> Move {
        let tried = u32::try_from(self.tried.len()).unwrap_or(u32::MAX);
        let (rung, proved_in) = self.held().map_or((&self.at, None), |(rung, trial)| (rung, Some(trial)));
        Move::Settle { rung: rung.clone(), proved_in, end: StageEnd::Led { tried } }
    }

    /// What a strategy would try now: what the stage stands on, one step harder than what held, half way to what fell, or what
    /// held again.
    fn suggestion(&self, ground: Ground) -> Option<Suggestion> {
        let Some(last) = self.tried.last() else { return self.before_anything(ground) };
        if last.held { self.harder(ground) } else { self.easier_than(last, ground) }
    }

    fn before_anything(&self, ground: Ground) -> Option<Suggestion> {
        if ground.held.values().any(|held| *held == self.at) {
            return self.harder(ground);
        }
        let is_legal = ground.rig.permit(&self.at, ground.use_name).is_ok();
        is_legal.then(|| Suggestion { rung: self.at.clone(), reason: Reason::Start })
    }

    /// One step harder; where that is known to fall, half way there.
    fn harder(&self, ground: Ground) -> Option<Suggestion> {
        let setting = ground.rig.setting(&self.steps.setting)?;
        let from = self.at.get(&setting.name)?;
        let fell = self.nearest_fall(setting);
        let sizes = [self.steps.step, setting.usual_step(ground.use_name), None];
        let next = sizes.into_iter().find_map(|size| neighbour(&self.steps, size, &self.at, ground, true).ok())?;
        let is_beyond = |rung: &Rung, fell: Decimal| {
            rung.get(&setting.name).is_none_or(|value| value == fell || setting.is_harder(fell, value))
        };
        match fell {
            Some(fell) if is_beyond(&next, fell) => self.between(setting, from, fell),
            _ => Some(Suggestion { rung: next, reason: Reason::Harder { setting: setting.name.clone(), from } }),
        }
    }

    /// Half way back to what held on the same line, or one step back; what held is suggested again where nothing lies between.
    fn easier_than(&self, fallen: &Tried, ground: Ground) -> Option<Suggestion> {
        let setting = ground.rig.setting(&self.steps.setting)?;
        let fell = fallen.rung.get(&setting.name)?;
        let held = self.hardest_held_below(setting, &fallen.rung);
        if let Some(between) = held.and_then(|held| self.between(setting, held, fell)) {
            return Some(between);
        }
        let back = |rung: Rung| {
            let reason = Reason::StepBack { setting: setting.name.clone(), from: fell, depth: fallen.depth };
            (rung != fallen.rung).then_some(Suggestion { rung, reason })
        };
        let known = held.map(|held| fallen.rung.with(&setting.name, held)).or_else(|| Some(self.held()?.0.clone()));
        let stepped = || neighbour(&self.steps, self.steps.step, &fallen.rung, ground, false).ok();
        known.or_else(stepped).and_then(back)
    }

    /// The value of the ladder half way between one that held and one that fell; none where they are neighbours.
    fn between(&self, setting: &Setting, held: Decimal, fell: Decimal) -> Option<Suggestion> {
        let half = setting.ladder.nearest((held + fell) / Decimal::TWO);
        let is_new = half != held && half != fell && setting.is_harder(held, half);
        let rung = self.at.with(&setting.name, half);
        let reason = Reason::Between { setting: setting.name.clone(), held, fell };
        is_new.then_some(Suggestion { rung, reason })
    }

    /// The easiest value beyond what is in force that fell, all else being the same.
    fn nearest_fall(&self, setting: &Setting) -> Option<Decimal> {
        let at = self.at.get(&setting.name)?;
        let falls = self.values(setting, &self.at, false).filter(|value| setting.is_harder(at, *value));
        easiest(setting, falls)
    }

    /// The hardest value easier than this rung's that held, all else being the same.
    fn hardest_held_below(&self, setting: &Setting, rung: &Rung) -> Option<Decimal> {
        let at = rung.get(&setting.name)?;
        let held = self.values(setting, rung, true).filter(|value| setting.is_harder(*value, at));
        match setting.harder {
            Direction::Up => held.max(),
            Direction::Down => held.min(),
        }
    }

    /// The values that held, or fell, of rungs that are like this one but for the setting.
    fn values<'a>(&'a self, setting: &'a Setting, like: &'a Rung, held: bool) -> impl Iterator<Item = Decimal> + 'a {
        let tried = self.tried.iter().filter(move |one| one.held == held);
        tried.filter_map(move |one| {
            let value = one.rung.get(&setting.name)?;
            (like.with(&setting.name, value) == one.rung).then_some(value)
        })
    }
}

impl Tried {
    fn is_later_fall_of(&self, earlier: &Self) -> bool {
        !self.held && self.trial > earlier.trial && self.rung == earlier.rung
    }
}

fn easiest(setting: &Setting, values: impl Iterator<Item = Decimal>) -> Option<Decimal> {
    match setting.harder {
        Direction::Up => values.min(),
        Direction::Down => values.max(),
    }
}
