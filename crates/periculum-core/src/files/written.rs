//! The text of plan files that this program writes itself: all of it comes from here, so that no name can break it.

use rust_decimal::Decimal;
use toml_edit::{Array, ArrayOfTables, DocumentMut, InlineTable, Item, Table, Value, value};

use crate::model::amount::Amount;
use crate::model::field::Takes;
use crate::model::moment::Span;
use crate::model::pass::{Extent, Pass, StopOn, Threads};
use crate::model::program::{Output, Program};
use crate::model::rung::Rung;
use crate::model::task::{Better, Figure, Read, Task};

/// What a digest of a program's output begins with.
pub(super) const DIGEST: &str = "sha256:";

/// A plan file that is being written.
pub struct PlanText {
    document: DocumentMut,
}

impl PlanText {
    /// A plan of this name for the rig of this file and this use, with nothing in it.
    pub fn new(name: &str, rig: &str, use_name: &str) -> Self {
        let mut document = DocumentMut::new();
        document["format"] = value(1);
        let mut plan = Table::new();
        for (key, text) in [("name", name), ("rig", rig), ("use", use_name)] {
            plan[key] = value(text);
        }
        document["plan"] = Item::Table(plan);
        Self { document }
    }

    /// Puts a proof in.
    pub fn add_proof(&mut self, name: &str, passes: &[Pass]) {
        let mut lines: Array = passes.iter().map(pass_table).collect();
        lines.iter_mut().for_each(|line| line.decor_mut().set_prefix("\n    "));
        lines.set_trailing_comma(true);
        lines.set_trailing("\n");
        let mut proof = Table::new();
        proof["passes"] = value(lines);
        self.below("proof")[name] = Item::Table(proof);
    }

    /// Puts a program in.
    pub fn add_program(&mut self, program: &Program) {
        self.below("program")[&program.name] = Item::Table(program_table(program));
    }

    /// Puts a stage in, with what stands above it, and its keys.
    pub fn add_stage(&mut self, comment: &str, keys: &[(&str, Value)]) {
        let mut stage: Table = keys.iter().map(|(key, it)| ((*key).to_owned(), value(it.clone()))).collect();
        if !comment.is_empty() {
            stage.decor_mut().set_prefix(format!("\n# {comment}\n"));
        }
        let stages = self.document.entry("stage").or_insert(Item::ArrayOfTables(ArrayOfTables::new()));
        if let Some(stages) = stages.as_array_of_tables_mut() {
            stages.push(stage);
        }
    }

    /// Puts a profile in, which stages may start from.
    pub fn add_profile(&mut self, name: &str, rung: &Rung) {
        self.below("profile")[name] = profile_table(rung);
    }

    /// Lets a climb of it take so many hours at most.
    pub fn limit_hours(&mut self, hours: i64) {
        let mut budget = Table::new();
        budget["hours"] = value(hours);
        self.document["budget"] = Item::Table(budget);
    }

    /// Leaves the rig at its last mark when a climb of it has come to its end.
    pub fn ends_at_mark(&mut self) {
        self.document["plan"]["ends"] = value("at-mark");
    }

    /// The text.
    pub fn text(&self) -> String {
        self.document.to_string()
    }

    /// The table that sections like `[proof.NAME]` stand below.
    fn below(&mut self, kind: &str) -> &mut Item {
        let above = self.document.entry(kind).or_insert(Item::Table(Table::new()));
        if let Some(table) = above.as_table_mut() {
            table.set_implicit(true);
        }
        above
    }
}

/// The text of a plan with each of these profiles put in that one of its stages starts from and that it does not have itself, so
/// that its record says where it started; the same text where it is no TOML or starts from none of them.
pub fn with_starts(text: &str, saved: &[(String, Rung)]) -> String {
    let Ok(mut document) = text.parse::<DocumentMut>() else { return text.to_owned() };
    let key = |table: &Table, key: &str| table.get(key).and_then(Item::as_str).map(str::to_owned);
    let stages = document.get("stage").and_then(Item::as_array_of_tables);
    let starts: Vec<String> = stages.into_iter().flatten().filter_map(|stage| key(stage, "start")).collect();
    let own: Vec<String> = stages.into_iter().flatten().filter_map(|stage| key(stage, "save")).collect();
    let is_missing = |document: &DocumentMut, name: &str| {
        let profiles = document.get("profile").and_then(Item::as_table_like);
        !own.iter().any(|one| one == name) && profiles.is_none_or(|profiles| !profiles.contains_key(name))
    };
    let mut is_changed = false;
    for (name, rung) in saved {
        if starts.contains(name) && is_missing(&document, name) {
            let profiles = document.entry("profile").or_insert(Item::Table(Table::new()));
            profiles.as_table_mut().into_iter().for_each(|table| table.set_implicit(true));
            profiles[name.as_str()] = profile_table(rung);
            is_changed = true;
        }
    }
    if is_changed { document.to_string() } else { text.to_owned() }
}

