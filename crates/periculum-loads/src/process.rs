//! The parent's side of a load: it starts the child, listens, and kills it with everything it started.

use std::ffi::OsString;
use std::io::{self, BufRead, BufReader, Read};
use std::os::unix::process::{CommandExt, ExitStatusExt};
use std::path::Path;
use std::process::{Child, Command, ExitStatus, Stdio};
use std::sync::mpsc::{Receiver, RecvTimeoutError, SyncSender, sync_channel};
use std::sync::{Mutex, MutexGuard, PoisonError};
use std::thread;
use std::time::{Duration, Instant};

use rustix::process::{Pid, Signal, kill_process_group};

use crate::descendants::{MARK, kill_descendants, kill_marked, new_mark};
use crate::protocol::Message;

/// Lines that wait to be heard; a child that floods its output is slowed down to the pace of its listener.
const WAITING_LINES: usize = 256;

/// No honest line is longer than this, in bytes.
const LONGEST_LINE: u64 = 64 * 1024;

/// What the kernel says of a process it may say this long after its end.
const HEARD_OF: Duration = Duration::from_secs(10);

/// A killed process that is not gone by then is one that the kernel does not let go.
const UNKILLABLE: Duration = Duration::from_secs(3);

/// The processes of passes, and when they ended.
static PROCESSES: Mutex<Vec<(u32, Option<Instant>)>> = Mutex::new(Vec::new());

fn processes() -> MutexGuard<'static, Vec<(u32, Option<Instant>)>> {
    // Whoever panicked while they held the list has left it whole.
    PROCESSES.lock().unwrap_or_else(PoisonError::into_inner)
}

/// Whether a process runs a pass of this program, or did moments ago.
pub fn is_of_a_pass(process: u32) -> bool {
    let is_recent = |ended: &Option<Instant>| ended.is_none_or(|ended| ended.elapsed() < HEARD_OF);
    processes().iter().any(|(known, ended)| *known == process && is_recent(ended))
}

/// A load in a process of its own; dropping it kills it.
pub struct LoadProcess {
    child: Child,
    lines: Receiver<Spoken>,
    is_reaped: bool,
    /// What everything that it starts bears.
    mark: String,
}

/// Something about a load process.
#[derive(Clone, Debug, PartialEq)]
pub enum News {
    /// It said something.
    Said(Message),
    /// It said something that is not of the protocol.
    Garbage(String),
    /// It exited or was killed; nothing follows.
    Died(Death),
}

/// How a process ended.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Death {
    /// With this exit status.
    Exited(i32),
    /// By this signal.
    Signalled(i32),
}

enum Spoken {
    Good(Message),
    Bad(String),
}

impl LoadProcess {
    /// Starts a program with these arguments, in a process group of its own.
    ///
    /// # Errors
    /// When the program can't be started.
    pub fn spawn(program: &Path, arguments: impl IntoIterator<Item = OsString>) -> io::Result<Self> {
        let mark = new_mark();
        let mut child = Command::new(program)
            .args(arguments)
            .stdin(Stdio::null())
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .env(MARK, &mark)
            .process_group(0)
            .spawn()?;
        let mut known = processes();
        known.retain(|(_, ended)| ended.is_none_or(|ended| ended.elapsed() < HEARD_OF));
        known.push((child.id(), None));
        drop(known);
        let (sender, lines) = sync_channel(WAITING_LINES);
        if let Some(output) = child.stdout.take() {
            thread::spawn(move || listen(output, &sender));
        }
        Ok(Self { child, lines, is_reaped: false, mark })
    }

    /// Its number.
    pub fn id(&self) -> u32 {
        self.child.id()
    }

    /// What happens next, at most this much later; none where nothing does, or where all has been told.
    pub fn next(&mut self, at_most: Duration) -> Option<News> {
        if self.is_reaped {
            return None;
        }
        match self.lines.recv_timeout(at_most) {
            Ok(Spoken::Good(message)) => Some(News::Said(message)),
            Ok(Spoken::Bad(text)) => Some(News::Garbage(text)),
            Err(RecvTimeoutError::Timeout) => None,
            Err(RecvTimeoutError::Disconnected) => self.reap(at_most).map(News::Died),
        }
    }

    /// Kills it and everything it started, at once; its death is told by [`LoadProcess::next`].
    pub fn kill(&mut self) {
        if self.is_reaped {
            return;
        }
        let process = i32::try_from(self.child.id()).ok();
        let group = process.and_then(Pid::from_raw);
        // A group that is gone already is what was wanted.
        let send = |signal| group.map(|group| kill_process_group(group, signal));
        // Nobody of it is to see the others die and to end as if nothing had happened.
        let _ = send(Signal::STOP);
        // What has put itself into a group or a session of its own goes first, while it is known whose it is.
        process.into_iter().for_each(kill_descendants);
        let _ = send(Signal::KILL);
    }

    fn note_end(&self) {
        let process = self.child.id();
        let mut known = processes();
        known.iter_mut().filter(|(it, _)| *it == process).for_each(|(_, ended)| *ended = Some(Instant::now()));
    }

    /// Waits for a child that has closed its output to be gone, since it might live on in silence.
    fn reap(&mut self, at_most: Duration) -> Option<Death> {
        let deadline = Instant::now() + at_most;
        loop {
            if let Ok(Some(status)) = self.child.try_wait() {
                self.is_reaped = true;
                self.note_end();
                kill_marked(&self.mark);
                return Some(Death::of(status));
            }
            if Instant::now() >= deadline {
                return None;
            }
            thread::sleep(Duration::from_millis(2));
        }
    }
}

impl Drop for LoadProcess {
    fn drop(&mut self) {
        self.kill();
        if !self.is_reaped && self.reap(UNKILLABLE).is_none() {
            // It hangs in the kernel, where no signal reaches it: whoever dropped it goes on without it.
            self.note_end();
        }
    }
}

impl Death {
    fn of(status: ExitStatus) -> Self {
        match (status.code(), status.signal()) {
            (Some(code), _) => Self::Exited(code),
            (None, signal) => Self::Signalled(signal.unwrap_or_default()),
        }
    }
}

impl std::fmt::Display for Death {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self {
            Self::Exited(code) => write!(f, "the load exited with status {code}"),
            Self::Signalled(signal) => write!(f, "the load died of signal {signal}"),
        }
    }
}

fn listen(output: impl Read, sender: &SyncSender<Spoken>) {
    let mut output = BufReader::new(output);
    let mut bytes = Vec::new();
    loop {
        bytes.clear();
        match output.by_ref().take(LONGEST_LINE).read_until(b'\n', &mut bytes) {
            Ok(0) | Err(_) => return,
            Ok(_) => {}
        }
        if bytes == b"\n" {
            continue;
        }
        let line = match serde_json::from_slice(&bytes) {
            Ok(message) => Spoken::Good(message),
            Err(_) => Spoken::Bad(String::from_utf8_lossy(&bytes[..bytes.len().min(200)]).trim().to_owned()),
        };
        if sender.send(line).is_err() {
            return;
        }
    }
}
