//! The end of a trial: its verdict, whether its score is to be believed, and what follows for the stage.

use std::mem;

use super::climber::{AtStock, Climber, blame};
use crate::engine::course::{Move, Outcome, Seen};
use crate::engine::entry::{Entry, Mark};
use crate::engine::scoring::Scoring;
use crate::engine::state::{Judged, State, Trial};
use crate::engine::step::Step;
use crate::inference::comparison::{Comparison, Says};
use crate::model::evidence::Finding;
use crate::model::incident::{Incident, IncidentKind};
use crate::model::incident_kind::judge;
use crate::model::ladder::Direction;
use crate::model::moment::Span;
use crate::model::reason::Reason;
use crate::model::setting::Setting;
use crate::model::strategy::Aim;
use crate::model::verdict::Verdict;

/// Only of shorter trials a score that is too low is measured again: nobody repeats a night for it.
const LONGEST_REPEATED: Span = Span::from_seconds(3600);

impl Climber {
    /// Judges a trial whose passes are over, and goes on with what its stage makes of it.
    pub(super) fn end_trial(&mut self, mut trial: Trial, step: &mut Step) -> State {
        let gain = self.gain(&trial);
        if let Some(gain) = gain.filter(|gain| gain.says() == Says::Less && self.may_not_score_less(&trial)) {
            let Some(doubted) = self.doubted.take() else { return self.measure_again(trial, step) };
            let both: Vec<Vec<f64>> = vec![doubted, trial.scores.clone()];
            let compare_alike = Scoring::of(self.rules).compare_alike;
            let loss = self.against_baseline(&both, compare_alike).filter(|both| both.says() == Says::Less);
            if loss.is_some() {
                blame(&mut trial, None, Incident::new(IncidentKind::ScoreLoss, Finding::ScoredLess { gain }), step);
            }
        }
        self.doubted = None;
        let verdict = self.close(&trial, gain, step);
        let Some(mut course) = self.course.take() else { return State::Ended };
        self.judged = Some(Box::new(Judged { trial: trial.clone(), stage: self.stage, before: course.clone() }));
        let outcome = Outcome {
            trial: trial.number,
            verdict,
            incident: worst(&trial),
            cores: trial.cores,
            scores: trial.scores,
            benchmarks: trial.benchmarks,
            tested: trial.tested,
            unheard: trial.unheard,
        };
        let seen = outcome.observation().map(|observation| Seen {
            trial: trial.number,
            rung: trial.rung,
            works: self.proof().works(),
            observation,
        });
        self.seen.extend(seen);
        let wanted = course.after(&outcome, self.ground(step.at));
        self.course = Some(course);
        if let Move::Try(_, Reason::Disturbed { trial }) = &wanted {
            self.baseline.retain(|at_stock| at_stock.trial != *trial);
        }
        self.make(wanted, step)
    }

    /// Records how a trial ended.
    pub(super) fn close(&mut self, trial: &Trial, gain: Option<Comparison>, step: &mut Step) -> Verdict {
        let verdict = judge(trial.incidents.iter().copied());
        step.entries.push(Entry::TrialEnded {
            trial: trial.number,
            verdict,
            incident: worst(trial),
            tested: trial.tested,
            gain,
        });
        self.tally.deaths_in_a_row = 0;
        self.was_unread = false;
        self.verdicts.insert(trial.number, verdict);
        self.tally.spoken += 1;
        if verdict == Verdict::Fell {
            self.tally.falls += 1;
        }
        if verdict == Verdict::Held && self.is_baseline() && self.trial_length() == self.proof().length() {
            let (trial, start, scores) = (trial.number, self.starts, trial.scores.clone());
            self.baseline.push(AtStock { trial, start, scores });
        }
        if verdict == Verdict::Held {
            self.held.insert(trial.number, trial.rung.clone());
        } else {
            self.held.retain(|_, rung| *rung != trial.rung);
            // A mark whose very rung did not hold is no mark.
            self.withdraw_marks(trial.number, step, |mark| mark.rung == trial.rung);
        }
        verdict
    }

