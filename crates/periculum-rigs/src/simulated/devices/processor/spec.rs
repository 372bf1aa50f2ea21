//! What a simulated processor is made of: its section in `[adapter.simulated]` of a rig file.

use periculum_core::files::{Located, Section};
use periculum_core::model::rig::Rig;

use crate::simulated::law::Law;
use crate::simulated::names::{known, optional_setting, setting};
use crate::simulated::numbers::{number_or, positive_or};
use crate::simulated::thermal::Cooling;

/// A kind of processor, its surroundings and which of the rig's settings drive it; specimens differ by seed.
#[derive(Clone, Debug, PartialEq)]
pub struct Spec {
    /// The settings that are core clocks, in MHz: one for all cores, or one for each group of equal size in their order.
    pub clocks: Vec<String>,
    /// The setting that is the core voltage, in V.
    pub voltage: String,
    /// The setting that is the power limit, in W, where one is.
    pub power_limit: Option<String>,
    /// How many cores it has.
    pub cores: usize,
    /// Room temperature, °C.
    pub room: f64,
    /// How much voltage it needs.
    pub silicon: Silicon,
    /// How much power it takes.
    pub power: Power,
    /// How it gets rid of it.
    pub cooling: Cooling,
}

/// `[adapter.simulated.silicon]`: the voltage a core needs.
///
/// `Vmin = needs + slope·x + curve·x² + per_degree·(T − 60 °C) + hardness of the load`, with `x = f/f0 − 1`.
#[derive(Clone, Debug, PartialEq)]
pub struct Silicon {
    /// The clock that `x` is measured from, MHz.
    pub reference_clock: f64,
    /// Voltage needed at the reference clock and 60 °C under the hardest load, V.
    pub needs: f64,
    /// Voltage needed more per relative clock, V.
    pub slope: f64,
    /// Voltage needed more per relative clock squared, V.
    pub curve: f64,
    /// Voltage needed more per degree, V/K.
    pub per_degree: f64,
    /// Voltage needed more than when it was new, V.
    pub aged: f64,
    /// How far specimens differ, standard deviation, V.
    pub specimen_spread: f64,
    /// How far the cores of one specimen differ, standard deviation, V.
    pub core_spread: f64,
    /// Failures in a second at a margin of nothing.
    pub hazard: f64,
    /// The margin over which the hazard falls by a factor of e, V.
    pub width: f64,
    /// How the hazard follows the margin.
    pub law: Law,
}

/// `[adapter.simulated.power]`: power, current and what the supply makes of it.
#[derive(Clone, Debug, PartialEq)]
pub struct Power {
    /// Switched power of one core, W per V² and GHz.
    pub switched: f64,
    /// Leakage of one core at 60 °C, W per V.
    pub leakage: f64,
    /// By how much leakage grows, 1/K.
    pub leakage_growth: f64,
    /// Load line, Ω.
    pub load_line: f64,
    /// Undershoot in the first second of a load, V.
    pub undershoot: f64,
    /// Power above which the clock is taken back, W.
    pub limit: f64,
    /// Current above which the clock is taken back, A; no limit where nobody says.
    pub current_limit: f64,
}

impl Spec {
    /// Reads its keys of a section, for this rig in a room of this temperature, °C; problems go where the section's problems go.
    pub(in crate::simulated) fn read(section: &Section, rig: &Rig, room: f64) -> Option<Self> {
        let (problems, at) = (section.problems(), section.at());
        let clocks = read_clocks(section).into_iter().map(|name| known(name, section, rig)).collect::<Option<Vec<_>>>();
        let voltage = setting(section, "voltage", rig);
        let power_limit = optional_setting(section, "power_limit", rig);
        let cores = section.optional_count("cores", 1).map_or(8, |cores| cores.value as usize);
        let silicon = section.optional_section("silicon").map_or_else(Silicon::default, Silicon::read);
        let power = section.optional_section("power").map_or_else(Power::default, Power::read);
        let cooling = section.optional_section("cooling").map_or_else(Cooling::default, Cooling::read);
        let clocks = clocks.filter(|clocks| !clocks.is_empty())?;
        if !cores.is_multiple_of(clocks.len()) {
            problems.add(at, format!("{cores} cores can't have {} clocks in groups of equal size", clocks.len()));
        }
        Some(Self { clocks, voltage: voltage?, power_limit, cores, room, silicon, power, cooling })
    }
}

#[cfg(test)]
impl Spec {
    /// The desktop processor that tests share.
    pub(in crate::simulated) fn desktop() -> Self {
        Self {
            clocks: vec!["core_clock".into()],
            voltage: "core_voltage".into(),
            power_limit: None,
            cores: 8,
            room: 21.0,
            silicon: Silicon::default(),
            power: Power::default(),
            cooling: Cooling::default(),
        }
    }
}

/// `clock = "core_clock"`, or a list with one setting for each group of cores.
fn read_clocks(section: &Section) -> Vec<Located<String>> {
    if !section.has("clock") || section.has_text("clock") {
        return section.text("clock").into_iter().collect();
    }
    let names = section.optional_texts("clock");
    let each = |names: Located<Vec<String>>| {
        let at = names.at;
        names.value.into_iter().map(move |value| Located { value, at: at.clone() })
    };
    names.into_iter().flat_map(each).collect()
}

impl Default for Silicon {
    fn default() -> Self {
        Self {
            reference_clock: 4200.0,
            needs: 1.052,
            slope: 0.72,
            curve: 2.0,
            per_degree: 0.000_4,
            aged: 0.0,
            specimen_spread: 0.012,
            core_spread: 0.005,
            hazard: 1.0 / 600.0,
            width: 0.007,
            law: Law::default(),
        }
    }
}

impl Silicon {
    fn read(section: Section) -> Self {
        let usual = Self::default();
        let read = Self {
            reference_clock: positive_or(&section, "reference_clock", usual.reference_clock),
            needs: positive_or(&section, "needs", usual.needs),
            slope: positive_or(&section, "slope", usual.slope),
            curve: positive_or(&section, "curve", usual.curve),
            per_degree: number_or(&section, "per_degree", usual.per_degree),
            aged: number_or(&section, "aged", usual.aged),
            specimen_spread: number_or(&section, "specimen_spread", usual.specimen_spread),
            core_spread: number_or(&section, "core_spread", usual.core_spread),
            hazard: positive_or(&section, "hazard", usual.hazard),
            width: positive_or(&section, "width", usual.width),
            law: Law::read(&section),
        };
        section.finish();
        read
    }
}

impl Default for Power {
    fn default() -> Self {
        Self {
            switched: 2.1,
            leakage: 1.3,
            leakage_growth: 0.012,
            load_line: 0.000_35,
            undershoot: 0.004,
            limit: 220.0,
            current_limit: f64::INFINITY,
        }
    }
}

impl Power {
    fn read(section: Section) -> Self {
        let usual = Self::default();
        let read = Self {
            switched: positive_or(&section, "switched", usual.switched),
            leakage: positive_or(&section, "leakage", usual.leakage),
            leakage_growth: number_or(&section, "leakage_growth", usual.leakage_growth),
            load_line: number_or(&section, "load_line", usual.load_line),
            undershoot: number_or(&section, "undershoot", usual.undershoot),
            limit: positive_or(&section, "limit", usual.limit),
            current_limit: positive_or(&section, "current_limit", usual.current_limit),
        };
        section.finish();
        read
    }
}
