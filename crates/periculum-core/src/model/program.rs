//! A program of the user's own as a load: how it is run, and what makes a run of it right, wrong or a score.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};

use crate::model::formula::Formula;
use crate::model::moment::Span;
use crate::model::task::Better;

/// The name that a formula knows the seconds of a run by.
pub const SECONDS: &str = "seconds";

/// A program, as a plan or a proof defines it.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Program {
    /// What passes call it.
    pub name: String,
    /// The program, by its whole path or its name alone, and its arguments; no shell reads them.
    pub run: Vec<String>,
    /// The folder it runs in, a whole path; none for the one that this program runs in.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub folder: Option<String>,
    /// How long a run may take; one that takes longer is stopped, and wrong.
    pub limit: Span,
    /// The exit status of a right run.
    pub status: i32,
    /// What the output of a right run is.
    pub output: Output,
    /// What its score is; without one it is only right or wrong.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub score: Option<Measure>,
}

/// What the output of a right run is.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Output {
    /// Anything.
    Any,
    /// In each run of a pass what it was in the first.
    Same,
    /// What has this SHA-256, in hexadecimal digits (FIPS 180-4).
    Digest(String),
}

/// How a score is taken from a run.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Measure {
    /// Names numbers of the output by its named groups; its last match counts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pattern: Option<String>,
    /// The score, over the pattern's names and [`SECONDS`].
    pub formula: String,
    /// The score's unit.
    pub unit: String,
    /// Whether more of it is better; where nothing is said that is so, but of times.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub better: Option<Better>,
}

/// Units of time.
const TIMES: [&str; 7] = ["ns", "µs", "us", "ms", "s", "min", "h"];

impl Measure {
    /// Whether less of it is better.
    pub fn less_is_better(&self) -> bool {
        self.better.map_or_else(|| self.is_time(), |better| better == Better::Less)
    }

    /// Whether the score is a time, of which nobody knows whether it is one that something lasts or one that it takes.
    pub fn is_time(&self) -> bool {
        TIMES.contains(&self.unit.as_str())
    }
}

/// How a run ended.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum RunEnd {
    /// With this exit status.
    Exited(i32),
    /// By this signal.
    Signalled(i32),
    /// It was stopped at its time limit.
    TimedOut,
}

/// A run that is over.
#[derive(Clone, Debug, PartialEq)]
pub struct Run<'a> {
    /// How it ended.
    pub end: RunEnd,
    /// How long it took, seconds.
    pub seconds: f64,
    /// SHA-256 of all its output, in hexadecimal digits.
    pub digest: &'a str,
    /// Its output, or the last of it.
    pub output: &'a str,
    /// The last line of what it said about errors.
    pub last_words: &'a str,
}

/// What was wrong with a run.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Misrun {
    /// Which property of the run, as in `exit status`.
    pub part: &'static str,
    /// What it should have been.
    pub expected: String,
    /// What it was.
    pub found: String,
}

impl Misrun {
    fn new(part: &'static str, expected: impl Into<String>, found: impl Into<String>) -> Self {
        Self { part, expected: expected.into(), found: found.into() }
    }
}

impl Program {
    /// What a permission to run it is given for: SHA-256 of everything in its definition, in hexadecimal digits.
    pub fn digest(&self) -> String {
        // A structure of texts and numbers always has a JSON form.
        let text = serde_json::to_vec(self).unwrap_or_default();
        hex(&Sha256::digest(text))
    }

    /// Judges a run; `first` is the digest of the pass's first right run, where there was one. A right run may have a
    /// score.
    ///
    /// # Errors
    /// What was wrong with the run.
    pub fn judge(&self, run: &Run, first: Option<&str>) -> Result<Option<f64>, Misrun> {
        self.judge_end(run)?;
        let wanted = match &self.output {
            Output::Any => None,
            Output::Same => first,
            Output::Digest(digest) => Some(digest.as_str()),
        };
        match wanted {
            Some(wanted) if wanted != run.digest => Err(Misrun::new("SHA-256 of the output", wanted, run.digest)),
            _ => self.score.as_ref().map(|measure| measure.score(run)).transpose(),
        }
    }

    fn judge_end(&self, run: &Run) -> Result<(), Misrun> {
        let words = if run.last_words.is_empty() { String::new() } else { format!(" ({})", run.last_words) };
        match run.end {
            RunEnd::Exited(status) if status == self.status => Ok(()),
            RunEnd::Exited(status) => {
                Err(Misrun::new("exit status", self.status.to_string(), format!("{status}{words}")))
            }
            RunEnd::Signalled(signal) => {
                let expected = format!("exit status {}", self.status);
                Err(Misrun::new("end of the run", expected, format!("signal {signal}{words}")))
            }
            RunEnd::TimedOut => Err(Misrun::new("time of the run", format!("at most {}", self.limit), "more")),
        }
    }
}

