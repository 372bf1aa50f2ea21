//! A climb that is played by hand, event by event.

use periculum_core::engine::{Climb, Command, Event, Noted, Question, RULES, Said};
use periculum_core::model::ending::Ending;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::PassReport;
use periculum_core::model::rung::InForce;
use periculum_core::story::Story;
use periculum_core::telling::tell;

use crate::chaos::Course;

/// A climb of the plain course, second by second, with everything that is applied taking at once.
pub(crate) struct Play {
    pub(crate) course: Course,
    pub(crate) climb: Climb,
    pub(crate) in_force: InForce,
    pub(crate) now: i64,
    pub(crate) story: Story,
    pub(crate) command: Option<Command>,
    /// Whether what is applied is answered by the test itself.
    pub(crate) is_slow: bool,
}

impl Play {
    pub(crate) fn begun() -> Self {
        Self::of(Course::plain())
    }

    /// A climb of which nothing can be read back.
    pub(crate) fn unread(course: Course) -> Self {
        Self::with(course, |_| InForce::new())
    }

    pub(crate) fn of(course: Course) -> Self {
        Self::with(course, InForce::clone)
    }

    fn with(course: Course, reported: impl FnOnce(&InForce) -> InForce) -> Self {
        let in_force: InForce = course.rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
        let climb = Climb::new(course.rig.clone(), course.plan.clone());
        let mut play = Self { course, climb, in_force, now: 0, story: Story::default(), command: None, is_slow: false };
        let in_force = reported(&play.in_force);
        play.event(&Event::Started { in_force, ahead: 0, rules: RULES, kinds: Vec::new() });
        play
    }

    pub(crate) fn event(&mut self, event: &Event) {
        let mut event = event.clone();
        loop {
            self.now += 1000;
            let step = self.climb.next(Moment::from_millis(self.now), &event);
            self.story.hear(&event);
            for entry in &step.entries {
                self.story.tell(step.at, entry);
            }
            self.command = step.command;
            let Some(Command::Apply(errand)) = self.command.as_ref().filter(|_| !self.is_slow) else { return };
            self.in_force.extend(errand.made());
            event = Event::Applied { reported: self.in_force.clone() };
        }
    }

    pub(crate) fn say(&mut self, said: Said) {
        self.event(&Event::OperatorSaid { said });
    }

    /// What is being applied has taken, and is answered.
    pub(crate) fn change_is_answered(&mut self) {
        let Some(Command::Apply(errand)) = &self.command else { panic!("nothing is applied: {}", self.log(3)) };
        self.in_force.extend(errand.made());
        let reported = self.in_force.clone();
        self.event(&Event::Applied { reported });
    }

    /// Somebody goes on every errand that is asked for.
    pub(crate) fn make_changes(&mut self) {
        while let Some(Question::Change { errand }) = self.climb.question() {
            self.in_force.extend(errand.changes().iter().map(|change| (change.setting.clone(), change.to)));
            let reported = self.in_force.clone();
            self.event(&Event::ChangeMade { reported, started_anew: false, noted: Noted::default() });
        }
    }

    pub(crate) fn pass_ends(&mut self, incidents: &[IncidentKind]) {
        let incidents = incidents.iter().map(|kind| Incident::new(*kind, "as played")).collect();
        let report = PassReport { ran: Span::from_seconds(60), incidents, ..PassReport::default() };
        self.event(&Event::PassEnded { report, reported: None });
    }

    pub(crate) fn pass_is_stopped(&mut self) {
        assert_eq!(self.command, Some(Command::StopPass));
        let report = PassReport { ran: Span::from_seconds(5), stopped: true, ..PassReport::default() };
        self.event(&Event::PassEnded { report, reported: None });
    }

    pub(crate) fn restarted(&mut self, ending: Ending, lived: Option<Span>) {
        if ending != Ending::ProgramDied {
            self.in_force = self.course.rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
        }
        self.event(&Event::Restarted {
            ending,
            lived,
            in_force: self.in_force.clone(),
            unattended: false,
            last_words: None,
            lived_at_most: None,
            rules: RULES,
        });
    }

    /// The last lines of the logbook.
    pub(crate) fn log(&self, count: usize) -> String {
        let lines: Vec<String> = self.story.log.iter().filter_map(|(_, entry)| tell(entry, &self.course.rig)).collect();
        lines[lines.len().saturating_sub(count)..].join("\n")
    }

    pub(crate) fn runs_a_pass(&self) -> bool {
        matches!(self.command, Some(Command::RunPass(_)))
    }
}
