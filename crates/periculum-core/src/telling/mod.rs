//! Entries as sentences for people: the logbook on the screen, the lines of a headless climb, the report.

mod claim;
mod declined;
mod end;
mod errand;
mod evidence;
mod faster;
mod gain;
mod history;
mod kind;
mod reason;
mod rig_change;
mod stage;

use std::collections::BTreeMap;

use rust_decimal::Decimal;

pub use claim::{claim_sentence, claim_words, harder_words, worth_words};
pub use declined::{declined_words, objection_words};
pub use errand::{
    answer_words, answers_to, ask, change_words, checks_words, errand_words, grammar, misfit_words, turn_words,
};
pub use evidence::bound_words;
pub use faster::{faster_words, scatter_words};
pub use gain::{gain_of_mark_words, gain_words};
pub use history::history_words;
pub use kind::kind_words;
pub use rig_change::parts_changed;
pub use stage::{margin_words, stage_words};

use crate::analysis::forecast::{Effort, Forecast};
use crate::analysis::scores::Benchmark;
use crate::engine::{Entry, Mark, Said, Written};
use crate::inference::comparison::Comparison;
use crate::model::moment::Span;
use crate::model::quantity::{grouped, with_unit};
use crate::model::rig::Rig;
use crate::model::rung::Rung;
use crate::model::setting::Setting;
use crate::story::Story;
use crate::story::readback::{Measured, Readback};

/// The entry as a line of a logbook; none for entries that only the record needs.
pub fn tell(entry: &Entry, rig: &Rig) -> Option<String> {
    let line = match entry {
        Entry::Began { .. } => "the climb begins".into(),
        Entry::StageBegan { stage, strategy } => format!("stage {}: {strategy}", stage + 1),
        Entry::TrialBegan { trial, rung, reason, .. } => {
            format!("trial {trial}: {}, because {}", rig.written(rung), reason.because(rig))
        }
        Entry::Asked { question, .. } => match question.turn() {
            Some(turn) => turn_words(turn, rig),
            None => format!("asked the operator: {}", ask(question, rig)),
        },
        Entry::Incident { incident, .. } => incident.to_string(),
        Entry::TrialEnded { trial, verdict, tested, .. } => format!("trial {trial} {verdict}, {tested} of passes"),
        Entry::MarkSet { mark } => format!("mark set: {}", mark_sentence(mark, rig)),
        Entry::MarkWithdrawn { mark, trial } => {
            format!("mark withdrawn: {} did not hold again in trial {trial}", rig.written(&mark.rung))
        }
        Entry::CeilingRaised { raised } => {
            let ceiling = rig.setting(&raised.setting).map(|setting| setting.written(raised.ceiling));
            let ceiling = ceiling.unwrap_or_else(|| raised.ceiling.to_string());
            format!("the ceiling of {} is raised to {ceiling}: {}", raised.setting, raised.because)
        }
        Entry::ProfileSaved { profile } => {
            format!("profile {} saved: {}", profile.name, rig.written(&profile.rung))
        }
        Entry::OthersBusy { others, .. } => {
            let each = others.iter().map(|other| format!("{} ({:.0} %)", other.name, other.percent));
            format!("other programs use the processor: {}", each.collect::<Vec<_>>().join(", "))
        }
        Entry::Resting { pause, idle: true, .. } => format!("measuring the rig at rest for {pause}"),
        Entry::Resting { pause, .. } => format!("resting for {pause}"),
        Entry::RigChanged { state, change } => format!("state {state} of the rig: {change}"),
        Entry::Read { readings, .. } => format!("read: {}", readings_words(readings, rig)),
        Entry::StageEnded { stage, end } => format!("stage {} is over: {}", stage + 1, end.sentence(rig)),
        Entry::Operator { said } => operator(said, rig),
        Entry::Confirmed { readings, .. } => {
            let read = readings.iter().map(|(name, reading)| read_words(name, *reading, rig));
            format!("all is well, as {}", read.collect::<Vec<_>>().join(" and "))
        }
        Entry::Declined { because } => declined_words(because, rig),
        Entry::Rejudged { trial, verdict, .. } => format!("trial {trial} {verdict} after all"),
        Entry::Paused => "paused".into(),
        Entry::Resumed => "going on".into(),
        Entry::GoingHome { end: Some(end), to: None } => format!("going back to stock: {}", end.sentence()),
        Entry::GoingHome { end: Some(end), to: Some(mark) } => {
            format!("going to the mark, {}: {}", rig.written(mark), end.sentence())
        }
        Entry::GoingHome { end: None, .. } => "going back to stock to wait there".into(),
        Entry::Ended { end, not_at_stock, left_at, .. } => {
            format!("the climb is over: {}; {}", end.sentence(), whereabouts(not_at_stock, left_at.as_ref(), rig))
        }
        Entry::AboutToApply { .. } | Entry::PassBegan { .. } | Entry::PassEnded { .. } => return None,
    };
    Some(line)
}

