//! The full-screen interface: a view of the same entries that everything else hears, and the operator's voice.
//!
//! The driver runs in a thread of its own and never waits for the screen. [`app`] is what the screen shows,
//! [`view`] draws it, [`keys`] is the one table of keys.

mod app;
mod keys;
mod library;
mod theme;
mod view;

use std::collections::BTreeMap;
use std::io;
use std::path::PathBuf;
use std::process::ExitCode;
use std::sync::Arc;
use std::thread::{self, JoinHandle};
use std::time::{Duration, Instant};

use anyhow::{Result, anyhow};
use crossbeam_channel::{Receiver, Sender, never, select, unbounded};
use periculum_core::engine::Climb;
use periculum_core::series::Series;
use periculum_core::story::Story;
use ratatui::DefaultTerminal;
use ratatui::crossterm::event::{self, Event};

use crate::ask::Operator;
use crate::briefing::Briefing;
use crate::cli::Pace;
use crate::climbing::{Prepared, tell_past};
use crate::driver::{Pacer, Parting};
use crate::headless::exit_code;
use crate::interrupt;
use crate::notice::Notice;
use crate::tui::app::{App, Heading};
use crate::tui::library::Library;
use crate::tui::theme::Theme;

/// The screen is drawn at most once in this time, unless a key was pressed.
const FRAME: Duration = Duration::from_millis(50);

/// Drives a climb and shows it; up to where `curtain` holds it goes as fast as it can.
pub(crate) fn show(
    prepared: Prepared,
    pace: Option<Pace>,
    curtain: impl Fn(&Climb) -> bool + Send + 'static,
) -> Result<ExitCode> {
    let (words, operator) = Operator::new();
    let (ending, ended) = unbounded();
    interrupt::listen(words.clone(), Some(ending))?;
    let mut app = App::new(
        Heading { number: prepared.number, seed: prepared.seed },
        Arc::clone(&prepared.briefing.rig),
        Arc::clone(&prepared.briefing.plan),
        tell_past(&prepared.past),
        Theme::of_terminal(),
    );
    app.traces.clone_from(&prepared.traces);
    app.library = Library::at(prepared.ledger_path());
    let (sender, notices) = unbounded();
    let driving = drive(prepared, operator, pace, curtain, sender);
    let mut terminal = ratatui::try_init()?;
    let mut screen = Screen { app, words, notices, ended };
    let shown = screen.run(&mut terminal);
    ratatui::restore();
    let parting =
        driving.join().map_err(|_| anyhow!("the driver panicked; `periculum resume` goes on with the climb"))?;
    shown?;
    let parting = parting?;
    screen.take_waiting();
    for problem in &screen.app.left_behind {
        eprintln!("periculum: {problem}; `periculum restore` tries again");
    }
    if parting == Parting::Waiting {
        println!("The climb waits; `periculum resume` goes on with it.");
        return Ok(ExitCode::SUCCESS);
    }
    Ok(exit_code(parting, &screen.app.story))
}

/// Shows a climb as the ledger has it; nothing is driven.
pub(crate) fn browse(climb: Browsed) -> Result<()> {
    let (words, _) = unbounded();
    let (ending, ended) = unbounded();
    interrupt::listen(words.clone(), Some(ending))?;
    let Browsed { ledger, number, seed, briefing, story, traces } = climb;
    let (rig, plan) = (Arc::clone(&briefing.rig), Arc::clone(&briefing.plan));
    let mut app = App::new(Heading { number, seed }, rig, plan, story, Theme::of_terminal());
    app.traces = traces;
    app.library = Library::at(ledger);
    app.is_driver_gone = true;
    let mut terminal = ratatui::try_init()?;
    let mut screen = Screen { app, words, notices: never(), ended };
    let shown = screen.run(&mut terminal);
    ratatui::restore();
    Ok(shown?)
}

/// A climb from the ledger.
pub(crate) struct Browsed {
    pub(crate) ledger: PathBuf,
    pub(crate) number: i64,
    pub(crate) seed: Option<u64>,
    pub(crate) briefing: Briefing,
    pub(crate) story: Story,
    pub(crate) traces: BTreeMap<String, Series>,
}

/// Starts the thread that drives; it ends when the climb does, or when the operator leaves.
fn drive(
    prepared: Prepared,
    operator: Operator,
    pace: Option<Pace>,
    curtain: impl Fn(&Climb) -> bool + Send + 'static,
    sender: Sender<Notice>,
) -> JoinHandle<Result<Parting>> {
    thread::spawn(move || {
        // A screen that is gone hears nothing more; the climb ends in good order all the same.
        let (mut driver, first, _claim) = prepared.driver(operator, pace, move |notice| drop(sender.send(notice)));
        let paced = std::mem::replace(&mut driver.pacer, Pacer::new(Some(Pace::Max)));
        let before = driver.drive(first, curtain)?;
        if before == Parting::Ended {
            return Ok(before);
        }
        driver.pacer = paced;
        driver.go_on(|_| false)
    })
}

struct Screen {
    app: App,
    words: Sender<periculum_core::engine::Said>,
    notices: Receiver<Notice>,
    /// Tells when this process is to end, as when its terminal is closed.
    ended: Receiver<()>,
}

impl Screen {
    fn run(&mut self, terminal: &mut DefaultTerminal) -> io::Result<()> {
        let input = listen_to_terminal();
        while !self.app.is_done {
            terminal.draw(|frame| view::draw(frame, &self.app))?;
            let drawn = Instant::now();
            self.wait(&input);
            // What comes in a burst is drawn once.
            while self.notices_left() && drawn.elapsed() < FRAME {
                match input.recv_timeout(FRAME.saturating_sub(drawn.elapsed())) {
                    Ok(event) => {
                        self.take_event(&event);
                        break;
                    }
                    Err(_) => self.take_waiting(),
                }
            }
            self.take_waiting();
        }
        Ok(())
    }

    /// Waits until there is something to show.
    fn wait(&mut self, input: &Receiver<Event>) {
        let silent = never();
        let notices = if self.app.is_driver_gone { &silent } else { &self.notices };
        select! {
            recv(input) -> event => match event {
                Ok(event) => self.take_event(&event),
                Err(_) => self.app.is_done = true,
            },
            recv(notices) -> notice => match notice {
                Ok(notice) => self.app.hear(notice),
                Err(_) => self.app.driver_is_gone(),
            },
            recv(self.ended) -> _ => self.app.end(),
        }
    }

    fn notices_left(&self) -> bool {
        !self.app.is_driver_gone && !self.app.is_done
    }

    fn take_waiting(&mut self) {
        while let Ok(notice) = self.notices.try_recv() {
            self.app.hear(notice);
        }
    }

    fn take_event(&mut self, event: &Event) {
        for said in self.app.press(event) {
            // A driver that is gone has ended the climb already.
            let _ = self.words.send(said);
        }
    }
}

fn listen_to_terminal() -> Receiver<Event> {
    let (sender, receiver) = unbounded();
    thread::spawn(move || {
        while let Ok(event) = event::read() {
            if sender.send(event).is_err() {
                return;
            }
        }
    });
    receiver
}
