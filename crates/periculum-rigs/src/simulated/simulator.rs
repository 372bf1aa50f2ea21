//! The simulated rig itself: it is set, loaded and sensed like a real one, and fails like one.

use std::collections::BTreeMap;

use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{CoreProgress, PassOrder, PassReport, Progress, Score, Threads};
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::{Change, InForce, Rung};

use super::failure::failure;
use super::random::{Purpose, Stream};
use super::silicon::{Specimen, Strain, strain};
use super::spec::{Spec, to_float};
use super::thermal::{Demand, Thermal};
use crate::bench::{Apply, Guard, Identify, KeepTime, PassNews, ReadBack, RunPasses, Sense};

/// How finely time is cut.
const TICK: Span = Span::from_millis(250);

/// How long a change takes to settle.
const SETTLING: Span = Span::from_millis(1500);

/// How long the rig takes to start anew.
const RESTARTING: Span = Span::from_seconds(75);

/// Voltage that an idle core needs less than a loaded one, V.
const IDLE_RELIEF: f64 = 0.06;

/// A rig that is set with less than this margin while idle, V, stops answering at once.
const DEAD_AT_IDLE: f64 = -0.02;

/// A clock this far below the asked one, for this long, is throttled.
const THROTTLED: (f64, Span) = (0.98, Span::from_seconds(5));

/// A hazard that changes by a smaller share than this from one such time to the next has settled.
const STEADY: f64 = 1e-5;
const SETTLED: Span = Span::from_seconds(30);

/// In a wait longer than this, a pass whose hazard changes by a smaller share from one settled time to the next goes on
/// in one stride.
const LONG: Span = Span::from_seconds(120);
const STEADY_ENOUGH: f64 = 1e-3;

/// Gigaflops, gigabytes or megarays of one round.
const ROUND: f64 = 0.75;

/// Standard deviation of a score, relative.
const SCORE_NOISE: f64 = 0.003;

/// Share of the passes in which something else takes a few percent of the processor.
const DISTURBED: f64 = 0.02;

/// Share of the work that waits for memory at the reference clock.
const MEMORY_BOUND: f64 = 0.12;

/// A simulated rig.
#[derive(Clone, Debug)]
pub struct Simulator {
    spec: Spec,
    seed: u64,
    specimen: Specimen,
    stock: Rung,
    set: Rung,
    driven: Driven,
    sensors: Vec<(String, String)>,
    now: Moment,
    thermal: Thermal,
    /// The clock that is reached, relative to the one that is set.
    reached: f64,
    noise: Stream,
    pass: Option<Running>,
    /// Why the last pass could not be started.
    refusal: Option<String>,
}

/// What the settings come to.
#[derive(Clone, Debug, PartialEq)]
struct Driven {
    /// The clock that is set for each core, MHz.
    clocks: Vec<f64>,
    /// The mean of those.
    clock: f64,
    /// The voltage that is set, V.
    voltage: f64,
    /// The power above which the clock is taken back, W.
    power_limit: f64,
}

/// A pass that runs, or one that has just failed and was not told so far.
#[derive(Clone, Debug)]
struct Running {
    length: Span,
    strain: Strain,
    busy: usize,
    ran: Span,
    random: Stream,
    /// For each core the sum of hazard over time at which it fails: an exponential draw makes it a Poisson process.
    endurance: Vec<f64>,
    /// The sum of hazard over time of all cores.
    dose: f64,
    /// How it stood when it was last looked at whether anything still changes.
    looked_at: Standing,
    work: f64,
    throttled: Span,
    end: Option<End>,
}

/// How a pass stood at some time, and what had changed since the time before.
#[derive(Clone, Debug, Default)]
struct Standing {
    ran: Span,
    endurance: Vec<f64>,
    work: f64,
    /// The sum of hazard over time in the settled time before.
    dose: f64,
}

#[derive(Clone, Debug)]
enum End {
    Finished,
    Stopped,
    Failed(Incident),
}

impl Simulator {
    /// A rig at rest at this moment, with everything at stock; the seed chooses the specimen.
    pub fn new(spec: Spec, rig: &Rig, seed: u64, now: Moment) -> Self {
        Self {
            specimen: Specimen::new(&spec, seed),
            stock: rig.stock(),
            driven: Driven::by(&spec, &rig.stock()),
            set: rig.stock(),
            sensors: rig.sensors.iter().map(|sensor| (sensor.name.clone(), sensor.source.clone())).collect(),
            now,
            thermal: Thermal::at_rest(&spec),
            reached: 1.0,
            noise: Stream::new(seed, Purpose::Sensors),
            pass: None,
            refusal: None,
            seed,
            spec,
        }
    }

