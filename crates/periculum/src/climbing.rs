//! A climb made ready to be driven: a new one, or one that was not finished.

use std::collections::{BTreeMap, BTreeSet};
use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::time::Duration;

use anyhow::{Context, Result, bail};
use periculum_core::engine::{Climb, Event, Noted, RULES, decide_alike};
use periculum_core::model::ending::classify;
use periculum_core::model::kind::Kind;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::{InForce, Rung};
use periculum_core::story::series::Series;
use periculum_ledger::{Claim, ClimbId, ClimbRow, Ledger, Line, NewClimb, Store};
use periculum_loads::process::is_of_a_pass;
use periculum_rigs::adapters::Beside;
use periculum_rigs::bench::{Answer, Bench, Order, Remains, answer_to};
use periculum_rigs::granted::sent_by;
use periculum_rigs::hold::Hold;
use periculum_rigs::linux::{Linux, Setter, Watchdog, restarting, written_by};
use periculum_rigs::machine::ThisMachine;
use periculum_rigs::sampling::Readings;
use periculum_rigs::steady::SteadyClock;
use periculum_rigs::steady::wall_clock;
use periculum_rigs::within;

use crate::briefing::Briefing;
use crate::cli::Pace;
use crate::complaint::BadInput;
use crate::driving::Operator;
use crate::driving::{Driver, Orders, Pacer, Unreadable};
use crate::earlier::expected;
use crate::loading::LoadRunner;
use crate::notice::Notice;
use crate::output::complain;
use crate::permits::Permits;
use crate::places;
use crate::recalling::{recall, tell_past};
use crate::telling::climbing;

/// How many simulated seconds pass in one where nobody says: something happens every few seconds.
const USUAL_PACE: Pace = Pace::Times(25.0);

/// What is in force is read back within this when nothing else is to be done.
const READING: Span = Span::from_seconds(5);

/// What the kernel says is waited for so long.
const PATIENCE: Duration = Duration::from_secs(5);

/// The use of a climb that only proves what is there.
pub(crate) const PROVING: &str = "prove";

/// The use of a climb that only measures what is there.
pub(crate) const SCORING: &str = "score";

/// The rig of both: this machine without any setting.
pub(crate) const PROVING_RIG: &str = include_str!("prove.rig.toml");

/// A climb that is ready to be driven.
pub(crate) struct Prepared {
    pub(crate) briefing: Briefing,
    pub(crate) number: i64,
    id: ClimbId,
    /// What happened before.
    pub(crate) past: Vec<Line>,
    /// What its sensors read.
    pub(crate) traces: BTreeMap<String, Series>,
    /// The event to begin or to go on with.
    pub(crate) first: Event,
    climb: Climb,
    bench: Box<dyn Bench>,
    ledger: Ledger,
    claim: Claim,
    machine: Option<Hold>,
}

/// What is to be climbed.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) enum Wanted {
    /// The plan of a file.
    Plan(PathBuf),
    /// The plan of a climb of the ledger, on its rig, both as they were recorded.
    Again(i64),
}

impl Wanted {
    /// Its rig and its plan, with the specimen that it was climbed on before.
    pub(crate) fn briefing(&self, ledger: &Path) -> Result<(Briefing, Option<u64>)> {
        match self {
            Self::Plan(path) => Ok((Briefing::read_with(path, &saved_in(ledger))?, None)),
            Self::Again(number) => {
                let ledger = open_ledger(ledger)?;
                let row = ledger.climb(*number)?;
                Ok((recall(&ledger, &row)?, row.seed))
            }
        }
    }
}

/// The profiles that a ledger has of a rig, the newest of each name; none where there is no ledger.
pub(crate) fn saved_in(ledger: &Path) -> impl Fn(&str) -> Vec<(String, Rung)> {
    let ledger = ledger.is_file().then(|| Ledger::open(ledger).ok()).flatten();
    move |rig| ledger.as_ref().map(|ledger| saved_of(ledger, rig)).unwrap_or_default()
}

/// The profiles that an open ledger has of a rig, the newest of each name.
pub(crate) fn saved_of(ledger: &Ledger, rig: &str) -> Vec<(String, Rung)> {
    let mut profiles = ledger.profiles().unwrap_or_default();
    profiles.reverse();
    profiles.retain(|profile| profile.rig == rig);
    let mut names = BTreeSet::new();
    let newest = profiles.into_iter().filter(|profile| names.insert(profile.name.clone()));
    newest.map(|profile| (profile.name, profile.rung)).collect()
}

