//! The table of attempts: the number and verdict of each, and as many columns of it as there is room for.

use std::ops::Range;

use periculum_core::analysis::attempts::{Cell, Column};
use periculum_core::analysis::pool::Pooled;
use periculum_core::model::verdict::Verdict;
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span, Text};

use super::fit::fit;
use crate::tui::desk::Desk;
use crate::tui::pointing::Target;
use crate::tui::telling::labels;

/// Columns of the screen around the number that stands before those of the table: selection, pick and sign.
const AROUND_NUMBER: usize = 7;

/// Between two columns.
const GAP: usize = 2;

/// A column of words is no wider than this, but the last one.
const WIDEST: usize = 24;

/// For the sign that there are more columns.
const MORE: usize = 1;

/// Prose is worth beginning with so much room.
const LEAST_PROSE: usize = 12;

/// Lines of the head.
const HEAD: u16 = 2;

/// What is shown of the attempts.
pub(super) struct Table<'a> {
    pub(super) heads: &'a [Head],
    /// The column that is looked at.
    pub(super) at: usize,
    /// The name of the column that it is sorted by.
    pub(super) sorted: Option<String>,
    pub(super) rows: &'a dyn Rows,
    /// The place of the selected row.
    pub(super) selected: Option<usize>,
    /// What stands above the numbers before the columns.
    pub(super) lead: &'static str,
}

/// What is known of a column before any of its cells is.
pub(super) struct Head {
    pub(super) name: String,
    pub(super) title: String,
    pub(super) is_prose: bool,
    pub(super) is_set: bool,
}

impl Head {
    pub(super) fn of(column: &Column) -> Self {
        let (name, title) = (column.name.clone(), column.title.clone());
        Self { name, title, is_prose: column.is_prose(), is_set: column.is_set() }
    }

    pub(super) fn pooled(column: &Pooled) -> Self {
        let Pooled { name, title, is_prose, is_set, .. } = column;
        Self { name: name.clone(), title: title.clone(), is_prose: *is_prose, is_set: *is_set }
    }
}

/// The rows of a table, one for each attempt.
pub(super) trait Rows {
    /// How many there are.
    fn count(&self) -> usize;

    /// What stands before the columns.
    fn lead(&self, row: usize) -> Lead;

    /// What stands in a column.
    fn cell(&self, row: usize, column: usize) -> Cell;

    /// The best and the worst number of all rows in a column.
    fn extremes(&self, column: usize) -> Option<(f64, f64)>;
}

/// What stands before the columns of a row.
pub(super) struct Lead {
    pub(super) number: String,
    pub(super) verdict: Option<Verdict>,
    pub(super) is_picked: bool,
    pub(super) target: Target,
}

/// A column with what stands in the rows that are shown.
struct Drawn<'a> {
    head: &'a Head,
    place: usize,
    cells: Vec<Cell>,
    title: [String; 2],
    width: usize,
    is_number: bool,
    /// The best and the worst number of all that were found.
    extremes: Option<(f64, f64)>,
    is_looked_at: bool,
}

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect, table: &Table) {
    let theme = &desk.theme;
    let height = usize::from(area.height.saturating_sub(HEAD));
    let count = table.rows.count();
    let at = table.selected.unwrap_or(count.saturating_sub(1));
    // The selected one is kept in the middle, as far as there is something on both sides.
    let first = at.saturating_sub(height / 2).min(count.saturating_sub(height));
    let shown = first..(first + height).min(count);
    let leads: Vec<Lead> = shown.clone().map(|row| table.rows.lead(row)).collect();
    let widest = leads.iter().map(|lead| lead.number.chars().count()).max().unwrap_or_default();
    let before = widest + AROUND_NUMBER;
    let fitting = fitting(table, shown.clone(), before, usize::from(area.width));
    let body = Rect { y: area.y + HEAD.min(area.height), height: height as u16, ..area };
    desk.places.put_lines(body, leads.iter().map(|lead| lead.target));
    let mut lines: Vec<Line> = (0..2).map(|line| head(desk, table, &fitting, before, line)).collect();
    lines.extend(leads.iter().zip(shown).enumerate().map(|(place, (lead, row))| {
        let cells = fitting.columns.iter().map(|column| (column, &column.cells[place]));
        line_of(desk, lead, cells, Some(row) == table.selected)
    }));
    let lines = lines.into_iter().map(|line| fit(line, area.width, theme.muted));
    frame.render_widget(Text::from_iter(lines), area);
}

/// The columns that there is room for, and whether there are more on either side.
struct Fitting<'a> {
    columns: Vec<Drawn<'a>>,
    left: bool,
    right: bool,
}

