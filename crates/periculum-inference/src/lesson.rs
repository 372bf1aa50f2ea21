//! What trials would teach of the hardest rung that can be claimed, before they are made.

use libm::{exp, log};

use crate::hazard::{CURVE, warmed};
use crate::laws::{AT_LIMIT, Aim, Laws, Shape};
use crate::prior::{BACKGROUND_COUNT, BACKGROUNDS};

/// Limits this far below the first rung are told apart: a claim comes nearer step by step, from wherever it is.
const BELOW: usize = 24;

/// Laws of less weight than this together hardly change what is expected.
const NEGLIGIBLE: f64 = 2e-3;

/// What is expected of a trial.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Lesson {
    /// The probability that it falls.
    pub falls: f64,
    /// The probability that it falls before the first moment, as deep falls do.
    pub falls_at_once: f64,
    /// How long it takes, seconds.
    pub seconds: f64,
    /// How many steps harder a rung could be claimed after it, in the mean.
    pub gain: f64,
}

/// The laws that matter, and the hardest rung that is good enough by each.
pub struct Teaching {
    laws: Vec<Weighed>,
    /// How many backgrounds leave any rung good enough, the rarest ones. The others are left out, since no trial that is shorter than
    /// the proof shows them.
    backgrounds: usize,
    /// The share of laws that a claim may be wrong by.
    unsure: f64,
    places: usize,
}

struct Weighed {
    shape: Shape,
    /// For each background, once it has survived the proof.
    weights: [f64; BACKGROUND_COUNT],
    /// The hardest rung that is good enough, so much higher.
    places: [usize; BACKGROUND_COUNT],
}

/// The weight of laws by the hardest rung that is good enough.
type Shares = Vec<f64>;

/// A moment that a trial may end at.
struct Until {
    /// The logarithm of how often a rig falls until then that is at its limit.
    dose: f64,
    /// How likely each background lets it live so long.
    of_background: [f64; BACKGROUND_COUNT],
    /// The laws by which it is alive then.
    alive: Shares,
}

impl Laws {
    /// What trials would teach of the rungs up to this one, for whoever wants to claim one of them.
    pub fn teaching(&self, aim: &Aim, hardest: usize) -> Teaching {
        let time = warmed(aim.proof);
        let bearable = -log(aim.survives) / time;
        let backgrounds = BACKGROUNDS.iter().take_while(|background| **background < bearable).count();
        let place = |shape: &Shape, background: f64| {
            let limit = shape.rung_of((bearable - background).max(f64::MIN_POSITIVE));
            (limit.floor() + BELOW as f64).clamp(0.0, (hardest + BELOW) as f64) as usize
        };
        let survive = BACKGROUNDS.map(|background| exp(-background * time));
        let weighed = |(shape, weights): (&Shape, [f64; BACKGROUND_COUNT])| Weighed {
            shape: *shape,
            weights: std::array::from_fn(|at| if at < backgrounds { weights[at] * survive[at] } else { 0.0 }),
            places: BACKGROUNDS.map(|background| place(shape, background)),
        };
        let mut laws: Vec<Weighed> = self.shapes().map(weighed).collect();
        let weight = |law: &Weighed| law.weights.iter().sum::<f64>();
        laws.sort_by(|a, b| weight(b).total_cmp(&weight(a)));
        let all: f64 = laws.iter().map(weight).sum();
        let mut before = 0.0;
        laws.retain(|law| {
            let is_needed = before < all * (1.0 - NEGLIGIBLE);
            before += weight(law);
            is_needed
        });
        Teaching { laws, backgrounds, unsure: 1.0 - aim.sure, places: hardest + BELOW + 1 }
    }
}

