//! What every load has in common: threads on cores, rounds from a seed, references, faults and progress.
//!
//! A [`Load`] says what it is and makes a [`Work`] for each core; [`run()`] lets them work, compares every round with
//! the reference bit for bit, and tells what it finds.

mod clock;
mod counted;
mod gate;
mod load;
mod order;
mod reference;
mod run;
mod stint;
mod tally;
mod worker;

pub use load::{About, Disturb, Fault, FaultKind, Load, NoDisturbance, Site, Touch, Work};
pub use order::{Order, SEED, Stop, Turns};
pub use run::{run, seconds_a_round};
