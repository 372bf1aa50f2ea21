//! What the benchmarks of a climb say: how much each value of a setting gains, and from which value on more of it no
//! longer pays.

use std::collections::{BTreeMap, BTreeSet};

use rust_decimal::Decimal;

use crate::analysis::over::Over;
use crate::inference::comparison::Comparison;
use crate::inference::disturbance::{disturbed, disturbed_beside};
use crate::inference::noise::Noise;
use crate::inference::statistics::mean;
use crate::model::ladder::Direction;
use crate::model::moment::Moment;
use crate::model::pass::{Pass, Score, Threads};
use crate::model::plan::Plan;
use crate::model::rig::{Paid, Rig, Sensor};
use crate::model::verdict::Verdict;
use crate::story::series::{Series, Spread};
use crate::story::{PassStory, Story, TrialStory};

/// What was measured; only scores of the same are compared.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Measure {
    /// The load.
    pub load: String,
    /// On how many threads.
    pub threads: Threads,
    /// The score's unit.
    pub unit: String,
    /// Whether less of it is better.
    pub less_is_better: bool,
}

/// A benchmark of a climb, with everything held equal but what moves along the axis.
#[derive(Clone, Debug, PartialEq)]
pub struct Benchmark {
    /// What was measured.
    pub what: Measure,
    /// The other settings that were moved in the climb, by name, and the value that each has here: what tells the curves
    /// of a family apart.
    pub beside: Vec<(String, Decimal)>,
    /// How much a score varies when nothing is changed; none where no value was measured twice.
    pub noise: Option<Noise>,
    /// The mean score at stock, before anything was changed, and how often it was measured.
    pub baseline: Option<(f64, usize)>,
    /// What those took.
    pub at_stock: Took,
    /// The values along the axis that have scores, from easy to hard; one without a value where there is no axis.
    pub levels: Vec<Level>,
    /// The level with the best mean.
    pub best: usize,
    /// The easiest level from which on the score hardly follows the setting; none where it follows to the last, or where
    /// the noise is not known.
    ///
    /// It hardly follows where the gain from this level to the hardest is, with a confidence of 95 %, less than a quarter
    /// of what the setting gives more (as in a test of equivalence: Schuirmann, 1987), and for no level between them
    /// clearly more.
    pub pays_until: Option<usize>,
}

/// What one value along the axis scores.
#[derive(Clone, Debug, PartialEq)]
pub struct Level {
    /// The value, in the unit of the axis.
    pub value: Option<Decimal>,
    /// What the setting that moves along the axis is set to there: the value itself where the axis is a setting.
    pub set_to: Option<Decimal>,
    /// The trials, in order.
    pub trials: Vec<u32>,
    /// The worst of how they ended: a score counts even where a later pass fell.
    pub verdict: Verdict,
    /// Their scores, but those that were disturbed.
    pub scores: Vec<f64>,
    /// How many scores were disturbed and do not count: far below the others of the same value, as when another program
    /// took the processor for a while.
    pub disturbed: usize,
    /// How they compare with the baseline, better being more; all levels together, so that the best of many is no gain by chance.
    pub over_baseline: Option<Comparison>,
    /// How they compare with the level before.
    pub over_before: Option<Comparison>,
    /// What they took.
    pub took: Took,
}

/// What scores took while they were made.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Took {
    /// Mean power, W; none where no sensor reads it.
    pub watts: Option<f64>,
    /// The highest temperature, °C; none where no sensor reads one.
    pub degrees: Option<f64>,
}

impl Took {
    fn of(scored: &[&Scored], conditions: &Conditions) -> Self {
        let watts: Vec<f64> = scored.iter().filter_map(|one| conditions.watts(one.trial, one.pass)).collect();
        let degrees = scored.iter().filter_map(|one| conditions.degrees(one.trial, one.pass));
        Self { watts: (!watts.is_empty()).then(|| mean(&watts)), degrees: degrees.reduce(f64::max) }
    }

    /// How much more it is than this: differences in W and K.
    pub fn less(self, other: Self) -> Self {
        let difference = |of: Option<f64>, other: Option<f64>| Some(of? - other?);
        Self { watts: difference(self.watts, other.watts), degrees: difference(self.degrees, other.degrees) }
    }
}

/// A gain of less than this share of what the setting gives more does not pay.
const FOLLOWS: f64 = 0.25;

