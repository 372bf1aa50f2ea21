//! What the interface shows and where the operator is in it; events go in, words for the driver come out.

mod keys;
mod saving;
mod selection;

use std::cell::Cell;
use std::path::PathBuf;

use periculum_core::engine::Said;
use periculum_core::story::finding::Query;
use periculum_core::story::stretch::Stretch;
use ratatui::crossterm::event::{
    Event, KeyCode, KeyEvent, KeyEventKind, KeyModifiers, MouseButton, MouseEvent, MouseEventKind,
};
use tui_input::backend::crossterm::EventHandler;
use tui_input::{Input, InputRequest};

use super::action::{Action, Travel, View};
use super::climbed::Climbed;
use super::draft::Draft;
use super::library::{Library, Read};
use super::picked::Picks;
use super::pointing::{Places, Target};
use super::shelf::Shelf;
use super::telling;
use super::theme::Theme;
use crate::climbing::Wanted;
use crate::notice::Notice;

/// What the operator is in the middle of.
#[derive(Debug)]
pub(super) enum Mode {
    /// Nothing but watching.
    Watching,
    /// Reading what the view means.
    Help,
    /// Writing what the listed trials have.
    Finding(Input),
    /// Writing the name of the file that the view is drawn into.
    Saving(Input),
    /// Writing another value on a line of the plan.
    Changing(Input),
    /// Writing what comes into the plan besides.
    Adding(Input),
    /// Asked whether to give up what was changed in the plan.
    Dropping,
    /// Writing a note.
    Note(Input),
    /// Writing what was seen, in the trial that ran then.
    Saw(Input, Option<u32>),
    /// Asked whether to climb this climb again.
    Repeating(i64),
    /// Asked whether to climb the plan of this file.
    Beginning(PathBuf),
    /// Asked whether to stop.
    Stopping,
    /// Asked whether to leave.
    Leaving,
}

impl Mode {
    pub(super) fn is_text(&self) -> bool {
        !matches!(
            self,
            Self::Watching
                | Self::Help
                | Self::Stopping
                | Self::Leaving
                | Self::Dropping
                | Self::Repeating(_)
                | Self::Beginning(_)
        )
    }

    /// What is being written.
    fn input(&mut self) -> Option<&mut Input> {
        match self {
            Self::Note(input)
            | Self::Saw(input, _)
            | Self::Finding(input)
            | Self::Saving(input)
            | Self::Changing(input)
            | Self::Adding(input) => Some(input),
            Self::Watching
            | Self::Help
            | Self::Stopping
            | Self::Leaving
            | Self::Dropping
            | Self::Repeating(_)
            | Self::Beginning(_) => None,
        }
    }
}

/// The interface.
pub(super) struct App {
    pub(super) view: View,
    /// The climb that all views show.
    pub(super) shown: Climbed,
    /// The trial that views of single trials show; none for the newest.
    pub(super) selected: Option<u32>,
    /// What the listed trials and climbs have; empty for all.
    pub(super) filter: String,
    /// The numbers of the trials that have it, in order.
    found: Vec<u32>,
    /// Which benchmark scores are shown of.
    benchmark_at: usize,
    /// Whether traces are those of the selected trial only.
    pub(super) shows_trial: bool,
    /// The part that traces show, where it is neither the climb nor a trial.
    looked_at: Option<Stretch>,
    /// Which thing that went wrong was looked at last, by its place in the record.
    incident: Option<usize>,
    /// Whether traces show the picked trials over each other.
    pub(super) lays_over: bool,
    /// Which sensor stands first in the traces, and for how many there was no room when they were drawn last.
    pub(super) first_sensor: usize,
    pub(super) sensors_left: Cell<usize>,
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
    /// Whether the whole program is to stand still until it is woken.
    pub(super) wants_to_stand_still: bool,
    is_leaving: bool,
    /// The climbs of the ledger.
    pub(super) shelf: Shelf,
    /// What is compared.
    pub(super) picks: Picks,
    /// What came of the last thing that was done, until the next key.
    pub(super) told: Option<String>,
    /// How many lines down the view is scrolled, and how many it could be when it was drawn last.
    scrolled: usize,
    pub(super) scroll_room: Cell<usize>,
    /// What lies where on the screen.
    pub(super) places: Places,
    /// The plan that is being written.
    pub(super) draft: Option<Draft>,
    /// What is to be climbed when the interface is closed.
    pub(super) wanted: Option<Wanted>,
    /// The climb that is driven, while another one is shown.
    parked: Option<Climbed>,
    /// What could not be put back, to be told when the interface is closed.
    pub(super) left_behind: Vec<String>,
}

