//! The interface as somebody wants it, in a real terminal.

use std::fs;
use std::io::{BufRead, BufReader};
use std::process::{Child, Command, Stdio};
use std::sync::mpsc::{Receiver, channel};
use std::thread;
use std::time::Duration;

use nix::sys::socket::UnixAddr;
use rustbus::RpcConn;
use rustbus::connection::Timeout;
use rustbus::standard_messages::request_name;

use crate::common::{Home, demo, output};
use crate::terminal::Terminal;

const WANTED: &str = r#"
format = 1
[screen]
theme = "light"
view = "trials"
[calls]
bell = ["end"]
notify = ["end"]
[keys]
C = "!"
q = "Z"
s = "F12"
"#;

fn preferences(home: &Home, text: &str) {
    fs::create_dir_all(home.path("config/periculum")).expect("made");
    home.write("config/periculum/config.toml", text);
}

/// What tmux knows of the terminal.
fn known(terminal: &Terminal, what: &str) -> String {
    output(&mut terminal.tmux(&["display-message", "-p", what]))
}

/// How often the bell was rung: the sign that also ends commands to a terminal, where it ends none.
fn bells(said: &str) -> usize {
    let behind_commands = |part: &str| part.split_once('\u{7}').map_or(String::new(), |(_, behind)| behind.to_owned());
    let mut parts = said.split("\u{1b}]");
    let first = parts.next().unwrap_or_default().to_owned();
    std::iter::once(first).chain(parts.map(behind_commands)).map(|text| text.matches('\u{7}').count()).sum()
}

#[test]
fn view_keys_title_bell_and_copy_are_as_somebody_wants_them() {
    let home = Home::new();
    preferences(&home, WANTED);
    let terminal = Terminal::new(&home, 160, 40);
    assert!(terminal.tmux(&["set", "-g", "set-clipboard", "on"]).status().expect("tmux").success());
    let said = home.path("said");
    let listen = format!("cat >{}", said.display());
    assert!(terminal.tmux(&["pipe-pane", "-o", &listen]).status().expect("tmux").success());
    let before = known(&terminal, "#{pane_title}");
    terminal.run(&format!("periculum climb {} --yes --pace max --seed 11", demo("dome.plan.toml").display()));
    // The list of trials is shown at first, and says which keys there are.
    let screen = terminal.wait_for_all(&["trials   ", "Z leave", "! copy the trial", "done"]);
    assert!(!screen.contains("C copy"), "{screen}");
    assert!(known(&terminal, "#{pane_title}").starts_with("periculum: dome, "));
    let said = String::from_utf8_lossy(&fs::read(said).expect("read")).into_owned();
    assert!(said.contains("\u{1b}]9;dome: the climb is over: 4 700 MHz"), "a notification");
    assert_eq!(bells(&said), 1);
    terminal.press("q");
    terminal.press("!");
    terminal.wait_for("was handed to the terminal to be pasted");
    let pasted = output(&mut terminal.tmux(&["show-buffer"]));
    assert!(pasted.starts_with("trial ") && pasted.lines().count() > 1, "{pasted}");
    terminal.press("Z");
    terminal
        .wait_until("the prompt", |screen| screen.trim_end().lines().last().is_some_and(|it| it.starts_with("ready>")));
    assert_eq!(known(&terminal, "#{pane_title}"), before, "the title is the shell's again");
}

#[test]
fn what_is_wrong_is_told_before_anything_begins() {
    let home = Home::new();
    preferences(&home, "format = 1\n[screen]\ntheme = \"lite\"\n");
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run(&format!("periculum climb {}; echo code $?", demo("night.plan.toml").display()));
    terminal.wait_for_all(&["config.toml:3", "lite", "light", "code 2"]);
    assert!(!home.ledger().exists(), "nothing was begun");
    preferences(&home, WANTED);
    let checked = output(home.periculum().args(["check", "config/periculum/config.toml"]));
    assert_eq!(checked, "config/periculum/config.toml: how the interface is to be\n");
    assert!(output(home.periculum().arg("where")).contains("config/periculum/config.toml"));
}

