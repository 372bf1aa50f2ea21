//! The simulated rig itself: devices on a virtual clock, which are set, loaded and sensed like real ones, and fail like them.

use std::collections::{BTreeMap, BTreeSet, VecDeque};

use periculum_core::model::ending::Boot;
use periculum_core::model::errand::Errand;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{CoreProgress, Pass, PassOrder, PassReport, Progress, Score};
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::{InForce, Rung};
use periculum_core::model::setting::{Setting, TakesEffect};

use super::device::{Device, Strained, Work};
use super::hazard::{End, Running, SETTLED, TICK};
use super::random::{Purpose, Stream};
use super::spec::Spec;
use crate::bench::{Answer, Bench, BenchEvent, Number, Order, ReadBack, Sensed, Shown};
use crate::sampling::SAMPLING;

/// How long a change takes to settle.
const SETTLING: Span = Span::from_millis(1500);

/// How long the rig takes to start anew.
const RESTARTING: Span = Span::from_seconds(75);

/// A hazard that changes by a smaller share than this from one settled time to the next is steady, to whoever sums it up.
const STEADY: f64 = 1e-5;

/// In a wait longer than this, a pass whose hazard no longer changes goes on in one stride.
const LONG: Span = Span::from_seconds(120);

/// How often its instruments read, and how often once a pass has run so long that nothing changes any more.
const SENSING: Span = Span::from_seconds(1);
const SENSING_LATER: Span = Span::from_seconds(5);
const LATER: Span = Span::from_seconds(600);

/// Gigaflops, gigabytes or megarays of one round.
const ROUND: f64 = 0.75;

/// Standard deviation of a score, relative.
const SCORE_NOISE: f64 = 0.003;

/// Share of the passes in which something else takes a few percent of the processor.
const DISTURBED: f64 = 0.02;

/// A simulated rig.
#[derive(Clone, Debug)]
pub struct Simulator {
    seed: u64,
    /// Each with what its sources begin with.
    devices: Vec<(String, Box<dyn Device>)>,
    settings: Vec<Setting>,
    /// The settings that it can read back: nobody but their operator knows what is changed by hand.
    readable: BTreeSet<String>,
    /// The settings that need a start.
    at_next_start: BTreeSet<String>,
    set: Rung,
    sensors: Vec<(String, String)>,
    boot: Boot,
    made: Moment,
    now: Moment,
    sensed_at: Option<Moment>,
    noise: Stream,
    orders: VecDeque<(Number, Order)>,
    pass: Option<(Number, Running)>,
    /// The load of the running pass, where somebody makes it and watches the screen.
    watched: Option<String>,
    /// What each part of the devices did in the last tick.
    parts: Vec<Strained>,
}

impl Simulator {
    /// A rig at rest at this moment, with everything at stock; the seed chooses the specimen.
    pub fn new(spec: &Spec, rig: &Rig, seed: u64, now: Moment) -> Self {
        Self::at(spec, rig, seed, &rig.stock(), now)
    }

    /// The same that has been at this rung for long, whichever way led there.
    pub(super) fn at(spec: &Spec, rig: &Rig, seed: u64, rung: &Rung, now: Moment) -> Self {
        let named = |is: fn(TakesEffect) -> bool| {
            let settings = rig.settings.iter().filter(|setting| is(setting.takes_effect));
            settings.map(|setting| setting.name.clone()).collect()
        };
        Self {
            devices: spec.devices(seed, rung),
            settings: rig.settings.clone(),
            readable: named(|effect| effect != TakesEffect::ByHand),
            at_next_start: named(|effect| effect == TakesEffect::AtNextStart),
            set: rung.clone(),
            sensors: rig.sensors.iter().map(|sensor| (sensor.name.clone(), sensor.source.clone())).collect(),
            boot: Boot { id: "simulated".to_owned(), since: None },
            made: now,
            now,
            sensed_at: None,
            noise: Stream::new(seed, Purpose::Sensors),
            orders: VecDeque::new(),
            pass: None,
            watched: None,
            parts: Vec::new(),
            seed,
        }
    }

    /// The same, driven in this boot of the machine that simulates it: what dies with that is the simulation.
    #[must_use]
    pub fn in_boot(self, boot: Boot) -> Self {
        Self { boot, ..self }
    }

