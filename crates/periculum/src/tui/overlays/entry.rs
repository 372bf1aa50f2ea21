//! A line to write in, at the foot of the screen.

use periculum_core::engine::Field;
use periculum_core::model::rig_change::RigChange;
use ratatui::Frame;
use ratatui::crossterm::event::Event;
use ratatui::layout::{Margin, Rect};
use ratatui::widgets::{Clear, Paragraph};
use tui_input::backend::crossterm::EventHandler;
use tui_input::{Input, InputRequest};

use super::frame::block;
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::telling::{self, labels};

/// What is written for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(in crate::tui) enum Purpose {
    /// What the listed trials have.
    Find,
    /// The file that the screen is written into.
    Write,
    /// Another value on a line of the plan.
    Change,
    /// What comes into the plan besides.
    Add,
    /// What is written down with an answer: the field of this place.
    Shown(usize),
    /// What a sensor reads that somebody reads: the one of this place among them.
    Reading(usize),
    /// What is another of the rig: the field of this place.
    Changed(usize),
    /// What was wrong with the picture.
    WrongPicture,
    /// The value of the selected setting that is tried next.
    Value,
    /// The name under which what held is saved.
    SaveAs,
    /// The file that the report of the climb is written into.
    Report,
    /// A note.
    Note,
    /// What was seen, in the trial that ran then.
    Saw(Option<u32>),
}

/// A line to write in.
#[derive(Debug)]
pub(in crate::tui) struct Entry {
    pub(in crate::tui) purpose: Purpose,
    title: String,
    input: Input,
}

impl Entry {
    /// An entry that begins with this text.
    pub(in crate::tui) fn new(purpose: Purpose, title: impl Into<String>, text: &str) -> Self {
        Self { purpose, title: title.into(), input: Input::new(text.to_owned()) }
    }

    /// For what is written down in the field of this place; none behind the last.
    pub(in crate::tui) fn shown(desk: &Desk, at: usize) -> Option<Self> {
        let fields = desk.fields();
        let field = fields.get(at)?;
        let written = desk.written();
        let typed = written.get(&field.name).map_or("", String::as_str);
        let title = match desk.question()?.errand() {
            Some(errand) => telling::shown_by_rig(field, errand),
            None => telling::said_by_rig(field),
        };
        Some(Self::new(Purpose::Shown(at), title, typed))
    }

    /// For the first field that is needed and empty, or else the first of all; none where there is none.
    pub(in crate::tui) fn first_missing(desk: &Desk) -> Option<Self> {
        let written = desk.written();
        let is_missing = |field: &Field| field.is_needed && !written.contains_key(&field.name);
        Self::shown(desk, desk.fields().iter().position(is_missing).unwrap_or(0))
    }

    /// For what the sensor of this place reads among those that somebody reads; none behind the last.
    pub(in crate::tui) fn reading(desk: &Desk, at: usize) -> Option<Self> {
        let sensor = desk.shown.rig.read_by_hand().nth(at)?;
        Some(Self::new(Purpose::Reading(at), telling::said_by_rig(&Field::of_sensor(sensor)), ""))
    }

    /// For what is another of the rig, in the field of this place; none behind the last.
    pub(in crate::tui) fn changed(desk: &Desk, at: usize) -> Option<Self> {
        let fields = RigChange::fields(&desk.shown.rig);
        let title = telling::of_rig(fields.get(at)?);
        Some(Self::new(Purpose::Changed(at), title, ""))
    }

    /// For what the listed trials are to have.
    pub(in crate::tui) fn find(desk: &Desk) -> Self {
        Self::new(Purpose::Find, labels::WHAT_TO_FIND, &desk.filter)
    }

    pub(in crate::tui) fn text(&self) -> &str {
        self.input.value()
    }

    /// The key that ends it.
    pub(super) fn key(&self) -> Key {
        let does = match self.purpose {
            Purpose::Find => labels::KEEP_IT,
            Purpose::Value => labels::TAKE_VALUE,
            _ => labels::SAVE,
        };
        Key::enter(does)
    }

    /// Takes in what was typed.
    pub(in crate::tui) fn write(&mut self, event: &Event) {
        self.input.handle_event(event);
    }

    /// Takes in text that was pasted: it is text, and no keys.
    pub(in crate::tui) fn paste(&mut self, text: &str) {
        for c in text.trim().chars().map(|c| if c.is_control() { ' ' } else { c }) {
            self.input.handle(InputRequest::InsertChar(c));
        }
    }

    pub(super) fn draw(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        let place =
            Rect { y: area.bottom().saturating_sub(6), height: 5.min(area.height), ..area }.inner(Margin::new(2, 0));
        frame.render_widget(Clear, place);
        let block = block(desk, &self.title);
        let inside = block.inner(place);
        frame.render_widget(block, place);
        let scroll = self.input.visual_scroll(usize::from(inside.width.saturating_sub(1)));
        let scroll_columns = u16::try_from(scroll).unwrap_or(u16::MAX);
        frame.render_widget(
            Paragraph::new(self.text().to_owned()).style(desk.theme.text).scroll((0, scroll_columns)),
            inside,
        );
        let cursor = u16::try_from(self.input.visual_cursor().saturating_sub(scroll)).unwrap_or(u16::MAX);
        frame.set_cursor_position((inside.x.saturating_add(cursor).min(inside.right()), inside.y));
    }
}
