//! How long it takes to sum up what a sensor read: `cargo bench -p periculum-core`.

use periculum_core::model::moment::Moment;
use periculum_core::story::series::Series;

fn main() {
    divan::main();
}

/// Readings twice a second: an hour, a night, and ten million of them.
const COUNTS: [usize; 3] = [7_200, 57_600, 10_000_000];

/// As many columns as a wide screen has.
const COLUMNS: usize = 240;

fn series(count: usize) -> Series {
    let mut series = Series::default();
    for index in 0..count {
        series.push(Moment::from_millis(500 * index as i64), 60.0 + (index as f64 * 0.01).sin());
    }
    series
}

/// A trace over all of it.
#[divan::bench(args = COUNTS, sample_count = 20)]
fn whole(bencher: divan::Bencher, count: usize) {
    let series = series(count);
    let (from, to) = series.span().expect("readings");
    bencher.bench_local(|| series.columns(from, to, COLUMNS));
}

/// A trace over a tenth of it, from the middle on.
#[divan::bench(args = COUNTS, sample_count = 20)]
fn zoomed(bencher: divan::Bencher, count: usize) {
    let series = series(count);
    let (from, to) = series.span().expect("readings");
    let middle = from.millis() + (to.millis() - from.millis()) / 2;
    let end = middle + (to.millis() - from.millis()) / 10;
    bencher.bench_local(|| series.columns(Moment::from_millis(middle), Moment::from_millis(end), COLUMNS));
}
