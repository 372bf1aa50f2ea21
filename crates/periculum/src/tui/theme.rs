//! Colours: few, each for one meaning, and never alone.

use periculum_core::analysis::chance::Chance;
use periculum_core::model::verdict::Verdict;
use ratatui::style::{Color, Modifier, Style};

/// The style of everything on the screen.
#[derive(Clone, Copy, Debug)]
pub(super) struct Theme {
    /// The ground and ordinary text.
    pub(super) text: Style,
    /// Words that explain and are not read twice.
    pub(super) muted: Style,
    /// Lines that only hold things together.
    pub(super) faint: Style,
    /// What is on trial now, and marks.
    pub(super) accent: Style,
    /// Something held.
    pub(super) good: Style,
    /// Something slipped, or comes near a limit.
    pub(super) warning: Style,
    /// Something fell, and limits.
    pub(super) bad: Style,
    /// What lies behind a line and tells how far it may be off.
    pub(super) shade: Shade,
    /// What lies behind the map and tells how likely a rung survives.
    pub(super) chances: Chances,
}

/// How chances are told, from the best to the worst.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Chances {
    /// By five grounds.
    Grounds([Color; 5]),
    /// By five signs, where there are no colours for that.
    Signs(Style),
}

/// The signs of chances where there are no colours, from the best to the worst.
const CHANCE_SIGNS: [&str; 5] = [" ", " ", " ", "▒", "▓"];

impl Chances {
    /// The sign and the style of a chance.
    pub(super) fn cell(&self, chance: Chance) -> (&'static str, Style) {
        match self {
            Self::Grounds(colours) => (" ", Style::new().bg(colours[chance as usize])),
            Self::Signs(style) => (CHANCE_SIGNS[chance as usize], *style),
        }
    }
}

/// How something is told behind a line.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Shade {
    /// By another ground.
    Ground(Color),
    /// By a sign, where there are no colours for that.
    Sign(Style),
}

/// Which colours are wanted.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) enum Scheme {
    /// Light on a dark ground.
    #[default]
    Dark,
    /// Dark on a light ground.
    Light,
    /// As far from the ground as they go.
    Contrast,
    /// Those that the terminal gives its sixteen, on its own ground.
    Terminal,
}

/// A scheme's ground, the shade of it, and text, muted, faint, accent, good, warning and bad on it: as they are, and in the palette
/// of 256. Then the grounds of chances, of which that palette has only grey ones that are dark or light enough.
struct Palette {
    exact: ([u32; 2], [u32; 7], [u32; 5]),
    indexed: ([u8; 2], [u8; 7], [u8; 5]),
}

const DARK: Palette = Palette {
    exact: (
        [0x101216, 0x222b2b],
        [0xd6d0c4, 0x8a8d90, 0x4a4e55, 0x84a4d6, 0x6fb696, 0xd6a454, 0xd66254],
        [0x14312a, 0x16241f, 0x2a2718, 0x33201a, 0x331a1c],
    ),
    indexed: ([233, 235], [187, 245, 239, 110, 108, 179, 167], [233, 234, 235, 236, 237]),
};
const LIGHT: Palette = Palette {
    exact: (
        [0xf4f1ea, 0xdce2d8],
        [0x25292e, 0x62666b, 0xb2b0a8, 0x2c5a9e, 0x247052, 0x8a5c00, 0xa83226],
        [0xcfe8d6, 0xe2eede, 0xf3e9c6, 0xf4dccb, 0xf2d0cc],
    ),
    indexed: ([255, 253], [235, 242, 249, 25, 23, 94, 124], [255, 254, 253, 252, 251]),
};
const CONTRAST: Palette = Palette {
    exact: (
        [0x000000, 0x303030],
        [0xffffff, 0xd8d8d8, 0x909090, 0x78c0ff, 0x60ff90, 0xffd840, 0xff8070],
        [0x003c20, 0x00200f, 0x2c2800, 0x3a1800, 0x480000],
    ),
    indexed: ([16, 236], [231, 253, 246, 117, 84, 221, 210], [16, 233, 235, 237, 239]),
};

/// How many colours a terminal has.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Depth {
    /// None, or none wanted.
    None,
    /// The sixteen that every terminal has.
    Sixteen,
    /// The fixed palette of 256.
    Indexed,
    /// All of them.
    True,
}

impl Theme {
    /// The theme for what the environment says of the terminal.
    pub(super) fn of_terminal(scheme: Scheme) -> Self {
        let [no_color, color_term, term, xterm] =
            ["NO_COLOR", "COLORTERM", "TERM", "XTERM_VERSION"].map(|name| std::env::var(name).unwrap_or_default());
        Self::new(scheme, Depth::of(&no_color, &color_term, &term, &xterm))
    }

