//! Three whole climbs on machines that are elsewhere, as docs/by-hand.md leads through them: from the first card to the report.

use crate::common::{Home, demo, output};
use crate::terminal::Terminal;

/// A terminal beside the files of a rig of the demo.
fn at(home: &Home, rig: &str) -> Terminal {
    for kind in ["rig", "plan"] {
        let file = format!("{rig}.{kind}.toml");
        std::fs::copy(demo(&file), home.path(&file)).expect("copied");
    }
    Terminal::new(home, 160, 40)
}

/// Begins a climb of the rig's plan in the interface.
fn begin(terminal: &Terminal, rig: &str) {
    terminal.run(&format!("periculum climb {rig}.plan.toml"));
    terminal.wait_for_all(&["before it begins", "nothing of this machine is changed", "› begin"]);
    terminal.press("Enter");
}

/// Somebody goes on the errand that this trial needs.
fn errand(terminal: &Terminal, trial: u32) {
    terminal.wait_for_all(&[&format!("For trial {trial},"), "d done, it runs"]);
    terminal.press("d");
}

/// Writes these into the fields of a card, one after the other, and says that this is all.
fn write(terminal: &Terminal, fields: &[(&str, &str)]) {
    terminal.press("Enter");
    for (asked, typed) in fields {
        terminal.wait_for(&format!("╭ {asked}"));
        terminal.run(typed);
    }
    terminal.wait_until("the card with all of it", |screen| {
        screen.contains("enter what it says") && fields.iter().all(|(_, typed)| screen.contains(typed))
    });
    terminal.press("d");
}

fn file(home: &Home, name: &str) -> String {
    std::fs::read_to_string(home.path(name)).expect("written")
}

#[test]
fn oscillators_from_a_drawer_are_climbed_by_hand_to_an_hour_of_real_work() {
    let home = Home::new();
    let terminal = at(&home, "tape");
    begin(&terminal, "tape");
    errand(&terminal, 1);
    terminal.wait_for("read room (°C), once for the whole climb");
    write(&terminal, &[("room", "21,5")]);
    let speed = |trial: u32, index, sieve, chip| {
        terminal.wait_for_all(&[&format!("For trial {trial},"), "Start SPEED from the tools disk", "h it hung"]);
        write(&terminal, &[("index", index), ("sieve", sieve), ("picture", "clean"), ("chip", chip)]);
    };
    speed(1, "2.10", "24.4", "38,5");
    for (trial, index, sieve, chip) in
        [(2, "2.35", "21,8", "41"), (3, "2.52", "20.3", "43,5"), (4, "2.69", "19.1", "47")]
    {
        errand(&terminal, trial);
        speed(trial, index, sieve, chip);
    }
    terminal.wait_for_all(&["For trial 5,", "d done, it runs"]);
    terminal.press("u");
    let change = [("part", ""), ("specimen", ""), ("firmware", "1.4"), ("slot", ""), ("remark", "battery new")];
    for (asked, typed) in change {
        terminal.wait_for(&format!("╭ what changed on the rig: {asked}"));
        terminal.run(typed);
    }
    terminal.wait_for("state 2 of the rig: board: firmware 1.4; battery new");
    errand(&terminal, 5);
    terminal.wait_for_all(&["For trial 5,", "h it hung"]);
    terminal.press("w");
    terminal.wait_for("what was wrong with the picture");
    terminal.run("torn on the left");
    errand(&terminal, 6);
    speed(6, "2.70", "19", "47,5");
    // The hour is for another day.
    terminal.wait_for_all(&["For trial 7,", "Let it read reel 12 for an hour", "h it hung"]);
    terminal.press("l");
    terminal.wait_for_all(&["The climb waits", "ready>"]);
    terminal.run("clear; periculum resume");
    terminal.wait_for_all(&["For trial 7,", "Let it read reel 12 for an hour", "h it hung"]);
    terminal.press("r");
    terminal.wait_for("╭ room");
    terminal.run("23");
    terminal.wait_for("╭ chip");
    terminal.run("52,5");
    terminal.wait_for("package 52.5 °C".replace("package", "chip, infrared").as_str());
    // What was read unasked is not asked for again.
    terminal.wait_until("a card without it", |screen| !screen.contains("chip, infrared  …"));
    write(&terminal, &[("blocks read again", "2"), ("read to its end", "yes")]);
    terminal.wait_for_all(&["every stage is done", "32.0 MHz"]);
    terminal.press("r");
    terminal.wait_for("climb-1.pdf");
    terminal.press("Enter");
    terminal.wait_until("the report", |_| home.path("climb-1.pdf").exists());
    terminal.leave();
    output(home.periculum().args(["report", "1", "-o"]).arg(home.path("tape.md")));
    let report = file(&home, "tape.md");
    for told in [
        "Mark: 32.0 MHz, wait states 1, heat sink, held hour",
        "reel by hand for 1 h, which read again 2, finished yes",
        "speed index",
        "speed sieve",
        "torn on the left",
        "state 2 of the rig, from trial 5 on: board: firmware 1.4; battery new",
        "the rig stays at its mark",
    ] {
        assert!(report.contains(told), "{told}: {report}");
    }
}

