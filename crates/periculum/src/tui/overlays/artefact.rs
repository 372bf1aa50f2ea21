//! A wrong picture that a pass has kept, as far as cells can show it: the place that differs, as close as it fits.

use std::fs::File;
use std::io::BufReader;
use std::path::{Path, PathBuf};

use ratatui::Frame;
use ratatui::layout::{Constraint, Layout, Margin, Rect};
use ratatui::style::{Color, Style};
use ratatui::text::{Line, Span, Text};
use ratatui::widgets::{Clear, Paragraph, Wrap};

use super::frame::block;
use crate::tui::desk::Desk;
use crate::tui::telling::{self, labels};
use crate::tui::theme::Shade;

/// The colour of the frame that a load draws round what differs.
const FRAME: [u8; 3] = [255, 80, 60];

/// No picture that a load keeps is larger than this, both ways.
const LARGEST: u32 = 8192;

/// A kept picture, and what was wrong with it.
#[derive(Debug)]
pub(in crate::tui) struct Artefact {
    path: PathBuf,
    /// What the incident says of it.
    told: String,
    picture: Option<Picture>,
}

/// A picture's colours, row by row.
#[derive(Debug)]
struct Picture {
    width: usize,
    height: usize,
    colours: Vec<[u8; 3]>,
}

/// A part of a picture, its ends within it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
struct Part {
    left: usize,
    top: usize,
    right: usize,
    bottom: usize,
}

impl Artefact {
    /// The picture of this file, with what was told of it.
    pub(in crate::tui) fn of(path: &Path, told: String) -> Self {
        Self { path: path.to_owned(), told, picture: Picture::read(path) }
    }

    pub(super) fn draw(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        let place = area.inner(Margin { horizontal: 0, vertical: 1 });
        frame.render_widget(Clear, place);
        let around = block(desk, labels::WRONG_PICTURE);
        let inner = around.inner(place);
        frame.render_widget(around, place);
        let [picture, words] = Layout::vertical([Constraint::Min(0), Constraint::Length(4)]).spacing(1).areas(inner);
        let words_of = vec![
            Line::styled(self.told.clone(), desk.theme.text),
            Line::styled(telling::kept_as(&self.path), desk.theme.muted),
        ];
        frame.render_widget(Paragraph::new(words_of).wrap(Wrap { trim: false }), words);
        let has_colours = matches!(desk.theme.shade, Shade::Ground(_));
        let text = match &self.picture {
            Some(seen) if has_colours => {
                Text::from(seen.lines(usize::from(picture.width), usize::from(picture.height)))
            }
            Some(_) => Text::styled(labels::TOO_FEW_COLOURS, desk.theme.muted),
            None => Text::styled(labels::PICTURE_IS_GONE, desk.theme.muted),
        };
        frame.render_widget(text, picture);
    }
}

impl Picture {
    /// The picture of a file; none where it is none, or gone.
    fn read(path: &Path) -> Option<Self> {
        let mut reader = png::Decoder::new(BufReader::new(File::open(path).ok()?)).read_info().ok()?;
        let (width, height) = reader.info().size();
        let is_plain = reader.output_color_type() == (png::ColorType::Rgb, png::BitDepth::Eight);
        if !is_plain || width == 0 || height == 0 || width > LARGEST || height > LARGEST {
            return None;
        }
        let mut bytes = vec![0; reader.output_buffer_size()?];
        reader.next_frame(&mut bytes).ok()?;
        let (colours, _) = bytes.as_chunks::<3>();
        Some(Self { width: width as usize, height: height as usize, colours: colours.to_vec() })
    }

    /// What lies within the frame; all of it where there is none.
    fn framed(&self) -> Part {
        let of_frame = || (0..self.colours.len()).filter(|at| self.colours[*at] == FRAME);
        let across = || of_frame().map(|at| at % self.width);
        let down = || of_frame().map(|at| at / self.width);
        let ends = [across().min(), down().min(), across().max(), down().max()];
        let [Some(left), Some(top), Some(right), Some(bottom)] = ends else {
            return Part { left: 0, top: 0, right: self.width - 1, bottom: self.height - 1 };
        };
        Part { left, top, right, bottom }
    }

