//! An estimate as the rules up to 6 had it, and as a map has it: what takes most from the variance of the limit teaches most.

use libm::log;

use super::{MOMENTS, Reach, SHORTEST};
use crate::inference::hazard::Hazard;

/// The longest trial of those rules was half an hour.
const LESSONS: usize = MOMENTS.len() - 1;

/// Once something fell, a lesson must promise to take this much off the logarithm of the variance in an hour: below
/// that, what is left to know costs more than a margin does.
const WORTH_AN_HOUR: f64 = 0.45;

/// Before anything fell, no trial that falls more likely than this, so that the limit is met from below.
const DARING: f64 = 0.5;

/// No trial at all that falls at once more likely than this: deep falls take the machine down, and tell little.
const AT_ONCE: f64 = 0.05;

/// A limit that is known this well, in steps, is put to the proof.
const KNOWN: f64 = 0.7;

/// How sure it must be that a rung is within the limit before the proof is spent on it.
const SURE: f64 = 0.5;

/// No more rungs than these are thought about at a time, the hardest ones: those far below what held teach nothing.
const MOST_RUNGS: usize = 20;

/// One law, and what is known of its figures.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Former {
    pub(in crate::engine) model: Hazard,
}

impl Former {
    pub(super) fn candidate(&self, most: usize, margin: impl Fn(usize) -> f64) -> usize {
        let is_sure = |rung: &usize| self.model.within(*rung as f64 + margin(*rung)) >= SURE;
        (0..=most).rev().find(is_sure).unwrap_or(0)
    }

    pub(super) fn lesson(&self, reach: Reach) -> Option<(usize, f64)> {
        let (_, deviation) = self.model.limit();
        if deviation <= KNOWN {
            return None;
        }
        let model = self.model.likely();
        let moments = &MOMENTS[..LESSONS];
        let expected =
            |rung: usize| model.expect(rung as f64, moments).into_iter().map(move |expected| (rung, expected));
        let rungs = (1..=reach.highest).rev().take(MOST_RUNGS);
        let trials = rungs.flat_map(|rung| moments.iter().copied().zip(expected(rung)));
        let is_bearable = |falls: f64, at_once: f64| at_once <= AT_ONCE && (reach.has_fallen || falls <= DARING);
        let trials = trials.filter(|(length, _)| *length >= SHORTEST);
        let worth = trials.filter_map(|(length, (rung, expected))| {
            let cost = reach.cost(expected.seconds, expected.falls, expected.falls_at_once);
            let worth = -log(expected.variance_left.max(1e-9)) / cost;
            is_bearable(expected.falls, expected.falls_at_once).then_some(((rung, length), worth))
        });
        let best = worth.max_by(|(_, a), (_, b)| a.total_cmp(b));
        let least = if reach.has_fallen { WORTH_AN_HOUR / 3600.0 } else { 0.0 };
        best.filter(|(_, worth)| *worth > least).map(|(trial, _)| trial)
    }
}
