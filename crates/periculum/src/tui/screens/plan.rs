//! The plan as lines that can be changed, each problem in its place, and what it would do before it begins.

use std::path::Path;

use anyhow::{Result, bail};
use periculum_core::analysis::forecast::Forecast;
use periculum_core::files::Problem;
use periculum_core::files::outline::{self, LineKind, Turn};
use periculum_core::telling::{effort_words, forecast_words, stage_words};
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::text::{Line, Span, Text};

use super::fit::fit;
use super::stages::wrapped;
use super::{Proposed, Screen, Then, export};
use crate::briefing::Briefing;
use crate::telling::starting;
use crate::tui::climbed::Climbed;
use crate::tui::desk::Desk;
use crate::tui::draft::{Draft, Meaning};
use crate::tui::keys::{Key, offered};
use crate::tui::overlays::{Card, Entry, Overlay, Purpose};
use crate::tui::pointing::Target;
use crate::tui::telling::{self, labels};
use crate::tui::travel::Travel;

/// From this width on there is room for what the plan would do beside its lines.
const WIDE: u16 = 120;

/// How wide that is.
const BESIDE: u16 = 52;

/// Lines for it below, where there is no room beside.
const BELOW: u16 = 3;

/// Columns for the names of keys.
const KEYS: usize = 11;

/// The screen of the plan that is written.
pub(super) struct Plan;

impl Screen for Plan {
    fn help(&self) -> &'static str {
        labels::HELP_OF_PLAN
    }

    fn signs(&self) -> (usize, usize) {
        (0, 0)
    }

    /// Shows the plan of the shown climb, unless one is being written.
    fn enter(&mut self, desk: &mut Desk) {
        let [rig, plan] = &desk.shown.texts;
        if desk.draft.as_ref().is_none_or(|draft| draft.is_of_another(desk.shown.number)) {
            match Draft::of_climb(desk.shown.number, rig, plan) {
                Ok(draft) => desk.draft = Some(draft),
                Err(why) => desk.told = Some(format!("{why:#}")),
            }
        }
    }

    fn keys(&self, desk: &Desk) -> Vec<Key> {
        let Some(draft) = &desk.draft else { return Vec::new() };
        let (is_free, is_ready) = (desk.is_free(), draft.is_ready());
        let again = Key::letter('g', "g", labels::CLIMB_IT_AGAIN);
        offered([
            (true, Key::enter(labels::CHANGE).only(draft.written().is_some(), labels::NO_VALUE_HERE)),
            (true, Key::letter('a', "a", labels::ADD)),
            (true, Key::letter('u', "u", labels::UNDO).only(draft.can_undo(), labels::NOTHING_CHANGED)),
            (true, Key::letter('e', "e", labels::WRITE_THE_FILE).only(!is_ready, labels::FILE_IS_WRITTEN)),
            (is_ready, Key::letter('g', "g", labels::CLIMB_IT).only(is_free, labels::ANOTHER_RUNS)),
            (!is_ready, again.only(draft.file().is_none(), labels::WRITE_FIRST).only(is_free, labels::ANOTHER_RUNS)),
            (true, Key::letter('c', "c", labels::COPY)),
            (true, Key::backspace(labels::REMOVE)),
            (true, Key::letter('-', "- +", labels::EARLIER_LATER)),
            (true, Key::silent(KeyCode::Char('+'))),
        ])
    }

    fn press(&mut self, code: KeyCode, desk: &mut Desk) -> Then {
        let number = desk.shown.number;
        let Some(draft) = &mut desk.draft else { return Then::Nothing };
        match code {
            KeyCode::Enter => {
                let title = kind_words(draft.lines.get(draft.at()));
                let written = draft.written().unwrap_or_default();
                return Then::Open(Overlay::Entry(Entry::new(Purpose::Change, title, written)));
            }
            KeyCode::Char('a') => return Then::Open(Overlay::Entry(Entry::new(Purpose::Add, labels::NEW_LINE, ""))),
            KeyCode::Char('e') => return Then::Write,
            KeyCode::Char('g') => {
                return Then::Open(Overlay::Card(match draft.file() {
                    Some(file) => Card::beginning(file.to_owned()),
                    None => Card::repeating(number),
                }));
            }
            KeyCode::Char('u') => draft.undo(),
            KeyCode::Char('c') => draft.copy(),
            KeyCode::Backspace => draft.remove(),
            KeyCode::Char('-') => draft.shift(false),
            KeyCode::Char('+') => draft.shift(true),
            _ => {}
        }
        Then::Nothing
    }

    fn moves(&self, desk: &Desk) -> Option<&'static str> {
        desk.draft.is_some().then_some(labels::SELECT)
    }

    fn select(&mut self, step: Travel, desk: &mut Desk) {
        desk.draft.iter_mut().for_each(|draft| draft.select(step));
    }

    fn point(&mut self, target: Target, desk: &mut Desk) -> Then {
        if let (Target::Line(at), Some(draft)) = (target, &mut desk.draft) {
            draft.point_at(at);
        }
        Then::Nothing
    }

    fn draw(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        draw(frame, desk, area);
    }

    /// A plan that has a file is written into that.
    fn file(&self, desk: &Desk) -> Option<Proposed> {
        let draft = desk.draft.as_ref()?;
        let name = if draft.file().is_some() { draft.name() } else { export::free(draft.name()) };
        Some(Proposed { name, title: labels::FILE_OF_PLAN })
    }

    fn write(&mut self, path: &Path, desk: &mut Desk) -> Result<String> {
        let Some(draft) = &mut desk.draft else { bail!(telling::NO_PLAN) };
        let told = draft.save(path)?;
        if desk.shown.is_planned() {
            desk.shown = Climbed::not_begun(&draft.briefing()?);
        }
        Ok(told)
    }
}

fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    let Some(draft) = &desk.draft else {
        return frame.render_widget(Line::styled(telling::NO_PLAN, desk.theme.text), area);
    };
    let [head, body] = Layout::vertical([Constraint::Length(2), Constraint::Min(0)]).areas(area);
    frame.render_widget(fit(title(desk, draft), head.width, desk.theme.muted), head);
    if area.width >= WIDE {
        let columns = Layout::horizontal([Constraint::Min(0), Constraint::Length(BESIDE)]).spacing(3);
        let [lines, beside] = columns.areas(body);
        draw_lines(frame, desk, draft, lines);
        frame.render_widget(Text::from(foreseen(desk, draft, usize::from(BESIDE))), beside);
    } else {
        let rows = Layout::vertical([Constraint::Min(0), Constraint::Length(BELOW)]).spacing(1);
        let [lines, below] = rows.areas(body);
        draw_lines(frame, desk, draft, lines);
        let mut told = foreseen(desk, draft, usize::from(below.width));
        told.truncate(usize::from(BELOW));
        frame.render_widget(Text::from(told), below);
    }
}

fn title(desk: &Desk, draft: &Draft) -> Line<'static> {
    let theme = &desk.theme;
    let place = telling::place_in_list(labels::PLAN, draft.at() + 1, draft.lines.len());
    let (state, style) = match (draft.is_changed(), draft.file()) {
        (false, Some(_)) => ("", theme.muted),
        (false, None) => (telling::BECOMES_ANOTHER, theme.muted),
        (true, _) => (telling::IN_NO_FILE, theme.warning),
    };
    Line::from(vec![
        Span::styled(place, theme.muted),
        Span::styled(format!("   {}   ", draft.whose()), theme.text),
        Span::styled(state, style),
    ])
}

/// As many lines as there is room for around the selected one, with what is wrong below each.
fn draw_lines(frame: &mut Frame, desk: &Desk, draft: &Draft, area: Rect) {
    let mut rows: Vec<Line> = Vec::new();
    let mut selected = 0..1;
    // Which line of the plan each row belongs to.
    let mut owners = Vec::new();
    rows.extend(problems(desk, draft, None, area.width));
    for (index, line) in draft.lines.iter().enumerate() {
        let begin = rows.len();
        if matches!(line.kind, LineKind::Section(_)) && begin > 0 {
            rows.push(Line::default());
        }
        rows.push(fit(row(desk, draft, index, area.width), area.width, desk.theme.muted));
        rows.extend(problems(desk, draft, Some(index), area.width));
        if index == draft.at() {
            if let Some(why) = &draft.refusal {
                rows.extend(complaint(desk, why, area.width));
            }
            selected = begin..rows.len();
        }
        owners.resize(rows.len(), Target::Line(index));
    }
    let height = usize::from(area.height);
    let middle = (selected.start + selected.end) / 2;
    let first = middle.saturating_sub(height / 2).min(rows.len().saturating_sub(height));
    desk.places.put_lines(area, owners.into_iter().skip(first));
    frame.render_widget(Text::from_iter(rows.into_iter().skip(first).take(height)), area);
}

fn row(desk: &Desk, draft: &Draft, index: usize, width: u16) -> Line<'static> {
    let theme = &desk.theme;
    let line = &draft.lines[index];
    let is_selected = index == draft.at();
    let text = if is_selected { theme.accent.bold() } else { theme.text };
    let mut row = Line::from(Span::styled(if is_selected { "› " } else { "  " }, theme.accent));
    let key = match line.path.last() {
        Some(Turn::Key(key)) => key.as_str(),
        _ => "",
    };
    match &line.kind {
        LineKind::Section(comment) => {
            row.push_span(Span::styled(section_name(&line.path), text.bold()));
            section_words(desk, draft, &line.path, comment, width, &mut row);
        }
        LineKind::Value(value) => {
            row.push_span(Span::styled(format!("  {key:<KEYS$} "), theme.muted));
            row.push_span(Span::styled(value.clone(), text));
        }
        LineKind::Element(value) => {
            row.push_span(Span::styled("    · ", theme.muted));
            row.push_span(Span::styled(value.clone(), text));
        }
    }
    row
}

/// What a section is called: `stage 2`, `proof quick`.
fn section_name(path: &[Turn]) -> String {
    let word = |step: &Turn| match step {
        Turn::Key(key) => key.clone(),
        Turn::Nth(nth) => (nth + 1).to_string(),
    };
    path.iter().map(word).collect::<Vec<_>>().join(" ")
}