    /// The probability that a pass at what is set holds, from how the rig is now, which the pass changes as ever.
    ///
    /// Nothing is left to chance: the hazard is summed up, by the tick until it no longer changes and at once from
    /// there on.
    pub(super) fn survival(&mut self, order: &PassOrder) -> f64 {
        let Some(pass) = self.begin(order) else { return 0.0 };
        let mut pass = pass.endless();
        let mut before = f64::INFINITY;
        while pass.end.is_none() {
            let dose = pass.dose;
            for _ in 0..SETTLED.millis() / TICK.millis() {
                self.tick(&mut pass);
                if pass.end.is_some() {
                    break;
                }
            }
            let rate = pass.dose - dose;
            if pass.end.is_none() && self.is_steady() && (rate - before).abs() <= rate * STEADY {
                let left = pass.length.seconds() - pass.ran.seconds();
                pass.dose += rate * left / SETTLED.seconds();
                pass.end = Some(End::Finished);
            }
            before = rate;
        }
        self.rest_devices();
        // A pass that is throttled does not hold.
        if matches!(pass.end, Some(End::Finished)) { (-pass.dose).exp() } else { 0.0 }
    }

    /// The voltage at the first device that has one, without any meter's noise, V; 0 where none has.
    pub(super) fn voltage(&self) -> f64 {
        self.devices.iter().find_map(|(_, device)| device.voltage()).unwrap_or(0.0)
    }

    /// Whether no device holds back.
    fn is_steady(&self) -> bool {
        self.devices.iter().all(|(_, device)| device.reached() == 1.0)
    }

    fn put_in_force(&mut self, rung: Rung) {
        self.devices.iter_mut().for_each(|(_, device)| device.set(&rung));
        self.set = rung;
    }

    /// Puts the settings back to stock that these say of.
    fn lose(&mut self, is_lost: impl Fn(&Setting) -> bool) {
        let lost = self.settings.iter().filter(|setting| is_lost(setting));
        let rung = lost.fold(self.set.clone(), |rung, setting| rung.with(&setting.name, setting.stock));
        self.put_in_force(rung);
    }

    /// Starts anew after this; tells what went wrong with that.
    fn restart(&mut self, kind: IncidentKind) -> Option<Incident> {
        self.lose(|setting| setting.is_lost_by(kind));
        let mut random = Stream::new(self.seed, Purpose::Start { at: self.now.since(self.made).millis() });
        let mut wrong = None;
        for (_, device) in &mut self.devices {
            wrong = wrong.or(device.starts_anew(&mut random));
        }
        self.rest(RESTARTING);
        wrong
    }

    /// Starts anew after something took it down; tells what that was in the end, since what does not come back by that has to be
    /// without power for a while, and at last goes back to its defaults.
    fn go_down(&mut self, kind: IncidentKind) -> IncidentKind {
        for kind in [kind, IncidentKind::NoStart, IncidentKind::SafeDefaults] {
            if self.restart(kind).is_none() && self.is_alive() {
                return kind;
            }
        }
        IncidentKind::SafeDefaults
    }

    fn rest_devices(&mut self) {
        for (_, device) in &mut self.devices {
            device.work(None);
        }
    }

    fn rest(&mut self, span: Span) {
        self.rest_devices();
        for _ in 0..span.millis() / TICK.millis() {
            self.now = self.now + TICK;
            self.tick_devices();
        }
    }

    /// Lets a tick go by for every device; tells why one of them has held back for too long.
    fn tick_devices(&mut self) -> Option<String> {
        self.parts.clear();
        let mut throttled = None;
        for (_, device) in &mut self.devices {
            let held_back = device.tick(TICK.seconds(), &mut self.parts);
            throttled = throttled.or(held_back);
        }
        throttled
    }

    pub(super) fn is_alive(&self) -> bool {
        self.devices.iter().all(|(_, device)| device.is_alive())
    }

    /// The same with what was in force before of the settings that outlive a start of their own: what somebody made, or wrote
    /// down, stays as it is while nobody simulates it.
    #[must_use]
    pub fn with_lasting(mut self, in_force: &InForce) -> Self {
        let outlives = |name: &String| {
            let setting = self.settings.iter().find(|setting| setting.name == *name);
            setting.is_some_and(|setting| !setting.is_lost_by(IncidentKind::Restart))
        };
        let lasting = in_force.iter().filter(|(name, _)| outlives(name));
        let rung = lasting.fold(self.set.clone(), |rung, (name, value)| rung.with(name, *value));
        self.put_in_force(rung);
        self
    }

    fn make(&mut self, errand: &Errand) {
        self.put_in_force(errand.made().fold(self.set.clone(), |rung, (name, to)| rung.with(&name, to)));
    }

