//! `[setting.NAME]` of a rig file: one thing that can be changed, its ladder and its limits.

use rust_decimal::Decimal;

use crate::files::formula_text::read_cut_off;
use crate::files::label::{spoken, unit};
use crate::files::outlet_file;
use crate::files::section::{Located, Section};
use crate::model::check::Check;
use crate::model::cut_off::CutOff;
use crate::model::formula::Formula;
use crate::model::ladder::{BadLadder, Direction, Ladder};
use crate::model::quantity::harmless;
use crate::model::setting::{BootLine, LostOn, Setting, TakesEffect};

/// Reads a setting of a rig that is cooled like this and has settings of these names.
pub(super) fn read((name, section): (Located<String>, Section), cooling: &str, settings: &[String]) -> Option<Setting> {
    let label = section.optional_text("label").map_or_else(|| spoken(&name.value), |text| harmless(&text.value));
    let unit = unit(&section);
    let ladder = read_ladder(&section);
    let stock = section.number("stock");
    let (floor, floor_by) = read_floor(&section, settings);
    let ceilings = section.named_numbers("ceiling", cooling);
    let largest_jump = section.optional_number("largest_jump");
    let tolerance = section.optional_number("tolerance");
    let harder = section.choice("harder", &[("up", Direction::Up), ("down", Direction::Down)]);
    let takes_effect = section.choice("takes_effect", &EFFECTS);
    let lost_on = read_lost_on(&section);
    let confirm = section.has("confirm").then(|| section.time("confirm")).flatten();
    let confirmed_by = section.optional_section("confirmed_by").and_then(|check| read_check(check, confirm.is_some()));
    let adapter = section.optional_text("adapter");
    let target = section.optional_text("target");
    let outlet = adapter.as_ref().and_then(|adapter| outlet_file::read(&section, &adapter.value));
    let words = section.optional_texts("words").map(|words| words.value).unwrap_or_default();
    let boot_line = section.optional_section("boot").and_then(read_boot_line);
    let paid = section.optional_numbers("paid");
    let drives = read_drives(&section);
    let problems = section.problems();

    let (ladder, stock) = (ladder?, stock?);
    for value in [Some(&stock), floor.as_ref()].into_iter().flatten().chain(ceilings.iter().map(|(_, value)| value)) {
        if !ladder.contains(value.value) {
            let near = ladder.nearest(value.value);
            problems.advise(
                value.at.clone(),
                format!("{} is not on the ladder", value.value),
                format!("the nearest value is {near}"),
            );
        }
    }
    let floor_value = floor.as_ref().map_or(ladder.lowest(), |floor| floor.value);
    if stock.value < floor_value {
        problems.add(stock.at.clone(), format!("stock {} is below the floor {floor_value}", stock.value));
    }
    for (use_name, ceiling) in &ceilings {
        if ceiling.value < stock.value {
            let what = format!("the ceiling for {} is below stock {}", use_name.value, stock.value);
            problems.add(ceiling.at.clone(), what);
        }
    }
    if let Some(jump) = &largest_jump
        && jump.value < ladder.widest_gap()
    {
        let what =
            format!("a largest jump of {} can't cross a gap of {} on the ladder", jump.value, ladder.widest_gap());
        problems.add(jump.at.clone(), what);
    }
    let is_wordless = |value: Decimal| value < Decimal::ZERO || value >= Decimal::from(words.len());
    if !words.is_empty() && (is_wordless(ladder.lowest()) || is_wordless(ladder.highest())) {
        let what = format!("{} words stand for the values 0 to {} only", words.len(), words.len() - 1);
        problems.add(stock.at.clone(), what);
    }
    if let Some(paid) = paid.as_ref().filter(|paid| paid.value.len() != words.len()) {
        let what = format!("`paid` has {} prices for {} words", paid.value.len(), words.len());
        problems.advise(paid.at.clone(), what, "write one for each of the `words`, in the currency of the parts");
    }
    if let Some(tolerance) = tolerance.as_ref().filter(|tolerance| tolerance.value < Decimal::ZERO) {
        problems.add(tolerance.at.clone(), "a tolerance can't be negative");
    }
    section.finish();
    Some(Setting {
        name: name.value,
        label,
        unit,
        stock: stock.value,
        floor: floor_value,
        floor_by,
        ceilings: ceilings.into_iter().map(|(use_name, value)| (use_name.value, value.value)).collect(),
        largest_jump: largest_jump.map(|jump| jump.value),
        tolerance: tolerance.map(|tolerance| tolerance.value).unwrap_or_default(),
        harder: harder?.value,
        lost_on,
        confirm: confirm.map(|confirm| confirm.value),
        confirmed_by,
        takes_effect: takes_effect?.value,
        adapter: adapter.map(|adapter| adapter.value).unwrap_or_default(),
        target: target.map(|target| target.value).unwrap_or_default(),
        outlet,
        boot_line,
        words: words.iter().map(|word| harmless(word)).collect(),
        paid: paid.map(|paid| paid.value).unwrap_or_default(),
        drives,
        ladder,
    })
}

