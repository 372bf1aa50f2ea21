//! The running pass: what its load says, as the driver understands it.

use std::time::{Duration, Instant};

use periculum_core::model::evidence::Finding;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::Span;
use periculum_core::model::pass::{CoreProgress, PassReport, Progress, Score, Workload};
use periculum_core::model::quantity::harmless;
use periculum_loads::process::{Death, LoadProcess, News};
use periculum_loads::protocol::{self, Message, Started};
use periculum_loads::witness::Witness;
use periculum_rigs::bench::PassNews;

use super::asked::Asked;
use super::lateness::Lateness;
use super::span::span;
use super::wrongs::Wrongs;
use crate::telling::running;

/// A load that is silent for longer is dead in all but name.
const LONGEST_SILENCE: Duration = Duration::from_secs(10);

/// A load that somebody has halted for longer will not be let go on.
const LONGEST_HALT: Duration = Duration::from_secs(120);

/// Whoever takes longer than this to get ready never will.
const LATEST: Duration = Duration::from_secs(1800);

/// The signal of a program that ends itself (`SIGABRT`, POSIX).
const ABORTED: i32 = 6;

/// A load that was killed is gone within this time, or can't be killed.
const UNKILLABLE: Duration = Duration::from_secs(8);

/// A pass whose load is in its process.
pub(super) struct Running {
    process: LoadProcess,
    witness: Witness,
    asked: Asked,
    began: Instant,
    started: Started,
    progress: protocol::Progress,
    lateness: Lateness,
    wrongs: Wrongs,
    incidents: Vec<Incident>,
    /// Where it was struck, by its own last words, and about which address where there is one.
    struck: Option<(Option<usize>, Option<u64>)>,
    /// When it was killed.
    killed: Option<Instant>,
    is_finished: bool,
    is_stopped: bool,
    /// Whether it was given up since somebody else halts it.
    is_held_up: bool,
}

impl Running {
    pub(super) fn new(process: LoadProcess, asked: Asked) -> Self {
        Self {
            witness: asked.witness(process.id()),
            process,
            asked,
            began: Instant::now(),
            started: Started::default(),
            progress: protocol::Progress::default(),
            lateness: Lateness::new(Instant::now()),
            wrongs: Wrongs::default(),
            incidents: Vec::new(),
            struck: None,
            killed: None,
            is_finished: false,
            is_stopped: false,
            is_held_up: false,
        }
    }

    /// Breaks it off.
    pub(super) fn stop(&mut self) {
        self.is_stopped = true;
        self.killed.get_or_insert_with(Instant::now);
        self.process.kill();
    }

    /// How much later than it was ordered it began to work.
    pub(super) fn late(&self) -> Span {
        let late = self.lateness.so_far(Instant::now()).min(LATEST);
        Span::from_millis(u64::try_from(late.as_millis()).unwrap_or(u64::MAX))
    }

    /// What it has to tell within this time.
    pub(super) fn next(&mut self, at_most: Duration) -> Option<PassNews> {
        let news = self.process.next(at_most).and_then(|news| self.take(news));
        if !self.is_stopped && !self.is_finished {
            self.watch();
        }
        news.or_else(|| self.give_up())
    }

    /// Ends it where it works no more, as a whole or on one core.
    fn watch(&mut self) {
        for stalled in self.witness.look() {
            let incident = Incident::new(IncidentKind::Stalled, stalled.sign.to_string());
            self.incidents.push(incident.at(Incident::on_core(stalled.core)).into_pass(self.elapsed()));
            self.stop();
        }
        if self.witness.halted() > LONGEST_HALT {
            self.is_held_up = true;
            self.stop();
        }
        if self.witness.silence() > LONGEST_SILENCE && !self.is_stopped {
            let evidence = running::said_nothing(LONGEST_SILENCE.as_secs());
            self.incidents.push(Incident::new(IncidentKind::Stalled, evidence).into_pass(self.elapsed()));
            self.stop();
        }
    }

    /// Ends a pass whose load is killed and does not go, since the kernel holds on to it.
    fn give_up(&mut self) -> Option<PassNews> {
        let waited = self.killed.map(|killed| killed.elapsed()).filter(|waited| *waited > UNKILLABLE)?;
        let finding = Finding::Unstoppable { waited: Span::from_seconds(waited.as_secs()) };
        self.incidents.push(Incident::new(IncidentKind::Stalled, finding).into_pass(self.elapsed()));
        Some(PassNews::Ended(self.report()))
    }

    fn take(&mut self, news: News) -> Option<PassNews> {
        self.witness.heard();
        match news {
            News::Said(message) => self.hear(message),
            News::Garbage(text) => {
                tracing::warn!(text, "the load said something that is no message");
                self.wrongs.garble(&text, self.elapsed());
                None
            }
            News::Died(death) => {
                if !self.is_finished && !self.is_stopped {
                    self.incidents.push(self.died(death));
                }
                Some(PassNews::Ended(self.report()))
            }
        }
    }

