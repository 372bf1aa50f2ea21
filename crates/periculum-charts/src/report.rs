//! The short report of a climb, as Markdown.

use std::fmt::Write;

use periculum_core::plan::Plan;
use periculum_core::quantity::{measured, with_unit};
use periculum_core::reason::{Alone, Border, StageEnd};
use periculum_core::rig::Rig;
use periculum_core::story::{Story, TrialStory};
use periculum_core::telling::{gain_words, mark_sentence, stage_words};
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
    write_stages(text, story, rig, plan)?;
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
    for profile in &story.profiles {
        let soaked = if profile.soaked { ", which held a soak" } else { "" };
        writeln!(text, "- Profile {}: {}{soaked}", plain(&profile.name), plain(&rig.written(&profile.rung)))?;
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

fn write_stages(text: &mut String, story: &Story, rig: &Rig, plan: &Plan) -> std::fmt::Result {
    writeln!(text, "\n## Stages\n")?;
    for raised in &plan.raised {
        writeln!(
            text,
            "- The ceiling of {} was raised for this climb: {}",
            plain(&raised.setting),
            plain(&raised.because)
        )?;
    }
    for (index, stage) in plan.stages.iter().enumerate() {
        let end = story.stages.get(index).and_then(|told| told.end.as_ref());
        let came_to = end.map_or("not begun, or not finished".to_owned(), |end| end.sentence(rig));
        writeln!(text, "{}. {}: {}", index + 1, plain(&stage_words(stage, plan, rig)), plain(&came_to))?;
    }
    for end in story.stages.iter().filter_map(|told| told.end.as_ref()) {
        match end {
            StageEnd::EachKnown { alone, .. } => write_alone(text, alone, rig)?,
            StageEnd::Mapped { setting, over, border } => write_border(text, (setting, over), border, rig)?,
            _ => {}
        }
    }
    Ok(())
}

/// The limit of each setting alone.
fn write_alone(text: &mut String, alone: &[Alone], rig: &Rig) -> std::fmt::Result {
    writeln!(text, "\n| alone | holds |\n|---|---|")?;
    for one in alone {
        let Some(setting) = rig.setting(&one.setting) else { continue };
        writeln!(text, "| {} | {} |", plain(&setting.label), setting.written(one.value))?;
    }
    Ok(())
}

/// The limit of one setting at each value of another.
fn write_border(text: &mut String, names: (&str, &str), border: &[Border], rig: &Rig) -> std::fmt::Result {
    let (Some(setting), Some(over)) = (rig.setting(names.0), rig.setting(names.1)) else { return Ok(()) };
    writeln!(text, "\n| {} | limit of {} | give or take |\n|---|---|---|", plain(&over.label), plain(&setting.label))?;
    for point in border {
        let limit = with_unit(point.limit.round_sf(4).unwrap_or(point.limit).normalize(), &setting.unit);
        writeln!(text, "| {} | {limit} | {:.1} steps |", over.written(point.value), point.deviation)?;
    }
    Ok(())
}

fn write_trials(text: &mut String, story: &Story, rig: &Rig) -> std::fmt::Result {
    writeln!(text, "\n## Trials\n\n| | trial | rung | verdict | proof | passes ran | score | over stock | why |")?;
    writeln!(text, "|---|---|---|---|---|---|---|---|---|")?;
    for trial in &story.trials {
        let verdict = trial.verdict.map_or("open", |verdict| verdict.name());
        let sign = trial.verdict.map_or('○', |verdict| verdict.sign());
        writeln!(
            text,
            "| {sign} | {} | {} | {verdict} | {} | {} | {} | {} | {} |",
            trial.number,
            plain(&rig.written(&trial.rung)),
            plain(&trial.put_to()),
            trial.tested,
            score(trial),
            trial.gain.as_ref().map(gain_words).unwrap_or_default(),
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
