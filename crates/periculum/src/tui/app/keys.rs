//! The one table of keys: what is pressed, what it does, and when it can be pressed.

use periculum_core::engine::Answer;
use ratatui::crossterm::event::{KeyCode, KeyEvent, KeyModifiers};

use super::{App, Mode};
use crate::tui::action::{Action, Look, Travel, View};
use crate::tui::draft::Draft;

/// How many trials a page has.
const PAGE: usize = 10;

/// A key and what it does.
pub(in crate::tui) struct Key {
    pub(super) code: KeyCode,
    pub(in crate::tui) shown: &'static str,
    pub(in crate::tui) does: &'static str,
    pub(super) action: Action,
    is_offered: fn(&App) -> bool,
}

const fn key(
    code: KeyCode,
    shown: &'static str,
    does: &'static str,
    action: Action,
    is_offered: fn(&App) -> bool,
) -> Key {
    Key { code, shown, does, action, is_offered }
}

/// Every key, in the order in which it is shown.
const KEYS: &[Key] = &[
    key(KeyCode::Char('d'), "d", "done", Action::Answer(Answer::Done), |app| takes(app, Answer::Done)),
    key(KeyCode::Char('x'), "x", "no start", Action::Answer(Answer::NoStart), |app| takes(app, Answer::NoStart)),
    key(KeyCode::Char('b'), "b", "defaults", Action::Answer(Answer::Defaults), |app| takes(app, Answer::Defaults)),
    key(KeyCode::Char(' '), "space", "go on", Action::PauseOrGoOn, |app| is_climbing(app) && app.waits_for_go()),
    key(KeyCode::Char(' '), "space", "pause", Action::PauseOrGoOn, |app| {
        is_climbing(app) && !app.waits_for_go() && app.shown.story.question.is_none()
    }),
    key(KeyCode::Char('w'), "w", "fault seen", Action::SawSomething, watches),
    key(KeyCode::Char('n'), "n", "note", Action::AddNote, watches),
    key(KeyCode::Char('s'), "s", "stop", Action::Stop, is_climbing),
    key(KeyCode::Char('c'), "c", "cores", Action::ShowCores, |app| {
        is_plain(app) && app.view == View::Climb && !app.shows_cores
    }),
    key(KeyCode::Char('c'), "c", "climb", Action::ShowClimb, |app| {
        is_plain(app) && app.view == View::Climb && app.shows_cores && app.shown.plan.climbed_setting().is_some()
    }),
    key(KeyCode::Char('?'), "?", "help", Action::Help, is_plain),
    key(KeyCode::Char('1'), "1–9", "views", Action::Show(View::Climb), is_plain),
    key(KeyCode::Char('2'), "", "", Action::Show(View::Map), is_plain),
    key(KeyCode::Char('3'), "", "", Action::Show(View::Trials), is_plain),
    key(KeyCode::Char('4'), "", "", Action::Show(View::Rig), is_plain),
    key(KeyCode::Char('5'), "", "", Action::Show(View::Traces), is_plain),
    key(KeyCode::Char('6'), "", "", Action::Show(View::Climbs), is_plain),
    key(KeyCode::Char('7'), "", "", Action::Show(View::Scores), is_plain),
    key(KeyCode::Char('8'), "", "", Action::Show(View::Compare), is_plain),
    key(KeyCode::Char('9'), "", "", Action::Show(View::Plan), is_plain),
    key(KeyCode::Char('q'), "q", "leave", Action::Leave, |app| is_plain(app) && !app.shows_another()),
    key(KeyCode::Char('q'), "q", "back to this climb", Action::CloseOther, |app| is_plain(app) && app.shows_another()),
    key(KeyCode::Up, "↑↓", "select", Action::Select(Travel::Back(1)), selects),
    key(KeyCode::Up, "↑↓", "scroll", Action::Select(Travel::Back(1)), scrolls),
    key(KeyCode::Down, "", "", Action::Select(Travel::On(1)), moves),
    key(KeyCode::PageUp, "", "", Action::Select(Travel::Back(PAGE)), moves),
    key(KeyCode::PageDown, "", "", Action::Select(Travel::On(PAGE)), moves),
    key(KeyCode::Home, "", "", Action::Select(Travel::First), moves),
    key(KeyCode::End, "", "", Action::Select(Travel::Last), moves),
    key(KeyCode::Backspace, "backspace", "drop the last", Action::DropPick, |app| {
        is_plain(app) && app.view == View::Compare && app.picks.count() > 0
    }),
    key(KeyCode::Left, "←→", "benchmark", Action::Turn(Travel::Back(1)), scores),
    key(KeyCode::Right, "", "", Action::Turn(Travel::On(1)), scores),
    key(KeyCode::Enter, "enter", "its trial", Action::ShowTrial, scores),
    key(KeyCode::Char('/'), "/", "find", Action::Find, |app| {
        is_plain(app) && matches!(app.view, View::Trials | View::Climbs)
    }),
    key(KeyCode::Enter, "enter", "open it", Action::Open, |app| {
        is_plain(app) && app.view == View::Climbs && app.shelf.selected().is_some()
    }),
    key(KeyCode::Char('z'), "z", "this trial", Action::Zoom, |app| traces(app) && !app.shows_trial),
    key(KeyCode::Char('z'), "z", "the whole climb", Action::Zoom, |app| traces(app) && app.shows_trial),
    key(KeyCode::Char('p'), "p", "pick", Action::Pick, picks),
    key(KeyCode::Char('+'), "+ -", "closer, farther", Action::Look(Look::Closer), traces),
    key(KeyCode::Char('-'), "", "", Action::Look(Look::Farther), traces),
    key(KeyCode::Left, "←→", "move", Action::Look(Look::Earlier), traces),
    key(KeyCode::Right, "", "", Action::Look(Look::Later), traces),
    key(KeyCode::Char('i'), "i", "next incident", Action::LookAtIncident, |app| {
        traces(app) && !app.shown.story.incidents.is_empty()
    }),
    key(KeyCode::Char('i'), "i", "its incident", Action::LookAtIncident, |app| {
        let selected = app.selected_trial();
        let fell = app.shown.story.incidents.iter().any(|told| told.trial == selected);
        is_plain(app) && matches!(app.view, View::Trials | View::Map) && fell
    }),
    key(KeyCode::Tab, "tab", "more sensors", Action::MoreSensors, |app| traces(app) && app.sensors_left.get() > 0),
    key(KeyCode::Char('o'), "o", "lay over", Action::LayOver, |app| traces(app) && !app.lays_over && can_lay_over(app)),
    key(KeyCode::Char('o'), "o", "one by one", Action::LayOver, |app| traces(app) && app.lays_over),
    key(KeyCode::Char('e'), "e", "export", Action::Save, |app| {
        is_plain(app)
            && match app.view {
                View::Map | View::Trials | View::Scores | View::Climb | View::Traces => true,
                View::Compare => app.picks.count() > 1,
                View::Climbs | View::Rig | View::Plan => false,
            }
    }),
    key(KeyCode::Enter, "enter", "change", Action::Change, |app| plans(app, |draft| draft.written().is_some())),
    key(KeyCode::Char('a'), "a", "add", Action::Add, |app| plans(app, |_| true)),
    key(KeyCode::Char('u'), "u", "undo", Action::Undo, |app| plans(app, Draft::can_undo)),
    key(KeyCode::Char('e'), "e", "write the file", Action::Save, |app| plans(app, |draft| !draft.is_ready())),
    key(KeyCode::Char('g'), "g", "climb it", Action::Begin, |app| plans(app, Draft::is_ready) && app.is_free()),
    key(KeyCode::Char('g'), "g", "climb it again", Action::Repeat, |app| {
        plans(app, |draft| draft.file().is_none()) && app.is_free()
    }),
    key(KeyCode::Char('g'), "g", "climb it again", Action::Repeat, |app| {
        is_plain(app) && app.view == View::Climbs && app.shelf.selected().is_some() && app.is_free()
    }),
    key(KeyCode::Char('c'), "c", "copy", Action::Copy, |app| plans(app, |_| true)),
    key(KeyCode::Backspace, "backspace", "remove", Action::Remove, |app| plans(app, |_| true)),
    key(KeyCode::Char('-'), "- +", "earlier, later", Action::Earlier, |app| plans(app, |_| true)),
    key(KeyCode::Char('+'), "", "", Action::Later, |app| plans(app, |_| true)),
    key(KeyCode::Enter, "enter", "save", Action::Confirm, |app| {
        app.mode.is_text() && !matches!(app.mode, Mode::Finding(_))
    }),
    key(KeyCode::Char('y'), "y", "discard", Action::Confirm, |app| matches!(app.mode, Mode::Dropping)),
    key(KeyCode::Enter, "enter", "keep it", Action::Confirm, |app| matches!(app.mode, Mode::Finding(_))),
    key(KeyCode::Char('y'), "y", "begin", Action::Confirm, |app| {
        matches!(app.mode, Mode::Repeating(_) | Mode::Beginning(_))
    }),
    key(KeyCode::Char('y'), "y", "stop and go back to stock", Action::Confirm, |app| {
        matches!(app.mode, Mode::Stopping)
    }),
    key(KeyCode::Char('m'), "m", "stop and stay at the last mark", Action::StopAtMark, |app| {
        matches!(app.mode, Mode::Stopping) && !app.shown.story.marks.is_empty()
    }),
    key(KeyCode::Char('l'), "l", "leave, it waits", Action::Confirm, |app| matches!(app.mode, Mode::Leaving)),
    key(KeyCode::Char('s'), "s", "stop it for good", Action::StopFromLeaving, |app| matches!(app.mode, Mode::Leaving)),
    key(KeyCode::Esc, "esc", "back", Action::Back, |app| !matches!(app.mode, Mode::Watching) || !app.filter.is_empty()),
];

