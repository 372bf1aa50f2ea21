//! Errands as instructions and as a few words.

use rust_decimal::Decimal;

use crate::engine::{Answer, Misfit, Question, Said, Suggestion, Turn};
use crate::model::errand::Errand;
use crate::model::quantity::{harmless, with_unit};
use crate::model::rig::{Rig, When};
use crate::model::rung::Change;

/// A question as an instruction to the operator.
pub fn ask(question: &Question, rig: &Rig) -> String {
    match question {
        Question::Change { errand } => to_change(errand, rig),
        Question::Make { load, length, task, .. } => format!("{load}, about {length}: {}", task.ask),
        Question::Read { sensors, when } => {
            let labels = sensors.iter().map(|name| sensor_words(name, rig));
            format!("read {}, {}", labels.collect::<Vec<_>>().join(", "), when_words(*when))
        }
        Question::Confirm { errand, .. } => {
            let checks = checks_words(errand, rig).map(|checks| format!(", unless {checks}")).unwrap_or_default();
            format!("{}: is all well? it goes back by itself otherwise{checks}", errand_words(errand, rig))
        }
        Question::WhatNext { turn } => what_next(turn, rig),
    }
}

/// What says by itself that all is well with an errand, as `frames shown reads at least 24 1/s`; none where somebody has to.
pub fn checks_words(errand: &Errand, rig: &Rig) -> Option<String> {
    let settings = errand.changes().iter().filter_map(|change| rig.setting(&change.setting));
    let checks = settings.filter(|setting| setting.confirm.is_some()).map(|setting| {
        let check = setting.confirmed_by.as_ref()?;
        let sensor = rig.sensors.iter().find(|sensor| sensor.name == check.sensor)?;
        let bounds = bounds_words(check.at_least, check.at_most, &sensor.unit);
        Some(format!("{} reads {bounds}", sensor.label))
    });
    let checks: Vec<String> = checks.collect::<Option<_>>()?;
    listed(&checks)
}

/// A sensor with its unit, as `package (°C)`.
fn sensor_words(name: &str, rig: &Rig) -> String {
    match rig.sensors.iter().find(|sensor| sensor.name == name) {
        Some(sensor) if sensor.unit.is_empty() => sensor.label.clone(),
        Some(sensor) => format!("{} ({})", sensor.label, sensor.unit),
        None => name.to_owned(),
    }
}

/// When a sensor is read.
fn when_words(when: When) -> &'static str {
    match when {
        When::Once => "once for the whole climb",
        When::EachTrial => "for this trial",
        When::Idle => "with the rig at rest",
        When::Loaded => "as it was while the rig worked",
        When::After => "now that the trial's passes are over",
    }
}

fn what_next(turn: &Turn, rig: &Rig) -> String {
    match &turn.suggestion {
        Some(Suggestion { rung, reason }) => {
            format!("say what is tried next; {} is suggested, because {}", rig.written(rung), reason.because(rig))
        }
        None => "say what is tried next; nothing is suggested".into(),
    }
}

/// A turn in a few words.
pub fn turn_words(turn: &Turn, rig: &Rig) -> String {
    match &turn.suggestion {
        Some(Suggestion { rung, .. }) => format!("your turn; {} is suggested", rig.written(rung)),
        None => "your turn; nothing is suggested".into(),
    }
}

fn to_change(errand: &Errand, rig: &Rig) -> String {
    if errand.is_start_alone() {
        return "start the machine anew, with everything as it is".to_owned();
    }
    let (started, by_hand): (Vec<&Change>, Vec<&Change>) =
        errand.changes().iter().partition(|change| rig.needs_start(&change.setting));
    let by_hand: Vec<String> = by_hand.into_iter().map(|change| by_hand_words(change, rig)).collect();
    let started: Vec<String> = started.into_iter().map(|change| started_words(change, rig)).collect();
    match (listed(&by_hand), listed(&started)) {
        (by_hand, None) => by_hand.unwrap_or_default(),
        (None, Some(started)) => format!("start the machine anew, so that {started}"),
        (Some(by_hand), Some(started)) => format!("{by_hand}; and start the machine anew, so that {started}"),
    }
}

/// What to say to a question that takes these answers, in lines and scripts: `done, or no-start, defaults, stop, stop-at-mark,
/// leave`.
pub fn grammar(answers: &[Answer]) -> String {
    let mut words = Said::words(answers);
    let first = words.next().unwrap_or_default();
    format!("{first}, or {}", words.collect::<Vec<_>>().join(", "))
}

