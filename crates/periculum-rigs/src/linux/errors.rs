//! Errors that the hardware counts and the kernel logs: each becomes an incident with its place.

use std::collections::BTreeMap;
use std::path::{Path, PathBuf};

use periculum_core::model::incident::{Incident, IncidentKind};

use super::attribute::{lines, names, numbered, text, why_unread};
use super::dumps::Dumps;
use super::kernel_log::KernelLog;

/// Where machine checks are counted.
const PROCESSOR: &str = "the processor";

/// A counter of errors.
#[derive(Clone, Debug)]
struct Counter {
    path: PathBuf,
    /// The word that the count stands behind; the whole attribute is the count where there is none.
    word: &'static str,
    place: String,
    what: &'static str,
    kind: IncidentKind,
    last: Option<u64>,
}

/// Everything on a machine that counts or logs errors.
#[derive(Debug)]
pub struct Errors {
    counters: Vec<Counter>,
    log: Option<KernelLog>,
    dumps: Dumps,
}

impl Errors {
    /// The counters below this root, and the kernel's log from now on.
    pub fn of(root: &Path, is_ours: fn(u32) -> bool) -> Self {
        let mut counters = memory(&root.join("sys/devices/system/edac/mc"));
        counters.extend(throttling(&root.join("sys/devices/system/cpu")));
        counters.extend(pci(&root.join("sys/bus/pci/devices")));
        counters.push(machine_checks(root));
        counters.iter_mut().for_each(|counter| counter.last = counter.count());
        Self { counters, log: KernelLog::open(&root.join("dev/kmsg"), is_ours), dumps: Dumps::of(root) }
    }

    /// What was counted or logged since the last call.
    pub fn since_last(&mut self) -> Vec<Incident> {
        let logged = self.log.iter_mut().flat_map(KernelLog::since_last).collect::<Vec<_>>();
        let counted: Vec<Incident> = self.counters.iter_mut().filter_map(Counter::since_last).collect();
        let mut told = told_once(counted, logged);
        // Of a reset the kernel says more than a dump does.
        let is_told = told.iter().any(|incident| incident.kind == IncidentKind::DeviceReset);
        told.extend(self.dumps.since_last().into_iter().filter(|_| !is_told));
        told
    }

    /// Why what counted before now counts nothing, by what it counted: nobody hears of errors there.
    pub fn unheard(&self) -> BTreeMap<String, String> {
        let gone = self.counters.iter().filter(|counter| counter.last.is_some() && counter.count().is_none());
        gone.map(|counter| (format!("{} of {}", counter.what, counter.place), why_unread(&counter.path))).collect()
    }

    /// What can be seen here, in words.
    pub(super) fn seen(&self) -> Vec<String> {
        let live = self.counters.iter().filter(|counter| counter.last.is_some());
        let mut seen: Vec<String> = live.map(|counter| format!("{} of {}", counter.what, counter.place)).collect();
        seen.extend(self.log.as_ref().map(|_| "the kernel's log".to_owned()));
        seen
    }
}

/// A machine check is counted by the processor, counted by the memory controller and logged by the kernel: it is told once, by
/// the one who says most about it.
fn told_once(counted: Vec<Incident>, logged: Vec<Incident>) -> Vec<Incident> {
    let is_check = |incident: &Incident| incident.place.as_deref() == Some(PROCESSOR);
    let is_memory = |incident: &Incident| incident.evidence.says("memory errors");
    let is_log = |incident: &Incident| incident.evidence.says("Hardware Error");
    let (has_memory, has_log) = (counted.iter().any(is_memory), logged.iter().any(is_log));
    let worst = logged.iter().filter(|it| is_log(it)).map(|it| it.kind.verdict()).max().flatten();
    let worse = |incident: &Incident| incident.kind.verdict() >= worst;
    let memory_tells_all = has_memory && counted.iter().filter(|it| is_memory(it)).any(worse);
    let counted = counted.into_iter().filter(|it| !(is_check(it) && (has_memory || has_log)));
    let counted: Vec<Incident> = counted.filter(|it| memory_tells_all || !(is_memory(it) && has_log)).collect();
    counted.into_iter().chain(logged.into_iter().filter(|it| !(is_log(it) && memory_tells_all))).collect()
}

