//! `latency` and `latency-small-pages`: how long one access takes that could not be foreseen.

use std::io;
use std::time::Instant;

use crate::buffer::{Buffer, Pages};
use crate::frame::{About, Fault, Load, Touch, Work};
use crate::kernel::Kernel;
use crate::random::Random;

/// A chase through memory: each place says where the next one is.
pub struct Latency {
    about: About,
    pages: Pages,
}

/// In huge pages, so that finding the page costs next to nothing.
pub static IN_HUGE_PAGES: Latency = Latency {
    about: About {
        name: "latency",
        stresses: "memory: benchmark of single accesses",
        size_name: "KiB a core",
        unit: "ns",
        usual_size: 1 << 20,
        sizes: (1, 1 << 34),
        adds_up: false,
    },
    pages: Pages::Huge,
};

/// In the smallest pages, so that finding the page is a part of the access.
pub static IN_SMALL_PAGES: Latency = Latency {
    about: About {
        name: "latency-small-pages",
        stresses: "memory and page tables: benchmark of single accesses",
        ..IN_HUGE_PAGES.about
    },
    pages: Pages::Small,
};

/// Words of a cache line, of which the first says where the next line is.
const WORDS: usize = 8;

/// Accesses of a round: some tenths of a second at most.
const ACCESSES: u64 = 1 << 20;

/// Readings of so many rounds make the reading.
const NEWEST: usize = 15;

struct Chase {
    words: Buffer<u64>,
    seed: u64,
    /// Where the next round starts.
    at: u64,
    /// Sum of all places seen in the running tour, and how many.
    sum: u64,
    seen: u64,
    rounds: usize,
    /// Nanoseconds an access in the newest rounds.
    nanoseconds: [f64; NEWEST],
}

impl Load for Latency {
    fn about(&self) -> &About {
        &self.about
    }

    fn bytes(&self, size: u64) -> u64 {
        size << 10
    }

    fn work(&self, _: u64) -> f64 {
        ACCESSES as f64
    }

    fn begin(&self, _: Kernel, size: u64, seed: u64) -> io::Result<Box<dyn Work>> {
        let words = Buffer::with_pages(self.bytes(size) as usize / 8, self.pages)?;
        let nanoseconds = [0.0; NEWEST];
        Ok(Box::new(Chase { words, seed, at: 0, sum: 0, seen: 0, rounds: 0, nanoseconds }))
    }
}

impl Chase {
    fn lines(&self) -> u64 {
        (self.words.len() / WORDS) as u64
    }

    /// Where a line stands in memory.
    fn address_of(&self, line: u64) -> u64 {
        self.words.as_ptr().expose_provenance() as u64 + line * (WORDS * size_of::<u64>()) as u64
    }
}

impl Chase {
    fn end_tour(&mut self) -> Option<Fault> {
        let lines = self.lines();
        let (home, last) = (self.address_of(0), self.address_of(lines - 1));
        let expected = (u128::from(home) + u128::from(last)) * u128::from(lines) / 2;
        let (expected, found) = (expected as u64, self.sum);
        let is_home = self.at == home;
        (self.at, self.sum, self.seen) = (home, 0, 0);
        (found != expected || !is_home).then(|| Fault::result(format!("sum {expected:x}"), format!("sum {found:x}")))
    }
}

impl Work for Chase {
    /// One cycle through all lines in random order, by Sattolo's algorithm (An algorithm to generate a random cyclic
    /// permutation, 1986).
    fn restart(&mut self) {
        let lines = self.lines() as usize;
        for line in 0..lines {
            self.words[line * WORDS] = self.address_of(line as u64);
        }
        let mut random = Random::new(self.seed);
        for line in (1..lines).rev() {
            self.words.swap(line * WORDS, random.below(line as u64) as usize * WORDS);
        }
        (self.at, self.sum, self.seen) = (self.address_of(0), 0, 0);
    }

    fn size(&self) -> u64 {
        ((self.words.len() * size_of::<u64>()) >> 10) as u64
    }

    /// Walks on through the cycle, tour after tour where it is short; a tour must have seen every line once and come
    /// back.
    fn round(&mut self, touch: &mut Touch) -> Option<Fault> {
        touch.at("chain", &mut self.words);
        let lines = self.lines();
        let (mut left, mut fault) = (ACCESSES, None);
        let began = Instant::now();
        while left > 0 && fault.is_none() {
            let steps = left.min(lines - self.seen);
            let Some((at, sum)) = walk(&self.words, self.at, steps) else {
                return Some(Fault::result("a line of the chain", "one outside the memory"));
            };
            (self.at, self.sum, self.seen) = (at, self.sum.wrapping_add(sum), self.seen + steps);
            left -= steps;
            if self.seen == lines {
                fault = self.end_tour();
            }
        }
        self.nanoseconds[self.rounds % NEWEST] = began.elapsed().as_secs_f64() * 1e9 / ACCESSES as f64;
        self.rounds += 1;
        fault
    }

    /// The fastest of the newest rounds: whatever disturbs an access makes it slower.
    fn reading(&self) -> Option<f64> {
        self.nanoseconds[..self.rounds.min(NEWEST)].iter().copied().reduce(f64::min)
    }
}

/// Goes so many steps from address to address; tells where it arrives and the sum of all it came to, or nothing where
/// the chain leads out of these words.
fn walk(words: &[u64], mut at: u64, steps: u64) -> Option<(u64, u64)> {
    let first = words.as_ptr().expose_provenance() as u64;
    let room = size_of_val(words).checked_sub(size_of::<u64>())? as u64;
    let mut sum = 0u64;
    for _ in 0..steps {
        if at.wrapping_sub(first) > room {
            return None;
        }
        // Nothing must be added to an address on its way, or that would be a part of what is measured.
        let place = std::ptr::with_exposed_provenance::<u64>(at as usize);
        // SAFETY: the word lies within the slice, as was just asked; a flipped bit may have put it between two words.
        at = unsafe { place.read_unaligned() };
        sum = sum.wrapping_add(at);
    }
    Some((at, sum))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::frame::NoDisturbance;

    #[test]
    fn a_tour_sees_every_line_once_at_every_size() {
        for size in [1, 3, 64, 200_000] {
            let mut work = IN_HUGE_PAGES.begin(Kernel::best(), size, 3).expect("memory");
            work.restart();
            for round in 1..=8 {
                assert_eq!(work.round(&mut Touch::of(&NoDisturbance, 0, round)), None, "size {size}");
            }
            assert!(work.reading().is_some_and(|nanoseconds| nanoseconds > 0.1));
        }
    }
}
