//! `soak`: the rung that the stages before have come to, a margin easier, put to a long proof; easier still where it
//! falls.

use rust_decimal::Decimal;

use super::back::{easier, in_steps, whose};
use super::ground::{Ground, Move, Outcome};
use crate::model::reason::{Reason, StageEnd};
use crate::model::rung::Rung;
use crate::model::strategy::{Margin, Steps};
use crate::model::verdict::Verdict;

/// Proves one rung, or the hardest below it that holds.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Soak {
    all: Vec<Steps>,
    /// How many steps easier than the mark it begins.
    margin: u32,
    at: Rung,
    /// The last fall.
    fallen: Option<Fall>,
}

#[derive(Clone, Debug, PartialEq)]
struct Fall {
    rung: Rung,
    outcome: Outcome,
    /// The first of the settings that gave way.
    gave_way: String,
}

impl Soak {
    pub(super) fn new(all: &[Steps], margin: Margin, base: &Rung, ground: Ground) -> Self {
        let margins = in_steps(margin, all, base, stock(ground), ground);
        let at = easier(all, &margins, base, stock(ground), ground);
        let wanted = margins.iter().copied().max().unwrap_or_default();
        let so_far = |count: u32| -> Vec<u32> { margins.iter().map(|margin| count.min(*margin)).collect() };
        let is_all = |count: &u32| easier(all, &so_far(*count), base, stock(ground), ground) == at;
        // By the rules up to 9 a margin was told that there was no room for.
        let margin = if ground.rules > 9 { (0..wanted).find(is_all).unwrap_or(wanted) } else { wanted };
        Self { all: all.to_vec(), margin, at, fallen: None }
    }

    pub(super) fn first(&self) -> Move {
        let setting = self.all.first().map(|steps| steps.setting.clone()).unwrap_or_default();
        Move::Try(self.at.clone(), Reason::Soak { setting, margin: self.margin })
    }

    pub(super) fn after(&mut self, outcome: &Outcome, ground: Ground) -> Move {
        if outcome.verdict == Verdict::Held {
            let end = self.fallen.as_ref().map_or(StageEnd::Soaked, |fall| {
                let value = fall.rung.get(&fall.gave_way).unwrap_or_default();
                fall.outcome.next_did_not_hold(&fall.gave_way, value)
            });
            return Move::Settle { rung: self.at.clone(), proved_in: Some(outcome.trial), end };
        }
        let everyone: Vec<usize> = (0..self.all.len()).collect();
        let whose = whose(&self.all, outcome, ground);
        let next = whose.map(|whose| (self.back(&whose, outcome, ground), whose)).filter(|(rung, _)| *rung != self.at);
        let (at, who) = next.unwrap_or_else(|| (self.back(&everyone, outcome, ground), everyone));
        let fallen = std::mem::replace(&mut self.at, at);
        if self.at == fallen {
            return Move::GiveUp(StageEnd::NothingHeld { verdict: outcome.verdict, incident: outcome.incident });
        }
        let settings: Vec<String> = who.iter().map(|place| self.all[*place].setting.clone()).collect();
        let gave_way = settings.first().cloned().unwrap_or_default();
        let reason = match self.all.len() {
            1 => {
                let from = fallen.get(&gave_way).unwrap_or_default();
                Reason::StepBack { setting: gave_way.clone(), from, depth: outcome.depth() }
            }
            all if all == who.len() => Reason::AllGiveWay,
            _ => Reason::GivesWay { settings, cores: outcome.cores.iter().copied().collect() },
        };
        self.fallen = Some(Fall { rung: fallen, outcome: outcome.clone(), gave_way });
        Move::Try(self.at.clone(), reason)
    }

    /// The rung where these of the settings are easier, the farther the deeper the fall was.
    fn back(&self, who: &[usize], outcome: &Outcome, ground: Ground) -> Rung {
        let deeper = outcome.depth().steps();
        let count = |(place, steps): (usize, &Steps)| if who.contains(&place) { steps.back + deeper } else { 0 };
        let counts: Vec<u32> = self.all.iter().enumerate().map(count).collect();
        easier(&self.all, &counts, &self.at, stock(ground), ground)
    }
}

/// No margin and no fall takes a setting beyond its stock value.
fn stock<'a>(ground: Ground<'a>) -> impl Fn(&str) -> Option<Decimal> + 'a {
    move |setting| Some(ground.rig.setting(setting)?.stock)
}
