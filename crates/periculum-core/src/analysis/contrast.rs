//! Things beside each other, what differs first: trials, climbs and their specimens.

use std::collections::BTreeMap;
use std::fmt;

use rust_decimal::Decimal;

use crate::analysis::scores::{Benchmark, Level, benchmarks, best_of_each};
use crate::engine::Mark;
use crate::inference::noise::Noise;
use crate::model::moment::Span;
use crate::model::plan::Plan;
use crate::model::quantity::measured;
use crate::model::rig::{Rig, Sensor, When};
use crate::model::rung::Rung;
use crate::model::setting::Setting;
use crate::model::verdict::Verdict;
use crate::story::readback;
use crate::story::series::{Series, Spread, added};
use crate::story::{Story, TrialStory};

/// One thing that is known of a side.
#[derive(Clone, Debug, PartialEq)]
pub struct Fact {
    /// What it is about; facts with the same label are compared.
    pub label: String,
    /// What is known.
    pub value: Value,
}

/// What is known.
#[derive(Clone, Debug, PartialEq)]
pub enum Value {
    /// Words, which are the same or not.
    Words(String),
    /// A number.
    Number(Number),
}

/// A number and how far it may be off.
#[derive(Clone, Debug, PartialEq)]
pub struct Number {
    /// The number.
    pub value: f64,
    /// Its unit.
    pub unit: String,
    /// How many decimals it is shown with.
    pub decimals: usize,
    /// How far it may be off.
    pub off: Off,
}

/// How far chance alone moves a number.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Off {
    /// Not at all: it is counted or set.
    Exact,
    /// No farther than this, with a confidence of 95 %.
    Chance(f64),
    /// Nobody knows: it was measured once.
    Unknown,
}

impl Off {
    /// How far the difference of two numbers may be off.
    fn with(self, other: Self) -> Self {
        match (self, other) {
            (Self::Unknown, _) | (_, Self::Unknown) => Self::Unknown,
            (Self::Exact, off) | (off, Self::Exact) => off,
            (Self::Chance(one), Self::Chance(other)) => Self::Chance(one.hypot(other)),
        }
    }
}

/// What is known of all sides under one label.
#[derive(Clone, Debug, PartialEq)]
pub struct Row {
    /// What it is about.
    pub label: String,
    /// What is known of each side; none where nothing is.
    pub values: Vec<Option<Value>>,
    /// How far each number lies from that of the first side, beside which the others stand; none for words.
    pub differences: Vec<Option<Difference>>,
}

/// How far a number lies from that of the first side.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Difference {
    /// The number less that of the first side.
    pub by: f64,
    /// The same as a share of the first side's.
    pub share: f64,
    /// How far that may be off.
    pub off: Off,
}

/// Sides beside each other.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Contrast {
    /// What differs by more than chance, in the order of the facts.
    pub different: Vec<Row>,
    /// What is the same, or could be.
    pub same: Vec<Row>,
}

impl Difference {
    /// Whether it is more than chance could be.
    pub fn is_clear(&self) -> bool {
        match self.off {
            Off::Exact => self.by != 0.0,
            Off::Chance(off) => self.by.abs() > off,
            Off::Unknown => false,
        }
    }

    /// The difference of this number to the first one in words, in percent where the number has a size of its own.
    pub fn told(&self, number: &Number) -> String {
        // Degrees Celsius, times and counts have no share that means anything.
        let has_share = !matches!(number.unit.as_str(), "°C" | "min" | "") && self.share.is_finite();
        let percent = (100.0 * self.share / self.by).abs();
        let off = match self.off {
            Off::Exact => String::new(),
            Off::Chance(off) if !has_share => format!(" ± {}", measured(off, number.decimals)),
            Off::Chance(off) if percent.is_finite() => format!(" ± {:.1}", off * percent),
            Off::Chance(_) => String::new(),
            Off::Unknown => ", noise unknown".to_owned(),
        };
        let unknown = self.off == Off::Unknown;
        if !has_share {
            let sign = if self.by > 0.0 { "+" } else { "" };
            return format!("{sign}{}{off}", measured(self.by, number.decimals));
        }
        // Nobody wants to read of minus nothing.
        let share = (1000.0 * self.share).round() / 10.0 + 0.0;
        if unknown { format!("{share:+.1} %{off}") } else { format!("{share:+.1}{off} %") }
    }
}

