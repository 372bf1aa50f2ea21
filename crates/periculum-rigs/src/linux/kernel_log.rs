//! The kernel's log as it grows (ABI/testing, dev-kmsg): machine checks, crashes of programs, graphics resets.

use std::fs::{File, OpenOptions};
use std::io::{ErrorKind, Read, Seek, SeekFrom};
use std::os::unix::fs::OpenOptionsExt;
use std::path::Path;

use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::quantity::harmless;

/// No more is read at a time: a kernel that says more than this has said enough.
const MOST_RECORDS: usize = 256;

/// A kernel keeps no more records than this.
const MOST_KEPT: usize = 1 << 16;

/// A record is no longer than this.
const LONGEST: usize = 8192;

/// `O_NONBLOCK`, so that a log without news is not waited for: the same on every architecture that this runs on.
const NONBLOCK: i32 = 0o4000;

/// What the kernel says of a program that crashed: `NAME[PID]: segfault …`, or `traps: NAME[PID] general protection fault …`.
const CRASHES: [&str; 5] = ["segfault at", "general protection", "trap ", "invalid opcode", "divide error"];

/// All that the kernel has said since it started, as far as it is kept; none where it may not be read.
pub(super) fn all(path: &Path) -> Option<String> {
    let mut file = OpenOptions::new().read(true).custom_flags(NONBLOCK).open(path).ok()?;
    let (mut text, mut buffer) = (String::new(), vec![0; LONGEST]);
    for _ in 0..MOST_KEPT {
        match file.read(&mut buffer) {
            Ok(0) => break,
            Ok(length) => text += &String::from_utf8_lossy(&buffer[..length]),
            Err(error) if was_overwritten(&error) => {}
            Err(_) => break,
        }
    }
    Some(text)
}

/// When a record was made, microseconds since the kernel started.
pub(super) fn moment(line: &str) -> Option<u64> {
    line.split_once(';')?.0.split(',').nth(2)?.parse().ok()
}

/// Older records were overwritten before they were read: what is left goes on behind them.
fn was_overwritten(error: &std::io::Error) -> bool {
    error.raw_os_error() == Some(32) || error.kind() == ErrorKind::Interrupted
}

/// The log from the moment that it was opened.
#[derive(Debug)]
pub(super) struct KernelLog {
    file: File,
    /// Whether a process is one of a pass that runs: another program's crash says nothing of the rung.
    is_ours: fn(u32) -> bool,
}

impl KernelLog {
    /// The log from now on; none where it may not be read.
    pub(super) fn open(path: &Path, is_ours: fn(u32) -> bool) -> Option<Self> {
        let mut file = OpenOptions::new().read(true).custom_flags(NONBLOCK).open(path).ok()?;
        file.seek(SeekFrom::End(0)).ok()?;
        Some(Self { file, is_ours })
    }

    /// The incidents among what was logged since the last call.
    pub(super) fn since_last(&mut self) -> Vec<Incident> {
        let mut buffer = vec![0; LONGEST];
        let mut incidents = Vec::new();
        for _ in 0..MOST_RECORDS {
            match self.file.read(&mut buffer) {
                Ok(0) => break,
                Ok(length) => {
                    let text = String::from_utf8_lossy(&buffer[..length]);
                    incidents.extend(text.lines().filter_map(message).filter_map(|said| incident(said, self.is_ours)));
                }
                Err(error) if was_overwritten(&error) => {}
                Err(_) => break,
            }
        }
        merged(incidents)
    }
}

/// Lines that the kernel says of one event are one incident, the worst of them with where it was: a machine check takes several.
fn merged(incidents: Vec<Incident>) -> Vec<Incident> {
    let (mut checks, mut others): (Vec<Incident>, Vec<Incident>) =
        incidents.into_iter().partition(|incident| incident.evidence.says(HARDWARE));
    let Some(worst) = checks.iter().map(|check| check.kind.verdict()).max() else { return others };
    let place = checks.iter().find_map(|check| check.place.clone().filter(|place| place.starts_with("core ")));
    checks.retain(|check| check.kind.verdict() == worst);
    if let Some(check) = checks.into_iter().next() {
        others.push(Incident { place: place.or(check.place), ..check });
    }
    others
}

/// The message of a record `PRIORITY,NUMBER,TIME,FLAGS;MESSAGE`; a line that goes on from another has none.
pub(super) fn message(line: &str) -> Option<&str> {
    if line.starts_with(' ') {
        return None;
    }
    line.split_once(';').map(|(_, message)| message)
}

