//! Everything of a climb that outlives a state, and which of its parts answers which event.

use std::collections::{BTreeMap, BTreeSet, VecDeque};
use std::sync::Arc;

use super::belief::Belief;
use super::tally::Tally;
use crate::engine::course::{Course, Ground, Seen};
use crate::engine::entry::{Entry, Mark};
use crate::engine::event::Event;
use crate::engine::route::{route, route_one_by_one};
use crate::engine::state::{Aside, Doing, Judged, State, Trial};
use crate::engine::step::Step;
use crate::engine::watch::Sample;
use crate::model::errand::Errand;
use crate::model::evidence::Finding;
use crate::model::incident::{Incident, IncidentKind};
use crate::model::kind::Kind;
use crate::model::moment::Moment;
use crate::model::plan::{Plan, Proof};
use crate::model::rig::Rig;
use crate::model::rung::Rung;
use crate::model::verdict::Verdict;

/// What a climb knows, whatever it is in the middle of.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Climber {
    pub(super) rig: Arc<Rig>,
    pub(super) plan: Arc<Plan>,
    pub(super) belief: Belief,
    pub(super) tally: Tally,
    /// The rules that it decides by, see [`crate::engine::RULES`].
    pub(super) rules: u32,
    /// What earlier climbs say of rigs of this kind.
    pub(super) kinds: Vec<Kind>,
    /// The rung that the stage stands on: the last one a stage settled at.
    pub(super) base: Rung,
    pub(super) stage: usize,
    pub(super) course: Option<Course>,
    /// The proof that the operator chose for the trials from now on, where they lead.
    pub(super) chosen: Option<usize>,
    /// The proof that each trial was put to.
    pub(super) proofs: BTreeMap<u32, usize>,
    pub(super) marks: Vec<Mark>,
    /// What was saved so far, by name.
    pub(super) saved: BTreeMap<String, Rung>,
    /// Each trial of the baseline that was not disturbed.
    pub(super) baseline: Vec<AtStock>,
    /// How often the machine was started anew for a trial alone.
    pub(super) starts: u32,
    /// The scores of the last trial, where they were too low to be believed at once.
    pub(super) doubted: Option<Vec<f64>>,
    pub(super) pause_wanted: bool,
    /// How the climb is to be put aside once the pass that is being stopped has ended.
    pub(super) aside_wanted: Option<Aside>,
    /// Whether the program was told to end in good order, and has not been taken up again.
    pub(super) is_suspended: bool,
    /// Whether the last trial was broken off because a setting could not be read back any more.
    pub(super) was_unread: bool,
    /// Why sensors tell nothing, as far as anybody knows.
    pub(super) silent: BTreeMap<String, String>,
    /// How many times their length the passes of this stage get, since no round was finished in less.
    pub(super) stretch: u32,
    /// Whether a pass has begun: the rig is measured at rest before that.
    pub(super) was_idle: bool,
    /// How often somebody changed something of the rig beside its settings.
    pub(super) changes: u32,
    /// The sensors that somebody was asked for once.
    pub(super) read_once: BTreeSet<String>,
    /// The rungs that held, by the trial they held in.
    pub(super) held: BTreeMap<u32, Rung>,
    /// What trials have said of their rungs since somebody changed something of the rig.
    pub(super) seen: Vec<Seen>,
    /// How each trial ended.
    pub(super) verdicts: BTreeMap<u32, Verdict>,
    /// The last trial that was judged.
    pub(super) judged: Option<Box<Judged>>,
    /// The mark that the rig was left at when the climb ended.
    pub(super) left_at: Option<Rung>,
}

/// A trial of the baseline.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct AtStock {
    pub(super) trial: u32,
    /// How often the machine had been started anew for one alone.
    pub(super) start: u32,
    /// Its scores, pass by pass.
    pub(super) scores: Vec<f64>,
}

impl Climber {
    pub(super) fn new(rig: Arc<Rig>, plan: Arc<Plan>) -> Self {
        Self {
            belief: Belief::new(Arc::clone(&rig)),
            tally: Tally::new(),
            rules: 0,
            kinds: Vec::new(),
            base: rig.stock(),
            rig,
            plan,
            stage: 0,
            course: None,
            chosen: None,
            proofs: BTreeMap::new(),
            marks: Vec::new(),
            saved: BTreeMap::new(),
            baseline: Vec::new(),
            starts: 0,
            doubted: None,
            pause_wanted: false,
            aside_wanted: None,
            is_suspended: false,
            was_unread: false,
            silent: BTreeMap::new(),
            stretch: 1,
            was_idle: false,
            changes: 0,
            read_once: BTreeSet::new(),
            held: BTreeMap::new(),
            seen: Vec::new(),
            verdicts: BTreeMap::new(),
            judged: None,
            left_at: None,
        }
    }

