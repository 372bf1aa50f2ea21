//! One file a command.

mod allow;
mod as_it_is;
mod attach;
mod check;
mod climb;
mod completions;
mod demo;
mod display_guard;
mod enter;
mod export;
mod ledger;
mod load;
mod man;
mod meter;
mod plan;
mod profile;
mod prove;
mod report;
mod restore;
mod resume;
mod reveal;
mod rig;
mod score;
mod show;
mod start;
mod verify;
mod where_kept;

use std::io::IsTerminal;
use std::process::ExitCode;

use anyhow::Result;
use jiff::tz::TimeZone;
use jiff::{Timestamp, ZonedDateTime};
use periculum_core::model::moment::Moment;
use tracing::Level;

use crate::cli::{Arguments, Command};
use crate::complaint::BadInput;
use crate::output;
use crate::places::{self, DEMO_LEDGER, LEDGER};
use crate::telling::arguments;
use crate::tui::Preferences;

/// Runs a command.
pub(crate) fn run(arguments: Arguments) -> Result<ExitCode> {
    let common = &arguments.common;
    if common.quiet {
        output::be_quiet();
    }
    // A load is watched by its parent, which has a log of its own.
    let _log = if matches!(arguments.command, Some(Command::Load(_) | Command::DisplayGuard(_))) {
        None
    } else {
        places::start_log(if common.verbose { Level::DEBUG } else { Level::INFO })
    };
    match arguments.command {
        None => start::run(common),
        Some(Command::Demo(demo)) => demo::run(&demo, common),
        Some(Command::DisplayGuard(guard)) => display_guard::run(&guard),
        Some(Command::Completions(completions)) => completions::run(&completions),
        Some(Command::Man(man)) => man::run(&man),
        Some(Command::Climb(climb)) => climb::run(&climb, common),
        Some(Command::Resume(resume)) => resume::run(&resume, common),
        Some(Command::Prove(prove)) => prove::run(&prove, common),
        Some(Command::Score(score)) => score::run(&score, common),
        Some(Command::Allow(allow)) => allow::run(&allow, common),
        Some(Command::Restore) => restore::run(common),
        Some(Command::Check(check)) => check::run(&check, common),
        Some(Command::Plan(plan)) => plan::run(&plan, common),
        Some(Command::Ledger(ledger)) => ledger::run(&ledger, common),
        Some(Command::Report(report)) => report::run(&report, common),
        Some(Command::Verify(verify)) => verify::run(&verify),
        Some(Command::Profile(profile)) => profile::run(&profile, common),
        Some(Command::Show(show)) => show::run(&show, common),
        Some(Command::Export(export)) => export::run(&export, common),
        Some(Command::Attach(attach)) => attach::run(&attach, common),
        Some(Command::Enter(enter)) => enter::run(&enter, common),
        Some(Command::Reveal(reveal)) => reveal::run(&reveal),
        Some(Command::Where(listing)) => where_kept::run(&listing, common),
        Some(Command::Rig) => rig::run(common),
        Some(Command::Meter(meter)) => meter::run(&meter, common),
        Some(Command::Load(load)) => load::run(&load),
    }
}

/// Refuses to show an interface where nobody would see it or could answer; before anything is recorded or applied.
fn needs_terminal(command: &str, instead: &str) -> Result<()> {
    if std::io::stdin().is_terminal() && std::io::stdout().is_terminal() {
        // What is wrong with how it is to look is told before anything is begun.
        return Preferences::of_user().map(drop);
    }
    Err(BadInput(arguments::needs_terminal(command, instead)).into())
}

/// A moment of the wall clock as lists show it, with the zone that it is told in.
pub(crate) fn date(moment: Moment) -> String {
    zoned(moment).strftime("%Y-%m-%d %H:%M %Z").to_string()
}

/// The same where the zone is told elsewhere.
pub(crate) fn local_date(moment: Moment) -> String {
    zoned(moment).strftime("%Y-%m-%d %H:%M").to_string()
}

/// The day alone.
pub(crate) fn local_day(moment: Moment) -> String {
    zoned(moment).strftime("%Y-%m-%d").to_string()
}

/// The zone that moments are told in at this one.
pub(crate) fn zone(moment: Moment) -> String {
    zoned(moment).strftime("%Z").to_string()
}

fn zoned(moment: Moment) -> ZonedDateTime {
    let instant = Timestamp::from_millisecond(moment.millis()).unwrap_or(Timestamp::UNIX_EPOCH);
    instant.to_zoned_datetime(TimeZone::system())
}
