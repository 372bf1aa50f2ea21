//! What hostile bytes are let into: each must end, and none may panic. The fuzzer calls these with what it makes up, and an
//! ordinary test with what lies in `fuzz/corpus`.

#![allow(dead_code, reason = "each fuzzer uses its own part")]

use periculum_core::engine::{Entry, Event, decide_alike};
use periculum_core::files::{Document, Problems, outline, plan_file, proof_file, rig_file};
use periculum_loads::protocol::Message;
use periculum_rigs::linux::rig_text;
use periculum_rigs::scpi::Source;

/// Rig, plan and proof files: a rig, and behind a line of dashes a plan for it.
pub(crate) fn files(data: &[u8]) {
    let Ok(text) = str::from_utf8(data) else { return };
    let (rig, plan) = text.split_once("\n-----\n").unwrap_or((text, text));
    let problems = Problems::default();
    let Ok(document) = Document::parse(rig) else { return };
    let top = document.top(&problems);
    let _ = proof_file::read(&top, &["dense"]);
    let Some(rig) = rig_file::read(&top) else { return };
    if let Ok(document) = Document::parse(plan) {
        let _ = plan_file::read(&document.top(&problems), &rig, &["dense"]);
    }
    let _ = rig.written(&rig.stock());
}

/// The lines of a plan that is being written.
pub(crate) fn outline(data: &[u8]) {
    let Ok(text) = str::from_utf8(data) else { return };
    let _ = outline::lines(text);
}

/// A line of the journal.
pub(crate) fn journal(data: &[u8]) {
    if let Ok((_, entries)) = serde_json::from_slice::<(Event, Vec<Entry>)>(data) {
        assert!(decide_alike(&entries, &entries));
    }
}

/// What an instrument is said to be.
pub(crate) fn instruments(data: &[u8]) {
    let Ok(text) = str::from_utf8(data) else { return };
    if let Some(source) = Source::parse(text) {
        let _ = source.is_plain();
    }
}

/// What a load says.
pub(crate) fn messages(data: &[u8]) {
    if let Ok(message) = serde_json::from_slice::<Message>(data) {
        let _ = format!("{message:?}");
    }
}

/// What the kernel's attributes say: the same in each.
pub(crate) fn kernel(data: &[u8]) {
    let root = std::env::temp_dir().join(format!("periculum-fuzz-{}", std::process::id()));
    let paths = [
        "proc/cpuinfo",
        "proc/meminfo",
        "proc/stat",
        "proc/interrupts",
        "sys/class/hwmon/hwmon0/name",
        "sys/class/hwmon/hwmon0/temp1_input",
        "sys/class/powercap/socket:0/name",
        "sys/class/powercap/socket:0/constraint_0_name",
        "sys/devices/system/cpu/cpufreq/policy0/scaling_max_freq",
        "sys/devices/system/cpu/cpufreq/policy0/cpuinfo_max_freq",
        "sys/devices/system/cpu/cpufreq/policy0/scaling_available_governors",
        "sys/class/drm/card0/device/pp_od_clk_voltage",
    ];
    for path in paths {
        let path = root.join(path);
        let made = path.parent().map(std::fs::create_dir_all).transpose().and_then(|_| std::fs::write(&path, data));
        if made.is_err() {
            return;
        }
    }
    let _ = rig_text(&root);
    let _ = std::fs::remove_dir_all(root);
}
