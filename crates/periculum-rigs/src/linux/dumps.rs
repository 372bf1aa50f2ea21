//! What drivers leave when a device dies under them (ABI/testing, sysfs-class-devcoredump): each dump is a device that was reset.

use std::collections::BTreeSet;
use std::path::{Path, PathBuf};

use periculum_core::model::incident::{Incident, IncidentKind};

use super::attribute::names;

/// The dumps of drivers.
#[derive(Debug)]
pub(super) struct Dumps {
    folder: PathBuf,
    known: BTreeSet<String>,
}

impl Dumps {
    /// Those below this root from now on.
    pub(super) fn of(root: &Path) -> Self {
        let folder = root.join("sys/class/devcoredump");
        Self { known: dumps(&folder), folder }
    }

    /// What was left since the last call.
    pub(super) fn since_last(&mut self) -> Vec<Incident> {
        let now = dumps(&self.folder);
        let new: Vec<Incident> = now.difference(&self.known).map(|dump| self.incident(dump)).collect();
        self.known = now;
        new
    }

    fn incident(&self, dump: &str) -> Incident {
        let device = std::fs::read_link(self.folder.join(dump).join("failing_device")).ok();
        let device = device.and_then(|path| Some(path.file_name()?.to_string_lossy().into_owned()));
        let incident = Incident::new(IncidentKind::DeviceReset, format!("the driver has left a dump of it: {dump}"));
        device.into_iter().fold(incident, Incident::at)
    }
}

/// The names of all there are.
fn dumps(folder: &Path) -> BTreeSet<String> {
    names(folder).into_iter().filter(|name| name.starts_with("devcd")).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::fs;
    use std::os::unix::fs::symlink;

    #[test]
    fn a_new_dump_is_a_device_that_was_reset() {
        let root = tempfile::tempdir().expect("a folder");
        let folder = root.path().join("sys/class/devcoredump");
        fs::create_dir_all(folder.join("devcd1")).expect("made");
        fs::write(folder.join("disabled"), "0").expect("written");
        let mut dumps = Dumps::of(root.path());
        assert_eq!(dumps.since_last(), []);
        fs::create_dir(folder.join("devcd2")).expect("made");
        symlink("../../../devices/pci0000:00/0000:03:00.0", folder.join("devcd2/failing_device")).expect("linked");
        let told = dumps.since_last();
        assert_eq!(
            (told.len(), told[0].kind, told[0].place.as_deref()),
            (1, IncidentKind::DeviceReset, Some("0000:03:00.0"))
        );
        fs::remove_dir_all(folder.join("devcd1")).expect("removed");
        assert_eq!(dumps.since_last(), [], "dumps go after a while");
        assert_eq!(Dumps::of(&root.path().join("nowhere")).since_last(), []);
    }
}
