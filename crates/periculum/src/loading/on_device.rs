//! What a load on the graphics processor is told beside what every load is.

use std::path::PathBuf;

/// What the command line of its process says.
#[cfg_attr(not(feature = "graphics"), allow(dead_code, reason = "nobody reads it without devices"))]
pub(crate) struct OnDevice {
    /// Which device; the best where nobody says.
    pub(crate) device: Option<String>,
    /// The size of its problem; 0 for its own choice.
    pub(crate) size: u64,
    /// The share of the device's memory that it fills, in hundredths.
    pub(crate) share: Option<u32>,
    /// The bytes that it fills.
    pub(crate) bytes: Option<u64>,
    /// Where wrong pictures are kept.
    pub(crate) pictures: Option<PathBuf>,
}
