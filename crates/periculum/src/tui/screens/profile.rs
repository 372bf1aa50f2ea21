//! The ascent profile as a step line: up while it holds, down where it fell, the ceiling above, marks as flags; below it every
//! other setting that moved, over the same trials, and the stages that they belong to.

use periculum_core::Decimal;
use periculum_core::engine::Prospect;
use periculum_core::story::profile::{AscentProfile, Axis, Other, Point};
use ratatui::Frame;
use ratatui::buffer::Buffer;
use ratatui::layout::Rect;
use ratatui::style::Style;

use crate::tui::climbed::Climbed;
use crate::tui::desk::Desk;
use crate::tui::pointing::Target;
use crate::tui::telling::{self, labels};
use crate::tui::theme::Theme;

/// Lines that the climbed setting has at least, with its title.
const UPPER: u16 = 10;

/// Lines of another setting, its title included: as many as there is room for.
const OTHER: (u16, u16) = (3, 6);

/// The same of one that stood where it was.
const STILL: u16 = 2;

/// From this height up the stages are told below the climbed setting.
const ROOM_FOR_BANDS: u16 = 12;

/// Bars of nothing to eight eighths of a row.
const EIGHTHS: [&str; 9] = [" ", "▁", "▂", "▃", "▄", "▅", "▆", "▇", "█"];

/// Columns between two trials: as many as there is room for.
const STRIDES: [u16; 4] = [6, 4, 3, 2];

/// The profile of the shown climb, of which each trial can be pointed at.
pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    let Some((plot, profile)) = draw_of(frame, desk, area, &desk.shown) else { return };
    for (index, point) in plot.shown(&profile).enumerate() {
        let strip = Rect { x: plot.column(index).saturating_sub(plot.stride / 2), width: plot.stride, ..area };
        desk.places.put(strip, Target::Trial(point.trial));
    }
}

/// The profile of any climb; none where it moves no setting.
pub(super) fn draw_of(frame: &mut Frame, desk: &Desk, area: Rect, climbed: &Climbed) -> Option<(Plot, AscentProfile)> {
    let profile = AscentProfile::of(&climbed.story, &climbed.rig, &climbed.plan)?;
    let theme = &desk.theme;
    let predicted = next(desk, climbed);
    let has_bands = profile.bands.len() > 1 && area.height >= ROOM_FOR_BANDS;
    let room = area.height.saturating_sub(UPPER + u16::from(has_bands));
    let shown = (room / OTHER.0).min(profile.others.len() as u16);
    let each = (room / shown.max(1)).clamp(OTHER.0, OTHER.1);
    let rows_of = |other: &Other| if has_moved(other) { each } else { STILL };
    let rows: Vec<u16> = profile.others.iter().take(shown.into()).map(rows_of).collect();
    let upper = Rect { height: area.height - rows.iter().sum::<u16>() - u16::from(has_bands), ..area };

    let heights: Vec<Decimal> = profile.points.iter().map(|point| point.height).collect();
    let lowest = heights.iter().copied().fold(profile.stock, Decimal::min);
    let range =
        Range { lowest, highest: profile.ceiling.max(heights.iter().copied().max().unwrap_or(profile.ceiling)) };
    let plot = Plot::new(upper, &profile, predicted.is_some());
    let buffer = frame.buffer_mut();
    title(buffer, upper, &profile.height, theme);
    plot.draw_axis(buffer, theme, &range, &profile.height);
    plot.draw_ceiling(buffer, theme, &range, &profile);
    plot.draw_line(
        buffer,
        theme.text,
        &plot.shown(&profile).map(|point| range.share(point.height)).collect::<Vec<_>>(),
    );
    plot.draw_points(buffer, theme, &range, &profile);
    if let Some(value) = predicted {
        let x = plot.column(plot.shown(&profile).count());
        put(buffer, plot.area, x, plot.row(range.share(value)), "◇", theme.muted);
    }
    if has_bands {
        let row = Rect { y: upper.bottom(), height: 1, ..area };
        let name = |stage: usize, found: Option<&str>| telling::band(&climbed.plan, stage, found);
        plot.draw_bands(buffer, theme, row, &profile, name);
    }
    let mut below = upper.bottom() + u16::from(has_bands);
    for ((other, height), nth) in profile.others.iter().zip(rows).zip(0..shown) {
        let lower = Rect { y: below, height, ..area };
        below = lower.bottom();
        let left = profile.others.len() - usize::from(shown);
        let more = if nth + 1 == shown && left > 0 { telling::more_moved(left) } else { String::new() };
        draw_other(buffer, theme, lower, other, &plot, &more);
    }
    Some((plot, profile))
}

