//! What becomes of what somebody wrote down who made a pass by hand: scores, and what was wrong.

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;

use crate::model::evidence::Finding;
use crate::model::field::{Entered, Misfit, Takes, Written};
use crate::model::formula::Formula;
use crate::model::incident::{Incident, IncidentKind};
use crate::model::moment::Span;
use crate::model::pass::{PassReport, Score};
use crate::model::task::{Better, Figure, Read, Task};

impl Task {
    /// What comes of it after so long, by what was written down.
    ///
    /// # Errors
    /// Where a score can't be calculated.
    pub fn report(&self, written: &Written, ran: Span) -> Result<PassReport, Misfit> {
        let (names, scores): (Vec<String>, Vec<Score>) = self.scores(written)?.into_iter().unzip();
        let mut scores = scores.into_iter();
        Ok(PassReport {
            ran,
            rounds: 1,
            score: scores.next(),
            further: scores.collect(),
            score_names: if self.scored().count() > 1 { names } else { Vec::new() },
            incidents: self.wrongs(written).map(|incident| incident.into_pass(ran)).collect(),
            written: written.clone(),
            ..PassReport::default()
        })
    }

    /// Each score that follows from what was written down, with its name; what may be left out, and was, has none.
    fn scores(&self, written: &Written) -> Result<Vec<(String, Score)>, Misfit> {
        let read = self.reads.iter().filter_map(|read| {
            let score = Score {
                value: read.number(written)?.to_f64()?,
                unit: read.unit().to_owned(),
                less_is_better: read.better? == Better::Less,
            };
            Some(Ok((read.field.name.clone(), score)))
        });
        let figures = self.figures.iter().filter_map(|figure| figure.score(self, written));
        let above = |scored: Result<(String, Score), Misfit>| {
            scored.and_then(|(name, score)| match score.value > 0.0 {
                true => Ok((name, score)),
                false => Err(Misfit::NoScore { of: name }),
            })
        };
        read.chain(figures).map(above).collect()
    }

    /// What was written down and is not right.
    fn wrongs(&self, written: &Written) -> impl Iterator<Item = Incident> {
        self.reads.iter().filter_map(|read| {
            let found = written.get(&read.field.name)?.trim();
            let is_right = read.right.is_empty() || read.right.iter().any(|right| right.eq_ignore_ascii_case(found));
            let finding = || Finding::WrittenWrong { right: read.right.clone(), written: found.to_owned() };
            (!is_right).then(|| Incident::new(IncidentKind::WrongResult, finding()).at(&read.field.label))
        })
    }
}

impl Read {
    fn unit(&self) -> &str {
        match &self.field.takes {
            Takes::Number { unit, .. } => unit,
            Takes::Words(_) | Takes::YesOrNo | Takes::Text => "",
        }
    }

    fn number(&self, written: &Written) -> Option<Decimal> {
        match self.field.read(written.get(&self.field.name)?).ok()? {
            Entered::Number(number) => Some(number),
            _ => None,
        }
    }
}

