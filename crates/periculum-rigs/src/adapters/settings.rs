//! Which adapter serves a setting, and what stands against it.

use std::ops::Range;

use periculum_core::files::{Section, outlet_file};
use periculum_core::model::rig::Rig;
use periculum_core::model::setting::{Setting, TakesEffect};

use super::{Place, SIMULATED};
use crate::linux;

pub(super) fn check(top: &Section, rig: &Rig, place: Place) {
    for (name, section) in top.named_sections("setting") {
        let Some(setting) = rig.setting(&name.value) else { continue };
        check_one(setting, &section, name.at, place);
    }
    for (name, section) in top.named_sections("curve") {
        let Some(curve) = rig.curves.iter().find(|curve| curve.name == name.value) else { continue };
        // All its levers have the same adapter.
        let lever = curve.levers().next().and_then(|lever| rig.setting(lever));
        let Some(lever) = lever.map(|lever| Setting { label: curve.label.clone(), ..lever.clone() }) else { continue };
        check_one(&lever, &section, name.at, place);
    }
}

fn check_one(setting: &Setting, section: &Section, at: Range<usize>, place: Place) {
    let named = section.optional_text("adapter");
    if named.is_none() && section.has("adapter") {
        // It is no text, which is told already.
        return;
    }
    let at = named.map_or(at, |adapter| adapter.at);
    let check = match place {
        Place::Simulated => check_simulated,
        Place::Elsewhere => check_elsewhere,
        Place::Here => check_real,
    };
    check(setting, section, at);
}

/// Nothing of a real machine is set by a rig that is practised on; what is changed by hand there, the simulated hardware hears
/// of when it is done.
fn check_simulated(setting: &Setting, section: &Section, at: Range<usize>) {
    let (problems, label) = (section.problems(), &setting.label);
    match (setting.takes_effect, setting.adapter.as_str()) {
        (TakesEffect::ByHand, "") | (TakesEffect::AtOnce | TakesEffect::AtNextStart, SIMULATED) => {}
        (TakesEffect::ByHand, _) => problems.advise(
            at.clone(),
            format!("{label} is changed by hand, so no adapter serves it"),
            "leave `adapter` out",
        ),
        (_, "" | linux::ADAPTER) => problems.advise(
            at.clone(),
            format!("the rig is simulated, so nothing of this machine is set for {label}"),
            "write `adapter = \"simulated\"`",
        ),
        (_, other) => problems.unknown(at.clone(), "adapter", other, &[SIMULATED]),
    }
    if let Some(line) = setting.boot_line.as_ref() {
        let why = format!("a simulated rig has no {}, it keeps {label} by itself", line.file);
        problems.advise(at.clone(), why, "leave `boot` out");
    }
}

/// Only people reach a rig that is elsewhere.
fn check_elsewhere(setting: &Setting, section: &Section, at: Range<usize>) {
    if setting.takes_effect == TakesEffect::ByHand {
        return check_real(setting, section, at);
    }
    let what = format!("the rig is elsewhere, so nothing here can set {}", setting.label);
    section.problems().advise(at, what, "write `takes_effect = \"by-hand\"`, and leave `adapter` out");
}

fn check_real(setting: &Setting, section: &Section, at: Range<usize>) {
    let (problems, label) = (section.problems(), &setting.label);
    match (setting.takes_effect, setting.adapter.as_str()) {
        (TakesEffect::ByHand, "") => {}
        (TakesEffect::AtOnce, linux::ADAPTER) if !setting.target.is_empty() => {}
        // What is missing for them is told where they are read.
        (TakesEffect::AtOnce, outlet_file::PROGRAM | outlet_file::INSTRUMENT | outlet_file::DISPLAY) => {}
        (TakesEffect::AtNextStart, outlet_file::PROGRAM | outlet_file::INSTRUMENT | outlet_file::DISPLAY) => problems
            .advise(
                at,
                format!("what serves {label} brings it into force at once"),
                "write `takes_effect = \"at-once\"`",
            ),
        (TakesEffect::AtNextStart, linux::ADAPTER) if setting.boot_line.is_some() => {}
        (TakesEffect::AtOnce, linux::ADAPTER) => problems.advise(
            at,
            format!("nothing says what of this machine {label} is"),
            "name its `target`; `periculum rig` lists what this machine has",
        ),
        (TakesEffect::AtNextStart, _) => problems.advise(
            at,
            format!("nothing says where {label} is written for the next start"),
            "write `adapter = \"linux\"` and `boot = { file = \"/boot/config.txt\", key = \"core_mhz\" }`",
        ),
        (TakesEffect::ByHand, _) => {
            problems.advise(at, format!("{label} is changed by hand, so no adapter serves it"), "leave `adapter` out");
        }
        (TakesEffect::AtOnce, SIMULATED) => problems.advise(
            at,
            "there is no simulated rig in this file",
            "add a section [adapter.simulated], or write `takes_effect = \"by-hand\"`",
        ),
        (TakesEffect::AtOnce, other) => problems.unknown(
            at,
            "adapter",
            other,
            &[SIMULATED, linux::ADAPTER, outlet_file::PROGRAM, outlet_file::INSTRUMENT, outlet_file::DISPLAY],
        ),
    }
}
