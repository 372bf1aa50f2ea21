//! What all screens share: the climb that is shown, what is selected and looked for in it, the ledger's climbs, what was picked,
//! and the plan that is being written.

use std::path::Path;

use anyhow::{Result, bail};
use periculum_core::engine::{Answer, Entry, Field, Misfit, Question, Turn, Written};
use periculum_core::model::errand::Errand;
use periculum_core::story::finding::Query;
use periculum_core::story::stretch::Stretch;
use periculum_core::story::{IncidentStory, TrialStory};
use periculum_core::telling::tell;

use super::climbed::Climbed;
use super::draft::Draft;
use super::form::Form;
use super::habits::Habits;
use super::keeping::Kept;
use super::keymap::Keymap;
use super::library::Library;
use super::picked::{Picked, Picks};
use super::pointing::Places;
use super::shading::Shading;
use super::shelf::Shelf;
use super::telling;
use super::theme::Theme;
use super::travel::Travel;
use crate::notice::Notice;
use crate::reports;

/// The errand of a question, the trial that it is asked in, and how many of its passes had begun.
type Occasion = (Option<Errand>, Option<u32>, usize);

/// What lies on the desk, whichever screen is looked at.
pub(super) struct Desk {
    /// The climb that all screens show.
    pub(super) shown: Climbed,
    /// The climb that is driven, while another one is shown.
    parked: Option<Climbed>,
    /// The trial that screens of single trials show; none for the newest.
    pub(super) selected: Option<u32>,
    /// How often the selection was moved.
    pub(super) moves: u32,
    /// What the listed trials and climbs have; empty for all.
    pub(super) filter: String,
    /// The numbers of the trials that have it, in order.
    found: Vec<u32>,
    /// The climbs of the ledger.
    pub(super) shelf: Shelf,
    /// What is compared.
    pub(super) picks: Picks,
    /// What was picked when the interface was used last, until it has been read.
    awaited: Vec<(i64, Option<u32>)>,
    /// What was written down for a question, and when that was asked.
    reply: Option<(Occasion, Written)>,
    /// What was written down so far of a change of the rig.
    pub(super) changed: Written,
    /// What the operator who leads is about to try.
    form: Option<Form>,
    /// The plan that is being written.
    pub(super) draft: Option<Draft>,
    pub(super) theme: Theme,
    /// How figures are to be read.
    pub(super) habits: Habits,
    /// How likely what lies between the trials of the map survives.
    pub(super) shading: Shading,
    /// Where the keys lie.
    pub(super) keys: Keymap,
    /// What lies where on the screen.
    pub(super) places: Places,
    /// What came of the last thing that was done, until the next key.
    pub(super) told: Option<String>,
    /// Whether a pause was asked for and has not come.
    pub(super) pause_wanted: bool,
    /// Whether the driver has nothing more to tell.
    pub(super) is_driver_gone: bool,
}

impl Desk {
    pub(super) fn new(shown: Climbed, library: Library, theme: Theme) -> Self {
        let mut desk = Self {
            shown,
            parked: None,
            selected: None,
            moves: 0,
            filter: String::new(),
            found: Vec::new(),
            shelf: Shelf::of(library),
            picks: Picks::default(),
            awaited: Vec::new(),
            reply: None,
            changed: Written::new(),
            form: None,
            draft: None,
            theme,
            habits: Habits::default(),
            shading: Shading::default(),
            keys: Keymap::default(),
            places: Places::default(),
            told: None,
            pause_wanted: false,
            is_driver_gone: false,
        };
        desk.find();
        desk
    }

    /// Whether the climb that is shown has ended.
    pub(super) fn is_over(&self) -> bool {
        self.shown.story.ended.is_some()
    }

    /// The climb that is driven, whichever is shown.
    pub(super) fn live(&self) -> &Climbed {
        self.parked.as_ref().unwrap_or(&self.shown)
    }

