//! Hostile input for `targets::files`; run with `cargo fuzz run files`.
#![no_main]

#[path = "../targets.rs"]
mod targets;

libfuzzer_sys::fuzz_target!(|data: &[u8]| targets::files(data));
