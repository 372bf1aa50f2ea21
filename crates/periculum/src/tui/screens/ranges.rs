//! What the sensors read in the selected trial: the least, the mean and the most of each, and below it the trace where there is room.

use periculum_core::model::rig::Sensor;
use periculum_core::story::series::Spread;
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::text::{Line, Span};

use super::track;
use crate::tui::desk::Desk;
use crate::tui::habits::fahrenheit;
use crate::tui::telling::labels;

/// Lines above the first sensor: an empty one, and what the three figures are.
const HEAD: u16 = 2;

/// Rows of a trace at most, and from how many on an empty one below it sets the sensors apart.
const TALLEST: u16 = 4;
const APART: u16 = 3;

/// How many lines the figures take at least; none where nothing was read.
pub(super) fn least_height(desk: &Desk) -> u16 {
    let lines = |(sensor, spread): &(&Sensor, Spread)| 1 + u16::from(twin(desk, sensor, spread).is_some());
    match read(desk).iter().map(lines).fold(0, u16::saturating_add) {
        0 => 0,
        lines => lines.saturating_add(HEAD),
    }
}

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    let (read, least) = (read(desk), least_height(desk));
    let Some(part) = desk.selected_span().filter(|_| 0 < least && least <= area.height) else { return };
    let moving = read.iter().filter(|(_, spread)| has_moved(spread)).count();
    let below = (area.height - least) / u16::try_from(moving).unwrap_or(u16::MAX).max(1);
    let (rows, apart) = if below < APART { (below, 0) } else { ((below - 1).min(TALLEST), 1) };
    let label = read.iter().map(|(sensor, _)| sensor.label.chars().count()).max().unwrap_or_default();
    let line = |y: u16| Rect { y, height: 1, ..area };
    frame.render_widget(Line::styled(labels::LEAST_MEAN_MOST, desk.theme.muted), line(area.y + HEAD - 1));
    let mut y = area.y + HEAD;
    for (sensor, spread) in &read {
        frame.render_widget(figures(desk, sensor, spread, label), line(y));
        y += 1;
        if let Some((twin, spread)) = twin(desk, sensor, spread) {
            frame.render_widget(figures(desk, &twin, &spread, label), line(y));
            y += 1;
        }
        if has_moved(spread) && rows > 0 {
            let trace = Rect { y, height: rows, ..area };
            track::draw_limited(frame.buffer_mut(), desk, trace, sensor, spread, part);
            y += rows + apart;
        }
    }
}

/// Whether there is more to be seen in a trace than a level line.
fn has_moved(spread: &Spread) -> bool {
    spread.least < spread.greatest
}

/// The sensors of numbers that something was read of in the selected trial.
fn read(desk: &Desk) -> Vec<(&Sensor, Spread)> {
    let Some(span) = desk.selected_span() else { return Vec::new() };
    let numbers = desk.shown.traced().filter(|sensor| sensor.words.is_empty());
    numbers.filter_map(|sensor| Some((sensor, desk.shown.traces[&sensor.name].between(span.from, span.to)?))).collect()
}

/// The same in degrees Fahrenheit for somebody who is used to these.
fn twin(desk: &Desk, sensor: &Sensor, spread: &Spread) -> Option<(Sensor, Spread)> {
    let twin = Sensor { label: String::new(), ..desk.habits.twin(sensor, |_| None)? };
    let [least, mean, greatest] = [spread.least, spread.mean, spread.greatest].map(fahrenheit);
    Some((twin, Spread { least, mean, greatest, ..*spread }))
}

fn figures(desk: &Desk, sensor: &Sensor, spread: &Spread, label: usize) -> Line<'static> {
    let [least, mean, most] = [spread.least, spread.mean, spread.greatest].map(|value| sensor.written(value));
    Line::from(vec![
        Span::styled(format!("{:<label$}  ", sensor.label), desk.theme.muted),
        Span::styled(format!("{least} · {mean} · {most} {}", sensor.unit), desk.theme.text),
    ])
}
