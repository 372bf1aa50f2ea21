//! Why there is no picture.

use super::sentences;

pub(crate) const NO_BENCHMARK: &str = "no benchmark of this climb has run to its end";
pub(crate) const NO_CURVE: &str = "this climb moves no setting, so there is no curve";
pub(crate) const NO_MAP: &str = "a map needs two settings, of which the plan moves one";
pub(crate) const NO_PROFILE: &str = "this climb moves no setting, so it has no profile";
pub(crate) const NO_SENSOR: &str = "no sensor was read in this climb";
pub(crate) const TWICE_THE_SAME: &str = "a map needs two settings, and this is twice the same one";

sentences! {
    no_such_axis(name, known) = "nothing is called `{name}` that it could lie over; there is: {known}";
    no_scores(load, known) = "this climb has no scores of {load}; it has those of: {known}";
    no_such_trial(number, trials) = "there is no trial {number}; there are {trials}";
    picture_ending(name) = "can't tell what {name} is to be; end it in .svg or .pdf";
}
