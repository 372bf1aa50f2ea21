use super::*;
use periculum_core::Decimal;
use proptest::prelude::*;

/// Clock in MHz, delta in mV, graphics clock in MHz, flag.
fn at(seed: u64, values: [i64; 4]) -> Board {
    let some = |name: &str| Some(name.to_owned());
    let spec = Spec {
        clock: "clock".into(),
        delta: some("delta"),
        graphics: some("graphics"),
        flag: some("flag"),
        stock: [1800.0, 500.0],
        supply: 2230.0,
        room: 21.0,
    };
    let names = ["clock", "delta", "graphics", "flag"].map(str::to_owned);
    Board::new(spec, seed, &names.into_iter().zip(values.map(Decimal::from)).collect())
}

fn worked(mut board: Board, load: &str, seconds: u32) -> (Board, f64, f64) {
    board.work(Some(Work { load, threads: Threads::All })).expect("a load");
    let mut parts = Vec::new();
    for _ in 0..seconds * 4 {
        parts.clear();
        board.tick(0.25, &mut parts);
    }
    let (hazard, work) = parts.iter().fold((0.0, 0.0), |(hazard, work), it| (hazard + it.hazard, work + it.work));
    (board, hazard, work)
}

#[test]
fn stock_holds_for_every_specimen_and_far_too_much_does_not_start() {
    for seed in 0..12 {
        assert!(worked(at(seed, [1800, 0, 500, 0]), "integer", 600).1 < 1e-5, "specimen {seed}");
        assert!(!at(seed, [2600, 0, 500, 0]).is_alive() || worked(at(seed, [2600, 0, 500, 0]), "integer", 60).1 > 0.01);
    }
}

#[test]
fn gains_stop_while_the_report_goes_up() {
    let work = |clock| worked(at(3, [clock, 120, 500, 0]), "integer", 1).2;
    assert!(work(2100) > work(2000) * 1.04);
    assert!(work(2400) < work(2300) * 1.01);
    let board = at(3, [2360, 120, 500, 0]);
    assert_eq!(board.reading("reported-clock", 0.0), Some(2400.0));
    assert!(board.reading("executed-clock", 0.0) < Some(2320.0));
}

#[test]
fn the_graphics_unit_wants_its_flag_which_costs_heat_at_rest() {
    assert!(worked(at(1, [1800, 0, 600, 0]), "draw", 1).1 > 0.1);
    assert!(worked(at(1, [1800, 0, 600, 1]), "draw", 1).1 < 1e-3);
    let mut boards = [0, 1].map(|flag| at(1, [1800, 0, 500, flag]));
    boards.iter_mut().for_each(|board| (0..2400).for_each(|_| drop(board.tick(0.25, &mut Vec::new()))));
    assert!(boards[1].chip > boards[0].chip + 5.0);
}

#[test]
fn the_benchmark_dies_before_the_system() {
    let board = worked(at(2, [2150, 0, 500, 0]), "integer", 1).0;
    let mut random = Stream::new(2, Purpose::Pass { trial: 1, index: 0 });
    let kinds: Vec<IncidentKind> = (0..100).map(|_| board.failure(0, &mut random).kind).collect();
    assert!(kinds.iter().filter(|kind| **kind == IncidentKind::LoadDied).count() > 30);
    let limits: Vec<f64> = (0..5).map(|seed| at(seed, [1800, 0, 500, 0]).needs_more).collect();
    assert!(limits.windows(2).all(|pair| (pair[0] - pair[1]).abs() > 1e-4), "{limits:?}");
}

proptest! {
    #[test]
    fn harder_is_never_safer(seed in any::<u64>(), clock in 1500i64..2500, delta in -40i64..150, graphics in 400i64..700) {
        let hazard = |values| worked(at(seed, values), "encode", 1).1;
        let easy = hazard([clock, delta, graphics, 1]);
        for harder in [[clock + 25, delta, graphics, 1], [clock, delta - 5, graphics, 1], [clock, delta, graphics + 25, 1]] {
            prop_assert!(hazard(harder) >= easy * 0.999_999, "{harder:?}");
        }
    }
}
