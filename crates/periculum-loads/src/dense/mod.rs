//! `dense`: linear systems solved over and over, for heat and vector units.
//!
//! Every core solves the same system `Ax = b` by LU factorisation with partial pivoting. The scaled residual, as
//! benchmarks of linear systems define it, of the reference must be good, and every bit of factors, pivots and
//! solution must be the same as in the reference in every round on every core.

mod exchange;
mod load;
mod lu;
mod matrix;
mod multiply;
mod narrow;
mod probe;
mod substitute;
mod system;

pub use load::Dense;
pub use probe::Probe;
pub use system::{Solver, WORST_RESIDUAL};
