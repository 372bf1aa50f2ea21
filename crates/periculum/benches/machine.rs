//! What watching this machine costs, and how fast a hot one is relieved: `cargo bench -p periculum --bench machine`.
//!
//! The machine's sensors are files in a folder, laid out as the kernel does; its processors are the real ones.

use std::fs;
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::thread;
use std::time::{Duration, Instant};

use periculum_core::model::rig::Sensor;
use periculum_rigs::latest::Latest;
use periculum_rigs::linux::{Linux, Sampler};

const CHIPS: usize = 10;
const INPUTS: usize = 20;
const WATCHED: Duration = Duration::from_secs(10);

/// Times that a cut-off is crossed.
const CROSSINGS: usize = 10;

/// What makes this program a load instead.
const BURN: &str = "PERICULUM_BENCH_BURN";

fn main() {
    if std::env::var_os(BURN).is_some() {
        burn();
    }
    sampling();
    cut_off();
}

/// Every processor is busy until this process is killed.
fn burn() -> ! {
    let processors = thread::available_parallelism().map_or(1, usize::from);
    for _ in 1..processors {
        thread::spawn(|| loop_for_ever());
    }
    loop_for_ever()
}

fn loop_for_ever() -> ! {
    let mut count = 0u64;
    loop {
        count = std::hint::black_box(count.wrapping_add(1));
    }
}

fn sampling() {
    let root = tempfile::tempdir().expect("a folder");
    let mut sensors = Vec::new();
    for chip in 0..CHIPS {
        let folder = root.path().join(format!("sys/class/hwmon/hwmon{chip}"));
        fs::create_dir_all(&folder).expect("made");
        fs::write(folder.join("name"), format!("chip{chip}\n")).expect("written");
        for input in 1..=INPUTS {
            fs::write(folder.join(format!("temp{input}_input")), "61000\n").expect("written");
            let sensor = Sensor { unit: "°C".into(), ..Sensor::plain(&format!("{chip}-{input}")) };
            // One in each chip is watched for a cut-off, ten times as often as the others.
            let cut_off = (input == 1).then(|| 95.into());
            sensors.push(Sensor { source: format!("hwmon/chip{chip}/temp{input}"), cut_off, ..sensor });
        }
    }
    println!(
        "| processors | sensors | share of one core | longest gap, usual | longest gap, with a cut-off |\n|---|---|---|---|---|"
    );
    for (what, is_loaded) in [("idle", false), ("all loaded", true)] {
        let mut load = is_loaded.then(|| {
            let this = std::env::current_exe().expect("this program");
            Command::new(this).env(BURN, "1").spawn().expect("started")
        });
        let latest = Latest::default();
        let sampler = Sampler::start(&Linux::below(root.path()), &sensors, &latest);
        thread::sleep(Duration::from_secs(2));
        let (began, worked, own) = (Instant::now(), processor_time(), own_time());
        let (mut usual, mut urgent) = (Duration::ZERO, Duration::ZERO);
        while began.elapsed() < WATCHED {
            thread::sleep(Duration::from_millis(5));
            usual = usual.max(latest.age("4-7").expect("read"));
            urgent = urgent.max(latest.age("4-1").expect("read"));
        }
        let used = (processor_time() - worked).saturating_sub(own_time() - own);
        let share = 100.0 * used.as_secs_f64() / began.elapsed().as_secs_f64();
        let (usual, urgent) = (usual.as_millis(), urgent.as_millis());
        println!("| {what} | {} | {share:.2} % | {usual} ms | {urgent} ms |", sensors.len());
        drop(sampler);
        if let Some(load) = &mut load {
            load.kill().and_then(|()| load.wait()).expect("killed");
        }
    }
}

/// The processor time of all threads of this process.
fn processor_time() -> Duration {
    let threads = fs::read_dir("/proc/self/task").expect("threads").flatten();
    threads.filter_map(|thread| scheduled(&thread.path())).sum()
}

/// That of this thread, which only looks on.
fn own_time() -> Duration {
    scheduled(Path::new("/proc/thread-self")).expect("this thread")
}

