//! What numbers say: estimates and their intervals, comparisons, and the model of how fast a rig fails.

pub mod comparison;
pub mod disturbance;
#[cfg(test)]
mod drawn;
pub mod drift;
pub mod family;
pub mod former;
pub mod hazard;
pub mod laws;
pub mod lesson;
pub mod noise;
pub mod prior;
pub mod scatter;
pub mod statistics;
pub mod worked;
