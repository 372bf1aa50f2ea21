//! `bandwidth-read`, `bandwidth-write` and `bandwidth-copy`: how fast memory streams.

use std::io;
use std::time::Instant;

use super::pattern::{Pattern, holds, write};
use crate::buffer::Buffer;
use crate::frame::{About, Fault, Load, Touch, Work};
use crate::kernel::{Kernel, for_each_kernel, prefetch};
use crate::lanes::{LANES, Lanes, Line, fence};

/// Memory read, written or copied as fast as it goes.
pub struct Bandwidth {
    about: About,
    way: Way,
}

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Way {
    Read,
    Write,
    Copy,
}

/// What all ways have in common.
const ABOUT: About = About {
    name: "bandwidth",
    stresses: "memory",
    size_name: "KiB a core",
    unit: "GB/s",
    // Far more than any cache holds.
    usual_size: 1 << 20,
    sizes: (8, 1 << 34),
    adds_up: true,
};

/// Reads.
pub static READ: Bandwidth = Bandwidth {
    about: About { name: "bandwidth-read", stresses: "memory: benchmark of reading", ..ABOUT },
    way: Way::Read,
};

/// Writes past the caches.
pub static WRITE: Bandwidth = Bandwidth {
    about: About { name: "bandwidth-write", stresses: "memory: benchmark of writing", ..ABOUT },
    way: Way::Write,
};

/// Reads one half and writes the other past the caches; both count.
pub static COPY: Bandwidth = Bandwidth {
    about: About { name: "bandwidth-copy", stresses: "memory: benchmark of copying", ..ABOUT },
    way: Way::Copy,
};

/// The part of what was moved that is compared word by word in each round: one of so many, the next one each time.
const PARTS: usize = 64;

/// Times of so many rounds make the reading.
const NEWEST: usize = 15;

struct Stream {
    way: Way,
    kernel: Kernel,
    lines: Buffer<Line>,
    pattern: Pattern,
    /// What all words must sum up to.
    sum: u64,
    rounds: usize,
    /// Seconds of the newest rounds.
    seconds: [f64; NEWEST],
}

impl Load for Bandwidth {
    fn about(&self) -> &About {
        &self.about
    }

    fn bytes(&self, size: u64) -> u64 {
        size << 10
    }

    fn work(&self, size: u64) -> f64 {
        self.bytes(size) as f64 / 1e9
    }

    fn begin(&self, kernel: Kernel, size: u64, seed: u64) -> io::Result<Box<dyn Work>> {
        let lines = Buffer::zeroed(self.bytes(size) as usize / size_of::<Line>())?;
        let pattern = Pattern::random(seed);
        let sum = if self.way == Way::Read { expected_sum(pattern, lines.len()) } else { 0 };
        Ok(Box::new(Stream { way: self.way, kernel, lines, pattern, sum, rounds: 0, seconds: [0.0; NEWEST] }))
    }
}

impl Work for Stream {
    fn restart(&mut self) {
        write(self.kernel, &mut self.lines, self.pattern);
    }

    fn size(&self) -> u64 {
        (size_of_val::<[Line]>(&self.lines) >> 10) as u64
    }

    fn round(&mut self, touch: &mut Touch) -> Option<Fault> {
        touch.at("memory", &mut self.lines);
        let half = self.lines.len() / 2;
        let began = Instant::now();
        let fault = match self.way {
            Way::Read => {
                let (sum, expected) = (sum(self.kernel, &self.lines), self.sum);
                (sum != expected).then(|| Fault::result(format!("sum {expected:016x}"), format!("sum {sum:016x}")))
            }
            Way::Write => {
                self.pattern = self.pattern.inverted();
                write(self.kernel, &mut self.lines, self.pattern);
                None
            }
            Way::Copy => {
                let (from, to) = self.lines.split_at_mut(half);
                copy(self.kernel, from, to);
                None
            }
        };
        self.seconds[self.rounds % NEWEST] = began.elapsed().as_secs_f64();
        self.rounds += 1;
        fault.or_else(|| self.compare_a_part())
    }

    /// The fastest of the newest rounds: whatever disturbs a stream makes it slower.
    fn reading(&self) -> Option<f64> {
        let seconds = self.seconds[..self.rounds.min(NEWEST)].iter().copied().reduce(f64::min)?;
        Some(size_of_val::<[Line]>(&self.lines) as f64 / seconds.max(1e-9) / 1e9)
    }
}

