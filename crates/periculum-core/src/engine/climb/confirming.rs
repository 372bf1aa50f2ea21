//! Changes that go back by themselves unless somebody says that all is well: whoever sees nothing any more can't say anything.

use super::applying::ask_again;
use super::climber::{Climber, blame};
use crate::engine::entry::Entry;
use crate::engine::question::Question;
use crate::engine::state::{Doing, State, Trial, UnderWay};
use crate::engine::step::Step;
use crate::engine::watch::Sample;
use crate::model::check::Check;
use crate::model::errand::Errand;
use crate::model::incident::Incident;
use crate::model::moment::Span;

/// A change has settled after so long.
const SETTLING: Span = Span::from_seconds(3);

impl Climber {
    /// Goes on behind an errand: at once, or when somebody has said that all is well with it.
    pub(super) fn go_on_when_confirmed(&mut self, trial: Trial, errand: &Errand, step: &mut Step) -> State {
        let Some(within) = self.has_to_be_confirmed(errand) else { return self.set_for(trial, step) };
        let question = Question::Confirm { errand: errand.clone(), until: step.at + within };
        ask_again(Some(trial.number), question.clone(), step);
        State::Trying(trial, Doing::Confirming { question })
    }

    /// How soon a word has to be said of an errand: what goes back to stock is known to be well.
    fn has_to_be_confirmed(&self, errand: &Errand) -> Option<Span> {
        let of_change = errand.changes().iter().filter_map(|change| {
            let setting = self.rig.setting(&change.setting)?;
            setting.confirm.filter(|_| change.to != setting.stock && change.from.is_some())
        });
        of_change.min()
    }

    /// What says by itself that all is well with an errand, where nobody has to: a check for each of its settings that go back.
    fn checks(&self, errand: &Errand) -> Option<Vec<&Check>> {
        let settings = errand.changes().iter().filter_map(|change| self.rig.setting(&change.setting));
        settings.filter(|setting| setting.confirm.is_some()).map(|setting| setting.confirmed_by.as_ref()).collect()
    }

    /// Whether somebody has to say that all is well, since nothing else does.
    pub(super) fn is_confirmed_by_somebody(&self, errand: &Errand) -> bool {
        self.checks(errand).is_none()
    }

    /// Goes on where sensors say that all is well; what they read while the change settles says nothing.
    pub(super) fn hear_checks(&mut self, trial: Trial, question: Question, sample: &Sample, step: &mut Step) -> State {
        let Question::Confirm { errand, until } = &question else {
            return State::Trying(trial, Doing::Confirming { question });
        };
        let left = until.since(step.at);
        let has_settled = self.has_to_be_confirmed(errand).is_some_and(|within| left + SETTLING <= within);
        let checks = self.checks(errand).filter(|_| has_settled).unwrap_or_default();
        let met = checks.iter().filter_map(|check| {
            let reading = *sample.readings.get(&check.sensor)?;
            check.is_met(reading).then(|| (check.sensor.clone(), reading))
        });
        let readings: Vec<(String, f64)> = met.collect();
        if checks.is_empty() || readings.len() < checks.len() {
            return State::Trying(trial, Doing::Confirming { question });
        }
        step.entries.push(Entry::Confirmed { trial: trial.number, readings: readings.into_iter().collect() });
        self.set_for(trial, step)
    }

    /// Holds it against the trial that nobody said so, or that something is wrong, and changes it back.
    pub(super) fn take_back(
        &mut self,
        mut trial: Trial,
        question: &Question,
        incident: Incident,
        step: &mut Step,
    ) -> State {
        blame(&mut trial, None, incident, step);
        let Question::Confirm { errand, .. } = question else { return self.end_trial(trial, step) };
        let back = errand.back();
        self.order(Some(trial.number), &back, step);
        State::Trying(trial, Doing::Setting { under_way: UnderWay::new(back, step.at) })
    }
}
