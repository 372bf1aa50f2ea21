//! What a pass by hand asks of somebody, and what they write down: `by = "hand"`, `ask` and `fields`.

use crate::files::section::{Located, Section};
use crate::model::field::{Field, Takes};
use crate::model::formula::Formula;
use crate::model::quantity::harmless;
use crate::model::task::{Better, Figure, Read, Task};

/// What a field takes that is not one of several words.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Kind {
    Number,
    YesOrNo,
    Text,
}

/// Whether a pass is one that somebody makes.
pub(super) fn is_by_hand(section: &Section) -> bool {
    section.has("by") && section.choice("by", &[("hand", ())]).is_some()
}

/// Reads what is asked for by a pass; none of its fields may be called like one of these sensors, which are read in the same
/// breath.
pub(super) fn read(section: &Section, sensors: &[&str]) -> Option<Task> {
    let ask = section.text("ask");
    let fields = section.named_sections("fields");
    let (mut reads, mut formulas) = (Vec::new(), Vec::new());
    for (name, field) in fields {
        check_name(&name, &field, sensors);
        if field.has("formula") {
            formulas.extend(read_figure(&name, field));
        } else {
            reads.extend(read_field(name, field));
        }
    }
    let figures: Vec<Figure> = formulas.iter().map(|(figure, _)| figure.clone()).collect();
    for (figure, at) in formulas {
        check_formula(&figure, at, &reads, section);
    }
    Some(Task { ask: harmless(&ask?.value), reads, figures })
}

/// A name has to fit into a line as `name=value`.
fn check_name(name: &Located<String>, field: &Section, sensors: &[&str]) {
    let problems = field.problems();
    if name.value.is_empty() || name.value.contains(|c: char| c.is_whitespace() || c.is_control() || c == '=') {
        let help = "write one word, as `fields.ticks`";
        problems.advise(name.at.clone(), format!("`{}` can't be the name of a field", harmless(&name.value)), help);
    }
    if sensors.contains(&name.value.as_str()) {
        let what = format!("`{}` is a sensor that is read by hand, and can't be a field besides", name.value);
        problems.advise(name.at.clone(), what, "choose another name, or leave the field out: the sensor is asked for");
    }
}

fn read_figure(name: &Located<String>, section: Section) -> Option<(Figure, Located<String>)> {
    let formula = section.text("formula");
    let unit = unit(&section);
    let better = read_better(&section).unwrap_or(Better::More);
    section.finish();
    let formula = formula?;
    Some((Figure { name: name.value.clone(), formula: formula.value.clone(), unit, better }, formula))
}

fn check_formula(figure: &Figure, text: Located<String>, reads: &[Read], section: &Section) {
    let problems = section.problems();
    let is_number = |read: &&Read| matches!(read.field.takes, Takes::Number { .. });
    let known: Vec<&str> = reads.iter().filter(is_number).map(|read| read.field.name.as_str()).collect();
    match Formula::parse(&figure.formula) {
        Ok(formula) => {
            for (name, _) in formula.names().into_iter().filter(|(name, _)| !known.contains(name)) {
                problems.unknown(text.at.clone(), "field with a number called", name, &known);
            }
        }
        Err(error) => problems.add(text.at, error.what),
    }
}

