//! A curve in a climb: what it has as it comes, what was asked for and reported, where its device sat, and what held and fell there.

use std::collections::BTreeMap;

use rust_decimal::Decimal;

use crate::model::curve::Curve;
use crate::model::rig::{Rig, Sensor};
use crate::model::verdict::Verdict;
use crate::story::series::{Series, Spread};
use crate::story::{PassStory, Story, TrialStory};

/// A curve in a climb, as one of its trials has it.
#[derive(Clone, Debug, PartialEq)]
pub struct Shaped<'a> {
    /// The curve.
    pub curve: &'a Curve,
    /// What was asked for at each point; as it comes where there is no such trial.
    pub asked: Vec<Decimal>,
    /// What the rig reported at each point; none where it did not.
    pub reported: Option<Vec<Decimal>>,
    /// Where its device sat in that trial; none where no sensor tells.
    pub sits: Option<Sitting>,
    /// What every trial that is over came to, and at which point.
    pub stands: Vec<Stand>,
}

/// Where a device sat on its curve.
#[derive(Clone, Debug, PartialEq)]
pub struct Sitting {
    /// Across, in the curve's unit there.
    pub across: f64,
    /// What it reached, in the curve's unit; none where no sensor tells.
    pub reached: Option<f64>,
    /// What kept it from a higher point; none where no sensor tells.
    pub limit: Option<String>,
}

/// What came of a trial, at the point that its device sat at.
#[derive(Clone, Debug, PartialEq)]
pub struct Stand {
    /// The trial.
    pub trial: u32,
    /// The point, by its place in the curve.
    pub point: usize,
    /// What was asked for there.
    pub asked: Decimal,
    /// How it ended.
    pub verdict: Verdict,
}

impl<'a> Shaped<'a> {
    /// The curve as this trial has it, and what is known of its points from all of them.
    pub fn of(
        curve: &'a Curve,
        rig: &Rig,
        story: &Story,
        traces: &BTreeMap<String, Series>,
        trial: Option<&TrialStory>,
    ) -> Self {
        let asked = |trial: &TrialStory| curve.asked(|name| trial.rung.get(name));
        let reported = |trial: &TrialStory| {
            let is_reported = curve.levers().any(|lever| trial.reported.contains_key(lever));
            let in_force = trial.in_force();
            is_reported.then(|| curve.asked(|name| in_force.get(name)))
        };
        Self {
            curve,
            asked: trial.map_or_else(|| curve.factory(), asked),
            reported: trial.and_then(reported),
            sits: trial.and_then(|trial| sitting(curve, rig, traces, trial)),
            stands: story.trials.iter().filter_map(|trial| stand(curve, rig, traces, trial)).collect(),
        }
    }

    /// The most that held at a point.
    pub fn held(&self, point: usize) -> Option<&Stand> {
        self.at(point).filter(|stand| stand.verdict == Verdict::Held).max_by_key(|stand| stand.asked)
    }

    /// The least that did not hold at a point.
    pub fn fell(&self, point: usize) -> Option<&Stand> {
        let fell = |stand: &&Stand| matches!(stand.verdict, Verdict::Fell | Verdict::Slipped);
        self.at(point).filter(fell).min_by_key(|stand| stand.asked)
    }

    fn at(&self, point: usize) -> impl Iterator<Item = &Stand> {
        self.stands.iter().filter(move |stand| stand.point == point)
    }
}

/// Where a trial's device sat while the pass ran that says most: the running one, the one that something went wrong in, or the
/// longest.
fn sitting(curve: &Curve, rig: &Rig, traces: &BTreeMap<String, Series>, trial: &TrialStory) -> Option<Sitting> {
    let named = |name: &Option<String>| rig.sensors.iter().find(|sensor| Some(&sensor.name) == name.as_ref());
    let is_open = |pass: &&PassStory| pass.report.is_none();
    let failed = |pass: &&PassStory| pass.report.as_ref().is_some_and(|it| !it.incidents.is_empty());
    let longest = || trial.passes.iter().max_by_key(|pass| pass.report.as_ref().map(|report| report.ran));
    let pass = trial.passes.iter().find(is_open).or_else(|| trial.passes.iter().find(failed)).or_else(longest)?;
    let read = |sensor: &Sensor| -> Option<Spread> {
        let series = traces.get(&sensor.name)?;
        let until = match &pass.report {
            Some(report) => pass.began + report.ran,
            None => series.span()?.1,
        };
        series.between(pass.began, until)
    };
    let sensor = named(&curve.sits.across)?;
    Some(Sitting {
        across: read(sensor)?.mean * curve.across_by(sensor)?,
        reached: named(&curve.sits.reached).and_then(read).map(|spread| spread.mean),
        limit: named(&curve.sits.limit).and_then(|sensor| Some(sensor.written(last(sensor, traces, pass)?))),
    })
}

/// What a sensor of states read last in a pass: of two states there is no mean.
fn last(sensor: &Sensor, traces: &BTreeMap<String, Series>, pass: &PassStory) -> Option<f64> {
    let within = traces.get(&sensor.name)?.iter().filter(|(at, _)| match &pass.report {
        Some(report) => *at >= pass.began && *at <= pass.began + report.ran,
        None => *at >= pass.began,
    });
    within.last().map(|(_, reading)| reading)
}

