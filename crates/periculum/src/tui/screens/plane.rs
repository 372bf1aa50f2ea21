//! Where rungs lie on the map, and how it is drawn: its axes, how likely what lies between the trials survives, what is known of the
//! border, the walls, and the trials.

use std::collections::BTreeMap;

use periculum_core::Decimal;
use periculum_core::analysis::chance::Chance;
use periculum_core::analysis::terrain::{Bounds, Place, Side, Terrain};
use periculum_core::model::rig::Rig;
use periculum_core::telling::beside_words;
use ratatui::buffer::Buffer;
use ratatui::layout::Rect;
use ratatui::style::Style;

use crate::tui::shading::Chances;
use crate::tui::telling::{self, labels};
use crate::tui::theme::Theme;

/// Columns for the values beside the axis, and lines for those below it.
const LABELS: u16 = 9;
const FOOT: u16 = 3;

/// What lies upwards, and where the plane is.
fn upwards(terrain: &Terrain, rig: &Rig) -> String {
    let beside =
        if terrain.beside.is_empty() { String::new() } else { telling::plane_at(&beside_words(&terrain.beside, rig)) };
    terrain.up.axis.title() + &beside
}

/// The sign of a line at which a chance becomes another.
const BORDER: &str = "│";

/// Whether the ground is shaded.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Shades {
    /// It is.
    Drawn,
    /// That is being worked out.
    Awaited,
    /// Nothing can be said.
    None,
}

/// A sign of the map, how it is drawn, and what it is.
type Sign = (&'static str, Style, &'static str);

/// How many columns that takes in a line of several.
fn wide(words: &str) -> u16 {
    words.chars().count() as u16 + 5
}

/// Draws what signs are from here to there in a row; gives those that there was no room for.
fn draw_legend<'a>(
    buffer: &mut Buffer,
    theme: &Theme,
    legend: &'a [Sign],
    (from, to, y): (u16, u16, u16),
) -> &'a [Sign] {
    let mut at = from;
    for (nth, (sign, style, words)) in legend.iter().enumerate() {
        if at + wide(words) > to {
            return &legend[nth..];
        }
        buffer.set_string(at, y, sign, *style);
        buffer.set_string(at + 2, y, words, theme.muted);
        at += wide(words);
    }
    &[]
}

/// What the signs of the map are, those first that it has anyway.
fn legend(theme: &Theme, shades: Shades) -> Vec<Sign> {
    let mut legend = vec![
        ("·", theme.good, labels::HOLDS),
        ("░", theme.warning, labels::NOT_KNOWN),
        ("▏", theme.bad, labels::FALLS_FROM_HERE),
    ];
    match shades {
        Shades::Drawn => {
            let borders = [(Border::Claim, labels::SURE_SO_FAR), (Border::Even, labels::EVEN)];
            legend.extend(borders.map(|(border, words)| (BORDER, border.style(theme), words)));
        }
        Shades::Awaited => legend.push(("…", theme.muted, labels::SHADES_AWAITED)),
        Shades::None => {}
    }
    legend
}

/// Such a line.
#[derive(Clone, Copy)]
enum Border {
    /// As likely and as surely as is wanted on one side only.
    Claim,
    /// More often than not on one side only.
    Even,
}

impl Border {
    fn between(one: Chance, other: Chance) -> Option<Self> {
        let is_between = |chance: Chance| (one <= chance) != (other <= chance);
        let claim = is_between(Chance::Sure).then_some(Self::Claim);
        is_between(Chance::Rather).then_some(Self::Even).or(claim)
    }

    fn style(self, theme: &Theme) -> Style {
        match self {
            Self::Claim => theme.accent,
            Self::Even => theme.text,
        }
    }
}

/// Where values lie on the screen.
pub(super) struct Plane {
    area: Rect,
    across: (Decimal, Decimal),
    up: (Decimal, Decimal),
}

/// From the lowest to the highest of what is shown of a setting: all that was tried, and its ceiling where that is not
/// farther away than what was tried is wide.
fn range(side: &Side, tried: impl Iterator<Item = Decimal>) -> (Decimal, Decimal) {
    let (low, high) = tried.fold((side.stock, side.stock), |(low, high), value| (low.min(value), high.max(value)));
    let span = if low == high { side.ceiling - low } else { high - low };
    (low, if high + span >= side.ceiling { high.max(side.ceiling) } else { high + span / Decimal::from(3) })
}

fn share(value: Decimal, (low, high): (Decimal, Decimal)) -> f64 {
    let span = high - low;
    if span.is_zero() { 0.5 } else { f64::try_from((value - low) / span).unwrap_or(0.0).clamp(0.0, 1.0) }
}

