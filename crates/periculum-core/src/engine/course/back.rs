//! Steps back: how far, and of which settings.

use rust_decimal::Decimal;

use super::ground::{Ground, Outcome, neighbour};
use crate::model::rung::Rung;
use crate::model::strategy::{Margin, Steps};

/// Each setting so many steps easier, one step of all before the next, and none beyond the value where it stops.
pub(super) fn easier(
    all: &[Steps],
    counts: &[u32],
    from: &Rung,
    stop: impl Fn(&str) -> Option<Decimal>,
    ground: Ground,
) -> Rung {
    let one_back = |rung: Rung, steps: &Steps| {
        let is_at_stop = rung.get(&steps.setting) == stop(&steps.setting);
        let easier = if is_at_stop { None } else { neighbour(steps, steps.step, &rung, ground, false).ok() };
        easier.unwrap_or(rung)
    };
    let most = counts.iter().copied().max().unwrap_or_default();
    let of_round = |rung: Rung, round: u32| {
        let going = all.iter().zip(counts).filter(|(_, count)| round < **count);
        going.fold(rung, |rung, (steps, _)| one_back(rung, steps))
    };
    let mut at = from.clone();
    for round in 0..most {
        let next = of_round(at.clone(), round);
        if next == at {
            break;
        }
        at = next;
    }
    at
}

/// A margin in steps of each setting: as many as there are from the mark to where it stops, where it would be more.
pub(super) fn in_steps(
    margin: Margin,
    all: &[Steps],
    mark: &Rung,
    stop: impl Fn(&str) -> Option<Decimal>,
    ground: Ground,
) -> Vec<u32> {
    let share = match margin {
        Margin::Steps(count) => return vec![count; all.len()],
        Margin::Share(share) => share,
    };
    let of_one = |steps: &Steps| {
        let value = |rung: &Rung| rung.get(&steps.setting).unwrap_or_default();
        let (mut count, mut at) = (0, mark.clone());
        while (value(&at) - value(mark)).abs() < share * value(mark).abs() {
            let next = easier(std::slice::from_ref(steps), &[1], &at, &stop, ground);
            if next == at {
                break;
            }
            (count, at) = (count + 1, next);
        }
        count
    };
    all.iter().map(of_one).collect()
}

/// Which of these settings drive a core that something went wrong on; none where nobody knows, or where all do.
pub(super) fn whose(all: &[Steps], outcome: &Outcome, ground: Ground) -> Option<Vec<usize>> {
    if ground.rules < 5 {
        return None;
    }
    let drives_failed = |steps: &Steps| {
        let setting = ground.rig.setting(&steps.setting);
        setting.is_some_and(|setting| setting.drives.iter().any(|core| outcome.cores.contains(core)))
    };
    let whose: Vec<usize> = (0..all.len()).filter(|index| drives_failed(&all[*index])).collect();
    Some(whose).filter(|whose| !whose.is_empty() && whose.len() < all.len())
}
