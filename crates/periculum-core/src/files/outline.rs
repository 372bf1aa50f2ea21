//! The text of a plan as lines that can be changed one by one, with its comments and its order kept.
//!
//! The text is all there is: lines are found in it anew after each change, and a change gives a new text. Whether that
//! makes sense is for [`super::plan_file`] to say.

use toml_edit::{Array, Document, DocumentMut, Formatted, Item, Table, TableLike, Value};

use crate::files::problem::Problem;

/// A line of the outline.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Line {
    /// Where it stands, from the top of the file.
    pub path: Vec<Turn>,
    /// What is there.
    pub kind: LineKind,
    /// The bytes of the text from which on it is written.
    pub at: usize,
}

/// A turn on the way to a place in a file.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Turn {
    /// To what has this name.
    Key(String),
    /// To the one of this number, from 0.
    Nth(usize),
}

/// What a line of the outline is.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum LineKind {
    /// A section, with its comment.
    Section(String),
    /// A key with its value as people write it: words without quotes.
    Value(String),
    /// One of a list, as TOML has it.
    Element(String),
}

/// Why a text can't be changed like this.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("{0}")]
pub struct CantChange(String);

impl CantChange {
    /// There is nothing in this place.
    pub fn nothing_there() -> Self {
        Self("there is no value here that could be changed".into())
    }
}

/// The lines of a text, in its order; the format's number is none of them.
///
/// # Errors
/// When the text is no TOML.
pub fn lines(text: &str) -> Result<Vec<Line>, CantChange> {
    let document = Document::parse(text).map_err(|error| no_toml(&error))?;
    let mut lines = Vec::new();
    add_table(&mut lines, &mut Vec::new(), document.as_table(), text);
    lines.retain(|line| line.path != [Turn::Key("format".into())]);
    lines.sort_by_key(|line| line.at);
    Ok(lines)
}

/// The line that a problem is about: the last one that begins before it.
pub fn line_of(lines: &[Line], problem: &Problem) -> Option<usize> {
    lines.partition_point(|line| line.at <= problem.at.start).checked_sub(1)
}

fn add_table(lines: &mut Vec<Line>, path: &mut Vec<Turn>, table: &Table, text: &str) {
    if !table.is_implicit() && !path.is_empty() {
        let prefix = table.decor().prefix().and_then(|prefix| text.get(prefix.span()?));
        let comment = prefix.map(comment_words);
        let at = table.span().unwrap_or_default().start;
        lines.push(Line { path: path.clone(), kind: LineKind::Section(comment.unwrap_or_default()), at });
    }
    for (key, item) in table.iter() {
        path.push(Turn::Key(key.to_owned()));
        match item {
            Item::Table(inner) => add_table(lines, path, inner, text),
            Item::ArrayOfTables(list) => {
                for (index, inner) in list.iter().enumerate() {
                    path.push(Turn::Nth(index));
                    add_table(lines, path, inner, text);
                    path.pop();
                }
            }
            Item::Value(value) => {
                let at = table.key(key).and_then(toml_edit::Key::span).or(value.span()).unwrap_or_default().start;
                add_value(lines, path, value, at);
            }
            Item::None => {}
        }
        path.pop();
    }
}

fn add_value(lines: &mut Vec<Line>, path: &mut Vec<Turn>, value: &Value, at: usize) {
    let elements = value.as_array().filter(|array| array.iter().any(Value::is_inline_table));
    let kind = LineKind::Value(if elements.is_some() { String::new() } else { plain(value) });
    lines.push(Line { path: path.clone(), kind, at });
    for (index, element) in elements.into_iter().flatten().enumerate() {
        path.push(Turn::Nth(index));
        let at = element.span().unwrap_or_default().start;
        lines.push(Line { path: path.clone(), kind: LineKind::Element(bare(element)), at });
        path.pop();
    }
}

/// A value as people write it.
fn plain(value: &Value) -> String {
    value.as_str().filter(|text| is_plain(text)).map_or_else(|| bare(value), str::to_owned)
}