impl Plane {
    pub(super) fn new(area: Rect, terrain: &Terrain) -> Self {
        let inside = Rect {
            x: area.x + LABELS + 1,
            y: area.y + 2,
            width: area.width.saturating_sub(LABELS + 2),
            height: area.height.saturating_sub(2 + FOOT),
        };
        Self {
            area: inside,
            across: range(&terrain.across, terrain.places.iter().map(|place| place.across)),
            up: range(&terrain.up, terrain.places.iter().map(|place| place.up)),
        }
    }

    pub(super) fn column(&self, value: Decimal) -> u16 {
        let columns = f64::from(self.area.width.saturating_sub(1));
        self.area.x + (share(value, self.across) * columns).round() as u16
    }

    pub(super) fn row(&self, value: Decimal) -> u16 {
        let rows = f64::from(self.area.height.saturating_sub(1));
        (self.area.bottom().saturating_sub(1)).saturating_sub((share(value, self.up) * rows).round() as u16)
    }

    fn put(&self, buffer: &mut Buffer, x: u16, y: u16, sign: &str, style: Style) {
        if self.area.contains((x, y).into()) {
            let ground = buffer[(x, y)].bg;
            buffer[(x, y)].set_symbol(sign).set_style(style).set_bg(ground);
        }
    }

    /// The values of both settings that have a place of their own on the screen, and all upwards that were tried; none where there is
    /// no screen.
    pub(super) fn values(&self, terrain: &Terrain, rig: &Rig) -> Option<[(String, Vec<Decimal>); 2]> {
        let of = |side: &Side, (low, high): (Decimal, Decimal), places: u16| {
            let ladder = &rig.setting(&side.name)?.ladder;
            let last = Decimal::from(places.checked_sub(1)?.max(1));
            let mut values: Vec<Decimal> =
                (0..places).map(|at| ladder.nearest(low + (high - low) * Decimal::from(at) / last)).collect();
            values.dedup();
            Some((side.name.clone(), values))
        };
        let (across, mut up) =
            (of(&terrain.across, self.across, self.area.width)?, of(&terrain.up, self.up, self.area.height)?);
        up.1.extend(terrain.border.iter().map(|bounds| bounds.up));
        up.1.sort();
        up.1.dedup();
        Some([across, up])
    }

    /// How likely what lies between the trials survives, and where that becomes less than is wanted, and than even.
    pub(super) fn draw_chances(&self, buffer: &mut Buffer, theme: &Theme, chances: &Chances) {
        let rows = self.nearest(&chances.up, self.area.height, |value| self.area.bottom() - 1 - self.row(value));
        let columns = self.nearest(&chances.across, self.area.width, |value| self.column(value) - self.area.x);
        for (y, row) in (self.area.top()..self.area.bottom()).rev().zip(rows) {
            let row = &chances.rows[row];
            let mut before = None;
            for (x, column) in (self.area.left()..).zip(&columns) {
                let Some(chance) = row[*column] else {
                    before = None;
                    continue;
                };
                let (sign, style) = theme.chances.cell(chance);
                buffer[(x, y)].set_symbol(sign).set_style(style);
                if let Some(line) = before.and_then(|before| Border::between(before, chance)) {
                    self.put(buffer, x, y, BORDER, line.style(theme));
                }
                before = Some(chance);
            }
        }
    }

    /// For each place, from the lowest on, which of these values lies nearest to it.
    fn nearest(&self, values: &[Decimal], places: u16, place: impl Fn(Decimal) -> u16) -> Vec<usize> {
        let at: BTreeMap<u16, usize> = values.iter().enumerate().map(|(nth, value)| (place(*value), nth)).collect();
        let nearest = |place: u16| {
            let below = at.range(..=place).next_back();
            let above = at.range(place..).next();
            below.into_iter().chain(above).min_by_key(|(there, _)| there.abs_diff(place)).map_or(0, |(_, nth)| *nth)
        };
        (0..places).map(nearest).collect()
    }

