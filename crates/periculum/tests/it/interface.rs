//! The real interface in a real terminal: tmux types the keys and reads the screen.

use std::process::Command;
use std::thread::sleep;
use std::time::{Duration, Instant};

use crate::common::{Home, demo, output, short_by_hand};
use crate::terminal::{PATIENCE, Terminal};

/// How many trials have ended, as the first line says.
fn held(screen: &str) -> u32 {
    let words: Vec<&str> = screen.lines().next().unwrap_or_default().split_whitespace().collect();
    let at = words.iter().position(|word| *word == "held,").unwrap_or(0);
    words.get(at.wrapping_sub(1)).and_then(|count| count.parse().ok()).unwrap_or(0)
}

/// How many trials there are, as the head of their list says.
fn listed(screen: &str) -> u32 {
    let head = screen.split_once("trials   ").and_then(|(_, head)| head.split_once(" of "));
    head.and_then(|(_, count)| count.split_whitespace().next()?.parse().ok()).unwrap_or(0)
}

#[test]
fn a_first_demo_that_is_ended_while_it_is_made_is_made_whole_the_next_time() {
    let home = Home::new();
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run("periculum demo --ledger shown.ledger");
    let half_made = home.path("shown.ledger.first-start/ledger");
    let deadline = Instant::now() + PATIENCE;
    while !half_made.exists() {
        assert!(Instant::now() < deadline, "nothing was made");
        sleep(Duration::from_millis(1));
    }
    terminal.press("C-c");
    terminal.wait_until("the prompt", |screen| screen.trim_end().ends_with("ready>"));
    assert!(half_made.exists(), "ended too late to be half made");
    terminal.run("periculum demo --ledger shown.ledger");
    terminal.wait_for_all(&["dome", "climb 14", "on trial"]);
    assert!(!half_made.exists());
}

#[test]
fn the_demo_is_watched_paused_noted_and_left() {
    let home = Home::new();
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run("periculum demo --pace 60 --seed 11");
    let first = terminal.wait_for_all(&[
        "on trial",
        "dome",
        "core clock, MHz",
        "ceiling",
        "highest so far",
        "hottest core",
        "cut-off 100",
        "if it falls",
        "logbook",
    ]);
    terminal.wait_until("the profile to grow", |screen| held(screen) > held(&first));

    terminal.press("Space");
    terminal.wait_until("the pause", |screen| screen.lines().next().is_some_and(|line| line.ends_with("paused")));
    terminal.press("n");
    terminal.wait_for("a note for the record");
    terminal.run("the fan rattles");
    terminal.wait_for("note: the fan rattles");
    terminal.press("?");
    terminal.wait_for("what this view shows");
    terminal.press("Escape");
    terminal.wait_until("help to close", |screen| !screen.contains("what this view shows"));
    terminal.press("Space");
    terminal.wait_until("the climb to go on", |screen| {
        screen.lines().next().is_some_and(|line| line.ends_with("climbing"))
    });

    terminal.press("w");
    terminal.wait_for("what did you see?");
    terminal.run("snow on the picture");
    // In the trial that ran when it was seen, which may be over by now.
    terminal.wait_for("seen");
    terminal.wait_for("slipped");

    let resize = terminal.tmux(&["resize-window", "-x", "80", "-y", "24"]).status();
    assert!(resize.expect("tmux").success());
    terminal.wait_until("the small screen", |screen| {
        let parts = ["dome", "if it holds", "space pause", "? help", "q leave"];
        parts.iter().all(|part| screen.contains(part)) && screen.lines().all(|line| line.chars().count() <= 80)
    });

    terminal.press("q");
    terminal.wait_for("a climb is running");
    terminal.press("l");
    let after = terminal.wait_for("The climb waits");
    assert!(!after.contains("if it holds"), "the screen is not cleared:\n{after}");
    terminal.run("echo and the shell is $((40 + 2))");
    terminal.wait_for("and the shell is 42");

    terminal.run("periculum demo --pace 60");
    terminal.wait_until("the climb to be taken up again", |screen| {
        screen.contains("on trial") && screen.contains("if it holds")
    });
    terminal.press("s");
    terminal.wait_for("stop?");
    terminal.press("y");
    terminal.wait_for("the operator stopped it; the rig is back at stock");
    terminal.leave();
    let demo = home.path("data/periculum/demo.ledger");
    let listed = output(home.periculum().args(["ledger", "--ledger"]).arg(&demo));
    assert!(listed.contains("the operator stopped it"), "{listed}");
}

