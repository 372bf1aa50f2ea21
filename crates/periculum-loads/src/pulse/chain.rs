//! Chains of operations that each wait for the one before.

use std::time::Instant;

/// Operations in a chain: 10 µs or so.
const OPERATIONS: u32 = 10_000;

/// Operations written out one after the other, so that the loop around them costs nothing.
const UNROLLED: u32 = 100;

/// How many chains a glimpse takes the fastest of.
const TRIES: usize = 5;

/// The clock in MHz, from the fastest of a few chains; some 50 µs.
pub(crate) fn glimpse() -> f64 {
    (0..TRIES).map(|_| sample()).fold(0.0, f64::max)
}

/// The clock in MHz that one chain shows.
pub(super) fn sample() -> f64 {
    clock_of(multiplications, CYCLES_A_MULTIPLICATION)
}

fn clock_of(chain: fn(u32) -> u64, cycles_each: f64) -> f64 {
    let began = Instant::now();
    std::hint::black_box(chain(std::hint::black_box(OPERATIONS)));
    megahertz(OPERATIONS, cycles_each, began.elapsed().as_secs_f64())
}

/// The clock in MHz at which so many operations of so many cycles each take so long.
fn megahertz(operations: u32, cycles_each: f64, seconds: f64) -> f64 {
    f64::from(operations) * cycles_each / seconds / 1e6
}

/// A multiplication of 64-bit registers takes so long on every x86-64 processor since 2008, and on most others (Fog,
/// Instruction tables, 2022).
const CYCLES_A_MULTIPLICATION: f64 = 3.0;

/// A chain of multiplications, register by register; no processor can take short cuts through it.
fn multiplications(operations: u32) -> u64 {
    let mut value = 0x9e37_79b9_7f4a_7c15u64;
    for _ in 0..operations / UNROLLED {
        #[cfg(target_arch = "x86_64")]
        // SAFETY: only a register changes.
        unsafe {
            std::arch::asm!(
                ".rept {times}", "imul {value}, {value}", ".endr",
                times = const UNROLLED, value = inout(reg) value, options(pure, nomem, nostack)
            );
        }
        #[cfg(not(target_arch = "x86_64"))]
        for _ in 0..UNROLLED {
            value = value.wrapping_mul(value);
        }
    }
    value
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_clock_is_cycles_over_time() {
        assert!((megahertz(10_000, CYCLES_A_MULTIPLICATION, 10e-6) - 3000.0).abs() < 1e-9);
        assert!((megahertz(20_000, 1.0, 5e-6) - 4000.0).abs() < 1e-9);
    }

    #[test]
    fn a_chain_has_as_many_operations_as_it_says() {
        let start = multiplications(0);
        for links in [UNROLLED, 3 * UNROLLED, OPERATIONS] {
            let expected = (0..links).fold(start, |value, _| value.wrapping_mul(value));
            assert_eq!(multiplications(links), expected, "{links}");
        }
    }
}

#[cfg(all(test, target_arch = "x86_64"))]
mod on_a_quiet_machine {
    use super::*;

    /// A chain of additions, register to register, one cycle each. (With a constant instead of a register some
    /// processors add several at once.)
    fn additions(operations: u32) -> u64 {
        let (mut value, step) = (1u64, std::hint::black_box(3u64));
        for _ in 0..operations / UNROLLED {
            // SAFETY: only a register changes.
            unsafe {
                std::arch::asm!(
                    ".rept {times}", "add {value}, {step}", ".endr",
                    times = const UNROLLED, value = inout(reg) value, step = in(reg) step,
                    options(pure, nomem, nostack)
                );
            }
        }
        value
    }

    #[test]
    #[ignore = "measures: the machine must have nothing else to do"]
    fn two_kinds_of_operation_show_the_same_clock() {
        let fastest = |chain, cycles| (0..2000).map(|_| clock_of(chain, cycles)).fold(0.0, f64::max);
        let (by_multiplying, by_adding) = (fastest(multiplications, CYCLES_A_MULTIPLICATION), fastest(additions, 1.0));
        assert!((100.0..10_000.0).contains(&by_multiplying), "{by_multiplying} MHz");
        assert!((by_multiplying / by_adding - 1.0).abs() < 0.1, "{by_multiplying} and {by_adding} MHz");
    }
}