impl Figure {
    /// The score with its name; none where something that it needs was left out.
    fn score(&self, task: &Task, written: &Written) -> Option<Result<(String, Score), Misfit>> {
        let missing = || Misfit::NoValue { of: self.name.clone(), formula: self.formula.clone() };
        let Ok(formula) = Formula::parse(&self.formula) else { return Some(Err(missing())) };
        let named = |name: &str| task.reads.iter().find(|read| read.field.name == name)?.number(written);
        if formula.names().iter().any(|(name, _)| named(name).is_none()) {
            return None;
        }
        let value = formula.value(named).and_then(|value| value.to_f64());
        let less_is_better = self.better == Better::Less;
        let score = value.ok_or_else(missing).map(|value| Score { value, unit: self.unit.clone(), less_is_better });
        Some(score.map(|score| (self.name.clone(), score)))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::model::field::Field;
    use proptest::prelude::*;

    fn read(name: &str, takes: Takes) -> Read {
        let field = Field { name: name.into(), label: name.into(), takes, is_needed: true };
        Read { field, right: Vec::new(), better: None }
    }

    fn disc_test() -> Task {
        let ticks = Takes::Number { unit: "ticks".into(), least: None, most: None };
        let rate = Figure {
            name: "rate".into(),
            formula: "60 * 1500 / ticks".into(),
            unit: "KiB/s".into(),
            better: Better::More,
        };
        Task {
            ask: "Run the disc test".into(),
            reads: vec![
                Read { better: Some(Better::Less), ..read("ticks", ticks) },
                Read {
                    right: vec!["clean".into()],
                    ..read("picture", Takes::Words(vec!["clean".into(), "snow".into()]))
                },
            ],
            figures: vec![rate],
        }
    }

    fn written(pairs: &[(&str, &str)]) -> Written {
        pairs.iter().map(|(name, typed)| ((*name).to_owned(), (*typed).to_owned())).collect()
    }

    #[test]
    fn what_was_written_down_becomes_scores_in_their_own_units() {
        let ran = Span::from_seconds(60);
        let report = disc_test().report(&written(&[("ticks", "1 800"), ("picture", "Clean")]), ran).expect("a report");
        let ticks = Score { value: 1800.0, unit: "ticks".into(), less_is_better: true };
        assert_eq!((report.score, report.further), (Some(ticks), vec![Score::of(50.0, "KiB/s")]));
        assert_eq!((report.ran, report.incidents), (ran, Vec::new()));
        assert_eq!(disc_test().scored().collect::<Vec<_>>(), ["ticks", "rate"]);
    }

    #[test]
    fn a_score_that_may_be_left_out_takes_no_others_name() {
        let mut task = disc_test();
        let seconds = Takes::Number { unit: "s".into(), least: None, most: None };
        task.reads.push(Read { better: Some(Better::Less), ..read("load", seconds) });
        let report = task.report(&written(&[("load", "12"), ("picture", "clean")]), Span::ZERO).expect("a report");
        let scores: Vec<(String, f64)> = report.scores("disc").map(|(name, score)| (name, score.value)).collect();
        assert_eq!(scores, [("disc load".to_owned(), 12.0)], "without ticks there is no rate either");
    }

    #[test]
    fn what_is_not_right_is_a_wrong_result() {
        let report = disc_test().report(&written(&[("ticks", "1800"), ("picture", "snow")]), Span::ZERO);
        let incidents = report.expect("a report").incidents;
        let told: Vec<String> = incidents.iter().map(Incident::to_string).collect();
        assert_eq!(told, ["wrong-result on picture after 0 ms: `snow`, right is clean"]);
    }

    #[test]
    fn a_score_that_can_not_be_calculated_or_compared_is_told() {
        let below = disc_test().report(&written(&[("ticks", "-3"), ("picture", "clean")]), Span::ZERO);
        assert_eq!(below, Err(Misfit::NoScore { of: "ticks".into() }));
        let mut task = disc_test();
        task.reads[0].better = None;
        let missing = Misfit::NoValue { of: "rate".into(), formula: "60 * 1500 / ticks".into() };
        assert_eq!(task.report(&written(&[("ticks", "0"), ("picture", "clean")]), Span::ZERO), Err(missing));
    }

    proptest! {
        #[test]
        fn whatever_is_written_down_has_scores_with_names_or_is_told(ticks in "\\PC{0,9}", picture in "\\PC{0,6}") {
            let written = written(&[("ticks", &ticks), ("picture", &picture)]);
            if let Ok(report) = disc_test().report(&written, Span::ZERO) {
                prop_assert_eq!(report.score.iter().count() + report.further.len(), report.score_names.len());
                prop_assert!(report.score.iter().chain(&report.further).all(|score| score.value.is_finite() && score.value > 0.0));
            }
        }
    }
}
