//! Passes on this machine: the load in its child process, watched and, when it must be, killed.

use std::path::PathBuf;
use std::time::{Duration, Instant};

use anyhow::{Context, Result};
use periculum_core::incident::{Incident, IncidentKind};
use periculum_core::moment::Span;
use periculum_core::pass::{PassOrder, PassReport, Progress, Score, Threads};
use periculum_loads::process::{LoadProcess, News};
use periculum_loads::protocol::{self, Message};
use periculum_rigs::bench::{PassNews, RunPasses};

/// A load that is silent for longer is dead in all but name.
const LONGEST_SILENCE: Duration = Duration::from_secs(10);

/// So many wrong results of one pass are kept one by one; how many more there were is told at the end.
const KEPT_INCIDENTS: usize = 100;

/// Runs loads by starting this program again.
pub(crate) struct LoadRunner {
    program: PathBuf,
    /// Whether a load goes on after a wrong result.
    goes_on: bool,
    running: Option<Running>,
}

struct Running {
    process: LoadProcess,
    began: Instant,
    progress: protocol::Progress,
    incidents: Vec<Incident>,
    is_finished: bool,
    is_stopped: bool,
}

impl LoadRunner {
    pub(crate) fn new(goes_on: bool) -> Result<Self> {
        let program = std::env::current_exe().context("can't find this program to start loads with")?;
        Ok(Self { program, goes_on, running: None })
    }

    fn spawn(&self, order: &PassOrder) -> std::io::Result<LoadProcess> {
        let mut arguments: Vec<String> = vec!["load".into(), order.pass.load.clone()];
        arguments.extend(["--millis".into(), order.pass.length.millis().to_string()]);
        if let Threads::Count(count) = order.pass.threads {
            arguments.extend(["--threads".into(), count.to_string()]);
        }
        if self.goes_on {
            arguments.push("--go-on".into());
        }
        LoadProcess::spawn(&self.program, arguments.into_iter().map(Into::into))
    }
}

impl Running {
    fn take(&mut self, news: News) -> Option<PassNews> {
        match news {
            News::Said(Message::Started { load, kernel, cores, order, bytes }) => {
                tracing::info!(load, kernel, ?cores, order, bytes, "load started");
                None
            }
            News::Said(Message::Progress(progress)) => {
                self.progress = progress;
                Some(PassNews::Progress(self.told_progress()))
            }
            News::Said(Message::Wrong(wrong)) => {
                if self.incidents.len() < KEPT_INCIDENTS {
                    let into_pass = Span::from_millis((wrong.seconds * 1000.0) as u64);
                    let incident =
                        Incident::new(IncidentKind::WrongResult, format!("round {}: {}", wrong.round, wrong.evidence));
                    self.incidents.push(incident.at(format!("core {}", wrong.core)).into_pass(into_pass));
                }
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
        (self.progress.rounds > 0).then(|| Score { value: self.progress.rate, unit: "GFLOP/s".into() })
    }

    fn told_progress(&self) -> Progress {
        Progress { done: self.ran(), rounds: self.progress.rounds, errors: self.progress.errors, rate: self.rate() }
    }

    fn report(&mut self) -> PassReport {
        let untold = self.progress.errors.saturating_sub(KEPT_INCIDENTS as u64);
        if untold > 0 {
            let evidence = format!("{untold} more wrong results, not kept one by one");
            self.incidents.push(Incident::new(IncidentKind::WrongResult, evidence).into_pass(self.ran()));
        }
        PassReport {
            ran: self.ran(),
            rounds: self.progress.rounds,
            score: self.rate().filter(|_| self.is_finished && self.incidents.is_empty()),
            incidents: std::mem::take(&mut self.incidents),
            stopped: self.is_stopped,
            ..PassReport::default()
        }
    }
}

impl RunPasses for LoadRunner {
    fn start(&mut self, order: &PassOrder) {
        match self.spawn(order) {
            Ok(process) => {
                self.running = Some(Running {
                    process,
                    began: Instant::now(),
                    progress: protocol::Progress::default(),
                    incidents: Vec::new(),
                    is_finished: false,
                    is_stopped: false,
                });
            }
            Err(error) => tracing::error!(%error, "the load did not start"),
        }
    }

    fn stop(&mut self) {
        if let Some(running) = &mut self.running {
            running.is_stopped = true;
            running.process.kill();
        }
    }

    fn wait(&mut self, at_most: Span) -> Vec<PassNews> {
        let Some(running) = &mut self.running else {
            let incident = Incident::new(IncidentKind::LoadDied, "the load could not be started");
            return vec![PassNews::Ended(PassReport { incidents: vec![incident], ..PassReport::default() })];
        };
        let at_most = Duration::from_millis(at_most.millis());
        let news = running.process.next(at_most).and_then(|news| running.take(news));
        if running.process.silence() > LONGEST_SILENCE && !running.is_stopped {
            let evidence = format!("the load said nothing for {} s", LONGEST_SILENCE.as_secs());
            let incident = Incident::new(IncidentKind::Stalled, evidence).into_pass(running.ran());
            running.incidents.push(incident);
            running.is_stopped = true;
            running.process.kill();
        }
        if matches!(news, Some(PassNews::Ended(_))) {
            self.running = None;
        }
        news.into_iter().collect()
    }
}
