//! Passes, as a proof in a plan and a proof in a file of its own list them.

use rust_decimal::prelude::ToPrimitive;

use crate::files::program_file;
use crate::files::section::{Located, Section};
use crate::files::task_file::{self, is_by_hand};
use crate::model::amount::{self, Amount};
use crate::model::moment::Span;
use crate::model::pass::{Demand, Extent, Pass, StopOn, Threads};
use crate::model::program::Program;
use crate::model::quantity::harmless;
use crate::model::task::Task;

/// Reads a file that holds one proof: the list `passes`, of loads that can be run and of the file's own programs.
pub fn read(top: &Section, loads: &[&str]) -> Vec<Pass> {
    let name = Located { value: "in this file".to_owned(), at: top.at() };
    let programs = program_file::read(top, loads);
    read_passes(top, &name, Runnable { loads, programs: &programs, sensors: &[] })
}

/// What a pass can run.
#[derive(Clone, Copy)]
pub(super) struct Runnable<'a> {
    pub(super) loads: &'a [&'a str],
    pub(super) programs: &'a [Program],
    /// The sensors that somebody reads, who is asked for them by the same card.
    pub(super) sensors: &'a [&'a str],
}

/// Reads the passes of the proof of this name.
pub(super) fn read_passes(section: &Section, name: &Located<String>, runnable: Runnable) -> Vec<Pass> {
    let passes = section.list("passes");
    if passes.is_empty() {
        let help = "write `passes = [{ load = \"dense\", for = \"60s\" }]`";
        section.problems().advise(name.at.clone(), format!("proof `{}` has no pass", name.value), help);
    }
    passes.into_iter().filter_map(|pass| read_pass(pass, runnable)).collect()
}

fn read_pass(section: Section, runnable: Runnable) -> Option<Pass> {
    let load = section.text("load");
    let length = section.time("for");
    let pause = if section.has("pause") { section.time("pause") } else { None };
    if is_by_hand(&section) {
        let task = task_file::read(&section, runnable.sensors);
        return finish_by_hand(section, (load?, length?, pause), task?, runnable);
    }
    let threads = read_threads(&section);
    let demand = read_demand(&section);
    let device = read_device(&section);
    let problems = section.problems();
    section.finish();
    let (load, length) = (load?, length?);
    let program = runnable.programs.iter().find(|program| program.name == load.value);
    if program.is_none() && !runnable.loads.contains(&load.value.as_str()) {
        let programs = runnable.programs.iter().map(|program| program.name.as_str());
        let known: Vec<&str> = runnable.loads.iter().copied().chain(programs).collect();
        match known.is_empty() {
            true => problems.advise(
                load.at,
                format!("`{}` can't run: the rig is elsewhere, and nothing runs on this computer for it", load.value),
                "let somebody make the pass, with `by = \"hand\"` and `ask = \"…\"`",
            ),
            false => problems.unknown(load.at, "load that this rig can run called", &load.value, &known),
        }
    }
    if length.value.millis() == 0 {
        problems.add(length.at, "a pass of no length proves nothing");
    }
    Some(Pass {
        load: load.value,
        length: length.value,
        pause: pause.map(|pause| pause.value).unwrap_or_default(),
        threads,
        demand,
        device,
        program: program.cloned().map(Box::new),
        by_hand: None,
    })
}

/// A pass that somebody makes; it has a name of its own, since a score belongs to what measured it.
fn finish_by_hand(
    section: Section,
    (name, length, pause): (Located<String>, Located<Span>, Option<Located<Span>>),
    task: Task,
    runnable: Runnable,
) -> Option<Pass> {
    let problems = section.problems();
    let is_program = runnable.programs.iter().any(|program| program.name == name.value);
    if is_program || runnable.loads.contains(&name.value.as_str()) || name.value != harmless(name.value.trim()) {
        let what = format!("`{}` can't be the name of a pass by hand", harmless(&name.value));
        problems.advise(name.at, what, "choose one that no load or program has");
    }
    if length.value.is_zero() {
        problems.add(length.at, "somebody needs time for a pass: say how long it should take");
    }
    section.finish();
    let pause = pause.map(|pause| pause.value).unwrap_or_default();
    Some(Pass { pause, by_hand: Some(Box::new(task)), ..Pass::usual(name.value, length.value) })
}

/// `device`, which is called somehow.
fn read_device(section: &Section) -> Option<String> {
    let device = section.optional_text("device")?;
    let is_name = !device.value.trim().is_empty() && device.value == harmless(&device.value);
    if !is_name {
        let help = "name its card, as in `\"card1\"`, its number, or a part of its name; `periculum rig` lists them";
        section.problems().advise(device.at, "no device is called so", help);
    }
    is_name.then_some(device.value)
}

