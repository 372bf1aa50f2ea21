//! The commands as a user types them.

use std::io::{BufRead, BufReader};
use std::path::PathBuf;
use std::process::{Child, Stdio};
use std::time::{Duration, Instant};

use crate::common::{Home, demo, json_lines, of_kind, output, short_by_hand};
use assert_cmd::prelude::*;
use predicates::prelude::*;
use serde_json::Value;

#[test]
fn the_help_is_as_it_was() {
    let home = Home::new();
    let mut all = output(home.periculum().arg("--help"));
    for command in ["demo", "climb", "resume", "prove", "score", "check", "ledger", "report"] {
        all += &format!("\n--- {command}\n{}", output(home.periculum().args([command, "--help"])));
    }
    insta::assert_snapshot!(all);
}

#[test]
fn a_headless_climb_prints_one_line_a_trial_and_the_same_for_the_same_seed() {
    let home = Home::new();
    let climb = |home: &Home| {
        output(home.periculum().arg("climb").arg(demo("dome.plan.toml")).args(["--headless", "--seed", "11"]))
    };
    let text = climb(&home);
    assert_eq!(climb(&Home::new()), text);
    insta::assert_snapshot!(text);
    // In a ledger that knows its kind a mark rests on that too.
    assert!(climb(&home).contains("and 3 that fell, after 1 earlier climb of its kind"));
    let other = output(home.periculum().arg("climb").arg(demo("dome.plan.toml")).args(["--headless", "--seed", "12"]));
    assert_ne!(other, text);
}

#[test]
fn the_whole_procedure_leads_to_a_soaked_profile() {
    let home = Home::new();
    insta::assert_snapshot!(output(home.periculum().arg("climb").arg(demo("vault.plan.toml")).arg("--headless")));
    let report = home.path("vault.md");
    output(home.periculum().args(["report", "1", "-o"]).arg(&report));
    let report = std::fs::read_to_string(report).expect("read");
    assert!(report.contains("| alone | holds |") && report.contains("- Profile daily:"), "{report}");
}

#[test]
fn a_baseline_is_measured_at_rest_and_under_load() {
    let home = Home::new();
    std::fs::copy(demo("dome.rig.toml"), home.path("dome.rig.toml")).expect("copied");
    let plan = std::fs::read_to_string(demo("dome.plan.toml")).expect("read");
    let plan = home.write("dome.plan.toml", &plan.replacen("repeats = 2", "repeats = 2\nidle = \"3min\"", 1));
    output(home.periculum().arg("climb").arg(plan).args(["--headless", "--seed", "4"]));
    let (report, table) = (home.path("dome.md"), home.path("trials.csv"));
    output(home.periculum().args(["report", "1", "-o"]).arg(&report));
    output(home.periculum().args(["export", "1", "trials", "-o"]).arg(&table));
    let report = std::fs::read_to_string(report).expect("read");
    let line = report.lines().find(|line| line.starts_with("| hottest core |")).expect("a line");
    let read: Vec<f64> = line.split('|').filter_map(|cell| cell.trim().split(' ').next()?.parse().ok()).collect();
    let [rest, loaded, rest_over, loaded_over] = read.as_slice() else { panic!("{line}") };
    assert!(rest + 15.0 < *loaded && rest_over + 15.0 < *loaded_over && rest_over + 15.0 < *rest, "{line}");
    let table = std::fs::read_to_string(table).expect("read");
    let mut rows = table.lines().map(|row| row.split(',').collect::<Vec<&str>>());
    let head = rows.next().expect("a head");
    let at = head.iter().position(|column| *column == "package_power_at_rest").expect("the column");
    let values: Vec<&str> = rows.map(|row| row[at]).collect();
    assert!(values[0].parse::<f64>().is_ok_and(|watts| watts < 30.0), "{values:?}");
    assert!(values[1..].iter().all(|value| value.is_empty()), "it rested once: {values:?}");
}

#[test]
fn json_lines_end_with_the_marks_and_the_sums() {
    let home = Home::new();
    let text = output(home.periculum().arg("climb").arg(demo("dome.plan.toml")).args(["--headless", "--json"]));
    let lines = json_lines(&text);
    let ended = lines.last().expect("a last line");
    assert_eq!(ended["kind"], "ended");
    assert_eq!(ended["how"], "completed");
    let trials = of_kind(&lines, "trial-ended");
    let fell = trials.iter().filter(|line| line["verdict"] == "fell").count();
    assert_eq!((ended["trials"].as_u64(), ended["falls"].as_u64()), (Some(trials.len() as u64), Some(fell as u64)));
    let tested: u64 = trials.iter().map(|line| line["tested"].as_u64().expect("milliseconds")).sum();
    assert_eq!(ended["test_hours"].as_f64(), Some(tested as f64 / 3_600_000.0));
    assert_eq!(ended["marks"][0]["rung"]["core_clock"], "4700");
    assert_eq!(of_kind(&lines, "mark-set").len(), ended["marks"].as_array().expect("marks").len());
}

