//! What the firmware of a graphics card aims at with its fan (kernel documentation, gpu/amdgpu/thermal: `gpu_od/fan_ctrl`): a
//! value in an attribute of its own, with its range below it, that counts once it is committed.

use std::path::Path;

use super::attribute::lines;
use super::overdrive::COMMIT;

/// The folder below a card's device.
pub(super) const FOLDER: &str = "gpu_od/fan_ctrl";

/// Attributes, what rig files call them, what people do, and the unit.
pub(super) const CONTROLS: [(&str, &str, &str, &str); 4] = [
    ("acoustic_limit_rpm_threshold", "fan-limit", "most revolutions of the fan", "1/min"),
    ("acoustic_target_rpm_threshold", "fan-target", "revolutions the fan aims at", "1/min"),
    ("fan_minimum_pwm", "fan-minimum", "lowest fan duty", "%"),
    ("fan_target_temperature", "fan-temperature", "temperature the fan aims at", "°C"),
];

/// What begins the range.
const RANGE: &str = "OD_RANGE:";

/// The value in an attribute's text: the line behind its title.
pub(super) fn value(text: &str) -> Option<i64> {
    text.lines().nth(1)?.trim().parse().ok()
}

/// The least and the most that a card takes.
pub(super) fn range(path: &Path) -> Option<(i64, i64)> {
    let text = lines(path)?;
    let below = text.lines().skip_while(|line| line.trim() != RANGE).nth(1)?;
    let (_, ends) = below.split_once(':')?;
    let mut ends = ends.split_whitespace().map(str::parse);
    Some((ends.next()?.ok()?, ends.next()?.ok()?))
}

/// What the attribute is told, in order, for a value.
pub(super) fn commands(value: i64) -> [String; 2] {
    [value.to_string(), COMMIT.to_owned()]
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::linux::attribute::tests::tree;

    #[test]
    fn a_value_and_its_range_are_read_and_a_change_is_committed() {
        let text = "FAN_TARGET_TEMPERATURE:\n83\nOD_RANGE:\nTARGET_TEMPERATURE: 25 105\n";
        let root = tree("fan-controls", &[("one", text), ("odd", "no table\n")]);
        assert_eq!((value(text), range(&root.join("one"))), (Some(83), Some((25, 105))));
        assert_eq!((value("no table"), range(&root.join("odd"))), (None, None));
        assert_eq!(commands(90), ["90", "c"]);
    }
}
