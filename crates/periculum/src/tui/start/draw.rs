//! How the start screen looks: a page of a logbook, with one line selected and what each would do below it.

use periculum_core::model::quantity::harmless;
use ratatui::Frame;
use ratatui::layout::{Constraint, Layout, Margin, Rect};
use ratatui::text::{Line, Span, Text};
use ratatui::widgets::Paragraph;

use super::Start;
use super::leaf::{Choice, Leaf};
use crate::tui::screens::{fit, wrapped};
use crate::tui::telling::labels;
use crate::tui::theme::Theme;

/// Lines for what the selected line would do, where there is no room to say that of all.
const BELOW: u16 = 3;

/// How far what a line would do is indented below it.
const INDENT: u16 = 4;

/// No line of text is longer than this, so that it can be read.
const READABLE: u16 = 118;

/// A label is no wider than this where a fact stands behind it.
const WIDEST_LABEL: usize = 44;

pub(super) fn draw(frame: &mut Frame, start: &Start) {
    let area = frame.area();
    let theme = &start.theme;
    frame.buffer_mut().set_style(area, theme.text);
    let [head, body, foot] =
        Layout::vertical([Constraint::Length(1), Constraint::Min(0), Constraint::Length(1)]).areas(area);
    let title = Line::from(vec![
        Span::styled(labels::PROGRAM, theme.text.bold()),
        Span::styled(format!("   {}", labels::WHAT_IT_IS), theme.muted),
    ]);
    let head = head.inner(Margin::new(1, 0));
    frame.render_widget(fit(title, head.width, theme.muted), head);
    draw_leaf(frame, theme, start.leaf(), body.inner(Margin::new(1, 1)));
    start.habits.put_commas(frame.buffer_mut(), None);
    draw_foot(frame, start, foot.inner(Margin::new(1, 0)));
}

/// All that a leaf says where there is room, and what its lines would do only of the selected one otherwise.
fn draw_leaf(frame: &mut Frame, theme: &Theme, leaf: &Leaf, area: Rect) {
    let (all, _) = lines(theme, leaf, area.width, true);
    if all.len() <= usize::from(area.height) {
        return frame.render_widget(Text::from(all), area);
    }
    let [list, below] = Layout::vertical([Constraint::Min(0), Constraint::Length(BELOW)]).spacing(1).areas(area);
    let (short, selected) = lines(theme, leaf, list.width, false);
    // The selected line stays in sight, with what stands above as far as there is room.
    let skipped = (selected + 1).saturating_sub(usize::from(list.height));
    frame.render_widget(Text::from_iter(short.into_iter().skip(skipped)), list);
    let told = leaf.selected().map(|choice| beside(theme, choice, below.width)).unwrap_or_default();
    frame.render_widget(Text::from(told), below);
}

/// The lines of a leaf, and the place of the selected one.
fn lines(theme: &Theme, leaf: &Leaf, width: u16, tells_all: bool) -> (Vec<Line<'static>>, usize) {
    let mut lines: Vec<Line> = Vec::new();
    if !leaf.title.is_empty() {
        lines.extend([Line::styled(harmless(&leaf.title), theme.accent.bold()), Line::default()]);
    }
    lines.extend(leaf.above.iter().flat_map(|text| paragraph(text, width)).map(|text| Line::styled(text, theme.text)));
    let widest = leaf.choices().filter(|choice| !choice.fact.is_empty()).map(|choice| choice.label.chars().count());
    let label = widest.max().unwrap_or(0).min(WIDEST_LABEL);
    let (mut place, mut selected) = (0, 0);
    for (title, choices) in &leaf.groups {
        if lines.last().is_some_and(|line| line.width() > 0) {
            lines.push(Line::default());
        }
        if !title.is_empty() {
            lines.push(Line::styled(title.clone(), theme.muted));
        }
        for choice in choices {
            let is_selected = place == leaf.at;
            if is_selected {
                selected = lines.len();
            }
            let mut line = choice_line(theme, choice, label, is_selected);
            if !tells_all {
                line.extend(behind(theme, choice, usize::from(width).saturating_sub(line.width())));
            }
            lines.push(fit(line, width, theme.muted));
            if tells_all {
                lines.extend(beside(theme, choice, width));
            }
            place += 1;
        }
    }
    (lines, selected)
}

fn choice_line(theme: &Theme, choice: &Choice, label: usize, is_selected: bool) -> Line<'static> {
    let style = match (&choice.act, is_selected) {
        (None, _) => theme.muted,
        (Some(_), true) => theme.accent.bold(),
        (Some(_), false) => theme.text,
    };
    Line::from(vec![
        Span::styled(if is_selected { "› " } else { "  " }, theme.accent.bold()),
        Span::styled(format!("{:<label$}", harmless(&choice.label)), style),
        Span::styled(format!("   {}", harmless(&choice.fact)), theme.text),
    ])
}

/// The same behind the line, where there is room for the whole of it; what is selected has it below the list.
fn behind(theme: &Theme, choice: &Choice, room: usize) -> Option<Span<'static>> {
    let told = format!("   {}", harmless(choice.beside.lines().next()?));
    (!choice.fact.is_empty() && told.chars().count() <= room).then(|| Span::styled(told, theme.muted))
}

/// What a line would do, or why it can't.
fn beside(theme: &Theme, choice: &Choice, width: u16) -> Vec<Line<'static>> {
    let style = if choice.act.is_some() { theme.muted } else { theme.warning };
    let room = width.saturating_sub(INDENT);
    let told = choice.beside.lines().flat_map(|text| paragraph(text, room));
    told.map(|text| Line::styled(format!("{:indent$}{text}", "", indent = usize::from(INDENT)), style)).collect()
}

/// A text in lines that can be read.
fn paragraph(text: &str, width: u16) -> Vec<String> {
    let (text, width) = (harmless(text), usize::from(width.min(READABLE)));
    if text.chars().count() <= width { vec![text] } else { wrapped(&text, width) }
}

fn draw_foot(frame: &mut Frame, start: &Start, area: Rect) {
    let theme = &start.theme;
    if let Some(prompt) = &start.prompt {
        let title = format!("{}  ", prompt.title());
        let column = area.x + u16::try_from(title.chars().count() + prompt.input.visual_cursor()).unwrap_or(u16::MAX);
        let line = Line::from(vec![
            Span::styled(title, theme.accent.bold()),
            Span::styled(prompt.input.value().to_owned(), theme.text),
            Span::styled(start.told.as_ref().map(|told| format!("   {told}")).unwrap_or_default(), theme.warning),
        ]);
        frame.render_widget(Paragraph::new(line), area);
        frame.set_cursor_position((column.min(area.right().saturating_sub(1)), area.y));
        return;
    }
    if let Some(told) = &start.told {
        return frame.render_widget(fit(Line::styled(told.clone(), theme.warning), area.width, theme.muted), area);
    }
    let keys = start.keys().into_iter().flat_map(|(key, does)| {
        [Span::styled(key, theme.accent.bold()), Span::styled(format!(" {does}  "), theme.muted)]
    });
    frame.render_widget(Line::from_iter(keys), area);
}
