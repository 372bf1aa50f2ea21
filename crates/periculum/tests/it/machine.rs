//! Climbs whose settings are written to a machine: one whose file systems are laid out in a folder.

use std::fs;
use std::io::{BufRead, BufReader};
use std::path::PathBuf;
use std::process::{Output, Stdio};
use std::thread;
use std::time::{Duration, Instant};

use crate::common::{Home, demo, json_lines, of_kind, output};

const RIG: &str = r#"
format = 1
[rig]
name = "board"
watchdog = "/dev/watchdog"
[setting.top]
label = "highest clock"
unit = "MHz"
ladder = { from = 4700, step = 25, to = 5400 }
stock = 4700
ceiling = { daily = 4750 }
harder = "up"
takes_effect = "at-once"
adapter = "linux"
target = "clock/max"
[setting.hand]
label = "jumper"
ladder = { from = 0, step = 1, to = 1 }
stock = 0
harder = "up"
takes_effect = "by-hand"
"#;

const PLAN: &str = r#"
format = 1
[plan]
name = "up"
rig = "board.rig.toml"
use = "daily"
unattended = true
[proof.glance]
passes = [{ load = "dense", size = 100, for = "LONG" }]
[[stage]]
strategy = "ascend"
setting = "top"
step = 25
proof = "glance"
"#;

const POLICY: &str = "root/sys/devices/system/cpu/cpufreq/policy0";

/// A machine with one clock limit, at a value that is on no ladder.
fn machine(long: &str) -> Home {
    let home = Home::new();
    fs::create_dir_all(home.path(POLICY)).expect("made");
    for folder in ["root/proc/sys/kernel/random", "root/dev"] {
        fs::create_dir_all(home.path(folder)).expect("made");
    }
    home.write("root/proc/sys/kernel/random/boot_id", "boot-1\n");
    home.write("root/proc/meminfo", "MemTotal: 8000000 kB\nMemAvailable: 7000000 kB\n");
    home.write("root/dev/watchdog", "");
    for (end, value) in [("cpuinfo_min", 800), ("cpuinfo_max", 5400), ("scaling_min", 800), ("scaling_max", 4711)] {
        home.write(&format!("{POLICY}/{end}_freq"), &format!("{}000\n", value));
    }
    home.write("board.rig.toml", RIG);
    home.write("up.plan.toml", &PLAN.replace("LONG", long));
    home
}

fn clock_limit(home: &Home) -> String {
    fs::read_to_string(home.path(POLICY).join("scaling_max_freq")).expect("read").trim().to_owned()
}

fn root(home: &Home) -> PathBuf {
    home.path("root")
}

fn climb(home: &Home) -> Output {
    let answers = home.write("answers", "done\n");
    home.periculum()
        .args(["climb", "up.plan.toml", "--headless", "--json", "--sysroot"])
        .arg(root(home))
        .arg("--answers")
        .arg(answers)
        .output()
        .expect("started")
}

fn allow(home: &Home) -> String {
    output(home.periculum().args(["allow", "board.rig.toml", "--yes", "--sysroot"]).arg(root(home)))
}

#[test]
fn nothing_is_written_that_was_not_allowed() {
    let home = machine("3s");
    let refused = climb(&home);
    let told = String::from_utf8_lossy(&refused.stderr).into_owned();
    assert_eq!(refused.status.code(), Some(2), "{told}");
    assert!(told.contains("highest clock (clock/max)") && told.contains("periculum allow RIG"), "{told}");
    assert_eq!(clock_limit(&home), "4711000");
    let told = allow(&home);
    assert!(told.contains("scaling_max_freq") && told.contains("watchdog:/dev/watchdog"), "{told}");
    output(home.periculum().args(["allow", "board.rig.toml", "--forget", "--sysroot"]).arg(root(&home)));
    assert_eq!(climb(&home).status.code(), Some(2));
}

#[test]
fn a_climb_sets_the_machine_and_puts_it_back_as_it_was() {
    let home = machine("3s");
    allow(&home);
    let run = climb(&home);
    let told = String::from_utf8_lossy(&run.stderr).into_owned();
    let lines = json_lines(&String::from_utf8(run.stdout).expect("text"));
    let mark = of_kind(&lines, "mark-set");
    assert_eq!(mark.last().expect("a mark")["mark"]["rung"]["top"], "4750", "{told}");
    assert_eq!(clock_limit(&home), "4711000", "not stock, but what was there");
    let watchdog = fs::read_to_string(home.path("root/dev/watchdog")).expect("read");
    assert!(watchdog.ends_with('V'), "armed and disarmed: {watchdog:?}");
    let nothing = output(home.periculum().args(["restore", "--sysroot"]).arg(root(&home)));
    assert_eq!(nothing, "There is nothing to put back.\n");
}

