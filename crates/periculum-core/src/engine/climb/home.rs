//! The way home, which is stock or the last mark, and the end.

use std::collections::BTreeSet;

use super::climber::Climber;
use crate::engine::entry::{ClimbEnd, Entry};
use crate::engine::state::{Aside, State, Then, UnderWay};
use crate::engine::step::Step;
use crate::model::errand::Errand;
use crate::model::plan::Ends;
use crate::model::rung::Rung;

impl Climber {
    /// Settings that did not take on the way home count as unknown and get one more try, straight to where they are to go;
    /// after that they are left as they are.
    pub(super) fn doubt(&mut self, failed: &Errand, given_up: &mut BTreeSet<String>) {
        self.belief.forget(failed);
        let lost = failed.changes().iter().filter(|change| change.from.is_none());
        given_up.extend(lost.map(|change| change.setting.clone()));
    }

    /// Goes where the plan says that the climb ends, having come to its end, and to stock otherwise.
    pub(super) fn go_home(&mut self, end: ClimbEnd, step: &mut Step) -> State {
        let is_done = matches!(end, ClimbEnd::Completed | ClimbEnd::BudgetSpent { .. });
        let stays = if is_done { self.plan.ends } else { Ends::AtStock };
        self.end_at(end, stays, step)
    }

    /// Ends because the operator says so.
    pub(super) fn stop_at(&mut self, stays: Ends, step: &mut Step) -> State {
        self.end_at(ClimbEnd::Stopped, stays, step)
    }

    fn end_at(&mut self, end: ClimbEnd, stays: Ends, step: &mut Step) -> State {
        let mark = self.marks.last().filter(|_| stays == Ends::AtMark).map(|mark| mark.rung.clone());
        self.head_home(Then::End(end, mark), step)
    }

    /// Where something goes wrong on the way to a mark, the rig goes to stock.
    pub(super) fn instead_of_mark(&self, then: Then) -> Then {
        match then {
            Then::End(end, _) => Then::End(end, None),
            wait => wait,
        }
    }

    pub(super) fn head_home(&mut self, then: Then, step: &mut Step) -> State {
        if self.way_home(&then, &BTreeSet::new()).is_some() {
            let (end, to) = match &then {
                Then::End(end, mark) => (Some(end.clone()), mark.clone()),
                Then::Wait(..) => (None, None),
            };
            step.entries.push(Entry::GoingHome { end, to });
        }
        self.walk_home(then, BTreeSet::new(), step)
    }

    pub(super) fn walk_home(&mut self, then: Then, given_up: BTreeSet<String>, step: &mut Step) -> State {
        match (self.way_home(&then, &given_up), then) {
            (None, Then::End(end, mark)) => self.finish(end, mark, step),
            (None, Then::Wait(next, _)) => self.pause(next, step),
            (Some(errand), then) => {
                self.order(None, &errand, step);
                State::GoingHome { then, under_way: UnderWay::new(errand, step.at), given_up }
            }
        }
    }

    /// The next errand on the way home, as far as the rig is to go.
    fn way_home(&self, then: &Then, given_up: &BTreeSet<String>) -> Option<Errand> {
        let stays = matches!(then, Then::Wait(_, Aside::AsItStands));
        let home = match then {
            Then::End(_, Some(mark)) => mark.clone(),
            Then::End(_, None) | Then::Wait(..) => self.rig.stock(),
        };
        let left: Rung =
            home.iter().filter(|(name, _)| !given_up.contains(*name)).map(|(n, v)| (n.to_owned(), v)).collect();
        self.way_to(&left).into_iter().find(|errand| !(stays && errand.needs_somebody(&self.rig)))
    }

    pub(super) fn finish(&mut self, end: ClimbEnd, mark: Option<Rung>, step: &mut Step) -> State {
        let left_at = mark.filter(|mark| self.belief.astray_from(mark).is_empty());
        self.left_at.clone_from(&left_at);
        step.entries.push(Entry::Ended {
            end,
            marks: self.marks.clone(),
            trials: self.tally.trials,
            falls: self.tally.falls,
            tested: self.tally.tested,
            test_hours: self.tally.tested.hours(),
            not_at_stock: self.belief.astray_from(&self.rig.stock()),
            left_at,
        });
        State::Ended
    }
}
