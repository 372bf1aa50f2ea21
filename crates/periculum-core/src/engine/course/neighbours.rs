//! The order in which combinations are tried where people change settings: none before everything that is easier than it, so that a
//! fall spares the most, and within that with as little to be done by hand as a look at the next one allows.

use crate::model::reason::Spared;
use crate::model::rig::Rig;
use crate::model::rung::Rung;

/// More combinations than this nobody makes by hand; they stay as they are.
const MOST: usize = 400;

/// What it takes to come from one rung to another: visits, and single changes in them.
type Effort = (u32, u32);

/// These combinations, which stand as easy ones come first, in such an order from this rung on, and what that spares.
pub(super) fn ordered(plain: Vec<Rung>, from: &Rung, settings: &[String], rig: &Rig) -> (Vec<Rung>, Option<Spared>) {
    if plain.len() > MOST || !settings.iter().any(|name| rig.needs_somebody(name)) {
        return (plain, None);
    }
    let effort = |one: &Rung, other: &Rung| -> Effort {
        let by_hand = settings.iter().filter(|name| rig.needs_somebody(name) && one.get(name) != other.get(name));
        let changes = by_hand.count() as u32;
        (changes.min(1), changes)
    };
    let order = greedy(&plain, from, settings, rig, effort);
    let sum = |rungs: &mut dyn Iterator<Item = &Rung>| {
        let mut at = from;
        rungs.fold((0, 0), |(visits, changes), next| {
            let (visit, change) = effort(std::mem::replace(&mut at, next), next);
            (visits + visit, changes + change)
        })
    };
    let before = sum(&mut plain.iter());
    let after = sum(&mut order.iter().map(|at| &plain[*at]));
    if after >= before {
        return (plain, None);
    }
    let spared = Spared { visits: [after.0, before.0], changes: [after.1, before.1] };
    (order.into_iter().map(|at| plain[at].clone()).collect(), Some(spared))
}

/// The places of the combinations, each time that of the one which is nearest among those that nothing easier waits before.
fn greedy(
    plain: &[Rung],
    from: &Rung,
    settings: &[String],
    rig: &Rig,
    effort: impl Fn(&Rung, &Rung) -> Effort,
) -> Vec<usize> {
    let is_easier = |one: &Rung, other: &Rung| {
        one != other
            && settings.iter().all(|name| {
                let values = rig.setting(name).zip(one.get(name).zip(other.get(name)));
                values.is_some_and(|(setting, (one, other))| !setting.is_harder(other, one))
            })
    };
    let easier = |at: usize| plain.iter().filter(|other| is_easier(other, &plain[at])).count();
    let mut waits_for: Vec<usize> = (0..plain.len()).map(easier).collect();
    let mut waiting: Vec<usize> = (0..plain.len()).collect();
    let mut order: Vec<usize> = Vec::with_capacity(plain.len());
    while !waiting.is_empty() {
        let at = order.last().map_or(from, |last| &plain[*last]);
        let free = waiting.iter().enumerate().filter(|(_, place)| waits_for[**place] == 0);
        let Some((index, _)) = free.min_by_key(|(_, place)| (effort(at, &plain[**place]), **place)) else { break };
        let next = waiting.remove(index);
        for place in &waiting {
            waits_for[*place] -= usize::from(is_easier(&plain[next], &plain[*place]));
        }
        order.push(next);
    }
    order
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::files::{Document, Problems, rig_file};
    use proptest::prelude::*;

    fn rig(effects: [&str; 3]) -> Rig {
        let setting = |(name, effect): (&str, &str)| {
            format!(
                "[setting.{name}]\nladder = {{ from = 0, step = 1, to = 4 }}\nstock = 0\nceiling = {{ daily = 4 }}\n\
                 harder = \"up\"\ntakes_effect = \"{effect}\"\n"
            )
        };
        let settings: String = ["a", "b", "c"].into_iter().zip(effects).map(setting).collect();
        let text = format!("format = 1\n[rig]\nname = \"r\"\n{settings}");
        rig_file::read(&Document::parse(&text).expect("TOML").top(&Problems::default())).expect("a rig")
    }

    /// Every combination of so many values of each, easy ones first.
    fn combinations(counts: [i64; 3]) -> Vec<Rung> {
        let mut all: Vec<[i64; 3]> = Vec::new();
        for a in 0..counts[0] {
            for b in 0..counts[1] {
                all.extend((0..counts[2]).map(|c| [a, b, c]));
            }
        }
        all.sort_by_key(|values| values.iter().sum::<i64>());
        let rung =
            |values: [i64; 3]| ["a", "b", "c"].map(str::to_owned).into_iter().zip(values.map(Into::into)).collect();
        all.into_iter().map(rung).collect()
    }

    fn names() -> Vec<String> {
        ["a", "b", "c"].map(str::to_owned).to_vec()
    }

    #[test]
    fn what_the_rig_changes_by_itself_is_gone_through_in_one_visit() {
        let plain = combinations([2, 2, 3]);
        let (rungs, spared) = ordered(plain.clone(), &plain[0], &names(), &rig(["by-hand", "by-hand", "at-once"]));
        let spared = spared.expect("fewer visits");
        assert_eq!(spared.visits[0], 3, "one for each other combination of the two: {rungs:?}");
        assert!(spared.visits[1] > spared.visits[0]);
        let (same, nothing) = ordered(plain.clone(), &plain[0], &names(), &rig(["at-once"; 3]));
        assert_eq!((same, nothing), (plain, None));
    }

    proptest! {
        #[test]
        fn nothing_is_lost_and_nothing_comes_before_what_is_easier(a in 1i64..5, b in 1i64..5, c in 1i64..4, hands in 1usize..8) {
            let effects = [0, 1, 2].map(|bit| if hands & (1 << bit) == 0 { "at-once" } else { "by-hand" });
            let plain = combinations([a, b, c]);
            let (rungs, spared) = ordered(plain.clone(), &plain[0], &names(), &rig(effects));
            let sorted = |mut rungs: Vec<Rung>| { rungs.sort(); rungs };
            prop_assert_eq!(sorted(rungs.clone()), sorted(plain));
            for (place, rung) in rungs.iter().enumerate() {
                let is_easier = |later: &Rung| later != rung && names().iter().all(|name| later.get(name) <= rung.get(name));
                prop_assert!(!rungs[place..].iter().any(is_easier), "{rung:?}");
            }
            if let Some(Spared { visits, changes }) = spared {
                prop_assert!((visits[0], changes[0]) < (visits[1], changes[1]));
            }
        }
    }
}
