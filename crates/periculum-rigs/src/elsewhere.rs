//! A rig that is another machine: people set it, load it and read it, and nothing of this computer is touched for it.

use std::mem;
use std::thread;
use std::time::Duration;

use periculum_core::model::ending::Boot;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::PassReport;

use crate::bench::{Answer, Bench, BenchEvent, Number, Order, ReadBack, Sensed, Shown};
use crate::steady::SteadyClock;

/// The boot that every start of this program finds such a rig in: nobody here knows when it starts anew, and a start of this
/// computer is none of the rig's.
const BOOT: &str = "elsewhere";

/// Whoever keeps the time and the record for people at another machine.
pub struct Elsewhere {
    clock: SteadyClock,
    answers: Vec<BenchEvent>,
}

impl Elsewhere {
    /// By this clock.
    pub fn new(clock: SteadyClock) -> Self {
        Self { clock, answers: Vec::new() }
    }
}

/// What comes of an order here: people do what there is to be done, and nothing can be read back.
fn answer(order: Order) -> Option<Answer> {
    let nothing = || Answer::InForce(ReadBack::default());
    Some(match order {
        Order::Prepare(_) => Answer::Prepared,
        Order::Confirm(_) | Order::ReadBack => nothing(),
        Order::PutBack => Answer::PutBack(Vec::new()),
        Order::Apply(errand) => {
            let evidence = "the rig is elsewhere; it has to be changed by hand";
            Answer::Failed(Incident::new(IncidentKind::NotTaken, evidence).at(errand.settings()))
        }
        Order::StartAnew => Answer::NotStartedAnew("the rig is elsewhere".into()),
        Order::Run(_) => {
            let refused = Some("the rig is elsewhere, and nothing runs on this computer for it".into());
            Answer::Ended(Box::new(PassReport { refused, ..PassReport::default() }), ReadBack::default())
        }
        Order::Show { .. } => Answer::Shown(Shown::default()),
        Order::Break => return None,
    })
}

impl Bench for Elsewhere {
    fn order(&mut self, number: Number, order: Order) {
        let answered = answer(order).map(|answer| BenchEvent::Answered { to: number, answer });
        self.answers.extend(answered);
    }

    fn events(&mut self, at_most: Span) -> Vec<BenchEvent> {
        if self.answers.is_empty() {
            thread::sleep(Duration::from_millis(at_most.millis()));
            // Whatever instruments hang on it are read beside this.
            return vec![BenchEvent::Sensed(Sensed::default())];
        }
        mem::take(&mut self.answers)
    }

    fn now(&self) -> Moment {
        self.clock.now()
    }

    fn is_virtual(&self) -> bool {
        false
    }

    fn identity(&self) -> Boot {
        Boot { id: BOOT.into(), since: None }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::bench::answer_to;
    use periculum_core::model::errand::Errand;
    use periculum_core::model::pass::{Pass, PassOrder};
    use periculum_core::model::rung::Change;

    const AT_ONCE: Span = Span::from_seconds(5);

    fn bench() -> Elsewhere {
        Elsewhere::new(SteadyClock::behind(None))
    }

    #[test]
    fn nothing_is_set_or_run_here_for_it() {
        let change = Errand::of(Change { setting: "clock".into(), from: None, to: 1.into() });
        assert!(matches!(answer_to(&mut bench(), Order::Apply(change), AT_ONCE), Some(Answer::Failed(_))));
        let pass = Pass::usual("dense", AT_ONCE);
        let order = Order::Run(PassOrder { trial: 1, index: 0, pass, nth: 1, cores: Vec::new() });
        let Some(Answer::Ended(report, _)) = answer_to(&mut bench(), order, AT_ONCE) else { panic!("no end") };
        assert!(report.refused.is_some());
    }

    #[test]
    fn whoever_changed_it_is_believed_and_nothing_is_read_back() {
        let mut bench = bench();
        assert_eq!(answer_to(&mut bench, Order::ReadBack, AT_ONCE), Some(Answer::InForce(ReadBack::default())));
        bench.order(1, Order::Break);
        assert_eq!(bench.events(Span::from_millis(1)), [BenchEvent::Sensed(Sensed::default())]);
        assert_eq!(bench.identity(), self::bench().identity(), "a start of this computer is none of the rig's");
    }
}
