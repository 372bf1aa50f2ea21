//! `set`, `get` and `pattern` of what a program of the user's own serves; `instrument`, `write` and `read` of what an instrument
//! does; `output`, `blanking` and `beyond` of a display's refresh rate.

use regex::Regex;

use crate::files::section::{Located, Section};
use crate::model::moment::Span;
use crate::model::outlet::{GROUP, Inquiry, Outlet, VALUE};
use crate::model::quantity::harmless;

/// The name that rig files have for the adapter of programs.
pub const PROGRAM: &str = "program";

/// The name that they have for that of instruments.
pub const INSTRUMENT: &str = "scpi";

/// The name that they have for that of displays.
pub const DISPLAY: &str = "display";

/// How long a program or an instrument may take where nobody says, and at the most: who ends a climb waits for it.
const PATIENCE: Span = Span::from_millis(1500);
const MOST_PATIENCE: Span = Span::from_seconds(10);

/// Reads what serves a setting of this adapter; none where it is another one.
pub(super) fn read(section: &Section, adapter: &str) -> Option<Outlet> {
    match adapter {
        PROGRAM => {
            let set = section.optional_texts("set");
            let get = inquiry(section);
            let set = runnable(section, set, "set = [\"/usr/local/bin/card\", \"--offset\", \"{value}\"]")?;
            if !set.value[1..].iter().any(|argument| argument.contains(VALUE)) {
                let help = "write `{value}` where the value belongs, in an argument";
                section.problems().advise(set.at, "`set` has no place for the value", help);
                return None;
            }
            Some(Outlet::Program { set: set.value, get: get? })
        }
        INSTRUMENT => {
            let (address, write, read) = (section.text("instrument"), section.text("write"), section.text("read"));
            let patience = patience(section);
            let (address, write, read) = (address?, write?, read?);
            let is_one = |text: &str| text == harmless(text) && !text.contains([';', '\n']);
            let has_port = address
                .value
                .rsplit_once(':')
                .is_some_and(|(host, port)| !host.is_empty() && port.parse::<u16>().is_ok_and(|port| port > 0));
            let problems = section.problems();
            if !has_port {
                problems.advise(address.at, "an instrument has a host and a port", "write `\"127.0.0.1:5025\"`");
            } else if !write.value.contains(VALUE) || !is_one(&write.value) {
                problems.advise(write.at, "this is no one command with a value", "write `\"VOLT {value}\"`");
            } else if !read.value.trim().ends_with('?') || !is_one(&read.value) {
                problems.advise(read.at, "this is no one question", "write `\"VOLT?\"`");
            } else {
                let (address, write, read) = (address.value, write.value, read.value.trim().to_owned());
                return Some(Outlet::Instrument { address, write, read, patience });
            }
            None
        }
        DISPLAY => {
            let (output, confirm) = (section.text("output"), section.has("confirm").then(|| section.time("confirm")));
            let blankings = [("as-now", false), ("reduced", true)];
            let reduced = section.has("blanking").then(|| section.choice("blanking", &blankings)).flatten();
            let beyond = section.optional_text("beyond").map(|text| harmless(text.value.trim()));
            if confirm.is_none() {
                let what = "a mode that nobody confirms could leave nobody able to";
                section.problems().advise(section.at(), what, "write `confirm = \"20s\"`");
            }
            Some(Outlet::Display {
                output: output?.value,
                reduced: reduced.is_some_and(|reduced| reduced.value),
                confirm: confirm??.value,
                beyond: beyond.filter(|reason| !reason.is_empty()),
            })
        }
        _ => None,
    }
}

/// `get`, `pattern` and `patience`.
pub(super) fn inquiry(section: &Section) -> Option<Inquiry> {
    let run = section.optional_texts("get");
    let pattern = section.optional_text("pattern");
    let patience = patience(section);
    let run = runnable(section, run, "get = [\"/usr/local/bin/card\", \"--show\"]");
    if let Some(pattern) = &pattern {
        let has_group = |regex: &Regex| regex.capture_names().flatten().any(|name| name == GROUP);
        match Regex::new(&pattern.value) {
            Err(error) => {
                let last = error.to_string().lines().last().unwrap_or_default().to_owned();
                section.problems().add(pattern.at.clone(), format!("the pattern can't be read: {last}"));
                return None;
            }
            Ok(regex) if !has_group(&regex) => {
                let help = "write it with a group of that name, as in `'offset: (?<value>-?[0-9]+)'`";
                section.problems().advise(pattern.at.clone(), "the pattern finds no `value`", help);
                return None;
            }
            Ok(_) => {}
        }
    }
    Some(Inquiry { run: run?.value, pattern: pattern.map(|pattern| pattern.value), patience })
}

/// A program and its arguments, that program by its whole path.
fn runnable(
    section: &Section,
    run: Option<Located<Vec<String>>>,
    example: &'static str,
) -> Option<Located<Vec<String>>> {
    let key = example.split(' ').next().unwrap_or_default();
    let Some(run) = run else {
        if !section.has(key) {
            section.problems().advise(section.at(), format!("`{key}` is missing"), format!("write `{example}`"));
        }
        return None;
    };
    let is_whole = run.value.first().is_some_and(|program| program.starts_with('/'));
    if !is_whole {
        let what = "a program is named by its whole path, whoever runs it";
        section.problems().advise(run.at.clone(), what, format!("write `{example}`"));
    }
    is_whole.then_some(run)
}

fn patience(section: &Section) -> Span {
    let Some(patience) = section.has("patience").then(|| section.time("patience")).flatten() else { return PATIENCE };
    if !(Span::from_millis(1)..=MOST_PATIENCE).contains(&patience.value) {
        section.problems().add(patience.at, format!("`patience` must be above nothing, and {MOST_PATIENCE} at most"));
    }
    patience.value.min(MOST_PATIENCE)
}