    /// Makes changes, which the rig may not survive.
    pub(super) fn apply(&mut self, errand: &Errand) -> Result<(), Incident> {
        self.make(errand);
        self.rest(SETTLING);
        if self.is_alive() {
            return Ok(());
        }
        let kind = self.go_down(IncidentKind::Freeze);
        let incident = Incident::new(kind, "the machine stopped answering when it was set");
        Err(incident.at(errand.settings().replace('_', " ")))
    }

    /// Somebody has done what they were asked to, and started the machine where that was a part of it.
    fn confirm(&mut self, errand: &Errand) -> Answer {
        self.make(errand);
        let is_changed = |name: &str| errand.change_of(name).is_some();
        let off = self.devices.iter().filter(|(_, device)| device.is_off_while_changed());
        let was_off = off.flat_map(|(_, device)| device.settings()).any(is_changed);
        let started_anew = was_off || errand.changes().iter().any(|it| self.at_next_start.contains(&it.setting));
        let wrong = if started_anew {
            self.restart(if was_off { IncidentKind::NoStart } else { IncidentKind::Restart })
        } else {
            self.rest(SETTLING);
            None
        };
        if let Some(incident) = wrong {
            let kind = self.go_down(incident.kind);
            return Answer::Failed(Incident { kind, ..incident });
        }
        if self.is_alive() {
            return Answer::InForce(ReadBack { started_anew, ..self.read_back() });
        }
        self.lose(|setting| setting.is_lost_by(IncidentKind::NoStart));
        Answer::Failed(Incident::new(IncidentKind::NoStart, "the machine does not start with it"))
    }

    fn read_back(&self) -> ReadBack {
        let readable = self.set.iter().filter(|(name, _)| self.readable.contains(*name));
        let mut in_force: InForce = readable.map(|(name, value)| (name.to_owned(), value)).collect();
        let rounded = self.devices.iter().flat_map(|(_, device)| device.rounds_to());
        in_force.extend(rounded.filter(|(name, _)| self.readable.contains(name)));
        ReadBack::from(in_force)
    }

    /// Begins a pass on every device that knows its load; none where none does.
    fn begin(&mut self, order: &PassOrder) -> Option<Running> {
        let work = || Work { load: &order.pass.load, threads: order.pass.threads };
        let units: Vec<&str> = self.devices.iter_mut().filter_map(|(_, device)| device.work(Some(work()))).collect();
        let random = Stream::new(self.seed, Purpose::Pass { trial: order.nth, index: order.index });
        Some(Running::new(order.pass.length, self.clocks().len(), units.first()?, random))
    }

    /// The clocks in MHz of all parts that work.
    fn clocks(&self) -> Vec<f64> {
        self.devices.iter().flat_map(|(_, device)| device.clocks()).collect()
    }

    fn tick(&mut self, pass: &mut Running) {
        self.now = self.now + TICK;
        pass.ran += TICK;
        if let Some(evidence) = self.tick_devices() {
            pass.end = Some(End::Failed(Incident::new(IncidentKind::Throttled, evidence).into_pass(pass.ran)));
        }
        if let Some(part) = pass.take(&self.parts) {
            pass.end = Some(End::Failed(self.failure(part, pass).into_pass(pass.ran)));
        } else if pass.end.is_none() && pass.ran >= pass.length {
            pass.end = Some(End::Finished);
        }
    }

    /// What goes wrong with a part of a device.
    fn failure(&self, mut part: usize, pass: &mut Running) -> Incident {
        for (_, device) in &self.devices {
            let parts = device.clocks().len();
            if part < parts {
                return device.failure(part, &mut pass.random);
            }
            part -= parts;
        }
        Incident::new(IncidentKind::LoadDied, "the load died")
    }

    fn report(&mut self, mut pass: Running, end: End) -> PassReport {
        let mut report = PassReport { ran: pass.ran, rounds: rounds(&pass), ..PassReport::default() };
        match end {
            End::Finished => {
                let noise = SCORE_NOISE * pass.random.normal();
                let is_disturbed = pass.random.unit() < DISTURBED;
                let taken = if is_disturbed { 0.03 + 0.07 * pass.random.unit() } else { 0.0 };
                let rate = pass.work / pass.ran.seconds() * (1.0 + noise - taken);
                report.score = Some(scored(rate, pass.unit));
            }
            End::Stopped => report.stopped = true,
            End::Failed(incident) => {
                let kind = self.suffer(incident.kind);
                report.incidents.push(Incident { kind, ..incident });
            }
        }
        self.rest_devices();
        report
    }

