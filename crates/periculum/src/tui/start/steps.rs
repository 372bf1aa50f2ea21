//! Which leaf follows which answer, up to the review.

use std::path::Path;

use periculum_core::files::added::{Way, offered};
use periculum_core::model::quantity::counted;
use periculum_core::telling::{forecast_words, history_words, kind_words, stage_words};
use periculum_ledger::ClimbRow;

use super::leaf::{Act, Choice, Leaf};
use crate::commands::local_date;
use crate::starting::{Intent, KnownRig, Origin, Page, Review, Waiting, Wish};
use crate::telling::starting;

/// What was said so far.
#[derive(Clone, Debug, Default)]
pub(super) struct Answers {
    pub(super) wish: Option<Wish>,
    pub(super) use_name: Option<String>,
    pub(super) setting: Option<String>,
    /// Where it starts: a profile, or stock.
    pub(super) start: Option<Option<String>>,
    pub(super) hours: Option<u32>,
}

/// What is asked next, or everything that is wanted.
pub(super) enum Next {
    Ask(Leaf),
    Know(Intent),
}

/// The first leaf.
pub(super) fn first(page: &Page) -> Leaf {
    let waiting = page.waiting.iter().map(waits).collect::<Vec<_>>();
    let rigs = page.rigs.iter().enumerate().map(|(place, known)| rig_line(place, known)).collect();
    let digits = page.climbs.iter().map(|(row, _)| row.climb.to_string().len()).max().unwrap_or_default();
    let climbs = page.climbs.iter().map(|(row, mark)| climb_line(row, digits, mark.as_deref())).collect();
    let above = if waiting.is_empty() { vec![starting::NOTHING_WAITS.to_owned()] } else { Vec::new() };
    let groups = [(starting::WAITS, waiting), (starting::RIGS, rigs), (starting::CLIMBS, climbs)];
    let groups = groups.into_iter().filter(|(_, choices): &(_, Vec<Choice>)| !choices.is_empty());
    Leaf { title: String::new(), above, groups: groups.map(|(title, all)| (title.to_owned(), all)).collect(), at: 0 }
}

fn waits(Waiting { row, since, at }: &Waiting) -> Choice {
    let label = starting::goes_on(&row.rig, row.trials, local_date(*since));
    let beside = at.as_ref().map(starting::goes_on_with).unwrap_or_default();
    Choice::new(label, "", beside, Act::Resume(row.climb))
}

fn rig_line(place: usize, known: &KnownRig) -> Choice {
    let mark = known.mark.as_ref().map(starting::its_mark).unwrap_or_default();
    let fact = starting::rig_fact(starting::origin_words(&known.origin), mark);
    let told = [known.rig.summary.clone(), known.parts()].into_iter().filter(|text| !text.is_empty());
    Choice::new(known.rig.name.clone(), fact, told.collect::<Vec<_>>().join("; "), Act::Rig(place))
}

fn climb_line(row: &ClimbRow, digits: usize, mark: Option<&str>) -> Choice {
    let label = starting::climb_of(format!("{:>digits$}", row.climb), &row.rig, local_date(row.wall));
    let fact = mark.map_or(starting::NO_MARK.to_owned(), starting::its_mark);
    let trials = counted(row.trials as usize, "trial");
    let beside = starting::climb_beside(&row.plan, &row.use_name, trials, row.tested);
    Choice::new(label, fact, beside, Act::Open(row.climb))
}

/// What may be wanted of a rig; what can't be says why, and what would help.
pub(super) fn wishes(known: &KnownRig) -> Leaf {
    let choice = |wish: &Wish| {
        let label = starting::name_of(*wish);
        match wish.lacks(&known.rig) {
            None => Choice::new(label, "", starting::beside_wish(*wish), Act::Wish(*wish)),
            Some(lack) => {
                Choice { act: None, ..Choice::new(label, "", starting::lack_words(lack), Act::Add(Way::ByHand)) }
            }
        }
    };
    let mut groups = vec![(String::new(), Wish::ALL.iter().map(choice).collect())];
    if known.origin == Origin::ThisMachine || known.origin == Origin::Made {
        let offered = offered(&known.text).into_iter().filter(|name| known.rig.setting(name).is_none());
        let mut more: Vec<Choice> = offered
            .map(|name| Choice::new(starting::ceiling_for(&name), "", starting::OFFERED_HERE, Act::Offered(name)))
            .collect();
        more.push(Choice::new(starting::ADD_BY_HAND, "", starting::BY_HAND_HERE, Act::Add(Way::ByHand)));
        more.push(Choice::new(starting::ADD_BOOT_LINE, "", starting::BOOT_LINE_HERE, Act::Add(Way::BootLine)));
        groups.push((starting::MORE_SETTINGS.to_owned(), more));
    }
    Leaf { title: starting::what_with(&known.rig.name), above: Vec::new(), groups, at: 0 }
}

