//! What is said of beginning a climb, of going on with one, and of what it leaves.

use super::sentences;

pub(crate) const ALL_FINISHED: &str = "every climb in this ledger is finished";
pub(crate) const ANOTHER_DRIVES: &str = "another periculum drives this machine; wait for it, or stop it";
pub(crate) const CLIMB_WITHOUT: &str = "say --headless to climb without";
pub(crate) const DEMO_PLAN: &str = "the demo's plan";
pub(crate) const DEMO_RIG: &str = "the demo's rig";
pub(crate) const DEMO_RIGS: &str = "all rigs of the demo";
pub(crate) const DEMO_WITHOUT: &str = "`periculum climb PLAN --headless` climbs without, a plan of demo/ for instance";
pub(crate) const DRIVER_PANICKED: &str = "the driver panicked; `periculum resume` goes on with the climb";
pub(crate) const GO_ON_WITHOUT: &str = "say --headless to go on without";
pub(crate) const IS_ANOTHER_THERE: &str = "can't make sure that nobody else drives this machine";
pub(crate) const LINE_NOT_WRITTEN: &str = "can't write to the ledger, so nothing more is applied";
pub(crate) const NAME_A_PLAN: &str = "name a plan file, or a climb of the ledger with --again";
pub(crate) const NOTHING_TO_PUT_BACK: &str = "There is nothing to put back.";
pub(crate) const NOT_PUT_BACK: &str = "what was changed could not be put back: the rig does not answer";
pub(crate) const RESUME_WITHOUT: &str = "`periculum resume --headless` goes on without";
pub(crate) const SAMPLES_NOT_WRITTEN: &str = "can't write sensor readings";

sentences! {
    no_answer_to_this(word, answers) = "`{word}` can't be said now; say {answers}";
    again(climb) = "climb --again {climb}";
    as_before(target) = "{target} is as it was before.";
    decides_otherwise(number) =
        "the record can't be taken up again: this version decides otherwise at line {number}; finish it with the version that \
        began it, or begin a new climb";
    dropped_line(line, climb, why) = "periculum: dropped line {line} of climb {climb}: {why}";
    file_of_climb(kind, climb) = "{kind} of climb {climb}";
    first_start(count) =
        "The demo's first start: earlier climbs are simulated, {count} of them, so that there is something to compare …";
    first_start_at(nth, count, rig, plan, left) = "  {nth} of {count}: {rig}, {plan}{left}";
    seconds_left(seconds) = ", about {seconds} s left";
    is_over(climb, end, again) = "climb {climb} is over: {end}; `{again}` climbs it again";
    it_is_over(climb, rig, end) = "Climb {climb} on {rig} is over: {end}.";
    its_mark(mark) = "⚑ {mark}";
    it_waits(resume) = "The climb waits; `{resume}` goes on with it.";
    try_again(problem) = "periculum: {problem}; `periculum restore` tries again";
    kernel_hangs(seconds) =
        "this machine's kernel has not answered for {seconds} s: the driver behind one of its settings or sensors hangs; \
        unload that, or start the machine anew";
    left_behind(problem) = "periculum: {problem}; `periculum restore` puts back what was left";
    new_demo(why) = "periculum: the last demo can't go on, so a new one begins: {why:#}";
    newer_line(line, climb, what, ledger) =
        "periculum: a newer version wrote line {line} of climb {climb} ({what}); this one only reads {ledger}";
    no_answer(line, answers) = "`{line}` is no answer; say {answers}";
    not_finished(climb, rig, resume) = "periculum: climb {climb} of {rig} is not finished; `{resume}` goes on with it";
    not_started_anew(why) = "the machine could not be started anew: {why}; start it, and the climb goes on";
    unreadable_files(climb) = "this version can't read the files of climb {climb}";
    unreadable_kept(path) = "can't read what {path} keeps; look at it before you remove it";
}
