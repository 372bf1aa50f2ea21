//! The user's own program as a load, on the child's side: it is run again and again, each run is judged, and the
//! parent is told as by any other load.

use std::collections::VecDeque;
use std::io::{Read, Result};
use std::os::unix::process::ExitStatusExt;
use std::process::{Child, Command, ExitStatus, Stdio};
use std::sync::mpsc::{Receiver, channel};
use std::thread;
use std::time::{Duration, Instant};

use periculum_core::model::program::{Measure, Misrun, Program, Run, RunEnd, hex};
use periculum_loads::child::{dies_with_this_thread, say};
use periculum_loads::cores::pin_to_any;
use periculum_loads::frame::{FaultKind, Order, Stop, Turns};
use periculum_loads::protocol::{CoreProgress, Message, Progress, Started, Wrong};
use rustix::process::{Signal, kill_current_process_group};
use sha2::{Digest, Sha256};

use crate::telling::running;

/// How often it is told that the program still runs.
const TELLING: Duration = Duration::from_millis(250);

/// What is kept of a run's output, from its end, bytes.
const KEPT: usize = 4 << 20;

/// Runs a program for as long as the order says, and then ends everything that it may have left running, with itself.
pub(crate) fn run_program(program: &Program, order: &Order) -> Result<()> {
    say(&Message::Started(Started {
        load: program.name.clone(),
        cores: order.cores.clone(),
        unit: program.score.as_ref().map(|score| score.unit.clone()).unwrap_or_default(),
        less_is_better: program.score.as_ref().is_some_and(Measure::less_is_better),
        ..Started::default()
    }))?;
    let mut series = Series::new(program, order);
    match order.turns {
        Turns::Together => _ = series.stint(None, order.length)?,
        Turns::OneByOne => {
            let each = order.length / order.cores.len().max(1) as u32;
            for core in &order.cores {
                if !series.stint(Some(*core), each)? {
                    break;
                }
            }
        }
    }
    say(&Message::Ended(series.progress()))?;
    // What the program has started may still run, in this process's group.
    Ok(kill_current_process_group(Signal::KILL)?)
}

/// Runs one after the other.
struct Series<'a> {
    program: &'a Program,
    order: &'a Order,
    began: Instant,
    rounds: u64,
    errors: u64,
    scores: Vec<f64>,
    cores: Vec<CoreProgress>,
    /// The digest of the first right run's output.
    first: Option<String>,
}

/// What a run has left behind.
struct Ended {
    end: RunEnd,
    seconds: f64,
    output: Drained,
    last_words: String,
}

impl<'a> Series<'a> {
    fn new(program: &'a Program, order: &'a Order) -> Self {
        let one_by_one = order.turns == Turns::OneByOne;
        let cores = order.cores.iter().filter(|_| one_by_one);
        let cores = cores.map(|core| CoreProgress { core: *core, ..CoreProgress::default() }).collect();
        Self { program, order, began: Instant::now(), rounds: 0, errors: 0, scores: vec![], cores, first: None }
    }

    /// Runs for this long, on one core or all; says whether to go on.
    fn stint(&mut self, core: Option<usize>, length: Duration) -> Result<bool> {
        let until = Instant::now() + length;
        pin_to_any(core.as_ref().map_or(&self.order.cores, std::slice::from_ref));
        let mut times = 0;
        while Instant::now() < until && self.order.times.is_none_or(|most| times < most) {
            // A program that can't be started won't be on another core either.
            let Some(ended) = self.run(until)? else { return Ok(Instant::now() >= until) };
            times += 1;
            self.rounds += 1;
            let is_right = self.take(core, &ended)?;
            if !is_right && self.order.stop == Stop::AtFirstError {
                return Ok(false);
            }
        }
        Ok(true)
    }

    /// Judges a run and tells what was wrong; says whether it was right.
    fn take(&mut self, core: Option<usize>, ended: &Ended) -> Result<bool> {
        let output = String::from_utf8_lossy(&ended.output.kept);
        let digest = &ended.output.digest;
        let run =
            Run { end: ended.end, seconds: ended.seconds, digest, output: &output, last_words: &ended.last_words };
        let judged = self.program.judge(&run, self.first.as_deref());
        let known = self.cores.iter_mut().find(|known| Some(known.core) == core);
        if let Some(known) = known {
            known.rounds += 1;
            known.errors += u64::from(judged.is_err());
            known.checked = self.began.elapsed().as_secs_f64();
        }
        match judged {
            Ok(score) => {
                self.scores.extend(score);
                self.first.get_or_insert_with(|| digest.clone());
                Ok(true)
            }
            Err(Misrun { part, expected, found }) => {
                self.errors += 1;
                say(&Message::Wrong(Wrong {
                    core,
                    round: self.rounds,
                    seconds: self.began.elapsed().as_secs_f64(),
                    kind: FaultKind::Result,
                    part: Some(part.into()),
                    expected,
                    found,
                    nth: self.errors,
                    repeats: None,
                    picture: None,
                }))?;
                Ok(false)
            }
        }
    }

