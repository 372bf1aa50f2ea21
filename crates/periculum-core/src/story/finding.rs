//! Finding trials among all that were ever made, by words and by values of settings, as somebody types.

use std::fmt::Write;
use std::ops::Range;

use rust_decimal::Decimal;

use crate::model::rung::Rung;
use crate::model::verdict::Verdict;

/// What is looked for: words that are all to be there, in any order, bounds on settings and on what came of them, as
/// `core_clock>=4700`, and how it is sorted, as `sort:dense` or, the greatest first, `sort:-dense`.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Query {
    words: Vec<String>,
    bounds: Vec<Bound>,
    sort: Option<(String, Sorted)>,
}

/// A bound on whatever has a number and this in its name.
#[derive(Clone, Debug, PartialEq, Eq)]
struct Bound {
    name: String,
    is: Relation,
    value: Decimal,
}

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Relation {
    AtLeast,
    AtMost,
    Above,
    Below,
    Equal,
}

/// How relations are written, those first that another one is the beginning of.
const RELATIONS: [(&str, Relation); 5] = [
    (">=", Relation::AtLeast),
    ("<=", Relation::AtMost),
    (">", Relation::Above),
    ("<", Relation::Below),
    ("=", Relation::Equal),
];

/// Which way what was found is sorted.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Sorted {
    /// From the least to the greatest.
    LeastFirst,
    /// From the greatest to the least.
    GreatestFirst,
}

/// What leads the column that is sorted by.
const SORT: &str = "sort:";

fn sorted(column: &str) -> (String, Sorted) {
    match column.strip_prefix('-') {
        Some(column) => (column.to_owned(), Sorted::GreatestFirst),
        None => (column.to_owned(), Sorted::LeastFirst),
    }
}

/// What was typed, sorted otherwise: by this column, or as it comes.
pub fn sorted_by(typed: &str, column: Option<(&str, Sorted)>) -> String {
    let kept = typed.split_whitespace().filter(|word| !word.to_lowercase().starts_with(SORT)).map(str::to_owned);
    let sort = column.map(|(column, first)| match first {
        Sorted::LeastFirst => format!("{SORT}{column}"),
        Sorted::GreatestFirst => format!("{SORT}-{column}"),
    });
    kept.chain(sort).collect::<Vec<_>>().join(" ")
}

impl Query {
    /// Reads what was typed; what is no bound is a word.
    pub fn of(typed: &str) -> Self {
        let mut query = Self::default();
        for word in typed.split_whitespace().map(str::to_lowercase) {
            match (word.strip_prefix(SORT), Bound::of(&word)) {
                (Some(""), _) => {}
                (Some(column), _) => query.sort = Some(sorted(column)),
                (None, Some(bound)) => query.bounds.push(bound),
                (None, None) => query.words.push(word),
            }
        }
        query
    }

    /// Whether numbers are compared.
    pub fn compares(&self) -> bool {
        !self.bounds.is_empty()
    }

    /// By the column of which name what is found is sorted, and which way.
    pub fn sort(&self) -> Option<(&str, Sorted)> {
        self.sort.as_ref().map(|(column, first)| (column.as_str(), *first))
    }

    /// Whether all are found.
    pub fn is_empty(&self) -> bool {
        self.words.is_empty() && self.bounds.is_empty()
    }

    /// Whether a trial of these facts, in a climb of those, is what is looked for.
    pub fn has(&self, climb: &str, trial: &str) -> bool {
        self.words.iter().all(|word| climb.contains(word) || trial.contains(word)) && self.is_within_bounds(trial)
    }

    fn is_within_bounds(&self, trial: &str) -> bool {
        self.bounds.iter().all(|bound| bound.holds(trial))
    }
}

impl Bound {
    fn of(word: &str) -> Option<Self> {
        let at = word.find(['<', '>', '='])?;
        let (name, rest) = word.split_at(at);
        let (sign, is) = RELATIONS.into_iter().find(|(sign, _)| rest.starts_with(sign))?;
        let value = rest[sign.len()..].parse().ok()?;
        (!name.is_empty()).then(|| Self { name: name.to_owned(), is, value })
    }

