//! A benchmark's scores over a setting or a derived value, with how far each may be off, and its family behind it.

use periculum_core::Decimal;
use periculum_core::analysis::over::Over;
use periculum_core::analysis::scores::{Benchmark, Level};
use periculum_core::inference::noise::Noise;
use periculum_core::model::ladder::Direction;
use periculum_core::model::quantity::scored;
use periculum_core::telling::beside_words;
use ratatui::Frame;
use ratatui::buffer::Buffer;
use ratatui::layout::Rect;
use ratatui::style::Style;

use crate::tui::desk::Desk;
use crate::tui::telling::{self, labels};

/// Columns for the scores beside the curve, and lines for the values below it.
const LABELS: u16 = 10;
const FOOT: u16 = 2;

/// Columns for what tells the curves of a family apart, behind their ends.
const NAMES: u16 = 24;

/// Levels are no farther apart than this many columns.
const WIDEST: u16 = 12;

/// Which level of a benchmark has the selected trial; the best one where none has.
pub(super) fn level_at(desk: &Desk, benchmark: &Benchmark) -> usize {
    let selected = desk.selected_trial();
    let has = |level: &Level| selected.is_some_and(|trial| level.trials.contains(&trial));
    benchmark.levels.iter().position(has).unwrap_or(benchmark.best)
}

/// Draws the curve of a benchmark, and behind it those of its family.
pub(super) fn draw(
    frame: &mut Frame,
    desk: &Desk,
    area: Rect,
    benchmark: &Benchmark,
    family: &[&Benchmark],
    over: Over,
) {
    let theme = &desk.theme;
    let inside = Rect {
        x: area.x + LABELS + 1,
        width: area.width.saturating_sub(LABELS + 2),
        height: area.height.saturating_sub(FOOT),
        ..area
    };
    let Some(scale) = Scale::of(benchmark, family, over, inside) else { return };
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
    if let Some(level) = benchmark.pays_until.and_then(|index| benchmark.levels.get(index)) {
        for y in inside.top()..inside.bottom() {
            put(buffer, inside, scale.column(level), y, "┆", theme.warning);
        }
    }
    let others = family.iter().filter(|other| **other != benchmark);
    others.for_each(|other| draw_line(buffer, &scale, other, theme.muted));
    draw_line(buffer, &scale, benchmark, theme.text);
    let selected = level_at(desk, benchmark);
    for (index, level) in benchmark.levels.iter().enumerate() {
        let (x, style) = (scale.column(level), if index == selected { theme.accent.bold() } else { theme.text });
        let (low, high) = scale.bounds(level);
        for y in scale.row(high)..=scale.row(low) {
            put(buffer, inside, x, y, "│", theme.muted);
        }
        put(buffer, inside, x, scale.row(level.mean()), if index == benchmark.best { "◆" } else { "●" }, style);
    }
    if family.len() > 1 {
        draw_names(buffer, desk, &scale, benchmark, family);
    }
    draw_values(buffer, desk, inside, benchmark, over, &scale);
}

/// A curve of the family: its levels, and the way between them.
fn draw_line(buffer: &mut Buffer, scale: &Scale, benchmark: &Benchmark, style: Style) {
    let points: Vec<(u16, f64)> = benchmark.levels.iter().map(|level| (scale.column(level), level.mean())).collect();
    for pair in points.windows(2) {
        let (from, to) = (pair[0].0.min(pair[1].0), pair[0].0.max(pair[1].0));
        for x in from..to {
            let share = f64::from(x.abs_diff(pair[0].0)) / f64::from(to - from);
            put(buffer, scale.area, x, scale.row(pair[0].1 + share * (pair[1].1 - pair[0].1)), "·", style);
        }
    }
    points.iter().for_each(|(x, score)| put(buffer, scale.area, *x, scale.row(*score), "○", style));
}

