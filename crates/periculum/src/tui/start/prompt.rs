//! A line that is typed on the start screen.

use periculum_core::files::added::Way;
use ratatui::crossterm::event::Event;
use tui_input::backend::crossterm::EventHandler;
use tui_input::{Input, InputRequest};

use crate::telling::starting;

/// What is typed.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) enum Ask {
    /// The ceiling of a setting that the machine offers.
    Ceiling(String),
    /// The next blank of a setting that is changed this way, given the answers so far.
    Added(Way, Vec<String>),
}

/// The line.
#[derive(Clone, Debug)]
pub(super) struct Prompt {
    pub(super) ask: Ask,
    pub(super) input: Input,
}

impl Prompt {
    pub(super) fn new(ask: Ask) -> Self {
        Self { ask, input: Input::default() }
    }

    /// The blank before this one with what was typed there; none before the first.
    pub(super) fn before(&self) -> Option<Self> {
        let Ask::Added(way, answers) = &self.ask else { return None };
        let (last, before) = answers.split_last()?;
        Some(Self { ask: Ask::Added(*way, before.to_vec()), input: Input::new(last.clone()) })
    }

    /// What it asks for.
    pub(super) fn title(&self) -> String {
        match &self.ask {
            Ask::Ceiling(name) => starting::ceiling_of(name),
            Ask::Added(way, before) => {
                let blanks = way.blanks();
                starting::blank_words(blanks[before.len().min(blanks.len() - 1)]).to_owned()
            }
        }
    }

    pub(super) fn write(&mut self, event: &Event) {
        self.input.handle_event(event);
    }

    /// Takes in text that was pasted: it is text, and no keys.
    pub(super) fn paste(&mut self, text: &str) {
        for sign in text.trim().chars().filter(|sign| !sign.is_control()) {
            self.input.handle(InputRequest::InsertChar(sign));
        }
    }
}
