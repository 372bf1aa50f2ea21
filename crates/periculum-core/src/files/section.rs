//! One table of a file, read key by key; what is missing, of the wrong kind or unknown is told with its place.

use std::cell::RefCell;
use std::ops::Range;

use rust_decimal::Decimal;
use toml::Spanned;
use toml::de::{DeTable, DeValue};

use crate::files::problem::Problems;
use crate::model::moment::Span;

/// Something read from a file, and where it stands.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Located<T> {
    /// What was read.
    pub value: T,
    /// The bytes of the file it was read from.
    pub at: Range<usize>,
}

/// A table of a file while it is read.
///
/// Each read marks its key as known; [`Section::finish`] then complains about every key that nobody asked for.
pub struct Section<'a> {
    name: String,
    table: &'a DeTable<'a>,
    at: Range<usize>,
    problems: &'a Problems,
    known: RefCell<Vec<&'static str>>,
}

impl<'a> Section<'a> {
    pub(super) fn new(
        name: impl Into<String>,
        table: &'a DeTable<'a>,
        at: Range<usize>,
        problems: &'a Problems,
    ) -> Self {
        Self { name: name.into(), table, at, problems, known: RefCell::default() }
    }

    /// The name of the section, as in `setting.core_clock`.
    pub fn name(&self) -> &str {
        &self.name
    }

    /// Where the section stands.
    pub fn at(&self) -> Range<usize> {
        self.at.clone()
    }