impl Level {
    /// The mean score.
    pub fn mean(&self) -> f64 {
        mean(&self.scores)
    }

    /// The mean score per unit of the money that was paid.
    pub fn per_money(&self, paid: &Paid) -> Option<f64> {
        f64::try_from(paid.amount).ok().filter(|amount| *amount > 0.0).map(|amount| self.mean() / amount)
    }

    /// The mean score per watt; none where the power is not known.
    pub fn per_watt(&self) -> Option<f64> {
        self.took.watts.filter(|watts| *watts > 0.0).map(|watts| self.mean() / watts)
    }
}

/// One score with what belongs to it.
struct Scored<'a> {
    trial: &'a TrialStory,
    pass: &'a PassStory,
    measure: Measure,
    value: f64,
    is_baseline: bool,
}

/// The benchmarks of a climb over the setting that its plan climbs: see [`benchmarks_over`].
pub fn benchmarks(story: &Story, rig: &Rig, plan: &Plan, traces: &BTreeMap<String, Series>) -> Vec<Benchmark> {
    benchmarks_over(story, rig, plan, traces, Over::usual(rig, plan))
}

/// The benchmarks of a climb, in the order in which they were first run: where several values of other settings were tried,
/// one for each combination of them that several values along the axis were measured at, and the one with the best score.
/// Without an axis all scores of a measure are of one value.
///
/// Counted are passes that were run to their end, whatever became of the trial later, but in trials that were found to be
/// disturbed.
pub fn benchmarks_over(
    story: &Story,
    rig: &Rig,
    plan: &Plan,
    traces: &BTreeMap<String, Series>,
    over: Option<Over>,
) -> Vec<Benchmark> {
    let scored = scored(story);
    let mut measures: Vec<Measure> = Vec::new();
    for one in &scored {
        if !measures.contains(&one.measure) {
            measures.push(one.measure.clone());
        }
    }
    let value = |one: &Scored| over?.value(&one.trial.rung);
    let (along, moved) = over.map_or_else(Default::default, |over| moving(&scored, rig, over, plan.climbed_setting()));
    let beside = |one: &Scored| -> Vec<(String, Decimal)> {
        moved.iter().filter_map(|name| Some(((*name).to_owned(), one.trial.rung.get(name)?))).collect()
    };
    let direction = over.map_or(Direction::Up, |over| over.direction());
    let conditions = Conditions::of(rig, traces);
    let family = |what: Measure| {
        let own: Vec<&Scored> = scored.iter().filter(|one| one.measure == what).collect();
        let mut combinations: Vec<Vec<(String, Decimal)>> = Vec::new();
        for one in &own {
            let combination = beside(one);
            if !combinations.contains(&combination) {
                combinations.push(combination);
            }
        }
        let mut curves = combinations.iter().map(|combination| {
            let own: Vec<&Scored> = own.iter().copied().filter(|one| beside(one) == *combination).collect();
            let mut values: Vec<Option<Decimal>> = own.iter().map(|one| value(one)).collect();
            values.sort_unstable();
            values.dedup();
            if direction == Direction::Down {
                values.reverse();
            }
            let level = |at| {
                let own: Vec<&Scored> = own.iter().copied().filter(|one| value(one) == at).collect();
                let set_to = own.first().zip(along).and_then(|(one, along)| one.trial.rung.get(along));
                Level::of(at, set_to, &undoubted(own), &conditions)
            };
            values.into_iter().map(level).collect::<Vec<_>>()
        });
        let mut curves: Vec<Vec<Level>> = curves.by_ref().collect();
        leave_out_disturbed(&what, curves.iter_mut().flatten());
        // What varies when nothing is changed is the same for all of them.
        let did_not_fall = curves.iter().flatten().filter(|level| level.verdict != Verdict::Fell);
        let merits: Vec<Vec<f64>> = did_not_fall.map(|level| level.merits(&what)).collect();
        let noise = Noise::pooled(merits.iter().map(Vec::as_slice));
        let baseline: Vec<&Scored> = own.iter().copied().filter(|one| one.is_baseline).collect();
        let stock: Vec<f64> = baseline.iter().map(|one| one.value).collect();
        let at_stock = Took::of(&baseline, &conditions);
        let all = combinations.into_iter().zip(curves).map(|(beside, levels)| Benchmark {
            beside,
            at_stock,
            ..Benchmark::of(what.clone(), &stock, levels, noise)
        });
        worth_showing(all.collect())
    };
    measures.into_iter().flat_map(family).collect()
}

