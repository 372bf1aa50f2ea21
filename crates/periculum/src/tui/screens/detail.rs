//! The selected trial: its rung, why it was tried, what it was put to, and everything that happened in it.

use periculum_core::analysis::faster::Faster;
use periculum_core::story::TrialStory;
use periculum_core::story::readback;
use periculum_core::telling::{claim_words, faster_words, gain_words, readback_words};
use ratatui::Frame;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::style::Style;
use ratatui::text::{Line, Span, Text};

use super::fit::WIDE;
use super::ranges;
use super::stages::wrapped;
use crate::tui::desk::Desk;
use crate::tui::telling::{self, labels};

/// How wide it is beside a list or a map.
const WIDTH: u16 = 48;

/// The place of a list or a map, and that of the selected trial: beside it, or in so many lines below it.
pub(super) fn split(area: Rect, below: u16) -> [Rect; 2] {
    if area.width + 2 >= WIDE.0 {
        return Layout::horizontal([Constraint::Min(0), Constraint::Length(WIDTH)]).spacing(3).areas(area);
    }
    Layout::vertical([Constraint::Min(4), Constraint::Length(below)]).spacing(1).areas(area)
}

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    let rest = draw_told(frame, desk, area);
    ranges::draw(frame, desk, rest);
}

/// Without what the sensors read in it; what is left of the area is given back.
pub(super) fn draw_told(frame: &mut Frame, desk: &Desk, area: Rect) -> Rect {
    let trial = desk.selected_trial().and_then(|number| desk.shown.story.trial(number));
    let told = match trial {
        Some(trial) => lines(desk, trial, usize::from(area.width)),
        None => vec![Line::styled(telling::NOTHING_SELECTED, desk.theme.muted)],
    };
    let taken = u16::try_from(told.len()).unwrap_or(u16::MAX).min(area.height);
    frame.render_widget(Text::from(told), area);
    Rect { y: area.y + taken, height: area.height - taken, ..area }
}

fn lines(desk: &Desk, trial: &TrialStory, width: usize) -> Vec<Line<'static>> {
    let theme = &desk.theme;
    let (sign, name) = trial.verdict.map_or(('○', labels::ON_TRIAL), |verdict| (verdict.sign(), verdict.name()));
    let mut lines = vec![Line::from(vec![
        Span::styled(format!("{}   ", telling::trial(trial.number)), theme.muted),
        Span::styled(format!("{sign} {name}"), theme.verdict(trial.verdict).bold()),
    ])];
    let mut say = |text: &str, style: Style| {
        lines.extend(wrapped(text, width).into_iter().map(|row| Line::styled(row, style)));
    };
    say(&desk.shown.rig.written(&trial.rung), theme.text.bold());
    say(&telling::because(&trial.reason.because(&desk.shown.rig)), theme.muted);
    for derived in &desk.shown.rig.derived {
        if let Some(value) = derived.value(&trial.rung) {
            let value = periculum_core::model::quantity::with_unit(value.round_dp(3).normalize(), &derived.unit);
            say(&format!("{} {value}", derived.label()), theme.muted);
        }
    }
    say("", theme.muted);
    let put_to = trial.put_to();
    let begun =
        desk.shown.story.began.map_or(String::new(), |began| format!(", {}", telling::into_climb(trial.began, began)));
    say(&format!("{put_to}{begun}"), theme.muted);
    for pass in &trial.passes {
        say(&telling::pass(pass), theme.text);
    }
    match (Faster::of(&desk.shown.story, trial), trial.gain.zip(trial.score())) {
        (Some(faster), _) => say(&faster_words(&faster), theme.text),
        (None, Some((gain, score))) => say(&gain_words(&gain, score), theme.text),
        (None, None) => {}
    }
    if let Some(claim) = desk.shown.worth(trial) {
        say(&telling::its_rung(&claim_words(&claim)), theme.text);
    }
    for incident in desk.shown.story.incidents.iter().filter(|incident| incident.trial == Some(trial.number)) {
        say(&incident.incident.to_string(), theme.verdict(trial.verdict));
    }
    for note in desk.shown.notes(trial) {
        say(&telling::note(note), theme.text);
    }
    for taken in readback::of_trial(trial, &desk.shown.rig, &desk.shown.traces) {
        let style = if taken.was_taken() { theme.muted } else { theme.bad };
        if let Some(told) = readback_words(&taken) {
            say(&told, style);
        }
    }
    lines
}