    /// Closes a trial that says nothing about its rung.
    pub(super) fn close_void(&self, trial: &Trial, incident: Option<IncidentKind>, step: &mut Step) {
        let (trial, tested) = (trial.number, trial.tested);
        step.entries.push(Entry::TrialEnded { trial, verdict: Verdict::Void, incident, tested, gain: None });
    }

    fn measure_again(&mut self, trial: Trial, step: &mut Step) -> State {
        self.tally.spoken += 1;
        self.close_void(&trial, Some(IncidentKind::ScoreLoss), step);
        self.doubted = Some(trial.scores);
        self.begin_trial(trial.rung, Reason::Disturbed { trial: trial.number }, step)
    }

    /// How the last score of a trial that held compares with the baseline; none where that is not known.
    fn gain(&self, trial: &Trial) -> Option<Comparison> {
        let held = trial.incidents.is_empty() && !trial.scores.is_empty() && !self.is_baseline();
        let compare = Scoring::of(self.rules).compare;
        if held { self.against_baseline(std::slice::from_ref(&trial.scores), compare) } else { None }
    }

    /// The last passes of these trials against that of the baseline, where it is the same proof.
    fn against_baseline(&self, trials: &[Vec<f64>], compare: fn(&[f64], &[f64]) -> Comparison) -> Option<Comparison> {
        let of_baseline = self.plan.stages.iter().position(|stage| stage.strategy.aim() == Aim::KnowStock)?;
        if self.stage >= self.plan.stages.len() || self.plan.stages[of_baseline].proof != self.proof_at() {
            return None;
        }
        let last = |trials: &[Vec<f64>]| trials.iter().filter_map(|scores| scores.last().copied()).collect::<Vec<_>>();
        Some(compare(&last(&self.reference()), &last(trials))).filter(|compared| compared.low.is_finite())
    }

    /// The scores that others are compared with. What is measured after a start of its own varies as starts do, so that of each of
    /// several starts one trial counts.
    fn reference(&self) -> Vec<Vec<f64>> {
        let mut baseline: Vec<&AtStock> = self.baseline.iter().collect();
        if self.starts > 0 {
            baseline.dedup_by_key(|at_stock| at_stock.start);
        }
        baseline.into_iter().map(|at_stock| at_stock.scores.clone()).collect()
    }

    /// Whether a lower score is a loss: nothing is slower on purpose, and the trial is short enough to repeat.
    fn may_not_score_less(&self, trial: &Trial) -> bool {
        let is_slower = |setting: &Setting| {
            setting.harder == Direction::Up && trial.rung.get(&setting.name).is_some_and(|value| value < setting.stock)
        };
        let may_not = self.aim().is_some_and(Aim::may_not_score_less);
        let is_whole = self.trial_length() == self.proof().length();
        may_not && is_whole && trial.tested <= LONGEST_REPEATED && !self.rig.settings.iter().any(is_slower)
    }

    fn is_baseline(&self) -> bool {
        self.aim() == Some(Aim::KnowStock)
    }

    /// What the stage is for; none before the first and behind the last.
    pub(super) fn aim(&self) -> Option<Aim> {
        Some(self.plan.stages.get(self.stage)?.strategy.aim())
    }

    /// Withdraws marks because of what a trial showed.
    pub(super) fn withdraw_marks(&mut self, trial: u32, step: &mut Step, is_none: impl Fn(&Mark) -> bool) {
        let (withdrawn, standing) = mem::take(&mut self.marks).into_iter().partition(is_none);
        self.marks = standing;
        step.entries.extend(withdrawn_in(trial, withdrawn));
    }
}

fn withdrawn_in(trial: u32, marks: Vec<Mark>) -> impl Iterator<Item = Entry> {
    marks.into_iter().map(move |mark| Entry::MarkWithdrawn { mark, trial })
}

fn worst(trial: &Trial) -> Option<IncidentKind> {
    trial.incidents.iter().copied().max_by_key(|kind| kind.verdict())
}