#[test]
fn a_climb_that_ends_at_its_mark_leaves_what_it_set_until_somebody_puts_it_back() {
    let home = machine("3s");
    let plan = fs::read_to_string(home.path("up.plan.toml")).expect("read");
    let climb_to = |ends: &str| {
        home.write("up.plan.toml", &plan.replace("unattended = true", &format!("ends = \"{ends}\"")));
        let run = climb(&home);
        json_lines(&String::from_utf8(run.stdout).expect("text")).last().expect("a last line").clone()
    };
    allow(&home);
    let ended = climb_to("at-mark");
    assert_eq!((ended["left_at"]["top"].as_str(), clock_limit(&home).as_str()), (Some("4750"), "4750000"), "{ended}");
    let told = output(home.periculum().args(["restore", "--sysroot"]).arg(root(&home)));
    assert_eq!((told.as_str(), clock_limit(&home).as_str()), ("clock/max is as it was before.\n", "4711000"));
    climb_to("at-mark");
    let ended = climb_to("at-stock");
    assert_eq!(clock_limit(&home), "4711000", "what was there before the first of both: {ended}");
}

#[test]
fn what_a_killed_climb_left_is_put_back_by_restore() {
    let home = machine("60s");
    allow(&home);
    let answers = home.write("answers", "done\n");
    let mut child = home
        .periculum()
        .args(["climb", "up.plan.toml", "--headless", "--sysroot"])
        .arg(root(&home))
        .arg("--answers")
        .arg(answers)
        .stdout(Stdio::null())
        .spawn()
        .expect("started");
    let began = Instant::now();
    while clock_limit(&home) == "4711000" && began.elapsed() < Duration::from_secs(120) {
        thread::sleep(Duration::from_millis(20));
    }
    assert_eq!(clock_limit(&home), "4700000", "where it starts is tried");
    child.kill().expect("killed");
    child.wait().expect("gone");
    assert_eq!(clock_limit(&home), "4700000", "nobody has put it back");
    let told = output(home.periculum().args(["restore", "--sysroot"]).arg(root(&home)));
    assert_eq!(told, "clock/max is as it was before.\n");
    assert_eq!(clock_limit(&home), "4711000");
}

#[test]
fn a_machine_without_the_target_or_the_right_is_refused_before_anything() {
    let home = machine("3s");
    allow(&home);
    fs::remove_file(home.path("root/dev/watchdog")).expect("removed");
    let told = String::from_utf8_lossy(&climb(&home).stderr).into_owned();
    assert!(told.contains("there is no watchdog") && told.contains("leave `unattended` out"), "{told}");
    fs::remove_dir_all(home.path(POLICY)).expect("removed");
    let told = String::from_utf8_lossy(&climb(&home).stderr).into_owned();
    assert!(told.contains("the target `clock/max`"), "{told}");
    assert!(!home.ledger().exists() || output(home.periculum().args(["ledger"])).contains("no climb"), "{told}");
}

/// A meter in software whose probes are on the simulated rig that is climbed beside it.
#[test]
fn a_meter_on_the_network_is_a_sensor_and_follows_the_rig() {
    let home = Home::new();
    let mut meter =
        home.periculum().args(["meter", "--listen", "127.0.0.1:0"]).stdout(Stdio::piped()).spawn().expect("started");
    let mut told = String::new();
    BufReader::new(meter.stdout.take().expect("its output")).read_line(&mut told).expect("a line");
    let address = told.split([' ', ';']).find(|word| word.starts_with("127.0.0.1:")).expect("an address");
    let rig = fs::read_to_string(demo("dome.rig.toml")).expect("read");
    let sensor = format!(
        "[sensor.probe]\nunit = \"V\"\ndecimals = 3\ncut_off = 0.5\nadapter = \"scpi\"\nsource = \"{address} MEAS:VOLT:DC?\"\n"
    );
    home.write("dome.rig.toml", &format!("{rig}\n{sensor}"));
    let plan = fs::read_to_string(demo("dome.plan.toml")).expect("read");
    home.write("dome.plan.toml", &plan);
    let run = home.periculum().args(["climb", "dome.plan.toml", "--headless", "--json", "--pace", "3"]).output();
    let lines = json_lines(&String::from_utf8(run.expect("started").stdout).expect("text"));
    meter.kill().and_then(|()| meter.wait()).expect("killed");
    let over: Vec<_> =
        of_kind(&lines, "incident").into_iter().filter(|incident| incident["place"] == "probe").collect();
    let first = over.first().expect("a reading over its cut-off");
    let volts = first["evidence"]["reading"]["value"].as_f64().expect("a voltage");
    assert!((1.0..1.3).contains(&volts), "{first}");
    assert!(first["told"].as_str().is_some_and(|told| told.contains("cut-off 0.5 V")), "and in words: {first}");
}

