//! Eight transforms side by side, one in each lane: none of them ever needs a number from another lane.
//!
//! Decimation in frequency, radix 4, depth first, so that the smaller parts stay in the first-level cache (Singleton,
//! On computing the fast Fourier transform, 1967). Results come in the order of [`Plan::frequencies`], which the inverse
//! takes them in.

use super::complex::{Block, Complex, Eight};
use crate::lanes::Lanes;

/// What transforms of one length need.
pub(super) struct Plan {
    length: usize,
    /// For each length by which parts are split, longest first: three twiddle factors for each butterfly.
    twiddles: Vec<Vec<[Complex; 3]>>,
    /// Which frequency the result at each place is of.
    frequencies: Vec<u32>,
}

impl Plan {
    /// A plan for this length: a power of two from 4 up, or three of them.
    pub(super) fn new(length: usize) -> Self {
        let odd = length >> length.trailing_zeros();
        assert!(matches!(odd, 1 | 3) && length >= 3, "no transform of length {length}");
        let mut twiddles = Vec::new();
        let mut part = length;
        while part > 8 {
            let root = |step: usize, times: usize| Complex::root(-((step * times) as i64), part as i64);
            twiddles.push((0..part / 4).map(|step| [root(step, 1), root(step, 2), root(step, 3)]).collect());
            part /= 4;
        }
        let frequencies = (0..length).map(|place| frequency(length, place) as u32).collect();
        Self { length, twiddles, frequencies }
    }

    /// Memory for a plan of this length, bytes.
    pub(super) fn bytes(length: usize) -> usize {
        let parts = std::iter::successors(Some(length), |part| Some(part / 4)).take_while(|part| *part > 8);
        parts.map(|part| part / 4 * size_of::<[Complex; 3]>()).sum::<usize>() + length * size_of::<u32>()
    }

    /// Which frequency the result at each place is of.
    pub(super) fn frequencies(&self) -> &[u32] {
        &self.frequencies
    }

    /// Transforms in place.
    ///
    /// Here and below, loops take the place of closures where a kernel's instructions must reach into them.
    #[inline(always)]
    pub(super) fn forward<L: Lanes>(&self, data: &mut [Block]) {
        let data = &mut data[..self.length];
        let Some(twiddles) = self.twiddles.first() else {
            return smallest_forward::<L>(data);
        };
        split::<L>(data, twiddles);
        for quarter in data.chunks_exact_mut(self.length / 4) {
            for (deeper, twiddles) in self.twiddles.iter().enumerate().skip(1) {
                for part in quarter.chunks_exact_mut(self.length >> (2 * deeper)) {
                    split::<L>(part, twiddles);
                }
            }
            for part in quarter.chunks_exact_mut(self.smallest()) {
                smallest_forward::<L>(part);
            }
        }
    }

    /// Takes a transform back, but for a factor of the length.
    #[inline(always)]
    pub(super) fn inverse<L: Lanes>(&self, data: &mut [Block]) {
        let data = &mut data[..self.length];
        let Some(twiddles) = self.twiddles.first() else {
            return smallest_inverse::<L>(data);
        };
        for quarter in data.chunks_exact_mut(self.length / 4) {
            for part in quarter.chunks_exact_mut(self.smallest()) {
                smallest_inverse::<L>(part);
            }
            for (deeper, twiddles) in self.twiddles.iter().enumerate().skip(1).rev() {
                for part in quarter.chunks_exact_mut(self.length >> (2 * deeper)) {
                    join::<L>(part, twiddles);
                }
            }
        }
        join::<L>(data, twiddles);
    }

    /// The length of the parts that are transformed in registers.
    #[inline(always)]
    fn smallest(&self) -> usize {
        self.length >> (2 * self.twiddles.len())
    }
}

/// Which frequency the result at this place is of: the digits of the place in the order in which parts were split.
fn frequency(length: usize, place: usize) -> usize {
    let (mut part, mut place, mut factor, mut frequency) = (length, place, 1, 0);
    while part > 8 {
        part /= 4;
        frequency += factor * (place / part);
        (factor, place) = (factor * 4, place % part);
    }
    frequency + factor * place
}

