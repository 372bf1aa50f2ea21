//! What the interface shows and where the operator is in it; events go in, words for the driver come out.

mod general;

use std::path::Path;

use periculum_core::engine::{Answer, Entered, Entry as Told, Field, Said};
use periculum_core::model::rig_change::RigChange;
use periculum_core::telling::{declined_words, mark_sentence, misfit_words};
use ratatui::Frame;
use ratatui::crossterm::event::{
    Event, KeyCode, KeyEvent, KeyEventKind, KeyModifiers, MouseButton, MouseEvent, MouseEventKind,
};
use ratatui::layout::{Constraint, Layout, Margin, Rect};

use super::calls::Occasion;
use super::climbed::Climbed;
use super::desk::Desk;
use super::keys::Key;
use super::library::{Library, Read};
use super::overlays::{self, Below, Card, Deed, Entry, Finder, Overlay, Purpose};
use super::pointing::Target;
use super::preferences::Preferences;
use super::screens::{Screens, Then, View, draw_header, draw_keys, draw_names, state_of};
use super::telling::{self, labels};
use super::theme::Theme;
use super::travel::{Travel, travel_of};
use crate::climbing::Wanted;
use crate::notice::Notice;
use general::General;

/// From this height up the names of the views stand off what is shown below them.
const ROOMY: u16 = 30;

/// The interface.
pub(super) struct App {
    pub(super) desk: Desk,
    pub(super) screens: Screens,
    /// What lies over the screen.
    overlay: Option<Overlay>,
    /// Whether the interface closes.
    pub(super) is_done: bool,
    /// Whether the whole program is to stand still until it is woken.
    pub(super) wants_to_stand_still: bool,
    is_leaving: bool,
    /// What is to be climbed when the interface is closed.
    pub(super) wanted: Option<Wanted>,
    /// What could not be put back, to be told when the interface is closed.
    pub(super) left_behind: Vec<String>,
    /// What is to be pasted elsewhere.
    pub(super) copied: Option<String>,
}

impl App {
    pub(super) fn new(shown: Climbed, library: Library, preferences: &Preferences) -> Self {
        let mut screens = Screens::new(shown.plan.climbed_setting().is_none());
        screens.at = preferences.view;
        let mut desk = Desk::new(shown, library, Theme::of_terminal(preferences.scheme));
        (desk.keys, desk.habits) = (preferences.keys.clone(), preferences.habits);
        Self {
            screens,
            desk,
            overlay: None,
            is_done: false,
            wants_to_stand_still: false,
            is_leaving: false,
            wanted: None,
            left_behind: Vec::new(),
            copied: None,
        }
    }

    /// Whether somebody is writing a line.
    pub(super) fn is_writing(&self) -> bool {
        matches!(self.overlay, Some(Overlay::Entry(_)))
    }

    /// What the terminal's title says.
    pub(super) fn title(&self) -> String {
        let shown = &self.desk.shown;
        telling::title(&shown.rig.name, &shown.plan.name, shown.story.trials.len(), state_of(&self.desk))
    }

    /// What somebody who looks elsewhere is told.
    pub(super) fn call(&self, occasion: Occasion) -> String {
        let live = self.desk.live();
        let mark = live.story.marks.last().map(|mark| mark_sentence(mark, &live.rig));
        telling::call(occasion, &live.rig.name, mark.as_deref())
    }

