//! What monitoring reads.

use periculum_charts::open_metrics;
use periculum_core::model::verdict::Verdict;

use crate::common::{Teller, rig_and_plan};

#[test]
fn marks_and_trials_are_told_with_their_labels() {
    let (rig, _) = rig_and_plan();
    let mut teller = Teller::new();
    let held = teller.trial((4300, 1200), 100.0, Verdict::Held);
    teller.trial((4350, 1200), 101.0, Verdict::Fell);
    teller.trial((4350, 1200), 101.0, Verdict::Fell);
    teller.mark(held);
    let text = open_metrics(&teller.story, &rig, 12);
    let mark = "periculum_mark{rig=\"bench \\\"one\\\"\",climb=\"12\",stage=\"2\",setting=\"clock\",unit=\"MHz\",proof=\"quick\"} 4300";
    assert!(text.lines().any(|line| line == mark), "{text}");
    for (verdict, count) in [("held", 1), ("slipped", 0), ("fell", 2), ("void", 0)] {
        let line = format!("verdict=\"{verdict}\"}} {count}");
        assert!(
            text.lines().any(|told| told.starts_with("periculum_trials_total{") && told.ends_with(&line)),
            "{text}"
        );
    }
    assert!(text.contains("periculum_tested_seconds_total{rig=\"bench \\\"one\\\"\",climb=\"12\"} 180\n"), "{text}");
}

/// Each family is declared once, before what is told of it, and the text ends as the format wants.
#[test]
fn the_text_has_the_order_that_the_format_asks_for() {
    let (rig, _) = rig_and_plan();
    let text = open_metrics(&Teller::new().story, &rig, 1);
    let families: Vec<&str> = text.lines().filter_map(|line| line.strip_prefix("# TYPE ")).collect();
    assert_eq!(families, ["periculum_mark gauge", "periculum_trials counter", "periculum_tested_seconds counter"]);
    assert!(text.ends_with("\n# EOF\n") || text.ends_with("\n# EOF"), "{text}");
    for line in text.lines().filter(|line| !line.starts_with('#')) {
        let family = families.iter().map(|family| family.split(' ').next().expect("a name"));
        assert_eq!(family.filter(|name| line.starts_with(*name)).count(), 1, "{line}");
    }
}
