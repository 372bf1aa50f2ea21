//! Draws the climb: where we are, whether it is all right, what comes next, what went wrong last.

mod climbs;
mod compare;
mod cores;
mod detail;
mod figures;
mod header;
mod logbook;
mod map;
mod overlay;
mod plan;
mod profile;
mod ranks;
mod rig;
mod score_curve;
mod scores;
mod sensors;
mod specimens;
mod stages;
mod traces;
mod trial;
mod trials;

#[cfg(test)]
mod plan_tests;
#[cfg(test)]
mod tests;

use ratatui::Frame;
use ratatui::buffer::Buffer;
use ratatui::layout::{Constraint, Layout, Margin, Rect};
use ratatui::style::Style;
use ratatui::text::{Line, Span};

use super::action::View;
use super::app::App;

/// From here up there is room for a column of figures beside the profile.
const WIDE: (u16, u16) = (120, 30);

/// No list that is scrolled as a whole is longer.
const MOST_LINES: u16 = 5000;

/// How wide that column is.
const FIGURES: u16 = 48;

/// Draws the whole screen.
pub(super) fn draw(frame: &mut Frame, app: &App) {
    let area = frame.area();
    app.places.clear();
    app.scroll_room.set(0);
    frame.buffer_mut().set_style(area, app.theme.text);
    let [head, body, foot] =
        Layout::vertical([Constraint::Length(1), Constraint::Min(0), Constraint::Length(1)]).areas(area);
    header::draw(frame, app, head.inner(Margin::new(1, 0)));
    let body = body.inner(Margin::new(1, 1));
    match app.view {
        View::Climb => draw_climb(frame, app, area, body),
        View::Map => map::draw(frame, app, body),
        View::Trials => trials::draw(frame, app, body),
        View::Rig => rig::draw(frame, app, body),
        View::Traces => traces::draw(frame, app, body),
        View::Climbs => climbs::draw(frame, app, body),
        View::Scores => scores::draw(frame, app, body),
        View::Compare => compare::draw(frame, app, body),
        View::Plan => plan::draw(frame, app, body),
    }
    // What was drawn says whether it can be scrolled.
    header::draw_keys(frame, app, foot.inner(Margin::new(1, 0)));
    overlay::draw(frame, app, area);
}

fn draw_climb(frame: &mut Frame, app: &App, area: Rect, body: Rect) {
    if area.width >= WIDE.0 && area.height >= WIDE.1 {
        draw_wide(frame, app, body);
    } else {
        draw_narrow(frame, app, body);
    }
}

fn draw_wide(frame: &mut Frame, app: &App, area: Rect) {
    let [upper, lower] =
        Layout::vertical([Constraint::Min(0), Constraint::Length(lower_height(area.height))]).spacing(1).areas(area);
    let columns = Layout::horizontal([Constraint::Min(0), Constraint::Length(FIGURES)]).spacing(3);
    let [profile, figures] = columns.areas(upper);
    draw_main(frame, app, profile);
    let sensors_height = u16::try_from(app.shown.rig.sensors.len()).unwrap_or(u16::MAX);
    let rows = [Constraint::Length(8), Constraint::Length(sensors_height), Constraint::Min(0)];
    let [best, readings, stages] = Layout::vertical(rows).spacing(1).areas(figures);
    figures::draw(frame, app, best);
    sensors::draw_list(frame, app, readings);
    stages::draw(frame, app, stages);
    let [trial, log] =
        Layout::vertical([Constraint::Length(trial::HEIGHT), Constraint::Min(0)]).spacing(1).areas(lower);
    trial::draw(frame, app, trial);
    logbook::draw(frame, app, log);
}

/// The climb, or the cores that work on its pass.
fn draw_main(frame: &mut Frame, app: &App, area: Rect) {
    if app.shows_cores { cores::draw(frame, app, area) } else { profile::draw(frame, app, area) }
}

/// The trial and as much of the logbook as leaves most of the screen to the profile.
fn lower_height(height: u16) -> u16 {
    trial::HEIGHT + 2 + (height / 7).clamp(4, 12)
}

fn draw_narrow(frame: &mut Frame, app: &App, area: Rect) {
    let readings = sensors::compact_height(app, area.width);
    let [profile, sensors, trial, log] = Layout::vertical([
        Constraint::Min(6),
        Constraint::Length(readings),
        Constraint::Length(trial::HEIGHT),
        Constraint::Length(area.height.saturating_sub(26).min(12)),
    ])
    .areas(area);
    draw_main(frame, app, profile);
    sensors::draw_compact(frame, app, sensors);
    trial::draw(frame, app, trial);
    logbook::draw(frame, app, log);
}

/// Draws what has so many lines: all, or as much as there is room for from where it was scrolled to, and where that is.
fn draw_scrolled(frame: &mut Frame, app: &App, area: Rect, lines: usize, draw: impl FnOnce(&mut Buffer, Rect)) {
    let lines = u16::try_from(lines).unwrap_or(u16::MAX).min(MOST_LINES);
    let Some(room) = area.height.checked_sub(2).filter(|_| lines > area.height) else {
        return draw(frame.buffer_mut(), area);
    };
    app.scroll_room.set(usize::from(lines - room));
    let whole = Rect { height: lines, ..area };
    let mut sheet = Buffer::empty(whole);
    sheet.set_style(whole, app.theme.text);
    draw(&mut sheet, whole);
    let first = u16::try_from(app.scrolled_to()).unwrap_or(u16::MAX);
    let buffer = frame.buffer_mut();
    for (y, x) in (0..room).flat_map(|y| (area.left()..area.right()).map(move |x| (y, x))) {
        buffer[(x, area.y + y)] = sheet[(x, area.y + first + y)].clone();
    }
    let place = format!("lines {} to {} of {lines}", first + 1, first + room);
    frame.render_widget(Line::styled(place, app.theme.muted), Rect { y: area.bottom() - 1, height: 1, ..area });
}

/// The line, or as much of it as there is room for and a sign that there is more.
fn fit(line: Line<'static>, width: u16, more: Style) -> Line<'static> {
    let width = usize::from(width);
    if line.width() <= width {
        return line;
    }
    let mut room = width.saturating_sub(1);
    let mut fitted = Line::default();
    for span in line.spans {
        if span.width() <= room {
            room -= span.width();
            fitted.push_span(span);
            continue;
        }
        let kept: String = span.content.chars().take(room).collect();
        fitted.push_span(Span::styled(kept, span.style));
        break;
    }
    fitted.push_span(Span::styled("…", more));
    fitted
}
