//! Programs of the user's own as loads: they run only as they were allowed, and each way to go wrong is told.

use std::process::Output;

use crate::common::{Home, json_lines, of_kind, output};
use serde_json::Value;

fn proof(home: &Home, script: &str, rest: &str) -> std::path::PathBuf {
    let text = format!(
        "format = 1\npasses = [{{ load = \"flats\", for = \"20s\", times = 3 }}]\n\n[program.flats]\n\
         run = [\"sh\", \"-c\", {script:?}]\nlimit = \"2s\"\n{rest}\n"
    );
    home.write("own.proof.toml", &text)
}

fn allow(home: &Home) {
    let text = output(home.periculum().args(["allow", "own.proof.toml", "--yes"]));
    assert!(text.contains("runs, without a shell:\n    \"sh\"\n    \"-c\"\n"), "{text}");
}

fn prove(home: &Home) -> Vec<Value> {
    allow(home);
    let run: Output =
        home.periculum().args(["prove", "--proof", "own.proof.toml", "--json"]).output().expect("started");
    json_lines(&String::from_utf8(run.stdout).expect("text"))
}

#[test]
fn only_what_was_allowed_runs() {
    let home = Home::new();
    proof(&home, "touch ran", "");
    let refused = home.periculum().args(["prove", "--proof", "own.proof.toml", "--json"]).output().expect("started");
    let told = String::from_utf8_lossy(&refused.stderr).into_owned();
    assert_eq!(refused.status.code(), Some(2), "{told}");
    assert!(told.contains("`flats` has not been allowed") && told.contains("periculum allow FILE"), "{told}");
    assert!(!home.path("ran").exists());

    let asked = home.periculum().args(["allow", "own.proof.toml"]).output().expect("started");
    assert_eq!(asked.status.code(), Some(2), "nobody is there to be asked");
    assert_eq!(of_kind(&prove(&home), "trial-ended")[0]["verdict"], "held");
    assert!(home.path("ran").exists());

    // Another definition by the same name is another program.
    proof(&home, "touch ran-again", "");
    let refused = home.periculum().args(["prove", "--proof", "own.proof.toml", "--json"]).output().expect("started");
    assert_eq!(refused.status.code(), Some(2));
    proof(&home, "touch ran", "");
    output(home.periculum().args(["allow", "own.proof.toml", "--forget"]));
    let refused = home.periculum().args(["prove", "--proof", "own.proof.toml", "--json"]).output().expect("started");
    assert_eq!(refused.status.code(), Some(2));
}

#[test]
fn right_runs_are_counted_and_scored() {
    let home = Home::new();
    let script = "echo stacked 30 frames; echo stacked 40 frames";
    proof(
        &home,
        script,
        "output = \"same\"\nscore = { pattern = 'stacked (?<frames>\\d+)', formula = \"frames * 2\", unit = \"frames\" }",
    );
    let lines = prove(&home);
    let report = &of_kind(&lines, "pass-ended")[0]["report"];
    assert_eq!((report["rounds"].as_u64(), report["score"]["value"].as_f64()), (Some(3), Some(80.0)), "{report}");
    let table = output(home.periculum().args(["score", "--programs", "own.proof.toml", "--repeats", "2"]));
    assert!(table.contains("flats") && table.contains("80.0 frames"), "{table}");
}

#[test]
fn each_way_to_go_wrong_is_a_wrong_result_with_its_evidence() {
    for (script, rest, evidence) in [
        ("echo no flats >&2; exit 3", "", "exit status: 3 (no flats) found, 0 expected"),
        ("kill -SEGV $$", "", "end of the run: signal 11 found, exit status 0 expected"),
        ("sleep 60.317 & sleep 61.317", "", "time of the run: more found, at most 2 s expected"),
        ("setsid sleep 62.317 & sleep 61.317", "", "time of the run: more found, at most 2 s expected"),
        ("date +%N", "output = \"same\"", "SHA-256 of the output: "),
        ("echo none", "score = { pattern = '(?<x>\\d+)', formula = \"x\", unit = \"frames\" }", "a match of"),
    ] {
        let home = Home::new();
        proof(&home, script, rest);
        let lines = prove(&home);
        assert_eq!(of_kind(&lines, "trial-ended")[0]["verdict"], "fell", "{script}");
        let incident = &of_kind(&lines, "pass-ended")[0]["report"]["incidents"][0];
        let told = incident["evidence"].as_str().expect("evidence");
        assert!(incident["incident"] == "wrong-result" && told.contains(evidence), "{script}: {incident}");
    }
    // Nothing that a program started outlives its pass.
    let left = std::process::Command::new("pgrep").args(["-fx", "sleep 60.317|sleep 61.317|sleep 62.317"]).output();
    assert!(left.is_ok_and(|left| left.stdout.is_empty()));
}

#[test]
fn one_core_at_a_time_runs_it_once_or_more_on_each() {
    let home = Home::new();
    let text = "format = 1\npasses = [{ load = \"cores\", for = \"4s\", times = 1, threads = \"each\" }]\n\n\
                [program.cores]\nrun = [\"sh\", \"-c\", \"grep Cpus_allowed_list /proc/self/status >> cores\"]\nlimit = \"2s\"\n";
    home.write("own.proof.toml", text);
    allow(&home);
    output(home.periculum().args(["prove", "--proof", "own.proof.toml", "--json"]));
    let seen = std::fs::read_to_string(home.path("cores")).expect("cores");
    let seen: Vec<usize> = seen.lines().filter_map(|line| line.split_whitespace().last()?.parse().ok()).collect();
    assert_eq!(seen, periculum_loads::cores::allowed());
}

#[test]
fn a_program_that_is_not_there_is_no_fault_of_the_machine_unsaid() {
    let home = Home::new();
    home.write(
        "own.proof.toml",
        "format = 1\npasses = [{ load = \"gone\", for = \"4s\" }]\n\n[program.gone]\nrun = [\"/no/such/program\"]\nlimit = \"2s\"\n",
    );
    output(home.periculum().args(["allow", "own.proof.toml", "--yes"]));
    let run = home.periculum().args(["prove", "--proof", "own.proof.toml", "--json"]).output().expect("started");
    let lines = json_lines(&String::from_utf8(run.stdout).expect("text"));
    let incident = &of_kind(&lines, "pass-ended")[0]["report"]["incidents"][0];
    assert_eq!(incident["incident"], "load-died");
    assert!(incident["evidence"].as_str().is_some_and(|told| told.contains("`/no/such/program` could not be started")));
}

#[test]
fn a_program_dies_with_the_one_that_runs_it() {
    let home = Home::new();
    home.write(
        "own.proof.toml",
        "format = 1\npasses = [{ load = \"long\", for = \"50s\" }]\n\n[program.long]\nrun = [\"sleep\", \"47.11\"]\nlimit = \"49s\"\n",
    );
    output(home.periculum().args(["allow", "own.proof.toml", "--yes"]));
    let mut prove = home.periculum();
    prove.args(["prove", "--proof", "own.proof.toml", "--json"]).stdout(std::process::Stdio::null());
    let mut proving = prove.spawn().expect("started");
    let runs =
        || std::process::Command::new("pgrep").args(["-fx", "sleep 47.11"]).output().expect("pgrep").status.success();
    let until = |wanted: bool| {
        (0..200).any(|_| {
            std::thread::sleep(std::time::Duration::from_millis(50));
            runs() == wanted
        })
    };
    assert!(until(true), "it never ran");
    proving.kill().expect("killed");
    proving.wait().expect("gone");
    assert!(until(false), "it runs on");
}
