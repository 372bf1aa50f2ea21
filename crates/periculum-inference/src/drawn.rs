//! Numbers that look drawn, for tests.

/// Normal enough noise of deviation 1 from a seed.
pub(crate) fn drawn(seed: u64) -> impl FnMut() -> f64 {
    let mut state = seed;
    move || {
        let mut sum = 0.0;
        for _ in 0..12 {
            state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
            sum += (state >> 33) as f64 / f64::from(1u32 << 31) - 0.5;
        }
        sum
    }
}