/// A profile as a section.
fn profile_table(rung: &Rung) -> Item {
    let mut set = InlineTable::new();
    rung.iter().for_each(|(name, value)| drop(set.insert(name, number(value))));
    let mut profile = Table::new();
    profile["set"] = value(set);
    Item::Table(profile)
}

/// A pass as an element of `passes`, which is read as the same pass.
pub(super) fn pass_table(pass: &Pass) -> InlineTable {
    let bytes = |bytes: u64| Value::from(format!("{bytes}B"));
    let mut table = InlineTable::new();
    table.insert("load", pass.load.as_str().into());
    table.insert("for", time(pass.length));
    let demand = pass.demand;
    let threads = match pass.threads {
        Threads::All => None,
        Threads::Each => Some(Value::from("each")),
        Threads::Count(count) => Some(i64::from(count).into()),
    };
    let (size, memory) = match demand.extent {
        Extent::Usual => (None, None),
        Extent::Size(size) => (i64::try_from(size).ok().map(Value::from), None),
        Extent::Memory(Amount::Bytes(amount)) => (None, Some(bytes(amount))),
        Extent::Memory(Amount::Percent(percent)) => (None, Some(Value::from(format!("{percent}%")))),
    };
    let rest = [
        ("pause", (!pass.pause.is_zero()).then(|| time(pass.pause))),
        ("device", pass.device.as_deref().map(Value::from)),
        ("threads", threads),
        ("times", demand.times.and_then(|times| i64::try_from(times).ok()).map(Value::from)),
        ("size", size),
        ("memory", memory),
        ("reserve", demand.reserve.map(bytes)),
        ("priority", demand.priority.map(|priority| i64::from(priority).into())),
        ("stop_on", (demand.stop_on == StopOn::Never).then(|| Value::from("never"))),
    ];
    for (key, it) in rest {
        it.into_iter().for_each(|it| drop(table.insert(key, it)));
    }
    if let Some(task) = &pass.by_hand {
        table.insert("by", "hand".into());
        table.insert("ask", task.ask.as_str().into());
        table.insert("fields", fields_table(task).into());
    }
    table
}

fn better_word(better: Better) -> &'static str {
    if better == Better::More { "more" } else { "less" }
}

/// What is written down in a pass by hand, each by its name.
fn fields_table(task: &Task) -> InlineTable {
    let read = |read: &Read| {
        let mut table = InlineTable::new();
        table.insert("label", read.field.label.as_str().into());
        match &read.field.takes {
            Takes::Number { unit, least, most } => {
                table.insert("unit", unit.as_str().into());
                let bounds = [("from", least), ("to", most)];
                for (key, bound) in bounds.into_iter().filter_map(|(key, bound)| Some((key, (*bound)?))) {
                    table.insert(key, number(bound));
                }
            }
            Takes::Words(words) => drop(table.insert("words", words.iter().collect::<Array>().into())),
            Takes::YesOrNo => drop(table.insert("takes", "yes-no".into())),
            Takes::Text => drop(table.insert("takes", "text".into())),
        }
        read.better.into_iter().for_each(|it| drop(table.insert("better", better_word(it).into())));
        if !read.right.is_empty() {
            table.insert("right", read.right.iter().collect::<Array>().into());
        }
        if !read.field.is_needed {
            table.insert("optional", true.into());
        }
        (read.field.name.clone(), Value::from(table))
    };
    let figure = |figure: &Figure| {
        let mut table = InlineTable::new();
        table.insert("formula", figure.formula.as_str().into());
        table.insert("unit", figure.unit.as_str().into());
        table.insert("better", better_word(figure.better).into());
        (figure.name.clone(), Value::from(table))
    };
    task.reads.iter().map(read).chain(task.figures.iter().map(figure)).collect()
}

/// A number digit by digit.
fn number(value: Decimal) -> Value {
    value.to_string().parse::<Value>().unwrap_or_else(|_| value.to_string().into())
}

/// A length of time in the largest unit that it is a whole number of.
fn time(span: Span) -> Value {
    let millis = span.millis();
    let units = [("h", 3_600_000), ("min", 60_000), ("s", 1000)];
    let whole = units.into_iter().find(|(_, unit)| millis > 0 && millis.is_multiple_of(*unit));
    whole.map_or_else(|| format!("{millis}ms"), |(name, unit)| format!("{}{name}", millis / unit)).into()
}

