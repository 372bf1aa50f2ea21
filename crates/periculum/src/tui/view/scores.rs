//! What the benchmarks of the climb say: each in a line, and of the selected one the curve over the climbed setting, what
//! each value gains, and how it ranks.

use periculum_core::analysis::scores::{Benchmark, Level};
use periculum_core::inference::comparison::Says;
use periculum_core::model::quantity::scored;
use periculum_core::model::setting::Setting;
use periculum_core::model::verdict::Verdict;
use periculum_core::telling::{benchmark_words, percent_words};
use ratatui::Frame;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::style::Style;
use ratatui::text::{Line, Span, Text};

use super::{WIDE, fit, ranks, score_curve};
use crate::tui::app::App;
use crate::tui::pointing::Target;
use crate::tui::telling::{self, labels};

/// How wide the facts and ranks are beside the curve.
const FACTS: u16 = 48;

/// Lines of the curve, at least and at most.
const CURVE: (u16, u16) = (5, 18);

pub(super) fn draw(frame: &mut Frame, app: &App, area: Rect) {
    let benchmarks = app.benchmarks();
    let at = app.benchmark_at(&benchmarks);
    let Some(benchmark) = benchmarks.get(at) else {
        return frame.render_widget(Line::styled(telling::NO_BENCHMARK, app.theme.text), area);
    };
    let listed = (benchmarks.len() as u16 + 1).min(area.height / 3);
    let [list, rest] = Layout::vertical([Constraint::Length(listed), Constraint::Min(0)]).spacing(1).areas(area);
    draw_list(frame, app, list, &benchmarks, at);
    let setting = app.shown.plan.climbed_setting().and_then(|name| app.shown.rig.setting(name));
    if area.width + 2 < WIDE.0 {
        return draw_levels_and_curve(frame, app, rest, benchmark, setting);
    }
    let columns = Layout::horizontal([Constraint::Min(0), Constraint::Length(FACTS)]).spacing(3);
    let [left, right] = columns.areas(rest);
    draw_levels_and_curve(frame, app, left, benchmark, setting);
    let facts = facts(app, benchmark, setting);
    let [upper, lower] =
        Layout::vertical([Constraint::Length(facts.len() as u16), Constraint::Min(0)]).spacing(1).areas(right);
    frame.render_widget(Text::from(facts), upper);
    ranks::draw(frame, app, lower, benchmark);
}

/// Every benchmark in a line, as many as there is room for around the selected one.
fn draw_list(frame: &mut Frame, app: &App, area: Rect, benchmarks: &[Benchmark], at: usize) {
    let theme = &app.theme;
    let name = |benchmark: &Benchmark| benchmark_words(benchmark, &app.shown.rig);
    let wide = benchmarks.iter().map(|benchmark| name(benchmark).chars().count()).max().unwrap_or(0).max(12);
    let head = [labels::BENCHMARK, labels::BEST, "", labels::OVER_STOCK_PERCENT, labels::WORTH_RAISING_TO];
    let head = format!("  {:<wide$} {:>8} {:<8} {:>13}  {}", head[0], head[1], head[2], head[3], head[4]);
    let mut lines = vec![fit(Line::styled(head, theme.muted), area.width, theme.muted)];
    let room = usize::from(area.height).saturating_sub(1);
    let first = at.saturating_sub(room / 2).min(benchmarks.len().saturating_sub(room));
    for (index, benchmark) in benchmarks.iter().enumerate().skip(first).take(room) {
        let style = if index == at { theme.accent.bold() } else { theme.text };
        let best = &benchmark.levels[benchmark.best];
        let gain = best.over_baseline.as_ref().map(percent_words).unwrap_or_default();
        let line = format!(
            "{} {:<wide$} {:>8} {:<8} {gain:>13}  {}",
            if index == at { "›" } else { " " },
            name(benchmark),
            scored(best.mean(), best.mean()),
            benchmark.what.unit,
            pays_words(app, benchmark)
        );
        lines.push(fit(Line::styled(line, style), area.width, theme.muted));
    }
    frame.render_widget(Text::from(lines), area);
}

fn written(level: &Level, setting: Option<&Setting>) -> String {
    level.value.zip(setting).map_or_else(|| labels::AS_IT_IS.into(), |(value, setting)| setting.written(value))
}

/// Up to which value more of the setting pays, in a few words.
fn pays_words(app: &App, benchmark: &Benchmark) -> String {
    let setting = app.shown.plan.climbed_setting().and_then(|name| app.shown.rig.setting(name));
    match (benchmark.levels.len(), benchmark.noise, benchmark.pays_until) {
        (1, ..) => telling::ONE_VALUE.into(),
        (_, None, _) => telling::NOISE_NOT_KNOWN.into(),
        (_, _, None) => telling::LAST_VALUE.into(),
        (_, _, Some(0)) => telling::LITTLE_GAIN.into(),
        (_, _, Some(index)) => written(&benchmark.levels[index], setting),
    }
}

/// How a value ended whose score counts though it did not hold.
fn fate(level: &Level) -> String {
    if level.verdict == Verdict::Held { String::new() } else { format!(" {} {}", level.verdict.sign(), level.verdict) }
}

