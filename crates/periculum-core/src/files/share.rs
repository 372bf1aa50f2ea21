//! Shares as plans write them.

use rust_decimal::Decimal;

use crate::files::section::{Located, Section};
use crate::model::strategy::Assurance;

/// A share written in percent, as `1%`, above nothing and below the whole.
pub(super) fn read_share(text: &Located<String>, key: &str, section: &Section) -> Option<Decimal> {
    let percent = text.value.trim().strip_suffix('%').and_then(|number| number.trim().parse::<Decimal>().ok());
    match percent.filter(|percent| *percent > Decimal::ZERO && *percent < Decimal::ONE_HUNDRED) {
        Some(percent) => Some(percent / Decimal::ONE_HUNDRED),
        None => {
            let what = format!("`{}` is not a share above 0% and below 100%", text.value);
            section.problems().advise(text.at.clone(), what, format!("write it as in `{key} = \"1%\"`"));
            None
        }
    }
}

/// `survives = "90%"` and `sure = "95%"`: what is wanted of marks, where either is said here or around it.
pub(super) fn read_assurance(section: &Section, around: Option<Assurance>) -> Option<Assurance> {
    let usual = around.unwrap_or_default();
    let share = |key: &'static str, usual| {
        let text = section.optional_text(key);
        text.and_then(|text| read_share(&text, key, section)).unwrap_or(usual)
    };
    let is_said = around.is_some() || section.has("survives") || section.has("sure");
    let wants = Assurance { survives: share("survives", usual.survives), sure: share("sure", usual.sure) };
    is_said.then_some(wants)
}
