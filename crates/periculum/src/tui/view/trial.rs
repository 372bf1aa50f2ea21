//! What is on trial now, how far it is, what comes next and why, and what went wrong last.

use periculum_core::engine::Prospect;
use periculum_core::moment::Span as Time;
use periculum_core::quantity::{counted, measured};
use periculum_core::story::TrialStory;
use periculum_core::telling::{change_words, mark_sentence, whereabouts};
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span, Text};

use super::fit;
use crate::tui::app::App;

/// Lines that this part takes.
pub(super) const HEIGHT: u16 = 5;

/// How wide the words in front of each line are.
const LEAD: usize = 13;

pub(super) fn draw(frame: &mut Frame, app: &App, area: Rect) {
    let lines = match (&app.shown.story.ended, app.shown.story.open_trial()) {
        (Some(_), _) => over(app),
        (None, Some(trial)) => {
            vec![on_trial(app, trial), pass(app, trial, area.width), next_if(app, true), next_if(app, false)]
        }
        (None, None) => vec![between(app)],
    };
    let lines = lines.into_iter().chain([trouble(app)]).map(|line| fit(line, area.width, app.theme.muted));
    frame.render_widget(Text::from_iter(lines), area);
}

fn on_trial(app: &App, trial: &TrialStory) -> Line<'static> {
    let theme = &app.theme;
    let because = format!("   because {}", trial.reason.because(&app.shown.rig));
    Line::from(vec![
        lead(app, "on trial"),
        Span::styled(app.shown.rig.written(&trial.rung), theme.accent.bold()),
        Span::styled(because, theme.muted),
    ])
}

/// The proof's name, the passes behind us, and the one that runs.
fn pass(app: &App, trial: &TrialStory, width: u16) -> Line<'static> {
    let theme = &app.theme;
    let mut line = Line::from(lead(app, &trial.proof));
    let Some((index, running)) = app.shown.story.running_pass() else {
        let what = match &app.shown.story.under_way {
            Some(change) => {
                let (label, _, to) = change_words(change, &app.shown.rig);
                format!("setting {label} to {to}")
            }
            None if app.shown.story.is_paused => "waiting for you to go on".into(),
            None if let Some(until) = app.shown.story.rests_until => {
                format!("resting, {} left", until.since(app.shown.story.latest).clock())
            }
            None => "about to begin".into(),
        };
        line.push_span(Span::styled(what, theme.text));
        return line;
    };
    let passes = &app.shown.plan.proof_of(trial.stage).passes;
    line.push_span(Span::styled(format!("{} ", running.order.load), theme.text));
    if passes.len() > 1 {
        line.push_span(Span::styled(format!("pass {} of {}  ", index + 1, passes.len()), theme.muted));
    }
    let progress = app.shown.story.progress.clone().unwrap_or_default();
    let length = running.order.length;
    let bar = if width >= 120 { 30 } else { 12 };
    let full = (progress.done.seconds() / length.seconds() * f64::from(bar)).min(f64::from(bar)) as usize;
    line.push_span(Span::styled("━".repeat(full), theme.text));
    line.push_span(Span::styled("━".repeat(bar as usize - full), theme.faint));
    let left = length - progress.done;
    line.push_span(Span::styled(format!("  {} left", left.clock()), theme.text));
    let errors = if progress.errors == 0 { theme.muted } else { theme.bad };
    line.push_span(Span::styled(format!("   {}", counted(progress.errors, "error")), errors));
    if let Some(rate) = &progress.rate {
        line.push_span(Span::styled(format!("   {} {}", measured(rate.value, 1), rate.unit), theme.muted));
    }
    let rest: Time = passes.iter().skip(index + 1).map(|pass| pass.length).sum();
    if rest > Time::ZERO {
        line.push_span(Span::styled(format!("   then {rest} more"), theme.muted));
    }
    line
}

