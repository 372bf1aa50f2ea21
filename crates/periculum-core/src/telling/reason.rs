//! Reasons and ends of stages as sentences.

use std::fmt;

use rust_decimal::Decimal;

use super::evidence::bound_words;
use crate::inference::hazard::Survival;
use crate::model::depth::Depth;
use crate::model::incident::IncidentKind;
use crate::model::quantity::{counted, with_unit};
use crate::model::reason::{Alone, Border, Foresight, Reason, Spared, StageEnd};
use crate::model::rig::Rig;

impl Reason {
    /// The reason as the part of a sentence behind "because".
    pub fn because(&self, rig: &Rig) -> String {
        match self {
            Self::Baseline { nth, of, .. } if rig.settings.is_empty() && *of > 1 => {
                format!("it is to be measured ({nth} of up to {of})")
            }
            Self::Baseline { .. } if rig.settings.is_empty() => "it is to be proved".into(),
            Self::Baseline { nth, of, start: Some(start) } => {
                format!("the rig at stock comes first ({nth} of {of}), after start {start}")
            }
            Self::Baseline { nth, of, .. } if *of > 1 => format!("the rig at stock comes first ({nth} of {of})"),
            Self::Baseline { .. } => "the rig at stock comes first".into(),
            Self::WarmUp { .. } => "a rig that is new begins with a short one".into(),
            Self::Chosen => "you want it".into(),
            Self::Back { trial } => format!("it held in trial {trial}"),
            Self::Between { setting, held, fell } => {
                format!("{} held and {} did not", written(rig, setting, *held), written(rig, setting, *fell))
            }
            Self::Harder { setting, from } => format!("{} held", written(rig, setting, *from)),
            Self::StepBack { setting, from, depth } => {
                let how = match depth {
                    Depth::Shallow => "did not hold",
                    Depth::Deep => "fell deep",
                    Depth::MachineDown => "took the machine down",
                };
                format!("{} {how}", written(rig, setting, *from))
            }
            Self::Open { setting } => format!("{} is raised so that it does not limit the search", label(rig, setting)),
            Self::Feed { setting, from, climbed, value } => format!(
                "{} fell with {} of {}",
                written(rig, climbed, *value),
                written(rig, setting, *from),
                label(rig, setting)
            ),
            Self::Start => "the stage starts there, and it has not held so far".into(),
            Self::Combination { nth, of } => format!("it is combination {nth} of {of}"),
            Self::Together { back: 0 } => "each alone held there".into(),
            Self::Together { back } => format!("together they have to be {back} back"),
            Self::GivesWay { settings, cores } => gives_way(rig, settings, cores),
            Self::AllGiveWay => "no one of them alone is known to be to blame, so that all give way".into(),
            Self::Common { .. } => "one common value is to be compared".into(),
            Self::Score { setting, nth, of } => {
                format!("the score at this {} is to be known ({nth} of {of})", label(rig, setting))
            }
            Self::Disturbed { trial } => format!("the score of trial {trial} was too low to be undisturbed"),
            Self::Learn { foresight: None, .. } => "nothing has fallen so far".into(),
            Self::Learn { setting, foresight: Some(foresight), .. } => {
                format!("it tells most about the limit, so far {}", foresight.limit(rig, setting))
            }
            Self::Confirm { foresight, .. } => format!("it is expected to hold: {foresight}"),
            Self::Soak { margin: 0, .. } => "what was found is to be proved".into(),
            Self::Soak { margin, .. } => format!("a margin of {} is kept", counted(*margin, "step")),
            Self::MoreTime { trial } => {
                format!("trial {trial} did not check everything in its time, so its passes get more")
            }
            Self::Again { trial } => format!("trial {trial} was broken off"),
        }
    }
}

impl Foresight {
    /// The limit in words, as `4 712 MHz ± 1.4 steps`.
    fn limit(&self, rig: &Rig, setting: &str) -> String {
        let unit = rig.setting(setting).map_or("", |setting| setting.unit.as_str());
        format!(
            "{} ± {:.1} steps",
            with_unit(self.limit.round_sf(4).unwrap_or(self.limit).normalize(), unit),
            self.deviation
        )
    }
}

