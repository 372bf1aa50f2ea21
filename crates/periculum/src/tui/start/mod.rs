//! The start screen: what waits, what there is, what may be wanted; and the questions that lead from there to a climb.

mod draw;
mod leaf;
mod prompt;
mod steps;
#[cfg(test)]
mod tests;

use std::io;
use std::path::PathBuf;

use anyhow::Result;
use crossbeam_channel::{select, unbounded};
use periculum_core::files::added::{with_added, with_offered};
use periculum_rigs::granted::Written;
use ratatui::crossterm::event::{Event, KeyCode, KeyEvent, KeyEventKind, KeyModifiers, MouseEventKind};

pub(crate) use leaf::Chosen;
use leaf::{Act, Leaf};
use prompt::{Ask, Prompt};
use steps::{Answers, Next};

use super::habits::Habits;
use super::keymap::Keymap;
use super::preferences::Preferences;
use super::telling::labels;
use super::terminal::Taken;
use super::theme::Theme;
use super::travel::Travel;
use super::{listen_to_terminal, terminal};
use crate::interrupt;
use crate::starting::{KnownRig, Origin, Page, Proposal, Review};
use crate::telling::starting;

/// How far a page key goes.
const PAGE: usize = 10;

/// The start screen.
pub(super) struct Start {
    page: Page,
    folder: PathBuf,
    root: PathBuf,
    /// The leaves that were turned, the one that is looked at last, each with what was answered before it.
    leaves: Vec<(Leaf, Answers)>,
    known: Option<KnownRig>,
    answers: Answers,
    proposal: Option<(Proposal, Vec<Written>)>,
    prompt: Option<Prompt>,
    theme: Theme,
    keymap: Keymap,
    habits: Habits,
    told: Option<String>,
    is_done: bool,
    chosen: Option<Chosen>,
    /// Whether what was shown is to begin.
    is_agreed: bool,
}

/// Shows what there is to start from; tells what was chosen. Files of a climb that begins here come into this folder.
pub(crate) fn start(page: Page, folder: PathBuf, root: PathBuf) -> Result<Option<Chosen>> {
    let preferences = Preferences::of_user()?;
    let mut start = Start::new(page, folder, root, Theme::of_terminal(preferences.scheme));
    (start.keymap, start.habits) = (preferences.keys, preferences.habits);
    start.show()?;
    Ok(start.chosen)
}

/// Shows what a climb would do and to what; tells whether it is to begin.
pub(crate) fn ask_to_begin(review: &Review) -> Result<bool> {
    let page = Page { waiting: Vec::new(), rigs: Vec::new(), climbs: Vec::new() };
    let preferences = Preferences::of_user()?;
    let mut start = Start::new(page, PathBuf::new(), PathBuf::new(), Theme::of_terminal(preferences.scheme));
    (start.keymap, start.habits) = (preferences.keys, preferences.habits);
    start.leaves = vec![(steps::review(review, steps::going()), Answers::default())];
    start.show()?;
    Ok(start.is_agreed)
}

impl Start {
    /// Fills the screen until something is chosen.
    fn show(&mut self) -> Result<()> {
        let (words, _) = unbounded();
        let (ending, ended) = unbounded();
        interrupt::listen(words, Some(ending), terminal::give_back)?;
        let mut stage = Taken::enter()?;
        let input = listen_to_terminal();
        while !self.is_done {
            stage.draw(|frame| draw::draw(frame, self))?;
            select! {
                recv(input) -> event => match event {
                    Ok(event) => self.take(&event),
                    Err(_) => return Err(io::Error::from(io::ErrorKind::UnexpectedEof).into()),
                },
                recv(ended) -> _ => self.is_done = true,
            }
        }
        Ok(())
    }

    fn new(page: Page, folder: PathBuf, root: PathBuf, theme: Theme) -> Self {
        let leaves = vec![(steps::first(&page), Answers::default())];
        Self {
            page,
            folder,
            root,
            leaves,
            known: None,
            answers: Answers::default(),
            proposal: None,
            prompt: None,
            theme,
            keymap: Keymap::default(),
            habits: Habits::default(),
            told: None,
            is_done: false,
            chosen: None,
            is_agreed: false,
        }
    }

    fn leaf(&self) -> &Leaf {
        // The first one is never turned back.
        &self.leaves[self.leaves.len() - 1].0
    }

    fn select(&mut self, step: Travel) {
        if let Some((leaf, _)) = self.leaves.last_mut() {
            leaf.select(step);
        }
    }

    /// The keys that mean something now.
    fn keys(&self) -> Vec<(&'static str, &'static str)> {
        let back = (self.leaves.len() > 1).then_some(("esc", labels::BACK));
        let enter = self.keymap.written(KeyCode::Enter, "enter");
        let leave = self.keymap.written(KeyCode::Char('q'), "q");
        let keys = [("↑↓", labels::CHOOSE), (enter, labels::TAKE_IT)];
        keys.into_iter().chain(back).chain([(leave, labels::LEAVE)]).collect()
    }

    fn take(&mut self, event: &Event) {
        match event {
            Event::Mouse(mouse) if mouse.kind == MouseEventKind::ScrollUp => self.select(Travel::Back(1)),
            Event::Mouse(mouse) if mouse.kind == MouseEventKind::ScrollDown => self.select(Travel::On(1)),
            Event::Key(key) if key.kind != KeyEventKind::Release => {
                self.told = None;
                if self.prompt.is_some() { self.write(event, *key) } else { self.press(*key) }
            }
            Event::Paste(text) => self.prompt.iter_mut().for_each(|prompt| prompt.paste(text)),
            _ => {}
        }
    }

