use super::*;
use periculum_core::Decimal;
use proptest::prelude::*;

/// Multiplier in tenths, base clock in tenths of a MHz, core and input voltage in mV, pot in °C.
fn rung([multiplier, base, voltage, input, pot]: [i64; 5]) -> Rung {
    let tenth = |name: &str, value: i64| (name.to_owned(), Decimal::new(value, 1));
    let volts = |name: &str, value: i64| (name.to_owned(), Decimal::new(value, 3));
    let pot = ("pot".to_owned(), Decimal::from(pot));
    let rest = [tenth("base", base), volts("voltage", voltage), volts("input", input), pot];
    [tenth("multiplier", multiplier)].into_iter().chain(rest).collect()
}

fn at(seed: u64, values: [i64; 5]) -> Cold {
    let spec = Spec {
        multipliers: vec!["multiplier".into()],
        base: "base".into(),
        voltage: "voltage".into(),
        input: Some("input".into()),
        pot: "pot".into(),
        cores: 6,
        reference: 4600.0,
        cold: 96.0,
        room: 21.0,
    };
    Cold::new(spec, seed, &rung(values))
}

fn hazard(mut cold: Cold) -> f64 {
    cold.work(Some(Work { load: "digits", threads: Threads::All })).expect("a load");
    let mut parts = Vec::new();
    cold.tick(0.25, &mut parts);
    parts.iter().map(|part| part.hazard).sum()
}

#[test]
fn cold_is_worth_clock_until_it_is_too_cold() {
    for seed in 0..8 {
        let limits: Vec<i64> = [20, -30, -80]
            .map(|pot| {
                (460..620)
                    .take_while(|multiplier| hazard(at(seed, [*multiplier, 1000, 1350, 1700, pot])) < 1e-3)
                    .count() as i64
            })
            .to_vec();
        assert!(limits.is_sorted_by(|a, b| a < b), "specimen {seed}: {limits:?}");
        assert!(at(seed, [460, 1000, 1250, 1700, 20]).is_alive());
        assert!(!at(seed, [460, 1000, 1250, 1700, -130]).is_alive());
    }
}

#[test]
fn the_cold_limit_falls_by_steps_of_the_input_voltage() {
    let limit = |input| at(3, [460, 1000, 1250, input, 20]).cold_limit();
    assert_eq!(limit(1500), limit(1790), "not until some volts");
    assert!(limit(1800) == limit(1849) && limit(1850) < limit(1849) - 5.0);
    let all: Vec<f64> = (1500..2100).step_by(10).map(limit).collect();
    assert!(all.is_sorted_by(|a, b| a >= b));
}

#[test]
fn a_base_clock_that_jumps_hangs_it_until_it_starts_anew() {
    let mut cold = at(1, [460, 1000, 1300, 1700, -40]);
    cold.set(&rung([460, 1020, 1300, 1700, -40]));
    assert!(cold.is_alive());
    cold.set(&rung([460, 1080, 1300, 1700, -40]));
    assert!(!cold.is_alive());
    cold.starts_anew(&mut Stream::new(1, Purpose::Start { at: 3 }));
    assert!(cold.is_alive());
}

#[test]
fn a_quick_reset_works_four_times_of_five() {
    let mut cold = at(2, [560, 1000, 1350, 1700, -60]);
    cold.work(Some(Work { load: "dense", threads: Threads::All })).expect("a load");
    let mut random = Stream::new(2, Purpose::Pass { trial: 1, index: 0 });
    let kinds: Vec<IncidentKind> = (0..500).map(|_| cold.failure(0, &mut random).kind).collect();
    let count = |kind| kinds.iter().filter(|it| **it == kind).count() as f64;
    let quick = count(IncidentKind::Freeze) / (count(IncidentKind::Freeze) + count(IncidentKind::NoStart));
    assert!((0.72..0.88).contains(&quick), "{quick}");
}

#[test]
fn cores_and_specimens_differ_much() {
    let cold = at(5, [460, 1000, 1250, 1700, 20]);
    let (least, most) = cold.needs_more.iter().fold((f64::MAX, f64::MIN), |(a, b), it| (a.min(*it), b.max(*it)));
    assert!(most - least > 0.02, "{:?}", cold.needs_more);
    let limits: Vec<f64> = (0..5).map(|seed| at(seed, [460, 1000, 1250, 1700, 20]).cold).collect();
    assert!(limits.windows(2).all(|pair| (pair[0] - pair[1]).abs() > 0.1), "{limits:?}");
}

proptest! {
    #[test]
    fn harder_is_never_safer_and_hotter_needs_more(
        seed in any::<u64>(), multiplier in 440i64..600, voltage in 1200i64..1600, pot in -85i64..20,
    ) {
        let easy = hazard(at(seed, [multiplier, 1000, voltage, 1700, pot]));
        for harder in [[multiplier + 10, 1000, voltage, 1700, pot], [multiplier, 1010, voltage, 1700, pot],
            [multiplier, 1000, voltage - 10, 1700, pot], [multiplier, 1000, voltage, 1700, pot + 10]] {
            // Less voltage makes less heat, which is worth less than the voltage.
            prop_assert!(hazard(at(seed, harder)) >= easy * 0.999_999, "{harder:?}");
        }
    }
}
