//! Hands inside a running process: single threads held, led astray or ended, and bits turned over in its memory and its
//! registers, all by way of the kernel (ptrace(2), proc(5)).

use std::fs::{self, OpenOptions};
use std::io::{self, BufRead, BufReader, Lines};
use std::os::unix::fs::FileExt;
use std::process::{Child, ChildStdout, Command, Stdio};
use std::time::{Duration, Instant};
use std::{mem, ptr};

use periculum_loads::cores::allowed;
use serde_json::Value;

use crate::common::{Home, json_lines};

/// A pass that runs, and the process that its load is in.
pub(crate) struct Patient {
    proving: Child,
    lines: Lines<BufReader<ChildStdout>>,
    heard: Vec<String>,
    pub(crate) load: i32,
}

impl Patient {
    /// Begins a pass of a load of this size, for so many seconds.
    pub(crate) fn of(home: &Home, load: &str, size: u64, seconds: u64) -> Self {
        let (size, length) = (size.to_string(), format!("{seconds}s"));
        let mut proving = home.periculum();
        proving.args(["prove", "--load", load, "--size", &size, "--for", &length, "--json"]);
        if !load.starts_with("graphics-") {
            proving.args(["--reserve", "1MiB"]);
        }
        Self::begin(&mut proving)
    }

    fn begin(command: &mut Command) -> Self {
        let mut proving = command.stdout(Stdio::piped()).spawn().expect("started");
        let lines = BufReader::new(proving.stdout.take().expect("piped")).lines();
        let mut patient = Self { proving, lines, heard: Vec::new(), load: 0 };
        // Before that another child may look for devices.
        patient.wait_for("\"pass-began\"");
        patient.load = until(|| child_of(patient.proving.id()));
        patient
    }

    /// Waits for something that the pass says.
    pub(crate) fn wait_for(&mut self, words: &str) {
        while self.heard.last().is_none_or(|line| !line.contains(words)) {
            self.heard.push(self.lines.next().expect("it goes on").expect("a line"));
        }
    }

    /// The threads that work, each with the only core that it may use, once there is one for each core.
    pub(crate) fn workers(&self) -> Vec<(i32, usize)> {
        until(|| {
            let workers: Vec<(i32, usize)> = threads(self.load)
                .into_iter()
                .filter_map(|thread| Some((thread, only_core(self.load, thread)?)))
                .collect();
            (workers.len() >= allowed().len()).then_some(workers)
        })
    }

    /// The same while a thread is held: who holds one has to see it die.
    pub(crate) fn outcome_while(self, held: &Held) -> Vec<Value> {
        let outcome = std::thread::spawn(|| self.outcome());
        while !outcome.is_finished() {
            held.look();
            std::thread::sleep(Duration::from_millis(10));
        }
        outcome.join().expect("no panic")
    }

    /// Everything that was said until now.
    pub(crate) fn so_far(&self) -> Vec<Value> {
        json_lines(&self.heard.join("\n"))
    }

    /// Everything that was said, when the pass is over.
    pub(crate) fn outcome(mut self) -> Vec<Value> {
        self.heard.extend(self.lines.by_ref().map(|line| line.expect("a line")));
        self.proving.wait().expect("ended");
        self.so_far()
    }
}

impl Drop for Patient {
    fn drop(&mut self) {
        // Where the pass is over already there is nothing to end.
        let _ = self.proving.kill();
        let _ = self.proving.wait();
    }
}

/// What there is, once there is something; nothing here takes longer than this on any machine.
fn until<T>(mut find: impl FnMut() -> Option<T>) -> T {
    let deadline = Instant::now() + Duration::from_secs(300);
    loop {
        if let Some(found) = find() {
            return found;
        }
        assert!(Instant::now() < deadline, "it never came");
        std::thread::sleep(Duration::from_millis(2));
    }
}

fn child_of(process: u32) -> Option<i32> {
    let tasks = fs::read_dir(format!("/proc/{process}/task")).ok()?.flatten();
    let mut children = tasks.filter_map(|task| fs::read_to_string(task.path().join("children")).ok());
    children.find_map(|children| children.split_whitespace().next()?.parse().ok())
}

fn threads(process: i32) -> Vec<i32> {
    let tasks = fs::read_dir(format!("/proc/{process}/task")).into_iter().flatten().flatten();
    tasks.filter_map(|task| task.file_name().to_str()?.parse().ok()).collect()
}

fn only_core(process: i32, thread: i32) -> Option<usize> {
    let status = fs::read_to_string(format!("/proc/{process}/task/{thread}/status")).ok()?;
    let cores = status.lines().find_map(|line| line.strip_prefix("Cpus_allowed_list:"))?;
    // The thread that speaks for all may use all, which on a machine of one core is one as well.
    (process != thread).then(|| cores.trim().parse().ok())?
}