    /// The theme of this scheme, in so many colours.
    pub(super) fn new(scheme: Scheme, depth: Depth) -> Self {
        let plain = Style::new();
        let palette = match scheme {
            Scheme::Dark => Some(&DARK),
            Scheme::Light => Some(&LIGHT),
            Scheme::Contrast => Some(&CONTRAST),
            Scheme::Terminal => None,
        };
        match (depth, palette) {
            (Depth::None, _) => Self {
                text: plain,
                muted: plain,
                faint: plain.add_modifier(Modifier::DIM),
                accent: plain.add_modifier(Modifier::BOLD),
                good: plain,
                warning: plain.add_modifier(Modifier::BOLD),
                bad: plain.add_modifier(Modifier::BOLD),
                shade: Shade::Sign(plain.add_modifier(Modifier::DIM)),
                chances: Chances::Signs(plain.add_modifier(Modifier::DIM)),
            },
            (Depth::Sixteen, _) | (_, None) => Self {
                text: plain,
                muted: plain.fg(Color::Gray),
                faint: plain.fg(Color::DarkGray),
                accent: plain.fg(Color::LightBlue),
                good: plain.fg(Color::Green),
                warning: plain.fg(Color::Yellow),
                bad: plain.fg(Color::LightRed),
                shade: Shade::Sign(plain.fg(Color::DarkGray)),
                chances: Chances::Signs(plain.fg(Color::DarkGray)),
            },
            (Depth::Indexed, Some(Palette { indexed: (grounds, colours, chances), .. })) => {
                let of = Color::Indexed;
                Self::on_ground(grounds.map(of), colours.map(of), chances.map(of))
            }
            (Depth::True, Some(Palette { exact: (grounds, colours, chances), .. })) => {
                let of = Color::from_u32;
                Self::on_ground(grounds.map(of), colours.map(of), chances.map(of))
            }
        }
    }

    /// Text, muted, faint, accent, good, warning and bad, all on one ground, which has a shade; and the grounds of chances.
    fn on_ground(
        [ground, shade]: [Color; 2],
        [text, muted, faint, accent, good, warning, bad]: [Color; 7],
        chances: [Color; 5],
    ) -> Self {
        let style = Style::new().bg(ground);
        Self {
            text: style.fg(text),
            muted: style.fg(muted),
            faint: style.fg(faint),
            accent: style.fg(accent),
            good: style.fg(good),
            warning: style.fg(warning),
            bad: style.fg(bad),
            shade: Shade::Ground(shade),
            chances: Chances::Grounds(chances),
        }
    }

    /// The style of a verdict's sign; none while a trial is open.
    pub(super) fn verdict(&self, verdict: Option<Verdict>) -> Style {
        match verdict {
            None => self.accent,
            Some(Verdict::Held) => self.good,
            Some(Verdict::Slipped) => self.warning,
            Some(Verdict::Fell) => self.bad,
            Some(Verdict::Void) => self.muted,
        }
    }
}

impl Depth {
    fn of(no_color: &str, color_term: &str, term: &str, xterm: &str) -> Self {
        // xterm knows all colours, but says so neither in TERM nor in COLORTERM.
        match (no_color, color_term) {
            ("", "truecolor" | "24bit") => Self::True,
            ("", _) if !xterm.is_empty() => Self::True,
            ("", _) if term.contains("256color") => Self::Indexed,
            ("", _) => Self::Sixteen,
            _ => Self::None,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// How far two colours are from each other, 1 to 21 (WCAG 2.2, relative luminance and contrast ratio).
    fn contrast(one: u32, other: u32) -> f64 {
        let luminance = |colour: u32| {
            let [_, red, green, blue] = colour.to_be_bytes().map(|part| {
                let part = f64::from(part) / 255.0;
                if part <= 0.04045 { part / 12.92 } else { ((part + 0.055) / 1.055).powf(2.4) }
            });
            0.2126 * red + 0.7152 * green + 0.0722 * blue
        };
        let (one, other) = (luminance(one), luminance(other));
        (one.max(other) + 0.05) / (one.min(other) + 0.05)
    }

    #[test]
    fn all_that_is_read_stands_off_its_ground_and_its_shade() {
        for (palette, least, muted_least) in [(&DARK, 4.5, 4.5), (&LIGHT, 4.5, 4.5), (&CONTRAST, 7.0, 7.0)] {
            let (grounds, [text, muted, _, accent, good, warning, bad], chances) = palette.exact;
            // A sign in bold is read as large text is, which needs less.
            for (ground, colour) in
                chances.iter().flat_map(|it| [good, warning, bad, accent].map(|colour| (*it, colour)))
            {
                assert!(contrast(colour, ground) >= 3.0, "{colour:06x} on {ground:06x}");
            }
            for (colour, least) in
                [(text, 7.0), (muted, muted_least), (accent, least), (good, least), (warning, least), (bad, least)]
            {
                assert!(contrast(colour, grounds[0]) >= least, "{colour:06x} on {:06x}", grounds[0]);
            }
        }
    }

    #[test]
    fn the_terminals_own_colours_are_left_to_it() {
        assert_eq!(Theme::new(Scheme::Terminal, Depth::True).text, Style::new());
        assert_ne!(Theme::new(Scheme::Light, Depth::True).text, Theme::new(Scheme::Dark, Depth::True).text);
    }

    #[test]
    fn the_environment_decides_how_many_colours_there_are() {
        assert_eq!(Depth::of("", "truecolor", "linux", ""), Depth::True);
        assert_eq!(Depth::of("", "", "tmux-256color", ""), Depth::Indexed);
        assert_eq!(Depth::of("", "", "linux", ""), Depth::Sixteen);
        assert_eq!(Depth::of("", "", "xterm", "XTerm(379)"), Depth::True);
        assert_eq!(Depth::of("1", "truecolor", "xterm-256color", ""), Depth::None);
    }
}
