//! What the engine states for the record; screen, log, JSON lines and ledger all listen to the same entries.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

use crate::engine::event::{Other, Said};
use crate::engine::question::Question;
use crate::inference::comparison::Comparison;
use crate::model::budget::Limit;
use crate::model::errand::Errand;
use crate::model::incident::{Incident, IncidentKind};
use crate::model::moment::Span;
use crate::model::objection::Objection;
use crate::model::obstacle::Obstacle;
use crate::model::pass::{Pass, PassReport};
use crate::model::plan::Raised;
use crate::model::reason::{Reason, StageEnd};
use crate::model::rig_change::RigChange;
use crate::model::rung::{InForce, Rung};
use crate::model::verdict::Verdict;

/// The hardest rung that held, and the proof it held to.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Mark {
    /// The rung.
    pub rung: Rung,
    /// The setting that the stage moved.
    pub setting: String,
    /// The proof's name.
    pub proof: String,
    /// The number of the trial that proved it.
    pub trial: u32,
    /// The stage that found it, from 0.
    pub stage: usize,
}

/// A rung saved by name, with the mark it rests on.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Profile {
    /// Its name.
    pub name: String,
    /// The rung.
    pub rung: Rung,
    /// The mark it rests on; none where its stage proved nothing.
    pub mark: Option<Mark>,
    /// Whether it held a soak: only then it may be applied at start.
    pub soaked: bool,
}

/// How a climb ended.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(tag = "how", rename_all = "kebab-case")]
pub enum ClimbEnd {
    /// Every stage was done.
    Completed,
    /// A stage found nothing that holds, so that the next would stand on nothing.
    NothingHeld {
        /// The stage, from 0.
        stage: usize,
    },
    /// The operator stopped it.
    Stopped,
    /// The budget was spent.
    BudgetSpent {
        /// Which of its limits.
        limit: Limit,
        /// The stages that were left out or not finished, from 0.
        left: Vec<usize>,
    },
    /// The machine went down again and again with nobody there, and nothing ran between.
    KeepsFalling {
        /// How often, one after the other.
        times: u32,
    },
    /// Something has to be put right first.
    Unsound {
        /// What.
        why: Obstacle,
    },
    /// The engine refused a rung of its own; the rig was taken back to stock.
    Refused {
        /// Why.
        why: Obstacle,
    },
}

/// Why what the operator said can't be so.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Declined {
    /// The machine has the same boot identifier as when it was asked to be started anew.
    NotStartedAnew,
    /// The rung must not be tried.
    NotAllowed {
        /// What stands against it.
        against: Vec<Objection>,
    },
    /// The plan has no such proof.
    NoProof {
        /// What was named.
        named: String,
    },
    /// Nothing has held that could be gone back to, marked or saved.
    NothingHeld,
    /// What held last is a mark already.
    IsMark {
        /// The trial that it held in.
        trial: u32,
    },
}

