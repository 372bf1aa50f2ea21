//! Sentences and parts of sentences that the views put together from what they show.

use std::path::Path;

use crate::tui::calls::Occasion;
use periculum_core::engine::{Field, Question, Takes};
use periculum_core::model::budget::Rest;
use periculum_core::model::errand::Errand;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::Threads;
use periculum_core::model::plan::Plan;
use periculum_core::model::quantity::{counted, harmless};
use periculum_core::model::rig::{Part, Rig};
use periculum_core::model::verdict::Verdict;
use periculum_core::story::{PassStory, Story, TrialStory};

// Nothing to show, and why.
pub(in crate::tui) const NO_BENCHMARK: &str = "No benchmark has run to its end yet; a pass has a score when it has.";
pub(in crate::tui) const NO_CLIMB: &str = "There is no climb in this ledger yet.";
pub(in crate::tui) const NO_CLIMB_FOUND: &str = "No trial of any climb has all of this. esc shows all again.";
pub(in crate::tui) const NO_CORE_TOLD: &str = "no core has told so far how it goes";
pub(in crate::tui) const NO_MAP: &str =
    "A map needs two settings, of which the plan moves one; this rig has not so many.";
pub(in crate::tui) const NO_MARK_OF_RIG: &str = "No climb of this rig has set a mark yet.";
pub(in crate::tui) const NO_OTHER_RAN_IT: &str = "No other climb ran this benchmark.";
pub(in crate::tui) const NO_PASS_RUNS: &str =
    "no pass is running; while one does, each core that works on it stands here";
pub(in crate::tui) const NO_PLAN: &str = "There is no plan to show.";
pub(in crate::tui) const NO_READING: &str = "No sensor was read yet.";
pub(in crate::tui) const NO_ROOM_FOR_TRACES: &str = "Traces need a larger window.";
pub(in crate::tui) const NO_TRIAL: &str = "No trial has begun.";
pub(in crate::tui) const AS_IT_COMES: &str = "everything as the rig comes";
pub(in crate::tui) const NO_ATTEMPT: &str = "No climb of this ledger has made a trial yet.";
pub(in crate::tui) const NO_TRIAL_FOUND: &str = "No trial has all of this. esc shows all again.";
pub(in crate::tui) const NO_TROUBLE: &str = "none so far";
pub(in crate::tui) const NOTHING_DOES_THAT: &str = "nothing that can be done here is called like that";
pub(in crate::tui) const NOTHING_DIFFERS: &str = "Nothing differs by more than chance could make it.";
pub(in crate::tui) const NOTHING_HAS_HELD: &str = "nothing has held so far";
pub(in crate::tui) const NOTHING_HELD: &str = "nothing held";
pub(in crate::tui) const NOTHING_PICKED: &str = "nothing is picked";
pub(in crate::tui) const NOTHING_SELECTED: &str = "nothing is selected";
pub(in crate::tui) const HOW_TO_PICK: &str = "Pick two or more with p among trials (3) or climbs (6) to compare them.";
pub(in crate::tui) const READING: &str = "   reading …";

// What is about to happen, or what it waits for.
pub(in crate::tui) const ABOUT_TO_BEGIN: &str = "about to begin";
pub(in crate::tui) const NOT_KNOWN_YET: &str = "not known so far";
pub(in crate::tui) const NOTHING_LEFT: &str = "the climb is over: nothing easier is left to try";
pub(in crate::tui) const NOTHING_WAS_WRONG: &str = "nothing was wrong, and that is on record";
pub(in crate::tui) const PAUSED_BETWEEN: &str = "paused between two trials; the rig stays as it is until you go on";
pub(in crate::tui) const WAITS_FOR_YOU: &str = "waiting for you to go on";
pub(in crate::tui) const WHAT_WAS_WRONG: &str = "what was wrong is on record";

// Why there is no mark.
pub(in crate::tui) const ENDED_BEFORE_MARK: &str = "the climb ended before what held beyond stock became one";
pub(in crate::tui) const NOTHING_HARDER: &str = "nothing harder than stock was proved";

