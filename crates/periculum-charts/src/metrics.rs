//! What a climb has found, as OpenMetrics text (OpenMetrics 1.0, text format) for whoever monitors the machine.

use std::collections::BTreeMap;
use std::fmt::Write;
use std::io;

use periculum_core::model::moment::Moment;
use periculum_core::model::rig::Rig;
use periculum_core::model::verdict::Verdict;
use periculum_core::story::Story;
use periculum_core::story::series::Series;

/// Marks by setting, and how many trials ended how.
pub fn open_metrics(story: &Story, rig: &Rig, climb: i64) -> String {
    let mut text = String::new();
    // Writing to a string can't fail.
    let _ = write(&mut text, story, rig, climb);
    text
}

fn write(text: &mut String, story: &Story, rig: &Rig, climb: i64) -> std::fmt::Result {
    let name = label(&rig.name);
    writeln!(
        text,
        "# TYPE periculum_mark gauge\n# HELP periculum_mark The hardest value that held, in the setting's unit."
    )?;
    for mark in &story.marks {
        let Some(setting) = rig.setting(&mark.setting) else { continue };
        let Some(value) = mark.rung.get(&mark.setting) else { continue };
        let (unit, proof) = (label(&setting.unit), label(&mark.proof));
        let setting = label(&setting.name);
        let stage = mark.stage + 1;
        writeln!(
            text,
            "periculum_mark{{rig=\"{name}\",climb=\"{climb}\",stage=\"{stage}\",setting=\"{setting}\",unit=\"{unit}\",\
             proof=\"{proof}\"}} {value}"
        )?;
    }
    writeln!(text, "# TYPE periculum_trials counter\n# HELP periculum_trials Trials by how they ended.")?;
    for verdict in [Verdict::Held, Verdict::Slipped, Verdict::Fell, Verdict::Void] {
        let (count, ended) = (story.count(verdict), verdict.name());
        writeln!(text, "periculum_trials_total{{rig=\"{name}\",climb=\"{climb}\",verdict=\"{ended}\"}} {count}")?;
    }
    writeln!(text, "# TYPE periculum_tested_seconds counter\n# UNIT periculum_tested_seconds seconds")?;
    writeln!(text, "# HELP periculum_tested_seconds How long passes ran.")?;
    let seconds = story.tested().seconds();
    writeln!(text, "periculum_tested_seconds_total{{rig=\"{name}\",climb=\"{climb}\"}} {seconds}\n# EOF")
}

/// Writes what sensors read in a climb that began at `wall` since 1970, sensor by sensor with the time of
/// each reading.
///
/// # Errors
/// When it can't be written.
pub fn telemetry(
    mut to: impl io::Write,
    story: &Story,
    readings: &BTreeMap<String, Series>,
    rig: &Rig,
    climb: i64,
    wall: Moment,
) -> io::Result<()> {
    let began = story.began.unwrap_or_default();
    writeln!(to, "# TYPE periculum_reading gauge\n# HELP periculum_reading What a sensor read, in its unit.")?;
    for (sensor, series) in readings {
        let unit = rig.sensors.iter().find(|known| known.name == *sensor).map_or("", |known| &known.unit);
        let (rig, sensor, unit) = (label(&rig.name), label(sensor), label(unit));
        let labels = format!("rig=\"{rig}\",climb=\"{climb}\",sensor=\"{sensor}\",unit=\"{unit}\"");
        let mut before = None;
        for (at, reading) in series.iter() {
            let at = wall.millis() + at.millis() - began.millis();
            // The format has one reading for each moment.
            if before.replace(at) != Some(at) {
                let (seconds, millis) = (at.div_euclid(1000), at.rem_euclid(1000));
                writeln!(to, "periculum_reading{{{labels}}} {reading} {seconds}.{millis:03}")?;
            }
        }
    }
    writeln!(to, "# EOF")
}

/// A label's value as the format has it in quotes.
fn label(text: &str) -> String {
    text.replace('\\', "\\\\").replace('"', "\\\"").replace('\n', "\\n")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_moment_has_one_reading_with_its_time() {
        let nothing = String::new;
        let (summary, cooling, watchdog) = (nothing(), nothing(), nothing());
        let (parts, settings, derived, sensors) = (Vec::new(), Vec::new(), Vec::new(), Vec::new());
        let rig = Rig {
            name: "r".into(),
            summary,
            place: periculum_core::model::rig::Place::Unsaid,
            cooling,
            watchdog,
            history: Vec::new(),
            parts,
            settings,
            curves: Vec::new(),
            derived,
            sensors,
        };
        let mut series = Series::default();
        for (at, reading) in [(0, 20.5), (250, 21.0), (250, 22.0), (1500, 23.0)] {
            series.push(Moment::from_millis(at), reading);
        }
        let mut bytes = Vec::new();
        let readings = BTreeMap::from([("hot".to_owned(), series)]);
        telemetry(&mut bytes, &Story::default(), &readings, &rig, 3, Moment::from_millis(86_400_000)).expect("written");
        let text = String::from_utf8(bytes).expect("text");
        let values: Vec<&str> = text.lines().filter_map(|line| line.split_once("} ")).map(|(_, value)| value).collect();
        assert_eq!(values, ["20.5 86400.000", "21 86400.250", "23 86401.500"]);
        assert!(text.ends_with("# EOF\n"), "{text}");
    }

    #[test]
    fn labels_can_not_break_the_text() {
        assert_eq!(label("a \"b\" \\ c\nd"), "a \\\"b\\\" \\\\ c\\nd");
    }
}
