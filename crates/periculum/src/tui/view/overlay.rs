//! What lies over the view: the card that asks the operator, questions, text entry and help.

use periculum_core::engine::Question;
use periculum_core::model::rung::Change;
use periculum_core::telling::{answer_words, change_words};
use ratatui::Frame;
use ratatui::layout::{Constraint, Flex, Layout, Margin, Rect};
use ratatui::text::{Line, Span, Text};
use ratatui::widgets::{Block, BorderType, Clear, Padding, Paragraph, Wrap};
use tui_input::Input;

use super::plan;
use crate::tui::action::View;
use crate::tui::app::{App, Mode};
use crate::tui::telling::{self, labels};

pub(super) fn draw(frame: &mut Frame, app: &App, area: Rect) {
    match &app.mode {
        Mode::Watching => {
            let is_driven = !app.is_driver_gone && !app.shows_another();
            if let Some(question) = app.shown.story.question.as_ref().filter(|_| is_driven) {
                card(frame, app, area, labels::BY_HAND, ask(app, question));
            }
        }
        Mode::Help => card(frame, app, area, labels::HELP, help(app)),
        Mode::Finding(input) => {
            entry(frame, app, area, labels::WHAT_TO_FIND, input);
        }
        Mode::Saving(input) if app.view == View::Plan => entry(frame, app, area, labels::FILE_OF_PLAN, input),
        Mode::Saving(input) if app.view == View::Trials => {
            entry(frame, app, area, labels::FILE_FOR_TRIALS, input);
        }
        Mode::Saving(input) => entry(frame, app, area, labels::FILE_FOR_PICTURE, input),
        Mode::Changing(input) => {
            let line = app.draft.as_ref().and_then(|draft| draft.lines.get(draft.at()));
            entry(frame, app, area, plan::kind_words(line), input);
        }
        Mode::Adding(input) => {
            entry(frame, app, area, labels::NEW_LINE, input);
        }
        Mode::Dropping => {
            card(frame, app, area, labels::ASK_GIVE_UP, Text::styled(telling::CHANGED_PLAN, app.theme.text));
        }
        Mode::Repeating(number) => card(frame, app, area, labels::ASK_REPEAT, repeat_words(app, *number)),
        Mode::Beginning(file) => {
            let text = telling::plan_is_climbed(file);
            card(frame, app, area, labels::ASK_BEGIN, Text::styled(text, app.theme.text));
        }
        Mode::Note(input) => entry(frame, app, area, labels::NOTE, input),
        Mode::Saw(input, _) => entry(frame, app, area, labels::WHAT_WAS_SEEN, input),
        Mode::Stopping => card(frame, app, area, labels::ASK_STOP, stop_words(app)),
        Mode::Leaving => card(frame, app, area, labels::CLIMB_RUNS, leave_words(app)),
    }
}

fn ask(app: &App, question: &Question) -> Text<'static> {
    let theme = &app.theme;
    let Question::Change { errand } = question;
    let rig = &app.shown.rig;
    let why = match app.shown.story.open_trial() {
        Some(trial) => telling::change_is_for(trial, rig),
        None => telling::CHANGE_IS_FOR_HOME.into(),
    };
    let written = errand.changes().iter().filter(|change| rig.needs_start(&change.setting)).count();
    let by_hand = errand.changes().len() - written;
    let changes: Vec<(&Change, _)> =
        errand.changes().iter().map(|change| (change, change_words(change, rig))).collect();
    let unknown = || telling::WHATEVER_IT_IS.to_owned();
    let before = |from: &Option<String>| from.clone().unwrap_or_else(unknown);
    let wide = changes.iter().map(|(_, (label, ..))| label.chars().count()).max().unwrap_or(0);
    let wide_before = changes.iter().map(|(_, (_, from, _))| before(from).chars().count()).max().unwrap_or(0);
    let mut lines = vec![Line::styled(telling::errand_to_make(by_hand, written), theme.text), Line::default()];
    for (change, (label, from, to)) in changes {
        let mut line = vec![
            Span::styled(format!("    {label:<wide$}    "), theme.muted),
            Span::styled(format!("{:<wide_before$}", before(&from)), theme.text),
            Span::styled("   →   ", theme.muted),
            Span::styled(to, theme.accent.bold()),
        ];
        if by_hand > 0 && written > 0 {
            let starts = rig.needs_start(&change.setting);
            let how = if starts { telling::BY_ITS_START } else { telling::BY_YOUR_HAND };
            line.push(Span::styled(format!("   {how}"), theme.muted));
        }
        lines.push(Line::from(line));
    }
    lines.extend([
        Line::default(),
        Line::styled(why, theme.muted),
        Line::styled(telling::NOTHING_IS_LOST, theme.muted),
    ]);
    lines.push(Line::default());
    for (key, does) in question.answers().iter().map(|answer| (App::key_of(*answer), answer_words(*answer))) {
        lines.push(Line::from(vec![
            Span::styled(format!("    {key}  "), theme.accent.bold()),
            Span::styled(does, theme.text),
        ]));
    }
    Text::from(lines)
}

