//! The sum of the series, by binary splitting.
//!
//! A range of terms is three numbers: the product `P` of its numerators, the product `Q` of its denominators, and `T`,
//! the range's sum times `Q` over what comes before it. Two ranges beside each other become one by four products.

use std::ops::Range;

use super::multiply::Multiplier;
use super::natural::{add, length, scale, subtract};
use crate::frame::Touch;

/// Decimal digits that each term adds.
const DIGITS_PER_TERM: f64 = 14.181_647;

/// The number that 640320³/24 is.
const DENOMINATOR: u64 = 10_939_058_860_032_000;

/// The series' constant term and its linear one.
pub(super) const CONSTANT: u64 = 13_591_409;
const LINEAR: u64 = 545_140_134;

/// How many terms it takes to so many decimal digits.
pub(super) fn terms(digits: usize) -> u64 {
    (digits as f64 / DIGITS_PER_TERM) as u64 + 2
}

/// Limbs that each number of a range has room for.
#[derive(Clone, Copy)]
struct Room {
    p: usize,
    q: usize,
}

impl Room {
    fn of(range: &Range<u64>) -> Self {
        let (terms, cube) = ((range.end - range.start) as f64, 3.0 * (range.end as f64).log2());
        let limbs = |bits: f64| (terms * bits / f64::from(u64::BITS)) as usize + 3;
        Self { p: limbs(cube + 72f64.log2()), q: limbs(cube + (DENOMINATOR as f64).log2()) }
    }

    /// `T` is smaller than `Q`.
    fn all(self) -> usize {
        self.p + 2 * self.q
    }

    fn split(self, room: &mut [u64]) -> Place<'_> {
        let (own, scratch) = room.split_at_mut(self.all());
        let (p, rest) = own.split_at_mut(self.p);
        let (q, t) = rest.split_at_mut(self.q);
        Place { p, q, t, scratch }
    }
}

/// Where the numbers of a range come to stand, and room behind them.
struct Place<'a> {
    p: &'a mut [u64],
    q: &'a mut [u64],
    t: &'a mut [u64],
    scratch: &'a mut [u64],
}

/// The limbs that the sum of a range needs.
pub(super) fn room(range: Range<u64>) -> usize {
    let own = Room::of(&range).all();
    match halves(&range) {
        None => 2 * own,
        // Later terms are longer, so the right half needs more.
        Some((left, right)) => own + Room::of(&left).all() + room(right),
    }
}

/// The limbs of the longest product in the sum of a range.
pub(super) fn longest_product(range: &Range<u64>) -> usize {
    Room::of(range).q
}

fn halves(range: &Range<u64>) -> Option<(Range<u64>, Range<u64>)> {
    let middle = range.start + (range.end - range.start) / 2;
    (range.end - range.start > 1).then_some((range.start..middle, middle..range.end))
}

/// Multiplies numbers; `touch` may strike in between.
pub(super) struct Tools<'a, 'b> {
    pub(super) multiplier: &'a mut Multiplier,
    pub(super) touch: &'a mut Touch<'b>,
}

impl Tools<'_, '_> {
    /// The product, into the lowest limbs of this room and nothing behind them; tells how many limbs it has.
    pub(super) fn multiply(&mut self, x: &[u64], y: &[u64], to: &mut [u64]) -> usize {
        let (product, rest) = to.split_at_mut(x.len() + y.len());
        self.multiplier.multiply(x, y, product, self.touch);
        rest.fill(0);
        length(product)
    }
}

/// `Q` and the magnitude of `T` of all these terms, at the beginning of the room; tells where they lie.
///
/// The terms' signs alternate, and the first outweighs all others, so its sign is the sum's.
pub(super) fn sum(tools: &mut Tools, range: Range<u64>, room: &mut [u64]) -> [Range<usize>; 2] {
    let lengths = split(tools, &range, false, room);
    let Room { p, q } = Room::of(&range);
    [p..p + lengths.q, p + q..p + q + lengths.t]
}

/// The limbs that the numbers of a range have.
struct Lengths {
    p: usize,
    q: usize,
    t: usize,
}

fn split(tools: &mut Tools, range: &Range<u64>, wants_p: bool, room: &mut [u64]) -> Lengths {
    let place = Room::of(range).split(room);
    let Some((left, right)) = halves(range) else {
        return term(range.start, place);
    };
    let (left_room, right_room) = (Room::of(&left), Room::of(&right));
    let of_left = split(tools, &left, true, place.scratch);
    let of_right = split(tools, &right, wants_p, &mut place.scratch[left_room.all()..]);
    let first = left_room.split(place.scratch);
    let second = right_room.split(first.scratch);
    let (p, q, t) = (&first.p[..of_left.p], &first.q[..of_left.q], &first.t[..of_left.t]);
    let (next_q, next_t) = (&second.q[..of_right.q], &second.t[..of_right.t]);
    let product = tools.multiply(p, next_t, &mut second.scratch[..p.len() + next_t.len()]);
    let product = &second.scratch[..product];
    tools.multiply(next_q, t, place.t);
    if (right.start - left.start).is_multiple_of(2) {
        add(place.t, product);
    } else {
        subtract(place.t, product);
    }
    Lengths {
        p: if wants_p { tools.multiply(p, &second.p[..of_right.p], place.p) } else { 0 },
        q: tools.multiply(q, next_q, place.q),
        t: length(place.t),
    }
}

/// The numbers of one term.
fn term(k: u64, place: Place) -> Lengths {
    let Place { p, q, t, .. } = place;
    for (number, factors) in [(&mut *p, [6 * k - 5, 2 * k - 1, 6 * k - 1]), (q, [k, k * k, DENOMINATOR])] {
        number.fill(0);
        number[0] = 1;
        for factor in factors {
            let (limbs, next) = number.split_at_mut(2);
            next[0] = scale(limbs, factor);
        }
    }
    t.fill(0);
    t[..2].copy_from_slice(&p[..2]);
    t[2] = scale(&mut t[..2], CONSTANT + LINEAR * k);
    Lengths { p: length(p), q: length(q), t: length(t) }
}