/// What a message of the kernel says went wrong, where it does.
fn incident(message: &str, is_ours: impl Fn(u32) -> bool) -> Option<Incident> {
    let says = |words: &[&str]| words.iter().any(|word| message.contains(word));
    let kind = if says(&[HARDWARE, "Machine check", "machine check"]) {
        if says(&["ncorrected", "Fatal", "fatal"]) { IncidentKind::WrongResult } else { IncidentKind::CorrectedError }
    } else if says(&CRASHES) && process(message).is_some_and(is_ours) {
        IncidentKind::LoadDied
    } else if says(&["GPU reset", "gpu reset"]) {
        IncidentKind::DeviceReset
    } else if says(&["GPU HANG", "gpu hang", "ring timeout"]) || (says(&["ring "]) && says(&["timeout"])) {
        IncidentKind::Stalled
    } else {
        return None;
    };
    let evidence: String = harmless(message).chars().take(200).collect();
    Some(Incident::new(kind, format!("the kernel says: {evidence}")).at(place(message)))
}

/// What the kernel puts before everything that hardware reported.
const HARDWARE: &str = "Hardware Error";

/// The process that a message names as `NAME[PID]`.
fn process(message: &str) -> Option<u32> {
    let (_, rest) = message.split_once('[')?;
    rest.split_once(']')?.0.parse().ok()
}

/// Where it was: the processor that the message names, or whose driver said it.
fn place(message: &str) -> String {
    let words: Vec<&str> = message.split([' ', ':', ',', '(', '[']).filter(|word| !word.is_empty()).collect();
    let after = |name: &str| {
        let at = words.iter().position(|word| word.eq_ignore_ascii_case(name))?;
        words.get(at + 1)?.trim_end_matches([')', ']']).parse::<u32>().ok()
    };
    match after("CPU") {
        Some(cpu) => Incident::on_core(cpu as usize),
        None => harmless(words.first().unwrap_or(&"the kernel")),
    }
}

#[cfg(test)]
mod tests {
    use super::super::attribute::tests::tree;
    use super::*;
    use proptest::prelude::*;
    use std::fs;
    use std::io::Write;

    #[test]
    fn what_matters_in_the_log_is_an_incident() {
        let root = tree("kmsg", &[("kmsg", "2,1,5,-;mce: [Hardware Error]: long ago\n")]);
        let mut log = KernelLog::open(&root.join("kmsg"), |process| process == 812).expect("opened");
        assert!(log.since_last().is_empty(), "what was logged before is nobody's");
        let mut file = OpenOptions::new().append(true).open(root.join("kmsg")).expect("opened");
        let news = "6,2,6,-;eth0: link is up\n\
                    2,3,7,-;mce: [Hardware Error]: CPU 5: Machine Check: 0 Bank 4: dc00\n SUBSYSTEM=cpu\n\
                    2,4,8,-;EDAC MC0: 1 UE Hardware Error: uncorrected\n\
                    6,5,9,-;periculum[812]: segfault at 0 ip 0 sp 0 error 4\n\
                    6,6,9,-;periculum[9]: segfault at 0\n\
                    6,6,9,-;traps: periculum[812] general protection fault ip:1 sp:2 error:0\n\
                    3,7,9,-;card0: ring gfx timeout, signaled seq=1\n\
                    4,8,9,-;card0: GPU reset begin!\n";
        file.write_all(news.as_bytes()).expect("written");
        let told: Vec<(IncidentKind, Option<String>)> =
            log.since_last().into_iter().map(|incident| (incident.kind, incident.place)).collect();
        let at = |place: &str| Some(place.to_owned());
        assert_eq!(
            told,
            [
                (IncidentKind::LoadDied, at("periculum")),
                (IncidentKind::LoadDied, at("traps")),
                (IncidentKind::Stalled, at("card0")),
                (IncidentKind::DeviceReset, at("card0")),
                // Two lines of one event, on the core that one of them names.
                (IncidentKind::WrongResult, at("core 5")),
            ]
        );
        assert!(log.since_last().is_empty());
        fs::remove_dir_all(&root).expect("removed");
    }

    proptest! {
        #[test]
        fn no_message_can_harm(text in "(mce|Hardware Error|CPU|ring|timeout|periculum|segfault|[0-9]{0,12}|\\PC{0,6}|[ :;,\\[\\]]){0,12}") {
            if let Some(incident) = message(&format!("3,1,1,-;{text}")).and_then(|said| incident(said, |_| true)) {
                prop_assert!(!incident.to_string().chars().any(char::is_control));
                prop_assert!(incident.evidence.to_string().chars().count() <= 220);
            }
        }
    }
}
