//! Rig files: `[rig]`, `[[part]]`, `[setting.NAME]`, `[derived.NAME]` and `[sensor.NAME]`.
//!
//! What stands below `[adapter]` belongs to the adapters and is read by them.

use rust_decimal::Decimal;

use crate::files::formula_text::{read_cut_off, read_formula};
use crate::files::section::{Located, Section};
use crate::model::cut_off::CutOff;
use crate::model::formula::Formula;
use crate::model::ladder::{BadLadder, Direction, Ladder};
use crate::model::quantity::harmless;
use crate::model::rig::{Derived, Paid, Part, Place, Rig, Sensor, When};
use crate::model::setting::{BootLine, LostOn, Setting, TakesEffect};

/// Reads a rig from a file's top section; problems go where the section's problems go.
///
/// The section is left open, so that adapters can read theirs; none where the rig can't be used at all.
pub fn read(top: &Section) -> Option<Rig> {
    let head = top.section("rig")?;
    let name = head.text("name");
    let summary = head.optional_text("summary").map(|text| harmless(&text.value)).unwrap_or_default();
    let cooling = head.optional_text("cooling").map(|text| harmless(&text.value)).unwrap_or_default();
    let watchdog = head.optional_text("watchdog").map(|text| text.value).unwrap_or_default();
    let places = [("here", Place::Here), ("elsewhere", Place::Elsewhere)];
    let place = if head.has("where") { head.choice("where", &places) } else { None };
    let place = place.map_or(Place::Unsaid, |place| place.value);
    head.finish();
    let mut currency = None;
    let parts: Vec<Part> = top.list("part").into_iter().filter_map(|part| read_part(part, &mut currency)).collect();
    if !check_counts(top) {
        return None;
    }
    let sections = top.named_sections("setting");
    // A setting that can't be read is still one that formulas may name.
    let names: Vec<String> = sections.iter().map(|(name, _)| name.value.clone()).collect();
    let settings = sections.into_iter().filter_map(|section| read_setting(section, &cooling, &names)).collect();
    let derived = top.named_sections("derived");
    let derived = derived.into_iter().filter_map(|section| read_derived(section, &names)).collect();
    let sensors = top.named_sections("sensor").into_iter();
    let sensors = sensors.filter_map(|section| read_sensor(section, &names)).collect();
    let rig =
        Rig { name: harmless(&name?.value), summary, place, cooling, watchdog, parts, settings, derived, sensors };
    check_windows_at_stock(&rig, top);
    check_limits_at_stock(&rig, top);
    Some(rig)
}

/// How many sections of each kind a rig may have: more than any machine has, and few enough to be checked at once.
const MOST: [(&str, usize); 3] = [("setting", 500), ("derived", 500), ("sensor", 2000)];

/// Whether a rig is no larger than a rig can be.
fn check_counts(top: &Section) -> bool {
    let mut is_good = true;
    for (kind, most) in MOST {
        let sections = top.named_sections(kind);
        if let Some((name, _)) = sections.get(most) {
            let what = format!("there are {} sections [{kind}.…], and a rig has at most {most}", sections.len());
            top.problems().add(name.at.clone(), what);
            is_good = false;
        }
    }
    is_good
}

fn read_part(section: Section, currency: &mut Option<String>) -> Option<Part> {
    let kind = section.text("kind");
    let model = section.text("model");
    let specimen = section.optional_text("specimen").map(|text| harmless(&text.value)).unwrap_or_default();
    let text = |key| section.optional_text(key).map(|text| harmless(&text.value)).unwrap_or_default();
    let (firmware, slot, since) = (text("firmware"), text("slot"), text("since"));
    let paid = section.optional_text("paid").and_then(|paid| read_paid(&paid, &section, currency));
    section.finish();
    Some(Part { kind: harmless(&kind?.value), model: harmless(&model?.value), specimen, firmware, slot, since, paid })
}

/// `paid = "389 EUR"`, in the same currency for every part.
fn read_paid(written: &Located<String>, section: &Section, currency: &mut Option<String>) -> Option<Paid> {
    let read = written.value.split_once(' ').and_then(|(amount, currency)| {
        let amount: Decimal = amount.parse().ok()?;
        let currency = harmless(currency.trim());
        (amount > Decimal::ZERO && !currency.is_empty()).then_some(Paid { amount, currency })
    });
    let Some(paid) = read else {
        let what = format!("`{}` is no amount of money", written.value);
        section.problems().advise(written.at.clone(), what, "write `paid = \"389 EUR\"`");
        return None;
    };
    let first = currency.get_or_insert_with(|| paid.currency.clone());
    if *first != paid.currency {
        let what = format!("another part was paid in {first}, and {} can't be added to that", paid.currency);
        section.problems().add(written.at.clone(), what);
        return None;
    }
    Some(paid)
}

