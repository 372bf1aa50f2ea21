//! A rig in software: a processor that behaves as silicon does, on a virtual clock.
//!
//! Everything is drawn from one seed, the specimen. The same seed and the same actions give the same events,
//! so the engine can be tested against the truth and a beginner can practise without risk.

mod failure;
mod meter;
mod random;
mod silicon;
mod simulator;
mod spec;
mod thermal;
mod truth;

pub use meter::serve;
pub use simulator::Simulator;
pub use spec::{SOURCES, Spec};
pub use truth::Truth;

/// The names of the loads that a simulated processor can run.
pub fn loads() -> Vec<&'static str> {
    silicon::LOADS.iter().map(|(name, _)| *name).collect()
}

#[cfg(test)]
mod tests {
    use super::Spec;
    use super::spec::{Cooling, Power, Silicon};

    /// The desktop processor that the tests of this folder share.
    pub(super) fn spec() -> Spec {
        Spec {
            seed: 7,
            clocks: vec!["core_clock".into()],
            voltage: "core_voltage".into(),
            power_limit: None,
            cores: 8,
            room: 21.0,
            silicon: Silicon::default(),
            power: Power::default(),
            cooling: Cooling::default(),
        }
    }
}