impl fmt::Display for Value {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Words(words) => f.write_str(words),
            Self::Number(number) if number.unit.is_empty() => f.write_str(&measured(number.value, number.decimals)),
            Self::Number(number) => write!(f, "{} {}", measured(number.value, number.decimals), number.unit),
        }
    }
}

/// Means of one sensor differ by less than this share, or by fewer degrees Celsius, for reasons that nobody knows: its
/// noise and steps, and how long the rig had rested before.
const SENSED_SHARE: f64 = 0.007;
const SENSED_DEGREES: f64 = 0.7;

/// Puts sides beside each other, the first being what the others are compared with.
pub fn contrast(sides: &[&[Fact]]) -> Contrast {
    let mut labels: Vec<&str> = Vec::new();
    for fact in sides.iter().flat_map(|side| side.iter()) {
        if !labels.contains(&fact.label.as_str()) {
            labels.push(&fact.label);
        }
    }
    let rows = labels.into_iter().map(|label| Row::of(label, sides));
    let (different, same) = rows.partition(Row::differs);
    Contrast { different, same }
}

impl Row {
    fn of(label: &str, sides: &[&[Fact]]) -> Self {
        let value = |side: &&[Fact]| side.iter().find(|fact| fact.label == label).map(|fact| fact.value.clone());
        let values: Vec<Option<Value>> = sides.iter().map(value).collect();
        let first = values.first().and_then(Option::as_ref).and_then(Value::number);
        let difference = |value: &Option<Value>| {
            let (first, other) = first.zip(value.as_ref()?.number())?;
            (first.unit == other.unit).then(|| first.to(other))
        };
        let differences = values.iter().map(difference).collect();
        Self { label: label.to_owned(), values, differences }
    }

    /// Whether the sides differ by more than chance could make them.
    fn differs(&self) -> bool {
        let (Some(first), others) = (self.values.first(), self.values.iter().zip(&self.differences).skip(1)) else {
            return false;
        };
        others.into_iter().any(|(value, difference)| match difference {
            Some(difference) => difference.is_clear(),
            None => value != first,
        })
    }
}

impl Value {
    fn number(&self) -> Option<&Number> {
        match self {
            Self::Words(_) => None,
            Self::Number(number) => Some(number),
        }
    }
}

impl Number {
    /// The difference to another number of the same unit; what can't be seen in the decimals is none.
    fn to(&self, other: &Self) -> Difference {
        let least = 0.5 * 0.1f64.powi(i32::try_from(self.decimals.max(other.decimals)).unwrap_or(0));
        let by = other.value - self.value;
        let by = if by.abs() < least { 0.0 } else { by };
        Difference { by, share: by / self.value.abs(), off: self.off.with(other.off) }
    }
}

