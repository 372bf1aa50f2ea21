//! `[[stage]]` of a plan file: one strategy, and the keys that belong to it.

use std::ops::Range;

use rust_decimal::Decimal;

use crate::engine::Question;
use crate::files::section::{Located, Section};
use crate::files::share::{read_assurance, read_share};
use crate::model::ladder::{Direction, Ladder};
use crate::model::plan::{Pin, Proof, Stage, Start};
use crate::model::quantity::{counted, harmless};
use crate::model::rig::Rig;
use crate::model::rung::Rung;
use crate::model::setting::Setting;
use crate::model::strategy::{Assurance, Each, Margin, Steps, Strategy, Sweep};

/// A grid of more combinations than this is a slip of the pen.
const MOST_COMBINATIONS: usize = 5000;

/// How often `peak` measures each value where nobody says.
const USUAL_REPEATS: u32 = 3;

/// What a stage is read against.
pub(super) struct Surroundings<'a> {
    pub(super) rig: &'a Rig,
    pub(super) use_name: &'a str,
    pub(super) proofs: &'a [Located<Proof>],
    pub(super) profiles: &'a [(String, Rung)],
    /// The names under which the stages before save what they come to.
    pub(super) saved: &'a [&'a str],
    /// What the plan wants of marks.
    pub(super) wants: Option<Assurance>,
}

#[derive(Clone, Copy)]
enum Kind {
    Baseline,
    Open,
    Ascend,
    Feed,
    Trim,
    Seek,
    Map,
    Grid,
    Each,
    Peak,
    Lead,
    Soak,
}

/// The names that a stage's `strategy` may have.
const STRATEGIES: [(&str, Kind); 12] = [
    (Strategy::BASELINE, Kind::Baseline),
    ("open", Kind::Open),
    ("ascend", Kind::Ascend),
    ("feed", Kind::Feed),
    ("trim", Kind::Trim),
    ("seek", Kind::Seek),
    ("map", Kind::Map),
    ("grid", Kind::Grid),
    ("each", Kind::Each),
    ("peak", Kind::Peak),
    ("lead", Kind::Lead),
    ("soak", Kind::Soak),
];

/// Reads a stage.
pub(super) fn read(section: Section, around: &Surroundings) -> Option<Stage> {
    let kind = section.choice("strategy", &STRATEGIES);
    let proof = section.text("proof");
    let start = section.optional_text("start");
    let save = section.optional_text("save").map(|name| harmless(&name.value));
    // Which keys belong to a stage can't be told without its strategy.
    let kind_is_known = kind.is_some();
    let pinned = read_pin(&section, around);
    let wants = read_assurance(&section, around.wants);
    let strategy = kind.and_then(|kind| read_strategy(&kind, &section, around, pinned.as_ref()));
    let problems = section.problems();
    let start = start.map_or(Some(Start::Last), |start| read_start(&start, &section, around));
    if kind_is_known {
        section.finish();
    }
    let proof = proof?;
    let name = harmless(&proof.value);
    let index = around.proofs.iter().position(|known| known.value.name == name);
    if index.is_none() {
        let known: Vec<&str> = around.proofs.iter().map(|known| known.value.name.as_str()).collect();
        problems.unknown(proof.at.clone(), "proof", &proof.value, &known);
    }
    let strategy = strategy?;
    let is_by_hand = around.proofs[index?].value.is_by_hand();
    if is_by_hand && matches!(strategy, Strategy::Seek { .. } | Strategy::Map { .. }) {
        let what = format!(
            "`{}` chooses how long its trials take, and a pass by hand takes as long as it takes",
            strategy.name()
        );
        problems.advise(proof.at, what, "write `strategy = \"ascend\"`, `\"grid\"` or `\"lead\"`");
    }
    Some(Stage { strategy, proof: index?, start: start?, save, pin: pinned.map(|pinned| pinned.pin), wants })
}

