//! Carries out what the engine decides: the one place where a climb meets a rig, a ledger, a clock and an operator.

use std::collections::{BTreeMap, BTreeSet, VecDeque};
use std::time::{Duration, Instant};

use anyhow::{Context, Result};
use periculum_core::engine::watch::WINDOW;
use periculum_core::engine::{Climb, Command, Event, Other, Question, Said, Step};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::PassReport;
use periculum_core::model::rig::Sensor;
use periculum_ledger::{Ledger, Line, SignsOfLife};
use periculum_rigs::bench::{Bench, PassNews};
use periculum_rigs::hold::Hold;
use periculum_rigs::scpi::Instruments;
use periculum_rigs::steady::wall_clock;

use crate::ask::{Heard, Operator};
use crate::cli::Pace;
use crate::notice::Notice;

/// How often sensors are read, by the rig's clock.
const SAMPLING: Span = Span::from_millis(500);

/// How often a rig whose time is the wall's is looked at for cut-offs.
const CHECKING: Span = Span::from_millis(100);

/// How long the driver sits still at most before it looks around again.
const LOOKING: Duration = Duration::from_millis(200);

/// A program that uses more of one core than this, percent, is told.
const WORTH_A_WORD: f64 = 10.0;

/// A sensor whose reading never was another one in so many samples is stuck.
const STUCK: u32 = 240;

/// So many samples are written together.
const SAMPLES_AT_ONCE: usize = 64;