    /// Whether a climb is driven, and it is the one that is shown.
    pub(super) fn is_climbing(&self) -> bool {
        !self.is_over() && !self.is_driver_gone && !self.shows_another()
    }

    /// Whether the next word from the operator is to go on.
    pub(super) fn waits_for_go(&self) -> bool {
        !self.is_over() && (self.shown.story.is_paused || self.pause_wanted)
    }

    /// Whether something is asked of whoever looks at it that takes this answer.
    pub(super) fn takes(&self, answer: Answer) -> bool {
        self.question().is_some_and(|question| question.answers().contains(&answer))
    }

    /// What is asked of whoever looks at it.
    pub(super) fn question(&self) -> Option<&Question> {
        self.shown.story.question.as_ref().filter(|_| self.is_climbing())
    }

    /// Where the operator stands who is to say what comes next.
    pub(super) fn turn(&self) -> Option<&Turn> {
        self.question()?.turn()
    }

    /// What they are about to try; where a turn has just come, what was tried last.
    pub(super) fn form(&self) -> Option<Form> {
        let turn = self.turn()?;
        let kept = self.form.as_ref();
        let row = kept.map_or(0, |form| form.row);
        Some(kept.filter(|form| form.turn == *turn).cloned().unwrap_or_else(|| Form::of(turn, row)))
    }

    /// They are about to try something else.
    pub(super) fn set_form(&mut self, form: Form) {
        self.form = Some(form);
    }

    /// What may be written down with its answer.
    pub(super) fn fields(&self) -> Vec<Field> {
        self.question().map(|question| question.fields(&self.shown.rig)).unwrap_or_default()
    }

    /// What the question that stands is asked for: the same may be asked again in the next trial.
    fn occasion(&self) -> Option<Occasion> {
        let open = self.shown.story.open_trial();
        let passes = open.map_or(0, |trial| trial.passes.len());
        Some((self.question()?.errand().cloned(), open.map(|trial| trial.number), passes))
    }

    /// What was written down for the question that stands.
    pub(super) fn written(&self) -> Written {
        let now = self.occasion();
        let reply = self.reply.as_ref().filter(|(occasion, _)| Some(occasion) == now.as_ref());
        let mut written = reply.map(|(_, written)| written.clone()).unwrap_or_default();
        let fields = self.fields();
        // What was read unasked meanwhile is not asked for any more.
        written.retain(|name, _| fields.iter().any(|field| field.name == *name));
        written
    }

    /// Writes down what was typed for a field of the question that stands; nothing typed takes back what was.
    ///
    /// # Errors
    /// Where it is nothing for that field.
    pub(super) fn write_down(&mut self, field: &Field, typed: &str) -> Result<(), Misfit> {
        let Some(occasion) = self.occasion() else { return Ok(()) };
        let mut written = self.written();
        if typed.is_empty() {
            written.remove(&field.name);
        } else {
            field.read(typed)?;
            written.insert(field.name.clone(), typed.to_owned());
        }
        self.reply = Some((occasion, written));
        Ok(())
    }

    /// Writes the report of the climb that is shown, and tells where.
    ///
    /// # Errors
    /// Where that can't be done; nothing is written over.
    pub(super) fn report(&self, path: &Path) -> Result<String> {
        if path.exists() {
            bail!(telling::is_there_already(path));
        }
        reports::write(&self.shelf.library.ledger()?, self.shown.number, path)?;
        Ok(telling::written(&path.display().to_string()))
    }

    /// Whether a climb could be begun: none is driven, and nothing that was written is lost by it.
    pub(super) fn is_free(&self) -> bool {
        self.is_driver_gone && !self.has_changed_draft()
    }

    /// Whether something was changed in a plan and not written into its file.
    pub(super) fn has_changed_draft(&self) -> bool {
        self.draft.as_ref().is_some_and(Draft::is_changed)
    }

    /// Whether another climb is shown than the one that the interface was opened for.
    pub(super) fn shows_another(&self) -> bool {
        self.parked.is_some()
    }

