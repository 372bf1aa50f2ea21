//! The terminal while the interface has it: it is given back as it was, however the interface ends.

use std::io::{self, stdout};
use std::panic;

use ratatui::crossterm::event::{DisableMouseCapture, EnableMouseCapture};
use ratatui::crossterm::terminal::{BeginSynchronizedUpdate, EndSynchronizedUpdate};
use ratatui::crossterm::{execute, queue};
use ratatui::{DefaultTerminal, Frame};

/// The terminal, until this is dropped.
pub(super) struct Stage {
    terminal: DefaultTerminal,
}

impl Stage {
    /// Takes the whole terminal, and hears its mouse.
    pub(super) fn enter() -> io::Result<Self> {
        // From here on it is given back, whatever fails.
        let stage = Self { terminal: ratatui::try_init()? };
        let before = panic::take_hook();
        panic::set_hook(Box::new(move |info| {
            let _ = execute!(stdout(), EndSynchronizedUpdate, DisableMouseCapture);
            before(info);
        }));
        execute!(stdout(), EnableMouseCapture)?;
        Ok(stage)
    }

    /// Draws a frame, which terminals that can show whole: no half of it is ever seen there.
    pub(super) fn draw(&mut self, picture: impl FnOnce(&mut Frame)) -> io::Result<()> {
        queue!(stdout(), BeginSynchronizedUpdate)?;
        self.terminal.draw(picture)?;
        execute!(stdout(), EndSynchronizedUpdate)
    }
}

impl Drop for Stage {
    fn drop(&mut self) {
        // A terminal that is gone needs nothing back.
        let _ = execute!(stdout(), DisableMouseCapture);
        ratatui::restore();
    }
}
