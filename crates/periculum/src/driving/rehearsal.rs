//! A rig that is written by hand, for tests of what is shown: what goes wrong in which trial is a list, and scores and sensors are
//! plain rules. It has no chance and no physics, so that a better simulation changes no picture.

use std::collections::BTreeMap;
use std::sync::Arc;

use periculum_core::model::ending::Boot;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{CoreProgress, PassOrder, PassReport, Progress, Score};
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::InForce;
use periculum_rigs::bench::{Answer, Bench, BenchEvent, Number, Order, ReadBack, Sensed, Shown};

/// What goes wrong: in which trial and pass, after how many milliseconds, on which core, and what is found.
pub(crate) type Script = &'static [(u32, usize, u64, IncidentKind, &'static str, &'static str)];

const CORES: usize = 8;

/// A rig that does what its script says.
pub(crate) struct Rehearsal {
    rig: Arc<Rig>,
    script: Script,
    in_force: InForce,
    now: Moment,
    warmth: f64,
    /// How often it was asked: what never moves counts as stuck.
    asked: u32,
    waiting: Vec<(Number, Order)>,
    pass: Option<(Number, PassOrder, Span)>,
}

impl Rehearsal {
    /// The rig at stock, at this moment.
    pub(crate) fn of(rig: &Arc<Rig>, now: Moment, script: Script) -> Self {
        let in_force = rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
        Self { rig: Arc::clone(rig), script, in_force, now, warmth: 8.0, asked: 0, waiting: Vec::new(), pass: None }
    }

    fn value(&self, setting: &str) -> f64 {
        self.in_force.get(setting).and_then(|value| f64::try_from(*value).ok()).unwrap_or(1.0)
    }

    /// Power of a core that works, relative to stock.
    fn power(&self) -> f64 {
        self.value("core_clock") / 4200.0 * (self.value("core_voltage") / 1.25).powi(2)
    }

    /// What a load makes of the clock, in its unit; memory gives no more from some clock on.
    fn score(&self, order: &PassOrder) -> Score {
        let clock = self.value("core_clock") / 4200.0;
        let (rate, unit) = match order.pass.load.as_str() {
            "dense" => (458.0 * clock, "GFLOP/s"),
            "transform" => (138.0 * clock, "GFLOP/s"),
            "render" => (11.1 * clock, "Mray/s"),
            "bandwidth-copy" => (40.6 * clock.min(1.075), "GB/s"),
            _ => (6.4 * clock, "GB/s"),
        };
        // Three levels in turn are a noise that is known.
        Score::of(rate * (1.0 + 0.002 * (f64::from(order.nth % 3) - 1.0)), unit)
    }

    fn reading(&self, source: &str) -> Option<f64> {
        let busy = self.pass.is_some();
        let wobble = f64::from(self.asked % 5) - 2.0;
        let die = 21.0 + self.warmth + 0.1 * wobble;
        Some(match source {
            "room" => 21.0,
            "hottest-core" => die,
            "cooler" => 21.0 + 0.6 * self.warmth,
            "die-voltage" => self.value("core_voltage") - if busy { 0.036 } else { 0.004 },
            "power" => {
                if busy {
                    118.0 * self.power() + 0.4 * wobble
                } else {
                    22.0
                }
            }
            "reached-clock" => self.value("core_clock"),
            "usage" => {
                if busy {
                    100.0
                } else {
                    0.0
                }
            }
            _ => die - source.strip_prefix("core-")?.parse::<f64>().ok()?,
        })
    }

    fn sensed(&self) -> Sensed {
        let read = |(name, source): (&String, &String)| Some((name.clone(), self.reading(source)?));
        let sensors = self.rig.sensors.iter().map(|sensor| (&sensor.name, &sensor.source));
        Sensed { readings: sensors.filter_map(read).collect(), silent: BTreeMap::new() }
    }

    fn read_back(&self) -> ReadBack {
        self.in_force.clone().into()
    }

