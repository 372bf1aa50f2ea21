//! A thread as the kernel sees it (`/proc/PID/task/TID/stat`, proc(5)): what nobody can be told otherwise by a load whose own
//! memory is wrong.

use std::fs;
use std::time::Duration;

/// What a thread does.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Seen {
    /// Whether it runs, or would if a processor were free.
    pub is_runnable: bool,
    /// Whether its whole process was stopped, as by job control.
    pub is_halted: bool,
    /// Processor time that it has used.
    pub used: Duration,
}

/// Clock ticks a second in what the kernel tells (`USER_HZ`, which is 100 on every architecture that loads are built for).
const TICKS: u32 = 100;

/// A thread of a process; none where there is none.
pub fn look(process: u32, thread: u32) -> Option<Seen> {
    parse(&fs::read_to_string(format!("/proc/{process}/task/{thread}/stat")).ok()?)
}

fn parse(stat: &str) -> Option<Seen> {
    // A name in parentheses comes first, and may have any signs in it.
    let (_, rest) = stat.rsplit_once(')')?;
    let mut fields = rest.split_whitespace();
    let state = fields.next()?;
    let mut ticks = fields.skip(10).map(str::parse::<u32>);
    let used = ticks.next()?.ok()? + ticks.next()?.ok()?;
    let seen = Seen { is_runnable: state == "R", is_halted: state == "T", used: Duration::from_secs(1) * used / TICKS };
    // What has ended, and is only still known, is no thread any more.
    (!matches!(state, "Z" | "X")).then_some(seen)
}

#[cfg(test)]
mod tests {
    use super::*;
    use rustix::thread::gettid;

    #[test]
    fn a_thread_is_read_whatever_its_name_is() {
        let stat = "12 (a) R 1 (b)) S 1 12 12 0 -1 4194304 100 0 0 0 250 50 0 0 20 0 1 0 5 0 0";
        let seen = Seen { is_runnable: false, is_halted: false, used: Duration::from_secs(3) };
        assert_eq!(parse(stat), Some(seen));
        assert_eq!(parse(&stat.replace(") S", ") T")), Some(Seen { is_halted: true, ..seen }));
        assert_eq!(parse(&stat.replace(") S", ") R")), Some(Seen { is_runnable: true, ..seen }));
        assert_eq!(parse(&stat.replace(") S", ") Z")), None);
        assert_eq!((parse(""), parse("1 (a) R 1 2")), (None, None));
    }

    #[test]
    fn this_thread_runs_and_another_one_that_never_was_does_not() {
        let own = gettid().as_raw_nonzero().get() as u32;
        assert!(look(std::process::id(), own).is_some_and(|seen| seen.is_runnable));
        assert_eq!(look(std::process::id(), 1), None);
    }
}
