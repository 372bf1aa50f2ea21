//! A table as comma-separated values (RFC 4180) or as JSON lines.

use std::io::{self, Write};

use serde::ser::{Error, Serialize, Serializer};
use serde_json::value::RawValue;

/// What stands in a row under a column.
#[derive(Clone, Debug, PartialEq)]
pub enum Cell {
    /// Nothing.
    Nothing,
    /// Words.
    Text(String),
    /// A number, written out as exactly as it is known.
    Number(String),
    /// Whether something is so.
    Flag(bool),
}

/// Named columns, and rows that are made as they are written, so that a night of samples needs no room.
pub struct Table<'a> {
    /// The names of the columns.
    pub columns: Vec<String>,
    /// The rows, each with a cell for each column.
    pub rows: Box<dyn Iterator<Item = Vec<Cell>> + 'a>,
}

impl<'a> Table<'a> {
    /// One table of several, each with what its rows are marked with in the first columns: of every column that one of them has, with
    /// nothing where another has it not.
    pub fn joined(marked_by: &[&str], tables: Vec<(Vec<Cell>, Table<'a>)>) -> Self {
        let mut known: Vec<String> = Vec::new();
        for name in tables.iter().flat_map(|(_, table)| &table.columns) {
            if !known.contains(name) {
                known.push(name.clone());
            }
        }
        let columns = marked_by.iter().map(|name| (*name).to_owned()).chain(known.clone()).collect();
        let rows = tables.into_iter().flat_map(move |(marks, table)| {
            let places: Vec<Option<usize>> =
                known.iter().map(|name| table.columns.iter().position(|other| other == name)).collect();
            table.rows.map(move |row| {
                let cell =
                    |place: &Option<usize>| place.and_then(|place| row.get(place).cloned()).unwrap_or(Cell::Nothing);
                marks.iter().cloned().chain(places.iter().map(cell)).collect()
            })
        });
        Self { columns, rows: Box::new(rows) }
    }
}

impl Cell {
    /// Words, or nothing where there are none.
    pub(crate) fn text(text: impl Into<String>) -> Self {
        let text = text.into();
        if text.is_empty() { Self::Nothing } else { Self::Text(text) }
    }

    /// A number that is not exact; nothing where it is none.
    pub(crate) fn float(value: f64) -> Self {
        if value.is_finite() { Self::Number(value.to_string()) } else { Self::Nothing }
    }
}

impl Serialize for Cell {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        match self {
            Self::Nothing => serializer.serialize_unit(),
            Self::Text(text) => serializer.serialize_str(text),
            Self::Flag(is_so) => serializer.serialize_bool(*is_so),
            // As it is written out: a float in between would round it.
            Self::Number(number) => {
                RawValue::from_string(number.clone()).map_err(S::Error::custom)?.serialize(serializer)
            }
        }
    }
}

/// A row as an object, with every column in it.
struct Object<'a>(&'a [String], &'a [Cell]);

impl Serialize for Object<'_> {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        serializer.collect_map(self.0.iter().zip(self.1))
    }
}

impl Table<'_> {
    /// Writes it as comma-separated values under a line of names.
    ///
    /// # Errors
    /// When it can't be written.
    pub fn write_csv(self, to: impl Write) -> io::Result<()> {
        let mut writer = csv::Writer::from_writer(to);
        writer.write_record(&self.columns)?;
        for row in self.rows {
            writer.write_record(row.iter().map(|cell| match cell {
                Cell::Nothing => "",
                Cell::Text(text) | Cell::Number(text) => text,
                Cell::Flag(true) => "yes",
                Cell::Flag(false) => "no",
            }))?;
        }
        writer.flush()
    }

    /// Writes an object a line, with every column in each.
    ///
    /// # Errors
    /// When it can't be written.
    pub fn write_json_lines(self, mut to: impl Write) -> io::Result<()> {
        for row in self.rows {
            serde_json::to_writer(&mut to, &Object(&self.columns, &row))?;
            writeln!(to)?;
        }
        to.flush()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn table(texts: &[(String, f64)]) -> Table<'_> {
        let rows = texts.iter().map(|(text, number)| vec![Cell::text(text.as_str()), Cell::float(*number)]);
        Table { columns: vec!["what, \"it\" is".into(), "number".into()], rows: Box::new(rows) }
    }

    #[test]
    fn tables_are_joined_by_the_names_of_their_columns() {
        let table = |columns: &[&str], cells: &[&str]| Table {
            columns: columns.iter().map(|name| (*name).to_owned()).collect(),
            rows: Box::new(vec![cells.iter().map(|text| Cell::text(*text)).collect::<Vec<Cell>>()].into_iter()),
        };
        let tables = vec![
            (vec![Cell::Number("1".into())], table(&["trial", "clock"], &["a", "b"])),
            (vec![Cell::Number("2".into())], table(&["volts", "trial"], &["c", "d"])),
        ];
        let mut text = Vec::new();
        Table::joined(&["climb"], tables).write_csv(&mut text).expect("written");
        let lines: Vec<String> = String::from_utf8(text).expect("text").lines().map(str::to_owned).collect();
        assert_eq!(lines, ["climb,trial,clock,volts", "1,a,b,", "2,d,,c"]);
    }

    #[test]
    fn what_is_so_is_told_as_each_format_has_it() {
        let table = || Table {
            columns: vec!["is_it".into()],
            rows: Box::new([true, false].map(|is_so| vec![Cell::Flag(is_so)]).into_iter()),
        };
        let (mut csv, mut json) = (Vec::new(), Vec::new());
        table().write_csv(&mut csv).expect("written");
        table().write_json_lines(&mut json).expect("written");
        assert_eq!(csv, b"is_it\nyes\nno\n");
        assert_eq!(json, b"{\"is_it\":true}\n{\"is_it\":false}\n");
    }

    proptest! {
        /// Whatever stands in it, other people's readers get back what was put in.
        #[test]
        fn what_is_written_is_read_again(rows in prop::collection::vec((any::<String>(), any::<f64>()), 0..12)) {
            let mut bytes = Vec::new();
            table(&rows).write_csv(&mut bytes).expect("written");
            let mut reader = csv::Reader::from_reader(&bytes[..]);
            let read: Vec<csv::StringRecord> = reader.records().collect::<Result<_, _>>().expect("read");
            prop_assert_eq!(read.len(), rows.len());
            for (record, (text, number)) in read.iter().zip(&rows) {
                prop_assert_eq!(&record[0], text);
                prop_assert_eq!(record[1].parse().ok(), Some(*number).filter(|number: &f64| number.is_finite()));
            }
            let mut bytes = Vec::new();
            table(&rows).write_json_lines(&mut bytes).expect("written");
            let lines = String::from_utf8(bytes).expect("text");
            prop_assert_eq!(lines.lines().count(), rows.len());
            for (line, (text, number)) in lines.lines().zip(&rows) {
                let object: serde_json::Value = serde_json::from_str(line).expect("json");
                let number = Some(*number).filter(|number| number.is_finite());
                prop_assert_eq!(object["what, \"it\" is"].as_str().unwrap_or_default(), text);
                prop_assert_eq!(object["number"].as_f64(), number);
            }
        }
    }
}