/// A session's bus, and what somebody on it who shows notifications is told.
struct Bus {
    daemon: Child,
    address: String,
    told: Receiver<String>,
}

impl Bus {
    fn start() -> Self {
        let mut daemon = Command::new("dbus-daemon")
            .args(["--session", "--nofork", "--print-address"])
            .stdout(Stdio::piped())
            .spawn()
            .expect("a bus");
        let mut address = String::new();
        let out = daemon.stdout.take().expect("its address");
        BufReader::new(out).read_line(&mut address).expect("its address");
        let address = address.trim().to_owned();
        let socket = address.split(['=', ',']).nth(1).expect("a path").to_owned();
        let (sender, told) = channel();
        let (ready, is_ready) = channel();
        thread::spawn(move || {
            let socket = UnixAddr::new(socket.as_str()).expect("a path");
            let mut bus = RpcConn::connect_to_path(socket, Timeout::Infinite).expect("a bus");
            let mut name = request_name("org.freedesktop.Notifications", 0);
            let asked = bus.send_message(&mut name).expect("sent").write_all().expect("sent");
            bus.wait_response(asked, Timeout::Infinite).expect("a name");
            ready.send(()).expect("somebody waits");
            while let Ok(call) = bus.wait_call(Timeout::Infinite) {
                let mut parts = call.body.parser();
                let (_name, _replaces, _icon) = parts.get3::<&str, u32, &str>().expect("as specified");
                let summary: String = parts.get().expect("a summary");
                let mut answer = call.dynheader.make_response();
                answer.body.push_param(7u32).expect("a number");
                let _ = bus.send_message(&mut answer).expect("sent").write_all();
                if sender.send(summary).is_err() {
                    return;
                }
            }
        });
        is_ready.recv_timeout(Duration::from_secs(30)).expect("somebody who shows notifications");
        Self { daemon, address, told }
    }
}

impl Drop for Bus {
    fn drop(&mut self) {
        let _ = self.daemon.kill();
        let _ = self.daemon.wait();
    }
}

const DESKTOP: &str = "format = 1\n[calls]\ndesktop = [\"end\"]\n";

#[test]
fn the_desktop_is_told_and_who_has_none_hears_of_it_once() {
    let (home, bus) = (Home::new(), Bus::start());
    preferences(&home, DESKTOP);
    let climb = format!("periculum climb {} --yes --pace max --seed 11", demo("dome.plan.toml").display());
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run(&format!("DBUS_SESSION_BUS_ADDRESS={} {climb}", bus.address));
    let told = bus.told.recv_timeout(Duration::from_secs(120)).expect("a notification");
    assert!(told.starts_with("dome: the climb is over: 4 700 MHz"), "{told}");
    terminal.leave();
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run(&format!("env -u DBUS_SESSION_BUS_ADDRESS {climb}"));
    terminal.wait_for("the desktop can't be told: there is no session bus");
}

#[test]
fn what_was_looked_for_and_picked_is_there_again() {
    let home = Home::new();
    output(home.periculum().arg("climb").arg(demo("dome.plan.toml")).args(["--headless", "--seed", "11"]));
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run("periculum show 1");
    terminal.wait_for("done");
    terminal.press("3");
    terminal.wait_for("24 of 24");
    terminal.press("p");
    terminal.wait_for("trial 24 of climb 1 is picked");
    terminal.press("Up");
    terminal.press("p");
    terminal.wait_for("8 compares all 2");
    terminal.press("/");
    terminal.press("f");
    terminal.press("e");
    terminal.press("l");
    terminal.press("l");
    terminal.press("Enter");
    terminal.wait_for("fell");
    terminal.leave();
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run("periculum show 1");
    terminal.wait_for("only what has `fell` is listed");
    terminal.press("8");
    terminal.wait_for_all(&["trial 24 of climb 1", "trial 23 of climb 1"]);
    terminal.press("3");
    terminal.wait_for("2 of 2 with fell among 24");
    // Alone: a terminal takes an escape and a key at once for that key with another one held down.
    terminal.press("Escape");
    terminal.wait_for("of 24");
}
