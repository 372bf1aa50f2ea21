//! Where the trials of a climb lie over two settings, and what they say about the border between what holds and what
//! does not.

use rust_decimal::Decimal;

use crate::model::ladder::Direction;
use crate::model::plan::Plan;
use crate::model::rig::Rig;
use crate::model::setting::Setting;
use crate::model::verdict::Verdict;
use crate::story::profile::{Axis, second};
use crate::story::{Story, TrialStory};

/// The trials of a climb over two settings.
#[derive(Clone, Debug, PartialEq)]
pub struct Terrain {
    /// The setting to the right, and how far it may go.
    pub across: Side,
    /// The setting upwards.
    pub up: Side,
    /// Every trial, in order.
    pub places: Vec<Place>,
    /// What is known of the border for each value upwards that was tried, from the largest value on.
    pub border: Vec<Bounds>,
}

/// One of the two settings.
#[derive(Clone, Debug, PartialEq)]
pub struct Side {
    /// Its name in files.
    pub name: String,
    /// Its label and unit.
    pub axis: Axis,
    /// Its value when nobody changes it.
    pub stock: Decimal,
    /// The smallest and the largest value that may be applied for the plan's use.
    pub floor: Decimal,
    /// See `floor`.
    pub ceiling: Decimal,
    /// Which way it is harder.
    pub harder: Direction,
}

/// A trial in its place.
#[derive(Clone, Debug, PartialEq)]
pub struct Place {
    /// Its number.
    pub trial: u32,
    /// Its value of the setting to the right.
    pub across: Decimal,
    /// Its value of the setting upwards.
    pub up: Decimal,
    /// How it ended; none while it is open.
    pub verdict: Option<Verdict>,
}

/// The border at one value upwards, by what is harder than what held and easier than what fell.
///
/// Nothing is estimated: a rung that is no harder in either setting than one that held counts as holding, and one that
/// is no easier in either than one that fell counts as falling. Near the border chance decides, so that the two may cross.
#[derive(Clone, Debug, PartialEq)]
pub struct Bounds {
    /// The value upwards.
    pub up: Decimal,
    /// The hardest value across that holds, by what is known.
    pub holds: Option<Decimal>,
    /// The easiest one that does not.
    pub falls: Option<Decimal>,
}

impl Terrain {
    /// The terrain of a climb so far; none where the rig has no two settings, or the plan moves none.
    pub fn of(story: &Story, rig: &Rig, plan: &Plan) -> Option<Self> {
        let across = rig.setting(plan.climbed_setting()?)?;
        let other = || rig.settings.iter().find(|setting| setting.name != across.name);
        let up = second(across, rig, plan).or_else(other)?;
        let place = |trial: &TrialStory| {
            Some(Place {
                trial: trial.number,
                across: across.ladder.rescaled(trial.rung.get(&across.name)?),
                up: up.ladder.rescaled(trial.rung.get(&up.name)?),
                verdict: trial.verdict,
            })
        };
        let places: Vec<Place> = story.trials.iter().filter_map(place).collect();
        let sides = (Side::of(across, plan), Side::of(up, plan));
        let border = border(&places, sides.0.harder, sides.1.harder);
        Some(Self { across: sides.0, up: sides.1, places, border })
    }
}

impl Side {
    fn of(setting: &Setting, plan: &Plan) -> Self {
        let rescaled = |value| setting.ladder.rescaled(value);
        Self {
            name: setting.name.clone(),
            axis: Axis::of(setting),
            stock: rescaled(setting.stock),
            floor: rescaled(setting.floor),
            ceiling: rescaled(setting.ceiling(&plan.use_name)),
            harder: setting.harder,
        }
    }
}

/// A value so that more of it is harder.
fn hardness(value: Decimal, harder: Direction) -> Decimal {
    match harder {
        Direction::Up => value,
        Direction::Down => -value,
    }
}

fn border(places: &[Place], across: Direction, up: Direction) -> Vec<Bounds> {
    let mut rows: Vec<Decimal> = places.iter().map(|place| place.up).collect();
    rows.sort();
    rows.dedup();
    let with = |verdicts: [Verdict; 2]| {
        places.iter().filter(move |place| place.verdict.is_some_and(|verdict| verdicts.contains(&verdict)))
    };
    let bounds = |row: Decimal| {
        let held = with([Verdict::Held; 2]).filter(|place| hardness(place.up, up) >= hardness(row, up));
        let fell = with([Verdict::Fell, Verdict::Slipped]).filter(|place| hardness(place.up, up) <= hardness(row, up));
        Bounds {
            up: row,
            holds: held.map(|place| place.across).max_by_key(|value| hardness(*value, across)),
            falls: fell.map(|place| place.across).min_by_key(|value| hardness(*value, across)),
        }
    };
    rows.into_iter().rev().map(bounds).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn place(across: i64, up: i64, verdict: Verdict) -> Place {
        Place { trial: 1, across: across.into(), up: up.into(), verdict: Some(verdict) }
    }

    fn bounds(places: &[Place]) -> Vec<(i64, Option<i64>, Option<i64>)> {
        let whole = |value: Decimal| i64::try_from(value).expect("whole");
        let border = border(places, Direction::Up, Direction::Down);
        border.into_iter().map(|it| (whole(it.up), it.holds.map(whole), it.falls.map(whole))).collect()
    }

    #[test]
    fn what_holds_with_less_voltage_holds_with_more() {
        let places = [
            place(46, 125, Verdict::Held),
            place(48, 125, Verdict::Fell),
            place(45, 120, Verdict::Held),
            place(46, 120, Verdict::Fell),
            place(49, 130, Verdict::Void),
        ];
        assert_eq!(
            bounds(&places),
            [(130, Some(46), None), (125, Some(46), Some(48)), (120, Some(45), Some(46))],
            "what was broken off says nothing"
        );
    }

    proptest! {
        /// With a sharp border and no chance, what is said to hold holds, and what is said to fall falls.
        #[test]
        fn bounds_are_true_where_no_chance_is(tried in prop::collection::vec((30i64..60, 100i64..140), 1..40)) {
            let holds = |across: i64, up: i64| across <= 30 + (up - 100) / 2;
            let verdict = |(across, up)| if holds(across, up) { Verdict::Held } else { Verdict::Fell };
            let places: Vec<Place> = tried.iter().map(|at| place(at.0, at.1, verdict(*at))).collect();
            for (up, held, fell) in bounds(&places) {
                prop_assert!(held.is_none_or(|across| holds(across, up)));
                prop_assert!(fell.is_none_or(|across| !holds(across, up)));
            }
        }
    }
}