    /// What the rig loses by a failure: all of it by that of the machine, a device's own settings by its reset.
    fn suffer(&mut self, kind: IncidentKind) -> IncidentKind {
        if kind.takes_machine_down() {
            return self.go_down(kind);
        }
        let struck = self.devices.iter().filter(|(_, device)| device.loses_on(kind));
        let lost: BTreeSet<String> = struck.flat_map(|(_, device)| device.settings()).map(str::to_owned).collect();
        self.lose(|setting| lost.contains(&setting.name) && setting.is_lost_by(kind));
        kind
    }

    /// How far a pass is.
    fn progress(&self, pass: &Running) -> Progress {
        let rate = pass.work / pass.ran.seconds();
        if pass.work <= 0.0 {
            return Progress { done: pass.ran, ..Progress::default() };
        }
        let reached = self.devices.iter().flat_map(|(_, device)| vec![device.reached(); device.clocks().len()]);
        let clocks = self.clocks();
        let sum: f64 = clocks.iter().sum();
        let of_core = |(core, (clock, reached)): (usize, (&f64, f64))| CoreProgress {
            core,
            rounds: rounds(pass) / clocks.len() as u64,
            rate: rate * clock / sum,
            clock: Some(clock * reached),
            checked: Some(pass.ran),
            ..CoreProgress::default()
        };
        let cores = clocks.iter().zip(reached).enumerate().map(of_core).collect();
        let rate = Some(scored(rate, pass.unit));
        Progress { done: pass.ran, rounds: rounds(pass), rate, cores, ..Progress::default() }
    }

    fn sense(&mut self) -> BTreeMap<String, f64> {
        let Self { devices, sensors, noise, .. } = self;
        let read = |(name, source): &(String, String)| {
            let noise = noise.normal();
            let of = |(prefix, device): &(String, Box<dyn Device>)| {
                device.reading(source.strip_prefix(prefix.as_str())?, noise)
            };
            Some((name.clone(), devices.iter().find_map(of)?))
        };
        sensors.iter().filter_map(read).collect()
    }

    /// Carries out an order; what comes of a pass comes later.
    fn carry_out(&mut self, number: Number, order: Order) -> Option<Answer> {
        // Whoever makes a pass may have said what came of it before its end.
        if self.watched.take().is_some() {
            self.pass = None;
            self.rest_devices();
        }
        match order {
            Order::Show { load, length } => self.show(number, load, length),
            Order::Apply(errand) => Some(match self.apply(&errand) {
                Ok(()) => Answer::InForce(self.read_back()),
                Err(incident) => Answer::Failed(incident),
            }),
            Order::Prepare(_) => Some(Answer::Prepared),
            Order::Confirm(errand) => Some(self.confirm(&errand)),
            Order::ReadBack => Some(Answer::InForce(self.read_back())),
            Order::PutBack => Some(Answer::PutBack(Vec::new())),
            Order::StartAnew => {
                Some(Answer::NotStartedAnew("a simulated rig is started by whoever confirms it".to_owned()))
            }
            Order::Run(order) => match self.begin(&order) {
                Some(pass) => {
                    self.pass = Some((number, pass));
                    None
                }
                None => {
                    let why = format!("a simulated rig has no load called `{}`", order.pass.load);
                    let report = PassReport { refused: Some(why), ..PassReport::default() };
                    Some(Answer::Ended(Box::new(report), self.read_back()))
                }
            },
            Order::Break => {
                if let Some((_, pass)) = &mut self.pass {
                    pass.end = Some(End::Stopped);
                }
                None
            }
        }
    }

    /// Begins a pass that somebody makes and watches; what they see comes later.
    fn show(&mut self, number: Number, load: String, length: Span) -> Option<Answer> {
        // Nobody counts what somebody makes: when it was begun tells one from another.
        let nth = (self.now.since(self.made).millis() / SAMPLING.millis()) as u32;
        let pass = Pass::usual(&load, length);
        let Some(pass) = self.begin(&PassOrder { trial: nth, index: 0, pass, nth, cores: Vec::new() }) else {
            return Some(Answer::Shown(Shown::default()));
        };
        (self.pass, self.watched) = (Some((number, pass)), Some(load));
        None
    }

    /// What somebody has seen of a pass that ended so.
    fn shown(&mut self, load: &str, pass: Running, end: End) -> Shown {
        let rate_so_far = pass.work / pass.ran.seconds();
        let report = self.report(pass, end);
        let wrong = report.incidents.into_iter().next();
        let is_garbled = wrong.as_ref().is_some_and(|incident| incident.kind == IncidentKind::Artefact);
        let rate = report.score.map_or(rate_so_far, |score| score.value);
        let can_be_read = wrong.is_none() || is_garbled;
        let screens = self.devices.iter().filter(|_| can_be_read);
        let says = screens.flat_map(|(_, device)| device.screen(load, rate, is_garbled)).collect();
        Shown { says, wrong }
    }

