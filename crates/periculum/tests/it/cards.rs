//! Graphics cards climbed through their kernel driver, which answers as the kernel documents it.

use std::fs;
use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};

use serde_json::Value;

use crate::card_driver::{Driver, Layout};
use crate::common::{Home, json_lines, of_kind, output};

const CURVE: &str = r#"
[curve.core]
unit = "MHz"
across = "mV"
points = [[720, 500], [800, 1300], [1170, 2100]]
ladder = { from = 300, step = 20, to = 2400 }
offset = { from = -120, step = 30, to = 120 }
ceiling = { daily = 2300 }
takes_effect = "at-once"
lost_on = "device-reset"
adapter = "linux"
target = "graphics/card0/curve"
"#;

const OFFSET: &str = r#"
[setting.core_offset]
unit = "MHz"
ladder = { from = -120, step = 30, to = 120 }
stock = 0
ceiling = { daily = 120 }
harder = "up"
takes_effect = "at-once"
lost_on = "device-reset"
adapter = "linux"
target = "graphics/card0/clock-offset"
"#;

const REST: &str = r#"
format = 1
[rig]
name = "easel"
[setting.power_cap]
unit = "W"
ladder = { from = 200, step = 20, to = 320 }
stock = 280
ceiling = { daily = 320 }
harder = "up"
takes_effect = "at-once"
adapter = "linux"
target = "power-cap/drawchip/power1"
[setting.memory]
unit = "MHz"
ladder = { from = 1000, step = 25, to = 1075 }
stock = 1000
ceiling = { daily = 1050 }
harder = "up"
takes_effect = "at-once"
adapter = "linux"
target = "graphics/card0/mclk/1"
[sensor.edge]
unit = "°C"
decimals = 1
cut_off = 95
adapter = "linux"
source = "hwmon/drawchip/temp1"
[sensor.fan]
unit = "1/min"
adapter = "linux"
source = "hwmon/drawchip/fan1"
[sensor.busy]
unit = "%"
adapter = "linux"
source = "graphics/card0/gpu_busy_percent"
"#;

const CLIMB: &str = r#"
format = 1
[plan]
name = "clearer"
rig = "easel.rig.toml"
use = "daily"
[proof.glance]
passes = [{ load = "dense", size = 100, for = "LONG" }]
[[stage]]
strategy = "ascend"
setting = "core_offset"
step = 30
proof = "glance"
"#;

const CHIP: &str = "root/sys/class/hwmon/hwmon0";

/// A machine with a card in it whose driver serves this layout, and the folder of both.
fn easel(layout: Layout, core: &str, plan: &str) -> Option<(Home, Driver)> {
    let home = Home::new();
    for folder in ["root/proc/sys/kernel/random", CHIP] {
        fs::create_dir_all(home.path(folder)).expect("made");
    }
    home.write("root/proc/sys/kernel/random/boot_id", "boot-1\n");
    home.write("root/proc/meminfo", "MemTotal: 8000000 kB\nMemAvailable: 7000000 kB\n");
    let chip = [("name", "drawchip"), ("temp1_input", "61500"), ("fan1_input", "1450"), ("power1_cap", "280000000")];
    for (name, text) in chip {
        home.write(&format!("{CHIP}/{name}"), &format!("{text}\n"));
    }
    home.write("easel.rig.toml", &format!("{REST}{core}"));
    home.write("clearer.plan.toml", plan);
    let driver = Driver::below(&home.path("root"), layout)?;
    output(at(&home).args(["allow", "easel.rig.toml", "--yes"]));
    Some((home, driver))
}

/// The program on that machine.
fn at(home: &Home) -> Command {
    let mut command = home.periculum();
    command.arg("--sysroot").arg(home.path("root"));
    command
}

fn climb(home: &Home) -> Vec<Value> {
    json_lines(&output(at(home).args(["climb", "clearer.plan.toml", "--headless", "--json"])))
}

fn verdicts(lines: &[Value]) -> Vec<String> {
    of_kind(lines, "trial-ended").iter().map(|ended| ended["verdict"].as_str().expect("a word").to_owned()).collect()
}

#[test]
fn a_core_is_climbed_until_its_driver_takes_no_more() {
    for (layout, core) in [(Layout::Points, CURVE), (Layout::Offset, OFFSET)] {
        let Some((home, driver)) = easel(layout, core, &CLIMB.replace("LONG", "1s")) else { return };
        let before = driver.card().in_force.clone();
        let lines = climb(&home);
        assert_eq!(verdicts(&lines), ["held", "held", "held", "slipped", "held"], "90 MHz is out of its range");
        let refused = of_kind(&lines, "incident")[0];
        assert_eq!(refused["incident"], "not-taken");
        assert!(refused.to_string().contains("Invalid argument"), "{refused}");
        assert_eq!(of_kind(&lines, "mark-set").last().expect("a mark")["mark"]["rung"]["core_offset"], "60");
        assert!(driver.card().commits >= 5, "what is not committed does not count");
        assert_eq!(driver.card().in_force, before, "as it was");
    }
}

