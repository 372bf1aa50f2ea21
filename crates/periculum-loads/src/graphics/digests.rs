//! Digests of what a device has made, compared on the host: who is tested is no judge of itself.

use wgpu::{Buffer, CommandEncoder, MapMode, SubmissionIndex};

use super::gpu::{Gpu, Lost};
use crate::digest::{IS_CHECKED, seal};

/// The digests that the kernels of a round write, and the way to the host.
pub(super) struct Digests {
    found: Buffer,
    spare: Vec<Buffer>,
}

/// Digests that are on their way.
pub(super) struct Awaited {
    landing: Buffer,
    submission: SubmissionIndex,
}

impl Digests {
    /// Room for so many digests.
    pub(super) fn new(gpu: &Gpu, count: u64) -> Self {
        Self { found: gpu.words(2 * count), spare: Vec::new() }
    }

    /// Where kernels write them.
    pub(super) fn buffer(&self) -> &Buffer {
        &self.found
    }

    /// Forgets those of the last round, so that one that is not made is none.
    pub(super) fn forget(&self, encoder: &mut CommandEncoder) {
        encoder.clear_buffer(&self.found, 0, None);
    }

    /// Gives work to the device, and sends its digests on their way.
    pub(super) fn submit(&mut self, gpu: &Gpu, mut encoder: CommandEncoder) -> Awaited {
        let landing = self.spare.pop().unwrap_or_else(|| gpu.landing(self.found.size()));
        encoder.copy_buffer_to_buffer(&self.found, 0, &landing, 0, self.found.size());
        let submission = gpu.submit(encoder);
        landing.map_async(MapMode::Read, .., drop);
        Awaited { landing, submission }
    }

    /// Waits for digests.
    ///
    /// # Errors
    /// When the device is gone.
    pub(super) fn take(&mut self, gpu: &Gpu, awaited: Awaited) -> Result<Vec<u64>, Lost> {
        gpu.wait(Some(awaited.submission))?;
        let words = gpu.landed(&awaited.landing)?;
        self.spare.push(awaited.landing);
        Ok(words.chunks_exact(2).map(|pair| u64::from(pair[0]) << 32 | u64::from(pair[1])).collect())
    }
}

/// Digests that a device has found twice from scratch.
#[derive(Debug)]
pub(super) struct Known {
    digests: Vec<u64>,
    /// A digest of the digests: what stands in memory for hours may change there.
    seal: u64,
}

impl Known {
    pub(super) fn new(digests: Vec<u64>) -> Self {
        Self { seal: seal(&digests), digests }
    }

    /// Whether they are what they were.
    pub(super) fn is_whole(&self) -> bool {
        seal(&self.digests) == self.seal
    }

    /// The digest of this place.
    pub(super) fn of(&self, place: usize) -> u64 {
        self.digests.get(place).copied().unwrap_or_default()
    }

    /// The places from this one on in which these differ.
    pub(super) fn differ(&self, first: usize, found: &[u64]) -> Vec<usize> {
        if !IS_CHECKED {
            return Vec::new();
        }
        let known = self.digests.get(first..first + found.len()).unwrap_or_default();
        if known.len() != found.len() {
            return (first..first + found.len()).collect();
        }
        known.iter().zip(found).zip(first..).filter(|((known, found), _)| known != found).map(|(_, at)| at).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn places_that_differ_are_named_and_a_changed_reference_is_known() {
        let mut known = Known::new(vec![1, 2, 3, 4]);
        assert!(known.differ(0, &[1, 2, 3, 4]).is_empty());
        assert_eq!(known.differ(2, &[3, 5]), [3]);
        assert_eq!(known.differ(3, &[4, 5]), [3, 4], "what is beyond it is never right");
        assert!(known.is_whole());
        known.digests[1] = 7;
        assert!(!known.is_whole());
    }
}