/// What comes next if the trial holds, or if it falls.
fn next_if(app: &App, holds: bool) -> Line<'static> {
    let theme = &app.theme;
    let prospect = app.shown.outlook.as_ref().map(|outlook| if holds { &outlook.if_held } else { &outlook.if_fell });
    let text = match prospect {
        None => "not known so far".into(),
        Some(Prospect::Try(rung, reason)) => match reason {
            periculum_core::reason::Reason::StepBack { .. } => format!("back to {}", app.shown.rig.written(rung)),
            _ => app.shown.rig.written(rung),
        },
        Some(Prospect::StageDone(..)) if app.shown.rig.settings.is_empty() => {
            "nothing was wrong, and that is on record".into()
        }
        Some(Prospect::NothingLeft) if app.shown.rig.settings.is_empty() => "what was wrong is on record".into(),
        Some(Prospect::StageDone(rung, _)) if app.shown.story.stages.len() < app.shown.plan.stages.len() => {
            format!("this stage is done at {}, and {} follows", app.shown.rig.written(rung), following(app))
        }
        Some(Prospect::StageDone(rung, _)) => format!("the climb is done at {}", app.shown.rig.written(rung)),
        Some(Prospect::NothingLeft) => "the climb is over: nothing easier is left to try".into(),
    };
    let words = if holds { "if it holds" } else { "if it falls" };
    Line::from(vec![lead(app, words), Span::styled(text, theme.text)])
}

fn following(app: &App) -> &'static str {
    app.shown.plan.stages.get(app.shown.story.stages.len()).map_or("nothing", |stage| stage.strategy.name())
}

fn between(app: &App) -> Line<'static> {
    let what = match &app.shown.story.under_way {
        Some(change) => {
            let (label, _, to) = change_words(change, &app.shown.rig);
            format!("on the way back to stock: {label} to {to}")
        }
        None if app.shown.story.is_paused => "paused between two trials; the rig stays as it is until you go on".into(),
        None => "about to begin".into(),
    };
    Line::from(vec![lead(app, "now"), Span::styled(what, app.theme.text)])
}

/// The end of the climb, and every mark that stands.
fn over(app: &App) -> Vec<Line<'static>> {
    let theme = &app.theme;
    let how = app
        .shown
        .story
        .ended
        .as_ref()
        .map(|ended| format!("{}; {}", ended.end.sentence(), whereabouts(&ended.not_at_stock, &app.shown.rig)));
    let mut lines = vec![Line::from(vec![lead(app, "over"), Span::styled(how.unwrap_or_default(), theme.text)])];
    if app.shown.story.marks.is_empty() {
        let is_beyond = |trial: &TrialStory| trial.held_the_proof() && trial.rung != app.shown.rig.stock();
        let why = match app.shown.story.trials.iter().any(is_beyond) {
            true => "the climb ended before what held beyond stock became one",
            false => "nothing harder than stock was proved",
        };
        lines.push(Line::from(vec![lead(app, "no mark"), Span::styled(why, theme.text)]));
    }
    for mark in app.shown.story.marks.iter().rev().take(usize::from(HEIGHT) - 2) {
        let flag = Span::styled(format!("{:<LEAD$}", "⚑ mark"), theme.accent);
        lines.push(Line::from(vec![flag, Span::styled(mark_sentence(mark, &app.shown.rig), theme.text.bold())]));
    }
    lines
}

fn trouble(app: &App) -> Line<'static> {
    let theme = &app.theme;
    let Some(last) = app.shown.story.incidents.last() else {
        return Line::from(vec![lead(app, "last trouble"), Span::styled("none so far", theme.text)]);
    };
    let trial = last.trial.and_then(|number| app.shown.story.trials.get(number as usize - 1));
    let verdict = trial.and_then(|trial| trial.verdict);
    let style: Style = theme.verdict(verdict);
    let sign = verdict.map_or("✕".to_owned(), |verdict| verdict.sign().to_string());
    let place = trial.map_or("outside any trial".to_owned(), |trial| {
        format!("trial {}, {}", trial.number, app.shown.rig.written(&trial.rung))
    });
    Line::from(vec![
        lead(app, "last trouble"),
        Span::styled(format!("{sign} "), style),
        Span::styled(last.incident.to_string(), theme.text),
        Span::styled(format!("   {place}"), theme.muted),
    ])
}

fn lead(app: &App, words: &str) -> Span<'static> {
    // A name may be as long as its author likes; what follows stands off it.
    Span::styled(format!("{:<LEAD$}", format!("{words} ")), app.theme.muted)
}
