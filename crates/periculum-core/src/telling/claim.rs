//! What a mark is worth, as a sentence.

use crate::analysis::claim::Claim;
use crate::inference::hazard::Survival;
use crate::model::quantity::counted;

/// As `survives night with at least 93 %: 95 % sure`, `survives quick with 47 to 97 %`, or why nothing can be said.
pub fn claim_words(claim: &Claim) -> String {
    let Claim { proof, survival, longest, .. } = claim;
    match survival {
        None => format!("nothing can be said of {proof} from trials of {longest} at most"),
        Some(Survival { low, .. }) if claim.is_sure() => {
            format!("survives {proof} with at least {} %: 95 % sure", percent(*low))
        }
        Some(Survival { low, high, .. }) => {
            format!("survives {proof} with {} to {} %", percent(*low), percent(*high))
        }
    }
}

/// The same with what it rests on, as `…, by 11 trials that held and 2 that fell`.
pub fn claim_sentence(claim: &Claim) -> String {
    let held = counted(claim.holds as usize, "trial");
    let fell = match claim.falls {
        0 => "none that fell".to_owned(),
        falls => format!("{falls} that fell"),
    };
    format!("{}, by {held} that held and {fell}", claim_words(claim))
}

/// A share in whole percent, never more than it is.
fn percent(share: f64) -> String {
    format!("{:.0}", (100.0 * share).floor())
}
