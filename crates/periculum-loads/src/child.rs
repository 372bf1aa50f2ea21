//! The process that a load runs in: it dies with its parent, tells how it goes, and touches nothing else.

use std::io::{self, Write};
use std::os::unix::process::CommandExt;
use std::process::Command;
use std::sync::Arc;

use rustix::process::{Signal, set_parent_process_death_signal, setpriority_process};

use crate::frame::{Load, NoDisturbance, Order, run};
use crate::protocol::Message;
use crate::struck;

/// How nice a load is to everything else where nobody says otherwise: a little, so that its watcher and the
/// interface stay awake.
pub const USUAL_NICENESS: i32 = 5;

/// Runs the load and says how it goes on standard output.
///
/// # Errors
/// When nobody listens any more.
pub fn run_load(load: &'static dyn Load, order: &Order, niceness: i32) -> io::Result<()> {
    if !enter(niceness)? {
        return Ok(());
    }
    struck::listen();
    saying(|tell| run(load, order, Arc::new(NoDisturbance), tell))
}

/// Lets something run that tells how it goes, and says that on standard output; where nobody listens any more, the process ends.
///
/// # Errors
/// When nobody listens any more.
pub(crate) fn saying(run: impl FnOnce(&mut dyn FnMut(Message))) -> io::Result<()> {
    let mut heard = Ok(());
    run(&mut |message| {
        if heard.is_ok() {
            heard = say(&message);
        }
        if heard.is_err() {
            std::process::exit(1);
        }
    });
    heard
}

/// Makes this process one that dies with its parent and has this priority; says whether the system lets it.
///
/// # Errors
/// When nobody listens any more.
pub fn enter(niceness: i32) -> io::Result<bool> {
    // Should the parent have died before this is in force, the first line finds nobody listening.
    set_parent_process_death_signal(Some(Signal::KILL))?;
    let entered = setpriority_process(None, niceness);
    if let Err(refused) = entered {
        let why = format!("the system does not let this user run at priority {niceness}: {refused}");
        say(&Message::Failed { why })?;
    }
    Ok(entered.is_ok())
}

/// Lets a program die with the thread that starts it, so that none outlives a load that was killed.
pub fn dies_with_this_thread(command: &mut Command) {
    let bind = || Ok(set_parent_process_death_signal(Some(Signal::KILL))?);
    // SAFETY: between fork and exec this makes one system call, and takes neither locks nor memory.
    unsafe { command.pre_exec(bind) };
}

/// Says something on standard output.
///
/// # Errors
/// When nobody listens any more.
pub fn say(message: &Message) -> io::Result<()> {
    let mut line = serde_json::to_vec(message)?;
    line.push(b'\n');
    let mut out = io::stdout().lock();
    out.write_all(&line)?;
    out.flush()
}
