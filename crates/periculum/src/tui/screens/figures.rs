//! The highest value that held, large enough to be read from across the room.

use periculum_core::model::ladder::Direction;
use periculum_core::model::quantity::{grouped, measured};
use periculum_core::model::setting::Setting;
use periculum_core::story::TrialStory;
use periculum_core::telling::{claim_words, gain_words};
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span};

use super::fit::fit;
use crate::tui::desk::Desk;
use crate::tui::telling::{self, labels};

/// Three rows for each sign that a number can have, drawn with lines like the profile beside it.
const SIGNS: [(char, [&str; 3]); 13] = [
    ('0', ["┏━┓", "┃ ┃", "┗━┛"]),
    ('1', [" ╻ ", " ┃ ", " ╹ "]),
    ('2', ["╺━┓", "┏━┛", "┗━╸"]),
    ('3', ["╺━┓", "╺━┫", "╺━┛"]),
    ('4', ["╻ ╻", "┗━┫", "  ╹"]),
    ('5', ["┏━╸", "┗━┓", "╺━┛"]),
    ('6', ["┏━╸", "┣━┓", "┗━┛"]),
    ('7', ["╺━┓", "  ┃", "  ╹"]),
    ('8', ["┏━┓", "┣━┫", "┗━┛"]),
    ('9', ["┏━┓", "┗━┫", "╺━┛"]),
    ('.', [" ", " ", "▪"]),
    (' ', [" ", " ", " "]),
    ('-', ["   ", "╺━╸", "   "]),
];

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    let theme = &desk.theme;
    let Some(setting) = desk.shown.plan.climbed_setting().and_then(|name| desk.shown.rig.setting(name)) else {
        return draw_rate(frame, desk, area);
    };
    let mark = desk.shown.story.marks.last();
    // Once there is a mark, it is what counts: a rung that held once may have fallen since.
    let (title, rung, evidence) = match (mark, hardest_held(desk, setting)) {
        (Some(mark), _) => (labels::MARK, &mark.rung, telling::held_in(&mark.proof, mark.trial)),
        (None, Some(trial)) => {
            let evidence = telling::held_in(&trial.proof, trial.number);
            (title_without_mark(desk, setting, trial), &trial.rung, evidence)
        }
        (None, None) => {
            let words =
                if desk.shown.story.ended.is_some() { telling::NOTHING_HELD } else { telling::NOTHING_HAS_HELD };
            let lines = [Line::styled(so_far(setting), theme.muted), Line::default(), Line::styled(words, theme.text)];
            frame.render_widget(ratatui::text::Text::from_iter(lines), area);
            return;
        }
    };
    let number = rung.get(&setting.name).map(|value| grouped(setting.ladder.rescaled(value))).unwrap_or_default();
    let mut lines = vec![Line::styled(title, theme.muted)];
    lines.extend(large(&number, theme.text.bold()));
    if let Some(last) = lines.last_mut() {
        last.push_span(Span::styled(format!(" {}", setting.unit), theme.muted));
    }
    let others = telling::beside(&desk.shown.rig.written_but(rung, &setting.name));
    let whole = format!("{others}{evidence}");
    if whole.chars().count() <= usize::from(area.width) {
        lines.push(Line::styled(whole, theme.text));
    } else {
        lines.extend([others, evidence].map(|line| fit(Line::styled(line, theme.text), area.width, theme.muted)));
    }
    let claim = mark.and_then(|mark| desk.shown.claim(mark)).map(claim_words);
    lines.extend(claim.map(|claim| fit(Line::styled(claim, theme.text), area.width, theme.muted)));
    lines.extend(gain(desk).into_iter().flatten().map(|line| Line::styled(line, theme.muted)));
    frame.render_widget(ratatui::text::Text::from(lines), area);
}

/// The trial that held with the hardest value of the setting.
fn hardest_held<'a>(desk: &'a Desk, setting: &Setting) -> Option<&'a TrialStory> {
    let held = desk.shown.story.trials.iter().filter(|trial| trial.held_the_proof());
    let value = |trial: &TrialStory| trial.rung.get(&setting.name);
    match setting.harder {
        Direction::Up => held.max_by_key(|trial| value(trial)),
        Direction::Down => held.min_by_key(|trial| value(trial)),
    }
}

/// What the value of the hardest trial that held is, where the climb has no mark.
fn title_without_mark(desk: &Desk, setting: &Setting, held: &TrialStory) -> &'static str {
    match (&desk.shown.story.ended, setting.harder) {
        (None, _) => so_far(setting),
        (Some(_), _) if held.rung == desk.shown.rig.stock() => labels::STOCK,
        (Some(_), Direction::Up) => labels::HIGHEST_HELD,
        (Some(_), Direction::Down) => labels::LOWEST_HELD,
    }
}

fn so_far(setting: &Setting) -> &'static str {
    match setting.harder {
        Direction::Up => labels::HIGHEST_SO_FAR,
        Direction::Down => labels::LOWEST_SO_FAR,
    }
}

/// Where nothing is climbed, the rate of the running pass takes the place of a mark.
fn draw_rate(frame: &mut Frame, desk: &Desk, area: Rect) {
    let theme = &desk.theme;
    let Some((progress, rate)) = desk.shown.story.progress.as_ref().and_then(|told| Some((told, told.rate.as_ref()?)))
    else {
        return;
    };
    let title = desk
        .shown
        .story
        .running_pass()
        .map(|(_, pass)| format!("{}, {}", pass.order.load, telling::cores(pass.order.threads)));
    let mut lines = vec![Line::styled(title.unwrap_or_default(), theme.muted)];
    lines.extend(large(&measured(rate.value, 1), theme.text.bold()));
    if let Some(last) = lines.last_mut() {
        last.push_span(Span::styled(format!(" {}", rate.unit), theme.muted));
    }
    let checked = telling::checked(progress.rounds, progress.errors);
    lines.push(Line::styled(checked, if progress.errors == 0 { theme.text } else { theme.bad }));
    frame.render_widget(ratatui::text::Text::from(lines), area);
}

/// The number in three lines.
fn large(number: &str, style: Style) -> Vec<Line<'static>> {
    let row = |index: usize| {
        let signs = number.chars().filter_map(|sign| SIGNS.iter().find(|(known, _)| *known == sign));
        signs.map(|(_, rows)| rows[index]).collect::<Vec<_>>().join(" ")
    };
    (0..3).map(|index| Line::styled(row(index), style)).collect()
}

/// The last score, and how it compares with the baseline's.
fn gain(desk: &Desk) -> Option<[String; 2]> {
    let (score, gain) = desk.shown.story.gain()?;
    Some([telling::last_score(&measured(score.value, 1), &score.unit), gain_words(&gain, score)])
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_sign_has_three_rows_of_one_width() {
        for (sign, rows) in SIGNS {
            let widths = rows.map(|row| row.chars().count());
            assert!(widths[0] == widths[1] && widths[1] == widths[2], "{sign}");
        }
        let lines = large("-12.5 0", Style::new());
        assert!(lines.iter().all(|line| line.width() == lines[0].width()));
    }
}
