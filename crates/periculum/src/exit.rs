//! The code that a climb's end has for the shell.

use std::process::ExitCode;

use periculum_core::engine::ClimbEnd;
use periculum_core::model::plan::Plan;
use periculum_core::model::reason::StageEnd;
use periculum_core::story::Story;

use crate::complaint::{FAILED, INTERRUPTED, NOTHING_FOUND};
use crate::driving::Parting;

/// How a climb's end is told to the shell: success when it came to its end and found what it sought.
pub(crate) fn exit_code(parting: Parting, story: &Story, plan: &Plan) -> ExitCode {
    let seeks = |stage: usize| plan.stages.get(stage).is_some_and(|stage| !stage.strategy.climbed().is_empty());
    // A border is found where nothing is marked.
    let is_mapped = story.stages.iter().any(|stage| matches!(stage.end, Some(StageEnd::Mapped { .. })));
    let found_nothing = story.marks.is_empty() && !is_mapped && (0..plan.stages.len()).any(seeks);
    match story.ended.as_ref().map(|ended| &ended.end) {
        _ if parting == Parting::Waiting => ExitCode::from(INTERRUPTED),
        Some(ClimbEnd::Completed | ClimbEnd::BudgetSpent { .. }) if found_nothing => ExitCode::from(NOTHING_FOUND),
        Some(ClimbEnd::Completed | ClimbEnd::BudgetSpent { .. }) => ExitCode::SUCCESS,
        Some(ClimbEnd::NothingHeld { stage }) if seeks(*stage) && found_nothing => ExitCode::from(NOTHING_FOUND),
        Some(ClimbEnd::Stopped) => ExitCode::from(INTERRUPTED),
        _ => ExitCode::from(FAILED),
    }
}