    /// Draws the whole screen.
    pub(super) fn draw(&self, frame: &mut Frame) {
        let (area, desk) = (frame.area(), &self.desk);
        desk.places.clear();
        frame.buffer_mut().set_style(area, desk.theme.text);
        let stand_off = u16::from(area.height >= ROOMY);
        let rows = [1, 1 + stand_off, 0, 2].map(Constraint::Length);
        let [head, names, body, foot] = Layout::vertical([rows[0], rows[1], Constraint::Min(0), rows[3]]).areas(area);
        let foot = Rect { y: foot.bottom().saturating_sub(1), height: 1, ..foot };
        draw_header(frame, desk, head.inner(Margin::new(1, 0)));
        draw_names(frame, desk, self.screens.at, names.inner(Margin::new(1, 0)));
        self.screens.current().draw(frame, desk, body.inner(Margin::new(1, 0)));
        // What was drawn says whether it can be scrolled.
        draw_keys(frame, desk, &self.offered_keys(), foot.inner(Margin::new(1, 0)));
        let screen = self.screens.current();
        let below =
            Below { help: screen.help(), signs: screen.signs(), keys: self.keys_of_screen(), actions: self.actions() };
        let of_file = (self.screens.at == View::Plan).then_some(body);
        desk.habits.put_commas(frame.buffer_mut(), of_file);
        overlays::draw(frame, self.overlay.as_ref(), desk, &below, area);
        // Where somebody writes, what they wrote stands as they wrote it.
        if !self.writes() {
            desk.habits.put_commas(frame.buffer_mut(), of_file);
        }
    }

    /// Whether each key is what stands on it.
    fn writes(&self) -> bool {
        matches!(self.overlay, Some(Overlay::Entry(_) | Overlay::Finder(_)))
    }

    /// Whether the climb that is driven has ended, whichever is shown.
    fn has_ended(&self) -> bool {
        self.desk.live().story.ended.is_some()
    }

    /// Takes in what the driver tells.
    pub(super) fn hear(&mut self, notice: Notice) {
        match &notice {
            Notice::LeftBehind { problem } => self.left_behind.push(problem.clone()),
            Notice::Misheard { why } => self.desk.told = Some(why.clone()),
            Notice::Told { entry: Told::Declined { because }, .. } => {
                self.desk.told = Some(declined_words(because, &self.desk.live().rig));
            }
            _ => {}
        }
        self.desk.hear(notice);
        // What was asked about a climb that is over need not be answered any more.
        if self.has_ended() && self.overlay.as_ref().is_some_and(Overlay::is_about_climbing) {
            self.overlay = None;
        }
    }

    /// Takes in what was read of the ledger.
    pub(super) fn take_read(&mut self, read: Read) {
        if let Read::Picked(picked) = read {
            return self.desk.take_picked(picked);
        }
        let query = self.desk.query();
        self.desk.shelf.take(read, &query);
        self.peep();
    }

    /// The driver has told all: the climb is over and stays on the screen, or the operator has left.
    pub(super) fn driver_is_gone(&mut self) {
        self.desk.is_driver_gone = true;
        self.is_done |= self.is_leaving || !self.has_ended();
    }

    /// The interface is to close: at once when the climb is over, else when the driver has left it in good order.
    pub(super) fn end(&mut self) {
        self.is_leaving = true;
        self.is_done |= self.desk.is_driver_gone || self.has_ended();
    }

    /// Takes in what the terminal tells, and answers with what the operator says to the driver.
    pub(super) fn press(&mut self, event: &Event) -> Vec<Said> {
        match event {
            Event::Mouse(mouse) => self.point(*mouse),
            Event::Paste(text) => self.edit(|entry| entry.paste(text)),
            Event::Key(pressed) if pressed.kind != KeyEventKind::Release => {
                self.desk.told = None;
                let said = self.press_key(event, *pressed);
                self.peep();
                return said.into_iter().collect();
            }
            _ => {}
        }
        self.peep();
        Vec::new()
    }

    /// Writes on the line that is open.
    fn edit(&mut self, write: impl FnOnce(&mut Entry)) {
        let Some(Overlay::Entry(entry)) = &mut self.overlay else { return };
        write(entry);
        if entry.purpose == Purpose::Find {
            let words = entry.text().to_owned();
            self.desk.look_for(&words);
        }
    }

    /// Lets the program stand still, but not while a pass runs: nobody would look at its cut-offs.
    fn stand_still(&mut self) {
        if self.desk.is_driver_gone || self.desk.live().story.running_pass().is_none() {
            self.wants_to_stand_still = true;
        } else {
            self.desk.told = Some(telling::UNWATCHED.into());
        }
    }

    /// Looks at the selected climb of the list.
    fn peep(&mut self) {
        if self.screens.at == View::Climbs {
            self.desk.shelf.peep(self.desk.shown.number);
        }
    }

