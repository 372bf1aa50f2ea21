//! What calls people who look elsewhere: the bell, a notification, the terminal's title.

use std::time::{Duration, Instant};

use periculum_core::model::verdict::Verdict;
use periculum_core::story::Story;

/// Something that somebody may want to be called for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Occasion {
    /// A trial fell.
    Fall,
    /// A mark was set.
    Mark,
    /// Somebody is asked for something.
    Question,
    /// The climb is over.
    End,
}

impl Occasion {
    /// Every one, that comes first which matters most.
    pub(super) const ALL: [Self; 4] = [Self::End, Self::Question, Self::Mark, Self::Fall];

    /// What it is called in files.
    pub(super) const fn name(self) -> &'static str {
        match self {
            Self::Fall => "fall",
            Self::Mark => "mark",
            Self::Question => "question",
            Self::End => "end",
        }
    }
}

/// Whom to call, and how.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Calls {
    /// What the bell is rung for.
    pub(super) bell: Vec<Occasion>,
    /// What the terminal shows a notification for.
    pub(super) notify: Vec<Occasion>,
    /// What the desktop shows one for.
    pub(super) desktop: Vec<Occasion>,
    /// Whether the terminal's title says how things stand.
    pub(super) title: bool,
}

impl Default for Calls {
    /// Nobody is woken who does not want to be; a title disturbs nobody.
    fn default() -> Self {
        Self { bell: Vec::new(), notify: Vec::new(), desktop: Vec::new(), title: true }
    }
}

/// Nobody is called again within this time for what goes on without them.
const SPACING: Duration = Duration::from_secs(1);

/// How far a climb had come when it was last looked at.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Standing {
    falls: usize,
    marks: usize,
    is_asked: bool,
    is_over: bool,
}

impl Standing {
    pub(super) fn of(story: &Story) -> Self {
        Self {
            falls: story.count(Verdict::Fell),
            marks: story.marks.len(),
            is_asked: story.question.is_some(),
            is_over: story.ended.is_some(),
        }
    }

    /// What has happened since, of which that is told which matters most; none where nothing has.
    fn since(self, before: Self) -> Option<Occasion> {
        Occasion::ALL.into_iter().find(|occasion| match occasion {
            Occasion::Fall => self.falls > before.falls,
            Occasion::Mark => self.marks > before.marks,
            Occasion::Question => self.is_asked && !before.is_asked,
            Occasion::End => self.is_over && !before.is_over,
        })
    }
}

/// Notices what people want to be called for.
#[derive(Debug, Default)]
pub(super) struct Watch {
    before: Option<Standing>,
    called: Option<Instant>,
}

impl Watch {
    /// What is to be told now.
    pub(super) fn look(&mut self, now: Standing, at: Instant) -> Option<Occasion> {
        let occasion = now.since(self.before.replace(now)?)?;
        let is_urgent = matches!(occasion, Occasion::Question | Occasion::End);
        let is_due = is_urgent || self.called.is_none_or(|called| at.duration_since(called) >= SPACING);
        is_due.then(|| {
            self.called = Some(at);
            occasion
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const BEFORE: Standing = Standing { falls: 1, marks: 0, is_asked: false, is_over: false };

    #[test]
    fn what_is_new_is_told_once_and_what_was_there_is_not() {
        let (mut watch, began) = (Watch::default(), Instant::now());
        let after = |seconds| began + Duration::from_secs(seconds);
        assert_eq!(watch.look(BEFORE, began), None, "how things stood when it came");
        let fell = Standing { falls: 2, ..BEFORE };
        assert_eq!(watch.look(fell, after(1)), Some(Occasion::Fall));
        assert_eq!(watch.look(fell, after(3)), None);
        let over = Standing { marks: 1, is_over: true, ..fell };
        assert_eq!(watch.look(over, after(5)), Some(Occasion::End), "that it is over matters more than its mark");
        assert_eq!(watch.look(Standing { falls: 3, ..over }, after(5)), None, "so soon nobody is called for a fall");
        let asked = Standing { is_asked: true, falls: 3, ..over };
        assert_eq!(watch.look(asked, after(5)), Some(Occasion::Question), "but for what waits for them");
    }
}
