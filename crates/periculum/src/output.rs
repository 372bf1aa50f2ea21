//! The one way to standard output and standard error: no text steers the terminal, and nobody reading is no reason to die.

use std::io::{self, Write};
use std::sync::atomic::{AtomicBool, Ordering};

use periculum_core::model::quantity::{harmless, harmless_lines};

/// Whether only that is said which other programs read, and what went wrong.
static IS_QUIET: AtomicBool = AtomicBool::new(false);

/// From now on only that is said which other programs read, and what went wrong.
pub(crate) fn be_quiet() {
    IS_QUIET.store(true, Ordering::Relaxed);
}

fn is_quiet() -> bool {
    IS_QUIET.load(Ordering::Relaxed)
}

/// Says something to people on a line of standard output.
pub(crate) fn say(text: impl AsRef<str>) {
    if !is_quiet() {
        line(io::stdout(), text.as_ref());
    }
}

/// The same of several lines, whose parts can't make lines of their own.
pub(crate) fn say_lines(text: &str) {
    if !is_quiet() {
        lines(io::stdout(), text);
    }
}

/// The same of a text whose escape sequences are this program's own.
pub(crate) fn say_styled(text: &str) {
    if !is_quiet() {
        styled(io::stdout(), text);
    }
}

/// Says something to other programs on a line of standard output.
pub(crate) fn hand_out(text: impl AsRef<str>) {
    line(io::stdout(), text.as_ref());
}

/// Says something on a line of standard error.
pub(crate) fn complain(text: impl AsRef<str>) {
    line(io::stderr(), text.as_ref());
}

/// Writes a text and the end of its line, the only one that it has; a pipe that was closed swallows it.
pub(crate) fn line(out: impl Write, text: &str) {
    styled(out, &(harmless(text) + "\n"));
}

/// Writes a text of several lines, whose parts can't make lines of their own.
pub(crate) fn lines(out: impl Write, text: &str) {
    styled(out, &(harmless_lines(text) + "\n"));
}

/// Writes a text as it is: one whose escape sequences are this program's own.
pub(crate) fn styled(mut out: impl Write, text: &str) {
    if let Err(error) = out.write_all(text.as_bytes()).and_then(|()| out.flush())
        && error.kind() != io::ErrorKind::BrokenPipe
    {
        tracing::warn!(%error, "something could not be said");
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::fs;
    use std::path::Path;

    struct Closed;

    impl Write for Closed {
        fn write(&mut self, _: &[u8]) -> io::Result<usize> {
            Err(io::ErrorKind::BrokenPipe.into())
        }
        fn flush(&mut self) -> io::Result<()> {
            Ok(())
        }
    }

    #[test]
    fn hostile_text_is_shown_and_a_closed_pipe_is_no_matter() {
        let mut out = Vec::new();
        line(&mut out, "allowed\u{1b}[2K\rnothing \u{202e}gnihton\nnext");
        lines(&mut out, "a\rb\nc");
        let shown = "allowed\u{fffd}[2K\u{fffd}nothing \u{fffd}gnihton\u{fffd}next\na\u{fffd}b\nc\n";
        assert_eq!(String::from_utf8(out).expect("text"), shown);
        line(Closed, "nobody reads this");
    }

    fn sources(folder: &Path, found: &mut Vec<(String, String)>) {
        for entry in fs::read_dir(folder).expect("a folder").flatten() {
            let path = entry.path();
            if path.is_dir() {
                sources(&path, found);
            } else if path.extension().is_some_and(|ending| ending == "rs") {
                found.push((path.display().to_string(), fs::read_to_string(&path).expect("text")));
            }
        }
    }

    /// Every other way to the terminal would go past [`harmless`].
    #[test]
    fn nothing_is_said_but_here() {
        let mut found = Vec::new();
        sources(&Path::new(env!("CARGO_MANIFEST_DIR")).join("src"), &mut found);
        let sinks = ["print!(", "println!(", "eprint!(", "eprintln!("];
        let is_sink = |line: &&str| sinks.iter().any(|sink| line.contains(sink)) && !line.contains("let sinks");
        for (path, text) in found {
            assert_eq!(text.lines().find(is_sink), None, "{path}");
        }
    }
}
