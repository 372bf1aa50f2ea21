//! Hostile input for `targets::journal`; run with `cargo fuzz run journal`.
#![no_main]

#[path = "../targets.rs"]
mod targets;

libfuzzer_sys::fuzz_target!(|data: &[u8]| targets::journal(data));
