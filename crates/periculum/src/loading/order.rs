//! From what a pass asks for to what a load is told: cores, size, time.

use std::path::PathBuf;

use periculum_core::model::amount::{Amount, written};
use periculum_core::model::moment::Span;
use periculum_core::model::pass::{Extent, Pass, StopOn, Threads};
use periculum_core::model::program::Program;
use periculum_loads::catalogue;
use periculum_loads::child::USUAL_NICENESS;
use periculum_loads::frame::{Load, Order};
use periculum_rigs::linux::Memory;

use super::graphics;
use crate::telling::{devices, running};

/// Memory that stays available where nobody says otherwise, bytes.
const USUAL_RESERVE: u64 = 1 << 30;

/// What a load is told.
#[derive(Clone, Debug, PartialEq)]
pub(crate) struct LoadOrder {
    pub(super) load: String,
    pub(super) program: Option<Program>,
    pub(super) cores: Vec<usize>,
    pub(super) is_one_by_one: bool,
    pub(super) size: u64,
    pub(super) length: Span,
    pub(super) times: Option<u64>,
    on_device: Option<Device>,
    niceness: i32,
    goes_on: bool,
}

/// What a load on the graphics processor is told beside.
#[derive(Clone, Debug, PartialEq)]
struct Device {
    name: Option<String>,
    /// How much of the device's memory it takes, where that is said.
    memory: Option<Amount>,
    /// Where wrong pictures are kept.
    pictures: PathBuf,
}

/// What the machine has for loads: the processors they may use, and memory.
#[derive(Clone, Debug)]
pub(crate) struct Means {
    pub(crate) cores: Vec<usize>,
    pub(crate) memory: Option<Memory>,
    /// Where wrong pictures are kept.
    pub(crate) pictures: PathBuf,
}

/// What a load has to be told for this pass on this machine.
///
/// It runs on the processors `on` where some are named: one thread on the first of them, and so on.
///
/// # Errors
/// Why the machine can't run it, and what would do.
pub(crate) fn resolve(pass: &Pass, on: &[u32], means: &Means) -> Result<LoadOrder, String> {
    if pass.program.is_none() && graphics::is_one(&pass.load) {
        return on_device(pass, means);
    }
    if pass.device.is_some() {
        return Err(devices::not_on_device(&pass.load));
    }
    let mut cores = preferred(on, &means.cores)?;
    if pass.threads == Threads::Each && !on.is_empty() {
        cores.truncate(on.len());
    }
    if let Threads::Count(count) = pass.threads {
        if count as usize > cores.len() {
            return Err(running::too_many_threads(count, cores.len()));
        }
        cores.truncate(count as usize);
    }
    let is_one_by_one = pass.threads == Threads::Each;
    let at_a_time = if is_one_by_one { 1 } else { cores.len() as u64 };
    let size = match &pass.program {
        None => {
            let known = catalogue::find(&pass.load);
            size(known.ok_or_else(|| running::no_load_called(&pass.load))?, pass, means, at_a_time)?
        }
        Some(_) if pass.demand.extent != Extent::Usual => {
            return Err(running::program_has_arguments(&pass.load));
        }
        Some(_) => 0,
    };
    Ok(LoadOrder {
        load: pass.load.clone(),
        program: pass.program.as_deref().cloned(),
        cores,
        is_one_by_one,
        size,
        length: pass.length,
        times: pass.demand.times,
        on_device: None,
        niceness: pass.demand.priority.unwrap_or(USUAL_NICENESS),
        goes_on: pass.demand.stop_on == StopOn::Never,
    })
}

/// What a load on the graphics processor is told: which device that is, and what fits into it, its own process finds out.
fn on_device(pass: &Pass, means: &Means) -> Result<LoadOrder, String> {
    if pass.threads != Threads::All {
        return Err(devices::on_no_threads(&pass.load));
    }
    if pass.device.is_some() && !graphics::has_device(&pass.load) {
        return Err(devices::has_no_device(&pass.load));
    }
    graphics::refuse(&pass.load, &pass.demand)?;
    let (size, memory) = match pass.demand.extent {
        Extent::Usual => (0, None),
        Extent::Size(size) => (size, None),
        Extent::Memory(amount) => (0, Some(amount)),
    };
    Ok(LoadOrder {
        load: pass.load.clone(),
        program: None,
        cores: Vec::new(),
        is_one_by_one: false,
        size,
        length: pass.length,
        times: pass.demand.times,
        on_device: Some(Device { name: pass.device.clone(), memory, pictures: means.pictures.clone() }),
        niceness: pass.demand.priority.unwrap_or(USUAL_NICENESS),
        goes_on: pass.demand.stop_on == StopOn::Never,
    })
}

