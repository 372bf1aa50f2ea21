//! How likely the rungs of a plane survive a proof: the shades of a map between its trials.

use rust_decimal::Decimal;

use super::claim::{Claim, is_enough, survival_of};
use crate::model::ladder::Direction;
use crate::model::plan::Plan;
use crate::model::rig::Rig;
use crate::model::rung::Rung;
use crate::story::Story;

/// How likely a rung survives, from the best to the worst.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Chance {
    /// As likely as is wanted, and as surely.
    Sure,
    /// Nine times of ten or more, as far as is known.
    Likely,
    /// More often than not.
    Rather,
    /// Less often than not.
    Unlikely,
    /// Less than once in ten times.
    Hardly,
}

impl Chance {
    fn of(mean: f64, is_sure: bool) -> Self {
        match mean {
            _ if is_sure => Self::Sure,
            0.9.. => Self::Likely,
            0.5.. => Self::Rather,
            0.1.. => Self::Unlikely,
            _ => Self::Hardly,
        }
    }
}

/// A plane of two settings in which all others stay as they are in one trial.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Plane {
    /// The number of the trial.
    pub trial: u32,
    /// The setting to the right, and its values.
    pub across: (String, Vec<Decimal>),
    /// The setting upwards, and its values.
    pub up: (String, Vec<Decimal>),
}

impl Plane {
    /// How likely each rung of the plane survives the proof of the trial's stage: for each value upwards, a chance for each value
    /// across, and none for a rung of which nothing can be said; none at all where that is so of every one.
    ///
    /// What is known before anything was seen is not the same around every rung: where something easier comes off worse for that, what
    /// is harder is no better. What puts all claims of the climb in doubt is looked for once, at the rung of the trial. Of each row only
    /// as much is worked out as is needed to find where one chance becomes another: what is harder never survives more often.
    pub fn chances(&self, story: &Story, rig: &Rig, plan: &Plan) -> Option<Vec<Vec<Option<Chance>>>> {
        let trial = story.trial(self.trial)?;
        let proof = plan.stages.get(trial.stage)?.proof;
        let settings = [self.across.0.as_str(), self.up.0.as_str()];
        let climb = (story, rig, plan);
        let own = Claim::over(&settings, climb, (&trial.rung, trial.stage), proof)?;
        let of = |rung: &Rung| {
            let (survival, wants) = survival_of(&settings, climb, (rung, trial.stage), proof)?;
            Some(Chance::of(survival.mean, !own.is_in_doubt() && is_enough(&survival, &wants)))
        };
        let row = |up: &Decimal| {
            let rung = trial.rung.with(&self.up.0, *up);
            filled(self.across.1.len(), &|at| of(&rung.with(&self.across.0, self.across.1[at])))
        };
        let mut rows: Vec<Vec<Option<Chance>>> = self.up.1.iter().map(row).collect();
        let harder = |setting: &str| Some(rig.setting(setting)?.harder);
        rows.iter_mut().for_each(|row| grow_no_better(row, harder(&self.across.0), no_better));
        grow_no_better(&mut rows, harder(&self.up.0), |worse, than| {
            worse.iter_mut().zip(than).for_each(|(worse, than)| no_better(worse, than));
        });
        rows.iter().flatten().any(Option::is_some).then_some(rows)
    }
}

fn no_better(worse: &mut Option<Chance>, than: &Option<Chance>) {
    *worse = worse.map(|chance| than.map_or(chance, |than| chance.max(than)));
}

/// Has each be no better than the one beside it that is easier.
fn grow_no_better<T>(all: &mut [T], harder: Option<Direction>, no_better: impl Fn(&mut T, &T)) {
    let is_up = harder != Some(Direction::Down);
    for at in 1..all.len() {
        let (before, behind) = all.split_at_mut(if is_up { at } else { all.len() - at });
        let (Some(before), Some(behind)) = (before.last_mut(), behind.first_mut()) else { continue };
        if is_up { no_better(behind, before) } else { no_better(before, behind) }
    }
}

/// A row is looked at in so many places at least: at both ends of it there may be nothing to be said.
const PLACES: usize = 8;

/// So many chances in a row, of which those between two that are alike are like them.
fn filled(count: usize, of: &impl Fn(usize) -> Option<Chance>) -> Vec<Option<Chance>> {
    let Some(last) = count.checked_sub(1) else { return Vec::new() };
    let mut places: Vec<usize> = (0..=PLACES).map(|nth| last * nth / PLACES).collect();
    places.dedup();
    let mut row = vec![None; count];
    places.iter().for_each(|place| row[*place] = of(*place));
    let mut open: Vec<(usize, usize)> = places.windows(2).map(|pair| (pair[0], pair[1])).collect();
    while let Some((from, to)) = open.pop() {
        if row[from] == row[to] {
            let alike = row[from];
            row[from..to].fill(alike);
        } else if to - from > 1 {
            let middle = from.midpoint(to);
            row[middle] = of(middle);
            open.extend([(from, middle), (middle, to)]);
        }
    }
    row
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::analysis::example::{grid, told};
    use crate::model::moment::Span;
    use crate::model::verdict::Verdict::{self, Fell, Held};
    use proptest::prelude::*;

    const ALL: [Chance; 5] = [Chance::Sure, Chance::Likely, Chance::Rather, Chance::Unlikely, Chance::Hardly];

    /// The same, each of which was at its proof for a minute.
    fn tested(trials: &[(i64, i64, f64, Verdict)]) -> Story {
        let mut story = told(trials);
        story.trials.iter_mut().for_each(|trial| trial.tested = Span::from_seconds(60));
        story
    }

    fn plane() -> Plane {
        Plane {
            trial: 1,
            across: ("clock".into(), (40..=50).map(Decimal::from).collect()),
            up: ("volts".into(), [110, 115, 120, 125, 130].map(Decimal::from).into()),
        }
    }

    #[test]
    fn what_is_harder_never_survives_more_often() {
        let (rig, plan) = grid();
        let story = tested(&[(42, 125, 1.0, Held), (44, 125, 1.0, Held), (47, 125, 1.0, Fell), (45, 115, 1.0, Fell)]);
        let chances = plane().chances(&story, &rig, &plan).expect("something can be said");
        assert!(chances.iter().all(|row| row.is_sorted()), "{chances:?}");
        let columns = (0..11).map(|at| chances.iter().map(|row| row[at]).collect::<Vec<_>>());
        columns.for_each(|column| assert!(column.iter().rev().is_sorted(), "more voltage is easier: {column:?}"));
        assert!(chances[4][0] < chances[0][10], "{chances:?}");
    }

    #[test]
    fn where_nothing_was_tried_there_are_none() {
        let (rig, plan) = grid();
        assert_eq!(plane().chances(&Story::default(), &rig, &plan), None);
        let nowhere = Plane { across: ("clock".into(), Vec::new()), ..plane() };
        assert_eq!(nowhere.chances(&tested(&[(42, 125, 1.0, Held)]), &rig, &plan), None);
    }

    proptest! {
        #[test]
        fn a_row_is_as_if_each_had_been_worked_out(
            row in prop::collection::vec(0usize..5, 5..60),
            [before, behind] in [0usize..4, 0usize..4],
        ) {
            let mut known = row;
            known.sort_unstable();
            let known = known.into_iter().map(|at| Some(ALL[at]));
            let nothing = |count| std::iter::repeat_n(None, count);
            let all: Vec<Option<Chance>> = nothing(before).chain(known).chain(nothing(behind)).collect();
            prop_assert_eq!(filled(all.len(), &|at| all[at]), all.clone());
        }
    }
}
