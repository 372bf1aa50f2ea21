//! A climb without the interface: one line a trial, or one JSON object an entry.

mod json;

use std::collections::BTreeSet;
use std::io::IsTerminal;
use std::mem;
use std::path::PathBuf;
use std::process::ExitCode;
use std::sync::Arc;

use anyhow::Result;
use periculum_core::analysis::claim::Claim;
use periculum_core::analysis::faster::Faster;
use periculum_core::analysis::harder::Harder;
use periculum_core::engine::Entry;
use periculum_core::model::moment::Span;
use periculum_core::model::pass::{Progress, Workload};
use periculum_core::model::plan::Plan;
use periculum_core::model::quantity::{counted, harmless, measured, scored};
use periculum_core::model::rig::Rig;
use periculum_core::model::strategy::Aim;
use periculum_core::model::verdict::Verdict;
use periculum_core::story::{Story, TrialStory};
use periculum_core::telling::{
    answers_to, ask, claim_sentence, faster_words, harder_words, mark_sentence, tell, whereabouts,
};

use crate::cli::{Output, Pace};
use crate::climbing::Prepared;
use crate::driving::Operator;
use crate::driving::Parting;
use crate::exit::exit_code;
use crate::notice::{self, Notice};
use crate::output::{complain, say_styled};
use crate::recalling::tell_past;
use crate::telling::screens::shown as shown_words;
use crate::telling::{climbing, headless as said};
use crate::{interrupt, places};

/// How the lines look.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Style {
    /// One line a trial, and a moving line of progress where it would be seen.
    Lines,
    /// One JSON object a line.
    Json,
}

/// Drives a climb to its end and tells its exit code.
pub(crate) fn drive(prepared: Prepared, output: &Output, pace: Option<Pace>) -> Result<ExitCode> {
    Ok(drive_to_story(prepared, output, pace)?.0)
}

/// Drives a climb to its end and tells its exit code and its story.
pub(crate) fn drive_to_story(prepared: Prepared, output: &Output, pace: Option<Pace>) -> Result<(ExitCode, Story)> {
    let (words, mut operator) = Operator::new();
    interrupt::listen(words.clone(), None, || {})?;
    let (rig, is_simulated) = (&prepared.briefing.rig, prepared.briefing.adapters.is_simulated());
    let is_led = prepared.briefing.plan.stages.iter().any(|stage| stage.strategy.aim() == Aim::Follow);
    let needs_hands = rig
        .settings
        .iter()
        .any(|setting| !is_simulated || setting.takes_effect.needs_somebody() || setting.wants_a_word());
    let needs_somebody = is_led || needs_hands;
    match &output.answers {
        Some(path) => operator.read_script(path)?,
        None if needs_somebody => operator.listen_to_stdin(words.clone()),
        None => {}
    }
    let style = if output.json { Style::Json } else { Style::Lines };
    let briefing = &prepared.briefing;
    let (rig, plan) = (Arc::clone(&briefing.rig), Arc::clone(&briefing.plan));
    let starting = rig.settings.iter().filter(|setting| plan.restarts_itself && setting.needs_start());
    let starts_for: BTreeSet<String> = starting.map(|setting| setting.name.clone()).collect();
    let mut printer =
        Printer::new(style, output.rounds, (rig, Arc::clone(&plan)), tell_past(&prepared.past), prepared.ledger_path());
    let (mut driver, first, _claim) = prepared.driver(operator, pace, |notice| printer.take(&notice));
    driver.starts_for = starts_for;
    let parting = driver.drive(first, |_| false)?;
    drop((driver, words));
    let code = printer.finish(parting, &plan);
    Ok((code, printer.story))
}

struct Printer {
    style: Style,
    rig: Arc<Rig>,
    plan: Arc<Plan>,
    story: Story,
    ledger: PathBuf,
    /// Whether a line of progress stands on the terminal and has to be written over.
    has_progress: bool,
    /// Whether the operator was told what can be said in a turn.
    has_led: bool,
    shows_progress: bool,
    /// Whether each round has a line, and how many were told of the running pass.
    tells_rounds: bool,
    told_rounds: u64,
    /// Load and length of the running pass.
    load: String,
    length: Span,
    /// What was last told about its workload.
    workload: Option<Workload>,
}

