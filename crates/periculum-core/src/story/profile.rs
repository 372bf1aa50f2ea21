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
    /// The other settings that moved, and the one that a stage is to move, for lines below: first that which a stage climbs.
    pub others: Vec<Other>,
    /// The stages that the trials belong to, in order.
    pub bands: Vec<Band>,
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

/// A setting beside the climbed one.
#[derive(Clone, Debug, PartialEq)]
pub struct Other {
    /// It as an axis.
    pub axis: Axis,
    /// Its value in each trial; none where that is not known.
    pub values: Vec<Option<Decimal>>,
}

/// Trials of one stage behind each other.
#[derive(Clone, Debug, PartialEq)]
pub struct Band {
    /// The stage, from 0.
    pub stage: usize,
    /// The place of its first trial among the points.
    pub from: usize,
    /// What it settled at, as it is written: the value of its mark that stands.
    pub found: Option<String>,
}

/// One trial.
#[derive(Clone, Debug, PartialEq)]
pub struct Point {
    /// The trial's number.
    pub trial: u32,
    /// The value of the climbed setting.
    pub height: Decimal,
    /// How the trial ended; none while it is open.
    pub verdict: Option<Verdict>,
    /// Whether a mark that stands was proved here.
    pub is_mark: bool,
}

impl AscentProfile {
    /// The profile of a climb so far; none where the plan moves no setting.
    pub fn of(story: &Story, rig: &Rig, plan: &Plan) -> Option<Self> {
        let climbed = rig.setting(plan.climbed_setting()?)?;
        let trials: Vec<(&TrialStory, Decimal)> =
            story.trials.iter().filter_map(|trial| Some((trial, trial.rung.get(&climbed.name)?))).collect();
        let point = |(trial, height): &(&TrialStory, Decimal)| Point {
            trial: trial.number,
            height: climbed.ladder.rescaled(*height),
            verdict: trial.verdict,
            is_mark: story.marks.iter().any(|mark| mark.trial == trial.number),
        };
        let other = |setting: &Setting| {
            let value = |(trial, _): &(&TrialStory, Decimal)| trial.rung.get(&setting.name);
            let values: Vec<_> =
                trials.iter().map(|trial| value(trial).map(|it| setting.ladder.rescaled(it))).collect();
            Other { axis: Axis::of(setting), values }
        };
        let second = second(climbed, rig, plan);
        let moved = |setting: &&Setting| {
            let mut values = trials.iter().filter_map(|(trial, _)| trial.rung.get(&setting.name));
            let first = values.next();
            values.any(|value| Some(value) != first)
        };
        let rest =
            rig.settings.iter().filter(|it| it.name != climbed.name && second.is_none_or(|one| one.name != it.name));
        Some(Self {
            height: Axis::of(climbed),
            others: second.into_iter().chain(rest.filter(moved)).map(other).collect(),
            bands: bands(&trials, story, rig),
            points: trials.iter().map(point).collect(),
            stock: climbed.ladder.rescaled(climbed.stock),
            ceiling: climbed.ladder.rescaled(climbed.ceiling(&plan.use_name)),
        })
    }
}

fn bands(trials: &[(&TrialStory, Decimal)], story: &Story, rig: &Rig) -> Vec<Band> {
    let found = |stage: usize| {
        let mark = story.marks.iter().rfind(|mark| mark.stage == stage)?;
        Some(rig.setting(&mark.setting)?.written(mark.rung.get(&mark.setting)?))
    };
    let starts = |at: &usize| *at == 0 || trials[*at].0.stage != trials[*at - 1].0.stage;
    let band = |from: usize| Band { stage: trials[from].0.stage, from, found: found(trials[from].0.stage) };
    (0..trials.len()).filter(starts).map(band).collect()
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
