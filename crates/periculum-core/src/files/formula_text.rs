//! Formulas as files write them, and limits that are a number or a formula.

use rust_decimal::Decimal;

use crate::files::section::{Located, Section};
use crate::model::cut_off::CutOff;
use crate::model::formula::Formula;

/// A formula over these names; what does not fit is told where it stands.
pub(super) fn read_formula(text: &Located<String>, known: &[String], section: &Section) -> Option<Formula> {
    let problems = section.problems();
    // A formula's own text starts behind the opening quote.
    let inside = |at: std::ops::Range<usize>| text.at.start + 1 + at.start..text.at.start + 1 + at.end;
    let formula = Formula::parse(&text.value).map_err(|error| problems.add(inside(error.at), error.what)).ok()?;
    let known: Vec<&str> = known.iter().map(String::as_str).collect();
    for (used, at) in formula.names() {
        if !known.contains(&used) {
            problems.unknown(inside(at), "setting", used, &known);
        }
    }
    Some(formula)
}

/// `key = 95`, or `key = "60 * core_voltage - 200"`, and where it stands.
pub(super) fn read_cut_off(key: &'static str, known: &[String], section: &Section) -> Option<Located<CutOff>> {
    if section.has_text(key) {
        let text = section.optional_text(key)?;
        let formula = read_formula(&text, known, section)?;
        return Some(Located { value: CutOff::By(formula), at: text.at });
    }
    let number: Located<Decimal> = section.optional_number(key)?;
    Some(Located { value: CutOff::At(number.value), at: number.at })
}