// Cards.
pub(in crate::tui) const CHANGE_IS_FOR_HOME: &str = "To take the rig back to stock.";
pub(in crate::tui) const CHANGED_PLAN: &str = "The plan was changed, and what was changed is in no file.";
pub(in crate::tui) const NOTHING_IS_LOST: &str = "Nothing is lost if this machine goes down meanwhile.";
pub(in crate::tui) const STOPS: &str = "The pass is broken off, the rig goes back to stock or to its last mark, and the climb is over.\nWhat it found so far stays in the ledger.";
pub(in crate::tui) const UNWATCHED: &str = "a pass runs, and nobody would watch its cut-offs meanwhile: pause first";
pub(in crate::tui) const WHATEVER_IT_IS: &str = "whatever it is";

// Plans.
pub(in crate::tui) const BECOMES_ANOTHER: &str = "what you change becomes another plan";
pub(in crate::tui) const IN_NO_FILE: &str = "changed, and in no file yet";
pub(in crate::tui) const PERHAPS_MORE: &str = ", and perhaps more";

// Scores.
pub(in crate::tui) const LAST_VALUE: &str = "the last value tried";
pub(in crate::tui) const NOTHING_SHOWN: &str = "nothing is shown either way";
pub(in crate::tui) const LITTLE_GAIN: &str = "nothing: little gain at all";
pub(in crate::tui) const NOISE_NOT_KNOWN: &str = "not known: no value was measured twice";
pub(in crate::tui) const ONE_VALUE: &str = "one value only";

// Rigs.
pub(in crate::tui) const EACH_BY_ITSELF: &str = "each core by itself";
pub(in crate::tui) const HAS_READ_NOTHING: &str = "has read nothing so far";
pub(in crate::tui) const NOT_SOAKED: &str = "not soaked";
pub(in crate::tui) const OUTSIDE_TRIALS: &str = "outside any trial";
pub(in crate::tui) const SOAKED: &str = "soaked, may be armed for each start";

/// For which trial a change by hand is, and why.
pub(in crate::tui) fn change_is_for(trial: &TrialStory, rig: &Rig) -> String {
    format!("For trial {}, because {}.", trial.number, trial.reason.because(rig))
}

/// What somebody has to do: change something, or start the machine with what has been written down for its next start.
pub(in crate::tui) fn errand_to_make(by_hand: usize, written: usize) -> &'static str {
    match (by_hand, written) {
        (0, 0) => "Start the machine again, with everything as it is.",
        (0, 1) => "Start the machine again: this is written down for its next start.",
        (0, _) => "Start the machine again: these are written down for its next start.",
        (1, 0) => "Change this, and start the machine again if that takes a start.",
        (_, 0) => "Change these in one visit, and start the machine again if that takes a start.",
        (_, _) => "Change what is by hand, and start the machine again: the rest is written down for its next start.",
    }
}

pub(in crate::tui) const BY_ITS_START: &str = "at its start";
pub(in crate::tui) const BY_YOUR_HAND: &str = "by hand";

pub(in crate::tui) fn plan_is_climbed(file: &Path) -> String {
    format!("The plan {} is climbed, from its first stage on.", file.display())
}

pub(in crate::tui) fn repeats(climb: i64) -> String {
    format!(
        "Climb {climb} is climbed again as a new climb: its plan on its rig,\n\
         both as they were recorded, from the baseline on."
    )
}

/// What becomes of the rig and the climb when one leaves.
pub(in crate::tui) fn leaves(rig: &Rig) -> String {
    let is_by_hand = rig.settings.iter().any(|setting| setting.takes_effect.needs_somebody());
    let rig = match (rig.settings.is_empty(), is_by_hand) {
        (true, _) => "nothing was changed",
        (false, true) => "what needs a hand or a start stays as it is",
        (false, false) => "the rig goes back to stock",
    };
    format!(
        "Leave it to wait: {rig}, and `periculum resume` tries the open trial again.\n\
         Or stop it for good: what it found so far stays in the ledger."
    )
}

