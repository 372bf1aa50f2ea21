//! Plan files: `[plan]`, `[proof.NAME]`, `[[stage]]` and what goes with them, checked against the rig they are for.

use std::collections::BTreeSet;

use crate::files::budget_file;
use crate::files::program_file;
use crate::files::proof_file::{Runnable, read_passes};
use crate::files::section::{Located, Section};
use crate::files::share::read_assurance;
use crate::files::stage_file::{self, Surroundings};
use crate::files::start_file;
use crate::model::plan::{ARM_AFTER, Ends, Plan, Proof, Raised, Stage};
use crate::model::quantity::harmless;
use crate::model::rig::Rig;

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
    let unattended = head.optional_flag("unattended");
    if let Some(at) = unattended.as_ref().filter(|flag| flag.value && rig.watchdog.is_empty()).map(|flag| &flag.at) {
        let what = "nobody can restart this rig: its file names no watchdog";
        head.problems().advise(at.clone(), what, "write `watchdog = \"/dev/watchdog\"` below [rig] in the rig file");
    }
    let ways = [("by-somebody", false), ("by-itself", true)];
    let places = [("at-stock", Ends::AtStock), ("at-mark", Ends::AtMark)];
    let ends = if head.has("ends") { head.choice("ends", &places) } else { None };
    let restarts = if head.has("restarts") { head.choice("restarts", &ways) } else { None };
    let arm_after = if head.has("arm_after") { head.time("arm_after") } else { None };
    let wants = read_assurance(&head, None);
    head.finish();
    let programs = program_file::read(top, loads);
    let sensors: Vec<&str> = rig.read_by_hand().map(|sensor| sensor.name.as_str()).collect();
    let runnable = Runnable { loads, programs: &programs, sensors: &sensors };
    let proofs: Vec<Located<Proof>> =
        top.named_sections("proof").into_iter().filter_map(|section| read_proof(section, runnable)).collect();
    let use_name = use_name?;
    let raised = read_raised(top, rig, &use_name.value);
    let rig = &rig.clone().raised(&use_name.value, &raised);
    let profiles = start_file::read(top, rig, &use_name.value);
    let sections = top.list("stage");
    let saves: Vec<Option<String>> =
        sections.iter().map(|section| section.optional_text("save").map(|name| harmless(&name.value))).collect();
    if sections.is_empty() {
        top.problems().advise(top.at(), "a plan needs at least one stage", "add a section like [[stage]]");
    }
    let read_stage = |(place, section): (usize, Section)| {
        let saved: Vec<&str> = saves[..place].iter().flatten().map(String::as_str).collect();
        let use_name = &use_name.value;
        let (proofs, profiles, saved) = (&proofs, &profiles, &saved);
        stage_file::read(section, &Surroundings { rig, use_name, proofs, profiles, saved, wants })
    };
    let stages: Vec<Stage> = sections.into_iter().enumerate().filter_map(read_stage).collect();
    check_use(&use_name, rig, &stages, top);
    let proofs: Vec<Proof> = proofs.iter().map(|proof| proof.value.clone()).collect();
    let first = stages.first().map(|stage| &proofs[stage.proof]);
    let budget = budget_file::read(top, first);
    Some(Plan {
        name: harmless(&name?.value),
        use_name: use_name.value,
        proofs,
        stages,
        budget,
        raised,
        unattended: unattended.is_some_and(|flag| flag.value),
        restarts_itself: restarts.is_some_and(|way| way.value),
        ends: ends.map(|ends| ends.value).unwrap_or_default(),
        arm_after: arm_after.map_or(ARM_AFTER, |time| time.value),
    })
}

/// `[raise.SETTING]`: a ceiling goes up for this climb, and the record keeps why.
fn read_raised(top: &Section, rig: &Rig, use_name: &str) -> Vec<Raised> {
    let read = |(name, section): (Located<String>, Section)| {
        let ceiling = section.number("ceiling");
        let because = section.text("because");
        let problems = section.problems();
        section.finish();
        let (ceiling, because) = (ceiling?, because?);
        let Some(setting) = rig.setting(&name.value) else {
            let known: Vec<&str> = rig.settings.iter().map(|setting| setting.name.as_str()).collect();
            problems.unknown(name.at, "setting", &name.value, &known);
            return None;
        };
        let present = setting.ceiling(use_name);
        let (at, what, help) = if because.value.trim().is_empty() {
            (because.at, "a ceiling is not raised without a reason".to_owned(), "say why that is all right".to_owned())
        } else if !setting.ladder.contains(ceiling.value) {
            let near = setting.ladder.nearest(ceiling.value);
            (ceiling.at, format!("{} is not on the ladder", ceiling.value), format!("the nearest value is {near}"))
        } else if ceiling.value <= present {
            let what = format!("the ceiling for {use_name} is {} already", setting.written(present));
            (ceiling.at, what, "leave this section out, or lower it in the rig file".to_owned())
        } else {
            return Some(Raised { setting: name.value, ceiling: ceiling.value, because: harmless(&because.value) });
        };
        problems.advise(at, what, help);
        None
    };
    top.named_sections("raise").into_iter().filter_map(read).collect()
}

fn read_proof((name, section): (Located<String>, Section), runnable: Runnable) -> Option<Located<Proof>> {
    let passes = read_passes(&section, &name, runnable);
    section.finish();
    Some(Located { value: Proof { name: harmless(&name.value), passes }, at: name.at })
}

/// Every setting that moves needs a ceiling for the plan's use: a climb without one would have no end.
fn check_use(use_name: &Located<String>, rig: &Rig, stages: &[Stage], top: &Section) {
    let moved: Vec<&str> = stages.iter().flat_map(|stage| stage.strategy.settings()).collect();
    let mut told = BTreeSet::new();
    for setting in moved.into_iter().filter_map(|name| rig.setting(name)) {
        if !setting.ceilings.contains_key(&use_name.value) && told.insert(&setting.name) {
            let known: Vec<&str> = setting.ceilings.keys().map(String::as_str).collect();
            let kind = format!("ceiling of {} for the use", setting.label);
            top.problems().unknown(use_name.at.clone(), &kind, &use_name.value, &known);
        }
    }
}
