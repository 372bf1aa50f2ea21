//! The form of an operator who leads: the next rung under the cursor, and what is known of it before it is tried.

use periculum_core::analysis::ahead::Ahead;
use periculum_core::engine::{Answer, Said, Suggestion};
use periculum_core::model::ladder::Direction;
use periculum_core::model::plan::Proof;
use periculum_core::model::setting::Setting;
use periculum_core::telling::objection_words;
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::Rect;
use ratatui::text::{Line, Span, Text};

use super::fit::fit;
use super::screen::Then;
use crate::tui::answers::key_of;
use crate::tui::desk::Desk;
use crate::tui::form::Form;
use crate::tui::keys::Key;
use crate::tui::overlays::{Entry, Overlay, Purpose};
use crate::tui::telling::{self, labels};

/// Lines for what is known: what stands against it or leads there, its kin, what is expected, and what a strategy would do.
const FACTS: u16 = 4;

/// No more settings than these are shown at a time.
const MOST_ROWS: usize = 7;

/// How wide the words in front of each line are.
const LEAD: usize = 13;

/// Columns for a value before and after.
const VALUES: usize = 24;

/// A large nudge is so many small ones.
const LARGE: u32 = 10;

/// Lines that it takes.
pub(super) fn height(desk: &Desk) -> u16 {
    let rows = (desk.shown.rig.settings.len() + 1).min(MOST_ROWS);
    let derived = u16::from(!desk.shown.rig.derived.is_empty());
    u16::try_from(rows).unwrap_or(u16::MAX) + derived + FACTS
}

/// The keys that mean something in it, those first that matter most.
pub(super) fn keys(desk: &Desk) -> Vec<Key> {
    let answers = desk.question().map(|question| question.answers()).unwrap_or_default();
    let nudge = Key::new(KeyCode::Right, "←→", labels::NUDGE).first();
    let silent = [KeyCode::Left, KeyCode::Char('<'), KeyCode::Char('>')].map(Key::silent);
    let digits = ('0'..='9').chain(['-', '.']).map(|digit| match digit {
        '0' => Key::letter('0', "0–9", labels::TYPE_VALUE).first(),
        digit => Key::silent(KeyCode::Char(digit)),
    });
    let (ahead, rest): (Vec<Answer>, Vec<Answer>) =
        answers.into_iter().partition(|answer| matches!(answer, Answer::Try | Answer::Take));
    let ahead = ahead.into_iter().rev().map(|answer| key_of(answer).first());
    let rest = rest.into_iter().map(|answer| key_of(answer).first());
    ahead.chain([nudge]).chain(digits).chain(rest).chain(silent).collect()
}

/// One of its keys was pressed; none where it is not its own.
pub(super) fn press(code: KeyCode, desk: &mut Desk) -> Option<Then> {
    let form = desk.form()?;
    let rig = std::sync::Arc::clone(&desk.shown.rig);
    let nudge = |direction, steps| {
        let mut form = form.clone();
        form.nudge(direction, steps, &rig);
        form
    };
    let nudged = match code {
        KeyCode::Left => Some(nudge(Direction::Down, 1)),
        KeyCode::Right => Some(nudge(Direction::Up, 1)),
        KeyCode::Char('<') => Some(nudge(Direction::Down, LARGE)),
        KeyCode::Char('>') => Some(nudge(Direction::Up, LARGE)),
        _ => None,
    };
    if let Some(nudged) = nudged {
        desk.set_form(nudged);
        return Some(Then::Nothing);
    }
    let answer = Answer::ALL.iter().find(|answer| key_of(**answer).code == code && desk.takes(**answer));
    match (answer, code) {
        (Some(Answer::Try), _) => Some(try_it(&form, desk)),
        (Some(Answer::Save), _) => {
            let entry = Entry::new(Purpose::SaveAs, labels::NAME_OF_PROFILE, "");
            Some(Then::Open(Overlay::Entry(entry)))
        }
        (Some(answer), _) => Some(Then::Say((*answer).into())),
        (None, KeyCode::Char(first @ ('0'..='9' | '-' | '.'))) => {
            let setting = form.setting(&rig)?;
            let entry = Entry::new(Purpose::Value, setting.title(), &first.to_string());
            Some(Then::Open(Overlay::Entry(entry)))
        }
        _ => None,
    }
}

/// What can't be tried says so at once.
fn try_it(form: &Form, desk: &mut Desk) -> Then {
    let against = form.ahead(&desk.shown).against;
    match against.first() {
        Some(objection) => {
            desk.told = Some(objection_words(objection, &desk.shown.rig));
            Then::Nothing
        }
        None => Then::Say(Said::Try { written: form.written() }),
    }
}

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    let Some(form) = desk.form() else { return };
    let ahead = form.ahead(&desk.shown);
    let count = desk.shown.rig.settings.len();
    // The selected row stays in sight.
    let first = (form.row + 1).saturating_sub(MOST_ROWS).min((count + 1).saturating_sub(MOST_ROWS));
    let wide = desk.shown.rig.settings.iter().map(|setting| setting.label.chars().count()).max().unwrap_or(0);
    let settings = desk.shown.rig.settings.iter().enumerate();
    let mut lines: Vec<Line> = settings.map(|(row, setting)| setting_line(desk, &form, row, setting, wide)).collect();
    lines.push(proof_line(desk, &form, count, wide));
    let mut lines: Vec<Line> = lines.into_iter().skip(first).take(MOST_ROWS).collect();
    lines.extend(derived_line(desk, &form));
    lines.extend([way_line(desk, &ahead), known_line(desk, &ahead), expected_line(desk, &form, &ahead)]);
    lines.push(suggestion_line(desk, form.turn.suggestion.as_ref()));
    let lines = lines.into_iter().map(|line| fit(line, area.width, desk.theme.muted));
    frame.render_widget(Text::from_iter(lines), area);
}

