//! The innermost loops: a small block of the product of two packed panels, in the registers of one core.
//!
//! Every kernel adds `a·b` with fused multiply-adds in the same order over `k` for each element, so all of them
//! give the same bits.

/// A way to multiply panels, chosen by what the processor offers.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Kernel {
    /// AVX-512 F: blocks of 24 × 8.
    Avx512,
    /// AVX2 and FMA: blocks of 8 × 6.
    Avx2,
    /// Any processor; slow where it has no fused multiply-add.
    Portable,
}

/// The largest block of any kernel, in elements.
pub(super) const LARGEST_BLOCK: usize = 24 * 8;

impl Kernel {
    /// Every kernel, fastest first.
    pub const ALL: [Self; 3] = [Self::Avx512, Self::Avx2, Self::Portable];

    /// The fastest kernel that this processor can run.
    pub fn best() -> Self {
        Self::ALL.into_iter().find(|kernel| kernel.is_available()).unwrap_or(Self::Portable)
    }

    /// Whether this processor can run it.
    #[cfg(target_arch = "x86_64")]
    pub fn is_available(self) -> bool {
        match self {
            Self::Avx512 => is_x86_feature_detected!("avx512f"),
            Self::Avx2 => is_x86_feature_detected!("avx2") && is_x86_feature_detected!("fma"),
            Self::Portable => true,
        }
    }

    /// Whether this processor can run it.
    #[cfg(not(target_arch = "x86_64"))]
    pub fn is_available(self) -> bool {
        self == Self::Portable
    }

    /// The kernel's name, as records show it.
    pub fn name(self) -> &'static str {
        match self {
            Self::Avx512 => "avx512",
            Self::Avx2 => "avx2",
            Self::Portable => "portable",
        }
    }

    /// Rows and columns of a block.
    pub(super) fn block(self) -> (usize, usize) {
        match self {
            Self::Avx512 => (24, 8),
            Self::Avx2 => (8, 6),
            Self::Portable => (8, 4),
        }
    }

    /// Subtracts the product of two packed panels from a block.
    ///
    /// `a` holds `depth` columns of `rows` elements and `b` holds `depth` rows of `columns` elements, with `rows`
    /// and `columns` from [`Kernel::block`]; the block's columns start `stride` elements apart in `c`.
    pub(super) fn subtract_product(self, depth: usize, a: &[f64], b: &[f64], c: &mut [f64], stride: usize) {
        let (rows, columns) = self.block();
        assert!(a.len() >= depth * rows && b.len() >= depth * columns, "panels are shorter than they are deep");
        assert!(c.len() >= (columns - 1) * stride + rows, "the block leaves its matrix");
        match self {
            #[cfg(target_arch = "x86_64")]
            Self::Avx512 => {
                assert!(self.is_available(), "this processor has no AVX-512");
                // SAFETY: the processor has the features, as was just asked.
                unsafe { x86::avx512(depth, a, b, c, stride) }
            }
            #[cfg(target_arch = "x86_64")]
            Self::Avx2 => {
                assert!(self.is_available(), "this processor has no AVX2 and FMA");
                // SAFETY: the processor has the features, as was just asked.
                unsafe { x86::avx2(depth, a, b, c, stride) }
            }
            _ => portable::<8, 4>(depth, a, b, c, stride),
        }
    }
}

#[cfg(target_arch = "x86_64")]
mod x86 {
    use std::arch::x86_64::{
        __m256d, __m512d, _mm256_fmadd_pd, _mm256_loadu_pd, _mm256_set1_pd, _mm256_setzero_pd, _mm256_storeu_pd,
        _mm256_sub_pd, _mm512_fmadd_pd, _mm512_loadu_pd, _mm512_set1_pd, _mm512_setzero_pd, _mm512_storeu_pd,
        _mm512_sub_pd,
    };

    /// A kernel whose block is `$across` vectors of `$lanes` rows by `$columns` columns, all held in registers.
    macro_rules! kernel {
        ($name:ident, $features:literal, $vector:ty, $lanes:literal, $across:literal, $columns:literal,
         $zero:ident, $load:ident, $store:ident, $spread:ident, $multiply_add:ident, $subtract:ident) => {
            #[target_feature(enable = $features)]
            pub(super) fn $name(depth: usize, a: &[f64], b: &[f64], c: &mut [f64], stride: usize) {
                const ROWS: usize = $lanes * $across;
                let (a, _) = a[..depth * ROWS].as_chunks::<ROWS>();
                let (b, _) = b[..depth * $columns].as_chunks::<$columns>();
                let mut sums: [[$vector; $across]; $columns] = [[$zero(); $across]; $columns];
                for (a, b) in a.iter().zip(b) {
                    let mut rows = [$zero(); $across];
                    for (part, row) in rows.iter_mut().enumerate() {
                        // SAFETY: `a` is an array of `$across` vectors, and this is one of them.
                        *row = unsafe { $load(a.as_ptr().add(part * $lanes)) };
                    }
                    for (sums, factor) in sums.iter_mut().zip(b) {
                        let factor = $spread(*factor);
                        for (sum, row) in sums.iter_mut().zip(rows) {
                            *sum = $multiply_add(row, factor, *sum);
                        }
                    }
                }
                for (column, sums) in sums.iter().enumerate() {
                    let column = &mut c[column * stride..column * stride + ROWS];
                    for (part, sum) in sums.iter().enumerate() {
                        // SAFETY: `column` is a slice of `$across` vectors, and this is one of them.
                        unsafe {
                            let place = column.as_mut_ptr().add(part * $lanes);
                            $store(place, $subtract($load(place), *sum));
                        }
                    }
                }
            }
        };
    }

    kernel!(
        avx512,
        "avx512f",
        __m512d,
        8,
        3,
        8,
        _mm512_setzero_pd,
        _mm512_loadu_pd,
        _mm512_storeu_pd,
        _mm512_set1_pd,
        _mm512_fmadd_pd,
        _mm512_sub_pd
    );
    kernel!(
        avx2,
        "avx2,fma",
        __m256d,
        4,
        2,
        6,
        _mm256_setzero_pd,
        _mm256_loadu_pd,
        _mm256_storeu_pd,
        _mm256_set1_pd,
        _mm256_fmadd_pd,
        _mm256_sub_pd
    );
}

/// The kernel of any processor, and the measure of the others.
fn portable<const ROWS: usize, const COLUMNS: usize>(depth: usize, a: &[f64], b: &[f64], c: &mut [f64], stride: usize) {
    let mut sums = [[0.0f64; ROWS]; COLUMNS];
    let (a, _) = a[..depth * ROWS].as_chunks::<ROWS>();
    let (b, _) = b[..depth * COLUMNS].as_chunks::<COLUMNS>();
    for (a, b) in a.iter().zip(b) {
        for (sum, factor) in sums.iter_mut().zip(b) {
            for (sum, a) in sum.iter_mut().zip(a) {
                *sum = a.mul_add(*factor, *sum);
            }
        }
    }
    for (column, sums) in sums.iter().enumerate() {
        let block = &mut c[column * stride..column * stride + ROWS];
        for (element, sum) in block.iter_mut().zip(sums) {
            *element -= sum;
        }
    }
}