fn read_strategy(
    kind: &Located<Kind>,
    section: &Section,
    around: &Surroundings,
    pinned: Option<&Pinned>,
) -> Option<Strategy> {
    let steps = |wanted| read_steps(section, around, &kind.at, wanted, pinned);
    match kind.value {
        Kind::Baseline => {
            let repeats = section.optional_count("repeats", 1).map_or(1, |count| count.value);
            let within = section.optional_text("within").and_then(|text| read_share(&text, "within", section));
            let idle = if section.has("idle") { section.time("idle") } else { None };
            let starts = read_starts(section, around, repeats);
            Some(Strategy::Baseline { repeats, within, idle: idle.map(|idle| idle.value), starts })
        }
        Kind::Open => {
            let name = section.text("setting")?;
            let setting = known(&name, section, around)?;
            Some(Strategy::Open { setting: setting.name.clone() })
        }
        Kind::Ascend => steps(Some(Direction::Up)).map(Strategy::Ascend),
        Kind::Trim => steps(Some(Direction::Down)).map(Strategy::Trim),
        Kind::Seek => {
            let margin = read_margin(section);
            steps(None).map(|steps| Strategy::Seek { steps, margin })
        }
        Kind::Feed => read_feed(steps(None), section, around),
        Kind::Map => {
            let (steps, over) = (steps(None), section.section("over"));
            let over = over.and_then(|over| read_sweep(over, around));
            Some(Strategy::Map { steps: steps?, over: over? })
        }
        Kind::Grid => read_grid(section, around),
        Kind::Each => read_each(section, around),
        Kind::Peak => {
            let repeats = section.optional_count("repeats", 2).map_or(USUAL_REPEATS, |count| count.value);
            steps(None).map(|steps| Strategy::Peak { steps, repeats })
        }
        Kind::Lead => read_lead(section, around),
        Kind::Soak => {
            let margin = read_margin(section);
            let steps = if section.has("settings") {
                read_all_steps(section, around)
            } else {
                steps(None).map(|steps| vec![steps])
            };
            steps.map(|steps| Strategy::Soak { steps, margin })
        }
    }
}

/// `setting`, or the first one that may become harder than stock.
fn read_lead(section: &Section, around: &Surroundings) -> Option<Strategy> {
    let can_move = |setting: &&Setting| match setting.harder {
        Direction::Up => setting.ceiling(around.use_name) > setting.stock,
        Direction::Down => setting.floor < setting.stock,
    };
    let setting = match section.optional_text("setting") {
        _ if around.rig.setting(Question::PROOF).is_some() => {
            let what =
                format!("a rig with a setting called `{}` can't be led: a line could mean either", Question::PROOF);
            section.problems().add(section.at(), what);
            return None;
        }
        Some(name) => known(&name, section, around)?,
        None => {
            let first = around.rig.settings.iter().find(can_move);
            if first.is_none() {
                let help = "give a setting of the rig a `ceiling` beyond stock for this use";
                section.problems().advise(section.at(), "no setting may become harder than stock", help);
            }
            first?
        }
    };
    Some(Strategy::Lead { setting: setting.name.clone() })
}

/// A curve that is pinned at a point, whose own value then climbs.
struct Pinned {
    pin: Pin,
    climbs: String,
}

/// `setting = "core"` and `pin = 900`: flat from this point on, so that nothing lies above it.
fn read_pin(section: &Section, around: &Surroundings) -> Option<Pinned> {
    let at = section.optional_number("pin")?;
    let problems = section.problems();
    let name = if section.has_text("setting") { section.text("setting") } else { None };
    let curve = around.rig.curves.iter().find(|curve| name.as_ref().is_some_and(|name| name.value == curve.name));
    let Some(curve) = curve else {
        let curves: Vec<&str> = around.rig.curves.iter().map(|curve| curve.name.as_str()).collect();
        let help = match &curves[..] {
            [] => "the rig has no section [curve.…]; leave `pin` out".to_owned(),
            curves => format!("write `setting = \"{}\"`", curves.join("\"` or `\"")),
        };
        problems.advise(at.at, "only a curve is pinned at one of its points", help);
        return None;
    };
    let Some(point) = curve.point(at.value) else {
        let points: Vec<String> = curve.points.iter().map(|point| point.at.to_string()).collect();
        problems.advise(
            at.at,
            format!("{} has no point at {}", curve.label, at.value),
            format!("its points are {}", points.join(", ")),
        );
        return None;
    };
    let levers = point.setting.clone().zip(curve.flat.clone());
    if levers.is_none() {
        let what = format!("{} can't be pinned and climbed at a point, since its `levers` are others", curve.label);
        problems.advise(at.at.clone(), what, "leave `pin` out, or give it the levers `flat` and `points`");
    }
    levers.map(|(climbs, setting)| Pinned { pin: Pin { setting, at: at.value }, climbs })
}

