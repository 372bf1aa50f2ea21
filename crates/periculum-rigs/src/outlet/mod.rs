//! Settings and sensors that no interface of the kernel serves: programs of the user's own, instruments, and displays.

mod program;
mod readings;

use std::path::Path;
use std::time::Duration;

use periculum_core::Decimal;
use periculum_core::model::moment::Span;
use periculum_core::model::outlet::{Inquiry, Outlet, number, with_value};
use periculum_core::model::quantity::harmless;

pub(crate) use readings::Readings;

use crate::display::{self, Guard};
use crate::scpi;

/// So much of an answer is shown.
const SHOWN: usize = 60;

/// What is in force, as whoever serves it says.
pub(crate) fn read(outlet: &Outlet) -> Result<Decimal, String> {
    match outlet {
        Outlet::Program { get, .. } => ask(get),
        Outlet::Instrument { address, read, patience, .. } => {
            let answer =
                scpi::ask(address, read, duration(*patience)).map_err(|error| format!("{address}: {error}"))?;
            number(&answer).ok_or_else(|| format!("{address} answers `{}`", shown(&answer)))
        }
        Outlet::Display { output, .. } => display::rate(output),
    }
}

/// Has whoever serves it bring a value into force.
pub(crate) fn write(outlet: &Outlet, value: Decimal) -> Result<(), String> {
    match outlet {
        Outlet::Program { set, get } => {
            // The program itself is the one that was allowed, whatever the value.
            let (program, arguments) = set.split_first().ok_or("there is no program to run")?;
            let arguments = arguments.iter().map(|argument| with_value(argument, value));
            let run: Vec<String> = std::iter::once(program.clone()).chain(arguments).collect();
            program::output_of(&run, duration(get.patience)).map(drop)
        }
        Outlet::Instrument { address, write, patience, .. } => {
            let told = |error| format!("{address}: {error}");
            scpi::tell(address, &with_value(write, value), duration(*patience)).map_err(told)
        }
        Outlet::Display { output, reduced, .. } => display::show(output, value, *reduced),
    }
}

/// Brings back a value that was there before this program came: as it was, and not as others are made.
pub(crate) fn put_back(outlet: &Outlet, value: Decimal) -> Result<(), String> {
    match outlet {
        Outlet::Display { output, .. } => display::show(output, value, false),
        Outlet::Program { .. } | Outlet::Instrument { .. } => write(outlet, value),
    }
}

/// The least and the most that an instrument itself takes, where it says so (SCPI 1999, volume 1, 7.2.1: `MINimum` and `MAXimum`).
fn bounds(outlet: &Outlet) -> Option<(Decimal, Decimal)> {
    let Outlet::Instrument { address, read, patience, .. } = outlet else { return None };
    // One that does not know the question says nothing, which is waited for no longer than this.
    let patience = duration(*patience).min(Duration::from_secs(1));
    let end = |which: &str| number(&scpi::ask(address, &format!("{read} {which}"), patience).ok()?);
    Some((end("MIN")?, end("MAX")?))
}

/// Whoever brings back what is in force now where nobody says in time that all is well; nobody where nothing is lost by waiting.
pub(crate) fn guard(outlet: &Outlet) -> Result<Option<Guard>, String> {
    let Outlet::Display { output, confirm, .. } = outlet else { return Ok(None) };
    Guard::of(output, display::patience(duration(*confirm))).map(Some)
}

/// What stands against values as low and as high as these: nobody can serve them.
pub(crate) fn objection(outlet: &Outlet, (lowest, highest): (Decimal, Decimal)) -> Option<String> {
    match outlet {
        Outlet::Program { .. } => {
            let absent = programs(outlet).into_iter().find(|program| !Path::new(program).exists())?;
            Some(format!("it is set by `{absent}`, which is not there"))
        }
        Outlet::Instrument { .. } => {
            let (least, most) = bounds(outlet)?;
            let is_within = lowest >= least && highest <= most;
            (!is_within).then(|| format!("the instrument itself takes {least} to {most}"))
        }
        Outlet::Display { output, reduced, beyond, .. } => match display::objection(output, highest, *reduced) {
            Err(why) => Some(why),
            Ok(why) => why
                .filter(|_| beyond.is_none())
                .map(|why| format!("{why}; say why it may go beyond that, with `beyond = \"…\"`")),
        },
    }
}

