//! The truth about a simulated rig, in words.

use super::sentences;

pub(crate) const ONLY_SIMULATED: &str = "only a simulated rig knows the truth about itself";

sentences! {
    fails_by(law) = "its failures grow rarer with the margin by the law `{law}`";
    hardest_that_holds(stage, rung, survival) = "stage {stage}: the hardest rung that holds is {rung}; it {survival}";
    no_such_setting(name, known) = "the rig has no setting `{name}`; it has {known}";
    no_such_value(text, name, stock) = "`{text}` is no value of the ladder; write it as in `{name}={stock}`";
    not_even_stock(stage, survival) = "stage {stage}: not even stock holds; it {survival}";
    survives(proof, percent) = "survives `{proof}` with {percent:.1} %";
}