    /// Lets the running pass run on, or the rig rest.
    fn let_time_pass(&mut self, at_most: Span) -> Option<BenchEvent> {
        let Some((number, mut pass)) = self.pass.take() else {
            self.rest(at_most);
            return None;
        };
        let until = self.now + at_most;
        while pass.end.is_none() && self.now < until {
            let left = until.since(self.now);
            if left >= LONG && pass.has_settled(self.is_steady()) {
                self.now = self.now + pass.stride(left);
            }
            self.tick(&mut pass);
        }
        let Some(end) = pass.end.take() else {
            self.pass = Some((number, pass));
            return None;
        };
        let answer = match self.watched.take() {
            Some(load) => Answer::Shown(self.shown(&load, pass, end)),
            None => Answer::Ended(Box::new(self.report(pass, end)), self.read_back()),
        };
        Some(BenchEvent::Answered { to: number, answer })
    }

    /// How far the running pass is, where one runs; whoever watches one sees only that it goes on.
    fn goes_on(&self) -> Option<BenchEvent> {
        let (_, pass) = self.pass.as_ref()?;
        Some(BenchEvent::Progress(match &self.watched {
            Some(_) => Progress { done: pass.ran, ..Progress::default() },
            None => self.progress(pass),
        }))
    }
}

/// A score; of times less is better.
fn scored(rate: f64, unit: &str) -> Score {
    Score { less_is_better: unit == "ns", ..Score::of(rate, unit) }
}

fn rounds(pass: &Running) -> u64 {
    (pass.work / ROUND) as u64
}

impl Bench for Simulator {
    fn order(&mut self, number: Number, order: Order) {
        self.orders.push_back((number, order));
    }

    fn events(&mut self, at_most: Span) -> Vec<BenchEvent> {
        while let Some((number, order)) = self.orders.pop_front() {
            if let Some(answer) = self.carry_out(number, order) {
                return vec![BenchEvent::Answered { to: number, answer }];
            }
        }
        let ended = self.let_time_pass(at_most);
        let is_late = self.pass.as_ref().is_some_and(|(_, pass)| pass.ran >= LATER);
        let sensing = if is_late { SENSING_LATER } else { SENSING };
        let is_due = self.sensed_at.is_none_or(|last| self.now.since(last) >= sensing);
        if ended.is_some() || !is_due {
            return ended.into_iter().collect();
        }
        self.sensed_at = Some(self.now);
        let sensed = BenchEvent::Sensed(Sensed { readings: self.sense(), ..Sensed::default() });
        self.goes_on().into_iter().chain([sensed]).collect()
    }

    fn now(&self) -> Moment {
        self.now
    }

    fn is_virtual(&self) -> bool {
        true
    }

    fn identity(&self) -> Boot {
        self.boot.clone()
    }
}

#[cfg(test)]
pub(super) mod tests {
    use super::super::devices::processor;
    use super::*;
    use periculum_core::Decimal;
    use periculum_core::model::ladder::{Direction, Ladder};
    use periculum_core::model::pass::{Pass, Threads};
    use periculum_core::model::rig::Sensor;
    use periculum_core::model::rung::Change;
    use periculum_core::model::setting::LostOn;

    fn setting(name: &str, ladder: (i64, i64, i64, u32), stock: (i64, u32), harder: Direction) -> Setting {
        let [from, step, to] = [ladder.0, ladder.1, ladder.2].map(|value| Decimal::new(value, ladder.3));
        Setting {
            outlet: None,
            name: name.into(),
            label: name.into(),
            unit: String::new(),
            ladder: Ladder::steps(from, step, to).expect("a ladder"),
            stock: Decimal::new(stock.0, stock.1),
            floor: from,
            floor_by: None,
            ceilings: BTreeMap::new(),
            largest_jump: None,
            tolerance: Decimal::ZERO,
            harder,
            takes_effect: TakesEffect::AtOnce,
            lost_on: None,
            confirm: None,
            confirmed_by: None,
            adapter: "simulated".into(),
            target: String::new(),
            boot_line: None,
            words: Vec::new(),
            paid: Vec::new(),
            drives: Vec::new(),
        }
    }

