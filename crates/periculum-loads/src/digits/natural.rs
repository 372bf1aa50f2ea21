//! Natural numbers as slices of 64-bit limbs, lowest first.

use crate::digest::IS_CHECKED;

/// Adds a number to one that is at least as long; tells the carry.
pub(super) fn add(to: &mut [u64], number: &[u64]) -> bool {
    let (low, high) = to.split_at_mut(number.len());
    let mut carry = false;
    for (limb, added) in low.iter_mut().zip(number) {
        let (sum, first) = limb.overflowing_add(*added);
        let (sum, second) = sum.overflowing_add(u64::from(carry));
        (*limb, carry) = (sum, first | second);
    }
    carry && add_one(high)
}

/// Takes a number from one that is at least as long; tells the borrow.
pub(super) fn subtract(from: &mut [u64], number: &[u64]) -> bool {
    let (low, high) = from.split_at_mut(number.len());
    let mut borrow = false;
    for (limb, taken) in low.iter_mut().zip(number) {
        let (rest, first) = limb.overflowing_sub(*taken);
        let (rest, second) = rest.overflowing_sub(u64::from(borrow));
        (*limb, borrow) = (rest, first | second);
    }
    borrow && subtract_one(high)
}

/// Adds one; tells the carry.
pub(super) fn add_one(to: &mut [u64]) -> bool {
    to.iter_mut().all(|limb| {
        *limb = limb.wrapping_add(1);
        *limb == 0
    })
}

/// Takes one away; tells the borrow.
pub(super) fn subtract_one(from: &mut [u64]) -> bool {
    from.iter_mut().all(|limb| {
        *limb = limb.wrapping_sub(1);
        *limb == u64::MAX
    })
}

/// What is missing to the next power of 2⁶⁴, in the number's place.
pub(super) fn negate(number: &mut [u64]) {
    number.iter_mut().for_each(|limb| *limb = !*limb);
    add_one(number);
}

/// Multiplies by one limb; tells the limb that is carried out.
pub(super) fn scale(number: &mut [u64], factor: u64) -> u64 {
    number.iter_mut().fold(0, |carry, limb| {
        let product = u128::from(*limb) * u128::from(factor) + u128::from(carry);
        *limb = product as u64;
        (product >> 64) as u64
    })
}

/// Shifts up by less than a limb; tells what is shifted out.
pub(super) fn shift_up(number: &mut [u64], bits: u32) -> u64 {
    assert!(bits < u64::BITS);
    number.iter_mut().fold(0, |carry, limb| {
        let shifted = u128::from(*limb) << bits | u128::from(carry);
        *limb = shifted as u64;
        (shifted >> 64) as u64
    })
}

/// Shifts a number up until its highest bit is set; tells by how many bits.
pub(super) fn normalise(number: &mut [u64]) -> u32 {
    let bits = number.last().map_or(0, |limb| limb.leading_zeros());
    shift_up(number, bits);
    bits
}

/// The product by the definition, into as many limbs as both have.
pub(super) fn multiply_short(x: &[u64], y: &[u64], product: &mut [u64]) {
    product.fill(0);
    for (place, factor) in y.iter().enumerate() {
        let mut carry = 0;
        let (low, high) = product[place..].split_at_mut(x.len());
        for (limb, to) in x.iter().zip(low) {
            let sum = u128::from(*limb) * u128::from(*factor) + u128::from(*to) + u128::from(carry);
            (*to, carry) = (sum as u64, (sum >> 64) as u64);
        }
        high[0] = carry;
    }
}

/// The number of limbs up to the highest that is not nothing.
pub(super) fn length(number: &[u64]) -> usize {
    number.iter().rposition(|limb| *limb != 0).map_or(0, |place| place + 1)
}

/// The residue modulo 2⁶⁴ − 1, in which every limb weighs the same.
pub(super) fn residue(number: &[u64]) -> u64 {
    if IS_CHECKED { fold(number.iter().map(|limb| u128::from(*limb)).sum()) } else { 0 }
}

/// The residue of a product modulo 2⁶⁴ − 1, from those of its factors.
pub(super) fn product_residue(x: u64, y: u64) -> u64 {
    fold(u128::from(x) * u128::from(y))
}

fn fold(number: u128) -> u64 {
    let sum = (number >> 64) + u128::from(number as u64);
    let sum = (sum >> 64) as u64 + sum as u64;
    if sum == u64::MAX { 0 } else { sum }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn of(number: u128) -> [u64; 3] {
        [number as u64, (number >> 64) as u64, 0]
    }

    proptest! {
        #[test]
        fn limbs_reckon_as_numbers_do(x in any::<u128>(), y in any::<u128>(), factor in any::<u64>(), bits in 0u32..64) {
            let (least, most) = (x.min(y), x.max(y));
            let mut sum = of(x);
            prop_assert!(!add(&mut sum, &of(y)[..2]));
            let mut difference = sum;
            prop_assert!(!subtract(&mut difference, &of(x)[..2]));
            prop_assert_eq!(difference, of(y));
            let mut difference = of(least);
            prop_assert_eq!(subtract(&mut difference, &of(most)), least != most);
            negate(&mut difference);
            prop_assert_eq!(difference, of(most - least));

            let (mut scaled, mut product) = (of(x), [0; 4]);
            prop_assert_eq!(scale(&mut scaled, factor), 0);
            multiply_short(&of(x), &[factor], &mut product);
            prop_assert_eq!(&product[..3], &scaled);
            let (mut shifted, mut doubled) = (of(x), of(x));
            shift_up(&mut shifted, bits);
            scale(&mut doubled, 1 << bits);
            prop_assert_eq!(shifted, doubled);
        }

        #[test]
        fn products_have_the_residues_of_their_factors(
            x in prop::collection::vec(any::<u64>(), 1..9), y in prop::collection::vec(any::<u64>(), 1..9),
        ) {
            let (mut product, mut turned) = (vec![0; x.len() + y.len()], vec![0; x.len() + y.len()]);
            multiply_short(&x, &y, &mut product);
            multiply_short(&y, &x, &mut turned);
            prop_assert_eq!(&product, &turned);
            prop_assert_eq!(residue(&product), product_residue(residue(&x), residue(&y)));
            prop_assert!(length(&product) <= product.len());
        }
    }
}