/// The first number of `schedstat` is the time on a processor, ns (kernel documentation, scheduler/sched-stats).
fn scheduled(task: &Path) -> Option<Duration> {
    let text = fs::read_to_string(task.join("schedstat")).ok()?;
    text.split_whitespace().next()?.parse().ok().map(Duration::from_nanos)
}

const RIG: &str = "format = 1\n[rig]\nname = \"hot\"\n[sensor.die]\nunit = \"°C\"\ncut_off = 95\nadapter = \"linux\"\n\
                   source = \"hwmon/corechip/temp1\"\n";

const PLAN: &str = "format = 1\n[plan]\nname = \"hot\"\nrig = \"hot.rig.toml\"\nuse = \"daily\"\n\
                    [proof.long]\npasses = [{ load = \"dense\", for = \"10min\" }]\n\
                    [[stage]]\nstrategy = \"baseline\"\nproof = \"long\"\n";

/// From the moment at which a sensor crosses its cut-off to the death of the load, with every core loaded.
fn cut_off() {
    let mut took: Vec<Duration> = (0..CROSSINGS).map(|_| crossing()).collect();
    took.sort_unstable();
    let (middle, longest) = (took[CROSSINGS / 2].as_millis(), took[CROSSINGS - 1].as_millis());
    println!("\nCut-off to dead load, {CROSSINGS} times: {middle} ms in the middle, {longest} ms at most.");
}

fn crossing() -> Duration {
    let home = tempfile::tempdir().expect("a folder");
    let path = |name: &str| home.path().join(name);
    let sensor = path("root/sys/class/hwmon/hwmon0/temp1_input");
    for folder in ["root/proc/sys/kernel/random", "root/sys/class/hwmon/hwmon0"] {
        fs::create_dir_all(path(folder)).expect("made");
    }
    let files = [
        ("root/proc/sys/kernel/random/boot_id", "boot"),
        ("root/proc/meminfo", "MemTotal: 4000000 kB\nMemAvailable: 2000000 kB\n"),
        ("root/sys/class/hwmon/hwmon0/name", "corechip\n"),
        ("root/sys/class/hwmon/hwmon0/temp1_input", "61000\n"),
        ("hot.rig.toml", RIG),
        ("hot.plan.toml", PLAN),
    ];
    for (name, text) in files {
        fs::write(path(name), text).expect("written");
    }
    let mut climb = Command::new(env!("CARGO_BIN_EXE_periculum"))
        .args(["climb", "hot.plan.toml", "--headless", "--json", "--sysroot", "root"])
        .current_dir(home.path())
        .env("HOME", home.path())
        .env("XDG_DATA_HOME", home.path())
        .env("XDG_STATE_HOME", home.path())
        .env("XDG_CONFIG_HOME", home.path())
        .stdout(Stdio::null())
        .spawn()
        .expect("started");
    let load = wait_for_load(&climb);
    thread::sleep(Duration::from_secs(4));
    // In one step, as the kernel would.
    let next = path("next");
    fs::write(&next, "99000\n").expect("written");
    let crossed = Instant::now();
    fs::rename(&next, &sensor).expect("renamed");
    while is_alive(load) && crossed.elapsed() < Duration::from_secs(30) {
        thread::sleep(Duration::from_millis(1));
    }
    let took = crossed.elapsed();
    climb.kill().and_then(|()| climb.wait()).expect("killed");
    took
}

/// The process that works for a climb.
fn wait_for_load(climb: &Child) -> u32 {
    let parent = climb.id().to_string();
    loop {
        let processes = fs::read_dir("/proc").expect("processes").flatten();
        let load = processes.filter_map(|entry| {
            let stat = fs::read_to_string(entry.path().join("stat")).ok()?;
            let mut behind_name = stat.rsplit_once(')')?.1.split_whitespace();
            (behind_name.nth(1)? == parent).then(|| entry.file_name().to_str()?.parse().ok()).flatten()
        });
        if let Some(load) = load.last() {
            return load;
        }
        thread::sleep(Duration::from_millis(5));
    }
}

/// Whether a process does anything any more.
fn is_alive(process: u32) -> bool {
    let stat = fs::read_to_string(format!("/proc/{process}/stat")).unwrap_or_default();
    stat.rsplit_once(')').is_some_and(|(_, rest)| !rest.trim_start().starts_with(['Z', 'X']))
}