    pub(in super::super) fn rig() -> Rig {
        Rig {
            place: periculum_core::model::rig::Place::Unsaid,
            name: "bench".into(),
            summary: String::new(),
            cooling: String::new(),
            watchdog: String::new(),
            history: Vec::new(),
            parts: vec![],
            settings: vec![
                setting("core_clock", (3800, 25, 5600, 0), (4200, 0), Direction::Up),
                setting("core_voltage", (950, 5, 1450, 3), (125, 2), Direction::Down),
            ],
            curves: Vec::new(),
            derived: vec![],
            sensors: vec![],
        }
    }

    fn simulator(seed: u64) -> Simulator {
        let rig = rig();
        Simulator::new(&Spec::of_processor(7, processor::Spec::desktop()), &rig, seed, Moment::from_millis(0))
    }

    /// Whether a trial of a rung holds from a rig at rest.
    pub(in super::super) fn run_trial(seed: u64, trial: u32, rung: &Rung, length: u64) -> bool {
        let mut simulator = simulator(seed);
        rung.iter().all(|(setting, to)| simulator.apply(&change(setting, to)).is_ok())
            && run(&mut simulator, trial, length).incidents.is_empty()
    }

    fn change(setting: &str, to: Decimal) -> Errand {
        Errand::of(Change { setting: setting.into(), from: None, to })
    }

    fn run(simulator: &mut Simulator, trial: u32, length: u64) -> PassReport {
        let pass = Pass::usual("dense", Span::from_seconds(length));
        run_pass(simulator, trial, pass, Span::from_seconds(10))
    }

    /// The report of a pass, looked at each so often.
    fn run_pass(simulator: &mut Simulator, trial: u32, pass: Pass, each: Span) -> PassReport {
        start(simulator, trial, pass);
        loop {
            if let Some(report) = ended(&simulator.events(each)) {
                return report;
            }
        }
    }

    fn start(simulator: &mut Simulator, trial: u32, pass: Pass) {
        simulator.order(1, Order::Run(PassOrder { trial, index: 0, pass, nth: trial, cores: vec![] }));
    }

    fn ended(events: &[BenchEvent]) -> Option<PassReport> {
        events.iter().find_map(|event| match event {
            BenchEvent::Answered { to: 1, answer: Answer::Ended(report, _) } => Some((**report).clone()),
            _ => None,
        })
    }

    #[test]
    fn stock_holds_for_every_specimen_and_scores() {
        for seed in 0..40 {
            let report = run(&mut simulator(seed), 1, 600);
            assert!(report.incidents.is_empty(), "specimen {seed}: {report:?}");
            assert!(report.score.expect("a score").value > 100.0);
            assert_eq!(report.ran, Span::from_seconds(600));
        }
    }

    #[test]
    fn far_too_high_a_clock_never_holds() {
        for seed in 0..40 {
            let mut simulator = simulator(seed);
            let fell = simulator.apply(&change("core_clock", 5400.into())).is_err()
                || !run(&mut simulator, 1, 60).incidents.is_empty();
            assert!(fell, "specimen {seed}");
        }
    }

    #[test]
    fn near_the_border_long_passes_fall_more_often_than_short_ones() {
        let falls = |length| {
            let fell = |trial| {
                let mut simulator = simulator(11);
                simulator.apply(&change("core_clock", 4700.into())).expect("applied");
                !run(&mut simulator, trial, length).incidents.is_empty()
            };
            (1..60).filter(|trial| fell(*trial)).count()
        };
        let (short, long) = (falls(10), falls(900));
        assert!(short < long, "{short} of 10 s, {long} of 900 s");
    }

    #[test]
    fn a_trial_draws_the_same_luck_whatever_happened_before() {
        let mut fresh = simulator(5);
        let mut worn = simulator(5);
        for bench in [&mut fresh, &mut worn] {
            bench.apply(&change("core_clock", 4900.into())).expect("applied");
        }
        worn.rest(Span::from_seconds(600));
        let kinds = |bench| run(bench, 9, 120).incidents.into_iter().map(|incident| incident.kind).collect::<Vec<_>>();
        assert_eq!(kinds(&mut fresh), kinds(&mut worn));
    }

    /// A rig whose cores are in two groups, and whose power limit is a setting.
    fn grouped() -> (Simulator, Rig) {
        let mut rig = rig();
        rig.settings.push(setting("lean_clock", (3800, 25, 5600, 0), (4200, 0), Direction::Up));
        rig.settings.push(setting("power_limit", (50, 5, 250, 0), (220, 0), Direction::Up));
        let clocks = vec!["core_clock".into(), "lean_clock".into()];
        let spec = processor::Spec { clocks, power_limit: Some("power_limit".into()), ..processor::Spec::desktop() };
        (Simulator::new(&Spec::of_processor(7, spec), &rig, 3, Moment::from_millis(0)), rig)
    }

