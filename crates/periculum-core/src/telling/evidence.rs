//! Evidence and bounds as sentences.

use std::fmt;

use crate::model::evidence::{Bound, Evidence, Finding, HeldBack, Known, Reading};
use crate::model::quantity::with_unit;
use crate::model::setting::Setting;

impl fmt::Display for Evidence {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Said(said) => f.write_str(said),
            Self::Found(found) => found.fmt(f),
        }
    }
}

impl fmt::Display for Finding {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::OverCutOff { reading, cut_off } => write!(f, "{reading}, cut-off {cut_off} {}", reading.unit),
            Self::UnderCutOff { reading, cut_off } => {
                write!(f, "{reading}, lower cut-off {cut_off} {}", reading.unit)
            }
            Self::BelowAsked { reached, asked, held_back } => {
                write!(f, "reached {reached} of {}", with_unit(*asked, &reached.unit))?;
                match held_back {
                    HeldBack::Limit { sensor, reading, limit } => {
                        write!(f, ": {sensor} at {reading}, its limit {limit} {}", reading.unit)
                    }
                    HeldBack::Nothing { reported_by } => write!(f, ", though {reported_by} reports it"),
                    HeldBack::Unknown => f.write_str(": no limit that is known here"),
                }
            }
            Self::TooLittle { reading, least, during } => {
                write!(f, "{reading} for {during}, at least {least} {} is usual", reading.unit)
            }
            Self::Silent { sensor, because } => {
                let because = in_brackets(because.as_deref());
                write!(f, "{sensor} no longer tells anything{because}, and a cut-off rests on it")
            }
            Self::Uneven { core, hottest, median } => write!(
                f,
                "core {core} is at {hottest:.0} °C and the others at {median:.0} °C: check how the cooler is mounted"
            ),
            Self::Unanswered { waited } => {
                write!(f, "what was to change it has not answered for {waited}, so nobody knows what is in force")
            }
            Self::NotEnded { length } => write!(f, "a pass of {length} has not ended"),
            Self::Unstoppable { waited } => write!(
                f,
                "the pass was told to stop {waited} ago and has not ended, whatever was done: the machine is in trouble"
            ),
            Self::EndedEarly => f.write_str("the pass ended before its time, and nobody stopped it"),
            Self::ScoredLess { gain } => {
                let [change, low, high] = [gain.change, gain.low, gain.high].map(|share| 100.0 * share);
                write!(f, "{change:+.1} % ({low:+.1} to {high:+.1} %) against the baseline, measured twice")
            }
            Self::Differs { wanted, reported, was_set } => {
                let verb = if *was_set { "asked for" } else { "left at" };
                write!(f, "{verb} {}, reported {}", wanted.written, reported.written)
            }
            Self::Mismeasured { wanted, measured } => {
                write!(f, "asked for {}, measured {}", wanted.written, measured.written)
            }
            Self::Unread { because } => {
                write!(f, "it could be read back before, and now it can't{}", in_brackets(because.as_deref()))
            }
            Self::WrittenWrong { right, written } => write!(f, "`{written}`, right is {}", right.join(" or ")),
            Self::Unconfirmed => f.write_str("nobody said that all is well, and it goes back"),
            Self::SaidHung => f.write_str("the operator says: it hung"),
            Self::SaidWrongPicture { what } if what.is_empty() => f.write_str("the operator says: a wrong picture"),
            Self::SaidWrongPicture { what } => write!(f, "the operator says: a wrong picture, {what}"),
            Self::SaidNoStart => f.write_str("the operator says: the rig did not start"),
            Self::SaidDefaults => f.write_str("the operator says: the rig came back with its defaults"),
            Self::Seen => f.write_str("the operator saw something"),
            Self::Stopped => f.write_str("the operator stopped the climb"),
            Self::WentDown { ending, last_words } => f.write_str(&ending.told(last_words.as_deref())),
        }
    }
}

impl fmt::Display for Reading {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{:.*} {}", self.decimals, self.value, self.unit)
    }
}

/// What stands against a value of a setting.
pub fn bound_words(bound: &Bound, setting: Option<&Setting>) -> String {
    let known = match bound {
        Bound::Said(said) => return said.clone(),
        Bound::Known(known) => known,
    };
    let written = |value| setting.map_or_else(|| format!("{value}"), |setting| setting.written(value));
    match known {
        Known::LadderEnds => format!("the ladder of {} ends there", setting.map_or("it", |setting| &setting.label)),
        Known::Ceiling { use_name, at } => format!("the {use_name} ceiling is {}", written(*at)),
        Known::Floor { at } => format!("the floor is {}", written(*at)),
        Known::Window { derived, value, window } => {
            format!("{derived} would be {value}, outside its window {window}")
        }
        Known::Impossible => "the rig has no such value".into(),
    }
}

