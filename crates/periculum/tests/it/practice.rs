//! The rigs to practise on: a whole plan of each as the lines that it prints, and the demo of some.

use std::io::Write;
use std::process::Stdio;

use crate::common::{Home, demo, output};
use crate::terminal::Terminal;

/// A plan of the demo climbed from the first line to the last by somebody who does whatever is asked.
fn lines_of(plan: &str) -> String {
    let home = Home::new();
    let mut climb = home.periculum();
    climb.arg("climb").arg(demo(plan)).arg("--headless");
    climb.stdin(Stdio::piped()).stdout(Stdio::piped()).stderr(Stdio::piped());
    let mut child = climb.spawn().expect("started");
    child.stdin.take().expect("a pipe").write_all("done\n".repeat(400).as_bytes()).expect("written");
    let out = child.wait_with_output().expect("an end");
    let text = String::from_utf8(out.stdout).expect("text");
    assert!(out.status.success(), "{text}{}", String::from_utf8_lossy(&out.stderr));
    text.lines()
        .filter(|line| !line.trim_start().starts_with('?'))
        .map(|line| format!("{}\n", line.trim_end()))
        .collect()
}

#[test]
fn a_whole_plan_of_each_rig() {
    for plan in ["shelf", "shelf-four", "lens", "lens-pinned", "mount", "cryo", "cryo-cold", "lamp"] {
        insta::assert_snapshot!(format!("practice-{plan}"), lines_of(&format!("{plan}.plan.toml")));
    }
}

/// Whoever sits before a machine in software is told what its screen says, and types that.
#[test]
fn what_a_screen_says_is_typed_by_somebody_and_in_the_demo_by_hands_that_are_simulated() {
    let home = Home::new();
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run(&format!("periculum climb {} --pace max --yes", demo("relic.plan.toml").display()));
    terminal.wait_for("set bus clock to 24 MHz");
    terminal.press("d");
    terminal.wait_for_all(&["Start the copy test", "its screen says rate 15"]);
    terminal.press("q");
    terminal.wait_for("a climb is running");
    terminal.press("l");
    // What is typed before the shell listens again is lost.
    terminal.wait_for_all(&["The climb waits", "goes on with it.\nready>"]);
    terminal.run("clear; periculum demo relic --pace max");
    terminal.wait_for("every stage is done");
    terminal.press("3");
    terminal.wait_for_all(&["plot-test", "frames/s", "the operator says: it hung"]);
    terminal.press("q");
}

/// Records keep the files of their time: a card that a setting shifts, and tests that were taken for loads.
#[test]
fn rigs_and_plans_of_before_are_read() {
    let home = Home::new();
    let setting = |name: &str| {
        format!(
            "[setting.{name}]\nladder = {{ from = -300, step = 10, to = 300 }}\nstock = 0\nceiling = {{ daily = 200 }}\n\
             harder = \"up\"\ntakes_effect = \"at-once\"\nadapter = \"simulated\"\n"
        )
    };
    let settings = ["core_offset", "memory_offset"].map(setting).concat();
    let device = "[adapter.simulated.device.card]\nkind = \"graphics\"\ncore_offset = \"core_offset\"\n\
                  memory_offset = \"memory_offset\"\n";
    home.write("card.rig.toml", &format!("format = 1\n[rig]\nname = \"card\"\n{settings}{device}"));
    std::fs::copy(demo("relic.rig.toml"), home.path("relic.rig.toml")).expect("copied");
    for (rig, load, setting) in [("card", "scene", "core_offset"), ("relic", "plot", "bus_clock")] {
        let plan = format!(
            "format = 1\n[plan]\nname = \"p\"\nrig = \"{rig}.rig.toml\"\nuse = \"daily\"\n[proof.one]\n\
             passes = [{{ load = \"{load}\", for = \"30s\" }}]\n[[stage]]\nstrategy = \"ascend\"\n\
             setting = \"{setting}\"\nproof = \"one\"\n"
        );
        home.write("before.plan.toml", &plan);
        let told = output(home.periculum().args(["check", "before.plan.toml"]));
        assert!(told.contains("ascend"), "{told}");
    }
}

