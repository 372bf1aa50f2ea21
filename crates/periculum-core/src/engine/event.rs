//! What the engine is told, and what it answers.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

use crate::engine::answer::Answer;
use crate::model::ending::Ending;
use crate::model::field::Written;
use crate::model::incident::Incident;
use crate::model::kind::Kind;
use crate::model::moment::Span;
use crate::model::pass::{PassReport, Progress};
use crate::model::rung::InForce;

/// The rules that the engine decides by; each change of a decision gets the next number, so that a record that was begun by
/// an earlier version says the same again when it is replayed. What is told from then on is decided by the rules of now.
///
/// - 0: as in ledgers of format 3.
/// - 1: what can't be read back any more was not taken; a start that was asked for is judged by what it reports; what comes
///   back with defaults on the way to something easier condemns nothing but that change; a grid marks its hardest rung;
///   every benchmark of a proof decides a peak; a map says of its borders between which rungs they lie and by how many trials;
///   what goes wrong before a trial's first pass ends it; a sighting without words says nothing; a start that follows an
///   orderly end is no fall; a wish to leave while a pass is being stopped is kept.
/// - 2: a walk from a rung that has not held in this climb proves that one first.
/// - 3: changes that somebody makes, or that a start brings into force, are gathered into errands; a climb
///   that was told to stop stops, even where its program or its machine dies of it.
/// - 4: a grid that somebody changes by hand goes from neighbour to neighbour.
/// - 5: where several settings hold together, that of the core that failed gives way first.
/// - 6: a row of a map begins next to where the rows before say that its limit is, and has a trial of its own; a score that is low
///   twice is a loss by the noise of the baseline.
/// - 7: a search weighs many laws, and proves the hardest rung that it can claim then.
/// - 8: more rigs are believed to give way slowly on the easier side of their limit, unless earlier climbs say otherwise.
/// - 9: a rig counts as used at stock before; what is claimed of a kind that is known is as sure by each way to give way alone; a
///   search gives up nothing that it could just claim, leaps less far at first, and learns for longer.
/// - 10: one or two earlier climbs of a kind say where its limits lie, and nothing of how fast failures grow; a margin
///   that there is no room for is not kept, and not told.
pub const RULES: u32 = 10;

/// Something that happened, told to the engine with the time it happened at.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(tag = "event", rename_all = "kebab-case")]
pub enum Event {
    /// The climb begins, with this in force on the rig.
    Started {
        /// What the rig reports; settings that can't be read are missing.
        in_force: InForce,
        /// How far the machine's clock is ahead of UTC, minutes.
        #[serde(default)]
        ahead: i32,
        /// The [`RULES`] that decide from here on.
        #[serde(default)]
        rules: u32,
        /// What earlier climbs say of rigs of this kind.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        kinds: Vec<Kind>,
    },
    /// The last change was applied.
    Applied {
        /// What the rig reports now; settings that can't be read are missing.
        reported: InForce,
    },
    /// The operator says that the change they were asked for is made.
    ChangeMade {
        /// What the rig reports now; settings that can't be read are missing.
        reported: InForce,
        /// Whether the machine has another boot identifier than when it was asked for: a change that needs a start is in
        /// force only then.
        started_anew: bool,
        /// What they wrote down of settings.
        #[serde(flatten)]
        noted: Noted,
    },
    /// The last change could not be applied, or the rig did not survive it.
    ApplyFailed {
        /// What happened.
        incident: Incident,
    },
    /// A running pass came further.
    PassProgress {
        /// How far.
        progress: Progress,
    },
    /// The running pass is over.
    PassEnded {
        /// How it went.
        report: PassReport,
        /// What the rig reports of its settings now, where they were read back; settings that can't be read are missing.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        reported: Option<InForce>,
    },
    /// Sensors were read.
    Sample {
        /// Readings by sensor name, in each sensor's unit.
        readings: BTreeMap<String, f64>,
        /// The highest of each during the last [`crate::engine::watch::WINDOW`] of the running pass, where it has run so long.
        #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
        highest: BTreeMap<String, f64>,
    },
    /// The hardware or the kernel counted or logged errors.
    Noticed {
        /// Which, and where.
        incidents: Vec<Incident>,
    },
    /// What should be readable can't be read, and why, as far as anybody knows: all there is of it now, told when it changes.
    Unreadable {
        /// By setting.
        #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
        settings: BTreeMap<String, String>,
        /// By sensor.
        #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
        sensors: BTreeMap<String, String>,
    },
    /// Other programs use the processor, seen just before a trial's first pass.
    OthersBusy {
        /// Which, and how much.
        others: Vec<Other>,
    },
    /// The operator said something.
    OperatorSaid {
        /// What.
        said: Said,
    },
    /// The climb goes on after its program or its machine went down.
    Restarted {
        /// Which of them went down.
        ending: Ending,
        /// How long the open pass ran at least, until it was last heard of; none where none ran.
        lived: Option<Span>,
        /// How long it ran at most, until it would have been heard of next; none where nobody knows.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        lived_at_most: Option<Span>,
        /// What the rig reports now; settings that can't be read are missing.
        in_force: InForce,
        /// Whether nobody is there: the machine itself took the climb up again.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        unattended: bool,
        /// What the kernel said last before the machine went down, where it kept that.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        last_words: Option<String>,
        /// The [`RULES`] that decide from here on.
        #[serde(default)]
        rules: u32,
    },
    /// Nothing happened, and time went by.
    TimePassed {
        /// How much later than it was ordered the running pass began to work, since it had to get ready: on a machine that
        /// others use it may take minutes to fill its memory.
        #[serde(default, skip_serializing_if = "Span::is_zero")]
        late: Span,
    },
}

