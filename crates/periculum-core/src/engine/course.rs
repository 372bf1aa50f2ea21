//! How a stage chooses its rungs: given what happened so far, the next rung or the end of the stage.

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;

use super::seek::Seek;
use super::soak::Soak;
use crate::incident::IncidentKind;
use crate::ladder::Direction;
use crate::moment::Span;
use crate::plan::{Stage, Steps, Strategy};
use crate::reason::{Reason, StageEnd};
use crate::rig::Rig;
use crate::rung::Rung;
use crate::statistics::mean_interval;
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
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Outcome {
    pub(super) trial: u32,
    pub(super) verdict: Verdict,
    pub(super) incident: Option<IncidentKind>,
    /// The scores of its passes, in order; passes without a score are missing.
    pub(super) scores: Vec<f64>,
    /// How long its passes ran, together.
    pub(super) tested: Span,
}

impl Outcome {
    /// Whether something went wrong in the rig, as chance has it near a limit; being throttled or too hot, or not
    /// taking a value, has other reasons.
    pub(super) fn is_error(&self) -> bool {
        self.verdict == Verdict::Fell || self.incident == Some(IncidentKind::CorrectedError)
    }
}

/// The course of one stage.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Course {
    Baseline(Baseline),
    Walk(Walk),
    Seek(Box<Seek>),
    Soak(Soak),
}

impl Course {
    /// The course of a stage that stands on this rung, with a proof of this length.
    pub(super) fn of(stage: &Stage, base: &Rung, proof: Span, ground: Ground) -> Self {
        match &stage.strategy {
            Strategy::Baseline { repeats, within } => Self::Baseline(Baseline {
                stock: base.clone(),
                repeats: *repeats,
                within: within.and_then(|within| within.to_f64()),
                scores: Vec::new(),
            }),
            Strategy::Ascend(steps) | Strategy::Trim(steps) => Self::Walk(Walk::new(steps, base)),
            Strategy::Seek(steps) => Self::Seek(Box::new(Seek::new(steps, base, proof, ground))),
            Strategy::Soak { steps, margin } => Self::Soak(Soak::new(steps, *margin, base, ground)),
        }
    }

    /// What the stage does first.
    pub(super) fn first(&mut self, ground: Ground) -> Move {
        match self {
            Self::Baseline(baseline) => baseline.again(),
            Self::Walk(walk) => walk.go_harder(ground),
            Self::Seek(seek) => seek.first(),
            Self::Soak(soak) => soak.first(),
        }
    }

    /// What the stage does after a trial of the rung it asked for.
    pub(super) fn after(&mut self, outcome: Outcome, ground: Ground) -> Move {
        match self {
            Self::Walk(walk) => walk.after(outcome, ground),
            Self::Baseline(baseline) => baseline.after(outcome),
            Self::Seek(seek) => seek.after(outcome),
            Self::Soak(soak) => soak.after(outcome, ground),
        }
    }

    /// How long the trial takes that was asked for last, where that is not as long as the proof.
    pub(super) fn length(&self) -> Option<Span> {
        match self {
            Self::Seek(seek) => seek.length(),
            Self::Baseline(_) | Self::Walk(_) | Self::Soak(_) => None,
        }
    }
}

/// Proves the rig at stock until its scores are known well enough.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Baseline {
    stock: Rung,
    repeats: u32,
    within: Option<f64>,
    /// The scores of each trial's passes.
    scores: Vec<Vec<f64>>,
}

/// Fewer measurements than this say too little about their noise to stop early.
const FEWEST: usize = 3;

impl Baseline {
    fn after(&mut self, outcome: Outcome) -> Move {
        if outcome.verdict != Verdict::Held {
            return Move::GiveUp(StageEnd::NothingHeld { verdict: outcome.verdict, incident: outcome.incident });
        }
        self.scores.push(outcome.scores);
        if self.scores.len() < self.repeats as usize && !self.is_known() {
            return self.again();
        }
        Move::Settle { rung: self.stock.clone(), proved_in: None, end: StageEnd::BaselineHeld }
    }

    fn again(&self) -> Move {
        let nth = self.scores.len() as u32 + 1;
        Move::Try(self.stock.clone(), Reason::Baseline { nth, of: self.repeats })
    }

    /// Whether the score of every pass is known as well as is wanted.
    fn is_known(&self) -> bool {
        let Some(within) = self.within else { return false };
        let passes = self.scores.iter().map(Vec::len).min().unwrap_or(0);
        let is_narrow = |pass: usize| {
            let scores: Vec<f64> = self.scores.iter().map(|scores| scores[pass]).collect();
            mean_interval(&scores).is_some_and(|interval| interval.relative() <= within)
        };
        self.scores.len() >= FEWEST && passes > 0 && (0..passes).all(is_narrow)
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
        let (verdict, incident) = (outcome.verdict, outcome.incident);
        self.fallen = Some((from, outcome));
        self.proved_in = None;
        for _ in 0..steps_back {
            match neighbour(&self.steps, &self.at, ground, false) {
                Ok(easier) => self.at = easier,
                Err(_) => break,
            }
        }
        if self.value() == from {
            return Move::GiveUp(StageEnd::NothingHeld { verdict, incident });
        }
        Move::Try(self.at.clone(), Reason::StepBack { setting: self.steps.setting.clone(), from })
    }

    fn go_harder(&mut self, ground: Ground) -> Move {
        let from = self.value();
        match neighbour(&self.steps, &self.at, ground, true) {
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
}

/// The rung one step harder or easier, or what stands against it.
pub(super) fn neighbour(steps: &Steps, from: &Rung, ground: Ground, harder: bool) -> Result<Rung, String> {
    let value = from.get(&steps.setting).unwrap_or_default();
    let setting = ground.rig.setting(&steps.setting).ok_or("the rig has no such setting")?;
    let direction = if harder { setting.harder } else { setting.harder.reversed() };
    let next = match steps.step {
        None => setting.ladder.next(value, direction),
        Some(step) => {
            let there = if direction == Direction::Up { value + step } else { value - step };
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
    let rung = from.with(&setting.name, next);
    ground.rig.permit(&rung, ground.use_name).map_err(|illegal| illegal.to_string())?;
    Ok(rung)
}
