//! `periculum meter`: a simulated multimeter, whose probes are on the simulated rig that is being climbed.

use std::net::TcpListener;
use std::path::Path;
use std::process::ExitCode;
use std::sync::{Arc, Mutex, PoisonError};
use std::thread;
use std::time::Duration;

use anyhow::{Context, Result};
use periculum_ledger::Ledger;
use periculum_rigs::simulated::serve;

use super::LEDGER;
use crate::cli::{Common, Meter};
use crate::output::say;
use crate::places;
use crate::recalling::{recall, tell_past};
use crate::telling::proving;

/// How often it looks at what is in force.
const LOOKING: Duration = Duration::from_millis(500);

pub(super) fn run(meter: &Meter, common: &Common) -> Result<ExitCode> {
    let listener = TcpListener::bind(&meter.listen).with_context(|| proving::cannot_listen(&meter.listen))?;
    say(proving::meter_listens(listener.local_addr()?));
    let path = places::ledger(common, LEDGER)?;
    let seen = Arc::new(Mutex::new(None));
    let shown = Arc::clone(&seen);
    thread::spawn(move || {
        loop {
            // Between two looks the ledger may be written to, made anew, or not be there yet.
            let voltage = probe(&path).unwrap_or(None);
            *seen.lock().unwrap_or_else(PoisonError::into_inner) = voltage;
            thread::sleep(LOOKING);
        }
    });
    serve(&listener, move || *shown.lock().unwrap_or_else(PoisonError::into_inner))?;
    Ok(ExitCode::SUCCESS)
}

/// The true voltage at the cores of the rig of the newest climb; none where that is no simulated one.
fn probe(path: &Path) -> Result<Option<f64>> {
    if !path.exists() {
        return Ok(None);
    }
    let ledger = Ledger::open(path)?;
    let Some(row) = ledger.climbs()?.into_iter().max_by_key(|row| row.climb) else { return Ok(None) };
    let briefing = recall(&ledger, &row)?;
    let Some(truth) = briefing.adapters.truth(&briefing.rig, row.seed) else { return Ok(None) };
    let story = tell_past(&ledger.lines(row.climb)?);
    let rung = story.open_trial().map_or_else(|| briefing.rig.stock(), |trial| trial.rung.clone());
    let pass = story.running_pass().map(|(_, pass)| &pass.order);
    Ok(Some(truth.voltage(&rung, pass)))
}