fn read_field(name: Located<String>, section: Section) -> Option<Read> {
    let label = section.optional_text("label").map_or_else(|| name.value.replace('_', " "), |text| text.value);
    let words = section.optional_texts("words").map(|words| words.value);
    let kinds = [("number", Kind::Number), ("yes-no", Kind::YesOrNo), ("text", Kind::Text)];
    let kind = if section.has("takes") { section.choice("takes", &kinds) } else { None };
    let unit = unit(&section);
    let (least, most) = (section.optional_number("from"), section.optional_number("to"));
    let better = read_better(&section);
    let right = read_right(&section);
    let optional = section.optional_flag("optional").is_some_and(|flag| flag.value);
    let problems = section.problems();
    let kind = kind.map_or(Kind::Number, |kind| kind.value);
    let takes = match words {
        Some(words) if words.is_empty() => {
            problems.advise(
                name.at.clone(),
                "there is no word to choose from",
                "write `words = [\"clean\", \"snow\"]`",
            );
            return None;
        }
        Some(words) => Takes::Words(words.iter().map(|word| harmless(word.trim())).collect()),
        None => match kind {
            Kind::Number => {
                let number = |number: Option<Located<_>>| number.map(|number| number.value);
                Takes::Number { unit, least: number(least), most: number(most) }
            }
            Kind::YesOrNo => Takes::YesOrNo,
            Kind::Text => Takes::Text,
        },
    };
    if better.is_some() && !matches!(takes, Takes::Number { .. }) {
        problems.add(name.at.clone(), "only a number can be better or worse");
    }
    check_right(&name, &right, &takes, &section);
    section.finish();
    let field = Field { name: name.value, label: harmless(&label), takes, is_needed: !optional };
    Some(Read { field, right, better })
}

/// `right = "clean"` or `right = ["clean", "a few dots"]`.
fn read_right(section: &Section) -> Vec<String> {
    if section.has_text("right") {
        return section.optional_text("right").map(|right| harmless(right.value.trim())).into_iter().collect();
    }
    let right = section.optional_texts("right").map(|right| right.value).unwrap_or_default();
    right.iter().map(|right| harmless(right.trim())).collect()
}

fn check_right(name: &Located<String>, right: &[String], takes: &Takes, section: &Section) {
    let problems = section.problems();
    let known: Vec<&str> = match takes {
        Takes::Words(words) => words.iter().map(String::as_str).collect(),
        Takes::YesOrNo => vec!["yes", "no"],
        Takes::Text => return,
        Takes::Number { .. } if right.is_empty() => return,
        Takes::Number { .. } => {
            return problems.advise(name.at.clone(), "what is right of a number has bounds", "write `from` and `to`");
        }
    };
    for right in right.iter().filter(|right| !known.iter().any(|word| word.eq_ignore_ascii_case(right))) {
        problems.unknown(name.at.clone(), "word to choose called", right, &known);
    }
}

pub(super) fn read_better(section: &Section) -> Option<Better> {
    let words = [("more", Better::More), ("less", Better::Less)];
    if section.has("better") { section.choice("better", &words).map(|better| better.value) } else { None }
}