#[test]
fn a_climb_in_the_interface_comes_to_its_mark() {
    let home = Home::new();
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run(&format!("periculum climb {} --yes --pace max --seed 11", demo("dome.plan.toml").display()));
    let end = "every stage is done; the rig is back at stock";
    terminal.wait_for_all(&[end, "4 700 MHz at 1.230 V, held quick", "⚑", "✕", "◐"]);
    // The same once more, from the list of climbs.
    terminal.press("6");
    terminal.wait_for("climbs   1 of 1");
    terminal.press("g");
    terminal.wait_for("Climb 1 is climbed again");
    terminal.press("y");
    terminal.wait_for_all(&["climb 2, simulated specimen 11", end, "4 700 MHz at 1.230 V, held quick"]);
    terminal.leave();
}

#[test]
fn the_card_asks_for_changes_by_hand_and_is_answered() {
    let home = Home::new();
    short_by_hand(&home);
    let terminal = Terminal::new(&home, 100, 30);
    terminal.run("periculum climb by-hand.plan.toml");
    terminal.wait_for_all(&["before it begins", "nothing of this machine is changed", "› begin"]);
    terminal.leave();
    assert!(!home.ledger().exists(), "nothing was begun");
    terminal.run("clear; periculum climb by-hand.plan.toml");
    terminal.wait_for("› begin");
    terminal.press("Enter");
    terminal.wait_for_all(&["it came back with defaults", "whatever it is  →  36.0 ×"]);
    terminal.press("d");
    terminal.wait_for("36.0 ×  →  36.5 ×");
    terminal.press("x");
    terminal.wait_for("no-start");
    terminal.press("s");
    terminal.wait_for("stop?");
    terminal.press("y");
    terminal.wait_for("To take the rig back to stock");
    terminal.press("d");
    terminal.wait_for("the operator stopped it; the rig is back at stock");
    terminal.leave();
}

#[test]
fn killed_in_the_middle_it_goes_on_where_it_was() {
    let home = Home::new();
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run(&format!("periculum climb {} --yes --pace 40 --seed 11", demo("dome.plan.toml").display()));
    terminal.wait_until("two trials", |screen| held(screen) >= 2);
    terminal.kill();
    terminal.run("clear; stty sane");
    terminal.run("periculum");
    terminal.wait_for_all(&["what waits", "It goes on with"]);
    terminal.press("Enter");
    let screen = terminal.wait_for_all(&["load-died", "the program died", " held,"]);
    assert!(held(&screen) >= 2, "{screen}");
    terminal.wait_until("the climb to go on", |screen| held(screen) >= 3);
}

#[test]
fn a_terminal_that_is_closed_takes_the_interface_along() {
    for (pace, shown) in [("40", "on trial"), ("max", "the rig is back at stock")] {
        let home = Home::new();
        let terminal = Terminal::new(&home, 100, 30);
        terminal.run(&format!("periculum climb {} --yes --pace {pace}", demo("dome.plan.toml").display()));
        terminal.wait_for(shown);
        let shell = output(&mut terminal.tmux(&["list-panes", "-F", "#{pane_pid}"]));
        let process = output(Command::new("pgrep").args(["-P", shell.trim()]));
        drop(terminal);
        let deadline = Instant::now() + PATIENCE;
        while std::path::Path::new("/proc").join(process.trim()).exists() {
            assert!(Instant::now() < deadline, "it lives on without a terminal, having shown: {shown}");
            sleep(Duration::from_millis(50));
        }
        let listed = output(home.periculum().arg("ledger"));
        assert_eq!(listed.contains("not finished"), pace != "max", "{listed}");
    }
}