/// What is known of a climb: on what, how, and what came out.
pub fn facts_of_climb(story: &Story, rig: &Rig, plan: &Plan, traces: &BTreeMap<String, Series>) -> Vec<Fact> {
    let mut facts = vec![words("rig", &rig.name), words("specimens", &rig.specimens())];
    facts.extend(of_state(story, rig, story.last_state()));
    facts.push(words("plan", &plan.name));
    facts.push(words("use", &plan.use_name));
    facts.push(words("cooling", &rig.cooling));
    if let Some(mark) = story.marks.last() {
        facts.extend(of_mark(mark, rig));
    }
    let all = benchmarks(story, rig, plan, traces);
    facts.extend(best_of_each(&all).into_iter().flat_map(|benchmark| of_benchmark(benchmark, rig)));
    let is_baseline = |trial: &&TrialStory| story.is_baseline(trial);
    let baseline: Vec<&TrialStory> = story.trials.iter().filter(is_baseline).collect();
    facts.extend(at_rest(story, rig, traces));
    facts.extend(of_sensors(", at stock", &baseline, rig, traces));
    facts.push(count("trials", story.trials.len()));
    facts.push(count("held", story.count(Verdict::Held)));
    facts.push(count("slipped", story.count(Verdict::Slipped)));
    facts.push(count("fell", story.count(Verdict::Fell)));
    facts.push(minutes("passes ran", story.tested()));
    let end = story.ended.as_ref().map_or_else(|| "not finished".into(), |ended| ended.end.sentence());
    facts.push(words("end", &end));
    for setting in rig.settings_but_points() {
        facts.push(of_setting(&format!("{}, stock", setting.label), setting, setting.stock));
        let ceiling = setting.ceiling(&plan.use_name);
        facts.push(of_setting(&format!("{}, ceiling", setting.label), setting, ceiling));
    }
    facts.retain(|fact| fact.value != Value::Words(String::new()));
    facts
}

/// What is known of a trial: what was tried, how it ended, and what was measured meanwhile.
pub fn facts_of_trial(
    trial: &TrialStory,
    story: &Story,
    rig: &Rig,
    plan: &Plan,
    traces: &BTreeMap<String, Series>,
) -> Vec<Fact> {
    let mut facts = vec![words("rig", &rig.name), words("specimens", &rig.specimens())];
    facts.extend(of_state(story, rig, trial.state));
    let tried = set_in(&trial.rung, rig);
    facts.extend(tried.map(|(setting, value)| of_setting(&setting.label, setting, value)));
    facts.extend(readback::of_trial(trial, rig, traces).iter().filter(|taken| !taken.was_taken()).filter_map(
        |taken| Some(of_setting(&format!("{}, reported", taken.setting.label), taken.setting, taken.reported?)),
    ));
    facts.push(words("proof", &trial.put_to()));
    facts.push(words("verdict", trial.verdict.map_or("open", |verdict| verdict.name())));
    facts.push(words("incident", trial.incident.map_or("none", |incident| incident.name())));
    let all = benchmarks(story, rig, plan, traces);
    for pass in &trial.passes {
        let Some(report) = &pass.report else { continue };
        for (name, score) in report.scores(&pass.order.load) {
            let is_same =
                |benchmark: &&Benchmark| benchmark.what.load == name && benchmark.what.threads == pass.order.threads;
            let noise = all.iter().find(is_same).and_then(|benchmark| benchmark.noise);
            let off = noise.map_or(Off::Unknown, |noise| Off::Chance(noise.half_width(1) * score.value));
            facts.push(of_score(&name, score.value, &score.unit, off));
        }
    }
    facts.extend(of_sensors("", &[trial], rig, traces));
    facts.push(minutes("passes ran", trial.tested));
    facts
}

/// What is known of a state of the rig: its parts, and what was changed in the climb up to then.
fn of_state(story: &Story, rig: &Rig, state: u32) -> impl Iterator<Item = Fact> {
    let (rig, changes) = story.state(rig, state);
    let changed: Vec<String> = changes.iter().map(ToString::to_string).collect();
    let changed = changed.join(", then ");
    let changed = if changed.is_empty() { "nothing".to_owned() } else { changed };
    let known = (!story.changes.is_empty()).then(|| words("changed meanwhile", &changed));
    let parts = rig.state_of_parts();
    (!parts.is_empty()).then(|| words("parts", &parts)).into_iter().chain(known)
}

