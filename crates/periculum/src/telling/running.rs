//! Why a load is not run, and what it did wrong.

use super::sentences;

pub(crate) const MEMORY_NOT_TOLD: &str = "the system does not say how much memory it has";
pub(crate) const NO_SUCH_LOAD: &str = "there is no such load";
pub(crate) const OWN_PROGRAM_NOT_FOUND: &str = "can't find this program to start loads with";
pub(crate) const UNREADABLE_PROGRAM: &str = "the definition of the program can't be read";

sentences! {
    at_address(address) = ", at address {address}";
    cannot_run(why) = "this machine can't run a pass of the plan: {why}";
    checks_nothing(why) = "a pass of the plan would check nothing: {why}";
    could_not_start(program, error) = "`{program}` could not be started: {error}";
    more_wrongs(count) = "{count} more wrong results, not kept one by one";
    needs_at_least(load, smallest, given) = "{load} needs at least {smallest}, and {given} are given";
    no_load_called(load) = "there is no load called `{load}`";
    no_round_fits(load, round, each) =
        "a round of {load} takes about {round} here, and each core has {each}: give the pass more time, or a smaller size";
    no_such_size(load, size, size_name, smallest, largest, nearest) =
        "{load} can't have {size} {size_name}: it goes from {smallest} to {largest}, and {nearest} is the nearest";
    not_for_loads(missing) = "the setting drives processor {missing}, which is none that loads may use here";
    of_proof(proof, why) = "proof `{proof}`: {why}";
    program_has_arguments(load) = "`{load}` is a program of your own: it has arguments, and no memory or size";
    said_nothing(seconds) = "the load said nothing for {seconds} s";
    said_unreadable(text) = "the load said something that can't be read: {text}";
    too_fast(rounds, elapsed, usual) = "{rounds} rounds in {elapsed}, where one takes about {usual}";
    too_little_memory(load, size, size_name, needed, available, reserve) =
        "{load} with {size} {size_name} needs {needed}, and only {available} of memory are available beside the reserve of \
        {reserve}; ask for less memory, a smaller size or a smaller reserve";
    too_many_threads(count, processors) = "{count} threads are asked for, and there are {processors} processors to use";
    untold_wrongs(untold) = "{untold} wrong results were counted, and nothing else is known of them";
    work(load, size, cores) = "{load} of size {size} on cores {cores}";
    works_on_another(found, ordered) = "the load works on {found}, where {ordered} was ordered";
}
