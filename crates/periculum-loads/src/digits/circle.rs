//! π, from the series to its digits.

use std::io;
use std::ops::Range;

use super::decimal::{self, Split};
use super::multiply::Multiplier;
use super::natural::{length, normalise, scale, shift_up, subtract};
use super::roots::{self, inverse, inverse_root};
use super::series::{self, CONSTANT, Tools, terms};
use crate::buffer::Buffer;
use crate::frame::{Fault, Touch};
use crate::kernel::Kernel;

/// π is this times `√radicand` times `Q`, over `CONSTANT·Q + T`.
const FACTOR: u64 = 426_880;
const RADICAND: u64 = 10_005;

/// What π to some digits needs, in memory that is allocated once.
pub(super) struct Pi {
    multiplier: Multiplier,
    split: Split,
    room: Buffer<u64>,
    groups: Buffer<u64>,
}

/// The limbs that each step needs beside each other.
struct Layout {
    split: Split,
    /// Of a fraction, with a limb more than digits need.
    limbs: usize,
    room: usize,
    longest_product: usize,
}

impl Layout {
    fn of(digits: usize) -> Self {
        let split = Split::of(digits);
        let limbs = split.limbs() + 1;
        let range = 1..terms(split.digits());
        let quotient = 4 * limbs + 2 + roots::scratch(limbs);
        let room = series::room(range.clone()).max(quotient).max(limbs + split.scratch());
        let longest_product = series::longest_product(&range).max(2 * (limbs + 1)).max(split.longest_product());
        Self { split, limbs, room, longest_product }
    }
}

impl Pi {
    /// For so many decimal digits behind the point.
    ///
    /// # Errors
    /// When the system has not so much memory.
    pub(super) fn new(kernel: Kernel, digits: usize) -> io::Result<Self> {
        let Layout { split, room, longest_product, .. } = Layout::of(digits);
        Ok(Self {
            multiplier: Multiplier::new(kernel, longest_product)?,
            split,
            room: Buffer::zeroed(room)?,
            groups: Buffer::zeroed(split.groups())?,
        })
    }

    /// A digest of the tables that it multiplies with.
    pub(super) fn tables(&self) -> u64 {
        self.multiplier.tables()
    }

    /// Makes the tables that it multiplies with anew.
    pub(super) fn renew(&mut self) {
        self.multiplier.renew();
    }

    /// Memory for so many digits, bytes.
    pub(super) fn bytes(digits: usize) -> u64 {
        let Layout { split, room, longest_product, .. } = Layout::of(digits);
        Multiplier::bytes(longest_product) + 8 * (room + split.groups()) as u64
    }

    /// The digits behind the point, in groups.
    pub(super) fn groups(&self) -> &[u64] {
        &self.groups
    }

    /// Works them out; tells the first thing that was found wrong on the way.
    pub(super) fn work_out(&mut self, touch: &mut Touch) -> Option<Fault> {
        let Self { multiplier, split, room, groups } = self;
        let limbs = Layout::of(split.digits()).limbs;
        let tools = &mut Tools { multiplier, touch };
        quotient_terms(tools, 1..terms(split.digits()), limbs, room);
        tools.touch.at("series", &mut room[..2 * limbs]);
        fraction(tools, limbs, room);
        tools.touch.at("fraction", &mut room[..limbs]);
        // The lowest limb has the errors of all steps before.
        let (fraction, scratch) = room[1..].split_at_mut(limbs - 1);
        decimal::digits(tools, *split, fraction, groups, scratch);
        touch.at("digits", groups);
        multiplier.take_fault()
    }

    /// The first so many digits behind the point as text.
    #[cfg(test)]
    fn text(&self, digits: usize) -> String {
        let text: String = self.groups.iter().map(|group| format!("{group:018}")).collect();
        text[..digits].into()
    }
}

/// `Q`, and behind it `CONSTANT·Q + T`, as fractions of the same power of two, the second from a half to one.
fn quotient_terms(tools: &mut Tools, range: Range<u64>, limbs: usize, room: &mut [u64]) {
    let [q, t] = series::sum(tools, range, room);
    let q = q.start..q.end + 1;
    let (own, scratch) = room.split_at_mut(t.end);
    let divisor = &mut scratch[..q.len()];
    divisor.copy_from_slice(&own[q.clone()]);
    scale(divisor, CONSTANT);
    // The first term is negative, and so is the sum.
    subtract(divisor, &own[t.clone()]);
    let used = length(divisor);
    let bits = normalise(&mut divisor[..used]);
    shift_up(&mut own[q.clone()], bits);
    let lost = used - limbs;
    room.copy_within(q.start + lost..q.start + used, 0);
    room.copy_within(t.end + lost..t.end + used, limbs);
}

/// What is behind the point of π, in place of `Q`.
fn fraction(tools: &mut Tools, limbs: usize, room: &mut [u64]) {
    let (q, rest) = room.split_at_mut(limbs);
    let (divisor, rest) = rest.split_at_mut(limbs);
    let (dividend, rest) = rest.split_at_mut(limbs + 1);
    let (inverse_of_divisor, scratch) = rest.split_at_mut(limbs + 1);
    inverse(tools, divisor, inverse_of_divisor, scratch);
    let root = &mut dividend[..limbs];
    inverse_root(tools, RADICAND, root, scratch);
    tools.multiply(q, root, &mut scratch[..2 * limbs]);
    root.copy_from_slice(&scratch[limbs..2 * limbs]);
    dividend[limbs] = scale(root, FACTOR * RADICAND);
    tools.multiply(dividend, inverse_of_divisor, &mut scratch[..2 * (limbs + 1)]);
    q.copy_from_slice(&scratch[limbs..2 * limbs]);
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::frame::NoDisturbance;

    fn digits(kernel: Kernel, digits: usize) -> String {
        let mut pi = Pi::new(kernel, digits).expect("memory");
        assert_eq!(pi.work_out(&mut Touch::of(&NoDisturbance, 0, 1)), None);
        pi.text(digits)
    }

    #[test]
    fn digits_are_those_of_pi() {
        let known =
            "1415926535897932384626433832795028841971693993751058209749445923078164062862089986280348253421170679";
        let found = digits(Kernel::Portable, 1000);
        assert!(found.starts_with(known), "{found}");
        // The point where six nines follow each other.
        assert_eq!(&found[759..770], "34999999837");
        assert!(found.ends_with("1989"), "{found}");
    }

    #[test]
    fn fewer_digits_are_the_first_of_more_by_every_kernel() {
        let many = digits(Kernel::best(), 30_000);
        for kernel in Kernel::available_loudly() {
            for fewer in [1000, 1727, 1729, 4321, 11_111, 20_000] {
                assert!(many.starts_with(&digits(kernel, fewer)), "{fewer} digits");
            }
        }
    }
}
