//! What the benchmarks of the climb say: each in a line, and of the selected one the curve over the climbed setting, what
//! each value gains, and how it ranks.

use std::path::Path;

use anyhow::Result;
use periculum_core::analysis::at_stock::between_starts;
use periculum_core::analysis::over::Over;
use periculum_core::analysis::scores::{Benchmark, Level, benchmarks_over, family};
use periculum_core::model::quantity::scored;
use periculum_core::model::verdict::Verdict;
use periculum_core::telling::{benchmark_words, percent_words, scatter_words};
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::text::{Line, Span, Text};

use super::fit::{WIDE, fit};
use super::score_curve::level_at;
use super::score_levels::{fate, written};
use super::{Proposed, Screen, Then, View, export, ranks, score_curve, score_levels};
use crate::tui::climbed::Climbed;
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
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
    /// What scores lie over, by name; none for the climbed setting.
    over: Option<String>,
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

    fn keys(&self, desk: &Desk) -> Vec<Key> {
        let benchmarks = self.benchmarks(desk).len();
        vec![
            Key::new(KeyCode::Left, "←→", labels::TURN_BENCHMARK).only(benchmarks > 1, labels::NO_OTHER_BENCHMARK),
            Key::silent(KeyCode::Right).only(benchmarks > 1, labels::NO_OTHER_BENCHMARK),
            Key::letter('x', "x", labels::OTHER_AXIS).only(axes(desk).len() > 1, labels::NOTHING_ELSE_MOVED),
            Key::enter(labels::ITS_TRIAL),
            Key::letter('e', "e", labels::EXPORT),
        ]
    }

    fn press(&mut self, code: KeyCode, desk: &mut Desk) -> Then {
        match code {
            KeyCode::Left => self.turn(Travel::Back(1), desk),
            KeyCode::Right => self.turn(Travel::On(1), desk),
            KeyCode::Char('x') => self.turn_axis(desk),
            KeyCode::Enter => return Then::Show(View::Trials),
            KeyCode::Char('e') => return Then::Write,
            _ => {}
        }
        Then::Nothing
    }

    fn moves(&self, desk: &Desk) -> Option<&'static str> {
        let benchmarks = self.benchmarks(desk);
        let levels = benchmarks.get(self.shown(&benchmarks)).map_or(0, |benchmark| benchmark.levels.len());
        (levels > 1).then_some(labels::SELECT)
    }

    /// Selects a level of the benchmark by its newest trial.
    fn select(&mut self, step: Travel, desk: &mut Desk) {
        let benchmarks = self.benchmarks(desk);
        let Some(benchmark) = benchmarks.get(self.shown(&benchmarks)) else { return };
        let to = step.from(level_at(desk, benchmark), benchmark.levels.len());
        desk.selected = benchmark.levels.get(to).and_then(|level| level.trials.last().copied());
    }

    fn draw(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        let benchmarks = self.benchmarks(desk);
        draw(frame, desk, area, &benchmarks, self.shown(&benchmarks), self.over(desk));
    }

    fn file(&self, desk: &Desk) -> Option<Proposed> {
        Some(export::picture_of(desk, labels::FILE_SCORES))
    }

    fn write(&mut self, path: &Path, desk: &mut Desk) -> Result<String> {
        let at = self.shown(&self.benchmarks(desk));
        let over = self.over(desk).map(|over| over.name().to_owned());
        export::picture(path, desk, |drawn| drawn.curve(at, over.as_deref()))
    }
}

impl Scores {
    /// Which of these benchmarks is shown.
    fn shown(&self, benchmarks: &[Benchmark]) -> usize {
        self.at.min(benchmarks.len().saturating_sub(1))
    }

    fn turn(&mut self, step: Travel, desk: &Desk) {
        self.at = step.from(self.at, self.benchmarks(desk).len());
    }

    /// Lays the scores over what comes next, and shows the first benchmark of the same measure.
    fn turn_axis(&mut self, desk: &Desk) {
        let before = self.benchmarks(desk);
        let what = before.get(self.shown(&before)).map(|benchmark| benchmark.what.clone());
        let axes = axes(desk);
        let at = axes.iter().position(|axis| Some(*axis) == self.over(desk)).map_or(0, |at| (at + 1) % axes.len());
        self.over = axes.get(at).map(|axis| axis.name().to_owned());
        let is_same = |benchmark: &Benchmark| Some(&benchmark.what) == what.as_ref();
        self.at = self.benchmarks(desk).iter().position(is_same).unwrap_or_default();
    }

    /// What scores lie over; none where the climb moves nothing.
    fn over<'a>(&self, desk: &'a Desk) -> Option<Over<'a>> {
        let Climbed { rig, plan, .. } = &desk.shown;
        self.over.as_deref().and_then(|name| Over::named(rig, name)).or_else(|| Over::usual(rig, plan))
    }

    /// What the benchmarks of the shown climb say.
    fn benchmarks(&self, desk: &Desk) -> Vec<Benchmark> {
        let Climbed { story, rig, plan, traces, .. } = &desk.shown;
        benchmarks_over(story, rig, plan, traces, self.over(desk))
    }
}

/// All that scores can be laid over.
fn axes(desk: &Desk) -> Vec<Over<'_>> {
    let Climbed { story, rig, plan, .. } = &desk.shown;
    Over::choices(rig, plan, story)
}