const BOARD: &str = r#"
format = 1
[rig]
name = "board"
[setting.core]
label = "core clock"
unit = "MHz"
ladder = { from = 2000, step = 50, to = 2200 }
stock = 2000
ceiling = { daily = 2100 }
harder = "up"
takes_effect = "next-start"
adapter = "linux"
boot = { file = "/boot/config.txt", key = "core_mhz" }
"#;

/// A small board whose clock is a line of its boot file, and a climb over it.
fn board() -> Home {
    let home = Home::new();
    for folder in ["root/proc/sys/kernel/random", "root/boot"] {
        fs::create_dir_all(home.path(folder)).expect("made");
    }
    boot(&home, 1);
    home.write("root/boot/config.txt", "core_mhz=2000\n");
    home.write("board.rig.toml", BOARD);
    let plan = PLAN.replace("LONG", "2s").replace("unattended = true\n", "").replace("\"top\"", "\"core\"");
    home.write("up.plan.toml", &plan.replace("step = 25", "step = 50"));
    allow(&home);
    home
}

fn boot(home: &Home, number: u32) {
    home.write("root/proc/sys/kernel/random/boot_id", &format!("boot-{number}\n"));
}

fn boot_file(home: &Home) -> String {
    fs::read_to_string(home.path("root/boot/config.txt")).expect("read")
}

/// Runs a command of the board with this on its standard input, tells it to end when it has said something, and returns
/// what it said and its exit code.
fn until(
    home: &Home,
    arguments: &[&str],
    said: &str,
    signal: Option<rustix::process::Signal>,
) -> (String, Option<i32>) {
    let mut command = home.periculum();
    command.args(arguments).args(["--headless", "--json", "--sysroot"]).arg(root(home));
    // Standard input stays open and says nothing, unless nobody is to be told to end.
    let stdin = if signal.is_some() { Stdio::piped() } else { Stdio::null() };
    let mut child = command.stdin(stdin).stdout(Stdio::piped()).spawn().expect("started");
    let mut output = BufReader::new(child.stdout.take().expect("its output"));
    let mut told = String::new();
    while !told.contains(said) && output.read_line(&mut told).expect("text") > 0 {}
    if let Some(signal) = signal {
        let child = rustix::process::Pid::from_child(&child);
        rustix::process::kill_process(child, signal).expect("told");
    }
    while output.read_line(&mut told).expect("text") > 0 {}
    (told, child.wait().expect("ended").code())
}

#[test]
fn a_climb_over_a_boot_file_advances_from_start_to_start_whoever_ends_the_program() {
    use rustix::process::Signal;
    let home = board();
    let (told, code) = until(&home, &["climb", "up.plan.toml"], "\"asked\"", Some(Signal::TERM));
    assert_eq!((boot_file(&home).as_str(), code), ("core_mhz=2050\n", Some(130)), "{told}");
    boot(&home, 2);
    let (told, code) = until(&home, &["resume"], "\"asked\"", Some(Signal::HUP));
    assert_eq!((boot_file(&home).as_str(), code), ("core_mhz=2100\n", Some(130)), "{told}");
    assert_eq!(of_kind(&json_lines(&told), "trial-ended")[0]["verdict"], "held", "{told}");
    boot(&home, 3);
    // Nobody is there to answer, and nothing is to be asked before the way home.
    let (told, code) = until(&home, &["resume"], "\"asked\"", None);
    let lines = json_lines(&told);
    let mark = of_kind(&lines, "mark-set");
    assert_eq!((mark[0]["mark"]["rung"]["core"].as_str(), code), (Some("2100"), Some(130)), "{told}");
    assert!(of_kind(&lines, "incident").is_empty(), "{told}");
    assert_eq!(boot_file(&home), "core_mhz=2000\n", "written for the start that takes it home");
    boot(&home, 4);
    let (told, code) = until(&home, &["resume"], "\"ended\"", None);
    assert_eq!(code, Some(0), "{told}");
}