    /// Takes a key to whoever it means something to.
    fn press_key(&mut self, event: &Event, pressed: KeyEvent) -> Option<Said> {
        if pressed.modifiers.contains(KeyModifiers::CONTROL) {
            let code = pressed.code;
            match code {
                KeyCode::Char('z') => self.stand_still(),
                KeyCode::Char('c') if self.overlay.is_none() => self.leave(),
                KeyCode::Char('d') if self.overlay.is_none() => _ = self.press_on_screen(KeyCode::PageDown),
                KeyCode::Char('u') if self.overlay.is_none() => _ = self.press_on_screen(KeyCode::PageUp),
                _ => self.edit(|entry| entry.write(event)),
            }
            return None;
        }
        let writes = self.writes();
        // A terminal takes escape and a key right behind it for that key with another one held down, which means nothing of its own.
        if pressed.modifiers.contains(KeyModifiers::ALT) && !writes {
            self.go_back();
        }
        let code = if writes { pressed.code } else { self.desk.keys.meant(pressed.code)? };
        if code == KeyCode::Esc {
            self.go_back();
            return None;
        }
        match &self.overlay {
            None => self.press_on_screen(code),
            Some(Overlay::Help) => {
                if matches!(code, KeyCode::Char('?' | 'q')) {
                    self.overlay = None;
                }
                None
            }
            Some(Overlay::Artefact(_)) => {
                if matches!(code, KeyCode::Char('v' | 'q')) {
                    self.overlay = None;
                }
                None
            }
            Some(Overlay::Finder(_)) if code == KeyCode::Enter => self.do_found(),
            Some(Overlay::Finder(_)) => {
                let keys = self.actions();
                if let Some(Overlay::Finder(finder)) = &mut self.overlay {
                    finder.press(code, event, &keys);
                }
                None
            }
            Some(Overlay::Card(card)) => {
                let deed = card.answer(code)?;
                self.overlay = None;
                self.carry_out(deed)
            }
            Some(Overlay::Entry(_)) if code == KeyCode::Enter => self.enter(),
            Some(Overlay::Entry(_)) => {
                self.edit(|entry| entry.write(event));
                None
            }
        }
    }

    fn press_on_screen(&mut self, code: KeyCode) -> Option<Said> {
        let is_pressed = |key: &Key| key.code == code && key.can_be_pressed();
        if let Some((general, _)) = self.general_keys().into_iter().find(|(_, key)| is_pressed(key)) {
            return self.act(general);
        }
        if self.screens.current().keys(&self.desk).iter().any(is_pressed) {
            let then = self.screens.current_mut().press(code, &mut self.desk);
            return self.follow(then);
        }
        if let Some(step) = travel_of(code).filter(|_| self.screens.current().moves(&self.desk).is_some()) {
            self.screens.current_mut().select(step, &mut self.desk);
        }
        None
    }

    /// Does what was found among all that can be done here.
    fn do_found(&mut self) -> Option<Said> {
        let keys = self.actions();
        let Some(Overlay::Finder(finder)) = self.overlay.take() else { return None };
        let key = finder.selected(&keys)?;
        self.desk.told = key.why_not.map(str::to_owned);
        if key.can_be_pressed() { self.press_on_screen(key.code) } else { None }
    }

    fn act(&mut self, general: General) -> Option<Said> {
        match general {
            General::Answer(Answer::Done) => return self.say_done(),
            General::Answer(Answer::WrongPicture) => {
                self.overlay =
                    Some(Overlay::Entry(Entry::new(Purpose::WrongPicture, labels::WHAT_WAS_WRONG_WITH_IT, "")));
            }
            General::Answer(Answer::NotToday) => {
                self.is_leaving = true;
                return Some(Said::NotToday);
            }
            General::Answer(answer) => return Some(answer.into()),
            General::WriteDown => self.overlay = Entry::first_missing(&self.desk).map(Overlay::Entry),
            General::Change => {
                self.desk.changed.clear();
                self.overlay = Entry::changed(&self.desk, 0).map(Overlay::Entry);
            }
            General::Read => self.overlay = Entry::reading(&self.desk, 0).map(Overlay::Entry),
            General::PauseOrGoOn => return Some(self.pause_or_go_on()),
            General::Stop => self.overlay = Some(Overlay::Card(Card::stopping(&self.desk))),
            General::Help => self.overlay = Some(Overlay::Help),
            General::Find => self.overlay = Some(Overlay::Finder(Finder::default())),
            General::Show(view) => self.show(view),
            General::Leave => self.leave(),
            General::Copy => self.copy(),
            General::CloseOther => self.desk.close_other(),
            General::Select(step) => self.screens.current_mut().select(step, &mut self.desk),
        }
        None
    }

