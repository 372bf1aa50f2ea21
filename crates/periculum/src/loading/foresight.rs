//! Whether a pass has the time for what it orders, known before it begins.

use std::collections::BTreeMap;
use std::path::PathBuf;
use std::sync::{Mutex, PoisonError};
use std::time::Duration;

use periculum_core::model::moment::Span;
use periculum_core::model::plan::Plan;
use periculum_loads::catalogue;
use periculum_loads::cores::allowed;
use periculum_loads::frame::{Load, Order, seconds_a_round};
use periculum_rigs::linux::Linux;

use super::order::{LoadOrder, Means, resolve};
use crate::telling::running;

/// What is said of the passes of a plan in which no round would be finished on this machine.
pub(crate) fn too_short(linux: &Linux, plan: &Plan) -> Vec<String> {
    let means = Means { cores: allowed(), memory: linux.memory(), pictures: PathBuf::new() };
    let passes = plan.proofs.iter().flat_map(|proof| proof.passes.iter().map(move |pass| (&proof.name, pass)));
    let told = passes.filter_map(|(proof, pass)| {
        let why = no_round(&resolve(pass, &[], &means).ok()?, 1.0)?;
        Some(running::of_proof(proof, &why))
    });
    told.collect()
}

/// Why no round of a pass would be finished in so many times its time, where that is so: what is foreseen from a small round
/// may be off.
pub(super) fn no_round(order: &LoadOrder, times: f64) -> Option<String> {
    let load = catalogue::find(&order.load).filter(|_| order.program.is_none())?;
    let length = Duration::from_millis(order.length.millis());
    let whole = length.saturating_sub(Order::usual_warm_up(length));
    let each = if order.is_one_by_one { whole / order.cores.len().max(1) as u32 } else { whole };
    let round = seconds_once(load, order.size)?;
    (round > times * each.as_secs_f64()).then(|| {
        let span = |seconds: f64| Span::from_millis((1000.0 * seconds) as u64);
        running::no_round_fits(&order.load, span(round), span(each.as_secs_f64()))
    })
}

/// The seconds of a round, measured once: whoever writes a plan asks at every key.
pub(super) fn seconds_once(load: &dyn Load, size: u64) -> Option<f64> {
    static MEASURED: Mutex<BTreeMap<(&str, u64), Option<f64>>> = Mutex::new(BTreeMap::new());
    let mut measured = MEASURED.lock().unwrap_or_else(PoisonError::into_inner);
    *measured.entry((load.about().name, size)).or_insert_with(|| seconds_a_round(load, size))
}

#[cfg(test)]
mod tests {
    use super::*;
    use periculum_core::model::pass::{Demand, Extent, Pass};

    fn said(size: u64, seconds: u64) -> Option<String> {
        let demand = Demand { extent: Extent::Size(size), ..Demand::default() };
        let pass = Pass { demand, ..Pass::usual("dense", Span::from_seconds(seconds)) };
        no_round(
            &resolve(&pass, &[], &Means { cores: vec![0], memory: None, pictures: PathBuf::new() }).expect("an order"),
            2.0,
        )
    }

    #[test]
    fn a_pass_that_can_finish_no_round_is_told_before_it_begins() {
        let told = said(20_000, 1).expect("no processor solves that in a second");
        assert!(told.contains("a round of dense takes about") && told.contains("more time"), "{told}");
        assert_eq!(said(200, 3600), None);
    }
}
