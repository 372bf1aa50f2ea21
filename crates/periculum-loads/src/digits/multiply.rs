//! Products of long numbers by right-angle convolutions of their 16-bit digits, and of shorter ones by the definition.

use std::io;

use super::natural::{add_one, multiply_short, product_residue, residue, subtract_one};
use crate::buffer::Buffer;
use crate::digest::join;
use crate::frame::{Fault, Touch};
use crate::kernel::Kernel;
use crate::transform::{Block, DIGIT, Grid, WORST_ROUNDING, whole};

/// Digits in a limb.
const DIGITS: usize = (u64::BITS as u64 / DIGIT) as usize;

/// Factors below this many limbs are multiplied by the definition.
const SHORT: usize = 56;

/// The shortest convolution, in points.
const SHORTEST: usize = 256;

/// What products of numbers up to some length need, in memory that is allocated once.
pub(super) struct Multiplier {
    grids: Vec<(usize, Grid)>,
    /// The digits of a factor.
    digits: Buffer<f64>,
    points: Buffer<Block>,
    other: Buffer<Block>,
    /// The first thing that was wrong.
    fault: Option<Fault>,
}

/// The lengths that convolutions have, in points, up to the first for products of this many limbs.
fn lengths(limbs: usize) -> impl Iterator<Item = usize> {
    let all = (SHORTEST.ilog2()..).flat_map(|exponent| [1 << exponent, 3 << (exponent - 1)]);
    let mut enough = false;
    all.take_while(move |points| !std::mem::replace(&mut enough, holds(*points, limbs)))
}

/// Whether products of this many limbs have no more digits than a convolution of so many points tells apart.
fn holds(points: usize, limbs: usize) -> bool {
    limbs * DIGITS <= 2 * points
}

impl Multiplier {
    /// A digest of the tables of every length.
    pub(super) fn tables(&self) -> u64 {
        self.grids.iter().fold(0, |state, (_, grid)| join(state, grid.digest()))
    }

    /// Makes the tables of every length anew.
    pub(super) fn renew(&mut self) {
        self.grids.iter_mut().for_each(|(_, grid)| grid.renew());
    }

    /// For products of at most this many limbs.
    ///
    /// # Errors
    /// When the system has not so much memory.
    pub(super) fn new(kernel: Kernel, limbs: usize) -> io::Result<Self> {
        let grids = lengths(limbs).map(|points| Ok((points, Grid::new(kernel, points)?)));
        let most = lengths(limbs).last().unwrap_or(SHORTEST);
        Ok(Self {
            grids: grids.collect::<io::Result<_>>()?,
            digits: Buffer::zeroed(2 * most)?,
            points: Buffer::zeroed(Grid::blocks(most))?,
            other: Buffer::zeroed(Grid::blocks(most))?,
            fault: None,
        })
    }

    /// Memory for products of at most this many limbs, bytes.
    pub(super) fn bytes(limbs: usize) -> u64 {
        let most = lengths(limbs).last().unwrap_or(SHORTEST);
        let points = 2 * Grid::blocks(most) * size_of::<Block>() + 2 * most * size_of::<f64>();
        points as u64 + lengths(limbs).map(|points| Grid::bytes(points as u64)).sum::<u64>()
    }

    /// The first thing that was wrong since this was asked.
    pub(super) fn take_fault(&mut self) -> Option<Fault> {
        self.fault.take()
    }

    /// The product, into as many limbs as both factors have.
    pub(super) fn multiply(&mut self, x: &[u64], y: &[u64], product: &mut [u64], touch: &mut Touch) {
        assert_eq!(product.len(), x.len() + y.len(), "a product has as many limbs as its factors");
        if x.len().min(y.len()) < SHORT {
            return if x.len() >= y.len() { multiply_short(x, y, product) } else { multiply_short(y, x, product) };
        }
        let Self { grids, digits, points, other, fault } = self;
        let (length, grid) = grids.iter_mut().find(|(points, _)| holds(*points, product.len())).expect("room");
        let blocks = Grid::blocks(*length);
        let (points, other) = (&mut points[..blocks], &mut other[..blocks]);
        let expected = product_residue(residue(x), residue(y));
        forward(grid, x, &mut digits[..2 * *length], points);
        touch.at("points", points);
        if std::ptr::eq(x, y) {
            grid.square(points);
        } else {
            forward(grid, y, &mut digits[..2 * *length], other);
            grid.multiply(points, other);
        }
        let rounding_error = grid.back(points);
        pack(grid, points, 2 * *length, product);
        let found = residue(product);
        // What is not a number is no small error either.
        let is_near = rounding_error < WORST_ROUNDING;
        if fault.is_none() && (!is_near || found != expected) {
            *fault = Some(wrong(product.len(), rounding_error, [expected, found]));
        }
    }
}

fn wrong(limbs: usize, rounding_error: f64, [expected, found]: [u64; 2]) -> Fault {
    let of = |residue| format!("residue {residue:016x} modulo 2^64-1");
    let fault = if expected == found {
        Fault::result(format!("rounding errors below {WORST_ROUNDING}"), format!("one of {rounding_error:.3}"))
    } else {
        Fault::result(of(expected), of(found))
    };
    fault.in_part(format!("a product of {limbs} limbs"))
}

/// The points of a number, whose digits come into this room first.
fn forward(grid: &mut Grid, number: &[u64], digits: &mut [f64], points: &mut [Block]) {
    let used = unpack(number, digits);
    let (lower, upper) = digits.split_at(digits.len() / 2);
    grid.forward(lower, (used > lower.len()).then_some(upper), points);
}