#[test]
fn files_are_checked_and_every_problem_is_told_where_it_is() {
    let home = Home::new();
    let good = ["dome.rig.toml", "dome.plan.toml", "by-hand.rig.toml", "by-hand.plan.toml"].map(demo);
    assert_eq!(output(home.periculum().arg("check").args(good)).lines().count(), 4);

    let rig = std::fs::read_to_string(demo("dome.rig.toml")).expect("read");
    let plan = std::fs::read_to_string(demo("dome.plan.toml")).expect("read");
    home.write("good.rig.toml", &rig);
    home.write(
        "bad.rig.toml",
        &rig.replace("largest_jump = 400", "largest_jump = 10")
            .replace("stock = 1.250", "stock = 1.2515")
            .replace("ceiling = { daily = 5100", "ceiling = { daily = 4100")
            .replace("core_clock * 16", "core_clok * 16")
            .replace("\"hottest-core\"", "\"hotest-core\"")
            .replace("tolerance = 5\n", "tolerence = 5\n")
            .replace("failures = 0", "failings = 0")
            .replace("cores = 8", "cores = \"eight\""),
    );
    home.write(
        "bad.plan.toml",
        &plan
            .replace("dome.rig.toml", "good.rig.toml")
            .replace("use = \"daily\"", "use = \"dayly\"")
            .replace("load = \"dense\"", "load = \"dens\"")
            .replace("\"20s\"", "\"soon\"")
            .replace("step = 50", "step = 60")
            .replace("strategy = \"trim\"", "strategy = \"ascend\"")
            .replace("repeats = 2", "repeats = 0"),
    );
    home.write("no.toml", "format = 1\n[rig\n");
    home.write("empty.plan.toml", "format = 2\n[plan]\nname = \"x\"\n");
    let checked = home
        .periculum()
        .args(["check", "bad.rig.toml", "bad.plan.toml", "no.toml", "empty.plan.toml", "missing.toml"])
        .output()
        .expect("started");
    assert_eq!(checked.status.code(), Some(2));
    insta::assert_snapshot!(String::from_utf8(checked.stderr).expect("text"));
}

/// Who is about to look for what a rig can do is told what its file could say of it.
#[test]
fn a_check_says_where_nothing_is_told_of_what_a_rig_did_before() {
    let home = Home::new();
    let rig = std::fs::read_to_string(demo("dome.rig.toml")).expect("read");
    let (told, _) = rig.split_once("[[history]]").expect("a history");
    let (_, rest) = rig.split_once("in that time\n").expect("the end of it");
    home.write("dome.rig.toml", &format!("{told}{rest}"));
    let check = |plan: &str| {
        std::fs::copy(demo(plan), home.path(plan)).expect("copied");
        output(home.periculum().args(["check", plan]))
    };
    let [sought, stepped] = ["night.plan.toml", "dome.plan.toml"].map(check);
    assert!(
        sought.contains("[[history]] in its file: 16 h at stock without a failure are taken for granted"),
        "{sought}"
    );
    assert!(!stepped.contains("history"), "{stepped}");
}

/// The blocks of a kind of file in the documentation, which together are one file.
#[test]
fn the_examples_in_the_documentation_are_right() {
    let home = Home::new();
    let text = std::fs::read_to_string(demo("../docs/files.md")).expect("read");
    let blocks: Vec<&str> =
        text.split("```toml\n").skip(1).map(|rest| rest.split("```").next().expect("a block")).collect();
    let [rig, simulated, bus, plan, stages, rest] = blocks[..] else { panic!("{} blocks", blocks.len()) };
    // Settings that only the plan's example speaks of.
    let setting = |name: &str| {
        format!(
            "[setting.{name}]\nladder = {{ from = 0, step = 25, to = 6000 }}\nstock = 4000\n\
             ceiling = {{ daily = 5000 }}\nharder = \"up\"\ntakes_effect = \"at-once\"\nadapter = \"simulated\"\n"
        )
    };
    let more: String = ["power_limit", "left_clock", "right_clock"].map(setting).concat();
    home.write("dome.rig.toml", &format!("{rig}{more}{simulated}"));
    home.write("dome.plan.toml", &format!("{plan}{stages}{rest}"));
    let settings: String = ["bus_clock", "multiplier", "wait_states", "divider"].map(setting).concat();
    home.write("relic.rig.toml", &format!("format = 1\n[rig]\nname = \"relic\"\n{settings}[adapter.simulated]\n{bus}"));
    let files = ["dome.rig.toml", "dome.plan.toml", "relic.rig.toml"];
    assert_eq!(output(home.periculum().arg("check").args(files)).lines().count(), 3);
}

