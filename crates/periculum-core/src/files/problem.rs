//! Something wrong in a file, and where.

use std::cell::RefCell;
use std::ops::Range;

/// Something wrong in a file.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Problem {
    /// The bytes of the file that are wrong.
    pub at: Range<usize>,
    /// What is wrong.
    pub what: String,
    /// What to write instead, where that can be said.
    pub help: Option<String>,
}

/// The problems of one file, gathered while it is read.
#[derive(Debug, Default)]
pub struct Problems(RefCell<Vec<Problem>>);

impl Problems {
    /// Adds a problem without advice.
    pub fn add(&self, at: Range<usize>, what: impl Into<String>) {
        self.0.borrow_mut().push(Problem { at, what: what.into(), help: None });
    }

    /// Adds a problem and what to write instead.
    pub fn advise(&self, at: Range<usize>, what: impl Into<String>, help: impl Into<String>) {
        self.0.borrow_mut().push(Problem { at, what: what.into(), help: Some(help.into()) });
    }

    /// Adds a problem about a name that nobody knows, with the nearest one that is known.
    pub fn unknown(&self, at: Range<usize>, kind: &str, name: &str, known: &[&str]) {
        let help = match nearest(name, known) {
            Some(near) => format!("did you mean `{near}`?"),
            None if known.is_empty() => format!("there is no {kind} here at all"),
            None => format!("known here: {}", known.join(", ")),
        };
        self.advise(at, format!("there is no {kind} `{name}`"), help);
    }

    /// Whether there are none.
    pub fn is_empty(&self) -> bool {
        self.0.borrow().is_empty()
    }

    /// All of them, in the order of the file.
    pub fn into_sorted(self) -> Vec<Problem> {
        let mut problems = self.0.into_inner();
        problems.sort_by_key(|problem| problem.at.start);
        // What several readers of one value find is one problem.
        problems.dedup_by(|one, other| one.at == other.at && one.what == other.what);
        problems
    }
}

/// The known name that is spelled most like this one, where one is near enough to have been meant.
fn nearest<'a>(name: &str, known: &[&'a str]) -> Option<&'a str> {
    let distance = |candidate: &str| strsim::damerau_levenshtein(&name.to_lowercase(), &candidate.to_lowercase());
    let near_enough = |candidate: &&&str| distance(candidate) <= 1 + candidate.len() / 3;
    known.iter().filter(near_enough).min_by_key(|candidate| distance(candidate)).copied()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_nearest_name_is_offered_only_when_it_is_near() {
        let known = ["core_clock", "core_voltage"];
        assert_eq!(nearest("core_clok", &known), Some("core_clock"));
        assert_eq!(nearest("corevoltage", &known), Some("core_voltage"));
        assert_eq!(nearest("fan", &known), None);
    }
}
