//! `dense`: linear systems solved over and over, for heat and vector units.
//!
//! Every thread solves the same system `Ax = b` by LU factorisation with partial pivoting and checks each
//! solution twice: its scaled residual, as benchmarks of linear systems define it, and that every
//! bit of factors, pivots and solution is the same as in every other round on every core.

mod kernel;
mod lu;
mod matrix;
mod multiply;
mod run;
mod system;

pub use kernel::Kernel;
pub use run::{Disturb, NoDisturbance, Order, Stop, run};
pub use system::{Solver, WORST_RESIDUAL};