impl App {
    /// The keys of the view that is shown, which its help lists.
    pub(in crate::tui) fn keys_of_view(&self) -> impl Iterator<Item = &'static Key> {
        KEYS.iter().filter(|key| key.action != Action::Back && !key.shown.is_empty() && (key.is_offered)(self))
    }

    /// The keys that can be pressed now; while help is read, only the one that ends it.
    pub(in crate::tui) fn offered_keys(&self) -> impl Iterator<Item = &'static Key> {
        let reads_help = matches!(self.mode, Mode::Help);
        KEYS.iter().filter(move |key| (key.is_offered)(self) && (!reads_help || key.action == Action::Back))
    }

    /// The key that gives an answer.
    pub(in crate::tui) fn key_of(answer: Answer) -> &'static str {
        KEYS.iter().find(|key| key.action == Action::Answer(answer)).map_or("", |key| key.shown)
    }

    /// What a key press means now; none where it means nothing.
    pub(super) fn meaning_of(&self, pressed: KeyEvent) -> Option<Action> {
        if pressed.modifiers.contains(KeyModifiers::CONTROL) {
            let leaves = pressed.code == KeyCode::Char('c') && matches!(self.mode, Mode::Watching);
            return leaves.then_some(Action::Leave);
        }
        self.offered_keys().find(|key| key.code == pressed.code).map(|key| key.action)
    }

    /// Whether there is something that the selection moves over.
    pub(super) fn has_selection(&self) -> bool {
        moves(self)
    }
}

