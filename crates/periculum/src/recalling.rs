//! A climb of the ledger as it was recorded: its files, and its story.

use std::sync::Arc;

use anyhow::{Context, Result};
use periculum_core::model::rig::Sensor;
use periculum_core::story::Story;
use periculum_ledger::{ClimbRow, Ledger, Line};

use crate::briefing::{Briefing, SourceFile};
use crate::telling::climbing;

/// The rig and plan of a climb, from the ledger.
pub(crate) fn recall(ledger: &Ledger, row: &ClimbRow) -> Result<Briefing> {
    let (rig_text, plan_text) = ledger.texts(row.climb)?;
    let file = |kind: &str, text| SourceFile { path: climbing::file_of_climb(kind, row.climb).into(), text };
    Briefing::of(file("rig", rig_text), file("plan", plan_text)).with_context(|| climbing::unreadable_files(row.climb))
}

/// The same to look at, with the instruments that were attached to the climb afterwards as sensors of its rig.
pub(crate) fn recall_to_look(ledger: &Ledger, row: &ClimbRow) -> Result<Briefing> {
    let briefing = recall(ledger, row)?;
    let attached = ledger.attached(row.climb)?.into_iter().map(|of| Sensor {
        label: of.label,
        unit: of.unit,
        decimals: of.decimals,
        adapter: Sensor::ATTACHED.into(),
        source: of.source,
        ..Sensor::plain(&of.sensor)
    });
    Ok(Briefing { rig: Arc::new(briefing.rig.with_sensors(attached)), ..briefing })
}

/// The story of lines from the ledger.
pub(crate) fn tell_past(past: &[Line]) -> Story {
    let mut story = Story::default();
    for line in past {
        story.hear(&line.event);
        for entry in &line.entries {
            story.tell(line.at, entry);
        }
    }
    story
}
