//! What a simulated rig really is: nothing that an engine could see, but what its marks are measured by.

use periculum_core::Decimal;
use periculum_core::model::errand::Errand;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{Pass, PassOrder};
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::{Change, Rung};

use super::law::Law;
use super::rig::Simulator;
use super::spec::Spec;
use crate::bench::{Bench, Order};

/// So long into a pass its voltage is measured: behind the undershoot of its beginning.
const INTO_PASS: Span = Span::from_seconds(5);

/// The truth about one specimen.
#[derive(Clone, Debug)]
pub struct Truth<'a> {
    rig: &'a Rig,
    spec: &'a Spec,
    seed: u64,
}

impl<'a> Truth<'a> {
    /// The truth about the specimen of this seed.
    pub fn of(rig: &'a Rig, spec: &'a Spec, seed: u64) -> Self {
        Self { rig, spec, seed }
    }

    /// The name of the law by which its first processor fails; none where it has none.
    pub fn law(&self) -> Option<&'static str> {
        self.spec.law().map(Law::name)
    }

    /// The probability that a rung survives these passes, one after the other, from a rig at rest.
    pub fn survival(&self, rung: &Rung, passes: &[Pass]) -> f64 {
        let mut simulator = Simulator::at(self.spec, self.rig, self.seed, rung, Moment::from_millis(0));
        if !simulator.is_alive() {
            return 0.0;
        }
        let survive = |(index, pass): (usize, &Pass)| {
            simulator.survival(&PassOrder { trial: 1, index, pass: pass.clone(), nth: 1, cores: vec![] })
        };
        passes.iter().enumerate().map(survive).product()
    }

    /// The voltage that the rig's first device gets with this rung, in the middle of a pass or at rest, V.
    pub fn voltage(&self, rung: &Rung, pass: Option<&Pass>) -> f64 {
        let mut simulator = Simulator::new(self.spec, self.rig, self.seed, Moment::from_millis(0));
        for (setting, to) in rung.iter() {
            // A rung that the rig does not survive leaves it at stock, as a climb does.
            let _ = simulator.apply(&Errand::of(Change { setting: setting.to_owned(), from: None, to }));
        }
        if let Some(pass) = pass {
            let order = PassOrder { trial: 1, index: 0, pass: pass.clone(), nth: 1, cores: vec![] };
            simulator.order(0, Order::Run(order));
        }
        simulator.events(INTO_PASS);
        simulator.voltage()
    }

    /// The last of these values of a setting, ordered from easy to hard, with which a rung survives these passes with
    /// at least this probability; none where the first does not.
    pub fn hardest(
        &self,
        rung: &Rung,
        setting: &str,
        values: &[Decimal],
        passes: &[Pass],
        least: f64,
    ) -> Option<Decimal> {
        let holds = |value: &Decimal| self.survival(&rung.with(setting, *value), passes) >= least;
        // More of a setting is never easier, so that the border can be halved.
        let first_not = values.partition_point(holds);
        first_not.checked_sub(1).map(|last| values[last])
    }
}

#[cfg(test)]
mod tests {
    use super::super::devices::processor;
    use super::super::rig::tests::{rig, run_trial};
    use super::*;

    fn passes(seconds: u64) -> [Pass; 1] {
        [Pass::usual("dense", Span::from_seconds(seconds))]
    }

    /// So many of so many trials held, with the probability that the truth tells, within three standard deviations.
    #[test]
    fn the_truth_is_what_happens_on_average() {
        let (rig, spec) = (rig(), Spec::of_processor(7, processor::Spec::desktop()));
        for clock in [4650, 4700, 4750] {
            let rung = rig.stock().with("core_clock", clock.into());
            let truth = Truth::of(&rig, &spec, 11).survival(&rung, &passes(300));
            let held = (0..400).filter(|trial| run_trial(11, *trial, &rung, 300)).count() as f64 / 400.0;
            let deviation = (truth * (1.0 - truth) / 400.0).sqrt();
            assert!((held - truth).abs() <= 3.0 * deviation + 0.01, "{clock} MHz: {held} of {truth}");
        }
    }

    #[test]
    fn the_voltage_droops_under_load() {
        let (rig, spec) = (rig(), Spec::of_processor(7, processor::Spec::desktop()));
        let truth = Truth::of(&rig, &spec, 11);
        let (rest, load) = (truth.voltage(&rig.stock(), None), truth.voltage(&rig.stock(), Some(&passes(60)[0])));
        assert!(load < rest - 0.02 && rest < 1.3 && load > 1.0, "{rest} V at rest, {load} V under load");
    }

    #[test]
    fn longer_proofs_and_harder_values_are_survived_less_often() {
        let (rig, spec) = (rig(), Spec::of_processor(7, processor::Spec::desktop()));
        let truth = Truth::of(&rig, &spec, 11);
        let survival =
            |clock: i64, seconds| truth.survival(&rig.stock().with("core_clock", clock.into()), &passes(seconds));
        assert!(survival(4700, 3600) < survival(4700, 600) && survival(4725, 600) < survival(4700, 600));
        assert_eq!(survival(5500, 60), 0.0);
        let values: Vec<Decimal> = (4200..=5400).step_by(25).map(Decimal::from).collect();
        let hardest = truth.hardest(&rig.stock(), "core_clock", &values, &passes(28_800), 0.9).expect("stock holds");
        assert!(truth.survival(&rig.stock().with("core_clock", hardest), &passes(28_800)) >= 0.9);
        let next = hardest + Decimal::from(25);
        assert!(truth.survival(&rig.stock().with("core_clock", next), &passes(28_800)) < 0.9);
    }
}
