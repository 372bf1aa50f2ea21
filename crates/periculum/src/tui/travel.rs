//! How a selection moves.

/// How the selection moves.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Travel {
    Back(usize),
    On(usize),
    First,
    Last,
}

impl Travel {
    /// Where it leads from a place among so many.
    pub(super) fn from(self, at: usize, count: usize) -> usize {
        let last = count.saturating_sub(1);
        match self {
            Self::Back(by) => at.saturating_sub(by),
            Self::On(by) => (at + by).min(last),
            Self::First => 0,
            Self::Last => last,
        }
    }
}
