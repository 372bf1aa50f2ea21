//! What a simulated graphics card is made of: its section in `[adapter.simulated]` of a rig file.

use periculum_core::files::Section;
use periculum_core::model::rig::Rig;

use crate::simulated::names::{optional_setting, setting};
use crate::simulated::numbers::positive_or;
use crate::simulated::thermal::Cooling;

/// A card that chooses its own clock from a curve, and which of the rig's settings drive it; specimens differ by seed.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::simulated) struct Spec {
    /// The setting that lifts the whole curve, MHz.
    pub(super) core_offset: String,
    /// The setting that lifts the clock of its memory, MHz.
    pub(super) memory_offset: String,
    /// The setting that is the power limit, in percent of the usual, where one is.
    pub(super) power_limit: Option<String>,
    /// The setting that is how hard its fans blow, in percent, where one is.
    pub(super) fan: Option<String>,
    /// The clock at the lowest point of the curve, and what the curve gains to its highest, MHz.
    pub(super) curve: [f64; 2],
    /// The memory's clock, and the offset from which its transfers are repeated, MHz.
    pub(super) memory: [f64; 2],
    /// The usual power limit, W.
    pub(super) power: f64,
    pub(super) cooling: Cooling,
    /// Room temperature, °C.
    pub(super) room: f64,
}

impl Spec {
    /// Reads its keys of a section, for this rig in a room of this temperature, °C; problems go where the section's problems go.
    pub(in crate::simulated) fn read(section: &Section, rig: &Rig, room: f64) -> Option<Self> {
        let (core_offset, memory_offset) =
            (setting(section, "core_offset", rig), setting(section, "memory_offset", rig));
        let power_limit = optional_setting(section, "power_limit", rig);
        let fan = optional_setting(section, "fan", rig);
        let curve = [positive_or(section, "lowest_clock", 1020.0), positive_or(section, "curve_gain", 1180.0)];
        let memory = [positive_or(section, "memory_clock", 1750.0), positive_or(section, "memory_room", 190.0)];
        let power = positive_or(section, "power", 215.0);
        let cooling = section.optional_section("cooling").map_or_else(usual_cooling, Cooling::read);
        Some(Self {
            core_offset: core_offset?,
            memory_offset: memory_offset?,
            power_limit,
            fan,
            curve,
            memory,
            power,
            cooling,
            room,
        })
    }
}

/// A card's cooler is smaller than a processor's, and quicker.
pub(super) fn usual_cooling() -> Cooling {
    Cooling { die: 0.08, cooler: 0.14, die_time: 2.0, cooler_time: 45.0, limit: 83.0, ..Cooling::default() }
}
