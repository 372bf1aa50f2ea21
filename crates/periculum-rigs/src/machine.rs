//! The computer this runs on: settings and sensors are the kernel's, or a person changes them; loads are real.

use std::collections::{BTreeMap, BTreeSet};
use std::time::{Duration, Instant, UNIX_EPOCH};
use std::{io, mem};

use periculum_core::model::ending::Boot;
use periculum_core::model::errand::Errand;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{PassOrder, PassReport, Progress};
use periculum_core::model::rig::{Rig, Sensor};
use periculum_core::model::rung::Change;

use crate::bench::{Answer, Bench, BenchEvent, Number, Order, PassNews, ReadBack, Remains, RunPasses, Shown};
use crate::latest::Latest;
use crate::linux::{self, ADAPTER, Errors, Linux, Sampler, Setter, TRUE_CLOCK, Watchdog};
use crate::sampling::SAMPLING;
use crate::steady::SteadyClock;
use crate::worker::{Outcome, Pending, Worker};

/// How long a setting may take to be written, or read back: together less than a program that is told to end may take.
const SETTING: Duration = Duration::from_millis(1200);
const READING: Duration = Duration::from_millis(800);

/// For how long other programs are watched, and how long that may take.
const LOOKING: Duration = Duration::from_millis(250);
const LOOKING_AT_MOST: Duration = Duration::from_secs(2);

/// How long whoever starts the machine may take to hear it.
const RESTARTING: Duration = Duration::from_secs(30);

/// However long counters take to be read, what they counted is not lost.
const EVER: Duration = Duration::from_secs(u32::MAX as u64);

/// This machine, with passes run by whatever can run them.
pub struct ThisMachine {
    linux: Linux,
    boot: Boot,
    /// Which settings it changes by itself, in a thread of their own: one that hangs costs only its change.
    setter: Worker<Setter>,
    served: BTreeSet<String>,
    /// How long programs and instruments that serve settings may take, beside what the kernel may.
    patience: Duration,
    under_way: Vec<UnderWay>,
    running: Option<Number>,
    errors: Worker<Errors>,
    counting: Option<Pending<Counted>>,
    /// Why what counted errors does not any more.
    unheard: BTreeMap<String, String>,
    counted_at: Option<Moment>,
    watcher: Worker<Linux>,
    watchdog: Option<Watchdog>,
    latest: Latest,
    /// The sensors that tell the clock which the running load measures.
    true_clocks: Vec<String>,
    _sampler: Sampler,
    clock: SteadyClock,
    passes: Box<dyn RunPasses>,
}

/// What was counted, and why other things were not.
type Counted = (Vec<Incident>, BTreeMap<String, String>);

/// An order that is being carried out by somebody who may hang.
struct UnderWay {
    number: Number,
    pending: Pending<Next>,
    /// What follows where they do.
    otherwise: Next,
}

/// What follows when somebody has done their part of an order.
enum Next {
    /// Reading back what is in force.
    Read,
    /// This is in force, after a pass where there was one.
    InForce(ReadBack, Option<Box<PassReport>>),
    /// A pass runs, beside these other programs.
    Pass(Vec<(String, f64)>, PassOrder),
    /// That was all.
    Answer(Answer),
}

impl ThisMachine {
    /// This machine as the rig describes it, with a watchdog where one is to be armed, by this clock; `is_ours` tells whether a
    /// process is one of a pass that runs or has just ended.
    pub fn new(
        linux: Linux,
        setter: Setter,
        watchdog: Option<Watchdog>,
        rig: &Rig,
        passes: Box<dyn RunPasses>,
        clock: SteadyClock,
        is_ours: fn(u32) -> bool,
    ) -> Self {
        let latest = Latest::default();
        let of_kernel = rig.sensors.iter().filter(|sensor| sensor.adapter == ADAPTER).cloned();
        let (clocks, sensors): (Vec<Sensor>, Vec<Sensor>) = of_kernel.partition(|sensor| sensor.source == TRUE_CLOCK);
        let named = rig.settings.iter().map(|setting| &setting.name).filter(|name| setter.serves(name));
        Self {
            boot: linux.boot(),
            served: named.cloned().collect(),
            patience: patience(rig),
            setter: Worker::on(setter),
            under_way: Vec::new(),
            running: None,
            errors: Worker::on(Errors::of(linux.root(), is_ours)),
            counting: None,
            unheard: BTreeMap::new(),
            counted_at: None,
            watcher: Worker::on(linux.clone()),
            watchdog,
            true_clocks: clocks.into_iter().map(|sensor| sensor.name).collect(),
            _sampler: Sampler::start(&linux, &sensors, &latest),
            latest,
            clock,
            passes,
            linux,
        }
    }

    /// Has the setter do its part of an order.
    fn ask_setter(
        &mut self,
        number: Number,
        at_most: Duration,
        otherwise: Next,
        task: impl FnOnce(&mut Setter) -> Next + Send + 'static,
    ) {
        let pending = self.setter.begin(at_most, task);
        self.under_way.push(UnderWay { number, pending, otherwise });
    }

