//! What the benchmarks of the climb say: each in a line, and of the selected one the curve over the climbed setting, what
//! each value gains, and how it ranks.

use std::path::Path;

use anyhow::Result;
use periculum_core::analysis::scores::{Benchmark, Level, benchmarks};
use periculum_core::inference::comparison::Says;
use periculum_core::model::quantity::scored;
use periculum_core::model::setting::Setting;
use periculum_core::model::verdict::Verdict;
use periculum_core::telling::{benchmark_words, percent_words};
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::style::Style;
use ratatui::text::{Line, Span, Text};

use super::fit::{WIDE, fit};
use super::score_curve::level_at;
use super::{Proposed, Screen, Then, View, export, ranks, score_curve};
use crate::tui::climbed::Climbed;
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::pointing::Target;
use crate::tui::telling::{self, labels};
use crate::tui::travel::Travel;

/// How wide the facts and ranks are beside the curve.
const FACTS: u16 = 48;

/// Lines of the curve, at least and at most.
const CURVE: (u16, u16) = (5, 18);

/// The screen of the scores.
#[derive(Default)]
pub(super) struct Scores {
    /// Which benchmark is shown.
    at: usize,
}

impl Screen for Scores {
    fn help(&self) -> &'static str {
        labels::HELP_OF_SCORES
    }

    fn signs(&self) -> (usize, usize) {
        (0, 0)
    }

    fn enter(&mut self, desk: &mut Desk) {
        desk.shelf.read();
    }

    fn keys(&self, _desk: &Desk) -> Vec<Key> {
        vec![
            Key::new(KeyCode::Left, "←→", labels::TURN_BENCHMARK),
            Key::silent(KeyCode::Right),
            Key::enter(labels::ITS_TRIAL),
            Key::letter('e', "e", labels::EXPORT),
        ]
    }

    fn press(&mut self, code: KeyCode, desk: &mut Desk) -> Then {
        match code {
            KeyCode::Left => self.turn(Travel::Back(1), desk),
            KeyCode::Right => self.turn(Travel::On(1), desk),
            KeyCode::Enter => return Then::Show(View::Trials),
            KeyCode::Char('e') => return Then::Write,
            _ => {}
        }
        Then::Nothing
    }

    fn moves(&self, _desk: &Desk) -> Option<&'static str> {
        Some(labels::SELECT)
    }

    /// Selects a level of the benchmark by its newest trial.
    fn select(&mut self, step: Travel, desk: &mut Desk) {
        let benchmarks = benchmarks_of(desk);
        let Some(benchmark) = benchmarks.get(self.shown(&benchmarks)) else { return };
        let to = step.from(level_at(desk, benchmark), benchmark.levels.len());
        desk.selected = benchmark.levels.get(to).and_then(|level| level.trials.last().copied());
    }

    fn draw(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        let benchmarks = benchmarks_of(desk);
        draw(frame, desk, area, &benchmarks, self.shown(&benchmarks));
    }

    fn file(&self, desk: &Desk) -> Option<Proposed> {
        Some(export::picture_of(desk, labels::FILE_SCORES))
    }

    fn write(&mut self, path: &Path, desk: &mut Desk) -> Result<String> {
        let benchmarks = benchmarks_of(desk);
        let load = benchmarks.get(self.shown(&benchmarks)).map(|benchmark| benchmark.what.load.as_str());
        export::picture(path, desk, |drawn| drawn.scores(load))
    }
}

impl Scores {
    /// Which of these benchmarks is shown.
    fn shown(&self, benchmarks: &[Benchmark]) -> usize {
        self.at.min(benchmarks.len().saturating_sub(1))
    }

    fn turn(&mut self, step: Travel, desk: &Desk) {
        self.at = step.from(self.at, benchmarks_of(desk).len());
    }
}

/// What the benchmarks of the shown climb say.
fn benchmarks_of(desk: &Desk) -> Vec<Benchmark> {
    let Climbed { story, rig, plan, traces, .. } = &desk.shown;
    benchmarks(story, rig, plan, traces)
}