/// A thread that stands still for as long as this is held.
pub(crate) struct Held(i32);

impl Held {
    /// Takes hold of a thread; none where the system does not let us.
    pub(crate) fn of(thread: i32) -> Option<Self> {
        let nothing = ptr::null_mut::<libc::c_void>();
        // SAFETY: these calls touch no memory of this process.
        unsafe {
            if libc::ptrace(libc::PTRACE_SEIZE, thread, nothing, nothing) != 0 {
                eprintln!("skipped: the system lets nobody into another process ({})", io::Error::last_os_error());
                return None;
            }
            libc::ptrace(libc::PTRACE_INTERRUPT, thread, nothing, nothing);
            libc::waitpid(thread, ptr::null_mut(), libc::__WALL);
        }
        Some(Self(thread))
    }

    /// Takes notice of its death, where it has died.
    fn look(&self) {
        // SAFETY: this touches no memory of this process.
        unsafe { libc::waitpid(self.0, ptr::null_mut(), libc::WNOHANG | libc::__WALL) };
    }

    /// Changes its registers.
    #[cfg(target_arch = "x86_64")]
    pub(crate) fn operate(&self, change: impl FnOnce(&mut libc::user_regs_struct)) {
        // SAFETY: registers are plain numbers, and the thread stands still.
        unsafe {
            let mut registers: libc::user_regs_struct = mem::zeroed();
            libc::ptrace(libc::PTRACE_GETREGS, self.0, ptr::null_mut::<libc::c_void>(), &raw mut registers);
            // Where it was held in a call of the kernel, that is not taken up again.
            registers.orig_rax = u64::MAX;
            change(&mut registers);
            libc::ptrace(libc::PTRACE_SETREGS, self.0, ptr::null_mut::<libc::c_void>(), &raw const registers);
        }
    }
}

impl Drop for Held {
    fn drop(&mut self) {
        let nothing = ptr::null_mut::<libc::c_void>();
        // SAFETY: this touches no memory of this process; a thread that is gone can't be let go.
        unsafe { libc::ptrace(libc::PTRACE_DETACH, self.0, nothing, nothing) };
    }
}

/// Memory that a process may write to, all of it in a row.
pub(crate) struct Memory {
    process: i32,
    parts: Vec<(u64, u64)>,
}

impl Memory {
    /// Its heap, its stacks and what else it has taken, but for files.
    pub(crate) fn of(process: i32) -> Self {
        let maps = fs::read_to_string(format!("/proc/{process}/maps")).unwrap_or_default();
        let part = |line: &str| {
            let mut fields = line.split_whitespace();
            let (range, rights) = (fields.next()?, fields.next()?);
            let (from, to) = range.split_once('-')?;
            let address = |text| u64::from_str_radix(text, 16).ok();
            rights.starts_with("rw-p").then_some((address(from)?, address(to)?))
        };
        Self { process, parts: maps.lines().filter_map(part).collect() }
    }

    /// How many bytes there are.
    pub(crate) fn length(&self) -> u64 {
        self.parts.iter().map(|(from, to)| to - from).sum()
    }

    /// Turns over a bit of the byte at this place; says whether there was one to turn.
    pub(crate) fn flip(&self, mut place: u64, bit: u32) -> bool {
        let Ok(memory) = OpenOptions::new().read(true).write(true).open(format!("/proc/{}/mem", self.process)) else {
            return false;
        };
        for (from, to) in &self.parts {
            if place < to - from {
                let mut byte = [0];
                let at = from + place;
                let read = memory.read_exact_at(&mut byte, at);
                return read.is_ok() && memory.write_all_at(&[byte[0] ^ 1 << bit], at).is_ok();
            }
            place -= to - from;
        }
        false
    }
}

/// Where the process has an instruction that calls the kernel.
#[cfg(target_arch = "x86_64")]
pub(crate) fn system_call_of(process: i32) -> Option<u64> {
    let maps = fs::read_to_string(format!("/proc/{process}/maps")).ok()?;
    let memory = fs::File::open(format!("/proc/{process}/mem")).ok()?;
    let code = maps.lines().filter(|line| line.contains(" r-xp "));
    for line in code {
        let (from, to) = line.split_whitespace().next()?.split_once('-')?;
        let (from, to) = (u64::from_str_radix(from, 16).ok()?, u64::from_str_radix(to, 16).ok()?);
        let mut bytes = vec![0; usize::try_from(to - from).ok()?];
        if memory.read_exact_at(&mut bytes, from).is_err() {
            continue;
        }
        if let Some(at) = bytes.windows(2).position(|pair| pair == [0x0f, 0x05]) {
            return Some(from + at as u64);
        }
    }
    None
}
