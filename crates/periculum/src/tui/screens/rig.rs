//! The rig: what it consists of, every setting with what is asked and what may be, derived values, and sensors.

use periculum_core::Decimal;
use periculum_core::model::quantity::{grouped, measured};
use periculum_core::model::rig::{Derived, Sensor};
use periculum_core::model::setting::{Setting, TakesEffect};
use periculum_core::telling::mark_sentence;
use ratatui::Frame;
use ratatui::buffer::Buffer;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::{Constraint, Rect};
use ratatui::style::Style;
use ratatui::text::{Line, Span, Text};
use ratatui::widgets::{Row, Table, Widget};

use super::fit::fit;
use super::scroll::Scroll;
use super::{Proposed, Screen, Then, sensors};
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::telling::{self, labels};
use crate::tui::travel::Travel;

/// A row of a table, a line a cell.
type Cells = Vec<Line<'static>>;

/// From this width up there is room for columns that are wider than what stands in them.
const ROOMY: u16 = 110;

/// The screen of the rig.
#[derive(Default)]
pub(super) struct Rig {
    scroll: Scroll,
}

impl Screen for Rig {
    fn help(&self) -> &'static str {
        labels::HELP_OF_RIG
    }

    fn signs(&self) -> (usize, usize) {
        (6, 7)
    }

    fn enter(&mut self, _desk: &mut Desk) {
        self.scroll = Scroll::default();
    }

    fn keys(&self, _desk: &Desk) -> Vec<Key> {
        Vec::new()
    }

    fn press(&mut self, _code: KeyCode, _desk: &mut Desk) -> Then {
        Then::Nothing
    }

    fn moves(&self, _desk: &Desk) -> Option<&'static str> {
        self.scroll.can_move().then_some(labels::SCROLL)
    }

    fn select(&mut self, step: Travel, _desk: &mut Desk) {
        self.scroll.go(step);
    }

    fn draw(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        draw(frame, desk, area, &self.scroll);
    }

    /// Whoever wants it on paper has its file.
    fn file(&self, _desk: &Desk) -> Option<Proposed> {
        None
    }
}

fn draw(frame: &mut Frame, desk: &Desk, area: Rect, scroll: &Scroll) {
    let found = found(desk, area.width);
    let rig = &desk.shown.rig;
    let settings = rig.settings_but_points().count();
    let twins = rig.sensors.iter().filter(|sensor| sensors::twin(desk, sensor).is_some()).count();
    let sensors = rig.sensors.len() + twins;
    let tables = [rig.parts.len(), settings, rig.derived.len(), sensors];
    let lines = tables.iter().map(|rows| rows + 2).sum::<usize>() + found.len();
    scroll.draw(frame, &desk.theme, area, lines, |buffer, mut area| {
        draw_parts(buffer, desk, take(&mut area, rig.parts.len() + 1));
        draw_settings(buffer, desk, take(&mut area, settings + 1));
        if !rig.derived.is_empty() {
            draw_derived(buffer, desk, take(&mut area, rig.derived.len() + 1));
        }
        draw_sensors(buffer, desk, take(&mut area, sensors + 1));
        Text::from(found).render(area, buffer);
    });
}

/// So many lines from the top, and a blank one below them.
fn take(area: &mut Rect, lines: usize) -> Rect {
    let height = u16::try_from(lines).unwrap_or(u16::MAX).min(area.height);
    let taken = Rect { height, ..*area };
    let used = height.saturating_add(1).min(area.height);
    (area.y, area.height) = (area.y + used, area.height - used);
    taken
}

fn draw_parts(buffer: &mut Buffer, desk: &Desk, area: Rect) {
    let theme = &desk.theme;
    let part = |part: &periculum_core::model::rig::Part| {
        Line::from(vec![
            Span::styled(format!("{:<12}  ", part.kind), theme.muted),
            Span::styled(part.model.clone(), theme.text),
            Span::styled(telling::specimen(&part.specimen), theme.muted),
            Span::styled(telling::about_part(part), theme.muted),
        ])
    };
    let (rig, _) = desk.shown.story.state(&desk.shown.rig, desk.shown.story.last_state());
    let summary = Line::styled(desk.shown.rig.summary.clone(), theme.text);
    Text::from_iter([summary].into_iter().chain(rig.parts.iter().map(part))).render(area, buffer);
}

