//! `periculum reveal`: what a simulated rig really is, for practice and to measure marks by.

use std::process::ExitCode;

use anyhow::Result;
use periculum_core::Decimal;
use periculum_core::model::ladder::Direction;
use periculum_core::model::plan::{Plan, Stage};
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::Rung;
use periculum_core::model::setting::Setting;
use periculum_rigs::simulated::Truth;
use serde::Serialize;

use crate::briefing::{Briefing, SourceFile};
use crate::cli::Reveal;
use crate::complaint::BadInput;
use crate::output::{hand_out, say};
use crate::telling::revealing;

/// A rung that survives a proof at least this often holds it.
const OFTEN: f64 = 0.9;

/// A law that goes without saying.
const USUAL_LAW: &str = "exponential";

/// The truth about a stage, or about a rung.
#[derive(Serialize)]
struct Revealed {
    /// The stage, from 1; none for a rung that was asked for.
    stage: Option<usize>,
    proof: String,
    setting: Option<String>,
    rung: Rung,
    survival: f64,
    /// By which law its processor fails, where it has one.
    #[serde(skip_serializing_if = "Option::is_none")]
    law: Option<&'static str>,
}

pub(super) fn run(reveal: &Reveal) -> Result<ExitCode> {
    let briefing = Briefing::of(SourceFile::read(&reveal.rig)?, SourceFile::read(&reveal.plan)?)?;
    let (rig, plan) = (&*briefing.rig, &*briefing.plan);
    let Some(truth) = briefing.adapters.truth(rig, reveal.seed) else {
        return Err(BadInput(revealing::ONLY_SIMULATED.into()).into());
    };
    let revealed =
        if reveal.at.is_empty() { of_stages(&truth, rig, plan) } else { of_rung(&truth, rig, plan, reveal)? };
    if let Some(law) = truth.law().filter(|law| *law != USUAL_LAW && !reveal.json) {
        say(revealing::fails_by(law));
    }
    for one in revealed {
        match reveal.json {
            true => hand_out(serde_json::to_string(&one)?),
            false => say(sentence(&one, rig)),
        }
    }
    Ok(ExitCode::SUCCESS)
}

/// For each setting that a stage climbs the hardest rung that holds its proof, all else as at stock.
fn of_stages(truth: &Truth, rig: &Rig, plan: &Plan) -> Vec<Revealed> {
    let of_setting = |index: usize, name: &str| {
        let setting = rig.setting(name)?;
        let proof = plan.proof_of(index);
        let values = harder_values(setting, &plan.use_name);
        let hardest = truth.hardest(&rig.stock(), &setting.name, &values, &proof.passes, OFTEN);
        let rung = rig.stock().with(&setting.name, hardest.unwrap_or(setting.stock));
        let survival = truth.survival(&rung, &proof.passes);
        Some(Revealed {
            stage: Some(index + 1),
            proof: proof.name.clone(),
            setting: Some(setting.name.clone()),
            rung,
            survival,
            law: truth.law(),
        })
    };
    let of_stage = |(index, stage): (usize, &Stage)| {
        let climbed = stage.strategy.climbed();
        climbed.into_iter().filter_map(move |name| of_setting(index, name)).collect::<Vec<_>>()
    };
    plan.stages.iter().enumerate().flat_map(of_stage).collect()
}

/// The survival of a rung in every proof.
fn of_rung(truth: &Truth, rig: &Rig, plan: &Plan, reveal: &Reveal) -> Result<Vec<Revealed>> {
    let mut rung = rig.stock();
    for text in &reveal.at {
        let (name, value) = text.split_once('=').unwrap_or((text, ""));
        let setting = rig.setting(name).ok_or_else(|| {
            let known: Vec<&str> = rig.settings.iter().map(|setting| setting.name.as_str()).collect();
            BadInput(revealing::no_such_setting(name, known.join(", ")))
        })?;
        let value: Option<Decimal> = value.parse().ok().filter(|value| setting.ladder.contains(*value));
        let value = value.ok_or_else(|| BadInput(revealing::no_such_value(text, name, setting.stock)))?;
        rung = rung.with(name, value);
    }
    let of_proof = |proof: &periculum_core::model::plan::Proof| Revealed {
        stage: None,
        proof: proof.name.clone(),
        setting: None,
        survival: truth.survival(&rung, &proof.passes),
        rung: rung.clone(),
        law: truth.law(),
    };
    Ok(plan.proofs.iter().map(of_proof).collect())
}

/// The values from stock to the hardest that this use allows.
fn harder_values(setting: &Setting, use_name: &str) -> Vec<Decimal> {
    let next = |value: &Decimal| setting.ladder.next(*value, setting.harder);
    let allowed = |value: &Decimal| match setting.harder {
        Direction::Up => *value <= setting.ceiling(use_name),
        Direction::Down => *value >= setting.floor,
    };
    std::iter::successors(Some(setting.stock), next).take_while(allowed).collect()
}

fn sentence(revealed: &Revealed, rig: &Rig) -> String {
    let survival = revealing::survives(&revealed.proof, 100.0 * revealed.survival);
    match (revealed.stage, &revealed.setting) {
        (Some(stage), Some(_)) if revealed.survival < OFTEN => revealing::not_even_stock(stage, &survival),
        (Some(stage), Some(_)) => revealing::hardest_that_holds(stage, rig.written(&revealed.rung), &survival),
        _ => format!("{} {survival}", rig.written(&revealed.rung)),
    }
}