/// The title of the terminal's window.
pub(in crate::tui) fn title(rig: &str, plan: &str, trials: usize, state: &str) -> String {
    let trials = if trials == 0 { String::new() } else { format!(", {}", counted(trials, "trial")) };
    harmless(&format!("periculum: {rig}, {plan}{trials}, {state}"))
}

/// What somebody is told who looks elsewhere.
pub(in crate::tui) fn call(occasion: Occasion, rig: &str, mark: Option<&str>) -> String {
    let found = mark.map(|mark| format!(": {mark}")).unwrap_or_default();
    harmless(&match occasion {
        Occasion::Fall => format!("{rig}: a trial fell"),
        Occasion::Mark => format!("{rig}: a mark{found}"),
        Occasion::Question => format!("{rig} asks you for something"),
        Occasion::End => format!("{rig}: the climb is over{found}"),
    })
}

pub(in crate::tui) const NO_SESSION_BUS: &str = "there is no session bus (DBUS_SESSION_BUS_ADDRESS)";
pub(in crate::tui) const NO_NOTIFICATIONS: &str = "nothing there shows notifications";

pub(in crate::tui) fn desktop_not_told(why: &anyhow::Error) -> String {
    format!("the desktop can't be told: {why:#}")
}

/// What was put where it can be pasted from.
pub(in crate::tui) fn copied(trial: u32, lines: usize) -> String {
    format!("trial {trial} as the logbook has it, {}, was handed to the terminal to be pasted", counted(lines, "line"))
}

/// What a stage is and what it came to, at length, in short, and by its number alone.
pub(in crate::tui) fn band(plan: &Plan, stage: usize, found: Option<&str>) -> [String; 3] {
    let strategy = plan.stages.get(stage).map_or("", |stage| stage.strategy.name());
    let number = stage + 1;
    let found = found.map(|found| format!(": {found}")).unwrap_or_default();
    [format!("{number} {strategy}{found}"), format!("{number} {strategy}"), number.to_string()]
}

/// That there was no room for some settings that moved.
pub(in crate::tui) fn more_moved(count: usize) -> String {
    format!("{} moved too", counted(count, "setting"))
}

pub(in crate::tui) fn climb(number: i64) -> String {
    format!("climb {number}")
}

pub(in crate::tui) fn climb_of_specimen(number: i64, seed: u64) -> String {
    format!("climb {number}, simulated specimen {seed}")
}

pub(in crate::tui) fn trial(number: u32) -> String {
    format!("trial {number}")
}

pub(in crate::tui) fn trial_of_climb(trial: u32, climb: i64) -> String {
    format!("trial {trial} of climb {climb}")
}

/// How simulated specimens of one rig are told apart.
pub(in crate::tui) fn seed_words(seed: Option<u64>) -> String {
    seed.map_or(String::new(), |seed| format!(" #{seed}"))
}

/// A plan and its use, which may have one name.
pub(in crate::tui) fn plan_for_use(plan: &str, use_name: &str) -> String {
    if plan == use_name { plan.to_owned() } else { format!("{plan}, for {use_name} use") }
}

/// How many trials held, how many did not, and how long passes ran.
pub(in crate::tui) fn tally(held: usize, others: usize, tested: Span) -> String {
    format!("{held} held, {others} did not, {tested} of passes")
}

pub(in crate::tui) fn because(reason: &str) -> String {
    format!("because {reason}")
}

pub(in crate::tui) const WAITS_FOR_START: &str = "waiting for the machine to be started anew";

pub(in crate::tui) fn setting(changes: &str) -> String {
    format!("setting {changes}")
}

pub(in crate::tui) fn on_the_way_home(changes: &str) -> String {
    format!("on the way home: {changes}")
}

pub(in crate::tui) fn resting(left: Span) -> String {
    format!("resting, {} left", left.clock())
}

pub(in crate::tui) fn left(time: Span) -> String {
    format!("{} left", time.clock())
}

pub(in crate::tui) fn then_more(time: Span) -> String {
    format!("then {time} more")
}