impl Event {
    /// Time went by, and no pass is late.
    pub const TIME_PASSED: Self = Self::TimePassed { late: Span::ZERO };

    /// Whether the event is kept only when the engine answers it: telemetry that comes many times a second.
    ///
    /// Such an event changes nothing in the engine unless its step says something, so that a record without
    /// the silent ones replays to the same state.
    pub fn is_telemetry(&self) -> bool {
        matches!(self, Self::PassProgress { .. } | Self::Sample { .. } | Self::TimePassed { .. })
    }

    /// Whether it says what the rig reports of its settings.
    pub fn reads_back(&self) -> bool {
        matches!(self, Self::Started { .. } | Self::Applied { .. } | Self::ChangeMade { .. } | Self::Restarted { .. })
    }
}

/// What somebody wrote down of settings that no adapter reads back.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
pub struct Noted {
    /// What the rig itself shows.
    #[serde(default, skip_serializing_if = "InForce::is_empty")]
    pub shown: InForce,
    /// What was measured, in each setting's unit.
    #[serde(default, skip_serializing_if = "InForce::is_empty")]
    pub measured: InForce,
}

/// A program that is none of ours and uses the processor.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Other {
    /// Its name.
    pub name: String,
    /// How much of one core it uses, percent.
    pub percent: f64,
}

/// What an operator can say.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(tag = "said", rename_all = "kebab-case")]
pub enum Said {
    /// Pause when this pass is over.
    Pause,
    /// Go on.
    Resume,
    /// I saw something wrong; the trial is over.
    Saw {
        /// What.
        text: String,
        /// The trial that ran when it was seen; none for the one that runs now.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        trial: Option<u32>,
    },
    /// A note for the record.
    Note {
        /// Its text.
        text: String,
    },
    /// Stop and take the rig back to stock.
    Stop,
    /// Stop and leave the rig at the last mark that stands, or at stock where there is none.
    StopAtMark,
    /// I go away: take the rig back to stock and wait for me; the open trial is tried again.
    Leave,
    /// The program has to end: what takes effect at once goes back to stock, what was written for the next start or made by
    /// hand stays, and the climb goes on when it is taken up again.
    Suspend,
    /// The change is made by hand, and the rig runs.
    Done {
        /// What the rig itself shows of what was changed, as it was typed.
        #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
        written: Written,
    },
    /// The change was made, and the rig did not start.
    NoStart,
    /// The rig started, but with its defaults in force.
    Defaults,
    /// The rig hung.
    Hung,
    /// The picture was wrong.
    WrongPicture {
        /// What was wrong with it.
        #[serde(default, skip_serializing_if = "String::is_empty")]
        what: String,
    },
    /// Another day: what is asked stands until then.
    NotToday,
    /// Something of the rig is another from now on.
    Changed {
        /// What, by the fields of [`RigChange`](crate::model::rig_change::RigChange), as it was typed.
        written: Written,
    },
    /// This is what sensors read that somebody reads.
    Read {
        /// By name, as it was typed.
        written: Written,
    },
    /// Try what is suggested.
    Take,
    /// Try this next.
    Try {
        /// The values of settings that are to be others than before, and the proof, as they were typed.
        #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
        written: Written,
    },
    /// Go back to what held last, and try it again.
    Back,
    /// What held last is a mark.
    Mark,
    /// Save what held last.
    Save {
        /// By this name.
        name: String,
    },
    /// That is enough: the stage is over.
    End,
}