/// The settings of a rung with their values, as far as there is something to say of them.
fn set_in<'a>(rung: &'a Rung, rig: &'a Rig) -> impl Iterator<Item = (&'a Setting, Decimal)> + 'a {
    let set = rig.settings.iter().filter_map(|setting| Some((setting, rung.get(&setting.name)?)));
    set.filter(|(setting, value)| !rig.goes_without_saying(setting, *value))
}

fn of_mark<'a>(mark: &'a Mark, rig: &'a Rig) -> impl Iterator<Item = Fact> + 'a {
    let set =
        set_in(&mark.rung, rig).map(|(setting, value)| of_setting(&format!("{}, mark", setting.label), setting, value));
    set.chain([words("mark held", &mark.proof)])
}

/// Of the levels that did not fall: what is best of many is off by no more than any of them may be.
fn of_benchmark(benchmark: &Benchmark, rig: &Rig) -> Vec<Fact> {
    let (load, unit) = (&benchmark.what.load, &benchmark.what.unit);
    let off = |share: Option<f64>, value: f64| share.map_or(Off::Unknown, |share| Off::Chance(share * value.abs()));
    let of_stock = |(value, times): (f64, usize)| {
        let share = benchmark.noise.map(|noise| noise.half_width(times));
        of_score(&format!("{load}, at stock"), value, unit, off(share, value))
    };
    let best_off = |level: &Level, also: f64, value: f64| {
        let of_best = |noise: Noise| noise.half_width_of_best(benchmark.levels.len(), level.scores.len());
        off(benchmark.noise.map(|noise| of_best(noise).hypot(also)), value)
    };
    let per = |what: &str, also: f64, per: &dyn Fn(&Level) -> Option<f64>| {
        let (level, value) = benchmark.best_of(per)?;
        let label = format!("{load}, best for each {what}");
        Some(of_score(&label, value, &format!("{unit}/{what}"), best_off(level, also, value)))
    };
    let per_watt = per("W", SENSED_SHARE, &Level::per_watt);
    let per_money = rig.paid().and_then(|paid| per(&paid.currency, 0.0, &|level| level.per_money(&paid)));
    let best = benchmark.best_standing().unwrap_or(&benchmark.levels[benchmark.best]);
    let best = of_score(&format!("{load}, best"), best.mean(), unit, best_off(best, 0.0, best.mean()));
    benchmark.baseline.map(of_stock).into_iter().chain([best]).chain(per_watt).chain(per_money).collect()
}

/// The mean of what each sensor read while the passes of these trials ran.
fn of_sensors(when: &str, trials: &[&TrialStory], rig: &Rig, traces: &BTreeMap<String, Series>) -> Vec<Fact> {
    let mean =
        |sensor: &Sensor| Some(Spread::all(trials.iter().filter_map(|trial| trial.spread(sensor, traces)))?.mean);
    let states = |sensor: &Sensor| added(trials.iter().flat_map(|trial| trial.states(sensor, traces)));
    readings(when, rig, mean, states)
}

/// The mean of what each sensor read with the rig at rest.
fn at_rest(story: &Story, rig: &Rig, traces: &BTreeMap<String, Series>) -> Vec<Fact> {
    // Whoever reads the room once reads it for all of the climb.
    let once =
        |sensor: &Sensor| story.trials.first().filter(|_| sensor.asked == Some(When::Once))?.spread(sensor, traces);
    let mean = |sensor: &Sensor| Some(story.at_rest(sensor, traces).or_else(|| once(sensor))?.mean);
    let is_measured = rig.sensors.iter().any(|sensor| story.at_rest(sensor, traces).is_some());
    let states = |sensor: &Sensor| {
        let rested = story.trials.iter().find_map(|trial| trial.rested);
        let read = rested.zip(traces.get(&sensor.name));
        read.map(|(rested, series)| series.states_between(rested.middle(), rested.to)).unwrap_or_default()
    };
    if is_measured { readings(", at rest", rig, mean, states) } else { Vec::new() }
}

