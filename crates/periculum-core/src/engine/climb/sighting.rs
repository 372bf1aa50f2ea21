//! What the operator saw: held against the trial that ran when it was seen, even where that is over by now.

use super::climber::Climber;
use crate::engine::course::{Move, Outcome};
use crate::engine::entry::Entry;
use crate::engine::state::{Doing, Judged, Next, State, Stop, Stopping, UnderWay};
use crate::engine::step::{Command, Step};
use crate::model::evidence::{Evidence, Finding};
use crate::model::incident::{Incident, IncidentKind};
use crate::model::verdict::Verdict;

impl Climber {
    pub(super) fn on_seen(&mut self, state: State, text: &str, seen_in: Option<u32>, step: &mut Step) -> State {
        let what = if text.is_empty() { Evidence::from(Finding::Seen) } else { Evidence::from(text) };
        let incident = Incident::new(IncidentKind::Seen, what);
        match seen_in.filter(|number| open_trial(&state) != Some(*number)) {
            Some(number) => self.on_seen_late(state, number, incident, step),
            None => self.on_noticed(state, &[incident], step),
        }
    }

    /// A trial that is over did not hold: its mark is none, and where it was the last one the stage goes on as it would have.
    fn on_seen_late(&mut self, state: State, number: u32, incident: Incident, step: &mut Step) -> State {
        step.entries.push(Entry::Incident { trial: Some(number), pass: None, incident });
        if self.verdicts.get(&number) != Some(&Verdict::Held) {
            return state;
        }
        self.verdicts.insert(number, Verdict::Slipped);
        self.held.remove(&number);
        self.seen.retain(|seen| seen.trial != number);
        let kind = Some(IncidentKind::Seen);
        step.entries.push(Entry::Rejudged { trial: number, verdict: Verdict::Slipped, incident: kind });
        self.withdraw_marks(number, step, |mark| mark.trial == number);
        self.baseline.retain(|at_stock| at_stock.trial != number);
        let can_go_back = matches!(state, State::Trying(..) | State::Paused(_) | State::Asked(_));
        let last = self.judged.take().filter(|last| last.trial.number == number && last.stage == self.stage);
        match last.filter(|_| can_go_back) {
            Some(last) => self.judge_anew(state, *last, step),
            None => state,
        }
    }

    /// Lets the course hear the other outcome, and breaks off what it wanted after the first.
    fn judge_anew(&mut self, state: State, Judged { trial, before, .. }: Judged, step: &mut Step) -> State {
        let outcome = Outcome {
            trial: trial.number,
            verdict: Verdict::Slipped,
            incident: Some(IncidentKind::Seen),
            cores: trial.cores,
            scores: trial.scores,
            benchmarks: trial.benchmarks,
            tested: trial.tested,
            unheard: trial.unheard,
        };
        let mut course = before;
        let wanted = course.after(&outcome, self.ground(step.at));
        self.course = Some(course);
        match state {
            State::Trying(open, Doing::Passing { index, began, stopping }) => {
                step.command = stopping.is_none().then_some(Command::StopPass);
                let stopping = Some(Stop::new(Stopping::Instead(Box::new(wanted)), step.at));
                State::Trying(open, Doing::Passing { index, began, stopping })
            }
            State::Trying(open, Doing::Setting { under_way }) if !under_way.errand.needs_somebody(&self.rig) => {
                let instead = under_way.instead.or(Some(Stopping::Instead(Box::new(wanted))));
                State::Trying(open, Doing::Setting { under_way: UnderWay { instead, ..under_way } })
            }
            State::Trying(open, doing) => {
                self.forget(&doing);
                self.close_void(&open, None, step);
                self.make(wanted, step)
            }
            State::Paused(next) => {
                if let Next::Pass(open, _) = next {
                    self.close_void(&open, None, step);
                }
                match wanted {
                    Move::Try(rung, reason) => State::Paused(Next::Trial(rung, reason)),
                    Move::Ask(suggestion) => State::Paused(Next::Answer(suggestion)),
                    other => self.make(other, step),
                }
            }
            State::Asked(_) => self.make(wanted, step),
            other => other,
        }
    }
}

fn open_trial(state: &State) -> Option<u32> {
    match state {
        State::Trying(trial, _) | State::Paused(Next::Pass(trial, _)) => Some(trial.number),
        _ => None,
    }
}
