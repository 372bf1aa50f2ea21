//! Whether a rung is faster than stock, as a sentence.

use crate::analysis::faster::{Faster, Pace};
use crate::analysis::scores::Measure;
use crate::inference::comparison::Comparison;
use crate::inference::scatter::Scatter;
use crate::telling::percent_words;

/// As `faster than stock: copy +11.2 ± 0.9 %, latency -4.0 ± 1.2 %`; what is neither better nor worse for sure is not named.
pub fn faster_words(faster: &Faster) -> String {
    match faster.says {
        Pace::Faster => format!("faster than stock: {}", listed(faster.clear(true))),
        Pace::Slower => format!("slower than stock: {}", listed(faster.clear(false))),
        Pace::Mixed => {
            let (better, worse) = (listed(faster.clear(true)), listed(faster.clear(false)));
            format!("faster than stock in {better}, but slower in {worse}")
        }
        Pace::Alike => format!("neither faster nor slower than stock for sure: {}", listed(&faster.by)),
    }
}

/// How much a score scatters where the baseline was spread over starts, as `1.10 % apart, 0.31 % within one`.
pub fn scatter_words(scatter: &Scatter) -> String {
    format!("{:.2} % apart, {:.2} % within one", 100.0 * scatter.between, 100.0 * scatter.within)
}

fn listed<'a>(by: impl IntoIterator<Item = &'a (Measure, Comparison)>) -> String {
    let each = by.into_iter().map(|(what, comparison)| format!("{} {} %", what.name(), percent_words(comparison)));
    each.collect::<Vec<_>>().join(", ")
}
