//! What is said of files read and written.

use super::sentences;

pub(crate) const AGAINST_IS_FOR_MAP: &str = "--against is for --picture map";
pub(crate) const BENCHMARK_IS_FOR_SCORES: &str = "--benchmark is for --picture scores";
pub(crate) const DEMO_LEDGER_IS: &str = "the demo's ledger";
pub(crate) const LEAVE_IT_OUT: &str = "leave it out";
pub(crate) const LEDGER_IS: &str = "the ledger";
pub(crate) const LOG_IS: &str = "the log";
pub(crate) const NOT_YET: &str = "   (not there so far)";
pub(crate) const NOTHING_TO_COMPARE: &str = "nothing to compare with; name other climbs, as in --with 2,5";
pub(crate) const MAKE_IT_BY_HAND: &str = "make the pass by hand, with `by = \"hand\"` and `ask`";
pub(crate) const NOBODY_STARTS_ELSEWHERE: &str = "the rig is elsewhere: nothing here can watch it or start it anew";
pub(crate) const NOTHING_RUNS_FOR_ELSEWHERE: &str = "the rig is elsewhere, and nothing runs on this computer for it";
pub(crate) const NO_FILE_FOR_REPORT: &str = "say where the report goes, with -o FILE or --bundle FILE";
pub(crate) const NO_PLAN_YET: &str = "no plan yet";
pub(crate) const NO_PROGRAMS_FOR_SIMULATED: &str = "a simulated rig has no programs to run";
pub(crate) const NO_WATCHDOG_FOR_SIMULATED: &str = "a simulated rig freezes no machine, so no watchdog is armed";
pub(crate) const ONE_AT_A_TIME: &str = "samples and marks are those of one climb; write its number alone";
pub(crate) const OR_MORE: &str = ", or more: it is not foreseen farther";
pub(crate) const OVER_IS_FOR_SCORES_AND_MAP: &str = "--over is for --picture scores and map";
pub(crate) const PREFERENCES_ARE: &str = "how the interface is to be";
pub(crate) const PERMITS_ARE: &str = "what you have allowed";
pub(crate) const PUT_BACK_IS: &str = "what has to be put back";
pub(crate) const TEXT_IS_FOR_SVG: &str = "--text is for pictures as SVG (.svg); leave it out, or name such a file";
pub(crate) const TRIAL_IS_FOR_TRACES: &str = "--trial is for --picture traces";
pub(crate) const WITH_IS_FOR_COMPARE: &str = "--with is for --picture compare";

sentences! {
    but_it(told) = "\n  but {told}";
    cannot_read_for(path, error) = "can't read {path}: {error}";
    cannot_read(path) = "can't read {path}";
    cannot_write(path) = "can't write {path}";
    command(words) = "periculum {words}";
    command_for(words, ledger) = "periculum {words} --ledger {ledger}";
    edits_in_terminal(path) = "`plan` needs a terminal; `periculum check {path}` tells what it would do";
    kept_at(what, path, missing) = "{what:<24} {path}{missing}";
    leave_out(what) = "{what}; leave it out, or ask for that picture";
    no_plan_there(path) = "there is no {path}; name the rig that a new plan is for, with --rig";
    no_regular_file(path) = "{path} is no regular file, so it is not read";
    nothing_to_climb(rig) = "no setting of {rig} has a ceiling, so there is nothing to climb";
    plan_would(plan, rig, stages, effort, told) = "plan `{plan}` for rig `{rig}`: {stages}; {effort}{told}";
    report_ending(name) = "can't tell what {name} is to be; end it in .pdf, .html, .md or .svg";
    rig_has(rig, settings, sensors) = "rig `{rig}`: {settings}, {sensors}";
    runs_here(load) = "every setting is changed by hand, and {load} runs on this computer: where the rig is another machine, write \
        `where = \"elsewhere\"` below [rig]";
    samples_ending(path) = "can't tell what {path} is to be; end it in .csv or .jsonl";
    taken_for_granted(span) = "nothing is told of what the rig did before, by [[history]] in its file: {span} at stock without a failure are taken for granted";
    too_large(path, size) = "{path} is {size} large; what is read here is not";
    unknown_ending(name, known) = "can't tell what {name} is to be; end it in .{known}";
}
