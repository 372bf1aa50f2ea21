//! Complex numbers, eight side by side.

use std::f64::consts::PI;

use crate::lanes::{LANES, Lanes};

/// Eight complex numbers in memory: real parts, then imaginary ones.
#[derive(Clone, Copy, Debug, PartialEq, bytemuck::Pod, bytemuck::Zeroable)]
#[repr(C, align(64))]
pub(crate) struct Block {
    pub(crate) re: [f64; LANES],
    pub(crate) im: [f64; LANES],
}

/// One complex number.
#[derive(Clone, Copy, Debug, PartialEq, bytemuck::Pod, bytemuck::Zeroable)]
#[repr(C)]
pub(super) struct Complex {
    pub(super) re: f64,
    pub(super) im: f64,
}

impl Complex {
    /// `exp(2πi · part/whole)`, from the nearest eighth of the circle, where sine and cosine are most exact.
    pub(super) fn root(part: i64, whole: i64) -> Self {
        let part = part.rem_euclid(whole);
        let eighth = (8 * part + whole / 2).div_euclid(whole);
        let rest = (8 * part - eighth * whole) as f64 / (8 * whole) as f64;
        let (sine, cosine) = (2.0 * PI * rest).sin_cos();
        let turned = |quarters: i64| match quarters % 4 {
            0 => (cosine, sine),
            1 => (-sine, cosine),
            2 => (-cosine, -sine),
            _ => (sine, -cosine),
        };
        let (re, im) = turned(eighth / 2);
        if eighth % 2 == 0 {
            return Self { re, im };
        }
        let half = std::f64::consts::FRAC_1_SQRT_2;
        Self { re: (re - im) * half, im: (re + im) * half }
    }
}

/// Eight complex numbers in registers.
#[derive(Clone, Copy)]
pub(super) struct Eight<L> {
    pub(super) re: L,
    pub(super) im: L,
}

impl<L: Lanes> Eight<L> {
    #[inline(always)]
    pub(super) fn load(from: &Block) -> Self {
        Self { re: L::load(&from.re), im: L::load(&from.im) }
    }

    #[inline(always)]
    pub(super) fn store(self, to: &mut Block) {
        self.re.store(&mut to.re);
        self.im.store(&mut to.im);
    }

    /// The same number eight times.
    #[inline(always)]
    pub(super) fn splat(value: &Complex) -> Self {
        Self { re: L::splat(value.re), im: L::splat(value.im) }
    }

    #[inline(always)]
    pub(super) fn plus(self, other: Self) -> Self {
        Self { re: self.re.add(other.re), im: self.im.add(other.im) }
    }

    #[inline(always)]
    pub(super) fn minus(self, other: Self) -> Self {
        Self { re: self.re.sub(other.re), im: self.im.sub(other.im) }
    }

    #[inline(always)]
    pub(super) fn times(self, other: Self) -> Self {
        Self {
            re: self.im.neg_mul_add(other.im, self.re.mul(other.re)),
            im: self.im.mul_add(other.re, self.re.mul(other.im)),
        }
    }

    /// Times the conjugate of the other.
    #[inline(always)]
    pub(super) fn over(self, other: Self) -> Self {
        Self {
            re: self.im.mul_add(other.im, self.re.mul(other.re)),
            im: self.re.neg_mul_add(other.im, self.im.mul(other.re)),
        }
    }

    #[inline(always)]
    pub(super) fn squared(self) -> Self {
        let twice = self.re.add(self.re);
        Self { re: self.im.neg_mul_add(self.im, self.re.mul(self.re)), im: twice.mul(self.im) }
    }

    /// `self − i·other`.
    #[inline(always)]
    pub(super) fn minus_i(self, other: Self) -> Self {
        Self { re: self.re.add(other.im), im: self.im.sub(other.re) }
    }

    /// `self + i·other`.
    #[inline(always)]
    pub(super) fn plus_i(self, other: Self) -> Self {
        Self { re: self.re.sub(other.im), im: self.im.add(other.re) }
    }

    #[inline(always)]
    pub(super) fn scaled(self, factor: L) -> Self {
        Self { re: self.re.mul(factor), im: self.im.mul(factor) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn roots_are_those_of_the_circle() {
        for whole in [1, 2, 3, 8, 12, 1 << 20] {
            for part in [-3, 0, 1, 2, 3, 5, whole - 1, whole / 2] {
                let Complex { re, im } = Complex::root(part, whole);
                let (sine, cosine) = (2.0 * PI * part.rem_euclid(whole) as f64 / whole as f64).sin_cos();
                assert!((re - cosine).abs() < 1e-15 && (im - sine).abs() < 1e-15, "{part} of {whole}");
            }
        }
    }
}
