//! What the kernel said before it went down, where the firmware kept it (kernel documentation, admin-guide/pstore).

use std::fs;
use std::path::Path;
use std::time::SystemTime;

use periculum_core::quantity::harmless;

use super::Linux;

/// So many of the last lines are told.
const LINES: usize = 3;

impl Linux {
    /// The last lines that the kernel left of an earlier boot, as one; none where nothing was kept since this moment.
    pub fn last_words(&self, since: SystemTime) -> Option<String> {
        let records = fs::read_dir(self.root.join("sys/fs/pstore")).ok()?;
        let of_kernel = |path: &Path| path.file_name().is_some_and(|name| name.to_string_lossy().starts_with("dmesg-"));
        let newest = records
            .flatten()
            .map(|record| record.path())
            .filter(|path| of_kernel(path))
            .filter_map(|path| Some((fs::metadata(&path).ok()?.modified().ok()?, path)))
            .filter(|(written, _)| *written >= since)
            .max()?;
        let text = String::from_utf8_lossy(&fs::read(newest.1).ok()?).into_owned();
        let lines: Vec<String> = text.lines().filter(|line| !line.trim().is_empty()).map(harmless).collect();
        let last = lines.iter().skip(lines.len().saturating_sub(LINES));
        let words: Vec<&str> = last.map(|line| line.trim()).collect();
        (!words.is_empty()).then(|| words.join(" | "))
    }
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
        assert_eq!(
            linux.last_words(hour_ago).as_deref(),
            Some("<4>[ 9.1] a | <0>[ 9.2] Machine check\u{fffd} | <0>[ 9.3] Panic")
        );
        assert_eq!(linux.last_words(SystemTime::now() + Duration::from_secs(60)), None, "that was an earlier one");
        fs::remove_dir_all(&root).expect("removed");
    }
}
