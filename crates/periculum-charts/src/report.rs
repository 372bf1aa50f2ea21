//! The short report of a climb, as Markdown.

use std::fmt::Write;

use periculum_core::plan::Plan;
use periculum_core::quantity::measured;
use periculum_core::rig::Rig;
use periculum_core::story::{Story, TrialStory};
use periculum_core::telling::mark_sentence;
use periculum_core::verdict::Verdict;

/// Writes the report: what was climbed, how, what was found, and every trial and incident behind it.
pub fn report_markdown(story: &Story, rig: &Rig, plan: &Plan, climb: i64, seed: Option<u64>) -> String {
    let mut text = String::new();
    // Writing to a string can't fail.
    let _ = write(&mut text, story, rig, plan, climb, seed);
    text
}

fn write(text: &mut String, story: &Story, rig: &Rig, plan: &Plan, climb: i64, seed: Option<u64>) -> std::fmt::Result {
    writeln!(text, "# Climb {climb}: {} on {}\n", plain(&plan.name), plain(&rig.name))?;
    writeln!(text, "{}\n", plain(&rig.summary))?;
    for part in &rig.parts {
        writeln!(text, "- {}: {} {}", plain(&part.kind), plain(&part.model), plain(&part.specimen))?;
    }
    if let Some(seed) = seed {
        writeln!(text, "- simulated specimen {seed}: no hardware was involved")?;
    }
    write_outcome(text, story, rig)?;
    write_limits(text, rig, plan)?;
    write_trials(text, story, rig)?;
    write_incidents(text, story, rig)
}

fn write_outcome(text: &mut String, story: &Story, rig: &Rig) -> std::fmt::Result {
    writeln!(text, "\n## What was found\n")?;
    match &story.ended {
        Some(ended) => writeln!(text, "The climb is over: {}.", ended.end.sentence())?,
        None => writeln!(text, "The climb is not finished.")?,
    }
    let [held, slipped, fell] = [Verdict::Held, Verdict::Slipped, Verdict::Fell].map(|verdict| story.count(verdict));
    let trials = story.trials.len();
    writeln!(text, "{trials} trials: {held} held, {slipped} slipped, {fell} fell; {} of passes.\n", story.tested())?;
    if story.marks.is_empty() {
        return writeln!(text, "No mark stands.");
    }
    for mark in &story.marks {
        writeln!(text, "- **Mark**: {} (trial {})", plain(&mark_sentence(mark, rig)), mark.trial)?;
    }
    Ok(())
}

fn write_limits(text: &mut String, rig: &Rig, plan: &Plan) -> std::fmt::Result {
    writeln!(text, "\n## How it was climbed\n")?;
    writeln!(text, "Use: {}. Nothing was applied beyond these limits.\n", plain(&plan.use_name))?;
    writeln!(text, "| setting | stock | floor | ceiling |\n|---|---|---|---|")?;
    for setting in &rig.settings {
        let ceiling = setting.written(setting.ceiling(&plan.use_name));
        let (stock, floor) = (setting.written(setting.stock), setting.written(setting.floor));
        writeln!(text, "| {} | {stock} | {floor} | {ceiling} |", plain(&setting.label))?;
    }
    writeln!(text)?;
    for proof in &plan.proofs {
        let passes = proof.passes.iter().map(|pass| format!("{} for {}", plain(&pass.load), pass.length));
        writeln!(text, "- Proof `{}`: {}", plain(&proof.name), passes.collect::<Vec<_>>().join(", then "))?;
    }
    Ok(())
}

fn write_trials(text: &mut String, story: &Story, rig: &Rig) -> std::fmt::Result {
    writeln!(text, "\n## Trials\n\n| | trial | rung | verdict | proof | passes ran | score | why |")?;
    writeln!(text, "|---|---|---|---|---|---|---|---|")?;
    for trial in &story.trials {
        let verdict = trial.verdict.map_or("open", |verdict| verdict.name());
        let sign = trial.verdict.map_or('○', |verdict| verdict.sign());
        writeln!(
            text,
            "| {sign} | {} | {} | {verdict} | {} | {} | {} | {} |",
            trial.number,
            plain(&rig.written(&trial.rung)),
            plain(&trial.put_to()),
            trial.tested,
            score(trial),
            plain(&trial.reason.because(rig))
        )?;
    }
    Ok(())
}

fn score(trial: &TrialStory) -> String {
    trial.score().map_or(String::new(), |score| format!("{} {}", measured(score.value, 1), score.unit))
}

fn write_incidents(text: &mut String, story: &Story, rig: &Rig) -> std::fmt::Result {
    writeln!(text, "\n## Incidents\n")?;
    if story.incidents.is_empty() {
        return writeln!(text, "None.");
    }
    for told in &story.incidents {
        let trial = told.trial.and_then(|number| story.trials.get(number as usize - 1));
        let place = trial.map_or("outside any trial".to_owned(), |trial| {
            format!("trial {} at {}", trial.number, rig.written(&trial.rung))
        });
        writeln!(text, "- {}, {}", plain(&place), plain(&told.incident.to_string()))?;
    }
    Ok(())
}

/// Text that Markdown takes as it stands.
fn plain(text: &str) -> String {
    let mut escaped = String::with_capacity(text.len());
    for sign in text.chars() {
        if "\\`*_[]<>|#".contains(sign) {
            escaped.push('\\');
        }
        escaped.push(if sign.is_control() { ' ' } else { sign });
    }
    escaped
}

#[cfg(test)]
mod tests {
    use super::plain;

    #[test]
    fn names_can_not_break_a_table() {
        assert_eq!(plain("a|b\nc*"), "a\\|b c\\*");
    }
}