/// The next question, where there is more than one answer to it.
pub(super) fn next(known: &KnownRig, answers: &mut Answers) -> Next {
    let Some(wish) = answers.wish else { return Next::Ask(wishes(known)) };
    if wish.moves() && answers.use_name.is_none() {
        match <[String; 1]>::try_from(Wish::uses(&known.rig)) {
            Ok([only]) => answers.use_name = Some(only),
            Err(uses) => return Next::Ask(uses_of(known, uses)),
        }
    }
    if wish.needs_setting() && answers.setting.is_none() {
        let use_name = answers.use_name.clone().unwrap_or_default();
        let settings = wish.settings(&known.rig);
        match settings[..] {
            [only] => answers.setting = Some(only.name.clone()),
            _ => {
                let choices = settings.into_iter().map(|setting| {
                    let bounds = starting::setting_beside(
                        setting.written(setting.stock),
                        setting.written(setting.hardest(&use_name)),
                    );
                    Choice::new(setting.label.clone(), bounds, "", Act::Setting(setting.name.clone()))
                });
                return Next::Ask(question(starting::WHICH_SETTING, choices.collect()));
            }
        }
    }
    if wish.may_start_elsewhere() && answers.start.is_none() {
        let use_name = answers.use_name.clone().unwrap_or_default();
        let profiles = known.profiles.iter().filter(|(_, rung)| known.rig.permit(rung, &use_name).is_ok());
        let profiles = profiles
            .map(|(name, rung)| Choice::new(name.clone(), known.rig.written(rung), "", Act::Start(Some(name.clone()))));
        let stock = known.rig.written(&known.rig.stock());
        let stock = Choice::new(starting::AT_STOCK, stock, "", Act::Start(None));
        let choices: Vec<Choice> = std::iter::once(stock).chain(profiles).collect();
        if choices.len() > 1 {
            return Next::Ask(question(starting::WHERE_FROM, choices));
        }
        answers.start = Some(None);
    }
    if wish.needs_time() && answers.hours.is_none() {
        let choices = starting::TIMES.map(|(hours, words)| Choice::new(words, "", "", Act::Hours(hours)));
        return Next::Ask(question(starting::HOW_LONG, choices.to_vec()));
    }
    let Answers { use_name, setting, start, hours, .. } = answers.clone();
    Next::Know(Intent { wish, use_name, setting, start: start.flatten(), hours })
}

fn uses_of(known: &KnownRig, uses: Vec<String>) -> Leaf {
    let choice = |use_name: String| {
        let ceilings = known.rig.settings_but_points().filter(|setting| setting.ceilings.contains_key(&use_name));
        let told: Vec<String> = ceilings
            .map(|setting| starting::at_most(&setting.label, setting.written(setting.ceiling(&use_name))))
            .collect();
        Choice::new(use_name.clone(), told.join(", "), "", Act::Use(use_name))
    };
    question(starting::WHICH_USE, uses.into_iter().map(choice).collect())
}

fn question(title: &str, choices: Vec<Choice>) -> Leaf {
    Leaf { title: title.to_owned(), above: Vec::new(), groups: vec![(String::new(), choices)], at: 0 }
}

/// What can be done with what was answered.
pub(super) fn beginnings() -> Vec<Choice> {
    vec![
        Choice::new(starting::BEGIN, "", starting::BEGINS_NOW, Act::Begin),
        Choice::new(starting::LOOK_AT_PLAN, "", starting::OPENS_PLAN, Act::Edit),
    ]
}

/// What can be done with a plan whose file is there.
pub(super) fn going() -> Vec<Choice> {
    vec![
        Choice::new(starting::BEGIN, "", starting::GOES_NOW, Act::Go),
        Choice::new(starting::NOT_NOW, "", starting::LEAVES_ALL, Act::Leave),
    ]
}

/// Everything that somebody has to know before it begins.
pub(super) fn review(review: &Review, choices: Vec<Choice>) -> Leaf {
    let Review { briefing, kinds, forecast, written, files } = review;
    let (rig, plan) = (&briefing.rig, &briefing.plan);
    let mut above = vec![starting::of_rig(&rig.name, &plan.name, &plan.use_name), String::new()];
    above.extend(plan.stages.iter().map(|stage| starting::stage(stage_words(stage, plan, rig))));
    above.extend([String::new(), forecast_words(forecast), starting::NINE_OF_TEN.into(), String::new()]);
    let told = rig.history.iter().filter(|_| briefing.claims());
    above.extend(told.map(|history| history_words(history, rig)));
    above.extend(kinds.iter().map(|kind| kind_words(kind, rig)));
    let moved = rig.settings_but_points().filter(|setting| setting.hardest(&plan.use_name) != setting.stock);
    above.extend(moved.map(|setting| {
        let (floor, ceiling) = (setting.floor, setting.ceiling(&plan.use_name));
        starting::bounds(&setting.label, setting.written(floor), setting.written(ceiling))
    }));
    above.extend(written.iter().map(|one| starting::is_written_to(&one.label, &one.target)));
    if written.is_empty() {
        above.push(starting::NOTHING_IS_WRITTEN.to_owned());
    }
    above.extend(briefing.warnings().iter().chain(&briefing.taken_for_granted()).map(starting::but_it));
    above.push(String::new());
    let names: Vec<String> = files.iter().map(|file| name(file)).collect();
    if !names.is_empty() {
        above.push(starting::files_written(names.join(", ")));
    }
    Leaf { title: starting::REVIEW.to_owned(), above, groups: vec![(String::new(), choices)], at: 0 }
}

fn name(path: &Path) -> String {
    path.strip_prefix(".").unwrap_or(path).display().to_string()
}
