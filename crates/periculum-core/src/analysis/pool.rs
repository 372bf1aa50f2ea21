//! The attempts of several climbs in one table: a column that two of them have in common is one.

use std::cmp::Ordering;

use crate::analysis::attempts::{Attempts, Cell, extremes};
use crate::model::ladder::Direction;
use crate::model::verdict::Verdict;
use crate::story::finding::Query;

/// The attempts of climbs that were added one after the other.
#[derive(Clone, Debug, Default)]
pub struct Pool {
    columns: Vec<Pooled>,
    rows: Vec<Row>,
}

/// A column of several climbs: the same name and the same unit.
#[derive(Clone, Debug, PartialEq)]
pub struct Pooled {
    /// What finds call it.
    pub name: String,
    /// What people call it, with its unit.
    pub title: String,
    /// Whether more of it is better, or less; none where neither is.
    pub better: Option<Direction>,
    /// Whether its cells are told with all their words.
    pub is_prose: bool,
    /// Whether it is a setting's value.
    pub is_set: bool,
    id: usize,
}

/// An attempt of one of the climbs.
#[derive(Clone, Debug)]
pub struct Row {
    /// The climb.
    pub climb: i64,
    /// The number of the trial in it.
    pub trial: u32,
    /// How it ended; none while it is open.
    pub verdict: Option<Verdict>,
    /// By the columns' identifiers, in their order.
    cells: Vec<(usize, Cell)>,
    facts: String,
}

/// Where attempts come from.
pub struct Origin<'a> {
    /// The number of the climb.
    pub climb: i64,
    /// What all of its attempts have in common, each with what it is called, as its rig and its specimen.
    pub shared: &'a [(&'a str, String)],
    /// What the climb is found by, in small letters.
    pub facts: &'a str,
}

impl Pool {
    /// Adds the attempts of a climb, with what each is found by, in their order.
    pub fn add(&mut self, origin: &Origin, attempts: &Attempts, facts: &[String]) {
        let mut place = 0;
        let shared: Vec<(usize, Cell)> = origin
            .shared
            .iter()
            .map(|(name, words)| {
                let like = Pooled { name: (*name).to_owned(), title: (*name).to_owned(), ..Pooled::nameless() };
                (self.column_at(&mut place, like), Cell::Words(words.clone()))
            })
            .collect();
        let columns = attempts.columns();
        let own: Vec<usize> = columns
            .iter()
            .map(|column| {
                let like = Pooled {
                    name: column.name.clone(),
                    title: column.title.clone(),
                    better: column.better(),
                    is_prose: column.is_prose(),
                    is_set: column.is_set(),
                    ..Pooled::nameless()
                };
                self.column_at(&mut place, like)
            })
            .collect();
        for (trial, facts) in attempts.story.trials.iter().zip(facts) {
            let of_trial = own.iter().zip(&columns).map(|(id, column)| (*id, attempts.cell(column, trial)));
            let mut cells: Vec<(usize, Cell)> = shared.iter().cloned().chain(of_trial).collect();
            cells.retain(|(_, cell)| *cell != Cell::Nothing);
            cells.sort_by_key(|(id, _)| *id);
            let facts = format!("{} {facts}", origin.facts);
            self.rows.push(Row { climb: origin.climb, trial: trial.number, verdict: trial.verdict, cells, facts });
        }
    }

    /// The identifier of the column that is like this one, which else is put where the columns of its climb have come to.
    fn column_at(&mut self, place: &mut usize, like: Pooled) -> usize {
        let is_like = |known: &Pooled| known.name == like.name && known.title == like.title;
        if let Some(at) = self.columns.iter().position(is_like) {
            *place = at + 1;
            return self.columns[at].id;
        }
        // Settings of other rigs come behind those that are there.
        while like.is_set && self.columns.get(*place).is_some_and(|known| known.is_set) {
            *place += 1;
        }
        let id = self.columns.len();
        self.columns.insert(*place, Pooled { id, ..like });
        *place += 1;
        id
    }

    /// All columns: of the first climb in their order, and those that only others have beside what they stand beside there.
    pub fn columns(&self) -> &[Pooled] {
        &self.columns
    }

    /// How many attempts there are.
    pub fn count(&self) -> usize {
        self.rows.len()
    }

    /// The attempts that have what is looked for, in their order or as they are sorted.
    pub fn find(&self, query: &Query) -> Vec<&Row> {
        let mut found: Vec<&Row> = self.rows.iter().filter(|row| query.has("", &row.facts)).collect();
        if let Some((column, first)) = query.sort().and_then(|(name, first)| Some((self.column(name)?, first))) {
            found.sort_by(|a, b| -> Ordering { a.cell(column).order(b.cell(column), first) });
        }
        found
    }

