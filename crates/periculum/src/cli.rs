//! What can be typed on the command line.

use std::path::PathBuf;
use std::str::FromStr;

use clap::builder::PossibleValuesParser;
use clap::{Args, Parser, Subcommand};
use clap_complete::Shell;
use periculum_core::model::amount::{self, Amount};
use periculum_core::model::moment::Span;
use periculum_core::model::pass::Threads;

use crate::briefing::real_loads;
use crate::practice;
use crate::telling::arguments;

/// Finds the highest setting that this specimen of hardware holds, and loses nothing when the machine dies.
#[derive(Parser, Debug)]
#[command(name = "periculum", version, max_term_width = 100, after_help = arguments::EXIT_CODES)]
pub(crate) struct Arguments {
    /// What to do; without a command a screen shows what waits, what there is and what can be done.
    #[command(subcommand)]
    pub(crate) command: Option<Command>,

    #[command(flatten)]
    pub(crate) common: Common,
}

/// What every command takes.
#[derive(Args, Debug, Clone)]
pub(crate) struct Common {
    /// The ledger file, instead of the one in the user's data folder.
    #[arg(long, global = true, value_name = "FILE")]
    pub(crate) ledger: Option<PathBuf>,

    /// Say nothing but what other programs read, and what went wrong; the exit code tells the rest.
    #[arg(short, long, global = true)]
    pub(crate) quiet: bool,

    /// Write more into the log, whose file `periculum where` tells.
    #[arg(short, long, global = true, conflicts_with = "quiet")]
    pub(crate) verbose: bool,

    /// Where the kernel's file systems stand.
    #[arg(long, global = true, value_name = "DIR", default_value = "/", hide = true, overrides_with = "sysroot")]
    pub(crate) sysroot: PathBuf,
}

#[derive(Subcommand, Debug)]
pub(crate) enum Command {
    /// Show a climb on a simulated rig, as it happens.
    Demo(Demo),
    /// Climb a plan.
    Climb(Climb),
    /// Go on with the climb that was not finished.
    Resume(Resume),
    /// Prove the settings that are in force now, and change nothing.
    Prove(Prove),
    /// Run benchmarks of this machine as it is, until they are known well enough.
    Score(Score),
    /// Let programs of your own be run as loads, or settings of this machine be written.
    Allow(Allow),
    /// Put back what an earlier climb on this machine changed and left.
    Restore,
    /// Tell where everything is kept: ledgers, permissions, what has to be put back, the log.
    Where(Listing),
    /// Look at this machine and print a rig file of what it offers.
    Rig,
    /// Check rig, plan and proof files.
    Check(Check),
    /// Write a plan: what it would do, how long that takes, and what of it can't be.
    Plan(Plan),
    /// List climbs, or the trials and incidents of one.
    Ledger(Ledger),
    /// List saved profiles, apply one, or have one applied when the machine starts.
    Profile(Profile),
    /// Write a report (.pdf, .html, .md) or a picture (.svg, .pdf) of a climb.
    Report(Report),
    /// Prove that what was handed on (`report --bundle`) is whole and unchanged; no ledger is needed.
    Verify(Verify),
    /// Look at a climb of the ledger in every view.
    Show(Show),
    /// Write the trials, scores, incidents or samples of a climb as a table, or its marks for monitoring.
    Export(Export),
    /// Lay what an instrument wrote into a file of its own beside the readings of a climb.
    Attach(Attach),
    /// Write down a result from elsewhere to be ranked with, or list those that are.
    Enter(Enter),
    /// Tell the truth about a simulated rig: what holds, and how often.
    Reveal(Reveal),
    /// Be a multimeter in software, whose probes are on the simulated rig that is being climbed.
    Meter(Meter),
    /// Print what a shell needs to complete commands and options.
    Completions(Completions),
    /// Print the manual page, or write those of all commands into a folder.
    Man(Man),
    /// Run a load as a child of another periculum.
    #[command(hide = true)]
    Load(Load),
    /// Bring the mode of a display back where nobody says in time that the new one is well.
    #[command(hide = true)]
    DisplayGuard(DisplayGuard),
}

/// How a list is written.
#[derive(Args, Debug)]
pub(crate) struct Listing {
    /// One JSON object a line.
    #[arg(long)]
    pub(crate) json: bool,
}

#[derive(Args, Debug)]
pub(crate) struct Completions {
    /// The shell.
    #[arg(value_enum)]
    pub(crate) shell: Shell,
}

