//! Stages as a few words.

use rust_decimal::Decimal;

use crate::model::plan::{Plan, Stage};
use crate::model::quantity::counted;
use crate::model::rig::Rig;
use crate::model::strategy::{Margin, Piece, Steps, Sweep};

/// A stage in a few words: `ascend core clock by 50 MHz, quick`.
pub fn stage_words(stage: &Stage, plan: &Plan, rig: &Rig) -> String {
    let proof = &plan.proofs[stage.proof].name;
    let pieces: String = stage.strategy.pieces().into_iter().map(|piece| piece_words(piece, rig)).collect();
    format!("{}{pieces}, {proof}", stage.strategy.name())
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
        Piece::Keeps(Margin::Steps(0)) => String::new(),
        Piece::Keeps(Margin::Steps(count)) => format!(", {} of margin", counted(count, "step")),
        Piece::Keeps(Margin::Share(share)) => {
            format!(", {} % of margin", (share * Decimal::ONE_HUNDRED).normalize())
        }
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