    #[test]
    fn a_group_of_cores_fails_by_its_own_clock() {
        for (clock, cores) in [("core_clock", 0..4), ("lean_clock", 4..8)] {
            let (mut simulator, _) = grouped();
            simulator.apply(&change(clock, 4850.into())).expect("applied");
            let report = run(&mut simulator, 1, 3600);
            let place = report.incidents[0].place.clone().expect("a core");
            let core: i32 = place.strip_prefix("core ").expect("a core").parse().expect("a number");
            assert!(cores.contains(&core), "{clock}: {place}");
        }
    }

    #[test]
    fn a_power_limit_takes_the_clock_back_and_says_so() {
        let (mut simulator, _) = grouped();
        simulator.apply(&change("power_limit", 80.into())).expect("applied");
        let report = run(&mut simulator, 1, 60);
        assert_eq!(report.incidents[0].kind, IncidentKind::Throttled);
        assert!(report.incidents[0].evidence.says("power limit"), "{:?}", report.incidents);
    }

    /// So many of so many nights are survived, and as long is lived otherwise, whether gone through in ticks or strides.
    #[test]
    fn strides_lead_where_ticks_do() {
        let night = |trial, stride: u64| {
            let mut simulator = simulator(11);
            simulator.apply(&change("core_clock", 4675.into())).expect("applied");
            let pass = Pass::usual("dense", Span::from_seconds(8 * 3600));
            let report = run_pass(&mut simulator, trial, pass, Span::from_seconds(stride));
            (report.ran.seconds(), report.score.map_or(0.0, |score| score.value))
        };
        for trial in 0..24 {
            let ((ticks, worked), (strides, strode)) = (night(trial, 1), night(trial, 7200));
            assert!((ticks - strides).abs() <= 0.002 * ticks + 0.5, "trial {trial}: {ticks} s and {strides} s");
            assert!((worked - strode).abs() <= 0.0001 * worked + 0.1, "trial {trial}: {worked} and {strode}");
        }
    }

    #[test]
    fn a_machine_that_went_down_is_back_at_stock() {
        let mut simulator = simulator(5);
        simulator.apply(&change("core_voltage", Decimal::new(950, 3))).expect_err("dead at once");
        assert_eq!(simulator.read_back().in_force["core_voltage"], Decimal::new(125, 2));
    }

    /// A board that works while its setting is below 5 and answers below 9; it loses what was set when it fails.
    #[derive(Clone, Debug, Default)]
    struct Board {
        value: f64,
        works: bool,
    }

    impl Device for Board {
        fn settings(&self) -> Vec<&str> {
            vec!["board"]
        }

        fn loads(&self) -> Vec<&'static str> {
            vec!["dense"]
        }

        fn sources(&self) -> Vec<String> {
            vec!["value".into()]
        }

        fn set(&mut self, rung: &Rung) {
            self.value = rung.get("board").map_or(0.0, |value| f64::try_from(value).expect("a number"));
        }

        fn is_alive(&self) -> bool {
            self.value < 9.0
        }

