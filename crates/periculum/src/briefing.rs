//! A rig and a plan, read and checked together with the adapters that serve them.

use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::{fs, io};

use anyhow::Result;
use periculum_core::analysis::forecast::forecast;
use periculum_core::files::written::with_starts;
use periculum_core::files::{
    Document, Located, Problem, Problems, Section, plan_file, program_file, proof_file, rig_file,
};
use periculum_core::inference::worked::Worked;
use periculum_core::model::amount::written;
use periculum_core::model::budget::Budget;
use periculum_core::model::moment::Span;
use periculum_core::model::pass::Pass;
use periculum_core::model::plan::{ARM_AFTER, Ends, Plan, Stage};
use periculum_core::model::program::Program;
use periculum_core::model::quantity::counted;
use periculum_core::model::rig::{Place, Rig};
use periculum_core::model::rung::Rung;
use periculum_core::model::setting::TakesEffect;
use periculum_core::model::strategy::Strategy;
use periculum_core::telling::forecast_words;
use periculum_loads::catalogue;
use periculum_rigs::adapters::Adapters;
use periculum_rigs::linux;

use crate::complaint::{BadFile, BadInput};
use crate::loading::too_short;
use crate::telling::files;

/// No rig, plan, proof or table of readings is larger than this, bytes.
const LARGEST: u64 = 64 << 20;

/// A file's path, for messages, and its text.
#[derive(Clone, Debug)]
pub(crate) struct SourceFile {
    pub(crate) path: PathBuf,
    pub(crate) text: String,
}

/// Everything a climb needs to know before it begins.
#[derive(Clone, Debug)]
pub(crate) struct Briefing {
    pub(crate) rig: Arc<Rig>,
    pub(crate) plan: Arc<Plan>,
    /// What serves the rig.
    pub(crate) adapters: Adapters,
    pub(crate) rig_text: String,
    pub(crate) plan_text: String,
}

impl SourceFile {
    /// Reads a file.
    pub(crate) fn read(path: &Path) -> Result<Self> {
        let told = |error: io::Error| BadInput(files::cannot_read_for(path.display(), &error));
        // A pipe or a device may never end, or never begin.
        let metadata = fs::metadata(path).map_err(told)?;
        if !metadata.is_file() {
            return Err(BadInput(files::no_regular_file(path.display())).into());
        }
        if metadata.len() > LARGEST {
            let size = written(metadata.len());
            return Err(BadInput(files::too_large(path.display(), &size)).into());
        }
        let text = fs::read_to_string(path).map_err(told)?;
        Ok(Self { path: path.to_owned(), text })
    }

    fn bad(self, problems: Vec<Problem>) -> anyhow::Error {
        BadFile { path: self.path, source_text: self.text, problems }.into()
    }
}

/// Tells what was saved of the rig of a name, which stages may start from.
pub(crate) type SavedOf<'a> = &'a dyn Fn(&str) -> Vec<(String, Rung)>;

impl Briefing {
    /// Reads the plan at this path, and the rig that it names.
    pub(crate) fn read(plan_path: &Path) -> Result<Self> {
        let plan = SourceFile::read(plan_path)?;
        Self::of_text(plan_path, plan.text)
    }

    /// The same, where stages may start from profiles that were saved of the rig, which this tells.
    pub(crate) fn read_with(plan_path: &Path, saved_of: SavedOf) -> Result<Self> {
        let plan = SourceFile::read(plan_path)?;
        let rig = Self::without_plan(plan_path, plan.text.clone()).ok().map(|briefing| briefing.rig);
        let text = rig.map_or_else(|| plan.text.clone(), |rig| with_starts(&plan.text, &saved_of(&rig.name)));
        Self::of_text(plan_path, text)
    }

