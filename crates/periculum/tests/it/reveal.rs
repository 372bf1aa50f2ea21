//! The truth about simulated rigs, as the command line tells it.

use crate::common::{Home, demo, json_lines, output};

fn reveal(home: &Home, rest: &[&str]) -> String {
    let (rig, plan) = (demo("dome.rig.toml"), demo("dome.plan.toml"));
    let mut command = home.periculum();
    command.arg("reveal").arg(rig).arg("--plan").arg(plan).args(rest);
    output(&mut command)
}

#[test]
fn the_hardest_rung_of_each_stage_holds_and_the_next_does_not() {
    let home = Home::new();
    let revealed = json_lines(&reveal(&home, &["--seed", "11", "--json"]));
    let stages: Vec<_> = revealed.iter().map(|one| one["stage"].as_u64()).collect();
    assert_eq!(stages, [Some(2), Some(3)]);
    let clock: u32 = revealed[0]["rung"]["core_clock"].as_str().and_then(|clock| clock.parse().ok()).expect("a clock");
    assert!(revealed[0]["survival"].as_f64().is_some_and(|survival| survival >= 0.9));
    let next = format!("core_clock={}", clock + 25);
    let beyond = json_lines(&reveal(&home, &["--seed", "11", "--at", &next, "--json"]));
    assert!(beyond[0]["survival"].as_f64().is_some_and(|survival| survival < 0.9), "{beyond:?}");
    let told = reveal(&home, &["--seed", "11"]);
    assert!(told.starts_with("stage 2: the hardest rung that holds is "), "{told}");
}

#[test]
fn what_can_not_be_asked_is_told() {
    let home = Home::new();
    for (rest, told) in [
        (["--at", "clock=1"], "no setting `clock`; it has core_clock, core_voltage"),
        (["--at", "core_clock=4210"], "no value of the ladder; write it as in `core_clock=4200`"),
    ] {
        let (rig, plan) = (demo("dome.rig.toml"), demo("dome.plan.toml"));
        let run = home.periculum().arg("reveal").arg(rig).arg("--plan").arg(plan).args(rest).output().expect("started");
        assert_eq!(run.status.code(), Some(2));
        assert!(String::from_utf8_lossy(&run.stderr).contains(told));
    }
}
