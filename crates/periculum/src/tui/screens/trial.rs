//! What is on trial now, how far it is, what comes next and why, and what went wrong last.

use std::borrow::Cow;

use periculum_core::engine::Prospect;
use periculum_core::model::moment::Span as Time;
use periculum_core::model::quantity::measured;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::Rung;
use periculum_core::story::TrialStory;
use periculum_core::telling::{ask, errand_words};
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span, Text};

use super::fit::{ROOMY, fit};
use crate::tui::desk::Desk;
use crate::tui::telling::{self, labels};

/// Lines that this part takes.
pub(super) const HEIGHT: u16 = 6;

/// How wide the words in front of each line are.
const LEAD: usize = 13;

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    let lines = match desk.shown.story.open_trial() {
        Some(trial) => {
            let told = |rung: &Rung| rung_told(desk, rung, area.width);
            vec![
                on_trial(desk, trial, &told),
                pass(desk, trial, area.width),
                next_if(desk, true, &told),
                next_if(desk, false, &told),
            ]
        }
        None => vec![between(desk)],
    };
    let lines = lines
        .into_iter()
        .chain([trouble(desk), ahead(desk, area.width)])
        .map(|line| fit(line, area.width, desk.theme.muted));
    frame.render_widget(Text::from_iter(lines), area);
}

/// A rung, or where that leaves no room for the reason, only what of it is not as the rig comes.
pub(super) fn rung_told(desk: &Desk, rung: &Rung, width: u16) -> String {
    let rig = told_by(desk, rung, width);
    if rig.settings.is_empty() && !desk.shown.rig.settings.is_empty() {
        return telling::AS_IT_COMES.to_owned();
    }
    rig.written(rung)
}

/// The rig with all its settings, or where a rung with them leaves no room beside it, with those that are not as they come.
pub(super) fn told_by<'a>(desk: &'a Desk, rung: &Rung, width: u16) -> Cow<'a, Rig> {
    let rig: &Rig = &desk.shown.rig;
    if rig.written(rung).chars().count() * 2 <= usize::from(width) {
        return Cow::Borrowed(rig);
    }
    let changed = rig.settings.iter().filter(|setting| rung.get(&setting.name) != Some(setting.stock));
    Cow::Owned(Rig { settings: changed.cloned().collect(), curves: rig.curves.clone(), ..Rig::bare(&rig.name) })
}

fn on_trial(desk: &Desk, trial: &TrialStory, told: &impl Fn(&Rung) -> String) -> Line<'static> {
    let theme = &desk.theme;
    let because = format!("   {}", telling::because(&trial.reason.because(&desk.shown.rig)));
    Line::from(vec![
        lead(desk, labels::ON_TRIAL),
        Span::styled(told(&trial.rung), theme.accent.bold()),
        Span::styled(because, theme.muted),
    ])
}

/// The proof's name, the passes behind us, and the one that runs.
fn pass(desk: &Desk, trial: &TrialStory, width: u16) -> Line<'static> {
    let theme = &desk.theme;
    let mut line = Line::from(lead(desk, &trial.proof));
    if let Some(question) = desk.question().filter(|question| question.errand().is_none()) {
        line.push_span(Span::styled(telling::asks_you(&ask(question, &desk.shown.rig)), theme.text));
        return line;
    }
    let Some((index, running)) = desk.shown.story.running_pass() else {
        let what = match &desk.shown.story.under_way {
            Some(errand) if errand.is_start_alone() => telling::WAITS_FOR_START.into(),
            Some(errand) => telling::setting(&errand_words(errand, &desk.shown.rig)),
            None if desk.shown.story.is_paused => telling::WAITS_FOR_YOU.into(),
            None if let Some(until) = desk.shown.story.rests_until => {
                telling::resting(until.since(desk.shown.story.latest))
            }
            None => telling::ABOUT_TO_BEGIN.into(),
        };
        line.push_span(Span::styled(what, theme.text));
        return line;
    };
    let passes = &desk.shown.plan.proof_of(trial.stage).passes;
    line.push_span(Span::styled(format!("{} ", running.order.load), theme.text));
    if passes.len() > 1 {
        line.push_span(Span::styled(format!("{}  ", telling::pass_of(index + 1, passes.len())), theme.muted));
    }
    let progress = desk.shown.story.progress.clone().unwrap_or_default();
    let length = running.order.length;
    let bar = if width >= 120 { 30 } else { 12 };
    let full = (progress.done.seconds() / length.seconds() * f64::from(bar)).min(f64::from(bar)) as usize;
    line.push_span(Span::styled("━".repeat(full), theme.text));
    line.push_span(Span::styled("━".repeat(bar as usize - full), theme.faint));
    let left = length - progress.done;
    line.push_span(Span::styled(format!("  {}", telling::left(left)), theme.text));
    let errors = if progress.errors == 0 { theme.muted } else { theme.bad };
    line.push_span(Span::styled(format!("   {}", telling::errors(progress.errors)), errors));
    if let Some(rate) = &progress.rate {
        line.push_span(Span::styled(format!("   {} {}", measured(rate.value, 1), rate.unit), theme.muted));
    }
    let rest: Time = passes.iter().skip(index + 1).map(|pass| pass.length).sum();
    if rest > Time::ZERO {
        line.push_span(Span::styled(format!("   {}", telling::then_more(rest)), theme.muted));
    }
    line
}