    /// The probability that a pass at what is set holds, from how the rig is now, which the pass changes as ever.
    ///
    /// Nothing is left to chance: the hazard is summed up, by the tick until it no longer changes and at once from
    /// there on.
    pub(super) fn survival(&mut self, order: &PassOrder) -> f64 {
        let Some(strain) = strain(&order.pass.load) else { return 0.0 };
        let mut pass = Running::new(order, strain, &self.spec, self.seed);
        pass.endurance.fill(f64::INFINITY);
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
            if pass.end.is_none() && self.reached == 1.0 && (rate - before).abs() <= rate * STEADY {
                let left = pass.length.seconds() - pass.ran.seconds();
                return (-pass.dose - rate * left / SETTLED.seconds()).exp();
            }
            before = rate;
        }
        // A pass that is throttled does not hold.
        if matches!(pass.end, Some(End::Finished)) { (-pass.dose).exp() } else { 0.0 }
    }

    fn put_in_force(&mut self, rung: Rung) {
        self.driven = Driven::by(&self.spec, &rung);
        self.set = rung;
    }

    /// The least margin of any core when nothing runs, V.
    fn idle_margin(&self) -> f64 {
        let needs = |core| self.specimen.needs(core, self.driven.clocks[core], self.thermal.die, IDLE_RELIEF);
        let hungriest = (0..self.specimen.core_count()).map(needs).fold(0.0, f64::max);
        self.driven.voltage - hungriest
    }

    fn restart(&mut self) {
        self.put_in_force(self.stock.clone());
        self.reached = 1.0;
        self.rest(RESTARTING);
    }

    fn rest(&mut self, span: Span) {
        for _ in 0..span.millis() / TICK.millis() {
            self.now = self.now + TICK;
            self.heat(0, 0.0, Span::from_seconds(60));
        }
    }

    /// Lets one tick of heat, power and throttling go by.
    fn heat(&mut self, busy: usize, heat: f64, since_load: Span) {
        let fresh = since_load < Span::from_seconds(1);
        let demand = Demand {
            clock: self.driven.clock * self.reached,
            voltage: self.driven.voltage,
            busy,
            heat,
            undershoot: if fresh { self.spec.power.undershoot } else { 0.0 },
        };
        self.thermal.advance(&self.spec, demand, TICK.seconds());
        let limited = self.limit().is_some();
        self.reached = if limited { self.reached * 0.99 } else { (self.reached * 1.004).min(1.0) };
    }

    /// What takes the clock back, where something does.
    fn limit(&self) -> Option<&'static str> {
        if self.thermal.hottest(self.spec.cores) > self.spec.cooling.limit {
            Some("temperature limit")
        } else if self.thermal.power > self.driven.power_limit {
            Some("power limit")
        } else {
            None
        }
    }

    fn tick(&mut self, pass: &mut Running) {
        self.now = self.now + TICK;
        pass.ran += TICK;
        self.heat(pass.busy, pass.strain.heat, pass.ran);
        self.watch_throttling(pass);
        let reference = self.spec.silicon.reference_clock;
        for core in 0..pass.busy {
            let clock = self.driven.clocks[core] * self.reached;
            let relative = clock / reference;
            let useful = relative.min(pass.strain.levels_off);
            let gain = useful / (1.0 - MEMORY_BOUND + MEMORY_BOUND * useful);
            pass.work += gain * reference / 1000.0 * pass.strain.work * TICK.seconds();
            let temperature = self.thermal.core(core, self.spec.cores);
            let margin = self.thermal.voltage - self.specimen.needs(core, clock, temperature, pass.strain.relief);
            let dose = self.specimen.hazard(margin) * TICK.seconds();
            pass.dose += dose;
            pass.endurance[core] -= dose;
            if pass.endurance[core] < 0.0 {
                pass.end = Some(End::Failed(failure(core, margin, pass.ran, &mut pass.random)));
                return;
            }
        }
        if pass.end.is_none() && pass.ran >= pass.length {
            pass.end = Some(End::Finished);
        }
    }

    /// Whether heat and hazard of the pass no longer change, looked at once in a while.
    fn has_settled(&self, pass: &mut Running) -> bool {
        let look = &pass.looked_at;
        if pass.ran < look.ran + SETTLED {
            return false;
        }
        let taken: f64 = look.endurance.iter().zip(&pass.endurance).map(|(before, now)| before - now).sum();
        let is_steady = !look.endurance.is_empty() && (taken - look.dose).abs() <= taken * STEADY_ENOUGH;
        if is_steady && self.reached == 1.0 {
            return true;
        }
        pass.looked_at = Standing { ran: pass.ran, endurance: pass.endurance.clone(), work: pass.work, dose: taken };
        false
    }

    /// Lets a settled pass run on as it did since it was looked at: to its end, to just before a core fails, or for at
    /// most this long.
    fn stride(&mut self, pass: &mut Running, at_most: Span) {
        let look = std::mem::take(&mut pass.looked_at);
        let since = pass.ran - look.ran;
        let rates: Vec<f64> =
            look.endurance.iter().zip(&pass.endurance).map(|(before, now)| (before - now) / since.seconds()).collect();
        let lives = pass.endurance.iter().zip(&rates).map(|(left, rate)| left / rate).fold(f64::INFINITY, f64::min);
        let left = at_most.seconds().min((pass.length - pass.ran).seconds()).min(lives);
        let ticks = (left / TICK.seconds()).floor() - 1.0;
        if ticks >= 1.0 {
            let span = Span::from_millis(ticks as u64 * TICK.millis());
            pass.endurance.iter_mut().zip(&rates).for_each(|(left, rate)| *left -= rate * span.seconds());
            pass.work += (pass.work - look.work) / since.seconds() * span.seconds();
            pass.ran += span;
            self.now = self.now + span;
        }
        self.tick(pass);
    }

    fn watch_throttling(&self, pass: &mut Running) {
        let (least, longest) = THROTTLED;
        pass.throttled = if self.reached < least { pass.throttled + TICK } else { Span::ZERO };
        if pass.throttled >= longest {
            let evidence = format!(
                "reached {:.0} MHz of {:.0} MHz: {}",
                self.driven.clock * self.reached,
                self.driven.clock,
                self.limit().unwrap_or("temperature limit")
            );
            pass.end = Some(End::Failed(Incident::new(IncidentKind::Throttled, evidence).into_pass(pass.ran)));
        }
    }

    fn report(&mut self, mut pass: Running, end: End) -> PassReport {
        let mut report = PassReport { ran: pass.ran, rounds: pass.rounds(), ..PassReport::default() };
        match end {
            End::Finished => {
                let noise = SCORE_NOISE * pass.random.normal();
                let is_disturbed = pass.random.unit() < DISTURBED;
                let taken = if is_disturbed { 0.03 + 0.07 * pass.random.unit() } else { 0.0 };
                let rate = pass.work / pass.ran.seconds() * (1.0 + noise - taken);
                report.score = Some(Score::of(rate, pass.strain.unit));
            }
            End::Stopped => report.stopped = true,
            End::Failed(incident) => {
                if incident.kind.takes_machine_down() {
                    self.restart();
                }
                report.incidents.push(incident);
            }
        }
        report
    }

    /// The voltage at the cores now, without any meter's noise, V.
    pub(super) fn die_voltage(&self) -> f64 {
        self.thermal.voltage
    }

    fn reading(&mut self, source: &str) -> Option<f64> {
        let busy = self.pass.as_ref().map_or(0, |pass| pass.busy);
        let noise = self.noise.normal();
        Some(match source {
            "room" => self.spec.room + 0.1 * noise,
            "hottest-core" => self.thermal.hottest(self.spec.cores) + 0.3 * noise,
            "cooler" => self.thermal.cooler + 0.2 * noise,
            "die-voltage" => self.thermal.voltage + 0.001 * noise,
            "power" => self.thermal.power + 0.8 * noise,
            "reached-clock" => self.driven.clock * self.reached + 0.7 * noise,
            "usage" => 100.0 * busy as f64 / self.spec.cores as f64,
            _ => {
                let core: usize = source.strip_prefix("core-")?.parse().ok()?;
                let tilt = if core == 0 { self.spec.cooling.tilt } else { 0.0 };
                self.thermal.core(core, self.spec.cores) + tilt + 0.3 * noise
            }
        })
    }
}

