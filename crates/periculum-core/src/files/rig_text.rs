//! The text of a rig file for a rig that is taken as it is: its parts and its sensors, and nothing that could be changed.

use std::fmt::{self, Write};

use super::outline::quoted;
use crate::model::cut_off::CutOff;
use crate::model::rig::{Part, Rig, Sensor};

/// The text of a rig file with the parts and sensors of this rig, and without its settings.
pub fn as_it_is(rig: &Rig) -> String {
    let mut text = String::new();
    // Writing to a string can't fail.
    let _ = write_rig(&mut text, rig);
    text
}

fn write_rig(out: &mut String, rig: &Rig) -> fmt::Result {
    writeln!(out, "format = 1\n\n[rig]\nname = {}\nsummary = {}", quoted(&rig.name), quoted(&rig.summary))?;
    if !rig.cooling.is_empty() {
        writeln!(out, "cooling = {}", quoted(&rig.cooling))?;
    }
    rig.parts.iter().try_for_each(|part| write_part(out, part))?;
    rig.sensors.iter().try_for_each(|sensor| write_sensor(out, sensor, rig))
}

fn write_part(out: &mut String, part: &Part) -> fmt::Result {
    let Part { kind, model, specimen, firmware, slot, since, paid } = part;
    writeln!(out, "\n[[part]]\nkind = {}\nmodel = {}", quoted(kind), quoted(model))?;
    let known = [("specimen", specimen), ("firmware", firmware), ("slot", slot), ("since", since)];
    for (key, text) in known.into_iter().filter(|(_, text)| !text.is_empty()) {
        writeln!(out, "{key} = {}", quoted(text))?;
    }
    paid.as_ref().map_or(Ok(()), |paid| writeln!(out, "paid = \"{} {}\"", paid.amount, paid.currency))
}

/// What it reads, and what ends or slips a pass, as it is with every setting at stock; not which setting it follows, since there is
/// none.
fn write_sensor(out: &mut String, sensor: &Sensor, rig: &Rig) -> fmt::Result {
    writeln!(out, "\n[sensor.{}]\nlabel = {}", quoted(&sensor.name), quoted(&sensor.label))?;
    writeln!(out, "unit = {}\ndecimals = {}", quoted(&sensor.unit), sensor.decimals)?;
    if !sensor.words.is_empty() {
        let words: Vec<String> = sensor.words.iter().map(|word| quoted(word)).collect();
        writeln!(out, "words = [{}]", words.join(", "))?;
    }
    let at_stock = |cut_off: &Option<CutOff>| cut_off.as_ref()?.at(|setting| Some(rig.setting(setting)?.stock));
    let numbers = [
        ("cut_off", at_stock(&sensor.cut_off)),
        ("cut_off_below", at_stock(&sensor.cut_off_below)),
        ("limit", sensor.limit),
        ("least", sensor.least),
    ];
    for (key, number) in numbers {
        number.map_or(Ok(()), |number| writeln!(out, "{key} = {number}"))?;
    }
    sensor.core.map_or(Ok(()), |core| writeln!(out, "core = {core}"))?;
    sensor.patience.map_or(Ok(()), |patience| writeln!(out, "patience = \"{}ms\"", patience.millis()))?;
    writeln!(out, "adapter = {}\nsource = {}", quoted(&sensor.adapter), quoted(&sensor.source))
}

#[cfg(test)]
mod tests {
    use super::super::{Document, Problems, rig_file};
    use super::*;

    const WITH_SETTINGS: &str = r#"
format = 1
[rig]
name = "the \"dome\""
summary = "a rig"
cooling = "water"
[[part]]
kind = "processor"
model = "Veltra Octo 42"
specimen = "A-0417"
firmware = "1.3 \"b\""
slot = "2"
since = "2026-11-03"
paid = "389.50 EUR"
[[part]]
kind = "board"
model = "plain"
[setting.clock]
unit = "MHz"
ladder = { from = 1000, step = 10, to = 1200 }
stock = 1000
harder = "up"
takes_effect = "by-hand"
[sensor.reached]
unit = "MHz"
follows = "clock"
adapter = "linux"
source = "true-clock"
[sensor.core]
unit = "°C"
decimals = 1
cut_off = 95.5
cut_off_below = "clock - 1040"
limit = 90
core = 3
adapter = "linux"
source = "thermal/package"
[sensor.wall]
unit = "W"
least = 20
words = ["nothing", "something \"else\""]
patience = "5s"
adapter = "scpi"
source = "meter:5025 READ?"
"#;

    fn read(text: &str) -> Rig {
        let document = Document::parse(text).expect("TOML");
        let problems = Problems::default();
        let rig = rig_file::read(&document.top(&problems)).expect("a rig");
        assert!(problems.is_empty());
        rig
    }

    #[test]
    fn parts_and_sensors_are_read_again_as_they_were() {
        let rig = read(WITH_SETTINGS);
        let mut expected = Rig { settings: Vec::new(), ..rig.clone() };
        expected.sensors[0].follows = None;
        // Where nothing can be changed, a formula of what could is what it says at stock.
        expected.sensors[1].cut_off_below = Some((-40).into());
        assert_eq!(read(&as_it_is(&rig)), expected);
    }
}
