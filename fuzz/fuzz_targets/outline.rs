//! Hostile input for `targets::outline`; run with `cargo fuzz run outline`.
#![no_main]

#[path = "../targets.rs"]
mod targets;

libfuzzer_sys::fuzz_target!(|data: &[u8]| targets::outline(data));
