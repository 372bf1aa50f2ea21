//! The kernel's watchdog: a machine that it does not hear from restarts (kernel documentation, watchdog/watchdog-api).

use super::attribute::number;
use std::fs::{File, OpenOptions};
use std::io::{self, Write};
use std::path::{Path, PathBuf};
use std::time::{Duration, Instant};

/// It is fed so often where all goes on, or in a third of its own time where that is less.
const FEEDING: Duration = Duration::from_secs(1);

/// The bit of the boot status that says that the watchdog restarted the machine (`WDIOF_CARDRESET`).
const RESTARTED_BY_IT: u32 = 0x20;

/// What tells the device, before it is closed, that this was meant.
const GOODBYE: &[u8] = b"V";

/// A watchdog that is armed from the first feeding until it is disarmed.
///
/// It is not disarmed when it is dropped: a program that dies during a trial leaves a machine that restarts.
#[derive(Debug)]
pub struct Watchdog {
    device: PathBuf,
    feeding: Duration,
    armed: Option<(File, Instant)>,
}

/// Why a watchdog can't guard anything.
#[derive(Debug, thiserror::Error)]
pub enum NoWatchdog {
    /// There is none.
    #[error("there is no watchdog {}; leave `unattended` out, or load its driver", device.display())]
    Missing {
        /// Its path.
        device: PathBuf,
    },
    /// It may not be written.
    #[error("the watchdog {} may not be written ({why}){owner}, so it would guard nothing", device.display())]
    Forbidden {
        /// Its path.
        device: PathBuf,
        /// What the kernel says.
        why: String,
        /// Whose it is, in words, where that helps.
        owner: String,
    },
}

impl Watchdog {
    /// The watchdog of this path below a root, not armed.
    ///
    /// # Errors
    /// Where there is none. Opening it to see whether it may be written would arm it.
    pub fn below(root: &Path, device: &str) -> Result<Self, NoWatchdog> {
        let device = root.join(device.trim_start_matches('/'));
        if !device.exists() {
            return Err(NoWatchdog::Missing { device });
        }
        // Whether it may be written is asked without opening it.
        if let Err(error) = rustix::fs::access(&device, rustix::fs::Access::WRITE_OK) {
            return Err(NoWatchdog::Forbidden { why: error.to_string(), owner: owner(&device), device });
        }
        let seconds = attribute(root, &device, "timeout").filter(|seconds| *seconds > 0);
        let feeding = seconds.map_or(FEEDING, |seconds| FEEDING.min(Duration::from_secs(seconds.into()) / 3));
        Ok(Self { device, feeding, armed: None })
    }

    /// Whether it is what started the machine below this root anew, where its driver says.
    pub fn has_restarted(&self, root: &Path) -> bool {
        attribute(root, &self.device, "bootstatus").is_some_and(|status| status & RESTARTED_BY_IT != 0)
    }

    /// Arms it, or tells it that all goes on.
    pub fn feed(&mut self) {
        if self.armed.as_ref().is_some_and(|(_, fed)| fed.elapsed() < self.feeding) {
            return;
        }
        if let Err(error) = self.try_to_feed() {
            tracing::warn!(%error, device = %self.device.display(), "the watchdog was not fed");
        }
    }

    fn try_to_feed(&mut self) -> io::Result<()> {
        let mut device = match self.armed.take() {
            Some((device, _)) => device,
            None => OpenOptions::new().write(true).open(&self.device)?,
        };
        device.write_all(b".")?;
        self.armed = Some((device, Instant::now()));
        Ok(())
    }

    /// Disarms it.
    pub fn disarm(&mut self) {
        if let Some((mut device, _)) = self.armed.take()
            && let Err(error) = device.write_all(GOODBYE)
        {
            tracing::warn!(%error, device = %self.device.display(), "the watchdog was not disarmed");
        }
    }
}

/// What the driver says of a device (ABI/testing, sysfs-class-watchdog); `/dev/watchdog` is the first one.
fn attribute(root: &Path, device: &Path, name: &str) -> Option<u32> {
    let device = device.file_name()?.to_str()?;
    let device = if device == "watchdog" { "watchdog0" } else { device };
    number(&root.join("sys/class/watchdog").join(device).join(name)).and_then(|value| u32::try_from(value).ok())
}

/// Whose a device is, and what would give it to the user.
fn owner(device: &Path) -> String {
    use std::os::unix::fs::MetadataExt;
    let Ok(metadata) = std::fs::metadata(device) else { return String::new() };
    let name = device.file_name().unwrap_or_default().to_string_lossy();
    let (user, group, mode) = (metadata.uid(), metadata.gid(), metadata.mode() & 0o777);
    format!(
        "; it is of user {user} and group {group} with mode {mode:03o}: a rule of udev such as `KERNEL==\"{name}\", \
         GROUP=\"YOURS\", MODE=\"0660\"` gives it to a group"
    )
}

#[cfg(test)]
mod tests {
    use super::super::attribute::tests::tree;
    use super::*;
    use std::fs;

    #[test]
    fn it_is_armed_by_feeding_and_disarmed_only_when_told() {
        let root = tree("watchdog", &[("dev/watchdog", "")]);
        let said = || fs::read_to_string(root.join("dev/watchdog")).expect("read");
        let mut watchdog = Watchdog::below(&root, "/dev/watchdog").expect("there");
        watchdog.disarm();
        assert_eq!(said(), "", "what is not armed is not touched");
        watchdog.feed();
        watchdog.feed();
        assert_eq!(said(), ".", "not more often than needed");
        watchdog.disarm();
        watchdog.disarm();
        assert_eq!(said(), ".V");
        fs::write(root.join("dev/watchdog"), "").expect("written");
        watchdog.feed();
        drop(watchdog);
        assert_eq!(said(), ".", "a program that dies leaves it armed");
        assert!(Watchdog::below(&root, "/dev/none").is_err());
        assert!(!Watchdog::below(&root, "/dev/watchdog").expect("one").has_restarted(&root), "its driver does not say");
        let status = root.join("sys/class/watchdog/watchdog0");
        fs::create_dir_all(&status).expect("made");
        fs::write(status.join("bootstatus"), "32\n").expect("written");
        fs::write(status.join("timeout"), "1\n").expect("written");
        assert!(Watchdog::below(&root, "/dev/watchdog").expect("one").has_restarted(&root));
        let quick = Watchdog::below(&root, "/dev/watchdog").expect("there");
        assert!(quick.feeding < Duration::from_millis(400), "{:?}", quick.feeding);
        fs::remove_dir_all(&root).expect("removed");
    }
}
