//! By which law failures grow rarer the more margin there is: what a search believes of silicon need not be so.

use periculum_core::files::Section;

use super::numbers::positive_or;

/// How the hazard follows the margin, and what fails beside that.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub enum Law {
    /// By the same factor for the same margin, however much there is.
    #[default]
    Exponential,
    /// Beyond the border ever more slowly: as a power of the margin.
    PowerTail {
        /// That power.
        power: f64,
    },
    /// As by two exponential laws beside each other, of which one is rare and gives way slowly.
    TwoMechanisms {
        /// How much of the hazard at a margin of nothing is the slow one's.
        share: f64,
        /// How many times as wide it is.
        width: f64,
    },
    /// As exponential, and beside it something that no setting changes.
    Background {
        /// How often that comes: once in so many hours.
        hours: f64,
    },
}

/// All laws, with the figures that they have where a file says none.
const LAWS: [Law; 4] = [
    Law::Exponential,
    Law::PowerTail { power: 8.0 },
    Law::TwoMechanisms { share: 0.02, width: 3.0 },
    Law::Background { hours: 100.0 },
];

impl Law {
    /// Reads `law` and the figures that belong to it: `tail_power`, `second_share` and `second_width`, or `background_hours`.
    pub(super) fn read(section: &Section) -> Self {
        let named = if section.has("law") { section.choice("law", &LAWS.map(|law| (law.name(), law))) } else { None };
        match named.map_or(Self::Exponential, |law| law.value) {
            Self::Exponential => Self::Exponential,
            Self::PowerTail { power } => Self::PowerTail { power: positive_or(section, "tail_power", power) },
            Self::TwoMechanisms { share, width } => Self::TwoMechanisms {
                share: positive_or(section, "second_share", share),
                width: positive_or(section, "second_width", width),
            },
            Self::Background { hours } => Self::Background { hours: positive_or(section, "background_hours", hours) },
        }
    }

    /// Its name in files.
    pub fn name(self) -> &'static str {
        match self {
            Self::Exponential => "exponential",
            Self::PowerTail { .. } => "power-tail",
            Self::TwoMechanisms { .. } => "two-mechanisms",
            Self::Background { .. } => "background",
        }
    }

    /// The hazard at a margin of so many widths, as a multiple of that at a margin of nothing, without what no setting changes.
    pub(super) fn share(self, margin: f64) -> f64 {
        let exponential = |margin: f64| (-margin).min(40.0).exp();
        match self {
            Self::PowerTail { power } if margin > 0.0 => (1.0 + margin / power).powf(-power),
            Self::TwoMechanisms { share, width } => {
                (1.0 - share) * exponential(margin) + share * exponential(margin / width)
            }
            Self::Exponential | Self::PowerTail { .. } | Self::Background { .. } => exponential(margin),
        }
    }

    /// What fails in a second whatever is set.
    pub(super) fn background(self) -> f64 {
        match self {
            Self::Background { hours } => 1.0 / (3600.0 * hours),
            _ => 0.0,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn all_laws_agree_at_the_border_and_the_others_give_way_more_slowly() {
        for law in LAWS {
            assert!((law.share(0.0) - 1.0).abs() < 1e-9, "{law:?}");
            assert!(law.share(6.0) >= Law::Exponential.share(6.0), "{law:?}");
        }
        let [_, tail, two, background] = LAWS;
        assert!((tail.share(8.0) - 2f64.powi(-8)).abs() < 1e-9);
        assert!(two.share(6.0) > 1.5 * Law::Exponential.share(6.0));
        assert!((background.background() - 1.0 / 360_000.0).abs() < 1e-12);
    }

    proptest! {
        #[test]
        fn more_margin_never_fails_more_often(margin in -40.0f64..40.0, more in 0.0f64..5.0) {
            for law in LAWS {
                prop_assert!(law.share(margin + more) <= law.share(margin), "{law:?}");
            }
        }
    }
}
