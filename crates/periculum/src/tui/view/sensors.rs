//! The sensors that matter, each with its cut-off.

use periculum_core::quantity::measured;
use periculum_core::rig::Sensor;
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span, Text};

use crate::tui::app::App;

/// Nearer to its cut-off than this share of it, a reading is worth a second look.
const NEAR: f64 = 0.08;

/// One sensor as it stands.
struct Reading<'a> {
    sensor: &'a Sensor,
    value: String,
    /// Whether it is near its cut-off, or over it.
    is_near: bool,
    style: Style,
}

fn readings(app: &App) -> Vec<Reading<'_>> {
    let theme = &app.theme;
    app.shown
        .rig
        .sensors
        .iter()
        .map(|sensor| {
            let value = app.shown.story.readings.get(&sensor.name).copied();
            let cut_off = sensor.cut_off.and_then(|cut_off| f64::try_from(cut_off).ok());
            let style = match value.zip(cut_off) {
                Some((value, cut_off)) if value > cut_off => theme.bad,
                Some((value, cut_off)) if value > cut_off * (1.0 - NEAR) => theme.warning,
                _ => theme.text,
            };
            let value = value.map_or("–".into(), |value| measured(value, sensor.decimals));
            Reading { sensor, value, is_near: style != theme.text, style }
        })
        .collect()
}

/// One line a sensor, numbers aligned on the decimal sign.
pub(super) fn draw_list(frame: &mut Frame, app: &App, area: Rect) {
    let theme = &app.theme;
    let readings = readings(app);
    let widest_label = readings.iter().map(|reading| reading.sensor.label.chars().count()).max().unwrap_or(0);
    let whole = |value: &str| value.find('.').unwrap_or(value.len());
    let widest_whole = readings.iter().map(|reading| whole(&reading.value)).max().unwrap_or(0);
    let lines = readings.iter().map(|reading| {
        let indent = " ".repeat(widest_whole - whole(&reading.value));
        let number = format!("{indent}{}", reading.value);
        let limit = reading.sensor.cut_off.map(|cut_off| format!("cut-off {cut_off}")).unwrap_or_default();
        Line::from(vec![
            Span::styled(format!("{:<widest_label$}  ", reading.sensor.label), theme.muted),
            Span::styled(format!("{:<width$}", number, width = widest_whole + 4), reading.style),
            Span::styled(format!(" {:<5}", reading.sensor.unit), theme.muted),
            Span::styled(limit, if reading.is_near { reading.style } else { theme.faint }),
        ])
    });
    frame.render_widget(Text::from_iter(lines), area);
}

/// How many lines the sensors take when they stand side by side.
pub(super) fn compact_height(app: &App, width: u16) -> u16 {
    u16::try_from(compact_lines(app, width).len()).unwrap_or(u16::MAX)
}

/// As many sensors in a line as there is room for.
pub(super) fn draw_compact(frame: &mut Frame, app: &App, area: Rect) {
    frame.render_widget(Text::from(compact_lines(app, area.width)), area);
}

fn compact_lines(app: &App, width: u16) -> Vec<Line<'static>> {
    let theme = &app.theme;
    let mut lines: Vec<Line> = Vec::new();
    for reading in readings(app) {
        let sensor = reading.sensor;
        let cut_off = sensor.cut_off.map(|cut_off| format!(" of {cut_off}")).unwrap_or_default();
        let cell = vec![
            Span::styled(format!("{} ", sensor.label), theme.muted),
            Span::styled(reading.value, reading.style),
            Span::styled(format!("{cut_off} {}   ", sensor.unit), theme.muted),
        ];
        let cell_width: usize = cell.iter().map(Span::width).sum();
        match lines.last_mut().filter(|line| line.width() + cell_width <= usize::from(width) + 3) {
            Some(line) => line.extend(cell),
            None => lines.push(Line::from(cell)),
        }
    }
    lines
}
