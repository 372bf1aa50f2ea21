//! Lanes in one register of AVX-512.

use std::arch::x86_64::{
    __m512d, _mm512_abs_pd, _mm512_add_epi64, _mm512_add_pd, _mm512_alignr_epi64, _mm512_castpd_si512,
    _mm512_castsi512_pd, _mm512_fmadd_pd, _mm512_fnmadd_pd, _mm512_loadu_pd, _mm512_max_pd, _mm512_mul_pd,
    _mm512_or_si512, _mm512_range_pd, _mm512_rol_epi64, _mm512_roundscale_pd, _mm512_set1_pd, _mm512_shuffle_f64x2,
    _mm512_storeu_pd, _mm512_stream_pd, _mm512_sub_pd, _mm512_unpackhi_pd, _mm512_unpacklo_pd, _mm512_xor_si512,
};

use super::{LANES, Lanes, Line};

/// Eight numbers in one register.
#[derive(Clone, Copy)]
pub(crate) struct Avx512(__m512d);

/// An operation of instructions that take and give registers.
macro_rules! operation {
    ($name:ident($($argument:ident),*) = $instruction:expr) => {
        #[inline(always)]
        fn $name(self $(, $argument: Self)*) -> Self {
            let call = $instruction;
            // SAFETY: see the trait; the instruction only changes registers.
            Self(unsafe { call(self.0 $(, $argument.0)*) })
        }
    };
}

impl Lanes for Avx512 {
    operation!(add(other) = _mm512_add_pd);
    operation!(sub(other) = _mm512_sub_pd);
    operation!(mul(other) = _mm512_mul_pd);
    operation!(mul_add(factor, addend) = _mm512_fmadd_pd);
    operation!(neg_mul_add(factor, addend) = _mm512_fnmadd_pd);
    operation!(abs() = _mm512_abs_pd);
    operation!(max(other) = _mm512_max_pd);
    // 11 is the larger magnitude, without its sign.
    operation!(larger_magnitude(other) = _mm512_range_pd::<11>);

    #[inline(always)]
    fn load(from: &[f64; LANES]) -> Self {
        // SAFETY: see the trait; the place holds eight numbers.
        Self(unsafe { _mm512_loadu_pd(from.as_ptr()) })
    }

    #[inline(always)]
    fn store(self, to: &mut [f64; LANES]) {
        // SAFETY: see the trait; the place holds eight numbers.
        unsafe { _mm512_storeu_pd(to.as_mut_ptr(), self.0) }
    }

    #[inline(always)]
    fn splat(value: f64) -> Self {
        // SAFETY: see the trait.
        Self(unsafe { _mm512_set1_pd(value) })
    }

    #[inline(always)]
    fn round(self) -> Self {
        // SAFETY: see the trait; 8 is rounding to nearest, ties to even, without exceptions.
        Self(unsafe { _mm512_roundscale_pd::<8>(self.0) })
    }

    #[inline(always)]
    fn xor(self, other: Self) -> Self {
        // SAFETY: see the trait.
        Self(unsafe {
            _mm512_castsi512_pd(_mm512_xor_si512(_mm512_castpd_si512(self.0), _mm512_castpd_si512(other.0)))
        })
    }

    #[inline(always)]
    fn or(self, other: Self) -> Self {
        // SAFETY: see the trait.
        Self(unsafe { _mm512_castsi512_pd(_mm512_or_si512(_mm512_castpd_si512(self.0), _mm512_castpd_si512(other.0))) })
    }

    #[inline(always)]
    fn stream(self, to: &mut Line) {
        // SAFETY: see the trait; a line is aligned as the instruction needs it.
        unsafe { _mm512_stream_pd(to.0.as_mut_ptr(), self.0) }
    }

    #[inline(always)]
    fn add_words(self, other: Self) -> Self {
        // SAFETY: see the trait.
        Self(unsafe {
            _mm512_castsi512_pd(_mm512_add_epi64(_mm512_castpd_si512(self.0), _mm512_castpd_si512(other.0)))
        })
    }

    #[inline(always)]
    fn rotate_29(self) -> Self {
        // SAFETY: see the trait.
        Self(unsafe { _mm512_castsi512_pd(_mm512_rol_epi64::<29>(_mm512_castpd_si512(self.0))) })
    }

    #[inline(always)]
    fn shifted_up(self, before: Self) -> Self {
        // SAFETY: see the trait.
        Self(unsafe {
            _mm512_castsi512_pd(_mm512_alignr_epi64::<7>(_mm512_castpd_si512(self.0), _mm512_castpd_si512(before.0)))
        })
    }

    #[inline(always)]
    fn transpose(rows: [Self; LANES]) -> [Self; LANES] {
        let [a, b, c, d, e, f, g, h] = rows.map(|row| row.0);
        // SAFETY: see the trait.
        unsafe {
            // Pairs of rows, then pairs of pairs, then whole columns.
            let (ab, cd, ef, gh) = (pairs(a, b), pairs(c, d), pairs(e, f), pairs(g, h));
            let (even_low, odd_low) = (quarters(ab.0, cd.0), quarters(ab.1, cd.1));
            let (even_high, odd_high) = (quarters(ef.0, gh.0), quarters(ef.1, gh.1));
            let (c0, c4) = quarters(even_low.0, even_high.0);
            let (c2, c6) = quarters(even_low.1, even_high.1);
            let (c1, c5) = quarters(odd_low.0, odd_high.0);
            let (c3, c7) = quarters(odd_low.1, odd_high.1);
            [c0, c1, c2, c3, c4, c5, c6, c7].map(Self)
        }
    }
}

/// The even and the odd lanes of two registers, interleaved.
#[inline(always)]
unsafe fn pairs(a: __m512d, b: __m512d) -> (__m512d, __m512d) {
    // SAFETY: see the trait.
    unsafe { (_mm512_unpacklo_pd(a, b), _mm512_unpackhi_pd(a, b)) }
}

/// Quarters 0 and 2 of two registers, then quarters 1 and 3.
#[inline(always)]
unsafe fn quarters(a: __m512d, b: __m512d) -> (__m512d, __m512d) {
    // SAFETY: see the trait.
    unsafe { (_mm512_shuffle_f64x2::<0b10_00_10_00>(a, b), _mm512_shuffle_f64x2::<0b11_01_11_01>(a, b)) }
}
