//! Saved profiles: listed, armed only when they soaked, and disarmed by a start that went wrong.

use std::process::Output;
use std::thread;
use std::time::Duration;

use crate::common::{Home, demo, output};

fn said(out: &Output) -> String {
    String::from_utf8_lossy(&out.stdout).into_owned() + &String::from_utf8_lossy(&out.stderr)
}

/// A home with a climb that saved a soaked profile `daily` and one `quick` that was only climbed.
fn home() -> Home {
    let home = Home::new();
    std::fs::copy(demo("dome.rig.toml"), home.path("dome.rig.toml")).expect("copied");
    let plan = home.write(
        "two.plan.toml",
        r#"
format = 1
[plan]
name = "two"
rig = "dome.rig.toml"
use = "daily"
[proof.short]
passes = [{ load = "dense", for = "60s" }]
[[stage]]
strategy = "ascend"
setting = "core_clock"
step = [200, 100]
proof = "short"
save = "quick"
[[stage]]
strategy = "soak"
setting = "core_clock"
margin = "2%"
proof = "short"
save = "daily"
"#,
    );
    output(home.periculum().arg("climb").arg(plan).arg("--headless"));
    home
}

#[test]
fn a_profile_is_armed_only_when_it_soaked() {
    let home = home();
    let listed = output(home.periculum().arg("profile"));
    assert!(listed.lines().count() == 2 && listed.contains("daily") && listed.contains(", soaked"), "{listed}");
    let refused = home.periculum().args(["profile", "arm", "quick"]).output().expect("started");
    assert!(!refused.status.success() && said(&refused).contains("has not held a soak"), "{}", said(&refused));
    let unknown = home.periculum().args(["profile", "arm", "dayly"]).output().expect("started");
    assert!(unknown.status.code() == Some(2) && said(&unknown).contains("known: daily, quick"), "{}", said(&unknown));
    let short = home.periculum().args(["profile", "arm", "daily"]).output().expect("started");
    let told = said(&short);
    assert!(short.status.code() == Some(2) && told.contains("a soak of 1 min") && told.contains("8 h"), "{told}");
    output(home.periculum().args(["profile", "arm", "daily", "--soak", "1min"]));
    assert!(output(home.periculum().arg("profile")).contains(", applied at start"));
    output(home.periculum().args(["profile", "disarm"]));
    assert!(!output(home.periculum().arg("profile")).contains(", applied at start"));
}

#[test]
fn a_start_that_nobody_confirmed_disarms_its_profile() {
    let home = home();
    output(home.periculum().args(["profile", "arm", "daily", "--soak", "1min"]));
    let confirmed = output(home.periculum().args(["profile", "start", "--confirm-after", "10ms"]));
    assert!(confirmed.contains("daily is in force on dome"), "{confirmed}");
    assert!(output(home.periculum().arg("profile")).contains(", applied at start"), "a good start leaves it armed");

    let mut machine = home.periculum();
    let mut dying = machine.args(["profile", "start", "--confirm-after", "1h"]).spawn().expect("started");
    for _ in 0..200 {
        thread::sleep(Duration::from_millis(50));
        let ledger = periculum_ledger::Ledger::open(&home.ledger()).expect("a ledger");
        if ledger.armed().expect("read")[0].1.is_starting {
            break;
        }
    }
    dying.kill().expect("killed");
    dying.wait().expect("dead");

    let next = home.periculum().args(["profile", "start", "--confirm-after", "10ms"]).output().expect("started");
    assert_eq!(next.status.code(), Some(1));
    assert!(said(&next).contains("did not go well, so it is no longer applied"), "{}", said(&next));
    let after = output(home.periculum().args(["profile", "start", "--confirm-after", "10ms"]));
    assert!(after.contains("nothing is armed"), "{after}");
}
