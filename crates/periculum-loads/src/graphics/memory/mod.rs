//! `graphics-memory`: patterns over a share of the device's memory, every word compared where it lies.

use wgpu::{BindGroup, Buffer, ComputePipeline};

use super::device::GraphicsDevice;
use super::gpu::{Gpu, Lost, dispatch};
use super::load::{Found, GraphicsLoad, Round, Work};
use super::strike::Strike;
use crate::frame::{About, Fault, FaultKind};

const SOURCE: &str = concat!(include_str!("../mix.wgsl"), include_str!("pattern.wgsl"));

const MIB: u64 = 1 << 20;

/// A chunk is no larger than this: a kernel that writes it is done before a driver calls it hung.
const LARGEST_CHUNK: u64 = 64 * MIB;

/// Words of the notes that a check leaves: two counts, a gap, and thirty places of four words.
const NOTES: u64 = 4 + 30 * 4;

/// Kinds of patterns: addresses, mixed words, those turned round, alternating bits, one bit that walks.
const PATTERNS: u64 = 5;

/// Groups of invocations that go through a chunk.
const GROUPS: u32 = 1024;

/// The load.
pub(super) struct GraphicsMemory;

static ABOUT: About = About {
    name: "graphics-memory",
    stresses: "memory of the graphics card, and the way to it",
    size_name: "MiB",
    unit: "GB/s",
    usual_size: 64,
    sizes: (2, 1 << 20),
    adds_up: true,
};

impl GraphicsLoad for GraphicsMemory {
    fn about(&self) -> &About {
        &ABOUT
    }

    /// Half of the device's own memory: what shows pictures needs some as well.
    fn usual_size(&self, device: &GraphicsDevice) -> u64 {
        let half = (device.memory / 2 / MIB).max(ABOUT.sizes.0);
        device.kind.pick([ABOUT.usual_size, half.min(2048), half])
    }

    fn bytes(&self, size: u64) -> u64 {
        size * MIB
    }

    fn begin(&self, gpu: &Gpu, size: u64, seed: u64) -> Result<Box<dyn Work>, Lost> {
        let shader = gpu.shader(SOURCE);
        let (fill, check) = (gpu.kernel(&shader, "fill"), gpu.kernel(&shader, "check"));
        let notes = gpu.words(NOTES);
        let mut chunks = Vec::new();
        let mut first = 0;
        for bytes in chunk_sizes(size * MIB, gpu.largest()) {
            let buffer = gpu.words(bytes / 4);
            let order = gpu.numbers(&[0; 4]);
            let fill = gpu.bind(&fill, &[buffer.as_entire_binding(), order.as_entire_binding()]);
            let seen = [&buffer, &order, &notes].map(Buffer::as_entire_binding);
            let check = gpu.bind(&check, &seen);
            chunks.push(Chunk { buffer, first, order, fill, check });
            first += bytes / 4;
        }
        gpu.is_well()?;
        Ok(Box::new(Filling { fill, check, notes, chunks, seed }))
    }
}

/// Two chunks or more, so that blocks can be moved from one into another.
fn chunk_sizes(bytes: u64, largest: u64) -> Vec<u64> {
    let most = LARGEST_CHUNK.min(largest / MIB * MIB).max(MIB);
    let count = bytes.div_ceil(most).max(2);
    let whole = bytes / count / MIB * MIB;
    let spare = (bytes - whole * count) / MIB;
    (0..count).map(|nth| if nth < spare { whole + MIB } else { whole }).collect()
}

/// A part of the memory.
struct Chunk {
    buffer: Buffer,
    /// The number of its first word.
    first: u64,
    order: Buffer,
    fill: BindGroup,
    check: BindGroup,
}

/// The load at work.
struct Filling {
    fill: ComputePipeline,
    check: ComputePipeline,
    notes: Buffer,
    chunks: Vec<Chunk>,
    seed: u64,
}

/// What a look at all chunks has found.
struct Look {
    looked: u64,
    wrong: u64,
    /// Word, expected and found of the first.
    first: Option<[u32; 3]>,
}