#[derive(Args, Debug)]
pub(crate) struct Man {
    /// The folder for a page of each command.
    #[arg(short, long, value_name = "DIR")]
    pub(crate) output: Option<PathBuf>,
}

#[derive(Args, Debug)]
pub(crate) struct DisplayGuard {
    pub(crate) output: String,

    pub(crate) millis: u64,
}

#[derive(Args, Debug)]
pub(crate) struct Demo {
    /// The rig to see: dome where nobody says.
    #[arg(value_parser = PossibleValuesParser::new(practice::names()))]
    pub(crate) rig: Option<String>,

    #[command(flatten)]
    pub(crate) simulation: Simulation,
}

#[derive(Args, Debug)]
pub(crate) struct Plan {
    /// The plan file.
    pub(crate) plan: PathBuf,

    /// The rig file that a new plan is for.
    #[arg(long, value_name = "FILE")]
    pub(crate) rig: Option<PathBuf>,
}

#[derive(Args, Debug)]
pub(crate) struct Climb {
    /// The plan file.
    #[arg(required_unless_present = "again")]
    pub(crate) plan: Option<PathBuf>,

    /// Climb this climb of the ledger again: its plan on its rig, both as they were recorded.
    #[arg(long, value_name = "CLIMB", conflicts_with = "plan", value_parser = parse_climb)]
    pub(crate) again: Option<i64>,

    /// Begin without asking first.
    #[arg(short, long, conflicts_with_all = ["headless", "json"])]
    pub(crate) yes: bool,

    #[command(flatten)]
    pub(crate) simulation: Simulation,

    #[command(flatten)]
    pub(crate) output: Output,
}

#[derive(Args, Debug)]
pub(crate) struct Resume {
    /// The climb to go on with, as `periculum ledger` lists it, instead of the newest that is not finished.
    #[arg(value_parser = parse_climb)]
    pub(crate) climb: Option<i64>,

    /// Nobody is there: go on without the interface, and end the climb where the machine keeps going down.
    #[arg(long)]
    pub(crate) unattended: bool,

    /// Simulated seconds per real second, or `max`.
    #[arg(long, value_name = "N")]
    pub(crate) pace: Option<Pace>,

    #[command(flatten)]
    pub(crate) output: Output,
}

#[derive(Args, Debug)]
pub(crate) struct Profile {
    /// What to do; without it, saved profiles are listed.
    #[command(subcommand)]
    pub(crate) action: Option<ProfileAction>,

    #[command(flatten)]
    pub(crate) listing: Listing,
}

#[derive(Subcommand, Debug)]
pub(crate) enum ProfileAction {
    /// Have a profile applied at each start; only one whose mark held a long soak.
    Arm {
        /// The profile's name.
        name: String,
        /// The climb that saved it, instead of the newest that did.
        #[arg(long, value_name = "N", value_parser = parse_climb)]
        climb: Option<i64>,

        /// How long its soak must have been. [default: what its plan says as `arm_after`, else 8h]
        #[arg(long, value_name = "TIME", value_parser = parse_span)]
        soak: Option<Span>,
    },
    /// Have nothing applied at start any more.
    Disarm,
    /// Apply a profile now.
    Apply {
        /// The profile's name.
        name: String,
        /// The climb that saved it, instead of the newest that did.
        #[arg(long, value_name = "N", value_parser = parse_climb)]
        climb: Option<i64>,
    },
    /// Apply what is armed; for a service that runs once at each start.
    Start {
        /// How long the machine must live after that for the start to have gone well.
        #[arg(long, value_name = "TIME", value_parser = parse_span, default_value = "2min")]
        confirm_after: Span,
    },
}

#[derive(Args, Debug)]
pub(crate) struct Simulation {
    /// Which specimen a simulated rig is, instead of the one its file names.
    #[arg(long, value_name = "N", value_parser = parse_whole::<u64>)]
    pub(crate) seed: Option<u64>,

    /// Simulated seconds per real second, or `max`.
    #[arg(long, value_name = "N")]
    pub(crate) pace: Option<Pace>,
}

#[derive(Args, Debug)]
#[group(id = "without_interface", multiple = true, args = ["headless", "json"])]
pub(crate) struct Output {
    /// Do without the interface: one line a trial, as a screen is read aloud.
    #[arg(long, visible_alias = "plain")]
    pub(crate) headless: bool,

