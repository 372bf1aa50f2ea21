//! `periculum check`: says what files are, or what is wrong with them and where.

use std::path::Path;
use std::process::ExitCode;

use anyhow::Result;
use periculum_core::files::Problem;
use periculum_core::model::quantity::harmless;
use serde_json::{Value, json};

use super::LEDGER;
use crate::briefing::{self, SavedOf};
use crate::cli::{Check, Common};
use crate::climbing::saved_in;
use crate::complaint::{self, BAD_INPUT, BadFile};
use crate::output::{hand_out, say_lines};
use crate::places;
use crate::telling::files;
use crate::tui::Preferences;

pub(super) fn run(check: &Check, common: &Common) -> Result<ExitCode> {
    let ledger = places::ledger(common, LEDGER).ok();
    let saved = ledger.as_deref().map(saved_in);
    let saved_of = |rig: &str| saved.as_ref().map(|saved| saved(rig)).unwrap_or_default();
    let mut is_good = true;
    for path in &check.files {
        let found = what_is(path, &saved_of);
        if check.listing.json {
            is_good &= found.is_ok();
            hand_out(as_json(path, &found).to_string());
            continue;
        }
        match found {
            Ok(what) => say_lines(&format!("{}: {what}", harmless(&path.display().to_string()))),
            Err(error) => {
                is_good = false;
                complaint::tell(&error);
            }
        }
    }
    Ok(if is_good { ExitCode::SUCCESS } else { ExitCode::from(BAD_INPUT) })
}

/// What a file is or what is wrong with it, each problem with the line and column where it begins.
fn as_json(path: &Path, found: &Result<String>) -> Value {
    let error = match found {
        Ok(what) => return json!({ "file": path, "is_good": true, "what": what }),
        Err(error) => error,
    };
    let Some(bad) = error.downcast_ref::<BadFile>() else {
        return json!({ "file": path, "is_good": false, "problems": [{ "what": format!("{error:#}") }] });
    };
    let problem = |problem: &Problem| {
        let before = bad.source_text.get(..problem.at.start).unwrap_or(&bad.source_text);
        let line = before.matches('\n').count() + 1;
        let column = before.rsplit('\n').next().unwrap_or_default().chars().count() + 1;
        json!({ "line": line, "column": column, "what": problem.what, "help": problem.help })
    };
    let problems: Vec<Value> = bad.problems.iter().map(problem).collect();
    // What is wrong may stand in a file that this one names.
    json!({ "file": path, "is_good": false, "in": bad.path, "problems": problems })
}

/// What a file is, in a sentence.
fn what_is(path: &Path, saved_of: SavedOf) -> Result<String> {
    let is_preferences = places::preferences().is_ok_and(|own| path.canonicalize().ok() == own.canonicalize().ok());
    if is_preferences && path.exists() {
        return Preferences::read(path).map(|_| files::PREFERENCES_ARE.to_owned());
    }
    briefing::check(path, saved_of)
}
