//! What sets and reads a setting that no interface of the kernel serves: a program of the user's own, or an instrument.

use regex::Regex;
use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::model::moment::Span;

/// Stands for the value in what is run or sent.
pub const VALUE: &str = "{value}";

/// The group of a pattern that is the value.
pub const GROUP: &str = "value";

/// How long an X server may take for a mode.
const MODE_SETTING: Span = Span::from_seconds(5);

/// What sets a setting, and says what is in force.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Outlet {
    /// Programs of the user's own.
    Program {
        /// The program and its arguments, in which [`VALUE`] stands for the value; no shell reads them.
        set: Vec<String>,
        /// How it is read.
        get: Inquiry,
    },
    /// An output of the X server, whose refresh rate it is, Hz.
    Display {
        /// What the server calls it.
        output: String,
        /// Whether modes are made with reduced blanking, and not with the totals of the mode of now.
        reduced: bool,
        /// How long the old mode waits for a word before it comes back.
        confirm: Span,
        /// Why it may go beyond what the screen says of itself; nothing where it may not.
        beyond: Option<String>,
    },
    /// An instrument that understands SCPI.
    Instrument {
        /// Host and port.
        address: String,
        /// What is sent, in which [`VALUE`] stands for the value.
        write: String,
        /// What is asked.
        read: String,
        /// How long it may take to answer.
        patience: Span,
    },
}

/// A program that says a number.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Inquiry {
    /// The program and its arguments; no shell reads them.
    pub run: Vec<String>,
    /// What finds the number in its output, as the group [`GROUP`]; its last match counts. Without one the output is the number.
    pub pattern: Option<String>,
    /// How long it may take.
    pub patience: Span,
}

impl Outlet {
    /// How long one of its doings may take.
    pub fn patience(&self) -> Span {
        match self {
            Self::Program { get, .. } => get.patience,
            Self::Instrument { patience, .. } => *patience,
            Self::Display { .. } => MODE_SETTING,
        }
    }
}

impl Inquiry {
    /// The number in an output; none where there is none.
    pub fn number(&self, output: &str) -> Option<Decimal> {
        let text = match &self.pattern {
            None => output.trim(),
            Some(pattern) => Regex::new(pattern).ok()?.captures_iter(output).last()?.name(GROUP)?.as_str(),
        };
        number(text)
    }
}

/// A number as programs and instruments write it: with a sign, and a power of ten.
pub fn number(text: &str) -> Option<Decimal> {
    let text = text.trim().trim_start_matches('+');
    text.parse().or_else(|_| Decimal::from_scientific(&text.replace("E+", "E").replace("e+", "e"))).ok()
}

/// What is run or sent for a value.
pub fn with_value(text: &str, value: Decimal) -> String {
    text.replace(VALUE, &value.normalize().to_string())
}

#[cfg(test)]
mod tests {
    use super::*;

    fn found(pattern: Option<&str>, output: &str) -> Option<String> {
        let inquiry = Inquiry { run: vec!["card".into()], pattern: pattern.map(str::to_owned), patience: Span::ZERO };
        inquiry.number(output).map(|number| number.normalize().to_string())
    }

    #[test]
    fn the_number_of_an_output_is_the_last_that_the_pattern_finds() {
        assert_eq!(found(None, " 1.250\n").as_deref(), Some("1.25"));
        assert_eq!(found(Some(r"offset (?<value>-?\d+)"), "offset 10\noffset -25 MHz").as_deref(), Some("-25"));
        assert_eq!(found(Some(r"offset (?<value>\S+)"), "offset none"), None);
        assert_eq!(found(None, "12 MHz"), None, "what is more than a number wants a pattern");
        assert_eq!(found(Some("("), "1"), None);
    }

    #[test]
    fn numbers_are_read_as_instruments_write_them() {
        let read = |text| number(text).map(|number| number.normalize().to_string());
        assert_eq!(read("+1.24870000E+00").as_deref(), Some("1.2487"));
        assert_eq!(read("5e-1").as_deref(), Some("0.5"));
        assert_eq!(read("-15").as_deref(), Some("-15"));
        assert_eq!((read(""), read("nan")), (None, None));
        assert_eq!(with_value("VOLT {value}", Decimal::new(1250, 3)), "VOLT 1.25");
    }
}
