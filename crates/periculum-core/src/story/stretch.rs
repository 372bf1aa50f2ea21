//! A stretch of time that is looked at closer or from farther away, within all there is.

use crate::model::moment::{Moment, Span};

/// Nobody looks closer than this.
const SHORTEST: u64 = 2_000;

/// From one moment up to, but not at, another one.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Stretch {
    /// Its beginning.
    pub from: Moment,
    /// Its end, behind its beginning.
    pub to: Moment,
}

impl Stretch {
    /// How long it is.
    pub fn length(self) -> Span {
        self.to.since(self.from)
    }

    /// The moment in its middle.
    pub fn middle(self) -> Moment {
        self.from + Span::from_millis(self.length().millis() / 2)
    }

    /// Whether a moment lies in it.
    pub fn has(self, at: Moment) -> bool {
        self.from <= at && at < self.to
    }

    /// Half as long, around this moment where there is room.
    #[must_use]
    pub fn closer(self, middle: Moment, whole: Self) -> Self {
        Self::around(middle, self.length().millis() / 2, whole)
    }

    /// Twice as long, around this moment where there is room.
    #[must_use]
    pub fn farther(self, middle: Moment, whole: Self) -> Self {
        Self::around(middle, self.length().millis() * 2, whole)
    }

    /// As long, a quarter of it later or earlier.
    #[must_use]
    pub fn moved(self, later: bool, whole: Self) -> Self {
        let by = (self.length().millis() / 4) as i64;
        let middle = self.middle().millis() + if later { by } else { -by };
        Self::around(Moment::from_millis(middle), self.length().millis(), whole)
    }

    /// So many milliseconds around a moment, as far as there is something.
    pub fn around(middle: Moment, millis: u64, whole: Self) -> Self {
        let length = millis.clamp(SHORTEST, whole.length().millis().max(SHORTEST)) as i64;
        let latest = (whole.to.millis() - length).max(whole.from.millis());
        let from = (middle.millis() - length / 2).clamp(whole.from.millis(), latest);
        Self { from: Moment::from_millis(from), to: Moment::from_millis(from + length) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn stretch(from: i64, to: i64) -> Stretch {
        Stretch { from: Moment::from_millis(from), to: Moment::from_millis(to) }
    }

    #[test]
    fn what_is_looked_at_closer_has_that_middle_where_there_is_room() {
        let whole = stretch(0, 80_000);
        let closer = whole.closer(whole.middle(), whole);
        assert_eq!(closer, stretch(20_000, 60_000));
        assert_eq!(closer.closer(closer.middle(), whole).moved(true, whole), stretch(35_000, 55_000));
        let end = stretch(70_000, 80_000);
        assert_eq!(end.farther(end.middle(), whole), stretch(60_000, 80_000), "there is nothing behind the end");
        assert_eq!(whole.closer(whole.from, whole), stretch(0, 40_000), "nor before the beginning");
    }

    proptest! {
        /// However one looks, it is at something that there is, and never at nothing.
        #[test]
        fn one_never_looks_beside_it(end in 2_000i64..1_000_000, steps in prop::collection::vec(0u8..4, 0..40)) {
            let whole = stretch(1_000, 1_000 + end);
            let mut at = whole;
            for step in steps {
                at = match step {
                    0 => at.closer(at.middle(), whole),
                    1 => at.farther(at.from, whole),
                    other => at.moved(other == 2, whole),
                };
                prop_assert!(at.from >= whole.from && at.to <= whole.to && at.length().millis() >= SHORTEST);
                prop_assert!(at.has(at.middle()) && at.has(at.from) && !at.has(at.to));
            }
        }
    }
}