#[test]
fn every_jumper_of_a_vintage_board_is_tried_to_its_families_of_curves() {
    let home = Home::new();
    let terminal = at(&home, "plotter");
    begin(&terminal, "plotter");
    for trial in 1..=13 {
        errand(&terminal, trial);
        let asked = terminal.wait_for_all(&[&format!("For trial {trial},"), "h it hung"]);
        // Its memory is too slow for the last of them.
        if asked.contains("on trial     30 MHz, 3 ×, wait states 0") {
            terminal.press("w");
            terminal.wait_for("what was wrong with the picture");
            terminal.run("stars doubled");
            continue;
        }
        write(&terminal, &[("ticks", &(1000 - 30 * trial).to_string())]);
    }
    terminal.wait_for("To take the rig back to stock");
    terminal.press("d");
    terminal.wait_for("every stage is done");
    terminal.press("7");
    terminal.wait_for_all(&["chart ticks", "multiplier 3 ×, wait states 1"]);
    terminal.leave();
    for (wanted, name) in [("scores", "scores.svg"), ("map", "map.svg")] {
        let args = ["report", "1", "--picture", wanted, "-o"];
        output(home.periculum().args(args).arg(home.path(name)));
    }
    let args = ["report", "1", "--picture", "scores", "--benchmark", "chart frames", "--over", "access_time", "-o"];
    output(home.periculum().args(args).arg(home.path("frames.svg")));
    assert!(file(&home, "frames.svg").contains("access time"), "a derived value is an axis");
    output(home.periculum().args(["report", "1", "-o"]).arg(home.path("plotter.md")));
    let report = file(&home, "plotter.md");
    for told in [
        "chart ticks at multiplier 2 ×, wait states 1",
        "chart frames at",
        "artefact",
        "stars doubled",
        "6.52 frames/s",
    ] {
        assert!(report.contains(told), "{told}: {report}");
    }
}

/// Says a line to each question of a climb without the interface, as soon as it is asked: these after so many others.
fn say(terminal: &Terminal, after: usize, lines: &[&str]) {
    let all = || output(&mut terminal.tmux(&["capture-pane", "-p", "-J", "-S", "-"]));
    let asked = || all().lines().filter(|line| line.starts_with("  ?  ")).count();
    for (number, line) in lines.iter().enumerate() {
        terminal.wait_until(line, |_| asked() > after + number);
        terminal.run(line);
    }
}