    /// What was asked for is done; where something that is needed was not written down, that is asked for first.
    fn say_done(&mut self) -> Option<Said> {
        let written = self.desk.written();
        let misfit = self.desk.question()?.check(&self.desk.shown.rig, &written).err();
        let Some(misfit) = misfit else { return Some(Said::Done { written }) };
        self.desk.told = Some(misfit_words(&misfit));
        self.overlay = Entry::first_missing(&self.desk).map(Overlay::Entry);
        None
    }

    /// Takes what is another of the rig, and asks for more until all is said.
    fn take_change(&mut self, entry: Entry, at: usize, text: &str) -> Option<Said> {
        let rig = &self.desk.shown.rig;
        let fields = RigChange::fields(rig);
        let field = fields.get(at)?;
        let mut written = self.desk.changed.clone();
        if !text.is_empty() {
            written.insert(field.name.clone(), text.to_owned());
        }
        let is_last = at + 1 == fields.len();
        let misfit = field.read(text).err().filter(|_| !text.is_empty());
        let misfit = misfit.or_else(|| RigChange::of(rig, &written).err().filter(|_| is_last));
        if let Some(misfit) = misfit {
            (self.desk.told, self.overlay) = (Some(misfit_words(&misfit)), Some(Overlay::Entry(entry)));
            return None;
        }
        self.desk.changed.clone_from(&written);
        self.overlay = Entry::changed(&self.desk, at + 1).map(Overlay::Entry);
        is_last.then_some(Said::Changed { written })
    }

    /// Takes what a sensor reads, and asks for the next one; each is said as soon as it is written.
    fn take_reading(&mut self, entry: Entry, at: usize, text: &str) -> Option<Said> {
        let sensor = self.desk.shown.rig.read_by_hand().nth(at)?;
        if let Some(misfit) = Field::of_sensor(sensor).read(text).err().filter(|_| !text.is_empty()) {
            (self.desk.told, self.overlay) = (Some(misfit_words(&misfit)), Some(Overlay::Entry(entry)));
            return None;
        }
        let written = [(sensor.name.clone(), text.to_owned())].into();
        self.overlay = Entry::reading(&self.desk, at + 1).map(Overlay::Entry);
        (!text.is_empty()).then_some(Said::Read { written })
    }

    /// Closes what lies over the screen; what was looked for is no longer.
    fn go_back(&mut self) {
        let is_finding = matches!(&self.overlay, Some(Overlay::Entry(entry)) if entry.purpose == Purpose::Find);
        if self.overlay.is_none() || is_finding {
            self.desk.look_for("");
        }
        self.overlay = None;
    }

    fn show(&mut self, view: View) {
        self.screens.at = view;
        self.screens.current_mut().enter(&mut self.desk);
    }

    fn follow(&mut self, then: Then) -> Option<Said> {
        match then {
            Then::Nothing => {}
            Then::Say(said) => return Some(said),
            Then::Show(view) => self.show(view),
            Then::Open(overlay) => self.overlay = Some(overlay),
            Then::Write => {
                if let Some(file) = self.screens.current().file(&self.desk) {
                    self.overlay = Some(Overlay::Entry(Entry::new(Purpose::Write, file.title, &file.name)));
                }
            }
            // What was looked for is among its trials.
            Then::Opened => self.screens.at = if self.desk.filter.is_empty() { View::Climb } else { View::Trials },
            Then::LookAtIncident => {
                if self.screens.traces.look_at_incident_of_selected(&mut self.desk) {
                    self.screens.at = View::Traces;
                }
            }
        }
        None
    }

