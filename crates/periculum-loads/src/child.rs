//! The process that a load runs in: it dies with its parent, tells how it goes, and touches nothing else.

use std::io::{self, Write};
use std::time::Duration;

use rustix::process::{Signal, set_parent_process_death_signal, setpriority_process};

use crate::cores::allowed;
use crate::dense::{self, NoDisturbance, Order, Stop};
use crate::protocol::Message;

/// How nice the load is to everything else: a little, so that its watcher and the interface stay awake.
const NICENESS: i32 = 5;

/// The order of `dense`'s systems where nobody says otherwise: 16 MiB a thread, a few rounds in a tenth of a second.
pub const USUAL_ORDER: usize = 1024;

/// The system that every run solves, so that runs can be compared bit for bit.
const SEED: u64 = 0x0b5e_77a7_0e1e;

/// What the child is to run.
#[derive(Clone, Debug)]
pub struct Task {
    /// How long to work.
    pub length: Duration,
    /// On how many processors, the first of those allowed; all of them where there is no number.
    pub threads: Option<usize>,
    /// Order of the linear systems, above zero.
    pub order: usize,
    /// When to end early.
    pub stop: Stop,
}

/// Runs the load and says how it goes on standard output.
///
/// # Errors
/// When nobody listens any more.
pub fn run_dense(task: &Task) -> io::Result<()> {
    // Should the parent have died before this is in force, the first line finds nobody listening.
    set_parent_process_death_signal(Some(Signal::KILL))?;
    // Not being allowed to be nice is no reason not to work.
    let _ = setpriority_process(None, NICENESS);
    let mut cores = allowed();
    cores.truncate(task.threads.unwrap_or(cores.len()).max(1));
    let order = Order { cores, order: task.order, length: task.length, seed: SEED, stop: task.stop };
    let mut heard = Ok(());
    dense::run(&order, &NoDisturbance, |message| {
        if heard.is_ok() {
            heard = say(&message);
        }
        if heard.is_err() {
            std::process::exit(1);
        }
    });
    heard
}

fn say(message: &Message) -> io::Result<()> {
    let mut line = serde_json::to_vec(message)?;
    line.push(b'\n');
    let mut out = io::stdout().lock();
    out.write_all(&line)?;
    out.flush()
}
