//! What a screen says of itself: its range limits (VESA E-EDID 1.4, section 3.10.3.3.1, display descriptor FDh).

/// How far a screen says that it goes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Limits {
    /// Pictures a second at the most.
    pub(super) rate: u32,
    /// Pixels a second at the most; none where it does not say.
    pub(super) clock: Option<u64>,
}

/// Where the four descriptors of a block stand, and how long each is.
const DESCRIPTORS: [usize; 4] = [54, 72, 90, 108];
const LENGTH: usize = 18;

impl Limits {
    /// Those of a block; none where it has none, or is damaged.
    pub(super) fn of(edid: &[u8]) -> Option<Self> {
        let block = edid.get(..128)?;
        let is_whole = block.iter().fold(0u8, |sum, byte| sum.wrapping_add(*byte)) == 0;
        let is_edid = block.starts_with(&[0, 255, 255, 255, 255, 255, 255, 0]);
        if !is_whole || !is_edid {
            return None;
        }
        let descriptors = DESCRIPTORS.iter().map(|from| &block[*from..from + LENGTH]);
        let range = descriptors.into_iter().find(|descriptor| descriptor.starts_with(&[0, 0, 0, 0xfd]))?;
        let is_beyond_a_byte = range[4] & 0b10 != 0;
        let rate = u32::from(range[6]) + if is_beyond_a_byte { 255 } else { 0 };
        let clock = Some(u64::from(range[9]) * 10_000_000).filter(|clock| *clock > 0);
        Some(Self { rate, clock })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn block(range: &[u8]) -> Vec<u8> {
        let mut block = vec![0, 255, 255, 255, 255, 255, 255, 0];
        block.resize(128, 0);
        block[72..72 + range.len()].copy_from_slice(range);
        let sum = block.iter().fold(0u8, |sum, byte| sum.wrapping_add(*byte));
        block[127] = 0u8.wrapping_sub(sum);
        block
    }

    #[test]
    fn a_screen_says_how_far_it_goes() {
        let limits = |range: &[u8]| Limits::of(&block(range));
        assert_eq!(
            limits(&[0, 0, 0, 0xfd, 0, 48, 75, 30, 83, 17]),
            Some(Limits { rate: 75, clock: Some(170_000_000) })
        );
        assert_eq!(limits(&[0, 0, 0, 0xfd, 2, 48, 5, 30, 83, 0]), Some(Limits { rate: 260, clock: None }));
        assert_eq!(limits(&[0, 0, 0, 0xfc, 0, 48, 75]), None, "that is its name");
        let mut damaged = block(&[0, 0, 0, 0xfd, 0, 48, 75, 30, 83, 17]);
        damaged[100] ^= 1;
        assert_eq!(Limits::of(&damaged), None);
        assert_eq!(Limits::of(&[]), None);
    }
}
