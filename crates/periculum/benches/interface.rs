//! The interface while every core is loaded: how soon a key is on the screen, what watching costs, and whether a score
//! is another one with the interface open. `cargo bench -p periculum --bench interface`, or one part of it: `-- keys`.
//!
//! The real program runs in a pseudo-terminal of 160 by 40, which this program reads as a terminal would.

use std::fs::File;
use std::io::{Read, Write};
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::sync::mpsc::{Receiver, channel};
use std::thread;
use std::time::{Duration, Instant};

use periculum_core::inference::comparison::compare;
use rustix::pty::{OpenptFlags, grantpt, openpt, ptsname, unlockpt};
use rustix::termios::{Winsize, tcsetwinsize};

const ROWS: u16 = 40;
const COLUMNS: u16 = 160;

/// Keys that are pressed, one a moment.
const KEYS: usize = 200;
const BETWEEN: Duration = Duration::from_millis(150);

/// How long what watching costs is measured.
const WATCHED: Duration = Duration::from_secs(20);

/// Scores of each kind, taken by turns.
const TURNS: usize = 5;

/// What can't come at all is not waited for any longer.
const PATIENCE: Duration = Duration::from_secs(120);

fn main() {
    let folder = tempfile::tempdir().expect("a folder");
    let named: Vec<String> = std::env::args().skip(1).filter(|word| !word.starts_with('-')).collect();
    let is_wanted = |name: &str| named.is_empty() || named.iter().any(|word| word == name);
    if is_wanted("keys") {
        keys(folder.path());
    }
    if is_wanted("costs") {
        costs(folder.path());
    }
    if is_wanted("scores") {
        scores(folder.path());
    }
}

/// The program in a terminal of its own.
struct Shown {
    child: Child,
    keyboard: File,
    output: Receiver<Vec<u8>>,
    screen: vt100::Parser,
}

impl Shown {
    fn start(home: &Path, arguments: &[&str]) -> Self {
        let terminal = openpt(OpenptFlags::RDWR | OpenptFlags::NOCTTY).expect("a terminal");
        grantpt(&terminal).expect("granted");
        unlockpt(&terminal).expect("unlocked");
        let name = ptsname(&terminal, Vec::new()).expect("a name").into_string().expect("text");
        let side = File::options().read(true).write(true).open(name).expect("opened");
        let size = Winsize { ws_row: ROWS, ws_col: COLUMNS, ws_xpixel: 0, ws_ypixel: 0 };
        tcsetwinsize(&side, size).expect("sized");
        let end = || Stdio::from(side.try_clone().expect("a copy"));
        let child = periculum(home, arguments).stdin(end()).stdout(end()).stderr(end()).spawn().expect("started");
        let keyboard = File::from(terminal);
        let mut reader = keyboard.try_clone().expect("a copy");
        let (sender, output) = channel();
        thread::spawn(move || {
            let mut bytes = vec![0; 65_536];
            while let Ok(count) = reader.read(&mut bytes) {
                if sender.send(bytes[..count].to_vec()).is_err() {
                    return;
                }
            }
        });
        Self { child, keyboard, output, screen: vt100::Parser::new(ROWS, COLUMNS, 0) }
    }

    fn press(&mut self, keys: &str) {
        self.keyboard.write_all(keys.as_bytes()).expect("typed");
    }

    /// How long it takes until this is on the screen, or is no longer.
    fn wait(&mut self, text: &str, is_there: bool) -> Duration {
        let began = Instant::now();
        while self.screen.screen().contents().contains(text) != is_there {
            assert!(began.elapsed() < PATIENCE, "waited for {text}, and see:\n{}", self.screen.screen().contents());
            if let Ok(bytes) = self.output.recv_timeout(Duration::from_secs(1)) {
                self.screen.process(&bytes);
            }
        }
        began.elapsed()
    }

    /// Reads what comes meanwhile, as a terminal does.
    fn watch(&mut self, length: Duration) {
        let until = Instant::now() + length;
        while let Some(left) = until.checked_duration_since(Instant::now()) {
            if let Ok(bytes) = self.output.recv_timeout(left) {
                self.screen.process(&bytes);
            }
        }
    }

    /// Leaves it, whatever it is doing.
    fn leave(mut self) {
        self.press("q");
        self.watch(Duration::from_millis(300));
        self.press("l");
        self.child.wait().expect("ended");
    }
}

