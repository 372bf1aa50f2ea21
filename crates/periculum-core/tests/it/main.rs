//! What the core must do, in one binary, so that it is linked once.

mod answers;
mod by_hand;
mod chaos;
mod claims;
mod confirming;
mod curves;
mod engine;
mod errands;
mod files;
mod kinds;
mod leading;
mod outline;
mod play;
mod scenarios;
mod seek;
mod starts;
mod states;
mod strategies;
mod trust;
