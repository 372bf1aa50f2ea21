//! A curve: as it comes, as it was asked for and reported, where its device sits, and what held and fell at each point.

use periculum_core::Decimal;
use periculum_core::analysis::sitting::{Shaped, Stand};
use periculum_core::model::curve::{Curve, Point};
use periculum_core::model::quantity::{grouped, measured};
use ratatui::Frame;
use ratatui::buffer::Buffer;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::style::Style;
use ratatui::text::{Line, Span, Text};

use super::detail;
use super::fit::{ROOMY, fit};
use crate::tui::desk::Desk;
use crate::tui::pointing::Target;
use crate::tui::telling::{self, labels};
use crate::tui::theme::Theme;

/// Columns of the table: its sign, a point, and what is known there.
const TABLE: u16 = 61;
const COLUMN: usize = 10;

/// Columns for the values beside the picture, and lines for those below it.
const LABELS: u16 = 7;
const FOOT: u16 = 3;

/// A cell is drawn as one of three lines, from its top to its bottom.
const LINES: [&str; 3] = ["▔", "─", "▁"];

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect, curve: &Curve) {
    let shown = &desk.shown;
    let trial = desk.selected_trial().and_then(|number| shown.story.trial(number));
    let shaped = Shaped::of(curve, &shown.rig, &shown.story, &shown.traces, trial);
    let [head, body] = Layout::vertical([Constraint::Length(3), Constraint::Min(0)]).areas(area);
    let rung = trial.map(|trial| &trial.rung);
    let asked = rung.map_or_else(|| telling::AS_IT_COMES.to_owned(), |rung| telling::levers(curve, &shown.rig, rung));
    let named = trial.map(|trial| format!("   {}", telling::trial(trial.number))).unwrap_or_default();
    let lines = [
        Line::from(vec![
            Span::styled(format!("{}  ", telling::curve(curve)), desk.theme.muted),
            Span::styled(asked, desk.theme.text.bold()),
            Span::styled(named, desk.theme.muted),
        ]),
        Line::styled(telling::sits(curve, shaped.sits.as_ref()), desk.theme.accent),
    ];
    let lines = lines.map(|line| fit(line, head.width, desk.theme.muted));
    frame.render_widget(Text::from_iter(lines), head);
    if body.width < ROOMY.0 {
        return frame.render_widget(table(&desk.theme, &shaped, body.height), body);
    }
    let [picture, beside] = Layout::horizontal([Constraint::Min(0), Constraint::Length(TABLE)]).spacing(3).areas(body);
    let rows = u16::try_from(curve.points.len() + 1).unwrap_or(u16::MAX);
    let [points, below] = Layout::vertical([Constraint::Max(rows), Constraint::Min(0)]).spacing(1).areas(beside);
    frame.render_widget(table(&desk.theme, &shaped, points.height), points);
    detail::draw(frame, desk, below);
    let plane = Plane::new(picture, &shaped);
    plane.draw(frame.buffer_mut(), &desk.theme, &shaped);
    for stand in &shaped.stands {
        let (x, y) = plane.cell(stand.point, stand.asked);
        desk.places.put(Rect { x, y, width: 1, height: 1 }, Target::Trial(stand.trial));
    }
}

/// A row for each point, the highest first; those around where it sits, where there is no room for all.
fn table(theme: &Theme, shaped: &Shaped, height: u16) -> Text<'static> {
    let cells = |texts: [&str; 6]| texts.map(|text| format!("{text:>COLUMN$}")).concat();
    let head =
        [shaped.curve.across.as_str(), labels::FACTORY, labels::ASKED, labels::REPORTED, labels::HELD, labels::FELL];
    let mut lines = vec![Line::styled(format!(" {}", cells(head)), theme.muted)];
    let sits = shaped.sits.as_ref().map(|sits| shaped.curve.nearest(sits.across));
    let count = shaped.curve.points.len();
    let room = usize::from(height.saturating_sub(1)).min(count);
    let last = (sits.unwrap_or(count - 1) + room / 2).clamp(room.saturating_sub(1), count - 1);
    for point in (last + 1 - room..=last).rev() {
        lines.push(row(theme, shaped, point, sits == Some(point)));
    }
    Text::from(lines)
}