#[test]
fn done_is_no_proof_of_a_start() {
    let home = board();
    let answers = home.write("answers", "done\ndone\n");
    let mut command = home.periculum();
    command.args(["climb", "up.plan.toml", "--headless", "--json", "--sysroot"]).arg(root(&home));
    let run = command.arg("--answers").arg(answers).output().expect("started");
    let lines = json_lines(&String::from_utf8(run.stdout).expect("text"));
    assert_eq!(of_kind(&lines, "declined").len(), 2, "{lines:?}");
    assert!(of_kind(&lines, "pass-began").iter().all(|line| line["trial"] == 1), "only stock is proved: {lines:?}");
    assert_eq!(boot_file(&home), "core_mhz=2050\n");
}

#[test]
fn a_start_with_another_value_than_the_written_one_never_holds() {
    let home = board();
    until(&home, &["climb", "up.plan.toml"], "\"asked\"", Some(rustix::process::Signal::TERM));
    boot(&home, 2);
    home.write("root/boot/config.txt", "core_mhz=2000\n");
    let (told, _) = until(&home, &["resume"], "\"trial-ended\"", Some(rustix::process::Signal::TERM));
    let lines = json_lines(&told);
    assert_eq!(of_kind(&lines, "trial-ended")[0]["verdict"], "slipped", "{told}");
    assert_eq!(of_kind(&lines, "incident")[0]["incident"], "not-taken", "{told}");
}

#[test]
fn a_permission_is_for_what_is_written_and_not_for_a_name() {
    let home = machine("3s");
    allow(&home);
    let refused = |rig: &str, what: &str| {
        home.write("board.rig.toml", rig);
        let run = climb(&home);
        let told = String::from_utf8_lossy(&run.stderr).into_owned();
        assert!(run.status.code() == Some(2) && told.contains("nobody has allowed"), "{what}: {told}");
        assert_eq!(clock_limit(&home), "4711000", "{what}");
    };
    refused(&RIG.replace("to = 5400", "to = 99000").replace("daily = 4750", "daily = 99000"), "a higher ceiling");
    refused(&RIG.replace("stock = 4700", "largest_jump = 25\nstock = 4700"), "another jump");
    home.write("root/dev/watchdog9", "");
    refused(&RIG.replace("/dev/watchdog", "/dev/watchdog9"), "another watchdog");
    home.write("board.rig.toml", RIG);
    assert_eq!(climb(&home).status.code(), Some(0));
    // What the device itself takes is named where a rig goes beyond it.
    home.write("far.rig.toml", &RIG.replace("to = 5400", "to = 99000").replace("daily = 4750", "daily = 99000"));
    let told = output(home.periculum().args(["allow", "far.rig.toml", "--yes", "--sysroot"]).arg(root(&home)));
    assert!(told.contains("800 to 5400, AND MORE THAN THAT MAY BE WRITTEN"), "{told}");
}

#[test]
fn a_plan_that_raises_a_ceiling_needs_a_permission_of_its_own() {
    let home = machine("3s");
    allow(&home);
    let plan = PLAN.replace("LONG", "3s") + "\n[raise.top]\nceiling = 4775\nbecause = \"a cold night\"\n";
    home.write("up.plan.toml", &plan);
    assert_eq!(climb(&home).status.code(), Some(2));
    output(home.periculum().args(["allow", "up.plan.toml", "--yes", "--sysroot"]).arg(root(&home)));
    assert_eq!(climb(&home).status.code(), Some(0));
}

