//! Frames as bits and back: each macroblock is looked for in the frame before, and what is left is transformed,
//! rounded and written by an adaptive coder (the hybrid coder of the open standards since ITU-T H.261, 1990).

use super::movie::{HEIGHT, Picture, WIDTH};
use super::square::{SIDE, Square, diagonals, forward, inverse};
use crate::coding::{Count, Decoder, Encoder};

/// Pixels along a macroblock's side.
const BLOCK: usize = 16;

/// How far a macroblock is looked for, in pixels each way.
const REACH: i32 = 6;

/// What coefficients are divided by.
const QUANTUM: i32 = 12;

/// What both sides know: the frame before as it was decoded, and what they have learnt.
pub(super) struct Codec {
    before: Picture,
    current: Picture,
    motion: [Count; 2],
    last: Count,
    levels: [Count; 3],
    order: [usize; SIDE * SIDE],
}

impl Codec {
    /// A codec before its first frame.
    pub(super) fn new() -> Self {
        Self::in_memory(Picture::new(), Picture::new())
    }

    /// Forgets all frames, and keeps its memory.
    pub(super) fn renew(&mut self) {
        *self = Self::in_memory(std::mem::take(&mut self.before), std::mem::take(&mut self.current));
    }

    /// Before the first frame, all is grey.
    fn in_memory(mut before: Picture, mut current: Picture) -> Self {
        for picture in [&mut before, &mut current] {
            picture.clear();
            picture.resize(WIDTH * HEIGHT, 128);
        }
        Self {
            before,
            current,
            motion: [Count::new(), Count::new()],
            last: Count::new(),
            levels: std::array::from_fn(|_| Count::new()),
            order: diagonals(),
        }
    }

    /// Writes a frame into this memory.
    pub(super) fn encode(&mut self, frame: &[u8], bytes: Vec<u8>) -> Vec<u8> {
        let mut encoder = Encoder::new(bytes);
        for (left, top) in macroblocks() {
            let (across, down) = self.search(frame, left, top);
            self.motion[0].write(&mut encoder, folded(across));
            self.motion[1].write(&mut encoder, folded(down));
            for (x, y) in squares(left, top) {
                let predicted = self.predicted(x, y, (across, down));
                let mut square = [0; SIDE * SIDE];
                for (index, (rest, predicted)) in square.iter_mut().zip(predicted).enumerate() {
                    *rest = i32::from(frame[(y + index / SIDE) * WIDTH + x + index % SIDE]) - predicted;
                }
                let levels = forward(&square).map(|coefficient| (coefficient + QUANTUM / 2).div_euclid(QUANTUM));
                self.write(&mut encoder, &levels);
                self.reconstruct(x, y, &predicted, &levels);
            }
        }
        std::mem::swap(&mut self.before, &mut self.current);
        encoder.finish()
    }

    /// Reads a frame; says whether the bits can be a frame.
    pub(super) fn decode(&mut self, bytes: &[u8]) -> bool {
        let mut decoder = Decoder::new(bytes);
        for (left, top) in macroblocks() {
            let across = self.motion[0].read(&mut decoder).map(unfolded);
            let down = self.motion[1].read(&mut decoder).map(unfolded);
            let (Some(across), Some(down)) = (across, down) else { return false };
            if !is_inside(left, top, (across, down)) {
                return false;
            }
            for (x, y) in squares(left, top) {
                let predicted = self.predicted(x, y, (across, down));
                let Some(levels) = self.read(&mut decoder) else { return false };
                self.reconstruct(x, y, &predicted, &levels);
            }
        }
        std::mem::swap(&mut self.before, &mut self.current);
        true
    }

    /// The last frame as it was decoded.
    pub(super) fn picture(&mut self) -> &mut [u8] {
        &mut self.before
    }

    /// Where in the frame before a macroblock is found best: every place within reach is tried.
    fn search(&self, frame: &[u8], left: usize, top: usize) -> (i32, i32) {
        let places = (-REACH..=REACH).flat_map(|down| (-REACH..=REACH).map(move |across| (across, down)));
        let inside = places.filter(|motion| is_inside(left, top, *motion));
        let best = inside.min_by_key(|(across, down)| {
            // Of places that are equally good the nearest is the cheapest.
            (self.difference(frame, left, top, (*across, *down)), across * across + down * down)
        });
        best.unwrap_or_default()
    }

    fn difference(&self, frame: &[u8], left: usize, top: usize, (across, down): (i32, i32)) -> u32 {
        let (from_x, from_y) = (left.wrapping_add_signed(across as isize), top.wrapping_add_signed(down as isize));
        let rows = (0..BLOCK).map(|row| {
            let here = &frame[(top + row) * WIDTH + left..][..BLOCK];
            let there = &self.before[(from_y + row) * WIDTH + from_x..][..BLOCK];
            here.iter().zip(there).map(|(a, b)| u32::from(a.abs_diff(*b))).sum::<u32>()
        });
        rows.sum()
    }

