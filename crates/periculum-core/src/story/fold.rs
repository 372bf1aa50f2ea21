//! The fold over entries that makes a story of a record, live or replayed.

use std::collections::BTreeMap;

use crate::engine::{Entry, Event, Mark, Profile, Question};
use crate::inference::comparison::{Comparison, compare};
use crate::model::errand::Errand;
use crate::model::incident::IncidentKind;
use crate::model::kind::Kind;
use crate::model::moment::{Moment, Span};
use crate::model::pass::{Pass, PassReport, Progress, Score};
use crate::model::rig::{Rig, Sensor, When};
use crate::model::rig_change::RigChange;
use crate::model::rung::InForce;
use crate::model::strategy::Strategy;
use crate::model::verdict::Verdict;
use crate::story::series::{Series, Spread};
use crate::story::stretch::Stretch;
use crate::story::{EndStory, IncidentStory, PassStory, StageStory, TrialStory};

/// A climb so far.
#[derive(Clone, Debug, Default)]
pub struct Story {
    /// What earlier climbs say of rigs of this kind.
    pub kinds: Vec<Kind>,
    /// When the first entry was made.
    pub began: Option<Moment>,
    /// When the last thing happened.
    pub latest: Moment,
    /// The stages that have begun.
    pub stages: Vec<StageStory>,
    /// What was changed of the rig beside its settings, in order: each made its next state.
    pub changes: Vec<RigChange>,
    /// The trials, in order; trial `n` stands at index `n - 1`.
    pub trials: Vec<TrialStory>,
    /// Everything that went wrong, in order.
    pub incidents: Vec<IncidentStory>,
    /// The marks that stand.
    pub marks: Vec<Mark>,
    /// The profiles that were saved.
    pub profiles: Vec<Profile>,
    /// The moment until which the rig rests before its next pass.
    pub rests_until: Option<Moment>,
    /// Every entry, in order: the logbook.
    pub log: Vec<(Moment, Entry)>,
    /// The errand that is under way.
    pub under_way: Option<Errand>,
    /// What the operator is asked.
    pub question: Option<Question>,
    /// Whether the climb waits for the operator to go on.
    pub is_paused: bool,
    /// How far the running pass is; none where none runs.
    pub progress: Option<Progress>,
    /// The last readings by sensor name.
    pub readings: BTreeMap<String, f64>,
    /// What the rig reported of its settings when they were read back last.
    pub reported: InForce,
    /// What somebody wrote down that the rig shows of its settings, until these are changed again.
    shown: InForce,
    /// What somebody measured of its settings, until these are changed again.
    measured: InForce,
    /// What somebody read of sensors for the whole climb, in each sensor's unit.
    read: BTreeMap<String, f64>,
    /// What somebody read last of each sensor.
    by_hand: BTreeMap<String, f64>,
    /// How it ended, where it has.
    pub ended: Option<EndStory>,
}

impl Story {
    /// Takes in the next entry.
    pub fn tell(&mut self, at: Moment, entry: &Entry) {
        self.began.get_or_insert(at);
        self.latest = self.latest.max(at);
        self.take(at, entry);
        self.log.push((at, entry.clone()));
    }

    /// Takes in what an event says that is in none of the entries made of it; to be called before those are told.
    pub fn hear(&mut self, event: &Event) {
        match event {
            Event::Started { in_force, kinds, .. } => {
                self.kinds.clone_from(kinds);
                self.reported = self.with_shown(in_force);
            }
            Event::Restarted { in_force, .. } => self.reported = self.with_shown(in_force),
            Event::Applied { reported } => self.hear_in_force(reported),
            Event::ChangeMade { reported, noted, .. } => {
                self.shown.extend(noted.shown.clone());
                self.measured.extend(noted.measured.clone());
                self.hear_in_force(reported);
            }
            _ => {}
        }
    }

    fn hear_in_force(&mut self, reported: &InForce) {
        self.reported = self.with_shown(reported);
        if let Some(trial) = self.trials.last_mut().filter(|trial| trial.verdict.is_none()) {
            trial.reported.clone_from(&self.reported);
            trial.measured.clone_from(&self.measured);
        }
    }

    /// What was read back, with what somebody wrote down of settings that nobody reads back.
    fn with_shown(&self, reported: &InForce) -> InForce {
        self.shown.iter().chain(reported).map(|(name, value)| (name.clone(), *value)).collect()
    }