/// `start = "stock"`, `"last"` or the name of a profile, of the plan or of a stage before.
fn read_start(start: &Located<String>, section: &Section, around: &Surroundings) -> Option<Start> {
    match start.value.as_str() {
        "last" => Some(Start::Last),
        "stock" => Some(Start::Stock),
        name if around.saved.contains(&name) => Some(Start::Saved(name.to_owned())),
        name => {
            let found = around.profiles.iter().find(|(known, _)| known == name);
            if found.is_none() {
                let profiles = around.profiles.iter().map(|(name, _)| name.as_str());
                let known: Vec<&str> =
                    ["last", "stock"].into_iter().chain(profiles).chain(around.saved.iter().copied()).collect();
                section.problems().unknown(start.at.clone(), "start", name, &known);
            }
            found.map(|(_, rung)| Start::Profile(rung.clone()))
        }
    }
}

/// `starts = 3`: over how many starts of the machine so many trials are spread.
fn read_starts(section: &Section, around: &Surroundings, repeats: u32) -> u32 {
    let Some(starts) = section.optional_count("starts", 1).filter(|starts| starts.value > 1) else { return 1 };
    if !around.rig.settings.iter().any(Setting::needs_start) {
        let what = "no setting of this rig needs a start, so that nobody would start it anew for a trial";
        section.problems().advise(starts.at, what, "leave out `starts`");
    } else if starts.value > repeats {
        let what = format!("{} can't be spread over {} starts", counted(repeats as usize, "trial"), starts.value);
        section.problems().advise(starts.at, what, "write at least as many `repeats` as `starts`");
    }
    starts.value
}

/// `margin = 2`, in steps, or `"3%"` of the mark.
fn read_margin(section: &Section) -> Margin {
    if section.has_text("margin") {
        let share = section.optional_text("margin").and_then(|text| read_share(&text, "margin", section));
        return share.map_or(Margin::Steps(0), Margin::Share);
    }
    Margin::Steps(section.optional_count("margin", 0).map_or(0, |margin| margin.value))
}

/// `feed = { setting = "core_voltage", step = 0.01 }`.
fn read_feed(steps: Option<Steps>, section: &Section, around: &Surroundings) -> Option<Strategy> {
    let fed = section.section("feed")?;
    let at = fed.at();
    let feed = read_steps(&fed, around, &at, None, None);
    fed.finish();
    let (steps, feed) = (steps?, feed?);
    if steps.setting == feed.setting {
        section.problems().add(at, "a setting can't be fed with itself: name what makes it easier to hold");
        return None;
    }
    Some(Strategy::Feed { steps, feed })
}

