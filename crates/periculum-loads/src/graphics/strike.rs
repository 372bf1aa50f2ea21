//! Something that disturbs the work on a device, as tests do to see that every check catches it.

/// Where a round may be disturbed, and whether it is.
pub trait Strike {
    /// The word to change and the bits to flip in what this round is about to use; nothing where it is left alone.
    fn flips(&self, round: u64, what: &'static str) -> Option<(u64, u32)>;

    /// Whether the device is lost before this round.
    fn loses(&self, _round: u64) -> bool {
        false
    }
}

/// Nothing disturbs the work.
pub struct NoStrike;

impl Strike for NoStrike {
    fn flips(&self, _: u64, _: &'static str) -> Option<(u64, u32)> {
        None
    }
}