    /// Takes in telemetry of the running pass.
    pub fn progress(&mut self, at: Moment, progress: Progress) {
        self.latest = self.latest.max(at);
        self.progress = Some(progress);
    }

    /// Takes in sensor readings.
    pub fn sample(&mut self, at: Moment, readings: BTreeMap<String, f64>) {
        self.latest = self.latest.max(at);
        self.readings.clone_from(&self.by_hand);
        self.readings.extend(readings);
    }

    /// The trial of this number.
    pub fn trial(&self, number: u32) -> Option<&TrialStory> {
        self.trials.get((number as usize).checked_sub(1)?)
    }

    fn trial_mut(&mut self, number: u32) -> Option<&mut TrialStory> {
        self.trials.get_mut((number as usize).checked_sub(1)?)
    }

    /// The last trial that had begun by then.
    pub fn trial_at(&self, at: Moment) -> Option<&TrialStory> {
        self.trials[..self.trials.partition_point(|trial| trial.began <= at)].last()
    }

    /// The trial that is open.
    pub fn open_trial(&self) -> Option<&TrialStory> {
        self.trials.last().filter(|trial| trial.verdict.is_none())
    }

    /// The pass that runs, and its index in the proof.
    pub fn running_pass(&self) -> Option<(usize, &PassStory)> {
        let trial = self.open_trial()?;
        let pass = trial.passes.last().filter(|pass| pass.report.is_none())?;
        Some((trial.passes.len() - 1, pass))
    }

