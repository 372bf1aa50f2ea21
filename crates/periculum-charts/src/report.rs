//! The report of a climb: what somebody needs who was not there, to believe it or to do it again.

use std::collections::BTreeMap;

use periculum_core::analysis::at_stock::between_starts;
use periculum_core::analysis::attempts::{Attempts, Column};
use periculum_core::analysis::claim::Claim;
use periculum_core::analysis::faster::Faster;
use periculum_core::analysis::money::{Alternative, Bought, bought};
use periculum_core::analysis::over::Over;
use periculum_core::analysis::scores::{Benchmark, benchmarks, best_of_each, family};
use periculum_core::analysis::terrain::Terrain;
use periculum_core::engine::{Entry, Mark, Said};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::PassReport;
use periculum_core::model::plan::Plan;
use periculum_core::model::quantity::{counted, harmless, measured, scored, with_unit};
use periculum_core::model::reason::{Alone, Border, StageEnd};
use periculum_core::model::rig::{Rig, Sensor};
use periculum_core::model::setting::Setting;
use periculum_core::model::verdict::Verdict;
use periculum_core::story::readback::{self, Readback};
use periculum_core::story::series::{Series, Spread};
use periculum_core::story::{IncidentStory, Story, TrialStory};
use periculum_core::telling::{
    before_changes, benchmark_words, beside_words, claim_sentence, faster_words, history_words, margin_words,
    mark_sentence, measured_words, percent_words, scatter_words, stage_words, whereabouts,
};

use crate::document::Block;
use crate::figure::ChartError;
use crate::map::map;
use crate::report_curve::curves;
use crate::score_curve::score_curve;
use crate::sheet::Sheet;
use crate::traces::{LOW, traces_in_parts};

/// Traces are shown from so long before a fall to so long behind it.
const BEFORE: Span = Span::from_seconds(90);
const BEHIND: Span = Span::from_seconds(20);

/// Traces are shown around so many falls; of more, around the last ones, which are those next to the marks.
const FALLS_SHOWN: usize = 12;

/// Everything that a report tells of a climb.
#[derive(Clone, Copy, Debug)]
pub struct Reported<'a> {
    /// Its number in the ledger.
    pub number: i64,
    /// The seed of a simulated rig.
    pub seed: Option<u64>,
    /// When it began, in words.
    pub begun: &'a str,
    /// What happened.
    pub story: &'a Story,
    /// The rig.
    pub rig: &'a Rig,
    /// The plan.
    pub plan: &'a Plan,
    /// What its sensors read.
    pub traces: &'a BTreeMap<String, Series>,
    /// SHA-256 over the record.
    pub digest: [u8; 32],
    /// The version of this program.
    pub version: &'a str,
}

/// So many columns stand abreast on a page beside the number of a trial.
const ABREAST: usize = 6;

/// The same of columns with three numbers each.
const READINGS_ABREAST: usize = 4;

