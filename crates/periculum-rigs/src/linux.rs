//! What a Linux kernel says about the machine this runs on, below a root that tests can move.

use std::fs;
use std::path::{Path, PathBuf};

use periculum_core::ending::Boot;
use periculum_core::moment::Moment;

/// The names that a sensor's `source` may have.
pub const SOURCES: [&str; 2] = ["usage", "reported-clock"];

/// The machine's memory, bytes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Memory {
    /// All there is.
    pub total: u64,
    /// What can be had without swapping.
    pub available: u64,
}

/// A Linux machine, seen through its file systems below this root.
#[derive(Clone, Debug)]
pub struct Linux {
    root: PathBuf,
    busy_before: Option<(u64, u64)>,
}

impl Linux {
    /// The machine whose `/proc` stands below this root.
    pub fn below(root: &Path) -> Self {
        Self { root: root.to_owned(), busy_before: None }
    }

    /// The running boot: its identifier and when it started.
    pub fn boot(&self) -> Boot {
        let id =
            self.read("proc/sys/kernel/random/boot_id").map_or_else(|| "unknown".into(), |id| id.trim().to_owned());
        let since = self.read("proc/stat").and_then(|text| boot_time(&text));
        Boot { id, since }
    }

    /// The machine's memory; none where the kernel does not say.
    pub fn memory(&self) -> Option<Memory> {
        memory(&self.read("proc/meminfo")?)
    }

    /// A reading by its source's name; none where the kernel does not say.
    pub fn reading(&mut self, source: &str) -> Option<f64> {
        match source {
            "usage" => self.usage(),
            "reported-clock" => self.read("proc/cpuinfo").and_then(|text| mean_clock(&text)),
            _ => None,
        }
    }

    /// Share of processor time that was not idle since the last call, percent.
    fn usage(&mut self) -> Option<f64> {
        let now = self.read("proc/stat").and_then(|text| busy_and_total(&text))?;
        let (busy, total) = self.busy_before.replace(now)?;
        let elapsed = now.1.checked_sub(total).filter(|elapsed| *elapsed > 0)?;
        Some(100.0 * now.0.saturating_sub(busy) as f64 / elapsed as f64)
    }

    fn read(&self, path: &str) -> Option<String> {
        fs::read_to_string(self.root.join(path)).ok()
    }
}

/// `btime` of `/proc/stat`: seconds since the Unix epoch at which the system started (proc_stat(5)).
fn boot_time(stat: &str) -> Option<Moment> {
    let seconds: i64 = stat.lines().find_map(|line| line.strip_prefix("btime "))?.trim().parse().ok()?;
    Some(Moment::from_millis(seconds.checked_mul(1000)?))
}

/// `MemTotal` and `MemAvailable` of `/proc/meminfo` (proc_meminfo(5)).
fn memory(meminfo: &str) -> Option<Memory> {
    let bytes = |name: &str| {
        let line = meminfo.lines().find_map(|line| line.strip_prefix(name)?.strip_prefix(':'))?;
        line.trim().strip_suffix("kB")?.trim().parse::<u64>().ok()?.checked_mul(1024)
    };
    Some(Memory { total: bytes("MemTotal")?, available: bytes("MemAvailable")? })
}

/// Jiffies that all processors were busy, and all of them (proc_stat(5): idle and iowait are the 4th and 5th).
fn busy_and_total(stat: &str) -> Option<(u64, u64)> {
    let line = stat.lines().find_map(|line| line.strip_prefix("cpu "))?;
    let jiffies: Vec<u64> = line.split_whitespace().take(8).map_while(|field| field.parse().ok()).collect();
    let total = jiffies.iter().try_fold(0u64, |sum, field| sum.checked_add(*field))?;
    let idle = jiffies.get(3)?.checked_add(*jiffies.get(4)?)?;
    Some((total - idle, total))
}

/// Mean of the `cpu MHz` lines of `/proc/cpuinfo`, where the architecture has them.
fn mean_clock(cpuinfo: &str) -> Option<f64> {
    let lines = cpuinfo.lines().filter(|line| line.starts_with("cpu MHz"));
    let clocks: Vec<f64> = lines.filter_map(|line| line.split(':').nth(1)?.trim().parse().ok()).collect();
    (!clocks.is_empty()).then(|| clocks.iter().sum::<f64>() / clocks.len() as f64)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    const STAT: &str = "cpu  100 0 50 800 50 0 0 0 0 0\ncpu0 1 2 3\nbtime 1700000000\nprocesses 5\n";

    #[test]
    fn the_kernels_words_are_read() {
        assert_eq!(boot_time(STAT), Some(Moment::from_millis(1_700_000_000_000)));
        assert_eq!(busy_and_total(STAT), Some((150, 1000)));
        assert_eq!(mean_clock("cpu MHz\t\t: 2500.0\ncpu MHz\t\t: 3500.0\n"), Some(3000.0));
        assert_eq!(mean_clock("Processor: small\n"), None);
        let meminfo = "MemTotal:       1000 kB\nMemFree:  100 kB\nMemAvailable:    900 kB\n";
        assert_eq!(memory(meminfo), Some(Memory { total: 1_024_000, available: 921_600 }));
        assert_eq!(memory("MemTotal: 1000 kB\n"), None);
    }

    #[test]
    fn usage_is_the_busy_share_between_two_calls() {
        let root = std::env::temp_dir().join(format!("periculum-linux-{}", std::process::id()));
        fs::create_dir_all(root.join("proc")).expect("a folder");
        fs::write(root.join("proc/stat"), STAT).expect("a file");
        let mut linux = Linux::below(&root);
        assert_eq!(linux.reading("usage"), None);
        fs::write(root.join("proc/stat"), "cpu  175 0 50 825 50 0 0 0\n").expect("a file");
        assert_eq!(linux.reading("usage"), Some(75.0));
        fs::remove_dir_all(&root).expect("removed");
    }

    proptest! {
        #[test]
        fn garbage_is_no_reading_and_no_panic(text in any::<String>(), numbers in proptest::collection::vec(any::<u64>(), 0..12)) {
            let line = numbers.iter().map(u64::to_string).collect::<Vec<_>>().join(" ");
            for stat in [text.clone(), format!("cpu  {line}\nbtime {line}\ncpu MHz : {text}")] {
                boot_time(&stat);
                busy_and_total(&stat);
                mean_clock(&stat);
                memory(&stat.replace("cpu MHz", "MemTotal"));
            }
        }
    }
}
