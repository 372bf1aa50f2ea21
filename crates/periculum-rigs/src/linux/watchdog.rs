//! The kernel's watchdog: a machine that it does not hear from restarts (kernel documentation, watchdog/watchdog-api).

use std::fs::{File, OpenOptions};
use std::io::{self, Write};
use std::path::{Path, PathBuf};
use std::time::{Duration, Instant};

/// It is fed so often, where all goes on; devices wait for a minute, and small boards for fifteen seconds.
const FEEDING: Duration = Duration::from_secs(1);

/// What tells the device, before it is closed, that this was meant.
const GOODBYE: &[u8] = b"V";

/// A watchdog that is armed from the first feeding until it is disarmed.
///
/// It is not disarmed when it is dropped: a program that dies during a trial leaves a machine that restarts.
#[derive(Debug)]
pub struct Watchdog {
    device: PathBuf,
    armed: Option<(File, Instant)>,
}

impl Watchdog {
    /// The watchdog of this path below a root, not armed.
    ///
    /// # Errors
    /// Where there is none. Opening it to see whether it may be written would arm it.
    pub fn below(root: &Path, device: &str) -> Result<Self, String> {
        let device = root.join(device.trim_start_matches('/'));
        if !device.exists() {
            return Err(format!(
                "there is no watchdog {}; leave `unattended` out, or load its driver",
                device.display()
            ));
        }
        Ok(Self { device, armed: None })
    }

    /// Arms it, or tells it that all goes on.
    pub fn feed(&mut self) {
        if self.armed.as_ref().is_some_and(|(_, fed)| fed.elapsed() < FEEDING) {
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
        fs::remove_dir_all(&root).expect("removed");
    }
}
