//! The curves of a rig in a report: what each point had as it came and has at the last mark, and what held and fell there.

use std::collections::BTreeMap;

use periculum_core::Decimal;
use periculum_core::analysis::sitting::{Shaped, Stand};
use periculum_core::model::curve::Curve;
use periculum_core::model::quantity::grouped;
use periculum_core::model::rig::Rig;
use periculum_core::story::Story;
use periculum_core::story::series::Series;

use crate::document::Block;
use crate::sheet::Sheet;

/// The curves that were moved in a climb.
pub(super) fn curves(rig: &Rig, story: &Story, traces: &BTreeMap<String, Series>) -> Vec<Block> {
    let was_moved = |curve: &&Curve| {
        let mut asked = story.trials.iter().map(|trial| curve.asked(|name| trial.rung.get(name)));
        asked.any(|asked| asked != curve.factory())
    };
    rig.curves.iter().filter(was_moved).flat_map(|curve| of_curve(curve, rig, story, traces)).collect()
}

fn of_curve(curve: &Curve, rig: &Rig, story: &Story, traces: &BTreeMap<String, Series>) -> [Block; 3] {
    let shaped = Shaped::of(curve, rig, story, traces, None);
    let marked = story.marks.last().map(|mark| curve.asked(|name| mark.rung.get(name)));
    let stand = |stand: Option<&Stand>| {
        stand.map(|stand| format!("{} in trial {}", grouped(stand.asked), stand.trial)).unwrap_or_default()
    };
    let row = |nth: usize| {
        let at_mark = marked.as_ref().map(|marked: &Vec<Decimal>| grouped(marked[nth])).unwrap_or_default();
        let point = &curve.points[nth];
        vec![grouped(point.at), grouped(point.factory), at_mark, stand(shaped.held(nth)), stand(shaped.fell(nth))]
    };
    let head = [curve.across.as_str(), "factory", "at the last mark", "held", "fell"].map(str::to_owned).to_vec();
    let told = "What held and fell stands at the point that the device sat at, as far as its sensors tell.";
    [
        Block::Heading(format!("The curve of {}, {}", curve.label, curve.unit)),
        Block::Paragraph(told.to_owned()),
        Block::Table(Sheet { head, rows: (0..curve.points.len()).map(row).collect() }),
    ]
}