pub(in crate::tui) fn errors(count: u64) -> String {
    counted(count, "error")
}

pub(in crate::tui) fn pass_of(number: usize, passes: usize) -> String {
    format!("pass {number} of {passes}")
}

pub(in crate::tui) fn back_to(rung: &str) -> String {
    format!("back to {rung}")
}

/// A stage that is done if this trial ends like that, and the strategy of the one behind it.
pub(in crate::tui) fn stage_done(rung: &str, next: Option<&str>) -> String {
    format!("this stage is done at {rung}, and {} follows", next.unwrap_or("nothing"))
}

pub(in crate::tui) fn climb_done(rung: &str) -> String {
    format!("the climb is done at {rung}")
}

pub(in crate::tui) fn held_in(proof: &str, trial: u32) -> String {
    format!("held {proof} in trial {trial}")
}

/// The other settings that something held with.
pub(in crate::tui) fn beside(others: &str) -> String {
    if others.is_empty() { String::new() } else { format!("at {others}, ") }
}

pub(in crate::tui) fn checked(rounds: u64, errors: u64) -> String {
    format!("{} checked, {errors} wrong", counted(rounds, "round"))
}

/// Whose rate it is.
pub(in crate::tui) fn cores(threads: Threads) -> String {
    match threads {
        Threads::All => "all cores together".into(),
        Threads::Count(1) => "on one core".into(),
        Threads::Count(count) => format!("{count} cores together"),
        Threads::Each => "one core at a time".into(),
    }
}

pub(in crate::tui) fn cores_hidden(count: usize) -> String {
    format!("… and {count} more cores without errors and not behind")
}

pub(in crate::tui) fn ago(time: Span) -> String {
    format!("{time} ago")
}

pub(in crate::tui) fn last_score(score: &str, unit: &str) -> String {
    format!("last score {score} {unit}")
}

pub(in crate::tui) fn into_climb(at: Moment, began: Moment) -> String {
    format!("{} into the climb", at.since(began))
}

pub(in crate::tui) fn note(text: &str) -> String {
    format!("note: {text}")
}

/// A pass with how long it ran and its score, or that it runs.
pub(in crate::tui) fn pass(pass: &PassStory) -> String {
    let Some(report) = &pass.report else { return format!("{} runs", pass.order.load) };
    let score = report.score.as_ref().map(|score| format!(", {:.1} {}", score.value, score.unit)).unwrap_or_default();
    format!("{} for {}{score}", pass.order.load, report.ran)
}

/// What is to be sorted by, and is no column.
pub(in crate::tui) fn no_column(name: &str) -> String {
    format!("   no column is called {name}")
}

/// Climbs whose record can't be read.
pub(in crate::tui) fn not_read(climbs: &[i64]) -> String {
    let numbers: Vec<String> = climbs.iter().map(i64::to_string).collect();
    let which = if climbs.len() == 1 { "climb" } else { "climbs" };
    format!("{which} {} can't be read, and nothing of it stands here", numbers.join(", "))
}

pub(in crate::tui) fn place_in_list(of: &str, at: usize, count: usize) -> String {
    format!("{of}   {at} of {count}")
}

/// What a list is narrowed to: the words before what was looked for, and those behind it.
pub(in crate::tui) fn found_among(total: usize) -> [String; 2] {
    [" with ".into(), format!(" among {total}")]
}

pub(in crate::tui) fn times_in(zone: &str) -> String {
    format!("   times in {zone}")
}

/// How many trials a climb has, and how many of them were found.
pub(in crate::tui) fn trials(found: Option<usize>, count: u32) -> String {
    let found = found.map_or(String::new(), |found| format!("{found} of "));
    format!("{found}{}", counted(count, "trial"))
}

pub(in crate::tui) fn fell(count: u32) -> String {
    format!("{count:>3} fell")
}

pub(in crate::tui) fn more_need_room(count: usize) -> String {
    if count == 0 { String::new() } else { format!("{count} more need a wider window") }
}