/// Opens a ledger and tells on standard error what of it had to be dropped.
pub(crate) fn open_ledger(path: &Path) -> Result<Ledger> {
    let ledger = Ledger::open(path)?;
    tell_dropped(&ledger);
    Ok(ledger)
}

/// Tells on standard error what of a ledger had to be dropped.
pub(crate) fn tell_dropped(ledger: &Ledger) {
    for dropped in ledger.dropped() {
        complain(climbing::dropped_line(dropped.line, dropped.climb, &dropped.why));
    }
    for newer in ledger.newer() {
        complain(climbing::newer_line(newer.line, newer.climb, &newer.what, ledger.path().display()));
    }
}

impl Prepared {
    /// A new climb of what is wanted, in the ledger of this path; without a seed, again is on the same simulated specimen.
    pub(crate) fn of(wanted: &Wanted, ledger: &Path, sysroot: &Path, seed: Option<u64>) -> Result<Self> {
        // A plan that can't be climbed leaves no ledger behind.
        let (briefing, before) = wanted.briefing(ledger)?;
        let (ledger, seed) = (open_ledger(ledger)?, seed.or(before));
        if let Some(waiting) = ledger.unfinished()?.filter(|row| !ledger.is_driven(row)) {
            complain(climbing::not_finished(
                waiting.climb,
                &waiting.rig,
                places::typed(&format!("resume {}", waiting.climb), ledger.path()),
            ));
        }
        Self::new(briefing, ledger, sysroot, seed)
    }

    /// A new climb; the seed chooses the specimen of a simulated rig.
    pub(crate) fn new(briefing: Briefing, ledger: Ledger, sysroot: &Path, seed: Option<u64>) -> Result<Self> {
        Self::begun(briefing, ledger, sysroot, seed, wall_clock())
    }

    /// What earlier climbs say of rigs of its kind; nothing of one that is resumed before it is taken up.
    pub(crate) fn kinds(&self) -> &[Kind] {
        match &self.first {
            Event::Started { kinds, .. } => kinds,
            _ => &[],
        }
    }

    /// The same for one that counts as begun at this moment of the wall clock.
    pub(crate) fn begun(
        briefing: Briefing,
        mut ledger: Ledger,
        sysroot: &Path,
        seed: Option<u64>,
        wall: Moment,
    ) -> Result<Self> {
        let claim = ledger.claim(&briefing.rig.name)?;
        let seed = briefing.adapters.specimen(seed);
        let (rig, plan) = (&briefing.rig, &briefing.plan);
        let machine = hold_machine(&briefing, sysroot)?;
        // A bench that can't be made must leave nothing behind.
        let mut bench = bench(&briefing, &Linux::below(sysroot), seed, &Began::at(wall), ledger.path())?;
        let kinds = expected(&ledger, &briefing, seed, wall);
        let ClimbRow { climb: number, id, .. } = ledger.begin(&NewClimb {
            plan: &plan.name,
            rig: &rig.name,
            specimen: &rig.specimens(),
            use_name: &plan.use_name,
            seed,
            plan_text: &briefing.plan_text,
            rig_text: &briefing.rig_text,
            wall,
        })?;
        let in_force = read_back(&mut *bench);
        let first = Event::Started { in_force, ahead: minutes_ahead(&*bench), rules: RULES, kinds };
        let climb = Climb::new(Arc::clone(rig), Arc::clone(plan));
        Ok(Self {
            briefing,
            number,
            id,
            past: Vec::new(),
            traces: BTreeMap::new(),
            first,
            climb,
            bench,
            ledger,
            claim,
            machine,
        })
    }