/// What each sensor read on the average, and how much warmer than the room each temperature was: two climbs of a summer and a winter
/// differ by the room, and only by what is left of that by anything else.
fn readings(
    when: &str,
    rig: &Rig,
    mean: impl Fn(&Sensor) -> Option<f64>,
    states: impl Fn(&Sensor) -> Vec<(f64, usize)>,
) -> Vec<Fact> {
    let room = rig.room().and_then(|room| Some((room, mean(room)?)));
    let off =
        |sensor: &Sensor, value: f64| if sensor.unit == "°C" { SENSED_DEGREES } else { SENSED_SHARE * value.abs() };
    let fact = |label: String, sensor: &Sensor, value: f64, unit: &str| {
        let off = Off::Chance(off(sensor, value));
        Fact { label, value: Value::Number(Number { value, unit: unit.to_owned(), decimals: sensor.decimals, off }) }
    };
    let of_sensor = |sensor: &Sensor| {
        let value = mean(sensor)?;
        if !sensor.words.is_empty() {
            let value = Value::Words(sensor.written_states(&states(sensor)));
            let told = Fact { label: format!("{}{when}", sensor.label), value };
            return Some([Some(told), None].into_iter().flatten());
        }
        let itself = fact(format!("{}{when}", sensor.label), sensor, value, &sensor.unit);
        let warmer = room.filter(|(room, _)| sensor.unit == "°C" && room.name != sensor.name);
        let warmer =
            warmer.map(|(_, room)| fact(format!("{} over the room{when}", sensor.label), sensor, value - room, "K"));
        Some([Some(itself), warmer].into_iter().flatten())
    };
    rig.sensors.iter().filter_map(of_sensor).flatten().collect()
}

fn of_setting(label: &str, setting: &Setting, value: Decimal) -> Fact {
    let decimals = setting.ladder.rescaled(value).scale() as usize;
    let value = f64::try_from(value).unwrap_or_default();
    let number = Number { value, unit: setting.unit.clone(), decimals, off: Off::Exact };
    Fact { label: label.to_owned(), value: Value::Number(number) }
}

fn of_score(label: &str, value: f64, unit: &str, off: Off) -> Fact {
    let decimals = crate::model::quantity::score_decimals(value);
    Fact { label: label.to_owned(), value: Value::Number(Number { value, unit: unit.to_owned(), decimals, off }) }
}

fn words(label: &str, told: &str) -> Fact {
    Fact { label: label.to_owned(), value: Value::Words(told.to_owned()) }
}

fn count(label: &str, count: usize) -> Fact {
    let number = Number { value: count as f64, unit: String::new(), decimals: 0, off: Off::Exact };
    Fact { label: label.to_owned(), value: Value::Number(number) }
}

