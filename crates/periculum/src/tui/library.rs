//! The climbs of the ledger, for the interface: listed, and opened one at a time.

use std::path::PathBuf;

use anyhow::Result;
use periculum_ledger::{ClimbRow, Ledger};

use super::app::{Climbed, Heading};
use crate::climbing::{recall, tell_past};

/// The ledger that the interface looks into.
#[derive(Clone, Debug, Default)]
pub(super) struct Library {
    path: PathBuf,
}

impl Library {
    /// The ledger of this path.
    pub(super) fn at(path: PathBuf) -> Self {
        Self { path }
    }

    /// Its climbs, the newest first.
    pub(super) fn climbs(&self) -> Result<Vec<ClimbRow>> {
        if !self.path.exists() {
            return Ok(Vec::new());
        }
        let mut climbs = Ledger::open(&self.path)?.climbs()?;
        climbs.reverse();
        Ok(climbs)
    }

    /// A climb with all that it left.
    pub(super) fn open(&self, number: i64) -> Result<Climbed> {
        let ledger = Ledger::open(&self.path)?;
        let row = ledger.climb(number)?;
        let briefing = recall(&ledger, &row)?;
        Ok(Climbed {
            heading: Heading { number, seed: row.seed },
            rig: briefing.rig,
            plan: briefing.plan,
            story: tell_past(&ledger.lines(number)?),
            outlook: None,
            traces: ledger.samples(number)?,
        })
    }
}
