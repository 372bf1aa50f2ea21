//! `[budget]` of a plan file: what a climb may cost.

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;

use crate::files::section::{Located, Section};
use crate::model::budget::{Budget, Coolant, TimeOfDay};
use crate::model::moment::Span;
use crate::model::plan::Proof;

/// Reads the budget, of a plan whose first stage has this proof.
pub(super) fn read(top: &Section, first: Option<&Proof>) -> Budget {
    let Some(section) = top.optional_section("budget") else { return Budget::default() };
    let hours = section.optional_number("hours");
    let restarts = section.optional_count("restarts", 1).map(|count| count.value);
    let changes = section.optional_count("changes", 1).map(|count| count.value);
    let coolant = section.optional_section("coolant").and_then(read_coolant);
    let until = section.optional_text("until");
    let problems = section.problems();
    section.finish();
    let until = until.and_then(|until| {
        TimeOfDay::parse(&until.value).map_err(|what| problems.add(until.at.clone(), what.to_string())).ok()
    });
    let hours = hours.and_then(|hours| read_hours(&hours, first, top));
    Budget { hours, restarts, changes, coolant, until }
}

fn read_hours(hours: &Located<Decimal>, first: Option<&Proof>, top: &Section) -> Option<Span> {
    let span = hours.value.to_f64().filter(|hours| *hours > 0.0).map(|hours| Span::from_millis((hours * 3.6e6) as u64));
    let problems = top.problems();
    match (span, first) {
        (None, _) => {
            let help = "write how many hours passes may run, or leave `hours` out";
            problems.advise(hours.at.clone(), "a budget of nothing leaves nothing to do", help);
        }
        (Some(span), Some(first)) if first.length() > span => {
            let what = format!("the first proof, `{}`, takes {} already", first.name, first.length());
            problems.advise(hours.at.clone(), what, "allow more hours, or begin with a shorter proof");
        }
        _ => {}
    }
    span
}

fn read_coolant(section: Section) -> Option<Coolant> {
    let litres = section.number("litres");
    let per_hour = section.number("per_hour");
    let per_restart = section.optional_number("per_restart").map(|litres| litres.value).unwrap_or_default();
    let per_cold_start = section.optional_number("per_cold_start").map_or(per_restart, |litres| litres.value);
    let problems = section.problems();
    section.finish();
    for number in [&litres, &per_hour].into_iter().flatten() {
        if number.value <= Decimal::ZERO {
            problems.add(number.at.clone(), "coolant is counted in litres above 0");
        }
    }
    Some(Coolant { litres: litres?.value, per_hour: per_hour?.value, per_restart, per_cold_start })
}