/// What to say to a question, with what may be written down: `done, or no-start, …; with what it shows as done multiplier=…`.
pub fn answers_to(question: &Question, rig: &Rig) -> String {
    let fields = question.fields(rig);
    let answers = grammar(&question.answers());
    if fields.is_empty() {
        return answers;
    }
    let names: Vec<String> = fields.iter().map(|field| format!("{}=…", field.name)).collect();
    let line = |names: &[String]| format!("{} {}", question.written_with().word(), names.join(" "));
    match question {
        // What changed by itself is told in the same way.
        Question::Change { errand } => {
            let of_errand = errand.changes().first().map(|change| {
                let measured = format!("{}=…", Question::measured(&change.setting));
                names.iter().find(|name| **name == measured).cloned().into_iter()
            });
            let first = names.iter().take(1).cloned().chain(of_errand.into_iter().flatten());
            let line = line(&first.collect::<Vec<_>>());
            format!("{answers}; what it shows or a meter says may stand behind, as `{line}`")
        }
        Question::Confirm { .. } => answers,
        Question::Make { .. } | Question::Read { .. } => {
            format!("{answers}; what is read stands behind, as `{}`", line(&names))
        }
        Question::WhatNext { .. } => {
            let line = line(&names);
            format!("{answers}; what is to change stands behind, as `{line}`, and a name as `save daily`")
        }
    }
}

/// Why what was typed is nothing for its field, and what would be.
pub fn misfit_words(misfit: &Misfit) -> String {
    match misfit {
        Misfit::NoNumber { typed } => format!("`{}` is no number; write one as 36.5", harmless(typed)),
        Misfit::Unbelieved { number, unit, least, most } => format!(
            "{} is hardly right, as it can be {}; is it another unit?",
            with_unit(*number, unit),
            bounds_words(*least, *most, unit)
        ),
        Misfit::NoWord { typed, words } => format!("`{}` is none of {}", harmless(typed), words.join(", ")),
        Misfit::Missing { name, label } => format!("{label} is missing; write it down as `{name}=…`"),
        Misfit::NoScore { of } => format!("{of} is a score, and has to be above 0"),
        Misfit::NoValue { of, formula } => format!("{of} can't be calculated from this, as {formula}"),
        Misfit::NoField { named, names } if names.is_empty() => {
            format!("nothing can be written down here, and so no `{}`", harmless(named))
        }
        Misfit::NoField { named, names } => {
            format!("there is nothing called `{}` to be written down; there is {}", harmless(named), names.join(", "))
        }
    }
}

/// From where to where something can be.
fn bounds_words(least: Option<Decimal>, most: Option<Decimal>, unit: &str) -> String {
    match (least, most) {
        (Some(least), Some(most)) => format!("from {} to {}", with_unit(least, unit), with_unit(most, unit)),
        (Some(least), None) => format!("{} at least", with_unit(least, unit)),
        (None, most) => most.map_or_else(|| "anything".to_owned(), |most| format!("{} at most", with_unit(most, unit))),
    }
}

/// What an answer means to the one who gives it.
pub fn answer_words(answer: Answer, question: &Question) -> &'static str {
    match answer {
        Answer::Done if matches!(question, Question::Confirm { .. }) => "all is well",
        Answer::Done if question.errand().is_none() => "done, and this is what it says",
        Answer::Done => "done, it runs",
        Answer::NoStart => "it did not start",
        Answer::Defaults => "it came back with defaults",
        Answer::Hung => "it hung",
        Answer::WrongPicture => "the picture was wrong",
        Answer::NotToday => "not today",
        Answer::Take => "try what is suggested",
        Answer::Try => "try these values",
        Answer::Back => "back to what held last",
        Answer::Mark => "what held last is a mark",
        Answer::Save => "save what held last as a profile",
        Answer::End => "that is enough",
    }
}

fn by_hand_words(change: &Change, rig: &Rig) -> String {
    let (label, from, to) = change_words(change, rig);
    match from {
        Some(from) => format!("change {label} from {from} to {to}"),
        None => format!("set {label} to {to}"),
    }
}

fn started_words(change: &Change, rig: &Rig) -> String {
    let (label, _, to) = change_words(change, rig);
    format!("{label} becomes {to}")
}

/// As `a`, `a and b`, `a, b and c`.
fn listed(words: &[String]) -> Option<String> {
    let (last, before) = words.split_last()?;
    Some(if before.is_empty() { last.clone() } else { format!("{} and {last}", before.join(", ")) })
}

/// What an errand changes, as `core clock to 4 700 MHz, core voltage to 1.250 V`.
pub fn errand_words(errand: &Errand, rig: &Rig) -> String {
    if errand.is_start_alone() {
        return "a start of the machine".to_owned();
    }
    let words = errand.changes().iter().map(|change| {
        let (label, _, to) = change_words(change, rig);
        format!("{label} to {to}")
    });
    words.collect::<Vec<_>>().join(", ")
}

/// The setting's label, and the values from and to which it changes, as people read them.
pub fn change_words(change: &Change, rig: &Rig) -> (String, Option<String>, String) {
    match rig.setting(&change.setting) {
        Some(setting) => {
            (setting.label.clone(), change.from.map(|value| setting.written(value)), setting.written(change.to))
        }
        None => (change.setting.clone(), change.from.map(|value| value.to_string()), change.to.to_string()),
    }
}
