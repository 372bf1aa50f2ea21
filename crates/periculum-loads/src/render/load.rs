//! `render` as the frame sees it.

use std::io;

use super::scene::{Ray, Scene};
use super::vector::Vector;
use crate::digest::digest;
use crate::frame::{About, Fault, Load, Touch, Work};
use crate::kernel::Kernel;
use crate::random::Random;

/// A picture, tile by tile.
pub struct Render;

/// Pixels along a tile's side.
const TILE: usize = 16;

/// Tiles side by side and above each other.
const ACROSS: usize = 12;
const DOWN: usize = 8;

/// Numbers of a tile: three colours a pixel.
const NUMBERS: usize = TILE * TILE * 3;

struct Picture {
    kernel: Kernel,
    seed: u64,
    samples: u64,
    scene: Scene,
    /// Tile by tile, and in each pixel by pixel.
    pixels: Vec<f64>,
    digests: Vec<u64>,
}

const ABOUT: About = About {
    name: "render",
    stresses: "a mix; benchmark",
    size_name: "samples a pixel",
    unit: "Mpaths/s",
    usual_size: 4,
    sizes: (1, 1 << 16),
    adds_up: true,
};

impl Load for Render {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn bytes(&self, _: u64) -> u64 {
        8 * (ACROSS * DOWN * (NUMBERS + 1)) as u64
    }

    fn work(&self, size: u64) -> f64 {
        (size * (ACROSS * DOWN * TILE * TILE) as u64) as f64 / 1e6
    }

    fn begin(&self, kernel: Kernel, size: u64, seed: u64) -> io::Result<Box<dyn Work>> {
        let tiles = ACROSS * DOWN;
        let (pixels, digests) = (vec![0.0; tiles * NUMBERS], vec![0; tiles]);
        let kernel = kernel.now_and_then();
        Ok(Box::new(Picture { kernel, seed, samples: size, scene: Scene::new(seed), pixels, digests }))
    }
}

impl Work for Picture {
    fn restart(&mut self) {
        self.scene = Scene::new(self.seed);
    }

    fn size(&self) -> u64 {
        self.samples
    }

    fn round(&mut self, touch: &mut Touch) -> Option<Fault> {
        for tile in 0..self.digests.len() {
            let pixels = &mut self.pixels[tile * NUMBERS..][..NUMBERS];
            draw(&self.scene, tile, self.samples, self.seed, pixels);
            self.digests[tile] = digest(self.kernel, pixels, 0);
        }
        touch.at("picture", &mut self.pixels);
        // What the picture became after it was made counts too.
        for (digest_of, tile) in self.digests.iter_mut().zip(self.pixels.chunks_exact(NUMBERS)) {
            *digest_of = digest(self.kernel, tile, *digest_of);
        }
        None
    }

    fn digests(&self) -> &[u64] {
        &self.digests
    }

    fn digests_mut(&mut self) -> &mut [u64] {
        &mut self.digests
    }

    fn part(&self, index: usize) -> String {
        format!("tile {}, {}", index % ACROSS + 1, index / ACROSS + 1)
    }
}

/// Never laid into the rest, so that what checks cost is not what the compiler makes of other code around it.
#[inline(never)]
fn draw(scene: &Scene, tile: usize, samples: u64, seed: u64, pixels: &mut [f64]) {
    for (index, pixel) in pixels.chunks_exact_mut(3).enumerate() {
        let column = tile % ACROSS * TILE + index % TILE;
        let row = tile / ACROSS * TILE + index / TILE;
        let Vector(red, green, blue) = pixel_light(scene, (column, row), samples, seed);
        pixel.copy_from_slice(&[red, green, blue]);
    }
}

fn pixel_light(scene: &Scene, (column, row): (usize, usize), samples: u64, seed: u64) -> Vector {
    let mut random = Random::new(seed ^ ((row as u64) << 32 | (column as u64) << 8));
    let mut sum = Vector(0.0, 0.0, 0.0);
    for _ in 0..samples {
        let x = (column as f64 + random.unit()) / (ACROSS * TILE) as f64 - 0.5;
        let y = 0.5 - (row as f64 + random.unit()) / (DOWN * TILE) as f64;
        let along = Vector(1.5 * x, y - 0.1, 1.0).unit();
        sum = sum + scene.light(Ray { from: Vector(0.0, 1.2, -1.0), along }, &mut random);
    }
    sum * (1.0 / samples as f64)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::frame::NoDisturbance;

    /// The picture's tiles are pinned: a change of them makes scores of before and after incomparable.
    #[test]
    fn the_picture_is_the_known_one() {
        let mut picture = Render.begin(Kernel::Portable, 1, 1).expect("memory");
        picture.restart();
        picture.round(&mut Touch::of(&NoDisturbance, 0, 1));
        let known = picture.digests().iter().fold(0u64, |all, digest| all.rotate_left(1) ^ digest);
        assert_eq!(format!("{known:016x}"), "f39dd5e84baa2104");
    }

    #[test]
    fn there_is_light_and_shade() {
        let scene = Scene::new(1);
        let light = |column, row| pixel_light(&scene, (column, row), 64, 1);
        let (sky, ground) = (light(96, 2), light(96, 120));
        assert!(sky.2 > 0.3 && ground.1 > 0.01 && ground.1 < sky.2, "{sky:?} {ground:?}");
    }
}