fn read_grid(section: &Section, around: &Surroundings) -> Option<Strategy> {
    let sections = section.list("over");
    let problems = section.problems();
    if sections.len() < 2 {
        let help = "write `over = [{ setting = \"bus_clock\" }, { setting = \"multiplier\" }]`";
        problems.advise(section.at(), "a grid has two settings or more", help);
        return None;
    }
    let over: Vec<Option<Sweep>> = sections.into_iter().map(|section| read_sweep(section, around)).collect();
    let over: Vec<Sweep> = over.into_iter().collect::<Option<_>>()?;
    let combinations = over.iter().map(|sweep| sweep.values.len()).fold(1usize, usize::saturating_mul);
    if combinations > MOST_COMBINATIONS {
        let what = format!("these are {combinations} combinations, of which {MOST_COMBINATIONS} at most are tried");
        problems.advise(section.at(), what, "narrow them with `from`, `to` and `step`");
    }
    let repeated =
        over.iter().enumerate().any(|(index, one)| over[..index].iter().any(|other| other.setting == one.setting));
    if repeated {
        problems.add(section.at(), "a grid has each setting once");
        return None;
    }
    Some(Strategy::Grid { over })
}

/// `settings = ["core_0", "core_1"]`, how they step, and where they are parked.
fn read_each(section: &Section, around: &Surroundings) -> Option<Strategy> {
    let park = section.optional_number("park");
    let margin = read_margin(section);
    let steps = read_all_steps(section, around)?;
    let parked = |steps: &Steps| {
        let setting = around.rig.setting(&steps.setting)?;
        let usual = if setting.harder == Direction::Up { setting.floor } else { setting.stock };
        let value = park.as_ref().map_or(usual, |park| park.value);
        if !setting.allows(value, around.use_name) {
            let at = park.as_ref().map_or(section.at(), |park| park.at.clone());
            let what = format!("{} can't be parked at {}", setting.label, setting.written(value));
            section.problems().add(at, what);
        }
        Some(value)
    };
    let park = steps.iter().filter_map(parked).collect();
    Some(Strategy::Each(Each { steps, park, margin }))
}

/// `settings = ["core_0", "core_1"]`, and how all of them step: `step`, `back`.
fn read_all_steps(section: &Section, around: &Surroundings) -> Option<Vec<Steps>> {
    let names = section.optional_texts("settings");
    let sizes = section.number_or_numbers("step");
    let back = section.optional_count("back", 1).map_or(1, |count| count.value);
    let problems = section.problems();
    let Some(names) = names.filter(|names| names.value.len() > 1) else {
        let help = "write `settings = [\"core_0\", \"core_1\"]`";
        problems.advise(section.at(), "this needs two `settings` or more", help);
        return None;
    };
    let mut all: Vec<Steps> = Vec::new();
    for name in &names.value {
        let setting = known(&Located { value: name.clone(), at: names.at.clone() }, section, around)?;
        if all.iter().any(|steps| steps.setting == *name) {
            problems.add(names.at.clone(), format!("`{name}` is there twice"));
        }
        let (coarse, step) = split(&sizes, setting, section);
        all.push(Steps { setting: name.clone(), coarse, step, back });
    }
    Some(all)
}

/// Values of a setting: `{ setting = "core_voltage", from = 1.2, to = 1.3, step = 0.02 }`.
fn read_sweep(section: Section, around: &Surroundings) -> Option<Sweep> {
    let name = section.text("setting");
    let (from, to) = (section.optional_number("from"), section.optional_number("to"));
    let step = section.optional_number("step");
    let setting = known(&name?, &section, around)?;
    for number in [&from, &to].into_iter().flatten() {
        if !setting.allows(number.value, around.use_name) {
            let what = format!("{} is off the ladder or beyond its limits", setting.written(number.value));
            let near = setting.ladder.nearest(number.value.clamp(setting.floor, setting.ceiling(around.use_name)));
            section.problems().advise(number.at.clone(), what, format!("the nearest value is {near}"));
            return None;
        }
    }
    if let Some(step) = &step {
        check_step(step, setting, &section);
    }
    let first = from.map_or(setting.floor, |from| from.value);
    let last = to.map_or(setting.ceiling(around.use_name), |to| to.value);
    let next = |value: &Decimal| match &step {
        Some(step) if step.value > Decimal::ZERO => Some(*value + step.value),
        _ => setting.ladder.next(*value, Direction::Up),
    };
    let values = std::iter::successors(Some(first), next).take_while(|value| *value <= last).take(MOST_COMBINATIONS);
    let mut values: Vec<Decimal> = values.filter(|value| setting.ladder.contains(*value)).collect();
    if values.is_empty() {
        section.problems().add(section.at(), format!("there is no value of {} from {first} to {last}", setting.label));
        return None;
    }
    section.finish();
    if setting.harder == Direction::Down {
        values.reverse();
    }
    Some(Sweep { setting: setting.name.clone(), values })
}