/// The scores of trials that did not fall, where there are any: a fall is not repeated to see whether its scores were
/// disturbed.
fn undoubted<'a, 'b>(own: Vec<&'b Scored<'a>>) -> Vec<&'b Scored<'a>> {
    let did_not_fall: Vec<&Scored> =
        own.iter().copied().filter(|one| one.trial.verdict != Some(Verdict::Fell)).collect();
    if did_not_fall.is_empty() { own } else { did_not_fall }
}

/// Those that say something: where several values were measured, and what scores best.
fn worth_showing(all: Vec<Benchmark>) -> Vec<Benchmark> {
    let best = all.iter().map(Benchmark::best_merit).fold(f64::NEG_INFINITY, f64::max);
    all.into_iter().filter(|one| one.levels.len() > 1 || one.best_merit() == best).collect()
}

/// The curves of one measure among these benchmarks.
pub fn family<'a>(all: &'a [Benchmark], what: &Measure) -> Vec<&'a Benchmark> {
    all.iter().filter(|one| one.what == *what).collect()
}

/// Of these benchmarks the one with the best score for each measure.
pub fn best_of_each(all: &[Benchmark]) -> Vec<&Benchmark> {
    let is_best = |one: &&Benchmark| {
        all.iter().filter(|other| other.what == one.what).all(|other| other.best_merit() <= one.best_merit())
    };
    all.iter().filter(is_best).collect()
}

/// The setting that moves along the axis, and the others that have several values among these scores, in the order of the
/// rig.
fn moving<'a>(scored: &[Scored], rig: &'a Rig, over: Over<'a>, usual: Option<&str>) -> (Option<&'a str>, Vec<&'a str>) {
    let values = |name: &str| scored.iter().map(|one| one.trial.rung.get(name)).collect::<BTreeSet<_>>().len();
    let counted = rig.settings.iter().map(|setting| (setting.name.as_str(), values(&setting.name)));
    let moved: Vec<(&str, usize)> = counted.filter(|(_, values)| *values > 1).collect();
    let along = over.along(usual, &moved);
    (along, moved.into_iter().map(|(name, _)| name).filter(|name| Some(*name) != along).collect())
}

fn scored(story: &Story) -> Vec<Scored<'_>> {
    let disturbed: Vec<u32> = story.trials.iter().filter_map(|trial| trial.reason.disturbed()).collect();
    let counts = |trial: &&TrialStory| trial.verdict.is_some() && !disturbed.contains(&trial.number);
    story.trials.iter().filter(counts).flat_map(|trial| scored_in(trial, story)).collect()
}

fn scored_in<'a>(trial: &'a TrialStory, story: &Story) -> impl Iterator<Item = Scored<'a>> {
    let is_baseline = story.is_baseline(trial);
    let of_pass = |pass: &'a PassStory| {
        pass.report.iter().flat_map(|report| report.scores(&pass.order.load)).map(move |it| (pass, it))
    };
    trial.passes.iter().flat_map(of_pass).map(move |(pass, (name, score))| {
        let measure = Measure::of(name, &pass.order, score);
        Scored { trial, pass, measure, value: score.value, is_baseline }
    })
}

impl Measure {
    /// What a pass that came to an end measured.
    pub(super) fn of_pass(pass: &PassStory) -> impl Iterator<Item = Self> {
        let scores = pass.report.iter().flat_map(|report| report.scores(&pass.order.load));
        scores.map(|(name, score)| Self::of(name, &pass.order, score))
    }

    fn of(name: String, order: &Pass, score: &Score) -> Self {
        Self { load: name, threads: order.threads, unit: score.unit.clone(), less_is_better: score.less_is_better }
    }

    /// What a pass scored of it.
    pub(super) fn score_of(&self, pass: &PassStory) -> Option<f64> {
        let mut scores = pass.report.iter().flat_map(|report| report.scores(&pass.order.load));
        scores.find(|(name, score)| Self::of(name.clone(), &pass.order, score) == *self).map(|(_, score)| score.value)
    }

    /// What it is called, as `dense, one thread`.
    pub fn name(&self) -> String {
        let load = &self.load;
        match self.threads {
            Threads::All => load.clone(),
            Threads::Count(1) => format!("{load}, one thread"),
            Threads::Each => format!("{load}, one core at a time"),
            Threads::Count(count) => format!("{load}, {count} threads"),
        }
    }