    /// Whether a setting of the trial is as the bound wants it.
    fn holds(&self, trial: &str) -> bool {
        let values = trial.split(' ').filter_map(|fact| fact.split_once('='));
        values.filter(|(name, _)| name.contains(&self.name)).filter_map(|(_, value)| value.parse::<Decimal>().ok()).any(
            |value| match self.is {
                Relation::AtLeast => value >= self.value,
                Relation::AtMost => value <= self.value,
                Relation::Above => value > self.value,
                Relation::Below => value < self.value,
                Relation::Equal => value == self.value,
            },
        )
    }
}

/// What a trial is found by, in small letters: its values, proof, verdict, incidents, and what was noted in it.
pub fn trial_facts<'a>(
    number: u32,
    rung: &Rung,
    proof: &str,
    verdict: Option<Verdict>,
    told: impl IntoIterator<Item = &'a str>,
) -> String {
    let mut facts = format!("trial {number} {} {proof}", verdict.map_or("open", |verdict| verdict.name()));
    for (name, value) in rung.iter() {
        // Writing to a string can't fail.
        let _ = write!(facts, " {name}={value}");
    }
    for words in told {
        facts.push(' ');
        facts.push_str(words);
    }
    facts.to_lowercase()
}

/// What is known of every trial of a ledger, for finding some.
#[derive(Clone, Debug, Default)]
pub struct Index {
    text: String,
    climbs: Vec<OfClimb>,
    trials: Vec<OfTrial>,
}

#[derive(Clone, Debug)]
struct OfClimb {
    climb: i64,
    facts: Range<usize>,
    trials: Range<usize>,
}

#[derive(Clone, Debug)]
struct OfTrial {
    number: u32,
    facts: Range<usize>,
}

/// A climb with trials that are looked for.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Found {
    /// The climb.
    pub climb: i64,
    /// The trials, in order; none for a climb without trials that is looked for itself.
    pub trials: Vec<u32>,
}

impl Index {
    /// Adds a climb with what it is found by; the trials that are added next are its own.
    pub fn add_climb(&mut self, climb: i64, facts: &str) {
        let facts = self.add(&facts.to_lowercase());
        let none = self.trials.len()..self.trials.len();
        self.climbs.push(OfClimb { climb, facts, trials: none });
    }

    /// Adds a trial of the last climb, with its [`trial_facts`].
    pub fn add_trial(&mut self, number: u32, facts: &str) {
        let facts = self.add(facts);
        self.trials.push(OfTrial { number, facts });
        if let Some(climb) = self.climbs.last_mut() {
            climb.trials.end = self.trials.len();
        }
    }

    /// How many trials there are.
    pub fn trials(&self) -> usize {
        self.trials.len()
    }

    /// The climbs that have what is looked for, in the order in which they were added.
    pub fn find(&self, query: &Query) -> Vec<Found> {
        let found = self.climbs.iter().filter_map(|of_climb| {
            let facts = &self.text[of_climb.facts.clone()];
            let words = query.words.iter().filter(|word| !facts.contains(*word)).cloned().collect();
            let left = Query { words, bounds: query.bounds.clone(), sort: None };
            let trials = &self.trials[of_climb.trials.clone()];
            if left.is_empty() {
                let trials = trials.iter().map(|trial| trial.number).collect();
                return Some(Found { climb: of_climb.climb, trials });
            }
            let has = |trial: &&OfTrial| left.has("", &self.text[trial.facts.clone()]);
            let trials: Vec<u32> = trials.iter().filter(has).map(|trial| trial.number).collect();
            (!trials.is_empty()).then_some(Found { climb: of_climb.climb, trials })
        });
        found.collect()
    }

