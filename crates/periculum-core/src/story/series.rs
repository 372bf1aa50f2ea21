//! A sensor's readings in the order of time, with the spread of ever longer runs beside them, so that any stretch of a
//! night is summed up in a few steps.

use crate::model::moment::Moment;

/// How many runs of one level make one of the next.
const RUN: usize = 16;

/// Readings belong to one line that are not farther from each other than this many times as far as usual.
const USUAL: usize = 3;

/// The readings of a stretch of time, summed up.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Spread {
    /// The least of them.
    pub least: f64,
    /// Their mean.
    pub mean: f64,
    /// The greatest of them.
    pub greatest: f64,
    /// How many there were.
    pub count: usize,
}

/// Readings of one sensor.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Series {
    times: Vec<Moment>,
    readings: Vec<f64>,
    /// Level 0 has the spread of each full run of readings, level 1 that of each full run of level 0, and so on.
    levels: Vec<Vec<Spread>>,
}

impl Spread {
    /// Of one reading.
    pub fn of(reading: f64) -> Self {
        Self { least: reading, mean: reading, greatest: reading, count: 1 }
    }

    fn with(self, other: Self) -> Self {
        let count = self.count + other.count;
        let mean = (self.mean * self.count as f64 + other.mean * other.count as f64) / count as f64;
        Self { least: self.least.min(other.least), mean, greatest: self.greatest.max(other.greatest), count }
    }

    /// Several taken together; nothing where there are none.
    pub fn all(spreads: impl IntoIterator<Item = Self>) -> Option<Self> {
        spreads.into_iter().reduce(Self::with)
    }
}

impl Series {
    /// Takes in the next reading; one that is earlier than the last, as after a clock was set back, counts as made with it.
    pub fn push(&mut self, at: Moment, reading: f64) {
        let at = self.times.last().map_or(at, |last| at.max(*last));
        self.times.push(at);
        self.readings.push(reading);
        let mut below = self.readings.len();
        for level in 0.. {
            if !below.is_multiple_of(RUN) {
                return;
            }
            let run = below - RUN..below;
            let spread = match level {
                0 => Spread::all(self.readings[run].iter().copied().map(Spread::of)),
                _ => Spread::all(self.levels[level - 1][run].iter().copied()),
            };
            if self.levels.len() == level {
                self.levels.push(Vec::new());
            }
            self.levels[level].extend(spread);
            below = self.levels[level].len();
        }
    }

    /// Every reading with its time, in order.
    pub fn iter(&self) -> impl Iterator<Item = (Moment, f64)> {
        self.times.iter().copied().zip(self.readings.iter().copied())
    }

    /// The times of the first and the last reading; none where there are none.
    pub fn span(&self) -> Option<(Moment, Moment)> {
        self.times.first().copied().zip(self.times.last().copied())
    }

    /// All readings; none where there are none.
    pub fn all(&self) -> Option<Spread> {
        self.of_readings(0, self.readings.len())
    }

    /// The readings from one moment on up to, but not at, another one; none where there are none.
    pub fn between(&self, from: Moment, to: Moment) -> Option<Spread> {
        let index = |moment: Moment| self.times.partition_point(|at| *at < moment);
        self.of_readings(index(from), index(to))
    }

    /// The readings of so many stretches of equal length from one moment up to another one.
    pub fn columns(&self, from: Moment, to: Moment, count: usize) -> Vec<Option<Spread>> {
        let (start, length) = (from.millis(), (to.millis() - from.millis()) as f64);
        let edge = |column: usize| Moment::from_millis(start + (length * column as f64 / count as f64).round() as i64);
        (0..count).map(|column| self.between(edge(column), edge(column + 1))).collect()
    }

    /// The same for a line through them: a stretch without a reading has the mean before it, where the next reading
    /// is not farther than three times as far as they usually are.
    pub fn line(&self, from: Moment, to: Moment, count: usize) -> Vec<Option<Spread>> {
        let mut columns = self.columns(from, to, count);
        let read: Vec<usize> = (0..count).filter(|column| columns[*column].is_some()).collect();
        let mut distances: Vec<usize> = read.windows(2).map(|pair| pair[1] - pair[0]).collect();
        distances.sort_unstable();
        let farthest = distances.get(distances.len() / 2).map_or(0, |usual| USUAL * usual);
        for pair in read.windows(2).filter(|pair| pair[1] - pair[0] <= farthest) {
            let held = columns[pair[0]].map(|spread| Spread { count: 0, ..Spread::of(spread.mean) });
            columns[pair[0] + 1..pair[1]].fill(held);
        }
        columns
    }

    /// The reading that came most often in each of so many stretches, for what reads states, of which there is no mean. A stretch
    /// without a reading has the state before it wherever [`Series::line`] goes on.
    pub fn states(&self, from: Moment, to: Moment, count: usize) -> Vec<Option<f64>> {
        let (start, length) = (from.millis(), (to.millis() - from.millis()) as f64);
        let edge = |column: usize| Moment::from_millis(start + (length * column as f64 / count as f64).round() as i64);
        let index = |column: usize| self.times.partition_point(|at| *at < edge(column));
        let mut before = None;
        let state = |(column, spread): (usize, Option<Spread>)| {
            spread?;
            let most_often = counted(&self.readings[index(column)..index(column + 1)]).first().map(|(state, _)| *state);
            before = most_often.or(before);
            before
        };
        self.line(from, to, count).into_iter().enumerate().map(state).collect()
    }