    /// One run; nothing where the time of the pass was over before its own.
    fn run(&self, until: Instant) -> Result<Option<Ended>> {
        let began = Instant::now();
        let mut child = match self.spawn() {
            Ok(child) => child,
            Err(error) => {
                let why = running::could_not_start(&self.program.run[0], &error);
                say(&Message::Failed { why })?;
                return Ok(None);
            }
        };
        let (output, errors) = (drained(child.stdout.take()), drained(child.stderr.take()));
        let limit = began + Duration::from_millis(self.program.limit.millis());
        let Some(end) = self.wait(&mut child, limit, until)? else { return Ok(None) };
        let seconds = began.elapsed().as_secs_f64();
        let words = String::from_utf8_lossy(&finished(&errors).kept).lines().last().unwrap_or_default().to_owned();
        Ok(Some(Ended { end, seconds, output: finished(&output), last_words: words }))
    }

    fn spawn(&self) -> Result<Child> {
        let mut command = Command::new(&self.program.run[0]);
        command.args(&self.program.run[1..]).stdin(Stdio::null()).stdout(Stdio::piped()).stderr(Stdio::piped());
        if let Some(folder) = &self.program.folder {
            command.current_dir(folder);
        }
        dies_with_this_thread(&mut command);
        command.spawn()
    }

    /// Waits for a run's end; kills it at its limit, and where the pass is over.
    fn wait(&self, child: &mut Child, limit: Instant, until: Instant) -> Result<Option<RunEnd>> {
        let mut told = Instant::now();
        loop {
            if let Some(status) = child.try_wait()? {
                return Ok(Some(end_of(status)));
            }
            let now = Instant::now();
            if now >= limit || now >= until {
                child.kill()?;
                child.wait()?;
                return Ok((now >= limit).then_some(RunEnd::TimedOut));
            }
            if now - told >= TELLING {
                say(&Message::Progress(self.progress()))?;
                told = now;
            }
            // Short runs are waited for in short sleeps, so that they measure the run.
            thread::sleep(
                (now - self.began).div_f64(1000.0).clamp(Duration::from_micros(100), Duration::from_millis(5)),
            );
        }
    }

    fn progress(&self) -> Progress {
        Progress {
            seconds: self.began.elapsed().as_secs_f64(),
            rounds: self.rounds,
            errors: self.errors,
            rate: self.scores.iter().sum::<f64>() / self.scores.len().max(1) as f64,
            cores: self.cores.clone(),
            ..Progress::default()
        }
    }
}

fn end_of(status: ExitStatus) -> RunEnd {
    match (status.code(), status.signal()) {
        (Some(code), _) => RunEnd::Exited(code),
        (None, signal) => RunEnd::Signalled(signal.unwrap_or_default()),
    }
}

/// What came out of a pipe.
#[derive(Default)]
struct Drained {
    digest: String,
    kept: Vec<u8>,
}

/// Reads a pipe to its end.
fn drained(pipe: Option<impl Read + Send + 'static>) -> Receiver<Drained> {
    let (sender, drained) = channel();
    if let Some(mut pipe) = pipe {
        thread::spawn(move || {
            let (mut digest, mut kept, mut bytes) = (Sha256::new(), VecDeque::new(), vec![0; 1 << 16]);
            while let Ok(count @ 1..) = pipe.read(&mut bytes) {
                digest.update(&bytes[..count]);
                kept.extend(&bytes[..count]);
                kept.drain(..kept.len().saturating_sub(KEPT));
            }
            // Nobody may listen any more.
            let _ = sender.send(Drained { digest: hex(&digest.finalize()), kept: kept.into() });
        });
    }
    drained
}

/// What came out of a pipe; nothing where something else holds it open after the run.
fn finished(drained: &Receiver<Drained>) -> Drained {
    drained.recv_timeout(Duration::from_secs(1)).unwrap_or_default()
}