    fn set(&mut self, number: Number, errand: Errand) {
        if !errand.changes().iter().all(|change| self.served.contains(&change.setting)) {
            let evidence = "no adapter of this rig can change it; it has to be changed by hand";
            let failed = Answer::Failed(Incident::new(IncidentKind::NotTaken, evidence).at(errand.settings()));
            return self.under_way.push(UnderWay::over(number, Next::Answer(failed)));
        }
        let hangs = Next::Answer(Answer::Failed(hangs().at(errand.settings())));
        // What was in force is read, and then it is set.
        self.ask_setter(number, SETTING + 2 * self.patience, hangs, move |setter| match setter.apply(&errand) {
            Ok(()) => Next::Read,
            Err(incident) => Next::Answer(Answer::Failed(incident)),
        });
    }

    fn write_down(&mut self, number: Number, errand: &Errand) {
        let served = errand.changes().iter().filter(|change| self.served.contains(&change.setting));
        let served: Vec<Change> = served.cloned().collect();
        let hangs = Next::Answer(Answer::Failed(hangs()));
        self.ask_setter(number, SETTING, hangs, move |setter| {
            Next::Answer(match setter.write_down(&served) {
                Ok(()) => Answer::Prepared,
                Err(incident) => Answer::Failed(incident),
            })
        });
    }

    /// Reads back what can be: not what a person changed in firmware or with a tool. What does not answer in time is not known.
    fn read(&mut self, number: Number, after: Option<Box<PassReport>>) {
        let unknown = Next::InForce(ReadBack::default(), after.clone());
        self.ask_setter(number, READING + self.patience, unknown, move |setter| {
            Next::InForce(setter.read_back(), after)
        });
    }

    fn put_back(&mut self, number: Number) {
        let left = "what was changed could not be put back: a device does not answer".to_owned();
        let hangs = Next::Answer(Answer::PutBack(vec![left]));
        self.ask_setter(number, SETTING + self.patience, hangs, |setter| {
            Next::Answer(Answer::PutBack(setter.put_back()))
        });
    }

    /// Runs a pass, a trial's first after a look at who else is busy: beside a load that runs everybody is.
    fn run(&mut self, number: Number, order: PassOrder) {
        // Nothing is tested that is not well, so what has just been set may stay.
        self.setter.begin(SETTING, Setter::settle);
        if order.index > 0 {
            return self.under_way.push(UnderWay::over(number, Next::Pass(Vec::new(), order)));
        }
        let otherwise = Next::Pass(Vec::new(), order.clone());
        let look = move |linux: &mut Linux| Next::Pass(linux.busy_programs(LOOKING), order);
        self.under_way.push(UnderWay { number, pending: self.watcher.begin(LOOKING_AT_MOST, look), otherwise });
    }

    /// Breaks a pass off, also one that has not begun.
    fn break_off(&mut self) {
        self.passes.stop();
        let is_before_pass = |one: &UnderWay| matches!(one.otherwise, Next::Pass(..));
        if let Some(at) = self.under_way.iter().position(is_before_pass) {
            let number = self.under_way.remove(at).number;
            self.read(number, Some(Box::new(PassReport { stopped: true, ..PassReport::default() })));
        }
    }

    fn start_anew(&mut self, number: Number) {
        let told = |error: io::Error| Answer::NotStartedAnew(error.to_string());
        let restart = move |linux: &mut Linux| {
            Next::Answer(linux::restart(linux.root()).map_or_else(told, |()| Answer::StartingAnew))
        };
        let hangs = Next::Answer(Answer::NotStartedAnew("who was told to start it does not answer".to_owned()));
        self.under_way.push(UnderWay { number, pending: self.watcher.begin(RESTARTING, restart), otherwise: hangs });
    }

    fn read_back(&mut self, read_back: ReadBack, after: Option<Box<PassReport>>) -> Answer {
        let boot = self.linux.boot();
        let started_anew = boot.id != self.boot.id;
        self.boot = boot;
        let read_back = ReadBack { started_anew, ..read_back };
        match after {
            Some(report) => Answer::Ended(report, read_back),
            None => Answer::InForce(read_back),
        }
    }

    /// Goes on with every order that is under way; only the first is waited for.
    fn carry_on(&mut self, mut at_most: Duration) -> Vec<BenchEvent> {
        let mut events = Vec::new();
        for UnderWay { number, pending, otherwise } in mem::take(&mut self.under_way) {
            let next = match pending.wait(mem::take(&mut at_most)) {
                Outcome::NotYet => {
                    self.under_way.push(UnderWay { number, pending, otherwise });
                    continue;
                }
                Outcome::Done(next) => next,
                Outcome::TooLate => otherwise,
            };
            match next {
                Next::Read => self.read(number, None),
                Next::Answer(answer) => events.push(BenchEvent::Answered { to: number, answer }),
                Next::InForce(read_back, after) => {
                    let answer = self.read_back(read_back, after);
                    events.push(BenchEvent::Answered { to: number, answer });
                }
                Next::Pass(others, order) => {
                    self.passes.start(&order);
                    self.running = Some(number);
                    events.extend((!others.is_empty()).then_some(BenchEvent::OthersBusy(others)));
                }
            }
        }
        events
    }

