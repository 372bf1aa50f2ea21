//! What a Linux kernel says about the machine this runs on, below a root that tests can move.

mod attribute;
mod boot_file;
mod boot_line;
mod card_limits;
mod curves;
mod cycles;
mod describe;
mod dmi;
mod dumps;
mod errors;
mod fan_controls;
mod fan_points;
mod keeper;
mod kept_line;
mod kernel_log;
mod last_words;
mod limits;
mod overdrive;
mod restart;
mod sampler;
mod sensors;
mod setter;
mod targets;
mod topology;
mod watchdog;
mod whole_file;

use std::collections::BTreeMap;
use std::fs;
use std::path::{Path, PathBuf};
use std::thread;
use std::time::{Duration, Instant};

use periculum_core::model::ending::Boot;
use periculum_core::model::moment::Moment;
use periculum_core::model::quantity::harmless;

pub use describe::rig_text;
pub use errors::Errors;
pub use restart::{restart, restarting};
pub use sampler::Sampler;
pub use setter::{ADAPTER, Setter, restore, written_by};
pub use watchdog::Watchdog;

use attribute::numbered;
use cycles::Cycles;
use limits::Limits;
use sensors::Reader;

/// What a load measures of its own clock, mean over its cores, MHz: the source that no attribute has.
pub const TRUE_CLOCK: &str = "true-clock";

/// What limits the processors now: the source that reads a state.
const LIMITED_BY: &str = "limited-by";

/// The names that a sensor's `source` may have, …
pub const SOURCES: [&str; 5] = ["usage", "reported-clock", "counted-clock", TRUE_CLOCK, LIMITED_BY];

/// … and what the others begin with, which depend on the machine.
pub const FOUND_SOURCES: [&str; 6] = ["hwmon/", "thermal/", "clock/", "energy/", "graphics/", "pressure/"];

/// Jiffies of the times that the kernel tells programs, the same on every Linux (time(7)).
const JIFFIES_A_SECOND: f64 = 100.0;

impl Clone for Linux {
    /// The same machine, of which nothing has been read.
    fn clone(&self) -> Self {
        Self::below(&self.root)
    }
}

/// The machine's memory, bytes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Memory {
    /// All there is.
    pub total: u64,
    /// What can be had without swapping.
    pub available: u64,
}

/// A Linux machine, seen through its file systems below this root.
#[derive(Debug)]
pub struct Linux {
    root: PathBuf,
    /// The cycle counters, once they were asked for; none where there are none.
    cycles: Option<Option<Cycles>>,
    busy_before: Option<(u64, u64)>,
    /// What limits the processors, once it was asked for; none where nothing says so.
    limits: Option<Option<Limits>>,
    /// The sensors that were asked for; none where there is no such one.
    readers: BTreeMap<String, Option<Reader>>,
}

impl Linux {
    /// The machine whose `/proc` stands below this root.
    pub fn below(root: &Path) -> Self {
        Self { root: root.to_owned(), cycles: None, busy_before: None, limits: None, readers: BTreeMap::new() }
    }

    /// Where the machine's file systems stand.
    pub fn root(&self) -> &Path {
        &self.root
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

    /// The programs that used the processors while they were watched for so long, busiest first: name and percent of
    /// one processor. This program is not among them, nor is the kernel.
    pub fn busy_programs(&self, watched: Duration) -> Vec<(String, f64)> {
        let before = self.processor_times();
        let began = Instant::now();
        thread::sleep(watched);
        let hundredths = began.elapsed().as_secs_f64() * JIFFIES_A_SECOND / 100.0;
        let mut programs: Vec<(String, f64)> = self
            .processor_times()
            .into_iter()
            .filter_map(|(process, (name, time))| {
                let used = time.checked_sub(before.get(&process)?.1).filter(|used| *used > 0)?;
                Some((name, used as f64 / hundredths))
            })
            .collect();
        programs.sort_by(|a, b| b.1.total_cmp(&a.1));
        programs
    }

    /// Name and processor time, in jiffies, of every other process.
    fn processor_times(&self) -> BTreeMap<u32, (String, u64)> {
        let Ok(folders) = fs::read_dir(self.root.join("proc")) else { return BTreeMap::new() };
        let processes = folders.flatten().filter_map(|folder| folder.file_name().to_str()?.parse().ok());
        let others = processes.filter(|process| *process != std::process::id());
        others
            .filter_map(|process| Some((process, name_and_time(&self.read(&format!("proc/{process}/stat"))?)?)))
            .collect()
    }

    /// A reading by its source's name; none where the kernel does not say.
    pub fn reading(&mut self, source: &str) -> Option<f64> {
        match source {
            "usage" => self.usage(),
            "reported-clock" => self.read("proc/cpuinfo").and_then(|text| mean_clock(&text)),
            "counted-clock" => {
                let processors = || numbered(&self.root.join("sys/devices/system/cpu"), "cpu");
                let open = || Cycles::open(&processors().into_iter().map(|(cpu, _)| cpu).collect::<Vec<_>>());
                self.cycles.get_or_insert_with(open).as_mut()?.clock()
            }
            LIMITED_BY => {
                let root = &self.root;
                self.limits.get_or_insert_with(|| Limits::of(root)).as_mut()?.read(Instant::now())
            }
            found => {
                if !self.readers.contains_key(found) {
                    self.readers.insert(found.to_owned(), Reader::of(&self.root, found));
                }
                self.readers.get_mut(found)?.as_mut()?.read(Instant::now())
            }
        }
    }

    /// Why a source tells nothing, in words.
    fn why_silent(&self, source: &str) -> String {
        let Some(Some(reader)) = self.readers.get(source) else { return "this machine has no such sensor".to_owned() };
        reader.why_silent()
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

/// The flag of a thread that runs in the kernel only (`PF_KTHREAD` of the kernel's `include/linux/sched.h`).
const KERNEL_THREAD: u64 = 0x0020_0000;

/// `btime` of `/proc/stat`: seconds since the Unix epoch at which the system started (proc_stat(5)).
fn boot_time(stat: &str) -> Option<Moment> {
    let seconds: i64 = stat.lines().find_map(|line| line.strip_prefix("btime "))?.trim().parse().ok()?;
    Some(Moment::from_millis(seconds.checked_mul(1000)?))
}

/// Name and processor time in jiffies of `/proc/PID/stat` (proc_pid_stat(5): flags are the 9th field, utime and stime the 14th
/// and 15th); none for a thread of the kernel's.
fn name_and_time(stat: &str) -> Option<(String, u64)> {
    // A name may hold anything, brackets too, but the last bracket is its end.
    let (name, rest) = stat.split_once('(')?.1.rsplit_once(')')?;
    let flags: u64 = rest.split_whitespace().nth(6)?.parse().ok()?;
    if flags & KERNEL_THREAD != 0 {
        return None;
    }
    let mut times = rest.split_whitespace().skip(11).map(str::parse::<u64>);
    let (user, system) = (times.next()?.ok()?, times.next()?.ok()?);
    Some((harmless(name), user.checked_add(system)?))
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
        let stat = "77 (odd) name) S 1 77 77 0 -1 4194560 1 0 0 0 250 50 0 0 20 0 1";
        assert_eq!(name_and_time(stat), Some(("odd) name".into(), 300)));
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
                name_and_time(&stat);
                memory(&stat.replace("cpu MHz", "MemTotal"));
            }
        }
    }
}
