//! The full-screen interface: a view of the same entries that everything else hears, and the operator's voice.
//!
//! The driver runs in a thread of its own and never waits for the screen. [`app`] takes events to where they mean something:
//! one of the [`screens`], each with its own keys, state and picture, or one of the [`overlays`] on top of them; [`desk`] is what
//! all of them share.

mod answers;
mod app;
mod calls;
mod climbed;
mod desk;
mod desktop;
mod draft;
mod form;
mod habits;
mod keeping;
mod keymap;
mod keys;
mod library;
mod overlays;
mod picked;
mod pointing;
mod preferences;
mod screens;
mod shading;
mod shelf;
mod start;
mod telling;
mod terminal;
mod theme;
mod travel;

use std::io;
use std::process::ExitCode;
use std::sync::{Arc, LazyLock};
use std::thread::{self, JoinHandle};
use std::time::{Duration, Instant};

use anyhow::{Result, anyhow};
use crossbeam_channel::{Receiver, Sender, never, select, unbounded};
use periculum_core::engine::Climb;
use periculum_core::telling::mark_sentence;
use ratatui::crossterm::event::{self, Event};
use rustix::process::{Signal, getpid, kill_process};
use signal_hook::consts::SIGCONT;
use signal_hook::iterator::Signals;

use crate::cli::Pace;
use crate::climbing::{Prepared, Wanted};
use crate::driving::{Hands, Operator, Pacer, Parting};
use crate::exit::exit_code;
use crate::interrupt;
use crate::notice::Notice;
use crate::output::{complain, say};
use crate::places;
use crate::recalling::tell_past;
use crate::telling::climbing;
use crate::tui::app::App;
use crate::tui::calls::{Standing, Watch};
use crate::tui::climbed::Climbed;
use crate::tui::desktop::Desktop;
pub(crate) use crate::tui::draft::Draft;
use crate::tui::keeping::Kept;
pub(crate) use crate::tui::library::Library;
pub(crate) use crate::tui::preferences::Preferences;
pub(crate) use crate::tui::start::{Chosen, ask_to_begin, start};
use crate::tui::terminal::Taken;

/// Gives the terminal back as it was, where an interface has it.
pub(crate) fn give_back_terminal() {
    terminal::give_back();
}

/// The screen is drawn at most once in this time, unless a key was pressed.
const FRAME: Duration = Duration::from_millis(50);

/// The same for whom what moves disturbs.
const CALM_FRAME: Duration = Duration::from_secs(1);

/// Drives a climb and shows it; up to where `curtain` holds it goes as fast as it can. Tells what is to be climbed next.
pub(crate) fn show(
    prepared: Prepared,
    pace: Option<Pace>,
    hands: Hands,
    curtain: impl Fn(&Climb) -> bool + Send + 'static,
) -> Result<(ExitCode, Option<Wanted>)> {
    let (words, operator) = Operator::new();
    let operator = if hands == Hands::Simulated { operator.with_hands() } else { operator };
    let (ending, ended) = unbounded();
    interrupt::listen(words.clone(), Some(ending), give_back_terminal)?;
    let past = tell_past(&prepared.past);
    let kinds = if past.kinds.is_empty() { prepared.kinds().to_vec() } else { past.kinds.clone() };
    let climbed = Climbed::new(&prepared.row()?, &prepared.briefing, past, prepared.traces.clone());
    let climbed = climbed.under_way(&kinds);
    let preferences = Preferences::of_user()?;
    let app = App::new(climbed, Library::at(prepared.ledger_path()), &preferences);
    let (sender, notices) = unbounded();
    let (ledger, plan) = (prepared.ledger_path(), Arc::clone(&prepared.briefing.plan));
    let driving = drive(prepared, operator, pace, curtain, sender);
    let mut screen = Screen::new(app, words, notices, ended, preferences);
    let shown = screen.run();
    if shown.is_err() {
        // Nobody sees anything any more, so the climb waits in good order.
        let _ = screen.words.send(periculum_core::engine::Said::Suspend);
    }
    let parting = driving.join().map_err(|_| anyhow!(climbing::DRIVER_PANICKED))?;
    shown?;
    let parting = parting?;
    screen.take_waiting();
    for problem in &screen.app.left_behind {
        complain(climbing::try_again(problem));
    }
    if parting == Parting::Waiting {
        say(climbing::it_waits(places::typed("resume", &ledger)));
        return Ok((ExitCode::SUCCESS, None));
    }
    let live = screen.app.desk.live();
    for line in parting_words(live) {
        say(line);
    }
    Ok((exit_code(parting, &live.story, &plan), screen.app.wanted))
}