/// One level forward: a part becomes four of a quarter of its length.
#[inline(always)]
fn split<L: Lanes>(part: &mut [Block], twiddles: &[[Complex; 3]]) {
    let (low, high) = part.split_at_mut(part.len() / 2);
    let ((a, b), (c, d)) = (low.split_at_mut(low.len() / 2), high.split_at_mut(high.len() / 2));
    for ((((a, b), c), d), [one, two, three]) in a.iter_mut().zip(b).zip(c).zip(d).zip(twiddles) {
        let four = [Eight::<L>::load(a), Eight::load(b), Eight::load(c), Eight::load(d)];
        let [even, first, second, third] = forward_four(four);
        even.store(a);
        first.times(Eight::splat(one)).store(b);
        second.times(Eight::splat(two)).store(c);
        third.times(Eight::splat(three)).store(d);
    }
}

/// One level back.
#[inline(always)]
fn join<L: Lanes>(part: &mut [Block], twiddles: &[[Complex; 3]]) {
    let (low, high) = part.split_at_mut(part.len() / 2);
    let ((a, b), (c, d)) = (low.split_at_mut(low.len() / 2), high.split_at_mut(high.len() / 2));
    for ((((a, b), c), d), [one, two, three]) in a.iter_mut().zip(b).zip(c).zip(d).zip(twiddles) {
        let four = [
            Eight::<L>::load(a),
            Eight::load(b).over(Eight::splat(one)),
            Eight::load(c).over(Eight::splat(two)),
            Eight::load(d).over(Eight::splat(three)),
        ];
        let [first, second, third, fourth] = inverse_four(four);
        first.store(a);
        second.store(b);
        third.store(c);
        fourth.store(d);
    }
}

/// A transform of length 4.
#[inline(always)]
fn forward_four<L: Lanes>([a, b, c, d]: [Eight<L>; 4]) -> [Eight<L>; 4] {
    let (ac, bd, a_c, b_d) = (a.plus(c), b.plus(d), a.minus(c), b.minus(d));
    [ac.plus(bd), a_c.minus_i(b_d), ac.minus(bd), a_c.plus_i(b_d)]
}

/// The same back, but for a factor of 4.
#[inline(always)]
fn inverse_four<L: Lanes>([a, b, c, d]: [Eight<L>; 4]) -> [Eight<L>; 4] {
    let (ac, bd, a_c, b_d) = (a.plus(c), b.plus(d), a.minus(c), b.minus(d));
    [ac.plus(bd), a_c.plus_i(b_d), ac.minus(bd), a_c.minus_i(b_d)]
}

/// Half the square root of three.
const HALF_ROOT: f64 = 0.866_025_403_784_438_6;

/// A transform of length 3.
#[inline(always)]
fn forward_three<L: Lanes>([a, b, c]: [Eight<L>; 3]) -> [Eight<L>; 3] {
    let [sum, middle, turn] = three([a, b, c]);
    [sum, middle.minus_i(turn), middle.plus_i(turn)]
}

/// The same back, but for a factor of 3.
#[inline(always)]
fn inverse_three<L: Lanes>([a, b, c]: [Eight<L>; 3]) -> [Eight<L>; 3] {
    let [sum, middle, turn] = three([a, b, c]);
    [sum, middle.plus_i(turn), middle.minus_i(turn)]
}

#[inline(always)]
fn three<L: Lanes>([a, b, c]: [Eight<L>; 3]) -> [Eight<L>; 3] {
    let sum = b.plus(c);
    [a.plus(sum), a.minus(sum.scaled(L::splat(0.5))), b.minus(c).scaled(L::splat(HALF_ROOT))]
}

/// `exp(−2πi/6)` and its square.
const SIXTHS: [Complex; 2] = [Complex { re: 0.5, im: -HALF_ROOT }, Complex { re: -0.5, im: -HALF_ROOT }];