/// Writes a number as digits from −2¹⁵ to 2¹⁵ − 1, and nothing behind them; tells how many there are.
///
/// With half a digit added to each, all digits are what the bits say, and half a digit more than they shall be. A carry
/// out of the last place comes to the first with the other sign: as many digits as there are stand for −1.
fn unpack(number: &[u64], digits: &mut [f64]) -> usize {
    const HALVES: u64 = 0x8000_8000_8000_8000;
    let (places, rest) = digits.split_at_mut(number.len() * DIGITS);
    let mut carry = 0;
    for (limb, digits) in number.iter().zip(places.as_chunks_mut::<DIGITS>().0) {
        let sum = u128::from(*limb) + u128::from(HALVES) + u128::from(carry);
        carry = (sum >> 64) as u64;
        for (place, digit) in digits.iter_mut().enumerate() {
            let bits = (sum as u64) >> (DIGIT as usize * place) & 0xffff;
            *digit = f64::from(bits as i32 - 0x8000);
        }
    }
    let Some((next, rest)) = rest.split_first_mut() else {
        places[0] -= carry as f64;
        return places.len();
    };
    *next = carry as f64;
    rest.fill(0.0);
    places.len() + carry as usize
}

/// Lets the carries go through a product's digits, into limbs.
fn pack(grid: &Grid, points: &[Block], digits_told_apart: usize, product: &mut [u64]) {
    let mut limbs = product.iter_mut();
    let mut carry = 0i64;
    'all: for is_real in [true, false] {
        for block in grid.rows(points).flatten() {
            let digits = if is_real { &block.re } else { &block.im };
            for digits in digits.as_chunks::<DIGITS>().0 {
                let Some(limb) = limbs.next() else { break 'all };
                let digits = digits.map(|digit| i128::from(whole(digit)));
                let [a, b, c, d] = digits;
                let sum = a + (b << DIGIT) + (c << (2 * DIGIT)) + (d << (3 * DIGIT)) + i128::from(carry);
                *limb = sum as u64;
                carry = (sum >> 64) as i64;
            }
        }
    }
    // Digits beyond the product take back what is carried to them; where there are none, it comes to the first limb
    // with the other sign, as in every right-angle convolution.
    let is_full = limbs.next().is_none() && product.len() * DIGITS == digits_told_apart;
    match carry {
        -1 if is_full => _ = add_one(product),
        1 if is_full => _ = subtract_one(product),
        _ => {}
    }
}

#[cfg(test)]
mod tests {
    use super::super::natural::scale;
    use super::*;
    use crate::frame::NoDisturbance;
    use crate::random::Random;
    use proptest::prelude::*;

    fn product(multiplier: &mut Multiplier, x: &[u64], y: &[u64]) -> Vec<u64> {
        let mut product = vec![7; x.len() + y.len()];
        multiplier.multiply(x, y, &mut product, &mut Touch::of(&NoDisturbance, 0, 1));
        product
    }

    fn number(kind: u8, limbs: usize, seed: u64) -> Vec<u64> {
        let mut random = Random::new(seed);
        match kind {
            0 => vec![u64::MAX; limbs],
            1 => vec![0x7fff_7fff_7fff_7fff; limbs],
            2 => (0..limbs).map(|_| random.word() & random.word() & random.word()).collect(),
            _ => (0..limbs).map(|_| random.word()).collect(),
        }
    }

    fn limbs() -> impl Strategy<Value = usize> {
        prop_oneof![1usize..200, prop::sample::select(vec![56, 64, 128, 400]), 200usize..3000]
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(60))]
        #[test]
        fn products_are_those_of_the_definition_by_every_kernel(
            limbs in (limbs(), limbs()),
            kinds in (0u8..4, 0u8..4), seed in any::<u64>(),
        ) {
            let (x, y) = (number(kinds.0, limbs.0, seed), number(kinds.1, limbs.1, !seed));
            let mut expected = vec![0; limbs.0 + limbs.1];
            let (long, short) = if limbs.0 >= limbs.1 { (&x, &y) } else { (&y, &x) };
            multiply_short(long, short, &mut expected);
            let mut square = vec![0; 2 * limbs.0];
            multiply_short(&x, &x, &mut square);
            for kernel in Kernel::available_loudly() {
                let mut multiplier = Multiplier::new(kernel, 6000).expect("memory");
                prop_assert_eq!(&product(&mut multiplier, &x, &y), &expected);
                prop_assert_eq!(&product(&mut multiplier, &x, &x), &square);
                prop_assert_eq!(multiplier.take_fault(), None);
            }
        }
    }

    #[test]
    fn powers_of_ten_of_many_limbs_multiply_to_powers_of_ten() {
        let power = |exponent: usize, limbs: usize| {
            let mut power = vec![0; limbs];
            power[0] = 1;
            for _ in 0..exponent {
                assert_eq!(scale(&mut power, 10), 0);
            }
            power
        };
        let mut multiplier = Multiplier::new(Kernel::best(), 6144).expect("memory");
        let x = power(59_100, 3072);
        assert_eq!(product(&mut multiplier, &x, &power(59_000, 3072)), power(118_100, 6144));
        assert_eq!(multiplier.take_fault(), None);
    }

    #[test]
    fn a_wrong_point_shows() {
        struct Blow;
        impl crate::frame::Disturb for Blow {
            fn strike(&self, _: crate::frame::Site, bytes: &mut [u8]) {
                bytes[998] ^= 0x10;
            }
        }
        let mut multiplier = Multiplier::new(Kernel::best(), 200).expect("memory");
        let (x, mut product) = (number(3, 100, 5), vec![0; 200]);
        multiplier.multiply(&x, &x, &mut product, &mut Touch::of(&Blow, 0, 1));
        let fault = multiplier.take_fault().expect("a fault");
        assert_eq!(fault.part.as_deref(), Some("a product of 200 limbs"));
    }
}