#[test]
fn a_plan_that_can_not_be_climbed_is_refused_before_anything_is_recorded() {
    let home = Home::new();
    std::fs::copy(demo("dome.rig.toml"), home.path("dome.rig.toml")).expect("copied");
    let plan = std::fs::read_to_string(demo("dome.plan.toml")).expect("read");
    home.write("bad.plan.toml", &plan.replace("core_clock", "core_clok"));
    let refused = home.periculum().args(["climb", "bad.plan.toml", "--headless"]).output().expect("started");
    assert_eq!(refused.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&refused.stderr).contains("did you mean `core_clock`?"));
    assert!(!home.ledger().exists());
}

#[test]
fn proving_runs_the_real_load_and_leaves_a_record() {
    let home = Home::new();
    let lines = json_lines(&output(
        home.periculum().args(["prove", "--load", "dense", "--size", "200", "--for", "4s", "--json"]),
    ));
    let last = of_kind(&lines, "progress").into_iter().next_back().expect("progress").clone();
    assert!(last["rounds"].as_u64().expect("a count") > 0);
    assert_eq!(last["errors"], 0);
    assert_eq!(of_kind(&lines, "trial-ended")[0]["verdict"], "held");
    assert_eq!(lines.last().expect("a last line")["kind"], "ended");
    let text = output(home.periculum().args(["prove", "--load", "dense", "--size", "200", "--for", "4s"]));
    assert!(text.trim_end().ends_with("; nothing was changed"), "{text}");
    let listed = output(home.periculum().args(["ledger"]));
    assert!(predicate::str::contains("this machine prove").eval(&listed), "{listed}");
    assert!(output(home.periculum().args(["ledger", "1"])).contains("held     everything as it is"));
}

#[test]
fn an_interrupt_stops_a_proof_at_once_and_is_recorded() {
    let home = Home::new();
    let (mut child, lines) = proving_for_an_hour(&home);
    let asked = Instant::now();
    signal(child.id(), rustix::process::Signal::INT);
    let rest: Vec<String> = lines.map(|line| line.expect("a line")).collect();
    let status = child.wait().expect("ended");
    // A second is what is promised, and an hour what it would take; a machine that is busy with other things is given more.
    assert!(asked.elapsed() < Duration::from_secs(120), "{:?}", asked.elapsed());
    assert_eq!(status.code(), Some(130));
    let rest = json_lines(&rest.join("\n"));
    assert_eq!(of_kind(&rest, "incident")[0]["incident"], "stopped");
    assert_eq!(rest.last().expect("a last line")["how"], "stopped");
    assert!(output(home.periculum().arg("ledger")).contains("the operator stopped it"));
}

#[test]
fn a_load_that_is_killed_is_an_incident_and_its_parent_lives() {
    let home = Home::new();
    let (mut child, lines) = proving_for_an_hour(&home);
    signal(only_child_of(child.id()), rustix::process::Signal::ILL);
    let rest = json_lines(&lines.map(|line| line.expect("a line")).collect::<Vec<_>>().join("\n"));
    assert_eq!(child.wait().expect("ended").code(), Some(1));
    let incident = of_kind(&rest, "incident")[0];
    assert_eq!(
        (&incident["incident"], &incident["evidence"]),
        (&"load-died".into(), &"the load died of signal 4".into())
    );
    assert_eq!(of_kind(&rest, "trial-ended")[0]["verdict"], "fell");
}

#[test]
fn a_reader_that_goes_away_does_not_stop_a_climb() {
    let home = Home::new();
    let mut climb = home.periculum();
    climb.arg("climb").arg(demo("dome.plan.toml")).args(["--headless", "--json"]).stdout(Stdio::piped());
    let mut child = climb.spawn().expect("started");
    drop(child.stdout.take());
    assert!(child.wait().expect("ended").success());
    assert!(output(home.periculum().arg("ledger")).contains("every stage is done"));
}