fn draw_settings(buffer: &mut Buffer, desk: &Desk, area: Rect) {
    let head = [
        labels::SETTING,
        labels::ASKED,
        labels::REPORTED,
        labels::MEASURED,
        labels::STOCK,
        labels::FLOOR,
        labels::CEILING,
        labels::JUMP,
        labels::IS_CHANGED,
    ];
    let rows = desk.shown.rig.settings_but_points().map(|setting| setting_row(desk, setting));
    let (mut head, mut rows) = (head.to_vec(), rows.collect::<Vec<Cells>>());
    if area.width < ROOMY {
        // A change that goes too far is refused with its reason, so this is missed least.
        let jump = head.len() - 2;
        head.remove(jump);
        rows.iter_mut().for_each(|row| drop(row.remove(jump)));
    }
    draw_table(buffer, desk, area, &head, rows);
}

fn setting_row(desk: &Desk, setting: &Setting) -> Cells {
    let theme = &desk.theme;
    let asked = desk.shown.story.open_trial().and_then(|trial| trial.rung.get(&setting.name));
    let is_moved = asked.is_some_and(|asked| asked != setting.stock);
    let number = |value| grouped(setting.ladder.rescaled(value));
    let value = |value| setting.written_short(value);
    let changed = match setting.takes_effect {
        TakesEffect::AtOnce => labels::AT_ONCE,
        TakesEffect::AtNextStart => labels::AT_NEXT_START,
        TakesEffect::ByHand => labels::BY_HAND,
    };
    vec![
        named(desk, &setting.label, &setting.unit),
        right(asked.map_or("–".into(), value), if is_moved { theme.accent.bold() } else { theme.text }),
        reported(desk, setting, asked),
        right(measured_words(desk, setting), theme.text),
        right(value(setting.stock), theme.text),
        right(value(setting.floor), theme.muted),
        right(value(setting.ceiling(&desk.shown.plan.use_name)), theme.bad),
        right(setting.largest_jump.map_or(labels::ANY.into(), number), theme.muted),
        Line::styled(changed, theme.muted),
    ]
}

/// What the rig said it has when it was read back last, which is not always what was asked.
fn reported(desk: &Desk, setting: &Setting, asked: Option<Decimal>) -> Line<'static> {
    let story = &desk.shown.story;
    let Some(reported) = story.reported.get(&setting.name).copied() else {
        return right("–".into(), desk.theme.text);
    };
    let is_on_its_way = story.under_way.is_some();
    match asked.filter(|asked| !setting.is_as_asked(*asked, reported)) {
        Some(_) if !is_on_its_way => right(format!("≠ {}", setting.written_short(reported)), desk.theme.bad.bold()),
        _ => right(setting.written_short(reported), desk.theme.text),
    }
}

/// What the sensor reads that follows this setting.
fn measured_words(desk: &Desk, setting: &Setting) -> String {
    let sensor = desk.shown.rig.sensors.iter().find(|sensor| sensor.follows.as_ref() == Some(&setting.name));
    let reading = sensor.and_then(|sensor| Some((desk.shown.story.readings.get(&sensor.name)?, sensor.decimals)));
    reading.map_or("–".into(), |(reading, decimals)| measured(*reading, decimals))
}

fn draw_derived(buffer: &mut Buffer, desk: &Desk, area: Rect) {
    let rung = desk.shown.story.open_trial().map_or_else(|| desk.shown.rig.stock(), |trial| trial.rung.clone());
    let row = |derived: &Derived| {
        let value = derived.value(&rung).map_or("–".into(), |value| grouped(value.round_dp(3).normalize()));
        let end = |end: Option<Decimal>| end.map_or(labels::NO_LIMIT.into(), grouped);
        vec![
            named(desk, &derived.label(), &derived.unit),
            right(value, desk.theme.text),
            right(end(derived.lowest), desk.theme.muted),
            right(end(derived.highest), desk.theme.muted),
            Line::styled(labels::CALCULATED, desk.theme.muted),
        ]
    };
    let rows = desk.shown.rig.derived.iter().map(row).collect();
    draw_table(buffer, desk, area, &[labels::DERIVED, labels::NOW, labels::AT_LEAST, labels::AT_MOST, ""], rows);
}