/// The columns from the first one on that lets the one that is looked at be seen.
fn fitting<'a>(table: &'a Table, shown: Range<usize>, before: usize, width: usize) -> Fitting<'a> {
    let all = table.heads.iter().enumerate().map(|(place, head)| {
        let cells: Vec<Cell> = shown.clone().map(|row| table.rows.cell(row, place)).collect();
        let is_number = cells.iter().any(|cell| cell.number().is_some());
        let title = two_lines(&head.title);
        let widest = cells.iter().map(|cell| cell.text().chars().count()).max().unwrap_or_default();
        let titled = title.iter().map(|line| line.chars().count()).max().unwrap_or_default();
        let widest = if head.is_prose { LEAST_PROSE } else { widest.min(WIDEST) };
        let is_looked_at = place == table.at;
        Drawn { head, place, cells, title, width: widest.max(titled), is_number, extremes: None, is_looked_at }
    });
    let mut all: Vec<Drawn> = all.collect();
    let room = width.saturating_sub(before + MORE);
    let is_in = |from: usize| {
        let until = all[from..=table.at.max(from)].iter();
        until.map(|column| column.width + GAP).sum::<usize>() <= room + GAP
    };
    let from = (0..table.at).find(|from| is_in(*from)).unwrap_or(table.at);
    all.drain(..from.min(all.len()));
    let mut ends = all.iter().scan(0, |end, column| {
        *end += column.width + GAP;
        Some(*end)
    });
    let fit = ends.position(|end| end > room + GAP);
    let is_cut = fit.is_some();
    all.truncate(fit.unwrap_or(all.len()).max(1));
    // All that were found are looked through, so that only what is seen is worth it.
    all.iter_mut().for_each(|column| column.extremes = table.rows.extremes(column.place));
    Fitting { columns: all, left: from > 0, right: is_cut }
}

/// A title in two lines that are about as long as each other, so that a column is no wider than it has to be.
fn two_lines(title: &str) -> [String; 2] {
    let words: Vec<&str> = title.split(' ').collect();
    let halves = (0..words.len()).map(|at| [words[..at].join(" "), words[at..].join(" ")]);
    let widest = |lines: &[String; 2]| lines.iter().map(|line| line.chars().count()).max();
    halves.min_by_key(widest).unwrap_or_default()
}

fn head(desk: &Desk, table: &Table, fitting: &Fitting, before: usize, line: usize) -> Line<'static> {
    let theme = &desk.theme;
    let more = |is_more: bool| if is_more && line == 1 { "…" } else { "" };
    // Behind the selection's sign.
    let lead = format!("  {}", if line == 1 { table.lead } else { "" });
    let left = more(fitting.left);
    let width = (before - GAP).saturating_sub(lead.chars().count());
    let mut spans = vec![Span::styled(format!("{lead}{left:>width$}"), theme.muted), " ".repeat(GAP).into()];
    for column in &fitting.columns {
        let is_sorted = table.sorted.as_ref() == Some(&column.head.name);
        let style = match (column.is_looked_at, is_sorted) {
            (true, _) => theme.accent.bold(),
            (false, true) => theme.text.bold(),
            (false, false) => theme.muted,
        };
        spans.push(Span::styled(column.aligned(&column.title[line]), style));
        spans.push(" ".repeat(GAP).into());
    }
    spans.pop();
    spans.push(Span::styled(more(fitting.right), theme.muted));
    Line::from(spans)
}

fn line_of<'a>(
    desk: &Desk,
    lead: &Lead,
    cells: impl Iterator<Item = (&'a Drawn<'a>, &'a Cell)>,
    is_selected: bool,
) -> Line<'static> {
    let theme = &desk.theme;
    let text = if is_selected { theme.accent.bold() } else { theme.text };
    let sign = lead.verdict.map_or('○', |verdict| verdict.sign());
    let picked = if lead.is_picked { labels::PICKED_SIGN } else { " " };
    let mut spans = vec![
        Span::styled(if is_selected { "› " } else { "  " }, theme.accent),
        Span::styled(lead.number.clone(), theme.muted),
        Span::styled(format!("{picked} "), theme.accent.bold()),
        Span::styled(format!("{sign}  "), theme.verdict(lead.verdict)),
    ];
    for (column, cell) in cells {
        spans.push(Span::styled(column.aligned(cell.text()), column.style(desk, cell, text)));
        spans.push(" ".repeat(GAP).into());
    }
    // Behind the last one there is nothing to keep apart.
    spans.pop();
    Line::from(spans)
}

impl Drawn<'_> {
    fn aligned(&self, text: &str) -> String {
        let width = self.width;
        if self.head.is_prose {
            return text.to_owned();
        }
        let cut = if text.chars().count() > width {
            text.chars().take(width.saturating_sub(1)).chain(['…']).collect()
        } else {
            text.to_owned()
        };
        if self.is_number { format!("{cut:>width$}") } else { format!("{cut:<width$}") }
    }

    /// The best and the worst stand out; what was set is what one looks for first.
    fn style(&self, desk: &Desk, cell: &Cell, text: Style) -> Style {
        let theme = &desk.theme;
        match (cell.number(), self.extremes) {
            (Some(number), Some((best, _))) if number == best => theme.good.bold(),
            (Some(number), Some((_, worst))) if number == worst => theme.bad,
            _ if self.head.is_set => text,
            _ => theme.muted,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::two_lines;

    #[test]
    fn titles_are_as_narrow_as_two_lines_let_them_be() {
        assert_eq!(two_lines("core clock, MHz"), ["core", "clock, MHz"]);
        assert_eq!(two_lines("because"), ["", "because"]);
        assert_eq!(two_lines(""), ["", ""]);
    }
}
