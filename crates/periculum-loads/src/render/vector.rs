//! Vectors in space.

use std::ops::{Add, Mul, Sub};

/// A point, a direction or a colour.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Vector(pub(super) f64, pub(super) f64, pub(super) f64);

impl Vector {
    pub(super) fn dot(self, other: Self) -> f64 {
        self.0 * other.0 + self.1 * other.1 + self.2 * other.2
    }

    pub(super) fn unit(self) -> Self {
        self * (1.0 / self.dot(self).sqrt())
    }

    /// Component by component, as colours are multiplied.
    pub(super) fn tinted(self, other: Self) -> Self {
        Self(self.0 * other.0, self.1 * other.1, self.2 * other.2)
    }
}

impl Add for Vector {
    type Output = Self;

    fn add(self, other: Self) -> Self {
        Self(self.0 + other.0, self.1 + other.1, self.2 + other.2)
    }
}

impl Sub for Vector {
    type Output = Self;

    fn sub(self, other: Self) -> Self {
        Self(self.0 - other.0, self.1 - other.1, self.2 - other.2)
    }
}

impl Mul<f64> for Vector {
    type Output = Self;

    fn mul(self, factor: f64) -> Self {
        Self(self.0 * factor, self.1 * factor, self.2 * factor)
    }
}
