//! What lies over the view: the card that asks the operator, questions, text entry and help.

use periculum_core::engine::Question;
use periculum_core::setting::TakesEffect;
use periculum_core::telling::change_words;
use ratatui::Frame;
use ratatui::layout::{Constraint, Flex, Layout, Margin, Rect};
use ratatui::text::{Line, Span, Text};
use ratatui::widgets::{Block, BorderType, Clear, Padding, Paragraph, Wrap};
use tui_input::Input;

use super::plan;
use crate::tui::app::{App, Mode, View};
use crate::tui::keys;

pub(super) fn draw(frame: &mut Frame, app: &App, area: Rect) {
    match &app.mode {
        Mode::Watching => {
            let is_driven = !app.is_driver_gone && !app.shows_another();
            if let Some(question) = app.shown.story.question.as_ref().filter(|_| is_driven) {
                card(frame, app, area, "by hand", ask(app, question));
            }
        }
        Mode::Help => card(frame, app, area, "what this view shows", help(app)),
        Mode::Finding(input) => {
            entry(frame, app, area, "all of these words, or a setting's value as clock>=4700", input);
        }
        Mode::Saving(input) if app.view == View::Plan => entry(frame, app, area, "the plan's file", input),
        Mode::Saving(input) if app.view == View::Trials => {
            entry(frame, app, area, "the file to write the trials into, .csv or .jsonl", input);
        }
        Mode::Saving(input) => entry(frame, app, area, "the file to draw it into, .svg or .pdf", input),
        Mode::Changing(input) => {
            let line = app.draft.as_ref().and_then(|draft| draft.lines.get(draft.at()));
            entry(frame, app, area, plan::kind_words(line), input);
        }
        Mode::Adding(input) => {
            let what = "key = value for this section, or a section as [proof.long] or [[stage]]";
            entry(frame, app, area, what, input);
        }
        Mode::Dropping => {
            let text = "The plan was changed, and what was changed is in no file.";
            card(frame, app, area, "give it up?", Text::styled(text, app.theme.text));
        }
        Mode::Repeating(number) => card(frame, app, area, "climb it again?", repeat_words(app, *number)),
        Mode::Beginning(file) => {
            let text = format!("The plan {} is climbed, from its first stage on.", file.display());
            card(frame, app, area, "climb this plan?", Text::styled(text, app.theme.text));
        }
        Mode::Note(input) => entry(frame, app, area, "a note for the record", input),
        Mode::Saw(input, _) => entry(frame, app, area, "what did you see? the trial ends with it", input),
        Mode::Stopping => card(frame, app, area, "stop?", stop_words(app)),
        Mode::Leaving => card(frame, app, area, "a climb is running", leave_words(app)),
    }
}

fn ask(app: &App, question: &Question) -> Text<'static> {
    let theme = &app.theme;
    let Question::Change { change } = question;
    let (label, from, to) = change_words(change, &app.shown.rig);
    let from = from.unwrap_or_else(|| "whatever it is".into());
    let why = match app.shown.story.open_trial() {
        Some(trial) => format!("For trial {}, because {}.", trial.number, trial.reason.because(&app.shown.rig)),
        None => "To take the rig back to stock.".into(),
    };
    let is_written =
        app.shown.rig.setting(&change.setting).is_some_and(|it| it.takes_effect == TakesEffect::AtNextStart);
    let what = if is_written {
        format!("Start the machine again: {label} is written down for its next start.")
    } else {
        format!("Change {label}, and start the machine again if that takes a start.")
    };
    let mut lines = vec![
        Line::styled(what, theme.text),
        Line::default(),
        Line::from(vec![
            Span::styled(format!("    {label}    "), theme.muted),
            Span::styled(from, theme.text),
            Span::styled("   →   ", theme.muted),
            Span::styled(to, theme.accent.bold()),
        ]),
        Line::default(),
        Line::styled(why, theme.muted),
        Line::styled("Nothing is lost if this machine goes down meanwhile.", theme.muted),
    ];
    lines.push(Line::default());
    for (key, does) in [("d", "done, it runs"), ("x", "it did not start"), ("b", "it came back with defaults")] {
        lines.push(Line::from(vec![
            Span::styled(format!("    {key}  "), theme.accent.bold()),
            Span::styled(does, theme.text),
        ]));
    }
    Text::from(lines)
}

fn stop_words(app: &App) -> Text<'static> {
    Text::styled(
        "The pass is broken off, the rig goes back to stock, and the climb is over.\n\
         What it found so far stays in the ledger.",
        app.theme.text,
    )
}

