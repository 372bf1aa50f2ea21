//! What a climb has found, as OpenMetrics text (OpenMetrics 1.0, text format) for whoever monitors the machine.

use std::fmt::Write;

use periculum_core::rig::Rig;
use periculum_core::story::Story;
use periculum_core::verdict::Verdict;

/// Marks by setting, and how many trials ended how.
pub fn open_metrics(story: &Story, rig: &Rig, climb: i64) -> String {
    let mut text = String::new();
    // Writing to a string can't fail.
    let _ = write(&mut text, story, rig, climb);
    text
}

fn write(text: &mut String, story: &Story, rig: &Rig, climb: i64) -> std::fmt::Result {
    let name = label(&rig.name);
    writeln!(
        text,
        "# TYPE periculum_mark gauge\n# HELP periculum_mark The hardest value that held, in the setting's unit."
    )?;
    for mark in &story.marks {
        let Some(setting) = rig.setting(&mark.setting) else { continue };
        let Some(value) = mark.rung.get(&mark.setting) else { continue };
        let (unit, proof) = (label(&setting.unit), label(&mark.proof));
        let setting = label(&setting.name);
        let stage = mark.stage + 1;
        writeln!(
            text,
            "periculum_mark{{rig=\"{name}\",climb=\"{climb}\",stage=\"{stage}\",setting=\"{setting}\",unit=\"{unit}\",\
             proof=\"{proof}\"}} {value}"
        )?;
    }
    writeln!(text, "# TYPE periculum_trials counter\n# HELP periculum_trials Trials by how they ended.")?;
    for verdict in [Verdict::Held, Verdict::Slipped, Verdict::Fell, Verdict::Void] {
        let (count, ended) = (story.count(verdict), verdict.name());
        writeln!(text, "periculum_trials_total{{rig=\"{name}\",climb=\"{climb}\",verdict=\"{ended}\"}} {count}")?;
    }
    writeln!(text, "# TYPE periculum_tested_seconds counter\n# UNIT periculum_tested_seconds seconds")?;
    writeln!(text, "# HELP periculum_tested_seconds How long passes ran.")?;
    let seconds = story.tested().seconds();
    writeln!(text, "periculum_tested_seconds_total{{rig=\"{name}\",climb=\"{climb}\"}} {seconds}\n# EOF")
}

/// A label's value as the format has it in quotes.
fn label(text: &str) -> String {
    text.replace('\\', "\\\\").replace('"', "\\\"").replace('\n', "\\n")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn labels_can_not_break_the_text() {
        assert_eq!(label("a \"b\" \\ c\nd"), "a \\\"b\\\" \\\\ c\\nd");
    }
}
