//! The computer this runs on: settings and sensors are the kernel's, or a person changes them; loads are real.

use std::collections::{BTreeMap, BTreeSet};
use std::io;
use std::time::Duration;

use periculum_core::model::errand::Errand;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{PassOrder, Progress};
use periculum_core::model::rig::{Rig, Sensor};
use periculum_core::model::rung::{Change, InForce};

use crate::bench::{Apply, Guard, Identify, KeepTime, PassNews, ReadBack, RunPasses, Sense};
use crate::latest::Latest;
use crate::linux::{self, ADAPTER, Errors, Linux, Sampler, Setter, TRUE_CLOCK, Watchdog};
use crate::steady::SteadyClock;
use crate::worker::Worker;

/// How long a setting may take to be written, or read back, and counters to be read: together less than a program that is
/// told to end may take.
const SETTING: Duration = Duration::from_millis(1200);
const READING: Duration = Duration::from_millis(800);
const COUNTING: Duration = Duration::from_millis(200);

/// For how long other programs are watched.
const LOOKING: Duration = Duration::from_millis(250);

/// This machine, with passes run by whatever can run them.
pub struct ThisMachine<R> {
    linux: Linux,
    /// Which settings it changes by itself, in a thread of their own: one that hangs costs only its change.
    setter: Worker<Setter>,
    served: BTreeSet<String>,
    errors: Worker<Errors>,
    watchdog: Option<Watchdog>,
    latest: Latest,
    /// The sensors that tell the clock which the running load measures.
    true_clocks: Vec<String>,
    _sampler: Sampler,
    clock: SteadyClock,
    passes: R,
}

impl<R: RunPasses> ThisMachine<R> {
    /// This machine as the rig describes it, with a watchdog where one is to be armed, by this clock; `is_ours` tells whether a
    /// process is one of a pass that runs or has just ended.
    pub fn new(
        linux: Linux,
        setter: Setter,
        watchdog: Option<Watchdog>,
        rig: &Rig,
        passes: R,
        clock: SteadyClock,
        is_ours: fn(u32) -> bool,
    ) -> Self {
        let latest = Latest::default();
        let of_kernel = rig.sensors.iter().filter(|sensor| sensor.adapter == ADAPTER).cloned();
        let (clocks, sensors): (Vec<Sensor>, Vec<Sensor>) = of_kernel.partition(|sensor| sensor.source == TRUE_CLOCK);
        let sampler = Sampler::start(&linux, &sensors, &latest);
        let true_clocks = clocks.into_iter().map(|sensor| sensor.name).collect();
        let errors = Worker::on(Errors::of(linux.root(), is_ours));
        let named = rig.settings.iter().map(|setting| &setting.name).filter(|name| setter.serves(name));
        let (served, setter) = (named.cloned().collect(), Worker::on(setter));
        Self { linux, setter, served, errors, watchdog, latest, true_clocks, _sampler: sampler, clock, passes }
    }
}

impl<R> ThisMachine<R> {
    fn set(&self, change: &Change) -> Result<(), Incident> {
        let (wanted, setting) = (change.clone(), change.setting.clone());
        let hangs = || Incident::new(IncidentKind::NotTaken, "what sets it does not answer").at(setting);
        self.setter.ask(SETTING, move |setter| setter.apply(&wanted)).unwrap_or_else(|| Err(hangs()))
    }
}

impl<R> Apply for ThisMachine<R> {
    fn apply(&mut self, change: &Change) -> Result<(), Incident> {
        if self.served.contains(&change.setting) {
            return self.set(change);
        }
        let evidence = "no adapter of this rig can change it; it has to be changed by hand";
        Err(Incident::new(IncidentKind::NotTaken, evidence).at(change.setting.clone()))
    }

    fn prepare(&mut self, errand: &Errand) -> Result<(), Incident> {
        let served = errand.changes().iter().filter(|change| self.served.contains(&change.setting));
        let served: Vec<Change> = served.cloned().collect();
        let hangs = || Incident::new(IncidentKind::NotTaken, "what sets it does not answer");
        self.setter.ask(SETTING, move |setter| setter.write_down(&served)).unwrap_or_else(|| Err(hangs()))
    }

    fn put_back(&mut self) -> Vec<String> {
        let hangs = || vec!["what was changed could not be put back: a device does not answer".to_owned()];
        self.setter.ask(SETTING, Setter::put_back).unwrap_or_else(hangs)
    }
}

impl<R> ReadBack for ThisMachine<R> {
    /// What a person changed in firmware or with a tool can't be read back.
    fn read_back(&mut self) -> InForce {
        // What does not answer in time is not known.
        self.setter.ask(READING, |setter| setter.in_force()).unwrap_or_default()
    }
}

impl<R> Sense for ThisMachine<R> {
    fn sense(&mut self) -> BTreeMap<String, f64> {
        self.latest.fresh()
    }

    fn noticed(&mut self) -> Vec<Incident> {
        self.errors.ask(COUNTING, Errors::since_last).unwrap_or_default()
    }

    fn others(&mut self) -> Vec<(String, f64)> {
        self.linux.busy_programs(LOOKING)
    }
}

impl<R> Guard for ThisMachine<R> {
    fn guard(&mut self) {
        if let Some(watchdog) = &mut self.watchdog {
            watchdog.feed();
        }
    }

    fn stand_down(&mut self) {
        if let Some(watchdog) = &mut self.watchdog {
            watchdog.disarm();
        }
    }
}

impl<R: RunPasses> RunPasses for ThisMachine<R> {
    fn start(&mut self, order: &PassOrder) {
        self.passes.start(order);
    }

    fn stop(&mut self) {
        self.passes.stop();
    }

    fn late(&self) -> Span {
        self.passes.late()
    }

    fn wait(&mut self, at_most: Span) -> Vec<PassNews> {
        let news = self.passes.wait(at_most);
        for progress in news.iter().filter_map(|news| match news {
            PassNews::Progress(progress) => Some(progress),
            PassNews::Ended(_) => None,
        }) {
            if let Some(clock) = mean_clock(progress) {
                self.true_clocks.iter().for_each(|sensor| self.latest.put(sensor, clock));
            }
        }
        news
    }
}

impl<R> Identify for ThisMachine<R> {
    fn boot(&self) -> Option<String> {
        Some(self.linux.boot().id)
    }

    fn restart(&mut self) -> io::Result<()> {
        linux::restart(self.linux.root())
    }
}

impl<R> KeepTime for ThisMachine<R> {
    fn now(&self) -> Moment {
        self.clock.now()
    }

    fn is_virtual(&self) -> bool {
        false
    }
}

/// The mean clock that the cores of a pass measured, MHz; none before they did.
fn mean_clock(progress: &Progress) -> Option<f64> {
    let clocks: Vec<f64> = progress.cores.iter().filter_map(|core| core.clock).collect();
    (!clocks.is_empty()).then(|| clocks.iter().sum::<f64>() / clocks.len() as f64)
}