/// What a stage does and takes, and what its author wrote above it.
fn section_words(desk: &Desk, draft: &Draft, path: &[Turn], comment: &str, width: u16, row: &mut Line<'static>) {
    let theme = &desk.theme;
    let stage = match (path, &draft.meaning) {
        ([Turn::Key(key), Turn::Nth(nth)], Meaning::Plan(briefing, forecast, _)) if key == "stage" => {
            Some((&briefing.plan.stages[*nth], briefing, &forecast.stages[*nth]))
        }
        _ => None,
    };
    let Some((stage, briefing, effort)) = stage else {
        return row.push_span(Span::styled(format!("   {comment}"), theme.muted));
    };
    row.push_span(Span::styled(format!("   {}", stage_words(stage, &briefing.plan, &briefing.rig)), theme.text));
    let effort = effort_words(effort);
    let room = usize::from(width).saturating_sub(row.width() + effort.chars().count());
    if room >= 2 {
        row.push_span(Span::styled(format!("{:room$}{effort}", ""), theme.muted));
    }
}

/// What is wrong with a line.
fn problems(desk: &Desk, draft: &Draft, index: Option<usize>, width: u16) -> Vec<Line<'static>> {
    let Meaning::Wrong(problems) = &draft.meaning else { return Vec::new() };
    let here = problems.iter().filter(|(line, _)| *line == index);
    here.flat_map(|(_, problem)| complaint(desk, &problem_words(problem), width)).collect()
}

fn problem_words(Problem { what, help, .. }: &Problem) -> String {
    help.as_ref().map_or_else(|| what.clone(), |help| format!("{what}; {help}"))
}

fn complaint(desk: &Desk, words: &str, width: u16) -> Vec<Line<'static>> {
    let lines = wrapped(words, usize::from(width).saturating_sub(6));
    let sign = |nth: usize| if nth == 0 { "    ! " } else { "      " };
    let line = |(nth, words): (usize, String)| Line::styled(format!("{}{words}", sign(nth)), desk.theme.bad);
    lines.into_iter().enumerate().map(line).collect()
}

/// What it would do, or why that is not known.
fn foreseen(desk: &Desk, draft: &Draft, width: usize) -> Vec<Line<'static>> {
    let theme = &desk.theme;
    match &draft.meaning {
        Meaning::Wrong(problems) => {
            let words = telling::nothing_foreseen(problems.len());
            wrapped(&words, width).into_iter().map(|line| Line::styled(line, theme.warning)).collect()
        }
        Meaning::Plan(briefing, forecast, warnings) => {
            let lines =
                |words: &String| wrapped(words, width).into_iter().map(|line| Line::styled(line, theme.warning));
            let warned = warnings.iter().flat_map(|words| lines(words).chain([Line::default()]));
            warned.chain(effort(desk, briefing, forecast, width)).collect()
        }
    }
}

fn effort(desk: &Desk, briefing: &Briefing, forecast: &Forecast, width: usize) -> Vec<Line<'static>> {
    let theme = &desk.theme;
    let mut words = forecast_words(forecast);
    if forecast.goes_on {
        words += telling::PERHAPS_MORE;
    }
    let told = |words: &str, style| wrapped(words, width).into_iter().map(move |line| Line::styled(line, style));
    let mut lines: Vec<Line> = vec![Line::styled(labels::BEFORE_IT_BEGINS, theme.muted)];
    lines.extend(told(&words, theme.text.bold()));
    lines.extend(told(starting::NINE_OF_TEN, theme.muted));
    lines.extend([Line::default(), Line::styled(labels::TRIED_FIRST, theme.muted)]);
    for (nth, (rung, reason)) in forecast.first.iter().enumerate() {
        let rung = format!("{}  {}", nth + 1, briefing.rig.written(rung));
        lines.extend(told(&rung, theme.text));
        lines.extend(told(&reason.because(&briefing.rig), theme.muted).map(|line| indented(line, 3)));
    }
    lines.extend([Line::default(), Line::styled(labels::LIMITS_OF_PLAN, theme.muted)]);
    let moved = briefing.plan.stages.iter().flat_map(|stage| stage.strategy.settings());
    let mut moved: Vec<&str> = moved.collect();
    moved.sort_unstable();
    moved.dedup();
    for setting in moved.into_iter().filter_map(|name| briefing.rig.setting(name)) {
        let ceiling = setting.written(setting.ceiling(&briefing.plan.use_name));
        lines.push(Line::from(vec![
            Span::styled(format!("{:<16} ", setting.label), theme.muted),
            Span::styled(telling::from_to(&setting.written(setting.floor), &ceiling), theme.text),
        ]));
    }
    lines
}

fn indented(mut line: Line<'static>, by: usize) -> Line<'static> {
    line.spans.insert(0, Span::raw(" ".repeat(by)));
    line
}

/// What a line is, for those who never saw a plan.
fn kind_words(line: Option<&outline::Line>) -> &'static str {
    match line.map(|line| &line.kind) {
        Some(LineKind::Element(_)) => labels::NEW_ELEMENT,
        _ => labels::NEW_VALUE,
    }
}
