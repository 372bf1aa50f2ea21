use super::*;
use periculum_core::Decimal;
use periculum_core::model::curve::{self, Curve, Sits};
use periculum_core::model::pass::Threads;
use proptest::prelude::*;

fn spec() -> Spec {
    Spec {
        curve: curve(),
        memory_offset: "memory".into(),
        power_limit: Some("power".into()),
        fan: Some("fan".into()),
        memory: [1750.0, 190.0],
        power: 215.0,
        cooling: spec::usual_cooling(),
        room: 21.0,
    }
}

/// Seventeen points that gain less and less.
fn curve() -> Curve {
    let point = |nth: u32| {
        let left = 1.0 - f64::from(nth) / 16.0;
        let clock = 1020.0 + 1180.0 * (1.0 - left * left.sqrt());
        let at = Decimal::from(640 + 25 * nth);
        curve::Point { at, factory: Decimal::from(clock.round() as i64), setting: Some(format!("core_{at}")) }
    };
    Curve {
        name: "core".into(),
        label: "core".into(),
        unit: "MHz".into(),
        across: "mV".into(),
        points: (0..=16).map(point).collect(),
        offset: Some("core".into()),
        flat: Some("flat".into()),
        ceilings: Vec::new(),
        sits: Sits::default(),
    }
}

/// Core and memory offset in MHz, power limit and fan in percent.
fn at(seed: u64, values: [i64; 4]) -> Graphics {
    let names = ["core", "memory", "power", "fan"].map(str::to_owned);
    let rung = names.into_iter().zip(values.map(Decimal::from)).collect();
    Graphics::new(spec(), seed, &rung)
}

/// The card when it has worked for so many seconds, and what it did in the last tick.
fn worked(mut card: Graphics, load: &str, seconds: u32) -> (Graphics, Strained) {
    card.work(Some(Work { load, threads: Threads::All })).expect("a load");
    let mut parts = Vec::new();
    for _ in 0..seconds * 4 {
        parts.clear();
        card.tick(0.25, &mut parts);
    }
    (card, parts[0])
}

#[test]
fn a_card_as_it_comes_holds_for_every_specimen() {
    for seed in 0..12 {
        let (card, did) = worked(at(seed, [0, 0, 100, 45]), "scene", 300);
        assert!(card.is_alive() && did.hazard < 1e-6, "specimen {seed}: {did:?} {:?}", card.point);
        assert!((50.0..83.0).contains(&card.network.die), "specimen {seed}: {}", card.network.die);
    }
}

#[test]
fn repeated_transfers_cost_score_before_anything_is_seen() {
    for seed in 0..6 {
        let at = |offset: i64| worked(at(seed, [0, offset, 100, 45]), "transfers", 30).1;
        let scores: Vec<f64> = (0..=400).step_by(20).map(|offset| at(offset).work).collect();
        let best = scores.iter().enumerate().max_by(|a, b| a.1.total_cmp(b.1)).expect("some").0;
        assert!(best > 2 && best < scores.len() - 2, "specimen {seed}: {scores:?}");
        let offset = 20 * i64::try_from(best).expect("small");
        assert!(at(offset + 20).work < at(offset).work && at(offset + 20).hazard < 1.0 / 3600.0);
        assert!(at(400).hazard > at(offset).hazard * 100.0);
    }
}

#[test]
fn less_power_is_a_lower_point_and_says_so() {
    let (full, fast) = worked(at(2, [0, 0, 100, 45]), "sums", 120);
    let (less, slow) = worked(at(2, [0, 0, 70, 45]), "sums", 120);
    assert!(less.point.voltage < full.point.voltage && slow.work < fast.work);
    assert_eq!(less.reading("limited-by", 0.0), Some(2.0));
    assert!(less.power <= 0.7 * 215.0 + 1e-9);
}

#[test]
fn harder_fans_keep_it_colder_and_faster() {
    let (calm, _) = worked(at(2, [0, 0, 115, 30]), "scene", 600);
    let (loud, _) = worked(at(2, [0, 0, 115, 90]), "scene", 600);
    assert!(loud.network.die < calm.network.die - 5.0 && loud.point.clock > calm.point.clock);
}

#[test]
fn what_goes_wrong_is_pixels_near_the_border_and_a_reset_beyond() {
    let kinds = |offset: i64| {
        let (card, _) = worked(at(4, [offset, 0, 115, 60]), "scene", 60);
        let mut random = Stream::new(4, Purpose::Pass { trial: 1, index: 0 });
        (0..200).map(|_| card.failure(0, &mut random).kind).collect::<Vec<_>>()
    };
    let count = |kinds: &[IncidentKind], kind| kinds.iter().filter(|it| **it == kind).count();
    let (near, beyond) = (kinds(100), kinds(500));
    assert_eq!(count(&near, IncidentKind::Artefact), 200);
    assert!(count(&beyond, IncidentKind::DeviceReset) > 40 && count(&beyond, IncidentKind::Freeze) > 20);
    assert!(at(1, [0, 0, 100, 45]).loses_on(IncidentKind::DeviceReset));
}

#[test]
fn specimens_differ() {
    let limits: Vec<f64> = (0..5).map(|seed| at(seed, [0, 0, 100, 45]).made.memory_limit).collect();
    assert!(limits.windows(2).all(|pair| (pair[0] - pair[1]).abs() > 0.5), "{limits:?}");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]
    #[test]
    fn more_offset_is_never_safer(seed in any::<u64>(), core in 0i64..400, memory in 0i64..250) {
        let hazard = |core, memory| worked(at(seed, [core, memory, 130, 80]), "scene", 1).1.hazard;
        let easy = hazard(core, memory);
        prop_assert!(hazard(core, memory + 10) >= easy);
        prop_assert!(hazard(core + 15, memory) >= easy * 0.999);
    }
}