/// A value as TOML has it, on one line and without what stands around it.
fn bare(value: &Value) -> String {
    let text = value.clone().decorated("", "").to_string();
    text.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// Whether a text is taken for itself when it is written without quotes.
fn is_plain(text: &str) -> bool {
    !text.is_empty() && !text.chars().any(char::is_control) && text.parse::<Value>().is_err() && !opens_toml(text)
}

/// Whether a text is meant as TOML, even where it is none.
fn opens_toml(text: &str) -> bool {
    text.starts_with(['[', '{', '"', '\''])
}

/// Words as TOML has them, in quotes.
pub fn quoted(words: &str) -> String {
    Value::from(words).to_string().trim().to_owned()
}

fn comment_words(prefix: &str) -> String {
    let words = prefix.lines().map(|line| line.trim().trim_start_matches('#').trim());
    words.filter(|line| !line.is_empty()).collect::<Vec<_>>().join(" ")
}

/// The text with another value on this line; words need no quotes.
///
/// # Errors
/// When the line has no value, or the new one is no TOML.
pub fn set(text: &str, line: &Line, written: &str) -> Result<String, CantChange> {
    let mut value = read_value(written)?;
    change(text, |document| {
        let old = value_at(document, &line.path)?;
        *value.decor_mut() = old.decor().clone();
        *old = value;
        Ok(())
    })
}

fn read_value(written: &str) -> Result<Value, CantChange> {
    let written = written.trim();
    match written.parse::<Value>() {
        Ok(value) => Ok(value),
        Err(error) if opens_toml(written) => Err(no_toml(&error)),
        Err(_) => Ok(Value::String(Formatted::new(written.to_owned()))),
    }
}

/// The text without this line and what belongs to it.
///
/// # Errors
/// When there is no such line.
pub fn remove(text: &str, line: &Line) -> Result<String, CantChange> {
    let Some((last, parent)) = line.path.split_last() else { return Err(CantChange::nothing_there()) };
    change(text, |document| match (last, item_at(document, parent)?) {
        (Turn::Key(key), Item::Table(table)) => table.remove(key).map(drop).ok_or_else(CantChange::nothing_there),
        (Turn::Nth(nth), Item::ArrayOfTables(list)) => {
            list.remove(*nth);
            Ok(())
        }
        (Turn::Nth(nth), Item::Value(Value::Array(array))) => {
            array.remove(*nth);
            Ok(())
        }
        _ => Err(CantChange::nothing_there()),
    })
}

/// The text with what belongs to this line once more, behind it: a stage, or an element of a list.
///
/// # Errors
/// When it is neither.
pub fn copy(text: &str, line: &Line) -> Result<String, CantChange> {
    let only = || CantChange("only stages and elements of a list can be there twice".into());
    let Some((Turn::Nth(nth), parent)) = line.path.split_last() else { return Err(only()) };
    change(text, |document| match item_at(document, parent)? {
        Item::ArrayOfTables(list) => {
            let twin = list.get(*nth).cloned().ok_or_else(CantChange::nothing_there)?;
            list.insert(nth + 1, twin);
            Ok(())
        }
        Item::Value(Value::Array(array)) => {
            let twin = array.get(*nth).cloned().ok_or_else(CantChange::nothing_there)?;
            array.insert_formatted(nth + 1, twin);
            Ok(())
        }
        _ => Err(only()),
    })
}

/// The text with this stage or element of a list before the one in front of it, or behind the one that follows.
///
/// # Errors
/// When it is neither, or stands at that end already.
pub fn shift(text: &str, line: &Line, later: bool) -> Result<String, CantChange> {
    let only = || CantChange("only stages and elements of a list have an order".into());
    let end = || CantChange(format!("it is the {} already", if later { "last" } else { "first" }));
    let Some((Turn::Nth(nth), parent)) = line.path.split_last() else { return Err(only()) };
    let other = if later { nth + 1 } else { nth.checked_sub(1).ok_or_else(end)? };
    change(text, |document| match item_at(document, parent)? {
        Item::ArrayOfTables(list) => swap_tables(list, *nth, other).ok_or_else(end),
        Item::Value(Value::Array(array)) => swap_elements(array, *nth, other).ok_or_else(end),
        _ => Err(only()),
    })
}

/// The tables of a list are written where their positions say.
fn swap_tables(list: &mut toml_edit::ArrayOfTables, one: usize, other: usize) -> Option<()> {
    let (mut first, mut second) = (list.get(one)?.clone(), list.get(other)?.clone());
    let (at_first, at_second) = (first.position(), second.position());
    first.set_position(at_second);
    second.set_position(at_first);
    *list.get_mut(one)? = second;
    *list.get_mut(other)? = first;
    Some(())
}

fn swap_elements(array: &mut Array, one: usize, other: usize) -> Option<()> {
    let (first, second) = (array.get(one)?.clone(), array.get(other)?.clone());
    // What stands around an element belongs to its place.
    let around = [&first, &second].map(|value| value.decor().clone());
    let [mut first, mut second] = [first, second];
    *second.decor_mut() = around[0].clone();
    *first.decor_mut() = around[1].clone();
    *array.get_mut(one)? = second;
    *array.get_mut(other)? = first;
    Some(())
}

/// The text with more in the section of this line: `key = value`; or with a section of its own at the end, as
/// `[proof.long]` or `[[stage]]`.
///
/// # Errors
/// When that is no TOML, or is there already.
pub fn add(text: &str, line: Option<&Line>, written: &str) -> Result<String, CantChange> {
    let written = written.trim();
    if written.starts_with('[') {
        let longer = format!("{}\n\n{written}\n", text.trim_end());
        return Document::parse(&longer[..]).map(|_| longer.clone()).map_err(|error| no_toml(&error));
    }
    let Some((key, value)) = written.split_once('=') else {
        return Err(CantChange("write it as `key = value`, or a section as `[proof.long]` or `[[stage]]`".into()));
    };
    let (key, value) = (key.trim(), read_value(value)?);
    let path = line.map_or(&[][..], |line| &line.path);
    change(text, |document| {
        let table = table_at(document, path)?;
        if table.contains_key(key) {
            return Err(CantChange(format!("`{key}` is there already; change its value")));
        }
        table.insert(key, Item::Value(value));
        Ok(())
    })
}

fn change(text: &str, act: impl FnOnce(&mut DocumentMut) -> Result<(), CantChange>) -> Result<String, CantChange> {
    let mut document: DocumentMut = text.parse().map_err(|error| no_toml(&error))?;
    act(&mut document)?;
    Ok(document.to_string())
}

fn item_at<'d>(document: &'d mut DocumentMut, path: &[Turn]) -> Result<&'d mut Item, CantChange> {
    path.iter().try_fold(document.as_item_mut(), |item, step| {
        match step {
            Turn::Key(key) => item.get_mut(key.as_str()),
            Turn::Nth(nth) => item.get_mut(*nth),
        }
        .ok_or_else(CantChange::nothing_there)
    })
}

