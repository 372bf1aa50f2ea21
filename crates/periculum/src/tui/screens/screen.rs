//! What a screen is, and what comes of a key that is pressed on it.

use std::path::Path;

use anyhow::{Result, bail};
use periculum_core::engine::Said;
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::Rect;

use super::View;
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::overlays::Overlay;
use crate::tui::pointing::Target;
use crate::tui::telling;
use crate::tui::travel::Travel;

/// One of the views that fill the screen.
pub(in crate::tui) trait Screen {
    /// What it shows, for those who see it for the first time.
    fn help(&self) -> &'static str;

    /// Which of [`telling::SIGNS`] it draws, from one to before another.
    fn signs(&self) -> (usize, usize);

    /// It comes to be looked at.
    fn enter(&mut self, _desk: &mut Desk) {}

    /// Its own keys, those that matter most at first; what can't be done now says why.
    fn keys(&self, desk: &Desk) -> Vec<Key>;

    /// One of its own keys was pressed.
    fn press(&mut self, code: KeyCode, desk: &mut Desk) -> Then;

    /// What the arrows do, in a word; none where there is nothing to move over.
    fn moves(&self, _desk: &Desk) -> Option<&'static str> {
        None
    }

    /// Whether digits mean something on it, so that they don't show other views.
    fn takes_digits(&self, _desk: &Desk) -> bool {
        false
    }

    /// The selection moves.
    fn select(&mut self, _step: Travel, _desk: &mut Desk) {}

    /// Something was clicked at.
    fn point(&mut self, target: Target, desk: &mut Desk) -> Then {
        if let Target::Trial(number) = target {
            desk.selected = Some(number);
        }
        Then::Nothing
    }

    /// Draws it.
    fn draw(&self, frame: &mut Frame, desk: &Desk, area: Rect);

    /// The file that its picture, or what else it shows, could be written into; none where it has nothing to be written.
    fn file(&self, desk: &Desk) -> Option<Proposed>;

    /// Writes it, and tells where.
    ///
    /// # Errors
    /// Where that can't be done; then nothing was written.
    fn write(&mut self, _path: &Path, _desk: &mut Desk) -> Result<String> {
        bail!(telling::NOTHING_TO_WRITE)
    }
}

/// A file that is proposed.
#[derive(Debug, PartialEq, Eq)]
pub(in crate::tui) struct Proposed {
    pub(in crate::tui) name: String,
    /// What is asked for it.
    pub(in crate::tui) title: &'static str,
}

/// What comes of a key.
#[derive(Debug)]
pub(in crate::tui) enum Then {
    Nothing,
    Show(View),
    /// The operator says this.
    Say(Said),
    /// Something is asked first.
    Open(Overlay),
    /// The file of the screen is written.
    Write,
    /// Another climb was opened.
    Opened,
    /// The traces around what went wrong in the selected trial.
    LookAtIncident,
}
