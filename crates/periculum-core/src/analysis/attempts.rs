//! Every attempt of a climb in a row, with a column for whatever is known of it.

use std::cmp::Ordering;
use std::collections::BTreeMap;

use crate::analysis::scores::{Conditions, Measure};
use crate::inference::statistics::mean;
use crate::model::ladder::Direction;
use crate::model::quantity::{measured, scored};
use crate::model::rig::{Derived, Rig, Sensor};
use crate::model::setting::Setting;
use crate::story::finding::Sorted;
use crate::story::series::Series;
use crate::story::{Story, TrialStory};

/// The attempts of a climb.
#[derive(Clone, Copy)]
pub struct Attempts<'a> {
    /// What happened.
    pub story: &'a Story,
    /// On which rig.
    pub rig: &'a Rig,
    /// What its sensors read.
    pub traces: &'a BTreeMap<String, Series>,
}

/// A column: something that may be known of each attempt.
#[derive(Clone, Debug, PartialEq)]
pub struct Column<'a> {
    /// What finds and files call it, as `core_clock`: one word.
    pub name: String,
    /// What people call it, with its unit, as `core clock, MHz`.
    pub title: String,
    what: What<'a>,
}

#[derive(Clone, Debug, PartialEq)]
enum What<'a> {
    Setting(&'a Setting),
    Derived(&'a Derived),
    Proof,
    State,
    Tested,
    Incident,
    Score(Measure),
    PerWatt(Measure),
    Sensor(&'a Sensor),
    AtRest(&'a Sensor),
    IntoClimb,
    Because,
}

/// What stands in a row under a column.
#[derive(Clone, Debug, PartialEq)]
pub enum Cell {
    /// It is not known.
    Nothing,
    /// A number, and how people read it where the unit is told elsewhere.
    Number(f64, String),
    /// Words.
    Words(String),
}

impl Cell {
    /// As people read it.
    pub fn text(&self) -> &str {
        match self {
            Self::Nothing => "",
            Self::Number(_, text) | Self::Words(text) => text,
        }
    }

    /// The number, where it is one.
    pub fn number(&self) -> Option<f64> {
        if let Self::Number(number, _) = self { Some(*number) } else { None }
    }

    /// Numbers by size, words as in a dictionary; what is not known comes last whichever way it is sorted.
    pub(super) fn order(&self, other: &Self, first: Sorted) -> Ordering {
        let by_content = match (self, other) {
            (Self::Number(a, _), Self::Number(b, _)) => a.total_cmp(b),
            (Self::Words(a), Self::Words(b)) => a.cmp(b),
            (a, b) => return a.rank().cmp(&b.rank()),
        };
        if first == Sorted::GreatestFirst { by_content.reverse() } else { by_content }
    }

    fn rank(&self) -> u8 {
        match self {
            Self::Number(..) => 0,
            Self::Words(_) => 1,
            Self::Nothing => 2,
        }
    }
}

impl Column<'_> {
    /// Whether more of it is better, or less; none where neither is.
    pub fn better(&self) -> Option<Direction> {
        match &self.what {
            What::Score(measure) | What::PerWatt(measure) => {
                Some(if measure.less_is_better { Direction::Down } else { Direction::Up })
            }
            _ => None,
        }
    }

    /// Whether its cells are told with all their words, however long.
    pub fn is_prose(&self) -> bool {
        self.what == What::Because
    }

    /// Whether it is a setting's value.
    pub fn is_set(&self) -> bool {
        matches!(self.what, What::Setting(_))
    }

    /// Whether it is a setting's value, or one of the words that every attempt of a rig has.
    pub fn is_given(&self) -> bool {
        let came_of_it = matches!(self.what, What::Derived(_) | What::Score(_) | What::PerWatt(_));
        let was_read = matches!(self.what, What::State | What::Sensor(_) | What::AtRest(_));
        !(came_of_it || was_read)
    }
}

impl<'a> Attempts<'a> {
    /// Every column that something is known in: settings first, then what came of them.
    pub fn columns(&self) -> Vec<Column<'a>> {
        let column = |name: &str, title: &str, what| Column { name: name.to_owned(), title: title.to_owned(), what };
        let with_unit =
            |label: &str, unit: &str| if unit.is_empty() { label.to_owned() } else { format!("{label}, {unit}") };
        let settings = self.rig.settings_told(self.story.trials.iter().map(|trial| &trial.rung)).into_iter();
        let settings = settings.map(|it| column(&it.name, &it.title(), What::Setting(it)));
        // A rig that nobody changed has one state, which says nothing.
        let state = (!self.story.changes.is_empty()).then(|| column("state", "state", What::State));
        let proof = [column("proof", "proof", What::Proof), column("ran", "passes ran", What::Tested)];
        let measures = self.measures();
        let word = |measure: &Measure| measure.name().replace(", ", "_").replace(' ', "_");
        let scores = measures.iter().map(|measure| {
            let title = with_unit(&measure.name(), &measure.unit);
            column(&word(measure), &title, What::Score(measure.clone()))
        });
        let has_power = Conditions::of(self.rig, self.traces).has_power();
        let per_watt = measures.iter().filter(|_| has_power).map(|measure| {
            let (name, title) =
                (format!("{}_per_watt", word(measure)), format!("{}, {}/W", measure.name(), measure.unit));
            column(&name, &title, What::PerWatt(measure.clone()))
        });
        let incident = [column("incident", "incident", What::Incident)];
        let derived = self.rig.derived.iter();
        let derived = derived.map(|it| column(&it.name, &with_unit(&it.label(), &it.unit), What::Derived(it)));
        let is_read = |sensor: &&Sensor| sensor.asked.is_some() || self.traces.contains_key(&sensor.name);
        let read = self.rig.sensors.iter().filter(is_read);
        let (whole, of_cores): (Vec<&Sensor>, Vec<&Sensor>) = read.partition(|sensor| sensor.core.is_none());
        let sensors = whole.into_iter().chain(of_cores);
        let sensors = sensors.map(|it| column(&it.name, &with_unit(&it.label, &it.unit), What::Sensor(it)));
        let at_rest = self.rig.sensors.iter().map(|it| {
            let (name, label) = (format!("{}_at_rest", it.name), format!("{} at rest", it.label));
            column(&name, &with_unit(&label, &it.unit), What::AtRest(it))
        });
        let rest = [column("into", "into the climb", What::IntoClimb), column("because", "because", What::Because)];
        let all = settings
            .chain(state)
            .chain(proof)
            .chain(scores)
            .chain(incident)
            .chain(derived)
            .chain(per_watt)
            .chain(sensors)
            .chain(at_rest)
            .chain(rest);
        all.filter(|column| self.story.trials.iter().any(|trial| self.cell(column, trial) != Cell::Nothing)).collect()
    }

    /// The column that is called so, or else the first one whose name has this in it.
    pub fn column(&self, name: &str) -> Option<Column<'a>> {
        let columns = self.columns();
        let is_called = columns.iter().find(|column| column.name == name);
        is_called.or_else(|| columns.iter().find(|column| column.name.contains(name))).cloned()
    }

    /// What is known of an attempt in a column. Scores are means over its passes, temperatures the highest while passes
    /// ran, what other sensors read the mean of that.
    pub fn cell(&self, column: &Column, trial: &TrialStory) -> Cell {
        let text = |text: &str| if text.is_empty() { Cell::Nothing } else { Cell::Words(text.to_owned()) };
        let float = |value: Option<f64>, written: &dyn Fn(f64) -> String| {
            value.filter(|value| value.is_finite()).map_or(Cell::Nothing, |value| Cell::Number(value, written(value)))
        };
        let score = |value: f64| if value == 0.0 { "0".to_owned() } else { scored(value, value) };
        match &column.what {
            What::Setting(setting) => trial.rung.get(&setting.name).map_or(Cell::Nothing, |value| {
                if setting.words.is_empty() {
                    Cell::Number(f64::try_from(value).unwrap_or_default(), setting.written_short(value))
                } else {
                    Cell::Words(setting.written_short(value))
                }
            }),
            What::Derived(derived) => trial.derived(derived).map_or(Cell::Nothing, |(value, is_reported)| {
                let value = f64::try_from(value).unwrap_or_default();
                let sign = if is_reported { AS_REPORTED } else { "" };
                Cell::Number(value, score(value) + sign)
            }),
            What::State => Cell::Number(trial.state.into(), trial.state.to_string()),
            What::Proof => text(&trial.put_to()),
            What::Tested => {
                let ran = trial.verdict.map(|_| trial.tested);
                ran.map_or(Cell::Nothing, |ran| Cell::Number(ran.seconds(), ran.to_string()))
            }
            What::Incident => text(trial.incident.map_or("", |kind| kind.name())),
            What::Score(measure) => float(score_of(trial, measure), &score),
            What::PerWatt(measure) => float(self.per_watt(trial, measure), &score),
            What::Sensor(sensor) => {
                if !sensor.words.is_empty() {
                    return text(&sensor.written_states(&trial.states(sensor, self.traces)));
                }
                let spread = trial.spread(sensor, self.traces);
                let reading = spread.map(|spread| if sensor.unit == "°C" { spread.greatest } else { spread.mean });
                float(reading, &|value| measured(value, sensor.decimals))
            }
            What::AtRest(sensor) => {
                let read = trial.rested.and_then(|_| self.story.at_rest(sensor, self.traces));
                float(read.map(|spread| spread.mean), &|value| measured(value, sensor.decimals))
            }
            What::IntoClimb => {
                let into = trial.began.since(self.story.began.unwrap_or_default());
                Cell::Number(into.seconds(), into.to_string())
            }
            What::Because => text(&trial.reason.because(self.rig)),
        }
    }

    /// These trials in the order of a column; those that are equal in it stay as they are.
    pub fn sort(&self, trials: &mut [&TrialStory], column: &Column, first: Sorted) {
        trials.sort_by_cached_key(|trial| Keyed(self.cell(column, trial), first));
    }

    /// The best and the worst number of a column among these trials; none where it has no better, or all are the same.
    pub fn extremes(&self, column: &Column, trials: &[&TrialStory]) -> Option<(f64, f64)> {
        extremes(column.better()?, trials.iter().filter_map(|trial| self.cell(column, trial).number()))
    }

    /// What a trial is found by beyond its settings, of these columns, as ` dense=205.1 room=22.5`.
    pub fn numbers_of(&self, columns: &[Column], trial: &TrialStory) -> String {
        let known = columns.iter().filter(|column| !column.is_given()).filter_map(|column| {
            let number = self.cell(column, trial).number()?;
            Some(format!(" {}={number}", column.name))
        });
        known.collect()
    }

    fn measures(&self) -> Vec<Measure> {
        let mut measures = Vec::new();
        for pass in self.story.trials.iter().flat_map(|trial| &trial.passes) {
            for measure in Measure::of_pass(pass) {
                if !measures.contains(&measure) {
                    measures.push(measure);
                }
            }
        }
        measures
    }

    fn per_watt(&self, trial: &TrialStory, measure: &Measure) -> Option<f64> {
        let conditions = Conditions::of(self.rig, self.traces);
        let own = trial.passes.iter().filter(|pass| measure.score_of(pass).is_some());
        let watts: Vec<f64> = own.filter_map(|pass| conditions.watts(trial, pass)).collect();
        let watts = (!watts.is_empty()).then(|| mean(&watts)).filter(|watts| *watts > 0.0)?;
        Some(score_of(trial, measure)? / watts)
    }
}