    /// Whether the climb that is driven asks something while another one is shown.
    pub(super) fn is_asked_elsewhere(&self) -> bool {
        self.parked.as_ref().is_some_and(|live| live.story.question.is_some())
    }

    /// Takes in what the driver tells: the climb that is driven hears it, whichever is shown.
    pub(super) fn hear(&mut self, notice: Notice) {
        let is_told = matches!(notice, Notice::Told { .. });
        let live = self.parked.as_mut().unwrap_or(&mut self.shown);
        live.hear(notice);
        if is_told {
            self.pause_wanted &= !live.story.is_paused && live.story.ended.is_none();
            self.find();
        }
    }

    /// What is looked for.
    pub(super) fn query(&self) -> Query {
        Query::of(&self.filter)
    }

    /// Looks again for what is looked for.
    fn find(&mut self) {
        self.found = self.shown.find(&self.query());
    }

    /// Looks for something else.
    pub(super) fn look_for(&mut self, words: &str) {
        words.clone_into(&mut self.filter);
        self.find();
        self.shelf.find(&self.query());
    }

    /// What is to be there again when this ledger is looked at the next time.
    pub(super) fn kept(&self) -> Kept {
        let picked = self.picks.iter().map(|picked| (picked.climb, picked.trial));
        Kept { looked_for: self.filter.clone(), picked: self.awaited.iter().copied().chain(picked).collect() }
    }

    /// Takes up what was kept; a filter is told, so that nobody misses what it hides.
    pub(super) fn take_up(&mut self, kept: &Kept) {
        self.look_for(&kept.looked_for);
        self.told = Some(telling::looked_for_still(&kept.looked_for)).filter(|_| !self.filter.is_empty());
        self.awaited.clone_from(&kept.picked);
        if !self.awaited.is_empty() {
            self.shelf.look_up(self.awaited.clone());
        }
    }

    /// Takes in what was picked before.
    pub(super) fn take_picked(&mut self, picked: Vec<Picked>) {
        self.awaited.clear();
        self.picks.restore(picked);
    }

    /// Picks a climb of the ledger or one of its trials, to be compared, or puts it back.
    pub(super) fn pick_of(&mut self, climb: i64, trial: Option<u32>) {
        let is_picked = self.picks.has(climb, trial);
        self.told = Some(telling::picking(climb, trial, !is_picked, self.picks.count()));
        if is_picked {
            self.picks.put_back(climb, trial);
        } else if climb == self.shown.number {
            self.picks.pick(&self.shown, trial);
        } else {
            match self.shelf.library.open(climb) {
                Ok(unseen) => self.picks.pick(&unseen, trial),
                Err(why) => {
                    self.told = None;
                    self.shelf.trouble = Some(telling::not_opened(climb, &why));
                }
            }
        }
    }

    /// Goes back to the climb that the interface was opened for.
    pub(super) fn close_other(&mut self) {
        if let Some(live) = self.parked.take() {
            self.turn_to(live);
        }
    }

    /// Opens the selected climb of the ledger; tells whether it is shown now.
    pub(super) fn open_other(&mut self) -> bool {
        let Some(number) = self.shelf.selected() else { return false };
        self.close_other();
        if number == self.shown.number {
            return true;
        }
        match self.shelf.library.open(number) {
            Ok(other) => {
                let live = std::mem::replace(&mut self.shown, other);
                self.parked = Some(live);
                self.start_over();
                true
            }
            Err(why) => {
                self.shelf.trouble = Some(crate::telling::ledger::not_opened(number, why));
                false
            }
        }
    }

    /// Shows this climb.
    pub(super) fn turn_to(&mut self, climbed: Climbed) {
        self.shown = climbed;
        self.start_over();
    }

    fn start_over(&mut self) {
        self.selected = None;
        self.moves += 1;
        self.find();
    }

