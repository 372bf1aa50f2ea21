//! Carries out what the engine decides: the one place where a climb meets a rig, a ledger, a clock and an operator.

use std::collections::{BTreeMap, BTreeSet};
use std::time::{Duration, Instant};

use anyhow::{Context, Result};
use periculum_core::engine::{Climb, Command, Entry, Event, Field, Noted, Other, Question, Said, Step, check};
use periculum_core::model::errand::Errand;
use periculum_core::model::moment::Span;
use periculum_core::model::rig_change::RigChange;
use periculum_core::model::rung::InForce;
use periculum_core::telling::{grammar, misfit_words};
use periculum_ledger::{ClimbId, Line, SignsOfLife, Store};
use periculum_rigs::bench::{Answer, Bench, BenchEvent, Order, ReadBack, Sensed, Shown, answer_to};
use periculum_rigs::hold::Hold;
use periculum_rigs::sampling::{Readings, SAMPLING};
use periculum_rigs::steady::wall_clock;

use super::operator::{Heard, Operator};
use super::orders::Orders;
use super::pacer::Pacer;
use crate::notice::Notice;
use crate::telling::climbing;

/// How often a rig whose time is the wall's is looked at for cut-offs.
const CHECKING: Span = Span::from_millis(100);

/// What was there before a climb is put back within this.
const PUTTING_BACK: Span = Span::from_seconds(5);

/// Simulated hands take so long, so that what is asked can be read.
const HANDS_TAKE: Duration = Duration::from_millis(2500);

/// A program that uses more of one core than this, percent, is told.
const WORTH_A_WORD: f64 = 10.0;

/// Why settings can't be read back, and why sensors tell nothing, each by name.
pub(crate) type Unreadable = (BTreeMap<String, String>, BTreeMap<String, String>);

