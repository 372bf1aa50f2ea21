//! Carries out what the engine decides: the one place where a climb meets a rig, a ledger, a clock and an operator.

use std::collections::{BTreeSet, VecDeque};
use std::time::Duration;

use anyhow::{Context, Result};
use periculum_core::engine::{Climb, Command, Event, Other, Question, Said, Step};
use periculum_core::model::moment::Span;
use periculum_ledger::{Ledger, Line, SignsOfLife};
use periculum_rigs::bench::{Bench, PassNews};
use periculum_rigs::hold::Hold;
use periculum_rigs::sampling::{Readings, SAMPLING};
use periculum_rigs::scpi::Instruments;
use periculum_rigs::steady::wall_clock;

use super::operator::{Heard, Operator};
use super::pacer::Pacer;
use crate::notice::Notice;

/// How often a rig whose time is the wall's is looked at for cut-offs.
const CHECKING: Span = Span::from_millis(100);

/// A program that uses more of one core than this, percent, is told.
const WORTH_A_WORD: f64 = 10.0;

/// A climb on its way.
pub(crate) struct Driver<L> {
    pub(crate) climb: Climb,
    pub(crate) bench: Box<dyn Bench + Send>,
    pub(crate) ledger: Ledger,
    /// The climb's number in the ledger.
    pub(crate) number: i64,
    /// The boot identifier of the operating system.
    pub(crate) boot: String,
    pub(crate) operator: Operator,
    pub(crate) pacer: Pacer,
    pub(crate) listener: L,
    pub(crate) readings: Readings,
    /// What hangs on the rig beside its own sensors.
    pub(crate) instruments: Instruments,
    /// The settings that the machine is started anew for by itself.
    pub(crate) starts_for: BTreeSet<String>,
    /// Whether the climb is put aside, to go on another time.
    pub(crate) is_leaving: bool,
    /// Who says, durably, that a pass goes on; none on a virtual clock.
    pub(crate) signs: Option<SignsOfLife>,
    /// The machine, for this driver alone.
    pub(crate) _machine: Option<Hold>,
}

/// Why a driver stopped driving.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Parting {
    /// The climb is over.
    Ended,
    /// The climb waits to be taken up again.
    Waiting,
}

impl<L: FnMut(Notice)> Driver<L> {
    /// Drives from this event on until the climb ends, waits for another day, or `until` says so.
    pub(crate) fn drive(&mut self, first: Event, until: impl Fn(&Climb) -> bool) -> Result<Parting> {
        self.take(first)?;
        self.go_on(until)
    }

    /// Drives on.
    pub(crate) fn go_on(&mut self, until: impl Fn(&Climb) -> bool) -> Result<Parting> {
        while !self.climb.is_ended() && !until(&self.climb) {
            let is_asked = self.climb.question().is_some();
            if self.is_leaving && (self.climb.is_paused() || is_asked) {
                break;
            }
            let patience = self.pacer.due(self.bench.now(), self.climb.needs_time());
            // What was said before the end is heard before it.
            let is_last = is_asked && self.operator.is_mute();
            let heard = self.operator.listen(if is_last { Duration::ZERO } else { patience });
            match if is_last && heard == Heard::Nothing { Heard::Gone } else { heard } {
                Heard::Word(said) => {
                    let event = self.said(said);
                    self.take(event)?;
                    continue;
                }
                Heard::Gone if !self.is_leaving => {
                    self.take(Event::OperatorSaid { said: Said::Suspend })?;
                    continue;
                }
                Heard::Gone | Heard::Nothing => {}
            }
            if self.climb.needs_time() {
                self.let_pass()?;
            }
        }
        self.write_samples()?;
        if (self.climb.is_ended() || self.is_leaving) && self.climb.left_at().is_none() {
            self.put_back();
        }
        Ok(if self.climb.is_ended() { Parting::Ended } else { Parting::Waiting })
    }

    /// What the operator says, as an event: that something is done, with what the rig says of it.
    fn said(&mut self, said: Said) -> Event {
        if said != Said::Done || self.climb.question().is_none() {
            return Event::OperatorSaid { said };
        }
        let boot = self.bench.boot().filter(|boot| *boot != self.boot);
        let started_anew = boot.is_some();
        if let Some(boot) = boot {
            self.boot = boot;
        }
        Event::ChangeMade { reported: self.bench.read_back(), started_anew }
    }

    /// Starts the machine anew for a change that is written down; where that can't be, the change goes on being asked for.
    fn start_anew(&mut self) -> Option<Event> {
        match self.bench.restart() {
            Ok(()) => Some(Event::OperatorSaid { said: Said::Suspend }),
            Err(error) => {
                let problem =
                    format!("the machine could not be started anew: {error}; start it, and the climb goes on");
                tracing::error!(problem);
                (self.listener)(Notice::LeftBehind { problem });
                self.starts_for.clear();
                None
            }
        }
    }