/// All processors, those that are named first.
fn preferred(on: &[u32], all: &[usize]) -> Result<Vec<usize>, String> {
    let named: Vec<usize> = on.iter().map(|core| *core as usize).collect();
    if let Some(missing) = named.iter().find(|core| !all.contains(core)) {
        return Err(running::not_for_loads(missing));
    }
    let others = all.iter().copied().filter(|core| !named.contains(core));
    Ok(named.iter().copied().chain(others).collect())
}

/// The size of the problem on each core, where it fits into memory.
fn size(load: &dyn Load, pass: &Pass, means: &Means, at_a_time: u64) -> Result<u64, String> {
    let size = match pass.demand.extent {
        Extent::Usual => load.nearest(load.about().usual_size),
        Extent::Size(size) => size_asked(load, size)?,
        Extent::Memory(amount) => size_in(load, amount, means, at_a_time)?,
    };
    let needed = load.bytes(size).saturating_mul(at_a_time);
    let reserve = pass.demand.reserve.unwrap_or(USUAL_RESERVE);
    match means.memory {
        Some(memory) if needed > memory.available.saturating_sub(reserve) => Err(running::too_little_memory(
            load.about().name,
            size,
            load.about().size_name,
            written(needed),
            written(memory.available.saturating_sub(reserve)),
            written(reserve),
        )),
        _ => Ok(size),
    }
}

fn size_asked(load: &dyn Load, size: u64) -> Result<u64, String> {
    let nearest = load.nearest(size);
    if nearest == size {
        return Ok(size);
    }
    let (smallest, largest) = load.about().sizes;
    Err(running::no_such_size(load.about().name, size, load.about().size_name, smallest, largest, nearest))
}

fn size_in(load: &dyn Load, amount: Amount, means: &Means, at_a_time: u64) -> Result<u64, String> {
    let bytes = match (amount, means.memory) {
        (Amount::Bytes(bytes), _) => bytes,
        (Amount::Percent(percent), Some(memory)) => memory.total / 100 * u64::from(percent),
        (Amount::Percent(_), None) => return Err(running::MEMORY_NOT_TOLD.into()),
    };
    let size = load.size_for(bytes / at_a_time);
    let smallest = load.bytes(size).saturating_mul(at_a_time);
    if smallest > bytes {
        return Err(running::needs_at_least(load.about().name, written(smallest), written(bytes)));
    }
    Ok(size)
}

