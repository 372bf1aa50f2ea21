//! Flipped bits in what `dense` works on are caught, and the core that they happened on is named.

use std::collections::BTreeSet;
use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;

use periculum_loads::cores::allowed;
use periculum_loads::dense::{Disturb, Kernel, NoDisturbance, Order, Solver, Stop, run};
use periculum_loads::protocol::{Message, Wrong};
use proptest::prelude::*;

/// Where a bit is flipped.
#[derive(Clone, Copy, Debug)]
enum Site {
    Matrix,
    RightHandSide,
    Factors,
    Solution,
}

/// Flips one bit once, on one core, in its first round from a given one.
struct Flip {
    site: Site,
    core: usize,
    from_round: u64,
    at: usize,
    bit: u32,
    is_done: AtomicBool,
}

impl Flip {
    fn strike(&self, core: usize, round: u64, values: &mut [f64]) {
        if core != self.core || round < self.from_round || self.is_done.swap(true, Ordering::Relaxed) {
            return;
        }
        let at = self.at % values.len();
        values[at] = f64::from_bits(values[at].to_bits() ^ (1 << self.bit));
    }
}

impl Disturb for Flip {
    fn system(&self, core: usize, round: u64, a: &mut [f64], b: &mut [f64]) {
        match self.site {
            Site::Matrix => self.strike(core, round, a),
            Site::RightHandSide => self.strike(core, round, b),
            Site::Factors | Site::Solution => {}
        }
    }

    fn factors(&self, core: usize, round: u64, factors: &mut [f64]) {
        if let Site::Factors = self.site {
            self.strike(core, round, factors);
        }
    }

    fn solution(&self, core: usize, round: u64, x: &mut [f64]) {
        if let Site::Solution = self.site {
            self.strike(core, round, x);
        }
    }
}

const SEED: u64 = 9;
const ORDER: usize = 48;

/// Whether the flip changes any bit of the answer: what rounding takes back nobody can see in the result.
fn changes_the_answer(site: Site, at: usize, bit: u32) -> bool {
    let digest = |flip: &Flip| {
        let mut solver = Solver::new(Kernel::best(), ORDER);
        solver.generate(SEED);
        let (a, b) = solver.system_mut();
        flip.system(0, 1, a, b);
        solver.factor();
        flip.factors(0, 1, solver.result_mut().0);
        solver.substitute();
        flip.solution(0, 1, solver.result_mut().1);
        solver.digest()
    };
    let flip = |is_done| Flip { site, core: 0, from_round: 1, at, bit, is_done: AtomicBool::new(is_done) };
    digest(&flip(false)) != digest(&flip(true))
}

fn order(length: Duration, stop: Stop) -> Order {
    let mut cores = allowed();
    cores.truncate(2);
    Order { cores, order: ORDER, length, seed: SEED, stop }
}

fn wrongs(order: &Order, disturb: &impl Disturb) -> (Vec<Wrong>, u64) {
    let (mut wrongs, mut rounds) = (Vec::new(), 0);
    run(order, disturb, |message| match message {
        Message::Wrong(wrong) => wrongs.push(wrong),
        Message::Ended(progress) => rounds = progress.rounds,
        Message::Started { .. } | Message::Progress(_) => {}
    });
    (wrongs, rounds)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]
    #[test]
    fn a_flipped_bit_is_caught_on_its_core(
        site in prop_oneof![Just(Site::Matrix), Just(Site::RightHandSide), Just(Site::Factors), Just(Site::Solution)],
        core in any::<prop::sample::Index>(), from_round in 1u64..6, at in any::<usize>(), bit in 0u32..64,
    ) {
        prop_assume!(changes_the_answer(site, at, bit));
        // A load on one core goes on for so long only where the flip is not caught.
        let mut order = order(Duration::from_secs(20), Stop::AtFirstError);
        let core = *core.get(&order.cores);
        order.cores = vec![core];
        let flip = Flip { site, core, from_round, at, bit, is_done: AtomicBool::new(false) };
        let (wrongs, _) = wrongs(&order, &flip);
        prop_assert_eq!(wrongs.len(), 1, "{:?}", site);
        prop_assert_eq!((wrongs[0].core, wrongs[0].round), (core, from_round));
    }
}

#[test]
fn only_the_lowest_bits_of_what_goes_in_can_be_lost_to_rounding() {
    for at in [0, 700, ORDER * ORDER - 1] {
        assert!((0..64).all(|bit| changes_the_answer(Site::Factors, at, bit)));
        assert!((20..64).all(|bit| changes_the_answer(Site::Matrix, at, bit)));
        assert!((20..64).all(|bit| changes_the_answer(Site::RightHandSide, at, bit)));
    }
}

#[test]
fn beside_sound_cores_the_unsound_one_is_named_and_works_on_soundly() {
    let order = order(Duration::from_millis(300), Stop::Never);
    let unsound = *order.cores.last().expect("a core");
    let flip =
        Flip { site: Site::Factors, core: unsound, from_round: 3, at: 7, bit: 3, is_done: AtomicBool::new(false) };
    let (wrongs, rounds) = wrongs(&order, &flip);
    let named: BTreeSet<usize> = wrongs.iter().map(|wrong| wrong.core).collect();
    assert_eq!((wrongs.len(), named), (1, [unsound].into()));
    assert!(rounds > 10, "{rounds} rounds");
}

#[test]
fn sound_cores_raise_no_alarm() {
    let (wrongs, rounds) = wrongs(&order(Duration::from_secs(2), Stop::Never), &NoDisturbance);
    assert_eq!(wrongs, []);
    assert!(rounds > 100, "{rounds} rounds");
}
