//! What is said of readings attached to a climb.

use super::sentences;

pub(crate) const NO_TIME: &str = "a time that is none";

sentences! {
    attached(count, sensor, climb) = "{count} readings of {sensor} are attached to climb {climb}";
    has_those_already(climb, sensor) =
        "climb {climb} has readings of {sensor} already; give the column another name, or take those off with --take-off";
    no_reading(column) = "{column} has no reading";
    none_by_that_name(climb, name) = "nothing is attached to climb {climb} as {name}; `periculum attach {climb}` lists what is";
    none_within(column, climb, began, ended, first) =
        "no reading of {column} lies within climb {climb}, which went on from {began} to {ended}; the first is of {first}; \
        --ahead tells how far the instrument's clock is ahead";
    not_over(climb) = "climb {climb} is not over; attach to it when it is";
    nothing_attached(climb) =
        "nothing is attached to climb {climb}; `periculum attach {climb} meter.csv` attaches what a file has";
    one_attached(sensor, label, unit, source) = "{sensor}: {label}{unit}, from {source}";
    taken_off(name, climb) = "{name} is taken off climb {climb}";
}
