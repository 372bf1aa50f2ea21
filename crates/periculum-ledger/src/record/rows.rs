//! What each line changes in the rows that lists, ranks and searches are made from: all of it follows from the journal, and can be
//! made again.

use periculum_core::engine::{ClimbEnd, Entry, Mark, Profile, Said};
use periculum_core::model::incident::Incident;
use periculum_core::model::incident_kind::IncidentKind;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{Pass, PassReport};
use periculum_core::model::rung::Rung;
use periculum_core::model::verdict::Verdict;

use super::Line;

/// One change of the rows of a climb.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) enum Change<'a> {
    /// A trial has begun.
    TrialBegan { trial: u32, stage: usize, rung: &'a Rung, proof: &'a str, at: Moment },
    /// A trial is over.
    TrialEnded { trial: u32, verdict: Verdict, incident: Option<IncidentKind>, tested: Span },
    /// A trial is judged otherwise.
    Rejudged { trial: u32, verdict: Verdict, incident: Option<IncidentKind> },
    /// A pass has begun.
    PassBegan { trial: u32, pass: usize, order: &'a Pass, at: Moment },
    /// A pass is over.
    PassEnded { trial: u32, pass: usize, report: &'a PassReport },
    /// Something went wrong; the number is that of its entry in the line.
    Incident { entry: usize, at: Moment, trial: Option<u32>, pass: Option<usize>, incident: &'a Incident },
    /// A mark was set.
    MarkSet(&'a Mark),
    /// A mark does not stand any more, since this trial.
    MarkWithdrawn { mark: &'a Mark, trial: u32 },
    /// A profile was saved.
    ProfileSaved(&'a Profile),
    /// The climb is over.
    Ended { at: Moment, end: &'a ClimbEnd, trials: u32, falls: u32, tested: Span },
    /// A note was written; the number is that of its entry in the line.
    Note { entry: usize, text: &'a str },
}

/// What a line changes.
pub(crate) fn changes(line: &Line) -> Vec<Change<'_>> {
    line.entries.iter().enumerate().filter_map(|(number, entry)| change(line.at, number, entry)).collect()
}

fn change(at: Moment, number: usize, entry: &Entry) -> Option<Change<'_>> {
    Some(match entry {
        Entry::TrialBegan { trial, stage, rung, proof, .. } => {
            Change::TrialBegan { trial: *trial, stage: *stage, rung, proof, at }
        }
        Entry::TrialEnded { trial, verdict, incident, tested, .. } => {
            Change::TrialEnded { trial: *trial, verdict: *verdict, incident: *incident, tested: *tested }
        }
        Entry::Rejudged { trial, verdict, incident } => {
            Change::Rejudged { trial: *trial, verdict: *verdict, incident: *incident }
        }
        Entry::PassBegan { trial, pass, order, .. } => Change::PassBegan { trial: *trial, pass: *pass, order, at },
        Entry::PassEnded { trial, pass, report } => Change::PassEnded { trial: *trial, pass: *pass, report },
        Entry::Incident { trial, pass, incident } => {
            Change::Incident { entry: number, at, trial: *trial, pass: *pass, incident }
        }
        Entry::MarkSet { mark } => Change::MarkSet(mark),
        Entry::MarkWithdrawn { mark, trial } => Change::MarkWithdrawn { mark, trial: *trial },
        Entry::ProfileSaved { profile } => Change::ProfileSaved(profile),
        Entry::Ended { end, trials, falls, tested, .. } => {
            Change::Ended { at, end, trials: *trials, falls: *falls, tested: *tested }
        }
        Entry::Operator { said: Said::Note { text } } => Change::Note { entry: number, text },
        Entry::Began { .. }
        | Entry::StageBegan { .. }
        | Entry::AboutToApply { .. }
        | Entry::Asked { .. }
        | Entry::Confirmed { .. }
        | Entry::Declined { .. }
        | Entry::CeilingRaised { .. }
        | Entry::OthersBusy { .. }
        | Entry::Read { .. }
        | Entry::RigChanged { .. }
        | Entry::Resting { .. }
        | Entry::StageEnded { .. }
        | Entry::Operator { said: _ }
        | Entry::Paused
        | Entry::Resumed
        | Entry::GoingHome { .. } => return None,
    })
}