    /// The sensors of a rig that have read nothing in any pass that came to an end; none before there is one.
    pub fn silent<'a>(&self, rig: &'a Rig) -> Vec<&'a Sensor> {
        let reports: Vec<&PassReport> = self
            .trials
            .iter()
            .flat_map(TrialStory::finished)
            .filter(|(pass, _)| pass.by_hand.is_none())
            .map(|(_, report)| report)
            .collect();
        let has_read = |sensor: &Sensor| reports.iter().any(|report| report.peaks.contains_key(&sensor.name));
        let is_sampled = |sensor: &&Sensor| !sensor.is_attached() && sensor.asked.is_none();
        let silent = rig.sensors.iter().filter(is_sampled).filter(|sensor| !has_read(sensor));
        if reports.is_empty() { Vec::new() } else { silent.collect() }
    }

    /// What a sensor read while the rig was measured at rest, when it had come to that: in the second half of it. Of one that somebody
    /// reads at rest what they read in the baseline.
    pub fn at_rest(&self, sensor: &Sensor, traces: &BTreeMap<String, Series>) -> Option<Spread> {
        if sensor.asked == Some(When::Idle) {
            let mut baseline = self.trials.iter().filter(|trial| self.is_baseline(trial));
            return baseline.find_map(|trial| trial.spread(sensor, traces));
        }
        let rested = self.trials.iter().filter(|trial| !trial.passes.is_empty()).find_map(|trial| trial.rested)?;
        traces.get(&sensor.name)?.between(rested.middle(), rested.to)
    }

    /// The trials that have ended with this verdict.
    pub fn count(&self, verdict: Verdict) -> usize {
        self.trials.iter().filter(|trial| trial.verdict == Some(verdict)).count()
    }

    /// How long passes ran, together.
    pub fn tested(&self) -> Span {
        self.trials.iter().map(|trial| trial.tested).sum()
    }

    /// The same without its log, which is most of it: all that analyses of trials need.
    pub fn without_log(&self) -> Self {
        let mut rest = Self { log: Vec::new(), ..Self::default() };
        rest.kinds.clone_from(&self.kinds);
        rest.stages.clone_from(&self.stages);
        rest.changes.clone_from(&self.changes);
        rest.trials.clone_from(&self.trials);
        rest.incidents.clone_from(&self.incidents);
        rest.marks.clone_from(&self.marks);
        rest.ended.clone_from(&self.ended);
        Self { began: self.began, latest: self.latest, ..rest }
    }

    /// How long ago a trial of the state that the rig has now began: nothing is the last one, and one the first.
    pub fn last_state_ago(&self, trial: &TrialStory) -> f64 {
        let of_state = || self.trials.iter().filter(|one| one.state == self.last_state());
        let (Some(first), Some(last)) = (of_state().next(), self.trials.last()) else { return 0.0 };
        let whole = last.began.since(first.began).seconds();
        if whole > 0.0 { last.began.since(trial.began).seconds() / whole } else { 0.0 }
    }

    /// Whether a trial belongs to a baseline.
    pub fn is_baseline(&self, trial: &TrialStory) -> bool {
        self.stages.get(trial.stage).is_some_and(|stage| stage.strategy == Strategy::BASELINE)
    }

    /// The last score behind the baseline, and how it compares with it.
    pub fn gain(&self) -> Option<(&Score, Comparison)> {
        let later = self.trials.iter().rev().filter(|trial| !self.is_baseline(trial));
        later.filter(|trial| trial.last_score().is_some()).find_map(|trial| self.gain_of(trial))
    }

    /// The last score of a trial, and how it compares with the baseline.
    ///
    /// Only scores of the same load are compared, and none that was disturbed: what another load scores says nothing, even
    /// in the same unit.
    pub fn gain_of<'a>(&self, trial: &'a TrialStory) -> Option<(&'a Score, Comparison)> {
        let (load, score) = trial.last_score()?;
        let disturbed: Vec<u32> = self.trials.iter().filter_map(|trial| trial.reason.disturbed()).collect();
        let counts = |trial: &&TrialStory| trial.held_the_proof() && !disturbed.contains(&trial.number);
        let baseline = self.trials.iter().filter(|trial| self.is_baseline(trial)).filter(counts);
        let same = baseline.filter_map(TrialStory::last_score);
        let same = same.filter(|(other, one)| *other == load && one.unit == score.unit);
        let same: Vec<f64> = same.map(|(_, one)| one.merit()).collect();
        if same.is_empty() {
            return None;
        }
        let compared = compare(&same, &[score.merit()]);
        compared.change.is_finite().then_some((score, compared))
    }

    fn take(&mut self, at: Moment, entry: &Entry) {
        match entry {
            Entry::StageBegan { strategy, .. } => {
                self.stages.push(StageStory { strategy: strategy.clone(), end: None });
            }
            Entry::StageEnded { stage, end } => {
                if let Some(story) = self.stages.get_mut(*stage) {
                    story.end = Some(end.clone());
                }
            }
            Entry::TrialBegan { trial, stage, rung, proof, reason } => self.trials.push(TrialStory {
                // A trial that is made again is as long as it was meant to be.
                length: reason.length().or_else(|| self.trial(reason.repeats()?)?.length),
                number: *trial,
                stage: *stage,
                rung: rung.clone(),
                reported: InForce::new(),
                measured: InForce::new(),
                proof: proof.clone(),
                reason: reason.clone(),
                began: at,
                passes: Vec::new(),
                rested: None,
                state: self.last_state(),
                read: self.read.clone(),
                verdict: None,
                incident: None,
                tested: Span::ZERO,
                gain: None,
            }),
            Entry::AboutToApply { trial, errand } => self.begin_errand(*trial, errand),
            Entry::Asked { question, .. } => self.question = Some(question.clone()),
            Entry::PassBegan { order, .. } => self.begin_pass(at, order),
            Entry::PassEnded { report, .. } => self.end_pass(report),
            Entry::RigChanged { state, change } => self.change_rig(*state, change),
            Entry::Read { trial, readings } => self.hear_read(*trial, readings),
            Entry::Incident { trial, pass, incident } => {
                self.incidents.push(IncidentStory { at, trial: *trial, pass: *pass, incident: incident.clone() });
            }
            Entry::TrialEnded { verdict, incident, tested, gain, .. } => {
                self.end_trial(*verdict, *incident, *tested, *gain);
            }
            Entry::Rejudged { trial, verdict, incident } => self.judge_anew(*trial, *verdict, *incident),
            Entry::MarkSet { mark } => self.marks.push(mark.clone()),
            Entry::MarkWithdrawn { mark, .. } => self.marks.retain(|standing| standing != mark),
            Entry::Paused => self.is_paused = true,
            Entry::Resumed => self.is_paused = false,
            Entry::Operator { said } if said.ends_question() => self.question = None,
            Entry::Ended { end, falls, tested, not_at_stock, left_at, .. } => {
                self.under_way = None;
                self.question = None;
                self.is_paused = false;
                // Nothing runs and nobody reads sensors any more.
                self.readings.clear();
                self.ended = Some(EndStory {
                    end: end.clone(),
                    falls: *falls,
                    tested: *tested,
                    not_at_stock: not_at_stock.clone(),
                    left_at: left_at.clone(),
                });
            }
            Entry::ProfileSaved { profile } => self.profiles.push(profile.clone()),
            Entry::Resting { trial, pause, idle, .. } => {
                self.rests_until = Some(at + *pause);
                if *idle && let Some(trial) = self.trial_mut(*trial) {
                    trial.rested = Some(Stretch { from: at, to: at + *pause });
                }
            }
            Entry::Began { .. }
            | Entry::OthersBusy { .. }
            | Entry::CeilingRaised { .. }
            | Entry::Confirmed { .. }
            | Entry::Declined { .. }
            | Entry::Operator { .. }
            | Entry::GoingHome { .. } => {}
        }
    }

    /// A trial of which no pass has begun runs on the rig as it is now.
    fn change_rig(&mut self, state: u32, change: &RigChange) {
        self.changes.push(change.clone());
        let open = self.trials.last_mut().filter(|trial| trial.verdict.is_none() && trial.passes.is_empty());
        open.into_iter().for_each(|trial| trial.state = state);
    }

    /// The rig as it was in a state, and what was changed up to that.
    pub fn state(&self, rig: &Rig, state: u32) -> (Rig, &[RigChange]) {
        let made = &self.changes[..self.changes.len().min((state as usize).saturating_sub(1))];
        (made.iter().fold(rig.clone(), |rig, change| change.made(rig)), made)
    }

    /// What was changed of the rig since a mark was found.
    pub fn changed_since(&self, mark: &Mark) -> &[RigChange] {
        let found_in = self.trial(mark.trial).map_or(1, |trial| trial.state);
        self.changes.get((found_in as usize).saturating_sub(1)..).unwrap_or_default()
    }

    /// The number of the state that the rig is in now.
    pub fn last_state(&self) -> u32 {
        1 + self.changes.len() as u32
    }

    /// What was read for the whole climb is true of the trial that is open, too.
    fn hear_read(&mut self, trial: Option<u32>, readings: &BTreeMap<String, f64>) {
        self.by_hand.extend(readings.clone());
        self.readings.extend(readings.clone());
        if trial.is_none() {
            self.read.extend(readings.clone());
        }
        let of_trial = trial.or(self.open_trial().map(|open| open.number)).and_then(|number| self.trial_mut(number));
        of_trial.into_iter().for_each(|trial| trial.read.extend(readings.clone()));
    }

    fn begin_errand(&mut self, trial: Option<u32>, errand: &Errand) {
        self.under_way = Some(errand.clone());
        // Nobody answers any more what was asked before.
        self.question = None;
        self.shown.retain(|setting, _| errand.change_of(setting).is_none());
        self.measured.retain(|setting, _| errand.change_of(setting).is_none());
        // What was reported before says nothing of a rung that is on its way.
        if let Some(trial) = trial.and_then(|number| self.trial_mut(number)) {
            trial.reported.clear();
        }
    }

    fn begin_pass(&mut self, at: Moment, order: &Pass) {
        self.under_way = None;
        self.question = None;
        self.rests_until = None;
        self.progress = None;
        if let Some(trial) = self.trials.last_mut() {
            // A rung that was in force already needed no change, and was read back before.
            if trial.reported.is_empty() {
                trial.reported.clone_from(&self.reported);
                trial.measured.clone_from(&self.measured);
            }
            trial.passes.push(PassStory { order: order.clone(), began: at, report: None });
        }
    }

    fn end_pass(&mut self, report: &PassReport) {
        self.progress = None;
        if let Some(pass) = self.trials.last_mut().and_then(|trial| trial.passes.last_mut()) {
            pass.report = Some(report.clone());
        }
    }

    fn judge_anew(&mut self, number: u32, verdict: Verdict, incident: Option<IncidentKind>) {
        if let Some(trial) = self.trial_mut(number) {
            (trial.verdict, trial.incident) = (Some(verdict), incident);
        }
    }

    fn end_trial(&mut self, verdict: Verdict, incident: Option<IncidentKind>, tested: Span, gain: Option<Comparison>) {
        self.rests_until = None;
        self.progress = None;
        self.under_way = None;
        if let Some(trial) = self.trials.last_mut() {
            trial.verdict = Some(verdict);
            trial.incident = incident;
            trial.tested = tested;
            trial.gain = gain;
        }
    }
}
