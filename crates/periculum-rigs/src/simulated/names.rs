//! Names of `[adapter.simulated]`: which of the rig's settings drive a device.

use periculum_core::files::{Located, Section};
use periculum_core::model::rig::Rig;

/// The setting under the key, which must be one of the rig's.
pub(super) fn setting(section: &Section, key: &'static str, rig: &Rig) -> Option<String> {
    section.text(key).and_then(|name| known(name, section, rig))
}

/// The same where there need be none.
pub(super) fn optional_setting(section: &Section, key: &'static str, rig: &Rig) -> Option<String> {
    section.optional_text(key).and_then(|name| known(name, section, rig))
}

/// A name that is one of the rig's settings.
pub(super) fn known(name: Located<String>, section: &Section, rig: &Rig) -> Option<String> {
    if rig.setting(&name.value).is_some() {
        return Some(name.value);
    }
    let known: Vec<&str> = rig.settings.iter().map(|setting| setting.name.as_str()).collect();
    section.problems().unknown(name.at, "setting", &name.value, &known);
    None
}
