//! `periculum profile`: what climbs saved by name, and what is applied when the machine starts.

use std::io::IsTerminal;
use std::process::ExitCode;
use std::thread;

use anyhow::Result;
use periculum_core::engine::route::route;
use periculum_core::model::errand::Errand;
use periculum_core::model::moment::Span;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::{Change, Rung};
use periculum_core::model::setting::TakesEffect;
use periculum_core::telling::change_words;
use periculum_ledger::{Ledger, ProfileRow};
use periculum_rigs::bench::{Answer, Bench, Order, answer_to};
use serde_json::json;

use crate::cli::{Common, Profile, ProfileAction};
use crate::climbing::{bench_of, open_ledger, read_back, this_machine};
use crate::complaint::{BadInput, FAILED};
use crate::output::{hand_out, say, styled};
use crate::places;
use crate::recalling::recall;
use crate::rig_states::changed_since;
use crate::telling::profiles;

/// A change is made within this, or not at all.
const APPLYING: Span = Span::from_seconds(60);

pub(super) fn run(arguments: &Profile, common: &Common) -> Result<ExitCode> {
    let ledger = open_ledger(&places::ledger_to_read(common)?)?;
    match &arguments.action {
        None if arguments.listing.json => list_as_json(&ledger)?,
        None => list(&ledger)?,
        Some(ProfileAction::Arm { name, climb, soak }) => {
            let profile = find(&ledger, name, *climb)?;
            let briefing = recall(&ledger, &ledger.climb(profile.climb)?)?;
            refuse_by_hand(&profile, &briefing.rig)?;
            refuse_short(&profile, soak.unwrap_or(briefing.plan.arm_after))?;
            ledger.arm(&profile)?;
            say(profiles::applied_at_start(name, &profile.rig));
            say_changes(&ledger, &profile)?;
        }
        Some(ProfileAction::Disarm) => {
            for (rig, armed) in ledger.armed()? {
                ledger.disarm(&rig)?;
                say(profiles::no_longer_applied(&armed.name, &rig));
            }
        }
        Some(ProfileAction::Apply { name, climb }) => {
            let profile = find(&ledger, name, *climb)?;
            say_changes(&ledger, &profile)?;
            say(put_in_force(&ledger, &profile, std::io::stdin().is_terminal(), common)?);
        }
        Some(ProfileAction::Start { confirm_after }) => return start(&ledger, *confirm_after, common),
    }
    Ok(ExitCode::SUCCESS)
}

fn list(ledger: &Ledger) -> Result<()> {
    let (profiles, armed) = (ledger.profiles()?, ledger.armed()?);
    if profiles.is_empty() {
        say(profiles::NO_PROFILE);
    }
    for profile in profiles {
        let rig = recall(ledger, &ledger.climb(profile.climb)?)?.rig;
        let rests_on = profile.proof.as_ref().map_or(profiles::NO_MARK.to_owned(), |proof| format!("held {proof}"));
        let is_armed = armed.iter().any(|(_, armed)| armed.climb == profile.climb && armed.name == profile.name);
        let at_start = match (is_armed, profile.soaked) {
            (true, _) => profiles::APPLIED_AT_START,
            (false, true) => profiles::SOAKED,
            (false, false) => "",
        };
        say(profiles::one_profile(
            &profile.name,
            &profile.rig,
            rig.written(&profile.rung),
            &rests_on,
            profile.climb,
            at_start,
        ));
        say_changes(ledger, &profile)?;
    }
    Ok(())
}

fn list_as_json(ledger: &Ledger) -> Result<()> {
    let armed = ledger.armed()?;
    for ProfileRow { climb, rig, name, rung, proof, soaked, .. } in ledger.profiles()? {
        let at_start = armed.iter().any(|(_, armed)| armed.climb == climb && armed.name == name);
        let profile = json!({
            "profile": name, "rig": rig, "climb": climb, "rung": rung, "proof": proof, "soaked": soaked, "at_start": at_start,
        });
        hand_out(profile.to_string());
    }
    Ok(())
}

/// Says where the rig is another than that which a profile was found on.
fn say_changes(ledger: &Ledger, profile: &ProfileRow) -> Result<()> {
    let changed = changed_since(ledger, profile)?;
    if !changed.is_empty() {
        say(profiles::found_on_another(&profile.name, changed.join("; ")));
    }
    Ok(())
}

fn find(ledger: &Ledger, name: &str, climb: Option<i64>) -> Result<ProfileRow> {
    if let Some(profile) = ledger.profile(name, climb)? {
        return Ok(profile);
    }
    let known: Vec<String> = ledger.profiles()?.into_iter().map(|profile| profile.name).collect();
    let known =
        if known.is_empty() { profiles::NONE_SO_FAR.to_owned() } else { format!("known: {}", known.join(", ")) };
    Err(BadInput(profiles::no_such_profile(name, &known)).into())
}