    /// Reads this text as the plan at this path, and the rig that it names.
    pub(crate) fn of_text(plan_path: &Path, text: String) -> Result<Self> {
        let plan = SourceFile { path: plan_path.to_owned(), text };
        let Some(named) = rig_path_of(&plan)? else {
            return Err(plan_without_rig(plan));
        };
        let rig_path = plan_path.parent().unwrap_or(Path::new(".")).join(&named.value);
        wants_better(&plan)?;
        match SourceFile::read(&rig_path) {
            Ok(rig) => Self::of(rig, plan),
            // Told at the line of the plan that names it.
            Err(why) => Err(plan.bad(vec![Problem { at: named.at, what: format!("{why:#}"), help: None }])),
        }
    }

    /// The rig that this text of a plan names, with a plan that has no stages.
    pub(crate) fn without_plan(plan_path: &Path, text: String) -> Result<Self> {
        let plan = SourceFile { path: plan_path.to_owned(), text };
        let Some(rig_path) = rig_path_of(&plan)? else {
            return Err(plan_without_rig(plan));
        };
        let rig_file = SourceFile::read(&plan_path.parent().unwrap_or(Path::new(".")).join(&rig_path.value))?;
        let (rig, adapters) = match read_rig(&rig_file.text) {
            Ok(read) => read,
            Err(problems) => return Err(rig_file.bad(problems)),
        };
        let empty = Plan {
            name: files::NO_PLAN_YET.into(),
            use_name: "no".into(),
            proofs: Vec::new(),
            stages: Vec::new(),
            budget: Budget::default(),
            raised: Vec::new(),
            unattended: false,
            restarts_itself: false,
            ends: Ends::AtStock,
            arm_after: ARM_AFTER,
        };
        let (rig, empty) = (Arc::new(rig), Arc::new(empty));
        Ok(Self { rig, plan: empty, adapters, rig_text: rig_file.text, plan_text: plan.text })
    }

    /// What of the plan will come to nothing on this machine, in words.
    pub(crate) fn warnings(&self) -> Vec<String> {
        if !self.adapters.is_here() {
            return Vec::new();
        }
        let mut warnings = too_short(&linux::Linux::below(Path::new("/")), &self.plan);
        warnings.extend(self.load_run_unawares().map(files::runs_here));
        warnings
    }

    /// What a claim of the plan rests on that the rig's owner could say better.
    pub(crate) fn taken_for_granted(&self) -> Option<String> {
        let is_granted = self.claims() && self.rig.history.is_empty();
        is_granted.then(|| files::taken_for_granted(Span::from_seconds(Worked::USUALLY.seconds as u64)))
    }

    /// Whether the plan looks for something that can be claimed.
    pub(crate) fn claims(&self) -> bool {
        let claims = |stage: &Stage| stage.wants.is_some() || matches!(stage.strategy, Strategy::Seek { .. });
        self.plan.stages.iter().any(claims)
    }

    /// A load that runs on this computer though everything else says that the rig is another machine: people do all there is to be
    /// done to it.
    fn load_run_unawares(&self) -> Option<&str> {
        let settings = &self.rig.settings;
        let is_set_by_hand = settings.iter().all(|setting| setting.takes_effect == TakesEffect::ByHand);
        let is_read_here = self.rig.sensors.iter().any(|sensor| sensor.adapter == linux::ADAPTER);
        if self.rig.place == Place::Here || is_read_here {
            return None;
        }
        let mut passes = self.plan.proofs.iter().flat_map(|proof| &proof.passes);
        let runs = passes.find(|pass| pass.by_hand.is_none())?;
        (is_set_by_hand && !settings.is_empty()).then_some(runs.load.as_str())
    }

    /// Checks a rig and a plan that have been read, as the ledger keeps them.
    pub(crate) fn of(rig_file: SourceFile, plan_file: SourceFile) -> Result<Self> {
        let (rig, adapters) = match read_rig(&rig_file.text) {
            Ok(read) => read,
            Err(problems) => return Err(rig_file.bad(problems)),
        };
        let plan = match read_plan(&plan_file.text, &rig, &adapters) {
            Ok(plan) => plan,
            Err(problems) => return Err(plan_file.bad(problems)),
        };
        let rig = rig.raised(&plan.use_name, &plan.raised);
        Ok(Self {
            rig: Arc::new(rig),
            plan: Arc::new(plan),
            adapters,
            rig_text: rig_file.text,
            plan_text: plan_file.text,
        })
    }
}

