//! A picture as SVG 1.1. In a file of its own its texts are outlines, so that it looks the same where no font is known, and what they
//! say stands beside them; in a page they are text, for whoever reads or searches it.

use std::collections::BTreeMap;
use std::fmt::Write;

use crate::figure::{Colour, Figure, Shape};
use crate::font::{Face, Glyph, UNITS_PER_EM, glyphs, width as width_of};

impl Figure {
    /// What its texts say, in order.
    fn texts(&self) -> impl Iterator<Item = &str> {
        self.shapes.iter().filter_map(|shape| match shape {
            Shape::Text { text, .. } => Some(text.as_str()),
            _ => None,
        })
    }

    /// The picture as an SVG file that needs no font.
    pub fn svg(&self) -> String {
        let mut svg = String::new();
        // Writing to a string can't fail.
        let _ = write_figure(&mut svg, self);
        svg
    }

    /// The picture as part of a page, with its texts as text in a font of the reader's.
    pub fn svg_with_text(&self) -> String {
        let mut svg = String::new();
        // Writing to a string can't fail.
        let _ = write_inline(&mut svg, self);
        svg
    }
}

fn write_inline(svg: &mut String, figure: &Figure) -> std::fmt::Result {
    let (width, height) = figure.size;
    writeln!(
        svg,
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width}\" height=\"{height}\" viewBox=\"0 0 {width} {height}\" role=\"img\" \
                   font-family=\"DejaVu Sans,Verdana,sans-serif\">"
    )?;
    for shape in &figure.shapes {
        let Shape::Text { at: (x, y), size, text, colour, is_upright } = shape else {
            write_shape(svg, shape)?;
            continue;
        };
        let turned = if *is_upright { format!(" transform=\"rotate(-90 {x:.1} {y:.1})\"") } else { String::new() };
        // What was measured in the font of the picture fits in another one too.
        let length = width_of(text, Face::Plain, *size);
        let (paint, text) = (paint("fill", colour), escaped(text));
        writeln!(
            svg,
            "<text x=\"{x:.1}\" y=\"{y:.1}\" font-size=\"{size}\" textLength=\"{length:.1}\" \
                       lengthAdjust=\"spacingAndGlyphs\" {paint}{turned}>{text}</text>"
        )?;
    }
    writeln!(svg, "</svg>")
}

fn write_figure(svg: &mut String, figure: &Figure) -> std::fmt::Result {
    let (width, height) = figure.size;
    writeln!(svg, "<?xml version=\"1.0\" encoding=\"UTF-8\"?>")?;
    writeln!(
        svg,
        "<svg xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\" width=\"{width}\" \
         height=\"{height}\" viewBox=\"0 0 {width} {height}\" role=\"img\">"
    )?;
    let texts: Vec<&str> = figure.texts().collect();
    writeln!(svg, "<title>{}</title>", escaped(texts.first().unwrap_or(&"a chart")))?;
    writeln!(svg, "<desc>{}</desc>", escaped(&texts.join("; ")))?;
    write_outlines(svg, figure)?;
    writeln!(svg, "<rect width=\"{width}\" height=\"{height}\" fill=\"#ffffff\"/>")?;
    figure.shapes.iter().try_for_each(|shape| write_shape(svg, shape))?;
    writeln!(svg, "</svg>")
}

/// The outline of each sign that the texts have, once, in units of the font.
fn write_outlines(svg: &mut String, figure: &Figure) -> std::fmt::Result {
    let used: BTreeMap<u32, Glyph> = figure.texts().flat_map(glyphs).map(|glyph| (glyph.id, glyph)).collect();
    writeln!(svg, "<defs>")?;
    for glyph in used.values() {
        writeln!(svg, "<path id=\"g{}\" d=\"{}\"/>", glyph.id, glyph.outline())?;
    }
    writeln!(svg, "</defs>")
}

fn write_shape(svg: &mut String, shape: &Shape) -> std::fmt::Result {
    match shape {
        Shape::Line { points, colour, width } => {
            let (points, stroke) = (written(points), paint("stroke", colour));
            writeln!(svg, "<polyline points=\"{points}\" fill=\"none\" {stroke} stroke-width=\"{width}\"/>")
        }
        Shape::Polygon { points, colour } => {
            writeln!(svg, "<polygon points=\"{}\" {}/>", written(points), paint("fill", colour))
        }
        Shape::Circle { at: (x, y), radius, colour, line } => {
            let paint = match line {
                None => paint("fill", colour),
                Some(width) => format!("fill=\"none\" {} stroke-width=\"{width}\"", paint("stroke", colour)),
            };
            writeln!(svg, "<circle cx=\"{x}\" cy=\"{y}\" r=\"{radius}\" {paint}/>")
        }
        Shape::Text { at: (x, y), size, text, colour, is_upright } => {
            let turned = if *is_upright { " rotate(-90)" } else { "" };
            // A font's units count upwards.
            let scale = size / UNITS_PER_EM;
            let transform = format!("translate({x:.1} {y:.1}){turned} scale({scale:.5} {:.5})", -scale);
            let paint = paint("fill", colour);
            writeln!(svg, "<g role=\"img\" aria-label=\"{}\" transform=\"{transform}\" {paint}>", escaped(text))?;
            let mut along = 0.0;
            for glyph in glyphs(text) {
                write!(svg, "<use xlink:href=\"#g{}\" x=\"{along:.0}\"/>", glyph.id)?;
                along += glyph.advance;
            }
            writeln!(svg, "</g>")
        }
    }
}

fn written(points: &[(i32, i32)]) -> String {
    points.iter().map(|(x, y)| format!("{x},{y}")).collect::<Vec<_>>().join(" ")
}

fn paint(what: &str, colour: &Colour) -> String {
    let (red, green, blue) = colour.rgb;
    let opacity = if colour.alpha < 1.0 { format!(" {what}-opacity=\"{:.2}\"", colour.alpha) } else { String::new() };
    format!("{what}=\"#{red:02x}{green:02x}{blue:02x}\"{opacity}")
}

/// Text as XML has it; what XML can't have at all becomes a space.
pub(crate) fn escaped(text: &str) -> String {
    let mut escaped = String::with_capacity(text.len());
    for sign in text.chars() {
        match sign {
            '&' => escaped.push_str("&amp;"),
            '<' => escaped.push_str("&lt;"),
            '>' => escaped.push_str("&gt;"),
            '"' => escaped.push_str("&quot;"),
            '\u{fffe}' | '\u{ffff}' => escaped.push(' '),
            sign if sign.is_control() => escaped.push(' '),
            sign => escaped.push(sign),
        }
    }
    escaped
}
