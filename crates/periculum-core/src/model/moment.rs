//! Points in time and lengths of time, exact to the millisecond.

use std::fmt;
use std::ops::{Add, AddAssign, Sub};

use serde::{Deserialize, Serialize};

/// A point in time, in milliseconds since the Unix epoch; of the rig's own clock, which a simulator may set.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(transparent)]
pub struct Moment(i64);

impl Moment {
    /// The moment this many milliseconds after the Unix epoch.
    pub const fn from_millis(millis: i64) -> Self {
        Self(millis)
    }

    /// Milliseconds since the Unix epoch.
    pub const fn millis(self) -> i64 {
        self.0
    }

    /// As ISO 8601 has it, in UTC, to the millisecond: `2026-06-20T21:00:00.000Z`.
    pub fn iso(self) -> String {
        let instant = jiff::Timestamp::from_millisecond(self.0).unwrap_or(jiff::Timestamp::UNIX_EPOCH);
        format!("{instant:.3}")
    }

    /// How long after `earlier` this is; nothing where it is not after it.
    pub fn since(self, earlier: Self) -> Span {
        Span(u64::try_from(self.0.saturating_sub(earlier.0)).unwrap_or(0))
    }
}

impl Add<Span> for Moment {
    type Output = Self;
    fn add(self, span: Span) -> Self {
        Self(self.0.saturating_add_unsigned(span.0))
    }
}

/// A length of time in milliseconds.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(transparent)]
pub struct Span(u64);

impl Span {
    /// No time at all.
    pub const ZERO: Self = Self(0);

    /// A length in whole milliseconds.
    pub const fn from_millis(millis: u64) -> Self {
        Self(millis)
    }

    /// Whether it is none at all.
    pub const fn is_zero(&self) -> bool {
        self.0 == 0
    }

    /// A length in whole seconds.
    pub const fn from_seconds(seconds: u64) -> Self {
        Self(seconds.saturating_mul(1000))
    }

    /// The length in milliseconds.
    pub const fn millis(self) -> u64 {
        self.0
    }

    /// The length in seconds.
    pub fn seconds(self) -> f64 {
        self.0 as f64 / 1000.0
    }

    /// The length in hours.
    pub fn hours(self) -> f64 {
        self.seconds() / 3600.0
    }

    /// The same to a whole minute, from five minutes up: nobody foresees seconds of hours.
    #[must_use]
    pub fn rounded(self) -> Self {
        match self.0 / 60_000 {
            0..5 => Self(self.0 / 1000 * 1000),
            _ => Self((self.0 + 30_000) / 60_000 * 60_000),
        }
    }

    /// As minutes and seconds, `9:18`, or `1:02:03` from an hour up.
    pub fn clock(self) -> String {
        let seconds = self.0 / 1000;
        let (hours, minutes, seconds) = (seconds / 3600, seconds / 60 % 60, seconds % 60);
        match hours {
            0 => format!("{minutes}:{seconds:02}"),
            _ => format!("{hours}:{minutes:02}:{seconds:02}"),
        }
    }

    /// The same for one of several times that are so far apart: with as many decimals as tell them apart, three at most.
    pub fn clock_among(self, apart: Self) -> String {
        let decimals = match apart.0 {
            1000.. => return self.clock(),
            100.. => 1,
            10.. => 2,
            _ => 3,
        };
        let fraction = format!("{:03}", self.0 % 1000);
        format!("{}.{}", self.clock(), &fraction[..decimals])
    }

    /// Reads `90s`, `2min`, `8h 30min`, `250ms`.
    ///
    /// # Errors
    /// Says what is wrong with the text when it is not a length of time, or a negative one.
    pub fn parse(text: &str) -> Result<Self, BadSpan> {
        let parsed: jiff::SignedDuration = text.parse().map_err(|_| BadSpan::NoTime(text.to_owned()))?;
        u64::try_from(parsed.as_millis()).map(Self).map_err(|_| BadSpan::OutOfReach(text.to_owned()))
    }
}

/// Why a text is no length of time.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
pub enum BadSpan {
    /// It is none.
    #[error("`{0}` is not a length of time; write it like \"90s\", \"2min\" or \"8h 30min\"")]
    NoTime(String),
    /// It is one that can't be.
    #[error("`{0}` is negative or too long for a length of time")]
    OutOfReach(String),
}

impl fmt::Display for Span {
    /// In the two largest units that matter: `45 s`, `2 min 30 s`, `8 h`, `1 h 5 min`.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        if self.0 < 1000 {
            return write!(f, "{} ms", self.0);
        }
        if self.0 < 10_000 && !self.0.is_multiple_of(1000) {
            return write!(f, "{:.1} s", self.seconds());
        }
        let seconds = self.0 / 1000;
        match (seconds / 3600, seconds / 60 % 60, seconds % 60) {
            (0, 0, s) => write!(f, "{s} s"),
            (0, m, 0) => write!(f, "{m} min"),
            (0, m, s) => write!(f, "{m} min {s} s"),
            (h, 0, _) => write!(f, "{h} h"),
            (h, m, _) => write!(f, "{h} h {m} min"),
        }
    }
}

impl Add for Span {
    type Output = Self;
    fn add(self, other: Self) -> Self {
        Self(self.0.saturating_add(other.0))
    }
}

impl AddAssign for Span {
    fn add_assign(&mut self, other: Self) {
        *self = *self + other;
    }
}

impl Sub for Span {
    type Output = Self;
    /// Stops at nothing: a length is never negative.
    fn sub(self, other: Self) -> Self {
        Self(self.0.saturating_sub(other.0))
    }
}

impl std::iter::Sum for Span {
    fn sum<I: Iterator<Item = Self>>(spans: I) -> Self {
        spans.fold(Self::ZERO, Add::add)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn lengths_are_read_as_people_write_them() {
        assert_eq!(Span::parse("90s"), Ok(Span::from_seconds(90)));
        assert_eq!(Span::parse("2min"), Ok(Span::from_seconds(120)));
        assert_eq!(Span::parse("8h 30min"), Ok(Span::from_seconds(30_600)));
        assert_eq!(Span::parse("250ms"), Ok(Span::from_millis(250)));
        assert!(Span::parse("soon").unwrap_err().to_string().contains("`soon`"));
        assert!(Span::parse("-5s").is_err());
    }

    #[test]
    fn lengths_are_written_in_the_units_that_matter() {
        let written = |millis| Span::from_millis(millis).to_string();
        assert_eq!(
            [written(0), written(1500), written(45_000), written(150_000), written(3_900_000)],
            ["0 ms", "1.5 s", "45 s", "2 min 30 s", "1 h 5 min"]
        );
        assert_eq!(Span::from_seconds(558).clock(), "9:18");
        assert_eq!(Span::from_seconds(3723).clock(), "1:02:03");
        let among = |apart| Span::from_millis(59_876).clock_among(Span::from_millis(apart));
        assert_eq!([1000, 999, 50, 1].map(among), ["0:59", "0:59.8", "0:59.87", "0:59.876"]);
    }

    #[test]
    fn time_never_runs_backwards_into_negative_lengths() {
        assert_eq!(Moment::from_millis(5).since(Moment::from_millis(9)), Span::ZERO);
        assert_eq!(Span::from_millis(5) - Span::from_millis(9), Span::ZERO);
    }
}
