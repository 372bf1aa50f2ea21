//! `[curve.NAME]` of a rig file: the points of a curve, and the settings that move them.

use rust_decimal::Decimal;

use crate::files::label::{spoken, unit};
use crate::files::section::{Located, Section};
use crate::files::setting_file::{EFFECTS, kept, read_ladder, read_lost_on};
use crate::model::curve::{Curve, Point, Sits};
use crate::model::ladder::{Direction, Ladder};
use crate::model::quantity::{harmless, with_unit};
use crate::model::rig::{Rig, Sensor};
use crate::model::setting::{Setting, TakesEffect};

/// So many points a curve may have: more than any table of a driver has.
const MOST_POINTS: usize = 200;

/// What may move a curve.
#[derive(Clone, Copy, PartialEq)]
enum Lever {
    Offset,
    Flat,
    Points,
}

const LEVERS: [(&str, Lever); 3] = [("offset", Lever::Offset), ("flat", Lever::Flat), ("points", Lever::Points)];

/// Reads a curve of a rig that is cooled like this, and the settings that are its levers.
pub(super) fn read((name, section): (Located<String>, Section), cooling: &str) -> Option<(Curve, Vec<Setting>)> {
    let label = section.optional_text("label").map_or_else(|| spoken(&name.value), |text| harmless(&text.value));
    let unit = unit(&section);
    let across = section.optional_text("across").map(|text| harmless(text.value.trim())).unwrap_or_default();
    let points = section.pairs("points");
    let ladder = read_ladder(&section);
    let levers = read_levers(&section);
    let is_shifted = levers.as_ref().is_some_and(|levers| levers.contains(&Lever::Offset));
    let offset = if is_shifted || section.has("offset") { section.section("offset") } else { None };
    let offset = offset.and_then(read_offset);
    if offset.is_some() && levers.is_some() && !is_shifted {
        section.problems().advise(section.at(), "its `levers` leave `offset` out", "leave one of the two out, or both");
    }
    let ceilings = section.named_numbers("ceiling", cooling);
    let largest_jump = section.optional_number("largest_jump").map(|jump| jump.value);
    let takes_effect = section.choice("takes_effect", &EFFECTS);
    let lost_on = read_lost_on(&section);
    let adapter = section.optional_text("adapter").map(|adapter| adapter.value).unwrap_or_default();
    let target = section.optional_text("target").map(|target| target.value).unwrap_or_default();
    let sits = section.optional_section("sits").map(read_sits).unwrap_or_default();
    let at = section.at();
    let problems = section.problems();
    let points = points.and_then(|points| rising(points, &section));
    section.finish();

    let (points, ladder, levers, takes_effect) = (points?, ladder?, levers?, takes_effect?);
    if takes_effect.value == TakesEffect::AtNextStart {
        let help = "write `takes_effect = \"at-once\"`, or \"by-hand\" where somebody sets it";
        problems.advise(takes_effect.at, "a curve has no line of its own in a file that is read at the start", help);
        return None;
    }
    for (value, at) in
        points.iter().map(|point| (point.value[1], &point.at)).chain(ceilings.iter().map(|(_, it)| (it.value, &it.at)))
    {
        if !ladder.contains(value) {
            let help = format!("the nearest value is {}", ladder.nearest(value));
            problems.advise(at.clone(), format!("{value} is not on the ladder"), help);
        }
    }
    let highest = points.last().map(|point| point.value[1])?;
    for (use_name, ceiling) in ceilings.iter().filter(|(_, ceiling)| ceiling.value < highest) {
        let what = format!("the ceiling for {} is below {highest}, the highest point as it comes", use_name.value);
        problems.add(ceiling.at.clone(), what);
    }
    if is_shifted && offset.is_none() {
        return None;
    }
    let named = |at: Decimal| format!("{}_{}", name.value, at.normalize().to_string().replace('.', "_"));
    let has = |lever: Lever| levers.contains(&lever);
    let curve = Curve {
        label,
        unit,
        across,
        offset: is_shifted.then(|| format!("{}_offset", name.value)),
        flat: has(Lever::Flat).then(|| format!("{}_flat", name.value)),
        points: points
            .iter()
            .map(|Located { value: [at, factory], .. }| Point {
                at: *at,
                factory: *factory,
                setting: has(Lever::Points).then(|| named(*at)),
            })
            .collect(),
        ceilings: ceilings.into_iter().map(|(use_name, value)| (use_name.value, value.value)).collect(),
        sits,
        name: name.value,
    };
    let common = Setting {
        outlet: None,
        name: String::new(),
        label: String::new(),
        unit: curve.unit.clone(),
        floor: ladder.lowest(),
        floor_by: None,
        ceilings: curve.ceilings.iter().cloned().collect(),
        stock: ladder.lowest(),
        ladder,
        largest_jump,
        tolerance: Decimal::ZERO,
        harder: Direction::Up,
        takes_effect: takes_effect.value,
        lost_on,
        confirm: None,
        confirmed_by: None,
        adapter,
        target,
        boot_line: None,
        words: Vec::new(),
        paid: Vec::new(),
        drives: Vec::new(),
    };
    let levers = settings(&curve, &common, offset);
    if levers.is_empty() {
        problems.advise(at, "nothing moves this curve", "name at least one of its `levers`, or leave them out for all");
        return None;
    }
    Some((curve, levers))
}

