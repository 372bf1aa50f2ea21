//! Readings that an instrument wrote into a file of its own: a line a time, a column for each thing it read.

use std::collections::BTreeSet;

use csv::{ReaderBuilder, StringRecord, Trim};
use jiff::civil::DateTime;
use jiff::tz::TimeZone;
use jiff::{Timestamp, ZonedDateTime};
use periculum_core::model::moment::Moment;

/// Numbers from here on are seconds since the Unix epoch; smaller ones count from the beginning of a climb.
const UNIX_TIME: f64 = 1e9;

/// What is read behind so many decimals is noise.
const DECIMALS: usize = 3;

/// One thing that an instrument read.
#[derive(Clone, Debug, PartialEq)]
pub struct Column {
    /// What it is called.
    pub label: String,
    /// The unit of its readings; empty where the file names none.
    pub unit: String,
    /// How many decimals its readings have, at most three.
    pub decimals: usize,
    /// Its readings in the order of time.
    pub readings: Vec<(Moment, f64)>,
}

/// Why readings can't be read, and in which line.
#[derive(Debug, thiserror::Error)]
pub enum Unreadable {
    /// The text is no table.
    #[error(transparent)]
    NoTable(#[from] csv::Error),
    /// The first column has something else than a time.
    #[error(
        "line {line}: `{written}` is no time; write seconds since the climb began, or 2026-06-20T21:04:00Z or alike"
    )]
    NoTime {
        /// The line, from 1.
        line: u64,
        /// What stands there.
        written: String,
    },
    /// Another column has something else than a number.
    #[error("line {line}, {column}: `{written}` is no number; leave what was not read empty")]
    NoNumber {
        /// The line, from 1.
        line: u64,
        /// The column's label.
        column: String,
        /// What stands there.
        written: String,
    },
    /// The first line has readings.
    #[error("line 1: the columns have no names; write them there, as in `time,wall power (W)`")]
    NoNames,
    /// A column has an empty name.
    #[error("line 1: a column has no name; write what was read, as in `wall power (W)`")]
    NoName,
    /// Two columns have the same name.
    #[error("line 1: two columns are called {column}; give each a name of its own")]
    SameName {
        /// Their label.
        column: String,
    },
    /// There is only a time.
    #[error("line 1: there is nothing beside the time; write a column for what was read")]
    Nothing,
}

impl Column {
    /// The name that files and records use: its label in small letters, with `_` for everything that is no letter or digit.
    pub fn name(&self) -> String {
        let words = self.label.split(|sign: char| !sign.is_alphanumeric()).filter(|word| !word.is_empty());
        words.collect::<Vec<_>>().join("_").to_lowercase()
    }
}

/// Reads comma-, semicolon- or tab-separated values (RFC 4180) under a line of names, the first column being the time:
/// seconds since `began` or since the Unix epoch, or a date and time, in `zone` where it names none. Numbers between
/// semicolons or tabs may have decimal commas.
///
/// # Errors
/// What can't be read, in which line, and what belongs there.
pub fn read(text: &str, began: Moment, zone: &TimeZone) -> Result<Vec<Column>, Unreadable> {
    let text = text.trim_start_matches('\u{feff}');
    let delimiter = delimiter(text);
    let mut reader = ReaderBuilder::new().delimiter(delimiter).trim(Trim::All).from_reader(text.as_bytes());
    let names = reader.headers()?.clone();
    let mut columns = named(&names, zone)?;
    let has_commas = delimiter != b',';
    for row in reader.records() {
        let row = row?;
        let line = row.position().map_or(0, csv::Position::line);
        let written = row.get(0).unwrap_or_default();
        let no_time = || Unreadable::NoTime { line, written: written.to_owned() };
        let at = time(written, began, zone, has_commas).ok_or_else(no_time)?;
        for (column, written) in columns.iter_mut().zip(row.iter().skip(1)).filter(|(_, written)| !written.is_empty()) {
            let no_number = || Unreadable::NoNumber { line, column: column.label.clone(), written: written.to_owned() };
            let reading = number(written, has_commas).ok_or_else(no_number)?;
            column.decimals = column.decimals.max(decimals(written)).min(DECIMALS);
            column.readings.push((at, reading));
        }
    }
    columns.iter_mut().for_each(|column| column.readings.sort_by_key(|(at, _)| *at));
    Ok(columns)
}

/// What stands between the cells of the first line.
fn delimiter(text: &str) -> u8 {
    let names = text.lines().next().unwrap_or_default();
    [b';', b'\t'].into_iter().find(|sign| names.as_bytes().contains(sign)).unwrap_or(b',')
}

/// The columns behind the first, without readings.
fn named(names: &StringRecord, zone: &TimeZone) -> Result<Vec<Column>, Unreadable> {
    let first = names.get(0).unwrap_or_default();
    if time(first, Moment::default(), zone, true).is_some() {
        return Err(Unreadable::NoNames);
    }
    let columns: Vec<Column> = names.iter().skip(1).map(column).collect();
    let mut seen = BTreeSet::new();
    for column in &columns {
        let name = column.name();
        if name.is_empty() {
            return Err(Unreadable::NoName);
        }
        if !seen.insert(name) {
            return Err(Unreadable::SameName { column: column.label.clone() });
        }
    }
    if columns.is_empty() {
        return Err(Unreadable::Nothing);
    }
    Ok(columns)
}