    fn carry_out(&mut self, number: Number, order: Order) -> Option<Answer> {
        match order {
            Order::Apply(errand) => {
                self.in_force.extend(errand.made());
                self.now = self.now + Span::from_millis(1500);
                Some(Answer::InForce(self.read_back()))
            }
            Order::Run(order) => {
                self.pass = Some((number, order, Span::ZERO));
                None
            }
            Order::Prepare(_) => Some(Answer::Prepared),
            Order::Confirm(_) | Order::ReadBack => Some(Answer::InForce(self.read_back())),
            Order::PutBack => Some(Answer::PutBack(Vec::new())),
            Order::Break => {
                let (_, _, ran) = self.pass.take()?;
                let report = PassReport { ran, stopped: true, ..PassReport::default() };
                Some(Answer::Ended(Box::new(report), self.read_back()))
            }
            Order::Show { .. } => Some(Answer::Shown(Shown::default())),
            Order::StartAnew => None,
        }
    }

    /// What of the script ends this pass, and when.
    fn scripted(&self, order: &PassOrder) -> Option<(Span, Incident)> {
        let is_now = |(trial, pass, ..): &&(u32, usize, u64, IncidentKind, &str, &str)| {
            (*trial, *pass) == (order.trial, order.index)
        };
        let (_, _, after, kind, place, found) = self.script.iter().find(is_now)?;
        let after = Span::from_millis(*after);
        Some((after, Incident::new(*kind, *found).at(*place).into_pass(after)))
    }

    fn progress(&self, order: &PassOrder, ran: Span) -> Progress {
        let score = self.score(order);
        let rate = score.value / CORES as f64;
        let core = |core| CoreProgress {
            core,
            rounds: ran.millis() / 1000,
            rate,
            clock: Some(self.value("core_clock")),
            checked: Some(ran),
            ..CoreProgress::default()
        };
        let cores = (0..CORES).map(core).collect();
        Progress { done: ran, rounds: ran.millis() / 125, rate: Some(score), cores, ..Progress::default() }
    }

    fn let_pass(&mut self, at_most: Span) -> Option<BenchEvent> {
        let (number, order, ran) = self.pass.take()?;
        let scripted = self.scripted(&order);
        let end = scripted.as_ref().map_or(order.pass.length, |(after, _)| *after);
        let ran = (ran + at_most).min(end);
        if ran < end {
            let progress = self.progress(&order, ran);
            self.pass = Some((number, order, ran));
            return Some(BenchEvent::Progress(progress));
        }
        let mut report = PassReport { ran, rounds: ran.millis() / 125, ..PassReport::default() };
        match scripted {
            Some((_, incident)) => report.incidents.push(incident),
            None => report.score = Some(self.score(&order)),
        }
        Some(BenchEvent::Answered { to: number, answer: Answer::Ended(Box::new(report), self.read_back()) })
    }
}

impl Bench for Rehearsal {
    fn order(&mut self, number: Number, order: Order) {
        self.waiting.push((number, order));
    }

    fn events(&mut self, at_most: Span) -> Vec<BenchEvent> {
        for (number, order) in std::mem::take(&mut self.waiting) {
            // The end of a pass answers the order that began it.
            let to = self.pass.as_ref().map_or(number, |(running, ..)| *running);
            if let Some(answer) = self.carry_out(number, order) {
                return vec![BenchEvent::Answered { to, answer }];
            }
        }
        self.now = self.now + at_most;
        self.asked += 1;
        let wanted = if self.pass.is_some() { 38.0 * self.power() } else { 8.0 };
        self.warmth += (wanted - self.warmth) * 0.05;
        match self.let_pass(at_most) {
            Some(ended @ BenchEvent::Answered { .. }) => vec![ended],
            news => news.into_iter().chain([BenchEvent::Sensed(self.sensed())]).collect(),
        }
    }

    fn now(&self) -> Moment {
        self.now
    }

    fn is_virtual(&self) -> bool {
        true
    }

    fn identity(&self) -> Boot {
        Boot { id: "rehearsed".into(), since: None }
    }
}