/// The settings that move a curve: what shifts all of it, from where it is flat, and its points.
fn settings(curve: &Curve, common: &Setting, offset: Option<Ladder>) -> Vec<Setting> {
    let (first, last) = (curve.points[0].at, curve.points[curve.points.len() - 1].at);
    let shifted = curve.offset.clone().zip(offset).map(|(name, ladder)| Setting {
        name,
        label: format!("{} offset", curve.label),
        stock: Decimal::ZERO,
        floor: ladder.lowest(),
        ceilings: common.ceilings.keys().map(|use_name| (use_name.clone(), ladder.highest())).collect(),
        ladder,
        ..common.clone()
    });
    let places = Ladder::values(curve.points.iter().map(|point| point.at).collect()).ok();
    let flattened = curve.flat.clone().zip(places).map(|(name, ladder)| Setting {
        name,
        label: format!("{} flat from", curve.label),
        unit: curve.across.clone(),
        stock: last,
        floor: first,
        ceilings: common.ceilings.keys().map(|use_name| (use_name.clone(), last)).collect(),
        largest_jump: None,
        ladder,
        ..common.clone()
    });
    let of_point = |point: &Point| {
        Some(Setting {
            name: point.setting.clone()?,
            label: curve.called(point),
            stock: point.factory,
            ..common.clone()
        })
    };
    shifted.into_iter().chain(flattened).chain(curve.points.iter().filter_map(of_point)).collect()
}

/// `levers = ["offset", "flat", "points"]`: all of them where nobody says.
fn read_levers(section: &Section) -> Option<Vec<Lever>> {
    let Some(texts) = section.optional_texts("levers") else { return Some(LEVERS.map(|(_, lever)| lever).to_vec()) };
    let lever = |text: &String| LEVERS.iter().find(|(word, _)| word == text).map(|(_, lever)| *lever);
    for odd in texts.value.iter().filter(|text| lever(text).is_none()) {
        section.problems().unknown(texts.at.clone(), "lever", odd, &LEVERS.map(|(word, _)| word));
    }
    texts.value.iter().map(lever).collect()
}

/// `offset = { from = -300, step = 15, to = 450 }`: how far all of it may be shifted.
fn read_offset(section: Section) -> Option<Ladder> {
    let (from, step, to) = (section.number("from"), section.number("step"), section.number("to"));
    let ladder = kept(Ladder::steps(from?.value, step?.value, to?.value), section.at(), &section);
    let ladder = ladder?;
    if !ladder.contains(Decimal::ZERO) {
        let help = "write a `from` at or below 0, in whole steps from it";
        section.problems().advise(section.at(), "an offset of 0 is not among these", help);
        return None;
    }
    section.finish();
    Some(ladder)
}

/// `sits = { across = "core_voltage", reached = "core_clock", limit = "limited_by" }`: sensors.
fn read_sits(section: Section) -> Sits {
    let name = |key| section.optional_text(key).map(|text| text.value);
    let sits = Sits { across: name("across"), reached: name("reached"), limit: name("limit") };
    section.finish();
    sits
}

/// Points from the lowest to the highest, which have no less from one to the next.
fn rising(points: Vec<Located<[Decimal; 2]>>, section: &Section) -> Option<Vec<Located<[Decimal; 2]>>> {
    let problems = section.problems();
    if points.len() < 2 || points.len() > MOST_POINTS {
        let what = format!("a curve has 2 to {MOST_POINTS} points, and this one has {}", points.len());
        problems.add(section.at(), what);
        return None;
    }
    let falls =
        |pair: &&[Located<[Decimal; 2]>]| pair[1].value[0] <= pair[0].value[0] || pair[1].value[1] < pair[0].value[1];
    if let Some(pair) = points.windows(2).find(falls) {
        let help = "write them from the lowest to the highest, none below the one before";
        problems.advise(pair[1].at.clone(), "the points of a curve rise", help);
        return None;
    }
    Some(points)
}

/// Whether the sensors that tell where a curve sits are there, and one that tells it across can be held against its points.
pub(super) fn check_sits(curve: &Curve, rig: &Rig, section: &Section) {
    let Sits { across, reached, limit } = &curve.sits;
    let known: Vec<&str> = rig.sensors.iter().map(|sensor| sensor.name.as_str()).collect();
    let sensor = |name: &String| -> Option<&Sensor> { rig.sensors.iter().find(|sensor| sensor.name == *name) };
    for name in [across, reached, limit].into_iter().flatten().filter(|name| sensor(name).is_none()) {
        section.problems().unknown(section.at(), "sensor", name, &known);
    }
    if let Some(sensor) = across.as_ref().and_then(sensor)
        && curve.across_by(sensor).is_none()
    {
        let example = with_unit(curve.points[0].at, &curve.across);
        let what = format!("{} reads {}, which points like {example} can't be found by", sensor.label, sensor.unit);
        section.problems().advise(section.at(), what, format!("name a sensor that reads {}", curve.across));
    }
}
