//! The first page of a report, which can be handed over by itself: what was found, what that is worth, and what it cost.

use periculum_core::analysis::claim::Claim;
use periculum_core::analysis::gain::Gain;
use periculum_core::analysis::harder::Harder;
use periculum_core::engine::Mark;
use periculum_core::model::quantity::{counted, with_unit};
use periculum_core::model::rig::Sensor;
use periculum_core::model::verdict::Verdict;
use periculum_core::story::profile::AscentProfile;
use periculum_core::telling::{
    claim_sentence, gain_of_mark_words, harder_words, margin_words, mark_sentence, whereabouts,
};

use crate::ascent::ascent;
use crate::document::Block;
use crate::figure::ChartError;
use crate::report::Reported;
use crate::sheet::Sheet;

impl Reported<'_> {
    /// The page.
    pub(crate) fn handout(&self) -> Result<Vec<Block>, ChartError> {
        let begun = format!("Begun {}.", self.begun);
        let mut blocks = vec![Block::Title(self.title()), Block::Paragraph(self.of_what()), Block::Paragraph(begun)];
        let facts = self.facts().into_iter().map(|(what, told)| vec![what.to_owned(), told]);
        let head = ["in short", ""].map(str::to_owned).to_vec();
        blocks.push(Block::Table(Sheet { head, rows: facts.collect() }));
        if let Some(profile) = AscentProfile::of(self.story, self.rig, self.plan) {
            let caption = "The ascent: trials in their order. ● held, ◐ slipped, ✕ fell; flags are marks.".into();
            blocks.push(Block::Picture { caption, figure: ascent(&profile)? });
        }
        blocks.push(Block::NewPage);
        Ok(blocks)
    }

    /// Which specimen was climbed, and for what.
    fn of_what(&self) -> String {
        let specimens = self.rig.specimens();
        let specimens = if specimens.is_empty() { String::new() } else { format!(", {specimens}") };
        let simulated = self.seed.map(|seed| format!(", simulated specimen {seed}")).unwrap_or_default();
        format!("{}{specimens}{simulated}, for {} use.", self.rig.name, self.plan.use_name)
    }

    /// What somebody wants to know first, each with what it is about.
    fn facts(&self) -> Vec<(&'static str, String)> {
        let mark = self.story.marks.last();
        let mut facts = match mark {
            Some(mark) => self.of_mark(mark),
            None => self.without_mark(),
        };
        facts.push(("cost", self.cost()));
        facts.push(("now", self.now()));
        facts
    }

    fn of_mark(&self, mark: &Mark) -> Vec<(&'static str, String)> {
        let trial = self.story.trial(mark.trial);
        let claim = Claim::of_mark(self.story, self.rig, self.plan, mark);
        let climb = (self.story, self.rig, self.plan);
        let harder = claim.as_ref().and_then(|claim| Harder::of_mark(claim, climb, mark));
        let gain = Gain::of_mark(mark, climb, self.traces).map(|gain| gain_of_mark_words(&gain));
        let hottest = trial.map(|trial| self.nearest_to_cut_off(trial.number)).filter(|it| !it.is_empty());
        let told = [
            ("mark", Some(mark_sentence(mark, self.rig))),
            ("worth", claim.map(|claim| claim_sentence(&claim))),
            ("harder", harder.map(|harder| harder_words(&harder, self.rig))),
            ("margin", margin_words(mark, self.plan, self.rig)),
            ("gain", gain),
            ("at most", hottest),
        ];
        told.into_iter().filter_map(|(what, told)| Some((what, told?))).collect()
    }

    fn without_mark(&self) -> Vec<(&'static str, String)> {
        let claim = Claim::of_stock(self.story, self.rig, self.plan);
        let stock = claim.map(|claim| ("stock", claim_sentence(&claim)));
        std::iter::once(("mark", "none stands".to_owned())).chain(stock).collect()
    }

    /// What those sensors read at most that a pass is stopped by, in this trial.
    fn nearest_to_cut_off(&self, number: u32) -> String {
        let Some(trial) = self.story.trial(number) else { return String::new() };
        let next = self.story.trial(number + 1).map_or(self.story.latest, |next| next.began);
        let most = |sensor: &Sensor| {
            let cut_off = sensor.cut_off.as_ref()?.at(|setting| trial.rung.get(setting))?;
            let spread = self.traces.get(&sensor.name)?.between(trial.began, next)?;
            let most = sensor.written(spread.greatest);
            Some(format!("{} {most} of {}", sensor.label, with_unit(cut_off, &sensor.unit)))
        };
        self.rig.sensors.iter().filter_map(most).collect::<Vec<_>>().join(", ")
    }

    fn cost(&self) -> String {
        let story = self.story;
        let [fell, slipped] = [Verdict::Fell, Verdict::Slipped].map(|verdict| story.count(verdict));
        let took = story.began.map(|began| format!(" in {}", story.latest.since(began))).unwrap_or_default();
        let trials = counted(story.trials.len(), "trial");
        format!("{trials}, {fell} fell and {slipped} slipped; {} of passes{took}", story.tested())
    }

    fn now(&self) -> String {
        match &self.story.ended {
            Some(ended) => {
                let left = whereabouts(&ended.not_at_stock, ended.left_at.as_ref(), self.rig);
                format!("{}; {left}", ended.end.sentence())
            }
            None => "not finished".to_owned(),
        }
    }
}