/// The number that a program says.
fn ask(inquiry: &Inquiry) -> Result<Decimal, String> {
    let output = program::output_of(&inquiry.run, duration(inquiry.patience))?;
    inquiry.number(&output).ok_or_else(|| format!("`{}` says no number: {}", inquiry.run[0], shown(&output)))
}

/// What people call it: the program or the instrument, with what it is told.
pub(crate) fn name(outlet: &Outlet) -> String {
    match outlet {
        Outlet::Program { set, .. } => set.join(" "),
        Outlet::Instrument { address, write, .. } => format!("{address} {write}"),
        Outlet::Display { output, .. } => format!("display {output}"),
    }
}

/// What decides what is run or sent.
pub(crate) fn terms(outlet: &Outlet) -> Vec<(String, String)> {
    let term = |name: &str, value: String| (name.to_owned(), value);
    match outlet {
        Outlet::Program { set, get } => {
            let mut terms = vec![term("is run", listed(set))];
            terms.extend(of_inquiry(get));
            terms
        }
        Outlet::Instrument { address, write, read, .. } => {
            vec![term("instrument", address.clone()), term("is sent", write.clone()), term("is asked", read.clone())]
        }
        Outlet::Display { output, reduced, confirm, beyond } => {
            let blanking = if *reduced { "reduced" } else { "as it is now" };
            let mut terms = vec![
                term("output", output.clone()),
                term("blanking", blanking.to_owned()),
                term("goes back without a word within", confirm.to_string()),
            ];
            terms.extend(beyond.iter().map(|reason| term("GOES BEYOND WHAT THE SCREEN SAYS, since", reason.clone())));
            terms
        }
    }
}

/// What decides what is run to be read, and what of it counts.
pub(crate) fn of_inquiry(inquiry: &Inquiry) -> Vec<(String, String)> {
    let mut terms = vec![("is run to read it".to_owned(), listed(&inquiry.run))];
    terms.extend(inquiry.pattern.iter().map(|pattern| ("the number is".to_owned(), pattern.clone())));
    terms
}

/// Arguments one by one, so that none can be taken for two.
fn listed(run: &[String]) -> String {
    run.iter().map(|argument| format!("`{argument}`")).collect::<Vec<_>>().join(" ")
}

/// The program that has to be there; none where it is an instrument.
pub(crate) fn programs(outlet: &Outlet) -> Vec<&str> {
    match outlet {
        Outlet::Program { set, get } => {
            [set, &get.run].into_iter().filter_map(|run| run.first()).map(String::as_str).collect()
        }
        Outlet::Instrument { .. } | Outlet::Display { .. } => Vec::new(),
    }
}

fn shown(answer: &str) -> String {
    harmless(answer.trim()).chars().take(SHOWN).collect()
}

fn duration(span: Span) -> Duration {
    Duration::from_millis(span.millis())
}

#[cfg(test)]
mod tests {
    use super::*;
    use periculum_core::model::outlet::VALUE;

    #[test]
    fn arguments_can_not_be_taken_for_others() {
        let outlet = |set: &[&str]| Outlet::Program {
            set: set.iter().map(|text| (*text).to_owned()).collect(),
            get: Inquiry { run: vec!["/bin/true".into()], pattern: None, patience: Span::from_seconds(1) },
        };
        let (one, two) = (outlet(&["/bin/a", "b {value}"]), outlet(&["/bin/a", "b", VALUE]));
        assert_eq!(name(&one), name(&two));
        assert_ne!(terms(&one), terms(&two), "and what is allowed is told apart");
    }
}
