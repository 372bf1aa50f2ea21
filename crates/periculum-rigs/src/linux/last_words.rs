//! What was said before the machine went down, where anybody kept it: the kernel's last lines in the firmware
//! (kernel documentation, admin-guide/pstore), what the firmware itself reported of its last moments (ACPI 6.5, 18.3.1, the
//! boot error record; machine check banks that outlive a reset), or the log of the boot before.

use std::fs;
use std::io::Read;
use std::path::Path;
use std::process::{Command, Stdio};
use std::time::{Duration, Instant, SystemTime, UNIX_EPOCH};

use periculum_core::model::quantity::harmless;

use super::Linux;
use super::kernel_log;

/// So many lines are told.
const LINES: usize = 3;

/// What matters of a kernel's last lines is more than their end, which is a list of registers.
const TELLING: [&str; 6] = ["Kernel panic", "Machine check", "Hardware Error", "Oops", "BUG:", "watchdog:"];

/// The kernel hands on what the firmware kept while it starts, microseconds.
const STARTING: u64 = 60_000_000;

/// The log of the boot before is worth no more waiting.
const PATIENCE: Duration = Duration::from_secs(2);

impl Linux {
    /// The last words of an earlier boot, as one line; none where nothing was kept since this moment.
    pub fn last_words(&self, since: SystemTime) -> Option<String> {
        self.kept_by_kernel(since).or_else(|| self.kept_by_firmware()).or_else(|| self.kept_in_log(since))
    }

    fn kept_by_kernel(&self, since: SystemTime) -> Option<String> {
        let records = fs::read_dir(self.root.join("sys/fs/pstore")).ok()?;
        let of_kernel = |path: &Path| path.file_name().is_some_and(|name| name.to_string_lossy().starts_with("dmesg-"));
        let newest = records
            .flatten()
            .map(|record| record.path())
            .filter(|path| of_kernel(path))
            .filter_map(|path| Some((fs::metadata(&path).ok()?.modified().ok()?, path)))
            .filter(|(written, _)| *written >= since)
            .max()?;
        told(&String::from_utf8_lossy(&fs::read(newest.1).ok()?))
    }

    /// What this boot's kernel found of the last one when it started.
    fn kept_by_firmware(&self) -> Option<String> {
        let log = kernel_log::all(&self.root.join("dev/kmsg"))?;
        let is_of_start = |line: &&str| kernel_log::moment(line).is_some_and(|moment| moment < STARTING);
        let said = log.lines().filter(is_of_start).filter_map(kernel_log::message);
        // That there is a table for errors is no error.
        let of_hardware =
            said.filter(|said| said.contains("Hardware Error") || said.starts_with("BERT: Error records"));
        let found: Vec<String> = of_hardware.take(LINES).map(harmless).collect();
        (!found.is_empty()).then(|| found.join(" | "))
    }

    /// What the service manager's log has of the boot before, of what the kernel called critical or worse.
    fn kept_in_log(&self, since: SystemTime) -> Option<String> {
        if self.root != Path::new("/") || !Path::new("/run/systemd/journal").exists() {
            return None;
        }
        let seconds = since.duration_since(UNIX_EPOCH).ok()?.as_secs();
        let mut asked = Command::new("journalctl");
        asked.args(["--dmesg", "--boot=-1", "--priority=crit", "--output=cat", "--no-pager", "--lines=20"]);
        let mut child = asked
            .arg(format!("--since=@{seconds}"))
            .stdin(Stdio::null())
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()
            .ok()?;
        let began = Instant::now();
        while child.try_wait().ok()?.is_none() {
            if began.elapsed() > PATIENCE {
                let _ = child.kill();
                let _ = child.wait();
                return None;
            }
            std::thread::sleep(Duration::from_millis(20));
        }
        let mut text = String::new();
        child.stdout.take()?.read_to_string(&mut text).ok()?;
        told(&text)
    }
}

/// The lines that tell most, else the last ones.
fn told(text: &str) -> Option<String> {
    let lines: Vec<String> = text.lines().map(|line| harmless(line.trim())).filter(|line| !line.is_empty()).collect();
    let matters = |line: &&String| TELLING.iter().any(|words| line.contains(words));
    let mut words: Vec<&str> = lines.iter().filter(matters).take(LINES).map(String::as_str).collect();
    if words.is_empty() {
        words = lines.iter().skip(lines.len().saturating_sub(LINES)).map(String::as_str).collect();
    }
    (!words.is_empty()).then(|| words.join(" | "))
}

#[cfg(test)]
mod tests {
    use super::super::attribute::tests::tree;
    use super::*;
    use std::time::Duration;

    #[test]
    fn the_newest_record_of_the_kernel_is_told() {
        let files = [
            (
                "sys/fs/pstore/dmesg-efi-1",
                "Panic#1 Part1\n<4>[ 9.1] a\n<0>[ 9.2] Machine check\u{7}\n<0>[ 9.3] Panic\n\n",
            ),
            ("sys/fs/pstore/console-ramoops-0", "other\n"),
        ];
        let root = tree("pstore", &files);
        let linux = Linux::below(&root);
        let hour_ago = SystemTime::now() - Duration::from_secs(3600);
        assert_eq!(linux.last_words(hour_ago).as_deref(), Some("<0>[ 9.2] Machine check\u{fffd}"));
        assert_eq!(linux.last_words(SystemTime::now() + Duration::from_secs(60)), None, "that was an earlier one");
        fs::remove_dir_all(&root).expect("removed");
    }

    #[test]
    fn what_the_firmware_kept_is_told_where_the_kernel_left_nothing() {
        let log = "6,1,900000,-;BERT: [Hardware Error]: Skipped 1 error records\n\
                   6,1,100000,-;ACPI: BERT 0x000000007B5F3000 000030 (v01)\n\
                   6,1,910000,-;BERT: Boot Error Record Table support is disabled. Enable it by using bert_enable\n\
                   2,2,950000,-;mce: [Hardware Error]: CPU 0: Machine Check: 0 Bank 5: be00\n\
                   2,3,90000000,-;mce: [Hardware Error]: CPU 3: of this boot\n";
        let root = tree("bert", &[("dev/kmsg", log)]);
        assert_eq!(
            Linux::below(&root).last_words(SystemTime::now()).as_deref(),
            Some(
                "BERT: [Hardware Error]: Skipped 1 error records | mce: [Hardware Error]: CPU 0: Machine Check: 0 Bank 5: be00"
            )
        );
        fs::remove_dir_all(&root).expect("removed");
    }

    #[test]
    fn the_end_of_a_log_is_told_where_nothing_in_it_matters_more() {
        assert_eq!(told("a\n\nb\nc\nd\n").as_deref(), Some("b | c | d"));
        assert_eq!(
            told("RIP: 0\nKernel panic - not syncing: x\nRAX: 1\n").as_deref(),
            Some("Kernel panic - not syncing: x")
        );
        assert_eq!(told("\n"), None);
    }
}
