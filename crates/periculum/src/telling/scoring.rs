//! What is said of scores.

use super::sentences;

pub(crate) const NOBODY_ELSE: &str = "     no other program uses the processor to speak of";
pub(crate) const SPREAD: &str = "lowest … highest";

sentences! {
    no_score(name) = "{name:<20} no score";
    no_scored_program(path) = "{path} defines no program with a `score`";
    no_such_benchmark(unknown, known) = "there is no benchmark `{unknown}`; there are {known}";
    not_sure(within, repeats, unsure) =
        "periculum: not known within {within} % after {repeats} repetitions: {unsure}; give --repeats more, or --for longer";
    one_score(name, mean, unit, off, lowest, highest, times, workload) =
        "{name:<20} {mean:>10} {unit:<10} ± {off:<7} {lowest:>9} … {highest:<9} {times:>2} times   {workload}";
    others_busy(busy) = "     other programs use the processor, which makes scores lower: {busy}";
    workload(size, size_name, kernel) = "{size} {size_name}, {kernel} kernel";
}