impl App {
    pub(super) fn new(shown: Climbed, library: Library, theme: Theme) -> Self {
        let mut app = Self {
            view: View::Climb,
            shows_cores: shown.plan.climbed_setting().is_none(),
            shown,
            selected: None,
            filter: String::new(),
            found: Vec::new(),
            benchmark_at: 0,
            shows_trial: false,
            looked_at: None,
            incident: None,
            lays_over: false,
            first_sensor: 0,
            sensors_left: Cell::new(0),
            theme,
            mode: Mode::Watching,
            pause_wanted: false,
            is_driver_gone: false,
            is_done: false,
            wants_to_stand_still: false,
            is_leaving: false,
            shelf: Shelf::of(library),
            picks: Picks::default(),
            scrolled: 0,
            scroll_room: Cell::new(0),
            told: None,
            places: Places::default(),
            draft: None,
            wanted: None,
            parked: None,
            left_behind: Vec::new(),
        };
        app.find();
        app
    }

    /// Whether the climb has ended.
    pub(super) fn is_over(&self) -> bool {
        self.shown.story.ended.is_some()
    }

    /// Whether the climb that is driven has ended, whichever is shown.
    fn has_ended(&self) -> bool {
        self.parked.as_ref().map_or(self.is_over(), |live| live.story.ended.is_some())
    }

    /// Whether the next word from the operator is to go on.
    pub(super) fn waits_for_go(&self) -> bool {
        !self.is_over() && (self.shown.story.is_paused || self.pause_wanted)
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
        let is_told = matches!(notice, Notice::Told { .. });
        if let Notice::LeftBehind { problem } = &notice {
            self.left_behind.push(problem.clone());
        }
        let live = self.parked.as_mut().unwrap_or(&mut self.shown);
        live.hear(notice);
        // What was asked about a climb that is over need not be answered any more.
        if live.story.ended.is_some() && matches!(self.mode, Mode::Leaving | Mode::Stopping | Mode::Saw(..)) {
            self.mode = Mode::Watching;
        }
        if is_told {
            self.pause_wanted &= !live.story.is_paused && live.story.ended.is_none();
            self.find();
        }
    }

    /// Takes in what was read of the ledger.
    pub(super) fn take_read(&mut self, read: Read) {
        self.shelf.take(read, &self.query());
        self.peep();
    }

    fn query(&self) -> Query {
        Query::of(&self.filter)
    }

    /// Looks again for what is looked for.
    fn find(&mut self) {
        self.found = self.shown.find(&self.query());
    }

    /// Looks for something else.
    fn look_for(&mut self, words: &str) {
        words.clone_into(&mut self.filter);
        self.find();
        self.shelf.find(&self.query());
    }

    /// Goes back to the climb that the interface was opened for.
    fn close_other(&mut self) {
        if let Some(live) = self.parked.take() {
            self.shown = live;
            (self.selected, self.looked_at) = (None, None);
            self.find();
        }
    }

    /// Opens the selected climb of the ledger.
    fn open_other(&mut self) {
        let Some(number) = self.shelf.selected() else { return };
        self.close_other();
        if number != self.shown.number {
            match self.shelf.library.open(number) {
                Ok(other) => {
                    self.parked = Some(std::mem::replace(&mut self.shown, other));
                    (self.selected, self.looked_at) = (None, None);
                    self.find();
                }
                Err(why) => return self.shelf.trouble = Some(format!("climb {number} can't be opened: {why:#}")),
            }
        }
        // What was looked for is among its trials.
        self.view = if self.filter.is_empty() { View::Climb } else { View::Trials };
    }

    /// Looks into the ledger anew.
    fn list_climbs(&mut self) {
        self.shelf.point_at(self.shown.number);
        self.shelf.read();
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
        if let Event::Mouse(mouse) = event {
            self.point(*mouse);
            self.peep();
        }
        if let Event::Paste(text) = event {
            self.paste(text);
        }
        let Event::Key(pressed) = event else { return Vec::new() };
        if pressed.kind == KeyEventKind::Release {
            return Vec::new();
        }
        self.told = None;
        if pressed.code == KeyCode::Char('z') && pressed.modifiers.contains(KeyModifiers::CONTROL) {
            self.stand_still();
            return Vec::new();
        }
        let said = self.press_key(event, *pressed);
        self.peep();
        said
    }