impl fmt::Display for Foresight {
    /// As `it survives with 93 % (71 to 99 %)`.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let Self { survival, low, high, .. } = self;
        let (low, high) = Survival { mean: *survival, low: *low, high: *high }.around();
        write!(f, "it survives with {:.0} % ({:.0} to {:.0} %)", 100.0 * survival, 100.0 * low, 100.0 * high)
    }
}

impl StageEnd {
    /// The end as a sentence.
    pub fn sentence(&self, rig: &Rig) -> String {
        match self {
            Self::BaselineHeld => "stock holds".into(),
            Self::NextDidNotHold { setting, value, verdict, incident } => {
                format!("{} {verdict}{}", written(rig, setting, *value), in_brackets(*incident))
            }
            Self::AtLimit { setting, value, limit } => {
                let limit = bound_words(limit, rig.setting(setting));
                format!("nothing beyond {} is allowed: {limit}", written(rig, setting, *value))
            }
            Self::LimitKnown { setting, value, target, foresight } => {
                format!("{} is not sure to hold {target}: {foresight}", written(rig, setting, *value))
            }
            Self::Limited { setting, value, incident } => {
                let did = if *incident == IncidentKind::TooHot { "gets too hot" } else { "is throttled" };
                format!("{} {did}: not its stability is the limit", written(rig, setting, *value))
            }
            Self::Opened { setting, value } => {
                format!("{} is open to {}", label(rig, setting), written(rig, setting, *value))
            }
            Self::GridDone { held, fell, skipped, fastest, spared } => {
                let spared = spared.as_ref().map(spared_words).unwrap_or_default();
                let fastest = fastest.as_ref().map(|fastest| {
                    format!("; the best score is that of trial {}, {}", fastest.trial, rig.written(&fastest.rung))
                });
                let skipped = if *skipped == 0 { String::new() } else { format!(", {skipped} could not hold") };
                format!("{held} held, {fell} did not{skipped}{}{spared}", fastest.unwrap_or_default())
            }
            Self::EachKnown { alone, back, apart, gain } => each_known(rig, alone, (*back, apart), *gain),
            Self::Mapped { setting, over, border } => mapped(rig, setting, over, border),
            Self::PastPeak { setting, benchmark } => {
                let of = benchmark.as_ref().map(|load| format!(" in {load}")).unwrap_or_default();
                format!("harder values of {} score less{of}", label(rig, setting))
            }
            Self::NoScore => "no pass of the proof has a score".into(),
            Self::BudgetSpent { limit } => limit.to_string(),
            Self::Led { tried } => format!("that was enough, after {}", counted(*tried, "trial")),
            Self::Soaked => "it held".into(),
            Self::NothingHeld { verdict, incident } => {
                format!("nothing held, and the easiest rung {verdict}{}", in_brackets(*incident))
            }
        }
    }
}

impl Border {
    /// The limit in words: a number where trials of this very row say so, an interval where others suggest it.
    pub fn words(&self, unit: &str) -> String {
        let written = |value: Decimal| with_unit(value.round_sf(4).unwrap_or(value).normalize(), unit);
        match (self.trials, self.between) {
            (Some(0), Some([low, high])) => {
                let low = low.round_sf(4).unwrap_or(low).normalize();
                format!("untested, somewhere from {low} to {}", written(high))
            }
            (Some(0), None) => "untested".into(),
            _ => written(self.limit),
        }
    }
}

