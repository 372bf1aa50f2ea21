//! Text that never was written: words of a made-up vocabulary, common ones more often than rare ones.

use crate::random::Random;

/// Words of the vocabulary.
const WORDS: usize = 3000;

/// Fills with text that follows from a seed.
pub(super) fn write(text: &mut [u8], seed: u64) {
    let mut random = Random::new(seed);
    let vocabulary: Vec<Vec<u8>> = (0..WORDS).map(|_| word(&mut random)).collect();
    let mut at = 0;
    while at < text.len() {
        // The product of two numbers below 1 is small often enough (Zipf, Human behavior and the principle of least
        // effort, 1949, has the law of real text).
        let rank = (random.unit() * random.unit() * WORDS as f64) as usize;
        let end = if random.below(12) == 0 { b'\n' } else { b' ' };
        for letter in vocabulary[rank].iter().copied().chain([end]) {
            let Some(place) = text.get_mut(at) else { return };
            *place = letter;
            at += 1;
        }
    }
}

fn word(random: &mut Random) -> Vec<u8> {
    let syllables = 1 + random.below(4);
    let mut word = Vec::new();
    for _ in 0..syllables {
        word.push(b"bcdfghklmnprstvw"[random.below(16) as usize]);
        word.push(b"aeiou"[random.below(5) as usize]);
    }
    word
}
