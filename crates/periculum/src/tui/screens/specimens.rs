//! Specimens of the shown rig, ranked by their marks, and marks of others that were entered by hand.

use periculum_core::Decimal;
use periculum_core::model::ladder::Direction;
use periculum_core::model::setting::Setting;
use ratatui::Frame;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::text::{Line, Span, Text};
use ratatui::widgets::Widget;

use super::fit::fit;
use super::scroll::Scroll;
use crate::commands::date;
use crate::tui::desk::Desk;
use crate::tui::telling;

/// A mark that is ranked.
struct Ranked {
    value: Decimal,
    mark: String,
    whose: String,
    is_own: bool,
}

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect, scroll: &Scroll) {
    let theme = &desk.theme;
    let [upper, lower] = Layout::vertical([Constraint::Length(4), Constraint::Min(0)]).areas(area);
    let picked = match desk.picks.iter().next() {
        None => telling::NOTHING_PICKED.to_owned(),
        Some(one) => telling::picked(&one.title[0]),
    };
    let told = vec![Line::styled(picked, theme.muted), Line::styled(telling::HOW_TO_PICK, theme.text)];
    frame.render_widget(Text::from_iter(told.into_iter().map(|line| fit(line, upper.width, theme.muted))), upper);
    let rig = &desk.shown.rig;
    let Some(setting) = desk.shown.plan.climbed_setting().and_then(|name| rig.setting(name)) else { return };
    let ranked = ranked(desk, setting);
    let head = telling::specimens_by(&rig.name, &setting.label);
    let mut lines = vec![Line::styled(head, theme.muted)];
    if ranked.is_empty() {
        lines.push(Line::styled(telling::NO_MARK_OF_RIG, theme.text));
    }
    let wide = ranked.iter().map(|one| one.mark.chars().count()).max().unwrap_or_default();
    for (rank, one) in ranked.iter().enumerate() {
        let text = if one.is_own { theme.accent.bold() } else { theme.text };
        let line = Line::from(vec![
            Span::styled(format!("{:>4}  ", rank + 1), theme.muted),
            Span::styled(format!("{:<wide$}  ", one.mark), text),
            Span::styled(one.whose.clone(), if one.is_own { text } else { theme.muted }),
        ]);
        lines.push(fit(line, lower.width, theme.muted));
    }
    scroll.draw(frame, &desk.theme, lower, lines.len(), |buffer, area| Text::from(lines).render(area, buffer));
}

/// The last standing mark of each climb of the rig, and those from elsewhere, the hardest first.
fn ranked(desk: &Desk, setting: &Setting) -> Vec<Ranked> {
    let climbs = desk.shelf.all().filter(|listed| listed.row.rig == desk.shown.rig.name);
    let own = climbs.filter_map(|listed| {
        let row = &listed.row;
        let (seed, climb) = (telling::seed_words(row.seed), telling::climb(row.climb));
        let whose = format!("{}{seed}, {}, {climb}, {}", row.specimen, row.plan, &date(row.wall)[..10]);
        let (value, mark) = (row.mark.as_ref()?.get(&setting.name)?, listed.mark.clone()?);
        Some(Ranked { value, mark, whose, is_own: row.climb == desk.shown.number })
    });
    let entered = desk.shelf.entered(&setting.name).filter(|result| result.unit == setting.unit);
    let entered = entered.filter_map(|result| {
        let value = Decimal::try_from(result.value).ok()?;
        let named = [result.specimen.as_str(), result.source.as_str()];
        let whose = named.into_iter().filter(|name| !name.is_empty()).collect::<Vec<_>>().join(", ");
        Some(Ranked { value, mark: setting.written(value), whose, is_own: false })
    });
    let mut ranked: Vec<Ranked> = own.chain(entered).collect();
    ranked.sort_by(|a, b| match setting.harder {
        Direction::Up => b.value.cmp(&a.value),
        Direction::Down => a.value.cmp(&b.value),
    });
    ranked
}