impl Measure {
    fn score(&self, run: &Run) -> Result<f64, Misrun> {
        let number = || format!("a number of {}", self.unit);
        let pattern = self.pattern.as_deref().map(regex::Regex::new);
        let found = match &pattern {
            None => None,
            Some(Ok(pattern)) => match pattern.captures_iter(run.output).last() {
                None => return Err(Misrun::new("output", format!("a match of /{pattern}/"), "none")),
                found => found,
            },
            Some(Err(error)) => return Err(Misrun::new("pattern", "one that can be read", error.to_string())),
        };
        let named = |name: &str| match name {
            SECONDS => Decimal::from_f64_retain(run.seconds),
            name => found.as_ref()?.name(name)?.as_str().parse().ok(),
        };
        let formula = Formula::parse(&self.formula).map_err(|error| Misrun::new("formula", number(), error.what))?;
        let value = formula.value(named).and_then(|value| f64::try_from(value).ok());
        value.ok_or_else(|| {
            let text = |name| found.as_ref().and_then(|found| found.name(name)).map(|text| text.as_str());
            let told = |(name, _)| text(name).map(|text| format!("{name} = {text:?}"));
            let texts: Vec<String> = formula.names().into_iter().filter_map(told).collect();
            Misrun::new("score", number(), format!("no value of {} with {}", self.formula, texts.join(", ")))
        })
    }
}

/// Bytes as hexadecimal digits.
pub fn hex(bytes: &[u8]) -> String {
    bytes.iter().map(|byte| format!("{byte:02x}")).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn program(output: Output) -> Program {
        Program {
            name: "flats".into(),
            run: vec!["stack-flats".into(), "--frames".into(), "40".into()],
            folder: None,
            limit: Span::from_seconds(60),
            status: 0,
            output,
            score: Some(Measure {
                pattern: Some(r"stacked (?<frames>\d+)".into()),
                formula: "frames / seconds".into(),
                unit: "frames/s".into(),
                better: None,
            }),
        }
    }

    fn run(output: &str) -> Run<'_> {
        Run { end: RunEnd::Exited(0), seconds: 8.0, digest: "aa", output, last_words: "" }
    }

    #[test]
    fn the_last_match_becomes_a_score() {
        let output = "stacked 10\nstacked 40\n";
        assert_eq!(program(Output::Any).judge(&run(output), None), Ok(Some(5.0)));
        let unscored = Program { score: None, ..program(Output::Any) };
        assert_eq!(unscored.judge(&run(output), None), Ok(None));
    }

    #[test]
    fn every_way_to_be_wrong_is_told() {
        let told = |program: Program, run: &Run, first| {
            let misrun = program.judge(run, first).expect_err("a wrong run");
            format!("{}: {} instead of {}", misrun.part, misrun.found, misrun.expected)
        };
        let right = run("stacked 40");
        let failed = Run { end: RunEnd::Exited(3), last_words: "no flats", ..right.clone() };
        assert_eq!(told(program(Output::Any), &failed, None), "exit status: 3 (no flats) instead of 0");
        let killed = Run { end: RunEnd::Signalled(11), ..right.clone() };
        assert_eq!(told(program(Output::Any), &killed, None), "end of the run: signal 11 instead of exit status 0");
        let late = Run { end: RunEnd::TimedOut, ..right.clone() };
        assert_eq!(told(program(Output::Any), &late, None), "time of the run: more instead of at most 1 min");
        let other = "SHA-256 of the output: aa instead of bb";
        assert_eq!(told(program(Output::Digest("bb".into())), &right, None), other);
        assert_eq!(told(program(Output::Same), &right, Some("bb")), other);
        assert!(program(Output::Same).judge(&right, None).is_ok());
        let silent = told(program(Output::Any), &run("nothing"), None);
        assert_eq!(silent, r"output: none instead of a match of /stacked (?<frames>\d+)/");
        let instant = Run { seconds: 0.0, ..right };
        let told = told(program(Output::Any), &instant, None);
        assert_eq!(told, "score: no value of frames / seconds with frames = \"40\" instead of a number of frames/s");
    }

    #[test]
    fn any_change_of_the_definition_changes_its_digest() {
        let digest = program(Output::Any).digest();
        assert_eq!(digest, program(Output::Any).digest());
        let mut other = program(Output::Any);
        other.run[2] = "41".into();
        for other in [other, program(Output::Same), Program { status: 1, ..program(Output::Any) }] {
            assert_ne!(digest, other.digest());
        }
    }
}