fn value_at<'d>(document: &'d mut DocumentMut, path: &[Turn]) -> Result<&'d mut Value, CantChange> {
    if let Some((Turn::Nth(nth), parent)) = path.split_last() {
        let array = item_at(document, parent)?.as_array_mut().ok_or_else(CantChange::nothing_there)?;
        return array.get_mut(*nth).ok_or_else(CantChange::nothing_there);
    }
    item_at(document, path)?.as_value_mut().ok_or_else(CantChange::nothing_there)
}

/// The section that a line stands in.
fn table_at<'d>(document: &'d mut DocumentMut, path: &[Turn]) -> Result<&'d mut dyn TableLike, CantChange> {
    let depth = (0..=path.len())
        .rev()
        .find(|depth| section(document.as_item_mut(), &path[..*depth]).is_some())
        .ok_or_else(CantChange::nothing_there)?;
    section(document.as_item_mut(), &path[..depth]).ok_or_else(CantChange::nothing_there)
}

fn section<'d>(item: &'d mut Item, path: &[Turn]) -> Option<&'d mut dyn TableLike> {
    match path.split_first() {
        None => item.as_table_mut().map(|table| table as &mut dyn TableLike),
        Some((Turn::Key(key), rest)) => section(item.get_mut(key.as_str())?, rest),
        Some((Turn::Nth(nth), rest)) => {
            let table = item.as_array_of_tables_mut()?.get_mut(*nth)?;
            rest.is_empty().then_some(table as &mut dyn TableLike)
        }
    }
}

fn no_toml(error: &toml_edit::TomlError) -> CantChange {
    CantChange(format!("this is not TOML: {}", error.message()))
}