impl LoadOrder {
    /// What the child is called with.
    pub(super) fn arguments(&self) -> Vec<String> {
        let length = std::time::Duration::from_millis(self.length.millis());
        let cores: Vec<String> = self.cores.iter().map(usize::to_string).collect();
        let mut arguments: Vec<String> = vec!["load".into(), self.load.clone()];
        let mut option = |name: &str, value: String| arguments.extend([format!("--{name}"), value]);
        if !cores.is_empty() {
            option("cores", cores.join(","));
        }
        option("size", self.size.to_string());
        option("millis", self.length.millis().to_string());
        option("warm-up-millis", Order::usual_warm_up(length).as_millis().to_string());
        option("niceness", self.niceness.to_string());
        if let Some(times) = self.times {
            option("times", times.to_string());
        }
        if let Some(Device { name, memory, pictures }) = &self.on_device {
            name.iter().for_each(|name| option("device", name.clone()));
            match memory {
                Some(Amount::Percent(percent)) => option("share", percent.to_string()),
                Some(Amount::Bytes(bytes)) => option("bytes", bytes.to_string()),
                None => {}
            }
            option("pictures", pictures.display().to_string());
        }
        if let Some(program) = &self.program {
            // A structure of texts and numbers always has a JSON form.
            option("program", serde_json::to_string(program).unwrap_or_default());
        }
        if self.is_one_by_one {
            arguments.push("--one-by-one".into());
        }
        if self.goes_on {
            arguments.push("--go-on".into());
        }
        arguments
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use periculum_core::model::pass::Demand;
    use proptest::prelude::*;

    const GIB: u64 = 1 << 30;

    fn means(available: u64) -> Means {
        let memory = Some(Memory { total: 16 * GIB, available });
        Means { cores: vec![0, 1, 4, 5], memory, pictures: "a.pictures".into() }
    }

    fn pass(extent: Extent) -> Pass {
        Pass { demand: Demand { extent, ..Demand::default() }, ..Pass::usual("dense", Span::from_seconds(60)) }
    }

    #[test]
    fn threads_choose_cores_and_the_turns_they_take() {
        let on = |threads, on: &[u32]| {
            let order = resolve(&Pass { threads, ..pass(Extent::Usual) }, on, &means(8 * GIB)).expect("an order");
            (order.cores, order.is_one_by_one)
        };
        let cores = |threads| on(threads, &[]);
        assert_eq!(on(Threads::Count(1), &[4]), (vec![4], false), "the core that climbs");
        assert_eq!(on(Threads::Count(2), &[4]), (vec![4, 0], false));
        assert_eq!(on(Threads::Each, &[5, 1]), (vec![5, 1], true));
        assert!(resolve(&pass(Extent::Usual), &[9], &means(8 * GIB)).expect_err("none").contains("processor 9"));
        assert_eq!(cores(Threads::All), (vec![0, 1, 4, 5], false));
        assert_eq!(cores(Threads::Each), (vec![0, 1, 4, 5], true));
        assert_eq!(cores(Threads::Count(3)), (vec![0, 1, 4], false));
        let refused = resolve(&Pass { threads: Threads::Count(5), ..pass(Extent::Usual) }, &[], &means(8 * GIB));
        assert_eq!(refused, Err("5 threads are asked for, and there are 4 processors to use".into()));
    }

    #[test]
    fn memory_is_asked_for_within_a_hundredth_and_never_above() {
        let dense = catalogue::find("dense").expect("a load");
        let asked = Extent::Memory(Amount::Percent(50));
        let order = resolve(&pass(asked), &[], &means(12 * GIB)).expect("an order");
        let taken = (4 * dense.bytes(order.size)) as f64 / (8 * GIB) as f64;
        assert!((0.99..=1.0).contains(&taken), "{taken}");
    }

    #[test]
    fn the_reserve_is_kept() {
        let asked = Extent::Memory(Amount::Bytes(8 * GIB));
        let refused = resolve(&pass(asked), &[], &means(8 * GIB)).expect_err("no room");
        assert!(refused.contains("only 7.0 GiB of memory are available beside the reserve of 1.0 GiB"), "{refused}");
        let demand = Demand { reserve: Some(0), extent: asked, ..Demand::default() };
        assert!(resolve(&Pass { demand, ..pass(asked) }, &[], &means(8 * GIB)).is_ok());
        assert!(resolve(&pass(Extent::Usual), &[], &means(GIB)).is_err());
    }

    #[test]
    fn sizes_and_loads_that_are_not_there_are_refused() {
        assert!(
            resolve(&pass(Extent::Size(0)), &[], &means(8 * GIB))
                .expect_err("size 0")
                .contains("can't have 0 unknowns")
        );
        assert!(resolve(&Pass::usual("dens", Span::from_seconds(1)), &[], &means(GIB)).is_err());
        let little = resolve(&pass(Extent::Memory(Amount::Bytes(1000))), &[], &means(8 * GIB)).expect_err("no room");
        assert!(little.contains("needs at least"), "{little}");
    }

    proptest! {
        #[test]
        fn whatever_is_resolved_fits(bytes in 1u64..32 * GIB, available in 0u64..32 * GIB, reserve in 0u64..4 * GIB, load in 0usize..catalogue::LOADS.len()) {
            let load = catalogue::LOADS[load];
            let extent = Extent::Memory(Amount::Bytes(bytes));
            let demand = Demand { extent, reserve: Some(reserve), ..Demand::default() };
            let pass = Pass { demand, ..Pass::usual(load.about().name, Span::from_seconds(1)) };
            if let Ok(order) = resolve(&pass, &[], &means(available)) {
                let needed = load.bytes(order.size) * order.cores.len() as u64;
                prop_assert!(needed <= bytes && needed + reserve <= available);
            }
        }
    }
}
