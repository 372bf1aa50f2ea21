//! What lies over a screen: help, questions before something is done, a line to write in, and the card of an errand.

mod artefact;
mod by_hand;
mod card;
mod entry;
mod errand;
mod finder;
mod frame;
mod help;

use std::path::PathBuf;

use periculum_core::engine::Said;
use ratatui::Frame;
use ratatui::layout::Rect;

pub(super) use artefact::Artefact;
pub(super) use card::Card;
pub(super) use entry::{Entry, Purpose};
pub(super) use finder::Finder;

use super::desk::Desk;
use super::keys::Key;
use super::telling::labels;

/// What lies over the screen.
#[derive(Debug)]
pub(super) enum Overlay {
    /// What the screen means.
    Help,
    /// A question with a few answers.
    Card(Card),
    /// A line to write in.
    Entry(Entry),
    /// What can be done, by what it does.
    Finder(Finder),
    /// A wrong picture that was kept.
    Artefact(Artefact),
}

/// What is done when a question is answered.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) enum Deed {
    /// This is said to the driver.
    Say(Said),
    /// The interface is left, and the climb waits.
    LeaveWaiting,
    /// What was changed in the plan is given up.
    GiveUpDraft,
    /// The plan of this file is climbed.
    Begin(PathBuf),
    /// This climb is climbed again.
    Repeat(i64),
}

impl Overlay {
    /// Its keys, but the one that closes it.
    pub(super) fn keys(&self) -> Vec<Key> {
        match self {
            Self::Help | Self::Artefact(_) => Vec::new(),
            Self::Finder(_) => vec![Key::enter(labels::DO_IT)],
            Self::Card(card) => card.keys(),
            Self::Entry(entry) => vec![entry.key()],
        }
    }

    /// Whether it is about the climb that runs, and means nothing once that has ended.
    pub(super) fn is_about_climbing(&self) -> bool {
        match self {
            Self::Help | Self::Finder(_) | Self::Artefact(_) => false,
            Self::Card(card) => card.is_about_climbing,
            Self::Entry(entry) => {
                matches!(
                    entry.purpose,
                    Purpose::Saw(_)
                        | Purpose::Shown(_)
                        | Purpose::Reading(_)
                        | Purpose::Changed(_)
                        | Purpose::WrongPicture
                        | Purpose::Value
                        | Purpose::SaveAs
                )
            }
        }
    }
}

/// What is to be known of the screen below.
pub(super) struct Below {
    /// What it shows, for those who see it for the first time.
    pub(super) help: &'static str,
    /// Which of [`super::telling::SIGNS`] it draws, from one to before another.
    pub(super) signs: (usize, usize),
    /// What can be pressed there.
    pub(super) keys: Vec<Key>,
    /// Everything that can be done, and what can't be done now.
    pub(super) actions: Vec<Key>,
}

/// Draws the card of what is asked by the climb that is driven.
fn draw_question(frame: &mut Frame, desk: &Desk, area: Rect) {
    match desk.question().filter(|question| question.turn().is_none()) {
        Some(question) if question.errand().is_some() => errand::draw(frame, desk, area, question),
        Some(question) => by_hand::draw(frame, desk, area, question),
        None => {}
    }
}

/// Draws what lies over the screen; where nothing does, what is asked by the climb that is driven.
pub(super) fn draw(frame: &mut Frame, overlay: Option<&Overlay>, desk: &Desk, below: &Below, area: Rect) {
    // What is written down for a question is written below its card.
    let is_answering = matches!(overlay, Some(Overlay::Entry(entry)) if matches!(entry.purpose, Purpose::Shown(_)));
    if overlay.is_none() || is_answering {
        draw_question(frame, desk, area);
    }
    match overlay {
        None => {}
        Some(Overlay::Help) => help::draw(frame, desk, below, area),
        Some(Overlay::Card(card)) => card.draw(frame, desk, area),
        Some(Overlay::Entry(entry)) => entry.draw(frame, desk, area),
        Some(Overlay::Artefact(artefact)) => artefact.draw(frame, desk, area),
        Some(Overlay::Finder(finder)) => finder.draw(frame, desk, &below.actions, area),
    }
}
