//! What is said of results from elsewhere.

use super::sentences;

pub(crate) const NEEDS_SOURCE: &str = "a result needs a source; say where it is from";
pub(crate) const NONE_SO_FAR: &str =
    "no results entered yet; `periculum enter dense 512.4 GFLOP/s --source \"a friend\"` enters a score";

sentences! {
    cannot_be_one(value) = "{value} can't be a result; give a number above 0";
    entered_one(entered, date, what, value, unit, of, source) =
        "{entered:>4}  {date}  {what} {value} {unit}{of}, from {source}";
    no_such_result(number) = "there is no result {number}; `periculum enter` lists what there is";
    taken_back(number) = "result {number} is taken back";
    written_down(number) = "result {number} is written down";
}