fn unit(section: &Section) -> String {
    section.optional_text("unit").map(|unit| harmless(unit.value.trim())).unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::files::written::pass_table;
    use crate::files::{Document, Problems, proof_file};
    use crate::model::moment::Span;
    use crate::model::pass::Pass;
    use proptest::prelude::*;
    use rust_decimal::Decimal;

    fn passes(text: &str) -> (Vec<Pass>, Vec<String>) {
        let document = Document::parse(text).expect("TOML");
        let problems = Problems::default();
        let top = document.top(&problems);
        let passes = proof_file::read(&top, &["dense"]);
        (passes, problems.into_sorted().into_iter().map(|problem| problem.what).collect())
    }

    const DISC: &str = r#"
format = 1
[[passes]]
load = "disc"
by = "hand"
for = "4min"
ask = "Run the disc test and type what it says"
fields.ticks = { unit = "ticks", better = "less", from = 1 }
fields.rate = { unit = "KiB/s", formula = "60 * 1500 / ticks" }
fields.picture = { words = ["clean", "snow"], right = "clean" }
fields.finished = { takes = "yes-no", right = ["yes"] }
fields.remark = { takes = "text", optional = true }
"#;

    #[test]
    fn a_pass_by_hand_has_its_fields_in_their_order() {
        let (passes, problems) = passes(DISC);
        assert_eq!(problems, Vec::<String>::new());
        let task = passes[0].by_hand.as_deref().expect("a task");
        let names: Vec<&str> = task.reads.iter().map(|read| read.field.name.as_str()).collect();
        assert_eq!(names, ["ticks", "picture", "finished", "remark"]);
        assert_eq!(task.scored().collect::<Vec<_>>(), ["ticks", "rate"]);
        assert!(!task.reads[3].field.is_needed && task.reads[0].field.is_needed);
    }

    #[test]
    fn what_is_wrong_is_told() {
        for (line, told) in [
            ("fields.f = { formula = \"60 / tick\" }", "no field with a number called `tick`"),
            ("fields.f = { formula = \"60 /\" }", "expected a number"),
            ("fields.\"a b\" = { unit = \"s\" }", "can't be the name of a field"),
            ("fields.p = { words = [] }", "no word to choose"),
            ("fields.p = { words = [\"a\"], right = \"b\" }", "no word to choose called `b`"),
            ("fields.p = { words = [\"a\"], better = \"more\" }", "only a number"),
            ("fields.p = { right = \"4\" }", "has bounds"),
            ("fields.p = { takes = \"colour\" }", "takes"),
            ("fields.p = { unti = \"s\" }", "key"),
            ("threads = 4", "key"),
        ] {
            let (_, problems) = passes(&format!("{DISC}{line}\n"));
            assert!(problems.iter().any(|problem| problem.contains(told)), "{line}: {problems:?}");
        }
        let (_, problems) =
            passes("format = 1\npasses = [{ load = \"dense\", by = \"hand\", for = \"1min\", ask = \"x\" }]");
        assert!(problems[0].contains("can't be the name of a pass by hand"), "{problems:?}");
        let (_, problems) = passes("format = 1\npasses = [{ load = \"disc\", by = \"hand\", for = \"1min\" }]");
        assert!(problems[0].contains("needs `ask`"), "{problems:?}");
        let (_, problems) = passes("format = 1\npasses = [{ load = \"dense\", ask = \"x\", for = \"1min\" }]");
        assert_eq!(problems.len(), 1, "a load asks nobody: {problems:?}");
    }

    fn read_of(name: &str) -> impl Strategy<Value = Read> + use<> {
        let name = name.to_owned();
        let bound = || proptest::option::of((-999i64..999).prop_map(|number| Decimal::new(number, 2)));
        let number = ("[a-z/ ]{0,4}", bound(), bound()).prop_map(|(unit, least, most)| Takes::Number {
            unit: unit.trim().to_owned(),
            least,
            most,
        });
        let takes = prop_oneof![
            number,
            prop::collection::vec("[a-z\"\\\\]{1,5}", 1..4).prop_map(Takes::Words),
            Just(Takes::YesOrNo),
            Just(Takes::Text),
        ];
        let better = proptest::option::of(prop_oneof![Just(Better::More), Just(Better::Less)]);
        ("[a-z\"']{1,5}", takes, any::<(bool, bool)>(), better).prop_map(move |(label, takes, flags, better)| {
            let (is_needed, is_checked) = flags;
            let right = match &takes {
                Takes::Words(words) if is_checked => words[..1].to_vec(),
                Takes::YesOrNo if is_checked => vec!["yes".to_owned()],
                _ => Vec::new(),
            };
            let better = better.filter(|_| matches!(takes, Takes::Number { .. }));
            Read { field: Field { name: name.clone(), label, takes, is_needed }, right, better }
        })
    }

    proptest! {
        #[test]
        fn what_is_written_is_read_as_the_same(ask in "[^\\p{C}]{1,20}".prop_map(|ask| harmless(&ask)), one in read_of("one"), two in read_of("two")) {
            let is_number = matches!(one.field.takes, Takes::Number { .. });
            let figure = |better| Figure { name: "f".into(), formula: "60 / one".into(), unit: "1/s".into(), better };
            let figures = is_number.then(|| figure(Better::Less)).into_iter().collect();
            let task = Task { ask, reads: vec![one, two], figures };
            let pass = Pass { by_hand: Some(Box::new(task)), ..Pass::usual("disc", Span::from_seconds(60)) };
            let (passes, problems) = passes(&format!("format = 1\npasses = [{}]", pass_table(&pass)));
            prop_assert_eq!(problems, Vec::<String>::new());
            prop_assert_eq!(passes, [pass]);
        }
    }
}