fn draw(frame: &mut Frame, desk: &Desk, area: Rect, benchmarks: &[Benchmark], at: usize) {
    let Some(benchmark) = benchmarks.get(at) else {
        return frame.render_widget(Line::styled(telling::NO_BENCHMARK, desk.theme.text), area);
    };
    let listed = (benchmarks.len() as u16 + 1).min(area.height / 3);
    let [list, rest] = Layout::vertical([Constraint::Length(listed), Constraint::Min(0)]).spacing(1).areas(area);
    draw_list(frame, desk, list, benchmarks, at);
    let setting = desk.shown.plan.climbed_setting().and_then(|name| desk.shown.rig.setting(name));
    if area.width + 2 < WIDE.0 {
        return draw_levels_and_curve(frame, desk, rest, benchmark, setting);
    }
    let columns = Layout::horizontal([Constraint::Min(0), Constraint::Length(FACTS)]).spacing(3);
    let [left, right] = columns.areas(rest);
    draw_levels_and_curve(frame, desk, left, benchmark, setting);
    let facts = facts(desk, benchmark, setting);
    let [upper, lower] =
        Layout::vertical([Constraint::Length(facts.len() as u16), Constraint::Min(0)]).spacing(1).areas(right);
    frame.render_widget(Text::from(facts), upper);
    ranks::draw(frame, desk, lower, benchmark);
}

/// Every benchmark in a line, as many as there is room for around the selected one.
fn draw_list(frame: &mut Frame, desk: &Desk, area: Rect, benchmarks: &[Benchmark], at: usize) {
    let theme = &desk.theme;
    let name = |benchmark: &Benchmark| benchmark_words(benchmark, &desk.shown.rig);
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
            pays_words(desk, benchmark)
        );
        lines.push(fit(Line::styled(line, style), area.width, theme.muted));
    }
    frame.render_widget(Text::from(lines), area);
}

fn written(level: &Level, setting: Option<&Setting>) -> String {
    level.value.zip(setting).map_or_else(|| labels::AS_IT_IS.into(), |(value, setting)| setting.written(value))
}

/// Up to which value more of the setting pays, in a few words.
fn pays_words(desk: &Desk, benchmark: &Benchmark) -> String {
    let setting = desk.shown.plan.climbed_setting().and_then(|name| desk.shown.rig.setting(name));
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

fn facts(desk: &Desk, benchmark: &Benchmark, setting: Option<&Setting>) -> Vec<Line<'static>> {
    let theme = &desk.theme;
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
    let selected = &benchmark.levels[level_at(desk, benchmark)];
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
    if let Some(paid) = desk.shown.rig.paid() {
        per(&telling::per(&paid.currency), selected.per_money(&paid));
    }
    lines
}

fn draw_levels_and_curve(frame: &mut Frame, desk: &Desk, area: Rect, benchmark: &Benchmark, setting: Option<&Setting>) {
    let levels = benchmark.levels.len() as u16 + 1;
    // One value has no curve, and a small window has no room for one.
    let curve = area.height.saturating_sub(levels + 1).max(area.height / 2).min(CURVE.1);
    let has_curve = benchmark.levels.len() > 1 && curve >= CURVE.0;
    let [upper, lower] = Layout::vertical([Constraint::Length(if has_curve { curve } else { 0 }), Constraint::Min(0)])
        .spacing(u16::from(has_curve))
        .areas(area);
    if let (true, Some(setting)) = (has_curve, setting) {
        score_curve::draw(frame, desk, upper, benchmark, setting);
    }
    draw_levels(frame, desk, lower, benchmark, setting);
}

/// A line for each value: its score, how often it was measured, and what it gains.
fn draw_levels(frame: &mut Frame, desk: &Desk, area: Rect, benchmark: &Benchmark, setting: Option<&Setting>) {
    let theme = &desk.theme;
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
    let (at, room) = (level_at(desk, benchmark), usize::from(area.height).saturating_sub(1));
    let first = at.saturating_sub(room / 2).min(benchmark.levels.len().saturating_sub(room));
    for (index, level) in benchmark.levels.iter().enumerate().skip(first).take(room) {
        let trial = level.trials.last().map(|trial| Target::Trial(*trial));
        desk.places.put_lines(Rect { y: area.y + lines.len() as u16, height: 1, ..area }, trial.into_iter());
        lines.push(fit(level_line(desk, level, setting, index == at), area.width, theme.muted));
    }
    frame.render_widget(Text::from(lines), area);
}

fn level_line(desk: &Desk, level: &Level, setting: Option<&Setting>, is_selected: bool) -> Line<'static> {
    let theme = &desk.theme;
    let text = if is_selected { theme.accent.bold() } else { theme.text };
    let says = |comparison: &Option<periculum_core::inference::comparison::Comparison>| match comparison.as_ref() {
        None => (String::new(), theme.muted),
        Some(compared) => (percent_words(compared), style(desk, compared.says())),
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