/// A trial that is over and was put to work, at its point: where it sat, and where nobody knows that, the point from which on it was
/// flat.
fn stand(curve: &Curve, rig: &Rig, traces: &BTreeMap<String, Series>, trial: &TrialStory) -> Option<Stand> {
    let verdict = trial.verdict.filter(|verdict| *verdict != Verdict::Void)?;
    let asked = curve.asked(|name| trial.rung.get(name));
    let highest = *asked.last()?;
    let flat_from = asked.iter().position(|one| *one == highest).unwrap_or_default();
    let point = sitting(curve, rig, traces, trial).map_or(flat_from, |sits| curve.nearest(sits.across));
    Some(Stand { trial: trial.number, point, asked: asked[point], verdict })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::engine::Entry;
    use crate::model::curve::Sits;
    use crate::model::curve::tests::curve;
    use crate::model::moment::{Moment, Span};
    use crate::model::pass::{Pass, PassReport};
    use crate::model::reason::Reason;
    use crate::model::rung::Rung;

    /// Trials with these levers, which ended so, each with a pass of a minute.
    fn told(trials: &[(&[(&str, i64)], Verdict)]) -> Story {
        let mut story = Story::default();
        for (number, (levers, verdict)) in (1..).zip(trials) {
            let rung: Rung = levers.iter().map(|(name, value)| ((*name).to_owned(), Decimal::from(*value))).collect();
            let (began, ran) = (i64::from(number) * 100_000, Span::from_seconds(60));
            let at = |seconds: i64| Moment::from_millis(began + 1000 * seconds);
            let entries = [
                (0, Entry::TrialBegan { trial: number, stage: 0, rung, proof: "look".into(), reason: Reason::Start }),
                (0, Entry::PassBegan { trial: number, pass: 0, order: Pass::usual("scene", ran), on: vec![] }),
                (60, Entry::PassEnded { trial: number, pass: 0, report: PassReport { ran, ..PassReport::default() } }),
                (60, Entry::TrialEnded { trial: number, verdict: *verdict, incident: None, tested: ran, gain: None }),
            ];
            entries.iter().for_each(|(seconds, entry)| story.tell(at(*seconds), entry));
        }
        story
    }

    const PINNED: &[(&str, i64)] = &[("core_flat", 800), ("core_800", 1650)];

    #[test]
    fn where_nobody_tells_it_sits_where_it_is_flat() {
        let story = told(&[(&[], Verdict::Held), (PINNED, Verdict::Held), (PINNED, Verdict::Fell)]);
        let (rig, curve) = (Rig::bare("r"), curve());
        let shaped = Shaped::of(&curve, &rig, &story, &BTreeMap::new(), story.trials.last());
        assert_eq!(shaped.asked, [1200, 1650, 1650, 1650].map(Decimal::from));
        assert_eq!((shaped.reported.as_ref(), shaped.sits.as_ref()), (None, None));
        assert_eq!(shaped.held(3).map(|stand| stand.asked), Some(1800.into()), "as it comes it is nowhere flat");
        assert_eq!(shaped.held(1).map(|stand| (stand.trial, stand.asked)), Some((2, 1650.into())));
        assert_eq!(shaped.fell(1).map(|stand| stand.trial), Some(3));
        assert_eq!(shaped.held(0), None);
    }

    #[test]
    fn sensors_tell_where_it_sits_in_the_unit_of_its_points() {
        let story = told(&[(PINNED, Verdict::Held), (&[], Verdict::Fell)]);
        let sensor = |name: &str, unit: &str| Sensor { unit: unit.into(), ..Sensor::plain(name) };
        let words = ["load", "power"].map(str::to_owned).to_vec();
        let sensors = [sensor("volts", "V"), sensor("clock", "MHz"), Sensor { words, ..sensor("limited", "") }];
        let rig = Rig { sensors: sensors.to_vec(), ..Rig::bare("r") };
        let named = |name: &str| Some(name.to_owned());
        let sits = Sits { across: named("volts"), reached: named("clock"), limit: named("limited") };
        let curve = Curve { sits, ..curve() };
        let mut traces: BTreeMap<String, Series> = BTreeMap::new();
        for (seconds, volts, clock, limit) in
            [(110, 0.79, 1600.0, 0.0), (130, 0.81, 1640.0, 1.0), (220, 0.9, 1690.0, 1.0)]
        {
            for (name, reading) in [("volts", volts), ("clock", clock), ("limited", limit)] {
                traces.entry(name.into()).or_default().push(Moment::from_millis(1000 * seconds), reading);
            }
        }
        let shaped = Shaped::of(&curve, &rig, &story, &traces, story.trials.first());
        let sits = shaped.sits.clone().expect("it is told");
        assert!((sits.across - 800.0).abs() < 1e-9 && sits.reached == Some(1620.0), "{sits:?}");
        assert_eq!(sits.limit.as_deref(), Some("power"), "as it was at last");
        assert_eq!(shaped.fell(2).map(|stand| (stand.trial, stand.asked)), Some((2, 1700.into())));
    }
}