    /// Lets the running pass run, and hears what it says.
    fn let_pass(&mut self, at_most: Duration) -> Vec<BenchEvent> {
        let at_most = Span::from_millis(u64::try_from(at_most.as_millis()).unwrap_or(u64::MAX));
        let mut events = Vec::new();
        for news in self.passes.wait(at_most) {
            match news {
                PassNews::Progress(progress) => {
                    if let Some(clock) = mean_clock(&progress) {
                        self.true_clocks.iter().for_each(|sensor| self.latest.put(sensor, clock));
                    }
                    events.push(BenchEvent::Progress(progress));
                }
                PassNews::Ended(report) => {
                    let Some(number) = self.running.take() else { continue };
                    self.read(number, Some(Box::new(report)));
                }
            }
        }
        events
    }

    /// What the counters counted, looked at as often as sensors are.
    fn noticed(&mut self) -> Option<BenchEvent> {
        let now = self.clock.now();
        let is_due = self.counted_at.is_none_or(|last| now.since(last) >= SAMPLING || now < last);
        if self.counting.is_none() && is_due {
            self.counted_at = Some(now);
            self.counting = Some(self.errors.begin(EVER, |errors| (errors.since_last(), errors.unheard())));
        }
        match self.counting.as_ref()?.wait(Duration::ZERO) {
            Outcome::NotYet => None,
            Outcome::Done((incidents, unheard)) => {
                (self.counting, self.unheard) = (None, unheard);
                (!incidents.is_empty()).then_some(BenchEvent::Noticed(incidents))
            }
            // Whoever counted is gone.
            Outcome::TooLate => {
                self.counting = None;
                None
            }
        }
    }
}

impl UnderWay {
    /// An order for which nobody has to be waited for.
    fn over(number: Number, next: Next) -> Self {
        Self { number, pending: Pending::over(), otherwise: next }
    }
}

/// How long everything together may take that is no interface of the kernel.
fn patience(rig: &Rig) -> Duration {
    let outlets = rig.settings.iter().filter_map(|setting| setting.outlet.as_ref());
    outlets.map(|outlet| Duration::from_millis(outlet.patience().millis())).sum()
}

fn hangs() -> Incident {
    Incident::new(IncidentKind::NotTaken, "what sets it does not answer")
}

impl Bench for ThisMachine {
    fn order(&mut self, number: Number, order: Order) {
        match order {
            Order::Apply(errand) => self.set(number, errand),
            Order::Prepare(errand) => self.write_down(number, &errand),
            Order::Confirm(_) | Order::ReadBack => self.read(number, None),
            Order::PutBack => self.put_back(number),
            Order::StartAnew => self.start_anew(number),
            Order::Run(order) => self.run(number, order),
            Order::Show { .. } => {
                let nothing = Next::Answer(Answer::Shown(Shown::default()));
                self.under_way.push(UnderWay::over(number, nothing));
            }
            Order::Break => self.break_off(),
        }
    }

    fn events(&mut self, at_most: Span) -> Vec<BenchEvent> {
        let until = Instant::now() + Duration::from_millis(at_most.millis());
        let mut events = Vec::new();
        loop {
            let left = until.saturating_duration_since(Instant::now());
            // A pass that runs is what is waited for.
            let is_passing = self.running.is_some();
            events.extend(self.carry_on(if is_passing { Duration::ZERO } else { left }));
            if events.is_empty() && (is_passing || self.under_way.is_empty()) {
                events.extend(self.let_pass(left));
            }
            if !events.is_empty() || left.is_zero() {
                break;
            }
        }
        events.extend(self.noticed());
        // What was read before a pass ended is none of the next one.
        if !events.iter().any(|event| matches!(event, BenchEvent::Answered { .. })) {
            let mut sensed = self.latest.sensed();
            sensed.silent.extend(self.unheard.clone());
            events.push(BenchEvent::Sensed(sensed));
        }
        events
    }

    fn now(&self) -> Moment {
        self.clock.now()
    }

    fn is_virtual(&self) -> bool {
        false
    }

    fn identity(&self) -> Boot {
        self.boot.clone()
    }

    fn remains(&self, last_heard_of: Moment) -> Remains {
        let since = UNIX_EPOCH + Duration::from_millis(u64::try_from(last_heard_of.millis()).unwrap_or(0));
        let has_bitten = self.watchdog.as_ref().map(|watchdog| watchdog.has_restarted(self.linux.root()));
        Remains { has_bitten, last_words: self.linux.last_words(since) }
    }

    fn late(&self) -> Span {
        self.passes.late()
    }

    fn guard(&mut self, is_on_trial: bool) {
        let Some(watchdog) = &mut self.watchdog else { return };
        if is_on_trial { watchdog.feed() } else { watchdog.disarm() }
    }
}

/// The mean clock that the cores of a pass measured, MHz; none before they did.
fn mean_clock(progress: &Progress) -> Option<f64> {
    let clocks: Vec<f64> = progress.cores.iter().filter_map(|core| core.clock).collect();
    (!clocks.is_empty()).then(|| clocks.iter().sum::<f64>() / clocks.len() as f64)
}