impl Printer {
    fn new(
        style: Style,
        tells_rounds: bool,
        (rig, plan): (Arc<Rig>, Arc<Plan>),
        story: Story,
        ledger: PathBuf,
    ) -> Self {
        let shows_progress = style == Style::Lines && std::io::stdout().is_terminal();
        Self {
            style,
            rig,
            plan,
            story,
            ledger,
            has_progress: false,
            has_led: false,
            shows_progress,
            tells_rounds,
            told_rounds: 0,
            load: String::new(),
            length: Span::ZERO,
            workload: None,
        }
    }

    fn take(&mut self, notice: &Notice) {
        // Lines say nothing of single readings, which come by the hundred thousand.
        if matches!(notice, Notice::Sample { .. }) {
            return;
        }
        notice::take(&mut self.story, notice);
        match (notice, self.style) {
            (Notice::Told { at, entry }, Style::Json) => {
                json::print(&json::Entry::of(*at, entry, &self.rig));
                if let Entry::MarkSet { mark } = entry
                    && let Some(claim) = Claim::of_mark(&self.story, &self.rig, &self.plan, mark)
                {
                    let harder = Harder::of_mark(&claim, (&self.story, &self.rig, &self.plan), mark);
                    json::print(&json::Claimed::of(*at, mark, &claim, harder.as_ref()));
                }
            }
            (Notice::Progress { at, progress }, Style::Json) => {
                json::print(&json::Progress::of(*at, progress));
            }
            (Notice::Shown(shown), Style::Json) => json::print(&json::Seen::of(shown)),
            (Notice::Shown(shown), Style::Lines) => self.print(&said::shows(shown_words(shown))),
            (Notice::Misheard { why }, _) => complain(said::problem(why)),
            (Notice::LeftBehind { problem }, _) => {
                complain(climbing::left_behind(problem));
            }
            (Notice::Told { entry, .. }, Style::Lines) => self.print_entry(entry),
            (Notice::Progress { progress, .. }, Style::Lines) => {
                self.print_workload(progress);
                if self.tells_rounds {
                    self.print_rounds(progress);
                }
                if self.shows_progress {
                    self.print_progress(progress);
                }
            }
            _ => {}
        }
    }

    fn print_entry(&mut self, entry: &Entry) {
        match entry {
            Entry::TrialEnded { verdict, .. } => self.print_trial(*verdict),
            Entry::PassEnded { .. } => self.print_silent(),
            Entry::MarkSet { mark } => {
                let trial = self.story.trial(mark.trial);
                let faster = trial.and_then(|trial| Faster::of(&self.story, trial));
                let claim = Claim::of_mark(&self.story, &self.rig, &self.plan, mark);
                self.print(&said::marked(mark_sentence(mark, &self.rig)));
                claim.iter().for_each(|claim| self.print(&said::besides(claim_sentence(claim))));
                faster.iter().for_each(|faster| self.print(&said::besides(faster_words(faster))));
            }
            Entry::MarkWithdrawn { mark, trial } => {
                self.print(&said::withdrawn(trial, mark_sentence(mark, &self.rig)));
            }
            Entry::StageEnded { stage, end } => {
                self.print(&said::stage_over(stage + 1, end.sentence(&self.rig)));
            }
            Entry::Asked { question, .. } => {
                let asked = ask(question, &self.rig);
                // Who leads is asked often, and needs the words once.
                if question.turn().is_some() && mem::replace(&mut self.has_led, true) {
                    self.print(&said::asked_again(asked));
                } else {
                    self.print(&said::asked(asked, answers_to(question, &self.rig)));
                }
            }
            Entry::CeilingRaised { .. }
            | Entry::OthersBusy { .. }
            | Entry::ProfileSaved { .. }
            | Entry::RigChanged { .. }
            | Entry::Confirmed { .. }
            | Entry::Declined { .. } => {
                self.print(&format!("     {}", tell(entry, &self.rig).unwrap_or_default()));
            }
            Entry::Incident { trial: None, incident, .. } => self.print(&format!("     {incident}")),
            Entry::PassBegan { order, .. } => {
                if self.load != order.load {
                    self.workload = None;
                }
                self.told_rounds = 0;
                (self.load, self.length) = (order.load.clone(), order.length);
            }
            Entry::Ended { end, trials, falls, tested, not_at_stock, left_at, .. } => {
                let sums = said::trials_so_far(counted(*trials, "trial"), falls, tested);
                let left = whereabouts(not_at_stock, left_at.as_ref(), &self.rig);
                self.print(&format!("     {}: {sums}; {left}", end.sentence()));
                let of_stock = Claim::of_stock(&self.story, &self.rig, &self.plan);
                of_stock.iter().for_each(|claim| self.print(&said::of_stock(claim_sentence(claim))));
                let climb = (&self.story, &*self.rig, &*self.plan);
                let harder = |mark| Harder::of_mark(&Claim::of_mark(climb.0, climb.1, climb.2, mark)?, climb, mark);
                let harder = self.story.marks.last().and_then(harder);
                harder.iter().for_each(|harder| self.print(&said::harder(harder_words(harder, &self.rig))));
            }
            _ => {}
        }
    }