#[test]
fn a_climb_by_hand_follows_the_operators_answers() {
    let home = Home::new();
    let plan = short_by_hand(&home);
    // Multiplier and base clock are at stock in one visit, 36.5 holds; 37 does not start, 36.5 holds again, and
    // back to stock.
    let answers = home.write("answers", "done\ndone\nno-start\ndone\ndone\n");
    let mut climb = home.periculum();
    climb.arg("climb").arg(&plan).args(["--headless", "--json", "--answers"]).arg(answers);
    let lines = json_lines(&output(&mut climb));
    let change = |change: &Value| format!("{} {} → {}", change["setting"], change["from"], change["to"]);
    let asked: Vec<String> = of_kind(&lines, "asked")
        .into_iter()
        .map(|line| match line["question"]["changes"].as_array() {
            Some(changes) => changes.iter().map(change).collect::<Vec<_>>().join(", "),
            None => change(&line["question"]["change"]),
        })
        .collect();
    insta::assert_snapshot!(asked.join("\n"));
    let verdicts: Vec<_> = of_kind(&lines, "trial-ended").into_iter().map(|line| line["verdict"].clone()).collect();
    assert_eq!(verdicts, ["held", "held", "fell", "held"]);
    assert_eq!(of_kind(&lines, "incident")[0]["incident"], "no-start");
    assert_eq!(lines.last().expect("a last line")["marks"][0]["rung"]["multiplier"], "36.5");
}

#[test]
fn what_the_firmware_shows_is_written_down_behind_done() {
    let home = Home::new();
    let plan = short_by_hand(&home);
    let script = "done multiplier=36,0 base_clock=100\ndone multiplier=3600\ndone\ndone multiplier=36.0\ndone\ndone\n";
    let answers = home.write("answers", script);
    let mut climb = home.periculum();
    climb.arg("climb").arg(&plan).args(["--headless", "--json", "--answers"]).arg(answers);
    let run = climb.output().expect("started");
    let (told, misheard) = (String::from_utf8_lossy(&run.stdout), String::from_utf8_lossy(&run.stderr));
    assert!(misheard.contains("3 600 × is hardly right"), "{misheard}");
    let lines = json_lines(&told);
    let asked = of_kind(&lines, "asked")[0];
    assert_eq!(asked["answers"][0], "done");
    assert_eq!(
        (&asked["fields"][0]["name"], &asked["fields"][0]["number"]["unit"]),
        (&"multiplier".into(), &"×".into())
    );
    // 37 was asked for the second time, and 36 is what it shows.
    let incident = of_kind(&lines, "incident")[0];
    assert_eq!(incident["incident"], "not-taken", "{told}");
    assert!(incident["told"].as_str().expect("words").contains("36.0"), "{incident}");
}

/// The demo's rig, but that somebody sets the clock, or that a start brings it into force.
fn practised(home: &Home, takes_effect: &str) -> PathBuf {
    let (rig, plan) = (demo("dome.rig.toml"), demo("dome.plan.toml"));
    let [rig, plan] = [rig, plan].map(|path| std::fs::read_to_string(path).expect("a file"));
    let at_once = "takes_effect = \"at-once\"\nadapter = \"simulated\"\n";
    let of_machine = "\n[sensor.desk]\nlabel = \"desk\"\nunit = \"%\"\nadapter = \"linux\"\nsource = \"usage\"\n";
    home.write("dome.rig.toml", &(rig.replacen(at_once, takes_effect, 1) + of_machine));
    home.write("dome.plan.toml", &plan.replace("step = 50", "step = 200"))
}

#[test]
fn a_simulated_rig_hears_of_what_somebody_did_and_may_have_sensors_of_this_machine() {
    let ways = [
        ("takes_effect = \"by-hand\"\n", "then say done", "change core clock from 4 200 MHz to 4 400 MHz"),
        (
            "takes_effect = \"next-start\"\nadapter = \"simulated\"\n",
            "then say done",
            "start the machine anew, so that core clock becomes 4 400 MHz",
        ),
    ];
    for (takes_effect, question, first) in ways {
        let home = Home::new();
        let plan = practised(&home, takes_effect);
        let answers = home.write("answers", &"done\n".repeat(40));
        let mut climb = home.periculum();
        climb.arg("climb").arg(&plan).args(["--headless", "--pace", "max", "--answers"]).arg(answers);
        let told = output(&mut climb);
        assert!(told.contains(question) && told.contains(first), "{told}");
        assert!(told.contains("fell") && told.contains("every stage is done"), "it fails like silicon: {told}");
        assert!(told.contains("the rig is back at stock"), "{told}");
    }
}

