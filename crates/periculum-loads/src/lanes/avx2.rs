//! Lanes in two registers of AVX2.

use std::arch::x86_64::{
    __m256d, _mm256_add_epi64, _mm256_add_pd, _mm256_and_pd, _mm256_castpd_si256, _mm256_castsi256_pd, _mm256_fmadd_pd,
    _mm256_fnmadd_pd, _mm256_loadu_pd, _mm256_max_pd, _mm256_mul_pd, _mm256_or_pd, _mm256_permute2f128_pd,
    _mm256_round_pd, _mm256_set1_epi64x, _mm256_set1_pd, _mm256_shuffle_pd, _mm256_slli_epi64, _mm256_srli_epi64,
    _mm256_storeu_pd, _mm256_stream_pd, _mm256_sub_pd, _mm256_unpackhi_pd, _mm256_unpacklo_pd, _mm256_xor_pd,
};

use super::{LANES, Lanes, Line};

/// Eight numbers, the low and the high four.
#[derive(Clone, Copy)]
pub(crate) struct Avx2(__m256d, __m256d);

/// An operation of instructions that take and give registers.
macro_rules! operation {
    ($name:ident($($argument:ident),*) = $instruction:expr) => {
        #[inline(always)]
        fn $name(self $(, $argument: Self)*) -> Self {
            let call = $instruction;
            // SAFETY: see the trait; the instruction only changes registers.
            unsafe { Self(call(self.0 $(, $argument.0)*), call(self.1 $(, $argument.1)*)) }
        }
    };
}

impl Avx2 {
    #[inline(always)]
    fn each(self, change: impl Fn(__m256d) -> __m256d) -> Self {
        Self(change(self.0), change(self.1))
    }
}

impl Lanes for Avx2 {
    operation!(add(other) = _mm256_add_pd);
    operation!(sub(other) = _mm256_sub_pd);
    operation!(mul(other) = _mm256_mul_pd);
    operation!(mul_add(factor, addend) = _mm256_fmadd_pd);
    operation!(neg_mul_add(factor, addend) = _mm256_fnmadd_pd);
    operation!(max(other) = _mm256_max_pd);
    operation!(xor(other) = _mm256_xor_pd);
    operation!(or(other) = _mm256_or_pd);

    #[inline(always)]
    fn load(from: &[f64; LANES]) -> Self {
        // SAFETY: see the trait; the place holds eight numbers.
        unsafe { Self(_mm256_loadu_pd(from.as_ptr()), _mm256_loadu_pd(from.as_ptr().add(4))) }
    }

    #[inline(always)]
    fn store(self, to: &mut [f64; LANES]) {
        // SAFETY: see the trait; the place holds eight numbers.
        unsafe {
            _mm256_storeu_pd(to.as_mut_ptr(), self.0);
            _mm256_storeu_pd(to.as_mut_ptr().add(4), self.1);
        }
    }

    #[inline(always)]
    fn stream(self, to: &mut Line) {
        // SAFETY: see the trait; a line is aligned as the instructions need it.
        unsafe {
            _mm256_stream_pd(to.0.as_mut_ptr(), self.0);
            _mm256_stream_pd(to.0.as_mut_ptr().add(4), self.1);
        }
    }

    #[inline(always)]
    fn splat(value: f64) -> Self {
        // SAFETY: see the trait.
        let half = unsafe { _mm256_set1_pd(value) };
        Self(half, half)
    }

    #[inline(always)]
    fn round(self) -> Self {
        // SAFETY: see the trait; 8 is rounding to nearest, ties to even, without exceptions.
        self.each(|half| unsafe { _mm256_round_pd::<8>(half) })
    }

    #[inline(always)]
    fn abs(self) -> Self {
        // SAFETY: see the trait.
        self.each(|half| unsafe { _mm256_and_pd(half, _mm256_castsi256_pd(_mm256_set1_epi64x(i64::MAX))) })
    }

    #[inline(always)]
    fn add_words(self, other: Self) -> Self {
        // SAFETY: see the trait.
        let sum =
            |a, b| unsafe { _mm256_castsi256_pd(_mm256_add_epi64(_mm256_castpd_si256(a), _mm256_castpd_si256(b))) };
        Self(sum(self.0, other.0), sum(self.1, other.1))
    }

    #[inline(always)]
    fn rotate_29(self) -> Self {
        // SAFETY: see the trait.
        self.each(|half| unsafe {
            let words = _mm256_castpd_si256(half);
            let (left, right) = (_mm256_slli_epi64::<29>(words), _mm256_srli_epi64::<35>(words));
            _mm256_or_pd(_mm256_castsi256_pd(left), _mm256_castsi256_pd(right))
        })
    }

    #[inline(always)]
    fn shifted_up(self, before: Self) -> Self {
        // The lane below a half's lowest is the highest of the half before it.
        // SAFETY: see the trait.
        let up = |half, before| unsafe {
            let across = _mm256_permute2f128_pd::<0x21>(before, half);
            _mm256_shuffle_pd::<0b0101>(across, half)
        };
        Self(up(self.0, before.1), up(self.1, self.0))
    }

    #[inline(always)]
    fn transpose(rows: [Self; LANES]) -> [Self; LANES] {
        let low = rows.map(|row| row.0);
        let high = rows.map(|row| row.1);
        let quarter = |of: &[__m256d; LANES], from: usize| square([of[from], of[from + 1], of[from + 2], of[from + 3]]);
        let (a, b, c, d) = (quarter(&low, 0), quarter(&low, 4), quarter(&high, 0), quarter(&high, 4));
        std::array::from_fn(
            |column| {
                if column < 4 { Self(a[column], b[column]) } else { Self(c[column - 4], d[column - 4]) }
            },
        )
    }
}

/// Four registers as the rows of a matrix, which become its columns.
#[inline(always)]
fn square([a, b, c, d]: [__m256d; 4]) -> [__m256d; 4] {
    // SAFETY: see the trait.
    unsafe {
        let (ab_even, ab_odd) = (_mm256_unpacklo_pd(a, b), _mm256_unpackhi_pd(a, b));
        let (cd_even, cd_odd) = (_mm256_unpacklo_pd(c, d), _mm256_unpackhi_pd(c, d));
        [
            _mm256_permute2f128_pd::<0x20>(ab_even, cd_even),
            _mm256_permute2f128_pd::<0x20>(ab_odd, cd_odd),
            _mm256_permute2f128_pd::<0x31>(ab_even, cd_even),
            _mm256_permute2f128_pd::<0x31>(ab_odd, cd_odd),
        ]
    }
}
