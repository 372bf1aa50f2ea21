//! The way from what is in force to a rung: one setting at a time, no change farther than its largest jump.

use std::collections::VecDeque;

use rust_decimal::Decimal;

use crate::model::ladder::Direction;
use crate::model::rig::Rig;
use crate::model::rung::{Change, InForce, Rung};
use crate::model::setting::Setting;

/// The changes that lead from what is in force to the rung, in order.
///
/// A setting that nobody knows goes to its stock value first, unless somebody is needed for it and it may jump any
/// distance: then nobody is sent twice. Then comes every change that makes it easier
/// for the rig, and only then those that make it harder: a clock comes down before its voltage does, and a
/// voltage goes up before its clock does.
pub fn route(rig: &Rig, in_force: &InForce, rung: &Rung) -> VecDeque<Change> {
    let mut unknown = VecDeque::new();
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
            unknown.push_back(Change { setting: setting.name.clone(), from: None, to: setting.stock });
        }
        changes.extend(jumps(setting, from, target));
    }
    unknown.into_iter().chain(easier).chain(harder).collect()
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
            name: name.into(),
            label: name.into(),
            unit: String::new(),
            floor: ladder.lowest(),
            ceilings: [("daily".to_owned(), ladder.highest())].into(),
            ladder,
            stock,
            largest_jump: jump,
            tolerance: Decimal::ZERO,
            harder,
            takes_effect: TakesEffect::AtOnce,
            adapter: "simulated".into(),
            target: String::new(),
            boot_line: None,
            words: Vec::new(),
            drives: Vec::new(),
        }
    }

    fn rig(jump: i64) -> Rig {
        let clock = Ladder::steps(40.into(), 1.into(), 90.into()).expect("a ladder");
        let volts = Ladder::values([10, 12, 13, 17, 20].map(Decimal::from).to_vec()).expect("a ladder");
        Rig {
            name: "r".into(),
            summary: String::new(),
            cooling: String::new(),
            watchdog: String::new(),
            parts: vec![],
            settings: vec![
                setting("clock", clock, 50.into(), Direction::Up, Some(jump.into())),
                setting("volts", volts, 13.into(), Direction::Down, Some(Decimal::from(jump.max(4)))),
            ],
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
        let order: Vec<_> = route(&rig, &in_force(80, 20), &rig.stock()).into_iter().map(|c| c.setting).collect();
        assert_eq!(order, ["clock", "volts"]);
        let up: Vec<_> = route(&rig, &in_force(50, 13), &rig.stock().with("clock", 80.into()).with("volts", 20.into()))
            .into_iter()
            .map(|c| c.setting)
            .collect();
        assert_eq!(up, ["volts", "clock"]);
    }

    #[test]
    fn what_nobody_knows_goes_to_stock_first() {
        let rig = rig(100);
        let changes = route(&rig, &InForce::new(), &rig.stock().with("clock", 60.into()));
        assert_eq!(changes[0], Change { setting: "clock".into(), from: None, to: 50.into() });
        assert_eq!(changes.len(), 3);
    }

    proptest! {
        #[test]
        fn a_route_arrives_on_the_ladder_without_a_long_jump(
            jump in 1i64..60, clock in 40i64..=90, volts in 0usize..5, to_clock in 40i64..=90, to_volts in 0usize..5,
        ) {
            let rig = rig(jump);
            let levels = [10, 12, 13, 17, 20];
            let mut at = in_force(clock, levels[volts]);
            let target = rig.stock().with("clock", to_clock.into()).with("volts", levels[to_volts].into());
            for change in route(&rig, &at, &target) {
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
