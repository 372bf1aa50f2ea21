//! Stages as a few words.

use rust_decimal::Decimal;

use crate::model::plan::{Plan, Stage};
use crate::model::quantity::counted;
use crate::model::rig::Rig;
use crate::model::strategy::{Margin, Steps, Strategy};

/// A stage in a few words: `ascend core clock by 50 MHz, quick`.
pub fn stage_words(stage: &Stage, plan: &Plan, rig: &Rig) -> String {
    let proof = &plan.proofs[stage.proof].name;
    let label = |name: &str| rig.setting(name).map_or_else(|| name.to_owned(), |setting| setting.label.clone());
    let moved = |steps: &Steps| {
        let written = |step: Decimal| rig.setting(&steps.setting).map(|setting| setting.written(step));
        let sizes: Vec<String> = steps.coarse.iter().copied().chain(steps.step).filter_map(written).collect();
        let by = if sizes.is_empty() { String::new() } else { format!(" by {}", sizes.join(", then ")) };
        format!("{}{by}", label(&steps.setting))
    };
    let what = match &stage.strategy {
        Strategy::Baseline { repeats: 1, .. } => String::new(),
        Strategy::Baseline { repeats, within: None } => format!(" {repeats} times"),
        Strategy::Baseline { repeats, within: Some(_) } => format!(" up to {repeats} times"),
        Strategy::Open { setting } => format!(" {}", label(setting)),
        Strategy::Ascend(steps) | Strategy::Trim(steps) => format!(" {}", moved(steps)),
        Strategy::Feed { steps, feed } => format!(" {} with {}", moved(steps), moved(feed)),
        Strategy::Map { steps, over } => format!(" {} over {}", moved(steps), label(&over.setting)),
        Strategy::Grid { over } => {
            format!(" {}", over.iter().map(|sweep| label(&sweep.setting)).collect::<Vec<_>>().join(" × "))
        }
        Strategy::Each(each) => format!(" of {}", counted(each.steps.len(), "setting")),
        Strategy::Peak { steps, repeats } => format!(" {}, {repeats} times each", moved(steps)),
        Strategy::Seek { steps, margin } | Strategy::Soak { steps, margin } => {
            format!(" {}{}", moved(steps), margin_words(*margin))
        }
    };
    format!("{}{what}, {proof}", stage.strategy.name())
}

fn margin_words(margin: Margin) -> String {
    match margin {
        Margin::Steps(0) => String::new(),
        Margin::Steps(count) => format!(", {} of margin", counted(count, "step")),
        Margin::Share(share) => format!(", {} % of margin", (share * Decimal::ONE_HUNDRED).normalize()),
    }
}