    /// The states that were read from one moment on up to, but not at, another one, each with how often; most often first.
    pub fn states_between(&self, from: Moment, to: Moment) -> Vec<(f64, usize)> {
        let index = |moment: Moment| self.times.partition_point(|at| *at < moment);
        counted(&self.readings[index(from)..index(to).max(index(from))])
    }

    /// The states that were ever read, each with how often; most often first.
    pub fn all_states(&self) -> Vec<(f64, usize)> {
        counted(&self.readings)
    }

    /// Readings by their indices: single ones up to where a run begins, whole runs as long as they fit, single ones.
    fn of_readings(&self, from: usize, to: usize) -> Option<Spread> {
        let mut found: Option<Spread> = None;
        let mut at = from;
        while at < to {
            let (mut level, mut length) = (0, 1);
            while at.is_multiple_of(length * RUN) && at + length * RUN <= to && level < self.levels.len() {
                level += 1;
                length *= RUN;
            }
            let next = if level == 0 { Spread::of(self.readings[at]) } else { self.levels[level - 1][at / length] };
            found = Some(found.map_or(next, |found| found.with(next)));
            at += length;
        }
        found
    }
}

/// The values that are there, each with how often; most often first, and of several that are equally often the one that came first.
fn counted(readings: &[f64]) -> Vec<(f64, usize)> {
    added(readings.iter().map(|reading| (*reading, 1)))
}

/// States that were read at several times, together; most often first.
pub fn added(counts: impl IntoIterator<Item = (f64, usize)>) -> Vec<(f64, usize)> {
    let mut all: Vec<(f64, usize)> = Vec::new();
    for (state, times) in counts {
        match all.iter_mut().find(|(known, _)| *known == state) {
            Some((_, count)) => *count += times,
            None => all.push((state, times)),
        }
    }
    all.sort_by_key(|(_, count)| std::cmp::Reverse(*count));
    all
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn series(readings: &[f64]) -> Series {
        let mut series = Series::default();
        for (index, reading) in readings.iter().enumerate() {
            series.push(Moment::from_millis(500 * index as i64), *reading);
        }
        series
    }

    #[test]
    fn columns_sum_up_what_lies_in_them() {
        let series = series(&[1.0, 5.0, 3.0, 2.0]);
        let at = Moment::from_millis;
        let columns = series.columns(at(0), at(3000), 3);
        let spread = |least, mean, greatest| Some(Spread { least, mean, greatest, count: 2 });
        assert_eq!(columns, [spread(1.0, 3.0, 5.0), spread(2.0, 2.5, 3.0), None]);
        assert_eq!(series.span(), Some((at(0), at(1500))));
        assert_eq!(Series::default().columns(at(0), at(9), 2), [None, None]);
    }

    #[test]
    fn a_state_is_one_that_was() {
        let states =
            series(&[0.0, 2.0, 2.0, 0.0, 2.0, 1.0]).states(Moment::from_millis(0), Moment::from_millis(3000), 2);
        assert_eq!(states, [Some(2.0), Some(0.0)], "the first of those that came equally often, and never a mean");
        let gap = series(&[1.0, 2.0]).states(Moment::from_millis(0), Moment::from_millis(1000), 4);
        assert_eq!(gap, [Some(1.0), Some(1.0), Some(2.0), None]);
        let all = series(&[0.0, 2.0, 2.0, 1.0]);
        assert_eq!(all.all_states(), [(2.0, 2), (0.0, 1), (1.0, 1)]);
        assert_eq!(all.states_between(Moment::from_millis(500), Moment::from_millis(1500)), [(2.0, 2)]);
    }

    #[test]
    fn a_line_goes_on_from_reading_to_reading_but_not_over_a_gap() {
        let mut series = series(&[1.0, 5.0, 3.0]);
        series.push(Moment::from_millis(5000), 9.0);
        let means = |count| {
            let line = series.line(Moment::from_millis(0), Moment::from_millis(6000), count);
            line.iter().map(|column| column.map(|spread| spread.mean)).collect::<Vec<_>>()
        };
        let [one, five, three, nine, none] = [Some(1.0), Some(5.0), Some(3.0), Some(9.0), None];
        assert_eq!(means(12), [one, five, three, none, none, none, none, none, none, none, nine, none]);
        assert_eq!(means(24)[..6], [one, one, five, five, three, none]);
        assert_eq!(means(1), [Some(4.5)]);
    }

    #[test]
    fn a_clock_that_is_set_back_loses_nothing() {
        let mut series = series(&[1.0, 2.0]);
        series.push(Moment::from_millis(-9000), 7.0);
        assert_eq!(series.between(Moment::from_millis(0), Moment::from_millis(501)).map(|it| it.greatest), Some(7.0));
    }

    proptest! {
        #[test]
        fn any_stretch_is_what_its_readings_are(
            readings in prop::collection::vec(-100f64..100.0, 1..700),
            from in 0usize..700,
            length in 0usize..700,
        ) {
            let series = series(&readings);
            let (from, to) = (from.min(readings.len()), (from + length).min(readings.len()));
            let found = series.of_readings(from, to.max(from));
            let plain = Spread::all(readings[from..to.max(from)].iter().copied().map(Spread::of));
            prop_assert_eq!(found.map(|it| (it.least, it.greatest, it.count)), plain.map(|it| (it.least, it.greatest, it.count)));
            if let Some((found, plain)) = found.zip(plain) {
                prop_assert!((found.mean - plain.mean).abs() < 1e-9);
            }
        }
    }
}
