//! The climb: where we are, whether it is all right, what comes next, what went wrong last.

use std::path::Path;

use anyhow::Result;
use periculum_core::engine::Answer;
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::{Constraint, Layout, Rect};

use super::fit::ROOMY;
use super::{
    Proposed, Screen, Then, View, cores, ended, export, figures, latest, lead, logbook, profile, sensors, stages, trial,
};
use crate::tui::desk::Desk;
use crate::tui::keys::{Key, offered};
use crate::tui::overlays::{Card, Entry, Overlay, Purpose};
use crate::tui::pointing::Target;
use crate::tui::telling::{self, labels};
use crate::tui::travel::Travel;

/// How wide that column is.
const FIGURES: u16 = 48;

/// From this width up the form of who leads leaves room for the figures beside it.
const FORM_BESIDE: u16 = 150;

/// The screen of the climb.
pub(super) struct Climb {
    /// Whether the cores of the running pass stand where the climb's profile does.
    pub(super) shows_cores: bool,
}

impl Screen for Climb {
    fn help(&self) -> &'static str {
        labels::HELP_OF_CLIMB
    }

    fn signs(&self) -> (usize, usize) {
        (0, 8)
    }

    fn keys(&self, desk: &Desk) -> Vec<Key> {
        let (watches, climbs) = (desk.is_climbing(), desk.shown.plan.climbed_setting().is_some());
        let at_end = |key: Key| key.first().only(desk.is_over(), labels::NOT_OVER);
        let own = offered([
            (true, at_end(Key::letter('r', "r", labels::REPORT))),
            (true, at_end(Key::letter('a', "a", labels::AGAIN)).only(desk.is_free(), labels::ANOTHER_RUNS)),
            (true, at_end(Key::letter('p', "p", labels::ITS_PROFILES))),
            (true, at_end(Key::letter('o', "o", labels::ITS_SCORES))),
            (
                !desk.takes(Answer::WrongPicture),
                Key::letter('w', "w", labels::FAULT_SEEN).first().only(watches, labels::NOTHING_IS_CLIMBED),
            ),
            (true, Key::letter('n', "n", labels::NOTE_KEY).first().only(watches, labels::NOTHING_IS_CLIMBED)),
            (!self.shows_cores, Key::letter('c', "c", labels::CORES).first()),
            (self.shows_cores && climbs, Key::letter('c', "c", labels::CLIMB).first()),
            (true, Key::letter('e', "e", labels::EXPORT)),
        ]);
        if desk.turn().is_some() { lead::keys(desk).into_iter().chain(own).collect() } else { own }
    }

    fn press(&mut self, code: KeyCode, desk: &mut Desk) -> Then {
        if let Some(then) = lead::press(code, desk) {
            return then;
        }
        match code {
            KeyCode::Char('w') => {
                let open = desk.shown.story.open_trial().or(desk.shown.story.trials.last());
                let purpose = Purpose::Saw(open.map(|trial| trial.number));
                return Then::Open(Overlay::Entry(Entry::new(purpose, labels::WHAT_WAS_SEEN, "")));
            }
            KeyCode::Char('n') => return Then::Open(Overlay::Entry(Entry::new(Purpose::Note, labels::NOTE, ""))),
            KeyCode::Char('c') => self.shows_cores = !self.shows_cores,
            KeyCode::Char('e') => return Then::Write,
            KeyCode::Char('r') => {
                let name = export::free(telling::report_of_climb(desk.shown.number));
                return Then::Open(Overlay::Entry(Entry::new(Purpose::Report, labels::FILE_FOR_REPORT, &name)));
            }
            KeyCode::Char('p') => return Then::Show(View::Rig),
            KeyCode::Char('o') => return Then::Show(View::Scores),
            KeyCode::Char('a') => return Then::Open(Overlay::Card(Card::repeating(desk.shown.number))),
            _ => {}
        }
        Then::Nothing
    }

    fn moves(&self, desk: &Desk) -> Option<&'static str> {
        desk.turn().map(|_| labels::SELECT_SETTING)
    }

    fn takes_digits(&self, desk: &Desk) -> bool {
        desk.turn().is_some()
    }

    fn select(&mut self, step: Travel, desk: &mut Desk) {
        if let Some(mut form) = desk.form() {
            form.select(step, &desk.shown.rig);
            desk.set_form(form);
        }
    }

    /// A trial is shown for itself where all trials are.
    fn point(&mut self, target: Target, desk: &mut Desk) -> Then {
        let Target::Trial(number) = target else { return Then::Nothing };
        desk.selected = Some(number);
        Then::Show(View::Trials)
    }

    fn draw(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        if area.width >= ROOMY.0 && area.height >= ROOMY.1 {
            self.draw_wide(frame, desk, area);
        } else {
            self.draw_narrow(frame, desk, area);
        }
    }

    fn file(&self, desk: &Desk) -> Option<Proposed> {
        Some(export::picture_of(desk, if self.shows_cores { labels::FILE_CORES } else { labels::FILE_ASCENT }))
    }

    fn write(&mut self, path: &Path, desk: &mut Desk) -> Result<String> {
        let shows_cores = self.shows_cores;
        export::picture(path, desk, |drawn| if shows_cores { drawn.cores() } else { drawn.ascent() })
    }
}

