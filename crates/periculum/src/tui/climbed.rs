//! A climb with all that is shown of it.

use std::collections::BTreeMap;
use std::sync::{Arc, Mutex, OnceLock, PoisonError};

use periculum_core::analysis::attempts::{Attempts, Column};
use periculum_core::analysis::claim::Claim;
use periculum_core::analysis::forecast::{Forecast, forecast};
use periculum_core::analysis::gain::Gain;
use periculum_core::analysis::harder::Harder;
use periculum_core::analysis::pool::{Origin, Pool};
use periculum_core::engine::{ClimbEnd, Entry, Mark, Outlook, Said};
use periculum_core::model::budget::Rest;
use periculum_core::model::kind::Kind;
use periculum_core::model::plan::Plan;
use periculum_core::model::rig::{Rig, Sensor};
use periculum_core::model::verdict::Verdict;
use periculum_core::story::finding::{Index, Query, trial_facts};
use periculum_core::story::series::Series;
use periculum_core::story::{Story, TrialStory};
use periculum_ledger::ClimbRow;

use super::telling::{self, labels};
use crate::briefing::Briefing;
use periculum_rigs::bench::Shown;

use crate::commands::{date, local_day};
use crate::notice::{self, Notice};

/// The number of a climb that has none yet; the ledger counts from 1.
const NOT_BEGUN: i64 = 0;

/// A climb, as its record tells it or as its driver goes on telling it.
pub(crate) struct Climbed {
    /// Its number in the ledger.
    pub(super) number: i64,
    /// The seed of a simulated rig.
    pub(super) seed: Option<u64>,
    pub(super) rig: Arc<Rig>,
    pub(super) plan: Arc<Plan>,
    pub(super) story: Story,
    pub(super) outlook: Option<Outlook>,
    /// What is left of the budget.
    pub(super) rest: Rest,
    /// What it would take as a whole; none where it is not under way here.
    pub(super) foreseen: Option<Forecast>,
    /// What each sensor read, from the beginning.
    pub(super) traces: BTreeMap<String, Series>,
    /// The files of its rig and its plan.
    pub(super) texts: [String; 2],
    /// How often what is known of its rungs has changed since it is shown.
    pub(super) judged: u32,
    /// What each mark that stands is worth, by its trial; worked out when it is looked at, since that takes a while.
    claims: OnceLock<BTreeMap<u32, Claim>>,
    /// The same of stock where no mark stands.
    of_stock: OnceLock<Option<Claim>>,
    /// How much harder than the last mark one may go who is content to be less sure.
    harder: OnceLock<Option<Harder>>,
    /// What the last mark gains over stock.
    gain: OnceLock<Option<Gain>>,
    /// What the rungs of trials are worth that were looked at.
    worth: Mutex<BTreeMap<u32, Option<Claim>>>,
    /// What a rig in software shows to whoever makes the pass that is asked for.
    pub(super) shows: Option<Shown>,
    /// What all of its trials are found by.
    facts: String,
}

impl Climbed {
    /// A climb of the ledger, with what was recorded of it.
    pub(crate) fn new(row: &ClimbRow, briefing: &Briefing, story: Story, traces: BTreeMap<String, Series>) -> Self {
        let (rig, plan) = (Arc::clone(&briefing.rig), Arc::clone(&briefing.plan));
        let facts = climb_facts(row).to_lowercase();
        let texts = [briefing.rig_text.clone(), briefing.plan_text.clone()];
        Self {
            number: row.climb,
            seed: row.seed,
            rig,
            plan,
            story,
            outlook: None,
            rest: Rest::default(),
            foreseen: None,
            traces,
            texts,
            judged: 0,
            claims: OnceLock::new(),
            of_stock: OnceLock::new(),
            harder: OnceLock::new(),
            gain: OnceLock::new(),
            worth: Mutex::default(),
            shows: None,
            facts,
        }
    }

    /// What a mark is worth; none where nothing can be said.
    pub(super) fn claim(&self, mark: &Mark) -> Option<&Claim> {
        let of = |mark: &Mark| Some((mark.trial, Claim::of_mark(&self.story, &self.rig, &self.plan, mark)?));
        self.claims.get_or_init(|| self.story.marks.iter().filter_map(of).collect()).get(&mark.trial)
    }

