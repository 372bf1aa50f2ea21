//! What was asked of a load, to hold what it says of itself against: a load whose memory is wrong may work on less, for a
//! shorter time, or on nothing.

use std::time::Duration;

use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::Span;
use periculum_core::model::quantity::harmless;
use periculum_loads::catalogue;
use periculum_loads::protocol::{Progress, Started};
use periculum_loads::witness::Witness;

use super::foresight::seconds_once;
use super::order::LoadOrder;
use crate::telling::running;

/// No round is faster than what is foreseen of it by more than this: small ones, which that is foreseen from, may be slower by
/// caches, clocks and whatever else ran beside them.
const FASTER: f64 = 32.0;

/// A pass may be halted for this share of its time and still count.
const HALTED: f64 = 0.05;

/// A pass may end so much before its time: clocks are read at different moments.
const EARLY: Span = Span::from_millis(300);

/// What was asked of a load.
#[derive(Clone, Debug)]
pub(super) struct Asked {
    order: LoadOrder,
    /// How long one of this program's own loads sleeps in a round; none for a program of the user's.
    rests: Option<Duration>,
    /// How long a round takes on this machine, seconds.
    round: Option<f64>,
}

impl Asked {
    pub(super) fn of(order: &LoadOrder) -> Self {
        let load = catalogue::find(&order.load).filter(|_| order.program.is_none());
        Self {
            order: order.clone(),
            rests: load.map(|load| load.rests(order.size)),
            round: load.and_then(|load| seconds_once(load, order.size)),
        }
    }

    /// Somebody who watches the threads of the process that does it; a program of the user's has its own.
    pub(super) fn witness(&self, process: u32) -> Witness {
        let own: &[usize] = if self.rests.is_some() { &self.order.cores } else { &[] };
        let round = self.round.and_then(|seconds| Duration::try_from_secs_f64(seconds).ok());
        Witness::new(process, own, self.rests.unwrap_or_default(), round)
    }

    /// Where it works on something else than what was asked.
    pub(super) fn other_work(&self, started: &Started) -> Option<Incident> {
        let LoadOrder { load, cores, size, .. } = &self.order;
        let is_same =
            started.load == *load && started.cores == *cores && (started.size == *size || self.rests.is_none());
        let told = |load: &str, size: u64, cores: &[usize]| running::work(load, size, format!("{cores:?}"));
        (!is_same).then(|| {
            let found = harmless(&told(&started.load, started.size, &started.cores));
            let evidence = running::works_on_another(&found, told(load, *size, cores));
            Incident::new(IncidentKind::WrongResult, evidence)
        })
    }

    /// Whether it came to its end before its time, without having worked as often as it was to.
    pub(super) fn ended_early(&self, progress: &Progress, elapsed: Span) -> bool {
        let has_time_left = elapsed + EARLY < self.order.length;
        let is_enough = |times: u64| match self.rests {
            Some(_) => self.order.cores.iter().all(|core| rounds_of(progress, *core) >= times),
            None => progress.rounds >= times,
        };
        has_time_left && !self.order.times.is_some_and(is_enough)
    }

    /// Cores whose rounds were faster than any can be, with the evidence.
    pub(super) fn too_fast(&self, progress: &Progress, elapsed: Span) -> Vec<(usize, String)> {
        let Some(round) = self.round else { return Vec::new() };
        let is_too_fast = |rounds: u64| rounds as f64 * round > FASTER * elapsed.seconds().max(1.0);
        let cores = progress.cores.iter().filter(|core| is_too_fast(core.rounds));
        let told = |rounds| running::too_fast(rounds, elapsed, span_of(round));
        cores.map(|core| (core.core, told(core.rounds))).collect()
    }

    /// Whether somebody halted it for so long that it has not tested what it was to.
    pub(super) fn lost_time(&self, halted: Duration) -> bool {
        halted.as_secs_f64() > self.order.length.seconds() * HALTED
    }

    /// Whether nothing was checked on some core, so that nothing is known of it.
    pub(super) fn is_unchecked(&self, progress: &Progress) -> bool {
        match self.rests {
            Some(_) => self.order.cores.iter().any(|core| rounds_of(progress, *core) == 0),
            None => progress.rounds == 0,
        }
    }
}

fn rounds_of(progress: &Progress, core: usize) -> u64 {
    progress.cores.iter().filter(|told| told.core == core).map(|told| told.rounds).sum()
}

fn span_of(seconds: f64) -> Span {
    Span::from_millis((1000.0 * seconds).max(1.0) as u64)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::loading::order::{Means, resolve};
    use periculum_core::model::pass::{Demand, Pass};
    use periculum_loads::protocol::CoreProgress;

    fn asked(times: Option<u64>) -> Asked {
        let demand = Demand { times, ..Demand::default() };
        let pass = Pass { demand, ..Pass::usual("dense", Span::from_seconds(60)) };
        let order = resolve(&pass, &[], &Means { cores: vec![2, 3], memory: None, pictures: "a.pictures".into() })
            .expect("an order");
        Asked { rests: Some(Duration::ZERO), round: Some(0.2), order }
    }

    fn progress(rounds: [u64; 2]) -> Progress {
        let core = |(core, rounds)| CoreProgress { core, rounds, ..CoreProgress::default() };
        let cores: Vec<CoreProgress> = [2, 3].into_iter().zip(rounds).map(core).collect();
        Progress { rounds: rounds.iter().sum(), cores, ..Progress::default() }
    }

    fn started() -> Started {
        Started { load: "dense".into(), size: 2000, cores: vec![2, 3], ..Started::default() }
    }

    #[test]
    fn other_work_than_what_was_ordered_is_told() {
        assert_eq!(asked(None).other_work(&started()), None);
        for other in [
            Started { size: 20, ..started() },
            Started { cores: vec![2], ..started() },
            Started { load: "dens".into(), ..started() },
        ] {
            let told = asked(None).other_work(&other).expect("told").to_string();
            assert!(told.contains("dense of size 2000 on cores [2, 3] was ordered"), "{told}");
        }
    }

    #[test]
    fn a_pass_that_ends_early_is_noticed() {
        let at = |seconds| asked(None).ended_early(&progress([300, 300]), Span::from_seconds(seconds));
        assert_eq!([at(20), at(59), at(60), at(61)], [true, true, false, false]);
    }

    #[test]
    fn so_many_rounds_are_to_be_done_by_every_core() {
        let early = |rounds| asked(Some(5)).ended_early(&progress(rounds), Span::from_seconds(2));
        assert_eq!([early([5, 5]), early([5, 4]), early([9, 0])], [false, true, true]);
    }

    #[test]
    fn a_core_that_is_faster_than_any_works_on_nothing() {
        let told = |rounds| asked(None).too_fast(&progress(rounds), Span::from_seconds(60));
        assert_eq!(told([300, 2000]), []);
        let fast = told([300, 1_000_000]);
        assert_eq!((fast.len(), fast[0].0), (1, 3));
        assert!(fast[0].1.contains("1000000 rounds in 1 min, where one takes about 200 ms"), "{fast:?}");
    }

    #[test]
    fn a_pass_that_was_halted_for_long_has_not_tested_what_it_was_to() {
        let lost = |seconds| asked(None).lost_time(Duration::from_secs(seconds));
        assert_eq!([lost(0), lost(2), lost(4)], [false, false, true]);
    }

    #[test]
    fn a_core_without_a_round_is_not_checked() {
        let unchecked = |rounds| asked(None).is_unchecked(&progress(rounds));
        assert_eq!([unchecked([1, 1]), unchecked([1, 0]), unchecked([0, 0])], [false, true, true]);
    }
}
