use super::*;
use periculum_core::model::pass::Threads;
use proptest::prelude::*;

fn spec() -> Spec {
    Spec {
        rate: "rate".into(),
        timings: ["cl", "trcd", "trp"].map(str::to_owned),
        command_rate: Some("command_rate".into()),
        voltage: "voltage".into(),
        controller: "controller".into(),
        slots: ["slot1", "slot2", "slot3", "slot4"].map(str::to_owned).to_vec(),
        needs: [9.2, 10.4, 9.8],
        usual: 1.35,
        rate_limit: 6800.0,
        best: 1.21,
        rounds: true,
        room: 21.0,
    }
}

/// Rate, timings, command rate, module and controller voltage in mV, and what is in the slots.
#[derive(Clone, Copy, Debug)]
struct Set {
    rate: i64,
    timings: [i64; 3],
    command_rate: i64,
    millivolts: [i64; 2],
    slots: [i64; 4],
}

const EASY: Set =
    Set { rate: 4800, timings: [26, 29, 27], command_rate: 2, millivolts: [1350, 1210], slots: [1, 0, 1, 0] };

fn at(seed: u64, set: Set) -> Memory {
    let whole = |name: &str, value: i64| (name.to_owned(), Decimal::from(value));
    let volts = |name: &str, value: i64| (name.to_owned(), Decimal::new(value, 3));
    let timings = ["cl", "trcd", "trp"].into_iter().zip(set.timings).map(|(name, value)| whole(name, value));
    let slots = (1..).zip(set.slots).map(|(nth, value)| whole(&format!("slot{nth}"), value));
    let rest = [
        whole("rate", set.rate),
        whole("command_rate", set.command_rate),
        volts("voltage", set.millivolts[0]),
        volts("controller", set.millivolts[1]),
    ];
    Memory::new(spec(), seed, &timings.chain(slots).chain(rest).collect())
}

fn working(memory: &Memory, load: &str) -> (f64, f64) {
    let mut memory = memory.clone();
    memory.work(Some(Work { load, threads: Threads::All })).expect("a load");
    let mut parts = Vec::new();
    memory.tick(0.25, &mut parts);
    (parts.iter().map(|part| part.hazard).sum(), parts.iter().map(|part| part.work).sum())
}

#[test]
fn the_controllers_voltage_has_two_sides() {
    for seed in 0..8 {
        let hazard = |millivolts| {
            working(
                &at(seed, Set { rate: 6500, timings: [40, 44, 42], millivolts: [1350, millivolts], ..EASY }),
                "read",
            )
            .0
        };
        let all: Vec<f64> = (1100..=1320).step_by(10).map(hazard).collect();
        let best = all.iter().enumerate().min_by(|a, b| a.1.total_cmp(b.1)).expect("some").0;
        assert!((3..all.len() - 3).contains(&best), "specimen {seed}: {best}");
        assert!(all[0] > all[best] && all[all.len() - 1] > all[best]);
    }
}

#[test]
fn more_modules_and_mixed_kits_reach_less() {
    let population = |slots| at(1, Set { slots, ..EASY }).driven.population();
    let order = [[1, 0, 1, 0], [1, 0, 2, 0], [1, 1, 1, 1], [1, 1, 2, 2], [1, 2, 1, 2]].map(population);
    assert!(order.is_sorted_by(|a, b| a > b), "{order:?}");
    assert_eq!(at(1, Set { slots: [1, 0, 0, 0], ..EASY }).driven.channels(), 1);
}

#[test]
fn an_odd_column_access_is_rounded_and_reported_so() {
    let odd = Set { timings: [27, 29, 27], command_rate: 1, ..EASY };
    assert_eq!(at(1, odd).rounds_to(), [("cl".to_owned(), Decimal::from(28))]);
    assert!(at(1, Set { command_rate: 2, ..odd }).rounds_to().is_empty());
    assert_eq!(working(&at(1, odd), "latency").1, working(&at(1, Set { timings: [28, 29, 27], ..odd }), "latency").1);
}

#[test]
fn training_fails_far_beyond_the_limit_and_leaves_defaults() {
    let starts = |rate| {
        let mut random = Stream::new(5, Purpose::Start { at: 7 });
        (0..40).filter(|_| at(3, Set { rate, ..EASY }).starts_anew(&mut random).is_none()).count()
    };
    assert_eq!(starts(4800), 40);
    assert_eq!(starts(8000), 0);
    let mut random = Stream::new(5, Purpose::Start { at: 7 });
    let why = at(3, Set { rate: 8000, ..EASY }).starts_anew(&mut random).expect("it fails");
    assert_eq!(why.kind, IncidentKind::SafeDefaults);
}

#[test]
fn starts_differ_in_what_nobody_sees() {
    let mut random = Stream::new(5, Purpose::Start { at: 7 });
    let mut memory = at(1, EASY);
    let latencies: Vec<f64> = (0..6)
        .map(|_| {
            assert!(memory.starts_anew(&mut random).is_none());
            working(&memory, "latency").1
        })
        .collect();
    let (least, most) = latencies.iter().fold((f64::MAX, 0.0f64), |(a, b), it| (a.min(*it), b.max(*it)));
    assert!(most > least && most / least < 1.016, "{latencies:?}");
}

#[test]
fn a_faster_rate_with_loose_timings_is_slower_to_answer() {
    let tight = working(&at(1, Set { rate: 5600, timings: [28, 32, 30], ..EASY }), "latency").1;
    let loose = working(&at(1, Set { rate: 6000, timings: [36, 40, 38], ..EASY }), "latency").1;
    assert!(tight < loose && working(&at(1, Set { rate: 6000, ..EASY }), "read").1 > 85.0);
}

#[test]
fn specimens_differ_and_their_faults_name_a_module() {
    let limits: Vec<f64> = (0..5).map(|seed| at(seed, EASY).made.rate_limit).collect();
    assert!(limits.windows(2).all(|pair| (pair[0] - pair[1]).abs() > 5.0), "{limits:?}");
    let mut random = Stream::new(3, Purpose::Pass { trial: 1, index: 0 });
    let fault = at(1, EASY).failure(1, &mut random);
    assert_eq!((fault.kind, fault.place.as_deref()), (IncidentKind::MemoryFault, Some("module 3")));
}

proptest! {
    #[test]
    fn harder_is_never_safer_and_warmer_needs_more(
        seed in any::<u64>(), rate in 44i64..66, cl in 24i64..40, millivolts in 1250i64..1450,
    ) {
        let set = Set { rate: rate * 100, timings: [cl, cl + 4, cl + 2], millivolts: [millivolts, 1210], ..EASY };
        let hazard = |set| working(&at(seed, set), "read").0;
        let easy = hazard(set);
        let faster = Set { rate: set.rate + 100, ..set };
        let tighter = Set { timings: [cl - 1, cl + 4, cl + 2], ..set };
        let weaker = Set { millivolts: [millivolts - 10, 1210], ..set };
        for harder in [faster, tighter, weaker] {
            prop_assert!(hazard(harder) >= easy, "{harder:?}");
        }
        let mut warm = at(seed, set);
        warm.module += 20.0;
        prop_assert!(working(&warm, "read").0 >= easy);
    }
}
