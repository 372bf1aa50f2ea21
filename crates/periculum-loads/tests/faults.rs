//! Flipped bits in what loads work on are caught, and the core that they happened on is named.

use std::collections::BTreeSet;
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex};
use std::time::Duration;

use periculum_loads::Kernel;
use periculum_loads::catalogue::{LOADS, find};
use periculum_loads::cores::allowed;
use periculum_loads::frame::{Disturb, Load, NoDisturbance, Order, Site, Stop, Touch, Turns, run};
use periculum_loads::protocol::{Message, Progress, Wrong};
use proptest::prelude::*;
use proptest::test_runner::{Config, TestRunner};

/// Sizes at which a round takes a moment.
const SIZES: [(&str, u64); 11] = [
    ("dense", 48),
    ("product", 64),
    ("transform", 256),
    ("integer", 1),
    ("memory", 1),
    ("render", 1),
    ("encode", 1),
    ("digits", 4000),
    ("division", 3000),
    ("bandwidth-read", 64),
    ("latency", 16),
];

const SEED: u64 = 9;

/// Flips bits once, on one core, in its first round from a given one, where a site of this name comes by.
#[derive(Debug)]
struct Flip {
    what: &'static str,
    core: usize,
    from_round: u64,
    bits: Vec<usize>,
    is_done: AtomicBool,
}

impl Disturb for Flip {
    fn strike(&self, site: Site, bytes: &mut [u8]) {
        let is_here = site.what == self.what && site.core == self.core && site.round >= self.from_round;
        if !is_here || bytes.is_empty() || self.is_done.swap(true, Ordering::Relaxed) {
            return;
        }
        for bit in &self.bits {
            let bit = bit % (bytes.len() * 8);
            bytes[bit / 8] ^= 1 << (bit % 8);
        }
    }
}

/// Writes down where a load can be disturbed.
#[derive(Default)]
struct Survey(Mutex<BTreeSet<&'static str>>);

impl Disturb for Survey {
    fn strike(&self, site: Site, _: &mut [u8]) {
        self.0.lock().expect("no panic").insert(site.what);
    }
}

fn sites(load: &dyn Load, size: u64) -> Vec<&'static str> {
    let survey = Survey::default();
    let mut work = load.begin(Kernel::best(), size, SEED).expect("memory");
    work.restart();
    work.round(&mut Touch::of(&survey, 0, 1));
    survey.0.into_inner().expect("no panic").into_iter().collect()
}

/// Whether the flip changes any bit of the answer: what rounding takes back nobody can see in the result.
fn changes_the_answer(load: &dyn Load, size: u64, flip: &Flip) -> bool {
    let digests = |disturb: &dyn Disturb| {
        let mut work = load.begin(Kernel::best(), size, SEED).expect("memory");
        work.restart();
        let fault = work.round(&mut Touch::of(disturb, flip.core, flip.from_round));
        (fault, work.digests().to_vec())
    };
    let again = Flip { is_done: AtomicBool::new(false), bits: flip.bits.clone(), ..*flip };
    digests(&NoDisturbance) != digests(&again)
}

fn order(size: u64, times: u64) -> Order {
    Order {
        cores: allowed(),
        turns: Turns::Together,
        size,
        length: Duration::from_secs(60),
        times: Some(times),
        warm_up: Duration::ZERO,
        seed: SEED,
        stop: Stop::AtFirstError,
    }
}

fn outcome(load: &'static dyn Load, order: &Order, disturb: Arc<dyn Disturb>) -> (Vec<Wrong>, Progress) {
    let (mut wrongs, mut end) = (Vec::new(), Progress::default());
    run(load, order, disturb, |message| match message {
        Message::Wrong(wrong) => wrongs.push(wrong),
        Message::Ended(progress) => end = progress,
        Message::Failed { why } | Message::Lost { why, .. } => panic!("{why}"),
        Message::Struck { .. } | Message::DeviceLost { .. } => unreachable!("no child and no device is there"),
        Message::Started(_) | Message::Progress(_) => {}
    });
    (wrongs, end)
}

