//! A picture as a list of simple shapes: what charts are drawn on, and what is written as SVG or PDF.

use std::cell::RefCell;
use std::convert::Infallible;
use std::rc::Rc;

use plotters::coord::Shift;
use plotters::drawing::{DrawingArea, DrawingAreaErrorKind, IntoDrawingArea};
use plotters::style::FontTransform;
use plotters::style::text_anchor::{HPos, VPos};
use plotters_backend::{BackendColor, BackendCoord, BackendStyle, BackendTextStyle, DrawingBackend, DrawingErrorKind};

use crate::font::{Face, width};

/// A picture of so many units, whose first row is the upper one.
#[derive(Clone, Debug, PartialEq)]
pub struct Figure {
    /// Width and height, units.
    pub size: (u32, u32),
    /// What is on it, the lowest first.
    pub shapes: Vec<Shape>,
}

/// A colour with how much of what is below shows through, from 0 for all to 1 for nothing.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Colour {
    /// Red, green and blue.
    pub rgb: (u8, u8, u8),
    /// How much it covers.
    pub alpha: f64,
}

/// Something on a picture.
#[derive(Clone, Debug, PartialEq)]
pub enum Shape {
    /// A line through points.
    Line {
        /// The points.
        points: Vec<(i32, i32)>,
        /// Its colour.
        colour: Colour,
        /// Its width, units.
        width: u32,
    },
    /// A filled polygon.
    Polygon {
        /// The corners.
        points: Vec<(i32, i32)>,
        /// Its colour.
        colour: Colour,
    },
    /// A circle.
    Circle {
        /// Its middle.
        at: (i32, i32),
        /// Its radius, units.
        radius: u32,
        /// Its colour.
        colour: Colour,
        /// The width of its line; none where it is filled.
        line: Option<u32>,
    },
    /// A line of text.
    Text {
        /// Where it begins, on its baseline.
        at: (f64, f64),
        /// The size of the font, units.
        size: f64,
        /// What it says.
        text: String,
        /// Its colour.
        colour: Colour,
        /// Whether it reads from below upwards.
        is_upright: bool,
    },
}

pub(crate) type Area = DrawingArea<Recorder, Shift>;
pub(crate) type Drawn = Result<(), DrawingAreaErrorKind<Infallible>>;

/// A chart could not be drawn.
#[derive(Debug, thiserror::Error)]
#[error("the chart can't be drawn: {0}")]
pub struct ChartError(String);

impl ChartError {
    pub(crate) fn new(why: impl Into<String>) -> Self {
        Self(why.into())
    }
}

impl Figure {
    /// What is drawn on an area of this size.
    pub(crate) fn drawn(size: (u32, u32), draw: impl FnOnce(&Area) -> Drawn) -> Result<Self, ChartError> {
        let shapes = Rc::new(RefCell::new(Vec::new()));
        let area = Recorder { size, shapes: Rc::clone(&shapes) }.into_drawing_area();
        draw(&area).map_err(|error| ChartError(error.to_string()))?;
        Ok(Self { size, shapes: shapes.take() })
    }
}

/// Takes down what the drawing library draws.
pub(crate) struct Recorder {
    size: (u32, u32),
    shapes: Rc<RefCell<Vec<Shape>>>,
}

type Recorded = Result<(), DrawingErrorKind<Infallible>>;

impl Recorder {
    fn add(&self, shape: Shape) -> Recorded {
        self.shapes.borrow_mut().push(shape);
        Ok(())
    }
}

impl From<BackendColor> for Colour {
    fn from(colour: BackendColor) -> Self {
        Self { rgb: colour.rgb, alpha: colour.alpha }
    }
}

impl DrawingBackend for Recorder {
    type ErrorType = Infallible;

    fn get_size(&self) -> (u32, u32) {
        self.size
    }

    fn ensure_prepared(&mut self) -> Recorded {
        Ok(())
    }

    fn present(&mut self) -> Recorded {
        Ok(())
    }

    fn draw_pixel(&mut self, (x, y): BackendCoord, colour: BackendColor) -> Recorded {
        let points = vec![(x, y), (x + 1, y), (x + 1, y + 1), (x, y + 1)];
        self.add(Shape::Polygon { points, colour: colour.into() })
    }

    fn draw_line<S: BackendStyle>(&mut self, from: BackendCoord, to: BackendCoord, style: &S) -> Recorded {
        self.draw_path([from, to], style)
    }

    fn draw_rect<S: BackendStyle>(
        &mut self,
        (left, top): BackendCoord,
        (right, bottom): BackendCoord,
        style: &S,
        fill: bool,
    ) -> Recorded {
        let corners = [(left, top), (right, top), (right, bottom), (left, bottom)];
        if fill {
            return self.fill_polygon(corners, style);
        }
        self.draw_path(corners.into_iter().chain([(left, top)]), style)
    }

    fn draw_path<S: BackendStyle, I: IntoIterator<Item = BackendCoord>>(&mut self, path: I, style: &S) -> Recorded {
        let points = path.into_iter().collect();
        self.add(Shape::Line { points, colour: style.color().into(), width: style.stroke_width() })
    }

    fn draw_circle<S: BackendStyle>(&mut self, at: BackendCoord, radius: u32, style: &S, fill: bool) -> Recorded {
        let line = (!fill).then(|| style.stroke_width());
        self.add(Shape::Circle { at, radius, colour: style.color().into(), line })
    }

    fn fill_polygon<S: BackendStyle, I: IntoIterator<Item = BackendCoord>>(
        &mut self,
        corners: I,
        style: &S,
    ) -> Recorded {
        self.add(Shape::Polygon { points: corners.into_iter().collect(), colour: style.color().into() })
    }

    fn draw_text<T: BackendTextStyle>(&mut self, text: &str, style: &T, (x, y): BackendCoord) -> Recorded {
        let size = style.size();
        let along = match style.anchor().h_pos {
            HPos::Left => 0.0,
            HPos::Center => -0.5 * width(text, Face::Plain, size),
            HPos::Right => -width(text, Face::Plain, size),
        };
        // Where the baseline lies in the height of a line of the font.
        let down = match style.anchor().v_pos {
            VPos::Top => 0.8 * size,
            VPos::Center => 0.35 * size,
            VPos::Bottom => -0.2 * size,
        };
        let is_upright = matches!(style.transform(), FontTransform::Rotate270);
        let (dx, dy) = if is_upright { (down, -along) } else { (along, down) };
        let at = (f64::from(x) + dx, f64::from(y) + dy);
        self.add(Shape::Text { at, size, text: text.to_owned(), colour: style.color().into(), is_upright })
    }

    fn estimate_text_size<T: BackendTextStyle>(
        &self,
        text: &str,
        style: &T,
    ) -> Result<(u32, u32), DrawingErrorKind<Infallible>> {
        let size = style.size();
        Ok((width(text, Face::Plain, size).ceil() as u32, size.ceil() as u32))
    }
}
