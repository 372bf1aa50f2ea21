//! Loads on the graphics processor of this machine, as a user meets them; a device in software is enough.

use periculum_loads::graphics::LOADS;
use rustix::process::{Pid, Signal, kill_process};

use crate::common::{Home, json_lines, of_kind, output};
use crate::surgery::{Memory, Patient};

#[test]
fn every_load_can_prove_the_device_by_itself() {
    let home = Home::new();
    for load in LOADS {
        let about = load.about();
        let size = about.usual_size.to_string();
        let proving = ["prove", "--load", about.name, "--for", "60s", "--times", "3", "--size", &size, "--json"];
        let lines = json_lines(&output(home.periculum().args(proving)));
        let report = &of_kind(&lines, "pass-ended")[0]["report"];
        assert_eq!(of_kind(&lines, "trial-ended")[0]["verdict"], "held", "{}: {report}", about.name);
        assert_eq!((&report["rounds"], &report["score"]["unit"]), (&3.into(), &about.unit.into()), "{}", about.name);
        assert_eq!(report["workload"]["size"].as_u64(), Some(about.usual_size));
    }
}

#[test]
fn devices_are_listed_where_plans_are_written_from() {
    let home = Home::new();
    let rig = output(std::process::Command::new(assert_cmd::cargo::cargo_bin("periculum")).arg("rig"));
    assert!(rig.contains("# Devices for passes of the loads `graphics-…`"), "{rig}");
    let elsewhere = output(home.periculum().arg("rig"));
    assert!(!elsewhere.contains("graphics-…"), "another tree is no machine: {elsewhere}");
}

#[test]
fn what_can_not_run_is_refused_with_a_reason() {
    let home = Home::new();
    let refused = |asked: &[&str]| {
        let output = home.periculum().arg("prove").args(asked).output().expect("started");
        assert_eq!(output.status.code(), Some(2), "{asked:?}");
        String::from_utf8_lossy(&output.stderr).into_owned()
    };
    let unknown = refused(&["--load", "graphics-render", "--device", "card77"]);
    assert!(unknown.contains("no device is called `card77`: there are `"), "{unknown}");
    assert!(refused(&["--load", "dense", "--device", "0"]).contains("`dense` runs on processors"));
    assert!(refused(&["--load", "graphics-compute", "--threads", "2"]).contains("leave `threads` out"));
    assert!(refused(&["--load", "graphics-compute", "--size", "100"]).contains("64 is the nearest"));
    assert!(
        refused(&["--load", "graphics-render", "--memory", "50%"]).contains("takes the same memory whatever it does")
    );
    assert!(refused(&["--load", "graphics-swing", "--reserve", "1GiB"]).contains("leave `reserve` out"));
    home.write(
        "bad.proof.toml",
        "format = 1\npasses = [{ load = \"graphics-swing\", for = \"9s\", device = \" \" }]\n",
    );
    let bad = refused(&["--proof", "bad.proof.toml"]);
    assert!(bad.contains("bad.proof.toml:2") && bad.contains("no device is called so"), "{bad}");
    assert!(output(home.periculum().arg("ledger")).starts_with("no climb so far"));
}

#[test]
fn a_load_that_is_killed_has_died_and_the_climb_lives() {
    let home = Home::new();
    let mut patient = Patient::of(&home, "graphics-compute", 128, 60);
    patient.wait_for("\"rounds\":1");
    kill_process(Pid::from_raw(patient.load).expect("a process"), Signal::KILL).expect("killed");
    let outcome = patient.outcome();
    assert_eq!(of_kind(&outcome, "trial-ended")[0]["verdict"], "fell");
    assert_eq!(of_kind(&outcome, "incident")[0]["incident"], "load-died");
}

/// The memory of a device in software is that of its process: bits are turned over in it from outside.
#[test]
fn bits_that_are_turned_over_in_its_memory_are_told() {
    let home = Home::new();
    let mut patient = Patient::of(&home, "graphics-memory", 256, 15);
    patient.wait_for("\"rounds\":1");
    let memory = Memory::of(patient.load);
    if memory.length() < 256 << 20 {
        eprintln!("skipped: the device has memory of its own");
        return;
    }
    // Some strike what is written over before anybody looks, and some strike nothing.
    for nth in 1..=200u64 {
        let place = nth.wrapping_mul(0x9e37_79b9_7f4a_7c15) % memory.length();
        if !memory.flip(place, 3) && nth == 1 {
            eprintln!("skipped: the system lets nobody into another process");
            return;
        }
        std::thread::sleep(std::time::Duration::from_millis(50));
    }
    let outcome = patient.outcome();
    assert_eq!(of_kind(&outcome, "trial-ended")[0]["verdict"], "fell", "{outcome:?}");
    let incidents = of_kind(&outcome, "incident");
    assert!(!incidents.is_empty(), "{outcome:?}");
}