fn minutes(label: &str, span: Span) -> Fact {
    let number = Number { value: span.seconds() / 60.0, unit: "min".into(), decimals: 1, off: Off::Exact };
    Fact { label: label.to_owned(), value: Value::Number(number) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn number(label: &str, value: f64, off: Option<f64>) -> Fact {
        let off = off.map_or(Off::Exact, Off::Chance);
        Fact { label: label.into(), value: Value::Number(Number { value, unit: "W".into(), decimals: 1, off }) }
    }

    #[test]
    fn temperatures_stand_over_the_room_beside_themselves() {
        let sensor = |name: &str, unit: &str| Sensor { unit: unit.into(), ..Sensor::plain(name) };
        let rig =
            Rig { sensors: vec![sensor("room", "°C"), sensor("core", "°C"), sensor("power", "W")], ..Rig::bare("r") };
        let read = |sensor: &Sensor| Some(if sensor.name == "room" { 27.0 } else { 61.0 });
        let told = |facts: Vec<Fact>| -> Vec<(String, f64)> {
            let number = |fact: Fact| match fact.value {
                Value::Number(number) => (fact.label, number.value),
                Value::Words(words) => panic!("{words}"),
            };
            facts.into_iter().map(number).collect()
        };
        let expected = [("room", 27.0), ("core", 61.0), ("core over the room", 34.0), ("power", 61.0)];
        assert_eq!(
            told(readings("", &rig, read, |_| Vec::new())),
            expected.map(|(label, value)| (label.to_owned(), value))
        );
        let alone = Rig { sensors: rig.sensors[1..].to_vec(), ..rig };
        assert_eq!(told(readings("", &alone, read, |_| Vec::new())).len(), 2, "nobody knows the room");
    }

    #[test]
    fn what_differs_comes_first_and_chance_is_no_difference() {
        let stock =
            [words("rig", "dome"), number("power", 115.8, None), number("score", 456.0, Some(1.5)), words("end", "x")];
        let less =
            [words("rig", "dome"), number("power", 87.3, None), number("score", 457.9, Some(1.5)), words("end", "y")];
        let found = contrast(&[&stock, &less]);
        let labels = |rows: &[Row]| rows.iter().map(|row| row.label.clone()).collect::<Vec<_>>();
        assert_eq!(
            (labels(&found.different), labels(&found.same)),
            (vec!["power".into(), "end".into()], vec!["rig".into(), "score".into()])
        );
        let power = found.different[0].differences[1].expect("a difference");
        assert!((power.by + 28.5).abs() < 1e-9 && (power.share + 0.2461).abs() < 1e-4 && power.off == Off::Exact);
        let score = found.same[1].differences[1].expect("a difference");
        assert_eq!((score.off, score.is_clear()), (Off::Chance(1.5f64.hypot(1.5)), false));
    }

    #[test]
    fn what_was_measured_once_is_not_known_to_differ() {
        let once = |value: f64| Number { value, unit: "1/s".into(), decimals: 1, off: Off::Unknown };
        let [one, other] =
            [100.0, 112.0].map(|value| [Fact { label: "score".into(), value: Value::Number(once(value)) }]);
        let found = contrast(&[&one, &other]);
        assert!(found.different.is_empty());
        let told = found.same[0].differences[1].map(|difference| difference.told(&once(112.0)));
        assert_eq!(told.as_deref(), Some("+12.0 %, noise unknown"));
    }

    #[test]
    fn what_one_side_has_not_differs_and_units_are_not_mixed() {
        let volts = Number { value: 1.2, unit: "V".into(), decimals: 2, off: Off::Exact };
        let found = contrast(&[&[number("a", 1.0, None)], &[Fact { label: "a".into(), value: Value::Number(volts) }]]);
        assert_eq!((found.different.len(), found.different[0].differences[1]), (1, None));
        let found = contrast(&[&[number("a", 1.0, None)], &[]]);
        assert_eq!(found.different[0].values[1], None);
        assert_eq!(contrast(&[]), Contrast::default());
    }

    proptest! {
        /// Whatever is compared, every label stands in one row, and a side never differs from itself.
        #[test]
        fn nothing_is_lost_and_nothing_differs_from_itself(
            sides in prop::collection::vec(prop::collection::btree_map("[a-e]", (-9f64..9.0, prop::option::of(0f64..2.0)), 0..6), 1..5),
        ) {
            let sides: Vec<Vec<Fact>> = sides
                .into_iter()
                .map(|side| side.into_iter().map(|(label, (value, off))| number(&label, value, off)).collect())
                .collect();
            let parts: Vec<&[Fact]> = sides.iter().map(Vec::as_slice).collect();
            let found = contrast(&parts);
            let mut labels: Vec<&str> = sides.iter().flatten().map(|fact| fact.label.as_str()).collect();
            labels.sort_unstable();
            labels.dedup();
            let mut rows: Vec<&str> = found.different.iter().chain(&found.same).map(|row| row.label.as_str()).collect();
            rows.sort_unstable();
            prop_assert_eq!(rows, labels);
            prop_assert!(contrast(&[parts[0], parts[0]]).different.is_empty());
        }
    }
}
