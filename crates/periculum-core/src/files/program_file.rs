//! `[program.NAME]`: programs of the user's own, in plans and proofs.

use std::collections::BTreeSet;

use crate::files::section::{Located, Section};
use crate::files::task_file::read_better;
use crate::files::written::DIGEST;
use crate::model::formula::Formula;
use crate::model::program::{Measure, Output, Program, SECONDS};
use crate::model::quantity::harmless;

/// Reads every `[program.NAME]`; none may be called like one of these loads.
pub fn read(top: &Section, loads: &[&str]) -> Vec<Program> {
    top.named_sections("program").into_iter().filter_map(|(name, section)| read_program(name, section, loads)).collect()
}

fn read_program(name: Located<String>, section: Section, loads: &[&str]) -> Option<Program> {
    let problems = section.problems();
    let run = section.optional_texts("run");
    let limit = section.time("limit");
    let folder = section.optional_text("folder");
    let status = section.optional_count("status", 0).map_or(0, |status| status.value.cast_signed());
    let output = section.optional_text("output").map_or(Some(Output::Any), |output| read_output(&output, &section));
    let score = section.optional_section("score").map(read_measure);
    if loads.contains(&name.value.as_str()) || name.value != harmless(&name.value) || name.value.is_empty() {
        problems.add(name.at.clone(), format!("`{}` can't be the name of a program: choose another", name.value));
    }
    match run.as_ref().map(|run| (run.value.first().map(String::as_str), run)) {
        Some((Some(""), run)) | Some((None, run)) => problems.add(run.at.clone(), "`run` names no program"),
        Some((Some(first), run)) if first.contains('/') && !first.starts_with('/') => problems.advise(
            run.at.clone(),
            format!("`{first}` is not a whole path, and a climb may go on from another folder"),
            "write the path from / on, or the name alone for a program that is found in PATH",
        ),
        None if !section.has("run") => {
            let help = "write `run = [\"program\", \"first argument\", \"second argument\"]`";
            problems.advise(name.at.clone(), format!("program `{}` needs `run`", name.value), help);
        }
        _ => {}
    }
    if let Some(limit) = limit.as_ref().filter(|limit| limit.value.millis() == 0) {
        problems.add(limit.at.clone(), "no run can end in no time");
    }
    if let Some(folder) = folder.as_ref().filter(|folder| !folder.value.starts_with('/')) {
        problems.add(folder.at.clone(), "`folder` must be a whole path, from / on");
    }
    section.finish();
    Some(Program {
        name: name.value,
        run: run?.value,
        folder: folder.map(|folder| folder.value),
        limit: limit?.value,
        status,
        output: output?,
        score: score.flatten(),
    })
}

/// Complains of every program that scores a time and does not say whether less of it is better. Files of before may leave that open, so
/// that this is asked of those that somebody writes now.
pub fn wants_better(top: &Section, loads: &[&str]) {
    let read = read(top, loads);
    for (name, section) in top.named_sections("program") {
        let measure = read.iter().find(|program| program.name == name.value).and_then(|program| program.score.as_ref());
        let Some(measure) = measure.filter(|measure| measure.is_time() && measure.better.is_none()) else { continue };
        let what = format!("the score of program `{}` is a time, and it does not say which is better", name.value);
        let help = format!("write `better = \"less\"` or `better = \"more\"` beside `unit = \"{}\"`", measure.unit);
        section.problems().advise(name.at, what, help);
    }
}

/// `any`, `same` or `sha256:` and 64 digits.
fn read_output(output: &Located<String>, section: &Section) -> Option<Output> {
    let digest = output.value.strip_prefix(DIGEST).map(str::to_ascii_lowercase);
    let is_digest = |digest: &String| digest.len() == 64 && digest.bytes().all(|byte| byte.is_ascii_hexdigit());
    match (output.value.as_str(), digest) {
        ("any", _) => Some(Output::Any),
        ("same", _) => Some(Output::Same),
        (_, Some(digest)) if is_digest(&digest) => Some(Output::Digest(digest)),
        _ => {
            let what = format!("`{}` does not say what a right output is", output.value);
            let help = "write \"any\", \"same\" for what the first run of a pass put out, or \"sha256:\" and 64 digits";
            section.problems().advise(output.at.clone(), what, help);
            None
        }
    }
}

