//! Changes that go back by themselves unless somebody says that all is well: whoever sees nothing any more can't say anything.

use super::applying::ask_again;
use super::climber::{Climber, blame};
use crate::engine::question::Question;
use crate::engine::state::{Doing, State, Trial, UnderWay};
use crate::engine::step::Step;
use crate::model::errand::Errand;
use crate::model::incident::Incident;
use crate::model::moment::Span;

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