    /// What can be said of the rung of a trial that is over, under its stage's proof.
    pub(super) fn worth(&self, trial: &TrialStory) -> Option<Claim> {
        trial.verdict.filter(|verdict| *verdict != Verdict::Void)?;
        let stage = self.plan.stages.get(trial.stage)?;
        let of = || Claim::of(&self.story, &self.rig, &self.plan, (&trial.rung, trial.stage), stage.proof);
        // A thread that died while it looked something up has left nothing half done.
        let mut known = self.worth.lock().unwrap_or_else(PoisonError::into_inner);
        known.entry(trial.number).or_insert_with(of).clone()
    }

    /// What can be said of stock where no mark stands.
    pub(super) fn stock(&self) -> Option<Claim> {
        self.of_stock.get_or_init(|| Claim::of_stock(&self.story, &self.rig, &self.plan)).clone()
    }

    /// How much harder than the last mark one may go who is content to be less sure.
    pub(super) fn harder(&self) -> Option<&Harder> {
        let climb = (&self.story, &*self.rig, &*self.plan);
        let of = |mark: &Mark| Harder::of_mark(self.claim(mark)?, climb, mark);
        self.harder.get_or_init(|| self.story.marks.last().and_then(of)).as_ref()
    }

    /// What the last mark gains over stock.
    pub(super) fn gain(&self) -> Option<&Gain> {
        let climb = (&self.story, &*self.rig, &*self.plan);
        let of = |mark: &Mark| Gain::of_mark(mark, climb, &self.traces);
        self.gain.get_or_init(|| self.story.marks.last().and_then(of)).as_ref()
    }

    /// The same climb under way, so that it is worth knowing what is ahead of it, by what earlier climbs say of its kind.
    pub(super) fn under_way(self, kinds: &[Kind]) -> Self {
        Self { foreseen: Some(forecast(&self.rig, &self.plan, kinds)), ..self }
    }

    /// What there is to see before a climb has begun.
    pub(super) fn not_begun(briefing: &Briefing) -> Self {
        Self {
            number: NOT_BEGUN,
            seed: None,
            rig: Arc::clone(&briefing.rig),
            plan: Arc::clone(&briefing.plan),
            story: Story::default(),
            outlook: None,
            rest: Rest::default(),
            foreseen: None,
            traces: BTreeMap::new(),
            texts: [briefing.rig_text.clone(), briefing.plan_text.clone()],
            judged: 0,
            claims: OnceLock::new(),
            of_stock: OnceLock::new(),
            harder: OnceLock::new(),
            gain: OnceLock::new(),
            worth: Mutex::default(),
            shows: None,
            facts: String::new(),
        }
    }

    /// Whether it is only planned.
    pub(super) fn is_planned(&self) -> bool {
        self.number == NOT_BEGUN
    }

    /// Takes in what the driver tells.
    pub(super) fn hear(&mut self, notice: Notice) {
        notice::take(&mut self.story, &notice);
        if let Notice::Told { entry, .. } = &notice
            && bears_on_claims(entry)
        {
            self.judged += 1;
            self.claims = OnceLock::new();
            self.of_stock = OnceLock::new();
            self.harder = OnceLock::new();
            self.gain = OnceLock::new();
            self.worth = Mutex::default();
        }
        match notice {
            Notice::Outlook(outlook, rest) => (self.outlook, self.rest) = (outlook.map(|outlook| *outlook), rest),
            Notice::Sample { at, readings } => {
                for (sensor, reading) in readings {
                    self.traces.entry(sensor).or_default().push(at, reading);
                }
            }
            Notice::Shown(shown) => self.shows = Some(shown),
            Notice::Told { entry: Entry::Asked { .. } | Entry::PassEnded { .. }, .. } => self.shows = None,
            Notice::Told { .. } | Notice::ReadBack(_) | Notice::LeftBehind { .. } | Notice::Progress { .. } => {}
            Notice::Misheard { .. } => {}
        }
    }

    /// The sensors that something was read of.
    pub(super) fn traced(&self) -> impl Iterator<Item = &Sensor> {
        self.rig.sensors.iter().filter(|sensor| self.traces.contains_key(&sensor.name))
    }

