//! The running pass core by core: who works how fast, at what clock, with what errors, and who falls behind.

use periculum_core::model::pass::{CoreProgress, Progress};
use periculum_core::model::quantity::measured;
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span, Text};

use crate::tui::desk::Desk;
use crate::tui::telling::{self, labels};

/// How wide a core's line is, without its bar.
const LINE: u16 = 66;

/// The widest bar.
const WIDEST_BAR: u16 = 40;

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    let theme = &desk.theme;
    let Some(progress) = desk.shown.story.progress.as_ref().filter(|progress| !progress.cores.is_empty()) else {
        let words = if desk.is_over() { telling::NO_PASS_RUNS } else { telling::NO_CORE_TOLD };
        frame.render_widget(Line::styled(words, theme.muted), area);
        return;
    };
    let mut lines = vec![work(desk, progress), Line::default()];
    let bar = area.width.saturating_sub(LINE).min(WIDEST_BAR);
    let unit = progress.rate.as_ref().map_or("", |rate| rate.unit.as_str());
    lines.push(Line::styled(
        format!(
            "{}  {:<bar$}{:>10}{:>12}  {:>7}  {:>6}   {}",
            labels::CORE,
            "",
            unit,
            labels::CLOCK,
            labels::ROUNDS,
            labels::ERRORS,
            labels::LAST_CHECK,
            bar = usize::from(bar)
        ),
        theme.muted,
    ));
    let best = progress.cores.iter().map(|core| core.rate).fold(0.0, f64::max);
    // Where there are more cores than lines, those with something to tell come first.
    let room = usize::from(area.height).saturating_sub(lines.len() + 1);
    let mut cores: Vec<&CoreProgress> = progress.cores.iter().collect();
    if cores.len() > room {
        cores.sort_by_key(|core| (core.errors == 0, !progress.falls_behind(core)));
    }
    let hidden = cores.len().saturating_sub(room);
    cores.truncate(room);
    lines.extend(cores.into_iter().map(|core| of_core(desk, progress, core, (best, bar))));
    if hidden > 0 {
        lines.push(Line::styled(telling::cores_hidden(hidden), theme.muted));
    }
    frame.render_widget(Text::from(lines), area);
}

fn work(desk: &Desk, progress: &Progress) -> Line<'static> {
    let theme = &desk.theme;
    let mut line = Line::default();
    if progress.warms_up {
        line.push_span(Span::styled(format!("{}   ", labels::WARMING_UP), theme.warning));
    }
    let what = progress.workload.as_ref().map_or(telling::EACH_BY_ITSELF.into(), ToString::to_string);
    line.push_span(Span::styled(what, theme.text));
    line
}

fn of_core(desk: &Desk, progress: &Progress, core: &CoreProgress, (best, bar): (f64, u16)) -> Line<'static> {
    let theme = &desk.theme;
    let is_behind = progress.falls_behind(core);
    let share = if best > 0.0 { core.rate / best } else { 0.0 };
    let full = (share * f64::from(bar)).round().clamp(0.0, f64::from(bar)) as usize;
    let style: Style = if is_behind { theme.warning } else { theme.text };
    let number = |value: Option<f64>| value.map_or("–".into(), |value| measured(value, 0));
    let errors = if core.errors == 0 { theme.muted } else { theme.bad };
    let checked = core.checked.map_or(labels::NOT_CHECKED.into(), |at| match progress.done - at {
        ago if ago.millis() < 1000 => labels::CHECKED_JUST_NOW.into(),
        ago => telling::ago(ago),
    });
    let mut line = Line::from(vec![
        Span::styled(format!("{:>4}  ", core.core), theme.text),
        Span::styled("━".repeat(full), style),
        Span::styled("─".repeat(usize::from(bar) - full), theme.faint),
        Span::styled(format!("{:>10}", measured(core.rate, 2)), style),
        Span::styled(format!("{:>12}  {:>7}", number(core.clock), core.rounds), theme.text),
        Span::styled(format!("  {:>6}   ", core.errors), errors),
        Span::styled(checked, theme.muted),
    ]);
    if is_behind {
        line.push_span(Span::styled(format!("   {}", labels::BEHIND), theme.warning));
    }
    line
}
