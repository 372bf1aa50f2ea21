//! The refresh rate of a display as a setting: on an X server of its own, whose outputs are made up.

use std::io::{BufRead, BufReader, Write};
use std::process::{Child, ChildStdin, Command, Stdio};
use std::thread::sleep;
use std::time::{Duration, Instant};

use rustix::process::{Pid, Signal, kill_process};
use serde_json::Value;

use crate::common::{Home, json_lines, of_kind, output};

/// A screen that nobody looks at.
const SERVER: &str = r#"
Section "Device"
    Identifier "card"
    Driver "dummy"
    VideoRam 65536
EndSection
Section "Monitor"
    Identifier "screen"
    HorizSync 5-300
    VertRefresh 5-140
EndSection
Section "Screen"
    Identifier "all"
    Device "card"
    Monitor "screen"
    DefaultDepth 24
    SubSection "Display"
        Depth 24
        Virtual 1024 768
        Modes "1024x768"
    EndSubSection
EndSection
"#;

/// An X server; it ends when it is dropped.
struct Server {
    process: Child,
    name: String,
}

impl Server {
    fn start(home: &Home) -> Self {
        let config = home.write("server.conf", SERVER);
        let mut command = Command::new("Xorg");
        command.args(["-displayfd", "1", "-noreset", "-nolisten", "tcp", "-config"]).arg(config);
        command.arg("-logfile").arg(home.path("server.log")).stdout(Stdio::piped()).stderr(Stdio::null());
        let mut process = command.spawn().expect("an X server is installed");
        let mut number = String::new();
        BufReader::new(process.stdout.take().expect("piped")).read_line(&mut number).expect("a display");
        let name = format!(":{}", number.trim());
        assert_ne!(name, ":", "{}", std::fs::read_to_string(home.path("server.log")).unwrap_or_default());
        Self { process, name }
    }

    fn periculum(&self, home: &Home) -> Command {
        let mut command = home.periculum();
        command.env("DISPLAY", &self.name);
        command
    }

    /// What is shown, as the list of this machine's displays has it.
    fn rate(&self) -> String {
        let mut listing = Command::new(assert_cmd::cargo::cargo_bin("periculum"));
        let listed = output(listing.arg("rig").env("DISPLAY", &self.name));
        let line = listed.lines().find(|line| line.starts_with("#   DUMMY0")).expect("an output").to_owned();
        let (_, rate) = line.split_once(" at ").expect("a rate");
        rate.split_once(" Hz").expect("a rate").0.to_owned()
    }

    /// Waits until this is shown.
    fn wait_for(&self, rate: &str) {
        let deadline = Instant::now() + Duration::from_secs(60);
        while !self.rate().starts_with(rate) {
            assert!(Instant::now() < deadline, "{} Hz are shown, and {rate} Hz do not come", self.rate());
            sleep(Duration::from_millis(100));
        }
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        // Where it is gone already there is nothing to end.
        let _ = self.process.kill();
        let _ = self.process.wait();
    }
}

const RIG: &str = r#"
format = 1
[rig]
name = "desk lamp"
[setting.refresh]
label = "refresh rate"
unit = "Hz"
values = [60, 75, 90, 90000]
stock = 60
ceiling = { daily = 90000 }
harder = "up"
takes_effect = "at-once"
tolerance = 0.1
confirm = "CONFIRM"
adapter = "display"
output = "DUMMY0"
"#;

const PLAN: &str = r#"
format = 1
[plan]
name = "up"
rig = "lamp.rig.toml"
use = "daily"
[proof.look]
passes = [{ load = "pulse", for = "1s" }]
[[stage]]
strategy = "ascend"
setting = "refresh"
proof = "look"
"#;

fn lamp(confirm: &str) -> (Home, Server) {
    let home = Home::new();
    let server = Server::start(&home);
    home.write("lamp.rig.toml", &RIG.replace("CONFIRM", confirm));
    home.write("up.plan.toml", PLAN);
    output(server.periculum(&home).args(["allow", "lamp.rig.toml", "--yes"]));
    (home, server)
}

/// A climb whose questions the test answers.
struct Climb {
    process: Child,
    answers: ChildStdin,
    lines: std::io::Lines<BufReader<std::process::ChildStdout>>,
}

impl Climb {
    fn begin(home: &Home, server: &Server) -> Self {
        let mut command = server.periculum(home);
        command.args(["climb", "up.plan.toml", "--headless", "--json"]).stdin(Stdio::piped()).stdout(Stdio::piped());
        let mut process = command.spawn().expect("started");
        let answers = process.stdin.take().expect("piped");
        let lines = BufReader::new(process.stdout.take().expect("piped")).lines();
        Self { process, answers, lines }
    }

    fn say(&mut self, answer: &str) {
        writeln!(self.answers, "{answer}").expect("heard");
    }

    /// Goes on until it asks.
    fn wait_for_question(&mut self) -> Value {
        let asks = |line: &str| line.contains("\"asked\"");
        let line = self.lines.by_ref().map(|line| line.expect("a line")).find(|line| asks(line)).expect("a question");
        serde_json::from_str(&line).expect("json")
    }