/// What comes next if the trial holds, or if it falls.
fn next_if(desk: &Desk, holds: bool, told: &impl Fn(&Rung) -> String) -> Line<'static> {
    let theme = &desk.theme;
    let prospect = desk.shown.outlook.as_ref().map(|outlook| if holds { &outlook.if_held } else { &outlook.if_fell });
    let text = match prospect {
        None => telling::NOT_KNOWN_YET.into(),
        Some(Prospect::Try(rung, reason)) => match reason {
            periculum_core::model::reason::Reason::StepBack { .. } => telling::back_to(&told(rung)),
            _ => told(rung),
        },
        Some(Prospect::StageDone(..)) if desk.shown.rig.settings.is_empty() => telling::NOTHING_WAS_WRONG.into(),
        Some(Prospect::NothingLeft) if desk.shown.rig.settings.is_empty() => telling::WHAT_WAS_WRONG.into(),
        Some(Prospect::StageDone(rung, _)) if desk.shown.story.stages.len() < desk.shown.plan.stages.len() => {
            telling::stage_done(&told(rung), following(desk))
        }
        Some(Prospect::StageDone(rung, _)) => telling::climb_done(&told(rung)),
        Some(Prospect::Asks(suggestion)) => telling::asks(suggestion.as_ref().map(|suggestion| told(&suggestion.rung))),
        Some(Prospect::NothingLeft) => telling::NOTHING_LEFT.into(),
    };
    let words = if holds { labels::IF_IT_HOLDS } else { labels::IF_IT_FALLS };
    Line::from(vec![lead(desk, words), Span::styled(text, theme.text)])
}

fn following(desk: &Desk) -> Option<&'static str> {
    desk.shown.plan.stages.get(desk.shown.story.stages.len()).map(|stage| stage.strategy.name())
}

fn between(desk: &Desk) -> Line<'static> {
    let what = match &desk.shown.story.under_way {
        Some(errand) => telling::on_the_way_home(&errand_words(errand, &desk.shown.rig)),
        None if desk.shown.story.is_paused => telling::PAUSED_BETWEEN.into(),
        None => telling::ABOUT_TO_BEGIN.into(),
    };
    Line::from(vec![lead(desk, labels::NOW), Span::styled(what, desk.theme.text)])
}

pub(super) fn trouble(desk: &Desk) -> Line<'static> {
    let theme = &desk.theme;
    let Some(last) = desk.shown.story.incidents.last() else {
        return Line::from(vec![lead(desk, labels::LAST_TROUBLE), Span::styled(telling::NO_TROUBLE, theme.text)]);
    };
    let trial = last.trial.and_then(|number| desk.shown.story.trial(number));
    let verdict = trial.and_then(|trial| trial.verdict);
    let style: Style = theme.verdict(verdict);
    let sign = verdict.map_or("✕".to_owned(), |verdict| verdict.sign().to_string());
    let place = trial.map_or(telling::OUTSIDE_TRIALS.to_owned(), |trial| {
        format!("{}, {}", telling::trial(trial.number), desk.shown.rig.written(&trial.rung))
    });
    Line::from(vec![
        lead(desk, labels::LAST_TROUBLE),
        Span::styled(format!("{sign} "), style),
        Span::styled(last.incident.to_string(), theme.text),
        Span::styled(format!("   {place}"), theme.muted),
    ])
}

/// How long the climb may still take, and what its budget leaves it where that does not stand beside its stages.
fn ahead(desk: &Desk, width: u16) -> Line<'static> {
    let theme = &desk.theme;
    let Some(foreseen) = desk.shown.foreseen.as_ref().filter(|_| desk.is_climbing()) else { return Line::default() };
    let [least, most] = foreseen.ahead(&desk.shown.story).map(Time::rounded);
    let time = telling::ahead(least, most, foreseen.goes_on);
    let budget = telling::left_in_short(&desk.shown.rest).filter(|_| width < ROOMY.0);
    let budget = budget.map(|budget| Span::styled(format!("   {budget}"), theme.muted));
    Line::from(
        [lead(desk, labels::AHEAD), Span::styled(time, theme.text)].into_iter().chain(budget).collect::<Vec<_>>(),
    )
}

fn lead(desk: &Desk, words: &str) -> Span<'static> {
    // A name may be as long as its author likes; what follows stands off it.
    Span::styled(format!("{:<LEAD$}", format!("{words} ")), desk.theme.muted)
}
