//! The highest value that held, large enough to be read from across the room.

use periculum_core::quantity::{grouped, measured};
use periculum_core::telling::gain_words;
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span};

use crate::tui::app::App;

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

pub(super) fn draw(frame: &mut Frame, app: &App, area: Rect) {
    let theme = &app.theme;
    let Some(setting) = app.shown.plan.climbed_setting().and_then(|name| app.shown.rig.setting(name)) else {
        return draw_rate(frame, app, area);
    };
    let held = app.shown.story.trials.iter().filter(|trial| trial.held_the_proof());
    let mark = app.shown.story.marks.last();
    // Once there is a mark, it is what counts: a rung that held once may have fallen since.
    let (title, rung, evidence) = match (mark, held.max_by_key(|trial| trial.rung.get(&setting.name))) {
        (Some(mark), _) => ("mark", &mark.rung, format!("held {} in trial {}", mark.proof, mark.trial)),
        (None, Some(trial)) => {
            ("highest so far", &trial.rung, format!("held {} in trial {}", trial.proof, trial.number))
        }
        (None, None) => {
            let lines = vec![
                Line::styled("highest so far", theme.muted),
                Line::default(),
                Line::styled("nothing has held so far", theme.text),
            ];
            frame.render_widget(ratatui::text::Text::from(lines), area);
            return;
        }
    };
    let number = rung.get(&setting.name).map(|value| grouped(setting.ladder.rescaled(value))).unwrap_or_default();
    let mut lines = vec![Line::styled(title, theme.muted)];
    lines.extend(large(&number, theme.text.bold()));
    if let Some(last) = lines.last_mut() {
        last.push_span(Span::styled(format!(" {}", setting.unit), theme.muted));
    }
    let others = app.shown.rig.written_but(rung, &setting.name);
    let others = if others.is_empty() { others } else { format!("at {others}, ") };
    let whole = format!("{others}{evidence}");
    if whole.chars().count() <= usize::from(area.width) {
        lines.push(Line::styled(whole, theme.text));
    } else {
        lines.extend([others, evidence].map(|line| Line::styled(line, theme.text)));
    }
    lines.extend(gain(app).into_iter().flatten().map(|line| Line::styled(line, theme.muted)));
    frame.render_widget(ratatui::text::Text::from(lines), area);
}

/// Where nothing is climbed, the rate of the running pass takes the place of a mark.
fn draw_rate(frame: &mut Frame, app: &App, area: Rect) {
    let theme = &app.theme;
    let Some((progress, rate)) = app.shown.story.progress.as_ref().and_then(|told| Some((told, told.rate.as_ref()?)))
    else {
        return;
    };
    let load = app.shown.story.running_pass().map_or("", |(_, pass)| pass.order.load.as_str());
    let mut lines = vec![Line::styled(format!("{load}, all cores together"), theme.muted)];
    lines.extend(large(&measured(rate.value, 1), theme.text.bold()));
    if let Some(last) = lines.last_mut() {
        last.push_span(Span::styled(format!(" {}", rate.unit), theme.muted));
    }
    let checked = format!("{} rounds checked, {} wrong", grouped(progress.rounds.into()), progress.errors);
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
fn gain(app: &App) -> Option<[String; 2]> {
    let (score, gain) = app.shown.story.gain()?;
    Some([format!("last score {} {}", measured(score.value, 1), score.unit), gain_words(&gain)])
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
