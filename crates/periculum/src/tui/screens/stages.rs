//! The stages of the plan: what is behind us, what is under way, what is to come.

use periculum_core::telling::stage_words;
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::text::{Line, Span, Text};

use crate::tui::desk::Desk;
use crate::tui::telling::{self, labels};

/// How far what a stage came to is indented below its name.
const INDENT: usize = 2;

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    let (width, theme) = (usize::from(area.width), &desk.theme);
    let all = lines(desk, width, |_| true);
    // Where there is no room for all of it, only what the last stage came to is told.
    let last = desk.shown.story.stages.iter().rposition(|stage| stage.end.is_some());
    let fits = all.lines.len() <= usize::from(area.height);
    let told = if fits { all } else { lines(desk, width, |index| Some(index) == last) };
    let shown = around_now(told, usize::from(area.height), Line::styled("  …", theme.muted));
    frame.render_widget(Text::from(shown), area);
}

/// The plan as lines below its head, and which of them the stage under way begins with.
#[derive(Clone)]
struct Told {
    lines: Vec<Line<'static>>,
    now: Option<usize>,
}

/// The head, and as many of the lines below it as there is room for: what is under way matters more than how it began.
fn around_now(told: Told, height: usize, more: Line<'static>) -> Vec<Line<'static>> {
    let Told { lines: mut all, now } = told;
    let too_many = all.len().saturating_sub(height);
    if too_many == 0 || height < 2 {
        return all;
    }
    // The line before it says that there is more.
    let first = now.unwrap_or(all.len() - 1).saturating_sub(1).clamp(1, too_many + 1);
    all.drain(1..first);
    all.truncate(height);
    let is_now = |line: usize| now.is_some_and(|now| now + 1 == line + first);
    if first > 1 && !is_now(1) {
        all[1] = more.clone();
    }
    if first <= too_many && height > 2 && !is_now(height - 1) {
        all[height - 1] = more;
    }
    all
}

/// A line for each stage, and what those stages came to whose end is told.
fn lines(desk: &Desk, width: usize, tells_end: impl Fn(usize) -> bool) -> Told {
    let theme = &desk.theme;
    let mut now = None;
    let mut lines = vec![Line::styled(labels::PLAN, theme.muted)];
    for (index, stage) in desk.shown.plan.stages.iter().enumerate() {
        let begun = desk.shown.story.stages.get(index);
        let end = begun.and_then(|stage| stage.end.as_ref());
        let (sign, style) = match (begun, end) {
            (_, Some(_)) => ("✓", theme.good),
            (Some(_), None) => ("›", theme.accent),
            (None, _) => (" ", theme.muted),
        };
        now = if begun.is_some() && end.is_none() { Some(lines.len()) } else { now };
        let words = wrapped(&stage_words(stage, &desk.shown.plan, &desk.shown.rig), width.saturating_sub(INDENT));
        let text = if begun.is_none() { theme.muted } else { theme.text };
        for (row, words) in words.into_iter().enumerate() {
            let sign = if row == 0 { sign } else { " " };
            lines.push(Line::from(vec![Span::styled(format!("{sign} "), style), Span::styled(words, text)]));
        }
        let end = end.filter(|_| tells_end(index)).map(|end| wrapped(&end.sentence(&desk.shown.rig), width - INDENT));
        lines.extend(end.into_iter().flatten().map(|row| Line::styled(format!("  {row}"), theme.muted)));
    }
    if let Some(left) = telling::what_is_left(&desk.shown.rest).filter(|_| desk.is_climbing()) {
        lines.push(Line::default());
        lines.extend(wrapped(&left, width).into_iter().map(|row| Line::styled(row, theme.text)));
    }
    Told { lines, now }
}

/// The words in lines of this width; a word that is longer has a line to itself. Between a number, how far it is sure, and its per cent
/// no line ends.
pub(in crate::tui) fn wrapped(text: &str, width: usize) -> Vec<String> {
    let mut lines = vec![String::new()];
    for word in kept_together(text) {
        let line = lines.len() - 1;
        let is_full = lines[line].chars().count() + 1 + word.chars().count() > width;
        match lines[line].is_empty() {
            true => lines[line].push_str(&word),
            false if is_full => lines.push(word),
            false => lines[line] += &format!(" {word}"),
        }
    }
    lines
}

fn kept_together(text: &str) -> Vec<String> {
    let mut words: Vec<String> = Vec::new();
    for word in text.split(' ') {
        match words.last_mut() {
            Some(last) if word.starts_with(['%', '±']) || last.ends_with('±') => *last += &format!(" {word}"),
            _ => words.push(word.to_owned()),
        }
    }
    words
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn what_is_under_way_is_always_seen() {
        let line = |text: &str| Line::from(vec![Span::raw(text.to_owned())]);
        let all: Vec<Line> = ["plan", "✓ one", "✓ two", "› three", "  four", "  five"].map(line).to_vec();
        let shown = |height| {
            let told = Told { lines: all.clone(), now: Some(3) };
            let lines = around_now(told, height, line("…")).into_iter();
            lines.map(|line| line.to_string()).collect::<Vec<_>>()
        };
        assert_eq!(shown(6), ["plan", "✓ one", "✓ two", "› three", "  four", "  five"]);
        assert_eq!(shown(5), ["plan", "…", "› three", "  four", "  five"]);
        assert_eq!(shown(4), ["plan", "…", "› three", "…"]);
        assert_eq!(shown(2), ["plan", "…"]);
        for height in 3..9 {
            assert!(shown(height).iter().any(|line| line.starts_with("›")), "{height}");
        }
    }

    #[test]
    fn words_are_put_into_lines() {
        assert_eq!(wrapped("one two three", 7), ["one two", "three"]);
        assert_eq!(wrapped("incomprehensible", 4), ["incomprehensible"]);
        assert_eq!(wrapped("", 4), [""]);
        assert_eq!(wrapped("scene +10.7 ± 2.3 %, faster", 16), ["scene", "+10.7 ± 2.3 %,", "faster"]);
        assert_eq!(wrapped("with 8 to 93 %", 12), ["with 8 to", "93 %"]);
    }

    proptest! {
        #[test]
        fn no_word_is_lost_or_split(words in prop::collection::vec("[a-z]{1,9}", 1..12), width in 1usize..30) {
            let text = words.join(" ");
            let lines = wrapped(&text, width);
            prop_assert_eq!(lines.join(" "), text);
            prop_assert!(lines.iter().all(|line| line.len() <= width || !line.contains(' ')));
        }
    }
}