impl Climb {
    fn draw_wide(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        let [upper, lower] =
            Layout::vertical([Constraint::Min(0), Constraint::Length(lower_height(desk, area.height))])
                .spacing(1)
                .areas(area);
        let columns = Layout::horizontal([Constraint::Min(0), Constraint::Length(FIGURES)]).spacing(3);
        let [profile, figures] = columns.areas(upper);
        let [now, log] =
            Layout::vertical([Constraint::Length(now_height(desk)), Constraint::Min(0)]).spacing(1).areas(lower);
        self.draw_main(frame, desk, profile);
        if desk.turn().is_some() && area.width >= FORM_BESIDE {
            let [form, _] = columns.areas(now);
            draw_now(frame, desk, form);
            draw_figures(frame, desk, Rect { height: now.bottom() - figures.y, ..figures });
        } else {
            draw_now(frame, desk, now);
            draw_figures(frame, desk, figures);
        }
        let [log, stages] = columns.areas(log);
        logbook::draw(frame, desk, log);
        stages::draw(frame, desk, stages);
    }

    /// The climb, or the cores that work on its pass.
    fn draw_main(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        if self.shows_cores { cores::draw(frame, desk, area) } else { profile::draw(frame, desk, area) }
    }

    fn draw_narrow(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        let readings = sensors::compact_height(desk, area.width);
        let [profile, sensors, trial, log] = Layout::vertical([
            Constraint::Min(6),
            Constraint::Length(readings),
            Constraint::Length(now_height(desk)),
            Constraint::Length(area.height.saturating_sub(26).min(12)),
        ])
        .areas(area);
        self.draw_main(frame, desk, profile);
        sensors::draw_compact(frame, desk, sensors);
        draw_now(frame, desk, trial);
        logbook::draw(frame, desk, log);
    }
}

/// The figure that was reached, what sensors read, and where there is room the trials before.
fn draw_figures(frame: &mut Frame, desk: &Desk, area: Rect) {
    let rows = [Constraint::Length(8), Constraint::Max(sensors::list_height(desk)), Constraint::Min(0)];
    let [best, readings, before] = Layout::vertical(rows).spacing(1).areas(area);
    figures::draw(frame, desk, best);
    sensors::draw_list(frame, desk, readings);
    latest::draw(frame, desk, before);
}

/// The form where the operator is to say what comes next, what was found where it is over, and else the trial.
fn draw_now(frame: &mut Frame, desk: &Desk, area: Rect) {
    match desk.turn() {
        Some(_) => lead::draw(frame, desk, area),
        None if desk.is_over() => ended::draw(frame, desk, area),
        None => trial::draw(frame, desk, area),
    }
}

fn now_height(desk: &Desk) -> u16 {
    match desk.turn() {
        Some(_) => lead::height(desk),
        None if desk.is_over() => ended::height(desk),
        None => trial::HEIGHT,
    }
}

/// The trial and as much of the logbook as leaves most of the screen to the profile.
fn lower_height(desk: &Desk, height: u16) -> u16 {
    now_height(desk) + 2 + (height / 7).clamp(4, 12)
}