    /// Lets the running pass run for a moment.
    fn let_pass(&mut self) -> Result<()> {
        if let Some(signs) = self.signs.as_ref().filter(|_| self.climb.is_passing()) {
            signs.alive(self.bench.now());
        }
        let patience = if self.bench.is_virtual() { SAMPLING } else { CHECKING };
        for news in self.bench.wait(patience) {
            match news {
                PassNews::Progress(progress) => self.take(Event::PassProgress { progress })?,
                PassNews::Ended(mut report) => {
                    self.readings.move_peaks_to(&mut report);
                    self.write_samples()?;
                    let reported = Some(self.bench.read_back());
                    return self.take(Event::PassEnded { report, reported });
                }
            }
        }
        self.sample()?;
        self.take(Event::TimePassed { late: self.bench.late() })
    }

    fn sample(&mut self) -> Result<()> {
        let now = self.bench.now();
        let is_due = self.readings.is_due(now);
        // A virtual rig has no more to say between two samples, and is asked a thousand times more often.
        if !is_due && self.bench.is_virtual() {
            return Ok(());
        }
        let mut readings = self.bench.sense();
        readings.extend(self.instruments.readings());
        self.readings.drop_stuck(&mut readings, is_due);
        if !is_due && !self.climb.is_over_cut_off(&readings) {
            return Ok(());
        }
        self.readings.keep(now, &readings);
        let incidents = self.bench.noticed();
        if !incidents.is_empty() {
            self.take(Event::Noticed { incidents })?;
        }
        let highest = self.readings.highest();
        if self.readings.should_be_written() {
            self.write_samples()?;
        }
        self.take(Event::Sample { readings, highest })
    }

    fn write_samples(&mut self) -> Result<()> {
        let waiting = self.readings.take_waiting();
        if !waiting.is_empty() {
            self.ledger.add_samples(self.number, &waiting).context("can't write sensor readings")?;
        }
        Ok(())
    }

    /// Takes an event, and every event that carrying out its command leads to.
    fn take(&mut self, event: Event) -> Result<()> {
        let mut events = VecDeque::from([event]);
        while let Some(event) = events.pop_front() {
            self.is_leaving |= matches!(event, Event::OperatorSaid { said: Said::Leave | Said::Suspend });
            let step = self.climb.next(self.bench.now(), &event);
            self.record(&event, &step)?;
            self.tell(event, &step);
            self.guard();
            events.extend(step.command.and_then(|command| self.carry_out(command)));
        }
        Ok(())
    }

    /// Commits the step; only then may its command be carried out.
    fn record(&mut self, event: &Event, step: &Step) -> Result<()> {
        if event.is_telemetry() && step.is_silent() {
            return Ok(());
        }
        let line = Line {
            at: step.at,
            wall: wall_clock(),
            boot: self.boot.clone(),
            event: event.clone(),
            entries: step.entries.clone(),
        };
        self.ledger.append(self.number, &line).context("can't write to the ledger, so nothing more is applied")
    }

    fn tell(&mut self, event: Event, step: &Step) {
        let at = step.at;
        match event {
            Event::PassProgress { progress } => (self.listener)(Notice::Progress { at, progress }),
            Event::Sample { readings, .. } => (self.listener)(Notice::Sample { at, readings }),
            event if event.reads_back() => (self.listener)(Notice::ReadBack(event)),
            _ => {}
        }
        if step.entries.is_empty() {
            return;
        }
        for entry in &step.entries {
            (self.listener)(Notice::Told { at, entry: entry.clone() });
        }
        (self.listener)(Notice::Outlook(self.climb.outlook().map(Box::new)));
    }

    /// Keeps the machine's watchdog fed while a trial goes on, and at rest otherwise.
    fn guard(&mut self) {
        if self.climb.is_in_trouble() {
            // Nothing but a restart helps any more: the watchdog is left to it.
        } else if self.climb.is_on_trial() {
            self.bench.guard();
        } else {
            self.bench.stand_down();
        }
    }

    /// Puts back what was there before the climb, beside the settings that went back to stock.
    fn put_back(&mut self) {
        for problem in self.bench.put_back() {
            tracing::error!(problem, "left behind");
            (self.listener)(Notice::LeftBehind { problem });
        }
    }

    /// The other programs that use the processor, where there are any worth a word.
    fn others(&mut self) -> Option<Event> {
        let busy = self.bench.others().into_iter().filter(|(_, percent)| *percent >= WORTH_A_WORD);
        let others: Vec<Other> = busy.map(|(name, percent)| Other { name, percent: percent.round() }).collect();
        (!others.is_empty()).then_some(Event::OthersBusy { others })
    }

    /// Carries out a command, and tells what came of it where that is known at once.
    fn carry_out(&mut self, command: Command) -> Option<Event> {
        tracing::debug!(?command, "carrying out");
        match command {
            Command::Apply(change) => Some(match self.bench.apply(&change) {
                Ok(()) => Event::Applied { reported: self.bench.read_back() },
                Err(incident) => Event::ApplyFailed { incident },
            }),
            Command::Ask(Question::Change { errand }) => {
                if let Err(incident) = self.bench.prepare(&errand) {
                    return Some(Event::ApplyFailed { incident });
                }
                if errand.changes().iter().all(|change| self.starts_for.contains(&change.setting)) {
                    return self.start_anew();
                }
                self.operator.scripted_answer().map(|said| self.said(said))
            }
            Command::RunPass(order) => {
                let others = if order.index == 0 { self.others() } else { None };
                self.readings.begin_pass();
                self.bench.start(&order);
                others
            }
            Command::StopPass => {
                self.bench.stop();
                None
            }
        }
    }
}
