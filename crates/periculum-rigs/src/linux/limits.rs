//! What limits the processors now, by what the kernel counts: heat, where it throttles them, and power, where they take as much as
//! they may.

use std::path::{Path, PathBuf};
use std::time::Instant;

use super::attribute::{names, number, numbered};
use super::sensors::power;

/// What a reading stands for.
pub(super) const WORDS: [&str; 3] = ["nothing", "temperature", "power"];

/// Power that is so near to its limit is at it, as a share: the hardware regulates about it.
const AT_LIMIT: f64 = 0.97;

/// What grows while a processor is throttled for heat (ABI/testing, sysfs-devices-system-cpu: thermal_throttle).
const THROTTLING: [&str; 4] =
    ["core_throttle_count", "core_throttle_total_time_ms", "package_throttle_count", "package_throttle_total_time_ms"];

/// Everything that says so.
#[derive(Debug)]
pub(super) struct Limits {
    counters: Vec<PathBuf>,
    zones: Vec<Zone>,
    before: Option<Counted>,
}

/// A zone of powercap that has a limit (kernel documentation, power/powercap).
#[derive(Debug)]
struct Zone {
    energy: PathBuf,
    /// µJ at which its counter begins anew.
    range: u64,
    /// The limit of the longest time, µW.
    limit: PathBuf,
}

/// What the counters said, and when.
#[derive(Clone, Debug)]
struct Counted {
    at: Instant,
    throttling: i64,
    /// Of each zone, µJ.
    energies: Vec<Option<u64>>,
}

impl Limits {
    /// Those of the machine below this root; none where its kernel counts nothing of the kind.
    pub(super) fn of(root: &Path) -> Option<Self> {
        let processors = numbered(&root.join("sys/devices/system/cpu"), "cpu");
        let counters = processors.into_iter().flat_map(|(_, path)| {
            let folder = path.join("thermal_throttle");
            THROTTLING.into_iter().map(move |name| folder.join(name))
        });
        let counters: Vec<PathBuf> = counters.filter(|path| path.exists()).collect();
        let zones: Vec<Zone> = zones(&root.join("sys/class/powercap"));
        (!counters.is_empty() || !zones.is_empty()).then_some(Self { counters, zones, before: None })
    }

    /// What limits since it was read before, as a place in [`WORDS`]; none where nothing was.
    pub(super) fn read(&mut self, now: Instant) -> Option<f64> {
        let counted = Counted {
            at: now,
            throttling: self.counters.iter().filter_map(|counter| number(counter)).sum(),
            energies: self.zones.iter().map(|zone| u64::try_from(number(&zone.energy)?).ok()).collect(),
        };
        let before = self.before.replace(counted.clone())?;
        if counted.throttling > before.throttling {
            return Some(1.0);
        }
        let seconds = now.duration_since(before.at).as_secs_f64();
        let energies = before.energies.iter().zip(&counted.energies);
        let is_at_limit = |(zone, (before, now)): (&Zone, (&Option<u64>, &Option<u64>))| {
            let limit = number(&zone.limit).filter(|limit| *limit > 0)? as f64 / 1e6;
            Some(power((*before)?, (*now)?, zone.range, seconds)? >= AT_LIMIT * limit)
        };
        let is_at_any = self.zones.iter().zip(energies).any(|zone| is_at_limit(zone).unwrap_or(false));
        Some(if is_at_any { 2.0 } else { 0.0 })
    }
}

fn zones(folder: &Path) -> Vec<Zone> {
    let of = |name: String| {
        let path = folder.join(name);
        let (energy, limit) = (path.join("energy_uj"), path.join("constraint_0_power_limit_uw"));
        let range = u64::try_from(number(&path.join("max_energy_range_uj"))?).ok()?;
        (limit.exists() && number(&energy).is_some()).then_some(Zone { energy, range, limit })
    };
    names(folder).into_iter().filter(|name| name.contains(':')).filter_map(of).collect()
}

#[cfg(test)]
mod tests {
    use super::super::attribute::tests::tree;
    use super::*;
    use std::fs;
    use std::time::Duration;

    const COUNT: &str = "sys/devices/system/cpu/cpu1/thermal_throttle/core_throttle_count";
    const ENERGY: &str = "sys/class/powercap/socket:0/energy_uj";
    const LIMIT: &str = "sys/class/powercap/socket:0/constraint_0_power_limit_uw";

    const FILES: [(&str, &str); 4] = [
        (COUNT, "7\n"),
        (ENERGY, "5000000\n"),
        ("sys/class/powercap/socket:0/max_energy_range_uj", "262143328850\n"),
        (LIMIT, "65000000\n"),
    ];

    #[test]
    fn heat_and_power_are_told_from_nothing() {
        let root = tree("limits", &FILES);
        let mut limits = Limits::of(&root).expect("counters");
        let began = Instant::now();
        let mut after = |seconds: u64, file: &str, text: &str| {
            fs::write(root.join(file), text).expect("written");
            limits.read(began + Duration::from_secs(seconds)).map(|read| WORDS[read as usize])
        };
        assert_eq!(after(0, COUNT, "7"), None, "a counter alone says nothing");
        assert_eq!(after(1, ENERGY, "35000000"), Some("nothing"));
        assert_eq!(after(2, ENERGY, "99000000"), Some("power"), "64 of 65 W");
        assert_eq!(after(3, COUNT, "8"), Some("temperature"));
        assert_eq!(after(4, COUNT, "8"), Some("nothing"));
        assert_eq!(after(5, LIMIT, "0"), Some("nothing"), "no limit is set");
        assert_eq!(after(6, ENERGY, "rubbish"), Some("nothing"));
        fs::remove_dir_all(&root).expect("removed");
    }

    #[test]
    fn a_machine_that_counts_nothing_says_nothing() {
        let root = tree("no-limits", &[("proc/stat", "cpu 1 2 3 4\n")]);
        assert!(Limits::of(&root).is_none());
        fs::remove_dir_all(&root).expect("removed");
    }
}
