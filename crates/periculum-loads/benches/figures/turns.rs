//! Both sides take turns, so that the moods of a shared host meet both alike.

/// What counts of several turns.
#[derive(Clone, Copy)]
pub(crate) enum Counts {
    /// The best of each side.
    Best,
    /// The median of each side, and of the ratios of the turns.
    Median,
}

/// A line of the table.
pub(crate) struct Row {
    pub(crate) what: String,
    /// The ratio that is wanted: at least so much where more is better, else at most.
    pub(crate) wanted: f64,
    pub(crate) more_is_better: bool,
    pub(crate) turns: usize,
    pub(crate) counts: Counts,
}

impl Row {
    /// Where more is better.
    pub(crate) fn of(what: impl Into<String>, wanted: f64, turns: usize, counts: Counts) -> Self {
        Self { what: what.into(), wanted, more_is_better: true, turns, counts }
    }

    /// Lets both sides take their turns and prints the line.
    pub(crate) fn compare(&self, mut ours: impl FnMut() -> Option<f64>, mut reference: impl FnMut() -> Option<f64>) {
        self.compare_pairs(|_| Some((ours()?, reference()?)));
    }

    /// The same with both sides of a turn at once; `turn` is told which one it is.
    pub(crate) fn compare_pairs(&self, turn: impl FnMut(usize) -> Option<(f64, f64)>) {
        let turns: Option<Vec<(f64, f64)>> = (0..self.turns).map(turn).collect();
        let Some(turns) = turns else {
            eprintln!("left out: {}", self.what);
            return;
        };
        let ours = self.counted(turns.iter().map(|(ours, _)| *ours));
        let reference = self.counted(turns.iter().map(|(_, reference)| *reference));
        let ratio = match self.counts {
            Counts::Best => ours / reference,
            Counts::Median => median(turns.iter().map(|(ours, reference)| ours / reference)),
        };
        let sign = if self.more_is_better { "≥" } else { "≤" };
        println!("| {} | {ours:.2} | {reference:.2} | {ratio:.2} | {sign} {} |", self.what, self.wanted);
    }

    fn counted(&self, values: impl Iterator<Item = f64>) -> f64 {
        match self.counts {
            Counts::Median => median(values),
            Counts::Best if self.more_is_better => values.fold(f64::MIN, f64::max),
            Counts::Best => values.fold(f64::MAX, f64::min),
        }
    }
}

fn median(values: impl Iterator<Item = f64>) -> f64 {
    let mut values: Vec<f64> = values.collect();
    values.sort_unstable_by(f64::total_cmp);
    values[values.len() / 2]
}