/// Why, behind what happened; nothing where nobody knows.
fn in_brackets(because: Option<&str>) -> String {
    because.map(|because| format!(" ({because})")).unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::inference::comparison::Comparison;
    use crate::model::ending::Ending;
    use crate::model::evidence::Value;
    use crate::model::moment::Span;
    use rust_decimal::Decimal;

    fn reading(value: f64, unit: &str) -> Reading {
        Reading { value, decimals: 1, unit: unit.into() }
    }

    fn every_finding() -> Vec<(Finding, &'static str)> {
        let clock = || (reading(4702.0, "MHz"), Decimal::from(4900));
        let below = |held_back| {
            let (reached, asked) = clock();
            Finding::BelowAsked { reached, asked, held_back }
        };
        let value = |number: i64| Value { value: number.into(), written: format!("{number} MHz") };
        let differs = |was_set| Finding::Differs { wanted: value(4900), reported: value(4800), was_set };
        let limit = HeldBack::Limit { sensor: "power".into(), reading: reading(219.6, "W"), limit: 220.into() };
        vec![
            (
                Finding::UnderCutOff { reading: reading(-62.0, "°C"), cut_off: Decimal::from(-60) },
                "-62.0 °C, lower cut-off -60 °C",
            ),
            (Finding::OverCutOff { reading: reading(96.3, "°C"), cut_off: 95.into() }, "96.3 °C, cut-off 95 °C"),
            (below(limit), "reached 4702.0 MHz of 4 900 MHz: power at 219.6 W, its limit 220 W"),
            (
                below(HeldBack::Nothing { reported_by: "the driver".into() }),
                "reached 4702.0 MHz of 4 900 MHz, though the driver reports it",
            ),
            (below(HeldBack::Unknown), "reached 4702.0 MHz of 4 900 MHz: no limit that is known here"),
            (
                Finding::TooLittle { reading: reading(12.0, "%"), least: 90.into(), during: Span::from_seconds(10) },
                "12.0 % for 10 s, at least 90 % is usual",
            ),
            (
                Finding::Silent { sensor: "hottest core".into(), because: None },
                "hottest core no longer tells anything, and a cut-off rests on it",
            ),
            (
                Finding::Uneven { core: 3, hottest: 91.0, median: 64.0 },
                "core 3 is at 91 °C and the others at 64 °C: check how the cooler is mounted",
            ),
            (
                Finding::Unanswered { waited: Span::from_seconds(601) },
                "what was to change it has not answered for 10 min 1 s, so nobody knows what is in force",
            ),
            (Finding::NotEnded { length: Span::from_seconds(60) }, "a pass of 1 min has not ended"),
            (
                Finding::Unstoppable { waited: Span::from_seconds(21) },
                "the pass was told to stop 21 s ago and has not ended, whatever was done: the machine is in trouble",
            ),
            (Finding::EndedEarly, "the pass ended before its time, and nobody stopped it"),
            (
                Finding::ScoredLess { gain: Comparison { change: -0.031, low: -0.04, high: -0.022 } },
                "-3.1 % (-4.0 to -2.2 %) against the baseline, measured twice",
            ),
            (differs(true), "asked for 4900 MHz, reported 4800 MHz"),
            (differs(false), "left at 4900 MHz, reported 4800 MHz"),
            (Finding::Unread { because: None }, "it could be read back before, and now it can't"),
            (Finding::SaidHung, "the operator says: it hung"),
            (Finding::Unconfirmed, "nobody said that all is well, and it goes back"),
            (Finding::SaidWrongPicture { what: "snow".into() }, "the operator says: a wrong picture, snow"),
            (Finding::SaidNoStart, "the operator says: the rig did not start"),
            (Finding::SaidDefaults, "the operator says: the rig came back with its defaults"),
            (Finding::Seen, "the operator saw something"),
            (Finding::Stopped, "the operator stopped the climb"),
            (
                Finding::WentDown { ending: Ending::ProgramDied, last_words: None },
                "the program died; the machine has the same boot identifier as before",
            ),
        ]
    }

    #[test]
    fn every_finding_is_told_and_kept_as_data() {
        for (finding, told) in every_finding() {
            let evidence = Evidence::from(finding);
            assert_eq!(evidence.to_string(), told);
            let kept = serde_json::to_string(&evidence).expect("json");
            assert!(kept.starts_with('{') && !kept.contains("cut-off 95"), "{kept}");
            assert_eq!(serde_json::from_str::<Evidence>(&kept).expect("read"), evidence);
        }
    }

    #[test]
    fn what_earlier_versions_wrote_is_told_as_it_stands() {
        let evidence: Evidence = serde_json::from_str("\"residual 41.2, allowed 16\"").expect("read");
        assert_eq!(evidence, Evidence::Said("residual 41.2, allowed 16".into()));
        let bound: Bound = serde_json::from_str("\"the daily ceiling is 5 100 MHz\"").expect("read");
        assert_eq!(bound_words(&bound, None), "the daily ceiling is 5 100 MHz");
    }

    #[test]
    fn bounds_are_told_and_kept_as_data() {
        let ceiling = Bound::Known(Known::Ceiling { use_name: "daily".into(), at: 5100.into() });
        let window = Known::Window { derived: "over stock".into(), value: "26".into(), window: "-10 … 25".into() };
        for (bound, told) in [
            (ceiling, "the daily ceiling is 5100"),
            (Bound::Known(Known::Floor { at: 3800.into() }), "the floor is 3800"),
            (Bound::Known(Known::LadderEnds), "the ladder of it ends there"),
            (Bound::Known(window), "over stock would be 26, outside its window -10 … 25"),
            (Bound::Known(Known::Impossible), "the rig has no such value"),
        ] {
            assert_eq!(bound_words(&bound, None), told);
            let kept = serde_json::to_string(&bound).expect("json");
            assert_eq!(serde_json::from_str::<Bound>(&kept).expect("read"), bound);
        }
    }
}
