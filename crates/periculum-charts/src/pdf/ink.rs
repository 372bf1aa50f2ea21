//! Puts shapes and texts on a page.

use krilla::color::rgb;
use krilla::geom::{Path, PathBuilder, Point, Transform};
use krilla::num::NormalizedF32;
use krilla::paint::{Fill, Stroke};
use krilla::surface::Surface;
use krilla::text::{Font, TextDirection};

use super::page::Placed;
use crate::figure::{ChartError, Colour, Figure, Shape};
use crate::font::Face;

/// The fonts, ready to be used on any page of a document.
pub(super) struct Ink {
    plain: Font,
    bold: Font,
}

/// How far the handles of a quarter of a circle reach, in radii (Riškus, Approximation of a cubic Bézier curve by
/// circular arcs, 2006).
const HANDLE: f32 = 0.552_285;

impl Ink {
    pub(super) fn new() -> Result<Self, ChartError> {
        let font =
            |face: Face| Font::new(face.bytes().into(), 0).ok_or_else(|| ChartError::new("the font can't be read"));
        Ok(Self { plain: font(Face::Plain)?, bold: font(Face::Bold)? })
    }

    pub(super) fn placed(&self, surface: &mut Surface, placed: &Placed) {
        match placed {
            Placed::Text { at: (x, y), size, face, colour, text } => {
                self.text(surface, (*x, *y), *size, *face, colour, text);
            }
            Placed::Rule { from: (x, y), to, colour } => {
                let mut path = PathBuilder::new();
                path.move_to(*x as f32, *y as f32);
                path.line_to(*to as f32, *y as f32);
                stroke(surface, path, colour, 0.5);
            }
            Placed::Figure { at: (x, y), scale, figure } => {
                let scale = *scale as f32;
                surface.push_transform(&Transform::from_row(scale, 0.0, 0.0, scale, *x as f32, *y as f32));
                self.figure(surface, figure);
                surface.pop();
            }
        }
    }

    pub(super) fn figure(&self, surface: &mut Surface, figure: &Figure) {
        figure.shapes.iter().for_each(|shape| self.shape(surface, shape));
    }

    fn shape(&self, surface: &mut Surface, shape: &Shape) {
        match shape {
            Shape::Line { points, colour, width } => stroke(surface, through(points), colour, *width as f32),
            Shape::Polygon { points, colour } => {
                let mut path = through(points);
                path.close();
                fill(surface, path, colour);
            }
            Shape::Circle { at, radius, colour, line } => {
                let path = circle(*at, *radius as f32);
                match line {
                    None => fill(surface, path, colour),
                    Some(width) => stroke(surface, path, colour, *width as f32),
                }
            }
            Shape::Text { at: (x, y), size, text, colour, is_upright: true } => {
                surface.push_transform(&Transform::from_row(0.0, -1.0, 1.0, 0.0, *x as f32, *y as f32));
                self.text(surface, (0.0, 0.0), *size, Face::Plain, colour, text);
                surface.pop();
            }
            Shape::Text { at, size, text, colour, .. } => self.text(surface, *at, *size, Face::Plain, colour, text),
        }
    }

    fn text(&self, surface: &mut Surface, (x, y): (f64, f64), size: f64, face: Face, colour: &Colour, text: &str) {
        let font = if face == Face::Bold { &self.bold } else { &self.plain };
        surface.set_stroke(None);
        surface.set_fill(Some(painted(colour)));
        // What a font can't have a sign for is not worth a broken file.
        let text: String = text.chars().map(|sign| if sign.is_control() { ' ' } else { sign }).collect();
        let at = Point::from_xy(x as f32, y as f32);
        surface.draw_text(at, font.clone(), size as f32, &text, false, TextDirection::Auto);
    }
}

fn through(points: &[(i32, i32)]) -> PathBuilder {
    let mut path = PathBuilder::new();
    for (index, (x, y)) in points.iter().enumerate() {
        let (x, y) = (*x as f32, *y as f32);
        if index == 0 { path.move_to(x, y) } else { path.line_to(x, y) }
    }
    path
}

fn circle((x, y): (i32, i32), radius: f32) -> PathBuilder {
    let (x, y, handle) = (x as f32, y as f32, HANDLE * radius);
    let mut path = PathBuilder::new();
    path.move_to(x + radius, y);
    path.cubic_to(x + radius, y + handle, x + handle, y + radius, x, y + radius);
    path.cubic_to(x - handle, y + radius, x - radius, y + handle, x - radius, y);
    path.cubic_to(x - radius, y - handle, x - handle, y - radius, x, y - radius);
    path.cubic_to(x + handle, y - radius, x + radius, y - handle, x + radius, y);
    path.close();
    path
}

fn stroke(surface: &mut Surface, path: PathBuilder, colour: &Colour, width: f32) {
    let Fill { paint, opacity, .. } = painted(colour);
    surface.set_fill(None);
    surface.set_stroke(Some(Stroke { paint, opacity, width, ..Stroke::default() }));
    draw(surface, path);
}

fn fill(surface: &mut Surface, path: PathBuilder, colour: &Colour) {
    surface.set_stroke(None);
    surface.set_fill(Some(painted(colour)));
    draw(surface, path);
}

/// Draws a path, unless there is nothing of it, as of a line with a single point.
fn draw(surface: &mut Surface, path: PathBuilder) {
    let path: Option<Path> = path.finish();
    if let Some(path) = path {
        surface.draw_path(&path);
    }
}

fn painted(colour: &Colour) -> Fill {
    let (red, green, blue) = colour.rgb;
    let opacity = NormalizedF32::new(colour.alpha as f32).unwrap_or(NormalizedF32::ONE);
    Fill { paint: rgb::Color::new(red, green, blue).into(), opacity, ..Fill::default() }
}