    /// The trials that have what is looked for, in order.
    pub(super) fn found(&self) -> Vec<&TrialStory> {
        self.found.iter().filter_map(|number| self.shown.story.trial(*number)).collect()
    }

    /// The number of the trial that is shown: the selected one while it is among those found, else the newest of them, or
    /// the first as they are sorted.
    pub(super) fn selected_trial(&self) -> Option<u32> {
        let found = self.found();
        let selected = self.selected.filter(|number| found.iter().any(|trial| trial.number == *number));
        let usual = if self.is_sorted() { found.first() } else { found.last() };
        selected.or(usual.map(|trial| trial.number))
    }

    /// Whether what is found is in another order than that of the trials.
    pub(super) fn is_sorted(&self) -> bool {
        self.query().sort().is_some()
    }

    /// What the logbook says of the selected trial, and which that is.
    pub(super) fn lines_of_selected(&self) -> Option<(u32, Vec<String>)> {
        let selected = self.selected_trial()?;
        let trial_of = |entry: &Entry| if let Entry::TrialBegan { trial, .. } = entry { Some(*trial) } else { None };
        let log = self.shown.story.log.iter().map(|(_, entry)| entry);
        let from = log.skip_while(|entry| trial_of(entry) != Some(selected));
        let its = from.enumerate().take_while(|(nth, entry)| *nth == 0 || trial_of(entry).is_none());
        Some((selected, its.filter_map(|(_, entry)| tell(entry, &self.shown.rig)).collect()))
    }

    /// Whether something went wrong in the selected trial.
    pub(super) fn has_incident(&self) -> bool {
        let selected = self.selected_trial();
        self.shown.story.incidents.iter().any(|told| told.trial == selected)
    }

    /// The file of the first wrong picture of the selected trial that was kept, and what is told of it.
    pub(super) fn wrong_picture(&self) -> Option<(&str, String)> {
        let selected = self.selected_trial()?;
        let of_trial = self.shown.story.incidents.iter().filter(|told| told.trial == Some(selected));
        let mut kept =
            of_trial.filter_map(|told| Some((told.incident.picture.as_deref()?, told.incident.evidence.to_string())));
        kept.next()
    }

    /// When a trial began and ended; the open one has not ended yet.
    pub(super) fn span_of(&self, trial: u32) -> Option<Stretch> {
        let trials = &self.shown.story.trials;
        let to = trials.get(trial as usize).map_or(self.shown.story.latest, |next| next.began);
        Some(Stretch { from: self.shown.story.trial(trial)?.began, to })
    }

    /// What went wrong in a stretch. What ended a trial is that trial's, though the next one may begin at the same moment.
    pub(super) fn incidents_in(&self, part: Stretch) -> impl Iterator<Item = &IncidentStory> {
        let is_in = move |told: &&IncidentStory| match told.trial.and_then(|trial| self.span_of(trial)) {
            Some(of) => of.from < part.to && part.from < of.to && (part.from..=part.to).contains(&told.at),
            None => part.has(told.at),
        };
        self.shown.story.incidents.iter().filter(is_in)
    }

    /// When the selected trial began and ended.
    pub(super) fn selected_span(&self) -> Option<Stretch> {
        self.span_of(self.selected_trial()?)
    }

    /// Moves the selection among the trials that were found.
    pub(super) fn select_among_found(&mut self, step: Travel) {
        let found = self.found();
        let selected = self.selected_trial();
        let at = found.iter().position(|trial| Some(trial.number) == selected).unwrap_or(0);
        let to = step.from(at, found.len());
        // At the newest one it stays at whatever is the newest.
        let is_newest = to + 1 >= found.len() && !self.is_sorted();
        self.selected = found.get(to).filter(|_| !is_newest).map(|trial| trial.number);
        self.moves += 1;
    }

    /// Picks the selected trial, to be compared, or puts it back.
    pub(super) fn pick_trial(&mut self) {
        if let Some(trial) = self.selected_trial() {
            self.pick_of(self.shown.number, Some(trial));
        }
    }
}
