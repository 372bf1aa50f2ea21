//! Where the operator's words come from: a channel from the interface or the terminal, or a file of answers.

use std::collections::VecDeque;
use std::io::{BufRead, IsTerminal};
use std::path::Path;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::thread;
use std::time::Duration;

use anyhow::Result;
use crossbeam_channel::{Receiver, RecvTimeoutError, Sender, TryRecvError, unbounded};
use periculum_core::engine::{Answer, Said};
use periculum_core::telling::grammar;

use crate::briefing::SourceFile;
use crate::complaint::BadInput;
use crate::output::complain;
use crate::telling::climbing;

/// The operator, as a driver hears them.
pub(crate) struct Operator {
    words: Receiver<Said>,
    /// Answers that were written down beforehand; none where the operator is asked for real.
    script: Option<VecDeque<Said>>,
    /// Answers that came before they were asked for, from somebody who can't see the questions.
    ahead: VecDeque<Said>,
    /// Whether the words are piped in, so that they come before their questions.
    speaks_ahead: bool,
    hands: Hands,
    /// Whether nobody will answer a question any more: the script or standard input has come to its end.
    is_mute: Arc<AtomicBool>,
}

/// Who does what the rig can't do by itself.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Hands {
    /// Those of whoever is asked.
    Somebodys,
    /// Those of nobody: what is asked for is done in a moment, as on a simulated rig in a demo.
    Simulated,
}

/// What a driver hears while it waits.
#[derive(Debug, PartialEq)]
pub(crate) enum Heard {
    Word(Said),
    Nothing,
    /// The one who spoke is gone, and everything that they could have said with them.
    Gone,
}

impl Operator {
    /// An operator whose words come through a channel.
    pub(crate) fn new() -> (Sender<Said>, Self) {
        let (sender, words) = unbounded();
        let (script, ahead) = (None, VecDeque::new());
        (sender, Self { words, script, ahead, speaks_ahead: false, hands: Hands::Somebodys, is_mute: Arc::default() })
    }

    /// The same, with simulated hands for what is to be done to the rig.
    pub(crate) fn with_hands(self) -> Self {
        Self { hands: Hands::Simulated, ..self }
    }

    /// Whether what is to be done to the rig is done by simulated hands.
    pub(crate) fn has_simulated_hands(&self) -> bool {
        self.hands == Hands::Simulated
    }

    /// Takes answers from a file, one a line.
    pub(crate) fn read_script(&mut self, path: &Path) -> Result<()> {
        let file = SourceFile::read(path)?;
        let answers = file.text.lines().enumerate().filter(|(_, line)| !line.trim().is_empty()).map(|(index, line)| {
            answer(line).ok_or_else(|| BadInput(format!("{}:{}: {}", path.display(), index + 1, no_answer(line))))
        });
        self.script = Some(answers.collect::<Result<_, _>>()?);
        Ok(())
    }

    /// The answer to a question from the script; an operator whose script is over is mute.
    pub(crate) fn scripted_answer(&mut self) -> Option<Said> {
        if let Some(answer) = self.ahead.pop_front() {
            return Some(answer);
        }
        let script = self.script.as_mut()?;
        let answer = script.pop_front();
        self.is_mute.store(answer.is_none(), Ordering::Relaxed);
        answer
    }

    /// Whether answers are to be kept for the questions that they are meant for.
    pub(crate) fn speaks_ahead(&self) -> bool {
        self.speaks_ahead
    }

    /// Keeps an answer for the next question.
    pub(crate) fn keep(&mut self, answer: Said) {
        self.ahead.push_back(answer);
    }

    /// Whether nobody will answer a question any more.
    pub(crate) fn is_mute(&self) -> bool {
        self.is_mute.load(Ordering::Relaxed)
    }

    /// Takes answers from standard input, for as long as there are any.
    pub(crate) fn listen_to_stdin(&mut self, words: Sender<Said>) {
        self.speaks_ahead = !std::io::stdin().is_terminal();
        let is_mute = Arc::clone(&self.is_mute);
        thread::spawn(move || {
            for line in std::io::stdin().lock().lines().map_while(Result::ok) {
                match answer(&line) {
                    Some(said) => drop(words.send(said)),
                    None if line.trim().is_empty() => {}
                    None => complain(no_answer(&line)),
                }
            }
            is_mute.store(true, Ordering::Relaxed);
        });
    }

    /// Waits for a word, at most this long.
    pub(crate) fn listen(&self, at_most: Duration) -> Heard {
        // A wait for no time yields the processor all the same.
        let heard = match at_most.is_zero() {
            true => self.words.try_recv().map_err(|nothing| match nothing {
                TryRecvError::Empty => RecvTimeoutError::Timeout,
                TryRecvError::Disconnected => RecvTimeoutError::Disconnected,
            }),
            false => self.words.recv_timeout(at_most),
        };
        match heard {
            Ok(said) => Heard::Word(said),
            Err(RecvTimeoutError::Timeout) => Heard::Nothing,
            Err(RecvTimeoutError::Disconnected) => Heard::Gone,
        }
    }
}

fn answer(line: &str) -> Option<Said> {
    Said::of_line(line)
}

fn no_answer(line: &str) -> String {
    let line = periculum_core::model::quantity::harmless(line.trim());
    let words = format!("{}, {}, {}", grammar(Answer::ALL), Said::READ, Said::CHANGED);
    climbing::no_answer(&line, words)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn answers_are_words_and_anything_else_is_told() {
        assert_eq!(answer(" done "), Some(Answer::Done.into()));
        assert_eq!(answer("no-start"), Some(Said::NoStart));
        assert_eq!(answer("yes"), None);
        assert!(no_answer("y\u{1b}[2J").starts_with("`y\u{fffd}[2J` is no answer"));
    }

    #[test]
    fn a_script_is_read_to_its_end_and_then_nobody_is_there() {
        let folder = tempfile::tempdir().expect("a folder");
        let path = folder.path().join("answers");
        std::fs::write(&path, "done\n\ndefaults\n").expect("written");
        let (_words, mut operator) = Operator::new();
        operator.read_script(&path).expect("answers");
        assert_eq!(operator.scripted_answer(), Some(Answer::Done.into()));
        assert_eq!(operator.scripted_answer(), Some(Said::Defaults));
        assert!(!operator.is_mute());
        assert_eq!(operator.scripted_answer(), None);
        assert!(operator.is_mute());
    }

    #[test]
    fn without_a_script_words_come_through_the_channel_until_it_closes() {
        let (words, mut operator) = Operator::new();
        assert_eq!(operator.scripted_answer(), None);
        assert_eq!(operator.listen(Duration::ZERO), Heard::Nothing);
        words.send(Said::Pause).expect("heard");
        drop(words);
        assert_eq!(operator.listen(Duration::ZERO), Heard::Word(Said::Pause));
        assert_eq!(operator.listen(Duration::ZERO), Heard::Gone);
    }
}