/// One statement for the record.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "kebab-case")]
pub enum Entry {
    /// The climb began.
    Began {
        /// What the rig reported at that time.
        in_force: InForce,
    },
    /// A stage began.
    StageBegan {
        /// Which one, from 0.
        stage: usize,
        /// Its strategy's name.
        strategy: String,
    },
    /// A trial began; nothing has been applied for it so far.
    TrialBegan {
        /// Its number in the climb, from 1.
        trial: u32,
        /// The stage it belongs to, from 0.
        stage: usize,
        /// The rung on trial.
        rung: Rung,
        /// The proof's name.
        proof: String,
        /// Why this rung.
        reason: Reason,
    },
    /// An errand is about to be made: if nothing follows, this is what the rig died of.
    AboutToApply {
        /// The trial it is for; none on the way home.
        trial: Option<u32>,
        /// What is changed, from what to what.
        #[serde(flatten)]
        errand: Errand,
    },
    /// The operator was asked.
    Asked {
        /// The trial it is for; none on the way back to stock.
        trial: Option<u32>,
        /// What.
        question: Question,
    },
    /// What the operator said can't be so; what was asked stands.
    Declined {
        /// Why.
        because: Declined,
    },
    /// The rig rests before a pass.
    Resting {
        /// The trial's number.
        trial: u32,
        /// The pass it rests before, from 0.
        pass: usize,
        /// For how long.
        pause: Span,
        /// Whether it is to be measured at rest.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        idle: bool,
    },
    /// A pass began.
    PassBegan {
        /// The trial's number.
        trial: u32,
        /// Which pass of the proof, from 0.
        pass: usize,
        /// What runs.
        order: Pass,
        /// The processors that it is about, where it runs on some only; empty for any.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        on: Vec<u32>,
    },
    /// Other programs used the processor when a trial's first pass began: its scores may be lower for that.
    OthersBusy {
        /// The trial's number.
        trial: u32,
        /// Which, and how much.
        others: Vec<Other>,
    },
    /// A pass is over.
    PassEnded {
        /// The trial's number.
        trial: u32,
        /// Which pass of the proof, from 0.
        pass: usize,
        /// How it went.
        report: PassReport,
    },
    /// What a sensor reads says that all is well with a change, so that it stays.
    Confirmed {
        /// The trial's number.
        trial: u32,
        /// What says so, by sensor name, in each sensor's unit.
        readings: BTreeMap<String, f64>,
    },
    /// Somebody read sensors.
    Read {
        /// The trial that it is read for; none for the whole climb.
        trial: Option<u32>,
        /// By sensor name, in each sensor's unit.
        readings: BTreeMap<String, f64>,
    },
    /// Somebody changed something of the rig beside its settings, so that it is in another state.
    RigChanged {
        /// The number of the state that begins; the first is that of the rig's file.
        state: u32,
        /// What is another.
        #[serde(flatten)]
        change: RigChange,
    },
    /// Something went wrong.
    Incident {
        /// The trial it happened in; none outside any trial.
        trial: Option<u32>,
        /// The pass it happened in, from 0; none outside any pass.
        pass: Option<usize>,
        /// What.
        #[serde(flatten)]
        incident: Incident,
    },
    /// A trial is over.
    TrialEnded {
        /// Its number.
        trial: u32,
        /// What it says about its rung.
        verdict: Verdict,
        /// The worst that happened.
        incident: Option<IncidentKind>,
        /// How long its passes ran, together.
        tested: Span,
        /// How its last score compares with the baseline's, where both are known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        gain: Option<Comparison>,
    },
    /// A trial that was over is judged anew, since something of it was told later.
    Rejudged {
        /// Its number.
        trial: u32,
        /// What it says about its rung.
        verdict: Verdict,
        /// The worst that happened.
        incident: Option<IncidentKind>,
    },
    /// A mark was set.
    MarkSet {
        /// The mark.
        mark: Mark,
    },
    /// An earlier mark did not hold again.
    MarkWithdrawn {
        /// The mark.
        mark: Mark,
        /// The trial that it did not hold in.
        trial: u32,
    },
    /// A ceiling is raised for this climb.
    CeilingRaised {
        /// Which, how far and why.
        #[serde(flatten)]
        raised: Raised,
    },
    /// A rung was saved by name.
    ProfileSaved {
        /// The profile.
        profile: Profile,
    },
    /// A stage is over.
    StageEnded {
        /// Which one, from 0.
        stage: usize,
        /// Why.
        end: StageEnd,
    },
    /// The operator said something.
    Operator {
        /// What.
        #[serde(flatten)]
        said: Said,
    },
    /// The climb waits for the operator to go on.
    Paused,
    /// The climb goes on.
    Resumed,
    /// The rig goes home.
    GoingHome {
        /// How the climb will have ended; none where it is going to wait there.
        end: Option<ClimbEnd>,
        /// The mark that it goes to; none where it goes to stock.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        to: Option<Rung>,
    },
    /// The climb is over; nothing follows.
    Ended {
        /// How.
        #[serde(flatten)]
        end: ClimbEnd,
        /// The marks that stand.
        marks: Vec<Mark>,
        /// How many trials there were.
        trials: u32,
        /// How many of them fell.
        falls: u32,
        /// How long passes ran, together.
        tested: Span,
        /// The same in hours.
        test_hours: f64,
        /// The settings that are not known to be back at stock.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        not_at_stock: Vec<String>,
        /// The mark that the rig was left at; none where it was to go to stock.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        left_at: Option<Rung>,
    },
}
