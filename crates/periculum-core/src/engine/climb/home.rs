//! The way back to stock, and the end.

use std::collections::BTreeSet;

use super::Climb;
use crate::engine::entry::{ClimbEnd, Entry};
use crate::engine::route::route;
use crate::engine::state::{Aside, State, Then};
use crate::engine::step::Step;
use crate::model::rung::Change;
use crate::model::setting::Setting;

impl Climb {
    /// A setting that did not take on the way home counts as unknown and gets one more try, straight to stock;
    /// after that it is left as it is.
    pub(super) fn doubt(&mut self, failed: Change, given_up: &mut BTreeSet<String>) {
        self.in_force.remove(&failed.setting);
        if failed.from.is_none() {
            given_up.insert(failed.setting);
        }
    }

    pub(super) fn go_home(&mut self, end: ClimbEnd, step: &mut Step) {
        self.head_home(Then::End(end), step);
    }

    pub(super) fn head_home(&mut self, then: Then, step: &mut Step) {
        if self.way_home(&then, &BTreeSet::new()).is_some() {
            let end = match &then {
                Then::End(end) => Some(end.clone()),
                Then::Wait(..) => None,
            };
            step.entries.push(Entry::GoingHome { end });
        }
        self.walk_home(then, BTreeSet::new(), step);
    }

    pub(super) fn walk_home(&mut self, then: Then, given_up: BTreeSet<String>, step: &mut Step) {
        match (self.way_home(&then, &given_up), then) {
            (None, Then::End(end)) => self.finish(end, step),
            (None, Then::Wait(next, _)) => self.pause(next, step),
            (Some(under_way), then) => {
                self.order(None, &under_way, step);
                self.state = State::GoingHome { then, under_way, given_up };
            }
        }
    }

    /// The next change on the way back to stock, as far as the rig is to go.
    fn way_home(&self, then: &Then, given_up: &BTreeSet<String>) -> Option<Change> {
        let stays = matches!(then, Then::Wait(_, Aside::AsItStands));
        let is_left = |change: &Change| given_up.contains(&change.setting) || stays && self.needs_somebody(change);
        route(&self.rig, &self.in_force, &self.rig.stock()).into_iter().find(|change| !is_left(change))
    }

    pub(super) fn finish(&mut self, end: ClimbEnd, step: &mut Step) {
        let is_home = |setting: &&Setting| self.in_force.get(&setting.name) == Some(&setting.stock);
        let astray = self.rig.settings.iter().filter(|setting| !is_home(setting));
        let not_at_stock = astray.map(|setting| setting.name.clone()).collect();
        step.entries.push(Entry::Ended {
            end,
            marks: self.marks.clone(),
            trials: self.trials,
            falls: self.falls,
            tested: self.tested,
            test_hours: self.tested.hours(),
            not_at_stock,
        });
        self.state = State::Ended;
    }
}
