//! The first line, which says what is climbed and how it stands, and the last, which says what can be pressed.

use periculum_core::model::verdict::Verdict;
use ratatui::Frame;
use ratatui::layout::{Alignment, Rect};
use ratatui::style::Style;
use ratatui::text::{Line, Span};

use super::fit::fit;
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::telling::{self, labels};

pub(in crate::tui) fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    let theme = &desk.theme;
    let (state, style) = state(desk);
    let right = Line::from(vec![Span::styled(state, style.bold())]).alignment(Alignment::Right);
    let room = usize::from(area.width).saturating_sub(right.width() + 2);
    frame.render_widget(right, area);

    let mut left = vec![Span::styled(desk.shown.rig.name.clone(), theme.text.bold())];
    let plan = &desk.shown.plan;
    let what = telling::plan_for_use(&plan.name, &plan.use_name);
    if desk.shows_another() && desk.live().story.ended.is_none() {
        let live = desk.live();
        let meanwhile = telling::meanwhile(live.number, &live.rig.name, live.story.trials.len());
        left.push(Span::styled(format!("   {meanwhile}"), theme.accent));
    }
    let mut facts = vec![desk.shown.rig.specimens(), what];
    facts.push(match desk.shown.seed {
        _ if desk.shown.is_planned() => labels::NOT_BEGUN.into(),
        Some(seed) => telling::climb_of_specimen(desk.shown.number, seed),
        None => telling::climb(desk.shown.number),
    });
    if !desk.shown.is_planned() {
        facts.push(tally(desk));
    }
    for fact in facts.into_iter().filter(|fact| !fact.is_empty()) {
        let fact = format!("   {fact}");
        if Line::from(left.clone()).width() + fact.chars().count() > room {
            break;
        }
        left.push(Span::styled(fact, theme.muted));
    }
    frame.render_widget(Line::from(left), area);
}

/// How many trials there were, what became of them, and how long passes ran.
fn tally(desk: &Desk) -> String {
    let story = &desk.shown.story;
    let fell = story.count(Verdict::Fell) + story.count(Verdict::Slipped);
    telling::tally(story.count(Verdict::Held), fell, story.tested())
}

/// How the climb stands, in a word.
pub(in crate::tui) fn state_of(desk: &Desk) -> &'static str {
    state(desk).0
}

fn state(desk: &Desk) -> (&'static str, Style) {
    let (story, theme) = (&desk.shown.story, &desk.theme);
    if desk.is_asked_elsewhere() {
        return (labels::ASKED_ELSEWHERE, theme.warning);
    }
    if let Some(ended) = &story.ended {
        return match ended.end {
            periculum_core::engine::ClimbEnd::Completed => (labels::DONE, theme.good),
            periculum_core::engine::ClimbEnd::BudgetSpent { .. } => (labels::BUDGET_SPENT, theme.warning),
            periculum_core::engine::ClimbEnd::Stopped => (labels::STOPPED, theme.warning),
            _ => (labels::OVER, theme.bad),
        };
    }
    if desk.shown.is_planned() {
        return (labels::PLANNING, theme.accent);
    }
    if desk.is_driver_gone || desk.shows_another() {
        return (labels::NOT_FINISHED, theme.warning);
    }
    if story.question.is_some() {
        return (labels::ASKS, theme.warning);
    }
    if story.is_paused {
        return (labels::PAUSED, theme.warning);
    }
    if desk.pause_wanted {
        return (labels::PAUSING, theme.warning);
    }
    (labels::CLIMBING, theme.accent)
}

pub(in crate::tui) fn draw_keys(frame: &mut Frame, desk: &Desk, keys: &[Key], area: Rect) {
    let theme = &desk.theme;
    if let Some(told) = &desk.told {
        let line = Line::styled(told.clone(), theme.accent.bold());
        return frame.render_widget(fit(line, area.width, theme.muted), area);
    }
    let shown: Vec<&Key> = keys.iter().filter(|key| !key.shown.is_empty()).collect();
    let width = |key: &&Key| key.shown.chars().count() + key.does.chars().count() + 3;
    let whole: usize = shown.iter().map(width).sum();
    let room = usize::from(area.width) + 2;
    // That there are more is said, since help lists them all.
    let room = if whole <= room { room } else { room - 2 };
    let mut line = Line::default();
    for key in shown {
        if line.width() + width(&key) > room {
            line.push_span(Span::styled("…", theme.accent.bold()));
            break;
        }
        line.push_span(Span::styled(key.shown, theme.accent.bold()));
        line.push_span(Span::styled(format!(" {}  ", key.does), theme.muted));
    }
    frame.render_widget(line, area);
}