    /// One JSON object a line, the last of kind `ended`, without the interface.
    #[arg(long)]
    pub(crate) json: bool,

    /// A line for each round of a load, or each run of a program.
    #[arg(long, requires = "without_interface")]
    pub(crate) rounds: bool,

    /// Take the operator's answers from this file, one a line: done, no-start or defaults.
    #[arg(long, value_name = "FILE", requires = "without_interface")]
    pub(crate) answers: Option<PathBuf>,
}

impl Output {
    /// Whether there is no interface.
    pub(crate) fn is_headless(&self) -> bool {
        self.headless || self.json
    }
}

#[derive(Args, Debug)]
pub(crate) struct Prove {
    /// What to prove with: glance (5 minutes), firm (1 hour), soak (8 hours), or a file with `passes`.
    #[arg(long, value_name = "PROOF", default_value = "glance", conflicts_with = "load")]
    pub(crate) proof: String,

    /// Run this load only.
    #[arg(long, value_name = "NAME", value_parser = PossibleValuesParser::new(real_loads()))]
    pub(crate) load: Option<String>,

    /// How long; the passes of a proof share it as they share their own time. [default: 5min with --load]
    #[arg(long = "for", value_name = "TIME", value_parser = parse_span)]
    pub(crate) length: Option<Span>,

    /// End each pass after so many rounds on each core.
    #[arg(long, value_name = "N", value_parser = parse_count::<u64>)]
    pub(crate) times: Option<u64>,

    /// On how many cores: all, a number, or each, one core at a time. [default: what the proof says, or all]
    #[arg(long, value_name = "N", value_parser = parse_threads)]
    pub(crate) threads: Option<Threads>,

    /// How much memory the problems fill, as in 75% or 8GiB.
    #[arg(long, value_name = "AMOUNT", conflicts_with = "size")]
    pub(crate) memory: Option<Amount>,

    /// Size of the problem on each core, in the load's own measure.
    #[arg(long, value_name = "N", requires = "load", value_parser = parse_count::<u64>)]
    pub(crate) size: Option<u64>,

    /// Which device a load on the graphics processor runs on: its card as in card1, its number, or a part of its name.
    #[arg(long, value_name = "NAME", requires = "load")]
    pub(crate) device: Option<String>,

    /// How much memory must stay available, as in 2GiB.
    #[arg(long, value_name = "AMOUNT", value_parser = amount::bytes)]
    pub(crate) reserve: Option<u64>,

    /// How nice the loads are to everything else, from -20 to 19; below 0 takes privileges.
    #[arg(long, value_name = "N", allow_negative_numbers = true, value_parser = parse_niceness)]
    pub(crate) priority: Option<i32>,

    /// When a pass ends early: at the first wrong result, or never. [default: what a proof's file says, else never]
    #[arg(long, value_name = "WHEN", value_enum)]
    pub(crate) stop_on: Option<WhenToStop>,

    /// Watch what this rig file watches, with its cut-offs, and note its parts. [default: every sensor of this machine]
    #[arg(long, value_name = "FILE")]
    pub(crate) rig: Option<PathBuf>,

    /// Do without the interface: lines for each pass.
    #[arg(long)]
    pub(crate) headless: bool,

    /// A line for each round as well, or each run of a program; without the interface.
    #[arg(long)]
    pub(crate) rounds: bool,

    /// One JSON object a line, the last of kind `ended`.
    #[arg(long)]
    pub(crate) json: bool,
}

#[derive(Args, Debug)]
pub(crate) struct Score {
    /// The benchmarks, by their loads' names; all of them where none is named.
    #[arg(value_name = "NAME")]
    pub(crate) names: Vec<String>,

    /// Also the programs of your own that this file defines with a score.
    #[arg(long, value_name = "FILE")]
    pub(crate) programs: Option<PathBuf>,

    /// How long each repetition takes. [default: 3 s]
    #[arg(long = "for", value_name = "TIME", value_parser = parse_span)]
    pub(crate) length: Option<Span>,

    /// On how many cores: all, a number, or each, one core at a time. [default: all]
    #[arg(long, value_name = "N", value_parser = parse_threads)]
    pub(crate) threads: Option<Threads>,

    /// How often each is repeated at most.
    #[arg(long, value_name = "N", default_value_t = 10, value_parser = parse_count::<u32>)]
    pub(crate) repeats: u32,