#[test]
fn a_memory_kit_is_tried_in_two_and_four_slots_on_two_boards_and_led_from_there() {
    let home = Home::new();
    let terminal = at(&home, "kit");
    terminal.run("clear; periculum climb kit.plan.toml --headless");
    let grid = [
        "done",
        "done room=22,5",
        "done speed=61,2 latency=71 errors=no modules=41",
        "done",
        "done speed=63.4 latency=69.5 errors=no modules=43",
        "done",
        "done speed=58.8 latency=74 errors=no modules=44",
        "done",
        "done speed=60.1 latency=72 errors=no modules=47",
    ];
    say(&terminal, 0, &grid);
    terminal.wait_for("say what is tried next");
    terminal.run("try modules=in_three_slots");
    terminal.wait_for("is none of in two slots, in four slots");
    let led = [
        "try rate=5600 module_voltage=1.25 modules=in two slots",
        "done module_voltage=1.25 measured.module_voltage=1.262 interface_voltage=1.05",
        "done speed=71 latency=66 errors=no modules=53",
        "try rate=6400",
        "done",
        "done speed=79 latency=61 errors=yes modules=58,5",
        "back",
        "done",
        "done speed=70.8 latency=66 errors=no modules=53",
        "mark",
        "save evening",
        "end",
        "done",
    ];
    say(&terminal, grid.len(), &led);
    terminal.wait_for("every stage is done");
    output(home.periculum().args(["report", "1", "-o"]).arg(home.path("kit.md")));
    let report = file(&home, "kit.md");
    for told in ["test speed", "test latency", "1.262 V", "errors told", "evening"] {
        assert!(report.contains(told), "{told}: {report}");
    }
    let profiles = output(home.periculum().args(["profile"]));
    assert!(profiles.contains("evening"), "{profiles}");
}

/// A climb without the interface, whose answers are piped in.
fn climb(home: &Home, lines: &str) -> String {
    let answers = home.write("answers", lines);
    let mut climb = home.periculum();
    climb.args(["climb", "tape.plan.toml", "--headless", "--answers"]).arg(answers);
    String::from_utf8(climb.output().expect("started").stdout).expect("text")
}

#[test]
fn what_was_found_with_another_firmware_says_so() {
    let home = Home::new();
    let _terminal = at(&home, "tape");
    let plan = file(&home, "tape.plan.toml").replace(
        "setting = \"oscillator\"\nproof = \"speed\"",
        "setting = \"oscillator\"\nproof = \"speed\"\nsave = \"day\"",
    );
    home.write("tape.plan.toml", &plan);
    let pass = |picture: &str| format!("done index=3 sieve=24 picture={picture} chip=41\n");
    let (clean, dots) = (pass("clean"), pass("dots"));
    let lines = format!(
        "done\ndone room=20\n{clean}done\nchanged firmware=1.4\nchanged part=fan slot=2\n{clean}done\n{dots}done\n{clean}stop\ndone\n"
    );
    let told = climb(&home, &lines);
    assert!(told.contains("state 2 of the rig: board: firmware 1.4"), "{told}");
    let listed = || output(home.periculum().arg("profile"));
    assert!(listed().contains("day ") && !listed().contains("another"), "{}", listed());
    let columns = home.path("trials.csv");
    output(home.periculum().args(["export", "1", "trials", "-o"]).arg(&columns));
    let states: Vec<String> =
        file(&home, "trials.csv").lines().map(|line| line.split(',').nth(18).unwrap_or_default().to_owned()).collect();
    assert_eq!(
        states,
        ["state", "1", "1", "2", "2", "2"],
        "told in the pass of the second, it holds from the third on"
    );
    let rig =
        file(&home, "tape.rig.toml").replace("specimen = \"L-0088\"", "specimen = \"L-0088\"\nfirmware = \"1.5\"");
    home.write("tape.rig.toml", &rig);
    climb(&home, "done\nchanged part=board remark=paste renewed\ndone\nstop\ndone\n");
    assert!(listed().contains("board; paste renewed; board firmware 1.4, now 1.5"), "{}", listed());
}