pub(in crate::tui) fn more_sensors(count: usize) -> String {
    if count == 1 { "one more sensor, with tab".into() } else { format!("{count} more sensors, with tab") }
}

pub(in crate::tui) fn left_out(trial: u32) -> String {
    format!("trial {trial} is left out")
}

pub(in crate::tui) fn from_to(least: &str, greatest: &str) -> String {
    format!("{least} to {greatest}")
}

/// A reading, and what it must not go beyond, in this unit.
pub(in crate::tui) fn reading_of_limit(reading: &str, limit: Option<&str>, unit: &str) -> String {
    let limit = limit.map(|limit| format!(" {}", of_limit(limit))).unwrap_or_default();
    format!("{reading}{limit} {unit}")
}

/// What readings come to.
pub(in crate::tui) fn sums(least: &str, greatest: &str, mean: &str) -> String {
    format!("{}, mean {mean}", from_to(least, greatest))
}

pub(in crate::tui) fn of_limit(limit: &str) -> String {
    format!("of {limit}")
}

pub(in crate::tui) fn ceilings([across, up]: [(&str, String); 2]) -> String {
    format!("ceilings: {} up to {}, {} up to {}", across.0, across.1, up.0, up.1)
}

pub(in crate::tui) fn earlier(count: usize) -> String {
    format!("… {count} earlier")
}

/// What a trial's rung is worth, as `its rung survives quick with 40 to 85 %`.
pub(in crate::tui) fn its_rung(claim: &str) -> String {
    if claim.starts_with("survives") { format!("its rung {claim}") } else { claim.to_owned() }
}

pub(in crate::tui) fn picked(what: &str) -> String {
    format!("{what} is picked")
}

pub(in crate::tui) fn specimens_by(rig: &str, setting: &str) -> String {
    format!("specimens of {rig} by their marks of {setting}")
}

pub(in crate::tui) const NO_SCORE_STANDS: &str = "no score of this climb stands: its rungs fell";

pub(in crate::tui) fn rank(at: usize, count: usize) -> String {
    format!("rank {at} of {count} by the best single score")
}

pub(in crate::tui) fn at(what: &str, place: &str) -> String {
    format!("{what} at {place}")
}

pub(in crate::tui) fn measured_times(score: &str, unit: &str, times: usize) -> String {
    format!("{score} {unit}, measured {}", counted(times, "time"))
}

/// How much a score varies, in percent, and how many were left out of that.
pub(in crate::tui) fn noise(percent: f64, disturbed: usize) -> String {
    let left_out = if disturbed == 0 { String::new() } else { format!(", {disturbed} disturbed left out") };
    format!("{percent:.2} % of one{left_out}")
}

pub(in crate::tui) fn per(currency: &str) -> String {
    format!("per {currency}")
}

/// What a curve shows: scores of a unit over a setting.
pub(in crate::tui) fn over_setting(unit: &str, label: &str, of: &str) -> String {
    if of.is_empty() { format!("{unit} over {label}") } else { format!("{unit} over {label}, {of}") }
}

/// What the figures of a map's border are: of one setting, at each value of another one.
pub(in crate::tui) fn border_of(across: &str, up: &str) -> String {
    format!("{across}, by {up}")
}

/// What other settings are at in the plane of a map.
pub(in crate::tui) fn plane_at(beside: &str) -> String {
    format!("   at {beside}")
}

pub(in crate::tui) fn specimen(name: &str) -> String {
    if name.is_empty() { String::new() } else { format!("   specimen {name}") }
}

pub(in crate::tui) fn follows(setting: &str) -> String {
    format!("follows {}", setting.replace('_', " "))
}

pub(in crate::tui) fn is_cores(core: u32) -> String {
    format!("is core {core}'s")
}

pub(in crate::tui) fn attached_from(source: &str) -> String {
    format!("attached from {source}")
}

/// Whose plan it is that is shown.
pub(in crate::tui) fn plan_of(climb: i64, is_changed: bool) -> String {
    if is_changed { format!("from climb {climb}") } else { format!("as climb {climb} was begun with") }
}

