//! When a picture is sent pixel by pixel: the totals of a mode, and modes at other rates.

use periculum_core::Decimal;

/// The timings of a mode: places in a line and in a picture at which something begins or ends, in pixels and lines.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Timings {
    /// Pixels a second.
    pub(super) clock: u32,
    pub(super) across: Totals,
    pub(super) down: Totals,
    /// The signs of its pulses and whatever else it has, as RandR counts them (`ModeFlag`).
    pub(super) flags: u32,
}

/// What is shown, the pulse behind it, and all of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Totals {
    pub(super) shown: u16,
    pub(super) pulse_from: u16,
    pub(super) pulse_to: u16,
    pub(super) total: u16,
}

/// The flags of RandR that say how often a line is sent (RandR 1.6, `MODEFLAG`): two fields make a picture, or each line comes twice.
const INTERLACED: u32 = 1 << 4;
const DOUBLED: u32 = 1 << 5;

/// Positive pulses across, negative ones down: how a screen knows reduced blanking (VESA CVT 1.2).
const ACROSS_POSITIVE: u32 = 1;
const DOWN_NEGATIVE: u32 = 1 << 3;
const ACROSS_NEGATIVE: u32 = 1 << 1;
const DOWN_POSITIVE: u32 = 1 << 2;

impl Timings {
    /// Pictures a second, to a thousandth.
    pub(super) fn rate(&self) -> Decimal {
        let rate = Decimal::from(self.clock).checked_div(self.of_picture()).unwrap_or_default();
        rate.round_dp(3).normalize()
    }

    /// Pixels that are sent for a picture, those between lines and pictures counted.
    fn of_picture(&self) -> Decimal {
        let pixels = Decimal::from(u64::from(self.across.total) * u64::from(self.down.total));
        match self.flags {
            flags if flags & INTERLACED != 0 => pixels / Decimal::TWO,
            flags if flags & DOUBLED != 0 => pixels * Decimal::TWO,
            _ => pixels,
        }
    }

    /// Whether it shows a picture of the same size in the same way, and with the same totals where those are wanted.
    pub(super) fn is_like(&self, other: &Self, wants_totals: bool) -> bool {
        let shown = |one: &Self| (one.across.shown, one.down.shown, one.flags & (INTERLACED | DOUBLED));
        let totals = |one: &Self| (one.across.total, one.down.total);
        shown(self) == shown(other) && (!wants_totals || totals(self) == totals(other))
    }

    /// The same picture at another rate: all totals stay, and pixels come faster or slower. None where no clock counts so far.
    pub(super) fn at(self, rate: Decimal) -> Option<Self> {
        // Drivers count their clocks in kHz.
        let clock =
            rate.checked_mul(self.of_picture())?.round_dp(0).checked_div(1000.into())?.round() * Decimal::from(1000);
        Some(Self { clock: u32::try_from(clock).ok()?, ..self })
    }

    /// A picture of this size with as little time between lines and pictures as flat screens need: reduced blanking, version 1 (VESA
    /// Coordinated Video Timings 1.2, section 3.4.2). None where no clock counts so far.
    pub(super) fn reduced((width, height): (u16, u16), rate: Decimal) -> Option<Self> {
        const BETWEEN_LINES: u16 = 160;
        const BEFORE_PULSE: u16 = 48;
        const PULSE: u16 = 32;
        const BEFORE_FRAME_PULSE: u16 = 3;
        const BEHIND_FRAME_PULSE: u16 = 6;
        /// Time between pictures at the least, seconds.
        const BETWEEN_PICTURES: f64 = 460e-6;
        /// Steps of the clock, Hz.
        const STEP: f64 = 250_000.0;
        let frames: f64 = f64::try_from(rate).ok().filter(|rate| *rate > 0.0 && *rate < 0.9 / BETWEEN_PICTURES)?;
        let line = (1.0 / frames - BETWEEN_PICTURES) / f64::from(height);
        let pulse = frame_pulse(width, height);
        let least = BEFORE_FRAME_PULSE + pulse + BEHIND_FRAME_PULSE;
        let between = ((BETWEEN_PICTURES / line).floor() as u16).checked_add(1)?.max(least);
        let across = Totals {
            shown: width,
            pulse_from: width.checked_add(BEFORE_PULSE)?,
            pulse_to: width.checked_add(BEFORE_PULSE + PULSE)?,
            total: width.checked_add(BETWEEN_LINES)?,
        };
        let down = Totals {
            shown: height,
            pulse_from: height.checked_add(BEFORE_FRAME_PULSE)?,
            pulse_to: height.checked_add(BEFORE_FRAME_PULSE + pulse)?,
            total: height.checked_add(between)?,
        };
        let clock = (frames * f64::from(across.total) * f64::from(down.total) / STEP).floor() * STEP;
        let is_counted = clock <= f64::from(u32::MAX);
        is_counted.then_some(Self { clock: clock as u32, across, down, flags: ACROSS_POSITIVE | DOWN_NEGATIVE })
    }