    /// What is clicked at is selected; the wheel moves the selection.
    fn point(&mut self, mouse: MouseEvent) {
        if self.overlay.is_some() {
            return;
        }
        let moves = self.screens.current().moves(&self.desk).is_some();
        let screen = self.screens.current_mut();
        match mouse.kind {
            MouseEventKind::ScrollUp if moves => screen.select(Travel::Back(1), &mut self.desk),
            MouseEventKind::ScrollDown if moves => screen.select(Travel::On(1), &mut self.desk),
            MouseEventKind::Down(MouseButton::Left) => {
                let target: Option<Target> = self.desk.places.at(mouse.column, mouse.row);
                match target {
                    Some(Target::View(view)) => self.show(view),
                    Some(target) => {
                        let then = screen.point(target, &mut self.desk);
                        self.follow(then);
                    }
                    None => {}
                }
            }
            _ => {}
        }
    }

    /// Hands out what the logbook says of the selected trial.
    fn copy(&mut self) {
        let Some((trial, lines)) = self.desk.lines_of_selected() else { return };
        self.desk.told = Some(telling::copied(trial, lines.len()));
        self.copied = Some(lines.join("\n"));
    }

    fn pause_or_go_on(&mut self) -> Said {
        let goes_on = self.desk.waits_for_go();
        self.desk.pause_wanted = !goes_on;
        if goes_on { Said::Resume } else { Said::Pause }
    }

    fn leave(&mut self) {
        if self.desk.has_changed_draft() {
            (self.screens.at, self.overlay) = (View::Plan, Some(Overlay::Card(Card::dropping())));
        } else if self.desk.is_over() || self.desk.is_driver_gone {
            self.is_done = true;
        } else {
            self.overlay = Some(Overlay::Card(Card::leaving(&self.desk)));
        }
    }

    fn carry_out(&mut self, deed: Deed) -> Option<Said> {
        match deed {
            Deed::Say(said) => return Some(said),
            Deed::LeaveWaiting => {
                self.is_leaving = true;
                return Some(Said::Leave);
            }
            Deed::GiveUpDraft => {
                self.desk.draft = None;
                self.leave();
            }
            Deed::Begin(file) => self.climb(Wanted::Plan(file)),
            Deed::Repeat(number) => self.climb(Wanted::Again(number)),
        }
        None
    }

    /// Closes the interface for a climb.
    fn climb(&mut self, wanted: Wanted) {
        (self.wanted, self.is_done) = (Some(wanted), true);
    }

    /// Takes what was written on the line that is open.
    fn enter(&mut self) -> Option<Said> {
        let Some(Overlay::Entry(entry)) = self.overlay.take() else { return None };
        let text = entry.text().trim().to_owned();
        match entry.purpose {
            Purpose::Find => {}
            Purpose::Shown(at) => {
                let fields = self.desk.fields();
                let misfit = fields.get(at).and_then(|field| self.desk.write_down(field, &text).err());
                let next = if misfit.is_some() { Some(entry) } else { Entry::shown(&self.desk, at + 1) };
                self.desk.told = misfit.as_ref().map(misfit_words);
                self.overlay = next.map(Overlay::Entry);
            }
            Purpose::Changed(at) => return self.take_change(entry, at, &text),
            Purpose::Reading(at) => return self.take_reading(entry, at, &text),
            Purpose::WrongPicture => return Some(Said::WrongPicture { what: text }),
            Purpose::Value => self.put_value(entry, &text),
            Purpose::Report => match self.desk.report(Path::new(&text)) {
                Ok(told) => self.desk.told = Some(told),
                Err(why) => {
                    (self.desk.told, self.overlay) = (Some(format!("{why:#}")), Some(Overlay::Entry(entry)));
                }
            },
            Purpose::SaveAs if text.is_empty() => {}
            Purpose::SaveAs => return Some(Said::Save { name: text }),
            Purpose::Note | Purpose::Saw(_) if text.is_empty() => {}
            Purpose::Note => return Some(Said::Note { text }),
            Purpose::Saw(trial) => return Some(Said::Saw { text, trial }),
            Purpose::Change => self.desk.draft.iter_mut().for_each(|draft| draft.write(entry.text())),
            Purpose::Add => self.desk.draft.iter_mut().for_each(|draft| draft.add(entry.text())),
            Purpose::Write => match self.screens.current_mut().write(Path::new(&text), &mut self.desk) {
                Ok(told) => self.desk.told = Some(told),
                // What was typed can be mended.
                Err(why) => {
                    (self.desk.told, self.overlay) = (Some(format!("{why:#}")), Some(Overlay::Entry(entry)));
                }
            },
        }
        None
    }