/// Why nothing is foreseen of a plan in which so much is wrong.
pub(in crate::tui) fn nothing_foreseen(wrong: usize) -> String {
    let (what, it) = match wrong {
        1 => ("one line is wrong".to_owned(), "It is"),
        _ => (format!("{wrong} things are wrong"), "They are"),
    };
    format!("{what}. {it} marked with !; nothing is foreseen before that is mended.")
}

pub(in crate::tui) fn written(file: &str) -> String {
    format!("written: {file}")
}

/// Said where a screen has nothing that could be written into a file.
pub(in crate::tui) const NOTHING_TO_WRITE: &str = "this view has nothing to write into a file";

/// Which lines of a long list are seen.
pub(in crate::tui) fn lines_of(first: u16, last: u16, all: u16) -> String {
    format!("lines {first} to {last} of {all}")
}

/// Why a climb is not shown.
/// That something was picked or put back, where so many were picked before.
pub(in crate::tui) fn picking(climb: i64, trial: Option<u32>, is_picked: bool, before: usize) -> String {
    let what = trial.map_or_else(|| self::climb(climb), |trial| trial_of_climb(trial, climb));
    match is_picked {
        true if before == 0 => format!("{what} is picked; pick another one, and 8 compares them"),
        true => format!("{what} is picked; 8 compares all {}", before + 1),
        false => format!("{what} is not picked any more"),
    }
}

pub(in crate::tui) fn looked_for_still(words: &str) -> String {
    format!("as you left it, only what has `{words}` is listed; esc lists all")
}

pub(in crate::tui) fn not_opened(climb: i64, why: &anyhow::Error) -> String {
    format!("climb {climb} can't be opened: {why:#}")
}

/// Why nothing was written where a file is.
pub(in crate::tui) fn kept_as(path: &Path) -> String {
    format!("kept as {}", path.display())
}

pub(in crate::tui) fn is_there_already(path: &Path) -> String {
    format!("{} is there already, so nothing was written; give another name", path.display())
}

/// What a file of a climb is called.
pub(in crate::tui) fn file_of_climb(climb: i64, what: &str) -> String {
    format!("climb-{climb}-{what}")
}

/// What a field takes, behind its label.
fn takes(field: &Field) -> String {
    match &field.takes {
        Takes::Number { unit, .. } if unit.is_empty() => String::new(),
        Takes::Number { unit, .. } => format!(", {unit}"),
        Takes::Words(words) => format!(": {}", words.join(", ")),
        Takes::YesOrNo => ": yes or no".to_owned(),
        Takes::Text => String::new(),
    }
}

/// What is asked for a field of an errand: what the rig itself shows, what a meter says, or what changed by itself.
pub(in crate::tui) fn shown_by_rig(field: &Field, errand: &Errand) -> String {
    let label = field_of(field, errand);
    match errand.change_of(&field.name) {
        Some(_) => format!("{label}{}, as the rig itself shows it; nothing where it shows none", takes(field)),
        None => format!("{label}{}; nothing where nobody knows", takes(field)),
    }
}

/// What a field of an errand is called.
pub(in crate::tui) fn field_of(field: &Field, errand: &Errand) -> String {
    let is_measured = errand.changes().iter().any(|change| Question::measured(&change.setting) == field.name);
    match errand.change_of(&field.name) {
        Some(_) => field.label.clone(),
        None if is_measured => format!("{}, measured", field.label),
        None => format!("{}, now that it may have changed by itself", field.label),
    }
}

/// What is asked for a field of a pass by hand, or of a sensor that somebody reads.
pub(in crate::tui) fn said_by_rig(field: &Field) -> String {
    let skipped = if field.is_needed { "" } else { "; nothing where nobody knows" };
    format!("{}{}{skipped}", field.label, takes(field))
}

/// What is asked for of a change of the rig.
pub(in crate::tui) fn of_rig(field: &Field) -> String {
    format!("what changed on the rig: {}{}; nothing where it is the same", field.label, takes(field))
}

/// The words that can be chosen from.
pub(in crate::tui) fn one_of(words: &[String]) -> String {
    words.join(" | ")
}