/// The best and the worst of some numbers; none where all are the same.
pub(super) fn extremes(better: Direction, numbers: impl Iterator<Item = f64> + Clone) -> Option<(f64, f64)> {
    let (least, greatest) = (numbers.clone().reduce(f64::min)?, numbers.reduce(f64::max)?);
    match better {
        _ if least == greatest => None,
        Direction::Up => Some((greatest, least)),
        Direction::Down => Some((least, greatest)),
    }
}

/// What stands behind a derived value that follows from what the rig reports, where that is not what was asked for.
const AS_REPORTED: &str = " r";

/// The mean of what a trial scored of a measure.
fn score_of(trial: &TrialStory, measure: &Measure) -> Option<f64> {
    let scores: Vec<f64> = trial.passes.iter().filter_map(|pass| measure.score_of(pass)).collect();
    (!scores.is_empty()).then(|| mean(&scores))
}

/// A cell that is sorted by.
struct Keyed(Cell, Sorted);

impl Ord for Keyed {
    fn cmp(&self, other: &Self) -> Ordering {
        self.0.order(&other.0, self.1)
    }
}

impl PartialOrd for Keyed {
    fn partial_cmp(&self, other: &Self) -> Option<Ordering> {
        Some(self.cmp(other))
    }
}

impl PartialEq for Keyed {
    fn eq(&self, other: &Self) -> bool {
        self.cmp(other) == Ordering::Equal
    }
}