impl Driven {
    /// What a rung sets: each group of cores has the clock of its setting.
    fn by(spec: &Spec, rung: &Rung) -> Self {
        let of = |setting: &String| rung.get(setting).map_or(0.0, to_float);
        let groups: Vec<f64> = spec.clocks.iter().map(of).collect();
        let clocks: Vec<f64> = (0..spec.cores).map(|core| groups[core * groups.len() / spec.cores]).collect();
        Self {
            clock: clocks.iter().sum::<f64>() / clocks.len() as f64,
            clocks,
            voltage: of(&spec.voltage),
            power_limit: spec.power_limit.as_ref().map_or(spec.power.limit, of),
        }
    }
}

impl Running {
    fn new(order: &PassOrder, strain: Strain, spec: &Spec, seed: u64) -> Self {
        let mut random = Stream::new(seed, Purpose::Pass { trial: order.nth, index: order.index });
        let busy = match order.pass.threads {
            Threads::All | Threads::Each => spec.cores,
            Threads::Count(count) => spec.cores.min(count as usize),
        };
        Self {
            length: order.pass.length,
            strain,
            busy,
            ran: Span::ZERO,
            endurance: (0..busy).map(|_| random.exponential()).collect(),
            random,
            dose: 0.0,
            looked_at: Standing::default(),
            work: 0.0,
            throttled: Span::ZERO,
            end: None,
        }
    }

