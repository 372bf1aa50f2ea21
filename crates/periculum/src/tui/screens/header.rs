//! The first line, which says what is climbed and how it stands, and the last, which says what can be pressed.

use periculum_core::model::verdict::Verdict;
use ratatui::Frame;
use ratatui::layout::{Alignment, Rect};
use ratatui::style::Style;
use ratatui::text::{Line, Span};

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
        return frame.render_widget(Line::styled(told.clone(), theme.accent.bold()), area);
    }
    let mut line = Line::default();
    for key in keys.iter().filter(|key| !key.shown.is_empty()) {
        let width = line.width() + key.shown.chars().count() + key.does.chars().count() + 1;
        if width > usize::from(area.width) {
            break;
        }
        line.push_span(Span::styled(key.shown, theme.accent.bold()));
        line.push_span(Span::styled(format!(" {}  ", key.does), theme.muted));
    }
    frame.render_widget(line, area);
}