    /// What an event makes of a state.
    pub(super) fn take(&mut self, state: State, event: &Event, step: &mut Step) -> State {
        match event {
            Event::Started { in_force, ahead, rules, kinds } => {
                self.rules = *rules;
                self.kinds.clone_from(kinds);
                self.on_started(state, in_force, *ahead, step)
            }
            Event::Applied { reported } => self.on_applied(state, reported, step),
            Event::ChangeMade { reported, started_anew, noted } => {
                self.on_change_made(state, (reported, noted), *started_anew, step)
            }
            Event::ApplyFailed { incident } => self.on_apply_failed(state, incident.clone(), step),
            Event::PassEnded { report, reported } => self.on_pass_ended(state, report, reported.as_ref(), step),
            Event::Sample { readings, highest } => self.watch_sensors(state, &Sample { readings, highest }, step),
            Event::TimePassed { late } => self.watch_time(state, *late, step),
            Event::OperatorSaid { said } => self.on_operator(state, said, step),
            Event::Restarted { ending, lived, lived_at_most, in_force, unattended, last_words, rules } => {
                self.rules = self.rules.max(*rules);
                self.count_down(&state, *ending, *unattended);
                let incident = Incident::new(
                    ending.incident(),
                    Finding::WentDown { ending: *ending, last_words: last_words.clone() },
                );
                let lived = lived.map(|lived| (lived, lived_at_most.unwrap_or(lived)));
                self.on_restarted(state, *ending, lived, in_force, incident, step)
            }
            Event::Noticed { incidents } => self.on_noticed(state, incidents, step),
            Event::Unreadable { settings, sensors } => {
                self.belief.hear_why(settings);
                self.silent.clone_from(sensors);
                state
            }
            Event::OthersBusy { others } => {
                if let State::Trying(Trial { number, .. }, Doing::Passing { .. }) = &state {
                    step.entries.push(Entry::OthersBusy { trial: *number, others: others.clone() });
                }
                state
            }
            Event::PassProgress { .. } => state,
        }
    }

    pub(super) fn ground(&self, now: Moment) -> Ground<'_> {
        Ground {
            rig: &self.rig,
            use_name: &self.plan.use_name,
            left: self.time_left(now),
            rules: self.rules,
            held: &self.held,
            kinds: &self.kinds,
            seen: &self.seen,
        }
    }

    /// The proof that the next trial is put to, as an index into those of the plan.
    pub(super) fn proof_at(&self) -> usize {
        self.chosen.unwrap_or(self.plan.stages[self.stage].proof)
    }

    /// The proof that the open trial is put to, or the next one.
    pub(super) fn proof(&self) -> &Proof {
        &self.plan.proofs[self.proof_at()]
    }

    /// The errands that lead to a rung from what is believed to be in force.
    ///
    /// The way is found anew after each of them: a machine that restarted while its operator changed something by hand
    /// has lost what was set before.
    pub(super) fn way_to(&self, rung: &Rung) -> VecDeque<Errand> {
        let find = if self.rules < 3 { route_one_by_one } else { route };
        find(&self.rig, self.belief.in_force(), rung)
    }

    /// What follows where the machine went down or a device was reset, as the incident says.
    pub(super) fn after_loss(&mut self, kind: IncidentKind) {
        if kind.takes_machine_down() {
            self.tally.restarts += 1;
            let is_cold = matches!(kind, IncidentKind::NoStart | IncidentKind::SafeDefaults);
            self.tally.cold_starts += u32::from(is_cold);
        }
        self.belief.lost_by(kind);
    }
}

/// Records an incident and holds it against the trial.
pub(super) fn blame(trial: &mut Trial, pass: Option<usize>, incident: Incident, step: &mut Step) {
    trial.incidents.push(incident.kind);
    trial.cores.extend(incident.core());
    step.entries.push(Entry::Incident { trial: Some(trial.number), pass, incident });
}