    /// Sensors that have read nothing in the first pass: their source, or what they ask, may be wrong.
    fn print_silent(&mut self) {
        if self.story.trials.iter().flat_map(TrialStory::finished).nth(1).is_some() {
            return;
        }
        let silent = self.story.silent(&self.rig);
        let lines: Vec<String> =
            silent.iter().map(|sensor| said::has_read_nothing(&sensor.label, &sensor.source)).collect();
        lines.iter().for_each(|line| self.print(line));
    }

    fn print_trial(&mut self, verdict: Verdict) {
        let Some(trial) = self.story.trials.last() else { return };
        let rung = self.rig.written(&trial.rung);
        let worst = self.story.incidents.iter().rev().find(|told| told.trial == Some(trial.number));
        let ending = match (worst, trial.score()) {
            (Some(told), _) => told.incident.to_string(),
            (None, Some(score)) if verdict == Verdict::Void => said::too_low(measured(score.value, 1), &score.unit),
            (None, Some(score)) => format!("{} {}", measured(score.value, 1), score.unit),
            (None, None) => String::new(),
        };
        let line = format!(
            "{:>4} {} {verdict:<7} {rung}  {}  {}  {ending}",
            trial.number,
            verdict.sign(),
            trial.put_to(),
            trial.tested
        );
        self.print(line.trim_end());
    }

    /// What a pass works on, once it is known.
    fn print_workload(&mut self, progress: &Progress) {
        let is_same = |told: &Workload, now: &Workload| (told.size, told.bytes) == (now.size, now.bytes);
        let told = self.workload.take();
        self.workload = progress.workload.clone().or(told.clone());
        let Some(workload) = &progress.workload else { return };
        if told.is_some_and(|told| is_same(&told, workload)) {
            return;
        }
        self.print(&said::pass_runs(&self.load, workload, self.length));
    }

    /// A line for the rounds that were finished since the last one: where they are short, several together.
    fn print_rounds(&mut self, progress: &Progress) {
        let since = progress.rounds.saturating_sub(self.told_rounds);
        if since == 0 {
            return;
        }
        let rounds = if since == 1 {
            progress.rounds.to_string()
        } else {
            format!("{}–{}", self.told_rounds + 1, progress.rounds)
        };
        self.told_rounds = progress.rounds;
        let rate = progress.rate.as_ref().map(|rate| format!("  {} {}", scored(rate.value, rate.value), rate.unit));
        let (at, wrong) = (progress.done.clock(), counted(progress.errors, "error"));
        self.print(&format!("     {at}  round {rounds}{}  {wrong}", rate.unwrap_or_default()));
    }

    fn print_progress(&mut self, progress: &Progress) {
        let rate =
            progress.rate.as_ref().map_or("–".into(), |rate| format!("{} {}", measured(rate.value, 1), rate.unit));
        write(&said::progress(
            progress.done.clock(),
            self.length.clock(),
            &rate,
            counted(progress.rounds, "round"),
            counted(progress.errors, "error"),
            (self.length - progress.done).clock(),
        ));
        self.has_progress = true;
    }

    fn print(&mut self, line: &str) {
        let wiped = if std::mem::take(&mut self.has_progress) { "\r\x1b[K" } else { "" };
        write(&format!("{wiped}{}\n", harmless(line)));
    }

    fn finish(&mut self, parting: Parting, plan: &Plan) -> ExitCode {
        if parting == Parting::Waiting && self.style == Style::Lines {
            let waits = match &self.story.question {
                Some(question) => said::waits_for(ask(question, &self.rig)),
                None => said::WAITS.into(),
            };
            let resume = places::typed("resume", &self.ledger);
            self.print(&said::resume_goes_on(&waits, &resume));
        }
        exit_code(parting, &self.story, plan)
    }
}

/// Lines on a terminal carry the sequences that write over a line of progress.
fn write(text: &str) {
    say_styled(text);
}
