//! Stages as a few words.

use rust_decimal::Decimal;

use crate::engine::Mark;
use crate::model::plan::{Plan, Stage};
use crate::model::quantity::counted;
use crate::model::rig::Rig;
use crate::model::strategy::{Assurance, Margin, Piece, Steps, Sweep};

/// A stage in a few words: `ascend core clock by 50 MHz, quick`.
pub fn stage_words(stage: &Stage, plan: &Plan, rig: &Rig) -> String {
    let proof = &plan.proofs[stage.proof].name;
    let pieces: String = stage.strategy.pieces().into_iter().map(|piece| piece_words(piece, rig)).collect();
    format!("{}{pieces}, {proof}{}", stage.strategy.name(), wanted(stage.wants))
}

/// What is wanted of its mark, as ` to survive 80 %, 99 % sure`; nothing where that is what is usual.
fn wanted(wants: Option<Assurance>) -> String {
    let Some(wants) = wants.filter(|wants| *wants != Assurance::default()) else { return String::new() };
    let percent = |share: Decimal| (share * Decimal::ONE_HUNDRED).normalize();
    format!(" to survive {} %, {} % sure", percent(wants.survives), percent(wants.sure))
}

fn piece_words(piece: Piece, rig: &Rig) -> String {
    match piece {
        Piece::Times(times) => format!(" {times} times"),
        Piece::UpToTimes(times) => format!(" up to {times} times"),
        Piece::OverStarts(starts) => format!(" over {starts} starts"),
        Piece::EachTimes(times) => format!(", {times} times each"),
        Piece::Setting(setting) => format!(" {}", label(setting, rig)),
        Piece::Moves(steps) => format!(" {}", steps_words(steps, rig)),
        Piece::With(steps) => format!(" with {}", steps_words(steps, rig)),
        Piece::Over(sweep) => format!(" over {}", label(&sweep.setting, rig)),
        Piece::Combines(sweeps) => {
            let labels: Vec<String> = sweeps.iter().map(|Sweep { setting, .. }| label(setting, rig)).collect();
            format!(" {}", labels.join(" × "))
        }
        Piece::Of(count) => format!(" of {}", counted(count, "setting")),
        Piece::Keeps(margin) => kept(margin).map(|margin| format!(", {margin}")).unwrap_or_default(),
    }
}

/// The margin that the stage of a mark keeps, as `1 step of margin`; none where it keeps none, or where the mark is stock, which nothing
/// is a step back from.
pub fn margin_words(mark: &Mark, plan: &Plan, rig: &Rig) -> Option<String> {
    let stage = plan.stages.get(mark.stage).filter(|_| mark.rung != rig.stock())?;
    stage_margin(stage)
}

fn stage_margin(stage: &Stage) -> Option<String> {
    stage.strategy.pieces().into_iter().find_map(|piece| match piece {
        Piece::Keeps(margin) => kept(margin),
        _ => None,
    })
}

fn kept(margin: Margin) -> Option<String> {
    match margin {
        Margin::Steps(0) => None,
        Margin::Steps(count) => Some(format!("{} of margin", counted(count, "step"))),
        Margin::Share(share) => Some(format!("{} % of margin", (share * Decimal::ONE_HUNDRED).normalize())),
    }
}

fn label(name: &str, rig: &Rig) -> String {
    rig.setting(name).map_or_else(|| name.to_owned(), |setting| setting.label.clone())
}

fn steps_words(steps: &Steps, rig: &Rig) -> String {
    let written = |step: Decimal| rig.setting(&steps.setting).map(|setting| setting.written(step));
    let sizes: Vec<String> = steps.coarse.iter().copied().chain(steps.step).filter_map(written).collect();
    let by = if sizes.is_empty() { String::new() } else { format!(" by {}", sizes.join(", then ")) };
    format!("{}{by}", label(&steps.setting, rig))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::model::plan::Start;
    use crate::model::strategy::Strategy;

    #[test]
    fn what_is_wanted_is_told_where_it_is_not_usual() {
        assert_eq!(wanted(Some(Assurance::default())), "");
        let much = Assurance { survives: Decimal::new(99, 2), ..Assurance::default() };
        assert_eq!(wanted(Some(much)), " to survive 99 %, 95 % sure");
    }

    #[test]
    fn a_margin_is_told_where_one_is_kept() {
        let told = |margin| {
            let strategy = Strategy::Soak { steps: vec![Steps::of("clock", None)], margin };
            stage_margin(&Stage { strategy, proof: 0, start: Start::Last, save: None, pin: None, wants: None })
        };
        assert_eq!(told(Margin::Steps(0)), None);
        assert_eq!(told(Margin::Steps(2)).as_deref(), Some("2 steps of margin"));
        assert_eq!(told(Margin::Share(Decimal::new(30, 3))).as_deref(), Some("3 % of margin"));
    }
}