    /// The numbers of the trials that have what is looked for, in order or as it is sorted.
    pub(super) fn find(&self, query: &Query) -> Vec<u32> {
        let columns = if query.compares() { self.attempts().columns() } else { Vec::new() };
        let has = |trial: &&TrialStory| query.has(&self.facts, &self.facts_of(trial, &columns));
        let mut found: Vec<&TrialStory> = self.story.trials.iter().filter(|it| query.is_empty() || has(it)).collect();
        if let Some((name, first)) = query.sort()
            && let Some(column) = self.attempts().column(name)
        {
            self.attempts().sort(&mut found, &column, first);
        }
        found.into_iter().map(|trial| trial.number).collect()
    }

    /// All attempts with what is known of them.
    pub(super) fn attempts(&self) -> Attempts<'_> {
        Attempts { story: &self.story, rig: &self.rig, traces: &self.traces }
    }

    /// Puts all attempts into a table with those of other climbs, and what they are found by into an index.
    pub(super) fn pool(&self, row: &ClimbRow, pool: &mut Pool, index: &mut Index) {
        let shared = [
            (labels::COLUMN_RIG, row.rig.clone()),
            (labels::COLUMN_SPECIMEN, specimen(row, true).trim().to_owned()),
            (labels::COLUMN_BEGAN, local_day(row.wall)),
        ];
        let (attempts, columns) = (self.attempts(), self.attempts().columns());
        index.add_climb(row.climb, &self.facts);
        let facts: Vec<String> = self.story.trials.iter().map(|trial| self.facts_of(trial, &columns)).collect();
        for (trial, facts) in self.story.trials.iter().zip(&facts) {
            index.add_trial(trial.number, facts);
        }
        let origin = Origin { climb: row.climb, shared: &shared, facts: &self.facts };
        pool.add(&origin, &attempts, &facts);
    }

    /// What a trial is found by, with its numbers in these columns.
    fn facts_of(&self, trial: &TrialStory, columns: &[Column]) -> String {
        let of_trial = |number: Option<u32>| number == Some(trial.number);
        let incidents = self.story.incidents.iter().filter(|told| of_trial(told.trial));
        let incidents = incidents.map(|told| told.incident.kind.name());
        let told = incidents.chain(self.notes(trial));
        let facts = trial_facts(trial.number, &trial.rung, &trial.proof, trial.verdict, told);
        facts + &self.attempts().numbers_of(columns, trial)
    }

    /// What the operator wrote down between the beginning of this trial and that of the next one.
    pub(super) fn notes(&self, trial: &TrialStory) -> impl Iterator<Item = &str> {
        let next = self.story.trials.get(trial.number as usize).map(|next| next.began);
        let began = trial.began;
        let from = self.story.log.partition_point(|(at, _)| *at < began);
        let noted = self.story.log[from..].iter().take_while(move |(at, _)| next.is_none_or(|next| *at < next));
        noted.filter_map(|(_, entry)| match entry {
            Entry::Operator { said: Said::Note { text } } => Some(text.as_str()),
            _ => None,
        })
    }
}

/// Whether marks may be worth something else from then on.
fn bears_on_claims(entry: &Entry) -> bool {
    matches!(
        entry,
        Entry::TrialEnded { .. }
            | Entry::Rejudged { .. }
            | Entry::MarkSet { .. }
            | Entry::MarkWithdrawn { .. }
            | Entry::RigChanged { .. }
    )
}

/// What the trials of a climb are found by, whatever they are themselves.
pub(super) fn climb_facts(row: &ClimbRow) -> String {
    let (climb, seed) = (telling::climb(row.climb), telling::seed_words(row.seed));
    let end = row.end.as_ref().map_or_else(|| labels::NOT_FINISHED.to_owned(), ClimbEnd::sentence);
    format!("{climb} {} {}{seed} {} {} {} {end}", row.rig, row.specimen, row.plan, row.use_name, date(row.wall))
}

/// Which specimen it was: by the name of its part, or by the seed of a simulated one; in short without the kinds of parts.
pub(super) fn specimen(row: &ClimbRow, is_short: bool) -> String {
    let without_kind = |part: &str| part.split_once(' ').map_or(part, |(_, name)| name).to_owned();
    let parts = row.specimen.split(", ").map(|part| if is_short { without_kind(part) } else { part.to_owned() });
    let named = parts.collect::<Vec<_>>().join(", ");
    named + &telling::seed_words(row.seed)
}
