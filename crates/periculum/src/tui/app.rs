//! What the interface shows and where the operator is in it; events go in, words for the driver come out.

use std::collections::BTreeMap;
use std::sync::Arc;

use periculum_core::engine::{Outlook, Said};
use periculum_core::moment::{Moment, Span};
use periculum_core::plan::Plan;
use periculum_core::rig::Rig;
use periculum_core::series::Series;
use periculum_core::story::{Story, TrialStory};
use periculum_ledger::ClimbRow;
use ratatui::crossterm::event::{Event, KeyEventKind};
use tui_input::Input;
use tui_input::backend::crossterm::EventHandler;

use super::keys::{self, Action, Step};
use super::library::Library;
use super::theme::Theme;
use crate::notice::{self, Notice};

/// The climb's place in the ledger.
#[derive(Clone, Copy, Debug)]
pub(super) struct Heading {
    pub(super) number: i64,
    pub(super) seed: Option<u64>,
}

/// What the operator is in the middle of.
#[derive(Debug)]
pub(super) enum Mode {
    /// Nothing but watching.
    Watching,
    /// Reading what the view means.
    Help,
    /// Writing what the listed trials have.
    Finding(Input),
    /// Writing a note.
    Note(Input),
    /// Writing what was seen.
    Saw(Input),
    /// Asked whether to stop.
    Stopping,
    /// Asked whether to leave.
    Leaving,
}

impl Mode {
    pub(super) fn is_text(&self) -> bool {
        matches!(self, Self::Note(_) | Self::Saw(_) | Self::Finding(_))
    }
}

/// Which view fills the screen.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum View {
    /// Where we are, and what comes next.
    Climb,
    /// Two settings against each other.
    Map,
    /// The trials, one by one.
    Trials,
    /// What the rig is and may be.
    Rig,
    /// What the sensors read.
    Traces,
    /// Every climb of the ledger.
    Climbs,
}

/// A climb with all that is shown of it.
pub(super) struct Climbed {
    pub(super) heading: Heading,
    pub(super) rig: Arc<Rig>,
    pub(super) plan: Arc<Plan>,
    pub(super) story: Story,
    pub(super) outlook: Option<Outlook>,
    pub(super) traces: BTreeMap<String, Series>,
}

/// The interface.
pub(super) struct App {
    pub(super) view: View,
    /// The trial that views of single trials show; none for the newest.
    pub(super) selected: Option<u32>,
    /// Words that the listed trials have; empty for all.
    pub(super) filter: String,
    /// What each sensor read, from the beginning.
    pub(super) traces: BTreeMap<String, Series>,
    /// Whether traces are those of the selected trial only.
    pub(super) shows_trial: bool,
    pub(super) heading: Heading,
    pub(super) rig: Arc<Rig>,
    pub(super) plan: Arc<Plan>,
    pub(super) story: Story,
    pub(super) outlook: Option<Outlook>,
    pub(super) theme: Theme,
    pub(super) mode: Mode,
    /// Whether the cores of the running pass stand where the climb's profile does.
    pub(super) shows_cores: bool,
    /// Whether a pause was asked for and has not come.
    pub(super) pause_wanted: bool,
    /// Whether the driver has nothing more to tell.
    pub(super) is_driver_gone: bool,
    /// Whether the interface closes.
    pub(super) is_done: bool,
    is_leaving: bool,
    /// The climbs of the ledger, the newest first, as they were when they were last looked at, and the selected one.
    pub(super) climbs: Vec<ClimbRow>,
    pub(super) climb_at: usize,
    /// Why the ledger could not be looked into.
    pub(super) trouble: Option<String>,
    pub(super) library: Library,
    /// The climb that is driven, while another one is shown.
    parked: Option<Climbed>,
    /// What could not be put back, to be told when the interface is closed.
    pub(super) left_behind: Vec<String>,
}

impl App {
    pub(super) fn new(heading: Heading, rig: Arc<Rig>, plan: Arc<Plan>, story: Story, theme: Theme) -> Self {
        let shows_cores = plan.climbed_setting().is_none();
        Self {
            view: View::Climb,
            selected: None,
            filter: String::new(),
            traces: BTreeMap::new(),
            shows_trial: false,
            heading,
            rig,
            plan,
            shows_cores,
            story,
            outlook: None,
            theme,
            mode: Mode::Watching,
            pause_wanted: false,
            is_driver_gone: false,
            is_done: false,
            is_leaving: false,
            climbs: Vec::new(),
            climb_at: 0,
            trouble: None,
            library: Library::default(),
            parked: None,
            left_behind: Vec::new(),
        }
    }

    /// Whether the climb has ended.
    pub(super) fn is_over(&self) -> bool {
        self.story.ended.is_some()
    }

    /// Whether the climb that is driven has ended, whichever is shown.
    fn has_ended(&self) -> bool {
        self.parked.as_ref().map_or(self.is_over(), |live| live.story.ended.is_some())
    }

