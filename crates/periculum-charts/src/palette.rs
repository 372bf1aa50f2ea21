//! The colours of charts, dark on white so that they print; signs say the same without colour.

use periculum_core::model::verdict::Verdict;
use plotters::style::RGBColor;

pub(crate) const INK: RGBColor = RGBColor(0x2b, 0x2e, 0x33);
pub(crate) const PALE: RGBColor = RGBColor(0x9a, 0x9d, 0xa2);
pub(crate) const BLUE: RGBColor = RGBColor(0x2f, 0x5a, 0x9e);
pub(crate) const RED: RGBColor = RGBColor(0xa8, 0x32, 0x26);
pub(crate) const GREEN: RGBColor = RGBColor(0x2c, 0x78, 0x58);
pub(crate) const OCHRE: RGBColor = RGBColor(0x95, 0x68, 0x12);

/// Lines beside each other are of these colours, and carry their numbers, so that they read without colour.
pub(crate) const LINES: [&RGBColor; 4] = [&BLUE, &OCHRE, &GREEN, &RED];

pub(crate) fn of_verdict(verdict: Option<Verdict>) -> RGBColor {
    match verdict {
        None => BLUE,
        Some(Verdict::Held) => GREEN,
        Some(Verdict::Slipped) => OCHRE,
        Some(Verdict::Fell) => RED,
        Some(Verdict::Void) => PALE,
    }
}
