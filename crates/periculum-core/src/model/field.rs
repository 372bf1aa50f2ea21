//! What may be written down with an answer, and what was.

use std::collections::BTreeMap;
use std::str::FromStr;

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

/// What was written down with an answer, by the field's name, as it was typed.
pub type Written = BTreeMap<String, String>;

/// Something that may be written down with an answer.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Field {
    /// Its name in lines and scripts.
    pub name: String,
    /// What it is called on a card.
    pub label: String,
    /// What it takes.
    pub takes: Takes,
    /// Whether there is no answer without it.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub is_needed: bool,
}

/// What a field takes.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Takes {
    /// A number.
    Number {
        /// Its unit.
        unit: String,
        /// The least that is believed; none where any is.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        least: Option<Decimal>,
        /// The most that is believed; none where any is.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        most: Option<Decimal>,
    },
    /// One of these words.
    Words(Vec<String>),
    /// Yes or no.
    YesOrNo,
    /// Anything.
    Text,
}

/// What was read in a field.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Entered {
    /// A number, in the field's unit.
    Number(Decimal),
    /// The place of a word among those that the field takes.
    Word(usize),
    /// Yes.
    Yes,
    /// No.
    No,
    /// Text.
    Text(String),
}

/// Why what was typed is nothing for its field.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Misfit {
    /// It is no number.
    NoNumber {
        /// What was typed.
        typed: String,
    },
    /// It is a number that nobody believes.
    Unbelieved {
        /// The number.
        number: Decimal,
        /// The unit of all three.
        unit: String,
        /// The least that is believed.
        least: Option<Decimal>,
        /// The most.
        most: Option<Decimal>,
    },
    /// It is none of the words.
    NoWord {
        /// What was typed.
        typed: String,
        /// The words.
        words: Vec<String>,
    },
    /// There is no such field.
    NoField {
        /// What was named.
        named: String,
        /// The names that there are.
        names: Vec<String>,
    },
    /// Nothing was written down where something is needed.
    Missing {
        /// The field's name.
        name: String,
        /// What it is called.
        label: String,
    },
    /// Something is a score, and not above nothing, so that nothing can be compared with it.
    NoScore {
        /// What.
        of: String,
    },
    /// Something can't be calculated from what was written down.
    NoValue {
        /// What.
        of: String,
        /// Its formula.
        formula: String,
    },
}

impl Field {
    /// Reads what was typed; a decimal comma is a point, and spaces group digits.
    ///
    /// # Errors
    /// Where that is nothing for this field.
    pub fn read(&self, typed: &str) -> Result<Entered, Misfit> {
        let typed = typed.trim();
        let among = |words: &[String]| {
            let missing = || Misfit::NoWord { typed: typed.to_owned(), words: words.to_vec() };
            words.iter().position(|word| word.eq_ignore_ascii_case(typed)).ok_or_else(missing)
        };
        match &self.takes {
            Takes::Number { unit, least, most } => {
                let number = number(typed).ok_or_else(|| Misfit::NoNumber { typed: typed.to_owned() })?;
                if least.is_some_and(|least| number < least) || most.is_some_and(|most| number > most) {
                    return Err(Misfit::Unbelieved { number, unit: unit.clone(), least: *least, most: *most });
                }
                Ok(Entered::Number(number))
            }
            Takes::Words(words) => among(words).map(Entered::Word),
            Takes::YesOrNo => {
                let place = among(&["yes".to_owned(), "no".to_owned()])?;
                Ok(if place == 0 { Entered::Yes } else { Entered::No })
            }
            Takes::Text => Ok(Entered::Text(typed.to_owned())),
        }
    }
}

/// Checks everything that was written down with an answer that has these fields.
///
/// # Errors
/// The first that is nothing for its field, or else the first that is missing.
pub fn check(fields: &[Field], written: &Written) -> Result<(), Misfit> {
    for (name, typed) in written {
        let names = || fields.iter().map(|field| field.name.clone()).collect();
        let missing = || Misfit::NoField { named: name.clone(), names: names() };
        fields.iter().find(|field| field.name == *name).ok_or_else(missing)?.read(typed)?;
    }
    let is_missing = |field: &&Field| field.is_needed && !written.contains_key(&field.name);
    match fields.iter().find(is_missing) {
        Some(field) => Err(Misfit::Missing { name: field.name.clone(), label: field.label.clone() }),
        None => Ok(()),
    }
}

fn number(typed: &str) -> Option<Decimal> {
    let plain: String = typed.chars().filter(|c| !c.is_whitespace() && *c != '_').collect();
    // One comma is a decimal one; in a number that has both nobody knows which is which.
    let plain = if plain.contains('.') { plain } else { plain.replacen(',', ".", 1) };
    Decimal::from_str(&plain).ok()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn field(takes: Takes) -> Field {
        Field { name: "f".into(), label: "f".into(), takes, is_needed: false }
    }

    fn volts() -> Field {
        field(Takes::Number { unit: "V".into(), least: Some(Decimal::new(5, 1)), most: Some(3.into()) })
    }

    #[test]
    fn numbers_are_read_as_people_write_them_and_those_of_another_unit_are_not_believed() {
        for typed in ["1.25", "1,25", " 1.25 ", "+1.25"] {
            assert_eq!(volts().read(typed), Ok(Entered::Number(Decimal::new(125, 2))), "{typed}");
        }
        for typed in ["", "1.2.5", "1,2.5", "x", "1,250,000", "NaN", "１"] {
            assert!(matches!(volts().read(typed), Err(Misfit::NoNumber { .. })), "{typed}");
        }
        assert!(matches!(volts().read("1250"), Err(Misfit::Unbelieved { .. })), "these are millivolts");
        let clock = field(Takes::Number { unit: "MHz".into(), least: Some(0.into()), most: None });
        assert_eq!(clock.read("4 700"), Ok(Entered::Number(4700.into())));
    }

    #[test]
    fn words_and_yes_and_no_are_taken_however_they_are_written() {
        let words = field(Takes::Words(vec!["auto".into(), "manual".into()]));
        assert_eq!(words.read("Manual"), Ok(Entered::Word(1)));
        assert!(matches!(words.read("man"), Err(Misfit::NoWord { .. })));
        assert_eq!(field(Takes::YesOrNo).read("YES"), Ok(Entered::Yes));
        assert_eq!(field(Takes::YesOrNo).read("no"), Ok(Entered::No));
        assert!(field(Takes::YesOrNo).read("perhaps").is_err());
        assert_eq!(field(Takes::Text).read(" any thing "), Ok(Entered::Text("any thing".into())));
    }

    #[test]
    fn what_has_no_field_is_told_with_those_there_are() {
        let written = Written::from([("g".to_owned(), "1".to_owned())]);
        let misfit = Misfit::NoField { named: "g".into(), names: vec!["f".into()] };
        assert_eq!(check(&[volts()], &written), Err(misfit));
        assert_eq!(check(&[volts()], &Written::new()), Ok(()));
        let needed = Field { is_needed: true, ..volts() };
        let missing = Misfit::Missing { name: "f".into(), label: "f".into() };
        assert_eq!(check(&[needed], &Written::new()), Err(missing));
    }

    proptest! {
        #[test]
        fn whatever_is_typed_is_read_or_told(typed in "\\PC{0,12}") {
            if let Ok(Entered::Number(number)) = volts().read(&typed) {
                prop_assert!(number >= Decimal::new(5, 1) && number <= 3.into());
            }
        }
    }
}