fn repeat_words(app: &App, number: i64) -> Text<'static> {
    let text = format!(
        "Climb {number} is climbed again as a new climb: its plan on its rig,\n\
         both as they were recorded, from the baseline on."
    );
    Text::styled(text, app.theme.text)
}

fn leave_words(app: &App) -> Text<'static> {
    let is_by_hand = app.shown.rig.settings.iter().any(|setting| setting.takes_effect.needs_somebody());
    let rig = match (app.shown.rig.settings.is_empty(), is_by_hand) {
        (true, _) => "nothing was changed",
        (false, true) => "what needs a hand or a start stays as it is",
        (false, false) => "the rig goes back to stock",
    };
    let text = format!(
        "Leave it to wait: {rig}, and `periculum resume` tries the open trial again.\n\
         Or stop it for good: what it found so far stays in the ledger."
    );
    Text::styled(text, app.theme.text)
}

fn help(app: &App) -> Text<'static> {
    let theme = &app.theme;
    let sign = |sign: &'static str, style, what: &'static str| {
        Line::from(vec![Span::styled(format!("  {sign}  "), style), Span::styled(what, theme.text)])
    };
    let what = match app.view {
        View::Climb => {
            "Trials from left to right; the value of the climbed setting is the height. A trial puts one rung, \
             a whole combination of settings, to one proof: passes of loads that know right from wrong."
        }
        View::Map => {
            "Every trial in its place. Dots hold, as nothing there is harder than what held; behind the bar all falls, \
             as nothing there is easier than what fell; between them nobody knows. Lines are ceilings."
        }
        View::Trials => {
            "Every trial of this climb, and all that is known of the selected one. What you find by is looked for in \
             values, proof, verdict, incidents and notes; clock>=4700 finds by a setting's value."
        }
        View::Plan => {
            "The plan, line by line. Change a value, add a key or a section, copy, move or remove a stage; what can't be is \
             told below its line. What it would do is played on rigs that are made up: on one nothing beyond stock holds, \
             on one everything, on one half of it. A climb goes on with the plan that it was begun with."
        }
        View::Traces => {
            "What the sensors read: the mean of each column, before a shade from its least to its greatest reading; red is \
             over a cut-off. On the axis lie what went wrong and, as a line, the selected trial; `z` shows that trial alone."
        }
        View::Climbs => {
            "Every climb of this ledger, the newest first. Find some by what is known of a climb or one of its trials: rig, \
             specimen, date, verdict, incident, note, or a setting's value, as clock>=4700. An opened one is shown in every \
             view, until you go back to the climb that runs; that one goes on meanwhile."
        }
        View::Compare => {
            "What was picked, beside each other: what differs by more than chance comes first, with the difference to the \
             first one. Pick trials and climbs with p in their lists. With nothing to compare, specimens of this rig are \
             ranked by their marks."
        }
        View::Scores => {
            "What each benchmark scored. Behind ± is how far chance alone may be off, in 95 of 100 cases; a gain within that \
             is grey. More pays as long as the score follows the setting by at \
             least a quarter. `periculum enter` writes down a score from elsewhere to be ranked with."
        }
        View::Rig => {
            "What the rig consists of, and of each setting what is asked, what the rig reports (≠ where that is something \
             else) and what is measured; what is calculated from that, and what the sensors read, with the limits of each."
        }
    };
    let signs = [
        sign("●", theme.good, "held: it survived the whole proof"),
        sign("◐", theme.warning, "slipped: it runs, but throttled, lost score, or did not take"),
        sign("✕", theme.bad, "fell: anything wrong, lost or dead"),
        sign("–", theme.muted, "broken off: it says nothing, and the rung is tried again"),
        sign("○", theme.accent, "on trial now"),
        sign("◇", theme.muted, "next, if this one holds"),
        sign("⚑", theme.accent, "mark: the hardest rung that held, and to which proof"),
        sign("┄", theme.bad, "ceiling: never crossed"),
    ];
    // Of the signs only those that the view has.
    let (from, to) = match app.view {
        View::Climb => (0, 8),
        View::Map | View::Trials => (0, 5),
        View::Traces => (0, 4),
        View::Rig => (6, 7),
        View::Climbs | View::Scores | View::Compare | View::Plan => (0, 0),
    };
    let mut lines = vec![Line::styled(what, theme.text), Line::default()];
    if from < to {
        lines.extend_from_slice(&signs[from..to]);
        lines.push(Line::default());
    }
    let keys: Vec<String> = keys::of_view(app).map(|key| format!("  {:<9} {:<23}", key.shown, key.does)).collect();
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