/// The setting that a stage moves, and how: `setting`, `step`, `back`.
fn read_steps(
    section: &Section,
    around: &Surroundings,
    strategy: &Range<usize>,
    wanted: Option<Direction>,
    pinned: Option<&Pinned>,
) -> Option<Steps> {
    let name = section.text("setting");
    let sizes = section.number_or_numbers("step");
    let back = section.optional_count("back", 1).map_or(1, |count| count.value);
    let problems = section.problems();
    let setting = match pinned {
        Some(pinned) => around.rig.setting(&pinned.climbs)?,
        None => known(&name?, section, around)?,
    };
    if wanted.is_some_and(|wanted| wanted != setting.harder) {
        let (does, other) = match setting.harder {
            Direction::Up => ("takes away", "ascend"),
            Direction::Down => ("adds", "trim"),
        };
        let what = format!("this {does} what makes {} easier to hold, so it would never fall", setting.label);
        problems.advise(strategy.clone(), what, format!("write `strategy = \"{other}\"`"));
    }
    let (coarse, step) = split(&sizes, setting, section);
    Some(Steps { setting: setting.name.clone(), coarse, step, back })
}

/// Sizes of steps from coarse to fine: those before the last, and the last.
fn split(sizes: &[Located<Decimal>], setting: &Setting, section: &Section) -> (Vec<Decimal>, Option<Decimal>) {
    sizes.iter().for_each(|size| check_step(size, setting, section));
    if let Some(pair) = sizes.windows(2).find(|pair| pair[1].value >= pair[0].value) {
        let help = "write the coarse ones first, as in `step = [100, 25]`";
        section.problems().advise(pair[1].at.clone(), "steps become finer, not coarser", help);
    }
    let Some((last, coarse)) = sizes.split_last() else { return (Vec::new(), None) };
    (coarse.iter().map(|size| size.value).collect(), Some(last.value))
}

/// The setting of this name; a curve's own name is that of what shifts all of it.
fn known<'a>(name: &Located<String>, section: &Section, around: &Surroundings<'a>) -> Option<&'a Setting> {
    let curve = around.rig.curves.iter().find(|curve| curve.name == name.value);
    let named = curve.and_then(|curve| curve.offset.as_deref()).unwrap_or(&name.value);
    let found = around.rig.setting(named);
    if found.is_none() {
        let curves = around.rig.curves.iter().map(|curve| curve.name.as_str());
        let settings = around.rig.settings.iter().map(|setting| setting.name.as_str());
        let known: Vec<&str> = curves.chain(settings).collect();
        section.problems().unknown(name.at.clone(), "setting", &name.value, &known);
    }
    found
}

fn check_step(step: &Located<Decimal>, setting: &Setting, section: &Section) {
    let problems = section.problems();
    if step.value <= Decimal::ZERO {
        problems.add(step.at.clone(), "a step must be above 0");
        return;
    }
    match &setting.ladder {
        Ladder::Steps { step: rung, .. } if !(step.value % *rung).is_zero() => {
            let what = format!(
                "steps of {} miss the ladder of {}, which has one value every {rung}",
                step.value, setting.label
            );
            let nearest = (step.value / *rung).round().max(1.into()) * *rung;
            problems.advise(step.at.clone(), what, format!("write a multiple of {rung}, such as {nearest}"));
        }
        Ladder::Values(_) => {
            let what = format!("the ladder of {} is a list, which has no even step", setting.label);
            problems.advise(step.at.clone(), what, "leave `step` out to go one value at a time");
        }
        Ladder::Steps { .. } => {}
    }
}
