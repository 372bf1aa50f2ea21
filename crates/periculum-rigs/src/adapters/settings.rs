//! Which adapter serves a setting, and what stands against it.

use periculum_core::files::Section;
use periculum_core::model::rig::Rig;
use periculum_core::model::setting::TakesEffect;

use crate::linux;

pub(super) fn check(top: &Section, rig: &Rig, is_simulated: bool) {
    for (name, section) in top.named_sections("setting") {
        let Some(setting) = rig.setting(&name.value) else { continue };
        let named = section.optional_text("adapter");
        if named.is_none() && section.has("adapter") {
            // It is no text, which is told already.
            continue;
        }
        let at = named.map_or(name.at, |adapter| adapter.at);
        let problems = section.problems();
        match (setting.takes_effect, setting.adapter.as_str(), is_simulated) {
            (TakesEffect::AtOnce, "simulated", true) | (TakesEffect::ByHand, "", false) => {}
            (TakesEffect::AtOnce, linux::ADAPTER, false) if !setting.target.is_empty() => {}
            (TakesEffect::AtNextStart, linux::ADAPTER, false) if setting.boot_line.is_some() => {}
            (TakesEffect::AtOnce, linux::ADAPTER, false) => problems.advise(
                at,
                format!("nothing says what of this machine {} is", setting.label),
                "name its `target`; `periculum rig` lists what this machine has",
            ),
            (TakesEffect::AtNextStart, _, false) => problems.advise(
                at,
                format!("nothing says where {} is written for the next start", setting.label),
                "write `adapter = \"linux\"` and `boot = { file = \"/boot/config.txt\", key = \"core_mhz\" }`",
            ),
            (TakesEffect::AtNextStart, _, true) => problems.advise(
                at,
                "a simulated rig has no file that it reads when it starts",
                "write `takes_effect = \"at-once\"` and `adapter = \"simulated\"`",
            ),
            (TakesEffect::ByHand, _, true) => problems.advise(
                at,
                format!("nobody can change {} by hand on a simulated rig", setting.label),
                "write `takes_effect = \"at-once\"` and `adapter = \"simulated\"`",
            ),
            (TakesEffect::ByHand, _, false) => problems.advise(
                at,
                format!("{} is changed by hand, so no adapter serves it", setting.label),
                "leave `adapter` out",
            ),
            (TakesEffect::AtOnce, "simulated", false) => problems.advise(
                at,
                "there is no simulated rig in this file",
                "add a section [adapter.simulated], or write `takes_effect = \"by-hand\"`",
            ),
            (TakesEffect::AtOnce, other, _) => problems.unknown(at, "adapter", other, &["simulated", linux::ADAPTER]),
        }
    }
}