    /// Whether the next word from the operator is to go on.
    pub(super) fn waits_for_go(&self) -> bool {
        !self.is_over() && (self.story.is_paused || self.pause_wanted)
    }

    /// Whether another climb is shown than the one that the interface was opened for.
    pub(super) fn shows_another(&self) -> bool {
        self.parked.is_some()
    }

    /// Whether the climb that is driven asks something while another one is shown.
    pub(super) fn is_asked_elsewhere(&self) -> bool {
        self.parked.as_ref().is_some_and(|live| live.story.question.is_some())
    }

    /// Takes in what the driver tells: the climb that is driven hears it, whichever is shown.
    pub(super) fn hear(&mut self, notice: Notice) {
        let mut parked = self.parked.take();
        if let Some(live) = &mut parked {
            self.exchange(live);
        }
        self.take_in(notice);
        if let Some(live) = &mut parked {
            self.exchange(live);
        }
        self.parked = parked;
    }

    /// Shows another climb, and hands back the one that was shown.
    fn exchange(&mut self, other: &mut Climbed) {
        std::mem::swap(&mut self.heading, &mut other.heading);
        std::mem::swap(&mut self.rig, &mut other.rig);
        std::mem::swap(&mut self.plan, &mut other.plan);
        std::mem::swap(&mut self.story, &mut other.story);
        std::mem::swap(&mut self.outlook, &mut other.outlook);
        std::mem::swap(&mut self.traces, &mut other.traces);
    }

    /// Goes back to the climb that the interface was opened for.
    fn close_other(&mut self) {
        if let Some(mut live) = self.parked.take() {
            self.exchange(&mut live);
            self.selected = None;
        }
    }

    /// Opens the selected climb of the ledger.
    fn open_other(&mut self) {
        let Some(number) = self.climbs.get(self.climb_at).map(|row| row.climb) else { return };
        self.close_other();
        if number != self.heading.number {
            match self.library.open(number) {
                Ok(mut other) => {
                    self.exchange(&mut other);
                    self.parked = Some(other);
                    self.selected = None;
                }
                Err(why) => return self.trouble = Some(format!("climb {number} can't be opened: {why:#}")),
            }
        }
        self.view = View::Climb;
    }

    /// Looks into the ledger anew.
    fn list_climbs(&mut self) {
        match self.library.climbs() {
            Ok(climbs) => (self.climbs, self.trouble) = (climbs, None),
            Err(why) => self.trouble = Some(format!("the ledger can't be read: {why:#}")),
        }
        self.climb_at = self.climbs.iter().position(|row| row.climb == self.heading.number).unwrap_or(0);
    }

    fn take_in(&mut self, notice: Notice) {
        notice::take(&mut self.story, &notice);
        match notice {
            Notice::Outlook(outlook) => self.outlook = outlook.map(|outlook| *outlook),
            Notice::Told { .. } => self.pause_wanted &= !self.story.is_paused && !self.is_over(),
            Notice::LeftBehind { problem } => self.left_behind.push(problem),
            Notice::Sample { at, readings } => {
                for (sensor, reading) in readings {
                    self.traces.entry(sensor).or_default().push(at, reading);
                }
            }
            Notice::Progress { .. } => {}
        }
    }

    /// The driver has told all: the climb is over and stays on the screen, or the operator has left.
    pub(super) fn driver_is_gone(&mut self) {
        self.is_driver_gone = true;
        self.is_done |= self.is_leaving || !self.has_ended();
    }

    /// The interface is to close: at once when the climb is over, else when the driver has left it in good order.
    pub(super) fn end(&mut self) {
        self.is_leaving = true;
        self.is_done |= self.is_driver_gone || self.has_ended();
    }

    /// Takes in what the terminal tells, and answers with what the operator says to the driver.
    pub(super) fn press(&mut self, event: &Event) -> Vec<Said> {
        let Event::Key(pressed) = event else { return Vec::new() };
        if pressed.kind == KeyEventKind::Release {
            return Vec::new();
        }
        match keys::action(self, *pressed) {
            Some(action) => self.act(action).into_iter().collect(),
            None => {
                if let Mode::Note(input) | Mode::Saw(input) | Mode::Finding(input) = &mut self.mode {
                    input.handle_event(event);
                }
                if let Mode::Finding(input) = &self.mode {
                    self.filter = input.value().to_owned();
                }
                Vec::new()
            }
        }
    }