    fn rest(mut self) -> Vec<Value> {
        drop(self.answers);
        let rest: Vec<String> = self.lines.by_ref().map(|line| line.expect("a line")).collect();
        self.process.wait().expect("ended");
        json_lines(&rest.join("\n"))
    }
}

#[test]
fn a_rate_is_climbed_confirmed_and_put_back() {
    let (home, server) = lamp("30s");
    let before = server.rate();
    let mut climb = Climb::begin(&home, &server);
    climb.wait_for_question();
    server.wait_for("75");
    climb.say("done");
    climb.wait_for_question();
    server.wait_for("90");
    climb.say("done");
    // No clock counts so fast that there were 90 000 pictures a second, so that it goes back to 90.
    climb.say("done");
    let rest = climb.rest();
    let refused = of_kind(&rest, "incident")[0];
    assert_eq!(refused["incident"], "not-taken", "{refused}");
    assert!(of_kind(&rest, "mark-set").iter().any(|mark| mark.to_string().contains("90")), "{rest:?}");
    assert_eq!(server.rate(), before);
}

#[test]
fn a_mode_that_nobody_confirms_goes_back() {
    let (home, server) = lamp("2s");
    let before = server.rate();
    let mut climb = Climb::begin(&home, &server);
    climb.wait_for_question();
    server.wait_for("75");
    let asked = Instant::now();
    server.wait_for(&before);
    assert!(asked.elapsed() < Duration::from_secs(30));
    let rest = climb.rest();
    assert!(rest.iter().any(|line| line["incident"] == "no-picture"), "{rest:?}");
}

#[test]
fn the_old_mode_comes_back_when_this_program_dies_or_freezes() {
    for signal in [Signal::KILL, Signal::STOP] {
        let (home, server) = lamp("3s");
        let before = server.rate();
        let mut climb = Climb::begin(&home, &server);
        climb.wait_for_question();
        server.wait_for("75");
        // Stock was on trial before.
        let process = Pid::from_raw(i32::try_from(climb.process.id()).expect("a number")).expect("a process");
        kill_process(process, signal).expect("signalled");
        server.wait_for("60");
        climb.process.kill().and_then(|()| climb.process.wait()).expect("killed");
        let told = output(server.periculum(&home).arg("restore"));
        assert!(told.contains("display DUMMY0"), "{told}");
        assert_eq!(server.rate(), before, "{signal:?}");
    }
}

#[test]
fn without_an_output_or_a_server_it_says_so() {
    let (home, server) = lamp("2s");
    let refused = |command: &mut Command| {
        let run = command.args(["climb", "up.plan.toml", "--headless"]).output().expect("started");
        assert_eq!(run.status.code(), Some(2));
        String::from_utf8_lossy(&run.stderr).into_owned()
    };
    let nowhere = refused(home.periculum().env_remove("DISPLAY"));
    assert!(nowhere.contains("no X server is there") && nowhere.contains("compositors of the other kind"), "{nowhere}");
    let gone = refused(home.periculum().env("DISPLAY", ":9999"));
    assert!(gone.contains("the X server :9999 does not answer"), "{gone}");
    home.write("lamp.rig.toml", &RIG.replace("DUMMY0", "HDMI-7").replace("CONFIRM", "2s"));
    output(server.periculum(&home).args(["allow", "lamp.rig.toml", "--yes"]));
    let unknown = refused(&mut server.periculum(&home));
    assert!(unknown.contains("no output is called `HDMI-7`: there are DUMMY0"), "{unknown}");
    home.write("lamp.rig.toml", &RIG.replace("confirm = \"CONFIRM\"\n", ""));
    let unsafe_one = refused(&mut server.periculum(&home));
    assert!(unsafe_one.contains("could leave nobody able to"), "{unsafe_one}");
}

#[test]
fn frames_are_counted_as_they_are_shown() {
    let (home, server) = lamp("2s");
    let mut proving = server.periculum(&home);
    proving.args(["prove", "--load", "frames", "--for", "3s", "--json"]);
    let lines = json_lines(&output(&mut proving));
    let report = &of_kind(&lines, "pass-ended")[0]["report"];
    assert_eq!(of_kind(&lines, "trial-ended")[0]["verdict"], "held", "{report}");
    assert_eq!(report["score_names"], serde_json::json!(["shown", "refresh", "skipped", "late"]), "{report}");
    let (shown, refresh) = (report["score"]["value"].as_f64(), report["further"][0]["value"].as_f64());
    assert!(shown.zip(refresh).is_some_and(|(shown, refresh)| shown > 1.0 && shown <= refresh + 0.1), "{report}");
    let refused = |asked: &[&str]| {
        let run = server.periculum(&home).arg("prove").args(asked).output().expect("started");
        String::from_utf8_lossy(&run.stderr).into_owned()
    };
    assert!(refused(&["--load", "frames", "--device", "0"]).contains("leave `device` out"));
    assert!(refused(&["--load", "frames", "--size", "9"]).contains("leave `size` and `memory` out"));
    let nowhere = home.periculum().env("DISPLAY", ":9999").args(["prove", "--load", "frames", "--for", "3s"]).output();
    let told = String::from_utf8_lossy(&nowhere.expect("started").stderr).into_owned();
    assert!(told.contains("the X server :9999 does not answer"), "{told}");
}