#[test]
fn the_card_of_a_permission_can_not_be_forged() {
    let home = board();
    let hostile = BOARD
        .replace("key = \"core_mhz\"", "key = \"core_mhz\", between = \"=1 init=/evil #\"")
        .replace("label = \"core clock\"", "label = \"clock\\u001b[2K\\r\\u202e\\n  digest: 0\"");
    home.write("board.rig.toml", &hostile);
    let told = allow(&home);
    assert!(told.contains("between key and value: =1 init=/evil #"), "{told}");
    assert!(!told.contains(['\u{1b}', '\r', '\u{202e}']) && !told.contains("\n  digest: 0\n"), "{told:?}");
    let gone = BOARD.replace("/boot/config.txt", "/boot/none.txt");
    home.write("board.rig.toml", &gone);
    let run = home.periculum().args(["allow", "board.rig.toml", "--yes", "--sysroot"]).arg(root(&home)).output();
    let told = String::from_utf8_lossy(&run.expect("started").stderr).into_owned();
    assert!(told.contains("which is not there"), "{told}");
}

#[test]
fn restore_writes_only_where_it_is_still_allowed() {
    let home = board();
    until(&home, &["climb", "up.plan.toml"], "\"asked\"", Some(rustix::process::Signal::TERM));
    let kept = home.path("state/periculum/to-put-back.jsonl");
    let honest = fs::read_to_string(&kept).expect("kept");
    let victim = home.write("root/boot/victim.txt", "core_mhz=7\n");
    let forged =
        honest.replace(&home.path("root/boot/config.txt").display().to_string(), &victim.display().to_string());
    assert_ne!(honest, forged);
    fs::write(&kept, forged).expect("written");
    let restore =
        |home: &Home| home.periculum().args(["restore", "--sysroot"]).arg(root(home)).output().expect("started");
    let run = restore(&home);
    assert_eq!(run.status.code(), Some(1), "{}", String::from_utf8_lossy(&run.stdout));
    assert_eq!(fs::read_to_string(&victim).expect("read"), "core_mhz=7\n");
    fs::write(&kept, honest).expect("written");
    assert_eq!(restore(&home).status.code(), Some(0));
    assert_eq!(boot_file(&home), "core_mhz=2000\n");
}

#[test]
fn links_of_a_boot_file_stay_and_planted_ones_are_not_followed() {
    use std::os::unix::fs::{MetadataExt, symlink};
    let home = board();
    let (config, real) = (home.path("root/boot/config.txt"), home.path("root/boot/real.txt"));
    fs::rename(&config, &real).expect("renamed");
    symlink("real.txt", &config).expect("linked");
    fs::hard_link(&real, home.path("root/boot/twin.txt")).expect("linked");
    let precious = home.write("precious", "precious");
    for planted in ["real.txt.next", "config.txt.before-periculum"] {
        symlink(&precious, home.path("root/boot").join(planted)).expect("planted");
    }
    until(&home, &["climb", "up.plan.toml"], "\"asked\"", Some(rustix::process::Signal::TERM));
    assert!(fs::symlink_metadata(&config).expect("there").is_symlink(), "the link is a link still");
    assert_eq!(fs::metadata(&real).expect("there").nlink(), 2);
    assert_eq!(fs::read_to_string(home.path("root/boot/twin.txt")).expect("read"), "core_mhz=2050\n");
    assert_eq!(fs::read_to_string(precious).expect("read"), "precious");
}

#[test]
fn one_machine_has_one_driver_whatever_ledgers_there_are() {
    let home = machine("60s");
    allow(&home);
    let answers = home.write("answers", "done\n");
    let climbs = |ledger: &str| {
        let mut command = home.periculum();
        command.args(["climb", "up.plan.toml", "--json", "--ledger", ledger, "--sysroot"]).arg(root(&home));
        command.arg("--answers").arg(&answers).stdout(Stdio::piped()).stderr(Stdio::piped());
        command
    };
    let mut first = climbs("one.ledger").spawn().expect("started");
    let mut said = BufReader::new(first.stdout.take().expect("its output")).lines();
    assert!(said.any(|line| line.expect("text").contains("pass-began")));
    let second = climbs("two.ledger").output().expect("started");
    let told = String::from_utf8_lossy(&second.stderr).into_owned();
    assert!(told.contains("another periculum drives this machine"), "{told}");
    let restore = home.periculum().args(["restore", "--sysroot"]).arg(root(&home)).output().expect("started");
    assert_eq!(restore.status.code(), Some(1));
    first.kill().and_then(|()| first.wait()).expect("killed");
}