#[test]
fn a_curve_is_looked_at_point_by_point() {
    let home = Home::new();
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run(&format!("periculum climb {} --pace max --yes", demo("lens-pinned.plan.toml").display()));
    terminal.wait_for("every stage is done");
    terminal.press("2");
    terminal.wait_for("curve");
    terminal.press("c");
    terminal.wait_for_all(&["core, MHz over mV", "sat at 890 mV", "limited by voltage", "factory", "1 935"]);
    terminal.press("Home");
    terminal.wait_for_all(&["everything as the rig comes", "sat at 990 mV"]);
    terminal.press("c");
    terminal.wait_for("falls from here");
    terminal.press("q");
}

#[test]
fn the_truth_of_each_rig_is_revealed() {
    let home = Home::new();
    for rig in ["shelf", "lens", "mount", "cryo", "lamp"] {
        let (file, plan) = (demo(&format!("{rig}.rig.toml")), demo(&format!("{rig}.plan.toml")));
        let told = output(home.periculum().arg("reveal").arg(file).arg("--plan").arg(plan));
        assert!(told.contains("the hardest rung that holds is"), "{rig}: {told}");
    }
}

#[test]
fn the_demo_shows_a_rig_by_its_name_and_does_by_itself_what_somebody_would_have_to() {
    let home = Home::new();
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run("periculum demo shelf --pace 600");
    terminal.wait_for_all(&["shelf", "rate, MT/s", "modules", "ahead"]);
    // Nobody touches a key, and the next start is made all the same.
    terminal.wait_for("start the machine anew, so that rate becomes");
    terminal.wait_until("the next trial", |screen| {
        screen.lines().any(|line| line.contains("on trial") && line.contains("MT/s")) && screen.contains("left")
    });
    terminal.press("q");
    terminal.wait_for("a climb is running");
    terminal.press("l");
    terminal.wait_for("The climb waits");
    terminal.run("clear; periculum demo lamp --pace 60");
    terminal.wait_for_all(&["lamp", "refresh rate, Hz", "pixel clock"]);
    terminal.press("q");
    terminal.wait_for("a climb is running");
    terminal.press("l");
    terminal.wait_for("The climb waits");
    terminal.run("clear; periculum demo toaster");
    terminal.wait_for("possible values: dome, vault, shelf, lens, mount, relic, cryo, lamp");
}

/// A climb of each other kind goes on before one's eyes, in the middle of its own, and waits when one leaves.
#[test]
fn a_climb_of_each_kind_is_watched_and_left() {
    let home = Home::new();
    let terminal = Terminal::new(&home, 160, 40);
    let kinds = [
        ("vault", ["fast cores", "limited by"]),
        ("lens", ["core offset", "limited by"]),
        ("mount", ["clock it reports", "limited by"]),
        ("relic", ["bus clock", "ahead"]),
        ("cryo", ["pot at the thermometer", "left cores"]),
    ];
    for (rig, shows) in kinds {
        terminal.run(&format!("clear; periculum demo {rig} --pace 30"));
        let screen = terminal.wait_for_all(&[rig, shows[0], shows[1], "on trial"]);
        assert!(screen.lines().next().is_some_and(|line| line.contains(&format!(" {rig} "))), "{screen}");
        terminal.press("q");
        terminal.wait_for("a climb is running");
        terminal.press("l");
        terminal.wait_for("The climb waits");
    }
}

#[test]
fn a_display_goes_back_where_nobody_says_that_there_is_a_picture() {
    let home = Home::new();
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run(&format!("periculum climb {} --yes --pace 20", demo("lamp.plan.toml").display()));
    terminal.wait_for_all(&["84 Hz", "It goes back in", "all is well"]);
    // Nobody presses anything for twenty seconds.
    terminal.wait_for("no-picture: nobody said that all is well");
    terminal.wait_for_all(&["on trial     66 Hz", "It goes back in"]);
    terminal.press("d");
    terminal.wait_until("the pass to run", |screen| screen.contains("sweep") && screen.contains(" left"));
    terminal.press("q");
    terminal.wait_for("a climb is running");
    terminal.press("l");
    terminal.wait_for("The climb waits");
}
