//! The way from what is in force to a rung: errand by errand, no change farther than its largest jump.

use std::collections::{BTreeSet, VecDeque};

use rust_decimal::Decimal;

use crate::model::errand::Errand;
use crate::model::ladder::Direction;
use crate::model::rig::Rig;
use crate::model::rung::{Change, InForce, Rung};
use crate::model::setting::Setting;

/// The errands that lead from what is in force to the rung, in order.
///
/// A setting that nobody knows goes to its stock value first, unless somebody is needed for it and it may jump any
/// distance: then nobody is sent twice. Then comes every change that makes it easier
/// for the rig, and only then those that make it harder: a clock comes down before its voltage does, and a
/// voltage goes up before its clock does. Neighbours that need somebody or a start are one errand, as far as no
/// setting has to be changed twice; what takes effect at once is done before and after them, so that as many as
/// possible are neighbours. The levers of a curve that nobody is needed for are one errand too, with those that make it harder, since
/// a curve that is moved by one and not yet by the other may be beyond anything that was asked for.
pub fn route(rig: &Rig, in_force: &InForce, rung: &Rung) -> VecDeque<Errand> {
    let [unknown, easier, mut harder] = changes(rig, in_force, rung);
    let curve =
        |change: &Change| rig.curves.iter().position(|curve| curve.levers().any(|lever| lever == change.setting));
    let goes_harder: BTreeSet<usize> = harder.iter().filter_map(curve).collect();
    let (with_harder, mut easier): (Vec<Change>, Vec<Change>) =
        easier.into_iter().partition(|change| curve(change).is_some_and(|curve| goes_harder.contains(&curve)));
    harder.extend(with_harder);
    // The order within each is free.
    easier.sort_by_key(|change| (rig.needs_somebody(&change.setting), curve(change)));
    harder.sort_by_key(|change| (!rig.needs_somebody(&change.setting), curve(change)));
    let moves_together = |last: &Errand, change: &Change| {
        let is_of = |other: &Change| curve(other) == curve(change);
        curve(change).is_some() && last.changes().iter().all(is_of)
    };
    let mut errands: VecDeque<Errand> = VecDeque::new();
    for change in unknown.into_iter().chain(easier).chain(harder) {
        let needs_somebody = rig.needs_somebody(&change.setting);
        let goes_along =
            |last: &&mut Errand| needs_somebody && last.needs_somebody(rig) || moves_together(last, &change);
        let last = errands.back_mut().filter(goes_along);
        match last.map_or(Err(change.clone()), |last| last.add(change)) {
            Ok(()) => {}
            Err(change) => errands.push_back(Errand::of(change)),
        }
    }
    errands
}

/// The same by the rules of before, each change an errand of its own.
pub(super) fn route_one_by_one(rig: &Rig, in_force: &InForce, rung: &Rung) -> VecDeque<Errand> {
    changes(rig, in_force, rung).into_iter().flatten().map(Errand::of).collect()
}

/// The changes that lead to the rung: of what is unknown, those that make it easier, and those that make it harder.
fn changes(rig: &Rig, in_force: &InForce, rung: &Rung) -> [Vec<Change>; 3] {
    let mut unknown = Vec::new();
    let mut easier = Vec::new();
    let mut harder = Vec::new();
    for setting in &rig.settings {
        let Some(target) = rung.get(&setting.name) else { continue };
        let known = in_force.get(&setting.name).copied();
        let from = known.unwrap_or(setting.stock);
        let changes = if setting.is_harder(from, target) { &mut harder } else { &mut easier };
        if known.is_none() && setting.takes_effect.needs_somebody() && setting.largest_jump.is_none() {
            changes.push(Change { setting: setting.name.clone(), from: None, to: target });
            continue;
        }
        if known.is_none() {
            unknown.push(Change { setting: setting.name.clone(), from: None, to: setting.stock });
        }
        changes.extend(jumps(setting, from, target));
    }
    [unknown, easier, harder]
}