    /// Takes in text that was pasted: it is text, and no keys.
    fn paste(&mut self, text: &str) {
        let Some(input) = self.mode.input() else { return };
        for c in text.trim().chars().map(|c| if c.is_control() { ' ' } else { c }) {
            input.handle(InputRequest::InsertChar(c));
        }
        if let Mode::Finding(input) = &self.mode {
            let words = input.value().to_owned();
            self.look_for(&words);
        }
    }

    /// Lets the program stand still, but not while a pass runs: nobody would look at its cut-offs.
    fn stand_still(&mut self) {
        let live = self.parked.as_ref().unwrap_or(&self.shown);
        if self.is_driver_gone || live.story.running_pass().is_none() {
            self.wants_to_stand_still = true;
        } else {
            self.told = Some(telling::UNWATCHED.into());
        }
    }

    /// Looks at the selected climb of the list.
    fn peep(&mut self) {
        if self.view == View::Climbs {
            self.shelf.peep(self.shown.number);
        }
    }

    fn press_key(&mut self, event: &Event, pressed: KeyEvent) -> Vec<Said> {
        match self.meaning_of(pressed) {
            Some(action) => self.act(action).into_iter().collect(),
            None => {
                if let Some(input) = self.mode.input() {
                    input.handle_event(event);
                }
                if let Mode::Finding(input) = &self.mode {
                    let words = input.value().to_owned();
                    self.look_for(&words);
                }
                Vec::new()
            }
        }
    }

    /// What is clicked at is selected; the wheel moves the selection.
    fn point(&mut self, mouse: MouseEvent) {
        if !matches!(self.mode, Mode::Watching) {
            return;
        }
        match mouse.kind {
            MouseEventKind::ScrollUp if self.has_selection() => self.select(Travel::Back(1)),
            MouseEventKind::ScrollDown if self.has_selection() => self.select(Travel::On(1)),
            MouseEventKind::Down(MouseButton::Left) => match self.places.at(mouse.column, mouse.row) {
                Some(Target::Trial(number)) => self.select_trial(number),
                Some(Target::Climb(number)) => self.shelf.point_at(number),
                Some(Target::Line(at)) => self.draft.iter_mut().for_each(|draft| draft.point_at(at)),
                None => {}
            },
            _ => {}
        }
    }

    /// Selects a trial; where none is shown for itself, goes to where it is.
    fn select_trial(&mut self, number: u32) {
        self.selected = Some(number);
        if self.view == View::Climb {
            self.view = View::Trials;
        }
    }

    fn act(&mut self, action: Action) -> Option<Said> {
        match action {
            Action::PauseOrGoOn => return Some(self.pause_or_go_on()),
            Action::SawSomething => {
                let open = self.shown.story.open_trial().or(self.shown.story.trials.last());
                self.mode = Mode::Saw(Input::default(), open.map(|trial| trial.number));
            }
            Action::AddNote => self.mode = Mode::Note(Input::default()),
            Action::Stop => self.mode = Mode::Stopping,
            Action::Leave => return self.leave(),
            Action::Help => self.mode = Mode::Help,
            Action::ShowCores => self.shows_cores = true,
            Action::ShowClimb => self.shows_cores = false,
            Action::StopAtMark => {
                self.mode = Mode::Watching;
                return Some(Said::StopAtMark);
            }
            Action::Answer(answer) => return Some(answer.into()),
            Action::Confirm => return self.confirm(),
            Action::StopFromLeaving => {
                self.mode = Mode::Watching;
                return Some(Said::Stop);
            }
            Action::Back => {
                if matches!(self.mode, Mode::Finding(_) | Mode::Watching) {
                    self.look_for("");
                }
                self.mode = Mode::Watching;
            }
            Action::Show(view) => {
                (self.view, self.scrolled) = (view, 0);
                match view {
                    View::Climbs => self.list_climbs(),
                    View::Scores => self.shelf.read(),
                    View::Compare => self.compare(),
                    View::Plan => self.open_plan(),
                    _ => {}
                }
            }
            Action::Open => self.open_other(),
            Action::CloseOther => self.close_other(),
            Action::Zoom => (self.shows_trial, self.looked_at) = (!self.shows_trial, None),
            Action::Look(how) => self.look(how),
            Action::LookAtIncident => self.look_at_incident(),
            Action::MoreSensors => self.turn_sensors(),
            Action::LayOver => self.lays_over = !self.lays_over,
            Action::Find => self.mode = Mode::Finding(Input::new(self.filter.clone())),
            Action::Select(step) => self.select(step),
            Action::Turn(step) => self.benchmark_at = step.from(self.benchmark_at, self.benchmarks().len()),
            Action::ShowTrial => self.view = View::Trials,
            Action::Pick => self.pick(),
            Action::Save => self.mode = Mode::Saving(Input::new(self.name_of_file())),
            Action::DropPick => self.picks.drop_last(),
            Action::Begin => {
                if let Some(file) = self.draft.as_ref().and_then(Draft::file) {
                    self.mode = Mode::Beginning(file.to_owned());
                }
            }
            Action::Repeat => {
                let listed = self.shelf.selected().filter(|_| self.view == View::Climbs);
                self.mode = Mode::Repeating(listed.unwrap_or(self.shown.number));
            }
            Action::Change | Action::Add | Action::Copy | Action::Remove => self.act_on_plan(action),
            Action::Earlier | Action::Later | Action::Undo => self.act_on_plan(action),
        }
        None
    }