    fn press(&mut self, key: KeyEvent) {
        if key.modifiers.contains(KeyModifiers::CONTROL) {
            match key.code {
                KeyCode::Char('c') => self.is_done = true,
                KeyCode::Char('d') => self.select(Travel::On(PAGE)),
                KeyCode::Char('u') => self.select(Travel::Back(PAGE)),
                _ => {}
            }
            return;
        }
        let Some(code) = self.keymap.meant(key.code) else { return };
        match code {
            KeyCode::Up | KeyCode::Char('k') => self.select(Travel::Back(1)),
            KeyCode::Down | KeyCode::Char('j') => self.select(Travel::On(1)),
            KeyCode::PageUp => self.select(Travel::Back(PAGE)),
            KeyCode::PageDown => self.select(Travel::On(PAGE)),
            KeyCode::Home | KeyCode::Char('g') => self.select(Travel::First),
            KeyCode::End | KeyCode::Char('G') => self.select(Travel::Last),
            KeyCode::Char('q') => self.is_done = true,
            KeyCode::Esc | KeyCode::Backspace | KeyCode::Left => self.turn_back(),
            KeyCode::Enter | KeyCode::Right => {
                if let Some(act) = self.leaf().selected().and_then(|choice| choice.act.clone()) {
                    self.act(act);
                }
            }
            _ => {}
        }
    }

    /// Turns back one leaf, and forgets what was answered on it; from the first one the screen is left.
    fn turn_back(&mut self) {
        if self.leaves.len() == 1 {
            self.is_done = true;
        } else if let Some((_, before)) = self.leaves.pop() {
            self.answers = before;
        }
    }

    fn act(&mut self, act: Act) {
        let before = self.answers.clone();
        match act {
            Act::Resume(climb) => return self.close(Chosen::Resume(climb)),
            Act::Open(climb) => return self.close(Chosen::Open(climb)),
            Act::Go => return (self.is_agreed, self.is_done) = (true, true),
            Act::Leave => return self.is_done = true,
            Act::Begin => return self.begin(true, Chosen::Climb),
            Act::Edit => return self.begin(false, Chosen::Edit),
            Act::Offered(name) => return self.prompt = Some(Prompt::new(Ask::Ceiling(name))),
            Act::Add(way) => return self.prompt = Some(Prompt::new(Ask::Added(way, Vec::new()))),
            Act::Rig(place) => {
                self.known = self.page.rigs.get(place).cloned();
                self.answers = Answers::default();
            }
            Act::Wish(wish) => self.answers.wish = Some(wish),
            Act::Setting(name) => self.answers.setting = Some(name),
            Act::Start(name) => self.answers.start = Some(name),
            Act::Use(name) => self.answers.use_name = Some(name),
            Act::Hours(hours) => self.answers.hours = Some(hours),
        }
        self.ask_next(before);
    }

    /// The next question, or the review of what was answered.
    fn ask_next(&mut self, before: Answers) {
        let Some(known) = &self.known else { return };
        let leaf = match steps::next(known, &mut self.answers) {
            Next::Ask(leaf) => leaf,
            Next::Know(intent) => {
                let proposal = Proposal::of(known, &intent, &self.folder);
                match proposal.review(known, &self.root) {
                    Ok(review) => {
                        let leaf = steps::review(&review, steps::beginnings());
                        self.proposal = Some((proposal, review.written));
                        leaf
                    }
                    Err(why) => {
                        self.told = Some(format!("{why:#}"));
                        self.answers = before;
                        return;
                    }
                }
            }
        };
        self.leaves.push((leaf, before));
    }

    fn close(&mut self, chosen: Chosen) {
        (self.chosen, self.is_done) = (Some(chosen), true);
    }

    /// Writes the files, and closes for what is done with them; only who begins allows what is written to this machine.
    fn begin(&mut self, allows: bool, chosen: impl FnOnce(PathBuf) -> Chosen) {
        let Some((proposal, written)) = &self.proposal else { return };
        match proposal.write(if allows { written } else { &[] }) {
            Ok(()) => self.close(chosen(proposal.plan.clone())),
            Err(why) => self.told = Some(format!("{why:#}")),
        }
    }

    /// A key while something is typed.
    fn write(&mut self, event: &Event, key: KeyEvent) {
        let Some(prompt) = &mut self.prompt else { return };
        match key.code {
            KeyCode::Esc => self.prompt = prompt.before(),
            KeyCode::Enter => self.enter(),
            _ => prompt.write(event),
        }
    }

    /// Takes what was typed; what can't be stays to be mended.
    fn enter(&mut self) {
        let (Some(prompt), Some(known)) = (self.prompt.take(), self.known.clone()) else { return };
        let typed = prompt.input.value().trim().to_owned();
        let text = match &prompt.ask {
            Ask::Ceiling(name) => with_offered(&known.text, name, &typed),
            Ask::Added(way, before) => {
                let blank = way.blanks()[before.len()];
                if !blank.takes(&typed) {
                    self.told = Some(starting::not_for(starting::blank_words(blank)));
                    self.prompt = Some(prompt);
                    return;
                }
                let answers: Vec<String> = before.iter().cloned().chain([typed]).collect();
                if answers.len() < way.blanks().len() {
                    self.prompt = Some(Prompt::new(Ask::Added(*way, answers)));
                    return;
                }
                with_added(&known.text, *way, &answers)
            }
        };
        match text.and_then(|text| KnownRig::of(Origin::Made, text)) {
            Some(made) => {
                // The leaf of wishes comes anew, with what can be now.
                self.leaves.truncate(1);
                (self.known, self.answers) = (Some(made), Answers::default());
                self.ask_next(Answers::default());
            }
            None => {
                self.told = Some(starting::NO_SUCH_SETTING.to_owned());
                self.prompt = Some(prompt);
            }
        }
    }
}
