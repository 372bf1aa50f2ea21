//! Questions before something is done that can't be taken back, or that somebody may not mean.

use std::path::PathBuf;

use periculum_core::engine::Said;
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::Rect;
use ratatui::text::Text;

use super::{Deed, frame::card};
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::telling::{self, labels};

/// A question with a few answers.
#[derive(Debug)]
pub(in crate::tui) struct Card {
    title: &'static str,
    text: String,
    answers: Vec<(Key, Deed)>,
    pub(super) is_about_climbing: bool,
}

impl Card {
    fn asking(title: &'static str, text: String, answers: Vec<(Key, Deed)>) -> Self {
        Self { title, text, answers, is_about_climbing: false }
    }

    /// Whether to give up what was changed in the plan.
    pub(in crate::tui) fn dropping() -> Self {
        let answers = vec![(Key::letter('y', "y", labels::DISCARD), Deed::GiveUpDraft)];
        Self::asking(labels::ASK_GIVE_UP, telling::CHANGED_PLAN.into(), answers)
    }

    /// Whether to climb the plan of this file.
    pub(in crate::tui) fn beginning(file: PathBuf) -> Self {
        let text = telling::plan_is_climbed(&file);
        Self::asking(labels::ASK_BEGIN, text, vec![(Key::letter('y', "y", labels::BEGIN), Deed::Begin(file))])
    }

    /// Whether to climb this climb again.
    pub(in crate::tui) fn repeating(number: i64) -> Self {
        let answers = vec![(Key::letter('y', "y", labels::BEGIN), Deed::Repeat(number))];
        Self::asking(labels::ASK_REPEAT, telling::repeats(number), answers)
    }

    /// Whether to stop, and where the rig is to be then.
    pub(in crate::tui) fn stopping(desk: &Desk) -> Self {
        let mut answers = vec![(Key::letter('y', "y", labels::STOP_AT_STOCK), Deed::Say(Said::Stop))];
        if !desk.shown.story.marks.is_empty() {
            answers.push((Key::letter('m', "m", labels::STOP_AT_MARK), Deed::Say(Said::StopAtMark)));
        }
        let card = Self::asking(labels::ASK_STOP, telling::STOPS.into(), answers);
        Self { is_about_climbing: true, ..card }
    }

    /// Whether to leave while a climb runs.
    pub(in crate::tui) fn leaving(desk: &Desk) -> Self {
        let answers = vec![
            (Key::letter('l', "l", labels::LEAVE_WAITING), Deed::LeaveWaiting),
            (Key::letter('s', "s", labels::STOP_FOR_GOOD), Deed::Say(Said::Stop)),
        ];
        let card = Self::asking(labels::CLIMB_RUNS, telling::leaves(&desk.shown.rig), answers);
        Self { is_about_climbing: true, ..card }
    }

    pub(super) fn keys(&self) -> Vec<Key> {
        self.answers.iter().map(|(key, _)| *key).collect()
    }

    /// What this key does; none where it answers nothing.
    pub(in crate::tui) fn answer(&self, code: KeyCode) -> Option<Deed> {
        self.answers.iter().find(|(key, _)| key.code == code).map(|(_, deed)| deed.clone())
    }

    pub(super) fn draw(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        card(frame, desk, area, self.title, Text::styled(self.text.clone(), desk.theme.text));
    }
}
