//! Colours: few, each for one meaning, and never alone.

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
}

/// How something is told behind a line.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Shade {
    /// By another ground.
    Ground(Color),
    /// By a sign, where there are no colours for that.
    Sign(Style),
}

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
    pub(super) fn of_terminal() -> Self {
        let [no_color, color_term, term, xterm] =
            ["NO_COLOR", "COLORTERM", "TERM", "XTERM_VERSION"].map(|name| std::env::var(name).unwrap_or_default());
        Self::new(Depth::of(&no_color, &color_term, &term, &xterm))
    }

    /// The theme for this many colours.
    pub(super) fn new(depth: Depth) -> Self {
        let plain = Style::new();
        match depth {
            Depth::None => Self {
                text: plain,
                muted: plain,
                faint: plain.add_modifier(Modifier::DIM),
                accent: plain.add_modifier(Modifier::BOLD),
                good: plain,
                warning: plain.add_modifier(Modifier::BOLD),
                bad: plain.add_modifier(Modifier::BOLD),
                shade: Shade::Sign(plain.add_modifier(Modifier::DIM)),
            },
            Depth::Sixteen => Self {
                text: plain,
                muted: plain.fg(Color::Gray),
                faint: plain.fg(Color::DarkGray),
                accent: plain.fg(Color::LightBlue),
                good: plain.fg(Color::Green),
                warning: plain.fg(Color::Yellow),
                bad: plain.fg(Color::LightRed),
                shade: Shade::Sign(plain.fg(Color::DarkGray)),
            },
            Depth::Indexed => {
                let colours = [187, 245, 239, 110, 108, 179, 167].map(Color::Indexed);
                Self::on_ground([233, 235].map(Color::Indexed), colours)
            }
            Depth::True => Self::on_ground_rgb(),
        }
    }

    fn on_ground_rgb() -> Self {
        let colours = [0xd6d0c4, 0x8a8d90, 0x4a4e55, 0x84a4d6, 0x6fb696, 0xd6a454, 0xd66254];
        Self::on_ground([0x101216, 0x222b2b].map(Color::from_u32), colours.map(Color::from_u32))
    }

    /// Text, muted, faint, accent, good, warning and bad, all on one ground, which has a shade.
    fn on_ground([ground, shade]: [Color; 2], [text, muted, faint, accent, good, warning, bad]: [Color; 7]) -> Self {
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

    #[test]
    fn the_environment_decides_how_many_colours_there_are() {
        assert_eq!(Depth::of("", "truecolor", "linux", ""), Depth::True);
        assert_eq!(Depth::of("", "", "tmux-256color", ""), Depth::Indexed);
        assert_eq!(Depth::of("", "", "linux", ""), Depth::Sixteen);
        assert_eq!(Depth::of("", "", "xterm", "XTerm(379)"), Depth::True);
        assert_eq!(Depth::of("1", "truecolor", "xterm-256color", ""), Depth::None);
    }
}