/// What somebody set stays set while the program is away, and so it does to a rig that is simulated.
#[test]
fn a_simulated_rig_that_was_left_is_found_as_somebody_set_it() {
    for takes_effect in ["takes_effect = \"by-hand\"\n", "takes_effect = \"next-start\"\nadapter = \"simulated\"\n"] {
        let home = Home::new();
        let plan = practised(&home, takes_effect);
        let mut told = String::new();
        for (command, words) in [("climb", 3), ("resume", 1), ("resume", 40)] {
            let answers = home.write("answers", &"done\n".repeat(words));
            let mut run = home.periculum();
            run.arg(command);
            if command == "climb" {
                run.arg(&plan);
            }
            run.args(["--headless", "--pace", "max", "--answers"]).arg(answers);
            told += &String::from_utf8_lossy(&run.output().expect("started").stdout);
        }
        assert!(told.contains("fell") && told.contains("every stage is done"), "it is no rig at stock: {told}");
        assert!(!told.contains("5 000 MHz at 1.250 V  quick  1 min 50 s"), "no specimen holds that: {told}");
    }
}

#[test]
fn a_simulated_rig_sets_nothing_of_this_machine() {
    let home = Home::new();
    let plan = practised(&home, "takes_effect = \"at-once\"\nadapter = \"linux\"\ntarget = \"clock/max\"\n");
    let refused = home.periculum().arg("check").arg(plan).output().expect("started");
    let told = String::from_utf8_lossy(&refused.stderr).into_owned();
    assert!(!refused.status.success() && told.contains("nothing of this machine is set for core clock"), "{told}");
}

#[test]
fn without_an_answer_the_climb_waits_and_goes_on_another_day() {
    let home = Home::new();
    let plan = short_by_hand(&home);
    let none = home.write("none", "");
    let waits = home.periculum().arg("climb").arg(&plan).args(["--headless", "--answers"]).arg(none).output();
    assert_eq!(waits.expect("started").status.code(), Some(130));
    let wrong = home.write("wrong", "done\nperhaps\n");
    let refused = home.periculum().args(["resume", "--headless", "--answers"]).arg(wrong).output().expect("started");
    assert_eq!(refused.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&refused.stderr).contains(":2: `perhaps` is no answer"));
    let answers = home.write("answers", "done\ndone\ndone\ndone\ndone\ndefaults\ndone\ndone\ndone\n");
    let text = output(home.periculum().args(["resume", "--headless", "--answers"]).arg(answers));
    assert!(text.contains("mark:"), "{text}");
    assert!(output(home.periculum().args(["resume", "--headless"])).contains("every climb in this ledger is finished"));
}

#[test]
fn what_is_said_just_before_the_end_of_input_is_heard() {
    let home = Home::new();
    let plan = short_by_hand(&home);
    for word in ["stop", "stop-at-mark", "perhaps"] {
        let mut climb = home.periculum();
        climb.arg("climb").arg(&plan).arg("--headless");
        let climbed =
            assert_cmd::Command::from_std(climb).write_stdin(format!("{word}\ndone\n")).output().expect("started");
        assert_eq!(climbed.status.code(), Some(130), "{word}");
        let told = String::from_utf8_lossy(&climbed.stdout).into_owned();
        assert_eq!(told.contains("the operator stopped it"), word != "perhaps", "{word}: {told}");
    }
}