fn can_lay_over(app: &App) -> bool {
    app.picks.trials_of(app.shown.number).count() > 1
}

fn traces(app: &App) -> bool {
    is_plain(app) && app.view == View::Traces
}

fn selects(app: &App) -> bool {
    let has_list =
        matches!(app.view, View::Map | View::Trials | View::Traces | View::Climbs | View::Scores | View::Plan);
    is_plain(app) && has_list
}

/// Whether a plan is being written that is like this.
fn plans(app: &App, is_so: impl Fn(&Draft) -> bool) -> bool {
    is_plain(app) && app.view == View::Plan && app.draft.as_ref().is_some_and(is_so)
}

fn scrolls(app: &App) -> bool {
    is_plain(app) && matches!(app.view, View::Compare | View::Rig) && app.scroll_room.get() > 0
}

fn moves(app: &App) -> bool {
    selects(app) || scrolls(app)
}

fn picks(app: &App) -> bool {
    is_plain(app) && matches!(app.view, View::Map | View::Trials | View::Traces | View::Climbs)
}

fn scores(app: &App) -> bool {
    is_plain(app) && app.view == View::Scores
}

/// Whether the view itself is what keys go to; help only lies over it.
fn is_plain(app: &App) -> bool {
    matches!(app.mode, Mode::Watching | Mode::Help)
}

fn is_climbing(app: &App) -> bool {
    is_plain(app) && !app.is_over() && !app.is_driver_gone && !app.shows_another()
}

/// What is seen and noted belongs to the view of what goes on; elsewhere there is no room for more keys.
fn watches(app: &App) -> bool {
    is_climbing(app) && app.view == View::Climb
}

/// Whether something is asked that takes this answer.
fn takes(app: &App, answer: Answer) -> bool {
    let question = app.shown.story.question.as_ref().filter(|_| is_climbing(app));
    question.is_some_and(|question| question.answers().contains(&answer))
}
