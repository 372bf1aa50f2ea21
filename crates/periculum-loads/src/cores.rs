//! The processors that this process may use, and threads that stay on one of them.

use rustix::thread::{CpuSet, sched_getaffinity, sched_setaffinity};

/// The processors this process may use, as the operating system numbers them, ascending.
pub fn allowed() -> Vec<usize> {
    let Ok(set) = sched_getaffinity(None) else { return vec![0] };
    (0..CpuSet::MAX_CPU).filter(|core| set.is_set(*core)).collect()
}

/// Keeps the calling thread on one processor; says whether the operating system agreed.
pub fn pin_to(core: usize) -> bool {
    pin_to_any(&[core])
}

/// Keeps the calling thread, and what it starts from now on, on these processors; says whether the operating system
/// agreed.
pub fn pin_to_any(cores: &[usize]) -> bool {
    let mut only = CpuSet::new();
    cores.iter().for_each(|core| only.set(*core));
    sched_setaffinity(None, &only).is_ok()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_pinned_thread_may_use_its_processor_only() {
        let last = *allowed().last().expect("a processor");
        let seen = std::thread::spawn(move || (pin_to(last), allowed())).join().expect("a thread");
        assert_eq!(seen, (true, vec![last]));
        assert!(!pin_to(CpuSet::MAX_CPU - 1));
    }
}
