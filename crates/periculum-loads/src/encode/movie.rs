//! The moving picture: a sky that drifts, stars on it, a dome that turns, and noise as a camera has it.

use crate::random::Random;

/// Pixels across and down, whole macroblocks of 16.
pub(super) const WIDTH: usize = 320;
pub(super) const HEIGHT: usize = 192;

/// A picture in shades of grey, row by row.
pub(super) type Picture = Vec<u8>;

/// Draws a frame of the movie that this seed stands for.
pub(super) fn draw(frame: usize, seed: u64, picture: &mut [u8]) {
    let mut noise = Random::new(seed ^ (frame as u64) << 40);
    for (row, pixels) in picture.chunks_exact_mut(WIDTH).enumerate() {
        for (column, pixel) in pixels.iter_mut().enumerate() {
            let (x, y) = (column + 2 * frame, row + frame / 2);
            let sky = 40 + row / 3 + (x * 7 + y * 3) % 32;
            // A star where a hash of the drifting place says so.
            let hash = (x as u64 ^ (y as u64) << 16).wrapping_mul(0x9e37_79b9_7f4a_7c15) >> 54;
            let star = if hash == 0 { 110 } else { 0 };
            let shade = dome(column, row, frame).unwrap_or(sky + star);
            *pixel = (shade + noise.below(5) as usize).min(255) as u8;
        }
    }
}

/// The shade of the dome, striped like its slats, where it stands.
fn dome(column: usize, row: usize, frame: usize) -> Option<usize> {
    let (x, y) = (column.abs_diff(WIDTH / 2), HEIGHT - row);
    let is_inside = x * x + y * y < 110 * 110;
    is_inside.then(|| 150 + (column + 5 * frame) % 40 + y / 4)
}