/// That programs which score a time say whether less of it is better, of a file that somebody writes now. What can't be read is told
/// elsewhere.
fn wants_better(file: &SourceFile) -> Result<()> {
    let Ok(document) = Document::parse(&file.text) else { return Ok(()) };
    let (open, told) = (Problems::default(), Problems::default());
    program_file::read(&document.top(&open), &real_loads());
    if open.is_empty() {
        program_file::wants_better(&document.top(&told), &real_loads());
    }
    if told.is_empty() { Ok(()) } else { Err(file.clone().bad(told.into_sorted())) }
}

/// The passes of a proof file, for this machine.
pub(crate) fn read_proof(file: SourceFile) -> Result<Vec<Pass>> {
    wants_better(&file)?;
    read_whole(file, |top| proof_file::read(top, &real_loads()))
}

/// What a file says, where nothing in it is wrong and nothing unknown.
pub(crate) fn read_whole<T>(file: SourceFile, read: impl FnOnce(&Section) -> T) -> Result<T> {
    let document = match Document::parse(&file.text) {
        Ok(document) => document,
        Err(problem) => return Err(file.bad(vec![problem])),
    };
    let problems = Problems::default();
    let top = document.top(&problems);
    let said = read(&top);
    top.finish();
    if problems.is_empty() { Ok(said) } else { Err(file.bad(problems.into_sorted())) }
}

/// The programs of the user's own that a file defines, whatever else is in it.
pub(crate) fn read_programs(file: SourceFile) -> Result<Vec<Program>> {
    let document = match Document::parse(&file.text) {
        Ok(document) => document,
        Err(problem) => return Err(file.bad(vec![problem])),
    };
    let problems = Problems::default();
    let programs = program_file::read(&document.top(&problems), &real_loads());
    if problems.is_empty() { Ok(programs) } else { Err(file.bad(problems.into_sorted())) }
}

/// The rig of a file, and what serves it.
pub(crate) fn read_rig_file(file: SourceFile) -> Result<(Rig, Adapters)> {
    read_rig(&file.text).map_err(|problems| file.bad(problems))
}

/// Whether a file is a rig's.
pub(crate) fn is_rig(file: &SourceFile) -> bool {
    Document::parse(&file.text).is_ok_and(|document| {
        let ignored = Problems::default();
        let top = document.top(&ignored);
        !top.has("plan") && top.optional_section("rig").is_some()
    })
}

/// Whether a file is a plan.
pub(crate) fn is_climbable(file: &SourceFile) -> bool {
    Document::parse(&file.text).is_ok_and(|document| document.top(&Problems::default()).has("plan"))
}

/// Checks one file, whichever kind it is, and says in a sentence what it is.
pub(crate) fn check(path: &Path, saved_of: SavedOf) -> Result<String> {
    let file = SourceFile::read(path)?;
    let (is_plan, is_proof) = {
        let document = match Document::parse(&file.text) {
            Ok(document) => document,
            Err(problem) => return Err(file.bad(vec![problem])),
        };
        let ignored = Problems::default();
        let top = document.top(&ignored);
        (top.has("plan"), top.has("passes"))
    };
    if is_proof {
        let passes = read_proof(file)?;
        let loads: Vec<&str> = passes.iter().map(|pass| pass.load.as_str()).collect();
        return Ok(format!("proof: {}", loads.join(", ")));
    }
    if is_plan {
        let briefing = Briefing::read_with(path, saved_of)?;
        let plan = &briefing.plan;
        let stages: Vec<&str> = plan.stages.iter().map(|stage| stage.strategy.name()).collect();
        let told: String = briefing.warnings().iter().chain(&briefing.taken_for_granted()).map(files::but_it).collect();
        let foreseen = forecast(&briefing.rig, plan, &[]);
        let goes_on = if foreseen.goes_on { files::OR_MORE } else { "" };
        let effort = forecast_words(&foreseen) + goes_on;
        return Ok(files::plan_would(&plan.name, &briefing.rig.name, stages.join(", "), &effort, &told));
    }
    match read_rig(&file.text) {
        Ok((rig, _)) => {
            let settings = counted(rig.settings.len(), "setting");
            let sensors = counted(rig.sensors.len(), "sensor");
            Ok(files::rig_has(&rig.name, &settings, &sensors))
        }
        Err(problems) => Err(file.bad(problems)),
    }
}

