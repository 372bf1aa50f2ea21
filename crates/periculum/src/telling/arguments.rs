//! What is wrong with an argument.

use super::sentences;

pub(crate) const EXIT_CODES: &str = "Exit codes: 0 done, and a mark was found where one was sought; 1 it failed, or what is in force did not hold; 2 \
    something given was wrong; 3 the climb came to its end without a mark; 4 a score is not as sure as was asked; 130 \
    interrupted, or the climb waits.";
pub(crate) const NO_TIME_AT_ALL: &str = "no time at all proves nothing";
pub(crate) const SAY_HOW_MANY_THREADS: &str = "say all, each, or a number above 0";
pub(crate) const SAY_PERCENT: &str = "say a number of percent above 0 and below 100";

sentences! {
    needs_terminal(command, instead) = "`{command}` shows an interface and needs a terminal; {instead}";
    neither_number_nor_max(text) = "`{text}` is neither a number above 0 nor `max`";
    no_climb_number(text) = "`{text}` is not a climb number; `periculum ledger` lists them";
    no_niceness(text) = "`{text}` is not a whole number from -20 to 19";
    no_number(text) = "`{text}` is not a number such as 512.4";
    no_whole_number(text) = "`{text}` is not a whole number";
    no_whole_number_from_1(text) = "`{text}` is not a whole number from 1 up";
}
