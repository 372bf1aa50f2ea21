//! The axis of time below the traces: what went wrong, the selected trial, times, and where the cursor stands.

use periculum_core::model::moment::{Moment, Span as Length};
use periculum_core::story::stretch::Stretch;
use ratatui::Frame;
use ratatui::buffer::Buffer;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span};

use crate::tui::desk::Desk;
use crate::tui::pointing::Target;
use crate::tui::telling;

/// The signs of trials that are laid over each other; there are no more of them.
pub(super) const SIGNS: [&str; 4] = ["━", "╍", "·", "═"];

/// About so many columns from one time to the next on the axis.
const BETWEEN_TIMES: u16 = 16;

/// The sign of the cursor.
pub(super) const CURSOR: &str = "│";

/// The column in which a moment lies.
pub(super) fn column(at: Moment, stretch: Stretch, area: Rect) -> u16 {
    let share = at.since(stretch.from).seconds() / stretch.length().seconds().max(0.001);
    area.x + (share.clamp(0.0, 1.0) * f64::from(area.width.saturating_sub(1))).round() as u16
}

/// Times below the traces, what went wrong above them, where the selected trial lies, and the time of the cursor.
pub(super) fn draw_axis(frame: &mut Frame, desk: &Desk, area: Rect, stretch: Stretch, cursor: Option<Moment>) {
    let theme = &desk.theme;
    let buffer = frame.buffer_mut();
    for x in area.left()..area.right() {
        buffer[(x, area.y)].set_symbol("╌").set_style(theme.faint);
    }
    if let Some(trial) = desk.selected_span().filter(|trial| trial.to > stretch.from && trial.from < stretch.to) {
        for x in column(trial.from, stretch, area)..=column(trial.to, stretch, area) {
            buffer[(x, area.y)].set_symbol("━").set_style(theme.accent);
        }
    }
    for incident in desk.incidents_in(stretch) {
        let verdict = incident.incident.kind.verdict();
        let sign = verdict.map_or('–', |verdict| verdict.sign()).to_string();
        let x = column(incident.at, stretch, area);
        buffer[(x, area.y)].set_symbol(&sign).set_style(theme.verdict(verdict).bold());
    }
    let began = desk.shown.story.began.unwrap_or_default();
    draw_times(buffer, desk, area, stretch.from.since(began), stretch.length());
    if let Some(at) = cursor {
        draw_cursor(buffer, desk, area, column(at, stretch, area), at.since(began));
    }
}

/// The time of the cursor, instead of the times that it lies over.
fn draw_cursor(buffer: &mut Buffer, desk: &Desk, area: Rect, x: u16, at: Length) {
    let text = format!(" {} ", at.clock());
    let width = (text.chars().count() as u16).min(area.width);
    let left = x.saturating_sub(width / 2).clamp(area.left(), area.right() - width);
    // No half of a time is left beside it.
    let is_free = |x: &u16| buffer[(*x, area.y + 1)].symbol() == " ";
    let from = (area.left()..left).rev().find(is_free).unwrap_or(area.left());
    let to = (left + width..area.right()).find(is_free).unwrap_or(area.right());
    (from..to).for_each(|x| _ = buffer[(x, area.y + 1)].set_symbol(" "));
    buffer.set_stringn(left, area.y + 1, text, width.into(), desk.theme.accent);
}

/// Times from one on, over this length.
fn draw_times(buffer: &mut Buffer, desk: &Desk, area: Rect, from: Length, length: Length) {
    let times = (area.width / BETWEEN_TIMES).max(1);
    let apart = Length::from_millis(length.millis() / u64::from(times));
    for nth in 0..times {
        let at = from + Length::from_millis(length.millis() * u64::from(nth) / u64::from(times));
        let x = area.x + area.width * nth / times;
        if area.height > 1 {
            buffer.set_stringn(x, area.y + 1, at.clock_among(apart), usize::from(BETWEEN_TIMES), desk.theme.muted);
        }
    }
}

/// Which trial has which sign, and the time since each began.
pub(super) fn draw_legend(frame: &mut Frame, desk: &Desk, area: Rect, over: &[(u32, Stretch)]) {
    let mut line = Line::default();
    for (nth, (trial, _)) in over.iter().enumerate() {
        match SIGNS.get(nth) {
            Some(sign) => {
                line.push_span(Span::styled(format!("{sign}{sign} "), over_style(desk, nth)));
                line.push_span(Span::styled(format!("{}   ", telling::trial(*trial)), desk.theme.text));
            }
            None => line.push_span(Span::styled(format!("{}   ", telling::left_out(*trial)), desk.theme.muted)),
        }
    }
    frame.render_widget(line, Rect { height: 1, ..area });
    let length = over.iter().map(|(_, part)| part.length()).max().unwrap_or_default();
    draw_times(frame.buffer_mut(), desk, area, Length::ZERO, length);
}

/// Each trial can be pointed at where it lies in time.
pub(super) fn put_trials(desk: &Desk, area: Rect, stretch: Stretch) {
    let trials = &desk.shown.story.trials;
    let first = trials.partition_point(|trial| trial.began < stretch.from).saturating_sub(1);
    for (index, trial) in trials.iter().enumerate().skip(first).take_while(|(_, trial)| trial.began < stretch.to) {
        let end = trials.get(index + 1).map_or(stretch.to, |next| next.began);
        let (left, right) = (column(trial.began, stretch, area), column(end, stretch, area));
        desk.places.put(Rect { x: left, width: (right - left).max(1), ..area }, Target::Trial(trial.number));
    }
}

/// The colour of one of several trials that lie over each other.
pub(super) fn over_style(desk: &Desk, nth: usize) -> Style {
    [desk.theme.accent, desk.theme.warning, desk.theme.good, desk.theme.text][nth]
}
