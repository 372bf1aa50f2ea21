//! The terminal while the interface has it: it is given back as it was, however the interface ends.

use std::io::{self, Write, stdout};
use std::panic;
use std::sync::atomic::{AtomicBool, Ordering};

use ratatui::crossterm::clipboard::CopyToClipboard;
use ratatui::crossterm::event::{DisableBracketedPaste, DisableMouseCapture, EnableBracketedPaste, EnableMouseCapture};
use ratatui::crossterm::style::Print;
use ratatui::crossterm::terminal::{
    BeginSynchronizedUpdate, Clear, ClearType, EndSynchronizedUpdate, EnterAlternateScreen, SetTitle, enable_raw_mode,
};
use ratatui::crossterm::{execute, queue};
use ratatui::{DefaultTerminal, Frame};

/// The title that a terminal had before, put aside and brought back (xterm control sequences, window operations 22 and 23).
const PUT_TITLE_ASIDE: &str = "\x1b[22;0t";
const BRING_TITLE_BACK: &str = "\x1b[23;0t";

/// Whether the terminal is taken.
static IS_TAKEN: AtomicBool = AtomicBool::new(false);

/// Gives the terminal back as it was, where it is taken.
pub(super) fn give_back() {
    if IS_TAKEN.swap(false, Ordering::Relaxed) {
        // A terminal that is gone needs nothing back.
        let _ = execute!(
            stdout(),
            EndSynchronizedUpdate,
            DisableMouseCapture,
            DisableBracketedPaste,
            Print(BRING_TITLE_BACK)
        );
        ratatui::restore();
    }
}

/// The terminal, until this is dropped.
pub(super) struct Taken {
    terminal: DefaultTerminal,
}

impl Taken {
    /// Takes the whole terminal, and hears its mouse.
    pub(super) fn enter() -> io::Result<Self> {
        // From here on it is given back, whatever fails.
        let stage = Self { terminal: ratatui::try_init()? };
        IS_TAKEN.store(true, Ordering::Relaxed);
        let before = panic::take_hook();
        panic::set_hook(Box::new(move |info| {
            let _ = execute!(stdout(), EndSynchronizedUpdate, DisableMouseCapture, DisableBracketedPaste);
            before(info);
        }));
        execute!(stdout(), Print(PUT_TITLE_ASIDE), EnableMouseCapture, EnableBracketedPaste)?;
        Ok(stage)
    }

    /// Takes the terminal again after the program stood still: somebody else may have used it meanwhile.
    pub(super) fn take_again(&mut self) -> io::Result<()> {
        enable_raw_mode()?;
        execute!(
            stdout(),
            Print(PUT_TITLE_ASIDE),
            EnterAlternateScreen,
            EnableMouseCapture,
            EnableBracketedPaste,
            Clear(ClearType::All)
        )?;
        IS_TAKEN.store(true, Ordering::Relaxed);
        // Forgets what was drawn before: to clear the terminal by its own method would ask it where its cursor is, and the
        // answer would be taken for a key.
        self.terminal.swap_buffers();
        Ok(())
    }

    /// Draws a frame, which terminals that can show whole: no half of it is ever seen there.
    pub(super) fn draw(&mut self, picture: impl FnOnce(&mut Frame)) -> io::Result<()> {
        queue!(stdout(), BeginSynchronizedUpdate)?;
        self.terminal.draw(picture)?;
        execute!(stdout(), EndSynchronizedUpdate)
    }
}

/// Rings the bell.
pub(super) fn ring() -> io::Result<()> {
    say("\x07")
}

/// Has the terminal show a notification, where it can (operating system command 9).
pub(super) fn notify(text: &str) -> io::Result<()> {
    say(&format!("\x1b]9;{text}\x07"))
}

/// Gives the terminal's window this title.
pub(super) fn title(text: &str) -> io::Result<()> {
    execute!(stdout(), SetTitle(text))
}

/// Puts a text where the terminal's user can paste it from, where the terminal lets programs do so (operating system command 52).
pub(super) fn copy(text: &str) -> io::Result<()> {
    execute!(stdout(), CopyToClipboard::to_clipboard_from(text))
}

fn say(sequence: &str) -> io::Result<()> {
    stdout().write_all(sequence.as_bytes())?;
    stdout().flush()
}

impl Drop for Taken {
    fn drop(&mut self) {
        give_back();
    }
}