    fn hear(&mut self, message: Message) -> Option<PassNews> {
        match message {
            Message::Started(started) => {
                tracing::info!(?started, "load started");
                let other = self.asked.other_work(&started);
                self.incidents.extend(other.map(|incident| incident.into_pass(self.elapsed())));
                self.started = started;
                Some(PassNews::Progress(self.told_progress()))
            }
            Message::Progress(progress) => {
                self.witness.hear(&progress);
                self.lateness.hear(&progress, Instant::now());
                self.progress = progress;
                Some(PassNews::Progress(self.told_progress()))
            }
            Message::Wrong(wrong) => {
                self.wrongs.hear(&wrong);
                None
            }
            Message::Lost { core, seconds, why } => {
                let incident = Incident::new(IncidentKind::Stalled, harmless(&why));
                self.incidents.push(incident.at(Incident::on_core(core)).into_pass(span(seconds)));
                self.stop();
                None
            }
            Message::Struck { core, signal, address } => {
                // Who gives up by itself has fallen over nothing.
                self.struck = Some((core, Some(address).filter(|_| signal != ABORTED)));
                None
            }
            Message::DeviceLost { seconds, why } => {
                let incident = Incident::new(IncidentKind::DeviceReset, harmless(&why)).into_pass(span(seconds));
                self.incidents.push(incident);
                self.is_finished = true;
                None
            }
            Message::Failed { why } => {
                self.incidents.push(Incident::new(IncidentKind::LoadDied, harmless(&why)).into_pass(self.elapsed()));
                None
            }
            Message::Ended(progress) => {
                self.progress = progress;
                self.is_finished = true;
                self.hold_to_the_order();
                None
            }
        }
    }

    /// Whether it has done what was asked, by this side's clock and figures.
    fn hold_to_the_order(&mut self) {
        let elapsed = self.elapsed();
        let is_clean = self.incidents.is_empty() && self.wrongs.is_empty();
        if is_clean && self.asked.ended_early(&self.progress, elapsed) {
            self.incidents.push(Incident::new(IncidentKind::Stalled, Finding::EndedEarly).into_pass(elapsed));
        }
        let too_fast = self.asked.too_fast(&self.progress, elapsed);
        self.incidents.extend(too_fast.into_iter().map(|(core, evidence)| {
            Incident::new(IncidentKind::WrongResult, evidence).at(Incident::on_core(core)).into_pass(elapsed)
        }));
    }

    fn died(&self, death: Death) -> Incident {
        let Some((core, address)) = self.struck else {
            return Incident::new(IncidentKind::LoadDied, death.to_string()).into_pass(self.elapsed());
        };
        let at = address.map_or(String::new(), |address| running::at_address(format!("{address:#x}")));
        let evidence = format!("{death}{at}");
        let incident = Incident::new(IncidentKind::LoadDied, evidence).into_pass(self.elapsed());
        core.map(Incident::on_core).into_iter().fold(incident, Incident::at)
    }

    /// Since it began, by this side's clock.
    fn elapsed(&self) -> Span {
        Span::from_millis(u64::try_from(self.began.elapsed().as_millis()).unwrap_or(u64::MAX))
    }

    /// How long it ran: not while it was halted from outside.
    fn ran(&self) -> Span {
        let halted = u64::try_from(self.witness.halted().as_millis()).unwrap_or(u64::MAX);
        Span::from_millis(self.elapsed().millis().saturating_sub(halted))
    }

    fn rate(&self) -> Option<Score> {
        let unit = harmless(&self.started.unit);
        let less_is_better = self.started.less_is_better;
        let is_known = self.progress.rounds > 0 && !unit.is_empty();
        is_known.then_some(Score { value: self.progress.rate, unit, less_is_better })
    }

    /// Everything that it measures where that is several things, each with its name.
    fn figures(&self) -> impl Iterator<Item = (String, Score)> {
        self.progress.figures.iter().map(|figure| {
            let protocol::Figure { name, value, unit, less_is_better } = figure;
            let score = Score { value: *value, unit: harmless(unit), less_is_better: *less_is_better };
            (harmless(name), score)
        })
    }

    fn workload(&self) -> Option<Workload> {
        let Started { kernel, size, size_name, bytes, round_seconds, .. } = &self.started;
        (!kernel.is_empty()).then(|| Workload {
            kernel: harmless(kernel),
            size: *size,
            size_name: harmless(size_name),
            bytes: *bytes,
            round: round_seconds.map(|seconds| Span::from_millis((seconds * 1000.0).max(1.0) as u64)),
        })
    }

    fn told_progress(&self) -> Progress {
        let told = |core: &protocol::CoreProgress| CoreProgress {
            core: core.core,
            rounds: core.rounds,
            errors: core.errors,
            rate: core.rate,
            noise: core.noise,
            clock: (core.clock > 0.0).then_some(core.clock),
            checked: (core.checked > 0.0).then(|| span(core.checked)),
        };
        Progress {
            done: self.elapsed(),
            warms_up: self.progress.warms_up,
            rounds: self.progress.rounds,
            errors: self.progress.errors,
            rate: self.rate(),
            workload: self.workload(),
            cores: self.progress.cores.iter().map(told).collect(),
        }
    }

    fn report(&mut self) -> PassReport {
        let mut incidents = std::mem::take(&mut self.wrongs).incidents(self.progress.errors, self.elapsed());
        incidents.append(&mut self.incidents);
        incidents.sort_by_key(|incident| incident.into_pass);
        let is_lacking = self.asked.is_unchecked(&self.progress) || self.asked.lost_time(self.witness.halted());
        let is_unchecked = self.is_held_up || self.is_finished && is_lacking;
        let is_right = self.is_finished && !is_unchecked && incidents.is_empty();
        PassReport {
            // That is our own mistake, the plan's or somebody else's, and none of the rung.
            unchecked: is_unchecked && incidents.is_empty(),
            ran: self.ran(),
            rounds: self.progress.rounds,
            over_time: Some(self.progress.over_time).filter(|over_time| self.is_finished && *over_time > 0.0),
            score: self.rate().filter(|_| is_right),
            further: self.figures().skip(1).map(|(_, score)| score).filter(|_| is_right).collect(),
            score_names: self.figures().map(|(name, _)| name).filter(|_| is_right).collect(),
            incidents,
            workload: self.workload(),
            stopped: self.is_stopped && !self.is_held_up,
            ..PassReport::default()
        }
    }
}
