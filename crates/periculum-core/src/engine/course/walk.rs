//! `ascend`, `feed` and `trim`: towards harder values until the rig falls, then back, and proved again.

use rust_decimal::Decimal;

use super::ground::{Ground, Move, Outcome, neighbour};
use crate::model::evidence::Bound;
use crate::model::reason::{Reason, StageEnd};
use crate::model::rung::Rung;
use crate::model::strategy::Steps;
use crate::model::verdict::Verdict;

/// Moves one setting towards harder values until it falls, then steps back and proves again.
///
/// It takes its largest steps first. Where it falls, it goes on from what held with smaller ones; only a fall of its
/// smallest steps sends it back. A walk that feeds answers a fall with more of the other setting before all that.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Walk {
    steps: Steps,
    feed: Option<Steps>,
    /// The value that the stage stands on.
    start: Decimal,
    at: Rung,
    /// The hardest rung that held, and the trial that proved it.
    held: Option<(Rung, u32)>,
    /// The easiest value that did not hold, and how it ended.
    fallen: Option<(Decimal, Outcome)>,
    /// How many sizes of steps are behind it.
    size: usize,
    /// Whether it steps back.
    is_back: bool,
    /// How often the machine went down.
    downs: u32,
}

impl Walk {
    /// The setting that it climbs.
    pub(super) fn setting(&self) -> &str {
        &self.steps.setting
    }

    pub(super) fn new(steps: &Steps, feed: Option<&Steps>, base: &Rung) -> Self {
        Self {
            start: base.get(&steps.setting).unwrap_or_default(),
            steps: steps.clone(),
            feed: feed.cloned(),
            at: base.clone(),
            held: None,
            fallen: None,
            size: 0,
            is_back: false,
            downs: 0,
        }
    }

    /// The hardest rung that held so far, and the trial that proved it.
    pub(super) fn best(&self) -> Option<(&Rung, u32)> {
        self.held.as_ref().map(|(rung, trial)| (rung, *trial))
    }

    /// Where it starts comes first, unless that has held already.
    pub(super) fn first(&mut self, ground: Ground) -> Move {
        if ground.rules < 2 || ground.held.values().any(|held| *held == self.at) {
            return self.go_harder(ground);
        }
        Move::Try(self.at.clone(), Reason::Start)
    }

    pub(super) fn after(&mut self, outcome: &Outcome, ground: Ground) -> Move {
        if outcome.verdict == Verdict::Held {
            self.held = Some((self.at.clone(), outcome.trial));
            return match &self.fallen {
                Some((value, fall)) if self.is_back => self.settle_below(*value, fall),
                _ => self.go_harder(ground),
            };
        }
        let may_feed = !self.is_back && outcome.is_error();
        if let Some(fed) = may_feed.then(|| self.feed(ground)).flatten() {
            return fed;
        }
        self.downs += u32::from(outcome.took_machine_down());
        self.fallen = Some((self.value(), outcome.clone()));
        let is_start = ground.rules >= 2 && self.value() == self.start;
        if !self.is_back && !is_start && self.size < self.steps.coarse.len() {
            self.size += 1;
            self.go_to_what_held();
            return self.go_harder(ground);
        }
        self.go_back(outcome, ground)
    }

    /// More of what is fed, at the same value of the setting that climbs.
    fn feed(&mut self, ground: Ground) -> Option<Move> {
        let feed = self.feed.as_ref()?;
        let from = self.at.get(&feed.setting)?;
        self.at = neighbour(feed, feed.step, &self.at, ground, false).ok()?;
        let reason = Reason::Feed {
            setting: feed.setting.clone(),
            from,
            climbed: self.steps.setting.clone(),
            value: self.value(),
        };
        Some(Move::Try(self.at.clone(), reason))
    }

    pub(super) fn go_harder(&mut self, ground: Ground) -> Move {
        let from = self.value();
        loop {
            let limit = match neighbour(&self.steps, self.steps.size(self.size), &self.at, ground, true) {
                Ok(harder) => match self.known_to_fall(&harder, ground) {
                    None => {
                        self.at = harder;
                        return Move::Try(
                            self.at.clone(),
                            Reason::Harder { setting: self.steps.setting.clone(), from },
                        );
                    }
                    Some((value, fall)) => self.settle_below(value, fall),
                },
                Err(limit) => self.settle(StageEnd::AtLimit {
                    setting: self.steps.setting.clone(),
                    value: from,
                    limit: Bound::Known(limit),
                }),
            };
            if self.size == self.steps.coarse.len() {
                return limit;
            }
            self.size += 1;
        }
    }

    /// What did not hold with larger steps, where the rung is that or harder.
    fn known_to_fall(&self, rung: &Rung, ground: Ground) -> Option<(Decimal, &Outcome)> {
        let value = rung.get(&self.steps.setting)?;
        let setting = ground.rig.setting(&self.steps.setting)?;
        let (fallen, outcome) = self.fallen.as_ref()?;
        (!setting.is_harder(value, *fallen)).then_some((*fallen, outcome))
    }

    /// Steps back as far as the plan says, and farther after a deep fall, but then not beyond where the stage began.
    fn go_back(&mut self, fall: &Outcome, ground: Ground) -> Move {
        let (from, depth) = (self.value(), fall.depth());
        let planned = if self.is_back { 1 } else { self.steps.back };
        let deeper = depth.steps() + self.downs.saturating_sub(1);
        self.is_back = true;
        if self.feed.is_some() && self.held.as_ref().is_some_and(|(held, _)| *held != self.at) {
            // What held had less of what is fed: all of that rung was proved together.
            self.go_to_what_held();
            self.step_easier(planned - 1, ground, |_| true);
        } else {
            self.step_easier(planned, ground, |_| true);
        }
        self.held = None;
        if self.value() == from {
            return Move::GiveUp(StageEnd::NothingHeld { verdict: fall.verdict, incident: fall.incident });
        }
        let start = self.start;
        self.step_easier(deeper, ground, |value| value != start);
        Move::Try(self.at.clone(), Reason::StepBack { setting: self.steps.setting.clone(), from, depth })
    }

    /// So many steps easier while the value it stands on lets it go.
    fn step_easier(&mut self, count: u32, ground: Ground, may_go: impl Fn(Decimal) -> bool) {
        for _ in 0..count {
            match neighbour(&self.steps, self.steps.step, &self.at, ground, false) {
                Ok(easier) if may_go(self.value()) => self.at = easier,
                _ => return,
            }
        }
    }

    fn go_to_what_held(&mut self) {
        match &self.held {
            Some((held, _)) => self.at = held.clone(),
            None => self.at = self.at.with(&self.steps.setting, self.start),
        }
    }

    fn settle_below(&self, value: Decimal, fall: &Outcome) -> Move {
        self.settle(fall.next_did_not_hold(&self.steps.setting, value))
    }

    fn settle(&self, end: StageEnd) -> Move {
        let proved_in = self.held.as_ref().filter(|(rung, _)| *rung == self.at).map(|(_, trial)| *trial);
        Move::Settle { rung: self.at.clone(), proved_in, end }
    }

    fn value(&self) -> Decimal {
        self.at.get(&self.steps.setting).unwrap_or_default()
    }
}