/// What can be said in a word whatever is asked, in lines and scripts.
const ALWAYS: [(&str, Said); 3] = [("stop", Said::Stop), ("stop-at-mark", Said::StopAtMark), ("leave", Said::Leave)];

impl Said {
    /// The word before what sensors read.
    pub const READ: &str = "read";
    /// The word before what is another of the rig.
    pub const CHANGED: &str = "changed";

    /// The answer that it is, where it is one.
    pub fn answer(&self) -> Option<Answer> {
        match self {
            Self::Done { .. } => Some(Answer::Done),
            Self::NoStart => Some(Answer::NoStart),
            Self::Defaults => Some(Answer::Defaults),
            Self::Hung => Some(Answer::Hung),
            Self::WrongPicture { .. } => Some(Answer::WrongPicture),
            Self::NotToday => Some(Answer::NotToday),
            Self::Take => Some(Answer::Take),
            Self::Try { .. } => Some(Answer::Try),
            Self::Back => Some(Answer::Back),
            Self::Mark => Some(Answer::Mark),
            Self::Save { .. } => Some(Answer::Save),
            Self::End => Some(Answer::End),
            _ => None,
        }
    }

    /// What is written down with it.
    pub fn written(&self) -> Option<&Written> {
        match self {
            Self::Done { written } | Self::Try { written } | Self::Read { written } | Self::Changed { written } => {
                Some(written)
            }
            _ => None,
        }
    }

    /// Whether it has its turn among answers: what is said of the rig between two questions is true from there on.
    pub fn has_its_turn(&self) -> bool {
        self.answer().is_some() || matches!(self, Self::Read { .. } | Self::Changed { .. })
    }

    /// Whether nothing is asked any more once this was said; what held can be marked and saved while the question stands, and a
    /// climb can be left.
    pub fn ends_question(&self) -> bool {
        let stands = matches!(self, Self::Mark | Self::Save { .. } | Self::NotToday);
        !stands && self.answer().is_some() || ALWAYS.iter().any(|(_, said)| said == self)
    }

    /// What a line means that somebody types or a script has: a word, and behind `done`, `try` and `read` what was written down,
    /// as in `done multiplier=36.5 base_clock=100`; behind `save` a name, and behind `wrong-picture` what was wrong.
    pub fn of_line(line: &str) -> Option<Self> {
        let (word, rest) = line.trim().split_once(char::is_whitespace).unwrap_or((line.trim(), ""));
        let said = Self::of_word(word)?;
        match said {
            Self::Done { .. } => Some(Self::Done { written: written(rest)? }),
            Self::Try { .. } => Some(Self::Try { written: written(rest)? }),
            Self::Read { .. } => Some(Self::Read { written: written(rest).filter(|written| !written.is_empty())? }),
            Self::Changed { .. } => {
                Some(Self::Changed { written: written(rest).filter(|written| !written.is_empty())? })
            }
            Self::WrongPicture { .. } => Some(Self::WrongPicture { what: rest.trim().to_owned() }),
            Self::Save { .. } => {
                Some(rest.trim()).filter(|name| !name.is_empty()).map(|name| Self::Save { name: name.into() })
            }
            said => rest.is_empty().then_some(said),
        }
    }

    fn of_word(word: &str) -> Option<Self> {
        let unasked = [
            (Self::READ, Self::Read { written: Written::new() }),
            (Self::CHANGED, Self::Changed { written: Written::new() }),
        ];
        if let Some((_, said)) = unasked.into_iter().find(|(known, _)| *known == word) {
            return Some(said);
        }
        let always = ALWAYS.into_iter().find(|(known, _)| *known == word).map(|(_, said)| said);
        always.or_else(|| Answer::ALL.iter().find(|answer| answer.word() == word).map(|answer| (*answer).into()))
    }

