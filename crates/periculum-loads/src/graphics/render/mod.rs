//! `graphics-render`: a made-up scene, drawn picture by picture, each compared tile by tile.

mod canvas;

use std::collections::VecDeque;

use wgpu::Buffer;

use canvas::{ACROSS, COUNT, Canvas, HEIGHT, Painter, TILE, WIDTH};

use super::device::GraphicsDevice;
use super::digests::{Awaited, Digests, Known};
use super::gpu::{Gpu, Lost};
use super::load::{Found, GraphicsLoad, Picture, Round, Work};
use super::picture::{Compared, compare};
use super::stands::changed;
use super::strike::Strike;
use crate::frame::{About, Fault, FaultKind};
use crate::random::Random;

/// Pictures of a turn, after which it begins anew.
const TURN: u32 = 12;

/// Pictures of a round, and rounds that are under way at a time: while the host looks at one, the device draws the next.
const BATCH: u32 = 3;
const UNDER_WAY: u32 = 2;

/// Words of the grain that all surfaces are made of.
const GRAIN: usize = 1 << 10;

/// The load.
pub(super) struct GraphicsRender;

static ABOUT: About = About {
    name: "graphics-render",
    stresses: "raster and shader units of the graphics processor",
    size_name: "ridges",
    unit: "frames/s",
    usual_size: 8,
    sizes: (4, 4096),
    adds_up: true,
};

impl GraphicsLoad for GraphicsRender {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn usual_size(&self, device: &GraphicsDevice) -> u64 {
        device.kind.pick([ABOUT.usual_size, 64, 512])
    }

    fn bytes(&self, _size: u64) -> u64 {
        // A picture has its traces beside it, and one depth serves all.
        let planes = 2 * (u64::from(BATCH * UNDER_WAY) + 1) + 1;
        planes * u64::from(WIDTH * HEIGHT) * 4 + 4 * GRAIN as u64
    }

    fn begin(&self, gpu: &Gpu, size: u64, seed: u64) -> Result<Box<dyn Work>, Lost> {
        let painter = Painter::new(gpu);
        let mut random = Random::new(seed);
        let original: Vec<u32> = (0..GRAIN).map(|_| random.word() as u32).collect();
        let grain = gpu.filled(&original);
        let digests = Digests::new(gpu, u64::from(BATCH) * COUNT as u64);
        let canvas = |place: u32| painter.canvas(gpu, &grain, (digests.buffer(), place * COUNT as u32));
        let canvases = (0..UNDER_WAY * BATCH).map(|nth| canvas(nth % BATCH)).collect();
        let spare = canvas(0);
        gpu.is_well()?;
        Ok(Box::new(Rendering {
            ridges: size as u32,
            seed: seed as u32,
            painter,
            grain,
            original,
            digests,
            canvases,
            spare,
            known: None,
            learnt: Vec::new(),
            next: 0,
            under_way: VecDeque::new(),
        }))
    }
}

/// The load at work.
struct Rendering {
    ridges: u32,
    seed: u32,
    painter: Painter,
    grain: Buffer,
    original: Vec<u32>,
    digests: Digests,
    /// The pictures of all rounds that are under way.
    canvases: Vec<Canvas>,
    /// Where a picture is drawn once more that was wrong.
    spare: Canvas,
    known: Option<Known>,
    /// The digests of a turn that is drawn twice, as far as it has come.
    learnt: Vec<u64>,
    /// The number of the next picture, from 0.
    next: u64,
    under_way: VecDeque<Batch>,
}

/// Pictures that are being drawn.
struct Batch {
    /// The number of the first.
    first: u64,
    awaited: Awaited,
}

impl Work for Rendering {
    fn round(&mut self, gpu: &Gpu, round: u64, strike: &dyn Strike) -> Result<Round, Lost> {
        gpu.touch(strike, round, "grain", &self.grain);
        if self.known.is_none() {
            return self.learn(gpu);
        }
        while self.under_way.len() < UNDER_WAY as usize {
            let batch = self.send(gpu, (round, strike))?;
            self.under_way.push_back(batch);
        }
        let Some(batch) = self.under_way.pop_front() else { return Ok(Round::default()) };
        let digests = self.digests.take(gpu, batch.awaited)?;
        let found = self.judge(gpu, batch.first, &digests)?;
        Ok(Round { work: f64::from(BATCH), found: found.into_iter().collect() })
    }
}

/// Which picture of the turn this one is.
fn in_turn(number: u64) -> u32 {
    (number % u64::from(TURN)) as u32
}

impl Rendering {
    /// The pictures of this number and those behind it are drawn on these.
    fn canvas(&self, number: u64) -> &Canvas {
        &self.canvases[(number % self.canvases.len() as u64) as usize]
    }

    fn send(&mut self, gpu: &Gpu, (round, strike): (u64, &dyn Strike)) -> Result<Batch, Lost> {
        let first = self.next;
        self.next += u64::from(BATCH);
        let mut encoder = gpu.encoder();
        self.digests.forget(&mut encoder);
        for number in first..self.next {
            let canvas = self.canvas(number);
            canvas.order(gpu, in_turn(number), self.ridges, self.seed);
            self.painter.draw(&mut encoder, canvas, self.ridges);
        }
        gpu.submit(encoder);
        self.canvas(first).touch(gpu, strike, round)?;
        let mut encoder = gpu.encoder();
        (first..self.next).for_each(|number| self.painter.digest(&mut encoder, self.canvas(number)));
        gpu.submit(encoder);
        gpu.touch(strike, round, "digests", self.digests.buffer());
        Ok(Batch { first, awaited: self.digests.submit(gpu, gpu.encoder()) })
    }

