//! The processor as the kernel describes it: packages, cores, threads, kinds of core and caches.

use std::collections::{BTreeMap, BTreeSet};
use std::path::Path;

use super::attribute::{number, numbered, text};

/// What is known of the processor.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub(super) struct Topology {
    /// The model's name; empty where the kernel does not say.
    pub(super) model: String,
    /// How many packages, cores and threads.
    pub(super) packages: usize,
    /// Cores of all packages.
    pub(super) cores: usize,
    /// Threads of all cores.
    pub(super) threads: usize,
    /// For each capacity that a core has beside the strongest, as a share of 1024, how many threads have it; one where
    /// all cores are alike.
    pub(super) capacities: BTreeMap<i64, usize>,
    /// The caches of the first core, as `L2 unified 1280K`.
    pub(super) caches: Vec<String>,
}

/// Reads the topology below this root (kernel documentation, ABI/stable/sysfs-devices-system-cpu).
pub(super) fn read(root: &Path) -> Topology {
    let folder = root.join("sys/devices/system/cpu");
    let cpus: Vec<_> = numbered(&folder, "cpu").into_iter().map(|(_, path)| path).collect();
    let (mut packages, mut cores, mut capacities) = (BTreeSet::new(), BTreeSet::new(), BTreeMap::new());
    for cpu in &cpus {
        let package = number(&cpu.join("topology/physical_package_id")).unwrap_or(0);
        packages.insert(package);
        cores.extend(number(&cpu.join("topology/core_id")).map(|core| (package, core)));
        *capacities.entry(number(&cpu.join("cpu_capacity")).unwrap_or(1024)).or_insert(0) += 1;
    }
    Topology {
        model: model(root),
        packages: packages.len(),
        cores: if cores.is_empty() { cpus.len() } else { cores.len() },
        threads: cpus.len(),
        capacities,
        caches: caches(&folder.join("cpu0/cache")),
    }
}

/// `model name` of `/proc/cpuinfo`, or what the device tree calls the board.
fn model(root: &Path) -> String {
    let cpuinfo = std::fs::read_to_string(root.join("proc/cpuinfo")).unwrap_or_default();
    let line = cpuinfo.lines().find_map(|line| line.strip_prefix("model name")?.split_once(':'));
    let name = line.map(|(_, name)| periculum_core::model::quantity::harmless(name.trim()));
    let board =
        || text(&root.join("proc/device-tree/model")).map(|name| name.trim_end_matches(['\0', '\u{fffd}']).to_owned());
    name.filter(|name| !name.is_empty()).or_else(board).unwrap_or_default()
}

fn caches(folder: &Path) -> Vec<String> {
    let cache = |(_, path): (u32, std::path::PathBuf)| {
        let of = |attribute: &str| text(&path.join(attribute));
        Some(format!("L{} {} {}", of("level")?, of("type")?.to_lowercase(), of("size")?))
    };
    numbered(folder, "index").into_iter().filter_map(cache).collect()
}
