//! `graphics-swing`: full load and rest in turns of random lengths, for the supply of a card.

use std::thread::sleep;
use std::time::{Duration, Instant};

use super::compute::{Chain, Link};
use super::device::GraphicsDevice;
use super::digests::{Digests, Known};
use super::gpu::{Gpu, Lost};
use super::load::{Found, GraphicsLoad, Round, Work};
use super::strike::Strike;
use crate::frame::{About, Fault};
use crate::random::Random;

/// Steps of one chain: little work, so that a burst ends when it is to.
const STEPS: u32 = 256;

/// Bursts and rests are as often between 1 and 10 ms as between 10 and 100, or 100 and 1000.
const SHORTEST: f64 = 0.001;
const DECADES: f64 = 3.0;

/// The load.
pub(super) struct GraphicsSwing;

static ABOUT: About = About {
    name: "graphics-swing",
    stresses: "power delivery of the graphics card: load and rest in turns from 1 ms to 1 s",
    size_name: "work groups",
    unit: "GFLOP/s",
    usual_size: 64,
    sizes: (8, 65_535),
    adds_up: true,
};

impl GraphicsLoad for GraphicsSwing {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn usual_size(&self, device: &GraphicsDevice) -> u64 {
        device.kind.pick([ABOUT.usual_size, 2048, 8192])
    }

    fn bytes(&self, _size: u64) -> u64 {
        1 << 20
    }

    fn begin(&self, gpu: &Gpu, size: u64, seed: u64) -> Result<Box<dyn Work>, Lost> {
        let digests = Digests::new(gpu, size);
        let link = Link { first: 0, steps: STEPS, seed: seed as u32 };
        let chain = Chain::new(gpu, seed, size as u32, &[link], digests.buffer());
        gpu.is_well()?;
        Ok(Box::new(Swinging { chain, digests, known: None, random: Random::new(seed) }))
    }
}

/// The load at work.
struct Swinging {
    chain: Chain,
    digests: Digests,
    known: Option<Known>,
    random: Random,
}

impl Work for Swinging {
    fn round(&mut self, gpu: &Gpu, round: u64, strike: &dyn Strike) -> Result<Round, Lost> {
        gpu.touch(strike, round, "factors", self.chain.factors());
        let (burst, rest) = (self.length(), self.length());
        let began = Instant::now();
        let mut done = Round::default();
        while done.found.is_empty() && (done.work == 0.0 || began.elapsed() < burst) {
            let found = self.once(gpu)?;
            done.work += self.chain.operations() / 1e9;
            done.found = self.judge(gpu, &found)?.map(Found::from).into_iter().collect();
        }
        sleep(rest);
        Ok(done)
    }
}

impl Swinging {
    fn length(&mut self) -> Duration {
        Duration::from_secs_f64(SHORTEST * 10f64.powf(DECADES * self.random.unit()))
    }

    fn once(&mut self, gpu: &Gpu) -> Result<Vec<u64>, Lost> {
        let mut encoder = gpu.encoder();
        self.digests.forget(&mut encoder);
        self.chain.encode(&mut encoder, 0);
        let sent = self.digests.submit(gpu, encoder);
        self.digests.take(gpu, sent)
    }

    fn judge(&mut self, gpu: &Gpu, found: &[u64]) -> Result<Option<Fault>, Lost> {
        let Some(known) = &self.known else {
            self.chain.restart(gpu);
            let again = Known::new(self.once(gpu)?);
            let place = again.differ(0, found).first().copied();
            let fault = place.map(|place| differs(&self.chain, place, (again.of(place), found[place])));
            self.known = fault.is_none().then_some(again);
            return Ok(fault);
        };
        if !known.is_whole() {
            self.known = None;
            return Ok(Some(Fault::of_reference("what bursts are compared with")));
        }
        let Some(place) = known.differ(0, found).first().copied() else { return Ok(None) };
        let fault = differs(&self.chain, place, (known.of(place), found[place]));
        let started_from = self.chain.changed(gpu)?;
        self.chain.restart(gpu);
        // Who was wrong may be the reference: it is found anew.
        self.known = None;
        Ok(Some(started_from.unwrap_or(fault)))
    }
}

fn differs(chain: &Chain, place: usize, (expected, found): (u64, u64)) -> Fault {
    let of = |digest: u64| format!("digest {digest:016x}");
    Fault::result(of(expected), of(found)).in_part(chain.part(place))
}