/// A column by its name, with the unit in brackets behind it.
fn column(name: &str) -> Column {
    let (label, unit) = match name.strip_suffix([')', ']']).and_then(|name| name.rsplit_once(['(', '['])) {
        Some((label, unit)) if !label.trim().is_empty() => (label.trim(), unit.trim()),
        _ => (name, ""),
    };
    Column { label: label.to_owned(), unit: unit.to_owned(), decimals: 0, readings: Vec::new() }
}

fn time(written: &str, began: Moment, zone: &TimeZone, has_commas: bool) -> Option<Moment> {
    if let Some(seconds) = number(written, has_commas) {
        let after = if seconds < UNIX_TIME { began.millis() } else { 0 };
        return Some(Moment::from_millis(after + (seconds * 1000.0).round() as i64));
    }
    let instant = written.parse::<Timestamp>().or_else(|_| {
        let local = written.parse::<DateTime>()?;
        zone.to_zoned_datetime(local).map(|zoned: ZonedDateTime| zoned.timestamp())
    });
    Some(Moment::from_millis(instant.ok()?.as_millisecond()))
}

fn number(written: &str, has_commas: bool) -> Option<f64> {
    let number = if has_commas { written.replace(',', ".") } else { written.to_owned() };
    number.parse().ok().filter(|number: &f64| number.is_finite())
}

fn decimals(written: &str) -> usize {
    written.find(['.', ',']).map_or(0, |point| written[point + 1..].bytes().take_while(u8::is_ascii_digit).count())
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    const BEGAN: Moment = Moment::from_millis(1_781_989_200_000);

    fn read(text: &str) -> Result<Vec<Column>, String> {
        super::read(text, BEGAN, &TimeZone::UTC).map_err(|why| why.to_string())
    }

    #[test]
    fn times_and_numbers_are_read_as_instruments_write_them() {
        let into_climb = read("time,wall power (W),fan [rpm]\n0.5,91.25,800\n10,,900\n").expect("read");
        assert_eq!(into_climb[0].readings, [(Moment::from_millis(1_781_989_200_500), 91.25)]);
        assert_eq!(
            (into_climb[0].unit.as_str(), into_climb[0].decimals, into_climb[0].name()),
            ("W", 2, "wall_power".into())
        );
        assert_eq!(
            (into_climb[1].label.as_str(), into_climb[1].unit.as_str(), into_climb[1].readings.len()),
            ("fan", "rpm", 2)
        );
        // The same moment: 2026-06-20, 21:00:00.5 UTC.
        for same in [
            "time;wall power (W)\n1781989200,5;91,25\n",
            "Zeit\twall power (W)\n2026-06-20T21:00:00.5Z\t91,25\n",
            "\u{feff}time,wall power (W)\r\n2026-06-20 21:00:00.5,91.25\r\n",
            "time,wall power (W)\n2026-06-20T23:00:00.5+02:00,91.25\n",
        ] {
            assert_eq!(read(same).expect(same)[0], into_climb[0], "{same}");
        }
    }

    #[test]
    fn what_can_not_be_read_is_told_with_its_place() {
        for (text, told) in [
            ("time,power\n0,1\n1,x\n", "line 3, power: `x` is no number"),
            ("time,power\nsoon,1\n", "line 2: `soon` is no time"),
            ("time\n1\n", "nothing beside the time"),
            ("", "nothing beside the time"),
            ("0,1\n1,2\n", "the columns have no names"),
            ("time,Power,power\n", "two columns are called power"),
            ("time,,fan\n", "a column has no name"),
            ("time,power\n1,2,3\n", "line: 2"),
            ("time,power\n1,inf\n", "`inf` is no number"),
        ] {
            let why = read(text).expect_err(text);
            assert!(why.contains(told), "{text:?}: {why}");
        }
    }

    proptest! {
        /// Whatever was read at whatever times, every reading comes back, in the order of time.
        #[test]
        fn every_reading_comes_back(rows in prop::collection::vec((0u32..90_000_000, -9e9..9e9), 0..50)) {
            let lines = rows.iter().map(|(millis, reading)| format!("{},{reading}\n", f64::from(*millis) / 1000.0));
            let columns = read(&format!("time,it (V)\n{}", lines.collect::<String>())).expect("read");
            let mut put: Vec<(Moment, f64)> =
                rows.iter().map(|(millis, reading)| (Moment::from_millis(BEGAN.millis() + i64::from(*millis)), *reading)).collect();
            put.sort_by_key(|(at, _)| *at);
            prop_assert_eq!(&columns[0].readings, &put);
        }

        /// Whatever a file has in it, it is read or refused.
        #[test]
        fn nothing_makes_it_panic(text in any::<String>()) {
            let _ = read(&text);
            let _ = read(&format!("time,power\n{text}"));
        }
    }
}