    fn act(&mut self, action: Action) -> Option<Said> {
        match action {
            Action::PauseOrGoOn => return Some(self.pause_or_go_on()),
            Action::SawSomething => self.mode = Mode::Saw(Input::default()),
            Action::AddNote => self.mode = Mode::Note(Input::default()),
            Action::Stop => self.mode = Mode::Stopping,
            Action::Leave => return self.leave(),
            Action::Help => self.mode = Mode::Help,
            Action::ShowCores => self.shows_cores = true,
            Action::ShowClimb => self.shows_cores = false,
            Action::AnswerDone => return Some(Said::Done),
            Action::AnswerNoStart => return Some(Said::NoStart),
            Action::AnswerDefaults => return Some(Said::Defaults),
            Action::Confirm => return self.confirm(),
            Action::StopFromLeaving => {
                self.mode = Mode::Watching;
                return Some(Said::Stop);
            }
            Action::Back => {
                if matches!(self.mode, Mode::Finding(_) | Mode::Watching) {
                    self.filter.clear();
                }
                self.mode = Mode::Watching;
            }
            Action::Show(view) => {
                self.view = view;
                if view == View::Climbs {
                    self.list_climbs();
                }
            }
            Action::Open => self.open_other(),
            Action::CloseOther => self.close_other(),
            Action::Zoom => self.shows_trial = !self.shows_trial,
            Action::Find => self.mode = Mode::Finding(Input::new(self.filter.clone())),
            Action::Select(step) => self.select(step),
        }
        None
    }

    /// The trials that have every word of the filter, in order.
    pub(super) fn found(&self) -> Vec<&TrialStory> {
        let words: Vec<String> = self.filter.to_lowercase().split_whitespace().map(str::to_owned).collect();
        let has_all = |trial: &&TrialStory| words.is_empty() || has_words(trial, &self.rig, &words);
        self.story.trials.iter().filter(has_all).collect()
    }

    /// The number of the trial that is shown: the selected one while it is among those found, else the newest of them.
    pub(super) fn selected_trial(&self) -> Option<u32> {
        let found = self.found();
        let selected = self.selected.filter(|number| found.iter().any(|trial| trial.number == *number));
        selected.or(found.last().map(|trial| trial.number))
    }

    /// When the selected trial began and ended; the open one has not ended yet.
    pub(super) fn selected_span(&self) -> Option<(Moment, Moment)> {
        let trials = &self.story.trials;
        let number = self.selected_trial()? as usize;
        let end = trials.get(number).map_or(self.story.latest, |next| next.began);
        Some((trials.get(number - 1)?.began, end))
    }

    /// The stretch of time that traces show; none before anything was read.
    pub(super) fn stretch(&self) -> Option<(Moment, Moment)> {
        let spans = self.traces.values().filter_map(Series::span);
        let whole = spans.reduce(|(from, to), (begin, end)| (from.min(begin), to.max(end)))?;
        let trial = self.selected_span().filter(|(from, to)| self.shows_trial && from < to);
        let (from, to) = trial.unwrap_or(whole);
        // The last reading belongs to it.
        Some((from, to + Span::from_millis(1)))
    }

    fn select(&mut self, step: Step) {
        if self.view == View::Climbs {
            self.climb_at = step.from(self.climb_at, self.climbs.len());
            return;
        }
        let found = self.found();
        let selected = self.selected_trial();
        let at = found.iter().position(|trial| Some(trial.number) == selected).unwrap_or(0);
        let to = step.from(at, found.len());
        // At the newest one it stays at whatever is the newest.
        let is_newest = to + 1 >= found.len();
        self.selected = found.get(to).filter(|_| !is_newest).map(|trial| trial.number);
    }

    fn pause_or_go_on(&mut self) -> Said {
        if self.waits_for_go() {
            self.pause_wanted = false;
            return Said::Resume;
        }
        self.pause_wanted = true;
        Said::Pause
    }

    fn leave(&mut self) -> Option<Said> {
        if self.is_over() || self.is_driver_gone {
            self.is_done = true;
        } else {
            self.mode = Mode::Leaving;
        }
        None
    }

    fn confirm(&mut self) -> Option<Said> {
        match std::mem::replace(&mut self.mode, Mode::Watching) {
            Mode::Note(input) if input.value().trim().is_empty() => None,
            Mode::Note(input) => Some(Said::Note { text: input.value().trim().to_owned() }),
            Mode::Saw(input) => Some(Said::Saw { text: input.value().trim().to_owned() }),
            Mode::Stopping => Some(Said::Stop),
            Mode::Leaving => {
                self.is_leaving = true;
                Some(Said::Leave)
            }
            Mode::Watching | Mode::Help | Mode::Finding(_) => None,
        }
    }
}

/// Whether each of these words, in small letters, is somewhere in what is told of a trial.
fn has_words(trial: &TrialStory, rig: &Rig, words: &[String]) -> bool {
    let verdict = trial.verdict.map_or("open", |verdict| verdict.name());
    let incident = trial.incident.map_or("", |kind| kind.name());
    let told = format!(
        "{} {} {verdict} {incident} {} {}",
        trial.number,
        rig.written(&trial.rung),
        trial.put_to(),
        trial.reason.because(rig)
    );
    let told = told.to_lowercase();
    words.iter().all(|word| told.contains(word))
}
