//! What a load on a device is to the run.

use super::device::GraphicsDevice;
use super::gpu::{Gpu, Lost};
use super::strike::Strike;
use crate::frame::{About, Fault};

/// A kind of load on the graphics processor.
pub trait GraphicsLoad: Sync {
    /// What is to be known of it; the usual size in it is that of a device in software.
    fn about(&self) -> &About;

    /// The size where nobody says otherwise: it goes with the kind of device, so that scores of one device compare.
    fn usual_size(&self, device: &GraphicsDevice) -> u64;

    /// The nearest size that the load can have.
    fn nearest(&self, size: u64) -> u64 {
        let (smallest, largest) = self.about().sizes;
        size.clamp(smallest, largest)
    }

    /// Memory of the device that it holds at this size, bytes.
    fn bytes(&self, size: u64) -> u64;

    /// The work at this size.
    ///
    /// # Errors
    /// When the device is lost or has not so much memory.
    fn begin(&self, gpu: &Gpu, size: u64, seed: u64) -> Result<Box<dyn Work>, Lost>;

    /// The largest size whose memory is not above this many bytes, and the smallest where none is.
    fn size_for(&self, bytes: u64) -> u64 {
        let (mut below, mut above) = self.about().sizes;
        while below < above {
            let middle = below + (above - below).div_ceil(2);
            if self.bytes(middle) <= bytes {
                below = middle;
            } else {
                above = middle - 1;
            }
        }
        below
    }
}

/// The work on one device.
pub trait Work {
    /// Works one round and checks it; lets `strike` disturb what it is about to use.
    ///
    /// # Errors
    /// When the device is lost.
    fn round(&mut self, gpu: &Gpu, round: u64, strike: &dyn Strike) -> Result<Round, Lost>;
}

/// What a round has done.
#[derive(Debug, Default)]
pub struct Round {
    /// Work done, in the unit of the rate times a second.
    pub work: f64,
    /// What was wrong.
    pub found: Vec<Found>,
}

/// Something wrong in a round.
#[derive(Debug)]
pub struct Found {
    /// What, and where.
    pub fault: Fault,
    /// The wrong picture; none where it is not about a picture.
    pub picture: Option<Picture>,
}

/// A wrong picture.
#[derive(Debug)]
pub struct Picture {
    /// It, as a PNG that shows where to look.
    pub png: Vec<u8>,
    /// How many of its pixels are wrong.
    pub pixels: usize,
}

impl From<Fault> for Found {
    fn from(fault: Fault) -> Self {
        Self { fault, picture: None }
    }
}
