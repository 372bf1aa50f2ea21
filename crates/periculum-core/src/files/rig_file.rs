//! Rig files: `[rig]`, `[[history]]`, `[[part]]`, `[setting.NAME]`, `[curve.NAME]`, `[derived.NAME]` and `[sensor.NAME]`.
//!
//! What stands below `[adapter]` belongs to the adapters and is read by them.

use rust_decimal::Decimal;

use crate::files::formula_text::{read_cut_off, read_formula};
use crate::files::label::{spoken, unit};
use crate::files::section::{Located, Section};
use crate::files::{curve_file, outlet_file, setting_file};
use crate::model::curve::Curve;
use crate::model::cut_off::CutOff;
use crate::model::formula::Formula;
use crate::model::history::History;
use crate::model::moment::Span;
use crate::model::quantity::harmless;
use crate::model::rig::{Derived, Paid, Part, Place, Rig, Sensor, When};
use crate::model::rung::Rung;
use crate::model::setting::Setting;

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
    let mut names: Vec<String> = sections.iter().map(|(name, _)| name.value.clone()).collect();
    let curves = top.named_sections("curve");
    let curves = curves.into_iter().filter_map(|section| curve_file::read(section, &cooling));
    let (curves, levers): (Vec<Curve>, Vec<Vec<Setting>>) = curves.unzip();
    let levers: Vec<Setting> = levers.into_iter().flatten().collect();
    check_lever_names(&levers, &sections);
    names.extend(levers.iter().map(|lever| lever.name.clone()));
    let settings = sections.into_iter().filter_map(|section| setting_file::read(section, &cooling, &names));
    let settings: Vec<Setting> = settings.chain(levers).collect();
    let told = top.list("history").into_iter().filter_map(|told| read_history(told, &settings));
    let history = told.fold(Vec::new(), History::with);
    let derived = top.named_sections("derived");
    let derived = derived.into_iter().filter_map(|section| read_derived(section, &names)).collect();
    let sensors = top.named_sections("sensor").into_iter();
    let sensors = sensors.filter_map(|section| read_sensor(section, &names)).collect();
    let rig = Rig {
        name: harmless(&name?.value),
        summary,
        place,
        cooling,
        watchdog,
        history,
        parts,
        settings,
        curves,
        derived,
        sensors,
    };
    check_curves(&rig, top);
    check_confirmations(&rig, top);
    check_windows_at_stock(&rig, top);
    check_limits_at_stock(&rig, top);
    Some(rig)
}

/// How many sections of each kind a rig may have: more than any machine has, and few enough to be checked at once.
const MOST: [(&str, usize); 4] = [("setting", 500), ("curve", 20), ("derived", 500), ("sensor", 2000)];

/// Nobody remembers more than this.
const MOST_TOLD: usize = 100;

/// Whether a rig is no larger than a rig can be.
fn check_counts(top: &Section) -> bool {
    let mut is_good = true;
    let told = top.list("history");
    if let Some(one_more) = told.get(MOST_TOLD) {
        let what = format!("there are {} tables [[history]], and a rig has at most {MOST_TOLD}", told.len());
        top.problems().add(one_more.at(), what);
        is_good = false;
    }
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

/// How long it worked under full load at a rung, stock where none is named, and how often that went wrong: the one is worth nothing
/// without the other.
fn read_history(section: Section, settings: &[Setting]) -> Option<History> {
    let loaded = section.time("loaded");
    let failures = section.count("failures", 0);
    let mut rung: Rung = settings.iter().map(|setting| (setting.name.clone(), setting.stock)).collect();
    let at = section.named_numbers("at", "");
    let problems = section.problems();
    section.finish();
    for (name, value) in at {
        let Some(setting) = settings.iter().find(|setting| setting.name == name.value) else {
            let known: Vec<&str> = settings.iter().map(|setting| setting.name.as_str()).collect();
            problems.unknown(name.at, "setting", &name.value, &known);
            return None;
        };
        let (lowest, highest) = (setting.ladder.lowest(), setting.ladder.highest());
        if value.value < lowest || value.value > highest {
            let what = format!("{} is beyond the ladder, which goes from {lowest} to {highest}", value.value);
            problems.add(value.at, what);
            return None;
        }
        rung = rung.with(&name.value, value.value);
    }
    let (loaded, failures) = (loaded?, failures?);
    if loaded.value == Span::ZERO && failures.value > 0 {
        problems.add(failures.at, "it can't have failed in no time");
        return None;
    }
    Some(History { rung, loaded: loaded.value, failures: failures.value })
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
    let is_program = adapter.as_ref().is_some_and(|adapter| adapter.value == outlet_file::PROGRAM);
    let inquiry = if is_program { Some(outlet_file::inquiry(&section)?) } else { None };
    let is_by_hand = adapter.as_ref().is_some_and(|adapter| adapter.value == Sensor::BY_HAND);
    let asked = if is_by_hand { Some(read_when(&section)?) } else { None };
    // Nobody needs to be told where a person reads it, and a program is told by what is run.
    let source =
        if is_by_hand || is_program { Some(String::new()) } else { section.text("source").map(|source| source.value) };
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
        inquiry,
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

/// What says that a change is well is a sensor that reads by itself.
fn check_confirmations(rig: &Rig, top: &Section) {
    for (name, section) in top.named_sections("setting") {
        let check = rig.setting(&name.value).and_then(|setting| setting.confirmed_by.as_ref());
        let (Some(check), Some(written)) = (check, section.optional_section("confirmed_by")) else { continue };
        let Some(named) = written.text("sensor") else { continue };
        match rig.sensors.iter().find(|sensor| sensor.name == check.sensor) {
            None => {
                let known: Vec<&str> = rig.sensors.iter().map(|sensor| sensor.name.as_str()).collect();
                section.problems().unknown(named.at, "sensor", &named.value, &known);
            }
            Some(sensor) if sensor.asked.is_some() => {
                let what = format!("somebody reads `{}`, so that it says nothing by itself", sensor.name);
                section.problems().advise(named.at, what, "name a sensor of an adapter");
            }
            Some(_) => {}
        }
    }
}

/// A lever has the name that its curve makes for it, which no setting may have as well.
fn check_lever_names(levers: &[Setting], settings: &[(Located<String>, Section)]) {
    for (name, section) in settings.iter().filter(|(name, _)| levers.iter().any(|lever| lever.name == name.value)) {
        let what = format!("a curve has a setting called `{}` by itself", name.value);
        section.problems().advise(name.at.clone(), what, "give this one, or the curve, another name");
    }
}

/// What says where a curve sits are sensors of the rig, and no curve is called like a setting or another curve's lever.
fn check_curves(rig: &Rig, top: &Section) {
    for (name, section) in top.named_sections("curve") {
        let Some(curve) = rig.curves.iter().find(|curve| curve.name == name.value) else { continue };
        if rig.setting(&curve.name).is_some() {
            let what = format!("a setting is called `{}` as well", curve.name);
            section.problems().advise(name.at.clone(), what, "give the curve another name");
        }
        curve_file::check_sits(curve, rig, &section);
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
