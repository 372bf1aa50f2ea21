//! The start screen in a real terminal, from nothing to a climb that is over, without a file written by hand.

use crate::common::{Home, demo};
use crate::terminal::Terminal;

#[test]
fn a_practice_rig_is_led_from_the_start_screen_to_its_end() {
    for (columns, rows) in [(160, 40), (80, 24)] {
        let home = Home::new();
        let terminal = Terminal::new(&home, columns, rows);
        terminal.run("periculum");
        terminal.wait_for_all(&["Nothing waits.", "dome", "to practise on"]);
        terminal.select("j", "› dome");
        terminal.press("Enter");
        terminal.wait_for("what do you want with `dome`?");
        for _ in 0..3 {
            terminal.press("Down");
        }
        terminal.wait_for("› take the lead");
        terminal.press("Enter");
        terminal.wait_for_all(&["for which use?", "daily", "bench"]);
        terminal.press("Enter");
        terminal.wait_for_all(&["before it begins", "core clock from 3 800 MHz to 5 100 MHz", "writes dome.rig.toml"]);
        assert!(!home.path("dome.rig.toml").exists(), "nothing is written before that was reviewed");
        terminal.press("Enter");
        terminal.wait_for_all(&["your turn", "4 200 MHz"]);
        assert!(home.path("dome.rig.toml").exists() && home.path("dome-take-the-lead.plan.toml").exists());
        terminal.press("t");
        terminal.wait_for("it held in trial 1");
        // Two settings at once: a step of one, and a value that is typed for the other.
        terminal.press("Right");
        terminal.press("Down");
        terminal.press("1");
        terminal.wait_for("core voltage, V");
        terminal.run(".26");
        terminal.wait_for_all(&["4 225 MHz", "1.260 V"]);
        terminal.press("Enter");
        terminal.wait_for("it held in trial 2");
        // What is beyond the ceiling is refused before it is tried.
        terminal.press("Up");
        terminal.press("9");
        terminal.run("000");
        terminal.wait_for("above its ceiling");
        terminal.press("Enter");
        terminal.wait_for_all(&["9 000 MHz is above its ceiling", "your turn"]);
        terminal.press("BSpace");
        terminal.wait_for("it held in trial 3");
        terminal.press("m");
        terminal.wait_for("⚑");
        terminal.press("p");
        terminal.wait_for("the name of the profile");
        terminal.run("evening");
        terminal
            .wait_until("the form", |screen| !screen.contains("name of the profile") && screen.contains("your turn"));
        terminal.press("x");
        terminal.wait_for("every stage is done");
        terminal.leave();
        terminal.wait_for_all(&["Climb 1 on dome is over: every stage is done.", "held quick"]);
        terminal.run("clear; periculum profile");
        terminal.wait_for("evening");
        terminal.run("clear; periculum");
        terminal.wait_for_all(&["the last climbs", "dome.rig.toml"]);
        terminal.leave();
        // Without its file the rig is known from the ledger.
        terminal.run("clear; rm dome.rig.toml; periculum");
        terminal.wait_for_all(&["the last climbs", "from climb 1"]);
        terminal.leave();
    }
}

/// What a form had stands in no record: who is killed in the middle of one finds it as the last trial left it.
#[test]
fn killed_in_the_middle_of_a_form_the_turn_stands_again() {
    let home = Home::new();
    let terminal = Terminal::new(&home, 120, 36);
    terminal.run(&format!("periculum climb {} --yes --seed 5", demo("lead.plan.toml").display()));
    terminal.wait_for("your turn");
    terminal.press("t");
    terminal.wait_for("it held in trial 1");
    terminal.press("Right");
    terminal.wait_for("4 225 MHz");
    terminal.press("1");
    terminal.wait_for("core clock, MHz");
    terminal.kill();
    terminal.run("clear; stty sane");
    terminal.run("periculum resume");
    let seen = terminal.wait_for_all(&["your turn", "it held in trial 1"]);
    assert!(!seen.contains("4 225 MHz →") && seen.contains("climb 1"), "{seen}");
    terminal.press("Right");
    terminal.wait_for("4 225 MHz");
    terminal.press("Enter");
    terminal.wait_for("in trial 2");
    terminal.press("x");
    terminal.wait_for("every stage is done");
}

#[test]
fn this_machine_gets_a_setting_that_is_changed_by_hand_and_what_waits_is_gone_on_with() {
    let home = Home::new();
    let terminal = Terminal::new(&home, 120, 36);
    terminal.run("periculum");
    terminal.wait_for("this machine, as it is found");
    terminal.press("Enter");
    terminal.wait_for_all(&["No setting of it has a ceiling", "add a setting that you change by hand"]);
    // What can't be done does nothing.
    terminal.press("Enter");
    terminal.press("G");
    terminal.wait_for("› add a line of a boot file");
    terminal.press("k");
    terminal.wait_for("› add a setting");
    terminal.press("Enter");
    terminal.wait_for("what is it called");
    for answer in ["bus clock", "MHz", "7", "much", "", "1"] {
        // What is no number stays to be mended.
        terminal.press("C-u");
        terminal.run(answer);
    }
    terminal.wait_for("the highest value it can have");
    for answer in ["12", "8", "11", "up"] {
        terminal.run(answer);
    }
    terminal.wait_until("the wishes anew", |screen| !screen.contains("No setting of it has a ceiling"));
    terminal.press("Enter");
    terminal.wait_for("how long do you have?");
    terminal.press("Enter");
    terminal.wait_for_all(&["before it begins", "bus clock from 7 MHz to 11 MHz"]);
    terminal.press("Enter");
    terminal.wait_for("on trial");
    terminal.press("q");
    terminal.wait_for("a climb is running");
    terminal.press("l");
    terminal.wait_for("The climb waits");
    terminal.run("clear; periculum");
    terminal.wait_for_all(&["what waits", "waits at trial 1"]);
    terminal.press("Enter");
    terminal.wait_for("on trial");
    terminal.press("s");
    terminal.wait_for("stop?");
    terminal.press("y");
    // Nobody can read back what somebody changes by hand, so it is asked for on the way home too.
    terminal.wait_for("bus clock");
    terminal.wait_for("To take the rig back to stock");
    terminal.press("d");
    terminal.wait_for("the operator stopped it");
    terminal.press("q");
    terminal.wait_for("is over: the operator stopped it");
}
