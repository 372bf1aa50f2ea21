//! What is said of the climbs of a ledger.

use super::sentences;

pub(crate) const IS_BEING_CLIMBED: &str = "is being climbed";
pub(crate) const NO_CLIMB_SO_FAR: &str = "no climb so far; `periculum demo` shows one";
pub(crate) const NO_CLIMB_TO_SHOW: &str = "there is no climb in this ledger yet";
pub(crate) const NO_CLIMB_TO_USE: &str =
    "there is no climb so far; `periculum demo` shows one, and `periculum climb PLAN` begins one";
pub(crate) const NO_HOME: &str =
    "there is no home folder to keep a ledger in; set HOME, or give one with --ledger FILE";
pub(crate) const INCIDENTS: &str = "incidents:";
pub(crate) const OPEN: &str = "open";
pub(crate) const NO_TRIAL: &str = "no trial";

sentences! {
    an_incident(incident) = "  {incident}";
    of_a_trial(pass) = "      {pass}";
    not_opened(climb, why) = "climb {climb} can't be opened: {why:#}";
    unreadable(why) = "the ledger can't be read: {why:#}";
    one_climb(climb, begun, rig, plan, count, trials, falls, tested, end) =
        "{climb:>4}  {begun}  {rig:<12} {plan:<16} {count:>3} {trials:<6} {falls:>3} fell  {tested:>12}  {end}";
    one_trial(trial, verdict, rung, proof, tested, incident) = "{trial:>4}  {verdict:<8} {rung}  {proof}  {tested}  {incident}";
    climb_of(climb, plan, rig, used_for, begun) = "climb {climb}: {plan} on {rig}, for {used_for}, begun {begun}";
    is_unfinished(resume) = "not finished; `{resume}` goes on with it";
    known_as(id) = "known in any ledger as {id}";
    no_ledger(path) = "there is no ledger {path}; `periculum ledger` lists the climbs of the usual one";
    over_all_its_time(rate) = " ({rate} over all its time)";
    read_again(problems) = "every line was read again: {problems}";
    reads_again(read, climbs, seconds) = "{read} of {climbs} climbs are read again, about {seconds} s left";
    shows_in_terminal(number) = "`show` needs a terminal; `periculum report {number} -o climb.md` writes a report";
}