    /// Whether the signs of its pulses are told at all.
    pub(super) fn with_signs(self) -> Self {
        let signs = ACROSS_POSITIVE | ACROSS_NEGATIVE | DOWN_POSITIVE | DOWN_NEGATIVE;
        if self.flags & signs == 0 {
            Self { flags: self.flags | ACROSS_NEGATIVE | DOWN_POSITIVE, ..self }
        } else {
            self
        }
    }
}

/// Lines of the pulse between two pictures, which say the picture's shape (VESA CVT 1.2, table 3-2).
fn frame_pulse(width: u16, height: u16) -> u16 {
    let is = |across: u32, down: u32| u32::from(height) * across / down / 8 == u32::from(width) / 8;
    match () {
        () if is(4, 3) => 4,
        () if is(16, 9) => 5,
        () if is(16, 10) => 6,
        () if is(5, 4) || is(15, 9) => 7,
        () => 10,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn usual() -> Timings {
        // 1920 × 1080 at 60 Hz, as consumer screens have it (CTA-861, video code 16).
        Timings {
            clock: 148_500_000,
            across: Totals { shown: 1920, pulse_from: 2008, pulse_to: 2052, total: 2200 },
            down: Totals { shown: 1080, pulse_from: 1084, pulse_to: 1089, total: 1125 },
            flags: ACROSS_POSITIVE | DOWN_POSITIVE,
        }
    }

    #[test]
    fn a_rate_is_the_clock_over_all_pixels() {
        assert_eq!(usual().rate(), Decimal::from(60));
        assert_eq!(Timings { flags: INTERLACED, ..usual() }.rate(), Decimal::from(120));
        assert_eq!(Timings { flags: DOUBLED, ..usual() }.rate(), Decimal::from(30));
    }

    #[test]
    fn modes_are_like_each_other_by_what_they_show() {
        let reduced = Timings::reduced((1920, 1080), Decimal::from(60)).expect("a mode");
        assert!(usual().is_like(&reduced, false) && !usual().is_like(&reduced, true));
        assert!(!Timings { flags: INTERLACED, ..usual() }.is_like(&usual(), false));
    }

    #[test]
    fn at_another_rate_the_totals_stay() {
        let faster = usual().at(Decimal::from(75)).expect("a mode");
        assert_eq!((faster.clock, faster.across, faster.rate()), (185_625_000, usual().across, Decimal::from(75)));
        assert_eq!(usual().at(Decimal::from(9_999_999)), None);
    }

    /// The standard's own example: 1920 × 1080 at 60 Hz with reduced blanking has 138.5 MHz and 2080 × 1111 pixels.
    #[test]
    fn reduced_blanking_is_as_the_standard_has_it() {
        let reduced = Timings::reduced((1920, 1080), Decimal::from(60)).expect("a mode");
        assert_eq!((reduced.clock, reduced.across.total, reduced.down.total), (138_500_000, 2080, 1111));
        assert_eq!((reduced.down.pulse_to - reduced.down.pulse_from, reduced.across.pulse_from), (5, 1968));
        assert_eq!(Timings::reduced((1920, 1080), Decimal::ZERO), None);
        assert_eq!(Timings::reduced((1920, 1080), Decimal::from(5000)), None);
        assert_eq!(Timings::reduced((65_500, 1080), Decimal::from(60)), None);
    }
}
