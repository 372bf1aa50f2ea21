//! What more money buys: the best score at each alternative that something else was paid for.

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;

use crate::analysis::scores::Measure;
use crate::model::rig::Rig;
use crate::model::setting::Setting;
use crate::model::verdict::Verdict;
use crate::story::Story;

/// What the alternatives of a setting scored of one measure, the cheapest first.
#[derive(Clone, Debug, PartialEq)]
pub struct Bought<'a> {
    /// The setting whose values cost different money.
    pub setting: &'a Setting,
    /// What was measured.
    pub measure: Measure,
    /// Those that were tried.
    pub alternatives: Vec<Alternative>,
}

/// One alternative with the best that it scored.
#[derive(Clone, Debug, PartialEq)]
pub struct Alternative {
    /// The setting's value.
    pub value: Decimal,
    /// What was paid for it.
    pub paid: Decimal,
    /// Its best score, in the measure's unit.
    pub best: f64,
    /// The trial that scored it.
    pub trial: u32,
}

/// What an alternative brings beyond the cheapest one.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Extra {
    /// So much more money.
    pub money: Decimal,
    /// So much better a score, percent.
    pub percent: f64,
    /// The money for one of these per cent; none where it is no better.
    pub per_percent: Option<f64>,
}

impl Bought<'_> {
    /// What an alternative brings beyond the cheapest one.
    pub fn extra(&self, alternative: &Alternative) -> Option<Extra> {
        let cheapest = self.alternatives.first()?;
        let percent = 100.0 * (self.measure.merit(alternative.best) / self.measure.merit(cheapest.best) - 1.0);
        let money = alternative.paid - cheapest.paid;
        let per_percent = money.to_f64().filter(|_| percent > 0.0).map(|money| money / percent);
        Some(Extra { money, percent, per_percent })
    }
}

/// What was bought by each setting whose alternatives have prices, for each measure of which at least two of them have a score.
/// Trials that fell bought nothing.
pub fn bought<'a>(story: &Story, rig: &'a Rig) -> Vec<Bought<'a>> {
    let mut measures: Vec<Measure> = Vec::new();
    for measure in story.trials.iter().flat_map(|trial| &trial.passes).flat_map(Measure::of_pass) {
        if !measures.contains(&measure) {
            measures.push(measure);
        }
    }
    let priced = rig.settings.iter().filter(|setting| !setting.paid.is_empty());
    let of = |setting: &'a Setting, measure: &Measure| {
        let mut alternatives: Vec<Alternative> = (0..)
            .zip(&setting.paid)
            .filter_map(|(value, paid)| best(story, setting, measure, (value, *paid)))
            .collect();
        alternatives.sort_by_key(|one| one.paid);
        Bought { setting, measure: measure.clone(), alternatives }
    };
    let all = priced.flat_map(|setting| measures.iter().map(move |measure| of(setting, measure)));
    all.filter(|bought| bought.alternatives.len() > 1).collect()
}

fn best(story: &Story, setting: &Setting, measure: &Measure, (value, paid): (i64, Decimal)) -> Option<Alternative> {
    let value = Decimal::from(value);
    let with_it = story.trials.iter().filter(|trial| trial.rung.get(&setting.name) == Some(value));
    let counts = with_it.filter(|trial| matches!(trial.verdict, Some(Verdict::Held | Verdict::Slipped)));
    let scored = counts.flat_map(|trial| trial.passes.iter().map(move |pass| (trial.number, pass)));
    let scored = scored.filter_map(|(trial, pass)| Some((trial, measure.score_of(pass)?)));
    let (trial, best) = scored.max_by(|(_, a), (_, b)| measure.merit(*a).total_cmp(&measure.merit(*b)))?;
    Some(Alternative { value, paid, best, trial })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::analysis::example::{grid, told};

    #[test]
    fn the_extra_money_is_told_for_each_extra_per_cent() {
        let (mut rig, _) = grid();
        // Two coolers, as the values 0 and 1 of what is called a clock here.
        rig.settings[0].paid = vec![20.into(), 80.into(), 10.into()];
        let held = Verdict::Held;
        let story = told(&[
            (0, 110, 100.0, held),
            (0, 110, 101.0, held),
            (1, 110, 111.1, held),
            (1, 115, 140.0, Verdict::Fell),
        ]);
        let [bought] = bought(&story, &rig).try_into().expect("one measure of one setting");
        let best: Vec<(Decimal, f64, u32)> =
            bought.alternatives.iter().map(|one| (one.paid, one.best, one.trial)).collect();
        assert_eq!(best, [(20.into(), 101.0, 2), (80.into(), 111.1, 3)]);
        let extra = bought.extra(&bought.alternatives[1]).expect("more");
        assert_eq!(extra.money, 60.into());
        assert!((extra.percent - 10.0).abs() < 1e-9 && (extra.per_percent.expect("better") - 6.0).abs() < 1e-9);
        assert_eq!(bought.extra(&bought.alternatives[0]).and_then(|none| none.per_percent), None);
    }
}