impl Work for Filling {
    fn round(&mut self, gpu: &Gpu, round: u64, strike: &dyn Strike) -> Result<Round, Lost> {
        self.order(gpu, round);
        let mut encoder = gpu.encoder();
        for chunk in &self.chunks {
            dispatch(&mut encoder, &self.fill, &chunk.fill, [GROUPS, 1, 1]);
        }
        gpu.submit(encoder);
        let mut bytes = 2.0 * self.bytes();
        if round.is_multiple_of(PATTERNS) {
            bytes += self.move_blocks(gpu, round);
        }
        gpu.touch(strike, round, "memory", &self.chunks[0].buffer);
        let look = self.look(gpu)?;
        let fault = self.judge(gpu, &look)?;
        Ok(Round { work: bytes / 1e9, found: fault.map(Found::from).into_iter().collect() })
    }
}

impl Filling {
    fn bytes(&self) -> f64 {
        self.chunks.iter().map(|chunk| chunk.buffer.size() as f64).sum()
    }

    /// Tells every chunk which pattern it is to have.
    fn order(&self, gpu: &Gpu, round: u64) {
        let kind = (round % PATTERNS) as u32;
        let salt = (self.seed ^ round.wrapping_mul(0x9e37_79b9)) as u32;
        for chunk in &self.chunks {
            // Beyond 16 GiB the numbers of words begin anew: a chunk is told apart by what lies before it all the same.
            gpu.write(&chunk.order, &[kind, salt, chunk.first as u32, 0]);
        }
    }

    /// Moves the beginning of each chunk into the next one's, and back what was there: the last state is that of the pattern only
    /// if nothing is lost on the way. Tells the bytes read and written.
    fn move_blocks(&self, gpu: &Gpu, round: u64) -> f64 {
        let length = self.chunks.iter().map(|chunk| chunk.buffer.size()).min().unwrap_or_default() / 2;
        let spare = &self.chunks[(round as usize / PATTERNS as usize) % self.chunks.len()];
        let others: Vec<&Chunk> = self.chunks.iter().filter(|chunk| chunk.first != spare.first).collect();
        let mut encoder = gpu.encoder();
        for other in &others {
            // There and back again, through the upper half of another chunk, which is then written anew.
            encoder.copy_buffer_to_buffer(&other.buffer, 0, &spare.buffer, length, length);
            encoder.clear_buffer(&other.buffer, 0, Some(length));
            encoder.copy_buffer_to_buffer(&spare.buffer, length, &other.buffer, 0, length);
        }
        dispatch(&mut encoder, &self.fill, &spare.fill, [GROUPS, 1, 1]);
        gpu.submit(encoder);
        5.0 * length as f64 * others.len() as f64 + spare.buffer.size() as f64
    }

    fn look(&self, gpu: &Gpu) -> Result<Look, Lost> {
        let mut encoder = gpu.encoder();
        encoder.clear_buffer(&self.notes, 0, None);
        for chunk in &self.chunks {
            dispatch(&mut encoder, &self.check, &chunk.check, [GROUPS, 1, 1]);
        }
        gpu.submit(encoder);
        let notes = gpu.read(&self.notes)?;
        let first = (notes[0] > 0).then(|| [notes[4], notes[5], notes[6]]);
        Ok(Look { looked: u64::from(notes[1]), wrong: u64::from(notes[0]), first })
    }

    fn judge(&self, gpu: &Gpu, look: &Look) -> Result<Option<Fault>, Lost> {
        let quads = self.chunks.iter().map(|chunk| chunk.buffer.size() / 16).sum::<u64>();
        // Counts of words are kept in 32 bits.
        if look.looked != quads & 0xffff_ffff {
            return Ok(Some(Fault::result(
                format!("{quads} words of 16 bytes compared"),
                format!("{} of them", look.looked),
            )));
        }
        let Some([word, expected, found]) = look.first else { return Ok(None) };
        let again = self.look(gpu)?;
        let flipped: Vec<String> =
            (0..32).filter(|bit| (expected ^ found) >> bit & 1 == 1).map(|bit| bit.to_string()).collect();
        let more = if look.wrong > 1 { format!(", and {} more words", look.wrong - 1) } else { String::new() };
        Ok(Some(Fault {
            kind: FaultKind::Memory,
            part: Some(format!("byte {:#x} of what it holds, bit {}{more}", 4 * u64::from(word), flipped.join(", "))),
            expected: format!("{expected:08x}"),
            found: format!("{found:08x}"),
            repeats: Some(again.first == look.first),
        }))
    }
}
