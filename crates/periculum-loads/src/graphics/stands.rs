//! What rounds start from and lies on the device for hours, compared with what the host has of it.

use wgpu::Buffer;

use super::gpu::{Gpu, Lost};
use crate::frame::{Fault, FaultKind};

/// The first word of a buffer that is not what was put there.
pub(super) fn changed(gpu: &Gpu, buffer: &Buffer, original: &[u32], what: &str) -> Result<Option<Fault>, Lost> {
    let now = gpu.read(buffer)?;
    let Some(place) = now.iter().zip(original).position(|(now, original)| now != original) else { return Ok(None) };
    let fault = Fault::result(format!("{:08x}", original[place]), format!("{:08x}", now[place]));
    Ok(Some(Fault { kind: FaultKind::Memory, ..fault.in_part(format!("byte {} of {what}", 4 * place)) }))
}