/// When a change is in force, as files say it.
pub(super) const EFFECTS: [(&str, TakesEffect); 3] =
    [("at-once", TakesEffect::AtOnce), ("next-start", TakesEffect::AtNextStart), ("by-hand", TakesEffect::ByHand)];

/// `lost_on = "restart"`: what takes a value away.
pub(super) fn read_lost_on(section: &Section) -> Option<LostOn> {
    let lost = [
        ("device-reset", LostOn::DeviceReset),
        ("restart", LostOn::Restart),
        ("power-off", LostOn::PowerOff),
        ("defaults", LostOn::Defaults),
    ];
    let lost_on = if section.has("lost_on") { section.choice("lost_on", &lost) } else { None };
    lost_on.map(|lost| lost.value)
}

/// `confirmed_by = { sensor = "frames", at_least = 24 }`: what says by itself that a change is well.
fn read_check(section: Section, has_to_be_confirmed: bool) -> Option<Check> {
    let sensor = section.text("sensor");
    let number = |key| section.optional_number(key).map(|number| number.value);
    let (at_least, at_most) = (number("at_least"), number("at_most"));
    let has_bound = section.has("at_least") || section.has("at_most");
    let (problems, at) = (section.problems(), section.at());
    section.finish();
    let check = Check { sensor: sensor?.value, at_least, at_most };
    if !has_to_be_confirmed {
        let what = "nothing has to be confirmed that does not go back by itself";
        problems.advise(at, what, "write `confirm = \"20s\"` as well, or leave out `confirmed_by`");
    } else if !has_bound {
        let what = "any reading would say that all is well";
        problems.advise(at, what, "write `at_least` or `at_most`, in the sensor's unit");
    } else if at_least.zip(at_most).is_some_and(|(least, most)| least > most) {
        problems.add(at, "no reading is at least that and at most that");
    }
    Some(check)
}

/// `floor = 0.900`, or a formula of other settings: what it leaves.
fn read_floor(section: &Section, settings: &[String]) -> (Option<Located<Decimal>>, Option<Formula>) {
    match read_cut_off("floor", settings, section) {
        Some(Located { value: CutOff::At(floor), at }) => (Some(Located { value: floor, at }), None),
        Some(Located { value: CutOff::By(formula), .. }) => (None, Some(formula)),
        None => (None, None),
    }
}

/// `drives = ["cpu 3"]`: the processors whose limit a setting is.
fn read_drives(section: &Section) -> Vec<u32> {
    let Some(texts) = section.optional_texts("drives") else { return Vec::new() };
    let number = |text: &String| text.strip_prefix("cpu ").and_then(|number| number.trim().parse().ok());
    let read: Vec<Option<u32>> = texts.value.iter().map(number).collect();
    if read.iter().any(Option::is_none) {
        let help = "write `drives = [\"cpu 3\"]`, with the number that the operating system gives the processor";
        section.problems().advise(texts.at, "what a setting drives is a list of processors", help);
    }
    read.into_iter().flatten().collect()
}

/// `boot = { file, key, between }`: a line of a file that the machine reads when it starts.
fn read_boot_line(section: Section) -> Option<BootLine> {
    let (file, key) = (section.text("file"), section.text("key"));
    let between = section.optional_text("between").map_or_else(|| "=".to_owned(), |between| between.value);
    let problems = section.problems();
    section.finish();
    let (file, key) = (file?, key?);
    let is_one_line = |text: &str| !text.contains(['\n', '\r']);
    if key.value.trim().is_empty() || !is_one_line(&key.value) || !is_one_line(&between) || between.is_empty() {
        let what = "a key and what stands behind it are parts of one line, and not empty";
        problems.advise(key.at, what, "write `boot = { file = \"/boot/config.txt\", key = \"core_mhz\" }`");
        return None;
    }
    Some(BootLine { file: file.value, key: key.value, between })
}

/// Either `ladder = { from, step, to }` or `values = [ … ]`.
pub(super) fn read_ladder(section: &Section) -> Option<Ladder> {
    if let Some(values) = section.optional_numbers("values") {
        if section.has("ladder") {
            section.problems().add(values.at.clone(), "a setting has either `ladder` or `values`, not both");
        }
        return kept(Ladder::values(values.value), values.at, section);
    }
    if !section.has("ladder") {
        let what = format!("{} needs `ladder` or `values`", section.name());
        let help = "write `ladder = { from = 3800, step = 25, to = 5600 }` or `values = [33.3, 40, 50]`";
        section.problems().advise(section.at(), what, help);
        return None;
    }
    let steps = section.section("ladder")?;
    let (from, step, to) = (steps.number("from"), steps.number("step"), steps.number("to"));
    let at = steps.at();
    steps.finish();
    kept(Ladder::steps(from?.value, step?.value, to?.value), at, section)
}

/// The ladder, where it is one; what stands against it is told at this place.
pub(super) fn kept(ladder: Result<Ladder, BadLadder>, at: std::ops::Range<usize>, section: &Section) -> Option<Ladder> {
    ladder.map_err(|what| section.problems().add(at, what.to_string())).ok()
}
