//! What was picked, beside each other: what differs comes first, with the difference to the first one.

use std::path::Path;

use anyhow::Result;
use periculum_charts::{comparison, sheet};
use periculum_core::analysis::contrast::{Contrast, Fact, Row, Value, contrast};
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::text::{Line, Span, Text};
use ratatui::widgets::Widget;

use super::fit::fit;
use super::scroll::Scroll;
use super::{Proposed, Screen, Then, export, specimens};
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::picked::Picked;
use crate::tui::telling::{self, labels};
use crate::tui::travel::Travel;

/// Columns for what a line is about.
const LABEL: usize = 30;

/// Columns of a side, at least and at most.
const SIDE: (usize, usize) = (25, 36);

/// The screen of what was picked.
#[derive(Default)]
pub(super) struct Compare {
    scroll: Scroll,
}

impl Screen for Compare {
    fn help(&self) -> &'static str {
        labels::HELP_OF_COMPARE
    }

    fn signs(&self) -> (usize, usize) {
        (0, 0)
    }

    fn enter(&mut self, desk: &mut Desk) {
        self.scroll = Scroll::default();
        desk.picks.look_again(&desk.shown);
        desk.shelf.read();
    }

    fn keys(&self, desk: &Desk) -> Vec<Key> {
        vec![
            Key::backspace(labels::DROP_LAST).only(desk.picks.count() > 0, labels::NOTHING_IS_PICKED),
            Key::letter('e', "e", labels::EXPORT).only(desk.picks.count() > 1, labels::PICK_TWO),
        ]
    }

    fn press(&mut self, code: KeyCode, desk: &mut Desk) -> Then {
        match code {
            KeyCode::Backspace => desk.picks.drop_last(),
            KeyCode::Char('e') => return Then::Write,
            _ => {}
        }
        Then::Nothing
    }

    fn moves(&self, _desk: &Desk) -> Option<&'static str> {
        self.scroll.can_move().then_some(labels::SCROLL)
    }

    fn select(&mut self, step: Travel, _desk: &mut Desk) {
        self.scroll.go(step);
    }

    fn draw(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        draw(frame, desk, area, &self.scroll);
    }

    fn file(&self, desk: &Desk) -> Option<Proposed> {
        (desk.picks.count() > 1).then(|| export::picture_of(desk, labels::FILE_COMPARISON))
    }

    fn write(&mut self, path: &Path, desk: &mut Desk) -> Result<String> {
        export::picture(path, desk, |_| {
            let titles: Vec<String> = desk.picks.iter().map(|picked| picked.title[0].clone()).collect();
            let sides: Vec<&[Fact]> = desk.picks.iter().map(|picked| picked.facts.as_slice()).collect();
            Ok(sheet(&comparison(&titles, &sides))?)
        })
    }
}

fn draw(frame: &mut Frame, desk: &Desk, area: Rect, scroll: &Scroll) {
    if desk.picks.count() < 2 {
        return specimens::draw(frame, desk, area, scroll);
    }
    let theme = &desk.theme;
    let [head, body] = Layout::vertical([Constraint::Length(3), Constraint::Min(0)]).areas(area);
    let room = usize::from(area.width).saturating_sub(LABEL);
    let sides: Vec<&Picked> = desk.picks.iter().take((room / SIDE.0).max(2)).collect();
    let wide = (room / sides.len()).min(SIDE.1);
    frame.render_widget(Text::from(titles(desk, &sides, wide, area.width)), head);
    let facts: Vec<&[Fact]> = sides.iter().map(|side| side.facts.as_slice()).collect();
    let Contrast { different, same } = contrast(&facts);
    let mut lines: Vec<Line> = Vec::new();
    if different.is_empty() {
        lines.push(Line::styled(telling::NOTHING_DIFFERS, theme.text));
    }
    lines.extend(different.iter().map(|row| line(desk, row, wide, true)));
    lines.push(Line::default());
    lines.push(Line::styled(labels::THE_SAME, theme.muted));
    lines.extend(same.iter().map(|row| line(desk, row, wide, false)));
    scroll.draw(frame, &desk.theme, body, lines.len(), |buffer, area| {
        Text::from_iter(lines.into_iter().map(|line| fit(line, area.width, theme.muted))).render(area, buffer);
    });
}

fn titles(desk: &Desk, sides: &[&Picked], wide: usize, width: u16) -> Vec<Line<'static>> {
    let theme = &desk.theme;
    let more = desk.picks.count() - sides.len();
    let more = telling::more_need_room(more);
    let mut upper = Line::styled(format!("{more:<LABEL$}"), theme.muted);
    let mut lower = Line::raw(" ".repeat(LABEL));
    for side in sides {
        let [what, of] = &side.title;
        upper.push_span(Span::styled(padded(what, wide), theme.accent.bold()));
        lower.push_span(Span::styled(padded(of, wide), theme.muted));
    }
    vec![fit(upper, width, theme.muted), fit(lower, width, theme.muted)]
}

fn line(desk: &Desk, row: &Row, wide: usize, differs: bool) -> Line<'static> {
    let theme = &desk.theme;
    let mut line = Line::styled(padded(&row.label, LABEL), theme.muted);
    for (index, (value, difference)) in row.values.iter().zip(&row.differences).enumerate() {
        let told = value.as_ref().map_or_else(|| "–".into(), Value::to_string);
        let text = if differs { theme.text } else { theme.muted };
        let difference = difference.as_ref().filter(|_| index > 0).filter(|difference| difference.by != 0.0);
        let Some((difference, Some(Value::Number(number)))) = difference.map(|by| (by, value)) else {
            line.push_span(Span::styled(padded(&told, wide), text));
            continue;
        };
        let apart = difference.told(number);
        let style = if difference.is_clear() { theme.warning } else { theme.muted };
        let left = wide.saturating_sub(told.chars().count() + 2);
        line.push_span(Span::styled(format!("{told}  "), text));
        line.push_span(Span::styled(padded(&apart, left), style));
    }
    line
}

/// The text in so many columns, with one left free behind it.
fn padded(text: &str, columns: usize) -> String {
    let room = columns.saturating_sub(1);
    if text.chars().count() <= room {
        return format!("{text:<columns$}");
    }
    let kept: String = text.chars().take(room.saturating_sub(1)).collect();
    format!("{kept}… ")
}