    fn act_on_plan(&mut self, action: Action) {
        let Some(draft) = &mut self.draft else { return };
        match action {
            Action::Change => self.mode = Mode::Changing(Input::new(draft.written().unwrap_or_default().to_owned())),
            Action::Add => self.mode = Mode::Adding(Input::default()),
            Action::Copy => draft.copy(),
            Action::Remove => draft.remove(),
            Action::Earlier => draft.shift(false),
            Action::Later => draft.shift(true),
            _ => draft.undo(),
        }
    }

    /// Shows the plan of the shown climb, unless one is being written.
    fn open_plan(&mut self) {
        let [rig, plan] = &self.shown.texts;
        if self.draft.as_ref().is_none_or(|draft| draft.is_of_another(self.shown.number)) {
            match Draft::of_climb(self.shown.number, rig, plan) {
                Ok(draft) => self.draft = Some(draft),
                Err(why) => self.told = Some(format!("{why:#}")),
            }
        }
    }

    /// Closes the interface for a climb.
    fn climb(&mut self, wanted: Option<Wanted>) {
        (self.wanted, self.is_done) = (wanted, true);
    }

    /// Whether a climb could be begun: none is driven, and nothing that was written is lost by it.
    pub(super) fn is_free(&self) -> bool {
        self.is_driver_gone && !self.draft.as_ref().is_some_and(Draft::is_changed)
    }

    /// Those that there was room for stand last then.
    fn turn_sensors(&mut self) {
        let all = self.shown.traced().count();
        self.first_sensor = (self.first_sensor + all - self.sensors_left.get()) % all.max(1);
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
        if self.draft.as_ref().is_some_and(Draft::is_changed) {
            (self.view, self.mode) = (View::Plan, Mode::Dropping);
        } else if self.is_over() || self.is_driver_gone {
            self.is_done = true;
        } else {
            self.mode = Mode::Leaving;
        }
        None
    }

    fn confirm(&mut self) -> Option<Said> {
        match std::mem::replace(&mut self.mode, Mode::Watching) {
            Mode::Note(input) | Mode::Saw(input, _) if input.value().trim().is_empty() => None,
            Mode::Note(input) => Some(Said::Note { text: input.value().trim().to_owned() }),
            Mode::Saw(input, trial) => Some(Said::Saw { text: input.value().trim().to_owned(), trial }),
            Mode::Saving(input) => {
                match self.save(input.value().trim()) {
                    Ok(told) => self.told = Some(told),
                    // What was typed can be mended.
                    Err(why) => (self.told, self.mode) = (Some(format!("{why:#}")), Mode::Saving(input)),
                }
                None
            }
            Mode::Changing(input) => {
                self.draft.iter_mut().for_each(|draft| draft.write(input.value()));
                None
            }
            Mode::Adding(input) => {
                self.draft.iter_mut().for_each(|draft| draft.add(input.value()));
                None
            }
            Mode::Dropping => {
                self.draft = None;
                self.leave()
            }
            Mode::Beginning(file) => {
                self.climb(Some(Wanted::Plan(file)));
                None
            }
            Mode::Repeating(number) => {
                self.climb(Some(Wanted::Again(number)));
                None
            }
            Mode::Stopping => Some(Said::Stop),
            Mode::Leaving => {
                self.is_leaving = true;
                Some(Said::Leave)
            }
            Mode::Watching | Mode::Help | Mode::Finding(_) => None,
        }
    }
}