/// The value of the climbed setting that somebody is about to try, or that is tried if the open trial holds.
fn next(desk: &Desk, climbed: &Climbed) -> Option<Decimal> {
    let form = desk.form().filter(|_| climbed.number == desk.shown.number);
    let edited = form.and_then(|form| form.rung().get(climbed.plan.climbed_setting()?));
    edited.or_else(|| predicted(climbed))
}

/// The value of the climbed setting that is tried next if the open trial holds.
fn predicted(climbed: &Climbed) -> Option<Decimal> {
    match &climbed.outlook.as_ref()?.if_held {
        Prospect::Try(rung, _) if climbed.story.ended.is_none() => rung.get(climbed.plan.climbed_setting()?),
        Prospect::Asks(Some(suggestion)) => suggestion.rung.get(climbed.plan.climbed_setting()?),
        _ => None,
    }
}

fn has_moved(other: &Other) -> bool {
    let mut values = other.values.iter().flatten();
    let first = values.next();
    values.any(|value| Some(value) != first)
}

/// Another setting: only how high its values lie, in the same columns.
fn draw_other(buffer: &mut Buffer, theme: &Theme, area: Rect, other: &Other, upper: &Plot, more: &str) {
    title(buffer, area, &other.axis, theme);
    let width = more.chars().count().min(usize::from(area.width));
    buffer.set_stringn(area.right() - width as u16, area.y, more, width, theme.muted);
    let values: Vec<Decimal> = other.values.iter().skip(upper.skipped).flatten().copied().collect();
    let (Some(lowest), Some(highest)) = (values.iter().min(), values.iter().max()) else { return };
    let range = Range { lowest: *lowest, highest: *highest };
    let inside = Rect { x: upper.area.x, y: area.y + 1, width: upper.area.width, height: area.height - 1 };
    let plot = Plot { area: inside, ..*upper };
    let shares: Vec<f64> = values.iter().map(|value| range.share(*value)).collect();
    plot.draw_bars(buffer, theme.faint, &shares);
    plot.label(buffer, theme, plot.row(range.share(*highest)), &other.axis.written(*highest));
    if lowest != highest {
        plot.label(buffer, theme, plot.row(range.share(*lowest)), &other.axis.written(*lowest));
    }
}

fn title(buffer: &mut Buffer, area: Rect, axis: &Axis, theme: &Theme) {
    let text = if axis.unit.is_empty() { axis.label.clone() } else { format!("{}, {}", axis.label, axis.unit) };
    buffer.set_stringn(area.x, area.y, text, area.width.into(), theme.muted);
}

/// Values from the lowest to the highest row.
struct Range {
    lowest: Decimal,
    highest: Decimal,
}

impl Range {
    /// A value between, with as many decimals as the ends have.
    fn rescaled(&self, mut value: Decimal) -> Decimal {
        value.rescale(self.highest.scale().max(value.normalize().scale()));
        value
    }

    /// How far up a value lies, 0 to 1; all at the bottom where there is no range.
    fn share(&self, value: Decimal) -> f64 {
        let range = self.highest - self.lowest;
        if range.is_zero() { 0.0 } else { f64::try_from((value - self.lowest) / range).unwrap_or(0.0) }
    }
}

/// Where trials and values lie on the screen.
#[derive(Clone, Copy)]
pub(super) struct Plot {
    area: Rect,
    /// Columns between two trials.
    stride: u16,
    /// Trials on the left that there is no room for.
    skipped: usize,
}

/// Columns for the values beside the axis.
const LABELS: u16 = 8;