impl Eq for Keyed {}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::analysis::example::{grid, told};
    use crate::model::verdict::Verdict;
    use crate::story::finding::Query;

    fn tried() -> Story {
        let (held, fell) = (Verdict::Held, Verdict::Fell);
        let mut story =
            told(&[(42, 125, 100.0, held), (44, 125, 104.0, held), (43, 120, 99.5, fell), (45, 120, 1.0, fell)]);
        story.trials[3].passes.clear();
        story
    }

    fn numbers(story: &Story, column: &str, first: Sorted) -> Vec<u32> {
        let ((rig, _), traces) = (grid(), BTreeMap::new());
        let attempts = Attempts { story, rig: &rig, traces: &traces };
        let mut trials: Vec<&TrialStory> = story.trials.iter().collect();
        attempts.sort(&mut trials, &attempts.column(column).expect("a column"), first);
        trials.iter().map(|trial| trial.number).collect()
    }

    #[test]
    fn what_nothing_is_known_of_has_no_column() {
        let (story, (rig, _), traces) = (tried(), grid(), BTreeMap::new());
        let attempts = Attempts { story: &story, rig: &rig, traces: &traces };
        let names: Vec<String> = attempts.columns().into_iter().map(|column| column.name).collect();
        assert_eq!(names, ["clock", "volts", "proof", "ran", "dense", "product", "fixed", "into", "because"]);
        let column = attempts.column("dense").expect("a score");
        assert_eq!(column.title, "dense, GFLOP/s");
        let all: Vec<&TrialStory> = story.trials.iter().collect();
        assert_eq!(attempts.extremes(&column, &all), Some((104.0, 99.5)));
        assert_eq!(attempts.extremes(&column, &all[..1]), None, "one alone is neither best nor worst");
        assert_eq!(attempts.extremes(&attempts.column("clock").expect("it"), &all), None, "no clock is better");
    }

    #[test]
    fn what_is_not_known_comes_last_whichever_way_it_is_sorted() {
        let story = tried();
        assert_eq!(numbers(&story, "dense", Sorted::GreatestFirst), [2, 1, 3, 4]);
        assert_eq!(numbers(&story, "dense", Sorted::LeastFirst), [3, 1, 2, 4]);
        assert_eq!(numbers(&story, "volts", Sorted::LeastFirst), [3, 4, 1, 2], "what is equal stays as it was");
        assert_eq!(numbers(&story, "prod", Sorted::LeastFirst), [3, 1, 4, 2], "a part of a name is enough");
    }

    #[test]
    fn trials_are_found_by_what_came_of_them() {
        let (story, (rig, _), traces) = (tried(), grid(), BTreeMap::new());
        let attempts = Attempts { story: &story, rig: &rig, traces: &traces };
        let columns = attempts.columns();
        let found = |typed: &str| {
            let has = |trial: &&TrialStory| Query::of(typed).has("", &attempts.numbers_of(&columns, trial));
            story.trials.iter().filter(has).map(|trial| trial.number).collect::<Vec<_>>()
        };
        assert_eq!(found("dense>=100"), [1, 2]);
        assert_eq!(found("product<5300"), [1, 3]);
        assert_eq!(found("dense>=100 product<5300"), [1]);
    }
}