    fn rounds(&self) -> u64 {
        (self.work / ROUND) as u64
    }

    /// How far it is, with the cores at these clocks in MHz.
    fn progress(&self, clocks: &[f64], reached: f64) -> Progress {
        let rate = self.work / self.ran.seconds();
        let of_core = |core| CoreProgress {
            core,
            rounds: self.rounds() / self.busy as u64,
            rate: rate * clocks[core] / clocks[..self.busy].iter().sum::<f64>(),
            clock: Some(clocks[core] * reached),
            checked: Some(self.ran),
            ..CoreProgress::default()
        };
        let cores = if self.work > 0.0 { (0..self.busy).map(of_core).collect() } else { Vec::new() };
        let rate = (self.work > 0.0).then(|| Score::of(rate, self.strain.unit));
        Progress { done: self.ran, rounds: self.rounds(), rate, cores, ..Progress::default() }
    }
}

impl Apply for Simulator {
    fn apply(&mut self, change: &Change) -> Result<(), Incident> {
        self.put_in_force(self.set.with(&change.setting, change.to));
        self.rest(SETTLING);
        if self.idle_margin() < DEAD_AT_IDLE {
            self.restart();
            let incident = Incident::new(IncidentKind::Freeze, "the machine stopped answering when it was set");
            return Err(incident.at(change.setting.replace('_', " ")));
        }
        Ok(())
    }
}

impl ReadBack for Simulator {
    fn read_back(&mut self) -> InForce {
        self.set.iter().map(|(name, value)| (name.to_owned(), value)).collect()
    }
}

impl Sense for Simulator {
    fn sense(&mut self) -> BTreeMap<String, f64> {
        let sensors = self.sensors.clone();
        sensors.into_iter().filter_map(|(name, source)| Some((name, self.reading(&source)?))).collect()
    }
}

impl Guard for Simulator {}

impl RunPasses for Simulator {
    fn start(&mut self, order: &PassOrder) {
        self.pass = match strain(&order.pass.load) {
            Some(strain) => Some(Running::new(order, strain, &self.spec, self.seed)),
            None => {
                self.refusal = Some(format!("a simulated rig has no load called `{}`", order.pass.load));
                None
            }
        };
    }

    fn stop(&mut self) {
        if let Some(pass) = &mut self.pass {
            pass.end = Some(End::Stopped);
        }
    }

    fn wait(&mut self, at_most: Span) -> Vec<PassNews> {
        if let Some(why) = self.refusal.take() {
            return vec![PassNews::Ended(PassReport { refused: Some(why), ..PassReport::default() })];
        }
        let Some(mut pass) = self.pass.take() else {
            self.rest(at_most);
            return Vec::new();
        };
        let until = self.now + at_most;
        while pass.end.is_none() && self.now < until {
            let left = until.since(self.now);
            if left < LONG || !self.has_settled(&mut pass) {
                self.tick(&mut pass);
            } else {
                self.stride(&mut pass, left);
            }
        }
        match pass.end.take() {
            Some(end) => vec![PassNews::Ended(self.report(pass, end))],
            None => {
                let progress = PassNews::Progress(pass.progress(&self.driven.clocks, self.reached));
                self.pass = Some(pass);
                vec![progress]
            }
        }
    }
}

