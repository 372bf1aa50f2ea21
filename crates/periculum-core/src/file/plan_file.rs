//! Plan files: `[plan]`, `[proof.NAME]` and `[[stage]]`, checked against the rig they are for.

use std::ops::Range;

use rust_decimal::Decimal;

use crate::file::program_file;
use crate::file::proof_file::{Runnable, read_passes};
use crate::file::section::{Located, Section};
use crate::ladder::{Direction, Ladder};
use crate::plan::{Plan, Proof, Stage, Steps, Strategy};
use crate::quantity::harmless;
use crate::rig::Rig;
use crate::setting::Setting;

/// The names that a stage's `strategy` may have.
const STRATEGIES: [(&str, Kind); 5] = [
    (Strategy::BASELINE, Kind::Baseline),
    ("ascend", Kind::Ascend),
    ("trim", Kind::Trim),
    ("seek", Kind::Seek),
    ("soak", Kind::Soak),
];

#[derive(Clone, Copy)]
enum Kind {
    Baseline,
    Ascend,
    Trim,
    Seek,
    Soak,
}

/// The path of the rig file that a plan names, relative to the plan; none where it names none.
pub fn rig_path(top: &Section) -> Option<Located<String>> {
    top.section("plan")?.text("rig")
}

/// Reads a plan for this rig, which can run these loads, and programs where it says so; problems go where the section's problems go.
pub fn read(top: &Section, rig: &Rig, loads: &[&str]) -> Option<Plan> {
    let head = top.section("plan")?;
    let name = head.text("name");
    let use_name = head.text("use");
    head.text("rig");
    head.finish();
    let programs = program_file::read(top, loads);
    let runnable = Runnable { loads, programs: &programs };
    let proofs: Vec<Located<Proof>> =
        top.named_sections("proof").into_iter().filter_map(|section| read_proof(section, runnable)).collect();
    let sections = top.list("stage");
    if sections.is_empty() {
        top.problems().advise(top.at(), "a plan needs at least one stage", "add a section like [[stage]]");
    }
    let stages: Vec<Stage> = sections.into_iter().filter_map(|section| read_stage(section, rig, &proofs)).collect();
    let use_name = use_name?;
    check_use(&use_name, rig, &stages, top);
    Some(Plan {
        name: harmless(&name?.value),
        use_name: use_name.value,
        proofs: proofs.into_iter().map(|proof| proof.value).collect(),
        stages,
    })
}

fn read_proof((name, section): (Located<String>, Section), runnable: Runnable) -> Option<Located<Proof>> {
    let passes = read_passes(&section, &name, runnable);
    section.finish();
    Some(Located { value: Proof { name: harmless(&name.value), passes }, at: name.at })
}

fn read_stage(section: Section, rig: &Rig, proofs: &[Located<Proof>]) -> Option<Stage> {
    let kind = section.choice("strategy", &STRATEGIES);
    let proof = section.text("proof");
    // Which keys belong to a stage can't be told without its strategy.
    let kind_is_known = kind.is_some();
    let strategy = kind.and_then(|kind| match kind.value {
        Kind::Baseline => {
            let repeats = section.optional_count("repeats", 1).map_or(1, |count| count.value);
            Some(Strategy::Baseline { repeats, within: read_within(&section) })
        }
        Kind::Ascend => read_steps(&section, rig, kind.at, Some(Direction::Up)).map(Strategy::Ascend),
        Kind::Trim => read_steps(&section, rig, kind.at, Some(Direction::Down)).map(Strategy::Trim),
        Kind::Seek => read_steps(&section, rig, kind.at, None).map(Strategy::Seek),
        Kind::Soak => {
            let margin = section.optional_count("margin", 0).map_or(0, |margin| margin.value);
            read_steps(&section, rig, kind.at, None).map(|steps| Strategy::Soak { steps, margin })
        }
    });
    let problems = section.problems();
    if kind_is_known {
        section.finish();
    }
    let proof = proof?;
    let index = proofs.iter().position(|known| known.value.name == proof.value);
    if index.is_none() {
        let known: Vec<&str> = proofs.iter().map(|known| known.value.name.as_str()).collect();
        problems.unknown(proof.at, "proof", &proof.value, &known);
    }
    Some(Stage { strategy: strategy?, proof: index? })
}

/// `within = "1%"` as a share.
fn read_within(section: &Section) -> Option<Decimal> {
    let text = section.optional_text("within")?;
    let percent = text.value.trim().strip_suffix('%').and_then(|number| number.trim().parse::<Decimal>().ok());
    match percent.filter(|percent| *percent > Decimal::ZERO && *percent < Decimal::ONE_HUNDRED) {
        Some(percent) => Some(percent / Decimal::ONE_HUNDRED),
        None => {
            let what = format!("`{}` is not a share above 0% and below 100%", text.value);
            section.problems().advise(text.at, what, "write it as in `within = \"1%\"`");
            None
        }
    }
}

/// The setting that a stage moves, and how: `setting`, `step`, `back`.
fn read_steps(section: &Section, rig: &Rig, strategy: Range<usize>, wanted: Option<Direction>) -> Option<Steps> {
    let name = section.text("setting");
    let step = section.optional_number("step");
    let back = section.optional_count("back", 1).map_or(1, |count| count.value);
    let problems = section.problems();
    let name = name?;
    let Some(setting) = rig.setting(&name.value) else {
        let known: Vec<&str> = rig.settings.iter().map(|setting| setting.name.as_str()).collect();
        problems.unknown(name.at, "setting", &name.value, &known);
        return None;
    };
    if wanted.is_some_and(|wanted| wanted != setting.harder) {
        let (does, other) = match setting.harder {
            Direction::Up => ("takes away", "ascend"),
            Direction::Down => ("adds", "trim"),
        };
        let what = format!("this {does} what makes {} easier to hold, so it would never fall", setting.label);
        problems.advise(strategy, what, format!("write `strategy = \"{other}\"`"));
    }
    if let Some(step) = &step {
        check_step(step, setting, section);
    }
    Some(Steps { setting: name.value, step: step.map(|step| step.value), back })
}

fn check_step(step: &Located<rust_decimal::Decimal>, setting: &Setting, section: &Section) {
    let problems = section.problems();
    if step.value <= rust_decimal::Decimal::ZERO {
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

/// Every setting that moves needs a ceiling for the plan's use: a climb without one would have no end.
fn check_use(use_name: &Located<String>, rig: &Rig, stages: &[Stage], top: &Section) {
    for name in stages.iter().filter_map(|stage| stage.strategy.setting()) {
        let Some(setting) = rig.setting(name) else { continue };
        if !setting.ceilings.contains_key(&use_name.value) {
            let known: Vec<&str> = setting.ceilings.keys().map(String::as_str).collect();
            let kind = format!("ceiling of {} for the use", setting.label);
            top.problems().unknown(use_name.at.clone(), &kind, &use_name.value, &known);
        }
    }
}
