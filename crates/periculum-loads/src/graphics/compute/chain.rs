//! Chains of fused multiply-adds in registers.

use wgpu::{BindGroup, Buffer, CommandEncoder, ComputePipeline};

use crate::frame::Fault;
use crate::graphics::gpu::{Gpu, Lost, dispatch};
use crate::graphics::stands::changed;
use crate::random::Random;

const SOURCE: &str = concat!(include_str!("../mix.wgsl"), include_str!("chain.wgsl"));

/// Numbers that the chains choose theirs from: as bits of floats from ½ to 1, four at a time.
const FACTORS: usize = 4 * 4096;

/// Invocations of a group, and numbers that each keeps going.
const LANES: f64 = 64.0;
const NUMBERS: f64 = 16.0;

/// One dispatch of chains.
#[derive(Clone, Copy, Debug)]
pub(in crate::graphics) struct Link {
    /// The place of its first digest.
    pub(in crate::graphics) first: u32,
    /// How many multiply-adds follow each other.
    pub(in crate::graphics) steps: u32,
    /// Which of the factors it takes.
    pub(in crate::graphics) seed: u32,
}

/// The chains of a load.
pub(in crate::graphics) struct Chain {
    kernel: ComputePipeline,
    factors: Buffer,
    original: Vec<u32>,
    groups: u32,
    links: Vec<(Link, BindGroup)>,
}

/// Memory that it holds on the device, bytes.
pub(super) fn bytes() -> u64 {
    FACTORS as u64 * 4
}

impl Chain {
    pub(in crate::graphics) fn new(gpu: &Gpu, seed: u64, groups: u32, links: &[Link], digests: &Buffer) -> Self {
        let kernel = gpu.kernel(&gpu.shader(SOURCE), "chain");
        let mut random = Random::new(seed);
        let original: Vec<u32> = (0..FACTORS).map(|_| (0.5 + random.unit() as f32 / 2.0).to_bits()).collect();
        let factors = gpu.filled(&original);
        let seen = |link: &Link| {
            let order = gpu.numbers(&[link.seed, link.steps, link.first, 0]);
            let what = [factors.as_entire_binding(), digests.as_entire_binding(), order.as_entire_binding()];
            (*link, gpu.bind(&kernel, &what))
        };
        let links = links.iter().map(seen).collect();
        Self { kernel, factors, original, groups, links }
    }

    pub(in crate::graphics) fn factors(&self) -> &Buffer {
        &self.factors
    }

    pub(in crate::graphics) fn encode(&self, encoder: &mut CommandEncoder, link: usize) {
        dispatch(encoder, &self.kernel, &self.links[link].1, [self.groups, 1, 1]);
    }

    /// Operations of all links together: a fused multiply-add is two.
    pub(in crate::graphics) fn operations(&self) -> f64 {
        let steps: f64 = self.links.iter().map(|(link, _)| f64::from(link.steps)).sum();
        steps * f64::from(self.groups) * LANES * NUMBERS * 2.0
    }

    pub(in crate::graphics) fn restart(&self, gpu: &Gpu) {
        gpu.write(&self.factors, &self.original);
    }

    pub(in crate::graphics) fn changed(&self, gpu: &Gpu) -> Result<Option<Fault>, Lost> {
        changed(gpu, &self.factors, &self.original, "the factors of the chains")
    }

    /// What the digest at this place, from the first of all links on, is of.
    pub(in crate::graphics) fn part(&self, place: usize) -> String {
        let (link, group) = (place / self.groups as usize, place % self.groups as usize);
        let steps = self.links.get(link).map_or(0, |(link, _)| link.steps);
        format!("work group {group}, a chain of {steps} steps")
    }
}