fn row(theme: &Theme, shaped: &Shaped, point: usize, sits_here: bool) -> Line<'static> {
    let factory = shaped.curve.points[point].factory;
    let asked = shaped.asked[point];
    let reported = shaped.reported.as_ref().map(|reported| reported[point]);
    let moved = if asked == factory { theme.muted } else { theme.text.bold() };
    let taken = if reported.is_some_and(|reported| reported != asked) { theme.bad } else { theme.muted };
    let cell = |text: String, style: Style| Span::styled(format!("{text:>COLUMN$}"), style);
    let stand = |stand: Option<&Stand>| match stand {
        Some(stand) => cell(grouped(stand.asked), theme.verdict(Some(stand.verdict))),
        None => cell("·".to_owned(), theme.faint),
    };
    let here = if sits_here { theme.accent.bold() } else { theme.text };
    Line::from(vec![
        Span::styled(if sits_here { "›" } else { " " }, theme.accent.bold()),
        cell(grouped(shaped.curve.points[point].at), here),
        cell(grouped(factory), theme.muted),
        cell(grouped(asked), moved),
        cell(reported.map(grouped).unwrap_or_default(), taken),
        stand(shaped.held(point)),
        stand(shaped.fell(point)),
    ])
}

/// Where points lie on the screen.
struct Plane {
    area: Rect,
    across: (f64, f64),
    up: (f64, f64),
    points: Vec<f64>,
}

fn float(value: Decimal) -> f64 {
    f64::try_from(value).unwrap_or_default()
}

/// Round values from one to the other that are named beside so many rows, some rows apart.
fn ticks((low, high): (f64, f64), rows: u16) -> Vec<f64> {
    const ROWS_APART: f64 = 4.0;
    let least = (high - low) / (f64::from(rows) / ROWS_APART).max(1.0);
    let power = 10f64.powf(least.log10().floor());
    let step = [1.0, 2.0, 2.5, 5.0, 10.0].map(|times| times * power).into_iter().find(|step| *step >= least);
    let step = step.unwrap_or(high - low);
    let first = (low / step).ceil() * step;
    std::iter::successors(Some(first), |value| Some(value + step)).take_while(|value| *value <= high).collect()
}

impl Plane {
    fn new(area: Rect, shaped: &Shaped) -> Self {
        let factory = shaped.curve.factory();
        let all = factory.iter().chain(&shaped.asked).chain(shaped.stands.iter().map(|stand| &stand.asked));
        let (low, high) = all
            .map(|value| float(*value))
            .fold((f64::MAX, f64::MIN), |(low, high), value| (low.min(value), high.max(value)));
        let points: Vec<f64> = shaped.curve.points.iter().map(|point| float(point.at)).collect();
        Self {
            area: Rect {
                x: area.x + LABELS + 1,
                y: area.y + 1,
                width: area.width.saturating_sub(LABELS + 2),
                height: area.height.saturating_sub(1 + FOOT),
            },
            across: (points[0], points[points.len() - 1]),
            up: (low, high.max(low + 1.0)),
            points,
        }
    }

    fn column(&self, across: f64) -> u16 {
        let (first, last) = self.across;
        let share = ((across - first) / (last - first)).clamp(0.0, 1.0);
        self.area.x + (share * f64::from(self.area.width.saturating_sub(1))).round() as u16
    }

    /// The row of a value, and which third of it.
    fn row(&self, value: f64) -> (u16, usize) {
        let (low, high) = self.up;
        let thirds = f64::from(self.area.height.saturating_sub(1)) * 3.0;
        let third = ((high - value) / (high - low)).clamp(0.0, 1.0) * thirds;
        let third = third.round() as u16 + 1;
        (self.area.y + third / 3, usize::from(third % 3))
    }

    fn cell(&self, point: usize, value: Decimal) -> (u16, u16) {
        (self.column(self.points[point]), self.row(float(value)).0)
    }

    fn put(&self, buffer: &mut Buffer, (x, y): (u16, u16), sign: &str, style: Style) {
        if self.area.contains((x, y).into()) {
            buffer[(x, y)].set_symbol(sign).set_style(style);
        }
    }

