//! The points of a card's fan curve, each a temperature and the duty from there on (kernel documentation, gpu/amdgpu/thermal:
//! `fan_curve`): both are written together, and count once they are committed.

/// The attribute, below the folder of what a card's firmware does with its fan.
pub(super) const ATTRIBUTE: &str = "fan_curve";

/// One of the two numbers of a point.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Half {
    Temperature,
    Duty,
}

impl Half {
    /// Its part of the target's name.
    pub(super) fn name(self) -> &'static str {
        match self {
            Self::Temperature => "temperature",
            Self::Duty => "duty",
        }
    }

    pub(super) fn unit(self) -> &'static str {
        match self {
            Self::Temperature => "°C",
            Self::Duty => "%",
        }
    }

    /// How the curve's own range of it begins.
    fn range(self) -> &'static str {
        match self {
            Self::Temperature => "FAN_CURVE(hotspot temp):",
            Self::Duty => "FAN_CURVE(fan speed):",
        }
    }
}

/// A number of a curve.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Entry {
    index: usize,
    pub(super) half: Half,
}

impl Entry {
    /// Its part of the target's name.
    pub(super) fn name(self) -> String {
        format!("fan-curve/{}/{}", self.index, self.half.name())
    }

    /// What people call it.
    pub(super) fn label(self) -> String {
        format!("fan curve, {} of point {}", self.half.name(), self.index)
    }

    /// Its value in the attribute's text.
    pub(super) fn value(self, text: &str) -> Option<i64> {
        let [temperature, duty] = *points(text).get(self.index)?;
        Some(if self.half == Half::Temperature { temperature } else { duty })
    }

    /// The least and the most that the card takes.
    pub(super) fn range(self, text: &str) -> Option<(i64, i64)> {
        let ends = text.lines().find_map(|line| line.trim().strip_prefix(self.half.range()))?;
        let mut ends = ends.split_whitespace().map(amount);
        Some((ends.next()??, ends.next()??))
    }

    /// The command that gives it another value and its point's other half the one that it has.
    pub(super) fn command(self, text: &str, value: i64) -> Option<String> {
        let [temperature, duty] = *points(text).get(self.index)?;
        let [temperature, duty] = if self.half == Half::Temperature { [value, duty] } else { [temperature, value] };
        Some(format!("{} {temperature} {duty}", self.index))
    }
}

/// Every number that can be moved; none while the curve is the firmware's own, whose points are all told as nothing.
pub(super) fn entries(text: &str) -> Vec<Entry> {
    let points = points(text);
    if points.iter().any(|point| point.contains(&0)) {
        return Vec::new();
    }
    let of_point = |index| [Half::Temperature, Half::Duty].map(|half| Entry { index, half });
    (0..points.len()).flat_map(of_point).collect()
}

/// Temperature in °C and duty in percent of each point.
fn points(text: &str) -> Vec<[i64; 2]> {
    let point = |line: &str| {
        let mut amounts = line.split_once(':')?.1.split_whitespace().map(amount);
        Some([amounts.next()??, amounts.next()??])
    };
    text.lines().skip(1).map_while(point).collect()
}

fn amount(text: &str) -> Option<i64> {
    text.trim_end_matches(['C', '%']).parse().ok()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    const TEXT: &str = "OD_FAN_CURVE:\n0: 40C 20%\n1: 60C 45%\nOD_RANGE:\nFAN_CURVE(hotspot temp): 25C 100C\n\
                        FAN_CURVE(fan speed): 15% 100%\n";

    #[test]
    fn points_are_read_and_moved_with_both_their_halves() {
        let told: Vec<_> = entries(TEXT).into_iter().map(|it| (it.name(), it.value(TEXT), it.range(TEXT))).collect();
        let named = |name: &str, value, range| (name.to_owned(), Some(value), Some(range));
        assert_eq!(
            told,
            [
                named("fan-curve/0/temperature", 40, (25, 100)),
                named("fan-curve/0/duty", 20, (15, 100)),
                named("fan-curve/1/temperature", 60, (25, 100)),
                named("fan-curve/1/duty", 45, (15, 100)),
            ]
        );
        let commands: Vec<_> = entries(TEXT)[2..].iter().filter_map(|it| it.command(TEXT, 55)).collect();
        assert_eq!(commands, ["1 55 45", "1 60 55"]);
    }

    #[test]
    fn the_firmwares_own_curve_has_no_points_to_move() {
        assert_eq!(entries(&TEXT.replace("40C 20%", "0C 0%")), []);
        assert_eq!(entries(""), []);
    }

    proptest! {
        #[test]
        fn garbage_is_no_curve_and_no_panic(text in "(OD_FAN_CURVE:|OD_RANGE:|[0-9: %C-]{0,8}|\\PC{0,4}|\n){0,20}") {
            for entry in entries(&text) {
                prop_assert!(entry.value(&text).is_some() && entry.command(&text, 1).is_some());
                entry.range(&text);
            }
        }
    }
}