    /// Fewer are enough when the 95 % interval is within so many percent of the mean.
    #[arg(long, value_name = "PERCENT", default_value_t = 1.0, value_parser = parse_percent)]
    pub(crate) within: f64,

    /// Watch what this rig file watches, with its cut-offs, and note its parts. [default: every sensor of this machine]
    #[arg(long, value_name = "FILE")]
    pub(crate) rig: Option<PathBuf>,

    /// A line for each round as well, or each run of a program.
    #[arg(long)]
    pub(crate) rounds: bool,

    /// One JSON object a line, the last of kind `ended`.
    #[arg(long)]
    pub(crate) json: bool,
}

/// When a pass ends early.
#[derive(Clone, Copy, Debug, PartialEq, Eq, clap::ValueEnum)]
pub(crate) enum WhenToStop {
    First,
    Never,
}

#[derive(Args, Debug)]
pub(crate) struct Allow {
    /// A rig file, or a file with sections [program.NAME].
    pub(crate) file: PathBuf,

    /// Allow it without asking.
    #[arg(long)]
    pub(crate) yes: bool,

    /// Allow it no longer.
    #[arg(long, conflicts_with = "yes")]
    pub(crate) forget: bool,
}

#[derive(Args, Debug)]
pub(crate) struct Meter {
    /// Where to listen for questions.
    #[arg(long, value_name = "HOST:PORT", default_value = "127.0.0.1:5025")]
    pub(crate) listen: String,
}

#[derive(Args, Debug)]
pub(crate) struct Check {
    /// Rig, plan and proof files.
    #[arg(required = true)]
    pub(crate) files: Vec<PathBuf>,

    #[command(flatten)]
    pub(crate) listing: Listing,
}

#[derive(Args, Debug)]
pub(crate) struct Ledger {
    /// The number of a climb, to list its trials and incidents.
    #[arg(value_parser = parse_climb)]
    pub(crate) climb: Option<i64>,

    /// Check every line that was ever written, and set aside what is damaged.
    #[arg(long)]
    pub(crate) check: bool,

    #[command(flatten)]
    pub(crate) listing: Listing,
}

#[derive(Args, Debug)]
pub(crate) struct Report {
    /// The number of the climb, as `periculum ledger` lists it.
    #[arg(value_parser = parse_climb)]
    pub(crate) climb: i64,

    /// The file to write; its ending says as what: .svg or .pdf for a picture, .pdf, .html or .md for the whole report. `-` is
    /// standard output.
    #[arg(short, long, value_name = "FILE", required_unless_present = "bundle")]
    pub(crate) output: Option<PathBuf>,

    /// A file (.tar) with the report, the tables and the whole record of the climb, which `periculum verify` proves.
    #[arg(long, value_name = "FILE", conflicts_with_all = ["output", "picture", "written_as", "text"])]
    pub(crate) bundle: Option<PathBuf>,

    /// As what, whatever the file is called; to standard output Markdown, or SVG, where nobody says.
    #[arg(long = "as", value_name = "ENDING", value_parser = ["pdf", "html", "md", "svg"])]
    pub(crate) written_as: Option<String>,

    /// A picture instead of the report; .svg is the ascent where nothing is said.
    #[arg(long, value_name = "PICTURE")]
    pub(crate) picture: Option<Pictured>,

    /// Let the texts of a picture (.svg) be texts, to be searched and edited, in a font of the reader's; else they are outlines.
    #[arg(long)]
    pub(crate) text: bool,

    /// The trial whose traces are shown, instead of the whole climb; several, as in 12,14, are laid over each other.
    #[arg(long, value_name = "N", requires = "picture", value_delimiter = ',', value_parser = parse_whole::<u32>)]
    pub(crate) trial: Vec<u32>,

    /// The benchmark whose scores are shown, by its load.
    #[arg(long, value_name = "LOAD", requires = "picture")]
    pub(crate) benchmark: Option<String>,

    /// The setting or derived value that scores lie over, or the setting to the right of the map; else the climbed one.
    #[arg(long, value_name = "NAME", requires = "picture")]
    pub(crate) over: Option<String>,

    /// The setting upwards of the map; else another one that the plan moves.
    #[arg(long, value_name = "SETTING", requires = "picture")]
    pub(crate) against: Option<String>,

    /// The climbs to compare with.
    #[arg(long, value_name = "CLIMB", value_delimiter = ',', requires = "picture", value_parser = parse_climb)]
    pub(crate) with: Vec<i64>,
}

