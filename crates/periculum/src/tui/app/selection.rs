//! What is selected, and which stretch of time is looked at, whatever the view.

use periculum_core::analysis::scores::{Benchmark, Level, benchmarks};
use periculum_core::model::moment::Span;
use periculum_core::story::TrialStory;
use periculum_core::story::series::Series;
use periculum_core::story::stretch::Stretch;

use super::App;
use crate::tui::action::Travel;
use crate::tui::action::{Look, View};
use crate::tui::climbed::Climbed;
use crate::tui::picked::toggle_unseen;

/// So much time is shown around something that went wrong.
const AROUND_INCIDENT: Span = Span::from_seconds(120);

impl App {
    /// The trials that have what is looked for, in order.
    pub(in crate::tui) fn found(&self) -> Vec<&TrialStory> {
        self.found.iter().filter_map(|number| self.shown.story.trial(*number)).collect()
    }

    /// The number of the trial that is shown: the selected one while it is among those found, else the newest of them.
    pub(in crate::tui) fn selected_trial(&self) -> Option<u32> {
        let found = self.found();
        let selected = self.selected.filter(|number| found.iter().any(|trial| trial.number == *number));
        selected.or(found.last().map(|trial| trial.number))
    }

    /// When the selected trial began and ended; the open one has not ended yet.
    pub(in crate::tui) fn selected_span(&self) -> Option<Stretch> {
        self.span_of(self.selected_trial()?)
    }

    fn span_of(&self, trial: u32) -> Option<Stretch> {
        let trials = &self.shown.story.trials;
        let to = trials.get(trial as usize).map_or(self.shown.story.latest, |next| next.began);
        Some(Stretch { from: self.shown.story.trial(trial)?.began, to })
    }

    /// The stretch of time in which anything was read.
    fn whole_stretch(&self) -> Option<Stretch> {
        let spans = self.shown.traces.values().filter_map(Series::span);
        let (from, to) = spans.reduce(|(from, to), (begin, end)| (from.min(begin), to.max(end)))?;
        // The last reading belongs to it.
        Some(Stretch { from, to: to + Span::from_millis(1) })
    }

    /// The stretch of time that traces show; none before anything was read.
    pub(in crate::tui) fn stretch(&self) -> Option<Stretch> {
        let whole = self.whole_stretch()?;
        let trial = self.selected_span().filter(|trial| self.shows_trial && trial.from < trial.to);
        Some(self.looked_at.or(trial).unwrap_or(whole))
    }

    /// The picked trials of this climb, where they are laid over each other.
    pub(in crate::tui) fn laid_over(&self) -> Vec<(u32, Stretch)> {
        if !self.lays_over {
            return Vec::new();
        }
        let picked = self.picks.trials_of(self.shown.number);
        picked.filter_map(|trial| Some((trial, self.span_of(trial)?))).collect()
    }

    /// Looks closer, from farther away, earlier or later.
    pub(super) fn look(&mut self, how: Look) {
        let (Some(whole), Some(now)) = (self.whole_stretch(), self.stretch()) else { return };
        let looked_at = match how {
            Look::Closer => now.closer(whole),
            Look::Farther => now.farther(whole),
            Look::Earlier => now.moved(false, whole),
            Look::Later => now.moved(true, whole),
        };
        self.looked_at = Some(looked_at).filter(|at| *at != whole);
    }

    /// Goes to where the next thing went wrong: in the traces to the one behind that which was looked at last, from
    /// elsewhere to that of the selected trial.
    pub(super) fn look_at_incident(&mut self) {
        let Some(whole) = self.whole_stretch() else { return };
        let incidents = &self.shown.story.incidents;
        let next = match (self.view, self.incident) {
            (View::Traces, Some(last)) if self.looked_at.is_some() => (last + 1) % incidents.len().max(1),
            (View::Traces, _) => 0,
            _ => incidents.iter().position(|told| told.trial == self.selected_trial()).unwrap_or(0),
        };
        let Some(told) = incidents.get(next) else { return };
        self.selected = told.trial.or(self.selected);
        self.looked_at = Some(Stretch::around(told.at, AROUND_INCIDENT.millis(), whole));
        (self.view, self.lays_over, self.incident) = (View::Traces, false, Some(next));
    }

    /// Picks what is selected, to be compared, or puts it back.
    pub(super) fn pick(&mut self) {
        if self.view != View::Climbs {
            if let Some(trial) = self.selected_trial() {
                self.picks.toggle(&self.shown, Some(trial));
            }
            return;
        }
        let Some(climb) = self.shelf.selected() else { return };
        if climb == self.shown.number {
            self.picks.toggle(&self.shown, None);
        } else if let Err(why) = toggle_unseen(&mut self.picks, &self.shelf.library, climb) {
            self.shelf.trouble = Some(format!("climb {climb} can't be opened: {why:#}"));
        }
    }

    pub(super) fn compare(&mut self) {
        self.picks.look_again(&self.shown);
        self.shelf.read();
    }

    /// What the benchmarks of the shown climb say.
    pub(in crate::tui) fn benchmarks(&self) -> Vec<Benchmark> {
        let Climbed { story, rig, plan, traces, .. } = &self.shown;
        benchmarks(story, rig, plan, traces)
    }

    /// Which of these benchmarks is shown.
    pub(in crate::tui) fn benchmark_at(&self, benchmarks: &[Benchmark]) -> usize {
        self.benchmark_at.min(benchmarks.len().saturating_sub(1))
    }

    /// Which level of a benchmark has the selected trial; the best one where none has.
    pub(in crate::tui) fn level_at(&self, benchmark: &Benchmark) -> usize {
        let selected = self.selected_trial();
        let has = |level: &Level| selected.is_some_and(|trial| level.trials.contains(&trial));
        benchmark.levels.iter().position(has).unwrap_or(benchmark.best)
    }

    /// How many lines down the view is scrolled, as far as it goes.
    pub(in crate::tui) fn scrolled_to(&self) -> usize {
        self.scrolled.min(self.scroll_room.get())
    }

    pub(super) fn scroll(&mut self, step: Travel) {
        self.scrolled = step.from(self.scrolled_to(), self.scroll_room.get() + 1);
    }

    fn select_level(&mut self, step: Travel) {
        let benchmarks = self.benchmarks();
        let Some(benchmark) = benchmarks.get(self.benchmark_at(&benchmarks)) else { return };
        let to = step.from(self.level_at(benchmark), benchmark.levels.len());
        self.selected = benchmark.levels.get(to).and_then(|level| level.trials.last().copied());
    }

    pub(super) fn select(&mut self, step: Travel) {
        match self.view {
            View::Scores => return self.select_level(step),
            View::Compare | View::Rig => return self.scroll(step),
            View::Plan => return self.draft.iter_mut().for_each(|draft| draft.select(step)),
            _ => {}
        }
        if self.view == View::Climbs {
            return self.shelf.select(step);
        }
        let found = self.found();
        let selected = self.selected_trial();
        let at = found.iter().position(|trial| Some(trial.number) == selected).unwrap_or(0);
        let to = step.from(at, found.len());
        // At the newest one it stays at whatever is the newest.
        let is_newest = to + 1 >= found.len();
        self.selected = found.get(to).filter(|_| !is_newest).map(|trial| trial.number);
        self.looked_at = None;
    }
}