/// A climb on its way.
pub(crate) struct Driver<L> {
    pub(crate) climb: Climb,
    pub(crate) bench: Box<dyn Bench>,
    /// The orders whose answers somebody waits for.
    pub(crate) orders: Orders,
    /// Where the climb is recorded, and what it is known by there.
    pub(crate) store: Box<dyn Store>,
    pub(crate) id: ClimbId,
    /// The boot identifier of the operating system.
    pub(crate) boot: String,
    pub(crate) operator: Operator,
    pub(crate) pacer: Pacer,
    pub(crate) listener: L,
    pub(crate) readings: Readings,
    /// What the rig shows to whoever makes a pass on it, where it is one in software.
    pub(crate) shown: Option<Shown>,
    /// What the operator wrote down with the answer that is being confirmed.
    pub(crate) noted: Noted,
    /// The settings that the machine is started anew for by itself.
    pub(crate) starts_for: BTreeSet<String>,
    /// Whether its listener wants to know what comes next, which takes a while to find out.
    pub(crate) foresees: bool,
    /// Why what should be readable is not, as it was told last.
    pub(crate) unreadable: Unreadable,
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
        let mut asked_since: Option<Instant> = None;
        while !self.climb.is_ended() && !until(&self.climb) {
            let is_asked = self.climb.question().is_some();
            asked_since = asked_since.filter(|_| is_asked).or_else(|| is_asked.then(Instant::now));
            if self.is_leaving && (self.climb.is_paused() || is_asked) {
                break;
            }
            // Instruments are read while somebody makes a pass; a virtual clock would run on without them.
            let is_made_by_hand = !self.bench.is_virtual() && self.climb.is_made_by_hand();
            let is_waited_for = self.climb.needs_time() || self.orders.are_open() || is_made_by_hand;
            // Whoever has to say something in so many seconds has that many of their own.
            let needs_somebody = self.climb.needs_somebody();
            let is_theirs = self.climb.is_confirming() && needs_somebody && self.is_watched();
            let paced = self.pacer.due(self.bench.now(), is_waited_for && !is_theirs);
            let patience = match is_theirs {
                true => Duration::from_millis(SAMPLING.millis()),
                // Hands that nobody sees are never waited for.
                false if is_asked && self.operator.has_simulated_hands() && !self.pacer.waits() => Duration::ZERO,
                false => paced,
            };
            // What was said before the end is heard before it.
            let is_last = needs_somebody && self.operator.is_mute() && !self.orders.are_open();
            let heard = self.operator.listen(if is_last { Duration::ZERO } else { patience });
            match if is_last && heard == Heard::Nothing { Heard::Gone } else { heard } {
                Heard::Word(said) => {
                    self.hear(said)?;
                    continue;
                }
                Heard::Gone if !self.is_leaving => {
                    self.take(Event::OperatorSaid { said: Said::Suspend })?;
                    continue;
                }
                Heard::Gone | Heard::Nothing => {}
            }
            if let Some(said) = self.done_by_hands(asked_since.map(|since| since.elapsed())) {
                asked_since = None;
                self.hear(said)?;
                continue;
            }
            if is_waited_for {
                self.let_time_pass()?;
            }
        }
        self.write_samples()?;
        if (self.climb.is_ended() || self.is_leaving) && self.climb.left_at().is_none() {
            self.put_back();
        }
        Ok(if self.climb.is_ended() { Parting::Ended } else { Parting::Waiting })
    }

    /// Whether what is asked is asked of somebody, and not of simulated hands that nobody sees.
    fn is_watched(&self) -> bool {
        self.bench.is_virtual() && (self.pacer.waits() || !self.operator.has_simulated_hands())
    }

    /// What simulated hands say of an errand after so long: that it is done.
    fn done_by_hands(&self, since: Option<Duration>) -> Option<Said> {
        let after = if self.pacer.waits() { HANDS_TAKE } else { Duration::ZERO };
        let is_due = self.operator.has_simulated_hands() && since? >= after && !self.orders.are_open();
        let question = self.climb.question().filter(|_| is_due)?;
        match (&question, &self.shown) {
            (Question::Make { task, .. }, Some(shown)) => Some(shown.said(task)),
            _ => question.is_of_hands().then(|| question.usual_answer().into()),
        }
    }

    /// Takes what the operator says; that something is done, only with what the rig says of it.
    fn hear(&mut self, said: Said) -> Result<()> {
        let is_free = !(self.operator.speaks_ahead() && self.orders.are_open());
        let question = self.climb.question().filter(|_| is_free);
        let (Some(question), Some(answer)) = (&question, said.answer()) else {
            return self.hear_besides(said, question.is_some());
        };
        if !question.answers().contains(&answer) {
            return self.mishear(climbing::no_answer_to_this(answer.word(), grammar(&question.answers())));
        }
        let rig = self.climb.rig();
        if let Err(misfit) = said.written().map_or(Ok(()), |written| question.check(rig, written)) {
            return self.mishear(misfit_words(&misfit));
        }
        match (question.errand(), &said) {
            (Some(errand), Said::Done { written }) => {
                self.noted =
                    Noted { shown: question.values(rig, written), measured: question.measurements(rig, written) };
                self.give(Order::Confirm(errand.clone()));
                Ok(())
            }
            _ => self.take(Event::OperatorSaid { said }),
        }
    }

    /// Takes what is said besides what is asked. Who can't see the questions says all in order, so that what belongs to a question
    /// waits for it, and the answer comes behind that.
    fn hear_besides(&mut self, said: Said, is_asked: bool) -> Result<()> {
        let has_its_turn = said.has_its_turn();
        if has_its_turn && !is_asked && self.operator.speaks_ahead() {
            self.operator.keep(said);
            return Ok(());
        }
        self.hear_unasked(said)?;
        let is_asked_still = has_its_turn && self.climb.question().is_some() && !self.orders.are_open();
        if is_asked_still { self.answer_by_script() } else { Ok(()) }
    }

    fn hear_unasked(&mut self, said: Said) -> Result<()> {
        if let Said::Changed { written } = &said
            && let Err(misfit) = RigChange::of(self.climb.rig(), written)
        {
            return self.mishear(misfit_words(&misfit));
        }
        if let Said::Read { written } = &said {
            let fields: Vec<Field> = self.climb.rig().read_by_hand().map(Field::of_sensor).collect();
            // Nobody has to read all of them at once.
            let fields: Vec<Field> = fields.into_iter().map(|field| Field { is_needed: false, ..field }).collect();
            if let Err(misfit) = check(&fields, written) {
                return self.mishear(misfit_words(&misfit));
            }
        }
        self.take(Event::OperatorSaid { said })
    }

    /// What was said is no answer; the question stands.
    fn mishear(&mut self, why: String) -> Result<()> {
        (self.listener)(Notice::Misheard { why });
        self.answer_by_script()
    }

    /// Gives an order whose answer is waited for.
    fn give(&mut self, order: Order) {
        let number = self.orders.open(&order);
        self.bench.order(number, order);
    }

    /// Lets the rig's time pass for a moment, and takes what happens in it.
    fn let_time_pass(&mut self) -> Result<()> {
        if let Some(signs) = self.signs.as_ref().filter(|_| self.climb.is_passing()) {
            signs.alive(self.bench.now());
        }
        let patience = if self.bench.is_virtual() { SAMPLING } else { CHECKING };
        for event in self.bench.events(patience) {
            self.take_from_bench(event)?;
        }
        if self.climb.needs_time() { self.take(Event::TimePassed { late: self.bench.late() }) } else { Ok(()) }
    }

    fn take_from_bench(&mut self, event: BenchEvent) -> Result<()> {
        match event {
            BenchEvent::Answered { to, answer } => match self.orders.close(to) {
                Some(order) => self.take_answer(order, answer),
                // Its time was over, or something else came in between.
                None => {
                    tracing::warn!(to, ?answer, "an answer that nobody waits for");
                    Ok(())
                }
            },
            BenchEvent::Progress(progress) => self.take(Event::PassProgress { progress }),
            BenchEvent::Sensed(sensed) => self.take_readings(sensed),
            BenchEvent::Noticed(incidents) => self.take(Event::Noticed { incidents }),
            BenchEvent::OthersBusy(busy) => {
                let busy = busy.into_iter().filter(|(_, percent)| *percent >= WORTH_A_WORD);
                let others: Vec<Other> = busy.map(|(name, percent)| Other { name, percent: percent.round() }).collect();
                if others.is_empty() { Ok(()) } else { self.take(Event::OthersBusy { others }) }
            }
        }
    }

    /// Takes the answer to an order.
    fn take_answer(&mut self, order: Order, answer: Answer) -> Result<()> {
        match (order, answer) {
            (Order::Apply(_), Answer::InForce(read_back)) => {
                let reported = self.in_force(read_back)?;
                self.take(Event::Applied { reported })
            }
            (_, Answer::Failed(incident)) => self.take(Event::ApplyFailed { incident }),
            (Order::Confirm(_), Answer::InForce(read_back)) => {
                let started_anew = read_back.started_anew;
                let reported = self.in_force(read_back)?;
                let noted = std::mem::take(&mut self.noted);
                self.take(Event::ChangeMade { reported, started_anew, noted })
            }
            (Order::Prepare(errand), Answer::Prepared) => self.begin_errand(&errand),
            (Order::StartAnew, Answer::StartingAnew) => self.take(Event::OperatorSaid { said: Said::Suspend }),
            (Order::StartAnew, Answer::NotStartedAnew(why)) => {
                let problem = climbing::not_started_anew(&why);
                tracing::error!(problem);
                (self.listener)(Notice::LeftBehind { problem });
                self.starts_for.clear();
                Ok(())
            }
            (Order::Show { .. }, Answer::Shown(shown)) => {
                (self.listener)(Notice::Shown(shown.clone()));
                self.shown = Some(shown);
                self.answer_by_script()
            }
            (Order::Run(_), Answer::Ended(mut report, read_back)) => {
                self.readings.move_peaks_to(&mut report);
                self.write_samples()?;
                let reported = Some(self.in_force(read_back)?);
                self.take(Event::PassEnded { report: *report, reported })
            }
            (order, answer) => {
                tracing::error!(?order, ?answer, "no answer to that");
                Ok(())
            }
        }
    }

    /// Has somebody go on an errand for which all is ready: the machine itself, a script, or whoever reads the card.
    fn begin_errand(&mut self, errand: &Errand) -> Result<()> {
        if errand.changes().iter().all(|change| self.starts_for.contains(&change.setting)) {
            self.give(Order::StartAnew);
            return Ok(());
        }
        self.answer_by_script()
    }

    /// Answers what is asked where a script does.
    fn answer_by_script(&mut self) -> Result<()> {
        self.operator.scripted_answer().map_or(Ok(()), |said| self.hear(said))
    }

    /// What is in force as it was read back; from a start on the record is of another boot.
    fn in_force(&mut self, read_back: ReadBack) -> Result<InForce> {
        if read_back.started_anew && !self.bench.is_virtual() {
            self.boot = self.bench.identity().id;
        }
        self.say_why(|unreadable| unreadable.0 = read_back.unread)?;
        Ok(read_back.in_force)
    }

    /// Tells why settings and sensors can't be read, where that is news.
    fn say_why(&mut self, hear: impl FnOnce(&mut Unreadable)) -> Result<()> {
        let mut unreadable = self.unreadable.clone();
        hear(&mut unreadable);
        if unreadable == self.unreadable {
            return Ok(());
        }
        self.unreadable.clone_from(&unreadable);
        let (settings, sensors) = unreadable;
        tracing::warn!(?settings, ?sensors, "can't be read");
        self.take(Event::Unreadable { settings, sensors })
    }

    fn take_readings(&mut self, Sensed { mut readings, silent }: Sensed) -> Result<()> {
        self.say_why(|unreadable| unreadable.1.clone_from(&silent))?;
        let now = self.bench.now();
        let is_due = self.readings.is_due(now);
        self.readings.drop_stuck(&mut readings, is_due);
        if !is_due && !self.climb.is_over_cut_off(&readings) {
            return Ok(());
        }
        self.readings.keep(now, &readings);
        let highest = self.readings.highest();
        if self.readings.should_be_written() {
            self.write_samples()?;
        }
        self.take(Event::Sample { readings, highest })
    }

    fn write_samples(&mut self) -> Result<()> {
        let waiting = self.readings.take_waiting();
        if !waiting.is_empty() {
            self.store.add_samples(&self.id, &waiting).context(climbing::SAMPLES_NOT_WRITTEN)?;
        }
        Ok(())
    }

    /// Takes an event, and carries out what the engine decides on it.
    fn take(&mut self, event: Event) -> Result<()> {
        self.is_leaving |= matches!(event, Event::OperatorSaid { said: Said::Leave | Said::Suspend | Said::NotToday });
        let step = self.climb.next(self.bench.now(), &event);
        self.record(&event, &step)?;
        self.keep_read(&step)?;
        self.tell(event, &step);
        self.guard();
        if let Some(command) = step.command {
            self.carry_out(command)?;
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
        self.store.append(&self.id, &line).context(climbing::LINE_NOT_WRITTEN)
    }

    /// What somebody read stands among what instruments read.
    fn keep_read(&mut self, step: &Step) -> Result<()> {
        let read = |entry: &Entry| match entry {
            Entry::Read { readings, .. } => Some(readings.clone()),
            _ => None,
        };
        let read: BTreeMap<String, f64> = step.entries.iter().filter_map(read).flatten().collect();
        if read.is_empty() {
            return Ok(());
        }
        self.readings.note(step.at, read);
        self.write_samples()
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
        if self.foresees {
            (self.listener)(Notice::Outlook(self.climb.outlook().map(Box::new), self.climb.rest(at)));
        }
    }

    /// Keeps the machine's watchdog fed while a trial goes on, and at rest otherwise.
    fn guard(&mut self) {
        // In trouble nothing but a restart helps any more: the watchdog is left to it.
        if !self.climb.is_in_trouble() {
            self.bench.guard(self.climb.is_on_trial());
        }
    }

    /// Puts back what was there before the climb, beside the settings that went back to stock.
    fn put_back(&mut self) {
        let problems = match answer_to(&mut *self.bench, Order::PutBack, PUTTING_BACK) {
            Some(Answer::PutBack(problems)) => problems,
            _ => vec![climbing::NOT_PUT_BACK.to_owned()],
        };
        for problem in problems {
            tracing::error!(problem, "left behind");
            (self.listener)(Notice::LeftBehind { problem });
        }
    }

    /// Gives the order that carries out a command.
    fn carry_out(&mut self, command: Command) -> Result<()> {
        tracing::debug!(?command, "carrying out");
        match command {
            Command::Apply(errand) => self.give(Order::Apply(errand)),
            Command::Ask(question) => {
                self.shown = None;
                match (question.errand(), &question) {
                    (Some(errand), _) => self.give(Order::Prepare(errand.clone())),
                    (None, Question::Make { load, length, .. }) if self.bench.is_virtual() => {
                        self.give(Order::Show { load: load.clone(), length: *length });
                    }
                    (None, _) => self.answer_by_script()?,
                }
            }
            Command::RunPass(order) => {
                self.readings.begin_pass();
                self.give(Order::Run(order));
            }
            Command::StopPass => self.bench.order(self.orders.next(), Order::Break),
        }
        Ok(())
    }
}