#[derive(Args, Debug)]
pub(crate) struct Verify {
    /// The bundle.
    pub(crate) file: PathBuf,

    #[command(flatten)]
    pub(crate) listing: Listing,
}

/// What of a climb can be drawn.
#[derive(clap::ValueEnum, Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Pictured {
    /// The trials in their order.
    Ascent,
    /// Two settings against each other.
    Map,
    /// A benchmark over a setting, a curve for each combination of the others.
    Scores,
    /// What the sensors read.
    Traces,
    /// What went wrong core by core.
    Cores,
    /// Beside other climbs, what differs first.
    Compare,
}

#[derive(Args, Debug)]
pub(crate) struct Attach {
    /// The number of the climb, as `periculum ledger` lists it; it must be over.
    #[arg(value_parser = parse_climb)]
    pub(crate) climb: i64,

    /// The file: comma-, semicolon- or tab-separated under a line of names, as `time,wall power (W)`; the time in seconds since
    /// the climb began, or a date and time. Without it, what is attached is listed.
    #[arg(conflicts_with = "take_off")]
    pub(crate) file: Option<PathBuf>,

    /// How many seconds the instrument's clock is ahead of the rig's.
    #[arg(long, value_name = "SECONDS", value_parser = parse_number, allow_negative_numbers = true, default_value_t = 0.0, requires = "file")]
    pub(crate) ahead: f64,

    /// Take off again what is attached under this name.
    #[arg(long, value_name = "NAME")]
    pub(crate) take_off: Option<String>,
}

#[derive(Args, Debug)]
pub(crate) struct Enter {
    /// A load, for its score, or a setting, for its mark; without any, what was entered is listed.
    #[arg(requires_all = ["value", "unit", "source"])]
    pub(crate) what: Option<String>,

    /// The number.
    #[arg(value_parser = parse_number, allow_negative_numbers = true)]
    pub(crate) value: Option<f64>,

    /// Its unit, as GFLOP/s or MHz.
    pub(crate) unit: Option<String>,

    /// Where it is from.
    #[arg(long, value_name = "TEXT")]
    pub(crate) source: Option<String>,

    /// Which specimen reached it.
    #[arg(long, value_name = "TEXT", default_value = "")]
    pub(crate) specimen: String,

    /// Take back the result of this number.
    #[arg(long, value_name = "N", conflicts_with = "what", value_parser = parse_whole::<i64>)]
    pub(crate) take_back: Option<i64>,
}

#[derive(Args, Debug)]
pub(crate) struct Show {
    /// The number of the climb, as `periculum ledger` lists it; without one, the newest.
    #[arg(value_parser = parse_climb)]
    pub(crate) climb: Option<i64>,
}

#[derive(Args, Debug)]
pub(crate) struct Export {
    /// The number of the climb, as `periculum ledger` lists it; several, as in 1,4,5, for one table of all of them.
    #[arg(value_parser = parse_climb, value_delimiter = ',', required = true, num_args = 1)]
    pub(crate) climb: Vec<i64>,

    /// What of it to write.
    pub(crate) what: Exported,

    /// The file to write; its ending says how: .csv or .jsonl for tables, .om for OpenMetrics text of marks or samples. `-` is
    /// standard output.
    #[arg(short, long, value_name = "FILE")]
    pub(crate) output: PathBuf,

    /// As what, whatever the file is called; to standard output .csv, or .om of marks, where nobody says.
    #[arg(long = "as", value_name = "ENDING", value_parser = ["csv", "jsonl", "om"])]
    pub(crate) written_as: Option<String>,
}

/// What of a climb can be exported.
#[derive(clap::ValueEnum, Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Exported {
    /// A line for each trial, with its rung.
    Trials,
    /// A line for each pass that has a score.
    Scores,
    /// A line for each incident.
    Incidents,
    /// A line for each reading of each sensor.
    Samples,
    /// Marks and tallies.
    Marks,
}

#[derive(Args, Debug)]
pub(crate) struct Reveal {
    /// The rig file.
    pub(crate) rig: PathBuf,

    /// The plan whose proofs and stages it is asked about.
    #[arg(long, value_name = "FILE")]
    pub(crate) plan: PathBuf,

    /// Which specimen, instead of the one that the file names.
    #[arg(long, value_name = "N", value_parser = parse_whole::<u64>)]
    pub(crate) seed: Option<u64>,