#[inline(always)]
fn smallest_forward<L: Lanes>(part: &mut [Block]) {
    if let Ok([a, b, c]) = <&mut [Block; 3]>::try_from(&mut *part) {
        let results = forward_three([Eight::<L>::load(a), Eight::load(b), Eight::load(c)]);
        for (result, block) in results.into_iter().zip(part) {
            result.store(block);
        }
    } else if let Ok([a, b, c, d, e, f]) = <&mut [Block; 6]>::try_from(&mut *part) {
        let [a, b, c] = [Eight::<L>::load(a), Eight::load(b), Eight::load(c)];
        let [d, e, f] = [Eight::<L>::load(d), Eight::load(e), Eight::load(f)];
        let even = forward_three([a.plus(d), b.plus(e), c.plus(f)]);
        let [first, second] = [Eight::splat(&SIXTHS[0]), Eight::splat(&SIXTHS[1])];
        let odd = forward_three([a.minus(d), b.minus(e).times(first), c.minus(f).times(second)]);
        for (pair, (even, odd)) in part.chunks_exact_mut(2).zip(even.into_iter().zip(odd)) {
            even.store(&mut pair[0]);
            odd.store(&mut pair[1]);
        }
    } else if let Ok([a, b, c, d]) = <&mut [Block; 4]>::try_from(&mut *part) {
        let results = forward_four([Eight::<L>::load(a), Eight::load(b), Eight::load(c), Eight::load(d)]);
        for (result, block) in results.into_iter().zip(part) {
            result.store(block);
        }
    } else if let Ok([a, b, c, d, e, f, g, h]) = <&mut [Block; 8]>::try_from(&mut *part) {
        let half = L::splat(std::f64::consts::FRAC_1_SQRT_2);
        let low = [Eight::<L>::load(a), Eight::load(b), Eight::load(c), Eight::load(d)];
        let high = [Eight::<L>::load(e), Eight::load(f), Eight::load(g), Eight::load(h)];
        let [a, b, c, d] = low;
        let [e, f, g, h] = high;
        let even = forward_four([a.plus(e), b.plus(f), c.plus(g), d.plus(h)]);
        let (b_f, c_g, d_h) = (b.minus(f), c.minus(g), d.minus(h));
        // Turned by an eighth, a quarter and three eighths of the circle.
        let b_f = b_f.minus_i(b_f).scaled(half);
        let nothing = Eight { re: L::splat(0.0), im: L::splat(0.0) };
        let c_g = nothing.minus_i(c_g);
        let d_h = nothing.minus(d_h.plus_i(d_h)).scaled(half);
        let odd = forward_four([a.minus(e), b_f, c_g, d_h]);
        for (pair, (even, odd)) in part.chunks_exact_mut(2).zip(even.into_iter().zip(odd)) {
            even.store(&mut pair[0]);
            odd.store(&mut pair[1]);
        }
    }
}