    /// Draws a turn twice from scratch, some pictures a round: what was the same both times is how it is to be.
    fn learn(&mut self, gpu: &Gpu) -> Result<Round, Lost> {
        let turn = TURN as usize * COUNT;
        if self.learnt.len().is_multiple_of(turn) {
            gpu.write(&self.grain, &self.original);
            self.next = 0;
        }
        let batch = self.send(gpu, (0, &super::NoStrike))?;
        let digests = self.digests.take(gpu, batch.awaited)?;
        self.learnt.extend_from_slice(&digests[..BATCH as usize * COUNT]);
        let mut round = Round { work: f64::from(BATCH), found: Vec::new() };
        if self.learnt.len() < 2 * turn {
            return Ok(round);
        }
        let again = self.learnt.split_off(turn);
        let known = Known::new(std::mem::take(&mut self.learnt));
        match known.differ(0, &again).first() {
            None => self.known = Some(known),
            Some(place) => {
                let of = |digest: u64| format!("digest {digest:016x}");
                let part = format!("frame {}, {}, drawn twice", place / COUNT + 1, tile(place % COUNT));
                round.found.push(artefact(of(known.of(*place)), of(again[*place]), part).into());
            }
        }
        Ok(round)
    }

    /// Whether the pictures of a round are right.
    fn judge(&mut self, gpu: &Gpu, first: u64, found: &[u64]) -> Result<Option<Found>, Lost> {
        let Some(known) = self.known.take_if(|known| known.is_whole()) else {
            return Ok(Some(Fault::of_reference("what frames are compared with").into()));
        };
        let wrong = (first..).zip(found.chunks_exact(COUNT)).find_map(|(number, digests)| {
            let tiles = known.differ(in_turn(number) as usize * COUNT, digests);
            let tiles: Vec<usize> = tiles.into_iter().map(|place| place % COUNT).collect();
            (!tiles.is_empty()).then_some((number, tiles))
        });
        let found = wrong.map(|(number, tiles)| self.tell(gpu, &known, number, &tiles)).transpose();
        self.known = Some(known);
        found
    }

    /// What is wrong with a picture: it is drawn once more, and pixels are compared with what that gives.
    fn tell(&mut self, gpu: &Gpu, known: &Known, number: u64, tiles: &[usize]) -> Result<Found, Lost> {
        if let Some(fault) = changed(gpu, &self.grain, &self.original, "the scene's grain")? {
            self.start_anew(gpu)?;
            return Ok(fault.into());
        }
        let right = self.again(gpu, in_turn(number))?;
        let is_right = known.differ(in_turn(number) as usize * COUNT, &right).is_empty();
        let Compared { pixels, png } =
            compare(&self.canvas(number).pixels(gpu)?, &self.spare.pixels(gpu)?, (WIDTH, HEIGHT));
        self.start_anew(gpu)?;
        let tiles = match tiles {
            [one] => tile(*one),
            [one, more @ ..] => format!("{} and {} more", tile(*one), more.len()),
            [] => String::new(),
        };
        let part = format!("frame {}, {tiles}", number + 1);
        let mut fault = artefact(
            "the picture as it was drawn twice",
            match pixels {
                // What was drawn over was wrong, or what rounding hides, or the digest itself.
                0 => "another digest of the same colours".into(),
                1 => "1 pixel of another colour".into(),
                pixels => format!("{pixels} pixels of other colours"),
            },
            part,
        );
        fault.repeats = Some(!is_right);
        Ok(Found { fault, picture: (pixels > 0).then_some(Picture { png, pixels }) })
    }

    /// Draws a picture of the turn on the spare canvas; tells its digests.
    fn again(&mut self, gpu: &Gpu, frame: u32) -> Result<Vec<u64>, Lost> {
        let mut encoder = gpu.encoder();
        self.digests.forget(&mut encoder);
        self.spare.order(gpu, frame, self.ridges, self.seed);
        self.painter.draw(&mut encoder, &self.spare, self.ridges);
        self.painter.digest(&mut encoder, &self.spare);
        let sent = self.digests.submit(gpu, encoder);
        let mut digests = self.digests.take(gpu, sent)?;
        digests.truncate(COUNT);
        Ok(digests)
    }

    /// What follows an error starts from the seed.
    fn start_anew(&mut self, gpu: &Gpu) -> Result<(), Lost> {
        for batch in std::mem::take(&mut self.under_way) {
            self.digests.take(gpu, batch.awaited)?;
        }
        self.next = self.next.next_multiple_of(u64::from(TURN));
        gpu.write(&self.grain, &self.original);
        Ok(())
    }
}

fn artefact(expected: impl Into<String>, found: impl Into<String>, part: String) -> Fault {
    Fault { kind: FaultKind::Artefact, ..Fault::result(expected, found).in_part(part) }
}

/// A tile as people find it: its column and row, and its pixels.
fn tile(nth: usize) -> String {
    let (x, y) = (nth as u32 % ACROSS, nth as u32 / ACROSS);
    format!("tile {}, {} (pixels from {}, {})", x + 1, y + 1, x * TILE, y * TILE)
}
