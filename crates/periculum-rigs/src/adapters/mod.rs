//! What a rig file says of the adapters that serve it: read, and held against each setting and sensor. Nothing outside of here
//! knows their names.

mod sensors;
mod settings;

use periculum_core::files::Section;
use periculum_core::model::rig::Rig;

use crate::simulated;

/// Reads `[adapter]` of a rig file, and checks that every setting and sensor has an adapter that serves it: the simulated
/// hardware, where the rig is that.
pub fn read(top: &Section, rig: &Rig) -> Option<simulated::Spec> {
    let adapters = top.optional_section("adapter");
    let section = adapters.as_ref().and_then(|adapters| adapters.optional_section("simulated"));
    let is_simulated = section.is_some();
    let spec = section.and_then(|section| simulated::Spec::read(section, rig));
    if let Some(adapters) = adapters {
        adapters.finish();
    }
    settings::check(top, rig, is_simulated);
    sensors::check(top, is_simulated);
    spec
}