/// A program as a section, which is read as the same program.
pub(super) fn program_table(program: &Program) -> Table {
    let mut table = Table::new();
    table["run"] = value(program.run.iter().collect::<Array>());
    table["limit"] = value(time(program.limit));
    table["status"] = value(i64::from(program.status));
    if let Some(folder) = &program.folder {
        table["folder"] = value(folder);
    }
    match &program.output {
        Output::Any => {}
        Output::Same => table["output"] = value("same"),
        Output::Digest(digest) => table["output"] = value(format!("{DIGEST}{digest}")),
    }
    if let Some(measure) = &program.score {
        let pattern = measure.pattern.as_ref().map(|pattern| ("pattern", pattern));
        let keys = pattern.into_iter().chain([("formula", &measure.formula), ("unit", &measure.unit)]);
        let mut score = keys.map(|(key, text)| (key, text.as_str())).collect::<InlineTable>();
        if let Some(better) = measure.better {
            score.insert("better", better_word(better).into());
        }
        table["score"] = value(score);
    }
    table
}

/// The text of a file's section for a program.
#[cfg(test)]
pub(super) fn program_text(program: &Program) -> String {
    let mut document = DocumentMut::new();
    let mut programs = Table::new();
    programs.set_implicit(true);
    programs[&program.name] = Item::Table(program_table(program));
    document["program"] = Item::Table(programs);
    document.to_string()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::files::{Document, Problems, plan_file, rig_file};
    use proptest::prelude::*;

    const RIG: &str = "format = 1\n[rig]\nname = \"r\"\n";

    proptest! {
        /// Whatever things are called, the text is read as it was meant.
        #[test]
        fn what_is_written_is_read_as_the_same(name in "\\PC{1,12}|[\\x00-\\x1f\"\\\\]{1,4}", seconds in 1u64..90) {
            let mut text = PlanText::new(&name, "r.rig.toml", "daily");
            let passes = [Pass::usual("dense", Span::from_seconds(seconds))];
            text.add_proof(&name, &passes);
            text.add_stage("To know the rig.", &[("strategy", "baseline".into()), ("proof", name.as_str().into())]);
            let text = text.text();
            let (rig, plan) = (Document::parse(RIG).expect("a rig"), Document::parse(&text).expect("TOML"));
            let problems = Problems::default();
            let rig = rig_file::read(&rig.top(&problems)).expect("a rig");
            let plan = plan_file::read(&plan.top(&problems), &rig, &["dense"]).expect("a plan");
            prop_assert_eq!(&plan.proofs[0].passes, &passes);
            prop_assert_eq!(plan.stages.len(), 1);
        }
    }

    #[test]
    fn a_plan_reads_well() {
        let mut text = PlanText::new("first light", "dome.rig.toml", "daily");
        text.add_proof(
            "quick",
            &[Pass::usual("integer", Span::from_seconds(20)), Pass::usual("dense", Span::from_seconds(90))],
        );
        text.add_stage(
            "To know the rig.",
            &[("strategy", "baseline".into()), ("repeats", 3.into()), ("proof", "quick".into())],
        );
        text.add_stage("", &[("strategy", "seek".into()), ("proof", "quick".into())]);
        insta::assert_snapshot!(text.text());
    }

    #[test]
    fn only_what_a_stage_starts_from_and_the_plan_has_not_is_put_in() {
        let rung: Rung =
            [("clock".to_owned(), Decimal::new(36_50, 2)), ("volts".to_owned(), 1.into())].into_iter().collect();
        let saved = ["day", "own", "later", "idle"].map(|name| (name.to_owned(), rung.clone()));
        let plan = "# mine\n[profile.own]\nset = { clock = 1 }\n[[stage]]\nstart = \"day\" # why\n[[stage]]\nstart = \"own\"\n\
            save = \"later\"\n[[stage]]\nstart = \"later\"\n";
        let text = with_starts(plan, &saved);
        assert!(text.starts_with("# mine") && text.contains("# why"), "{text}");
        assert!(text.contains("[profile.day]\nset = { clock = 36.50, volts = 1 }"), "{text}");
        assert_eq!(text.matches("[profile.").count(), 2, "{text}");
        for unchanged in ["start = ", "[[stage]]\nstart = \"stock\"\n", ""] {
            assert_eq!(with_starts(unchanged, &saved), unchanged);
        }
    }
}
