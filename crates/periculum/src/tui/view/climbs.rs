//! Every climb of the ledger, the newest first; the selected one can be opened in every view.

use periculum_core::engine::ClimbEnd;
use periculum_ledger::ClimbRow;
use ratatui::Frame;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::text::{Line, Span, Text};

use super::fit;
use crate::commands::date;
use crate::tui::app::App;

pub(super) fn draw(frame: &mut Frame, app: &App, area: Rect) {
    let theme = &app.theme;
    let [head, rows, foot] =
        Layout::vertical([Constraint::Length(2), Constraint::Min(0), Constraint::Length(1)]).areas(area);
    let place = if app.climbs.is_empty() { 0 } else { app.climb_at + 1 };
    frame.render_widget(Line::styled(format!("climbs   {place} of {}", app.climbs.len()), theme.muted), head);
    if app.climbs.is_empty() {
        frame.render_widget(Line::styled("There is no climb in this ledger yet.", theme.text), rows);
    }
    let widest = |of: fn(&ClimbRow) -> usize| app.climbs.iter().map(of).max().unwrap_or(0);
    let widths = Widths {
        rig: widest(|row| row.rig.chars().count()),
        specimen: widest(|row| specimen(row).chars().count()),
        plan: widest(|row| row.plan.chars().count()),
    };
    let height = usize::from(rows.height);
    // The selected one is kept in the middle, as far as there is something on both sides.
    let first = app.climb_at.saturating_sub(height / 2).min(app.climbs.len().saturating_sub(height));
    let shown = app.climbs.iter().enumerate().skip(first).take(height);
    let lines = shown.map(|(index, row)| fit(line(app, row, &widths, index == app.climb_at), rows.width, theme.muted));
    frame.render_widget(Text::from_iter(lines), rows);
    if let Some(why) = &app.trouble {
        frame.render_widget(fit(Line::styled(why.clone(), theme.bad), foot.width, theme.muted), foot);
    }
}

/// How wide the columns are that depend on what is in them.
struct Widths {
    rig: usize,
    specimen: usize,
    plan: usize,
}

/// Which specimen it was: by the name of its part, or by the seed of a simulated one.
fn specimen(row: &ClimbRow) -> String {
    match row.seed {
        Some(seed) => format!("{} #{seed}", row.specimen),
        None => row.specimen.clone(),
    }
}

fn line(app: &App, row: &ClimbRow, widths: &Widths, is_selected: bool) -> Line<'static> {
    let theme = &app.theme;
    let text = if is_selected { theme.accent.bold() } else { theme.text };
    let (sign, style) = match row.end.as_deref() {
        Some(end) if end == ClimbEnd::Completed.sentence() => ("✓", theme.good),
        Some(_) => ("–", theme.warning),
        None => ("○", theme.accent),
    };
    let Widths { rig, specimen: wide, plan } = widths;
    let end = row.end.clone().unwrap_or_else(|| "not finished".into());
    Line::from(vec![
        Span::styled(if is_selected { "› " } else { "  " }, theme.accent),
        Span::styled(format!("{:>4}  ", row.climb), theme.muted),
        Span::styled(format!("{sign}  "), style),
        Span::styled(format!("{}  ", date(row.wall)), theme.muted),
        Span::styled(format!("{:<rig$}  {:<wide$}  ", row.rig, specimen(row)), text),
        Span::styled(format!("{:<plan$}  ", row.plan), text),
        Span::styled(
            format!("{:>3} trials  {:>3} fell  {:>12}  ", row.trials, row.falls, row.tested.to_string()),
            theme.muted,
        ),
        Span::styled(end, style),
    ])
}