fn draw_sensors(buffer: &mut Buffer, desk: &Desk, area: Rect) {
    let theme = &desk.theme;
    let silent = desk.shown.story.silent(&desk.shown.rig);
    let row = |sensor: &Sensor| {
        let (_, told) = sensors::value(desk, sensor);
        let limit = |limit: Option<Decimal>| limit.map_or(String::new(), grouped);
        let role = match (&sensor.follows, sensor.core) {
            _ if silent.iter().any(|one| one.name == sensor.name) => telling::HAS_READ_NOTHING.to_owned(),
            (Some(setting), _) => telling::follows(setting),
            (None, Some(core)) => telling::is_cores(core),
            (None, None) if sensor.is_attached() => telling::attached_from(&sensor.source),
            (None, None) => String::new(),
        };
        let figures = |sensor: &Sensor, told: String| {
            [
                right(told, theme.text),
                right(limit(sensor.limit), theme.warning),
                right(sensor.cut_offs(|_| None).unwrap_or_default(), theme.bad),
            ]
        };
        let row = |label, figures: [Line<'static>; 3], role| -> Cells {
            std::iter::once(label).chain(figures).chain([Line::styled(role, theme.muted)]).collect()
        };
        let label = named(desk, &sensor.label, &sensor.unit);
        let itself = row(label, figures(sensor, told), role);
        let twin = sensors::twin(desk, sensor).map(|(twin, told)| {
            row(Line::styled(format!("  {}", twin.unit), theme.muted), figures(&twin, told), String::new())
        });
        std::iter::once(itself).chain(twin)
    };
    let rows = desk.shown.rig.sensors.iter().flat_map(row).collect();
    let when = if desk.is_over() { labels::IN_THIS_CLIMB } else { labels::NOW };
    draw_table(buffer, desk, area, &[labels::SENSOR, when, labels::ITS_LIMIT, labels::CUT_OFF, ""], rows);
}

/// What the climb has found for this rig.
fn found(desk: &Desk, width: u16) -> Vec<Line<'static>> {
    let theme = &desk.theme;
    let mut lines = Vec::new();
    if !desk.shown.story.marks.is_empty() {
        lines.push(Line::styled(labels::MARKS_OF_CLIMB, theme.muted));
    }
    lines.extend(desk.shown.story.marks.iter().map(|mark| {
        let words = mark_sentence(mark, &desk.shown.rig);
        Line::from(vec![Span::styled("⚑ ", theme.accent.bold()), Span::styled(words, theme.text)])
    }));
    if !desk.shown.story.profiles.is_empty() {
        lines.extend([Line::default(), Line::styled(labels::PROFILES_OF_CLIMB, theme.muted)]);
    }
    lines.extend(desk.shown.story.profiles.iter().map(|profile| {
        let soaked = if profile.soaked { telling::SOAKED } else { telling::NOT_SOAKED };
        Line::from(vec![
            Span::styled(format!("{}  ", profile.name), theme.text.bold()),
            Span::styled(format!("{}  ", desk.shown.rig.written(&profile.rung)), theme.text),
            Span::styled(soaked, theme.muted),
        ])
    }));
    lines.into_iter().map(|line| fit(line, width, theme.muted)).collect()
}

fn named(desk: &Desk, label: &str, unit: &str) -> Line<'static> {
    let unit = if unit.is_empty() { String::new() } else { format!(", {unit}") };
    Line::from(vec![Span::styled(label.to_owned(), desk.theme.text), Span::styled(unit, desk.theme.muted)])
}

fn right(text: String, style: Style) -> Line<'static> {
    Line::styled(text, style).right_aligned()
}

/// A table whose first and last columns have words, and whose others have numbers under their heads.
fn draw_table(buffer: &mut Buffer, desk: &Desk, area: Rect, head: &[&'static str], rows: Vec<Cells>) {
    let last = head.len() - 1;
    let headed = |(index, text): (usize, &&'static str)| {
        let line = Line::styled(*text, desk.theme.muted);
        if index == 0 || index == last { line } else { line.right_aligned() }
    };
    let heads: Cells = head.iter().enumerate().map(headed).collect();
    let widest = |column: usize| rows.iter().chain([&heads]).map(|row| row[column].width()).max().unwrap_or(0);
    // Where there is room, numbers stand in the same columns in every table.
    let least = |column: usize| match column {
        _ if area.width < ROOMY => 0,
        0 => 26,
        _ => 12,
    };
    let width = |column: usize| u16::try_from(widest(column)).unwrap_or(u16::MAX).max(least(column));
    // The words at the end give way to the numbers.
    let constraint =
        |column: usize| if column == last { Constraint::Fill(1) } else { Constraint::Length(width(column)) };
    let widths: Vec<Constraint> = (0..head.len()).map(constraint).collect();
    let table = Table::new(rows.into_iter().map(Row::new), widths).header(Row::new(heads)).column_spacing(2);
    Widget::render(table, area, buffer);
}
