//! Loads take the memory that they say, and none any more once they work.

use std::alloc::{GlobalAlloc, Layout, System};
use std::cell::Cell;
use std::process::Command;

use periculum_loads::Kernel;
use periculum_loads::catalogue::{LOADS, find};
use periculum_loads::frame::{Load, NoDisturbance, Touch, Work};

thread_local! {
    /// How often this thread asked for memory.
    static ASKED: Cell<u64> = const { Cell::new(0) };
}

/// The system's allocator, which counts.
struct Counting;

// SAFETY: all is left to the system's allocator.
unsafe impl GlobalAlloc for Counting {
    unsafe fn alloc(&self, layout: Layout) -> *mut u8 {
        ASKED.set(ASKED.get() + 1);
        // SAFETY: the caller's promise.
        unsafe { System.alloc(layout) }
    }

    unsafe fn dealloc(&self, place: *mut u8, layout: Layout) {
        // SAFETY: the caller's promise.
        unsafe { System.dealloc(place, layout) }
    }

    unsafe fn realloc(&self, place: *mut u8, layout: Layout, size: usize) -> *mut u8 {
        ASKED.set(ASKED.get() + 1);
        // SAFETY: the caller's promise.
        unsafe { System.realloc(place, layout, size) }
    }
}

#[global_allocator]
static COUNTING: Counting = Counting;

fn begun(load: &dyn Load, size: u64) -> Box<dyn Work> {
    let mut work = load.begin(Kernel::best(), size, 7).expect("memory");
    work.restart();
    assert_eq!(work.round(&mut Touch::of(&NoDisturbance, 0, 1)), None, "{}", load.about().name);
    work
}

#[test]
fn no_load_asks_for_memory_once_it_works() {
    for load in LOADS {
        let mut work = begun(load, load.size_for(1 << 18));
        let before = ASKED.get();
        work.round(&mut Touch::of(&NoDisturbance, 0, 2));
        assert_eq!(ASKED.get(), before, "{}", load.about().name);
    }
}

/// Bytes of this process's own that are in memory, those of its program not counted (proc_pid_status(5)).
fn resident() -> u64 {
    let status = std::fs::read_to_string("/proc/self/status").expect("a Linux");
    let line = status.lines().find_map(|line| line.strip_prefix("RssAnon:")).expect("its own memory");
    1024 * line.trim().trim_end_matches(" kB").parse::<u64>().expect("a number")
}

/// Loads whose memory has few sizes, or only one.
const COARSE: [&str; 6] = ["product", "transform", "swing", "idle", "render", "digits"];

#[test]
fn loads_hold_the_memory_that_they_say_and_take_what_they_are_given() {
    const ONE: &str = "PERICULUM_TEST_LOAD";
    if let Ok(name) = std::env::var(ONE) {
        return holds_what_it_says(find(&name).expect("a load"));
    }
    // Each in a process of its own, whose allocator has kept nothing of the others; the size of one is a time.
    for load in LOADS.into_iter().filter(|load| load.about().name != "pulse") {
        let mut one = Command::new(std::env::current_exe().expect("this program"));
        one.args(["--exact", "loads_hold_the_memory_that_they_say_and_take_what_they_are_given"]);
        let run = one.env(ONE, load.about().name).output().expect("started");
        assert!(run.status.success(), "{}", String::from_utf8_lossy(&run.stdout));
    }
}

/// Has the memory of the stack be there, as deep as any load goes: how deep depends on how its code was made, and no load says it.
#[inline(never)]
fn reach_down_the_stack() {
    std::hint::black_box(&mut [0u8; 256 << 10]);
}

fn holds_what_it_says(load: &dyn Load) {
    const GIVEN: u64 = 8 << 20;
    let name = load.about().name;
    let size = load.size_for(GIVEN);
    let said = load.bytes(size);
    reach_down_the_stack();
    let before = resident();
    let _work = begun(load, size);
    let held = resident() - before;
    assert!(held.abs_diff(said) < said / 100 + (64 << 10), "{name} says {said} and holds {held} bytes");
    assert!(said > GIVEN - GIVEN / 100 || COARSE.contains(&name), "{name} takes {said} of {GIVEN} bytes");
}
