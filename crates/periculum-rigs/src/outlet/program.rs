//! A program of the user's own, run once for a number or a change.

use std::io::Read;
use std::os::unix::process::CommandExt;
use std::process::{Child, Command, Stdio};
use std::sync::mpsc::channel;
use std::thread;
use std::time::{Duration, Instant};

use rustix::process::{Pid, Signal, kill_process_group};

use super::shown;

/// No output with a number in it is longer than this, bytes.
const LONGEST: u64 = 64 * 1024;

/// How often it is looked whether it has come to its end.
const LOOKING: Duration = Duration::from_millis(2);

/// What a program says in this time; it is killed with all that it has started where it takes longer.
pub(super) fn output_of(run: &[String], at_most: Duration) -> Result<String, String> {
    let name = run.first().cloned().unwrap_or_default();
    let mut command = Command::new(&name);
    command.args(&run[1..]).stdin(Stdio::null()).stdout(Stdio::piped()).stderr(Stdio::piped()).process_group(0);
    let mut child = command.spawn().map_err(|error| format!("`{name}` could not be started: {error}"))?;
    let (output, errors) = (drained(child.stdout.take()), drained(child.stderr.take()));
    let until = Instant::now() + at_most;
    let status = loop {
        match child.try_wait() {
            Ok(Some(status)) => break status,
            Ok(None) if Instant::now() < until => thread::sleep(LOOKING),
            Ok(None) => {
                kill(&mut child);
                return Err(format!("`{name}` took longer than {} ms", at_most.as_millis()));
            }
            Err(error) => return Err(format!("`{name}`: {error}")),
        }
    };
    let left = until.saturating_duration_since(Instant::now()).max(LOOKING);
    if !status.success() {
        let words = errors.recv_timeout(left).unwrap_or_default();
        return Err(format!("`{name}` ended with {status}: {}", shown(&words)));
    }
    // What it has left running may hold its output open.
    output.recv_timeout(left).map_err(|_| format!("`{name}` has left something running that holds its output open"))
}

fn kill(child: &mut Child) {
    if let Some(group) = i32::try_from(child.id()).ok().and_then(Pid::from_raw) {
        // A group that is gone already is what is wanted.
        let _ = kill_process_group(group, Signal::KILL);
    }
    let _ = child.wait();
}

/// Reads a pipe to its end.
fn drained(pipe: Option<impl Read + Send + 'static>) -> std::sync::mpsc::Receiver<String> {
    let (sender, text) = channel();
    if let Some(mut pipe) = pipe {
        thread::spawn(move || {
            let mut kept = Vec::new();
            // What can't be read any more is over, and what is beyond the longest is read and forgotten.
            let _ = pipe.by_ref().take(LONGEST).read_to_end(&mut kept);
            let _ = std::io::copy(&mut pipe, &mut std::io::sink());
            // Nobody may listen any more.
            let _ = sender.send(String::from_utf8_lossy(&kept).into_owned());
        });
    }
    text
}

#[cfg(test)]
mod tests {
    use super::*;

    fn ran(script: &str) -> Result<String, String> {
        output_of(&["/bin/sh".into(), "-c".into(), script.into()], Duration::from_secs(5))
    }

    #[test]
    fn what_it_says_is_told_and_so_is_why_it_says_nothing() {
        assert_eq!(ran("echo 12").as_deref(), Ok("12\n"));
        let failed = ran("echo no card >&2; exit 3").expect_err("failed");
        assert_eq!(failed, "`/bin/sh` ended with exit status: 3: no card");
        let absent = output_of(&["/nowhere/card".into()], Duration::from_secs(1)).expect_err("absent");
        assert!(absent.starts_with("`/nowhere/card` could not be started"), "{absent}");
    }

    #[test]
    fn who_takes_too_long_is_killed_with_all_that_it_started() {
        let mark = std::env::temp_dir().join(format!("periculum-outlet-{}", std::process::id()));
        let script = format!("(sleep 1; touch {}) & sleep 60", mark.display());
        let late = output_of(&["/bin/sh".into(), "-c".into(), script], Duration::from_millis(200)).expect_err("late");
        assert_eq!(late, "`/bin/sh` took longer than 200 ms");
        thread::sleep(Duration::from_millis(1300));
        assert!(!mark.exists(), "what it had started lives no longer");
    }

    #[test]
    fn a_flood_of_words_is_cut() {
        assert_eq!(ran("yes | head -c 1000000").map(|text| text.len() as u64), Ok(LONGEST));
    }
}
