//! What a simulated bus machine is made of: its section in `[adapter.simulated]` of a rig file.

use periculum_core::files::Section;
use periculum_core::model::rig::Rig;

use crate::simulated::names::{optional_setting, setting};
use crate::simulated::numbers::positive_or;

/// A machine whose processor and memory share a bus, and which of the rig's settings drive it; specimens differ by seed.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::simulated) struct Spec {
    /// The setting that is the bus clock, in MHz.
    pub(super) bus: String,
    /// The setting that is how often the processor ticks in one tick of the bus.
    pub(super) multiplier: String,
    /// The setting that is the wait states of memory.
    pub(super) waits: String,
    /// The setting that divides the bus clock for the slow bus with disk and picture, where one is.
    pub(super) divider: Option<String>,
    /// The clock up to which the processor goes, MHz.
    pub(super) processor_limit: f64,
    /// How long memory takes for an access, ns.
    pub(super) access_time: f64,
    /// The clock up to which the slow bus goes, MHz.
    pub(super) slow_limit: f64,
    /// Room temperature, °C.
    pub(super) room: f64,
}

impl Spec {
    /// Reads its keys of a section, for this rig in a room of this temperature, °C; problems go where the section's problems go.
    pub(in crate::simulated) fn read(section: &Section, rig: &Rig, room: f64) -> Option<Self> {
        let (bus, multiplier) = (setting(section, "bus", rig), setting(section, "multiplier", rig));
        let waits = setting(section, "waits", rig);
        let divider = optional_setting(section, "divider", rig);
        let processor_limit = positive_or(section, "processor_limit", 100.0);
        let access_time = positive_or(section, "access_time", 70.0);
        let slow_limit = positive_or(section, "slow_limit", 9.4);
        Some(Self {
            bus: bus?,
            multiplier: multiplier?,
            waits: waits?,
            divider,
            processor_limit,
            access_time,
            slow_limit,
            room,
        })
    }
}
