//! What simulated memory is made of: its section in `[adapter.simulated]` of a rig file.

use periculum_core::files::Section;
use periculum_core::model::rig::Rig;

use crate::simulated::names::{known, optional_setting, setting};
use crate::simulated::numbers::positive_or;

/// Modules in slots, a controller and a board, and which of the rig's settings drive them; specimens differ by seed.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::simulated) struct Spec {
    /// The setting that is the rate, MT/s.
    pub(super) rate: String,
    /// The settings that are the first timings, in clocks: column access, row to column, row precharge.
    pub(super) timings: [String; 3],
    /// The setting that is for how many clocks a command stands, where one is.
    pub(super) command_rate: Option<String>,
    /// The setting that is the modules' voltage, V.
    pub(super) voltage: String,
    /// The setting that is the controller's voltage, V.
    pub(super) controller: String,
    /// The settings that are what is in each slot, two slots a channel: nothing (0), or a module of the first or the second kit.
    pub(super) slots: Vec<String>,
    /// What each of the timings needs at the usual voltage and 45 °C, ns.
    pub(super) needs: [f64; 3],
    /// The usual voltage of the modules, V.
    pub(super) usual: f64,
    /// The rate that the controller reaches at its best voltage with one module a channel, MT/s.
    pub(super) rate_limit: f64,
    /// The controller's best voltage, V.
    pub(super) best: f64,
    /// Whether the board makes the next even number of an odd column access while a command stands for one clock.
    pub(super) rounds: bool,
    /// Room temperature, °C.
    pub(super) room: f64,
}

impl Spec {
    /// Reads its keys of a section, for this rig in a room of this temperature, °C; problems go where the section's problems go.
    pub(in crate::simulated) fn read(section: &Section, rig: &Rig, room: f64) -> Option<Self> {
        let rate = setting(section, "rate", rig);
        let timings = ["cl", "trcd", "trp"].map(|key| setting(section, key, rig));
        let command_rate = optional_setting(section, "command_rate", rig);
        let (voltage, controller) = (setting(section, "voltage", rig), setting(section, "controller", rig));
        let slots = section.optional_texts("slots").map(|slots| {
            let named = |value| known(periculum_core::files::Located { value, at: slots.at.clone() }, section, rig);
            slots.value.into_iter().filter_map(named).collect()
        });
        let needs = [("need_cl", 9.2), ("need_trcd", 10.4), ("need_trp", 9.8)];
        let needs = needs.map(|(key, usual)| positive_or(section, key, usual));
        let usual = positive_or(section, "usual_voltage", 1.35);
        let rate_limit = positive_or(section, "rate_limit", 6800.0);
        let best = positive_or(section, "best_controller", 1.21);
        let rounds = section.optional_flag("rounds_odd").is_some_and(|flag| flag.value);
        let [cl, trcd, trp] = timings;
        Some(Self {
            rate: rate?,
            timings: [cl?, trcd?, trp?],
            command_rate,
            voltage: voltage?,
            controller: controller?,
            slots: slots.unwrap_or_default(),
            needs,
            usual,
            rate_limit,
            best,
            rounds,
            room,
        })
    }
}