#[test]
fn a_report_is_written_as_a_picture_and_as_text() {
    let home = Home::new();
    output(home.periculum().arg("climb").arg(demo("dome.plan.toml")).arg("--headless"));
    output(home.periculum().args(["report", "1", "-o", "x.svg"]));
    output(home.periculum().args(["report", "1", "-o", "x.md"]));
    let svg = std::fs::read_to_string(home.path("x.svg")).expect("read");
    let with_text = output(home.periculum().args(["report", "1", "-o", "-", "--as", "svg", "--text"]));
    assert!(with_text.contains(">core clock, MHz</text>") && !svg.contains("</text>"), "{with_text}");
    let wrong = home.periculum().args(["report", "1", "-o", "x.md", "--text"]).output().expect("run");
    assert!(wrong.status.code() == Some(2) && String::from_utf8_lossy(&wrong.stderr).contains("leave it out"));
    assert!(svg.contains("core clock, MHz") && svg.contains("ceiling 5 100") && svg.trim_end().ends_with("</svg>"));
    let text = std::fs::read_to_string(home.path("x.md")).expect("read");
    let passing = ["Begun ", "Written by "];
    let lasts = |line: &&str| !passing.iter().any(|begin| line.starts_with(begin));
    insta::assert_snapshot!(text.lines().filter(lasts).collect::<Vec<_>>().join("\n"));
    for (arguments, said) in [
        (["report", "1", "-o", "x.doc"], "end it in .pdf, .html, .md or .svg"),
        (["report", "9", "-o", "x.svg"], "there is no climb 9"),
    ] {
        let refused = home.periculum().args(arguments).output().expect("started");
        assert!(!refused.status.success());
        assert!(String::from_utf8_lossy(&refused.stderr).contains(said));
    }
}

/// A proof that works, and the lines that it prints from now on.
fn proving_for_an_hour(home: &Home) -> (Child, impl Iterator<Item = std::io::Result<String>> + use<>) {
    let mut child = home
        .periculum()
        .args(["prove", "--load", "dense", "--size", "200", "--for", "1h", "--json"])
        .stdout(Stdio::piped())
        .spawn()
        .expect("started");
    let mut lines = BufReader::new(child.stdout.take().expect("output")).lines();
    assert!(lines.by_ref().any(|line| line.expect("a line").contains("\"kind\":\"progress\"")));
    (child, lines)
}

fn signal(process: u32, signal: rustix::process::Signal) {
    let process = i32::try_from(process).ok().and_then(rustix::process::Pid::from_raw).expect("a process");
    rustix::process::kill_process(process, signal).expect("signalled");
}

fn only_child_of(process: u32) -> u32 {
    let children = std::fs::read_dir("/proc").expect("processes").filter_map(|entry| {
        let stat = std::fs::read_to_string(entry.ok()?.path().join("stat")).ok()?;
        let (head, tail) = stat.rsplit_once(") ")?;
        let parent: u32 = tail.split(' ').nth(1)?.parse().ok()?;
        (parent == process).then(|| head.split(' ').next()?.parse().ok()).flatten()
    });
    let children: Vec<u32> = children.collect();
    assert_eq!(children.len(), 1);
    children[0]
}

#[test]
fn a_climb_is_exported_for_other_programs() {
    let home = Home::new();
    output(home.periculum().arg("climb").arg(demo("dome.plan.toml")).arg("--headless"));
    for (what, file) in [
        ("trials", "trials.csv"),
        ("trials", "trials.jsonl"),
        ("scores", "scores.jsonl"),
        ("incidents", "incidents.jsonl"),
        ("samples", "samples.csv"),
        ("marks", "marks.om"),
    ] {
        output(home.periculum().args(["export", "1", what, "-o", file]));
    }
    let read = |name: &str| std::fs::read_to_string(home.path(name)).expect("written");
    let trials = json_lines(&read("trials.jsonl"));
    assert_eq!(read("trials.csv").lines().count(), trials.len() + 1);
    assert_eq!((&trials[0]["core_clock"], &trials[0]["verdict"]), (&4200.into(), &"held".into()));
    assert_eq!(trials[0]["core_clock_reported"], trials[0]["core_clock"]);
    assert!(trials[0]["core_clock_measured"].as_f64() > Some(4100.0) && trials[0]["core_voltage_measured"].is_null());
    assert!(trials.iter().all(|trial| trial["because"].as_str().is_some_and(|why| !why.is_empty())));
    let scores = json_lines(&read("scores.jsonl"));
    assert!(scores.len() > trials.len() && scores.iter().all(|score| score["score"].as_f64() > Some(0.0)));
    assert!(json_lines(&read("incidents.jsonl")).iter().any(|incident| incident["incident"] == "wrong-result"));
    assert!(read("samples.csv").lines().count() > 1000);
    let metrics = read("marks.om");
    assert!(metrics.contains("setting=\"core_clock\",unit=\"MHz\",proof=\"quick\"} 4700\n"), "{metrics}");
    assert!(metrics.ends_with("\n# EOF\n"), "{metrics}");
    let refused = home.periculum().args(["export", "1", "trials", "-o", "trials.xyz"]).output().expect("started");
    assert_eq!(refused.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&refused.stderr).contains("end it in .csv or .jsonl"));
}

