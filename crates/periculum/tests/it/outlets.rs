//! Settings and sensors that programs of the user's own and instruments serve.

use std::fs;
use std::io::{BufRead, BufReader, Write};
use std::net::TcpListener;
use std::os::unix::fs::PermissionsExt;
use std::process::Stdio;
use std::sync::{Arc, Mutex};
use std::thread;

use crate::common::{Home, json_lines, of_kind, output};

/// What stands for a card's own tool: it keeps an offset, and takes none above 45 MHz.
const CARD: &str = r#"#!/bin/sh
kept="$(dirname "$0")/offset"
case "$1" in
--offset)
    sleep "${3:-0}"
    if [ "$2" -gt 45 ]; then echo "no card takes $2" >&2; exit 4; fi
    echo "$2" > "$kept" ;;
--show) echo "offset: $(cat "$kept") MHz" ;;
--heat) echo 41.5 ;;
esac
"#;

const RIG: &str = r#"
format = 1
[rig]
name = "card"
[setting.offset]
label = "core offset"
unit = "MHz"
ladder = { from = 0, step = 15, to = 90 }
stock = 0
ceiling = { daily = 90 }
harder = "up"
takes_effect = "at-once"
adapter = "program"
set = ["TOOL", "--offset", "{value}", "SLEEP"]
get = ["TOOL", "--show"]
pattern = 'offset: (?<value>-?\d+)'
patience = "PATIENCE"
[sensor.hotspot]
unit = "°C"
decimals = 1
adapter = "program"
get = ["TOOL", "--heat"]
"#;

const PLAN: &str = r#"
format = 1
[plan]
name = "up"
rig = "card.rig.toml"
use = "daily"
[proof.glance]
passes = [{ load = "dense", size = 100, for = "LONG" }]
[[stage]]
strategy = "ascend"
setting = "offset"
step = 15
proof = "glance"
"#;

/// A card at an offset of 15 MHz, whose tool sleeps so long before it sets one, and may take so long.
fn card(sleep: &str, patience: &str) -> Home {
    let home = Home::new();
    let tool = home.write("card", CARD);
    fs::set_permissions(&tool, fs::Permissions::from_mode(0o755)).expect("set");
    home.write("offset", "15\n");
    let rig = RIG.replace("TOOL", &tool.display().to_string()).replace("SLEEP", sleep).replace("PATIENCE", patience);
    home.write("card.rig.toml", &rig);
    home.write("up.plan.toml", &PLAN.replace("LONG", "1s"));
    home
}

fn offset(home: &Home) -> String {
    fs::read_to_string(home.path("offset")).expect("read").trim().to_owned()
}

fn allow(home: &Home, rig: &str) -> String {
    output(home.periculum().args(["allow", rig, "--yes"]))
}

#[test]
fn a_program_sets_what_it_may_and_everything_is_put_back() {
    let home = card("0", "2s");
    let refused = home.periculum().args(["climb", "up.plan.toml", "--headless"]).output().expect("started");
    let told = String::from_utf8_lossy(&refused.stderr).into_owned();
    assert!(
        refused.status.code() == Some(2) && told.contains("nobody has allowed") && told.contains("hotspot"),
        "{told}"
    );
    let asked = allow(&home, "card.rig.toml");
    assert!(asked.contains("is run: `") && asked.contains("`{value}`") && asked.contains("`--heat`"), "{asked}");
    assert!(!asked.contains("is written to"), "{asked}");
    let lines = json_lines(&output(home.periculum().args(["climb", "up.plan.toml", "--headless", "--json"])));
    let tried: Vec<_> = of_kind(&lines, "trial-ended").iter().map(|ended| ended["verdict"].clone()).collect();
    assert_eq!(tried, ["held", "held", "held", "held", "slipped", "held"], "0 to 45 hold, and 60 is not taken");
    let refused = of_kind(&lines, "incident")[0];
    assert_eq!(refused["incident"], "not-taken");
    assert!(refused.to_string().contains("no card takes 60"), "{refused}");
    assert!(lines.iter().any(|line| line.to_string().contains("\"hotspot\":41.5")), "the sensor is read");
    assert_eq!(offset(&home), "15", "as it was before");
}

#[test]
fn a_program_that_hangs_is_given_up() {
    let home = card("60", "300ms");
    allow(&home, "card.rig.toml");
    let run = home.periculum().args(["climb", "up.plan.toml", "--headless", "--json"]).output().expect("started");
    let told = String::from_utf8_lossy(&run.stdout).into_owned();
    assert!(told.contains("took longer than 300 ms"), "{told}{}", String::from_utf8_lossy(&run.stderr));
    assert_eq!(offset(&home), "15");
}

#[test]
fn what_a_killed_climb_left_is_restored() {
    let home = card("0", "2s");
    home.write("up.plan.toml", &PLAN.replace("LONG", "1h"));
    allow(&home, "card.rig.toml");
    let mut command = home.periculum();
    command.args(["climb", "up.plan.toml", "--headless", "--json"]).stdout(Stdio::piped());
    let mut climb = command.spawn().expect("started");
    let mut lines = BufReader::new(climb.stdout.take().expect("piped")).lines();
    assert!(lines.any(|line| line.expect("a line").contains("\"pass-began\"")));
    climb.kill().and_then(|()| climb.wait()).expect("killed");
    assert_eq!(offset(&home), "0", "stock is on trial");
    let told = output(home.periculum().arg("restore"));
    assert!(told.contains("--offset {value}"), "{told}");
    assert_eq!(offset(&home), "15");
}