/// The rig that the text of a plan names, as it names it.
pub(crate) fn rig_named(plan_text: &str) -> Option<PathBuf> {
    let plan = SourceFile { path: PathBuf::new(), text: plan_text.to_owned() };
    rig_path_of(&plan).ok()?.map(|located| PathBuf::from(located.value))
}

fn rig_path_of(plan: &SourceFile) -> Result<Option<Located<String>>> {
    let document = match Document::parse(&plan.text) {
        Ok(document) => document,
        Err(problem) => return Err(plan.clone().bad(vec![problem])),
    };
    Ok(plan_file::rig_path(&document.top(&Problems::default())))
}

/// The complaint about a plan that names no rig: it can't be checked any further.
fn plan_without_rig(plan: SourceFile) -> anyhow::Error {
    let problems = Problems::default();
    if let Ok(document) = Document::parse(&plan.text) {
        plan_file::rig_path(&document.top(&problems));
    }
    plan.bad(problems.into_sorted())
}

fn read_rig(text: &str) -> Result<(Rig, Adapters), Vec<Problem>> {
    let document = Document::parse(text).map_err(|problem| vec![problem])?;
    let problems = Problems::default();
    let top = document.top(&problems);
    let rig = rig_file::read(&top);
    let adapters = rig.as_ref().and_then(|rig| Adapters::read(&top, rig));
    top.finish();
    match rig.zip(adapters) {
        Some(read) if problems.is_empty() => Ok(read),
        _ => Err(problems.into_sorted()),
    }
}

/// The loads that this machine can run.
pub(crate) fn real_loads() -> Vec<&'static str> {
    catalogue::names()
}

/// Nothing runs on this computer for a rig that is elsewhere, and nothing here can start it anew.
fn refuse_here(top: &Section) {
    for (name, _) in top.named_sections("program") {
        top.problems().advise(name.at, files::NOTHING_RUNS_FOR_ELSEWHERE, files::MAKE_IT_BY_HAND);
    }
    let Some(head) = top.optional_section("plan") else { return };
    let unattended = head.optional_flag("unattended").filter(|flag| flag.value).map(|flag| flag.at);
    let restarts = head.optional_text("restarts").map(|text| text.at);
    for at in unattended.into_iter().chain(restarts) {
        top.problems().advise(at, files::NOBODY_STARTS_ELSEWHERE, files::LEAVE_IT_OUT);
    }
}

fn read_plan(text: &str, rig: &Rig, adapters: &Adapters) -> Result<Plan, Vec<Problem>> {
    let document = Document::parse(text).map_err(|problem| vec![problem])?;
    let problems = Problems::default();
    let top = document.top(&problems);
    let loads = adapters.loads().unwrap_or_else(real_loads);
    let plan = plan_file::read(&top, rig, &loads);
    if adapters.is_simulated() {
        let unattended = top.optional_section("plan").and_then(|head| head.optional_flag("unattended"));
        if let Some(flag) = unattended.filter(|flag| flag.value) {
            problems.advise(flag.at, files::NO_WATCHDOG_FOR_SIMULATED, files::LEAVE_IT_OUT);
        }
        for (name, _) in top.named_sections("program") {
            problems.add(name.at, files::NO_PROGRAMS_FOR_SIMULATED);
        }
    }
    if rig.is_elsewhere() {
        refuse_here(&top);
    }
    top.finish();
    match plan {
        Some(plan) if problems.is_empty() => Ok(plan),
        _ => Err(problems.into_sorted()),
    }
}
