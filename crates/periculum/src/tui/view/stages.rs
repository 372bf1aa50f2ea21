//! The stages of the plan: what is behind us, what is under way, what is to come.

use periculum_core::plan::{Stage, Steps, Strategy};
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::text::{Line, Span, Text};

use crate::tui::app::App;

pub(super) fn draw(frame: &mut Frame, app: &App, area: Rect) {
    let theme = &app.theme;
    let mut lines = vec![Line::styled("plan", theme.muted)];
    for (index, stage) in app.plan.stages.iter().enumerate() {
        let begun = app.story.stages.get(index);
        let end = begun.and_then(|stage| stage.end.as_ref());
        let (sign, style) = match (begun, end) {
            (_, Some(_)) => ("✓", theme.good),
            (Some(_), None) => ("›", theme.accent),
            (None, _) => (" ", theme.muted),
        };
        let is_ahead = begun.is_none();
        lines.push(Line::from(vec![
            Span::styled(format!("{sign} "), style),
            Span::styled(what(app, stage), if is_ahead { theme.muted } else { theme.text }),
        ]));
        if let Some(end) = end {
            lines.push(Line::styled(format!("  {}", end.sentence(&app.rig)), theme.muted));
        }
    }
    frame.render_widget(Text::from(lines), area);
}

/// The stage in a few words: `ascend core clock by 50 MHz, quick`.
fn what(app: &App, stage: &Stage) -> String {
    let proof = &app.plan.proofs[stage.proof].name;
    let name = stage.strategy.name();
    match &stage.strategy {
        Strategy::Baseline { repeats: 1, .. } => format!("{name}, {proof}"),
        Strategy::Baseline { repeats, within: None } => format!("{name}, {repeats} times {proof}"),
        Strategy::Baseline { repeats, within: Some(_) } => format!("{name}, up to {repeats} times {proof}"),
        Strategy::Soak { steps, margin: 0 } => format!("{name}{}, {proof}", moved(app, steps)),
        Strategy::Soak { steps, margin: 1 } => format!("{name}{}, 1 step of margin, {proof}", moved(app, steps)),
        Strategy::Soak { steps, margin } => format!("{name}{}, {margin} steps of margin, {proof}", moved(app, steps)),
        Strategy::Ascend(steps) | Strategy::Trim(steps) | Strategy::Seek(steps) => {
            format!("{name}{}, {proof}", moved(app, steps))
        }
    }
}

/// The setting that moves and how far at a time: ` core clock by 50 MHz`.
fn moved(app: &App, steps: &Steps) -> String {
    let setting = app.rig.setting(&steps.setting);
    let label = setting.map_or(steps.setting.as_str(), |setting| &setting.label);
    let step = setting.zip(steps.step).map(|(setting, step)| format!(" by {}", setting.written(step)));
    format!(" {label}{}", step.unwrap_or_default())
}
