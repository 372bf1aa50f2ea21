//! The cosine transform of 8 × 8 squares in whole numbers (Ahmed, Natarajan and Rao, Discrete cosine transform, 1974).

/// Numbers along a square's side.
pub(super) const SIDE: usize = 8;

/// A square, row by row.
pub(super) type Square = [i32; SIDE * SIDE];

/// `cos((2n + 1)kπ/16)/2`, for `k = 0` over √2, times 128, rounded: row `k`, column `n`.
const COSINES: [[i32; SIDE]; SIDE] = [
    [45, 45, 45, 45, 45, 45, 45, 45],
    [63, 53, 36, 12, -12, -36, -53, -63],
    [59, 24, -24, -59, -59, -24, 24, 59],
    [53, -12, -63, -36, 36, 63, 12, -53],
    [45, -45, -45, 45, 45, -45, -45, 45],
    [36, -63, 12, 53, -53, -12, 63, -36],
    [24, -59, 59, -24, -24, 59, -59, 24],
    [12, -36, 53, -63, 63, -53, 36, -12],
];

/// What scales the result of one dimension back.
const SHIFT: u32 = 7;

/// The order of coefficients from low to high frequencies: diagonal by diagonal.
pub(super) fn diagonals() -> [usize; SIDE * SIDE] {
    let mut order = std::array::from_fn(|place| place);
    order.sort_by_key(|place| (place / SIDE + place % SIDE, place / SIDE));
    order
}

/// The coefficients of a square.
pub(super) fn forward(square: &Square) -> Square {
    along_both(square, |frequency, place| COSINES[frequency][place])
}

/// The square of coefficients.
pub(super) fn inverse(coefficients: &Square) -> Square {
    along_both(coefficients, |place, frequency| COSINES[frequency][place])
}

fn along_both(square: &Square, weight: impl Fn(usize, usize) -> i32) -> Square {
    along_rows(&along_rows(square, &weight), &weight)
}

/// One dimension; rows become columns, so that a second time goes along the other.
fn along_rows(square: &Square, weight: impl Fn(usize, usize) -> i32) -> Square {
    let mut turned = [0; SIDE * SIDE];
    for (row, numbers) in square.chunks_exact(SIDE).enumerate() {
        for index in 0..SIDE {
            let sum: i32 = numbers.iter().enumerate().map(|(place, number)| weight(index, place) * number).sum();
            turned[index * SIDE + row] = (sum + (1 << (SHIFT - 1))) >> SHIFT;
        }
    }
    turned
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn squares_come_back_almost_as_they_were(numbers in prop::collection::vec(-255i32..256, SIDE * SIDE)) {
            let square: Square = numbers.try_into().expect("so many");
            let back = inverse(&forward(&square));
            for (was, is) in square.iter().zip(back) {
                prop_assert!((was - is).abs() <= 8, "{} became {}", was, is);
            }
        }
    }

    #[test]
    fn a_flat_square_has_one_coefficient() {
        let coefficients = forward(&[100; SIDE * SIDE]);
        assert!(coefficients[0] > 700 && coefficients[1..].iter().all(|number| *number == 0));
    }

    #[test]
    fn diagonals_visit_every_place_once() {
        let mut order = diagonals();
        assert_eq!(order[..4], [0, 1, 8, 2]);
        order.sort_unstable();
        assert!(order.iter().enumerate().all(|(index, place)| index == *place));
    }
}
