//! `graphics-compute`: dense products and chains of multiply-adds whose bits are known.

mod chain;
mod product;

use std::collections::VecDeque;

pub(super) use chain::{Chain, Link};
use product::{Product, TILE};

use super::device::GraphicsDevice;
use super::digests::{Awaited, Digests, Known};
use super::gpu::{Gpu, Lost};
use super::load::{Found, GraphicsLoad, Round, Work};
use super::strike::Strike;
use crate::frame::{About, Fault};

/// Steps of the chains that keep a device at work for long, and of those after which it has to begin anew.
const LONG: u32 = 16_384;
const SHORT: u32 = 64;

/// How many short ones follow a long one.
const SHORTS: u32 = 4;

/// So many rounds are under way at a time: while the host looks at one, the device works on the next.
const UNDER_WAY: usize = 2;

/// The load.
pub(super) struct Compute;

static ABOUT: About = About {
    name: "graphics-compute",
    stresses: "multiply-add units of the graphics processor",
    size_name: "rows",
    unit: "GFLOP/s",
    usual_size: 128,
    sizes: (TILE, 8192),
    adds_up: true,
};

impl GraphicsLoad for Compute {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn usual_size(&self, device: &GraphicsDevice) -> u64 {
        device.kind.pick([ABOUT.usual_size, 1024, 2048])
    }

    fn nearest(&self, size: u64) -> u64 {
        let (smallest, largest) = ABOUT.sizes;
        (size / TILE * TILE).clamp(smallest, largest)
    }

    fn bytes(&self, size: u64) -> u64 {
        product::bytes(size) + chain::bytes()
    }

    fn begin(&self, gpu: &Gpu, size: u64, seed: u64) -> Result<Box<dyn Work>, Lost> {
        let tiles = (size / TILE).pow(2);
        let groups = chain_groups(size);
        let digests = Digests::new(gpu, tiles + u64::from(groups) * u64::from(SHORTS + 1));
        let product = Product::new(gpu, size, seed, digests.buffer());
        let link = |nth: u32| Link {
            first: tiles as u32 + nth * groups,
            steps: if nth == 0 { LONG } else { SHORT },
            seed: seed as u32 ^ nth,
        };
        let links: Vec<Link> = (0..=SHORTS).map(link).collect();
        let chain = Chain::new(gpu, seed, groups, &links, digests.buffer());
        gpu.is_well()?;
        Ok(Box::new(Computing {
            tiles: tiles as usize,
            product,
            chain,
            digests,
            known: None,
            under_way: VecDeque::new(),
        }))
    }
}

/// No dispatch has more groups than this (WebGPU, `maxComputeWorkgroupsPerDimension`).
const MOST_GROUPS: u64 = 65_535;

/// Groups of invocations that run a chain beside each other: a number that goes with the size, so that a large device is full.
fn chain_groups(size: u64) -> u32 {
    (size * size / 512).clamp(8, MOST_GROUPS) as u32
}

/// The load at work.
struct Computing {
    /// How many tiles the product has: their digests come first.
    tiles: usize,
    product: Product,
    chain: Chain,
    digests: Digests,
    known: Option<Known>,
    under_way: VecDeque<Awaited>,
}

impl Work for Computing {
    fn round(&mut self, gpu: &Gpu, round: u64, strike: &dyn Strike) -> Result<Round, Lost> {
        gpu.touch(strike, round, "factors", self.chain.factors());
        gpu.touch(strike, round, "product", self.product.operand());
        if self.known.is_none() {
            return self.first(gpu);
        }
        while self.under_way.len() < UNDER_WAY {
            let sent = self.send(gpu, (round, strike));
            self.under_way.push_back(sent);
        }
        let found = self.under_way.pop_front().map_or(Ok(Vec::new()), |awaited| self.digests.take(gpu, awaited))?;
        let fault = self.judge(gpu, &found)?;
        Ok(Round { work: self.work(), found: fault.map(Found::from).into_iter().collect() })
    }
}

impl Computing {
    /// Billions of operations in a round: a fused multiply-add is two.
    fn work(&self) -> f64 {
        (self.product.operations() + self.chain.operations()) / 1e9
    }

    fn send(&mut self, gpu: &Gpu, (round, strike): (u64, &dyn Strike)) -> Awaited {
        let mut encoder = gpu.encoder();
        self.digests.forget(&mut encoder);
        self.product.encode(&mut encoder);
        (0..=SHORTS).for_each(|link| self.chain.encode(&mut encoder, link as usize));
        gpu.submit(encoder);
        gpu.touch(strike, round, "digests", self.digests.buffer());
        self.digests.submit(gpu, gpu.encoder())
    }

    /// The first round is worked twice from scratch, and its product proven by whole numbers on the host.
    fn first(&mut self, gpu: &Gpu) -> Result<Round, Lost> {
        let mut once = || {
            self.restart(gpu);
            let sent = self.send(gpu, (0, &super::NoStrike));
            self.digests.take(gpu, sent)
        };
        let known = Known::new(once()?);
        let again = once()?;
        let work = 2.0 * self.work();
        let fault = match known.differ(0, &again).first() {
            Some(place) => Some(self.differs(known.of(*place), again[*place], *place)),
            None => self.product.proven(gpu)?,
        };
        self.known = fault.is_none().then_some(known);
        Ok(Round { work, found: fault.map(Found::from).into_iter().collect() })
    }

    /// Whether a round's digests are right; where they are not, everything that rounds start from is made anew.
    fn judge(&mut self, gpu: &Gpu, found: &[u64]) -> Result<Option<Fault>, Lost> {
        let Some(known) = self.known.take_if(|known| known.is_whole()) else {
            return Ok(Some(Fault::of_reference("what rounds are compared with")));
        };
        let wrong = known.differ(0, found);
        let Some(first) = wrong.first() else {
            self.known = Some(known);
            return Ok(None);
        };
        let fault = self.differs(known.of(*first), found.get(*first).copied().unwrap_or_default(), *first);
        let fault = match wrong.len() {
            1 => fault,
            more => Fault { part: fault.part.map(|part| format!("{part} and {} more", more - 1)), ..fault },
        };
        let started_from = self.changed(gpu)?;
        // What is still under way started from the same.
        for awaited in std::mem::take(&mut self.under_way) {
            self.digests.take(gpu, awaited)?;
        }
        self.restart(gpu);
        self.known = Some(known);
        Ok(Some(started_from.unwrap_or(fault)))
    }

    fn differs(&self, expected: u64, found: u64, place: usize) -> Fault {
        let part = match place.checked_sub(self.tiles) {
            None => self.product.part(place),
            Some(place) => self.chain.part(place),
        };
        let of = |digest: u64| if digest == 0 { "none was made".into() } else { format!("digest {digest:016x}") };
        Fault::result(of(expected), of(found)).in_part(part)
    }

    fn restart(&self, gpu: &Gpu) {
        self.product.restart(gpu);
        self.chain.restart(gpu);
    }

    /// Whether what rounds start from is no longer what it was.
    fn changed(&self, gpu: &Gpu) -> Result<Option<Fault>, Lost> {
        Ok(self.product.changed(gpu)?.or(self.chain.changed(gpu)?))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn no_size_has_more_groups_than_a_dispatch_may() {
        assert_eq!((chain_groups(TILE), chain_groups(2048)), (8, 8192));
        assert_eq!(u64::from(chain_groups(ABOUT.sizes.1)), MOST_GROUPS);
    }
}