    /// A number of which more is better.
    pub(super) fn merit(&self, score: f64) -> f64 {
        if self.less_is_better { 1.0 / score } else { score }
    }
}

impl Level {
    fn of(value: Option<Decimal>, set_to: Option<Decimal>, own: &[&Scored], conditions: &Conditions) -> Self {
        Self {
            value,
            set_to,
            trials: own.iter().map(|one| one.trial.number).collect(),
            verdict: own
                .iter()
                .filter_map(|one| one.trial.verdict)
                .filter(|it| *it != Verdict::Void)
                .max()
                .unwrap_or(Verdict::Void),
            scores: own.iter().map(|one| one.value).collect(),
            disturbed: 0,
            over_baseline: None,
            over_before: None,
            took: Took::of(own, conditions),
        }
    }
}

impl Level {
    fn merits(&self, what: &Measure) -> Vec<f64> {
        self.scores.iter().map(|score| what.merit(*score)).collect()
    }
}

impl Benchmark {
    fn of(what: Measure, baseline: &[f64], mut levels: Vec<Level>, noise: Option<Noise>) -> Self {
        let merits: Vec<Vec<f64>> = levels.iter().map(|level| level.merits(&what)).collect();
        let means: Vec<(f64, usize)> = merits.iter().map(|merits| (mean(merits), merits.len())).collect();
        let stock: Vec<f64> = baseline.iter().map(|score| what.merit(*score)).collect();
        if let Some(noise) = noise {
            let count = levels.len();
            for (index, level) in levels.iter_mut().enumerate() {
                let base = (!stock.is_empty()).then(|| (mean(&stock), stock.len()));
                level.over_baseline = base.map(|base| noise.compare_one_of(count, base, means[index]));
                level.over_before = index.checked_sub(1).map(|before| noise.compare(means[before], means[index]));
            }
        }
        // Of what scores the same the easiest is best.
        let best = (0..means.len()).rev().max_by(|a, b| means[*a].0.total_cmp(&means[*b].0)).unwrap_or_default();
        let pays_until = noise.and_then(|noise| {
            let hardly_follows = |at: &usize| hardly_follows(&noise, &levels[*at..], &means[*at..]);
            (0..levels.len().saturating_sub(1)).find(hardly_follows)
        });
        let baseline = (!baseline.is_empty()).then(|| (mean(baseline), baseline.len()));
        Self { what, beside: Vec::new(), noise, baseline, at_stock: Took::default(), levels, best, pays_until }
    }

    /// The best level of those that did not fall; none where all did.
    pub fn best_standing(&self) -> Option<&Level> {
        let merit = |level: &Level| mean(&level.merits(&self.what));
        let stands = self.levels.iter().rev().filter(|level| level.verdict != Verdict::Fell);
        stands.max_by(|a, b| merit(a).total_cmp(&merit(b)))
    }

    /// The level of those that did not fall that is best by another number, of which it is better to have as of the score, and what it is
    /// there.
    pub fn best_of(&self, number: impl Fn(&Level) -> Option<f64>) -> Option<(&Level, f64)> {
        let stands = self.levels.iter().rev().filter(|level| level.verdict != Verdict::Fell);
        let known = stands.filter_map(|level| Some((level, number(level)?)));
        known.max_by(|(_, a), (_, b)| self.what.merit(*a).total_cmp(&self.what.merit(*b)))
    }

    /// The best single score of levels that did not fall; none where all did.
    pub fn best_single(&self) -> Option<f64> {
        let stands = self.levels.iter().filter(|level| level.verdict != Verdict::Fell);
        let scores = stands.flat_map(|level| level.scores.iter().copied());
        scores.max_by(|a, b| self.what.merit(*a).total_cmp(&self.what.merit(*b)))
    }

    /// Whether the score is shown to follow the setting up to the last value: with 95 % by at least a quarter of what the setting gives more.
    pub fn is_shown_to_pay(&self) -> bool {
        let Some((noise, last)) = self.noise.zip(self.levels.len().checked_sub(1)) else { return false };
        let mean_of = |at: usize| {
            let merits = self.levels[at].merits(&self.what);
            (mean(&merits), merits.len())
        };
        let more = more(&self.levels, last).unwrap_or(0.0);
        noise.compare(mean_of(0), mean_of(last)).low > FOLLOWS * more
    }