    /// The column that is called so, or else the first one whose name has this in it.
    pub fn column(&self, name: &str) -> Option<&Pooled> {
        let is_called = self.columns.iter().find(|column| column.name == name);
        is_called.or_else(|| self.columns.iter().find(|column| column.name.contains(name)))
    }
}

impl Pooled {
    fn nameless() -> Self {
        Self { name: String::new(), title: String::new(), better: None, is_prose: false, is_set: false, id: 0 }
    }

    /// The best and the worst number among these attempts; none where there is no better, or all are the same.
    pub fn extremes(&self, rows: &[&Row]) -> Option<(f64, f64)> {
        extremes(self.better?, rows.iter().filter_map(|row| row.cell(self).number()))
    }
}

impl Row {
    /// What is known of the attempt in a column.
    pub fn cell(&self, column: &Pooled) -> &Cell {
        let at = self.cells.binary_search_by_key(&column.id, |(id, _)| *id);
        at.map_or(&Cell::Nothing, |at| &self.cells[at].1)
    }
}

#[cfg(test)]
mod tests {
    use std::collections::BTreeMap;

    use super::*;
    use crate::analysis::example::{grid, told};

    fn pool() -> Pool {
        let (held, fell) = (Verdict::Held, Verdict::Fell);
        let first = told(&[(42, 125, 100.0, held), (44, 125, 104.0, held)]);
        let mut second = told(&[(43, 120, 99.5, held), (45, 120, 107.0, fell)]);
        second.trials.iter_mut().for_each(|trial| trial.rung = trial.rung.with("timing", 7.into()));
        let ((rig, _), traces) = (grid(), BTreeMap::new());
        let mut other = rig.clone();
        other.settings[1].name = "timing".into();
        other.settings[1].label = "timing".into();
        let mut pool = Pool::default();
        for (climb, story, rig) in [(3, &first, &rig), (7, &second, &other)] {
            let shared = [("rig", if climb == 3 { "dome" } else { "vault" }.to_owned())];
            let facts = shared[0].1.clone();
            let origin = Origin { climb, shared: &shared, facts: &facts };
            let attempts = Attempts { story, rig, traces: &traces };
            let columns = attempts.columns();
            let of_trial = |trial: &crate::story::TrialStory| {
                format!("trial {}{}", trial.number, attempts.numbers_of(&columns, trial))
            };
            pool.add(&origin, &attempts, &story.trials.iter().map(of_trial).collect::<Vec<_>>());
        }
        pool
    }

    fn found(pool: &Pool, typed: &str) -> Vec<(i64, u32)> {
        pool.find(&Query::of(typed)).into_iter().map(|row| (row.climb, row.trial)).collect()
    }

    #[test]
    fn what_climbs_have_in_common_is_one_column() {
        let pool = pool();
        let names: Vec<&str> = pool.columns().iter().map(|column| column.name.as_str()).collect();
        assert_eq!(names[..5], ["rig", "clock", "volts", "timing", "proof"], "{names:?}");
        assert_eq!(names.iter().filter(|name| **name == "dense").count(), 1);
        assert_eq!(names.last(), Some(&"because"), "prose stays last");
        let rows = pool.find(&Query::of(""));
        let text = |row: usize, name: &str| rows[row].cell(pool.column(name).expect("a column")).text().to_owned();
        assert_eq!([text(0, "rig"), text(2, "rig")], ["dome", "vault"]);
        assert_eq!([text(0, "clock"), text(3, "clock")], ["42", "45"]);
        assert_eq!(text(2, "volts"), "", "the other rig has none");
        assert_eq!(pool.column("dense").and_then(|column| column.extremes(&rows)), Some((107.0, 99.5)));
    }

    #[test]
    fn attempts_of_several_climbs_are_found_and_sorted_together() {
        let pool = pool();
        assert_eq!(found(&pool, "dense>=100"), [(3, 1), (3, 2), (7, 2)]);
        assert_eq!(found(&pool, "vault"), [(7, 1), (7, 2)]);
        assert_eq!(found(&pool, "sort:-dense"), [(7, 2), (3, 2), (3, 1), (7, 1)]);
        assert_eq!(found(&pool, "dome sort:clock"), [(3, 1), (3, 2)]);
        assert_eq!(found(&pool, "volts>100").len(), 0, "settings are found by what is told of trials");
    }
}