    fn add(&mut self, facts: &str) -> Range<usize> {
        let from = self.text.len();
        self.text.push_str(facts);
        from..self.text.len()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn rung(clock: u32, voltage: &str) -> Rung {
        let voltage = voltage.parse().expect("a number");
        [("core_clock".to_owned(), clock.into()), ("core_voltage".to_owned(), voltage)].into_iter().collect()
    }

    fn index() -> Index {
        let mut index = Index::default();
        index.add_climb(1, "Dome A-0417 first light 2026-06-20");
        index.add_trial(1, &trial_facts(1, &rung(4200, "1.250"), "quick", Some(Verdict::Held), []));
        let fell = trial_facts(2, &rung(4700, "1.250"), "quick", Some(Verdict::Fell), ["wrong-result", "fan was loud"]);
        index.add_trial(2, &fell);
        index.add_climb(2, "vault nightly 2026-07-01");
        index.add_climb(3, "dome again 2026-07-02");
        index.add_trial(1, &trial_facts(1, &rung(4300, "1.100"), "Soak", None, []));
        index
    }

    fn found(typed: &str) -> Vec<(i64, Vec<u32>)> {
        index().find(&Query::of(typed)).into_iter().map(|found| (found.climb, found.trials)).collect()
    }

    #[test]
    fn words_of_climbs_and_trials_find_together() {
        assert_eq!(found(""), [(1, vec![1, 2]), (2, vec![]), (3, vec![1])]);
        assert_eq!(found("DOME"), [(1, vec![1, 2]), (3, vec![1])]);
        assert_eq!(found("dome fell"), [(1, vec![2])]);
        assert_eq!(found("wrong 2026-06"), [(1, vec![2])]);
        assert_eq!(found("loud fan"), [(1, vec![2])]);
        assert_eq!(found("vault"), [(2, vec![])]);
        assert_eq!(found("open soak"), [(3, vec![1])]);
        assert_eq!(found("nightly fell"), []);
    }

    #[test]
    fn bounds_compare_numbers_and_not_their_signs() {
        assert_eq!(found("core_clock>=4300"), [(1, vec![2]), (3, vec![1])]);
        assert_eq!(found("clock<4700 held"), [(1, vec![1])]);
        assert_eq!(found("voltage=1.1"), [(3, vec![1])]);
        assert_eq!(found("voltage<=1.10"), [(3, vec![1])]);
        assert_eq!(found("clock>4700"), []);
        assert_eq!(found("clock>="), [], "it is no bound, and no trial has this word");
        assert_eq!(found("fan>3"), [], "no setting is called so");
    }

    #[test]
    fn how_it_is_sorted_is_no_word_that_is_looked_for() {
        let query = Query::of("dome Sort:-dense");
        assert_eq!(query.sort(), Some(("dense", Sorted::GreatestFirst)));
        assert_eq!(found("dome sort:dense"), found("dome"));
        assert_eq!(Query::of("sort:").sort(), None, "as it is being typed");
        assert_eq!(sorted_by("held sort:-dense 47", Some(("room", Sorted::LeastFirst))), "held 47 sort:room");
        assert_eq!(sorted_by("held sort:-dense", None), "held");
    }

    proptest! {
        /// One trial at a time finds the same as all of them at once.
        #[test]
        fn the_index_finds_what_a_query_has(
            trials in prop::collection::vec((4200u32..4800, prop::bool::ANY), 0..40),
            typed in "(dome |vault )?(held |fell )?(clock>=4[2-7]50)?",
        ) {
            let facts = |(number, (clock, held)): (usize, &(u32, bool))| {
                let verdict = if *held { Verdict::Held } else { Verdict::Fell };
                trial_facts(number as u32 + 1, &rung(*clock, "1.2"), "quick", Some(verdict), [])
            };
            let facts: Vec<String> = trials.iter().enumerate().map(facts).collect();
            let mut index = Index::default();
            index.add_climb(9, "dome");
            for (number, facts) in (1..).zip(&facts) {
                index.add_trial(number, facts);
            }
            let query = Query::of(&typed);
            let one_by_one: Vec<u32> =
                (1..).zip(&facts).filter(|(_, facts)| query.has("dome", facts)).map(|(number, _)| number).collect();
            let at_once: Vec<u32> = index.find(&query).into_iter().flat_map(|found| found.trials).collect();
            prop_assert_eq!(at_once, one_by_one);
        }
    }
}