/// The jumps of one setting from a value to its target.
fn jumps(setting: &Setting, from: Decimal, target: Decimal) -> Vec<Change> {
    let mut changes = Vec::new();
    let mut at = from;
    while at != target {
        let Some(next) = farthest(setting, at, target) else { break };
        changes.push(Change { setting: setting.name.clone(), from: Some(at), to: next });
        at = next;
    }
    changes
}

/// The farthest value towards the target that one jump reaches: always at least the next one on the ladder,
/// since a rig file whose largest jump is shorter than its ladder's widest gap is refused.
fn farthest(setting: &Setting, from: Decimal, target: Decimal) -> Option<Decimal> {
    let Some(jump) = setting.largest_jump else { return Some(target) };
    if (target - from).abs() <= jump {
        return Some(target);
    }
    let towards = if target > from { Direction::Up } else { Direction::Down };
    let edge = if target > from { from + jump } else { from - jump };
    let inside = Some(setting.ladder.nearest(edge)).filter(|near| (*near - from).abs() <= jump && *near != from);
    inside
        .or_else(|| setting.ladder.next(edge, towards.reversed()).filter(|near| *near != from))
        .filter(|near| (*near > from) == (target > from))
        .or_else(|| setting.ladder.next(from, towards))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::model::ladder::Ladder;
    use crate::model::setting::TakesEffect;
    use proptest::prelude::*;

    fn setting(name: &str, ladder: Ladder, stock: Decimal, harder: Direction, jump: Option<Decimal>) -> Setting {
        Setting {
            outlet: None,
            name: name.into(),
            label: name.into(),
            unit: String::new(),
            floor: ladder.lowest(),
            floor_by: None,
            ceilings: [("daily".to_owned(), ladder.highest())].into(),
            ladder,
            stock,
            largest_jump: jump,
            tolerance: Decimal::ZERO,
            harder,
            takes_effect: TakesEffect::AtOnce,
            lost_on: None,
            confirm: None,
            confirmed_by: None,
            adapter: "simulated".into(),
            target: String::new(),
            boot_line: None,
            words: Vec::new(),
            paid: Vec::new(),
            drives: Vec::new(),
        }
    }

    fn rig(jump: i64) -> Rig {
        let clock = Ladder::steps(40.into(), 1.into(), 90.into()).expect("a ladder");
        let volts = Ladder::values([10, 12, 13, 17, 20].map(Decimal::from).to_vec()).expect("a ladder");
        Rig {
            place: crate::model::rig::Place::Unsaid,
            name: "r".into(),
            summary: String::new(),
            cooling: String::new(),
            watchdog: String::new(),
            history: Vec::new(),
            parts: vec![],
            settings: vec![
                setting("clock", clock, 50.into(), Direction::Up, Some(jump.into())),
                setting("volts", volts, 13.into(), Direction::Down, Some(Decimal::from(jump.max(4)))),
            ],
            curves: Vec::new(),
            derived: vec![],
            sensors: vec![],
        }
    }

    fn in_force(clock: i64, volts: i64) -> InForce {
        [("clock".to_owned(), Decimal::from(clock)), ("volts".to_owned(), Decimal::from(volts))].into()
    }

    #[test]
    fn on_the_way_home_the_clock_comes_down_before_the_voltage() {
        let rig = rig(100);
        let order = |errands: VecDeque<Errand>| -> Vec<String> {
            errands.iter().flat_map(Errand::changes).map(|change| change.setting.clone()).collect()
        };
        assert_eq!(order(route(&rig, &in_force(80, 20), &rig.stock())), ["clock", "volts"]);
        let up = rig.stock().with("clock", 80.into()).with("volts", 20.into());
        assert_eq!(order(route(&rig, &in_force(50, 13), &up)), ["volts", "clock"]);
    }

    #[test]
    fn what_nobody_knows_goes_to_stock_first() {
        let rig = rig(100);
        let errands = route(&rig, &InForce::new(), &rig.stock().with("clock", 60.into()));
        assert_eq!(errands[0], Errand::of(Change { setting: "clock".into(), from: None, to: 50.into() }));
        assert_eq!(errands.len(), 3);
    }

    /// The same rig with settings that take effect like this.
    fn with_effects(mut rig: Rig, effects: [TakesEffect; 2]) -> Rig {
        for (setting, takes_effect) in rig.settings.iter_mut().zip(effects) {
            setting.takes_effect = takes_effect;
        }
        rig
    }

    #[test]
    fn what_needs_somebody_is_done_in_one_visit() {
        let rig = with_effects(rig(100), [TakesEffect::AtNextStart, TakesEffect::ByHand]);
        let up = rig.stock().with("clock", 80.into()).with("volts", 20.into());
        let errands = route(&rig, &in_force(50, 13), &up);
        assert_eq!(errands.len(), 1, "{errands:?}");
        let home = route(&rig, &in_force(80, 20), &rig.stock());
        assert_eq!(home.len(), 1, "{home:?}");
        assert_eq!(route_one_by_one(&rig, &in_force(80, 20), &rig.stock()).len(), 2);
    }

    #[test]
    fn a_jump_that_is_too_large_takes_two_visits_and_the_rest_goes_along_with_one() {
        let rig = with_effects(rig(20), [TakesEffect::ByHand, TakesEffect::ByHand]);
        let up = rig.stock().with("clock", 90.into()).with("volts", 17.into());
        let errands = route(&rig, &in_force(50, 13), &up);
        let sizes: Vec<usize> = errands.iter().map(|errand| errand.changes().len()).collect();
        assert_eq!(sizes, [2, 1]);
    }

    #[test]
    fn a_curve_is_moved_at_once() {
        let mut rig = rig(100);
        let curve = crate::model::curve::tests::curve();
        for lever in curve.levers() {
            let ladder = Ladder::steps((-300).into(), 5.into(), 2100.into()).expect("a ladder");
            rig.settings.push(setting(lever, ladder, 1000.into(), Direction::Up, None));
        }
        rig.curves.push(curve);
        let stock = rig.stock();
        let there = stock.with("core_offset", 1045.into()).with("core_flat", 800.into()).with("clock", 60.into());
        let sizes = |errands: VecDeque<Errand>| errands.iter().map(|errand| errand.changes().len()).collect::<Vec<_>>();
        let at = |rung: &Rung| rung.iter().map(|(name, value)| (name.to_owned(), value)).collect::<InForce>();
        assert_eq!(sizes(route(&rig, &at(&stock), &there)), [1, 2]);
        assert_eq!(sizes(route(&rig, &at(&there), &stock)), [1, 2], "home too");
    }

    proptest! {
        #[test]
        fn a_route_arrives_on_the_ladder_without_a_long_jump(
            jump in 1i64..60, clock in 40i64..=90, volts in 0usize..5, to_clock in 40i64..=90, to_volts in 0usize..5,
            effects in prop::array::uniform2(prop::sample::select(vec![TakesEffect::AtOnce, TakesEffect::AtNextStart, TakesEffect::ByHand])),
        ) {
            let rig = with_effects(rig(jump), effects);
            let levels = [10, 12, 13, 17, 20];
            let mut at = in_force(clock, levels[volts]);
            let target = rig.stock().with("clock", to_clock.into()).with("volts", levels[to_volts].into());
            let errands = route(&rig, &at, &target);
            let neighbours = errands.iter().zip(errands.iter().skip(1));
            for (one, next) in neighbours.filter(|(one, next)| one.needs_somebody(&rig) && next.needs_somebody(&rig)) {
                let is_changed_again = next.changes().iter().any(|change| one.change_of(&change.setting).is_some());
                prop_assert!(is_changed_again, "two visits where one would do: {one:?}, {next:?}");
            }
            for change in errands.iter().flat_map(Errand::changes).cloned() {
                let setting = rig.setting(&change.setting).expect("a setting");
                prop_assert_eq!(change.from, at.get(&change.setting).copied());
                let distance = (change.to - change.from.expect("known")).abs();
                prop_assert!(distance <= setting.largest_jump.expect("a jump") && distance > Decimal::ZERO);
                prop_assert!(setting.ladder.contains(change.to));
                at.insert(change.setting, change.to);
            }
            prop_assert_eq!(at.into_iter().collect::<Rung>(), target);
        }
    }
}