    /// The climb of this number or the newest that was not finished, taken up by somebody or by the machine itself; none where
    /// all are.
    pub(crate) fn unfinished(
        ledger: Ledger,
        sysroot: &Path,
        climb: Option<i64>,
        unattended: bool,
    ) -> Result<Option<Self>> {
        let row = match climb {
            Some(number) => Some(ledger.climb(number)?),
            None => ledger.unfinished()?,
        };
        let Some(row) = row else { return Ok(None) };
        if let Some(end) = &row.end {
            let again = places::typed(&climbing::again(row.climb), ledger.path());
            return Err(BadInput(climbing::is_over(row.climb, end.sentence(), &again)).into());
        }
        let briefing = recall(&ledger, &row)?;
        let claim = ledger.claim(&briefing.rig.name)?;
        let machine = hold_machine(&briefing, sysroot)?;
        let past = ledger.lines(row.climb)?;
        let traces = ledger.samples(row.climb)?;
        let climb = replay(&briefing, &past)?;
        let last = ledger.last_life(row.climb)?;
        let at = last.as_ref().map(|last| last.at);
        let began = Began { at: row.wall, last: at, in_force: climb.in_force().clone() };
        let mut bench = bench(&briefing, &Linux::below(sysroot), row.seed, &began, ledger.path())?;
        let in_force = read_back(&mut *bench);
        let first = match last {
            None => {
                let kinds = expected(&ledger, &briefing, row.seed, row.wall);
                Event::Started { in_force, ahead: minutes_ahead(&*bench), rules: RULES, kinds }
            }
            Some(last) => {
                let Remains { has_bitten, last_words } = bench.remains(last.wall);
                let ending = classify(&last.boot, last.wall, &bench.identity(), has_bitten);
                let running = tell_past(&past).running_pass().map(|(_, pass)| pass.began);
                let lived = running.map(|began| last.at.since(began));
                // A virtual clock gives no signs of life.
                let next_due = last.next_due.filter(|_| !bench.is_virtual());
                let lived_at_most = lived.zip(next_due).map(|(lived, next_due)| lived + next_due);
                Event::Restarted { ending, lived, lived_at_most, in_force, unattended, last_words, rules: RULES }
            }
        };
        Ok(Some(Self {
            briefing,
            number: row.climb,
            id: row.id,
            past,
            traces,
            first,
            climb,
            bench,
            ledger,
            claim,
            machine,
        }))
    }

    /// The climb as the ledger lists it.
    pub(crate) fn row(&self) -> Result<ClimbRow> {
        Ok(self.ledger.climb(self.number)?)
    }

    /// The file that its record is kept in.
    pub(crate) fn ledger_path(&self) -> PathBuf {
        self.ledger.path().to_owned()
    }

    /// The driver of this climb, and the event to drive from; the claim must be kept while it drives.
    pub(crate) fn driver<L>(self, operator: Operator, pace: Option<Pace>, listener: L) -> (Driver<L>, Event, Claim)
    where
        L: FnMut(Notice),
    {
        let pace = self.bench.is_virtual().then(|| pace.unwrap_or(USUAL_PACE));
        let (boot, id) = (self.bench.identity().id, self.id);
        let signs = match self.bench.is_virtual() {
            true => None,
            false => self
                .ledger
                .signs_of_life(&id, &boot)
                .inspect_err(|error| tracing::warn!(%error, "no signs of life are given"))
                .ok(),
        };
        let driver = Driver {
            climb: self.climb,
            bench: self.bench,
            store: Box::new(self.ledger),
            id,
            orders: Orders::default(),
            noted: Noted::default(),
            shown: None,
            boot,
            operator,
            pacer: Pacer::new(pace),
            listener,
            readings: Readings::of(&self.briefing.rig.sensors),
            // With an interface somebody is there to do it.
            starts_for: BTreeSet::new(),
            foresees: false,
            unreadable: Unreadable::default(),
            is_leaving: false,
            signs,
            _machine: self.machine,
        };
        (driver, self.first, self.claim)
    }
}

/// The machine for one driver alone, where a climb is on it and not on a simulated rig or on one that is elsewhere.
fn hold_machine(briefing: &Briefing, sysroot: &Path) -> Result<Option<Hold>> {
    if briefing.adapters.is_here() { this_machine(sysroot).map(Some) } else { Ok(None) }
}

/// This machine, for one driver alone.
///
/// # Errors
/// Where another process drives it.
pub(crate) fn this_machine(sysroot: &Path) -> Result<Hold> {
    let held = Hold::of_machine(sysroot).context(climbing::IS_ANOTHER_THERE)?;
    held.context(climbing::ANOTHER_DRIVES)
}

/// How far the rig's clock is ahead of UTC, minutes; a virtual one goes by UTC.
fn minutes_ahead(bench: &dyn Bench) -> i32 {
    if bench.is_virtual() { 0 } else { jiff::ZonedDateTime::now().offset().seconds() / 60 }
}

