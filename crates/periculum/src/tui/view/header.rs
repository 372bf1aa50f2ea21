//! The first line, which says what is climbed and how it stands, and the last, which says what can be pressed.

use periculum_core::model::verdict::Verdict;
use ratatui::Frame;
use ratatui::layout::{Alignment, Rect};
use ratatui::style::Style;
use ratatui::text::{Line, Span};

use crate::tui::app::App;
use crate::tui::telling::{self, labels};

pub(super) fn draw(frame: &mut Frame, app: &App, area: Rect) {
    let theme = &app.theme;
    let (state, style) = state(app);
    let right = Line::from(vec![Span::styled(state, style.bold())]).alignment(Alignment::Right);
    let room = usize::from(area.width).saturating_sub(right.width() + 2);
    frame.render_widget(right, area);

    let mut left = vec![Span::styled(app.shown.rig.name.clone(), theme.text.bold())];
    let plan = &app.shown.plan;
    let what = telling::plan_for_use(&plan.name, &plan.use_name);
    let mut facts = vec![app.shown.rig.specimens(), what];
    facts.push(match app.shown.seed {
        _ if app.shown.is_planned() => labels::NOT_BEGUN.into(),
        Some(seed) => telling::climb_of_specimen(app.shown.number, seed),
        None => telling::climb(app.shown.number),
    });
    if !app.shown.is_planned() {
        facts.push(tally(app));
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
fn tally(app: &App) -> String {
    let story = &app.shown.story;
    let fell = story.count(Verdict::Fell) + story.count(Verdict::Slipped);
    telling::tally(story.count(Verdict::Held), fell, story.tested())
}

fn state(app: &App) -> (&'static str, Style) {
    let (story, theme) = (&app.shown.story, &app.theme);
    if app.is_asked_elsewhere() {
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
    if app.shown.is_planned() {
        return (labels::PLANNING, theme.accent);
    }
    if app.is_driver_gone || app.shows_another() {
        return (labels::NOT_FINISHED, theme.warning);
    }
    if story.question.is_some() {
        return (labels::ASKS, theme.warning);
    }
    if story.is_paused {
        return (labels::PAUSED, theme.warning);
    }
    if app.pause_wanted {
        return (labels::PAUSING, theme.warning);
    }
    (labels::CLIMBING, theme.accent)
}

pub(super) fn draw_keys(frame: &mut Frame, app: &App, area: Rect) {
    let theme = &app.theme;
    if let Some(told) = &app.told {
        return frame.render_widget(Line::styled(told.clone(), theme.accent.bold()), area);
    }
    let mut line = Line::default();
    for key in app.offered_keys().filter(|key| !key.shown.is_empty()) {
        let width = line.width() + key.shown.chars().count() + key.does.chars().count() + 1;
        if width > usize::from(area.width) {
            break;
        }
        line.push_span(Span::styled(key.shown, theme.accent.bold()));
        line.push_span(Span::styled(format!(" {}  ", key.does), theme.muted));
    }
    frame.render_widget(line, area);
}