/// Lets this many flips happen to each load, loads on each core beside those on the others; each that changes the answer must be caught,
/// on its core, in its round.
fn every_flip_is_caught(flips: u32) {
    let only = std::env::var("LOAD").ok();
    let loads: Vec<_> = SIZES.into_iter().filter(|(name, _)| only.as_ref().is_none_or(|only| only == name)).collect();
    let cores = allowed();
    std::thread::scope(|scope| {
        for (nth, core) in cores.iter().enumerate() {
            let of_core = loads.iter().skip(nth).step_by(cores.len());
            scope.spawn(move || of_core.for_each(|(name, size)| flips_of_one_are_caught(name, *size, *core, flips)));
        }
    });
}

fn flips_of_one_are_caught(name: &str, size: u64, core: usize, flips: u32) {
    let load = find(name).expect("a load");
    let sites = sites(load, size);
    assert!(!sites.is_empty(), "{name} can't be disturbed");
    let bits = prop::collection::vec(any::<usize>(), 1..=2);
    let flip = (prop::sample::select(sites), 1u64..4, bits);
    let config = Config { cases: flips, failure_persistence: None, ..Config::default() };
    let caught = TestRunner::new(config).run(&flip, |(what, from_round, bits)| {
        let flip = Arc::new(Flip { what, core, from_round, bits, is_done: AtomicBool::new(false) });
        let order = Order { cores: vec![core], ..order(size, 4) };
        let (wrongs, _) = outcome(load, &order, Arc::<Flip>::clone(&flip));
        match wrongs.first() {
            Some(wrong) => prop_assert_eq!((wrong.core, wrong.round, wrong.nth), (Some(core), from_round, 1)),
            None => prop_assert!(!changes_the_answer(load, size, &flip), "{} {:?} was not seen", name, flip),
        }
        Ok(())
    });
    caught.unwrap_or_else(|error| panic!("{name}: {error}"));
}

#[test]
fn flipped_bits_are_caught_on_their_core() {
    every_flip_is_caught(60);
}

#[test]
#[ignore = "takes half an hour; run it after a change of any check; FLIPS is another number, LOAD one load"]
fn ten_thousand_flipped_bits_are_caught_on_their_core() {
    let flips = std::env::var("FLIPS").ok().and_then(|flips| flips.parse().ok());
    every_flip_is_caught(flips.unwrap_or(10_000));
}

/// Which part of the flips of one bit nobody can see in the answer, site by site: for the table in docs/loads.md.
#[test]
#[ignore = "prints a table and holds nothing; FLIPS is how many of each site"]
fn what_can_not_be_seen() {
    let flips = std::env::var("FLIPS").ok().and_then(|flips| flips.parse().ok()).unwrap_or(1000usize);
    for (name, size) in SIZES {
        let load = find(name).expect("a load");
        for what in sites(load, size) {
            let mut bit = 1usize;
            let unseen = (0..flips).filter(|_| {
                bit = bit.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
                let flip =
                    Flip { what, core: 0, from_round: 1, bits: vec![bit >> 11], is_done: AtomicBool::new(false) };
                !changes_the_answer(load, size, &flip)
            });
            println!("{name}, {what}: {:.1} %", 100.0 * unseen.count() as f64 / flips as f64);
        }
    }
}

#[test]
fn beside_sound_cores_the_unsound_one_is_named_and_works_on_soundly() {
    for (name, size) in SIZES {
        let load = find(name).expect("a load");
        let core = *allowed().last().expect("a core");
        // The highest bits of most numbers change any result.
        let flip_of = |what| Flip { what, core, from_round: 3, bits: vec![62], is_done: AtomicBool::new(false) };
        let flips = sites(load, size).into_iter().map(flip_of);
        let flip = flips.rev().find(|flip| changes_the_answer(load, size, flip)).expect("a flip that matters");
        let order = Order { stop: Stop::Never, ..order(size, 12) };
        let (wrongs, end) = outcome(load, &order, Arc::new(flip));
        let named: Vec<(Option<usize>, u64)> = wrongs.iter().map(|wrong| (wrong.core, wrong.round)).collect();
        assert_eq!(named, [(Some(core), 3)], "{name}");
        assert_eq!((end.errors, end.rounds), (1, 12 * order.cores.len() as u64), "{name}");
    }
}

