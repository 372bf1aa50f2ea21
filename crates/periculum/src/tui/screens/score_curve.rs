//! A benchmark's scores over the values of the climbed setting, with how far each may be off.

use periculum_core::analysis::scores::{Benchmark, Level};
use periculum_core::model::quantity::{grouped, scored};
use periculum_core::model::setting::Setting;
use ratatui::Frame;
use ratatui::buffer::Buffer;
use ratatui::layout::Rect;
use ratatui::style::Style;

use crate::tui::desk::Desk;
use crate::tui::telling::{self, labels};

/// Columns for the scores beside the curve, and lines for the values below it.
const LABELS: u16 = 10;
const FOOT: u16 = 2;

/// Levels are no farther apart than this many columns.
const WIDEST: u16 = 12;

/// Which level of a benchmark has the selected trial; the best one where none has.
pub(super) fn level_at(desk: &Desk, benchmark: &Benchmark) -> usize {
    let selected = desk.selected_trial();
    let has = |level: &Level| selected.is_some_and(|trial| level.trials.contains(&trial));
    benchmark.levels.iter().position(has).unwrap_or(benchmark.best)
}

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect, benchmark: &Benchmark, setting: &Setting) {
    let theme = &desk.theme;
    let inside = Rect {
        x: area.x + LABELS + 1,
        width: area.width.saturating_sub(LABELS + 2),
        height: area.height.saturating_sub(FOOT),
        ..area
    };
    let Some(scale) = Scale::of(benchmark, inside) else { return };
    let buffer = frame.buffer_mut();
    for score in [scale.least, scale.greatest] {
        let text = format!("{:>width$}", scored(score, scale.greatest), width = usize::from(LABELS) - 1);
        buffer.set_stringn(area.x, scale.row(score), text, LABELS.into(), theme.muted);
    }
    if let Some((stock, _)) = benchmark.baseline {
        for x in inside.left()..inside.right() {
            put(buffer, inside, x, scale.row(stock), "┄", theme.faint);
        }
        put_words(buffer, inside, inside.right().saturating_sub(5), scale.row(stock), labels::STOCK, theme.muted);
    }
    if let Some(index) = benchmark.pays_until {
        for y in inside.top()..inside.bottom() {
            put(buffer, inside, scale.column(index), y, "┆", theme.warning);
        }
    }
    let selected = level_at(desk, benchmark);
    for (index, level) in benchmark.levels.iter().enumerate() {
        let (x, style) = (scale.column(index), if index == selected { theme.accent.bold() } else { theme.text });
        let (low, high) = scale.bounds(level);
        for y in scale.row(high)..=scale.row(low) {
            put(buffer, inside, x, y, "│", theme.muted);
        }
        put(buffer, inside, x, scale.row(level.mean()), if index == benchmark.best { "◆" } else { "●" }, style);
    }
    draw_values(buffer, desk, inside, benchmark, setting, &scale);
}

/// The values below the curve, as many as there is room for, and what the signs are.
fn draw_values(
    buffer: &mut Buffer,
    desk: &Desk,
    inside: Rect,
    benchmark: &Benchmark,
    setting: &Setting,
    scale: &Scale,
) {
    let theme = &desk.theme;
    let mut free = inside.x;
    for (index, level) in benchmark.levels.iter().enumerate() {
        let text = level.value.map(|value| grouped(setting.ladder.rescaled(value))).unwrap_or_default();
        let width = text.chars().count() as u16;
        let x = scale.column(index).saturating_sub(width / 2).max(inside.x);
        if x >= free && x + width <= inside.right() {
            buffer.set_string(x, inside.bottom(), &text, theme.muted);
            free = x + width + 1;
        }
    }
    let mut words = telling::over_setting(&benchmark.what.unit, &setting.label, &setting.unit);
    let signs = [Some(labels::BEST_SIGN), benchmark.pays_until.map(|_| labels::LITTLE_GAIN_SIGN)];
    signs.into_iter().flatten().for_each(|sign| words += &format!("   {sign}"));
    buffer.set_stringn(inside.x, inside.bottom() + 1, words, inside.width.into(), theme.muted);
}

fn put(buffer: &mut Buffer, area: Rect, x: u16, y: u16, sign: &str, style: Style) {
    if area.contains((x, y).into()) {
        buffer[(x, y)].set_symbol(sign).set_style(style);
    }
}

fn put_words(buffer: &mut Buffer, area: Rect, x: u16, y: u16, words: &str, style: Style) {
    if area.contains((x, y).into()) {
        buffer.set_stringn(x, y, words, area.right().saturating_sub(x).into(), style);
    }
}

/// Where scores and levels lie.
struct Scale {
    area: Rect,
    apart: u16,
    least: f64,
    greatest: f64,
    /// How far one measurement may be off, as a share; nothing where that is not known.
    off: Option<periculum_core::analysis::scores::Noise>,
}

impl Scale {
    fn of(benchmark: &Benchmark, area: Rect) -> Option<Self> {
        let count = benchmark.levels.len() as u16;
        if area.height < 2 || area.width < count || count == 0 {
            return None;
        }
        let apart = ((area.width.saturating_sub(LABELS)) / count).clamp(1, WIDEST);
        let mut scale = Self { area, apart, least: 0.0, greatest: 0.0, off: benchmark.noise };
        let bounds: Vec<(f64, f64)> = benchmark.levels.iter().map(|level| scale.bounds(level)).collect();
        let stock = benchmark.baseline.map(|(stock, _)| stock);
        scale.least = bounds.iter().map(|(low, _)| *low).chain(stock).fold(f64::INFINITY, f64::min);
        scale.greatest = bounds.iter().map(|(_, high)| *high).chain(stock).fold(f64::NEG_INFINITY, f64::max);
        Some(scale)
    }

    /// From where to where the score behind a level's measurements lies.
    fn bounds(&self, level: &Level) -> (f64, f64) {
        let mean = level.mean();
        let off = self.off.map_or(0.0, |noise| noise.half_width(level.scores.len()) * mean);
        (mean - off, mean + off)
    }

    fn column(&self, index: usize) -> u16 {
        self.area.x + self.apart / 2 + index as u16 * self.apart
    }

    fn row(&self, score: f64) -> u16 {
        let range = self.greatest - self.least;
        let share = if range > 0.0 { (score - self.least) / range } else { 0.5 };
        let rows = f64::from(self.area.height - 1);
        self.area.bottom() - 1 - (share.clamp(0.0, 1.0) * rows).round() as u16
    }
}
