//! Real loads on this machine: what is asked of them on the command line, and what becomes of them.

use crate::common::{Home, demo, json_lines, of_kind, output};

#[test]
fn every_load_can_prove_the_machine_by_itself() {
    let home = Home::new();
    for load in periculum_loads::catalogue::LOADS {
        let size = load.size_for(4 << 20).min(load.about().usual_size).to_string();
        let proving = ["prove", "--load", load.about().name, "--for", "19s", "--times", "2", "--size", &size, "--json"];
        let lines = json_lines(&output(home.periculum().args(proving)));
        let report = &of_kind(&lines, "pass-ended")[0]["report"];
        assert_eq!(of_kind(&lines, "trial-ended")[0]["verdict"], "held", "{}: {report}", load.about().name);
        assert!(report["rounds"].as_u64().is_some_and(|rounds| rounds > 0), "{}: {report}", load.about().name);
        assert_eq!(report["score"]["unit"], load.about().unit);
        assert_eq!(report["workload"]["size"].as_u64(), Some(size.parse().expect("a size")));
    }
}

#[test]
fn what_is_asked_for_is_what_runs() {
    let home = Home::new();
    let asked = [
        "prove",
        "--load",
        "dense",
        "--for",
        "3min",
        "--times",
        "3",
        "--threads",
        "1",
        "--memory",
        "40MiB",
        "--reserve",
        "64MiB",
        "--priority",
        "10",
        "--stop-on",
        "first",
        "--json",
    ];
    let lines = json_lines(&output(home.periculum().args(asked)));
    let began = &of_kind(&lines, "pass-began")[0]["order"];
    assert_eq!(began["threads"]["count"], 1);
    let demand = &began["demand"];
    assert_eq!(
        (&demand["times"], &demand["reserve"], &demand["priority"]),
        (&3.into(), &(64 << 20).into(), &10.into())
    );
    assert_eq!(demand["stop_on"], "first");
    let report = &of_kind(&lines, "pass-ended")[0]["report"];
    // A warm-up comes first, and its rounds are not those that were asked for.
    assert_eq!(report["rounds"], 3);
    let bytes = report["workload"]["bytes"].as_f64().expect("bytes") / f64::from(40 << 20);
    assert!((0.97..=1.0).contains(&bytes), "{bytes}");
}

#[test]
fn what_can_not_run_is_refused_with_a_reason_and_nothing_is_recorded() {
    let home = Home::new();
    let refused = |asked: &[&str]| {
        let output = home.periculum().args(asked).output().expect("started");
        assert_eq!(output.status.code(), Some(2), "{asked:?}");
        String::from_utf8_lossy(&output.stderr).into_owned()
    };
    assert!(refused(&["prove", "--load", "dens"]).contains("'dense'"));
    assert!(refused(&["prove", "--load", "dense", "--memory", "100%"]).contains("beside the reserve"));
    assert!(refused(&["prove", "--load", "transform", "--size", "1000"]).contains("512 is the nearest"));
    assert!(refused(&["prove", "--load", "dense", "--threads", "9999"]).contains("9999 threads are asked for"));
    assert!(refused(&["prove", "--proof", "thorough"]).contains("thorough"));
    home.write("bad.proof.toml", "format = 1\npasses = [{ load = \"dense\", for = \"1s\", memry = \"1GiB\" }]\n");
    let bad = refused(&["prove", "--proof", "bad.proof.toml"]);
    assert!(bad.contains("bad.proof.toml:2") && bad.contains("did you mean `memory`"), "{bad}");
    assert!(output(home.periculum().arg("ledger")).starts_with("no climb so far"));
}

#[test]
fn a_proof_file_of_ones_own_is_run_in_its_order() {
    let home = Home::new();
    let passes = "{ load = \"integer\", for = \"2s\" }, { load = \"pulse\", for = \"1s\", threads = \"each\", stop_on = \"never\" }";
    home.write("evening.proof.toml", &format!("format = 1\npasses = [{passes}]\n"));
    let asked = ["prove", "--proof", "evening.proof.toml", "--for", "6s", "--json"];
    let lines = json_lines(&output(home.periculum().args(asked)));
    let orders: Vec<_> = of_kind(&lines, "pass-began").iter().map(|line| line["order"].clone()).collect();
    assert_eq!((&orders[0]["load"], &orders[0]["length"]), (&"integer".into(), &4000.into()));
    assert_eq!((&orders[1]["load"], &orders[1]["threads"]), (&"pulse".into(), &"each".into()));
    // What its file does not say is as usual in files, and what it says stays.
    assert_eq!((&orders[0]["demand"], &orders[1]["demand"]["stop_on"]), (&serde_json::Value::Null, &"never".into()));
    assert_eq!(of_kind(&lines, "trial-began")[0]["proof"], "evening");
}