/// The same climb on the same simulated specimen comes to the same mark, without any of its files.
#[test]
fn a_climb_of_the_ledger_is_climbed_again() {
    let home = Home::new();
    output(home.periculum().arg("climb").arg(demo("dome.plan.toml")).args(["--headless", "--seed", "3"]));
    output(home.periculum().args(["climb", "--again", "1", "--headless"]));
    let marks = |climb: &str| {
        output(home.periculum().args(["export", climb, "marks", "-o", &format!("{climb}.om")]));
        let text = std::fs::read_to_string(home.path(&format!("{climb}.om"))).expect("written");
        text.replace(&format!("climb=\"{climb}\""), "climb")
    };
    assert_eq!(marks("1"), marks("2"));
    let refused = home.periculum().args(["climb", "--again", "7", "--headless"]).output().expect("started");
    assert!(!refused.status.success());
    assert!(String::from_utf8_lossy(&refused.stderr).contains("no climb 7"), "{refused:?}");
    let neither = home.periculum().arg("climb").output().expect("started");
    assert_eq!(neither.status.code(), Some(2));
}

#[test]
fn what_an_instrument_wrote_down_is_attached_to_a_climb() {
    let home = Home::new();
    output(home.periculum().arg("climb").arg(demo("dome.plan.toml")).arg("--headless"));
    let lines = (0..600).map(|second| format!("{second},{},{}\n", 90 + second % 40, 30 + second % 7));
    home.write("meter.csv", &format!("time,wall power (W),room hum (dB)\n{}", lines.collect::<String>()));
    let attached = output(home.periculum().args(["attach", "1", "meter.csv"]));
    assert_eq!(
        attached,
        "600 readings of wall_power are attached to climb 1\n600 readings of room_hum are attached to climb 1\n"
    );
    let listed = output(home.periculum().args(["attach", "1"]));
    assert!(listed.contains("wall_power: wall power, W, from meter.csv"), "{listed}");
    output(home.periculum().args(["export", "1", "samples", "-o", "samples.csv"]));
    let samples = std::fs::read_to_string(home.path("samples.csv")).expect("written");
    assert!(
        samples.lines().any(|line| line.starts_with("wall_power,W,") && line.ends_with("Z,7,97")),
        "the time into the climb is the instrument's"
    );
    output(home.periculum().args(["report", "1", "-o", "climb.md"]));
    let report = std::fs::read_to_string(home.path("climb.md")).expect("written");
    assert!(report.contains("not under that digest: room hum (meter.csv), wall power (meter.csv)"), "{report}");
    // It is known to be another climb's time, a name that is taken, or a file that can't be read, and nothing changes.
    home.write("late.csv", "time;clock reached;rig power (W)\n2031-01-01 00:00:00;4700;91,5\n");
    home.write("bad.csv", "time,power (W)\n0,1\n1,much\n");
    home.write("same.csv", "time,fan (rpm),package power (W)\n0,900,100\n");
    for (arguments, told) in [
        (vec!["late.csv"], "no reading of clock reached lies within climb 1"),
        (vec!["meter.csv"], "climb 1 has readings of wall_power already"),
        (vec!["same.csv"], "climb 1 has readings of package_power already"),
        (vec!["bad.csv"], "bad.csv: line 3, power: `much` is no number"),
        (vec!["--take-off", "fan"], "nothing is attached to climb 1 as fan"),
        (vec!["gone.csv"], "can't read gone.csv"),
    ] {
        let refused = home.periculum().args(["attach", "1"]).args(arguments).output().expect("started");
        assert_eq!(refused.status.code(), Some(2));
        let why = String::from_utf8_lossy(&refused.stderr).into_owned();
        assert!(why.contains(told), "{why}");
    }
    assert_eq!(output(home.periculum().args(["attach", "1"])), listed);
    // A clock that is ahead by a minute: what was read in the first one belongs to no climb.
    output(home.periculum().args(["attach", "1", "--take-off", "room_hum"]));
    output(home.periculum().args(["attach", "1", "--take-off", "wall_power"]));
    let moved = output(home.periculum().args(["attach", "1", "meter.csv", "--ahead", "60"]));
    assert!(moved.contains("540 readings of wall_power"), "{moved}");
}

