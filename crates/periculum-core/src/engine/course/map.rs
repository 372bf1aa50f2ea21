//! `map`: the limit of one setting for each value of another, by the model of `seek`.

use rust_decimal::Decimal;
use rust_decimal::prelude::FromPrimitive;

use super::ground::{Ground, Move, Outcome};
use super::seek::Seek;
use crate::model::kind::Kind;
use crate::model::moment::Span;
use crate::model::plan::Proof;
use crate::model::reason::{Border, StageEnd};
use crate::model::rung::Rung;
use crate::model::strategy::{Assurance, Margin, Steps, Sweep};

/// The limit of the second row is expected about here beside that of the first one, which is easier, in steps.
const NEXT: f64 = -3.0;
const NEXT_SPREAD: f64 = 6.0;

/// A straight line through two limits leads to the third to so many steps.
const BENT: f64 = 1.5;

/// Seeks the limit at one value of the other setting after the other, from easy to hard. The slope that one row found
/// serves the next, and the limits of two lead to the third.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Map {
    steps: Steps,
    over: Sweep,
    base: Rung,
    proof: Proof,
    /// What is wanted of the border, where the plan says so: then it is where that can be claimed.
    wants: Option<Assurance>,
    rows: Vec<Row>,
    seek: Seek,
    rules: u32,
}

#[derive(Clone, Debug, PartialEq)]
struct Row {
    /// The limit, in steps from the rung that the stage stands on.
    limit: f64,
    border: Border,
}

impl Map {
    /// The setting that it climbs.
    pub(super) fn setting(&self) -> &str {
        &self.steps.setting
    }

    /// A map of the limits of this proof.
    pub(super) fn new(
        steps: &Steps,
        over: &Sweep,
        base: &Rung,
        (proof, wants): (&Proof, Option<Assurance>),
        ground: Ground,
    ) -> Self {
        let wants = wants.filter(|_| ground.rules > 7 && !proof.is_by_hand());
        let first = base.with(&over.setting, over.values[0]);
        Self {
            seek: search(steps, &first, (proof, wants), ground),
            steps: steps.clone(),
            over: over.clone(),
            base: base.clone(),
            proof: proof.clone(),
            wants,
            rows: Vec::new(),
            rules: ground.rules,
        }
    }

    pub(super) fn length(&self) -> Option<Span> {
        self.seek.length()
    }

    pub(super) fn first(&mut self, ground: Ground) -> Move {
        self.go_on(ground)
    }

    pub(super) fn after(&mut self, outcome: &Outcome, ground: Ground) -> Move {
        self.seek.learn(outcome);
        self.go_on(ground)
    }

    fn go_on(&mut self, ground: Ground) -> Move {
        // What was seen of the trial before may have settled it while the next one still ran, which is then heard too.
        while self.rows.len() < self.over.values.len() {
            let is_untouched = self.rules > 5 && self.seek.trials() == 0;
            let lesson = self.seek.lesson();
            let lesson = lesson.or_else(|| is_untouched.then(|| self.seek.glance()).flatten());
            if let Some((at, length)) = lesson {
                return self.seek.put_to_trial(at, Some(Span::from_seconds(length as u64)));
            }
            self.finish_row();
            let Some(value) = self.over.values.get(self.rows.len()) else { break };
            let (limit, deviation) = self.expected();
            let next = self.base.with(&self.over.setting, *value);
            let of_rows = self.seek.as_kind(&self.proof, &next, (limit, deviation));
            let kinds: &[Kind] = of_rows.as_ref().map_or(ground.kinds, std::slice::from_ref);
            let fresh = search(&self.steps, &next, (&self.proof, self.wants), Ground { kinds, ..ground });
            let begin = if self.rules > 5 { Seek::believing } else { Seek::expecting };
            self.seek = if self.wants.is_some() { fresh } else { begin(fresh, limit, deviation, &self.seek) };
        }
        self.settle()
    }

    fn finish_row(&mut self) {
        let (beyond, deviation) = self.seek.limit();
        let (limit, between) = self.seek.limit_on_rungs();
        let limit = if self.rules > 0 { limit } else { beyond };
        let (in_steps, deviation) = self.seek.ten_minutes().unwrap_or((self.seek.limit_in_steps(), deviation));
        let exact = |value: f64| Decimal::from_f64(value).unwrap_or_default().round_dp(4).normalize();
        let border = Border {
            value: self.over.values[self.rows.len()],
            limit: if self.wants.is_some() { self.seek.claimable() } else { exact(limit) },
            deviation,
            trials: Some(self.seek.trials()).filter(|_| self.rules > 0),
            between: Some(between.map(exact)).filter(|_| self.rules > 0),
        };
        self.rows.push(Row { limit: in_steps, border });
    }

    /// Where the limit of the next row is expected, and give or take how much, in steps.
    fn expected(&self) -> (f64, f64) {
        match &self.rows[..] {
            [.., before, last] => {
                let spread = (4.0 * last.border.deviation.powi(2) + before.border.deviation.powi(2)).sqrt();
                (2.0 * last.limit - before.limit, spread + BENT)
            }
            [only] => (only.limit + NEXT, NEXT_SPREAD),
            [] => (0.0, f64::MAX),
        }
    }

    /// What was found is a border, not a mark: nothing was put to the whole proof.
    fn settle(&self) -> Move {
        let end = StageEnd::Mapped {
            setting: self.steps.setting.clone(),
            over: self.over.setting.clone(),
            border: self.rows.iter().map(|row| row.border.clone()).collect(),
        };
        Move::Settle { rung: self.base.clone(), proved_in: None, end }
    }
}

/// The search of a row: by many laws where something is to be claimed of it, and else by one.
fn search(steps: &Steps, first: &Rung, (proof, wants): (&Proof, Option<Assurance>), ground: Ground) -> Seek {
    match wants {
        Some(wants) => Seek::weighing(steps, Margin::Steps(0), first, (proof, &wants), ground),
        None => {
            let target = if proof.is_by_hand() { Span::ZERO } else { proof.length() };
            Seek::new(steps, Margin::Steps(0), first, target, ground)
        }
    }
}
