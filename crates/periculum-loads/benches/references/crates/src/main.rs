//! `solve ORDER THREADS` or `transform EXPONENT`: what general crates reach. Prints GFLOP/s.

use std::time::Instant;

use faer::linalg::solvers::Solve;
use realfft::RealFftPlanner;

fn main() {
    let arguments: Vec<String> = std::env::args().collect();
    let number = |index: usize| arguments.get(index).and_then(|text| text.parse::<usize>().ok()).expect("a number");
    let rate = match arguments.get(1).map(String::as_str) {
        Some("solve") => solve(number(2), number(3)),
        Some("transform") => transform(number(2)),
        _ => panic!("say solve or transform"),
    };
    println!("{rate:.3}");
}

fn numbers(index: usize) -> f64 {
    let word = (index as u64).wrapping_mul(0x9e37_79b9_7f4a_7c15);
    ((word ^ word >> 31).wrapping_mul(0xbf58_476d_1ce4_e5b9) >> 11) as f64 / (1u64 << 53) as f64 - 0.5
}

fn solve(order: usize, threads: usize) -> f64 {
    faer::set_global_parallelism(if threads == 1 { faer::Par::Seq } else { faer::Par::rayon(threads) });
    let a = faer::Mat::from_fn(order, order, |row, column| numbers(row * order + column));
    let b = faer::Mat::from_fn(order, 1, |row, _| numbers(row));
    let n = order as f64;
    let times = (0..2).map(|_| {
        let began = Instant::now();
        std::hint::black_box(a.partial_piv_lu().solve(&b));
        began.elapsed().as_secs_f64()
    });
    (2.0 / 3.0 * n * n * n + 2.0 * n * n) / times.fold(f64::MAX, f64::min) / 1e9
}

fn transform(exponent: usize) -> f64 {
    let points = 1usize << exponent;
    let mut planner = RealFftPlanner::<f64>::new();
    let (there, back) = (planner.plan_fft_forward(points), planner.plan_fft_inverse(points));
    let (mut x, mut y) = (there.make_input_vec(), there.make_output_vec());
    let mut room = vec![Default::default(); there.get_scratch_len().max(back.get_scratch_len())];
    let times = (0..(1 << 24) / points + 4).map(|_| {
        for (index, x) in x.iter_mut().enumerate() {
            *x = if index < points / 2 { (numbers(index) * 65536.0).round() } else { 0.0 };
        }
        let began = Instant::now();
        there.process_with_scratch(&mut x, &mut y, &mut room).expect("lengths fit");
        y.iter_mut().for_each(|point| *point = *point * *point);
        back.process_with_scratch(&mut y, &mut x, &mut room).expect("lengths fit");
        began.elapsed().as_secs_f64()
    });
    2.0 * 2.5 * (points * exponent) as f64 / times.fold(f64::MAX, f64::min) / 1e9
}
