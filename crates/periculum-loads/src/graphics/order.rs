//! What is to be run on a device.

use std::path::PathBuf;
use std::time::Duration;

use crate::frame::Stop;

/// How large a problem a load works on.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Extent {
    /// The load's own choice on this device.
    Usual,
    /// This size, in the load's own measure.
    Size(u64),
    /// As large as fits into this share of the device's memory, in hundredths.
    Share(u32),
    /// As large as fits into so many bytes.
    Bytes(u64),
}

/// What a load is to do.
#[derive(Clone, Debug)]
pub struct GraphicsOrder {
    /// The device, by the name of its card, its number or a part of its own name; the best one where nobody says.
    pub device: Option<String>,
    /// How large the problem is.
    pub extent: Extent,
    /// How long to work, warm-up included.
    pub length: Duration,
    /// How many rounds at most; without a number as many as there is time for.
    pub times: Option<u64>,
    /// How long the first, light part is.
    pub warm_up: Duration,
    /// Which problem is worked on.
    pub seed: u64,
    /// When to end before the time is over.
    pub stop: Stop,
    /// The folder in which wrong pictures are kept; none are kept where there is none.
    pub pictures: Option<PathBuf>,
}
