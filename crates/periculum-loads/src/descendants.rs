//! The processes that a pass has started, whatever group or session they put themselves into.

use std::collections::BTreeMap;
use std::fs;
use std::sync::atomic::{AtomicU64, Ordering};
use std::time::{SystemTime, UNIX_EPOCH};

use rustix::process::{Pid, Signal, getpid, kill_process};

/// The variable that everything a pass starts inherits.
pub(crate) const MARK: &str = "PERICULUM_PASS";

/// A mark that no other pass has.
pub(crate) fn new_mark() -> String {
    static PASSES: AtomicU64 = AtomicU64::new(0);
    let now = SystemTime::now().duration_since(UNIX_EPOCH).unwrap_or_default().as_nanos();
    format!("{}-{}-{now}", getpid().as_raw_nonzero(), PASSES.fetch_add(1, Ordering::Relaxed))
}

/// Kills everything that this process has started, itself left out.
pub(crate) fn kill_descendants(process: i32) {
    let parents = parents();
    let mut found = vec![process];
    let mut at = 0;
    while let Some(parent) = found.get(at).copied() {
        found.extend(parents.iter().filter(|(_, of)| **of == parent).map(|(child, _)| *child));
        at += 1;
    }
    found.into_iter().skip(1).for_each(kill);
}

/// Kills everything that bears this mark: what a pass has left in a session of its own, whose parents may have died.
pub(crate) fn kill_marked(mark: &str) {
    let marked = format!("{MARK}={mark}");
    let bears = |process: &i32| {
        let environment = fs::read(format!("/proc/{process}/environ")).unwrap_or_default();
        environment.split(|byte| *byte == 0).any(|variable| variable == marked.as_bytes())
    };
    parents().into_keys().filter(bears).for_each(kill);
}

fn kill(process: i32) {
    if let Some(process) = Pid::from_raw(process) {
        // One that is gone already is what was wanted.
        let _ = kill_process(process, Signal::KILL);
    }
}

/// The parent of each process (proc_pid_stat(5)).
fn parents() -> BTreeMap<i32, i32> {
    let Ok(entries) = fs::read_dir("/proc") else { return BTreeMap::new() };
    let parent = |name: &str| {
        let stat = fs::read_to_string(format!("/proc/{name}/stat")).ok()?;
        // A name may hold anything, brackets too, but the last bracket is its end.
        stat.rsplit_once(')')?.1.split_whitespace().nth(1)?.parse().ok()
    };
    let names = entries.flatten().filter_map(|entry| entry.file_name().into_string().ok());
    names.filter_map(|name| Some((name.parse().ok()?, parent(&name)?))).collect()
}
