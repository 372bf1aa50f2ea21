//! Hostile input for `targets::instruments`; run with `cargo fuzz run instruments`.
#![no_main]

#[path = "../targets.rs"]
mod targets;

libfuzzer_sys::fuzz_target!(|data: &[u8]| targets::instruments(data));