#[test]
fn scores_are_repeated_told_with_their_interval_and_kept() {
    let home = Home::new();
    let asked = ["score", "pulse", "transform", "--for", "1s", "--repeats", "4", "--within", "50"];
    let run = home.periculum().args(asked).output().expect("started");
    let text = String::from_utf8(run.stdout).expect("text");
    // How well they are known depends on what else the machine does.
    assert!([Some(0), Some(4)].contains(&run.status.code()), "{text}{}", String::from_utf8_lossy(&run.stderr));
    let line = |name: &str| text.lines().rev().find(|line| line.starts_with(name)).expect("a line").to_owned();
    assert!(line("pulse").contains("MHz") && line("pulse").contains(" times"), "{text}");
    assert!(line("transform").contains("GFLOP/s") && line("transform").contains("65 536 digits"), "{text}");
    assert!(text.lines().next().expect("a line").contains("use the processor") || text.contains("no other program"));
    assert!(output(home.periculum().arg("ledger")).contains("score"));
}

#[test]
fn a_rig_file_says_what_is_watched_while_what_is_in_force_is_proved() {
    let home = Home::new();
    let rig = home.write(
        "bench.rig.toml",
        r#"
format = 1
[rig]
name = "bench"
summary = "with a part and a sensor that nothing answers for"
[[part]]
kind = "processor"
model = "Veltra Octo 42"
specimen = "A-0417"
[setting.multiplier]
unit = "×"
values = [36, 37]
stock = 36
harder = "up"
takes_effect = "by-hand"
[sensor.busy]
unit = "%"
decimals = 1
cut_off = 1000
adapter = "linux"
source = "usage"
[sensor.wall]
label = "power at the wall"
unit = "W"
patience = "200ms"
adapter = "scpi"
source = "127.0.0.1:1 READ?"
"#,
    );
    let asked = ["prove", "--load", "pulse", "--for", "1500ms", "--headless", "--rounds", "--rig"];
    let told = output(home.periculum().args(asked).arg(&rig));
    assert!(told.contains("power at the wall has read nothing so far (127.0.0.1:1 READ?)"), "{told}");
    assert!(!told.contains("busy has read nothing"), "{told}");
    assert!(told.lines().any(|line| line.contains("round") && line.contains("MHz")), "a line for rounds: {told}");
    assert!(!told.contains("multiplier"), "nothing is set: {told}");
    let listed = output(home.periculum().args(["ledger", "1"]));
    assert!(listed.lines().any(|line| line.trim_start().starts_with("pulse") && line.contains("rounds")), "{listed}");
    let simulated = home.periculum().args(["prove", "--rig"]).arg(demo("dome.rig.toml")).output().expect("started");
    assert_eq!(simulated.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&simulated.stderr).contains("is a simulated rig"));
}

#[test]
fn without_a_rig_file_every_sensor_of_the_machine_is_watched() {
    let home = Home::new();
    let machine = home.path("elsewhere");
    for (file, text) in [
        ("sys/class/hwmon/hwmon0/name", "boardchip\n"),
        ("sys/class/hwmon/hwmon0/temp1_input", "41500\n"),
        ("sys/class/hwmon/hwmon0/temp1_label", "board\n"),
        ("sys/class/hwmon/hwmon0/temp1_crit", "40000\n"),
        ("proc/sys/kernel/random/boot_id", "one\n"),
    ] {
        let path = machine.join(file);
        std::fs::create_dir_all(path.parent().expect("a folder")).expect("made");
        std::fs::write(path, text).expect("written");
    }
    let asked = ["prove", "--load", "pulse", "--for", "1500ms", "--json", "--reserve", "1MiB", "--sysroot"];
    let lines = json_lines(&output(home.periculum().args(asked).arg(&machine)));
    let peaks = &of_kind(&lines, "pass-ended")[0]["report"]["peaks"];
    assert_eq!(
        peaks["hwmon_boardchip_temp1"], 41.5,
        "beyond what the device calls critical, which nobody made a cut-off: {peaks}"
    );
    assert_eq!(of_kind(&lines, "trial-ended")[0]["verdict"], "held");
}