    fn draw(&self, buffer: &mut Buffer, theme: &Theme, shaped: &Shaped) {
        if self.area.width < 2 || self.area.height < 2 {
            return;
        }
        self.draw_axes(buffer, theme, shaped);
        self.draw_line(buffer, &shaped.curve.factory(), theme.faint);
        if let Some(reported) = shaped.reported.as_ref().filter(|reported| **reported != shaped.asked) {
            self.draw_line(buffer, reported, theme.bad);
        }
        self.draw_line(buffer, &shaped.asked, theme.text);
        for stand in &shaped.stands {
            let sign = stand.verdict.sign().to_string();
            self.put(buffer, self.cell(stand.point, stand.asked), &sign, theme.verdict(Some(stand.verdict)).bold());
        }
        if let Some(sits) = &shaped.sits {
            let at = self.value_at(&shaped.asked, sits.across);
            let (x, y) = (self.column(sits.across), self.row(at).0);
            self.put(buffer, (x.saturating_sub(1), y), "›", theme.accent.bold());
            self.put(buffer, (x + 1, y), "‹", theme.accent.bold());
        }
    }

    /// What a line through these points has here.
    fn value_at(&self, values: &[Decimal], across: f64) -> f64 {
        let right = self.points.partition_point(|at| *at < across).clamp(1, self.points.len() - 1);
        let (from, to) = (self.points[right - 1], self.points[right]);
        let share = ((across - from) / (to - from)).clamp(0.0, 1.0);
        float(values[right - 1]) * (1.0 - share) + float(values[right]) * share
    }

    fn draw_line(&self, buffer: &mut Buffer, values: &[Decimal], style: Style) {
        let (first, last) = self.across;
        let each = (last - first) / f64::from(self.area.width.saturating_sub(1));
        for column in 0..self.area.width {
            let (y, third) = self.row(self.value_at(values, first + each * f64::from(column)));
            self.put(buffer, (self.area.x + column, y), LINES[third], style);
        }
    }

    fn draw_axes(&self, buffer: &mut Buffer, theme: &Theme, shaped: &Shaped) {
        let area = self.area;
        let left = area.x - LABELS - 1;
        buffer.set_stringn(left, area.y - 1, &shaped.curve.unit, LABELS.into(), theme.muted);
        for y in area.top()..area.bottom() {
            buffer[(area.x - 1, y)].set_symbol("╎").set_style(theme.faint);
        }
        for x in area.left()..area.right() {
            buffer[(x, area.bottom())].set_symbol("╌").set_style(theme.faint);
        }
        for value in ticks(self.up, area.height) {
            let text = format!("{:>width$}", measured(value, 0), width = usize::from(LABELS) - 1);
            buffer.set_stringn(left, self.row(value).0, text, LABELS.into(), theme.muted);
        }
        let wide = |point: &Point| grouped(point.at).chars().count() as u16;
        let widest = shaped.curve.points.iter().map(wide).max().unwrap_or(1);
        // The same number of points between all that are named.
        let between = self.points.len() as u16 * (widest + 2) / area.width.max(1) + 1;
        for point in shaped.curve.points.iter().rev().step_by(usize::from(between)) {
            let x = (self.column(float(point.at)) + 1).saturating_sub(wide(point)).max(area.x);
            buffer.set_string(x, area.bottom() + 1, grouped(point.at), theme.muted);
        }
        let unit = shaped.curve.across.as_str();
        let x = area.right().saturating_sub(unit.chars().count() as u16);
        buffer.set_string(x, area.bottom() + 2, unit, theme.muted);
        let mut x = area.x;
        for (sign, style, words) in [
            (LINES[1], theme.faint, labels::FACTORY),
            (LINES[1], theme.text, labels::ASKED),
            ("›‹", theme.accent, labels::SITS_HERE),
        ] {
            buffer.set_stringn(x, area.bottom() + 2, sign, 2, style);
            buffer.set_string(x + 3, area.bottom() + 2, words, theme.muted);
            x += words.chars().count() as u16 + 6;
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn values_beside_the_picture_are_round() {
        assert_eq!(ticks((1020.0, 2505.0), 28), [1250.0, 1500.0, 1750.0, 2000.0, 2250.0, 2500.0]);
        assert_eq!(ticks((0.0, 1.0), 2), [0.0, 1.0]);
    }
}