    /// Where this file's problems go.
    pub fn problems(&self) -> &'a Problems {
        self.problems
    }

    /// Complains about keys that nobody asked for.
    pub fn finish(self) {
        let known = self.known.borrow();
        for key in self.table.keys() {
            if !known.contains(&key.get_ref().as_ref()) {
                self.problems.unknown(key.span(), &format!("key in {}", self.name), key.get_ref(), &known);
            }
        }
    }

    /// A text that must be there.
    pub fn text(&self, key: &'static str) -> Option<Located<String>> {
        self.required(key, Self::optional_text)
    }

    /// A text that may be there.
    pub fn optional_text(&self, key: &'static str) -> Option<Located<String>> {
        self.read(key, "a text in quotes", as_text)
    }

    /// Yes or no, which may be there.
    pub fn optional_flag(&self, key: &'static str) -> Option<Located<bool>> {
        self.read(key, "true or false", as_flag)
    }

    /// An exact number that must be there.
    pub fn number(&self, key: &'static str) -> Option<Located<Decimal>> {
        self.required(key, Self::optional_number)
    }

    /// An exact number that may be there.
    pub fn optional_number(&self, key: &'static str) -> Option<Located<Decimal>> {
        self.read(key, "a number", as_number)
    }

    /// A whole number from `least` up that must be there.
    pub fn count(&self, key: &'static str, least: u32) -> Option<Located<u32>> {
        self.required(key, |section, key| section.optional_count(key, least))
    }

    /// A whole number from `least` up that may be there.
    pub fn optional_count(&self, key: &'static str, least: u32) -> Option<Located<u32>> {
        let number = self.optional_number(key)?;
        match u32::try_from(number.value).ok().filter(|count| number.value.fract().is_zero() && *count >= least) {
            Some(count) => Some(Located { value: count, at: number.at }),
            None => {
                self.problems.add(number.at, format!("`{key}` must be a whole number from {least} up"));
                None
            }
        }
    }

    /// A length of time that must be there.
    pub fn time(&self, key: &'static str) -> Option<Located<Span>> {
        let text = self.text(key)?;
        match Span::parse(&text.value) {
            Ok(value) => Some(Located { value, at: text.at }),
            Err(what) => {
                self.problems.add(text.at, what.to_string());
                None
            }
        }
    }

    /// One of these words, which must be there.
    pub fn choice<T: Copy>(&self, key: &'static str, words: &[(&str, T)]) -> Option<Located<T>> {
        let text = self.text(key)?;
        let found = words.iter().find(|(word, _)| *word == text.value);
        if found.is_none() {
            let known: Vec<&str> = words.iter().map(|(word, _)| *word).collect();
            self.problems.unknown(text.at.clone(), &format!("`{key}`"), &text.value, &known);
        }
        found.map(|(_, value)| Located { value: *value, at: text.at })
    }

    /// A list of exact numbers that may be there.
    pub fn optional_numbers(&self, key: &'static str) -> Option<Located<Vec<Decimal>>> {
        self.optional_list(key, "numbers", as_number)
    }

    /// One exact number or a list of them, which may be there.
    pub fn number_or_numbers(&self, key: &'static str) -> Vec<Located<Decimal>> {
        let Some(value) = self.lookup(key) else { return Vec::new() };
        if value.get_ref().as_array().is_none() {
            return self.optional_number(key).into_iter().collect();
        }
        let read = |item: &Spanned<DeValue>| as_number(item.get_ref()).map(|value| Located { value, at: item.span() });
        let items = value.get_ref().as_array().into_iter().flat_map(|items| items.iter());
        let numbers: Option<Vec<_>> = items.map(read).collect();
        numbers.unwrap_or_else(|| {
            self.problems.add(value.span(), format!("`{key}` must be a number or a list of numbers"));
            Vec::new()
        })
    }

    /// A list of pairs of exact numbers, as in `points = [[700, 1200], [800, 1500]]`, which must be there.
    pub fn pairs(&self, key: &'static str) -> Option<Vec<Located<[Decimal; 2]>>> {
        let list = self.required(key, |section, key| {
            section.read(key, "a list of pairs of numbers in square brackets", |value| value.as_array().cloned())
        })?;
        let pair = |item: &Spanned<DeValue>| {
            let numbers: Option<Vec<Decimal>> =
                item.get_ref().as_array()?.iter().map(|number| as_number(number.get_ref())).collect();
            Some(Located { value: <[Decimal; 2]>::try_from(numbers?).ok()?, at: item.span() })
        };
        let odd = list.value.iter().find(|item| pair(item).is_none());
        if let Some(odd) = odd {
            let help = format!("write `{key} = [[700, 1200], [800, 1500]]`");
            self.problems.advise(odd.span(), format!("each of `{key}` must be two numbers in square brackets"), help);
            return None;
        }
        Some(list.value.iter().filter_map(pair).collect())
    }

    /// A list of texts that may be there.
    pub fn optional_texts(&self, key: &'static str) -> Option<Located<Vec<String>>> {
        self.optional_list(key, "texts", as_text)
    }

    fn optional_list<T>(
        &self,
        key: &'static str,
        of: &str,
        cast: impl Fn(&DeValue<'a>) -> Option<T>,
    ) -> Option<Located<Vec<T>>> {
        let list = self.read(key, &format!("a list of {of} in square brackets"), |value| value.as_array().cloned())?;
        let items = list.value.iter().map(|item| cast(item.get_ref())).collect::<Option<Vec<_>>>();
        if items.is_none() {
            self.problems.add(list.at.clone(), format!("`{key}` must be a list of {of}"));
        }
        items.map(|value| Located { value, at: list.at })
    }

    /// Whether the key is there, of whatever kind; it counts as known.
    pub fn has(&self, key: &'static str) -> bool {
        self.lookup(key).is_some()
    }

    /// Whether the key is there and holds a text.
    pub fn has_text(&self, key: &'static str) -> bool {
        self.lookup(key).is_some_and(|value| value.get_ref().is_str())
    }

    /// A table below this one that must be there.
    pub fn section(&self, key: &'static str) -> Option<Section<'a>> {
        self.required(key, Self::optional_section)
    }

    /// A table below this one that may be there.
    pub fn optional_section(&self, key: &'static str) -> Option<Section<'a>> {
        let value = self.lookup(key)?;
        match value.get_ref().as_table() {
            Some(table) => Some(self.below(key, table, value.span())),
            None => {
                self.problems.add(value.span(), format!("`{key}` must be a section, like [{key}]"));
                None
            }
        }
    }

    /// The named tables below a key, as `[setting.core_clock]` is below `setting`, in the order of the file.
    pub fn named_sections(&self, key: &'static str) -> Vec<(Located<String>, Section<'a>)> {
        let Some(parent) = self.optional_section(key) else { return Vec::new() };
        let mut found: Vec<_> = parent.table.iter().collect();
        found.sort_by_key(|(name, _)| name.span().start);
        let mut sections = Vec::new();
        for (name, value) in found {
            let located = Located { value: name.get_ref().to_string(), at: name.span() };
            match value.get_ref().as_table() {
                Some(table) => sections.push((located, parent.below(name.get_ref(), table, name.span()))),
                None => self.problems.add(name.span(), format!("`{key}.{}` must be a section", name.get_ref())),
            }
        }
        sections
    }

    /// Named numbers in a table that may be there, as in `ceiling = { daily = 1.35 }`, in the order of the file.
    ///
    /// A table in place of a number has one for each of several cases, as `daily = { air = 1.30, water = 1.35 }`, of
    /// which the one counts that is named.
    pub fn named_numbers(&self, key: &'static str, case: &str) -> Vec<(Located<String>, Located<Decimal>)> {
        let Some(parent) = self.optional_section(key) else { return Vec::new() };
        let mut found = Vec::new();
        for (name, value) in parent.table {
            let number = match value.get_ref().as_table() {
                Some(cases) => self.of_case(cases, case, value.span()),
                None => Some(value),
            };
            let Some(number) = number else { continue };
            match as_number(number.get_ref()) {
                Some(exact) => found.push((
                    Located { value: name.get_ref().to_string(), at: name.span() },
                    Located { value: exact, at: number.span() },
                )),
                None => self.problems.add(number.span(), format!("`{}` must be a number", name.get_ref())),
            }
        }
        found.sort_by_key(|(name, _)| name.at.start);
        found
    }

    /// Named texts in a table that may be there, as in `names = { s = "f6" }`, in the order of the file.
    pub fn named_texts(&self, key: &'static str) -> Vec<(Located<String>, Located<String>)> {
        let Some(parent) = self.optional_section(key) else { return Vec::new() };
        let mut found = Vec::new();
        for (name, value) in parent.table {
            match as_text(value.get_ref()) {
                Some(text) => found.push((
                    Located { value: name.get_ref().to_string(), at: name.span() },
                    Located { value: text, at: value.span() },
                )),
                None => self.problems.add(value.span(), format!("`{}` must be a text in quotes", name.get_ref())),
            }
        }
        found.sort_by_key(|(name, _)| name.at.start);
        found
    }

    fn of_case(&self, cases: &'a DeTable<'a>, case: &str, at: Range<usize>) -> Option<&'a Spanned<DeValue<'a>>> {
        let found = cases.get(case);
        if found.is_none() {
            let known: Vec<&str> = cases.keys().map(|name| name.get_ref().as_ref()).collect();
            let help = format!("write `cooling = \"{}\"` below [rig], or add it here", known.join("\"` or `\""));
            let what = if case.is_empty() {
                "this depends on the cooling, and the rig does not name one".to_owned()
            } else {
                format!("this has nothing for the cooling `{case}`")
            };
            self.problems.advise(at, what, help);
        }
        found
    }

    /// A list of tables, as `[[stage]]` or `passes = [{ … }]` gives it; empty where it is missing.
    pub fn list(&self, key: &'static str) -> Vec<Section<'a>> {
        let Some(value) = self.lookup(key) else { return Vec::new() };
        let Some(items) = value.get_ref().as_array() else {
            self.problems.add(value.span(), format!("`{key}` must be a list of tables, like [[{key}]]"));
            return Vec::new();
        };
        let mut sections = Vec::new();
        for (index, item) in items.iter().enumerate() {
            match item.get_ref().as_table() {
                Some(table) => sections.push(self.below(&format!("{key} {}", index + 1), table, item.span())),
                None => self.problems.add(item.span(), format!("each `{key}` must be a table")),
            }
        }
        sections
    }

    fn below(&self, key: &str, table: &'a DeTable<'a>, at: Range<usize>) -> Section<'a> {
        let name = if self.name == "the file" { format!("[{key}]") } else { format!("{} › {key}", self.name) };
        Section::new(name, table, at, self.problems)
    }

    fn lookup(&self, key: &'static str) -> Option<&'a Spanned<DeValue<'a>>> {
        if !self.known.borrow().contains(&key) {
            self.known.borrow_mut().push(key);
        }
        self.table.get(key)
    }

    fn read<T>(&self, key: &'static str, wanted: &str, cast: impl Fn(&DeValue<'a>) -> Option<T>) -> Option<Located<T>> {
        let value = self.lookup(key)?;
        let cast = cast(value.get_ref());
        if cast.is_none() {
            self.problems.add(value.span(), format!("`{key}` must be {wanted}"));
        }
        cast.map(|found| Located { value: found, at: value.span() })
    }

    fn required<T>(&self, key: &'static str, read: impl Fn(&Self, &'static str) -> Option<T>) -> Option<T> {
        if self.lookup(key).is_none() {
            self.problems.add(self.at.clone(), format!("{} needs `{key}`", self.name));
            return None;
        }
        read(self, key)
    }
}

fn as_text(value: &DeValue) -> Option<String> {
    value.as_str().map(str::to_owned)
}

/// The number as it is written, digit by digit: it never passes through a binary float.
fn as_flag(value: &DeValue) -> Option<bool> {
    match value {
        DeValue::Boolean(flag) => Some(*flag),
        _ => None,
    }
}

fn as_number(value: &DeValue) -> Option<Decimal> {
    match value {
        DeValue::Integer(integer) if integer.radix() == 10 => integer.as_str().parse().ok(),
        DeValue::Float(float) => {
            let text = float.as_str();
            text.parse().or_else(|_| Decimal::from_scientific(text)).ok()
        }
        _ => None,
    }
}