impl Counter {
    fn new(path: PathBuf, place: impl Into<String>, what: &'static str, kind: IncidentKind) -> Self {
        Self { path, word: "", place: place.into(), what, kind, last: None }
    }

    fn count(&self) -> Option<u64> {
        if self.word.is_empty() {
            return text(&self.path)?.trim().parse().ok();
        }
        let table = lines(&self.path)?;
        let row = table.lines().find_map(|line| line.trim_start().strip_prefix(self.word))?;
        let counts: Vec<u64> = row.split_whitespace().map_while(|word| word.parse().ok()).collect();
        counts.iter().try_fold(0u64, |sum, count| sum.checked_add(*count)).filter(|_| !counts.is_empty())
    }

    /// A counter that is gone for a moment, or begins anew, has counted nothing.
    fn since_last(&mut self) -> Option<Incident> {
        let now = self.count()?;
        let new = now.saturating_sub(self.last.replace(now).unwrap_or(now));
        (new > 0).then(|| {
            let evidence = format!("{new} more {} counted by the hardware, {now} since the machine started", self.what);
            Incident::new(self.kind, evidence).at(self.place.clone())
        })
    }
}

/// Memory controllers and modules (kernel documentation, admin-guide/RAS and driver-api/edac).
fn memory(folder: &Path) -> Vec<Counter> {
    let ends = [
        ("ce_count", "corrected memory errors", IncidentKind::CorrectedError),
        ("ue_count", "uncorrected memory errors", IncidentKind::MemoryFault),
    ];
    let mut counters = Vec::new();
    for (controller, path) in numbered(folder, "mc") {
        let modules = numbered(&path, "dimm");
        for (module, path) in &modules {
            let label = text(&path.join("dimm_label")).unwrap_or_else(|| format!("module {module}"));
            for (end, what, kind) in ends {
                counters.push(Counter::new(path.join(format!("dimm_{end}")), label.clone(), what, kind));
            }
        }
        // Where modules count, the controller would count the same again.
        for (end, what, kind) in ends.into_iter().filter(|_| modules.is_empty()) {
            counters.push(Counter::new(path.join(end), format!("memory controller {controller}"), what, kind));
        }
    }
    counters
}

/// How often processors were throttled for heat (ABI/testing, sysfs-devices-system-cpu: thermal_throttle).
fn throttling(folder: &Path) -> Vec<Counter> {
    let of_core = |(cpu, path): (u32, PathBuf)| {
        let counter = path.join("thermal_throttle/core_throttle_count");
        let kind = IncidentKind::Throttled;
        counter.exists().then(|| Counter::new(counter, Incident::on_core(cpu as usize), "throttlings for heat", kind))
    };
    numbered(folder, "cpu").into_iter().filter_map(of_core).collect()
}

/// Errors on PCI Express links (ABI/testing, sysfs-bus-pci-devices-aer_stats).
fn pci(folder: &Path) -> Vec<Counter> {
    let ends = [
        ("aer_dev_correctable", "TOTAL_ERR_COR", "corrected link errors", IncidentKind::CorrectedError),
        ("aer_dev_nonfatal", "TOTAL_ERR_NONFATAL", "link errors that lost something", IncidentKind::WrongResult),
        ("aer_dev_fatal", "TOTAL_ERR_FATAL", "link errors that broke it off", IncidentKind::WrongResult),
    ];
    let of_device = |device: String| {
        let path = folder.join(&device);
        let there = ends.into_iter().filter(move |(end, ..)| path.join(end).exists());
        let path = folder.join(&device);
        there.map(move |(end, word, what, kind)| {
            let counter = Counter::new(path.join(end), format!("PCI device {device}"), what, kind);
            Counter { word, ..counter }
        })
    };
    names(folder).into_iter().flat_map(of_device).collect()
}