/// What a field takes that is answered by yes or no.
pub(in crate::tui) const YES_OR_NO: &str = "yes | no";

/// What comes of writing down what the rig says.
pub(in crate::tui) const WRITE_WHAT_IT_SAYS: &str = "write down";

/// Somebody is asked, and this waits for them.
pub(in crate::tui) fn asks_you(asked: &str) -> String {
    format!("you are asked: {asked}")
}

/// What somebody wrote down behind a change.
pub(in crate::tui) fn it_shows(typed: &str) -> String {
    format!("it shows {typed}")
}

/// What comes of writing down what the rig shows.
pub(in crate::tui) const WRITE_WHAT_IT_SHOWS: &str = "write down what it shows or a meter says";

/// Firmware, slot and date of a part, where they are known.
pub(in crate::tui) fn about_part(part: &Part) -> String {
    let about = [("firmware", &part.firmware), ("slot", &part.slot), ("since", &part.since)];
    about.into_iter().filter(|(_, value)| !value.is_empty()).map(|(what, value)| format!("   {what} {value}")).collect()
}

/// How soon a change goes back that nobody has said a word of.
pub(in crate::tui) fn goes_back_in(time: Span) -> String {
    format!("It goes back in {}.", time.clock())
}

/// What is left of a budget, as `left: 1 h 20 min of passes, 5 changes by hand, 3.2 l`; none where nothing is limited.
pub(in crate::tui) fn what_is_left(rest: &Rest) -> Option<String> {
    let parts = [
        rest.passes.map(|passes| format!("{passes} of passes")),
        rest.changes.map(|changes| format!("{} by hand", counted(changes, "change"))),
        rest.restarts.map(|restarts| counted(restarts, "restart")),
        rest.litres.map(|litres| format!("{litres:.1} l")),
    ];
    let parts: Vec<String> = parts.into_iter().flatten().collect();
    (!parts.is_empty()).then(|| format!("left: {}", parts.join(", ")))
}

/// The same in fewer words, as `budget 47 min, 5 changes, 2 restarts, 3.2 l`.
pub(in crate::tui) fn left_in_short(rest: &Rest) -> Option<String> {
    let parts = [
        rest.passes.map(|passes| passes.rounded().to_string()),
        rest.changes.map(|changes| counted(changes, "change")),
        rest.restarts.map(|restarts| counted(restarts, "restart")),
        rest.litres.map(|litres| format!("{litres:.1} l")),
    ];
    let parts: Vec<String> = parts.into_iter().flatten().collect();
    (!parts.is_empty()).then(|| format!("budget {}", parts.join(", ")))
}

/// How long passes may still take, as `20 min to 1 h 5 min of passes`.
pub(in crate::tui) fn ahead(least: Span, most: Span, goes_on: bool) -> String {
    match (least == most, goes_on) {
        (_, true) => format!("{least} of passes, or more"),
        (true, false) => format!("{most} of passes"),
        (false, false) if least == Span::ZERO => format!("up to {most} of passes"),
        (false, false) => format!("{least} to {most} of passes"),
    }
}

/// What a climb cost so far.
pub(in crate::tui) fn cost(story: &Story) -> String {
    let trials = counted(story.trials.len(), "trial");
    let fell = story.count(Verdict::Fell) + story.count(Verdict::Slipped);
    let elapsed = story.began.map_or(Span::ZERO, |began| story.latest.since(began));
    format!("{trials}, {fell} did not hold, {} of passes in {elapsed}", story.tested())
}

/// For how long a mark held.
pub(in crate::tui) fn held_for(tested: Span) -> String {
    format!("for {tested}")
}

/// The file that is proposed for a report.
pub(in crate::tui) fn report_of_climb(climb: i64) -> String {
    format!("climb-{climb}.pdf")
}

/// What is driven while another climb is looked at.
pub(in crate::tui) fn meanwhile(climb: i64, rig: &str, trials: usize) -> String {
    format!("meanwhile climb {climb} on {rig} is at trial {trials}")
}