/// Applies what is armed; a start that nobody confirmed the last time was a failed one, and disarms it.
fn start(ledger: &Ledger, confirm_after: Span, common: &Common) -> Result<ExitCode> {
    let mut code = ExitCode::SUCCESS;
    let armed = ledger.armed()?;
    for (rig, armed) in &armed {
        if armed.is_starting {
            ledger.disarm(rig)?;
            say(profiles::start_went_wrong(&armed.name, rig));
            code = ExitCode::from(FAILED);
            continue;
        }
        let profile = find(ledger, &armed.name, Some(armed.climb))?;
        if !profile.soaked {
            ledger.disarm(rig)?;
            say(profiles::mark_withdrawn(&armed.name, rig));
            code = ExitCode::from(FAILED);
            continue;
        }
        ledger.note_start(rig, true)?;
        say_changes(ledger, &profile)?;
        say(put_in_force(ledger, &profile, false, common)?);
    }
    if armed.is_empty() {
        say(profiles::NOTHING_ARMED);
        return Ok(code);
    }
    thread::sleep(std::time::Duration::from_millis(confirm_after.millis()));
    for (rig, _) in ledger.armed()? {
        ledger.note_start(&rig, false)?;
    }
    Ok(code)
}

/// Applies a profile setting by setting, reads each back, and says what is in force then. What is changed by hand is asked of
/// whoever is there.
fn put_in_force(ledger: &Ledger, profile: &ProfileRow, somebody_is_there: bool, common: &Common) -> Result<String> {
    let row = ledger.climb(profile.climb)?;
    let briefing = recall(ledger, &row)?;
    let rig = &*briefing.rig;
    rig.permit(&profile.rung, &briefing.plan.use_name)?;
    if !somebody_is_there {
        refuse_by_hand(profile, rig)?;
    }
    let _machine = if briefing.adapters.is_here() { Some(this_machine(&common.sysroot)?) } else { None };
    let mut bench = bench_of(&briefing, &common.sysroot, row.seed, ledger)?;
    apply(&mut *bench, rig, &profile.rung)?;
    Ok(profiles::in_force(&profile.name, &rig.name, rig.written(&profile.rung)))
}

/// What held for two minutes is not what a machine starts with every day.
fn refuse_short(profile: &ProfileRow, least: Span) -> Result<()> {
    match profile.soaked_for.filter(|soaked| profile.soaked && *soaked < least) {
        Some(soaked) => Err(BadInput(profiles::soaked_too_short(&profile.name, soaked, least)).into()),
        None => Ok(()),
    }
}

/// What a person has to set can't be applied by a program at a start.
fn refuse_by_hand(profile: &ProfileRow, rig: &Rig) -> Result<()> {
    let by_hand = rig.settings.iter().filter(|setting| setting.takes_effect.needs_somebody());
    let values = by_hand
        .filter_map(|setting| Some(format!("{} {}", setting.label, setting.written(profile.rung.get(&setting.name)?))));
    let values: Vec<String> = values.collect();
    if values.is_empty() {
        return Ok(());
    }
    Err(BadInput(profiles::set_by_hand(&profile.name, values.join(", "))).into())
}

/// The card of a change that somebody makes, and their word that it is made.
fn ask_for(change: &Change, rig: &Rig) -> Result<()> {
    let (label, from, to) = change_words(change, rig);
    let from = from.map(|from| format!("from {from} ")).unwrap_or_default();
    styled(std::io::stdout(), &profiles::change_by_hand(&label, &from, &to));
    loop {
        let mut answer = String::new();
        let has_ended = std::io::stdin().read_line(&mut answer)? == 0;
        match answer.trim() {
            "done" => return Ok(()),
            "stop" => {
                return Err(BadInput(profiles::stopped_before(&label)).into());
            }
            _ if has_ended => return Err(BadInput(profiles::nobody_said(&label)).into()),
            _ => styled(std::io::stdout(), profiles::SAY_DONE),
        }
    }
}

fn apply(bench: &mut dyn Bench, rig: &Rig, rung: &Rung) -> Result<()> {
    let errands = route(rig, &read_back(bench), rung);
    for errand in &errands {
        if !errand.needs_somebody(rig) {
            make(bench, rig, errand)?;
            continue;
        }
        for change in errand.changes() {
            match rig.setting(&change.setting).map(|setting| setting.takes_effect) {
                Some(TakesEffect::ByHand) => ask_for(change, rig)?,
                _ => make(bench, rig, &Errand::of(change.clone()))?,
            }
        }
    }
    Ok(())
}

/// Makes changes, and holds what is reported then against them.
fn make(bench: &mut dyn Bench, rig: &Rig, errand: &Errand) -> Result<()> {
    let in_force = match answer_to(bench, Order::Apply(errand.clone()), APPLYING) {
        Some(Answer::InForce(read_back)) => read_back.in_force,
        Some(Answer::Failed(incident)) => anyhow::bail!("{incident}"),
        _ => anyhow::bail!(profiles::no_answer(errand.settings(), APPLYING)),
    };
    for change in errand.changes() {
        let taken = rig.setting(&change.setting).zip(in_force.get(&change.setting));
        if let Some((_, reported)) = taken.filter(|(setting, reported)| !setting.is_as_asked(change.to, **reported)) {
            anyhow::bail!(profiles::reports_other(&change.setting, change.to, *reported));
        }
    }
    Ok(())
}
