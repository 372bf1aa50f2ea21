//! How somebody is used to read figures: behind a decimal comma, and temperatures in degrees Fahrenheit too.
//!
//! Files, what is written into them and what other programs read keep the point, and degrees Celsius stay what everything
//! is told in: a limit that stands as 203 on the screen and as 95 in the file would invite a mistake that nobody survives.

use periculum_core::Decimal;
use periculum_core::model::cut_off::CutOff;
use periculum_core::model::rig::Sensor;
use ratatui::buffer::Buffer;
use ratatui::layout::{Position, Rect};

use super::telling::labels;

/// What somebody is used to.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) struct Habits {
    /// Decimals stand behind a comma.
    pub(super) has_comma: bool,
    /// Degrees Fahrenheit stand beside the Celsius of a sensor.
    pub(super) has_fahrenheit: bool,
}

impl Habits {
    /// The same sensor in degrees Fahrenheit, where somebody is used to these; its limits as they are for these values.
    pub(super) fn twin(self, sensor: &Sensor, value: impl Fn(&str) -> Option<Decimal>) -> Option<Sensor> {
        let cut_off = |of: &Option<CutOff>| Some(fahrenheit_of(of.as_ref()?.at(&value)?).into());
        (self.has_fahrenheit && sensor.unit == labels::CELSIUS).then(|| Sensor {
            unit: labels::FAHRENHEIT.into(),
            cut_off: cut_off(&sensor.cut_off),
            cut_off_below: cut_off(&sensor.cut_off_below),
            limit: sensor.limit.map(fahrenheit_of),
            ..sensor.clone()
        })
    }

    /// Writes what was drawn with decimal commas, but for an area that shows what stands in a file.
    pub(super) fn put_commas(self, buffer: &mut Buffer, but: Option<Rect>) {
        if !self.has_comma {
            return;
        }
        let drawn = buffer.area;
        for y in drawn.top()..drawn.bottom() {
            let symbols: Vec<char> = (drawn.left()..drawn.right()).map(|x| first_of(buffer[(x, y)].symbol())).collect();
            let points = (0..symbols.len()).filter(|at| is_decimal_point(&symbols, *at));
            let places = points.map(|at| Position { x: drawn.x + at as u16, y });
            for place in places.filter(|place| but.is_none_or(|area| !area.contains(*place))) {
                buffer[place].set_symbol(",");
            }
        }
    }
}

/// A temperature of so many degrees Celsius, in degrees Fahrenheit.
pub(super) fn fahrenheit(celsius: f64) -> f64 {
    celsius * 1.8 + 32.0
}

/// The same for an exact one.
fn fahrenheit_of(celsius: Decimal) -> Decimal {
    (celsius * Decimal::new(18, 1) + Decimal::from(32)).normalize()
}

/// A cell without a symbol of its own is nothing.
fn first_of(symbol: &str) -> char {
    symbol.chars().next().unwrap_or(' ')
}

/// Whether the point at this place stands in a number, and not in the name of a file, a version or an address.
fn is_decimal_point(symbols: &[char], at: usize) -> bool {
    let digits = |run: &mut dyn Iterator<Item = &char>| run.take_while(|symbol| symbol.is_ascii_digit()).count();
    let (whole, decimals) = (digits(&mut symbols[..at].iter().rev()), digits(&mut symbols[at + 1..].iter()));
    if symbols[at] != '.' || whole == 0 || decimals == 0 {
        return false;
    }
    let is_of_name = |symbol: &char| symbol.is_alphanumeric() || "._/".contains(*symbol);
    let mut before = symbols[..at - whole].iter().rev();
    let is_begun = match before.next() {
        Some('-') => before.next().is_some_and(is_of_name),
        other => other.is_some_and(is_of_name),
    };
    !is_begun && !symbols.get(at + 1 + decimals).is_some_and(is_of_name)
}

#[cfg(test)]
mod tests {
    use super::*;
    use ratatui::style::Style;

    fn with_commas(line: &str, but: Option<Rect>) -> String {
        let mut buffer = Buffer::empty(Rect::new(0, 0, 60, 1));
        buffer.set_string(0, 0, line, Style::default());
        Habits { has_comma: true, ..Habits::default() }.put_commas(&mut buffer, but);
        let drawn: String = buffer.content.iter().map(ratatui::buffer::Cell::symbol).collect();
        drawn.trim_end().to_owned()
    }

    #[test]
    fn decimals_stand_behind_a_comma_and_names_stay_what_they_are() {
        for (line, told) in [
            ("1.250 V and -0.5, 4.2 %", "1,250 V and -0,5, 4,2 %"),
            ("(±0.3) ×1.5 ≥12.5", "(±0,3) ×1,5 ≥12,5"),
            ("trial 7.", "trial 7."),
            ("version 0.1.0 at 10.0.0.3", "version 0.1.0 at 10.0.0.3"),
            ("/a/b2.5 picture-1.5 x1.5 2.5b", "/a/b2.5 picture-1.5 x1.5 2.5b"),
            ("held .5 and 5.", "held .5 and 5."),
        ] {
            assert_eq!(with_commas(line, None), told);
        }
        assert_eq!(with_commas("1.5 2.5", Some(Rect::new(0, 0, 4, 1))), "1.5 2,5", "what stands in a file stays");
    }

    #[test]
    fn a_temperature_has_its_limits_in_both() {
        let habits = Habits { has_fahrenheit: true, ..Habits::default() };
        let die = Sensor {
            unit: labels::CELSIUS.into(),
            cut_off: Some(95.into()),
            cut_off_below: Some((-40).into()),
            limit: Some(80.into()),
            ..Sensor::plain("die")
        };
        let twin = habits.twin(&die, |_| None).expect("a temperature");
        assert_eq!((&*twin.unit, twin.cut_offs(|_| None).as_deref()), ("°F", Some("-40 to 203")));
        assert_eq!((twin.limit, twin.written(fahrenheit(71.0))), (Some(176.into()), "160".to_owned()));
        assert!(habits.twin(&Sensor { unit: "V".into(), ..die.clone() }, |_| None).is_none());
        assert!(Habits::default().twin(&die, |_| None).is_none());
    }
}
