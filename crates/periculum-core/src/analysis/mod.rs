//! What records say beyond what they tell: scores, the border on the map, what differs, what a plan will cost.

pub mod ahead;
pub mod at_stock;
pub mod attempts;
pub mod chance;
pub mod claim;
pub mod contrast;
#[cfg(test)]
mod example;
pub mod faster;
pub mod forecast;
pub mod gain;
pub mod harder;
pub mod kinds;
pub mod money;
pub mod over;
pub mod pool;
pub mod scores;
pub mod sitting;
pub mod terrain;
