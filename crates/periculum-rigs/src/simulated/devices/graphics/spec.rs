//! What a simulated graphics card is made of: its section in `[adapter.simulated]` of a rig file.

use periculum_core::Decimal;
use periculum_core::files::Section;
use periculum_core::model::curve::{Curve, Point, Sits};
use periculum_core::model::rig::Rig;

use crate::simulated::names::{optional_setting, setting};
use crate::simulated::numbers::positive_or;
use crate::simulated::thermal::Cooling;

/// A card that chooses its own clock from a curve, and which of the rig's settings drive it; specimens differ by seed.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::simulated) struct Spec {
    /// The curve of its core: a voltage in mV and a clock in MHz for each point.
    pub(super) curve: Curve,
    /// The setting that lifts the clock of its memory, MHz.
    pub(super) memory_offset: String,
    /// The setting that is the power limit, in percent of the usual, where one is.
    pub(super) power_limit: Option<String>,
    /// The setting that is how hard its fans blow, in percent, where one is.
    pub(super) fan: Option<String>,
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
        let (curve, memory_offset) = (curve(section, rig), setting(section, "memory_offset", rig));
        let power_limit = optional_setting(section, "power_limit", rig);
        let fan = optional_setting(section, "fan", rig);
        let memory = [positive_or(section, "memory_clock", 1750.0), positive_or(section, "memory_room", 190.0)];
        let power = positive_or(section, "power", 215.0);
        let cooling = section.optional_section("cooling").map_or_else(usual_cooling, Cooling::read);
        Some(Self { curve: curve?, memory_offset: memory_offset?, power_limit, fan, memory, power, cooling, room })
    }
}

/// `curve = "core"`: one of the rig's; else its own, which a setting shifts, as rigs of before have it.
fn curve(section: &Section, rig: &Rig) -> Option<Curve> {
    if !section.has("curve") && section.has("core_offset") {
        return own_curve(section, rig);
    }
    let name = section.text("curve")?;
    let found = rig.curves.iter().find(|curve| curve.name == name.value);
    if found.is_none() {
        let known: Vec<&str> = rig.curves.iter().map(|curve| curve.name.as_str()).collect();
        section.problems().unknown(name.at, "curve", &name.value, &known);
    }
    found.cloned()
}

/// A curve from 640 to 1,040 mV that gains less and less, all of which a setting shifts.
fn own_curve(section: &Section, rig: &Rig) -> Option<Curve> {
    let [lowest, gain] = [positive_or(section, "lowest_clock", 1020.0), positive_or(section, "curve_gain", 1180.0)];
    let point = |nth: u32| {
        let left = 1.0 - f64::from(nth) / 32.0;
        let clock = lowest + gain * (1.0 - left * left.sqrt());
        let factory = Decimal::from(clock.round() as i64);
        Point { at: Decimal::new(6400 + 125 * i64::from(nth), 1), factory, setting: None }
    };
    Some(Curve {
        name: "core".into(),
        label: "core".into(),
        unit: "MHz".into(),
        across: "mV".into(),
        points: (0..=32).map(point).collect(),
        offset: Some(setting(section, "core_offset", rig)?),
        flat: None,
        ceilings: Vec::new(),
        sits: Sits::default(),
    })
}

/// A card's cooler is smaller than a processor's, and quicker.
pub(super) fn usual_cooling() -> Cooling {
    Cooling { die: 0.08, cooler: 0.14, die_time: 2.0, cooler_time: 45.0, limit: 83.0, ..Cooling::default() }
}