/// What is left to know of a climb that is over, for whoever has closed the interface.
fn parting_words(climbed: &Climbed) -> Vec<String> {
    let Some(ended) = &climbed.story.ended else { return Vec::new() };
    let marks = climbed.story.marks.iter().rev().map(|mark| climbing::its_mark(mark_sentence(mark, &climbed.rig)));
    let head = climbing::it_is_over(climbed.number, &climbed.rig.name, ended.end.sentence());
    std::iter::once(head).chain(marks.take(1)).collect()
}

/// Shows a climb as the ledger has it; nothing is driven. Tells what is to be climbed then.
pub(crate) fn browse(library: Library, number: i64) -> Result<Option<Wanted>> {
    let preferences = Preferences::of_user()?;
    look(App::new(library.open(number)?, library, &preferences), preferences)
}

/// Shows a plan to be written; tells what is to be climbed then.
pub(crate) fn write(draft: Draft, library: Library) -> Result<Option<Wanted>> {
    let preferences = Preferences::of_user()?;
    let mut app = App::new(Climbed::not_begun(&draft.briefing()?), library, &preferences);
    (app.desk.draft, app.screens.at) = (Some(draft), screens::View::Plan);
    look(app, preferences)
}

/// Shows what is there; nothing is driven.
fn look(mut app: App, preferences: Preferences) -> Result<Option<Wanted>> {
    let (words, _) = unbounded();
    let (ending, ended) = unbounded();
    interrupt::listen(words.clone(), Some(ending), give_back_terminal)?;
    app.desk.is_driver_gone = true;
    let mut screen = Screen::new(app, words, never(), ended, preferences);
    screen.run()?;
    Ok(screen.app.wanted)
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
        driver.foresees = true;
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
    /// Tells when this process goes on after it stood still.
    woken: Receiver<()>,
    is_woken: bool,
    preferences: Preferences,
    watch: Watch,
    /// What the title says.
    titled: String,
    /// What is kept for the next time.
    kept: Kept,
    desktop: Desktop,
}

impl Screen {
    fn new(
        app: App,
        words: Sender<periculum_core::engine::Said>,
        notices: Receiver<Notice>,
        ended: Receiver<()>,
        preferences: Preferences,
    ) -> Self {
        let (woken, watch) = (listen_for_waking(), Watch::default());
        let (titled, kept) = (String::new(), Kept::of(app.desk.shelf.library.path()));
        let desktop = Desktop::default();
        Self { app, words, notices, ended, woken, is_woken: false, preferences, watch, titled, kept, desktop }
    }