impl Stream {
    /// Compares a part of what was written; the parts of a read are all in its sum.
    fn compare_a_part(&self) -> Option<Fault> {
        let half = self.lines.len() / 2;
        // What was copied is what stands half the memory before.
        let written = match self.way {
            Way::Read => return None,
            Way::Write => &self.lines[..],
            Way::Copy => &self.lines[half..2 * half],
        };
        let length = written.len().div_ceil(PARTS);
        let from = (self.rounds % PARTS * length).min(written.len());
        let part = &written[from..(from + length).min(written.len())];
        let is_good = holds(self.kernel, part, self.pattern.from(from * LANES));
        (!is_good).then(|| {
            Fault::result("the words that were written", "others").in_part(format!("part {}", self.rounds % PARTS))
        })
    }
}

for_each_kernel! {
    /// The sum of all words, modulo 2⁶⁴.
    fn sum(lines: &[Line]) -> u64 = sum_in_lanes;
}

/// How many lines ahead memory is asked for.
const AHEAD: usize = 32;

#[inline(always)]
fn sum_in_lanes<L: Lanes>(lines: &[Line]) -> u64 {
    let nothing = L::splat(0.0);
    let (mut first, mut second, mut third, mut fourth) = (nothing, nothing, nothing, nothing);
    let (groups, rest) = lines.as_chunks::<4>();
    for [a, b, c, d] in groups {
        for ahead in AHEAD..AHEAD + 4 {
            prefetch((&raw const *a).wrapping_add(ahead));
        }
        first = first.add_words(L::load(&a.0));
        second = second.add_words(L::load(&b.0));
        third = third.add_words(L::load(&c.0));
        fourth = fourth.add_words(L::load(&d.0));
    }
    for line in rest {
        first = first.add_words(L::load(&line.0));
    }
    let mut words = [0.0f64; LANES];
    first.add_words(second).add_words(third.add_words(fourth)).store(&mut words);
    words.iter().fold(0, |sum, word| sum.wrapping_add(word.to_bits()))
}

fn expected_sum(pattern: Pattern, lines: usize) -> u64 {
    (0..lines * LANES).fold(0u64, |sum, index| sum.wrapping_add(pattern.word(index)))
}

for_each_kernel! {
    /// Copies lines past the caches.
    fn copy(from: &[Line], to: &mut [Line]) = copy_in_lanes;
}

#[inline(always)]
fn copy_in_lanes<L: Lanes>(from: &[Line], to: &mut [Line]) {
    for (to, from) in to.iter_mut().zip(from) {
        prefetch((&raw const *from).wrapping_add(AHEAD));
        L::load(&from.0).stream(to);
    }
    fence();
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::frame::{Disturb, NoDisturbance, Site};
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn sums_and_copies_are_the_same_on_every_kernel(length in 0usize..50, seed in any::<u64>()) {
            let mut lines = vec![Line([0.0; LANES]); length];
            write(Kernel::Portable, &mut lines, Pattern::random(seed));
            for kernel in Kernel::ALL {
                prop_assert_eq!(sum(kernel, &lines), expected_sum(Pattern::random(seed), length));
                let mut copied = vec![Line([0.0; LANES]); length];
                copy(kernel, &lines, &mut copied);
                let words = |lines: &[Line]| bytemuck::cast_slice::<Line, u64>(lines).to_vec();
                prop_assert_eq!(words(&copied), words(&lines));
            }
        }
    }

    /// Puts another byte into the half that is copied from.
    struct Low;

    impl Disturb for Low {
        fn strike(&self, _: Site, bytes: &mut [u8]) {
            bytes[77] = 0x33;
        }
    }

    #[test]
    fn each_way_counts_what_it_moves_and_sees_what_is_wrong() {
        for load in [&READ, &WRITE, &COPY] {
            let mut work = load.begin(Kernel::best(), 256, 3).expect("memory");
            work.restart();
            for round in 1..=2 * PARTS as u64 {
                assert_eq!(work.round(&mut Touch::of(&NoDisturbance, 0, round)), None, "{}", load.about().name);
            }
            assert!(work.reading().is_some_and(|rate| rate > 0.01), "{}", load.about().name);
        }
        let mut work = READ.begin(Kernel::best(), 256, 3).expect("memory");
        work.restart();
        assert!(work.round(&mut Touch::of(&Low, 0, 1)).is_some());
        // A copy is compared part by part, so all of it within as many rounds as there are parts.
        let mut work = COPY.begin(Kernel::best(), 256, 3).expect("memory");
        work.restart();
        let seen = (1..=PARTS as u64).any(|round| work.round(&mut Touch::of(&Low, 0, round)).is_some());
        assert!(seen);
    }
}
