//! A rig in software: devices that behave as silicon does, on a virtual clock.
//!
//! Everything is drawn from one seed, the specimen. The same seed and the same actions give the same events,
//! so the engine can be tested against the truth and a beginner can practise without risk.

mod device;
mod devices;
mod hazard;
mod law;
mod meter;
mod names;
mod numbers;
mod random;
mod rig;
mod spec;
mod thermal;
mod truth;

pub use devices::processor;
pub use law::Law;
pub use meter::serve;
pub use rig::Simulator;
pub use spec::Spec;
pub use thermal::Cooling;
pub use truth::Truth;
