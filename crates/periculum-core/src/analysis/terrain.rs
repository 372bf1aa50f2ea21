//! Where the trials of a climb lie over two settings, and what they say about the border between what holds and what
//! does not.

use rust_decimal::Decimal;

use crate::model::ladder::Direction;
use crate::model::plan::Plan;
use crate::model::rig::Rig;
use crate::model::rung::Rung;
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
    /// The other settings that moved, by name, and what they are at in the plane that the border is of.
    pub beside: Vec<(String, Decimal)>,
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
    /// Whether all other settings were as in the plane that the border is of.
    pub is_in_plane: bool,
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
    /// The settings that a map has where nobody says: the one that the plan climbs, and another one that it moves. None
    /// where the rig has no two settings, or the plan moves none.
    pub fn usual(rig: &Rig, plan: &Plan) -> Option<[String; 2]> {
        let across = rig.setting(plan.climbed_setting()?)?;
        let other = || rig.settings.iter().find(|setting| setting.name != across.name);
        let up = second(across, rig, plan).or_else(other)?;
        Some([across.name.clone(), up.name.clone()])
    }

    /// The terrain of a climb so far over these two settings, across and up; none where the rig has them not.
    ///
    /// Where other settings moved too, the border is that of the plane of this trial, or of the newest one: what was tried
    /// elsewhere says nothing of it.
    pub fn of(story: &Story, rig: &Rig, plan: &Plan, [across, up]: &[String; 2], plane: Option<u32>) -> Option<Self> {
        let (across, up) = (rig.setting(across)?, rig.setting(up)?);
        let is_other = |setting: &&Setting| ![&across.name, &up.name].contains(&&setting.name);
        let others: Vec<&Setting> = rig.settings.iter().filter(is_other).collect();
        let own = plane.and_then(|number| story.trial(number)).or(story.trials.last()).map(|trial| &trial.rung);
        let in_plane =
            |rung: &Rung| own.is_none_or(|own| others.iter().all(|it| rung.get(&it.name) == own.get(&it.name)));
        let place = |trial: &TrialStory| {
            Some(Place {
                trial: trial.number,
                across: across.ladder.rescaled(trial.rung.get(&across.name)?),
                up: up.ladder.rescaled(trial.rung.get(&up.name)?),
                verdict: trial.verdict,
                is_in_plane: in_plane(&trial.rung),
            })
        };
        let places: Vec<Place> = story.trials.iter().filter_map(place).collect();
        let has_moved = |setting: &&&Setting| {
            let is_moved =
                |trial: &TrialStory| own.is_some_and(|own| trial.rung.get(&setting.name) != own.get(&setting.name));
            story.trials.iter().any(is_moved)
        };
        let there = |setting: &&Setting| Some((setting.name.clone(), own?.get(&setting.name)?));
        let beside = others.iter().filter(has_moved).filter_map(there).collect();
        let sides = (Side::of(across, plan), Side::of(up, plan));
        let border = border(&places, sides.0.harder, sides.1.harder);
        Some(Self { across: sides.0, up: sides.1, beside, places, border })
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
    let places: Vec<&Place> = places.iter().filter(|place| place.is_in_plane).collect();
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
        Place { trial: 1, across: across.into(), up: up.into(), verdict: Some(verdict), is_in_plane: true }
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

    #[test]
    fn what_was_tried_elsewhere_says_nothing_of_the_plane() {
        let elsewhere = Place { is_in_plane: false, ..place(48, 125, Verdict::Held) };
        assert_eq!(bounds(&[place(45, 125, Verdict::Held), elsewhere]), [(125, Some(45), None)]);
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
