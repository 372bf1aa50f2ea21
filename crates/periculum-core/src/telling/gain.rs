//! What something gains over stock, as a sentence.

use super::{faster_words, percent_words};
use crate::analysis::gain::Gain;
use crate::inference::comparison::{Comparison, Says};
use crate::model::pass::Score;

/// What a mark gains, and by what.
pub fn gain_of_mark_words(gain: &Gain) -> String {
    match gain {
        Gain::Faster(faster) => faster_words(faster),
        Gain::AtStock => "none: the mark is stock".into(),
        Gain::Level(what, over) => format!("{} % over stock in {}", percent_words(over), what.name()),
        Gain::Trial(score, over) => gain_words(over, score),
    }
}

/// How a score compares with the baseline's, as `+2.1 % (+1.8 to +2.4) over stock`; without an interval where the noise
/// is not known; of a score of which less is better it is told how much less that is.
pub fn gain_words(gain: &Comparison, score: &Score) -> String {
    let gain = gain.of_scores(score.less_is_better);
    let percent = |share: f64| format!("{:+.1}", 100.0 * share);
    if !gain.low.is_finite() {
        return format!("{} % over stock, noise unknown", percent(gain.change));
    }
    match gain.says() {
        Says::Same => {
            format!("no clear gain over stock ({} to {} %)", percent(gain.low), percent(gain.high))
        }
        Says::Less | Says::More => {
            format!("{} % ({} to {}) over stock", percent(gain.change), percent(gain.low), percent(gain.high))
        }
    }
}