#[test]
fn sound_cores_raise_no_alarm() {
    for load in LOADS {
        let known = SIZES.iter().find(|(name, _)| *name == load.about().name).map(|(_, size)| *size);
        let size = known.unwrap_or(load.size_for(4 << 20).min(load.about().usual_size));
        let order = order(size, 3);
        let (wrongs, end) = outcome(load, &order, Arc::new(NoDisturbance));
        assert_eq!(wrongs, [], "{}", load.about().name);
        assert_eq!(end.rounds, 3 * order.cores.len() as u64, "{}", load.about().name);
        assert!(end.cores.iter().all(|core| core.rate > 0.0 && core.clock > 100.0 && core.checked > 0.0));
    }
}

/// A core that finds the same wrong answer every time, as one does whose fault is in its logic.
struct AlwaysWrong(usize);

impl Disturb for AlwaysWrong {
    fn strike(&self, site: Site, bytes: &mut [u8]) {
        if site.core == self.0 && site.what == "matrix" {
            bytes[..8].copy_from_slice(&3.0f64.to_le_bytes());
        }
    }
}

#[test]
fn a_core_that_is_wrong_every_time_disagrees_with_the_others() {
    let cores = allowed();
    if cores.len() < 2 {
        eprintln!("skipped: it takes two cores to disagree");
        return;
    }
    let order = Order { stop: Stop::Never, ..order(48, 5) };
    let (wrongs, end) = outcome(find("dense").expect("a load"), &order, Arc::new(AlwaysWrong(cores[1])));
    assert!(end.errors >= 5, "{end:?}");
    assert!(wrongs.iter().skip(1).all(|wrong| wrong.repeats == Some(true) && wrong.found.contains("twice")));
}

/// Leads the load's own code out of its memory.
struct Astray;

impl Disturb for Astray {
    fn strike(&self, site: Site, _: &mut [u8]) {
        assert!(site.round != 2, "an index out of bounds");
    }
}

#[test]
fn a_core_that_leads_the_code_astray_is_wrong_and_goes_on() {
    let order = Order { cores: vec![allowed()[0]], stop: Stop::Never, ..order(48, 4) };
    let (wrongs, end) = outcome(find("dense").expect("a load"), &order, Arc::new(Astray));
    let told: Vec<(u64, &str)> = wrongs.iter().map(|wrong| (wrong.round, wrong.found.as_str())).collect();
    assert_eq!(told, [(2, "the load's code was led astray: an index out of bounds")]);
    assert_eq!(end.rounds, 4);
}

#[test]
fn in_turn_each_core_works_alone_for_its_part_of_the_time() {
    let length = Duration::from_millis(600);
    let order = Order { turns: Turns::OneByOne, length, times: None, ..order(48, 0) };
    let (_, end) = outcome(find("dense").expect("a load"), &order, Arc::new(NoDisturbance));
    assert!(end.cores.iter().all(|core| core.rounds > 0), "{end:?}");
    // Who comes later has its last check later, and none before the turns of those who came before were over.
    let part = length.as_secs_f64() / order.cores.len() as f64;
    assert!(end.cores.windows(2).all(|pair| pair[0].checked < pair[1].checked), "{end:?}");
    assert!(end.cores.iter().enumerate().all(|(index, core)| core.checked >= index as f64 * part), "{end:?}");
}

#[test]
fn a_warm_up_comes_first_and_is_lighter_than_what_follows() {
    let length = Duration::from_millis(2400);
    let order = Order { warm_up: Duration::from_millis(1200), length, times: None, ..order(200, 0) };
    let mut seen = Vec::new();
    run(find("dense").expect("a load"), &order, Arc::new(NoDisturbance), |message| {
        if let Message::Progress(progress) = message {
            seen.push((progress.warms_up, progress.seconds));
        }
    });
    let warm = seen.iter().take_while(|(warms_up, _)| *warms_up).count();
    assert!(warm >= 2 && seen[warm..].iter().all(|(warms_up, _)| !warms_up) && warm < seen.len(), "{seen:?}");
}

#[test]
fn what_does_not_fit_into_memory_is_told_and_ends_the_pass() {
    let mut why = None;
    let order = Order { cores: vec![allowed()[0]], ..order(1 << 20, 1) };
    run(find("dense").expect("a load"), &order, Arc::new(NoDisturbance), |message| {
        if let Message::Failed { why: told } = message {
            why = Some(told);
        }
    });
    assert!(why.expect("a failure").contains("bytes of memory"));
}