#[test]
fn what_an_instrument_is_told_has_to_be_allowed_and_a_measurement_has_not() {
    let home = Home::new();
    let rig = fs::read_to_string(demo("dome.rig.toml")).expect("read");
    let plan = fs::read_to_string(demo("dome.plan.toml")).expect("read");
    home.write("dome.plan.toml", &plan);
    let with = |question: &str| {
        let sensor = format!("[sensor.probe]\nunit = \"V\"\nadapter = \"scpi\"\nsource = \"127.0.0.1:9 {question}\"\n");
        home.write("dome.rig.toml", &format!("{rig}\n{sensor}"));
        home.periculum().args(["climb", "dome.plan.toml", "--json"]).output().expect("started")
    };
    assert_eq!(with("MEAS:VOLT:DC?").status.code(), Some(0));
    let refused = with("OUTPut ON;:READ?");
    let told = String::from_utf8_lossy(&refused.stderr).into_owned();
    assert!(refused.status.code() == Some(2) && told.contains("OUTPut ON"), "{told}");
    let told = output(home.periculum().args(["allow", "dome.rig.toml", "--yes"]));
    assert!(told.contains("is sent: OUTPut ON;:READ?"), "{told}");
    assert_eq!(with("OUTPut ON;:READ?").status.code(), Some(0));
}

#[test]
fn what_is_no_regular_file_is_not_read() {
    let home = Home::new();
    let pipe = home.path("pipe");
    assert!(std::process::Command::new("mkfifo").arg(&pipe).status().expect("started").success());
    home.write("zero.plan.toml", "format = 1\n[plan]\nname = \"z\"\nrig = \"/dev/zero\"\nuse = \"daily\"\n");
    for file in ["pipe", "/dev/zero", "zero.plan.toml", "."] {
        let run = home.periculum().args(["check", file]).output().expect("started");
        let told = String::from_utf8_lossy(&run.stderr).into_owned();
        assert!(run.status.code() == Some(2) && told.contains("no regular file"), "{file}: {told}");
    }
}

#[test]
fn what_is_kept_is_the_users_alone() {
    use std::os::unix::fs::MetadataExt;
    let home = board();
    until(&home, &["climb", "up.plan.toml"], "\"asked\"", Some(rustix::process::Signal::TERM));
    let files = [
        "data/periculum/periculum.ledger",
        "state/periculum/to-put-back.jsonl",
        "config/periculum/allowed-programs.txt",
    ];
    for file in files {
        let mode = |path: PathBuf| fs::metadata(path).expect("there").mode() & 0o777;
        let path = home.path(file);
        assert_eq!((mode(path.clone()), mode(path.parent().expect("a folder").to_owned())), (0o600, 0o700), "{file}");
    }
}

#[test]
fn a_plan_that_restarts_the_machine_has_to_be_allowed_and_says_where_it_can_not() {
    let home = board();
    let plan = fs::read_to_string(home.path("up.plan.toml")).expect("read");
    home.write("up.plan.toml", &plan.replace("use = \"daily\"", "use = \"daily\"\nrestarts = \"by-itself\""));
    let climb = || {
        let mut command = home.periculum();
        command.args(["climb", "up.plan.toml", "--headless", "--sysroot"]).arg(root(&home)).stdin(Stdio::null());
        command.output().expect("started")
    };
    let refused = climb();
    let told = String::from_utf8_lossy(&refused.stderr).into_owned();
    assert!(refused.status.code() == Some(2) && told.contains("this machine (restart)"), "{told}");
    let told = output(home.periculum().args(["allow", "up.plan.toml", "--yes", "--sysroot"]).arg(root(&home)));
    assert!(told.contains("is started anew by itself: whenever a change of the plan needs it"), "{told}");
    let run = climb();
    let told = String::from_utf8_lossy(&run.stderr).into_owned();
    assert!(run.status.code() == Some(130) && told.contains("could not be started anew"), "{told}");
    assert_eq!(boot_file(&home), "core_mhz=2050\n", "what was written stays");
}

#[test]
fn a_pipe_in_the_place_of_an_attribute_is_waited_for_by_nobody() {
    let home = machine("3s");
    allow(&home);
    for attribute in ["scaling_max_freq", "cpuinfo_max_freq"] {
        let path = home.path(POLICY).join(attribute);
        fs::remove_file(&path).expect("removed");
        assert!(std::process::Command::new("mkfifo").arg(&path).status().expect("started").success());
    }
    output(home.periculum().args(["rig", "--sysroot"]).arg(root(&home)));
    assert_eq!(climb(&home).status.code(), Some(2), "it is refused, and does not hang");
}
