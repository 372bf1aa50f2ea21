//! Hostile input for `targets::messages`; run with `cargo fuzz run messages`.
#![no_main]

#[path = "../targets.rs"]
mod targets;

libfuzzer_sys::fuzz_target!(|data: &[u8]| targets::messages(data));