fn read_setting((name, section): (Located<String>, Section), cooling: &str, settings: &[String]) -> Option<Setting> {
    let label = section.optional_text("label").map_or_else(|| spoken(&name.value), |text| harmless(&text.value));
    let unit = unit(&section);
    let ladder = read_ladder(&section);
    let stock = section.number("stock");
    let (floor, floor_by) = read_floor(&section, settings);
    let ceilings = section.named_numbers("ceiling", cooling);
    let largest_jump = section.optional_number("largest_jump");
    let tolerance = section.optional_number("tolerance");
    let harder = section.choice("harder", &[("up", Direction::Up), ("down", Direction::Down)]);
    let effects =
        [("at-once", TakesEffect::AtOnce), ("next-start", TakesEffect::AtNextStart), ("by-hand", TakesEffect::ByHand)];
    let takes_effect = section.choice("takes_effect", &effects);
    let lost = [
        ("device-reset", LostOn::DeviceReset),
        ("restart", LostOn::Restart),
        ("power-off", LostOn::PowerOff),
        ("defaults", LostOn::Defaults),
    ];
    let lost_on = if section.has("lost_on") { section.choice("lost_on", &lost) } else { None };
    let confirm = section.has("confirm").then(|| section.time("confirm")).flatten();
    let adapter = section.optional_text("adapter");
    let target = section.optional_text("target");
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
        lost_on: lost_on.map(|lost| lost.value),
        confirm: confirm.map(|confirm| confirm.value),
        takes_effect: takes_effect?.value,
        adapter: adapter.map(|adapter| adapter.value).unwrap_or_default(),
        target: target.map(|target| target.value).unwrap_or_default(),
        boot_line,
        words: words.iter().map(|word| harmless(word)).collect(),
        paid: paid.map(|paid| paid.value).unwrap_or_default(),
        drives,
        ladder,
    })
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
fn read_ladder(section: &Section) -> Option<Ladder> {
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

fn kept(ladder: Result<Ladder, BadLadder>, at: std::ops::Range<usize>, section: &Section) -> Option<Ladder> {
    ladder.map_err(|what| section.problems().add(at, what.to_string())).ok()
}

fn read_derived((name, section): (Located<String>, Section), settings: &[String]) -> Option<Derived> {
    let unit = unit(&section);
    let text = section.text("formula");
    let window = section.optional_section("window");
    let (lowest, highest) = match &window {
        Some(window) => (window.optional_number("from"), window.optional_number("to")),
        None => (None, None),
    };
    if let Some(window) = window {
        window.finish();
    }
    let formula = text.and_then(|text| read_formula(&text, settings, &section));
    section.finish();
    let formula = formula?;
    Some(Derived {
        name: name.value,
        unit,
        formula,
        lowest: lowest.map(|limit| limit.value),
        highest: highest.map(|limit| limit.value),
    })
}

/// The unit of a section; a dash, as tables have it, is none.
fn unit(section: &Section) -> String {
    let unit = section.optional_text("unit").map(|text| harmless(text.value.trim())).unwrap_or_default();
    if matches!(unit.as_str(), "-" | "–" | "—") { String::new() } else { unit }
}

fn read_sensor((name, section): (Located<String>, Section), settings: &[String]) -> Option<Sensor> {
    let label = section.optional_text("label").map_or_else(|| spoken(&name.value), |text| harmless(&text.value));
    let unit = unit(&section);
    let decimals = section.optional_count("decimals", 0).map_or(0, |count| count.value.min(6) as usize);
    let words = section.optional_texts("words").map(|words| words.value).unwrap_or_default();
    let number = |key| section.optional_number(key).map(|number| number.value);
    let (limit, least) = (number("limit"), number("least"));
    let cut_off = read_cut_off("cut_off", settings, &section);
    let cut_off_below = read_cut_off("cut_off_below", settings, &section);
    let follows = section.optional_text("follows");
    let core = section.optional_count("core", 0).map(|core| core.value);
    let patience = section.has("patience").then(|| section.time("patience")).flatten();
    let adapter = section.text("adapter");
    let is_by_hand = adapter.as_ref().is_some_and(|adapter| adapter.value == Sensor::BY_HAND);
    let asked = if is_by_hand { Some(read_when(&section)?) } else { None };
    // Nobody needs to be told where a person reads it.
    let source = if is_by_hand { Some(String::new()) } else { section.text("source").map(|source| source.value) };
    let problems = section.problems();
    section.finish();
    if let Some(followed) = follows.as_ref().filter(|followed| !settings.contains(&followed.value)) {
        let known: Vec<&str> = settings.iter().map(String::as_str).collect();
        problems.unknown(followed.at.clone(), "setting", &followed.value, &known);
    }
    Some(Sensor {
        name: name.value,
        label,
        unit,
        decimals,
        words: words.iter().map(|word| harmless(word)).collect(),
        cut_off: cut_off.map(|cut_off| cut_off.value),
        cut_off_below: cut_off_below.map(|below| below.value),
        limit,
        least,
        follows: follows.map(|followed| followed.value),
        core,
        patience: patience.map(|patience| patience.value),
        adapter: adapter?.value,
        source: source?,
        asked,
    })
}

/// `when`: what somebody is asked for, and when.
fn read_when(section: &Section) -> Option<When> {
    let words = [
        ("once", When::Once),
        ("each-trial", When::EachTrial),
        ("idle", When::Idle),
        ("loaded", When::Loaded),
        ("after", When::After),
    ];
    section.choice("when", &words).map(|when| when.value)
}

/// A rig whose own stock values leave a window can never be climbed.
fn check_windows_at_stock(rig: &Rig, top: &Section) {
    let stock = rig.stock();
    for (name, section) in top.named_sections("derived") {
        let Some(derived) = rig.derived.iter().find(|derived| derived.name == name.value) else { continue };
        // A name that nobody knows is told where it stands in the formula.
        if derived.formula.names().iter().any(|(used, _)| rig.setting(used).is_none()) {
            continue;
        }
        let inside = derived.value(&stock).is_some_and(|value| {
            derived.lowest.is_none_or(|lowest| value >= lowest)
                && derived.highest.is_none_or(|highest| value <= highest)
        });
        if !inside {
            let value = derived.value(&stock).map_or("no value".to_owned(), |value| value.round_dp(3).to_string());
            section.problems().add(name.at, format!("`{}` has {value} at stock, outside its window", derived.name));
        }
    }
}

/// What limits a rig by a formula has to say something of the rig as it is, and to leave it room.
fn check_limits_at_stock(rig: &Rig, top: &Section) {
    let stock = |name: &str| Some(rig.setting(name)?.stock);
    let knows_all = |formula: &Formula| formula.names().iter().all(|(name, _)| rig.setting(name).is_some());
    for (name, section) in top.named_sections("sensor") {
        let Some(sensor) = rig.sensors.iter().find(|sensor| sensor.name == name.value) else { continue };
        let cut_offs = [("cut_off", &sensor.cut_off), ("cut_off_below", &sensor.cut_off_below)];
        let is_readable = |cut_off: &Option<CutOff>| match cut_off {
            Some(CutOff::By(formula)) => knows_all(formula),
            _ => true,
        };
        if !cut_offs.iter().all(|(_, cut_off)| is_readable(cut_off)) {
            continue;
        }
        let at_stock = cut_offs.map(|(key, cut_off)| (key, cut_off.as_ref().map(|cut_off| cut_off.at(stock))));
        for (key, _) in at_stock.iter().filter(|(_, at)| *at == Some(None)) {
            section.problems().add(name.at.clone(), format!("`{key}` has no value with every setting at stock"));
        }
        if let [(_, Some(Some(above))), (_, Some(Some(below)))] = at_stock
            && below >= above
        {
            let what = format!("nothing lies between a cut-off of {above} and a lower one of {below}");
            section.problems().advise(name.at.clone(), what, "write a `cut_off_below` below `cut_off`");
        }
    }
    for (name, section) in top.named_sections("setting") {
        let Some(setting) = rig.setting(&name.value) else { continue };
        let Some(formula) = setting.floor_by.as_ref().filter(|formula| knows_all(formula)) else { continue };
        let floor = formula.value(stock);
        if floor.is_none_or(|floor| setting.stock < floor) {
            let floor =
                floor.map_or_else(|| "no value".to_owned(), |floor| format!("{} as its floor", floor.round_dp(3)));
            let what =
                format!("`{}` has {floor} with every setting at stock, and is {} then", setting.name, setting.stock);
            section.problems().add(name.at, what);
        }
    }
}

/// A name with its underscores spoken as blanks.
fn spoken(name: &str) -> String {
    harmless(&name.replace('_', " "))
}