/// A climb whose pass goes on for an hour, once it has come so far.
fn climbing(home: &Home) -> (Child, impl Iterator<Item = String> + use<>) {
    let mut command = at(home);
    command.args(["climb", "clearer.plan.toml", "--headless", "--json"]).stdout(Stdio::piped());
    let mut climb = command.spawn().expect("started");
    let lines = BufReader::new(climb.stdout.take().expect("piped")).lines().map_while(Result::ok);
    (climb, lines)
}

#[test]
fn what_a_killed_climb_left_in_a_table_is_restored() {
    let Some((home, driver)) = easel(Layout::Points, CURVE, &CLIMB.replace("LONG", "1h")) else { return };
    driver.told(&["vc 1 1310 800", "vc 2 2110 1170", "c"]);
    let before = driver.card().in_force.clone();
    let (mut climb, mut lines) = climbing(&home);
    assert!(lines.any(|line| line.contains("\"pass-began\"")));
    climb.kill().and_then(|()| climb.wait()).expect("killed");
    assert_ne!(driver.card().in_force, before, "stock is on trial");
    output(at(&home).arg("restore"));
    assert_eq!(driver.card().in_force, before);
}

/// What a driver writes to the kernel's log when it has reset its card.
const RESET: &str = "3,77,1000,-;easel 0000:03:00.0: GPU reset(1) succeeded!\n";

#[test]
fn a_card_that_is_reset_fell_and_is_set_anew() {
    let Some((home, driver)) = easel(Layout::Offset, OFFSET, &CLIMB.replace("LONG", "8s")) else { return };
    fs::create_dir_all(home.path("root/dev")).expect("made");
    let log = home.write("root/dev/kmsg", "");
    let (mut climb, mut lines) = climbing(&home);
    assert!(lines.any(|line| line.contains("\"pass-began\"")));
    assert!(lines.any(|line| line.contains("\"pass-began\"")), "the second is at 30 MHz");
    assert_eq!(driver.card().in_force.core_offset, 30);
    driver.card().reset();
    fs::write(&log, RESET).expect("written");
    let rest: Vec<String> = lines.collect();
    assert!(climb.wait().expect("ended").success());
    let rest = json_lines(&rest.join("\n"));
    let incidents: Vec<&Value> = of_kind(&rest, "incident").iter().map(|told| &told["incident"]).collect();
    assert_eq!(incidents, ["device-reset"]);
    assert_eq!(verdicts(&rest), ["fell", "held"], "and back at stock it holds");
}

/// As people do it: power first, then the core, the memory by its score, quiet from one voltage on, and a soak of it all.
const WHOLE: &str = r#"
format = 1
[plan]
name = "whole"
rig = "easel.rig.toml"
use = "daily"
[proof.look]
passes = [{ load = "graphics-render", for = "1s" }]
[proof.transfers]
passes = [{ load = "graphics-memory", size = 32, for = "1s" }]
[proof.evening]
passes = [{ load = "graphics-render", for = "2s" }, { load = "graphics-memory", size = 32, for = "1s" }]
[[stage]]
strategy = "open"
setting = "power_cap"
proof = "look"
[[stage]]
strategy = "ascend"
setting = "core"
step = 30
proof = "look"
[[stage]]
strategy = "peak"
setting = "memory"
step = 25
repeats = 2
proof = "transfers"
[[stage]]
strategy = "ascend"
setting = "core"
pin = 800
start = "last"
step = 200
proof = "look"
save = "quick"
[[stage]]
strategy = "soak"
setting = "core"
pin = 800
step = 20
margin = 1
proof = "evening"
save = "quiet"
"#;

#[test]
fn the_whole_job_is_done_on_a_card() {
    let Some((home, driver)) = easel(Layout::Points, CURVE, WHOLE) else { return };
    let lines = climb(&home);
    let ends: Vec<&Value> = of_kind(&lines, "stage-ended").iter().map(|ended| &ended["end"]["because"]).collect();
    assert_eq!(ends.len(), 5, "{ends:?}");
    assert_eq!(ends[4], "soaked", "{ends:?}");
    let marks = of_kind(&lines, "mark-set");
    let rung = &marks.last().expect("a mark")["mark"]["rung"];
    assert_eq!(
        (&rung["power_cap"], &rung["core_offset"], &rung["core_flat"]),
        (&"320".into(), &"60".into(), &"800".into())
    );
    let peaks = &of_kind(&lines, "pass-ended")[0]["report"]["peaks"];
    assert_eq!(*peaks, serde_json::json!({ "edge": 61.5, "fan": 1450.0, "busy": 87.0 }), "logged while it runs");
    assert_eq!(driver.card().in_force.curve, [[500, 720], [1300, 800], [2100, 1170]], "home again");

    let refused = at(&home).args(["profile", "arm", "quick", "--soak", "1s"]).output().expect("started");
    assert!(!refused.status.success(), "it was climbed, and not soaked");
    output(at(&home).args(["profile", "arm", "quiet", "--soak", "1s"]));
    home.write("root/proc/sys/kernel/random/boot_id", "boot-2\n");
    output(at(&home).args(["profile", "start", "--confirm-after", "10ms"]));
    assert_eq!(driver.card().in_force.curve, [[560, 720], [2140, 800], [2140, 1170]]);
}
