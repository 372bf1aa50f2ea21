//! The end of a climb: what ended it, what it found and by how much, what that cost, and what one does next.

use periculum_core::engine::Mark;
use periculum_core::model::reason::StageEnd;
use periculum_core::story::{EndStory, TrialStory};
use periculum_core::telling::{
    before_changes, claim_sentence, gain_of_mark_words, harder_words, margin_words, mark_sentence, whereabouts,
    worth_words,
};
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::text::{Line, Span, Text};

use super::fit::fit;
use super::trial::{told_by, trouble};
use crate::tui::desk::Desk;
use crate::tui::telling::{self, labels};

/// No more marks than these are told, the last ones.
const MOST_MARKS: usize = 3;

/// How wide the words in front of each line are.
const LEAD: usize = 13;

/// Lines that it takes.
pub(super) fn height(desk: &Desk) -> u16 {
    u16::try_from(lines(desk, u16::MAX).len()).unwrap_or(u16::MAX)
}

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    let lines = lines(desk, area.width).into_iter().map(|line| fit(line, area.width, desk.theme.muted));
    frame.render_widget(Text::from_iter(lines), area);
}

fn lines(desk: &Desk, width: u16) -> Vec<Line<'static>> {
    let Some(ended) = &desk.shown.story.ended else { return Vec::new() };
    let mut lines = vec![over(desk, ended)];
    lines.extend(marks(desk, width));
    lines.extend(harder(desk));
    lines.extend(limit(desk));
    lines.extend(gain(desk));
    lines.extend([fact(desk, labels::COST, telling::cost(&desk.shown.story)), trouble(desk)]);
    lines
}

fn fact(desk: &Desk, label: &str, text: String) -> Line<'static> {
    let theme = &desk.theme;
    Line::from(vec![Span::styled(format!("{label:<LEAD$}"), theme.muted), Span::styled(text, theme.text)])
}

fn over(desk: &Desk, ended: &EndStory) -> Line<'static> {
    let left = whereabouts(&ended.not_at_stock, ended.left_at.as_ref(), &desk.shown.rig);
    fact(desk, labels::OVER, format!("{}; {left}", ended.end.sentence()))
}

/// The marks that stand, the last one first; why there is none, where there is none.
fn marks(desk: &Desk, width: u16) -> Vec<Line<'static>> {
    let (story, theme) = (&desk.shown.story, &desk.theme);
    if story.marks.is_empty() {
        let is_beyond = |trial: &TrialStory| trial.held_the_proof() && trial.rung != desk.shown.rig.stock();
        let is_any = story.trials.iter().any(is_beyond);
        let why = if is_any { telling::ENDED_BEFORE_MARK } else { telling::NOTHING_HARDER };
        let stock = desk.shown.stock().map(|claim| fact(desk, labels::STOCK, claim_sentence(&claim)));
        return std::iter::once(fact(desk, labels::NO_MARK, why.to_owned())).chain(stock).collect();
    }
    let line = |mark: &Mark| {
        let trial = story.trial(mark.trial);
        let tested = trial.map(|trial| format!("   {}", telling::held_for(trial.tested))).unwrap_or_default();
        let margin = margin_words(mark, &desk.shown.plan, &desk.shown.rig);
        let margin = margin.map(|margin| format!("   {margin}")).unwrap_or_default();
        Line::from(vec![
            Span::styled(format!("{:<LEAD$}", labels::MARK_FLAG), theme.accent),
            Span::styled(mark_sentence(mark, &told_by(desk, &mark.rung, width)), theme.text.bold()),
            worth(desk, mark),
            Span::styled(before_changes(mark, story), theme.warning),
            Span::styled(margin, theme.muted),
            Span::styled(tested, theme.muted),
        ])
    };
    story.marks.iter().rev().take(MOST_MARKS).map(line).collect()
}

/// What a mark is worth: good where it is sure to hold.
fn worth(desk: &Desk, mark: &Mark) -> Span<'static> {
    let Some(claim) = desk.shown.claim(mark) else { return Span::default() };
    let style = if claim.is_sure() { desk.theme.good } else { desk.theme.text };
    Span::styled(format!("   {}", worth_words(claim)), style)
}

/// How far somebody may go who is content to be less sure than the plan.
fn harder(desk: &Desk) -> Option<Line<'static>> {
    let harder = desk.shown.harder()?;
    Some(fact(desk, labels::HARDER, harder_words(harder, &desk.shown.rig)))
}

/// What stood against more, by the stage of the last mark that says so; a soak that held does not.
fn limit(desk: &Desk) -> Option<Line<'static>> {
    let story = &desk.shown.story;
    let mut ends = story.marks.iter().rev().filter_map(|mark| story.stages.get(mark.stage)?.end.as_ref());
    let end = ends.find(|end| **end != StageEnd::Soaked)?;
    Some(fact(desk, labels::LIMIT, end.sentence(&desk.shown.rig)))
}

/// What the last mark gains over stock.
fn gain(desk: &Desk) -> Option<Line<'static>> {
    Some(fact(desk, labels::GAIN, gain_of_mark_words(desk.shown.gain()?)))
}