/// Samples never wait longer than this to be written.
const OLDEST_SAMPLE: Duration = Duration::from_millis(500);

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
            match heard {
                Heard::Nothing if is_last && !self.is_leaving => {
                    self.take(Event::OperatorSaid { said: Said::Suspend })?;
                    continue;
                }
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

/// Sensor readings on their way to the ledger, and the highest of each during the running pass and of late.
#[derive(Default)]
pub(crate) struct Readings {
    waiting: Vec<(Moment, BTreeMap<String, f64>)>,
    oldest: Option<Instant>,
    last: Option<Moment>,
    peaks: BTreeMap<String, f64>,
    /// The readings of the running pass, as far back as the engine looks.
    recent: VecDeque<(Moment, BTreeMap<String, f64>)>,
    /// Whether the pass has run as long as the engine looks back.
    is_window_full: bool,
    /// The first reading of each sensor that a cut-off rests on, while there was no other one, and how often it was read.
    unmoved: BTreeMap<String, Option<(f64, u32)>>,
}

impl Readings {
    fn is_due(&self, now: Moment) -> bool {
        self.last.is_none_or(|last| now.since(last) >= SAMPLING || now < last)
    }

    /// Readings of these sensors.
    pub(crate) fn of(sensors: &[Sensor]) -> Self {
        let guarded = sensors.iter().filter(|sensor| sensor.cut_off.is_some());
        let unmoved = guarded.map(|sensor| (sensor.name.clone(), Some((f64::NAN, 0)))).collect();
        Self { unmoved, ..Self::default() }
    }

    /// Takes out the readings that a cut-off rests on and that have never moved in two minutes of passes: what is stuck
    /// guards nothing.
    fn drop_stuck(&mut self, readings: &mut BTreeMap<String, f64>, counts: bool) {
        readings.retain(|sensor, reading| {
            let Some(unmoved) = self.unmoved.get_mut(sensor) else { return true };
            *unmoved = match *unmoved {
                Some((first, times)) if first.is_nan() || first == *reading => {
                    Some((*reading, times + u32::from(counts)))
                }
                // Once it has moved, it is alive for good.
                _ => None,
            };
            unmoved.is_none_or(|(_, times)| times < STUCK)
        });
    }

    fn keep(&mut self, now: Moment, readings: &BTreeMap<String, f64>) {
        self.last = Some(now);
        self.oldest.get_or_insert_with(Instant::now);
        self.waiting.push((now, readings.clone()));
        for (sensor, value) in readings {
            let peak = self.peaks.entry(sensor.clone()).or_insert(*value);
            *peak = peak.max(*value);
        }
        self.recent.push_back((now, readings.clone()));
        while self.recent.front().is_some_and(|(at, _)| now.since(*at) > WINDOW) {
            self.recent.pop_front();
            self.is_window_full = true;
        }
    }

    /// The highest reading of each sensor in the last moments of the pass, once it has run so long.
    fn highest(&self) -> BTreeMap<String, f64> {
        let mut highest = BTreeMap::new();
        if !self.is_window_full {
            return highest;
        }
        for (sensor, value) in self.recent.iter().flat_map(|(_, readings)| readings) {
            let known = highest.entry(sensor.clone()).or_insert(*value);
            *known = known.max(*value);
        }
        highest
    }

    fn should_be_written(&self) -> bool {
        self.waiting.len() >= SAMPLES_AT_ONCE || self.oldest.is_some_and(|oldest| oldest.elapsed() >= OLDEST_SAMPLE)
    }

    fn take_waiting(&mut self) -> Vec<(Moment, BTreeMap<String, f64>)> {
        self.oldest = None;
        std::mem::take(&mut self.waiting)
    }

    fn begin_pass(&mut self) {
        self.peaks.clear();
        self.recent.clear();
        self.is_window_full = false;
    }

    fn move_peaks_to(&mut self, report: &mut PassReport) {
        report.peaks = std::mem::take(&mut self.peaks);
    }
}

/// Keeps a virtual clock in step with the wall's.
pub(crate) struct Pacer {
    pace: Option<Pace>,
    anchor: Option<(Instant, Moment)>,
}

impl Pacer {
    /// A pacer for a virtual clock; none is needed for the wall's.
    pub(crate) fn new(pace: Option<Pace>) -> Self {
        Self { pace, anchor: None }
    }

    /// How long to wait before the rig's time goes on.
    fn due(&mut self, now: Moment, is_passing: bool) -> Duration {
        if !is_passing {
            self.anchor = None;
            return LOOKING;
        }
        let Some(Pace::Times(times)) = self.pace else { return Duration::ZERO };
        let (wall, virtual_time) = *self.anchor.get_or_insert_with(|| (Instant::now(), now));
        let ahead = now.since(virtual_time).seconds() / times - wall.elapsed().as_secs_f64();
        if ahead > LOOKING.as_secs_f64() {
            // A long stride, such as a restart, is shown shorter than it is.
            self.anchor = Some((Instant::now(), now));
        }
        Duration::from_secs_f64(ahead.clamp(0.0, LOOKING.as_secs_f64()))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_virtual_clock_is_kept_in_step_and_a_long_stride_is_shown_short() {
        let mut pacer = Pacer::new(Some(Pace::Times(10.0)));
        let at = Moment::from_millis;
        assert_eq!(pacer.due(at(0), true), Duration::ZERO);
        // Half a second of the rig's time is a twentieth of ours.
        let due = pacer.due(at(500), true);
        assert!(due <= Duration::from_millis(50) && due > Duration::from_millis(1), "{due:?}");
        assert_eq!(pacer.due(at(75_000), true), LOOKING);
        let after = pacer.due(at(75_500), true);
        assert!(after <= Duration::from_millis(50), "{after:?}");
    }

    #[test]
    fn without_a_pace_nothing_is_waited_for_while_a_pass_runs() {
        for pace in [None, Some(Pace::Max)] {
            let mut pacer = Pacer::new(pace);
            assert_eq!(pacer.due(Moment::from_millis(0), true), Duration::ZERO);
            assert_eq!(pacer.due(Moment::from_millis(9_000_000), true), Duration::ZERO);
            assert_eq!(pacer.due(Moment::from_millis(0), false), LOOKING);
        }
    }

    #[test]
    fn a_sensor_that_never_moves_is_stuck_and_one_that_moved_once_is_not() {
        let guarded = |name| Sensor { cut_off: Some(95.into()), ..Sensor::plain(name) };
        let mut readings = Readings::of(&[guarded("stuck"), guarded("alive"), Sensor::plain("errors")]);
        let mut left = BTreeMap::new();
        for time in 0..STUCK + 1 {
            let moved = if time == 3 { 61.0 } else { 60.0 };
            left = [("stuck", 60.0), ("alive", moved), ("errors", 0.0)].map(|(name, it)| (name.to_owned(), it)).into();
            readings.drop_stuck(&mut left, true);
            assert_eq!(left.len(), if time + 1 < STUCK { 3 } else { 2 }, "{time}");
        }
        assert!(left.contains_key("alive") && left.contains_key("errors"));
    }

    #[test]
    fn readings_are_due_twice_a_second_and_their_peaks_belong_to_the_pass() {
        let mut readings = Readings::default();
        let at = Moment::from_millis;
        assert!(readings.is_due(at(0)));
        readings.keep(at(0), &[("core".to_owned(), 71.0)].into());
        assert!(!readings.is_due(at(499)) && readings.is_due(at(500)));
        assert!(readings.is_due(at(-10)), "a clock that was set back does not stop the sampling");
        readings.keep(at(500), &[("core".to_owned(), 64.0)].into());
        assert!(readings.highest().is_empty(), "the pass has not run long enough");
        for (millis, reading) in [(5000, 66.0), (10_001, 65.0), (10_501, 60.0)] {
            readings.keep(at(millis), &[("core".to_owned(), reading)].into());
        }
        assert_eq!(readings.highest(), [("core".to_owned(), 66.0)].into(), "what is long ago no longer counts");
        let mut report = PassReport::default();
        readings.move_peaks_to(&mut report);
        assert_eq!(report.peaks, [("core".to_owned(), 71.0)].into());
        assert_eq!(readings.take_waiting().len(), 5);
        assert!(readings.take_waiting().is_empty());
    }
}