fn facts(app: &App, benchmark: &Benchmark, setting: Option<&Setting>) -> Vec<Line<'static>> {
    let theme = &app.theme;
    let fact = |label: &str, told: String| {
        Line::from(vec![Span::styled(format!("{label:<12}"), theme.muted), Span::styled(told, theme.text)])
    };
    let unit = &benchmark.what.unit;
    let at = |score: String, place: &str| telling::at(&format!("{score} {unit}"), place);
    let best = &benchmark.levels[benchmark.best];
    let mut lines =
        vec![fact(labels::BEST, at(scored(best.mean(), best.mean()), &(written(best, setting) + &fate(best))))];
    if let Some((stock, times)) = benchmark.baseline {
        lines.push(fact(labels::AT_STOCK, telling::measured_times(&scored(stock, stock), unit, times)));
    }
    match &benchmark.noise {
        Some(noise) => {
            let noise = 100.0 * noise.deviation;
            let left_out: usize = benchmark.levels.iter().map(|level| level.disturbed).sum();
            lines.push(fact(labels::NOISE, telling::noise(noise, left_out)));
        }
        None => lines.push(fact(labels::NOISE, telling::NOISE_NOT_KNOWN.into())),
    }
    let selected = &benchmark.levels[app.level_at(benchmark)];
    let took = selected.took.less(benchmark.at_stock);
    let told =
        [took.watts.map(|watts| format!("{watts:+.1} W")), took.degrees.map(|degrees| format!("{degrees:+.1} °C"))];
    let told: Vec<String> = told.into_iter().flatten().collect();
    let place = written(selected, setting);
    if !told.is_empty() {
        lines.push(fact(labels::OVER_STOCK, telling::at(&told.join(", "), &place)));
    }
    let mut per = |label: &str, per: Option<f64>| {
        lines.extend(per.map(|per| fact(label, at(scored(per, per), &place))));
    };
    per(labels::PER_WATT, selected.per_watt());
    if let Some(paid) = app.shown.rig.paid() {
        per(&telling::per(&paid.currency), selected.per_money(&paid));
    }
    lines
}

fn draw_levels_and_curve(frame: &mut Frame, app: &App, area: Rect, benchmark: &Benchmark, setting: Option<&Setting>) {
    let levels = benchmark.levels.len() as u16 + 1;
    // One value has no curve, and a small window has no room for one.
    let curve = area.height.saturating_sub(levels + 1).max(area.height / 2).min(CURVE.1);
    let has_curve = benchmark.levels.len() > 1 && curve >= CURVE.0;
    let [upper, lower] = Layout::vertical([Constraint::Length(if has_curve { curve } else { 0 }), Constraint::Min(0)])
        .spacing(u16::from(has_curve))
        .areas(area);
    if let (true, Some(setting)) = (has_curve, setting) {
        score_curve::draw(frame, app, upper, benchmark, setting);
    }
    draw_levels(frame, app, lower, benchmark, setting);
}

/// A line for each value: its score, how often it was measured, and what it gains.
fn draw_levels(frame: &mut Frame, app: &App, area: Rect, benchmark: &Benchmark, setting: Option<&Setting>) {
    let theme = &app.theme;
    let head = format!(
        "  {:<11} {:>8} {:>6}  {:>13}  {:>13}  {:>6}  {:>6}",
        setting.map_or("", |setting| &setting.label),
        benchmark.what.unit,
        labels::TIMES,
        labels::OVER_STOCK_PERCENT,
        labels::OVER_LAST,
        "W",
        "°C"
    );
    let mut lines = vec![fit(Line::styled(head, theme.muted), area.width, theme.muted)];
    let (at, room) = (app.level_at(benchmark), usize::from(area.height).saturating_sub(1));
    let first = at.saturating_sub(room / 2).min(benchmark.levels.len().saturating_sub(room));
    for (index, level) in benchmark.levels.iter().enumerate().skip(first).take(room) {
        let trial = level.trials.last().map(|trial| Target::Trial(*trial));
        app.places.put_lines(Rect { y: area.y + lines.len() as u16, height: 1, ..area }, trial.into_iter());
        lines.push(fit(level_line(app, level, setting, index == at), area.width, theme.muted));
    }
    frame.render_widget(Text::from(lines), area);
}

fn level_line(app: &App, level: &Level, setting: Option<&Setting>, is_selected: bool) -> Line<'static> {
    let theme = &app.theme;
    let text = if is_selected { theme.accent.bold() } else { theme.text };
    let says = |comparison: &Option<periculum_core::inference::comparison::Comparison>| match comparison.as_ref() {
        None => (String::new(), theme.muted),
        Some(compared) => (percent_words(compared), style(app, compared.says())),
    };
    let (over_stock, stock_style) = says(&level.over_baseline);
    let (over_last, last_style) = says(&level.over_before);
    let reading = |value: Option<f64>| value.map_or(String::new(), |value| format!("{value:.1}"));
    let mean = level.mean();
    Line::from(vec![
        Span::styled(if is_selected { "› " } else { "  " }, theme.accent),
        Span::styled(format!("{:<11} {:>8} ", written(level, setting), scored(mean, mean)), text),
        Span::styled(format!("{:>6}  ", level.scores.len()), theme.muted),
        Span::styled(format!("{over_stock:>13}  "), stock_style),
        Span::styled(format!("{over_last:>13}  "), last_style),
        Span::styled(format!("{:>6}  {:>6}", reading(level.took.watts), reading(level.took.degrees)), theme.muted),
        Span::styled(fate(level), app.theme.verdict(Some(level.verdict))),
    ])
}

/// More is good, less is bad, and what noise could be is neither.
fn style(app: &App, says: Says) -> Style {
    match says {
        Says::More => app.theme.good,
        Says::Same => app.theme.muted,
        Says::Less => app.theme.bad,
    }
}
