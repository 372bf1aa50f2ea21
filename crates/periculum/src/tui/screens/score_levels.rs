//! A line for each value of a benchmark: its score, how often it was measured, and what it gains.

use periculum_core::analysis::over::Over;
use periculum_core::analysis::scores::{Benchmark, Level, Measure};
use periculum_core::inference::comparison::{Comparison, Says};
use periculum_core::model::quantity::scored;
use periculum_core::model::verdict::Verdict;
use periculum_core::telling::percent_words;
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span, Text};

use super::fit::fit;
use super::score_curve::level_at;
use crate::tui::desk::Desk;
use crate::tui::pointing::Target;
use crate::tui::telling::labels;

/// The value of a level as people read it.
pub(super) fn written(level: &Level, over: Option<Over>) -> String {
    level.value.zip(over).map_or_else(|| labels::AS_IT_IS.into(), |(value, over)| over.written(value))
}

/// How a value ended whose score counts though it did not hold.
pub(super) fn fate(level: &Level) -> String {
    if level.verdict == Verdict::Held { String::new() } else { format!(" {} {}", level.verdict.sign(), level.verdict) }
}

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect, benchmark: &Benchmark, over: Option<Over>) {
    let theme = &desk.theme;
    let label = over.map_or(String::new(), |over| over.axis().label);
    let values = benchmark.levels.iter().map(|level| written(level, over).chars().count());
    let wide = values.max().unwrap_or_default().max(label.chars().count());
    let head = format!(
        "  {:>wide$} {:>8} {:>6}  {:>13}  {:>13}  {:>6}  {:>6}",
        label,
        benchmark.what.unit,
        labels::TIMES,
        labels::OVER_STOCK_PERCENT,
        labels::OVER_LAST,
        "W",
        "°C"
    );
    let mut lines = vec![fit(Line::styled(head, theme.muted), area.width, theme.muted)];
    let (at, room) = (level_at(desk, benchmark), usize::from(area.height).saturating_sub(1));
    let first = at.saturating_sub(room / 2).min(benchmark.levels.len().saturating_sub(room));
    for (index, level) in benchmark.levels.iter().enumerate().skip(first).take(room) {
        let trial = level.trials.last().map(|trial| Target::Trial(*trial));
        desk.places.put_lines(Rect { y: area.y + lines.len() as u16, height: 1, ..area }, trial.into_iter());
        let value = format!("{:>wide$}", written(level, over));
        lines.push(fit(level_line(desk, &benchmark.what, level, &value, index == at), area.width, theme.muted));
    }
    frame.render_widget(Text::from(lines), area);
}

fn level_line(desk: &Desk, what: &Measure, level: &Level, value: &str, is_selected: bool) -> Line<'static> {
    let theme = &desk.theme;
    let text = if is_selected { theme.accent.bold() } else { theme.text };
    let says = |comparison: &Option<Comparison>| match comparison.as_ref() {
        None => (String::new(), theme.muted),
        Some(compared) => (percent_words(&compared.of_scores(what.less_is_better)), style(desk, compared.says())),
    };
    let (over_stock, stock_style) = says(&level.over_baseline);
    let (over_last, last_style) = says(&level.over_before);
    let reading = |value: Option<f64>| value.map_or(String::new(), |value| format!("{value:.1}"));
    let mean = level.mean();
    Line::from(vec![
        Span::styled(if is_selected { "› " } else { "  " }, theme.accent),
        Span::styled(format!("{value} {:>8} ", scored(mean, mean)), text),
        Span::styled(format!("{:>6}  ", level.scores.len()), theme.muted),
        Span::styled(format!("{over_stock:>13}  "), stock_style),
        Span::styled(format!("{over_last:>13}  "), last_style),
        Span::styled(format!("{:>6}  {:>6}", reading(level.took.watts), reading(level.took.degrees)), theme.muted),
        Span::styled(fate(level), desk.theme.verdict(Some(level.verdict))),
    ])
}

/// More is good, less is bad, and what noise could be is neither.
fn style(desk: &Desk, says: Says) -> Style {
    match says {
        Says::More => desk.theme.good,
        Says::Same => desk.theme.muted,
        Says::Less => desk.theme.bad,
    }
}