    /// The words that mean something to whoever is asked with these answers.
    pub fn words(answers: &[Answer]) -> impl Iterator<Item = &'static str> {
        answers.iter().map(|answer| answer.word()).chain(ALWAYS.into_iter().map(|(word, _)| word))
    }
}

impl From<Answer> for Said {
    fn from(answer: Answer) -> Self {
        match answer {
            Answer::Done => Self::Done { written: Written::new() },
            Answer::NoStart => Self::NoStart,
            Answer::Defaults => Self::Defaults,
            Answer::Hung => Self::Hung,
            Answer::WrongPicture => Self::WrongPicture { what: String::new() },
            Answer::NotToday => Self::NotToday,
            Answer::Take => Self::Take,
            Answer::Try => Self::Try { written: Written::new() },
            Answer::Back => Self::Back,
            Answer::Mark => Self::Mark,
            Answer::Save => Self::Save { name: String::new() },
            Answer::End => Self::End,
        }
    }
}

/// What is written down in a line as `name=value`, where a value goes on up to the next name; none where something has no name.
/// A name without a value says as much as none.
fn written(text: &str) -> Option<Written> {
    let (mut written, mut open) = (Written::new(), None::<String>);
    for word in text.split_whitespace() {
        match (word.split_once('='), &open) {
            (Some(("", _)), _) => return None,
            (Some((name, value)), _) => {
                written.insert(name.to_owned(), value.to_owned());
                open = Some(name.to_owned());
            }
            (None, Some(name)) => {
                let value = written.entry(name.clone()).or_default();
                value.push(' ');
                value.push_str(word);
            }
            (None, None) => return None,
        }
    }
    written.retain(|_, value| !value.is_empty());
    Some(written)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_answer_has_a_word_of_its_own_and_means_it() {
        for answer in Answer::ALL {
            let line = if *answer == Answer::Save { "save daily" } else { answer.word() };
            let said = Said::of_line(line).expect("a word");
            let stands = [Answer::Mark, Answer::Save, Answer::NotToday].contains(answer);
            assert_eq!((said.answer(), said.ends_question()), (Some(*answer), !stands));
        }
        for word in Said::words(&[]) {
            let said = Said::of_line(word).expect("a word");
            assert!(said.ends_question() && said.answer().is_none(), "{word}");
        }
        assert_eq!(Said::of_line("yes"), None);
        assert!(!Said::Pause.ends_question());
    }

    #[test]
    fn what_is_written_down_stands_behind_done_and_nowhere_else() {
        let written = |pairs: &[(&str, &str)]| {
            let written = pairs.iter().map(|(name, value)| ((*name).to_owned(), (*value).to_owned())).collect();
            Some(Said::Done { written })
        };
        assert_eq!(Said::of_line(" done "), written(&[]));
        let line = "done clock=4 700 volts=1,25";
        assert_eq!(Said::of_line(line), written(&[("clock", "4 700"), ("volts", "1,25")]));
        assert_eq!(Said::of_line("done clock="), written(&[]));
        assert_eq!(Said::of_line("done =5"), None);
        assert_eq!(Said::of_line("done 4700"), None);
        assert_eq!(Said::of_line("no-start clock=4"), None);
        let tried =
            Said::Try { written: Written::from([("clock".into(), "4900".into()), ("proof".into(), "quick".into())]) };
        assert_eq!(Said::of_line("try clock=4900 proof=quick"), Some(tried));
        assert_eq!(Said::of_line("save for  nights "), Some(Said::Save { name: "for  nights".into() }));
        let seen = Said::WrongPicture { what: "snow on the left".into() };
        assert_eq!(Said::of_line("wrong-picture snow on the left"), Some(seen));
        let read = Said::Read { written: Written::from([("room".into(), "21,5".into())]) };
        assert_eq!(Said::of_line("read room=21,5"), Some(read));
        for wrong in ["save", "save  ", "try 4900", "mark it", "back 2", "end.", "read", "read 21", "hung badly"] {
            assert_eq!(Said::of_line(wrong), None, "{wrong}");
        }
        let old: Said = serde_json::from_str(r#"{"said":"done"}"#).expect("as earlier versions wrote it");
        assert_eq!(Some(old), written(&[]));
    }
}
