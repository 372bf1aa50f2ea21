//! What a mark is worth, as a sentence.

use rust_decimal::Decimal;

use crate::analysis::claim::{Claim, Granted, Suspect};
use crate::analysis::harder::Harder;
use crate::inference::hazard::Survival;
use crate::model::moment::Span;
use crate::model::quantity::counted;
use crate::model::rig::Rig;
use crate::telling::history::failed_words;

/// As `survives night with at least 93 %: 95 % sure`, `survives quick with 47 to 97 %`, or why nothing can be said.
pub fn claim_words(claim: &Claim) -> String {
    let Claim { proof, longest, .. } = claim;
    match &claim.survival {
        None => format!("nothing can be said of {proof} from trials of {longest} at most"),
        Some(survival) => format!("survives {proof} {}", share_words(survival, claim)),
    }
}

/// The same beside what names the proof: `survives with 47 to 97 %`.
pub fn worth_words(claim: &Claim) -> String {
    match &claim.survival {
        None => claim_words(claim),
        Some(survival) => format!("survives {}", share_words(survival, claim)),
    }
}

/// The same with what it rests on, as `…, by 11 trials that held and 2 that fell`.
pub fn claim_sentence(claim: &Claim) -> String {
    let held = counted(claim.holds as usize, "trial");
    let fell = match claim.falls {
        0 => "none that fell".to_owned(),
        falls => format!("{falls} that fell"),
    };
    let earlier = match claim.earlier {
        0 => String::new(),
        count => format!(", after {} of its kind", counted(count as usize, "earlier climb")),
    };
    let granted = match claim.granted {
        None => String::new(),
        Some(Granted::Usually(span)) => format!(", taking for granted {span} at stock without a failure"),
        Some(Granted::Told(span, failures)) => {
            format!(", on the word of the rig's file that it worked {span} before {}", failed_words(failures))
        }
    };
    let suspects: String = claim.suspects.iter().map(|suspect| format!("; {}", suspect_words(suspect))).collect();
    format!("{}, by {held} that held and {fell}{earlier}{granted}{suspects}", claim_words(claim))
}

/// How far somebody may go who is content to be less sure, as `survives night with at least 90 %: 80 % sure up to 4 350 MHz, 50 % up to
/// 4 450 MHz`.
pub fn harder_words(harder: &Harder, rig: &Rig) -> String {
    let written = |value: Decimal| {
        rig.setting(&harder.setting).map_or_else(|| value.to_string(), |setting| setting.written(value))
    };
    let sure = std::iter::once("sure up to").chain(std::iter::repeat("up to"));
    let one =
        |((sure, value), up_to): (&(f64, Decimal), &str)| format!("{} % {up_to} {}", percent(*sure), written(*value));
    let all: Vec<String> = harder.up_to.iter().zip(sure).map(one).collect();
    format!("survives {} with at least {} %: {}", harder.proof, in_percent(harder.wants.survives), all.join(", "))
}

/// Why a rig does not fail by its limit alone, and what that can be.
fn suspect_words(suspect: &Suspect) -> String {
    match suspect {
        Suspect::Background { hours } => {
            let minutes = if *hours < 1.0 { (60.0 * hours).round() } else { 60.0 * hours.round() };
            let often = Span::from_seconds(60 * minutes.max(1.0) as u64);
            format!(
                "something else fails, about once in {often}, easier rungs too: another setting at its limit, the supply, or software"
            )
        }
        Suspect::Drift { steps } => {
            let by = counted(steps.abs().round().max(1.0) as usize, "step");
            match *steps > 0.0 {
                true => {
                    format!("its limit came down by about {by} meanwhile: the room warms up, or something wears out")
                }
                false => {
                    format!("its limit went up by about {by} meanwhile: the room cools down, or something has settled")
                }
            }
        }
        Suspect::Unlikely { trial } => format!(
            "trial {trial} ended as it should not have, by all others: something else was at work there, or failures follow another law"
        ),
        Suspect::Flatter => {
            "failures grow rarer only slowly towards easier rungs: another part of it may give way there".into()
        }
    }
}

fn share_words(Survival { low, high, .. }: &Survival, claim: &Claim) -> String {
    match claim.is_sure() {
        true => format!("with at least {} %: {} % sure", percent(*low), in_percent(claim.wants.sure)),
        false => format!("with {} to {} %", percent(*low), percent(*high)),
    }
}

/// A share in whole percent, never more than it is.
fn percent(share: f64) -> String {
    format!("{:.0}", (100.0 * share).floor())
}

/// A share as it was written, in percent.
fn in_percent(share: Decimal) -> Decimal {
    (share * Decimal::ONE_HUNDRED).normalize()
}
