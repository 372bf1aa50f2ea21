//! Loads can't be fooled: whatever happens inside the process that they run in, no pass holds with a core that did not work.

use periculum_loads::cores::allowed;
use rustix::process::{Pid, Signal, kill_process};
use serde_json::Value;

use crate::common::{Home, of_kind};
use crate::surgery::{Held, Memory, Patient};

/// A size of `dense` whose rounds take some milliseconds.
const SIZE: u64 = 400;

fn verdict(outcome: &[Value]) -> &str {
    of_kind(outcome, "trial-ended")[0]["verdict"].as_str().expect("a verdict")
}

/// The incidents, each with its place.
fn incidents(outcome: &[Value]) -> Vec<(&str, &str)> {
    let told = of_kind(outcome, "incident").into_iter();
    told.map(|incident| (incident["incident"].as_str().expect("a kind"), incident["place"].as_str().unwrap_or("")))
        .collect()
}

/// The last core's worker, and how its core is called.
fn last_worker(patient: &Patient) -> (i32, String) {
    let (thread, core) = patient.workers().into_iter().max_by_key(|(_, core)| *core).expect("a worker");
    (thread, format!("core {core}"))
}

#[test]
fn a_core_that_is_held_is_told_while_the_others_work() {
    let home = Home::new();
    let mut patient = Patient::of(&home, "dense", SIZE, 20);
    patient.wait_for("\"rounds\":1");
    let (thread, core) = last_worker(&patient);
    let Some(held) = Held::of(thread) else { return };
    let outcome = patient.outcome_while(&held);
    assert_eq!((verdict(&outcome), incidents(&outcome)), ("fell", vec![("stalled", core.as_str())]));
}

#[test]
fn a_core_that_is_held_from_the_beginning_is_told_too() {
    let home = Home::new();
    // It takes a while until this much is filled.
    let patient = Patient::of(&home, "dense", 1500, 60);
    let (thread, core) = last_worker(&patient);
    let Some(held) = Held::of(thread) else { return };
    let outcome = patient.outcome_while(&held);
    assert_eq!((verdict(&outcome), incidents(&outcome)), ("fell", vec![("stalled", core.as_str())]));
}

#[cfg(target_arch = "x86_64")]
#[test]
fn a_core_whose_thread_ends_is_told() {
    use crate::surgery::system_call_of;
    let home = Home::new();
    let mut patient = Patient::of(&home, "dense", SIZE, 20);
    patient.wait_for("\"rounds\":1");
    let (thread, core) = last_worker(&patient);
    let Some(held) = Held::of(thread) else { return };
    let call = system_call_of(patient.load).expect("a system call");
    held.operate(|registers| (registers.rip, registers.rax, registers.rdi) = (call, libc::SYS_exit as u64, 0));
    drop(held);
    let outcome = patient.outcome();
    assert_eq!((verdict(&outcome), incidents(&outcome)), ("fell", vec![("stalled", core.as_str())]));
}

#[cfg(target_arch = "x86_64")]
#[test]
fn a_core_that_kills_the_load_is_named() {
    let home = Home::new();
    let mut patient = Patient::of(&home, "dense", SIZE, 20);
    patient.wait_for("\"rounds\":1");
    let (thread, core) = last_worker(&patient);
    let Some(held) = Held::of(thread) else { return };
    held.operate(|registers| registers.rip = 0x40);
    drop(held);
    let outcome = patient.outcome();
    assert_eq!((verdict(&outcome), incidents(&outcome)), ("fell", vec![("load-died", core.as_str())]));
    let evidence = of_kind(&outcome, "incident")[0]["evidence"].as_str().expect("words").to_owned();
    assert!(evidence.contains("signal 11") && evidence.contains("at address 0x40"), "{evidence}");
}

#[test]
fn a_load_that_somebody_halts_for_a_while_is_neither_condemned_nor_does_it_hold() {
    let home = Home::new();
    let mut patient = Patient::of(&home, "dense", SIZE, 15);
    patient.wait_for("\"rounds\":1");
    let load = Pid::from_raw(patient.load).expect("a process");
    kill_process(load, Signal::STOP).expect("halted");
    // Longer than a load may be silent that could speak.
    std::thread::sleep(std::time::Duration::from_secs(12));
    kill_process(load, Signal::CONT).expect("let go on");
    // It is tried again with more time, which takes a minute that this test has not.
    patient.wait_for("\"kind\":\"trial-ended\"");
    let outcome = patient.so_far();
    assert_eq!((verdict(&outcome), incidents(&outcome)), ("void", Vec::new()));
    let ran = of_kind(&outcome, "pass-ended")[0]["report"]["ran"].as_u64().expect("a time");
    assert!((1_000..9_000).contains(&ran), "what was halted did not run: {ran} ms");
}

/// A number that looks like chance, and is the same every time.
fn chance(seed: u64) -> u64 {
    let mixed = (seed ^ seed >> 30).wrapping_mul(0xbf58_476d_1ce4_e5b9);
    (mixed ^ mixed >> 27).wrapping_mul(0x94d0_49bb_1331_11eb)
}

/// Turns over bits at so many places of a running load; tells how each pass ended.
///
/// A pass that holds after it has checked as much as an undisturbed one, on every core.
fn bits_turned_over(load: &str, size: u64, flips: u64, seed: u64) {
    for flip in 0..flips {
        let home = Home::new();
        let mut patient = Patient::of(&home, load, size, 3);
        patient.wait_for("\"rounds\":1");
        patient.workers();
        let memory = Memory::of(patient.load);
        let luck = |of: u64| chance(seed.wrapping_mul(1000).wrapping_add(4 * flip + of));
        let turned =
            (0..3).filter(|nth| memory.flip(luck(*nth) % memory.length().max(1), (luck(*nth) >> 60) as u32 % 8));
        let turned = turned.count();
        let outcome = patient.outcome();
        let told = incidents(&outcome);
        let report = &of_kind(&outcome, "pass-ended")[0]["report"];
        match verdict(&outcome) {
            "held" => {
                let (ran, rounds) = (report["ran"].as_u64(), report["rounds"].as_u64());
                assert!(ran.is_some_and(|ran| ran >= 2_700), "{load} flip {flip}: held after {ran:?} ms");
                assert!(
                    rounds.is_some_and(|rounds| rounds >= allowed().len() as u64),
                    "{load} flip {flip}: {rounds:?}"
                );
                assert!(told.is_empty(), "{load} flip {flip}: held with {told:?}");
            }
            _ => assert!(!told.is_empty(), "{load} flip {flip}: no reason is told for {}", verdict(&outcome)),
        }
        eprintln!("{load} flip {flip}: {turned} bits, {} {told:?}", verdict(&outcome));
    }
}

#[test]
fn no_bit_that_is_turned_over_makes_less_work_hold() {
    bits_turned_over("dense", SIZE, 2, 1);
    bits_turned_over("encode", 1, 2, 2);
}

#[test]
#[ignore = "takes hours; FLIPS is how many of each load, LOAD one load"]
fn no_bit_in_any_load_makes_less_work_hold() {
    let flips = std::env::var("FLIPS").ok().and_then(|flips| flips.parse().ok()).unwrap_or(200);
    let only = std::env::var("LOAD").ok();
    for load in periculum_loads::catalogue::LOADS {
        let about = load.about();
        if only.as_ref().is_none_or(|only| only == about.name) {
            let size = load.size_for(1 << 20).min(about.usual_size);
            bits_turned_over(about.name, size, flips, 3);
        }
    }
}