/// `threads = "all"` or `"each"`, or a number of them.
fn read_threads(section: &Section) -> Threads {
    if section.has_text("threads") {
        let words = [("all", Threads::All), ("each", Threads::Each)];
        return section.choice("threads", &words).map_or(Threads::All, |threads| threads.value);
    }
    section.optional_count("threads", 1).map_or(Threads::All, |count| Threads::Count(count.value))
}

/// `times`, `memory` or `size`, `reserve`, `priority` and `stop_on`.
fn read_demand(section: &Section) -> Demand {
    let memory = section.optional_text("memory");
    let size = section.optional_count("size", 1);
    let problems = section.problems();
    let extent = match (memory, size) {
        (Some(memory), Some(_)) => {
            let help = "leave one of them out: each follows from the other";
            problems.advise(memory.at, "a pass has either a `memory` or a `size`", help);
            Extent::Usual
        }
        (Some(memory), None) => read_amount(&memory, section).map_or(Extent::Usual, Extent::Memory),
        (None, Some(size)) => Extent::Size(size.value.into()),
        (None, None) => Extent::Usual,
    };
    let reserve = section.optional_text("reserve").and_then(|reserve| match amount::bytes(&reserve.value) {
        Ok(bytes) => Some(bytes),
        Err(what) => {
            problems.add(reserve.at, what.to_string());
            None
        }
    });
    let priority = section.optional_number("priority").and_then(|priority| match priority.value.to_i32() {
        Some(niceness @ -20..=19) if priority.value.is_integer() => Some(niceness),
        _ => {
            problems.add(priority.at, "a priority is a whole number from -20, before all else, to 19, after all else");
            None
        }
    });
    let words = [("first", StopOn::First), ("never", StopOn::Never)];
    let stop_on = if section.has("stop_on") { section.choice("stop_on", &words) } else { None };
    Demand {
        times: section.optional_count("times", 1).map(|times| times.value.into()),
        extent,
        reserve,
        priority,
        stop_on: stop_on.map_or(StopOn::First, |stop_on| stop_on.value),
    }
}

fn read_amount(memory: &Located<String>, section: &Section) -> Option<Amount> {
    match memory.value.parse() {
        Ok(amount) => Some(amount),
        Err(what) => {
            section.problems().add(memory.at.clone(), what.to_string());
            None
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::files::written::pass_table;
    use crate::files::{Document, Problems};
    use proptest::prelude::*;

    fn pass() -> impl Strategy<Value = Pass> {
        let threads = prop_oneof![Just(Threads::All), Just(Threads::Each), (1u32..9).prop_map(Threads::Count)];
        let extent = prop_oneof![
            Just(Extent::Usual),
            (1u64..1 << 30).prop_map(Extent::Size),
            (1u64..1 << 50).prop_map(|bytes| Extent::Memory(Amount::Bytes(bytes))),
            (1u8..=100).prop_map(|percent| Extent::Memory(Amount::Percent(percent))),
        ];
        let stop_on = prop_oneof![Just(StopOn::First), Just(StopOn::Never)];
        let options =
            (proptest::option::of(1u64..1000), proptest::option::of(0u64..1 << 50), proptest::option::of(-20i32..20));
        let times = (1u64..1 << 40, 0u64..1 << 20);
        let device = proptest::option::of("[a-z0-9 ]{0,8}[a-z0-9]");
        (times, threads, extent, stop_on, (options, device)).prop_map(
            |((length, pause), threads, extent, stop_on, rest)| {
                let ((times, reserve, priority), device) = rest;
                let demand = Demand { times, extent, reserve, priority, stop_on };
                Pass {
                    threads,
                    demand,
                    device,
                    pause: Span::from_millis(pause),
                    ..Pass::usual("dense", Span::from_millis(length))
                }
            },
        )
    }

    proptest! {
        #[test]
        fn what_is_written_is_read_as_the_same(passes in prop::collection::vec(pass(), 1..4)) {
            let lines: Vec<String> = passes.iter().map(|pass| pass_table(pass).to_string()).collect();
            let text = format!("format = 1\npasses = [{}]", lines.join(", "));
            let document = Document::parse(&text).expect("a document");
            let problems = Problems::default();
            let read = read(&document.top(&problems), &["dense"]);
            prop_assert!(problems.is_empty(), "{:?}", problems.into_sorted());
            prop_assert_eq!(read, passes);
        }
    }
}
