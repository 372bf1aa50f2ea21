//! The cycles that each processor counts (perf_event_open(2)), where the machine has such counters and lets us.

use std::fs::File;
use std::io::Read;
use std::os::fd::FromRawFd;

/// `PERF_TYPE_HARDWARE` and `PERF_COUNT_HW_CPU_CYCLES`.
const HARDWARE: u32 = 0;
const CYCLES: u64 = 0;

/// `PERF_FORMAT_TOTAL_TIME_ENABLED | PERF_FORMAT_TOTAL_TIME_RUNNING`.
const WITH_TIMES: u64 = 3;

/// `PERF_FLAG_FD_CLOEXEC`.
const CLOSE_ON_EXEC: u64 = 8;

/// The first published form of `struct perf_event_attr`, which every kernel takes.
#[repr(C)]
#[derive(Default)]
struct Attributes {
    kind: u32,
    size: u32,
    config: u64,
    sample_period: u64,
    sample_type: u64,
    read_format: u64,
    flags: u64,
    wakeup: u32,
    breakpoint: u32,
    address: u64,
}

/// A count, and the times that it was wanted and ran, ns: counters are shared where there are too few.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
struct Count {
    cycles: u64,
    wanted: u64,
    ran: u64,
}

/// The counters of all processors.
#[derive(Debug)]
pub(super) struct Cycles {
    counters: Vec<(File, Count)>,
}

impl Cycles {
    /// Counts from now on; none where not every processor can be counted.
    pub(super) fn open(processors: &[u32]) -> Option<Self> {
        let counters: Option<Vec<_>> = processors.iter().map(|cpu| Some((counter(*cpu)?, Count::default()))).collect();
        counters.filter(|counters| !counters.is_empty()).map(|counters| Self { counters })
    }

    /// The mean clock of the processors since the last call, MHz: cycles in which one stood still don't count.
    pub(super) fn clock(&mut self) -> Option<f64> {
        let mut clocks = Vec::new();
        for (file, last) in &mut self.counters {
            let now = read(file)?;
            clocks.push(clock(std::mem::replace(last, now), now)?);
        }
        Some(clocks.iter().sum::<f64>() / clocks.len() as f64)
    }
}

/// The counter of a processor for all programs on it.
fn counter(cpu: u32) -> Option<File> {
    let size = u32::try_from(size_of::<Attributes>()).ok()?;
    let attributes = Attributes { kind: HARDWARE, size, config: CYCLES, read_format: WITH_TIMES, ..Default::default() };
    let (every_program, no_group) = (-1, -1);
    // SAFETY: the attributes are as long as they say and outlive the call, which writes at most into them.
    let descriptor = unsafe {
        libc::syscall(
            libc::SYS_perf_event_open,
            &raw const attributes,
            every_program,
            libc::c_int::try_from(cpu).ok()?,
            no_group,
            CLOSE_ON_EXEC,
        )
    };
    let descriptor = i32::try_from(descriptor).ok().filter(|descriptor| *descriptor >= 0)?;
    // SAFETY: the kernel has just given us this descriptor, and nobody else has it.
    Some(unsafe { File::from_raw_fd(descriptor) })
}

fn read(file: &mut File) -> Option<Count> {
    let mut bytes = [0; 24];
    file.read_exact(&mut bytes).ok()?;
    let word = |index: usize| bytes[8 * index..8 * index + 8].try_into().map(u64::from_ne_bytes).ok();
    Some(Count { cycles: word(0)?, wanted: word(1)?, ran: word(2)? })
}

/// The clock between two counts, MHz; none where nothing was counted.
fn clock(before: Count, now: Count) -> Option<f64> {
    let ran = now.ran.checked_sub(before.ran).filter(|ran| *ran > 0)?;
    let cycles = now.cycles.checked_sub(before.cycles)?;
    (before != Count::default()).then(|| 1000.0 * cycles as f64 / ran as f64)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn cycles_over_time_are_a_clock() {
        let count = |cycles, ran| Count { cycles, wanted: 2 * ran, ran };
        assert_eq!(clock(count(1_000_000, 1_000_000), count(5_900_000, 2_000_000)), Some(4900.0));
        assert_eq!(clock(Count::default(), count(5, 5)), None, "not before the second reading");
        assert_eq!(clock(count(5, 5), count(9, 5)), None, "it did not run");
        assert_eq!(clock(count(9, 5), count(5, 7)), None, "it began anew");
    }

    #[test]
    fn where_the_machine_counts_it_counts_a_clock() {
        let Some(mut cycles) = Cycles::open(&[0]) else {
            assert!(Cycles::open(&[]).is_none());
            return;
        };
        cycles.clock();
        std::hint::black_box((0..30_000_000u64).fold(0, |sum: u64, value| sum.wrapping_mul(31).wrapping_add(value)));
        assert!(cycles.clock().is_some_and(|clock| (0.0..10_000.0).contains(&clock)));
    }
}