/// Every view at both sizes, reached with one key, with what belongs to it; a trial stays selected from one to the next.
#[test]
fn each_view_is_one_key_away() {
    for (columns, rows) in [(160, 40), (80, 24)] {
        let home = Home::new();
        let terminal = Terminal::new(&home, columns, rows);
        // Slow enough that it does not come to its end meanwhile.
        terminal.run("periculum demo --ledger demo.ledger --seed 11 --pace 5");
        terminal.wait_for("on trial");
        terminal.press("3");
        // What came before is told bit by bit.
        terminal.wait_until("earlier trials", |screen| listed(screen) > 1);
        terminal.press("Home");
        terminal.wait_for("trials   1 of ");
        terminal.press("2");
        terminal.wait_for_all(&["core voltage, V", "trial 1 ", "●"]);
        terminal.press("4");
        terminal.wait_for("ceiling");
        terminal.press("5");
        terminal.wait_for("mean ");
        terminal.wait_for("more sensors, with tab");
        terminal.press("Tab");
        terminal.wait_for("usage, %");
        terminal.press("z");
        terminal.wait_for("the whole climb");
        terminal.press("3");
        terminal.wait_for("trials   1 of ");
        terminal.press("/");
        terminal.run("no such trial");
        terminal.wait_for("No trial has all of this");
        terminal.press("Escape");
        terminal.wait_for("trials   1 of ");
        terminal.press("p");
        terminal.press("Down");
        terminal.press("p");
        terminal.press("8");
        terminal.wait_for("trial 2 of climb");
        terminal.press("7");
        terminal.wait_for("worth raising to");
        terminal.press("6");
        terminal.wait_for("climbs   1 of 14");
        terminal.press("9");
        terminal.wait_for("as climb 14 was begun with");
        terminal.press("1");
        terminal.wait_for("on trial");
        terminal.press("q");
        terminal.wait_for("Leave it to wait");
        terminal.press("l");
        terminal.wait_for("ready>");
    }
}

/// A climb that is over, and one that is not, are looked at in every view; nothing is driven and nothing written.
#[test]
fn a_climb_of_the_ledger_is_looked_at() {
    let home = Home::new();
    output(home.periculum().arg("climb").arg(demo("dome.plan.toml")).args(["--headless", "--ledger", "a.ledger"]));
    let before = output(home.periculum().args(["ledger", "1", "--ledger", "a.ledger"]));
    let terminal = Terminal::new(&home, 80, 24);
    terminal.run("periculum show --ledger a.ledger");
    let screen = terminal.wait_for_all(&["every stage is done", "? help"]);
    assert!(!screen.contains("space pause"), "{screen}");
    terminal.press("5");
    terminal.wait_for("mean ");
    terminal.press("2");
    terminal.wait_for("falls from here");
    terminal.press("6");
    terminal.wait_for("climbs   1 of 1");
    terminal.leave();
    assert_eq!(output(home.periculum().args(["ledger", "1", "--ledger", "a.ledger"])), before);
    let refused = home.periculum().args(["show", "--ledger", "a.ledger"]).output().expect("started");
    assert_eq!(refused.status.code(), Some(2), "no terminal");
}

/// An earlier climb is opened beside the one that runs, which goes on meanwhile.
#[test]
fn an_earlier_climb_is_opened_while_another_runs() {
    let home = Home::new();
    let plan = demo("night.plan.toml");
    output(home.periculum().arg("climb").arg(plan).args(["--headless", "--ledger", "a.ledger", "--seed", "7"]));
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run("periculum demo --pace 60 --seed 11 --ledger a.ledger");
    let before = held(&terminal.wait_for("first light"));
    terminal.press("6");
    terminal.wait_for("climbs   1 of 2");
    terminal.press("Down");
    terminal.wait_for("climbs   2 of 2");
    // Its profile is seen before it is opened: one that ends below the ceiling, with a flag.
    terminal.wait_until("its profile", |screen| screen.contains("ceiling") && screen.contains('⚑'));
    terminal.press("Enter");
    let is_other =
        |screen: &str| screen.contains("climb 1, simulated specimen 7") && screen.contains("every stage is done");
    terminal.wait_until("the other climb, which can't be paused", |screen| {
        is_other(screen) && !screen.contains("space pause")
    });
    terminal.press("3");
    terminal.wait_for("trials   ");
    terminal.press("q");
    terminal.wait_for("climb 2, simulated specimen 11");
    terminal.wait_until("it went on", |screen| held(screen) > before);
    terminal.press("q");
    terminal.press("l");
    terminal.wait_for("ready>");
}

