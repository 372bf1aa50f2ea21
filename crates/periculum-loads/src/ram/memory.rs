//! `memory`: patterns written, compared word by word, turned over and compared again, all through the memory.

use std::io;
use std::time::{Duration, Instant};

use super::address;
use super::pattern::{Pattern, held_and_inverted, holds, write, write_in_strides};
use crate::buffer::Buffer;
use crate::frame::{About, Fault, FaultKind, Load, Touch, Work};
use crate::kernel::Kernel;
use crate::lanes::{LANES, Line};

/// Memory whose every word is compared.
pub struct Memory;

/// How long memory rests to see whether it forgets.
const REST: Duration = Duration::from_secs(2);

/// Lines that are worked on at once: less than the caches near a core hold.
const PIECE: usize = 512;

/// How far apart lines are written that are written in strides: another page each time.
const STRIDE: usize = 64;

/// Bytes moved by a round for each byte of memory: written, compared and turned over, compared.
const MOVES: f64 = 4.0;

/// Bytes moved besides where blocks are moved to the other half and back.
const MORE_MOVES: f64 = 4.0;

/// What one round does.
#[derive(Clone, Copy, Debug, PartialEq)]
enum Task {
    /// Moving inversions of a word everywhere, and then of the word turned over.
    Word(u64),
    /// One bit of each word, another one in every cycle.
    WalkingBit,
    /// Moving inversions of each word's own address.
    Addresses,
    /// Moving inversions of random words.
    Random,
    /// Random words, and blocks of them moved about.
    Moves,
    /// Random words, written a page apart.
    Strides,
    /// Random words that are left alone for a while.
    Rest,
}

/// One after the other, from the start again and again. Moving inversions: van de Goor, Testing semiconductor
/// memories, 1991.
const TASKS: [Task; 9] = [
    Task::Addresses,
    Task::Random,
    Task::Word(0),
    Task::Moves,
    Task::WalkingBit,
    Task::Random,
    Task::Word(0x5555_5555_5555_5555),
    Task::Strides,
    Task::Rest,
];

/// The memory of one core.
struct Words {
    kernel: Kernel,
    lines: Buffer<Line>,
    seed: u64,
    rounds: u64,
    /// Time that was not spent resting, and bytes moved in it for each byte of memory.
    worked: Duration,
    moves: f64,
}

const ABOUT: About = About {
    name: "memory",
    stresses: "memory modules, their controller and the traces between",
    size_name: "MiB a core",
    unit: "GB/s",
    usual_size: 256,
    sizes: (1, 1 << 24),
    adds_up: true,
};

impl Load for Memory {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn bytes(&self, size: u64) -> u64 {
        size << 20
    }

    fn rests(&self, _: u64) -> Duration {
        REST
    }

    fn work(&self, size: u64) -> f64 {
        MOVES * self.bytes(size) as f64 / 1e9
    }

    fn begin(&self, kernel: Kernel, size: u64, seed: u64) -> io::Result<Box<dyn Work>> {
        let lines = Buffer::zeroed(self.bytes(size) as usize / size_of::<Line>())?;
        Ok(Box::new(Words { kernel, lines, seed, rounds: 0, worked: Duration::ZERO, moves: 0.0 }))
    }
}

impl Work for Words {
    fn restart(&mut self) {}

    fn size(&self) -> u64 {
        (size_of_val::<[Line]>(&self.lines) >> 20) as u64
    }

    fn round(&mut self, touch: &mut Touch) -> Option<Fault> {
        let step = TASKS[self.rounds as usize % TASKS.len()];
        let pattern = self.pattern(step);
        self.rounds += 1;
        let began = Instant::now();
        match step {
            Task::Strides => write_in_strides(self.kernel, &mut self.lines, pattern, STRIDE),
            _ => write(self.kernel, &mut self.lines, pattern),
        }
        if step == Task::Moves {
            self.move_blocks();
            self.moves += MORE_MOVES;
        }
        self.moves += MOVES;
        self.worked += began.elapsed();
        if step == Task::Rest {
            std::thread::sleep(REST);
        }
        let began = Instant::now();
        touch.at("memory", &mut self.lines);
        let fault = self.compare_and_invert(pattern);
        touch.at("inverted memory", &mut self.lines);
        let fault = fault.or_else(|| self.compare_downwards(pattern.inverted()));
        self.worked += began.elapsed();
        fault
    }

    fn reading(&self) -> Option<f64> {
        let bytes = self.moves * size_of_val::<[Line]>(&self.lines) as f64;
        Some(bytes / self.worked.as_secs_f64().max(1e-9) / 1e9)
    }
}

impl Words {
    fn pattern(&self, step: Task) -> Pattern {
        let cycle = self.rounds / TASKS.len() as u64;
        let pattern = match step {
            Task::Word(word) => Pattern::constant(word),
            Task::WalkingBit => Pattern::constant(1 << (cycle % 64)),
            Task::Addresses => Pattern::addresses(self.lines.as_ptr() as u64),
            Task::Random | Task::Moves | Task::Strides | Task::Rest => {
                Pattern::random(self.seed.wrapping_add(self.rounds.wrapping_mul(0xd134_2543_de82_ef95)))
            }
        };
        if cycle.is_multiple_of(2) { pattern } else { pattern.inverted() }
    }

