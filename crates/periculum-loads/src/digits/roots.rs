//! Inverse roots and inverses of long fractions, by Newton's iteration with twice as many limbs in each step.
//!
//! Fractions are limbs behind the point, lowest first. What comes out is right but for the last bits of its last limb.

use super::natural::{add, length, negate, scale, subtract};
use super::series::Tools;

/// Up to here a result comes from iterations of its own length.
const SHORTEST: usize = 4;

/// Iterations from a floating-point number's bits to the shortest result's.
const FIRST_STEPS: usize = 4;

/// The limbs of the step before one to so many: a little more than half, so that rounding errors never grow.
fn before(limbs: usize) -> usize {
    limbs / 2 + 1
}

/// Limbs of scratch that results of so many limbs need.
pub(super) fn scratch(limbs: usize) -> usize {
    5 * limbs + 20
}

/// `1/√radicand` as a fraction.
pub(super) fn inverse_root(tools: &mut Tools, radicand: u64, root: &mut [u64], scratch: &mut [u64]) {
    let limbs = root.len();
    if limbs <= SHORTEST {
        root.fill(0);
        root[limbs - 1] = (2f64.powi(64) / (radicand as f64).sqrt()) as u64;
        for _ in 0..FIRST_STEPS {
            improve_root(tools, radicand, root, limbs, scratch);
        }
    } else {
        let known = before(limbs);
        inverse_root(tools, radicand, &mut root[limbs - known..], scratch);
        improve_root(tools, radicand, root, known, scratch);
    }
}

/// `y ← y + y·(1 − a·y²)/2`, where this many limbs of `y` are known.
fn improve_root(tools: &mut Tools, radicand: u64, root: &mut [u64], known: usize, scratch: &mut [u64]) {
    let unknown = root.len() - known;
    root[..unknown].fill(0);
    let (square, scratch) = scratch.split_at_mut(2 * known);
    let y = &root[unknown..];
    tools.multiply(y, y, square);
    let whole = scale(square, radicand);
    let (error, is_short) = error_of(whole, square, root.len() + 1);
    // Half the error is half of its top limb at most, so that a limb more below the point takes what is shifted out.
    let behind = error.len();
    let (halved, scratch) = scratch.split_at_mut(behind + 1);
    halved[0] = 0;
    halved[1..].copy_from_slice(error);
    shift_down_one(halved);
    correct(tools, root, known, halved, is_short, scratch);
}

fn shift_down_one(number: &mut [u64]) {
    let mut carry = 0;
    for limb in number.iter_mut().rev() {
        (*limb, carry) = (*limb >> 1 | carry, *limb << 63);
    }
}

/// `1/divisor` of a fraction from a half to one: its limbs behind the point, and one before it on top.
pub(super) fn inverse(tools: &mut Tools, divisor: &[u64], inverse_of: &mut [u64], scratch: &mut [u64]) {
    let limbs = inverse_of.len() - 1;
    if limbs <= SHORTEST {
        inverse_of.fill(0);
        let top = divisor.last().map_or(0.5, |limb| *limb as f64 / 2f64.powi(64));
        let first = 1.0 / top;
        inverse_of[limbs] = first as u64;
        inverse_of[limbs - 1] = (first.fract() * 2f64.powi(64)) as u64;
        for _ in 0..FIRST_STEPS {
            improve_inverse(tools, divisor, inverse_of, limbs, scratch);
        }
    } else {
        let known = before(limbs);
        inverse(tools, divisor, &mut inverse_of[limbs - known..], scratch);
        improve_inverse(tools, divisor, inverse_of, known, scratch);
    }
}

/// `z ← z + z·(1 − d·z)`, where this many limbs of `z` behind the point are known.
fn improve_inverse(tools: &mut Tools, divisor: &[u64], inverse_of: &mut [u64], known: usize, scratch: &mut [u64]) {
    let limbs = inverse_of.len() - 1;
    let unknown = limbs - known;
    inverse_of[..unknown].fill(0);
    let divisor = &divisor[divisor.len().saturating_sub(limbs + 1)..];
    let (product, scratch) = scratch.split_at_mut(known + 1 + divisor.len());
    tools.multiply(&inverse_of[unknown..], divisor, product);
    let (whole, fraction) = product.split_last_mut().expect("a limb before the point");
    let (error, is_short) = error_of(*whole, fraction, limbs + 1);
    correct(tools, inverse_of, known + 1, error, is_short, scratch);
}

/// How far a number near one is from it, and whether it is below: at most so many limbs behind the point.
fn error_of(whole: u64, fraction: &mut [u64], limbs: usize) -> (&mut [u64], bool) {
    let is_short = whole == 0;
    if is_short {
        negate(fraction);
    }
    let dropped = fraction.len().saturating_sub(limbs);
    (&mut fraction[dropped..], is_short)
}

/// Adds to a number, of which so many of the upper limbs are known, itself times its error.
fn correct(tools: &mut Tools, number: &mut [u64], known: usize, error: &[u64], is_short: bool, scratch: &mut [u64]) {
    let unknown = number.len() - known;
    let digits = &error[..length(error)];
    if digits.is_empty() {
        return;
    }
    let used = tools.multiply(&number[unknown..], digits, &mut scratch[..known + digits.len()]);
    // The product has as many limbs behind the point as both factors, the number only those still unknown beside its
    // own.
    let Some(correction) = scratch.get(error.len() - unknown..used) else { return };
    if is_short {
        add(number, correction);
    } else {
        subtract(number, correction);
    }
}
