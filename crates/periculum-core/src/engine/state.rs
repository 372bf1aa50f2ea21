//! What the engine is in the middle of; each state holds just the data that is valid in it.

use std::collections::BTreeSet;

use crate::engine::course::{Course, Move};
use crate::engine::entry::ClimbEnd;
use crate::engine::question::{Question, Suggestion};
use crate::model::errand::Errand;
use crate::model::incident::IncidentKind;
use crate::model::moment::{Moment, Span};
use crate::model::obstacle::Obstacle;
use crate::model::plan::Ends;
use crate::model::reason::Reason;
use crate::model::rig::Rig;
use crate::model::rung::Rung;

/// What the engine is in the middle of.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum State {
    /// Nothing has begun.
    Ready,
    /// A trial is open.
    Trying(Trial, Doing),
    /// The operator asked for a pause, and this comes next.
    Paused(Next),
    /// The operator is to say what comes next.
    Asked(Question),
    /// The rig goes home: the errand that is under way, and the settings that would not go.
    GoingHome { then: Then, under_way: UnderWay, given_up: BTreeSet<String> },
    /// The climb is over.
    Ended,
}

impl State {
    /// What is under way.
    fn errand_under_way(&self) -> Option<&UnderWay> {
        match self {
            Self::Trying(_, Doing::Setting { under_way }) | Self::GoingHome { under_way, .. } => Some(under_way),
            _ => None,
        }
    }

    /// The errand that is under way.
    pub(super) fn under_way(&self) -> Option<&Errand> {
        self.errand_under_way().map(|under_way| &under_way.errand)
    }

    /// Since when the rig has been changing something by itself; none where it does not.
    pub(super) fn applies_since(&self, rig: &Rig) -> Option<Moment> {
        self.errand_under_way()
            .filter(|under_way| !under_way.errand.needs_somebody(rig))
            .map(|under_way| under_way.since)
    }

    /// What the operator is to answer.
    pub(super) fn question(&self, rig: &Rig) -> Option<Question> {
        if let Self::Asked(question)
        | Self::Trying(
            _,
            Doing::Making { question, .. } | Doing::Reading { question, .. } | Doing::Confirming { question },
        ) = self
        {
            return Some(question.clone());
        }
        let errand = self.under_way().filter(|errand| errand.needs_somebody(rig))?;
        Some(Question::Change { errand: errand.clone() })
    }

    /// Whether the machine has to be started anew before anything goes on.
    pub(super) fn waits_for_start(&self, rig: &Rig) -> bool {
        self.under_way().is_some_and(|errand| errand.needs_start(rig))
    }

    /// The number of the trial that something is done for now.
    pub(super) fn trial(&self) -> Option<u32> {
        match self {
            Self::Trying(trial, _) => Some(trial.number),
            _ => None,
        }
    }
}

/// An errand that has been begun and not been answered.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct UnderWay {
    pub(super) errand: Errand,
    pub(super) since: Moment,
    /// What comes instead of what it was begun for: a change that the rig makes by itself can't be broken off, so that its
    /// answer is waited for first.
    pub(super) instead: Option<Stopping>,
}

impl UnderWay {
    pub(super) fn new(errand: Errand, since: Moment) -> Self {
        Self { errand, since, instead: None }
    }
}

/// What follows when the rig is at home.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Then {
    /// The climb is over, and the rig stays at this mark; at stock where there is none.
    End(ClimbEnd, Option<Rung>),
    /// The climb waits, and goes on with this.
    Wait(Next, Aside),
}

/// How a climb that is to go on later is put aside.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Aside {
    /// The operator leaves: everything goes back to stock.
    AtStock,
    /// The program has to end: only what takes effect at once goes back to stock. The machine may be on its way to the very
    /// start that brings the rest into force.
    AsItStands,
}

/// One rung put to one proof.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Trial {
    pub(super) number: u32,
    pub(super) rung: Rung,
    pub(super) incidents: Vec<IncidentKind>,
    /// The cores that they were on, as far as that is known.
    pub(super) cores: BTreeSet<u32>,
    /// The scores of its passes that had one, as numbers of which more is better.
    pub(super) scores: Vec<f64>,
    /// The loads that made them.
    pub(super) benchmarks: Vec<String>,
    pub(super) tested: Span,
    /// The sensors that somebody was asked for in it, or read unasked.
    pub(super) read: BTreeSet<String>,
    /// How much longer it may have run before it went down, since nobody heard of that at once.
    pub(super) unheard: Span,
}

/// What a trial is doing.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Doing {
    /// Waiting for the errand that is under way.
    Setting { under_way: UnderWay },
    /// Resting before a pass until this moment.
    Resting { index: usize, until: Moment },
    /// Waiting for somebody who reads sensors, before the pass of this index or behind it.
    Reading { index: usize, is_before: bool, question: Question },
    /// Waiting for the word that all is well with what was changed.
    Confirming { question: Question },
    /// Waiting for somebody who makes a pass.
    Making { index: usize, began: Moment, question: Question },
    /// Waiting for a pass to end.
    Passing { index: usize, began: Moment, stopping: Option<Stop> },
}

/// An order to stop the running pass.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Stop {
    pub(super) why: Stopping,
    pub(super) since: Moment,
    pub(super) pressure: Pressure,
}

/// What has been done about a pass that is to end.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Pressure {
    /// It was told to.
    Told,
    /// It did not, and was told again, harder.
    Harder,
    /// It did not even then.
    GivenUp,
}

impl Stop {
    pub(super) fn new(why: Stopping, since: Moment) -> Self {
        Self { why, since, pressure: Pressure::Told }
    }
}

/// Why a pass was told to stop, or a change is not followed by what it was made for.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Stopping {
    /// Something was wrong; the trial is judged by its incidents.
    ForCause,
    /// Something has to be put right before anything else.
    Unsound { why: Obstacle },
    /// The operator wants the whole climb stopped, and the rig left there.
    ByOperator(Ends),
    /// The climb is to wait.
    ToWait(Aside),
    /// The trial before was judged anew, and this comes instead.
    Instead(Box<Move>),
}

/// A trial that is over, with the course as it was before it heard of that.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Judged {
    pub(super) trial: Trial,
    pub(super) stage: usize,
    pub(super) before: Course,
}

/// What a pause holds back.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Next {
    /// The next pass of an open trial.
    Pass(Trial, usize),
    /// The next trial.
    Trial(Rung, Reason),
    /// What the operator says.
    Answer(Option<Suggestion>),
}
