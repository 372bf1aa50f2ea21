//! An estimate by many laws: what brings a claim farther teaches most.

use super::{MOMENTS, Reach, SHORTEST};
use crate::inference::laws::{Aim, Laws};
use crate::inference::lesson::Teaching;

/// A lesson must bring the claim so many steps farther in an hour: below that, what is left to know costs more than the steps
/// that are given away. As long as nothing can be claimed at all, less is enough.
const WORTH_AN_HOUR: f64 = 1.5;
const WORTH_AN_HOUR_BY_8: f64 = 2.5;
const WORTH_A_CLAIM: f64 = 0.5;

/// Before anything fell, no trial that falls more likely than this, so that the limit is met from below.
const DARING: f64 = 0.5;

/// No trial that falls at once more likely than this, before something fell and then: deep falls take the machine down, and tell little.
const AT_ONCE: f64 = 0.005;
const AT_ONCE_BY_8: f64 = 0.01;
const AT_ONCE_NEAR: f64 = 0.05;

/// No more rungs than these are thought about at a time, evenly from the hardest one on.
const MOST_RUNGS: usize = 24;

/// Rungs that fall more seldom than this in the longest trial teach nothing, nor do easier ones.
const SELDOM: f64 = 0.02;

/// Where no rung can be as sure as it should, since something fails that no setting changes, the hardest is enough that is nearly as
/// sure as any.
const NEARLY: f64 = 0.98;

/// Laws with their weights, and what they are to say.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Weighed {
    pub(in crate::engine) laws: Laws,
    pub(in crate::engine) aim: Aim,
    pub(in crate::engine) rules: u32,
}

impl Weighed {
    pub(super) fn candidate(&self, most: usize, margin: impl Fn(usize) -> f64) -> usize {
        let once_proved = self.laws.once_proved(&self.aim);
        let at_first = once_proved.sure(0.0, margin(0));
        // By the rules up to 8 a claim was given up that could just be made.
        let can_claim = at_first >= self.aim.sure && self.rules > 8;
        let enough = if can_claim { self.aim.sure } else { self.aim.sure.min(NEARLY * at_first) };
        let is_enough = |rung: &usize| once_proved.sure(*rung as f64, margin(*rung)) >= enough;
        (0..=most).rev().find(is_enough).unwrap_or(0)
    }

    /// Whether the easiest rung would be as sure as it should.
    fn can_claim(&self) -> bool {
        self.laws.once_proved(&self.aim).sure(0.0, 0.0) >= self.aim.sure
    }

    pub(super) fn lesson(&self, reach: Reach) -> Option<(usize, f64)> {
        let teaching = self.laws.teaching(&self.aim, reach.highest);
        if !reach.has_fallen && reach.held < reach.highest {
            return Some((leap(&teaching, reach, self.rules), SHORTEST));
        }
        let apart = reach.highest.div_ceil(MOST_RUNGS).max(1);
        let rungs = (1..=reach.highest).rev().step_by(apart);
        let expected = rungs.map(|rung| (rung, teaching.expect(rung as f64, &MOMENTS)));
        let trials = expected.take_while(|(_, lessons)| lessons[lessons.len() - 1].falls >= SELDOM).flat_map(
            |(rung, lessons)| MOMENTS.into_iter().zip(lessons).map(move |(length, lesson)| ((rung, length), lesson)),
        );
        let is_bearable = |length: f64, at_once: f64| length >= SHORTEST && at_once <= AT_ONCE_NEAR;
        let trials = trials.filter(|((_, length), lesson)| is_bearable(*length, lesson.falls_at_once));
        let worth = trials.map(|(trial, lesson)| {
            (trial, lesson.gain / reach.cost(lesson.seconds, lesson.falls, lesson.falls_at_once))
        });
        let (trial, worth) = worth.max_by(|(_, a), (_, b)| a.total_cmp(b))?;
        let least = |steps: f64| worth > steps / 3600.0;
        let an_hour = if self.rules > 8 { WORTH_AN_HOUR } else { WORTH_AN_HOUR_BY_8 };
        let is_worth_it = least(an_hour) || (least(WORTH_A_CLAIM) && !self.can_claim());
        is_worth_it.then_some(trial)
    }
}

/// Before anything fell, the hardest rung beyond what held to which a short trial may go.
fn leap(teaching: &Teaching, reach: Reach, rules: u32) -> usize {
    let at_once = if rules > 8 { AT_ONCE } else { AT_ONCE_BY_8 };
    let is_bearable = |rung: &usize| {
        let lessons = teaching.expect(*rung as f64, &[MOMENTS[0], SHORTEST]);
        lessons[1].falls <= DARING && lessons[0].falls <= at_once
    };
    let next = reach.held + 1;
    (next..=reach.highest).take_while(is_bearable).last().unwrap_or(next)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::inference::hazard::Observation;
    use crate::inference::prior::Prior;

    /// What can just be claimed at the easiest rung is claimed there, and not given up for a harder one that is nearly as sure.
    #[test]
    fn what_can_just_be_claimed_is_not_given_up() {
        let aim = Aim { proof: 28_800.0, survives: 0.9, sure: 0.95 };
        let mut laws = Laws::between(-100.0, 250.0, &Prior::usual(0.08));
        [75.0, 87.5, 87.5].iter().for_each(|rung| laws.observe(*rung, Observation::Fell(100.0)));
        while laws.once_proved(&aim).sure(0.0, 0.0) < aim.sure {
            laws.observe(0.0, Observation::Held(900.0));
        }
        let chosen = |rules: u32| {
            let weighed = Weighed { laws: laws.clone(), aim, rules };
            let rung = weighed.candidate(20, |_| 0.0);
            (rung, laws.once_proved(&aim).sure(rung as f64, 0.0))
        };
        let [(by_8, given_up), (by_9, claimed)] = [8, 9].map(chosen);
        assert!(claimed >= aim.sure && given_up < aim.sure && by_9 < by_8, "{by_9} {claimed}, {by_8} {given_up}");
    }
}