    /// A setting of a rung to be told of, as in core_clock=4700; what is not named is at stock.
    #[arg(long, value_name = "SETTING=VALUE")]
    pub(crate) at: Vec<String>,

    /// One JSON object a line.
    #[arg(long)]
    pub(crate) json: bool,
}

#[derive(Args, Debug)]
pub(crate) struct Load {
    pub(crate) name: String,

    #[arg(long, value_delimiter = ',')]
    pub(crate) cores: Vec<usize>,

    #[arg(long)]
    pub(crate) device: Option<String>,

    /// Hundredths of a device's memory.
    #[arg(long)]
    pub(crate) share: Option<u32>,

    #[arg(long)]
    pub(crate) bytes: Option<u64>,

    #[arg(long)]
    pub(crate) pictures: Option<PathBuf>,

    #[arg(long)]
    pub(crate) one_by_one: bool,

    #[arg(long)]
    pub(crate) size: u64,

    #[arg(long)]
    pub(crate) millis: u64,

    #[arg(long, default_value_t = 0)]
    pub(crate) warm_up_millis: u64,

    #[arg(long)]
    pub(crate) times: Option<u64>,

    #[arg(long, allow_negative_numbers = true)]
    pub(crate) niceness: i32,

    #[arg(long)]
    pub(crate) go_on: bool,

    /// The definition of a program of the user's own, as JSON.
    #[arg(long)]
    pub(crate) program: Option<String>,
}

/// How many simulated seconds pass in one.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) enum Pace {
    Times(f64),
    Max,
}

impl FromStr for Pace {
    type Err = String;

    fn from_str(text: &str) -> Result<Self, String> {
        if text == "max" {
            return Ok(Self::Max);
        }
        let wrong = || arguments::neither_number_nor_max(text);
        let times: f64 = text.parse().map_err(|_| wrong())?;
        if times > 0.0 && times.is_finite() { Ok(Self::Times(times)) } else { Err(wrong()) }
    }
}

fn parse_climb(text: &str) -> Result<i64, String> {
    let number = text.parse().ok().filter(|number| *number > 0);
    number.ok_or_else(|| arguments::no_climb_number(text))
}

fn parse_number(text: &str) -> Result<f64, String> {
    let number = text.parse().ok().filter(|number: &f64| number.is_finite());
    number.ok_or_else(|| arguments::no_number(text))
}

fn parse_whole<T: FromStr>(text: &str) -> Result<T, String> {
    text.parse().map_err(|_| arguments::no_whole_number(text))
}

fn parse_count<T: FromStr + PartialOrd + From<u8>>(text: &str) -> Result<T, String> {
    let count = text.parse().ok().filter(|count| *count >= T::from(1));
    count.ok_or_else(|| arguments::no_whole_number_from_1(text))
}

fn parse_niceness(text: &str) -> Result<i32, String> {
    let niceness = text.parse().ok().filter(|niceness| (-20..=19).contains(niceness));
    niceness.ok_or_else(|| arguments::no_niceness(text))
}

fn parse_threads(text: &str) -> Result<Threads, String> {
    match (text, text.parse()) {
        ("all", _) => Ok(Threads::All),
        ("each", _) => Ok(Threads::Each),
        (_, Ok(count @ 1..)) => Ok(Threads::Count(count)),
        _ => Err(arguments::SAY_HOW_MANY_THREADS.into()),
    }
}

fn parse_percent(text: &str) -> Result<f64, String> {
    match text.trim_end_matches('%').parse() {
        Ok(percent) if percent > 0.0 && percent < 100.0 => Ok(percent),
        _ => Err(arguments::SAY_PERCENT.into()),
    }
}

fn parse_span(text: &str) -> Result<Span, String> {
    let span = Span::parse(text).map_err(|why| why.to_string())?;
    if span == Span::ZERO { Err(arguments::NO_TIME_AT_ALL.into()) } else { Ok(span) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use clap::CommandFactory;

    #[test]
    fn the_definition_of_the_command_line_is_sound() {
        Arguments::command().debug_assert();
    }

    #[test]
    fn a_pace_is_a_number_above_nothing_or_max() {
        assert_eq!("max".parse(), Ok(Pace::Max));
        assert_eq!("2.5".parse(), Ok(Pace::Times(2.5)));
        for wrong in ["0", "-1", "inf", "nan", "fast", ""] {
            assert!(wrong.parse::<Pace>().is_err(), "{wrong}");
        }
    }
}
