//! How a stage chooses its rungs: given what happened so far, the next rung or the end of the stage.

use rust_decimal::Decimal;

use crate::incident::IncidentKind;
use crate::ladder::Direction;
use crate::plan::{Stage, Steps, Strategy};
use crate::reason::{Reason, StageEnd};
use crate::rig::Rig;
use crate::rung::Rung;
use crate::verdict::Verdict;

/// What limits every course.
#[derive(Clone, Copy)]
pub(super) struct Ground<'a> {
    pub(super) rig: &'a Rig,
    pub(super) use_name: &'a str,
}

/// What a course wants next.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Move {
    /// Put this rung on trial.
    Try(Rung, Reason),
    /// The stage is over at this rung, which held in this trial; none where the stage proved nothing new.
    Settle { rung: Rung, proved_in: Option<u32>, end: StageEnd },
    /// The stage is over and nothing held.
    GiveUp(StageEnd),
}

/// A trial that is over, as a course needs to know it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Outcome {
    pub(super) trial: u32,
    pub(super) verdict: Verdict,
    pub(super) incident: Option<IncidentKind>,
}

/// The course of one stage.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Course {
    Baseline { stock: Rung, done: u32, repeats: u32 },
    Walk(Walk),
}

impl Course {
    /// The course of a stage that stands on this rung.
    pub(super) fn of(stage: &Stage, base: &Rung) -> Self {
        match &stage.strategy {
            Strategy::Baseline { repeats } => Self::Baseline { stock: base.clone(), done: 0, repeats: *repeats },
            Strategy::Ascend(steps) | Strategy::Trim(steps) => Self::Walk(Walk::new(steps, base)),
        }
    }

    /// What the stage does first.
    pub(super) fn first(&mut self, ground: Ground) -> Move {
        match self {
            Self::Baseline { stock, repeats, .. } => {
                Move::Try(stock.clone(), Reason::Baseline { nth: 1, of: *repeats })
            }
            Self::Walk(walk) => walk.go_harder(ground),
        }
    }

    /// What the stage does after a trial of the rung it asked for.
    pub(super) fn after(&mut self, outcome: Outcome, ground: Ground) -> Move {
        match self {
            Self::Walk(walk) => walk.after(outcome, ground),
            Self::Baseline { stock, done, repeats } => {
                *done += 1;
                match outcome.verdict {
                    Verdict::Held if done < repeats => {
                        Move::Try(stock.clone(), Reason::Baseline { nth: *done + 1, of: *repeats })
                    }
                    Verdict::Held => Move::Settle { rung: stock.clone(), proved_in: None, end: StageEnd::BaselineHeld },
                    verdict => Move::GiveUp(StageEnd::NothingHeld { verdict, incident: outcome.incident }),
                }
            }
        }
    }
}

/// Moves one setting towards harder values until it falls, then steps back and proves again.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Walk {
    steps: Steps,
    at: Rung,
    /// The trial that proved `at`, where one did.
    proved_in: Option<u32>,
    /// The easiest value that did not hold, and how it ended.
    fallen: Option<(Decimal, Outcome)>,
}

impl Walk {
    fn new(steps: &Steps, base: &Rung) -> Self {
        Self { steps: steps.clone(), at: base.clone(), proved_in: None, fallen: None }
    }

    fn after(&mut self, outcome: Outcome, ground: Ground) -> Move {
        if outcome.verdict == Verdict::Held {
            self.proved_in = Some(outcome.trial);
            return match &self.fallen {
                Some((value, fall)) => self.settle(StageEnd::NextDidNotHold {
                    setting: self.steps.setting.clone(),
                    value: *value,
                    verdict: fall.verdict,
                    incident: fall.incident,
                }),
                None => self.go_harder(ground),
            };
        }
        let steps_back = if self.fallen.is_none() { self.steps.back } else { 1 };
        let from = self.value();
        self.fallen = Some((from, outcome));
        self.proved_in = None;
        for _ in 0..steps_back {
            match self.neighbour(ground, false) {
                Ok(easier) => self.at = easier,
                Err(_) => break,
            }
        }
        if self.value() == from {
            return Move::GiveUp(StageEnd::NothingHeld { verdict: outcome.verdict, incident: outcome.incident });
        }
        Move::Try(self.at.clone(), Reason::StepBack { setting: self.steps.setting.clone(), from })
    }

    fn go_harder(&mut self, ground: Ground) -> Move {
        let from = self.value();
        match self.neighbour(ground, true) {
            Ok(harder) => {
                self.at = harder;
                Move::Try(self.at.clone(), Reason::Harder { setting: self.steps.setting.clone(), from })
            }
            Err(limit) => self.settle(StageEnd::AtLimit { setting: self.steps.setting.clone(), value: from, limit }),
        }
    }

    fn settle(&self, end: StageEnd) -> Move {
        Move::Settle { rung: self.at.clone(), proved_in: self.proved_in, end }
    }

    fn value(&self) -> Decimal {
        self.at.get(&self.steps.setting).unwrap_or_default()
    }

    /// The rung one step harder or easier, or what stands against it.
    fn neighbour(&self, ground: Ground, harder: bool) -> Result<Rung, String> {
        let setting = ground.rig.setting(&self.steps.setting).ok_or("the rig has no such setting")?;
        let direction = if harder { setting.harder } else { setting.harder.reversed() };
        let next = match self.steps.step {
            None => setting.ladder.next(self.value(), direction),
            Some(step) => {
                let there = if direction == Direction::Up { self.value() + step } else { self.value() - step };
                Some(there).filter(|value| setting.ladder.contains(*value))
            }
        };
        let next = next.ok_or_else(|| format!("the ladder of {} ends there", setting.label))?;
        if next > setting.ceiling(ground.use_name) {
            let ceiling = setting.written(setting.ceiling(ground.use_name));
            return Err(format!("the {} ceiling is {ceiling}", ground.use_name));
        }
        if next < setting.floor {
            return Err(format!("the floor is {}", setting.written(setting.floor)));
        }
        let rung = self.at.with(&setting.name, next);
        ground.rig.permit(&rung, ground.use_name).map_err(|illegal| illegal.to_string())?;
        Ok(rung)
    }
}