/// What tells the curves apart, behind their ends; where several end on one line, that of which the end is nearest.
fn draw_names(buffer: &mut Buffer, desk: &Desk, scale: &Scale, shown: &Benchmark, family: &[&Benchmark]) {
    let theme = &desk.theme;
    let ends = |benchmark: &Benchmark| benchmark.levels.iter().map(|level| scale.column(level)).max();
    let right = family.iter().filter_map(|benchmark| ends(benchmark)).max().unwrap_or(scale.area.right());
    let mut family: Vec<&Benchmark> = family.to_vec();
    family.sort_by_key(|benchmark| std::cmp::Reverse(ends(benchmark)));
    let mut taken = Vec::new();
    for benchmark in family {
        let Some(level) = benchmark.levels.iter().max_by_key(|level| scale.column(level)) else { continue };
        let y = scale.row(level.mean());
        if taken.contains(&y) {
            continue;
        }
        taken.push(y);
        let style = if benchmark == shown { theme.accent } else { theme.muted };
        put_words(buffer, scale.area, right + 2, y, &beside_words(&benchmark.beside, &desk.shown.rig), style);
    }
}

/// The values below the curve, as many as there is room for, and what the signs are.
fn draw_values(buffer: &mut Buffer, desk: &Desk, inside: Rect, benchmark: &Benchmark, over: Over, scale: &Scale) {
    let theme = &desk.theme;
    let mut free = inside.x;
    for (index, value) in scale.values.iter().enumerate() {
        let text = over.written_short(*value);
        let width = text.chars().count() as u16;
        let x = scale.column_at(index).saturating_sub(width / 2).max(inside.x);
        if x >= free && x + width <= inside.right() {
            buffer.set_string(x, inside.bottom(), &text, theme.muted);
            free = x + width + 1;
        }
    }
    let axis = over.axis();
    let mut words = telling::over_setting(&benchmark.what.unit, &axis.label, &axis.unit);
    let signs = [Some(labels::BEST_SIGN), benchmark.pays_until.map(|_| labels::LITTLE_GAIN_SIGN)];
    for sign in signs.into_iter().flatten().map(|sign| format!("   {sign}")) {
        let fits = words.chars().count() + sign.chars().count() <= usize::from(inside.width);
        words += if fits { &sign } else { "" };
    }
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
    /// Every value that a curve of the family has, in the order of the axis.
    values: Vec<Decimal>,
    least: f64,
    greatest: f64,
    /// How far one measurement may be off, as a share; nothing where that is not known.
    off: Option<Noise>,
}

impl Scale {
    fn of(benchmark: &Benchmark, family: &[&Benchmark], over: Over, area: Rect) -> Option<Self> {
        let levels = || family.iter().flat_map(|one| &one.levels);
        let mut values: Vec<Decimal> = levels().filter_map(|level| level.value).collect();
        values.sort_unstable();
        values.dedup();
        if over.direction() == Direction::Down {
            values.reverse();
        }
        let count = u16::try_from(values.len()).ok().filter(|count| (1..=area.width).contains(count))?;
        if area.height < 2 {
            return None;
        }
        let room = if family.len() > 1 { NAMES } else { LABELS };
        let apart = (area.width.saturating_sub(room) / count).clamp(1, WIDEST);
        let mut scale = Self { area, apart, values, least: 0.0, greatest: 0.0, off: benchmark.noise };
        let bounds = benchmark.levels.iter().map(|level| scale.bounds(level));
        let means = levels().map(|level| (level.mean(), level.mean()));
        let stock = benchmark.baseline.map(|(stock, _)| (stock, stock));
        let all = bounds.chain(means).chain(stock);
        let range = |(least, greatest): (f64, f64), (low, high): (f64, f64)| (least.min(low), greatest.max(high));
        (scale.least, scale.greatest) = all.fold((f64::INFINITY, f64::NEG_INFINITY), range);
        Some(scale)
    }

    /// From where to where the score behind a level's measurements lies.
    fn bounds(&self, level: &Level) -> (f64, f64) {
        let mean = level.mean();
        let off = self.off.map_or(0.0, |noise| noise.half_width(level.scores.len()) * mean);
        (mean - off, mean + off)
    }

    fn column(&self, level: &Level) -> u16 {
        let index = self.values.iter().position(|value| Some(*value) == level.value);
        self.column_at(index.unwrap_or_default())
    }

    fn column_at(&self, index: usize) -> u16 {
        self.area.x + self.apart / 2 + index as u16 * self.apart
    }

    fn row(&self, score: f64) -> u16 {
        let range = self.greatest - self.least;
        let share = if range > 0.0 { (score - self.least) / range } else { 0.5 };
        let rows = f64::from(self.area.height - 1);
        self.area.bottom() - 1 - (share.clamp(0.0, 1.0) * rows).round() as u16
    }
}