        fn work(&mut self, work: Option<Work>) -> Option<&'static str> {
            self.works = work.is_some();
            Some("frames/s")
        }

        fn clocks(&self) -> Vec<f64> {
            if self.works { vec![1.0] } else { Vec::new() }
        }

        fn tick(&mut self, _seconds: f64, parts: &mut Vec<Strained>) -> Option<String> {
            let hazard = if self.value < 5.0 { 0.0 } else { f64::INFINITY };
            parts.extend(self.works.then_some(Strained { hazard, work: 1.0 }));
            None
        }

        fn reading(&self, source: &str, _noise: f64) -> Option<f64> {
            (source == "value").then_some(self.value)
        }

        fn failure(&self, _part: usize, _random: &mut Stream) -> Incident {
            Incident::new(IncidentKind::DeviceReset, "the screen went dark").at("board")
        }

        fn loses_on(&self, kind: IncidentKind) -> bool {
            kind == IncidentKind::DeviceReset
        }

        fn copy(&self) -> Box<dyn Device> {
            Box::new(self.clone())
        }
    }

    /// A processor and a board on one clock, with how the board's setting takes effect.
    fn with_board(takes_effect: TakesEffect) -> Simulator {
        let mut rig = rig();
        let lost_on = (takes_effect == TakesEffect::AtOnce).then_some(LostOn::DeviceReset);
        rig.settings.push(Setting { takes_effect, lost_on, ..setting("board", (0, 1, 20, 0), (1, 0), Direction::Up) });
        let sensor = |name: &str, source: &str| Sensor { source: source.into(), ..Sensor::plain(name) };
        rig.sensors = vec![sensor("frames", "board/value"), sensor("room", "room")];
        let mut simulator =
            Simulator::new(&Spec::of_processor(7, processor::Spec::desktop()), &rig, 11, Moment::from_millis(0));
        simulator.devices.push(("board/".into(), Box::new(Board::default())));
        simulator.put_in_force(rig.stock());
        simulator
    }

    #[test]
    fn several_devices_work_fail_and_are_read_on_one_clock() {
        let mut simulator = with_board(TakesEffect::AtOnce);
        let report = run(&mut simulator, 1, 60);
        assert!(report.incidents.is_empty(), "{report:?}");
        simulator.apply(&change("board", 6.into())).expect("it answers");
        simulator.apply(&change("core_clock", 4300.into())).expect("it answers");
        assert_eq!(simulator.sense()["frames"], 6.0);
        assert!((simulator.sense()["room"] - 21.0).abs() < 1.0);
        let report = run(&mut simulator, 2, 60);
        assert_eq!(report.incidents[0].kind, IncidentKind::DeviceReset);
        assert_eq!(report.incidents[0].place.as_deref(), Some("board"));
        let in_force = simulator.read_back().in_force;
        assert_eq!(
            (in_force["board"], in_force["core_clock"]),
            (1.into(), 4300.into()),
            "only the board lost its setting"
        );
        simulator.apply(&change("board", 10.into())).expect_err("it does not answer, and takes all with it");
        assert_eq!(simulator.read_back().in_force["core_clock"], 4200.into());
    }

    fn confirmed(simulator: &mut Simulator, errand: Errand) -> Answer {
        for (number, order) in [(1, Order::Prepare(errand.clone())), (2, Order::Confirm(errand))] {
            simulator.order(number, order);
        }
        let answers = simulator.events(SAMPLING).into_iter().chain(simulator.events(SAMPLING));
        let mut answers = answers.filter_map(|event| match event {
            BenchEvent::Answered { to: 2, answer } => Some(answer),
            _ => None,
        });
        answers.next_back().expect("an answer")
    }

    #[test]
    fn what_somebody_changes_is_in_force_when_they_say_so_and_nobody_reads_it_back() {
        let mut simulator = with_board(TakesEffect::ByHand);
        let Answer::InForce(read_back) = confirmed(&mut simulator, change("board", 4.into())) else {
            panic!("it holds")
        };
        assert!(!read_back.started_anew && !read_back.in_force.contains_key("board"));
        assert_eq!(simulator.sense()["frames"], 4.0);
        simulator.go_down(IncidentKind::Restart);
        assert_eq!(simulator.sense()["frames"], 4.0, "it outlives a restart");
        let in_force = [("board".to_owned(), 4.into()), ("core_clock".to_owned(), 4300.into())].into();
        let mut again = with_board(TakesEffect::ByHand).with_lasting(&in_force);
        assert_eq!(again.sense()["frames"], 4.0, "and the simulation");
        assert_eq!(again.read_back().in_force["core_clock"], 4200.into(), "but what is set at once does not");
        let dead = confirmed(&mut simulator, change("board", 9.into()));
        assert!(matches!(&dead, Answer::Failed(incident) if incident.kind == IncidentKind::NoStart), "{dead:?}");
    }

    #[test]
    fn a_start_brings_into_force_what_was_written_and_loses_what_was_set_at_once() {
        let mut simulator = with_board(TakesEffect::AtNextStart);
        simulator.apply(&change("core_clock", 4300.into())).expect("it answers");
        let before = simulator.now();
        let Answer::InForce(read_back) = confirmed(&mut simulator, change("board", 4.into())) else {
            panic!("it holds")
        };
        assert!(read_back.started_anew && simulator.now().since(before) >= RESTARTING);
        assert_eq!((read_back.in_force["board"], read_back.in_force["core_clock"]), (4.into(), 4200.into()));
    }

    #[test]
    fn a_stopped_pass_tells_its_end_once() {
        let mut simulator = simulator(5);
        let pass = Pass { threads: Threads::Count(2), ..Pass::usual("dense", Span::from_seconds(60)) };
        start(&mut simulator, 1, pass);
        assert_eq!(ended(&simulator.events(Span::from_seconds(5))), None);
        simulator.order(2, Order::Break);
        let report = ended(&simulator.events(Span::from_seconds(5))).expect("its end");
        assert!(report.stopped && report.ran == Span::from_seconds(5));
        assert_eq!(ended(&simulator.events(Span::from_seconds(1))), None);
    }
}