/// As `strongest: core 3 (5 000 MHz), weakest: core 1 (4 800 MHz); together they hold one step back, +2.1 % over one common
/// value`.
fn each_known(rig: &Rig, alone: &[Alone], (back, apart): (u32, &[u32]), gain: Option<f64>) -> String {
    let is_harder =
        |a: &Alone, b: &Alone| rig.setting(&a.setting).is_some_and(|known| known.is_harder(b.value, a.value));
    let strongest = alone.iter().reduce(|best, one| if is_harder(one, best) { one } else { best });
    let weakest = alone.iter().reduce(|worst, one| if is_harder(worst, one) { one } else { worst });
    let named = |one: &Alone| format!("{} ({})", label(rig, &one.setting), written(rig, &one.setting, one.value));
    let ends = match (strongest, weakest) {
        (Some(strongest), Some(weakest)) if strongest.value != weakest.value => {
            format!("strongest: {}, weakest: {}", named(strongest), named(weakest))
        }
        (Some(one), _) => format!("all go as far as {}", named(one)),
        _ => "there is none".into(),
    };
    let together = match back {
        _ if !apart.is_empty() => {
            let one = |(one, count): (&Alone, &u32)| format!("{} {count}", label(rig, &one.setting));
            let each: Vec<String> = alone.iter().zip(apart).map(one).collect();
            format!("together they hold steps back: {}", each.join(", "))
        }
        0 => "together they hold there".to_owned(),
        1 => "together they hold one step back".to_owned(),
        _ => format!("together they hold {back} steps back"),
    };
    let gain = gain.map(|gain| format!(", {:+.1} % over one common value", 100.0 * gain));
    format!("{ends}; {together}{}", gain.unwrap_or_default())
}

/// As `core 3 failed, and its setting gives way first: fast cores`.
fn gives_way(rig: &Rig, settings: &[String], cores: &[u32]) -> String {
    let cores: Vec<String> = cores.iter().map(u32::to_string).collect();
    let settings: Vec<String> = settings.iter().map(|setting| label(rig, setting)).collect();
    let which = match (cores.len(), settings.len()) {
        (1, 1) => format!("core {} failed, and its setting gives way first", cores[0]),
        (1, _) => format!("core {} failed, and its settings give way first", cores[0]),
        (_, 1) => format!("cores {} failed, and their setting gives way first", cores.join(", ")),
        _ => format!("cores {} failed, and their settings give way first", cores.join(", ")),
    };
    format!("{which}: {}", settings.join(", "))
}

/// As `core clock holds to 4 900 MHz at 1.250 V, to 4 700 MHz at 1.150 V`.
fn mapped(rig: &Rig, setting: &str, over: &str, border: &[Border]) -> String {
    let unit = rig.setting(setting).map_or("", |setting| setting.unit.as_str());
    let point = |point: &Border| {
        let to = if point.trials == Some(0) { "" } else { "to " };
        format!("{to}{} at {}", point.words(unit), written(rig, over, point.value))
    };
    let tested: Vec<&Border> = border.iter().filter(|row| row.trials != Some(0)).collect();
    let untested = border.len() - tested.len();
    let ends: Vec<String> = match tested[..] {
        [first, .., last] => vec![point(first), point(last)],
        _ => tested.iter().map(|row| point(row)).collect(),
    };
    let untested = match untested {
        0 => String::new(),
        1 => "; one row is untested".into(),
        many => format!("; {many} rows are untested"),
    };
    if ends.is_empty() {
        return format!("nothing is known of {}{untested}", label(rig, setting));
    }
    format!("{} holds {}{untested}", label(rig, setting), ends.join(", "))
}

fn label(rig: &Rig, setting: &str) -> String {
    rig.setting(setting).map_or_else(|| setting.to_owned(), |known| known.label.clone())
}

fn in_brackets(incident: Option<IncidentKind>) -> String {
    incident.map(|kind| format!(" ({kind})")).unwrap_or_default()
}

fn written(rig: &Rig, setting: &str, value: Decimal) -> String {
    rig.setting(setting).map_or_else(|| value.to_string(), |known| known.written(value))
}

/// What an order of combinations spared, as `; 14 changes by hand instead of 27, neighbours one after the other`.
fn spared_words(spared: &Spared) -> String {
    let [visits, plain_visits] = spared.visits;
    let [changes, plain_changes] = spared.changes;
    let (what, now, plain) = match visits < plain_visits {
        true => ("visits to the machine", visits, plain_visits),
        false => ("changes by hand", changes, plain_changes),
    };
    format!("; {now} {what} instead of {plain}, neighbours one after the other")
}