    pub(super) fn draw_axes(&self, buffer: &mut Buffer, theme: &Theme, terrain: &Terrain, rig: &Rig, shades: Shades) {
        let area = self.area;
        if area.height == 0 || area.width == 0 {
            return;
        }
        let upwards = upwards(terrain, rig);
        buffer.set_stringn(area.x - LABELS - 1, area.y - 2, &upwards, area.width.into(), theme.muted);
        let below = area.bottom() + 1;
        let across = terrain.across.axis.title();
        let x = area.right().saturating_sub(across.chars().count() as u16);
        buffer.set_stringn(x, below + 1, &across, area.width.into(), theme.muted);
        let most = area.right().saturating_sub(across.chars().count() as u16 + 2);
        let legend = legend(theme, shades);
        let left = draw_legend(buffer, theme, &legend, (area.x, most, below + 1));
        // What has no room there has some beside the name of the upper axis.
        let title = area.x - LABELS + upwards.chars().count() as u16;
        let wide = left.iter().map(|(_, _, words)| wide(words)).sum::<u16>();
        draw_legend(buffer, theme, left, (area.right().saturating_sub(wide).max(title), area.right() + 2, area.y - 2));
        for y in area.top()..area.bottom() {
            buffer[(area.x - 1, y)].set_symbol("╎").set_style(theme.faint);
        }
        for x in area.left()..area.right() {
            buffer[(x, area.bottom())].set_symbol("╌").set_style(theme.faint);
        }
        let mut free = area.bottom();
        let mut values: Vec<Decimal> = terrain.border.iter().map(|bounds| bounds.up).collect();
        values.extend(Some(terrain.up.ceiling).filter(|ceiling| *ceiling <= self.up.1));
        values.sort();
        values.dedup();
        for value in values {
            let y = self.row(value);
            if y < free {
                let text = format!("{:>width$}", terrain.up.axis.written(value), width = usize::from(LABELS) - 1);
                buffer.set_stringn(area.x - LABELS - 1, y, text, LABELS.into(), theme.muted);
                free = y.saturating_sub(1);
            }
        }
        let mut free = area.x;
        let mut values: Vec<Decimal> = terrain.places.iter().map(|place| place.across).collect();
        values.extend(Some(terrain.across.ceiling).filter(|ceiling| *ceiling <= self.across.1));
        values.sort();
        values.dedup();
        for value in values {
            let text = terrain.across.axis.written(value);
            let wide = text.chars().count() as u16;
            let x = self
                .column(value)
                .saturating_sub(wide / 2)
                .clamp(area.x, area.right().saturating_sub(wide).max(area.x));
            if x >= free && x + wide <= area.right() {
                buffer.set_stringn(x, below, &text, wide.into(), theme.muted);
                free = x + wide + 2;
            }
        }
    }

    /// What is known to hold, and the gap up to what is known to fall.
    pub(super) fn draw_border(&self, buffer: &mut Buffer, theme: &Theme, bounds: &Bounds) {
        let y = self.row(bounds.up);
        let (holds, falls) = (bounds.holds.map(|it| self.column(it)), bounds.falls.map(|it| self.column(it)));
        // Where chance has let something harder hold than what fell, nobody knows between the two either.
        let (sure, unsure) = match (holds, falls) {
            (Some(holds), Some(falls)) => (Some(holds.min(falls.saturating_sub(1))), holds.max(falls)),
            (holds, falls) => (holds, falls.or(holds).unwrap_or(self.area.x)),
        };
        for x in sure.into_iter().flat_map(|sure| self.area.left()..=sure) {
            self.put(buffer, x, y, "·", theme.good);
        }
        for x in sure.into_iter().flat_map(|sure| sure + 1..unsure) {
            self.put(buffer, x, y, "░", theme.warning);
        }
        if falls.is_some() {
            self.put(buffer, unsure, y, "▏", theme.bad);
        }
    }

    pub(super) fn draw_walls(&self, buffer: &mut Buffer, theme: &Theme, terrain: &Terrain, rig: &Rig) {
        if terrain.across.ceiling <= self.across.1 {
            let x = self.column(terrain.across.ceiling);
            (self.area.top()..self.area.bottom()).for_each(|row| self.put(buffer, x, row, "┊", theme.bad));
        }
        if terrain.up.ceiling <= self.up.1 {
            let y = self.row(terrain.up.ceiling);
            (self.area.left()..self.area.right()).for_each(|column| self.put(buffer, column, y, "┄", theme.bad));
        }
        let sides = [&terrain.across, &terrain.up];
        let told = telling::ceilings(sides.map(|side| (side.axis.label.as_str(), side.axis.written(side.ceiling))));
        let wide = told.chars().count() as u16;
        let x = self.area.right().saturating_sub(wide);
        if self.area.height > 0 && x > self.area.x + upwards(terrain, rig).chars().count() as u16 {
            buffer.set_stringn(x, self.area.y - 2, &told, wide.into(), theme.bad);
        }
    }

    pub(super) fn draw_place(&self, buffer: &mut Buffer, theme: &Theme, place: &Place, is_selected: bool) {
        let (x, y) = (self.column(place.across), self.row(place.up));
        let sign = place.verdict.map_or('○', |verdict| verdict.sign()).to_string();
        let style = if place.is_in_plane { theme.verdict(place.verdict).bold() } else { theme.faint };
        self.put(buffer, x, y, &sign, style);
        if is_selected {
            self.put(buffer, x.saturating_sub(1), y, "›", theme.accent.bold());
            self.put(buffer, x + 1, y, "‹", theme.accent.bold());
        }
    }
}
