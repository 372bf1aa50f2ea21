//! Whether a limit has moved while it was looked for: the room warmed up, or something wears out.

use libm::{exp, log};

use crate::hazard::{Observation, Survival};
use crate::laws::{Aim, Laws};

/// By how many steps a limit may have come down from the first trial to now, and the share of climbs in which it has.
const DRIFTS: [(f64, f64); 5] = [(0.0, 0.9), (1.5, 0.04), (3.0, 0.03), (-1.5, 0.02), (-3.0, 0.01)];

/// Laws for each way in which a limit may have moved.
#[derive(Clone, Debug)]
pub struct Drifting {
    laws: Vec<(f64, Laws)>,
}

impl Drifting {
    /// Of a rig of which this is known before anything is seen.
    pub fn from(laws: &Laws) -> Self {
        Self { laws: DRIFTS.map(|(drift, _)| (drift, laws.clone())).to_vec() }
    }

    /// Takes in what happened at a rung, so long ago: nothing is now, and one at the first trial.
    pub fn observe(&mut self, rung: f64, ago: f64, observation: Observation) {
        self.laws.iter_mut().for_each(|(drift, laws)| laws.observe(rung - *drift * ago, observation));
    }

    /// How likely it is that the limit has moved, and by how many steps it has come down then, in the mean.
    pub fn moved(&self) -> (f64, f64) {
        let (mut likely, mut sum) = (0.0, 0.0);
        for ((drift, _), weight) in self.laws.iter().zip(self.weights()).skip(1) {
            likely += weight;
            sum += weight * drift;
        }
        (likely, sum / likely)
    }

    /// How a rung survives so many seconds now.
    pub fn survival(&self, rung: f64, aim: &Aim) -> Survival {
        let of = |((_, laws), weight): (&(f64, Laws), f64)| {
            laws.survivals(rung, aim.proof)
                .into_iter()
                .map(move |(survival, of_law)| (survival, weight * of_law))
                .collect::<Vec<_>>()
        };
        Survival::of(self.laws.iter().zip(self.weights()).flat_map(of).collect(), 1.0 - aim.sure)
    }

    /// How likely each is, one together.
    fn weights(&self) -> Vec<f64> {
        let evidence = self.laws.iter().zip(DRIFTS).map(|((_, laws), (_, share))| laws.log_evidence() + log(share));
        let evidence: Vec<f64> = evidence.collect();
        let greatest = evidence.iter().copied().fold(f64::NEG_INFINITY, f64::max);
        let weights: Vec<f64> = evidence.into_iter().map(|one| exp(one - greatest)).collect();
        let all: f64 = weights.iter().sum();
        weights.into_iter().map(|weight| weight / all).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::prior::Prior;

    const AIM: Aim = Aim { proof: 120.0, survives: 0.9, sure: 0.95 };

    fn after(seen: &[(f64, f64, Observation)]) -> Drifting {
        let mut laws = Drifting::from(&Laws::between(-12.0, 20.0, &Prior::usual(1.0)));
        seen.iter().for_each(|(rung, ago, observation)| laws.observe(*rung, *ago, *observation));
        laws
    }

    #[test]
    fn what_held_for_long_and_then_falls_at_once_has_moved() {
        let held = [1.0, 0.95, 0.9, 0.85, 0.8].map(|ago| (4.0, ago, Observation::Held(3_600.0)));
        let fell = [0.1, 0.05, 0.0].map(|ago| (4.0, ago, Observation::Fell(20.0)));
        let moved = after(&[&held[..], &fell[..]].concat());
        let (likely, steps) = moved.moved();
        assert!(likely > 0.9 && steps > 1.0, "{likely} {steps}");
        // The same falls two steps harder say nothing of the kind.
        let beyond = fell.map(|(rung, ago, observation)| (rung + 4.0, ago, observation));
        let (likely, _) = after(&[&held[..], &beyond[..]].concat()).moved();
        assert!(likely < 0.3, "{likely}");
        assert!(moved.survival(2.0, &AIM).low < after(&held).survival(2.0, &AIM).low);
    }
}