/// What sensors read, as `package 61.5 °C, room 22 °C`.
fn readings_words(readings: &BTreeMap<String, f64>, rig: &Rig) -> String {
    let of = |(name, reading): (&String, &f64)| match rig.sensors.iter().find(|sensor| sensor.name == *name) {
        Some(sensor) => format!("{} {} {}", sensor.label, sensor.written(*reading), sensor.unit),
        None => format!("{name} {reading}"),
    };
    readings.iter().map(of).map(|told| told.trim_end().to_owned()).collect::<Vec<_>>().join(", ")
}

/// Where the rig was left, as a sentence, given the settings that are not known to be back at stock, and the mark that it was
/// left at.
pub fn whereabouts(not_at_stock: &[String], left_at: Option<&Rung>, rig: &Rig) -> String {
    if let Some(mark) = left_at {
        return format!("the rig stays at its mark, {}", rig.written(mark));
    }
    if rig.settings.is_empty() {
        return "nothing was changed".into();
    }
    if not_at_stock.is_empty() {
        return "the rig is back at stock".into();
    }
    let labels = not_at_stock.iter().map(|name| rig.setting(name).map_or(name.as_str(), |setting| &setting.label));
    format!("not known to be at stock: {}", labels.collect::<Vec<_>>().join(", "))
}

/// A mark as a sentence: `4 700 MHz at 1.250 V, held quick`.
pub fn mark_sentence(mark: &Mark, rig: &Rig) -> String {
    format!("{}, held {}", rig.written(&mark.rung), mark.proof)
}

/// What was changed of the rig since a mark was found, as `, before: board: firmware 1.4, then window open`; nothing where nothing was.
pub fn before_changes(mark: &Mark, story: &Story) -> String {
    let changes: Vec<String> = story.changed_since(mark).iter().map(ToString::to_string).collect();
    if changes.is_empty() { String::new() } else { format!(", before: {}", changes.join(", then ")) }
}

/// What was measured of a setting, with its unit.
pub fn measured_words(of: &Measured, setting: &Setting) -> String {
    match of {
        Measured::BySensor(sensor, reading) => format!("{} {}", sensor.written(*reading), sensor.unit),
        Measured::ByHand(value) => with_unit(*value, &setting.unit),
    }
}

/// What came of a setting in words, `core clock: reported 4 700, measured 4 698 MHz`; none where it was neither read back
/// nor measured.
pub fn readback_words(taken: &Readback) -> Option<String> {
    let setting = taken.setting;
    let unit = match taken.measured {
        Some(Measured::BySensor(sensor, _)) => Some(&sensor.unit),
        Some(Measured::ByHand(_)) => Some(&setting.unit),
        None => None,
    };
    let read = taken.measured.map(|measured| format!("measured {}", measured_words(&measured, setting)));
    let told = match (taken.reported, read) {
        (None, None) => return None,
        (Some(reported), None) => format!("reported {}", setting.written(reported)),
        (None, Some(read)) => read,
        // The unit is told once.
        (Some(reported), Some(read)) if unit == Some(&setting.unit) && setting.words.is_empty() => {
            format!("reported {}, {read}", grouped(setting.ladder.rescaled(reported)))
        }
        (Some(reported), Some(read)) => format!("reported {}, {read}", setting.written(reported)),
    };
    Some(format!("{}: {told}", setting.label))
}

/// What a sensor reads, as `frames shown reads 118 1/s`.
fn read_words(name: &str, reading: f64, rig: &Rig) -> String {
    match rig.sensors.iter().find(|sensor| sensor.name == name) {
        Some(sensor) => {
            format!("{} reads {} {}", sensor.label, sensor.written(reading), sensor.unit).trim_end().to_owned()
        }
        None => format!("{name} reads {reading}"),
    }
}

/// What a benchmark is called, as `dense at core voltage 1.250 V`: the load, and what is held equal where that was moved.
pub fn benchmark_words(benchmark: &Benchmark, rig: &Rig) -> String {
    let load = benchmark.what.name();
    match beside_words(&benchmark.beside, rig).as_str() {
        "" => load,
        beside => format!("{load} at {beside}"),
    }
}

/// What other settings are held at, as `bus clock 8 MHz, wait states 1`; nothing where that is all.
pub fn beside_words(beside: &[(String, Decimal)], rig: &Rig) -> String {
    let of = |(name, value): &(String, Decimal)| {
        let setting = rig.setting(name);
        setting.map_or_else(|| format!("{name} {value}"), |it| format!("{} {}", it.label, it.written(*value)))
    };
    beside.iter().map(of).collect::<Vec<_>>().join(", ")
}

/// A difference with its interval in percent, as `+2.1 ± 0.3`; without an interval where the noise is not known.
pub fn percent_words(difference: &Comparison) -> String {
    // Nobody wants to read of minus nothing.
    let change = (1000.0 * difference.change).round() / 10.0 + 0.0;
    if !difference.low.is_finite() {
        return format!("{change:+.1}, unsure");
    }
    format!("{change:+.1} ± {:.1}", 100.0 * (difference.high - difference.change))
}