#[test]
fn an_option_that_would_do_nothing_is_refused() {
    let home = Home::new();
    let read = |name: &str| std::fs::read_to_string(demo(name)).expect("read");
    home.write("dome.rig.toml", &read("dome.rig.toml").replace("[rig]\n", "[rig]\nwatchdog = \"/dev/watchdog\"\n"));
    home.write("dome.plan.toml", &read("dome.plan.toml").replace("[plan]\n", "[plan]\nunattended = true\n"));
    let refused = home.periculum().args(["check", "dome.plan.toml"]).output().expect("started");
    assert_eq!(refused.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&refused.stderr).contains("so no watchdog is armed"));
}

#[test]
fn results_from_elsewhere_are_entered_with_their_source_and_taken_back() {
    let home = Home::new();
    let enter = |arguments: &[&str]| home.periculum().arg("enter").args(arguments).assert();
    enter(&["dense", "512.4", "GFLOP/s", "--source", "a friend", "--specimen", "his best"]).success();
    enter(&["core_clock", "4900", "MHz", "--source", "the club"]).success();
    let listed = output(home.periculum().arg("enter"));
    assert!(listed.contains("dense 512.4 GFLOP/s of his best, from a friend"), "{listed}");
    enter(&["--take-back", "1"]).success();
    let listed = output(home.periculum().arg("enter"));
    assert!(!listed.contains("a friend") && listed.contains("core_clock 4900 MHz, from the club"), "{listed}");
    enter(&["--take-back", "1"]).failure().stderr(predicate::str::contains("there is no result 1"));
    enter(&["dense", "512.4", "GFLOP/s"]).failure().stderr(predicate::str::contains("--source"));
    enter(&["dense", "0", "GFLOP/s", "--source", "a friend"]).failure().stderr(predicate::str::contains("above 0"));
}

#[test]
fn what_is_no_number_is_told_as_that() {
    let home = Home::new();
    let refused = |asked: &[&str]| {
        let output = home.periculum().args(asked).output().expect("started");
        assert_eq!(output.status.code(), Some(2), "{asked:?}");
        String::from_utf8_lossy(&output.stderr).into_owned()
    };
    for asked in [&["resume", "abc"][..], &["show", "0"], &["ledger", "-"], &["report", "1.5", "-o", "x.svg"]] {
        assert!(refused(asked).contains("is not a climb number; `periculum ledger` lists them"), "{asked:?}");
    }
    assert!(refused(&["prove", "--times", "none"]).contains("`none` is not a whole number from 1 up"));
    assert!(refused(&["climb", "x.toml", "--seed", "x"]).contains("`x` is not a whole number"));
    assert!(refused(&["prove", "--priority", "20"]).contains("`20` is not a whole number from -20 to 19"));
}

#[test]
fn a_simulated_climb_has_one_date() {
    let home = Home::new();
    let began = jiff::Timestamp::now().as_millisecond();
    let lines = json_lines(&output(home.periculum().arg("climb").arg(demo("quiet.plan.toml")).arg("--json")));
    let at = lines[0]["at"].as_i64().or_else(|| lines[0]["at"].as_str()?.parse().ok()).expect("a time");
    assert!((began..began + 600_000).contains(&at), "{at} is when it was climbed, not another summer");
}

#[test]
fn shells_and_manuals_know_every_command() {
    let home = Home::new();
    let listed = output(home.periculum().arg("--help"));
    let (_, commands) = listed.split_once("Commands:\n").expect("commands");
    let named: Vec<&str> = commands
        .lines()
        .take_while(|line| !line.is_empty())
        // What goes on from the line before stands farther in.
        .filter_map(|line| line.strip_prefix("  ")?.split(' ').next().filter(|name| !name.is_empty()))
        .collect();
    assert!(named.len() > 20 && named.contains(&"climb"), "{named:?}");
    for shell in ["bash", "zsh", "fish"] {
        let script = output(home.periculum().args(["completions", shell]));
        for command in &named {
            assert!(script.contains(command), "{shell} does not know {command}");
        }
    }
    let script = home.write("completions.bash", &output(home.periculum().args(["completions", "bash"])));
    assert!(std::process::Command::new("bash").arg("-n").arg(script).status().expect("started").success());
    output(home.periculum().args(["man", "-o", "pages"]));
    for command in named.iter().filter(|command| **command != "help") {
        let page = std::fs::read_to_string(home.path(&format!("pages/periculum-{command}.1"))).expect("a page");
        assert!(page.contains(".TH") && page.contains("SYNOPSIS"), "{command}");
    }
    assert!(output(home.periculum().arg("man")).contains("periculum"));
    assert_eq!(home.periculum().args(["completions", "tcl"]).output().expect("started").status.code(), Some(2));
}