    /// The mean of its best level as a number of which more is better.
    fn best_merit(&self) -> f64 {
        mean(&self.levels[self.best].merits(&self.what))
    }
}

/// Leaves out what was disturbed, in levels where that can be told.
fn leave_out_disturbed<'a>(what: &Measure, levels: impl Iterator<Item = &'a mut Level>) {
    let mut levels: Vec<&mut Level> = levels.collect();
    let merits: Vec<Vec<f64>> = levels.iter().map(|level| level.merits(what)).collect();
    let typical = Noise::typical(merits.iter().map(Vec::as_slice));
    for (level, merits) in levels.iter_mut().zip(&merits) {
        let found = typical.map_or_else(|| disturbed(merits), |typical| disturbed_beside(merits, &typical));
        level.disturbed += found.len();
        for at in found.into_iter().rev() {
            level.scores.remove(at);
        }
    }
}

/// What the setting gives more at a level than at the first one, as a share.
fn more(levels: &[Level], at: usize) -> Option<f64> {
    let share = levels[at].set_to? / levels[0].set_to.filter(|value| !value.is_zero())?;
    Some((f64::try_from(share).ok()? - 1.0).abs())
}

/// Whether, from the first of these levels on, the score hardly follows the setting.
fn hardly_follows(noise: &Noise, levels: &[Level], means: &[(f64, usize)]) -> bool {
    let more = |at: usize| more(levels, at);
    let last = levels.len() - 1;
    let does_not = |at: usize| more(at).is_some_and(|more| noise.compare(means[0], means[at]).high < FOLLOWS * more);
    let clearly_does = |at: usize| more(at).is_some_and(|more| noise.compare(means[0], means[at]).low > FOLLOWS * more);
    does_not(last) && !(1..last).any(clearly_does)
}

/// The sensors that say what a score took.
pub(super) struct Conditions<'a> {
    power: Option<&'a Sensor>,
    temperatures: Vec<&'a Sensor>,
    traces: &'a BTreeMap<String, Series>,
}

impl<'a> Conditions<'a> {
    pub(super) fn of(rig: &'a Rig, traces: &'a BTreeMap<String, Series>) -> Self {
        let is_read = |sensor: &&Sensor| sensor.asked.is_some() || traces.contains_key(&sensor.name);
        let with_unit =
            |unit: &'static str| rig.sensors.iter().filter(is_read).filter(move |sensor| sensor.unit == unit);
        Self { power: with_unit("W").next(), temperatures: with_unit("°C").collect(), traces }
    }

    /// Whether a sensor reads power.
    pub(super) fn has_power(&self) -> bool {
        self.power.is_some()
    }

    pub(super) fn watts(&self, trial: &TrialStory, pass: &PassStory) -> Option<f64> {
        Some(self.spread(self.power?, trial, pass)?.mean)
    }

    fn degrees(&self, trial: &TrialStory, pass: &PassStory) -> Option<f64> {
        let read = self.temperatures.iter().filter_map(|sensor| self.spread(sensor, trial, pass));
        read.map(|spread| spread.greatest).reduce(f64::max)
    }

    /// What a sensor read while a pass ran; of one that somebody reads what they read in its trial.
    fn spread(&self, sensor: &Sensor, trial: &TrialStory, pass: &PassStory) -> Option<Spread> {
        if sensor.asked.is_some() {
            return trial.spread(sensor, self.traces);
        }
        let (from, to) = stretch(pass)?;
        self.traces.get(&sensor.name)?.between(from, to)
    }
}