/// What a climb takes in the middle, and the least and the most of nine tenths of all, as
/// `12 trials (7 to 17), 18 min of passes (3 min 40 s to 31 min)`.
pub fn forecast_words(Forecast { middle, whole: [least, most], .. }: &Forecast) -> String {
    let range = |middle: String, from: String, to: String| match from == to {
        true => middle,
        false => format!("{middle} ({from} to {to})"),
    };
    let split = |of: fn(&Effort) -> u32, one: &str, many: &str| {
        let noun = if of(middle) == 1 { one } else { many };
        range(format!("{} {noun}", of(middle)), of(least).to_string(), of(most).to_string())
    };
    let time = |effort: &Effort| rounded(effort.time).to_string();
    let passes = range(format!("{} of passes", time(middle)), time(least), time(most));
    let mut words = format!("{}, {passes}", split(|effort| effort.trials, "trial", "trials"));
    for (of, one, many) in [
        ((|effort| effort.by_hand) as fn(&Effort) -> u32, "change by hand", "changes by hand"),
        (|effort| effort.restarts, "restart", "restarts"),
    ] {
        if of(most) > 0 {
            words += &format!(", {}", split(of, one, many));
        }
    }
    words
}

/// The least and the most that something takes, as `2 to 17 trials, 3 min 40 s to 31 min of passes`.
pub fn effort_words([least, most]: &[Effort; 2]) -> String {
    let range = |from: String, to: String| if from == to { to } else { format!("{from} to {to}") };
    let trials = range(least.trials.to_string(), most.trials.to_string());
    let time = range(rounded(least.time).to_string(), rounded(most.time).to_string());
    let noun = if most.trials == 1 { "trial" } else { "trials" };
    let mut words = format!("{trials} {noun}, {time} of passes");
    let counted = |least: u32, most: u32, one: &str, many: &str| match most {
        0 => String::new(),
        1 => format!(", {} {one}", range(least.to_string(), most.to_string())),
        _ => format!(", {} {many}", range(least.to_string(), most.to_string())),
    };
    words += &counted(least.by_hand, most.by_hand, "change by hand", "changes by hand");
    words += &counted(least.restarts, most.restarts, "restart", "restarts");
    words
}

/// What is foreseen is not known to the second.
fn rounded(span: Span) -> Span {
    let unit = if span >= Span::from_seconds(3600) { 60_000 } else { 1000 };
    Span::from_millis((span.millis() + unit / 2) / unit * unit)
}

/// A value that was typed for a setting, as `core clock 4 900 MHz`; what is no number stays as it was typed.
fn with_unit_of(setting: &Setting, typed: &str) -> String {
    let written = typed.parse().map_or_else(|_| typed.to_owned(), |value| setting.written(value));
    format!("{} {written}", setting.label)
}

/// What was written down, as `ticks 1 800, measured voltage 1.25`.
fn noted(written: &Written) -> String {
    let of = |(name, typed): (&String, &String)| format!("{} {typed}", name.replace(['_', '.'], " "));
    written.iter().map(of).collect::<Vec<_>>().join(", ")
}

fn operator(said: &Said, rig: &Rig) -> String {
    match said {
        Said::Pause => "the operator wants a pause after this pass".into(),
        Said::Resume => "the operator goes on".into(),
        Said::Saw { .. } => "the operator saw something".into(),
        Said::Note { text } => format!("note: {text}"),
        Said::Stop => "the operator stops".into(),
        Said::StopAtMark => "the operator stops, and leaves the rig at its mark".into(),
        Said::Leave => "the operator leaves".into(),
        Said::Suspend => "the program is told to end; what was written for the next start stays".into(),
        Said::Done { written } if written.is_empty() => "the operator says it is done".into(),
        Said::Done { written } => format!("the operator says it is done, and reads {}", noted(written)),
        Said::Take => "the operator takes what is suggested".into(),
        Said::Try { written } if written.is_empty() => "the operator tries that again".into(),
        Said::Try { written } => {
            let wanted = written.iter().map(|(name, value)| match rig.setting(name) {
                Some(setting) => with_unit_of(setting, value),
                None => format!("{name} {value}"),
            });
            format!("the operator wants {}", wanted.collect::<Vec<_>>().join(", "))
        }
        Said::Back => "the operator goes back to what held".into(),
        Said::Mark => "the operator marks what held".into(),
        Said::Save { name } => format!("the operator saves what held as {name}"),
        Said::End => "the operator says that is enough".into(),
        Said::Changed { .. } => "the operator changed something of the rig".into(),
        Said::Read { written } => format!("the operator reads {}", noted(written)),
        Said::NotToday => "not today: what was asked stands".into(),
        Said::Hung => "the operator says it hung".into(),
        Said::WrongPicture { .. } => "the operator says the picture was wrong".into(),
        Said::NoStart => "the operator says it did not start".into(),
        Said::Defaults => "the operator says it came back with defaults".into(),
    }
}