    /// Moves every block of one half to the other half and back, by way of the processor.
    fn move_blocks(&mut self) {
        let half = self.lines.len() / 2;
        let (low, high) = self.lines.split_at_mut(half);
        for (low, high) in low.chunks_mut(PIECE).zip(high.chunks_mut(PIECE)) {
            low.swap_with_slice(&mut high[..low.len()]);
        }
        for (low, high) in low.chunks_mut(PIECE).zip(high.chunks_mut(PIECE)).rev() {
            low.swap_with_slice(&mut high[..low.len()]);
        }
    }

    /// Upwards: compares and turns over.
    fn compare_and_invert(&mut self, pattern: Pattern) -> Option<Fault> {
        let mut fault = None;
        for (index, piece) in self.lines.chunks_mut(PIECE).enumerate() {
            let pattern = pattern.from(index * PIECE * LANES);
            if !held_and_inverted(self.kernel, piece, pattern) && fault.is_none() {
                fault = Some(describe(piece, pattern, Side::Inverted));
            }
        }
        fault
    }

    /// Downwards: compares.
    fn compare_downwards(&mut self, pattern: Pattern) -> Option<Fault> {
        for (index, piece) in self.lines.chunks(PIECE).enumerate().rev() {
            let pattern = pattern.from(index * PIECE * LANES);
            if !holds(self.kernel, piece, pattern) {
                return Some(describe(piece, pattern, Side::AsWritten));
            }
        }
        None
    }
}

/// How the words that are looked at stand in memory.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Side {
    AsWritten,
    /// Turned over since they were compared.
    Inverted,
}

impl Side {
    fn of(self, word: u64) -> u64 {
        if self == Self::Inverted { !word } else { word }
    }
}

/// What is wrong in these lines: the first word, which bits and which way, and whether it is still so when read again.
fn describe(lines: &[Line], pattern: Pattern, side: Side) -> Fault {
    let words: &[u64] = bytemuck::cast_slice(lines);
    let wrong = |(index, word): &(usize, &u64)| side.of(**word) != pattern.word(*index);
    let count = words.iter().enumerate().filter(wrong).count();
    let found = words.iter().enumerate().find(wrong).map(|(index, word)| (index, side.of(*word)));
    let Some((index, found)) = found else {
        let found = "another word when first read, the right one when read again";
        return Fault { kind: FaultKind::Memory, repeats: Some(false), ..Fault::result("the written words", found) };
    };
    let expected = pattern.word(index);
    let (risen, fallen) = (found & !expected, expected & !found);
    let bits = [(risen, "0→1"), (fallen, "1→0")].into_iter().filter(|(bits, _)| *bits != 0);
    let bits: Vec<String> = bits.map(|(bits, way)| format!("{} {way}", listed(bits))).collect();
    let more = if count > 1 { format!(", and {} more words near it", count - 1) } else { String::new() };
    let place = address::written(&raw const words[index] as u64);
    Fault {
        kind: FaultKind::Memory,
        part: Some(format!("{place}, {}{more}", bits.join(", "))),
        expected: format!("{expected:016x}"),
        found: format!("{found:016x}"),
        repeats: Some(side.of(read_again(&words[index])) != expected),
    }
}

/// The word, from memory and not from what a cache may hold of it.
fn read_again(word: &u64) -> u64 {
    #[cfg(target_arch = "x86_64")]
    // SAFETY: the word is there, and flushing a line changes nothing that the program could see.
    unsafe {
        std::arch::x86_64::_mm_clflush((&raw const *word).cast());
        std::arch::x86_64::_mm_mfence();
    }
    // SAFETY: a reference can be read.
    unsafe { std::ptr::read_volatile(word) }
}

/// `bit 3`, or `bits 3, 17`.
fn listed(bits: u64) -> String {
    let numbers: Vec<String> = (0..64).filter(|bit| bits >> bit & 1 == 1).map(|bit| bit.to_string()).collect();
    format!("bit{} {}", if numbers.len() == 1 { "" } else { "s" }, numbers.join(", "))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::frame::{Disturb, NoDisturbance, Site};

    /// Sets one bit of a word at one site.
    struct Stuck(&'static str);

    impl Disturb for Stuck {
        fn strike(&self, site: Site, bytes: &mut [u8]) {
            if site.what == self.0 {
                bytes[8 * 5000 + 1] ^= 0b100;
            }
        }
    }

    fn rounds(disturb: &dyn Disturb, rounds: u64) -> Vec<Option<Fault>> {
        let mut work = Memory.begin(Kernel::best(), 1, 7).expect("memory");
        (1..=rounds).map(|round| work.round(&mut Touch::of(disturb, 0, round))).collect()
    }

    #[test]
    fn every_step_of_two_cycles_passes_in_sound_memory() {
        assert!(rounds(&NoDisturbance, 2 * TASKS.len() as u64).iter().all(Option::is_none));
    }

    #[test]
    fn a_wrong_bit_is_named_with_its_address_and_way_in_every_step() {
        for site in ["memory", "inverted memory"] {
            for (round, fault) in rounds(&Stuck(site), TASKS.len() as u64).into_iter().enumerate() {
                let fault = fault.unwrap_or_else(|| panic!("round {round} saw nothing of {site}"));
                assert_eq!((fault.kind, fault.repeats), (FaultKind::Memory, Some(true)));
                let part = fault.part.expect("a part");
                assert!(part.contains("address") && part.contains("bit 10 "), "{part}");
                let bits = |word: &str| u64::from_str_radix(word, 16).expect("a word");
                assert_eq!(bits(&fault.expected) ^ bits(&fault.found), 1 << 10);
            }
        }
    }

    #[test]
    fn bits_are_listed() {
        assert_eq!([listed(8), listed(0x8000_0000_0000_0001)], ["bit 3", "bits 0, 63"]);
    }
}