/// A plan is begun for a rig, changed, written and climbed, without leaving the interface.
#[test]
fn a_plan_is_written_and_climbed() {
    for (columns, rows) in [(160, 40), (80, 24)] {
        let home = Home::new();
        std::fs::copy(demo("dome.rig.toml"), home.path("dome.rig.toml")).expect("copied");
        let terminal = Terminal::new(&home, columns, rows);
        terminal.run("periculum plan evening.plan.toml");
        terminal.wait_for("name the rig that");
        terminal.run("periculum plan evening.plan.toml --rig dome.rig.toml");
        terminal.wait_for("changed, and in no file yet");
        terminal.press("End");
        terminal.wait_for("save");
        terminal.press("BSpace");
        terminal.wait_for("undo");
        terminal.press("Home");
        terminal.press("Down");
        terminal.press("Enter");
        terminal.wait_for("its new value");
        terminal.press("C-u");
        terminal.run("a short evening");
        terminal.wait_for("a short evening");
        terminal.press("e");
        terminal.wait_for("the plan's file");
        terminal.press("Enter");
        terminal.wait_for("written: evening.plan.toml");
        let written = std::fs::read_to_string(home.path("evening.plan.toml")).expect("written");
        assert!(written.contains("name = \"a short evening\"") && !written.contains("save"), "{written}");
        assert!(written.contains("# To find the limit.") && written.contains("rig = \"dome.rig.toml\""), "{written}");
        terminal.press("g");
        terminal.wait_for("climb this plan?");
        terminal.press("y");
        terminal.wait_for("on trial");
        terminal.press("q");
        terminal.press("l");
        terminal.wait_for("The climb waits");
    }
}

#[test]
fn what_is_pasted_is_text_and_what_stood_still_comes_back_whole() {
    let home = Home::new();
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run("periculum demo --pace 60 --seed 11");
    terminal.wait_for("on trial");
    // Between two passes it does stand still.
    let refused = std::cell::Cell::new(false);
    let deadline = Instant::now() + PATIENCE;
    while !refused.get() {
        assert!(Instant::now() < deadline, "no pass was ever running");
        terminal.press("C-z");
        terminal.wait_until("an answer", |screen| {
            refused.set(screen.contains("pause first"));
            refused.get() || screen.contains("Stopped")
        });
        if !refused.get() {
            terminal.run("fg");
            terminal.wait_for("on trial");
        }
    }
    terminal.press("Space");
    terminal.wait_until("the pause", |screen| screen.lines().next().is_some_and(|line| line.ends_with("paused")));
    // As keys this would stop the climb, and leave.
    terminal.paste("s\ny\nl\n");
    terminal.press("n");
    terminal.wait_for("a note for the record");
    terminal.paste("stop\nand leave");
    terminal.wait_for("stop and leave");
    terminal.press("Enter");
    terminal.wait_for_all(&["note: stop and leave", "paused"]);
    terminal.press("C-z");
    terminal.wait_for("Stopped");
    terminal.run("fg");
    terminal.wait_for_all(&["logbook", "paused"]);
    terminal.press("?");
    terminal.wait_for("what this view shows");
}

#[test]
fn a_profile_whose_settings_are_changed_by_hand_is_asked_for() {
    let home = Home::new();
    let plan = short_by_hand(&home);
    let text = std::fs::read_to_string(&plan).expect("read");
    home.write("by-hand.plan.toml", &text.replace("step = 0.5", "step = 6\nsave = \"daily\""));
    let terminal = Terminal::new(&home, 120, 30);
    home.write("answers", &"done\n".repeat(20));
    terminal.run("periculum climb by-hand.plan.toml --headless --answers answers; echo over");
    terminal.wait_until("the end", |screen| screen.lines().any(|line| line.trim() == "over"));
    terminal.run("clear; periculum profile apply daily");
    terminal.wait_for_all(&["change by hand", "base clock: to 100", "done or stop?"]);
    terminal.run("perhaps");
    terminal.wait_for("say done once it is changed, or stop:");
    terminal.run("done");
    terminal.wait_for("multiplier: to 42");
    terminal.run("done");
    terminal.wait_for("daily is in force on by-hand: ");
    terminal.run("clear; periculum profile apply daily");
    terminal.wait_until("the question anew", |screen| screen.contains("done or stop?") && !screen.contains("in force"));
    terminal.run("stop");
    terminal.wait_for("stopped before");
}