#[inline(always)]
fn smallest_inverse<L: Lanes>(part: &mut [Block]) {
    if let Ok([a, b, c]) = <&mut [Block; 3]>::try_from(&mut *part) {
        let results = inverse_three([Eight::<L>::load(a), Eight::load(b), Eight::load(c)]);
        for (result, block) in results.into_iter().zip(part) {
            result.store(block);
        }
    } else if let Ok([a, b, c, d, e, f]) = <&mut [Block; 6]>::try_from(&mut *part) {
        let even = inverse_three([Eight::<L>::load(a), Eight::load(c), Eight::load(e)]);
        let [first, second, third] = inverse_three([Eight::<L>::load(b), Eight::load(d), Eight::load(f)]);
        let odd = [first, second.over(Eight::splat(&SIXTHS[0])), third.over(Eight::splat(&SIXTHS[1]))];
        let (low, high) = part.split_at_mut(3);
        for (((low, high), even), odd) in low.iter_mut().zip(high).zip(even).zip(odd) {
            even.plus(odd).store(low);
            even.minus(odd).store(high);
        }
    } else if let Ok([a, b, c, d]) = <&mut [Block; 4]>::try_from(&mut *part) {
        let results = inverse_four([Eight::<L>::load(a), Eight::load(b), Eight::load(c), Eight::load(d)]);
        for (result, block) in results.into_iter().zip(part) {
            result.store(block);
        }
    } else if let Ok([a, b, c, d, e, f, g, h]) = <&mut [Block; 8]>::try_from(&mut *part) {
        let half = L::splat(std::f64::consts::FRAC_1_SQRT_2);
        let even = inverse_four([Eight::<L>::load(a), Eight::load(c), Eight::load(e), Eight::load(g)]);
        let odd = inverse_four([Eight::<L>::load(b), Eight::load(d), Eight::load(f), Eight::load(h)]);
        let [first, second, third, fourth] = odd;
        let second = second.plus_i(second).scaled(half);
        let nothing = Eight { re: L::splat(0.0), im: L::splat(0.0) };
        let third = nothing.plus_i(third);
        let fourth = nothing.minus(fourth.minus_i(fourth)).scaled(half);
        let (low, high) = part.split_at_mut(4);
        for (((low, high), even), odd) in low.iter_mut().zip(high).zip(even).zip([first, second, third, fourth]) {
            even.plus(odd).store(low);
            even.minus(odd).store(high);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::kernel::{Kernel, for_each_kernel};
    use crate::lanes::LANES;
    use crate::random::fill;

    #[inline(always)]
    fn there<L: Lanes>(plan: &Plan, data: &mut [Block]) {
        plan.forward::<L>(data);
    }

    #[inline(always)]
    fn back<L: Lanes>(plan: &Plan, data: &mut [Block]) {
        plan.inverse::<L>(data);
    }

    for_each_kernel! {
        fn forward(plan: &Plan, data: &mut [Block]) = there;
    }

    for_each_kernel! {
        fn inverse(plan: &Plan, data: &mut [Block]) = back;
    }

    fn blocks(length: usize) -> Vec<Block> {
        let mut data = vec![Block { re: [0.0; LANES], im: [0.0; LANES] }; length];
        fill(bytemuck::cast_slice_mut(&mut data), 8);
        data
    }

    /// The definition, for one lane and frequency.
    fn slow(data: &[Block], lane: usize, frequency: usize) -> (f64, f64) {
        let length = data.len() as i64;
        data.iter().enumerate().fold((0.0, 0.0), |(re, im), (time, block)| {
            let root = Complex::root(-((frequency * time) as i64), length);
            let (x, y) = (block.re[lane], block.im[lane]);
            (re + x * root.re - y * root.im, im + x * root.im + y * root.re)
        })
    }

    #[test]
    fn every_length_is_transformed_as_defined_and_back_with_the_same_bits_by_every_kernel() {
        for length in (2..9).map(|exponent| 1 << exponent).chain((0..8).map(|exponent| 3 << exponent)) {
            let (plan, data) = (Plan::new(length), blocks(length));
            let twiddles: usize = plan.twiddles.iter().map(|twiddles| size_of_val(&twiddles[..])).sum();
            assert_eq!(Plan::bytes(length), twiddles + size_of_val(plan.frequencies()));
            let mut portable = data.clone();
            forward(Kernel::Portable, &plan, &mut portable);
            for (place, block) in portable.iter().enumerate() {
                for lane in [0, 5] {
                    let (re, im) = slow(&data, lane, plan.frequencies()[place] as usize);
                    let is_right = (block.re[lane] - re).abs() < 1e-12 && (block.im[lane] - im).abs() < 1e-12;
                    assert!(is_right, "length {length}, place {place}");
                }
            }
            for kernel in Kernel::available_loudly() {
                let mut transformed = data.clone();
                forward(kernel, &plan, &mut transformed);
                assert_eq!(transformed, portable, "length {length}, {}", kernel.name());
                inverse(kernel, &plan, &mut transformed);
                inverse(Kernel::Portable, &plan, &mut portable);
                assert_eq!(transformed, portable, "length {length}, {} back", kernel.name());
                forward(Kernel::Portable, &plan, &mut portable);
                portable.clone_from(&data);
                forward(Kernel::Portable, &plan, &mut portable);
                for (found, wanted) in transformed.iter().zip(&data) {
                    assert!((found.re[3] / length as f64 - wanted.re[3]).abs() < 1e-14, "length {length}");
                }
            }
        }
    }
}
