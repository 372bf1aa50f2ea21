//! The font that charts and reports are set in: it comes with the program, so that they look the same anywhere.

use std::fmt::Write;
use std::sync::LazyLock;

use skrifa::instance::{LocationRef, Size};
use skrifa::outline::{DrawSettings, OutlinePen};
use skrifa::{FontRef, GlyphId, MetadataProvider};

/// One of the two faces.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Face {
    Plain,
    Bold,
}

const PLAIN: &[u8] = include_bytes!("../fonts/DejaVuSans.ttf");
const BOLD: &[u8] = include_bytes!("../fonts/DejaVuSans-Bold.ttf");

impl Face {
    /// The font file.
    pub(crate) fn bytes(self) -> &'static [u8] {
        match self {
            Self::Plain => PLAIN,
            Self::Bold => BOLD,
        }
    }
}

static FONTS: LazyLock<[FontRef<'static>; 2]> =
    LazyLock::new(|| [PLAIN, BOLD].map(|bytes| FontRef::new(bytes).expect("a font that comes with the program")));

/// How wide a line of text is at this size of the font, in the same unit.
pub(crate) fn width(text: &str, face: Face, size: f64) -> f64 {
    let font = &FONTS[usize::from(face == Face::Bold)];
    let (characters, advances) = (font.charmap(), font.glyph_metrics(Size::new(size as f32), LocationRef::default()));
    let advance = |sign: char| advances.advance_width(characters.map(sign).unwrap_or_default()).unwrap_or_default();
    text.chars().map(|sign| f64::from(advance(sign))).sum()
}

/// How many units of the font its size has.
pub(crate) const UNITS_PER_EM: f64 = 2048.0;

/// A sign of the plain face.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Glyph {
    /// Which of the font's signs it is.
    pub(crate) id: u32,
    /// How far behind it the next one stands, units of the font.
    pub(crate) advance: f64,
}

/// The signs of a text one after the other.
pub(crate) fn glyphs(text: &str) -> impl Iterator<Item = Glyph> + '_ {
    let font = &FONTS[0];
    let (characters, advances) = (font.charmap(), font.glyph_metrics(Size::unscaled(), LocationRef::default()));
    text.chars().map(move |sign| {
        let id = characters.map(sign).unwrap_or_default();
        Glyph { id: id.to_u32(), advance: advances.advance_width(id).unwrap_or_default().into() }
    })
}

impl Glyph {
    /// Its outline as the data of an SVG path, upwards in units of the font; empty for a space.
    pub(crate) fn outline(self) -> String {
        let mut path = SvgPath(String::new());
        let settings = DrawSettings::unhinted(Size::unscaled(), LocationRef::default());
        if let Some(outline) = FONTS[0].outline_glyphs().get(GlyphId::new(self.id)) {
            outline.draw(settings, &mut path).expect("a font that comes with the program");
        }
        path.0
    }
}

struct SvgPath(String);

impl SvgPath {
    fn add<const N: usize>(&mut self, command: char, numbers: [f32; N]) {
        self.0.push(command);
        for (index, number) in numbers.into_iter().enumerate() {
            let between = if index == 0 { "" } else { " " };
            // Writing to a string can't fail.
            let _ = write!(self.0, "{between}{number}");
        }
    }
}

impl OutlinePen for SvgPath {
    fn move_to(&mut self, x: f32, y: f32) {
        self.add('M', [x, y]);
    }

    fn line_to(&mut self, x: f32, y: f32) {
        self.add('L', [x, y]);
    }

    fn quad_to(&mut self, cx: f32, cy: f32, x: f32, y: f32) {
        self.add('Q', [cx, cy, x, y]);
    }

    fn curve_to(&mut self, cx0: f32, cy0: f32, cx1: f32, cy1: f32, x: f32, y: f32) {
        self.add('C', [cx0, cy0, cx1, cy1, x, y]);
    }

    fn close(&mut self) {
        self.add('Z', []);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn signs_are_as_wide_as_the_text_and_have_outlines() {
        let text = "4 700 MHz, ●";
        let along: f64 = glyphs(text).map(|glyph| glyph.advance).sum();
        assert!((along * 13.0 / UNITS_PER_EM - width(text, Face::Plain, 13.0)).abs() < 0.01);
        let outlines: Vec<String> = glyphs("M \u{25cf}").map(Glyph::outline).collect();
        assert!(outlines[0].starts_with('M') && outlines[1].is_empty() && outlines[2].contains('Q'), "{outlines:?}");
    }

    #[test]
    fn wide_text_is_wide() {
        assert!(width("WWW", Face::Plain, 10.0) > 2.0 * width("iii", Face::Plain, 10.0));
        assert!(width("mark", Face::Bold, 10.0) > width("mark", Face::Plain, 10.0));
        assert!((width("4 700 MHz", Face::Plain, 20.0) / width("4 700 MHz", Face::Plain, 10.0) - 2.0).abs() < 1e-3);
    }
}
