//! What is said of a curve.

use periculum_core::analysis::sitting::Sitting;
use periculum_core::model::curve::Curve;
use periculum_core::model::quantity::measured;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::Rung;

use super::AS_IT_COMES;

/// What the view is about.
pub(in crate::tui) fn curve(curve: &Curve) -> String {
    format!("{}, {} over {}", curve.label, curve.unit, curve.across)
}

/// The levers of a curve that are not as they come.
pub(in crate::tui) fn levers(curve: &Curve, rig: &Rig, rung: &Rung) -> String {
    let moved = |name: &str| {
        let setting = rig.setting(name)?;
        let value = rung.get(name).filter(|value| *value != setting.stock)?;
        Some(format!("{} {}", setting.label, setting.written(value)))
    };
    let moved: Vec<String> = curve.levers().filter_map(moved).collect();
    if moved.is_empty() { AS_IT_COMES.to_owned() } else { moved.join(", ") }
}

/// Where it sits, and what keeps it there.
pub(in crate::tui) fn sits(curve: &Curve, sits: Option<&Sitting>) -> String {
    let Some(Sitting { across, reached, limit }) = sits else {
        return "nobody knows where it sits: no pass ran here, or no sensor tells".to_owned();
    };
    let reached = reached.map(|reached| format!(", {} {}", measured(reached, 0), curve.unit)).unwrap_or_default();
    let limit = limit.as_ref().map(|limit| format!(", limited by {limit}")).unwrap_or_default();
    format!("sat at {} {}{reached}{limit}", measured(*across, 0), curve.across)
}
