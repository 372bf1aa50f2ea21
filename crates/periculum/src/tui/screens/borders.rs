//! The map's border in figures: for each value upwards that was tried, how far across it holds and falls, and how far that is sure
//! and even.

use periculum_core::Decimal;
use periculum_core::analysis::chance::Chance;
use periculum_core::analysis::terrain::{Bounds, Terrain};
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::text::{Line, Span, Text};

use super::fit::fit;
use crate::tui::desk::Desk;
use crate::tui::shading::Chances;
use crate::tui::telling::{self, labels};

/// Lines above the first value: an empty one, what is compared, and what the columns are.
const HEAD: u16 = 3;

/// Columns of the table: a value upwards, and what is known of it.
const FIRST: usize = 8;
const COLUMNS: [(usize, &str); 4] =
    [(9, labels::HOLDS), (9, labels::FALLS), (13, labels::SURE_SO_FAR), (9, labels::EVEN)];

/// How many lines the table takes; none where nothing is known of any value.
pub(super) fn height(terrain: &Terrain) -> u16 {
    match terrain.border.len() {
        0 => 0,
        rows => u16::try_from(rows).unwrap_or(u16::MAX).saturating_add(HEAD),
    }
}

/// As many values as there is room for, around that of the selected trial.
pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect, terrain: &Terrain, chances: Option<&Chances>) {
    let theme = &desk.theme;
    let selected = terrain.places.iter().find(|place| Some(place.trial) == desk.selected_trial());
    let own = selected.and_then(|place| terrain.border.iter().position(|bounds| bounds.up == place.up));
    let room = usize::from(area.height.saturating_sub(HEAD)).min(terrain.border.len());
    if room == 0 {
        return;
    }
    let first = own.unwrap_or(0).saturating_sub(room / 2).min(terrain.border.len() - room);
    let head = COLUMNS.map(|(wide, name)| format!("{name:>wide$}")).concat();
    let mut lines = vec![
        Line::default(),
        Line::styled(telling::border_of(&terrain.across.axis.title(), &terrain.up.axis.title()), theme.muted),
        Line::styled(format!("{:FIRST$}{head}", ""), theme.muted),
    ];
    for (nth, bounds) in terrain.border.iter().enumerate().skip(first).take(room) {
        let style = if Some(nth) == own { theme.text.bold() } else { theme.text };
        let value = Span::styled(format!("{:>FIRST$}", terrain.up.axis.written(bounds.up)), theme.muted);
        lines.push(Line::from(vec![value, Span::styled(known(terrain, bounds, chances), style)]));
    }
    let lines = lines.into_iter().map(|line| fit(line, area.width, theme.muted));
    frame.render_widget(Text::from_iter(lines), area);
}

/// What is known of one value upwards.
fn known(terrain: &Terrain, bounds: &Bounds, chances: Option<&Chances>) -> String {
    let reach = |worst: Chance| chances?.reach(bounds.up, worst, terrain.across.harder);
    let values = [bounds.holds, bounds.falls, reach(Chance::Sure), reach(Chance::Rather)];
    let cell = |((wide, _), value): ((usize, &str), Option<Decimal>)| {
        format!("{:>wide$}", value.map_or_else(|| "–".into(), |value| terrain.across.axis.written(value)))
    };
    COLUMNS.into_iter().zip(values).map(cell).collect()
}
