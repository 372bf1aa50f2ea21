//! The ascent profile: the trials in order, with the value of the climbed setting as height.

use rust_decimal::Decimal;

use crate::model::plan::Plan;
use crate::model::quantity::grouped;
use crate::model::rig::Rig;
use crate::model::setting::Setting;
use crate::model::verdict::Verdict;
use crate::story::{Story, TrialStory};

/// What an ascent profile shows, whatever it is drawn with.
#[derive(Clone, Debug, PartialEq)]
pub struct AscentProfile {
    /// The climbed setting, whose value is the height.
    pub height: Axis,
    /// A second setting that a stage moves, for the thin line below.
    pub second: Option<Axis>,
    /// The trials in order.
    pub points: Vec<Point>,
    /// The stock value of the climbed setting.
    pub stock: Decimal,
    /// The ceiling of the climbed setting for the plan's use.
    pub ceiling: Decimal,
}

/// A setting as an axis.
#[derive(Clone, Debug, PartialEq)]
pub struct Axis {
    /// What people call it.
    pub label: String,
    /// Its unit.
    pub unit: String,
    /// What the values 0, 1, 2, … stand for, where they are no numbers.
    pub words: Vec<String>,
}

/// One trial.
#[derive(Clone, Debug, PartialEq)]
pub struct Point {
    /// The trial's number.
    pub trial: u32,
    /// The value of the climbed setting.
    pub height: Decimal,
    /// The value of the second setting.
    pub second: Option<Decimal>,
    /// How the trial ended; none while it is open.
    pub verdict: Option<Verdict>,
    /// Whether a mark that stands was proved here.
    pub is_mark: bool,
}

impl AscentProfile {
    /// The profile of a climb so far; none where the plan moves no setting.
    pub fn of(story: &Story, rig: &Rig, plan: &Plan) -> Option<Self> {
        let climbed = rig.setting(plan.climbed_setting()?)?;
        let second = second(climbed, rig, plan);
        let point = |trial: &TrialStory| {
            Some(Point {
                trial: trial.number,
                height: climbed.ladder.rescaled(trial.rung.get(&climbed.name)?),
                second: second.and_then(|setting| Some(setting.ladder.rescaled(trial.rung.get(&setting.name)?))),
                verdict: trial.verdict,
                is_mark: story.marks.iter().any(|mark| mark.trial == trial.number),
            })
        };
        Some(Self {
            height: Axis::of(climbed),
            second: second.map(Axis::of),
            points: story.trials.iter().filter_map(point).collect(),
            stock: climbed.ladder.rescaled(climbed.stock),
            ceiling: climbed.ladder.rescaled(climbed.ceiling(&plan.use_name)),
        })
    }
}

/// The setting for the thin line: one that a stage climbs, and of another kind than the climbed one where there is such.
pub(crate) fn second<'a>(climbed: &Setting, rig: &'a Rig, plan: &Plan) -> Option<&'a Setting> {
    let moved = plan.climbs().flat_map(|stage| stage.strategy.settings()).filter_map(|name| rig.setting(name));
    let others: Vec<&Setting> = moved.filter(|setting| setting.name != climbed.name).collect();
    others.iter().find(|setting| setting.unit != climbed.unit).or(others.first()).copied()
}

impl Axis {
    pub(crate) fn of(setting: &Setting) -> Self {
        Self { label: setting.label.clone(), unit: setting.unit.clone(), words: setting.words.clone() }
    }

    /// A value without its unit, or what it stands for; nothing between two words.
    pub fn written(&self, value: Decimal) -> String {
        if self.words.is_empty() {
            return grouped(value);
        }
        let nth = usize::try_from(value).ok().filter(|_| value.fract().is_zero());
        nth.and_then(|nth| self.words.get(nth)).cloned().unwrap_or_default()
    }

    /// What it is called, with its unit.
    pub fn title(&self) -> String {
        if self.unit.is_empty() { self.label.clone() } else { format!("{}, {}", self.label, self.unit) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn words_stand_on_an_axis_where_there_are_any() {
        let axis = Axis { label: "slots".into(), unit: String::new(), words: vec!["two".into(), "four".into()] };
        let written = |value: &str| axis.written(value.parse().expect("a number"));
        assert_eq!([written("0"), written("1.0")], ["two", "four"]);
        assert_eq!([written("0.5"), written("2"), written("-1")], ["", "", ""]);
        assert_eq!(Axis { words: Vec::new(), ..axis }.written(4200.into()), "4 200");
    }
}