impl Identify for Simulator {}

impl KeepTime for Simulator {
    fn now(&self) -> Moment {
        self.now
    }

    fn is_virtual(&self) -> bool {
        true
    }
}

#[cfg(test)]
pub(super) mod tests {
    use super::super::tests::spec;
    use super::*;
    use periculum_core::Decimal;
    use periculum_core::model::ladder::{Direction, Ladder};
    use periculum_core::model::pass::Pass;
    use periculum_core::model::setting::{Setting, TakesEffect};

    fn setting(name: &str, ladder: (i64, i64, i64, u32), stock: (i64, u32), harder: Direction) -> Setting {
        let [from, step, to] = [ladder.0, ladder.1, ladder.2].map(|value| Decimal::new(value, ladder.3));
        Setting {
            name: name.into(),
            label: name.into(),
            unit: String::new(),
            ladder: Ladder::steps(from, step, to).expect("a ladder"),
            stock: Decimal::new(stock.0, stock.1),
            floor: from,
            ceilings: BTreeMap::new(),
            largest_jump: None,
            tolerance: Decimal::ZERO,
            harder,
            takes_effect: TakesEffect::AtOnce,
            adapter: "simulated".into(),
            target: String::new(),
            boot_line: None,
            words: Vec::new(),
            drives: Vec::new(),
        }
    }

    pub(in super::super) fn rig() -> Rig {
        Rig {
            name: "bench".into(),
            summary: String::new(),
            cooling: String::new(),
            watchdog: String::new(),
            parts: vec![],
            settings: vec![
                setting("core_clock", (3800, 25, 5600, 0), (4200, 0), Direction::Up),
                setting("core_voltage", (950, 5, 1450, 3), (125, 2), Direction::Down),
            ],
            derived: vec![],
            sensors: vec![],
        }
    }

    fn simulator(seed: u64) -> Simulator {
        let rig = rig();
        Simulator::new(spec(), &rig, seed, Moment::from_millis(0))
    }

    /// Whether a trial of a rung holds from a rig at rest.
    pub(in super::super) fn run_trial(seed: u64, trial: u32, rung: &Rung, length: u64) -> bool {
        let mut simulator = simulator(seed);
        rung.iter().all(|(setting, to)| simulator.apply(&change(setting, to)).is_ok())
            && run(&mut simulator, trial, length).incidents.is_empty()
    }

    fn change(setting: &str, to: Decimal) -> Change {
        Change { setting: setting.into(), from: None, to }
    }

    fn run(simulator: &mut Simulator, trial: u32, length: u64) -> PassReport {
        let pass = Pass::usual("dense", Span::from_seconds(length));
        simulator.start(&PassOrder { trial, index: 0, pass, nth: trial, cores: vec![] });
        loop {
            for news in simulator.wait(Span::from_seconds(10)) {
                if let PassNews::Ended(report) = news {
                    return report;
                }
            }
        }
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
        let spec = Spec { clocks, power_limit: Some("power_limit".into()), ..spec() };
        (Simulator::new(spec, &rig, 3, Moment::from_millis(0)), rig)
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
            simulator.start(&PassOrder { trial, index: 0, pass, nth: trial, cores: vec![] });
            loop {
                for news in simulator.wait(Span::from_seconds(stride)) {
                    if let PassNews::Ended(report) = news {
                        return (report.ran.seconds(), report.score.map_or(0.0, |score| score.value));
                    }
                }
            }
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
        assert_eq!(simulator.read_back()["core_voltage"], Decimal::new(125, 2));
    }

    #[test]
    fn a_stopped_pass_tells_its_end_once() {
        let mut simulator = simulator(5);
        let pass = Pass { threads: Threads::Count(2), ..Pass::usual("dense", Span::from_seconds(60)) };
        simulator.start(&PassOrder { trial: 1, index: 0, pass, nth: 1, cores: vec![] });
        simulator.wait(Span::from_seconds(5));
        simulator.stop();
        let news = simulator.wait(Span::from_seconds(5));
        assert!(
            matches!(&news[..], [PassNews::Ended(report)] if report.stopped && report.ran == Span::from_seconds(5))
        );
        assert!(simulator.wait(Span::from_seconds(1)).is_empty());
    }
}