fn draw(frame: &mut Frame, desk: &Desk, area: Rect, benchmarks: &[Benchmark], at: usize, over: Option<Over>) {
    let Some(benchmark) = benchmarks.get(at) else {
        return frame.render_widget(Line::styled(telling::NO_BENCHMARK, desk.theme.text), area);
    };
    let listed = (benchmarks.len() as u16 + 1).min(area.height / 3);
    let [list, rest] = Layout::vertical([Constraint::Length(listed), Constraint::Min(0)]).spacing(1).areas(area);
    draw_list(frame, desk, list, benchmarks, at, over);
    let family = family(benchmarks, &benchmark.what);
    if area.width + 2 < WIDE.0 {
        return draw_levels_and_curve(frame, desk, rest, benchmark, &family, over);
    }
    let columns = Layout::horizontal([Constraint::Min(0), Constraint::Length(FACTS)]).spacing(3);
    let [left, right] = columns.areas(rest);
    draw_levels_and_curve(frame, desk, left, benchmark, &family, over);
    let facts = facts(desk, benchmark, over);
    let [upper, lower] =
        Layout::vertical([Constraint::Length(facts.len() as u16), Constraint::Min(0)]).spacing(1).areas(right);
    frame.render_widget(Text::from(facts), upper);
    ranks::draw(frame, desk, lower, benchmark);
}

/// Every benchmark in a line, as many as there is room for around the selected one.
fn draw_list(frame: &mut Frame, desk: &Desk, area: Rect, benchmarks: &[Benchmark], at: usize, over: Option<Over>) {
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
        let best = benchmark.best_standing().unwrap_or(&benchmark.levels[benchmark.best]);
        let gain =
            best.over_baseline.as_ref().map(|gain| percent_words(&gain.of_scores(benchmark.what.less_is_better)));
        let gain = gain.unwrap_or_default();
        let line = format!(
            "{} {:<wide$} {:>8} {:<8} {gain:>13}  {}",
            if index == at { "›" } else { " " },
            name(benchmark),
            scored(best.mean(), best.mean()),
            benchmark.what.unit,
            pays_words(benchmark, over)
        );
        lines.push(fit(Line::styled(line, style), area.width, theme.muted));
    }
    frame.render_widget(Text::from(lines), area);
}

/// Up to which value more of the setting pays, in a few words.
fn pays_words(benchmark: &Benchmark, over: Option<Over>) -> String {
    match (benchmark.levels.len(), benchmark.noise, benchmark.pays_until) {
        (1, ..) => telling::ONE_VALUE.into(),
        (_, None, _) => telling::NOISE_NOT_KNOWN.into(),
        (_, _, None) if benchmark.is_shown_to_pay() => telling::LAST_VALUE.into(),
        (_, _, None) => telling::NOTHING_SHOWN.into(),
        (_, _, Some(0)) => telling::LITTLE_GAIN.into(),
        (_, _, Some(index)) => written(&benchmark.levels[index], over),
    }
}

fn facts(desk: &Desk, benchmark: &Benchmark, over: Option<Over>) -> Vec<Line<'static>> {
    let theme = &desk.theme;
    let fact = |label: &str, told: String| {
        Line::from(vec![Span::styled(format!("{label:<12}"), theme.muted), Span::styled(told, theme.text)])
    };
    let unit = &benchmark.what.unit;
    let at = |score: String, place: &str| telling::at(&format!("{score} {unit}"), place);
    let best = &benchmark.levels[benchmark.best];
    let of = |level: &Level| at(scored(level.mean(), level.mean()), &(written(level, over) + &fate(level)));
    let mut lines = vec![fact(labels::BEST, of(best))];
    if best.verdict == Verdict::Fell {
        let stands = benchmark.best_standing().map_or_else(|| telling::NO_SCORE_STANDS.into(), of);
        lines.push(fact(labels::THAT_STANDS, stands));
    }
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
    if let Some(scatter) = between_starts(&desk.shown.story, &benchmark.what) {
        lines.push(fact(labels::STARTS, scatter_words(&scatter)));
    }
    let selected = &benchmark.levels[level_at(desk, benchmark)];
    let took = selected.took.less(benchmark.at_stock);
    let told =
        [took.watts.map(|watts| format!("{watts:+.1} W")), took.degrees.map(|degrees| format!("{degrees:+.1} °C"))];
    let told: Vec<String> = told.into_iter().flatten().collect();
    let place = written(selected, over);
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

fn draw_levels_and_curve(
    frame: &mut Frame,
    desk: &Desk,
    area: Rect,
    benchmark: &Benchmark,
    family: &[&Benchmark],
    over: Option<Over>,
) {
    let levels = benchmark.levels.len() as u16 + 1;
    // One value has no curve, and a small window has no room for one.
    let curve = area.height.saturating_sub(levels + 1).max(area.height / 2).min(CURVE.1);
    let has_curve = benchmark.levels.len() > 1 && curve >= CURVE.0;
    let [upper, lower] = Layout::vertical([Constraint::Length(if has_curve { curve } else { 0 }), Constraint::Min(0)])
        .spacing(u16::from(has_curve))
        .areas(area);
    if let (true, Some(over)) = (has_curve, over) {
        score_curve::draw(frame, desk, upper, benchmark, family, over);
    }
    score_levels::draw(frame, desk, lower, benchmark, over);
}