fn stop_words(app: &App) -> Text<'static> {
    Text::styled(telling::STOPS, app.theme.text)
}

fn repeat_words(app: &App, number: i64) -> Text<'static> {
    Text::styled(telling::repeats(number), app.theme.text)
}

fn leave_words(app: &App) -> Text<'static> {
    Text::styled(telling::leaves(&app.shown.rig), app.theme.text)
}

fn help(app: &App) -> Text<'static> {
    let theme = &app.theme;
    let styles =
        [theme.good, theme.warning, theme.bad, theme.muted, theme.accent, theme.muted, theme.accent, theme.bad];
    // Of the signs only those that the view has.
    let (from, to) = match app.view {
        View::Climb => (0, 8),
        View::Map | View::Trials => (0, 5),
        View::Traces => (0, 4),
        View::Rig => (6, 7),
        View::Climbs | View::Scores | View::Compare | View::Plan => (0, 0),
    };
    let mut lines = vec![Line::styled(telling::of_view(app.view), theme.text), Line::default()];
    if from < to {
        let signs = telling::SIGNS[from..to].iter().zip(&styles[from..to]);
        lines.extend(signs.map(|((sign, meaning), style)| {
            Line::from(vec![Span::styled(format!("  {sign}  "), *style), Span::styled(*meaning, theme.text)])
        }));
        lines.push(Line::default());
    }
    let keys: Vec<String> = app.keys_of_view().map(|key| format!("  {:<9} {:<23}", key.shown, key.does)).collect();
    lines.extend(keys.chunks(2).map(|pair| Line::styled(pair.concat(), theme.muted)));
    Text::from(lines)
}

/// A frame in the middle with a title and text in it.
fn card(frame: &mut Frame, app: &App, area: Rect, title: &str, text: Text<'static>) {
    let width = area.width.saturating_sub(4).min(84);
    let inner = usize::from(width.saturating_sub(6)).max(1);
    let rows: usize = text.lines.iter().map(|line| line.width().div_ceil(inner).max(1)).sum();
    let height = u16::try_from(rows + 4).unwrap_or(u16::MAX).min(area.height.saturating_sub(2));
    let place = centred(area, width, height);
    frame.render_widget(Clear, place);
    frame.render_widget(
        Paragraph::new(text).style(app.theme.text).wrap(Wrap { trim: false }).block(block(app, title)),
        place,
    );
}

/// A line to write in, at the foot of the screen.
fn entry(frame: &mut Frame, app: &App, area: Rect, title: &str, input: &Input) {
    let place =
        Rect { y: area.bottom().saturating_sub(6), height: 5.min(area.height), ..area }.inner(Margin::new(2, 0));
    frame.render_widget(Clear, place);
    let block = block(app, title);
    let inside = block.inner(place);
    frame.render_widget(block, place);
    let scroll = input.visual_scroll(usize::from(inside.width.saturating_sub(1)));
    let scroll_columns = u16::try_from(scroll).unwrap_or(u16::MAX);
    frame.render_widget(
        Paragraph::new(input.value().to_owned()).style(app.theme.text).scroll((0, scroll_columns)),
        inside,
    );
    let cursor = u16::try_from(input.visual_cursor().saturating_sub(scroll)).unwrap_or(u16::MAX);
    frame.set_cursor_position((inside.x.saturating_add(cursor).min(inside.right()), inside.y));
}

fn block<'a>(app: &App, title: &'a str) -> Block<'a> {
    Block::bordered()
        .border_type(BorderType::Rounded)
        .border_style(app.theme.faint)
        .title(Span::styled(format!(" {title} "), app.theme.accent.bold()))
        .padding(Padding::new(2, 2, 1, 1))
        .style(app.theme.text)
}

fn centred(area: Rect, width: u16, height: u16) -> Rect {
    let [row] = Layout::vertical([Constraint::Length(height)]).flex(Flex::Center).areas(area);
    let [place] = Layout::horizontal([Constraint::Length(width)]).flex(Flex::Center).areas(row);
    place
}