impl Teaching {
    /// What to expect of trials at a rung that end at each of these moments, in ascending seconds. A fall is known by the two moments
    /// that it happens between; one before the first moment is one at once.
    pub fn expect(&self, rung: f64, moments: &[f64]) -> Vec<Lesson> {
        let until = |moment: &f64| Until {
            dose: log(AT_LIMIT * warmed(*moment)),
            of_background: BACKGROUNDS.map(|background| exp(-background * warmed(*moment))),
            alive: vec![0.0; self.places],
        };
        let mut all: Shares = vec![0.0; self.places];
        let mut untils: Vec<Until> = moments.iter().map(until).collect();
        for Weighed { shape, weights, places } in &self.laws {
            let exponent = shape.exponent(rung);
            (0..self.backgrounds).for_each(|at| all[places[at]] += weights[at]);
            for Until { dose, of_background, alive } in &mut untils {
                let survives = CURVE.survival(exponent + *dose);
                (0..self.backgrounds).for_each(|at| alive[places[at]] += weights[at] * survives * of_background[at]);
            }
        }
        let weight = |shares: &Shares| shares.iter().sum::<f64>();
        let total = weight(&all);
        let now = self.claimable(&all);
        let at_once = untils.first().map_or(0.0, |first| 1.0 - weight(&first.alive) / total);
        let (mut since, mut before) = (0.0, &all);
        let (mut seconds, mut after_falls) = (0.0, 0.0);
        let lessons = moments.iter().zip(&untils).map(|(moment, Until { alive: still, .. })| {
            seconds += (moment - since) * (weight(before) + weight(still)) / 2.0;
            let fell: Shares = before.iter().zip(still).map(|(before, still)| before - still).collect();
            after_falls += self.claimable(&fell);
            (since, before) = (*moment, still);
            Lesson {
                falls: 1.0 - weight(still) / total,
                falls_at_once: at_once,
                seconds: seconds / total,
                gain: (after_falls + self.claimable(still) - now) / total,
            }
        });
        lessons.collect()
    }

    /// The rung that can be claimed of laws, in the mean of the share that a claim may be wrong by, times their weight: the expected
    /// shortfall (Acerbi and Tasche, On the coherence of expected shortfall, 2002), which whatever is learnt can only raise.
    fn claimable(&self, shares: &Shares) -> f64 {
        let mut left = self.unsure * shares.iter().sum::<f64>();
        let mut sum = 0.0;
        for (place, share) in shares.iter().enumerate() {
            let taken = share.clamp(0.0, left.max(0.0));
            sum += taken * place as f64;
            left -= taken;
        }
        sum / self.unsure
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::hazard::Observation;
    use crate::prior::Prior;
    use proptest::prelude::*;

    const NIGHT: Aim = Aim { proof: 28_800.0, survives: 0.9, sure: 0.95 };
    const MOMENTS: [f64; 4] = [10.0, 120.0, 600.0, 3600.0];

    fn after(seen: &[(f64, Observation)]) -> Teaching {
        let mut laws = Laws::between(-12.0, 40.0, &Prior::usual(0.9));
        seen.iter().for_each(|(rung, observation)| laws.observe(*rung, *observation));
        laws.teaching(&NIGHT, 28)
    }

    #[test]
    fn once_something_fell_long_trials_of_easier_rungs_teach_most() {
        let teaching = after(&[(16.0, Observation::Held(120.0)), (20.0, Observation::Fell(60.0))]);
        let gain = |rung: f64, at: usize| teaching.expect(rung, &MOMENTS)[at].gain;
        assert!(gain(15.0, 3) > gain(15.0, 1) && gain(15.0, 3) > gain(26.0, 3), "{} {}", gain(15.0, 3), gain(26.0, 3));
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(12))]

        #[test]
        fn whatever_is_learnt_can_only_raise_what_can_be_claimed(rung in 0f64..28.0, fell in 5f64..25.0, held in 0f64..20.0) {
            let teaching = after(&[(held, Observation::Held(300.0)), (fell.max(held + 1.0), Observation::Fell(100.0))]);
            let lessons = teaching.expect(rung, &MOMENTS);
            for (shorter, longer) in lessons.iter().zip(&lessons[1..]) {
                prop_assert!(shorter.gain >= -1e-9 && longer.gain >= shorter.gain - 1e-9, "{shorter:?} {longer:?}");
                prop_assert!(longer.falls >= shorter.falls && longer.seconds >= shorter.seconds);
            }
        }
    }
}
