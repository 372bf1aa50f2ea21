//! A real terminal: tmux types the keys and reads the screen.

use std::process::Command;
use std::thread::sleep;
use std::time::{Duration, Instant};

use crate::common::{Home, output};

/// A machine that is busy with other tests is given this long for what takes moments.
pub(crate) const PATIENCE: Duration = Duration::from_secs(300);

/// A terminal with a shell in it, of which the shell's own prompt is `ready>`.
pub(crate) struct Terminal {
    socket: String,
}

impl Terminal {
    pub(crate) fn new(home: &Home, columns: u16, rows: u16) -> Self {
        let socket = format!("periculum-{}-{:?}", std::process::id(), std::thread::current().id());
        let terminal = Self { socket: socket.replace(['(', ')'], "") };
        let periculum = home.periculum();
        let folder = std::path::Path::new(periculum.get_program()).parent().expect("a folder").to_owned();
        let mut rc = format!("PS1='ready> '\nexport PATH={}:/usr/bin:/bin\n", folder.display());
        for (name, value) in periculum.get_envs() {
            if let (Some(name), Some(value)) = (name.to_str(), value.and_then(|value| value.to_str())) {
                rc += &format!("export {name}={value}\n");
            }
        }
        let machine = home.path("machine");
        rc += &format!("periculum() {{ command periculum --sysroot {} \"$@\"; }}\n", machine.display());
        let rc = home.write("rc", &rc);
        let mut start = terminal.tmux(&["-f", "/dev/null", "new-session", "-d"]);
        start.args(["-x", &columns.to_string(), "-y", &rows.to_string(), "-c"]).arg(home.path(""));
        start.arg(format!("bash --rcfile {}", rc.display()));
        assert!(start.status().expect("tmux is installed").success());
        terminal.wait_for("ready>");
        terminal
    }

    pub(crate) fn tmux(&self, arguments: &[&str]) -> Command {
        let mut command = Command::new("tmux");
        command.env_remove("TMUX").args(["-L", &self.socket]).args(arguments);
        command
    }

    /// Types a line.
    pub(crate) fn run(&self, line: &str) {
        assert!(self.tmux(&["send-keys", "-l", line]).status().expect("tmux").success());
        self.press("Enter");
    }

    pub(crate) fn press(&self, key: &str) {
        assert!(self.tmux(&["send-keys", key]).status().expect("tmux").success());
    }

    /// Presses a key that moves through a list until this is selected. What the key did is seen before it is pressed
    /// again, so that a busy machine runs past nothing.
    pub(crate) fn select(&self, key: &str, text: &str) {
        let selected = |screen: &str| screen.lines().find(|line| line.contains('›')).unwrap_or_default().to_owned();
        loop {
            let line = selected(&self.screen());
            if line.contains(text) {
                return;
            }
            self.press(key);
            self.wait_until(&format!("another line than {line}"), |screen| selected(screen) != line);
        }
    }

    /// Leaves an interface in which nothing is climbed any more. A key that nobody heard is pressed again: behind the prompt it is taken
    /// back.
    pub(crate) fn leave(&self) {
        let deadline = Instant::now() + PATIENCE;
        // The line that called the interface has a prompt before it too, and is seen again a moment before the shell listens.
        let is_prompt =
            |line: &str| line.strip_prefix("ready>").is_some_and(|typed| typed.trim_matches(['q', ' ']).is_empty());
        let is_left = || self.screen().trim_end().lines().last().is_some_and(is_prompt);
        while !is_left() {
            assert!(Instant::now() < deadline, "it is not left:\n{}", self.screen());
            self.press("q");
            let heard = Instant::now() + Duration::from_secs(10);
            while !is_left() && Instant::now() < heard {
                sleep(Duration::from_millis(50));
            }
        }
        self.press("C-u");
    }

    /// Kills what runs in the shell, as nothing can be done against.
    pub(crate) fn kill(&self) {
        let shell = output(&mut self.tmux(&["list-panes", "-F", "#{pane_pid}"]));
        let killed = Command::new("pkill").args(["-KILL", "-P", shell.trim()]).status();
        assert!(killed.expect("started").success());
    }

    /// Pastes a text as terminals do that know about pasting.
    pub(crate) fn paste(&self, text: &str) {
        assert!(self.tmux(&["set-buffer", text]).status().expect("tmux").success());
        assert!(self.tmux(&["paste-buffer", "-p"]).status().expect("tmux").success());
    }

    pub(crate) fn screen(&self) -> String {
        output(&mut self.tmux(&["capture-pane", "-p"]))
    }

    /// The screen, once this can be read on it.
    pub(crate) fn wait_for(&self, text: &str) -> String {
        self.wait_for_all(&[text])
    }

    /// The screen, once all of these can be read on it: a climb goes on from trial to trial while one looks, and a part
    /// of a screen can be seen before the rest of it.
    pub(crate) fn wait_for_all(&self, texts: &[&str]) -> String {
        self.wait_until(&texts.join(", "), |screen| texts.iter().all(|text| screen.contains(text)))
    }

    pub(crate) fn wait_until(&self, what: &str, is_so: impl Fn(&str) -> bool) -> String {
        let deadline = Instant::now() + PATIENCE;
        loop {
            let screen = self.screen();
            if is_so(&screen) {
                return screen;
            }
            assert!(Instant::now() < deadline, "waited for {what}, and see:\n{screen}");
            sleep(Duration::from_millis(50));
        }
    }
}

impl Drop for Terminal {
    fn drop(&mut self) {
        // A server that is gone already is what is wanted.
        let _ = self.tmux(&["kill-server"]).status();
    }
}
