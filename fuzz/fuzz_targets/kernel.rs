//! Hostile input for `targets::kernel`; run with `cargo fuzz run kernel`.
#![no_main]

#[path = "../targets.rs"]
mod targets;

libfuzzer_sys::fuzz_target!(|data: &[u8]| targets::kernel(data));