fn periculum(home: &Path, arguments: &[&str]) -> Command {
    let mut command = Command::new(env!("CARGO_BIN_EXE_periculum"));
    command.args(arguments).current_dir(home).env("HOME", home).env("TERM", "xterm-256color");
    command.env("XDG_DATA_HOME", home).env("XDG_STATE_HOME", home).env_remove("NO_COLOR");
    command
}

fn keys(home: &Path) {
    let mut shown = Shown::start(home, &["prove", "--load", "dense", "--for", "10min", "--ledger", "keys.ledger"]);
    shown.wait("GFLOP/s", true);
    let mut taken: Vec<Duration> = (0..KEYS)
        .map(|nth| {
            shown.watch(BETWEEN);
            let (keys, is_there) = if nth % 2 == 0 { ("?", true) } else { ("\u{1b}", false) };
            shown.press(keys);
            shown.wait("what this view shows", is_there)
        })
        .collect();
    shown.leave();
    taken.sort();
    let at = |share: f64| taken[((taken.len() - 1) as f64 * share).round() as usize].as_secs_f64() * 1000.0;
    println!("| keys, every core loaded | half are on the screen within | 99 of 100 | all |\n|---|---|---|---|");
    println!("| {KEYS} | {:.1} ms | {:.1} ms | {:.1} ms |\n", at(0.5), at(0.99), at(1.0));
}

fn costs(home: &Path) {
    println!("| the interface shows | share of one core |\n|---|---|");
    let mut shown = Shown::start(home, &["prove", "--load", "dense", "--for", "5min", "--ledger", "costs.ledger"]);
    shown.wait("GFLOP/s", true);
    let live = share(&mut shown);
    shown.leave();
    println!("| a pass that loads every core | {live:.2} % |");
    let mut shown = Shown::start(home, &["show", "--ledger", "costs.ledger"]);
    shown.wait("not finished", true);
    println!("| what no longer changes | {:.2} % |\n", share(&mut shown));
    shown.leave();
}

/// What the program's own threads use of one core, percent; its loads are processes of their own.
fn share(shown: &mut Shown) -> f64 {
    let before = ticks(shown.child.id());
    let began = Instant::now();
    shown.watch(WATCHED);
    100.0 * (ticks(shown.child.id()) - before) as f64 / 100.0 / began.elapsed().as_secs_f64()
}

/// Hundredths of a second of processor time.
fn ticks(process: u32) -> u64 {
    let stat = std::fs::read_to_string(format!("/proc/{process}/stat")).expect("it runs");
    let behind_name = stat.rsplit_once(')').map_or("", |(_, rest)| rest);
    behind_name.split_whitespace().skip(11).take(2).map(|ticks| ticks.parse::<u64>().expect("a number")).sum()
}

fn scores(home: &Path) {
    let [mut open, mut headless] = [Vec::new(), Vec::new()];
    for turn in 0..TURNS {
        for (is_open, scores) in [(true, &mut open), (false, &mut headless)] {
            let ledger = format!("score-{turn}-{is_open}.ledger");
            let prove = ["prove", "--load", "dense", "--for", "30s", "--ledger", &ledger];
            if is_open {
                let mut shown = Shown::start(home, &prove);
                shown.wait("every stage is done", true);
                shown.leave();
            } else {
                let status = periculum(home, &prove).arg("--headless").stdout(Stdio::null()).status();
                assert!(status.expect("started").success());
            }
            scores.push(score(home, &ledger));
        }
    }
    let difference = compare(&headless, &open);
    let percent = |share: f64| 100.0 * share;
    println!(
        "| scores | the interface open, GFLOP/s | headless, GFLOP/s | difference, 95 % interval |\n|---|---|---|---|"
    );
    println!(
        "| {TURNS} each by turns | {} | {} | {:+.2} % ({:+.2} to {:+.2}) |",
        told(&open),
        told(&headless),
        percent(difference.change),
        percent(difference.low),
        percent(difference.high)
    );
}

fn told(scores: &[f64]) -> String {
    scores.iter().map(|score| format!("{score:.1}")).collect::<Vec<_>>().join(", ")
}

fn score(home: &Path, ledger: &str) -> f64 {
    let export = ["export", "1", "scores", "-o", "scores.csv", "--ledger", ledger];
    assert!(periculum(home, &export).status().expect("started").success());
    let table = std::fs::read_to_string(home.join("scores.csv")).expect("exported");
    let row = table.lines().nth(1).expect("a score");
    row.split(',').nth(4).and_then(|score| score.parse().ok()).expect("a number")
}
