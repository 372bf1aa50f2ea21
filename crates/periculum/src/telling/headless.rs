//! What a climb without its interface says on the way.

use super::sentences;

pub(crate) const WAITS: &str = "the climb waits";

sentences! {
    asked(question, answers) = "  ?  {question}; then say {answers}";
    asked_again(question) = "  ?  {question}";
    has_read_nothing(sensor, source) = "     {sensor} has read nothing so far ({source})";
    besides(what) = "     {what}";
    harder(words) = "     harder: {words}";
    of_stock(claim) = "     stock {claim}";
    marked(mark) = "  ⚑  mark: {mark}";
    pass_runs(load, workload, length) = "     {load}: {workload}; {length} at most";
    problem(what) = "periculum: {what}";
    progress(done, length, rate, rounds, errors, left) =
        "\r\x1b[K     {done} of {length}   {rate}   {rounds}   {errors}   {left} left";
    resume_goes_on(waits, resume) = "     {waits}; `{resume}` goes on with it";
    shows(what) = "  ▤  {what}";
    stage_over(stage, end) = "     stage {stage} is over: {end}";
    too_low(value, unit) = "{value} {unit}, too low to be undisturbed";
    trials_so_far(trials, falls, tested) = "{trials}, {falls} fell, {tested} of passes";
    waits_for(question) = "the climb waits for this: {question}";
    withdrawn(trial, mark) = "     mark withdrawn in trial {trial}: {mark}";
}