impl Reported<'_> {
    /// What the report is called.
    pub fn title(&self) -> String {
        format!("Climb {}: {} on {}", self.number, self.plan.name, self.rig.name)
    }

    /// The report.
    ///
    /// # Errors
    /// When a chart can't be drawn.
    pub fn blocks(&self) -> Result<Vec<Block>, ChartError> {
        let mut blocks = self.handout()?;
        blocks.extend(self.rig_blocks());
        blocks.extend(self.outcome());
        blocks.extend(self.map()?);
        blocks.extend(self.limits());
        blocks.extend(curves(self.rig, self.story, self.traces));
        blocks.extend(self.stages());
        blocks.extend(self.evidence());
        blocks.extend(self.baseline());
        blocks.extend(self.record());
        blocks.extend(self.scores()?);
        blocks.extend(self.money());
        blocks.extend(self.falls()?);
        blocks.extend(self.incidents());
        blocks.extend(self.notes());
        blocks.extend(self.trials());
        Ok(blocks)
    }

    fn rig_blocks(&self) -> Vec<Block> {
        let mut blocks = vec![Block::Heading("What was climbed".into())];
        if !self.rig.summary.is_empty() {
            blocks.push(Block::Paragraph(self.rig.summary.clone()));
        }
        let parts = self.rig.parts.iter();
        blocks.extend(parts.map(|part| {
            let about = [("firmware", &part.firmware), ("slot", &part.slot), ("since", &part.since)];
            let about = about.into_iter().filter(|(_, value)| !value.is_empty());
            let about: String = about.map(|(what, value)| format!(", {what} {value}")).collect();
            Block::Item(format!("{}: {} {}", part.kind, part.model, part.specimen).trim_end().to_owned() + &about)
        }));
        let changes = self.story.changes.iter().zip(2..);
        blocks.extend(changes.map(|(change, state)| {
            let first = self.story.trials.iter().find(|trial| trial.state >= state);
            let from =
                first.map_or("after the last trial".to_owned(), |trial| format!("from trial {} on", trial.number));
            Block::Item(format!("state {state} of the rig, {from}: {change}"))
        }));
        if !self.rig.cooling.is_empty() {
            blocks.push(Block::Item(format!("cooling: {}", self.rig.cooling)));
        }
        let history = self.rig.history.iter();
        blocks.extend(history.map(|history| Block::Item(history_words(history, self.rig))));
        if let Some(seed) = self.seed {
            blocks.push(Block::Item(format!("simulated specimen {seed}: no hardware was involved")));
        }
        blocks
    }

    fn outcome(&self) -> Vec<Block> {
        let story = self.story;
        let how = match &story.ended {
            Some(ended) => {
                let left = whereabouts(&ended.not_at_stock, ended.left_at.as_ref(), self.rig);
                format!("The climb is over: {}; {left}.", ended.end.sentence())
            }
            None => "The climb is not finished.".to_owned(),
        };
        let [held, slipped, fell] =
            [Verdict::Held, Verdict::Slipped, Verdict::Fell].map(|verdict| story.count(verdict));
        let (trials, tested) = (story.trials.len(), story.tested());
        let mut blocks = vec![
            Block::Heading("What was found".into()),
            Block::Paragraph(how),
            Block::Paragraph(format!(
                "{}: {held} held, {slipped} slipped, {fell} fell; {tested} of passes.",
                counted(trials, "trial")
            )),
        ];
        if story.marks.is_empty() {
            let of_stock = Claim::of_stock(story, self.rig, self.plan);
            let of_stock = of_stock.map(|claim| format!(" Stock {}.", claim_sentence(&claim))).unwrap_or_default();
            blocks.push(Block::Paragraph(format!("No mark stands.{of_stock}")));
        }
        let mark = |mark: &Mark| {
            let faster = story.trial(mark.trial).and_then(|trial| Faster::of(story, trial));
            let faster = faster.map(|faster| format!("; {}", faster_words(&faster))).unwrap_or_default();
            let claim = Claim::of_mark(story, self.rig, self.plan, mark);
            let claim = claim.map(|claim| format!("; {}", claim_sentence(&claim))).unwrap_or_default();
            let margin = margin_words(mark, self.plan, self.rig);
            let margin = margin.map(|margin| format!(", {margin}")).unwrap_or_default();
            let before = before_changes(mark, story);
            Block::Item(format!("Mark: {}{margin}{claim}{faster}{before}", mark_sentence(mark, self.rig)))
        };
        blocks.extend(story.marks.iter().map(mark));
        blocks.extend(story.profiles.iter().map(|profile| {
            let soaked = if profile.soaked { ", which held a soak" } else { "" };
            Block::Item(format!("Profile {}: {}{soaked}", profile.name, self.rig.written(&profile.rung)))
        }));
        blocks
    }

    fn map(&self) -> Result<Option<Block>, ChartError> {
        let sides = Terrain::usual(self.rig, self.plan);
        let Some(terrain) = sides.and_then(|sides| Terrain::of(self.story, self.rig, self.plan, &sides, None)) else {
            return Ok(None);
        };
        let caption =
            "The map: at a single stroke it holds, at a double one it falls, and what lies between is not known.";
        Ok(Some(Block::Picture { caption: caption.into(), figure: map(&terrain)? }))
    }

    fn limits(&self) -> Vec<Block> {
        let row = |setting: &periculum_core::model::setting::Setting| {
            let ceiling = setting.written(setting.ceiling(&self.plan.use_name));
            vec![setting.label.clone(), setting.written(setting.stock), setting.written(setting.floor), ceiling]
        };
        let mut blocks = vec![
            Block::Heading("How it was climbed".into()),
            Block::Paragraph(format!("Use: {}. Nothing was applied beyond these limits.", self.plan.use_name)),
            table(&["setting", "stock", "floor", "ceiling"], self.rig.settings_but_points().map(row).collect()),
        ];
        blocks.extend(self.plan.proofs.iter().map(|proof| {
            let passes = proof.passes.iter().map(|pass| match &pass.by_hand {
                Some(task) => format!("{} by hand, about {}: “{}”", pass.load, pass.length, task.ask),
                None => format!("{} for {}", pass.load, pass.length),
            });
            Block::Item(format!("Proof {}: {}", proof.name, passes.collect::<Vec<_>>().join(", then ")))
        }));
        let cut_offs = self.rig.sensors.iter().filter_map(|sensor| {
            Some(format!("{} {} {}", sensor.label, sensor.cut_offs(|_| None)?, sensor.unit).trim_end().to_owned())
        });
        let cut_offs: Vec<String> = cut_offs.collect();
        if !cut_offs.is_empty() {
            blocks.push(Block::Item(format!("Cut-offs, at which a pass is stopped at once: {}", cut_offs.join(", "))));
        }
        blocks.extend(self.silent());
        blocks
    }

    fn stages(&self) -> Vec<Block> {
        let mut blocks = vec![Block::Heading("Stages".into())];
        for raised in &self.plan.raised {
            let told = format!("The ceiling of {} was raised for this climb: {}", raised.setting, raised.because);
            blocks.push(Block::Item(told));
        }
        let end = |index: usize| self.story.stages.get(index).and_then(|told| told.end.as_ref());
        for (index, stage) in self.plan.stages.iter().enumerate() {
            let came_to = end(index).map_or("not begun, or not finished".to_owned(), |end| end.sentence(self.rig));
            let what = stage_words(stage, self.plan, self.rig);
            blocks.push(Block::Item(format!("Stage {}, {what}: {came_to}", index + 1)));
        }
        for end in self.story.stages.iter().filter_map(|told| told.end.as_ref()) {
            match end {
                StageEnd::EachKnown { alone, .. } => blocks.push(self.alone(alone)),
                StageEnd::Mapped { setting, over, border } => blocks.extend(self.border(setting, over, border)),
                _ => {}
            }
        }
        blocks
    }

    /// The limit of each setting alone.
    fn alone(&self, alone: &[Alone]) -> Block {
        let row = |one: &Alone| {
            let setting = self.rig.setting(&one.setting)?;
            Some(vec![setting.label.clone(), setting.written(one.value)])
        };
        table(&["alone", "holds"], alone.iter().filter_map(row).collect())
    }

    /// The limit of one setting at each value of another.
    fn border(&self, setting: &str, over: &str, border: &[Border]) -> Option<Block> {
        let (setting, over) = (self.rig.setting(setting)?, self.rig.setting(over)?);
        let row = |point: &Border| {
            let off = if point.trials == Some(0) { String::new() } else { format!("{:.1} steps", point.deviation) };
            vec![over.written(point.value), point.words(&setting.unit), off]
        };
        let limit = format!("limit of {}", setting.label);
        Some(table(&[&over.label, &limit, "give or take"], border.iter().map(row).collect()))
    }

    /// What each mark rests on: every pass of the trial that proved it.
    fn evidence(&self) -> Vec<Block> {
        let mut blocks = Vec::new();
        if !self.story.marks.is_empty() {
            blocks.push(Block::Heading("What the marks rest on".into()));
        }
        for mark in &self.story.marks {
            let Some(trial) = self.story.trial(mark.trial) else { continue };
            let mut told = format!("{}, trial {}: ", self.rig.written(&mark.rung), mark.trial);
            let passes = trial.passes.iter().filter_map(|pass| {
                let report = pass.report.as_ref()?;
                if pass.order.by_hand.is_some() {
                    return Some(made_by_hand(&pass.order.load, report));
                }
                let what = report.workload.as_ref().map(|workload| format!(", {workload}")).unwrap_or_default();
                Some(format!(
                    "{} for {}, {} rounds without a wrong one{what}",
                    pass.order.load, report.ran, report.rounds
                ))
            });
            told += &passes.collect::<Vec<_>>().join("; ");
            let same = self.story.trials.iter().filter(|other| other.rung == mark.rung && other.number != mark.trial);
            let (held, others) = same.fold((0, 0), |(held, others), trial| {
                (held + usize::from(trial.verdict == Some(Verdict::Held)), others + 1)
            });
            if others > 0 {
                told += &format!("; this rung held in {held} of {others} other trials");
            }
            blocks.push(Block::Item(told));
            blocks.extend(self.taken(trial));
        }
        blocks
    }

    /// What was asked, reported and measured of each setting in a trial; none where nothing was read back or measured.
    fn taken(&self, trial: &TrialStory) -> Option<Block> {
        let taken = readback::of_trial(trial, self.rig, self.traces);
        let known = taken.iter().filter(|taken| taken.reported.is_some() || taken.measured.is_some());
        let row = |taken: &Readback| {
            vec![
                taken.setting.label.clone(),
                taken.setting.written(taken.asked),
                taken.reported.map(|reported| taken.setting.written(reported)).unwrap_or_default(),
                taken.measured.map(|measured| measured_words(&measured, taken.setting)).unwrap_or_default(),
            ]
        };
        let rows: Vec<Vec<String>> = known.map(row).collect();
        (!rows.is_empty()).then(|| table(&["setting", "asked", "reported", "measured, mean"], rows))
    }

    /// What more money buys; nothing where no setting has alternatives with prices.
    fn money(&self) -> Vec<Block> {
        let currency = self.rig.paid().map(|paid| paid.currency).unwrap_or_default();
        let head = ["setting", "alternative", "paid", "best", "more money", "better by, %", "money for each per cent"];
        let row = |bought: &Bought, one: &Alternative| {
            let (measure, extra) = (&bought.measure, bought.extra(one).filter(|extra| !extra.money.is_zero()));
            let per_percent = extra.and_then(|extra| extra.per_percent);
            let told = [
                extra.map(|extra| with_unit(extra.money, &currency)),
                extra.map(|extra| format!("{:+.1}", extra.percent)),
                per_percent.map(|money| format!("{} {currency}", measured(money, 2)).trim_end().to_owned()),
            ];
            let best = format!("{} {}, {}", scored(one.best, one.best), measure.unit, measure.name());
            let setting = bought.setting;
            let itself = [setting.label.clone(), setting.written(one.value), with_unit(one.paid, &currency), best];
            itself.into_iter().chain(told.map(Option::unwrap_or_default)).collect::<Vec<String>>()
        };
        let all = bought(self.story, self.rig);
        let rows: Vec<Vec<String>> = all
            .iter()
            .flat_map(|bought| bought.alternatives.iter().map(move |one| (bought, one)))
            .map(|(bought, one)| row(bought, one))
            .collect();
        let heading = Block::Heading("More money for more speed".into());
        if rows.is_empty() { Vec::new() } else { vec![heading, table(&head, rows)] }
    }

    /// What the rig read at rest and under the load of its baseline; nothing where it was not measured at rest.
    fn baseline(&self) -> Vec<Block> {
        let baseline: Vec<&TrialStory> =
            self.story.trials.iter().filter(|trial| self.story.is_baseline(trial)).collect();
        let at_rest = |sensor: &Sensor| Some(self.story.at_rest(sensor, self.traces)?.mean);
        let loaded = |sensor: &Sensor| {
            let read = baseline.iter().filter_map(|trial| trial.spread(sensor, self.traces));
            Some(Spread::all(read)?.mean)
        };
        let room = self.rig.room();
        let over_room = |sensor: &Sensor, read: Option<f64>, of_room: Option<f64>| {
            let is_other = sensor.unit == "°C" && room.is_some_and(|room| room.name != sensor.name);
            Some(read? - of_room.filter(|_| is_other)?)
        };
        let rooms = [room.and_then(at_rest).or(room.and_then(loaded)), room.and_then(loaded)];
        let written = |value: Option<f64>, sensor: &Sensor, unit: &str| {
            value.map(|value| format!("{} {unit}", measured(value, sensor.decimals))).unwrap_or_default()
        };
        let row = |sensor: &Sensor| {
            let both = [at_rest(sensor), loaded(sensor)];
            let warmer = [0, 1].map(|at| over_room(sensor, both[at], rooms[at]));
            let read = both.map(|value| written(value, sensor, &sensor.unit));
            let warmer = warmer.map(|value| written(value, sensor, "K"));
            std::iter::once(sensor.label.clone()).chain(read).chain(warmer).collect::<Vec<String>>()
        };
        if !self.rig.sensors.iter().any(|sensor| at_rest(sensor).is_some()) {
            return Vec::new();
        }
        let known = self.rig.sensors.iter().filter(|sensor| at_rest(sensor).or(loaded(sensor)).is_some());
        let head = ["sensor", "at rest", "under load", "over the room, at rest", "over the room, under load"];
        vec![Block::Heading("The baseline, at rest and under load".into()), table(&head, known.map(row).collect())]
    }

    fn scores(&self) -> Result<Vec<Block>, ChartError> {
        let all = benchmarks(self.story, self.rig, self.plan, self.traces);
        if all.is_empty() {
            return Ok(Vec::new());
        }
        let head = ["benchmark", "at stock", "best", "at", "over stock, %", "noise of one, %"];
        let setting = self.plan.climbed_setting().and_then(|name| self.rig.setting(name));
        let row = |benchmark: &Benchmark| {
            let best = &benchmark.levels[benchmark.best];
            let at = best.value.zip(setting).map(|(value, setting)| setting.written(value));
            let unit = &benchmark.what.unit;
            vec![
                benchmark_words(benchmark, self.rig),
                benchmark.baseline.map(|(stock, _)| format!("{} {unit}", scored(stock, stock))).unwrap_or_default(),
                format!("{} {unit}", scored(best.mean(), best.mean())),
                at.unwrap_or_else(|| "as it is".into()) + &fate(best.verdict),
                best.over_baseline
                    .as_ref()
                    .map(|gain| percent_words(&gain.of_scores(benchmark.what.less_is_better)))
                    .unwrap_or_default(),
                benchmark.noise.map(|noise| format!("{:.2}", 100.0 * noise.deviation)).unwrap_or_default(),
            ]
        };
        let mut blocks = vec![Block::Heading("Scores".into()), table(&head, all.iter().map(row).collect())];
        let scatters = best_of_each(&all).into_iter().filter_map(|best| {
            let scatter = between_starts(self.story, &best.what)?;
            Some(Block::Item(format!("Starts, {}: {}", best.what.name(), scatter_words(&scatter))))
        });
        blocks.extend(scatters);
        blocks.push(Block::Paragraph("Behind ± is how far chance alone may be off, in 95 of 100 cases.".into()));
        let Some(over) = Over::usual(self.rig, self.plan) else { return Ok(blocks) };
        for best in best_of_each(&all) {
            let curves = family(&all, &best.what);
            if curves.iter().all(|benchmark| benchmark.levels.len() <= 2) {
                continue;
            }
            let shown = curves.iter().position(|benchmark| *benchmark == best).unwrap_or_default();
            let named: Vec<(String, &Benchmark)> =
                curves.into_iter().map(|benchmark| (beside_words(&benchmark.beside, self.rig), benchmark)).collect();
            let (axis, what) = (over.axis(), benchmark_words(best, self.rig));
            let caption = format!("Scores of {what} over {}, with their 95 % intervals.", axis.label);
            blocks.push(Block::Picture { caption, figure: score_curve(&named, shown, &axis)? });
        }
        Ok(blocks)
    }

    /// What the sensors read around each fall.
    fn falls(&self) -> Result<Vec<Block>, ChartError> {
        let is_fall = |told: &&IncidentStory| told.incident.kind.verdict() == Some(Verdict::Fell);
        let falls: Vec<&IncidentStory> = self.story.incidents.iter().filter(is_fall).collect();
        if falls.is_empty() || self.traces.is_empty() {
            return Ok(Vec::new());
        }
        let mut blocks = vec![Block::Heading("Around the falls".into())];
        let left_out = falls.len().saturating_sub(FALLS_SHOWN);
        if left_out > 0 {
            blocks
                .push(Block::Paragraph(format!("The last {FALLS_SHOWN}; {left_out} earlier ones are in the record.")));
        }
        for told in &falls[left_out..] {
            let from = Moment::from_millis(told.at.millis() - BEFORE.millis() as i64);
            let figure = traces_in_parts(self.traces, self.rig, self.story, [from, told.at + BEHIND], LOW)?;
            let caption = format!("{}: {}.", self.place(told), told.incident);
            blocks.push(Block::Picture { caption, figure });
        }
        Ok(blocks)
    }

    fn place(&self, told: &IncidentStory) -> String {
        let trial = told.trial.and_then(|number| self.story.trial(number));
        trial.map_or("outside any trial".to_owned(), |trial| {
            format!("trial {} at {}", trial.number, self.rig.written(&trial.rung))
        })
    }

    /// The sensors that read nothing: nobody may take that for "nothing happened".
    fn silent(&self) -> Option<Block> {
        let silent: Vec<&str> = self.story.silent(self.rig).iter().map(|sensor| sensor.label.as_str()).collect();
        (!silent.is_empty()).then(|| Block::Paragraph(format!("Sensors that read nothing: {}.", silent.join(", "))))
    }

    /// What the operator wrote down on the way.
    fn notes(&self) -> Vec<Block> {
        let began = self.story.began.unwrap_or_default();
        let note = |(at, entry): &(Moment, Entry)| match entry {
            Entry::Operator { said: Said::Note { text } } => {
                Some(Block::Item(format!("{} into the climb: {}", at.since(began), harmless(text))))
            }
            _ => None,
        };
        let notes: Vec<Block> = self.story.log.iter().filter_map(note).collect();
        if notes.is_empty() {
            return notes;
        }
        std::iter::once(Block::Heading("Notes".into())).chain(notes).collect()
    }

    fn incidents(&self) -> Vec<Block> {
        let mut blocks = vec![Block::Heading("Incidents".into())];
        if self.story.incidents.is_empty() {
            blocks.push(Block::Paragraph("None.".into()));
        }
        let item = |told: &IncidentStory| Block::Item(format!("{}, {}", self.place(told), told.incident));
        blocks.extend(self.story.incidents.iter().map(item));
        blocks
    }

    /// Every trial in a line, with a column for each setting that was moved.
    fn trials(&self) -> Vec<Block> {
        let (moved, kept) = self.moved_and_kept();
        let titles: Vec<String> = moved.iter().map(|setting| setting.title()).collect();
        let mut head = vec!["", "trial"];
        head.extend(titles.iter().map(String::as_str));
        head.extend(["verdict", "proof", "passes ran", "score", "over stock, %", "why"]);
        let rows = self.story.trials.iter().map(|trial| self.trial_row(trial, &moved)).collect();
        let first = self.story.trials.first();
        let told = kept.iter().filter_map(|setting| {
            let value = first?.rung.get(&setting.name)?;
            Some(format!("{} {}", setting.label, setting.written(value)))
        });
        let told = told.collect::<Vec<_>>().join(", ");
        let all_at = (!told.is_empty()).then(|| Block::Paragraph(format!("All of them at {told}.")));
        let all = [Block::Heading("Trials".into())].into_iter().chain(all_at).chain([table(&head, rows)]);
        all.chain(self.attempts()).chain(self.readings()).collect()
    }

    /// What the sensors read in each trial: the least, the mean and the most.
    fn readings(&self) -> Vec<Block> {
        let trials = &self.story.trials;
        let cell = |sensor: &Sensor, nth: usize| {
            let to = trials.get(nth + 1).map_or(self.story.latest, |next| next.began);
            let Spread { least, mean, greatest, .. } = self.traces.get(&sensor.name)?.between(trials[nth].began, to)?;
            Some([least, mean, greatest].map(|value| measured(value, sensor.decimals)).join(" · "))
        };
        let is_told = |sensor: &&Sensor| sensor.words.is_empty() && self.traces.contains_key(&sensor.name);
        let sensors: Vec<&Sensor> = self.rig.sensors.iter().filter(is_told).collect();
        let some = |sensors: &[&Sensor]| {
            let title = |sensor: &&Sensor| match sensor.unit.as_str() {
                "" => sensor.label.clone(),
                unit => format!("{}, {unit}", sensor.label),
            };
            let titles: Vec<String> = sensors.iter().map(title).collect();
            let head: Vec<&str> = std::iter::once("trial").chain(titles.iter().map(String::as_str)).collect();
            let row = |nth: usize| {
                let cells = sensors.iter().map(|sensor| cell(sensor, nth).unwrap_or_default());
                std::iter::once(trials[nth].number.to_string()).chain(cells).collect()
            };
            table(&head, (0..trials.len()).map(row).collect())
        };
        let tables: Vec<Block> = sensors.chunks(READINGS_ABREAST).map(some).collect();
        let head = [
            Block::Heading("What the sensors read".into()),
            Block::Paragraph("Of each trial the least, the mean and the most.".into()),
        ];
        if tables.is_empty() || trials.is_empty() { Vec::new() } else { head.into_iter().chain(tables).collect() }
    }

    /// What came of each trial, of everything that is known: as many columns beside each other as a page has room for.
    fn attempts(&self) -> Vec<Block> {
        let attempts = Attempts { story: self.story, rig: self.rig, traces: self.traces };
        let columns = attempts.columns();
        let came_of_it: Vec<&Column> = columns.iter().filter(|column| !column.is_given()).collect();
        let trials: Vec<&TrialStory> = self.story.trials.iter().collect();
        let some = |columns: &[&Column]| {
            let ends: Vec<_> = columns.iter().map(|column| attempts.extremes(column, &trials)).collect();
            let row = |trial: &&TrialStory| {
                let cell = |(column, ends): (&&Column, &Option<(f64, f64)>)| {
                    let cell = attempts.cell(column, trial);
                    let number = cell.number();
                    let is = |end: f64| number.is_some_and(|number| number.total_cmp(&end).is_eq());
                    match ends {
                        Some((best, _)) if is(*best) => format!("{} (best)", cell.text()),
                        Some((_, worst)) if is(*worst) => format!("{} (worst)", cell.text()),
                        _ => cell.text().to_owned(),
                    }
                };
                std::iter::once(trial.number.to_string())
                    .chain(columns.iter().zip(&ends).map(cell))
                    .collect::<Vec<String>>()
            };
            let titles = columns.iter().map(|column| column.title.as_str());
            let head: Vec<&str> = std::iter::once("trial").chain(titles).collect();
            table(&head, trials.iter().map(row).collect())
        };
        let tables: Vec<Block> = came_of_it.chunks(ABREAST).map(some).collect();
        let head = Block::Heading("What came of each trial".into());
        if tables.is_empty() { Vec::new() } else { std::iter::once(head).chain(tables).collect() }
    }

    /// The settings that had different values in different trials, and those that had not.
    fn moved_and_kept(&self) -> (Vec<&Setting>, Vec<&Setting>) {
        let value = |trial: &TrialStory, setting: &Setting| trial.rung.get(&setting.name);
        let was_moved = |setting: &&Setting| {
            self.story.trials.windows(2).any(|pair| value(&pair[0], setting) != value(&pair[1], setting))
        };
        let is_told = |setting: &&Setting| was_moved(setting) || !self.rig.is_point(setting);
        self.rig.settings.iter().filter(is_told).partition(was_moved)
    }

    fn trial_row(&self, trial: &TrialStory, moved: &[&Setting]) -> Vec<String> {
        let gain = trial.gain.zip(trial.score()).map(|(gain, score)| gain.of_scores(score.less_is_better));
        let score = trial.score().map(|score| format!("{} {}", measured(score.value, 1), score.unit));
        let value = |setting: &&Setting| trial.rung.get(&setting.name).map(|value| setting.written_short(value));
        let mut row = vec![trial.verdict.map_or('○', |verdict| verdict.sign()).to_string(), trial.number.to_string()];
        row.extend(moved.iter().map(value).map(Option::unwrap_or_default));
        row.extend([
            trial.verdict.map_or("open", |verdict| verdict.name()).to_owned(),
            trial.put_to(),
            trial.tested.to_string(),
            score.unwrap_or_default(),
            // How sure that is stands under the scores, once, from all measurements together.
            gain.map(|gain| format!("{:+.1}", 100.0 * gain.change)).unwrap_or_default(),
            trial.reason.because(self.rig),
        ]);
        row
    }

    fn record(&self) -> Vec<Block> {
        let digest: String = self.digest.iter().map(|byte| format!("{byte:02x}")).collect();
        vec![
            Block::Heading("The record".into()),
            Block::Paragraph(format!(
                "Written by Periculum {}. SHA-256 over the climb's record in the ledger: {digest}",
                self.version
            )),
        ]
        .into_iter()
        .chain(self.attached())
        .collect()
    }

    /// What somebody laid beside the record afterwards.
    fn attached(&self) -> Option<Block> {
        let attached = self.rig.sensors.iter().filter(|sensor| sensor.is_attached());
        let named: Vec<String> = attached.map(|sensor| format!("{} ({})", sensor.label, sensor.source)).collect();
        let what = named.join(", ");
        let told = format!("Attached when the climb was over, and not under that digest: {what}.");
        (!named.is_empty()).then_some(Block::Paragraph(told))
    }
}

fn table(head: &[&str], rows: Vec<Vec<String>>) -> Block {
    Block::Table(Sheet { head: head.iter().map(|name| (*name).to_owned()).collect(), rows })
}
/// How a rung ended whose score counts though it did not hold.
fn fate(verdict: Verdict) -> String {
    if verdict == Verdict::Held { String::new() } else { format!(", {verdict}") }
}

/// A pass that somebody made, as `disc by hand for 4 min, which read ticks 1 800, picture clean`.
fn made_by_hand(load: &str, report: &PassReport) -> String {
    let read = report.written.iter().map(|(name, typed)| format!("{name} {typed}"));
    let read = read.collect::<Vec<_>>().join(", ");
    let told = if read.is_empty() { String::new() } else { format!(", which read {read}") };
    format!("{load} by hand for {}{told}", report.ran)
}