    fn run(&mut self) -> io::Result<()> {
        let mut stage = Taken::enter()?;
        self.app.desk.take_up(&self.kept);
        let input = listen_to_terminal();
        while !self.app.is_done {
            if std::mem::take(&mut self.app.wants_to_stand_still) {
                terminal::give_back();
                kill_process(getpid(), Signal::STOP).map_err(io::Error::from)?;
                self.is_woken = true;
            }
            if std::mem::take(&mut self.is_woken) {
                stage.take_again()?;
                // The shell has its own title back meanwhile.
                self.titled.clear();
            }
            stage.draw(|frame| self.app.draw(frame))?;
            self.tell_those_who_look_elsewhere()?;
            self.keep();
            let drawn = Instant::now();
            let spacing = if self.preferences.is_calm { CALM_FRAME } else { FRAME };
            let is_pressed = self.wait(&input);
            // What comes in a burst is drawn once, but nobody waits for what a key does.
            while !is_pressed && self.notices_left() && drawn.elapsed() < spacing {
                match input.recv_timeout(spacing.saturating_sub(drawn.elapsed())) {
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

    /// Keeps what was looked for and picked, once nobody is writing at it any more.
    fn keep(&mut self) {
        let now = self.app.desk.kept();
        if now != self.kept && !self.app.is_writing() {
            now.keep(self.app.desk.shelf.library.path());
            self.kept = now;
        }
    }

    /// Sets the title, calls whoever wants to be called, and hands out what was copied.
    fn tell_those_who_look_elsewhere(&mut self) -> io::Result<()> {
        let calls = &self.preferences.calls;
        let title = self.app.title();
        if calls.title && title != self.titled {
            terminal::title(&title)?;
            self.titled = title;
        }
        if let Some(occasion) = self.watch.look(Standing::of(&self.app.desk.live().story), Instant::now()) {
            if calls.bell.contains(&occasion) {
                terminal::ring()?;
            }
            if calls.notify.contains(&occasion) {
                terminal::notify(&self.app.call(occasion))?;
            }
            if calls.desktop.contains(&occasion) {
                self.desktop.notify(self.app.call(occasion));
            }
        }
        self.app.copied.take().map_or(Ok(()), |text| terminal::copy(&text))
    }

    /// Waits until there is something to show, and tells whether it is what a key does.
    fn wait(&mut self, input: &Receiver<Event>) -> bool {
        let silent = never();
        let notices = if self.app.desk.is_driver_gone { &silent } else { &self.notices };
        select! {
            recv(input) -> event => {
                match event {
                    Ok(event) => self.take_event(&event),
                    Err(_) => self.app.is_done = true,
                }
                return true;
            }
            recv(notices) -> notice => match notice {
                Ok(notice) => self.app.hear(notice),
                Err(_) => self.app.driver_is_gone(),
            },
            recv(self.app.desk.shelf.reads()) -> read => if let Ok(read) = read { self.app.take_read(read) },
            recv(self.app.desk.shading.worked()) -> worked => if let Ok(worked) = worked { self.app.desk.shading.take(worked) },
            recv(self.desktop.troubles()) -> why => if let Ok(why) = why {
                self.app.desk.told = self.desktop.complain(why).or(self.app.desk.told.take());
            },
            recv(self.ended) -> _ => self.app.end(),
            recv(self.woken) -> _ => self.is_woken = true,
        }
        false
    }

    fn notices_left(&self) -> bool {
        !self.app.desk.is_driver_gone && !self.app.is_done
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

/// Tells, as long as the program lives, when it goes on after it stood still.
fn listen_for_waking() -> Receiver<()> {
    static WAKINGS: LazyLock<Receiver<()>> = LazyLock::new(|| {
        let (sender, receiver) = unbounded();
        if let Ok(mut signals) = Signals::new([SIGCONT]) {
            thread::spawn(move || while signals.forever().next().is_some() && sender.send(()).is_ok() {});
        }
        receiver
    });
    WAKINGS.clone()
}

/// What the terminal tells: heard by one thread as long as the program lives, since one that is left over from an
/// earlier screen would take a key from the next.
fn listen_to_terminal() -> Receiver<Event> {
    static EVENTS: LazyLock<Receiver<Event>> = LazyLock::new(|| {
        let (sender, receiver) = unbounded();
        thread::spawn(move || {
            while let Ok(event) = event::read() {
                if sender.send(event).is_err() {
                    return;
                }
            }
        });
        receiver
    });
    EVENTS.clone()
}
