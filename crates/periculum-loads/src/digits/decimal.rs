//! Decimal digits of a long fraction: multiplied by a power of ten it falls into the upper half of its digits and a
//! fraction of the lower half, and so on until groups of digits are left.

use std::ops::Range;

use super::natural::{length, scale};
use super::series::Tools;

/// Decimal digits in a group.
pub(super) const GROUP: usize = 18;

const POWER: u64 = 10u64.pow(GROUP as u32);

/// At most so many groups are taken one after the other.
const TOGETHER: usize = 96;

/// Digits are halved less often than this, however many there are.
const MOST_LEVELS: usize = usize::BITS as usize;

/// Limbs behind those that digits need.
const GUARD: usize = 2;

/// How digits are split.
#[derive(Clone, Copy, Debug)]
pub(super) struct Split {
    /// Groups that are taken one after the other.
    together: usize,
    /// How often the digits are halved.
    levels: usize,
}

impl Split {
    /// For at least so many digits.
    pub(super) fn of(digits: usize) -> Self {
        let groups = digits.div_ceil(GROUP);
        let levels = (0..).find(|levels| groups.div_ceil(1 << levels) <= TOGETHER).unwrap_or_default();
        Self { together: groups.div_ceil(1 << levels), levels: levels as usize }
    }

    /// Groups at this level, from 0, where they are taken one after the other.
    fn groups_at(self, level: usize) -> usize {
        self.together << level
    }

    /// All groups.
    pub(super) fn groups(self) -> usize {
        self.groups_at(self.levels)
    }

    /// All digits.
    pub(super) fn digits(self) -> usize {
        GROUP * self.groups()
    }

    /// Limbs that the fraction has.
    pub(super) fn limbs(self) -> usize {
        self.limbs_at(self.levels)
    }

    fn limbs_at(self, level: usize) -> usize {
        limbs(GROUP * self.groups_at(level), 10f64) + GUARD
    }

    /// Where the power of ten stands that halves the digits of the next level. Without limbs that are nothing it is
    /// as long as a power of five, give or take a limb.
    fn power_at(self, level: usize) -> Range<usize> {
        let room = |level| limbs(GROUP * self.groups_at(level), 5f64) + 1;
        let begin = (0..level).map(room).sum();
        begin..begin + room(level)
    }

    /// Limbs of scratch that the digits need.
    pub(super) fn scratch(self) -> usize {
        let powers = (0..self.levels).map(|level| self.power_at(level).len()).sum::<usize>();
        let product = |level: usize| self.limbs_at(level + 1) + self.power_at(level).len();
        // A product, and the fractions of all lower levels.
        powers + (0..self.levels).map(product).sum::<usize>()
    }

    /// The limbs of the longest product.
    pub(super) fn longest_product(self) -> usize {
        self.levels.checked_sub(1).map_or(0, |level| self.limbs() + self.power_at(level).len())
    }
}

/// Limbs that a base to some power has.
fn limbs(exponent: usize, base: f64) -> usize {
    (exponent as f64 * base.log2() / f64::from(u64::BITS)) as usize + 1
}

/// A power of ten without the limbs that are nothing.
struct Power {
    limbs: Range<usize>,
    /// How many limbs were left out at the end.
    left_out: usize,
}

/// Takes all digits of a fraction into groups, highest first; the fraction is lost.
pub(super) fn digits(tools: &mut Tools, split: Split, fraction: &mut [u64], groups: &mut [u64], scratch: &mut [u64]) {
    let all = split.power_at(split.levels).start;
    let (powers, scratch) = scratch.split_at_mut(all);
    let mut known = [const { Power { limbs: 0..0, left_out: 0 } }; MOST_LEVELS];
    for level in 0..split.levels {
        known[level] = match level.checked_sub(1) {
            None => first_power(split, powers, scratch),
            Some(before) => next_power(tools, split, level, &known[before], powers, scratch),
        };
    }
    Descent { split, powers, known: &known[..split.levels] }.take(tools, split.levels, fraction, groups, scratch);
}

fn first_power(split: Split, powers: &mut [u64], scratch: &mut [u64]) -> Power {
    let power = &mut scratch[..limbs(GROUP * split.together, 10f64)];
    power.fill(0);
    power[0] = 1;
    for _ in 0..split.together {
        scale(power, POWER);
    }
    keep(power, split.power_at(0), 0, powers)
}

fn next_power(
    tools: &mut Tools,
    split: Split,
    level: usize,
    before: &Power,
    powers: &mut [u64],
    scratch: &mut [u64],
) -> Power {
    let root = &powers[before.limbs.clone()];
    let product = &mut scratch[..2 * root.len()];
    tools.multiply(root, root, product);
    keep(product, split.power_at(level), 2 * before.left_out, powers)
}

/// Keeps the power in its place.
fn keep(power: &[u64], place: Range<usize>, left_out: usize, powers: &mut [u64]) -> Power {
    let zeros = power.iter().take_while(|limb| **limb == 0).count();
    let limbs = place.start..place.start + length(power) - zeros;
    powers[limbs.clone()].copy_from_slice(&power[zeros..length(power)]);
    Power { limbs, left_out: left_out + zeros }
}

/// The way from a fraction down to its groups.
struct Descent<'a> {
    split: Split,
    powers: &'a [u64],
    known: &'a [Power],
}

impl Descent<'_> {
    fn take(&self, tools: &mut Tools, level: usize, fraction: &mut [u64], groups: &mut [u64], scratch: &mut [u64]) {
        let Some(below) = level.checked_sub(1) else {
            groups.iter_mut().for_each(|group| *group = scale(fraction, POWER));
            return;
        };
        let power = &self.known[below];
        let factor = &self.powers[power.limbs.clone()];
        let kept = self.split.limbs_at(below);
        tools.multiply(fraction, factor, &mut scratch[..fraction.len() + factor.len()]);
        // The point is as many limbs up as the fraction has, but for those that the power leaves out.
        let point = fraction.len() - power.left_out;
        scratch.copy_within(point - kept..point, 0);
        let (lower_fraction, scratch) = scratch.split_at_mut(kept);
        let (upper_groups, lower_groups) = groups.split_at_mut(groups.len() / 2);
        let upper_fraction = fraction.len() - kept;
        self.take(tools, below, &mut fraction[upper_fraction..], upper_groups, scratch);
        self.take(tools, below, lower_fraction, lower_groups, scratch);
    }
}