    fn predicted(&self, x: usize, y: usize, (across, down): (i32, i32)) -> Square {
        let (from_x, from_y) = (x.wrapping_add_signed(across as isize), y.wrapping_add_signed(down as isize));
        std::array::from_fn(|index| i32::from(self.before[(from_y + index / SIDE) * WIDTH + from_x + index % SIDE]))
    }

    fn reconstruct(&mut self, x: usize, y: usize, predicted: &Square, levels: &Square) {
        let rest = inverse(&levels.map(|level| level.wrapping_mul(QUANTUM).clamp(-40_000, 40_000)));
        for (index, (predicted, rest)) in predicted.iter().zip(rest).enumerate() {
            let pixel = (predicted + rest).clamp(0, 255) as u8;
            self.current[(y + index / SIDE) * WIDTH + x + index % SIDE] = pixel;
        }
    }

    /// How many levels there are up to the last that is not nothing, and these.
    fn write(&mut self, encoder: &mut Encoder, levels: &Square) {
        let count = self.order.iter().rposition(|place| levels[*place] != 0).map_or(0, |last| last + 1);
        self.last.write(encoder, count as u32);
        for (index, place) in self.order.iter().take(count).enumerate() {
            self.levels[band(index)].write(encoder, folded(levels[*place]));
        }
    }

    fn read(&mut self, decoder: &mut Decoder) -> Option<Square> {
        let mut levels = [0; SIDE * SIDE];
        let count = self.last.read(decoder)? as usize;
        for (index, place) in self.order.get(..count)?.iter().enumerate() {
            levels[*place] = unfolded(self.levels[band(index)].read(decoder)?);
        }
        Some(levels)
    }
}

/// Low, middle and high frequencies have levels of different sizes.
fn band(index: usize) -> usize {
    match index {
        0 => 0,
        1..6 => 1,
        _ => 2,
    }
}

fn macroblocks() -> impl Iterator<Item = (usize, usize)> {
    (0..HEIGHT).step_by(BLOCK).flat_map(|top| (0..WIDTH).step_by(BLOCK).map(move |left| (left, top)))
}

fn squares(left: usize, top: usize) -> [(usize, usize); 4] {
    [(left, top), (left + SIDE, top), (left, top + SIDE), (left + SIDE, top + SIDE)]
}

fn is_inside(left: usize, top: usize, (across, down): (i32, i32)) -> bool {
    let fits = |from: usize, by: i32, room: usize| {
        from.checked_add_signed(by as isize).is_some_and(|from| from + BLOCK <= room)
    };
    fits(left, across, WIDTH) && fits(top, down, HEIGHT)
}

/// Numbers of both signs as counts: small ones stay small.
fn folded(number: i32) -> u32 {
    (number << 1 ^ number >> 31) as u32
}

fn unfolded(count: u32) -> i32 {
    (count >> 1) as i32 ^ -((count & 1) as i32)
}

#[cfg(test)]
mod tests {
    use super::super::movie::draw;
    use super::*;
    use crate::random::Random;
    use proptest::prelude::*;

    fn goes_through(frames: &[Picture]) -> usize {
        let (mut sender, mut receiver) = (Codec::new(), Codec::new());
        let mut size = 0;
        for frame in frames {
            let bytes = sender.encode(frame, Vec::new());
            assert!(receiver.decode(&bytes));
            assert_eq!(receiver.picture(), sender.picture());
            size += bytes.len();
        }
        size
    }

    #[test]
    fn both_sides_have_the_same_picture_near_the_one_that_was_sent() {
        let mut frames = vec![vec![0; WIDTH * HEIGHT]; 3];
        frames.iter_mut().enumerate().for_each(|(index, frame)| draw(index, 1, frame));
        assert!(goes_through(&frames) < 3 * WIDTH * HEIGHT / 4);
        let mut codec = Codec::new();
        codec.encode(&frames[0], Vec::new());
        let off = codec.picture().iter().zip(&frames[0]).map(|(a, b)| u64::from(a.abs_diff(*b))).sum::<u64>();
        assert!(off < (WIDTH * HEIGHT * 6) as u64, "{off}");
    }

    #[test]
    fn hostile_pictures_go_through_too() {
        let mut random = Random::new(1);
        let noise = (0..WIDTH * HEIGHT).map(|_| random.word() as u8).collect();
        let checks =
            (0..WIDTH * HEIGHT).map(|at| if (at ^ (at / WIDTH)).is_multiple_of(2) { 0 } else { 255 }).collect();
        goes_through(&[noise, checks, vec![0; WIDTH * HEIGHT], vec![255; WIDTH * HEIGHT]]);
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(30))]
        #[test]
        fn no_bits_make_decoding_panic(bytes in prop::collection::vec(any::<u8>(), 0..3000)) {
            Codec::new().decode(&bytes);
        }

        #[test]
        fn folding_can_be_undone(number in any::<i32>()) {
            prop_assert_eq!(unfolded(folded(number)), number);
        }
    }
}