impl Plot {
    fn new(area: Rect, profile: &AscentProfile, has_prediction: bool) -> Self {
        let inside = Rect {
            x: area.x + LABELS + 2,
            y: area.y + 1,
            width: area.width.saturating_sub(LABELS + 2),
            height: area.height.saturating_sub(1),
        };
        let trials = profile.points.len() + usize::from(has_prediction);
        let fits = |stride: &u16| trials * usize::from(*stride) < usize::from(inside.width);
        let stride = STRIDES.into_iter().find(fits).unwrap_or(STRIDES[STRIDES.len() - 1]);
        let room = usize::from(inside.width.saturating_sub(1) / stride);
        Self { area: inside, stride, skipped: trials.saturating_sub(room) }
    }

    fn shown<'a>(&self, profile: &'a AscentProfile) -> impl Iterator<Item = &'a Point> + use<'a> {
        profile.points.iter().skip(self.skipped)
    }

    fn column(&self, index: usize) -> u16 {
        self.area.x + self.stride / 2 + self.stride * u16::try_from(index).unwrap_or(u16::MAX / self.stride - 1)
    }

    fn row(&self, share: f64) -> u16 {
        let rows = f64::from(self.area.height.saturating_sub(1));
        self.area.bottom() - 1 - (share.clamp(0.0, 1.0) * rows).round() as u16
    }

    fn label(&self, buffer: &mut Buffer, theme: &Theme, row: u16, value: &str) {
        let text = format!("{value:>width$}", width = usize::from(LABELS));
        buffer.set_stringn(self.area.x - LABELS - 2, row, text, LABELS.into(), theme.muted);
    }

    /// The lowest and the highest value, and round ones between them; of words only those that stand for a value.
    fn draw_axis(&self, buffer: &mut Buffer, theme: &Theme, range: &Range, axis: &Axis) {
        for row in self.area.top()..self.area.bottom() {
            put(buffer, buffer.area, self.area.x - 1, row, "╎", theme.faint);
        }
        let mut free_above = self.row(1.0);
        let mut values = vec![range.highest];
        values.extend(round_values(range, usize::from(self.area.height / 3).max(1)).into_iter().rev());
        values.push(range.lowest);
        values.retain(|value| axis.words.is_empty() || value.fract().is_zero());
        for (index, value) in values.into_iter().enumerate() {
            let row = self.row(range.share(value));
            let collides_below = row + 1 >= self.row(0.0) && value != range.lowest;
            if index == 0 || row > free_above + 1 && !collides_below {
                self.label(buffer, theme, row, &axis.written(value));
                free_above = row;
            }
        }
    }

    fn draw_ceiling(&self, buffer: &mut Buffer, theme: &Theme, range: &Range, profile: &AscentProfile) {
        let row = self.row(range.share(profile.ceiling));
        for x in self.area.left()..self.area.right() {
            put(buffer, self.area, x, row, "┄", theme.bad);
        }
        let text = format!(" {} ", labels::CEILING);
        let x = self.area.right().saturating_sub(text.len() as u16 + 2);
        buffer.set_stringn(x, row, &text, text.len(), theme.bad);
    }

    /// A step line through values, each a share of the height.
    fn draw_line(&self, buffer: &mut Buffer, style: Style, shares: &[f64]) {
        let left = |index| self.column(index) - self.stride / 2;
        for (index, share) in shares.iter().enumerate() {
            for column in left(index)..left(index + 1) {
                put(buffer, self.area, column, self.row(*share), "─", style);
            }
        }
        for (index, pair) in shares.windows(2).enumerate() {
            self.draw_riser(buffer, style, left(index + 1), self.row(pair[0]), self.row(pair[1]));
        }
    }

    /// A bar for each value, from the bottom up: in few rows its eighths tell more than a line.
    fn draw_bars(&self, buffer: &mut Buffer, style: Style, shares: &[f64]) {
        let left = |index| self.column(index) - self.stride / 2;
        let eighths = f64::from(self.area.height) * 8.0;
        for (index, share) in shares.iter().enumerate() {
            // The lowest value is a bar too.
            let high = (1.0 + share.clamp(0.0, 1.0) * (eighths - 1.0)).round() as usize;
            for (row, full) in (self.area.top()..self.area.bottom()).rev().zip((0..).step_by(8)) {
                let sign = EIGHTHS[high.saturating_sub(full).min(8)];
                for column in left(index)..left(index + 1) {
                    put(buffer, self.area, column, row, sign, style);
                }
            }
        }
    }

    /// The corner, the way up or down, and the corner.
    fn draw_riser(&self, buffer: &mut Buffer, style: Style, x: u16, from: u16, to: u16) {
        if from == to {
            return;
        }
        let (leave, arrive) = if to < from { ("╯", "╭") } else { ("╮", "╰") };
        for row in from.min(to)..=from.max(to) {
            put(buffer, self.area, x, row, "│", style);
        }
        put(buffer, self.area, x, from, leave, style);
        put(buffer, self.area, x, to, arrive, style);
    }

    /// A line between the stages, and below each what it is and what it came to, as far as there is room for that.
    fn draw_bands(
        &self,
        buffer: &mut Buffer,
        theme: &Theme,
        row: Rect,
        profile: &AscentProfile,
        name: impl Fn(usize, Option<&str>) -> [String; 3],
    ) {
        let left = |at: usize| self.column(at.saturating_sub(self.skipped)) - self.stride / 2;
        let ends = profile.bands.iter().skip(1).map(|band| band.from).chain([profile.points.len()]);
        for (band, to) in profile.bands.iter().zip(ends).filter(|(_, to)| *to > self.skipped) {
            let from = left(band.from);
            if band.from > self.skipped {
                (self.area.top()..row.bottom()).for_each(|y| self.draw_border(buffer, theme, from, y));
            }
            let last = to == profile.points.len();
            let end = if last { self.area.right() } else { left(to) };
            let room = usize::from(end.min(self.area.right()).saturating_sub(from + 1));
            let names = name(band.stage, band.found.as_deref());
            if let Some(name) = names.iter().find(|name| name.chars().count() < room) {
                buffer.set_string(from + 1, row.y, name, theme.muted);
            }
        }
    }

    /// A sign of a line between two stages, where nothing else stands.
    fn draw_border(&self, buffer: &mut Buffer, theme: &Theme, x: u16, y: u16) {
        if buffer.area.contains((x, y).into()) && buffer[(x, y)].symbol() == " " {
            buffer[(x, y)].set_symbol("╎").set_style(theme.faint);
        }
    }

    fn draw_points(&self, buffer: &mut Buffer, theme: &Theme, range: &Range, profile: &AscentProfile) {
        for (index, point) in self.shown(profile).enumerate() {
            let (x, y) = (self.column(index), self.row(range.share(point.height)));
            let sign = point.verdict.map_or('○', |verdict| verdict.sign()).to_string();
            put(buffer, self.area, x, y, &sign, theme.verdict(point.verdict).bold());
            if point.is_mark {
                put(buffer, self.area, x, y.saturating_sub(1), "⚑", theme.accent.bold());
            }
        }
        if self.skipped > 0 {
            let text = telling::earlier(self.skipped);
            buffer.set_stringn(self.area.x, self.area.bottom() - 1, &text, text.chars().count(), theme.muted);
        }
    }
}

/// A few round values strictly inside a range, ascending.
fn round_values(range: &Range, at_most: usize) -> Vec<Decimal> {
    let span = range.highest - range.lowest;
    if span.is_zero() {
        return Vec::new();
    }
    let mut step = Decimal::new(1, 6);
    let factors = [2u32, 5, 10].map(Decimal::from);
    let mut decade = step;
    let mut next = 0;
    while (span / step) > Decimal::from(at_most) {
        step = decade * factors[next];
        if next == 2 {
            decade = step;
        }
        next = (next + 1) % 3;
    }
    let mut value = ((range.lowest / step).floor() + Decimal::ONE) * step;
    let mut values = Vec::new();
    while value < range.highest {
        values.push(range.rescaled(value));
        value += step;
    }
    values
}

/// Puts a sign on the screen where it is inside the area.
fn put(buffer: &mut Buffer, area: Rect, x: u16, y: u16, sign: &str, style: Style) {
    if area.contains((x, y).into()) {
        buffer[(x, y)].set_symbol(sign).set_style(style);
    }
}