    /// The framed part and what is round it, so that it fills so many pixels without being bent.
    fn close(&self, columns: usize, rows: usize) -> Part {
        let part = self.framed();
        let (width, height) = (part.right - part.left + 1, part.bottom - part.top + 1);
        let scale = (width as f64 / columns as f64).max(height as f64 / rows as f64);
        let wanted = |pixels: usize, most: usize| ((pixels as f64 * scale).ceil() as usize).clamp(1, most);
        let around = |from: usize, to: usize, wanted: usize, most: usize| {
            let from = ((from + to + 1).saturating_sub(wanted) / 2).min(most - wanted);
            (from, from + wanted - 1)
        };
        let (left, right) = around(part.left, part.right, wanted(columns, self.width), self.width);
        let (top, bottom) = around(part.top, part.bottom, wanted(rows, self.height), self.height);
        Part { left, top, right, bottom }
    }

    /// So many lines of so many cells, each cell two pixels above each other.
    fn lines(&self, columns: usize, rows: usize) -> Vec<Line<'static>> {
        if columns == 0 || rows == 0 {
            return Vec::new();
        }
        let part = self.close(columns, 2 * rows);
        let (width, height) = (part.right - part.left + 1, part.bottom - part.top + 1);
        let scale = (columns as f64 / width as f64).min(2.0 * rows as f64 / height as f64);
        let shown = |pixels: usize, most: usize| ((pixels as f64 * scale).round() as usize).clamp(1, most);
        let (columns, pixels) = (shown(width, columns), shown(height, 2 * rows));
        let ends =
            |nth: usize, of: usize, into: usize| (nth * of / into, ((nth + 1) * of / into).max(nth * of / into + 1));
        let colour = |x: usize, y: usize| {
            let ((left, right), (top, bottom)) = (ends(x, width, columns), ends(y, height, pixels));
            let row = |y: usize| (part.top + y) * self.width + part.left;
            let mut seen = (top..bottom).flat_map(|y| &self.colours[row(y) + left..row(y) + right]);
            // The frame is as thin as can be, and would fall between two cells.
            let first = self.colours[row(top) + left];
            let [red, green, blue] = if seen.any(|colour| *colour == FRAME) { FRAME } else { first };
            Color::Rgb(red, green, blue)
        };
        let cell = |x: usize, y: usize| {
            let below = if 2 * y + 1 < pixels { Style::new().bg(colour(x, 2 * y + 1)) } else { Style::new() };
            Span::styled("▀", below.fg(colour(x, 2 * y)))
        };
        (0..pixels.div_ceil(2)).map(|y| Line::from_iter((0..columns).map(|x| cell(x, y)))).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A grey picture with a frame from 10, 10 to 19, 14.
    fn framed() -> Picture {
        let mut colours = vec![[90; 3]; 64 * 48];
        for x in 10..=19 {
            colours[10 * 64 + x] = FRAME;
            colours[14 * 64 + x] = FRAME;
        }
        Picture { width: 64, height: 48, colours }
    }

    #[test]
    fn what_differs_is_shown_as_close_as_it_fits() {
        let picture = framed();
        assert_eq!(picture.framed(), Part { left: 10, top: 10, right: 19, bottom: 14 });
        let close = picture.close(40, 40);
        assert_eq!((close.right - close.left, close.bottom - close.top), (9, 9));
        assert!(close.top <= 10 && close.bottom >= 14);
        let lines = picture.lines(40, 20);
        assert_eq!((lines.len(), lines[0].spans.len()), (20, 40));
        assert_eq!(picture.lines(0, 9), []);
    }

    #[test]
    fn a_picture_without_a_frame_is_shown_whole() {
        let picture = Picture { colours: vec![[1; 3]; 64 * 48], ..framed() };
        let lines = picture.lines(32, 100);
        assert_eq!((lines.len(), lines[0].spans.len()), (12, 32), "and not bent");
    }

    #[test]
    fn what_is_no_picture_is_none() {
        let folder = tempfile::tempdir().expect("a folder");
        let path = folder.path().join("a.png");
        assert!(Picture::read(&path).is_none());
        std::fs::write(&path, b"\x89PNG\r\n\x1a\nno more").expect("written");
        assert!(Picture::read(&path).is_none());
    }
}