/// From when to when a pass ran.
fn stretch(pass: &PassStory) -> Option<(Moment, Moment)> {
    Some((pass.began, pass.began + pass.report.as_ref()?.ran))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::analysis::example::{grid, told};
    use crate::inference::comparison::Says;
    use proptest::prelude::*;

    fn measure(less_is_better: bool) -> Measure {
        Measure { load: "dense".into(), threads: Threads::All, unit: "s".into(), less_is_better }
    }

    fn benchmark(what: Measure, baseline: &[f64], mut levels: Vec<Level>) -> Benchmark {
        leave_out_disturbed(&what, levels.iter_mut());
        let merits: Vec<Vec<f64>> = levels.iter().map(|level| level.merits(&what)).collect();
        Benchmark::of(what, baseline, levels, Noise::pooled(merits.iter().map(Vec::as_slice)))
    }

    fn level(value: i64, scores: &[f64]) -> Level {
        Level {
            value: Some(value.into()),
            set_to: Some(value.into()),
            trials: vec![1],
            verdict: Verdict::Held,
            scores: scores.to_vec(),
            disturbed: 0,
            over_baseline: None,
            over_before: None,
            took: Took { watts: Some(50.0), degrees: None },
        }
    }

    #[test]
    fn more_stops_paying_where_the_score_hardly_follows() {
        let flat_from_44 = [100.0, 102.3, 104.7, 104.8, 104.7, 104.8];
        let levels = flat_from_44.iter().zip(42..).map(|(score, at)| level(at, &[score - 0.1, score + 0.1, *score]));
        let found = benchmark(measure(false), &[100.1, 99.9, 100.0], levels.collect());
        assert_eq!(found.pays_until, Some(2));
        let gains: Vec<Option<Says>> =
            found.levels.iter().map(|level| level.over_before.as_ref().map(Comparison::says)).collect();
        let more = Some(Says::More);
        assert_eq!(gains, [None, more, more, Some(Says::Same), Some(Says::Same), Some(Says::Same)]);
        assert_eq!(found.levels[1].per_watt(), Some(102.3 / 50.0));
        let (at_stock, times) = found.baseline.expect("a baseline");
        assert!((at_stock - 100.0).abs() < 1e-9 && times == 3);
        let grows = (42..48).map(|at| level(at, &[at as f64 * 10.0 - 0.2, at as f64 * 10.0 + 0.2]));
        let grows = benchmark(measure(false), &[], grows.collect());
        assert_eq!((grows.pays_until, grows.is_shown_to_pay()), (None, true), "it follows to the last");
        // So noisy that neither is shown.
        let flat = (42..45).map(|at| level(at, &[100.0 + f64::from(at as i32 % 2), 90.0, 110.0]));
        let flat = benchmark(measure(false), &[], flat.collect());
        assert_eq!((flat.pays_until, flat.is_shown_to_pay()), (None, false));
    }

    /// Where no level scores more than stock, the best of them is said to in one climb of forty, however many there are.
    #[test]
    fn the_best_of_many_levels_is_no_gain_by_chance() {
        let mut state = 11u64;
        let mut score = || {
            let mut sum = 100.0;
            for _ in 0..12 {
                state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
                sum += 0.3 * ((state >> 33) as f64 / f64::from(1u32 << 31) - 0.5);
            }
            sum
        };
        for count in [5, 13] {
            let gains = (0..800).filter(|_| {
                let levels = (0..count).map(|at| level(at, &[score(), score(), score()])).collect();
                let found = benchmark(measure(false), &[score(), score(), score(), score()], levels);
                found.levels[found.best].over_baseline.is_some_and(|over| over.says() == Says::More)
            });
            let gains = gains.count();
            assert!((4..=32).contains(&gains), "{gains} of 800 with {count} levels");
        }
    }

    #[test]
    fn a_run_far_below_the_others_of_its_value_does_not_count() {
        let levels =
            vec![level(42, &[100.0, 100.2, 99.9]), level(43, &[101.9, 94.0, 102.1]), level(44, &[104.0, 103.8, 104.1])];
        let found = benchmark(measure(false), &[], levels);
        assert_eq!((found.levels[1].scores.as_slice(), found.levels[1].disturbed), ([101.9, 102.1].as_slice(), 1));
        assert!(found.noise.expect("noise").deviation < 0.003);
        assert_eq!(found.levels[0].disturbed + found.levels[2].disturbed, 0);
    }

    #[test]
    fn what_is_better_when_it_is_less_is_compared_by_its_reciprocal() {
        let levels = vec![level(42, &[10.0, 10.01]), level(43, &[9.0]), level(44, &[8.0])];
        let found = benchmark(measure(true), &[10.0, 10.01], levels);
        assert_eq!((found.best, found.pays_until), (2, None), "the hardest is clearly better than all");
        let gain = found.levels[1].over_baseline.expect("a gain").change;
        assert!((gain - 10.005 / 9.0 + 1.0).abs() < 1e-3, "{gain}");
        assert!((found.baseline.expect("a baseline").0 - 10.005).abs() < 1e-3);
    }

    #[test]
    fn without_a_repetition_nothing_is_said() {
        let found = benchmark(measure(false), &[], vec![level(42, &[100.0]), level(43, &[150.0])]);
        assert_eq!((found.noise, found.pays_until, found.best), (None, None, 1));
        assert_eq!(found.levels[1].over_before, None);
    }

    #[test]
    fn a_curve_holds_everything_else_equal() {
        let held = Verdict::Held;
        let trials = [
            (42, 125, 100.0, held),
            (43, 125, 102.0, held),
            (44, 125, 104.0, Verdict::Fell),
            (42, 120, 99.0, held),
            (43, 120, 99.5, held),
            (42, 115, 98.0, held),
        ];
        let (rig, plan) = grid();
        assert_eq!(plan.climbed_setting(), Some("clock"));
        let all = benchmarks(&told(&trials), &rig, &plan, &BTreeMap::new());
        assert!(!all.is_empty(), "{all:?}");
        let curves: Vec<(i64, usize)> =
            all.iter().map(|one| (i64::try_from(one.beside[0].1).expect("whole"), one.levels.len())).collect();
        assert_eq!(curves, [(125, 3), (120, 2)], "one value alone is no curve");
        assert_eq!(all[0].noise, None, "other rungs are no repetitions");
        let best = &all[0].levels[all[0].best];
        assert_eq!((best.mean(), best.verdict), (104.0, Verdict::Fell), "a score counts, with its verdict beside it");
        assert_eq!(best_of_each(&all).len(), 1);
    }

    #[test]
    fn over_a_derived_value_each_value_of_what_is_not_climbed_has_a_curve() {
        let held = Verdict::Held;
        let trials = [(42, 125, 100.0, held), (43, 125, 102.0, held), (42, 120, 99.0, held), (43, 120, 99.5, held)];
        let (rig, plan) = grid();
        let (story, traces) = (told(&trials), BTreeMap::new());
        let names: Vec<&str> = Over::choices(&rig, &plan, &story).iter().map(Over::name).collect();
        assert_eq!(names, ["clock", "volts", "product"], "what never varied is none");
        let curves = |name| {
            let all = benchmarks_over(&story, &rig, &plan, &traces, Over::named(&rig, name));
            let values = |one: &Benchmark| one.levels.iter().filter_map(|level| level.value).collect::<Vec<_>>();
            all.iter().map(|one| (one.beside.clone(), values(one))).collect::<Vec<_>>()
        };
        let (at, of) =
            (|name: &str, value: i64| vec![(name.to_owned(), Decimal::from(value))], |value: i64| value.into());
        let expected = [(at("volts", 125), vec![of(5250), of(5375)]), (at("volts", 120), vec![of(5040), of(5160)])];
        assert_eq!(curves("product"), expected);
        let expected = [(at("clock", 42), vec![of(125), of(120)]), (at("clock", 43), vec![of(125), of(120)])];
        assert_eq!(curves("volts"), expected, "from easy to hard");
    }

    proptest! {
        /// Where all values score the same, that is not taken for a gain; where they follow, it is not taken for none.
        #[test]
        fn what_follows_and_what_does_not_are_told_apart(seed in any::<u64>()) {
            let mut state = seed;
            let mut noisy = |score: f64| {
                let mut sum = 0.0;
                for _ in 0..12 {
                    state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
                    sum += (state >> 33) as f64 / f64::from(1u32 << 31) - 0.5;
                }
                score * (1.0 + 0.003 * sum)
            };
            let (mut not_flat, mut not_followed) = (0, 0);
            for _ in 0..100 {
                let mut levels = |follows: f64| -> Vec<Level> {
                    let score = |at: i64| 200.0 * (1.0 + follows * (at as f64 / 42.0 - 1.0));
                    (42..50).map(|at| level(at, &[noisy(score(at)), noisy(score(at)), noisy(score(at))])).collect()
                };
                let flat = benchmark(measure(false), &[], levels(0.0));
                not_flat += u32::from(flat.pays_until != Some(0));
                let followed = benchmark(measure(false), &[], levels(0.9));
                not_followed += u32::from(followed.pays_until.is_some());
            }
            prop_assert!(not_flat <= 25 && not_followed <= 5, "{} and {} of 100", not_flat, not_followed);
        }
    }
}