/// A setting: what it was, what it is to be, and how far it may go.
fn setting_line(desk: &Desk, form: &Form, row: usize, setting: &Setting, wide: usize) -> Line<'static> {
    let theme = &desk.theme;
    let (before, now) = (form.turn.at.get(&setting.name), form.rung().get(&setting.name));
    let written = |value: Option<_>| value.map(|value| setting.written(value)).unwrap_or_default();
    let mut line = head(desk, form, row, &setting.label, wide);
    let is_changed = before != now;
    let (before, now) = (written(before), written(now));
    let mut used = before.chars().count();
    line.push_span(Span::styled(before, if is_changed { theme.muted } else { theme.text }));
    if is_changed {
        used += 5 + now.chars().count();
        line.push_span(Span::styled("  →  ", theme.muted));
        line.push_span(Span::styled(now, theme.accent.bold()));
    }
    line.push_span(Span::raw(" ".repeat(VALUES.saturating_sub(used))));
    let limits = telling::limits_of(setting, &desk.shown.plan.use_name);
    line.push_span(Span::styled(format!("  {limits}"), theme.faint));
    line
}

fn proof_line(desk: &Desk, form: &Form, row: usize, wide: usize) -> Line<'static> {
    let theme = &desk.theme;
    let mut line = head(desk, form, row, labels::PROOF, wide);
    let Some(Proof { name, passes }) = form.proof(&desk.shown.plan) else { return line };
    let length = passes.iter().map(|pass| pass.length).sum::<periculum_core::model::moment::Span>();
    let style = if *name == form.turn.proof { theme.text } else { theme.accent.bold() };
    line.push_span(Span::styled(format!("{name:<VALUES$}"), style));
    line.push_span(Span::styled(format!("  {}", telling::proof_of(length, form.turn.proofs.len())), theme.faint));
    line
}

/// What leads a row: the sign of the selected one, and its name.
fn head(desk: &Desk, form: &Form, row: usize, label: &str, wide: usize) -> Line<'static> {
    let theme = &desk.theme;
    let is_selected = form.row == row;
    let lead = if row == 0 { labels::YOUR_TURN } else { "" };
    let (sign, style) = if is_selected { ("›", theme.accent.bold()) } else { (" ", theme.text) };
    Line::from(vec![
        Span::styled(format!("{lead:<LEAD$}"), theme.muted),
        Span::styled(format!("{sign} "), theme.accent.bold()),
        Span::styled(format!("{label:<wide$}  "), style),
    ])
}

fn fact(desk: &Desk, label: &str, span: Span<'static>) -> Line<'static> {
    Line::from(vec![Span::styled(format!("{label:<LEAD$}"), desk.theme.muted), span])
}

/// What stands against it, or the way there.
fn way_line(desk: &Desk, ahead: &Ahead) -> Line<'static> {
    let (rig, theme) = (&desk.shown.rig, &desk.theme);
    if ahead.against.is_empty() {
        return fact(desk, labels::WAY, Span::styled(telling::way_there(&ahead.errands, rig), theme.text));
    }
    let each: Vec<String> = ahead.against.iter().map(|one| objection_words(one, rig)).collect();
    fact(desk, labels::NOT_ALLOWED, Span::styled(each.join("; "), theme.bad))
}

fn known_line(desk: &Desk, ahead: &Ahead) -> Line<'static> {
    fact(desk, labels::KNOWN, Span::styled(telling::kin_words(ahead.kin), desk.theme.text))
}

fn expected_line(desk: &Desk, form: &Form, ahead: &Ahead) -> Line<'static> {
    let proof = form.proof(&desk.shown.plan).map_or("", |proof| &proof.name);
    let (text, style) = match &ahead.survival {
        Some(survival) => (telling::survives(proof, survival), desk.theme.text),
        None => (telling::NOTHING_ON_ITS_LINE.to_owned(), desk.theme.muted),
    };
    fact(desk, labels::EXPECTED, Span::styled(text, style))
}

fn derived_line(desk: &Desk, form: &Form) -> Option<Line<'static>> {
    let rung = form.rung();
    let each: Vec<String> = desk.shown.rig.derived.iter().map(|one| telling::derived_at(one, &rung)).collect();
    (!each.is_empty()).then(|| fact(desk, labels::DERIVED, Span::styled(each.join("   "), desk.theme.text)))
}

fn suggestion_line(desk: &Desk, suggestion: Option<&Suggestion>) -> Line<'static> {
    let theme = &desk.theme;
    let Some(Suggestion { rung, reason }) = suggestion else {
        return fact(desk, labels::SUGGESTED, Span::styled(telling::NOTHING_SUGGESTED, theme.muted));
    };
    let because = telling::because(&reason.because(&desk.shown.rig));
    let mut line = fact(desk, labels::SUGGESTED, Span::styled(desk.shown.rig.written(rung), theme.text));
    line.push_span(Span::styled(format!("   {because}"), theme.muted));
    line
}