/// Machine-check exceptions that the machine lived through, over all processors (proc_interrupts, row `MCE`).
fn machine_checks(root: &Path) -> Counter {
    let path = root.join("proc/interrupts");
    let counter = Counter::new(path, PROCESSOR, "machine checks", IncidentKind::CorrectedError);
    Counter { word: "MCE:", ..counter }
}

#[cfg(test)]
mod tests {
    use super::super::attribute::tests::tree;
    use super::*;
    use std::fs;

    const FILES: [(&str, &str); 8] = [
        ("sys/devices/system/edac/mc/mc0/ce_count", "7\n"),
        ("sys/devices/system/edac/mc/mc0/dimm1/dimm_ce_count", "7\n"),
        ("sys/devices/system/edac/mc/mc0/dimm1/dimm_ue_count", "0\n"),
        ("sys/devices/system/edac/mc/mc0/dimm1/dimm_label", "Slot A2\n"),
        ("sys/devices/system/cpu/cpu3/thermal_throttle/core_throttle_count", "2\n"),
        ("sys/bus/pci/devices/0000:01:00.0/aer_dev_correctable", "RxErr 1\nBadTLP 0\nTOTAL_ERR_COR 1\n"),
        ("proc/interrupts", "      CPU0 CPU1\n  0:  12  0  timer\nMCE:   0   0   Machine check exceptions\n"),
        ("dev/kmsg", "6,1,1,-;old\n"),
    ];

    #[test]
    fn what_is_counted_after_the_beginning_is_an_incident_with_its_place() {
        let root = tree("errors", &FILES);
        let write = |path: &str, text: &str| fs::write(root.join(path), text).expect("written");
        let mut errors = Errors::of(&root, |_| false);
        assert_eq!(errors.seen().len(), 6, "{:?}", errors.seen());
        assert!(errors.since_last().is_empty(), "what was counted before is nobody's");
        assert!(errors.unheard().is_empty());
        write(FILES[1].0, "9\n");
        write(FILES[2].0, "1\n");
        write(FILES[4].0, "5\n");
        write(FILES[5].0, "RxErr 3\nBadTLP 0\nTOTAL_ERR_COR 3\n");
        write(FILES[6].0, "      CPU0 CPU1\nMCE:   0   1   Machine check exceptions\n");
        let told: Vec<String> = errors.since_last().iter().map(ToString::to_string).collect();
        assert_eq!(
            told,
            [
                "corrected-error on Slot A2: 2 more corrected memory errors counted by the hardware, 9 since the machine started",
                "memory-fault on Slot A2: 1 more uncorrected memory errors counted by the hardware, 1 since the machine started",
                "throttled on core 3: 3 more throttlings for heat counted by the hardware, 5 since the machine started",
                "corrected-error on PCI device 0000:01:00.0: 2 more corrected link errors counted by the hardware, 3 since the machine started",
            ]
        );
        assert!(errors.since_last().is_empty(), "nothing is told twice");
        fs::remove_file(root.join(FILES[4].0)).expect("removed");
        let unheard: Vec<String> = errors.unheard().into_keys().collect();
        assert_eq!(unheard, ["throttlings for heat of core 3"]);
        for garbage in ["", "-1", "many", "99999999999999999999", "MCE: x", "TOTAL_ERR_COR"] {
            FILES.iter().for_each(|(path, _)| write(path, garbage));
            assert!(
                errors.since_last().iter().all(|incident| incident.evidence.to_string().len() < 200),
                "{garbage:?}"
            );
        }
        fs::remove_dir_all(&root).expect("removed");
    }
}