    /// Puts a value that was typed into the form; what is none stays open to be mended.
    fn put_value(&mut self, entry: Entry, text: &str) {
        let Some(mut form) = self.desk.form() else { return };
        let fields = self.desk.fields();
        let Some(setting) = form.setting(&self.desk.shown.rig) else { return };
        let Some(field) = fields.iter().find(|field| field.name == setting.name) else { return };
        match field.read(text) {
            Ok(Entered::Number(value)) => {
                form.put(&field.name, value);
                self.desk.set_form(form);
            }
            Ok(_) => {}
            Err(misfit) => {
                (self.desk.told, self.overlay) = (Some(misfit_words(&misfit)), Some(Overlay::Entry(entry)));
            }
        }
    }

    /// The keys that mean the same on every screen.
    fn general_keys(&self) -> Vec<(General, Key)> {
        let screen = self.screens.current();
        let is_climb_view = self.screens.at == View::Climb;
        let mut keys =
            general::keys(&self.desk, screen.moves(&self.desk), screen.takes_digits(&self.desk), is_climb_view);
        // A letter that a view needs for itself means what the view says.
        let own = screen.keys(&self.desk);
        let is_needed = |key: &Key| own.iter().any(|own| own.code == key.code && own.can_be_pressed());
        keys.retain(|(general, key)| !matches!(general, General::Read | General::Change) || !is_needed(key));
        keys
    }

    /// The keys of the screen that can be pressed, which its help lists.
    pub(super) fn keys_of_screen(&self) -> Vec<Key> {
        self.all_keys().into_iter().filter(Key::can_be_pressed).collect()
    }

    /// Everything that can be done here, and behind it what can't be done now.
    pub(super) fn actions(&self) -> Vec<Key> {
        let mut keys = self.all_keys();
        keys.sort_by_key(|key| !key.can_be_pressed());
        keys
    }

    fn all_keys(&self) -> Vec<Key> {
        let own = self.screens.current().keys(&self.desk);
        let (own_first, own): (Vec<Key>, Vec<Key>) = own.into_iter().partition(|key| key.is_first);
        let (urgent, general): (Vec<_>, Vec<_>) = self.general_keys().into_iter().partition(|(_, key)| key.is_first);
        // What a view does by itself matters more than what can be done with any trial.
        let (copy, general): (Vec<_>, Vec<_>) = general.into_iter().partition(|(it, _)| *it == General::Copy);
        let keys = |general: Vec<(General, Key)>| general.into_iter().map(|(_, key)| key);
        let all = keys(urgent).chain(own_first).chain(keys(general)).chain(own).chain(keys(copy));
        all.map(|key| self.desk.keys.moved(key)).collect()
    }

    /// The keys that can be pressed now.
    pub(super) fn offered_keys(&self) -> Vec<Key> {
        let mut keys = match &self.overlay {
            None => self.keys_of_screen(),
            Some(overlay) => {
                let keys = overlay.keys().into_iter();
                if matches!(overlay, Overlay::Card(_)) {
                    keys.map(|key| self.desk.keys.moved(key)).collect()
                } else {
                    keys.collect()
                }
            }
        };
        if self.overlay.is_some() || !self.desk.filter.is_empty() {
            keys.push(Key::new(KeyCode::Esc, "esc", labels::BACK));
        }
        keys
    }
}