fn read_measure(section: Section) -> Option<Measure> {
    let problems = section.problems();
    let pattern = section.optional_text("pattern");
    let formula = section.text("formula");
    let unit = section.text("unit");
    let better = read_better(&section);
    section.finish();
    let mut names = BTreeSet::from([SECONDS.to_owned()]);
    if let Some(pattern) = &pattern {
        match regex::Regex::new(&pattern.value) {
            Ok(read) => names.extend(read.capture_names().flatten().map(str::to_owned)),
            Err(error) => problems.add(pattern.at.clone(), format!("the pattern can't be read: {error}")),
        }
    }
    let formula = formula?;
    match Formula::parse(&formula.value) {
        Ok(read) => {
            for (name, _) in read.names().into_iter().filter(|(name, _)| !names.contains(*name)) {
                let known: Vec<&str> = names.iter().map(String::as_str).collect();
                problems.unknown(formula.at.clone(), "name in the pattern", name, &known);
            }
        }
        Err(error) => problems.add(formula.at.clone(), error.what),
    }
    Some(Measure {
        pattern: pattern.map(|pattern| pattern.value),
        formula: formula.value,
        unit: harmless(&unit?.value),
        better,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::files::written::program_text;
    use crate::files::{Document, Problems};
    use crate::model::moment::Span;
    use crate::model::task::Better;
    use proptest::prelude::*;

    fn read_text(text: &str) -> (Vec<Program>, Vec<String>) {
        let document = Document::parse(text).expect("a document");
        let problems = Problems::default();
        let programs = read(&document.top(&problems), &["dense"]);
        (programs, problems.into_sorted().into_iter().map(|problem| problem.what).collect())
    }

    fn program() -> impl Strategy<Value = Program> {
        let output = prop_oneof![Just(Output::Any), Just(Output::Same), "[0-9a-f]{64}".prop_map(Output::Digest)];
        let pattern = prop_oneof![Just(None), Just(Some(r#"done "(?<count>[\d.]+)" of\t'all'"#.to_owned()))];
        let better = prop_oneof![Just(None), Just(Some(Better::More)), Just(Some(Better::Less))];
        let score = (pattern, "[a-z/]{1,6}", better).prop_map(|(pattern, unit, better)| {
            let formula = if pattern.is_some() { "count / seconds" } else { "60 / seconds" };
            Measure { pattern, formula: formula.into(), unit, better }
        });
        let words = prop::collection::vec(any::<String>(), 0..4);
        let rest = (proptest::option::of("/[^\0]{0,9}"), 1u64..1 << 40, 0i32..256, output, proptest::option::of(score));
        ("[a-z][a-z .0-9-]{0,8}", words, rest).prop_filter("a load's name", |(name, ..)| name != "dense").prop_map(
            |(name, arguments, (folder, limit, status, output, score))| Program {
                name,
                run: std::iter::once("work".to_owned()).chain(arguments).collect(),
                folder,
                limit: Span::from_millis(limit),
                status,
                output,
                score,
            },
        )
    }

    proptest! {
        #[test]
        fn what_is_written_is_read_as_the_same(program in program()) {
            let (read, problems) = read_text(&format!("format = 1\n{}", program_text(&program)));
            prop_assert_eq!(problems, Vec::<String>::new());
            prop_assert_eq!(read, [program]);
        }
    }

    #[test]
    fn a_time_says_whether_less_of_it_is_better() {
        for (score, told) in [
            ("formula = \"seconds\", unit = \"ms\"", 1),
            ("formula = \"seconds\", unit = \"ms\", better = \"less\"", 0),
            ("formula = \"1 / seconds\", unit = \"1/s\"", 0),
        ] {
            let text = format!("format = 1\n[program.a]\nrun = [\"a\"]\nlimit = \"1s\"\nscore = {{ {score} }}\n");
            let document = Document::parse(&text).expect("a document");
            let problems = Problems::default();
            wants_better(&document.top(&problems), &[]);
            let problems = problems.into_sorted();
            assert_eq!(problems.len(), told, "{score}: {problems:?}");
            assert!(
                problems.iter().all(|it| it.what.contains("which is better") && text[it.at.clone()].contains('a')),
                "{problems:?}"
            );
        }
        let [(left_open, is_less), (said, is_more)] = ["", ", better = \"more\""].map(|better| {
            let score = format!("score = {{ formula = \"seconds\", unit = \"s\"{better} }}");
            let (read, problems) =
                read_text(&format!("format = 1\n[program.a]\nrun = [\"a\"]\nlimit = \"1s\"\n{score}\n"));
            let measure = read.into_iter().next().and_then(|program| program.score).expect("a score");
            (problems, measure.less_is_better())
        });
        assert!(left_open.is_empty() && said.is_empty() && is_less && !is_more);
    }

    #[test]
    fn what_is_wrong_is_told() {
        for (line, told) in [
            ("[program.dense]\nrun = [\"a\"]\nlimit = \"1s\"", "can't be the name of a program"),
            ("[program.a]\nlimit = \"1s\"", "program `a` needs `run`"),
            ("[program.a]\nrun = []\nlimit = \"1s\"", "names no program"),
            ("[program.a]\nrun = [\"./a\"]\nlimit = \"1s\"", "not a whole path"),
            ("[program.a]\nrun = \"a b\"\nlimit = \"1s\"", "`run` must be a list of texts"),
            ("[program.a]\nrun = [\"a\"]", "needs `limit`"),
            ("[program.a]\nrun = [\"a\"]\nlimit = \"0s\"", "no run can end in no time"),
            ("[program.a]\nrun = [\"a\"]\nlimit = \"1s\"\nfolder = \"x\"", "whole path"),
            ("[program.a]\nrun = [\"a\"]\nlimit = \"1s\"\noutput = \"sha256:12\"", "what a right output is"),
            (
                "[program.a]\nrun = [\"a\"]\nlimit = \"1s\"\nscore = { formula = \"x\", unit = \"s\" }",
                "no name in the pattern `x`",
            ),
            (
                "[program.a]\nrun = [\"a\"]\nlimit = \"1s\"\nscore = { pattern = \"(\", formula = \"1\", unit = \"s\" }",
                "pattern can't be read",
            ),
            ("[program.a]\nrun = [\"a\"]\nlimit = \"1s\"\nshell = true", "key in"),
        ] {
            let (_, problems) = read_text(&format!("format = 1\n{line}\n"));
            assert!(problems.iter().any(|problem| problem.contains(told)), "{line}: {problems:?}");
        }
    }
}
