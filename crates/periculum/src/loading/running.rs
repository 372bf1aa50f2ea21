//! The running pass: what its load says, as the driver understands it.

use std::time::{Duration, Instant};

use periculum_core::incident::{Incident, IncidentKind};
use periculum_core::moment::Span;
use periculum_core::pass::{CoreProgress, PassReport, Progress, Score, Workload};
use periculum_core::quantity::harmless;
use periculum_loads::frame::FaultKind;
use periculum_loads::process::{LoadProcess, News};
use periculum_loads::protocol::{self, Message, Started, Wrong};
use periculum_rigs::bench::PassNews;

/// A load that is silent for longer is dead in all but name.
const LONGEST_SILENCE: Duration = Duration::from_secs(10);

/// Of a score in these units less is better.
const TIMES: [&str; 4] = ["ns", "µs", "ms", "s"];

/// So many wrong results of one pass are kept one by one; how many more there were is told at the end.
const KEPT_INCIDENTS: usize = 100;

/// A pass whose load is in its process.
pub(super) struct Running {
    process: LoadProcess,
    began: Instant,
    started: Started,
    progress: protocol::Progress,
    incidents: Vec<Incident>,
    is_finished: bool,
    is_stopped: bool,
}

impl Running {
    pub(super) fn new(process: LoadProcess) -> Self {
        Self {
            process,
            began: Instant::now(),
            started: Started::default(),
            progress: protocol::Progress::default(),
            incidents: Vec::new(),
            is_finished: false,
            is_stopped: false,
        }
    }

    /// Breaks it off.
    pub(super) fn stop(&mut self) {
        self.is_stopped = true;
        self.process.kill();
    }

    /// What it has to tell within this time.
    pub(super) fn next(&mut self, at_most: Duration) -> Option<PassNews> {
        let news = self.process.next(at_most).and_then(|news| self.take(news));
        if self.process.silence() > LONGEST_SILENCE && !self.is_stopped {
            let evidence = format!("the load said nothing for {} s", LONGEST_SILENCE.as_secs());
            self.incidents.push(Incident::new(IncidentKind::Stalled, evidence).into_pass(self.ran()));
            self.stop();
        }
        news
    }

    fn take(&mut self, news: News) -> Option<PassNews> {
        match news {
            News::Said(Message::Started(started)) => {
                tracing::info!(?started, "load started");
                self.started = started;
                Some(PassNews::Progress(self.told_progress()))
            }
            News::Said(Message::Progress(progress)) => {
                self.progress = progress;
                Some(PassNews::Progress(self.told_progress()))
            }
            News::Said(Message::Wrong(wrong)) => {
                if self.incidents.len() < KEPT_INCIDENTS {
                    self.incidents.push(incident(&wrong));
                }
                None
            }
            News::Said(Message::Failed { why }) => {
                self.incidents.push(Incident::new(IncidentKind::LoadDied, harmless(&why)).into_pass(self.ran()));
                None
            }
            News::Said(Message::Ended(progress)) => {
                self.progress = progress;
                self.is_finished = true;
                None
            }
            News::Garbage(text) => {
                tracing::warn!(text, "the load said something that is no message");
                None
            }
            News::Died(death) => {
                if !self.is_finished && !self.is_stopped {
                    let incident = Incident::new(IncidentKind::LoadDied, death.to_string());
                    self.incidents.push(incident.into_pass(self.ran()));
                }
                Some(PassNews::Ended(self.report()))
            }
        }
    }

    fn ran(&self) -> Span {
        Span::from_millis(u64::try_from(self.began.elapsed().as_millis()).unwrap_or(u64::MAX))
    }

    fn rate(&self) -> Option<Score> {
        let unit = harmless(&self.started.unit);
        let less_is_better = TIMES.contains(&unit.as_str());
        let is_known = self.progress.rounds > 0 && !unit.is_empty();
        is_known.then_some(Score { value: self.progress.rate, unit, less_is_better })
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
            checked: (core.checked > 0.0).then(|| Span::from_millis((core.checked * 1000.0) as u64)),
        };
        Progress {
            done: self.ran(),
            warms_up: self.progress.warms_up,
            rounds: self.progress.rounds,
            errors: self.progress.errors,
            rate: self.rate(),
            workload: self.workload(),
            cores: self.progress.cores.iter().map(told).collect(),
        }
    }

    fn report(&mut self) -> PassReport {
        let untold = self.progress.errors.saturating_sub(KEPT_INCIDENTS as u64);
        if untold > 0 {
            let evidence = format!("{untold} more wrong results, not kept one by one");
            self.incidents.push(Incident::new(IncidentKind::WrongResult, evidence).into_pass(self.ran()));
        }
        PassReport {
            // That is our own mistake, or the plan's, and none of the rung.
            unchecked: self.is_finished && self.incidents.is_empty() && self.progress.rounds == 0,
            ran: self.ran(),
            rounds: self.progress.rounds,
            score: self.rate().filter(|_| self.is_finished && self.incidents.is_empty()),
            incidents: std::mem::take(&mut self.incidents),
            workload: self.workload(),
            stopped: self.is_stopped,
            ..PassReport::default()
        }
    }
}

fn incident(wrong: &Wrong) -> Incident {
    let kind = match wrong.kind {
        FaultKind::Result => IncidentKind::WrongResult,
        FaultKind::Memory => IncidentKind::MemoryFault,
    };
    let into_pass = Span::from_millis((wrong.seconds * 1000.0) as u64);
    let incident = Incident::new(kind, harmless(&wrong.to_string())).into_pass(into_pass);
    match wrong.core {
        Some(core) => incident.at(format!("core {core}")),
        None => incident,
    }
}
