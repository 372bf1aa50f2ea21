//! How the best single score of the climb ranks among those of other climbs, and of others that were entered by hand.

use periculum_core::analysis::scores::Benchmark;
use periculum_core::model::quantity::scored;
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::text::{Line, Span, Text};

use super::fit::fit;
use crate::commands::date;
use crate::tui::desk::Desk;
use crate::tui::shelf::Other;
use crate::tui::telling::{self, labels};

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect, benchmark: &Benchmark) {
    let theme = &desk.theme;
    let others = desk.shelf.others(&benchmark.what, desk.shown.number);
    if others.is_empty() {
        let why = Line::styled(telling::NO_OTHER_RAN_IT, theme.muted);
        return frame.render_widget(fit(why, area.width, theme.muted), area);
    }
    let own = benchmark.best_single();
    let mut ranked: Vec<(f64, Option<Other>)> = others.into_iter().map(|other| (other.value(), Some(other))).collect();
    ranked.extend(own.map(|own| (own, None)));
    let own = own.unwrap_or_else(|| ranked[0].0);
    ranked.sort_by(|(a, _), (b, _)| if benchmark.what.less_is_better { a.total_cmp(b) } else { b.total_cmp(a) });
    let at = ranked.iter().position(|(_, other)| other.is_none());
    let head = at.map_or_else(|| telling::NO_SCORE_STANDS.into(), |at| telling::rank(at + 1, ranked.len()));
    let at = at.unwrap_or_default();
    let mut lines = vec![Line::styled(head, theme.muted)];
    let room = usize::from(area.height).saturating_sub(1);
    let first = at.saturating_sub(room / 2).min(ranked.len().saturating_sub(room));
    for (index, (value, other)) in ranked.iter().enumerate().skip(first).take(room) {
        let text = if other.is_none() { theme.accent.bold() } else { theme.text };
        let line = Line::from(vec![
            Span::styled(format!("{:>3}  ", index + 1), theme.muted),
            Span::styled(format!("{:>9}  ", scored(*value, own)), text),
            Span::styled(whose(other.as_ref()), if other.is_none() { text } else { theme.muted }),
        ]);
        lines.push(fit(line, area.width, theme.muted));
    }
    frame.render_widget(Text::from(lines), area);
}

fn whose(other: Option<&Other>) -> String {
    match other {
        None => labels::THIS_CLIMB.into(),
        Some(Other::Climb(_, listed)) => {
            let row = &listed.row;
            let (climb, seed) = (telling::climb(row.climb), telling::seed_words(row.seed));
            format!("{climb}, {}{seed}, {}", row.rig, &date(row.wall)[..10])
        }
        Some(Other::Entered(result)) => {
            let specimen = if result.specimen.is_empty() { String::new() } else { format!("{}, ", result.specimen) };
            format!("{specimen}{}", result.source)
        }
    }
}