/// The engine after these lines: it must say again what it said then.
fn replay(briefing: &Briefing, past: &[Line]) -> Result<Climb> {
    let mut climb = Climb::new(Arc::clone(&briefing.rig), Arc::clone(&briefing.plan));
    for (number, line) in past.iter().enumerate() {
        let step = climb.next(line.at, &line.event);
        if !decide_alike(&step.entries, &line.entries) {
            bail!(climbing::decides_otherwise(number));
        }
    }
    Ok(climb)
}

/// The bench of a rig from this ledger, as it is now.
pub(crate) fn bench_of(
    briefing: &Briefing,
    sysroot: &Path,
    seed: Option<u64>,
    ledger: &Ledger,
) -> Result<Box<dyn Bench>> {
    bench(briefing, &Linux::below(sysroot), seed, &Began::at(wall_clock()), ledger.path())
}

/// When a climb began, when it was heard of last, and what was in force then.
struct Began {
    at: Moment,
    last: Option<Moment>,
    in_force: InForce,
}

impl Began {
    /// A climb that begins at this moment.
    fn at(moment: Moment) -> Self {
        Self { at: moment, last: None, in_force: InForce::new() }
    }
}

/// The bench, whose time goes on from what was recorded last; a virtual clock begins at the wall's, so that a climb has one date.
fn bench(
    briefing: &Briefing,
    linux: &Linux,
    seed: Option<u64>,
    began: &Began,
    ledger: &Path,
) -> Result<Box<dyn Bench>> {
    let rig: &Rig = &briefing.rig;
    let permits = Permits::read(places::permits()?)?;
    permits.check_written(&sent_by(rig))?;
    let before = (began.last.unwrap_or(began.at), &began.in_force);
    if let Some(simulator) = briefing.adapters.simulator(rig, seed, before, linux) {
        return Ok(simulator);
    }
    if let Some(elsewhere) = briefing.adapters.elsewhere(rig, SteadyClock::behind(began.last), linux) {
        return Ok(elsewhere);
    }
    let (root, of) = (linux.root().to_owned(), Arc::clone(&briefing.rig));
    let written = patiently(move || written_by(&root, &of))?;
    // What is not there is told by those who would write it.
    let written = written.into_iter().filter(|one| one.is_there);
    let itself = briefing.plan.restarts_itself.then(restarting);
    permits.check_written(&written.chain(itself).collect::<Vec<_>>())?;
    // Instruments are asked how far they go only once that is allowed.
    let (root, of, kept) = (linux.root().to_owned(), Arc::clone(&briefing.rig), places::kept()?);
    let setter = patiently(move || Setter::of(&root, &of, &kept))?;
    let setter = setter.map_err(|told| BadInput(told.join("\n")))?;
    let watchdog = watchdog(briefing, linux)?;
    let pictures = std::path::absolute(places::pictures_of(ledger))?;
    let runner = LoadRunner::new(linux.clone(), &briefing.plan, &permits, pictures)?;
    let clock = SteadyClock::behind(began.last);
    let machine = ThisMachine::new(linux.clone(), setter, watchdog, rig, Box::new(runner), clock, is_of_a_pass);
    Ok(Box::new(Beside::machine(Box::new(machine), rig, linux)))
}

/// What a rig reports of its settings; nothing where it does not answer.
pub(crate) fn read_back(bench: &mut dyn Bench) -> InForce {
    match answer_to(bench, Order::ReadBack, READING) {
        Some(Answer::InForce(read_back)) => read_back.in_force,
        _ => InForce::new(),
    }
}

/// What the kernel says, as long as nothing in it hangs.
///
/// # Errors
/// Where it does not answer.
pub(crate) fn patiently<T: Send + 'static>(ask: impl FnOnce() -> T + Send + 'static) -> Result<T> {
    within(PATIENCE, ask).with_context(|| climbing::kernel_hangs(PATIENCE.as_secs()))
}

/// The watchdog that a plan wants armed.
fn watchdog(briefing: &Briefing, linux: &Linux) -> Result<Option<Watchdog>> {
    if !briefing.plan.unattended {
        return Ok(None);
    }
    Ok(Some(Watchdog::below(linux.root(), &briefing.rig.watchdog).map_err(|why| BadInput(why.to_string()))?))
}