#[test]
fn what_can_not_serve_is_told_with_its_line() {
    let home = card("0", "2s");
    let rig = fs::read_to_string(home.path("card.rig.toml")).expect("read");
    for (from, to, told) in [
        ("\"--offset\", \"{value}\"", "\"--offset\", \"15\"", "`set` has no place for the value"),
        ("(?<value>-?\\d+)", "(-?\\d+)", "the pattern finds no `value`"),
        ("(?<value>-?\\d+)", "(?<value>", "the pattern can't be read"),
        ("at-once", "next-start", "brings it into force at once"),
        ("patience = \"2s\"", "patience = \"2min\"", "`patience` must be above nothing, and 10 s at most"),
        ("adapter = \"program\"\nset", "adapter = \"scpi\"\nset", "`instrument`"),
        ("adapter = \"program\"\nset", "adapter = \"program\"\nsett", "`set` is missing"),
    ] {
        assert!(rig.contains(from), "{from}");
        home.write("card.rig.toml", &rig.replacen(from, to, 1));
        let checked = home.periculum().args(["check", "card.rig.toml"]).output().expect("started");
        let text = format!("{}{}", String::from_utf8_lossy(&checked.stdout), String::from_utf8_lossy(&checked.stderr));
        assert!(!checked.status.success() && text.contains(told) && text.contains("card.rig.toml:"), "{text}");
    }
    home.write("card.rig.toml", &rig);
    allow(&home, "card.rig.toml");
    fs::remove_file(home.path("card")).expect("removed");
    let refused = home.periculum().args(["climb", "up.plan.toml", "--headless"]).output().expect("started");
    let refused = String::from_utf8_lossy(&refused.stderr);
    assert!(refused.contains("which is not there"), "{refused}");
}

/// A bench supply that takes at most 1.4 V.
struct Supply {
    address: String,
    volts: Arc<Mutex<String>>,
    /// Everything that it was told or asked.
    heard: Arc<Mutex<Vec<String>>>,
}

fn supply() -> Supply {
    let listener = TcpListener::bind("127.0.0.1:0").expect("bound");
    let address = listener.local_addr().expect("an address").to_string();
    let volts = Arc::new(Mutex::new("1.2500E+00".to_owned()));
    let heard = Arc::new(Mutex::new(Vec::new()));
    let (kept, hears) = (Arc::clone(&volts), Arc::clone(&heard));
    thread::spawn(move || {
        for stream in listener.incoming().flatten() {
            let mut stream = stream;
            for line in BufReader::new(stream.try_clone().expect("a stream")).lines().map_while(Result::ok) {
                hears.lock().expect("heard").push(line.clone());
                let answer = match line.split_once(';') {
                    Some((command, "*OPC?")) => {
                        *kept.lock().expect("kept") = command.trim_start_matches("VOLT ").to_owned();
                        "1".to_owned()
                    }
                    _ if line == "VOLT? MAX" => "+1.4000E+00".to_owned(),
                    _ if line == "VOLT? MIN" => "0".to_owned(),
                    _ => kept.lock().expect("kept").clone(),
                };
                if stream.write_all(format!("{answer}\r\n").as_bytes()).is_err() {
                    break;
                }
            }
        }
    });
    Supply { address, volts, heard }
}

#[test]
fn a_bench_supply_is_a_voltage() {
    let home = Home::new();
    let Supply { address, volts, heard } = supply();
    let rig = |ceiling: &str| {
        format!(
            r#"
format = 1
[rig]
name = "card"
[setting.offset]
label = "supply"
unit = "V"
ladder = {{ from = 1.200, step = 0.025, to = 1.500 }}
stock = 1.200
ceiling = {{ daily = {ceiling} }}
harder = "up"
takes_effect = "at-once"
adapter = "scpi"
instrument = "{address}"
write = "VOLT {{value}}"
read = "VOLT?"
"#
        )
    };
    home.write("up.plan.toml", &PLAN.replace("LONG", "1s").replace("step = 15", "step = 0.025"));
    home.write("card.rig.toml", &rig("1.500"));
    let denied = home.periculum().args(["climb", "up.plan.toml", "--headless"]).output().expect("started");
    assert!(String::from_utf8_lossy(&denied.stderr).contains("nobody has allowed"));
    assert!(heard.lock().expect("heard").is_empty(), "nothing is sent that was not allowed");
    allow(&home, "card.rig.toml");
    let refused = home.periculum().args(["climb", "up.plan.toml", "--headless"]).output().expect("started");
    let told = String::from_utf8_lossy(&refused.stderr).into_owned();
    assert!(told.contains("may be 1.200 to 1.500 V, and the instrument itself takes 0 to 1.4"), "{told}");
    home.write("card.rig.toml", &rig("1.250"));
    allow(&home, "card.rig.toml");
    let lines = json_lines(&output(home.periculum().args(["climb", "up.plan.toml", "--headless", "--json"])));
    assert_eq!(of_kind(&lines, "trial-ended").len(), 3, "1.200, 1.225 and 1.250 V");
    assert!(of_kind(&lines, "incident").is_empty());
    assert_eq!(*volts.lock().expect("kept"), "1.25", "as it was before");
}
