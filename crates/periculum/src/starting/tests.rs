//! What somebody may want leads to files that can be read, foreseen and climbed.

use std::path::Path;

use periculum_core::files::added::{Way, with_added};
use periculum_core::model::moment::Span;
use periculum_core::model::plan::Start;

use super::{Intent, KnownRig, Origin, Page, Proposal, Wish};
use crate::practice;

fn practised() -> Vec<KnownRig> {
    let read = |it: practice::Practice| {
        let known = KnownRig::of(Origin::Practice, it.rig.to_owned()).expect("a rig");
        assert_eq!(known.rig.name, it.name);
        known
    };
    practice::RIGS.map(read).into_iter().collect()
}

/// Every way to fulfil a wish on a rig.
fn intents(known: &KnownRig, wish: Wish) -> Vec<Intent> {
    let uses = if wish.moves() { Wish::uses(&known.rig).into_iter().map(Some).collect() } else { vec![None] };
    let settings = wish.settings(&known.rig);
    let settings: Vec<Option<String>> = match wish.needs_setting() {
        true => settings.into_iter().map(|setting| Some(setting.name.clone())).collect(),
        false => vec![None],
    };
    let hours = if wish.needs_time() { vec![Some(1), Some(48)] } else { vec![None] };
    let mut all = Vec::new();
    for use_name in uses {
        for setting in &settings {
            for hours in &hours {
                all.push(Intent {
                    wish,
                    use_name: use_name.clone(),
                    setting: setting.clone(),
                    start: None,
                    hours: *hours,
                });
            }
        }
    }
    all
}

/// Each rig by itself beside the others, since there is much to reckon.
#[test]
fn whatever_is_wanted_of_a_practice_rig_becomes_a_plan_that_ends() {
    std::thread::scope(|scope| practised().into_iter().for_each(|known| drop(scope.spawn(move || wishes_end(&known)))));
}

/// Every wish is read; what a plan would take is reckoned of the first and the last of those that differ in use, setting and time only,
/// since that plays it many times.
fn wishes_end(known: &KnownRig) {
    let folder = tempfile::tempdir().expect("a folder");
    for wish in Wish::ALL.iter().filter(|wish| wish.lacks(&known.rig).is_none()) {
        let intents = intents(known, *wish);
        let proposals: Vec<Proposal> =
            intents.iter().map(|intent| Proposal::of(known, intent, folder.path())).collect();
        for (proposal, intent) in proposals.iter().zip(&intents) {
            assert!(proposal.briefing(known).is_ok_and(|briefing| !briefing.plan.stages.is_empty()), "{intent:?}");
        }
        for nth in std::collections::BTreeSet::from([0, intents.len() - 1]) {
            let review = proposals[nth].review(known, Path::new("/")).expect("a plan");
            assert!(!review.forecast.goes_on, "{:?}", intents[nth]);
            assert!(review.forecast.whole[1].trials > 0 && review.written.is_empty(), "{:?}", intents[nth]);
            let [least, most] = review.forecast.whole;
            assert!(least.time > Span::ZERO && least.time <= most.time, "{:?}", intents[nth]);
        }
    }
}

/// Nothing runs by itself on a rig that is elsewhere: a person uses it, and says how that went.
#[test]
fn whatever_is_wanted_of_a_rig_elsewhere_is_made_by_somebody() {
    let folder = tempfile::tempdir().expect("a folder");
    let text = include_str!("../../../../demo/tape.rig.toml").to_owned();
    let known = KnownRig::of(Origin::Practice, text).expect("a rig");
    for wish in Wish::ALL.iter().filter(|wish| wish.lacks(&known.rig).is_none()) {
        for intent in intents(&known, *wish) {
            let review = Proposal::of(&known, &intent, folder.path()).review(&known, Path::new("/")).expect("a plan");
            let plan = &review.briefing.plan;
            assert!(
                plan.proofs.iter().flat_map(|proof| &proof.passes).all(|pass| pass.by_hand.is_some()),
                "{intent:?}"
            );
            assert!(review.forecast.whole[1].trials > 0, "{intent:?}");
        }
    }
}

#[test]
fn a_file_of_another_text_is_never_written_over_and_one_of_the_same_is_used_again() {
    let folder = tempfile::tempdir().expect("a folder");
    let known = practised().remove(0);
    let intent = Intent { wish: Wish::Lead, use_name: Some("daily".into()), setting: None, start: None, hours: None };
    std::fs::write(folder.path().join("dome.rig.toml"), "mine").expect("written");
    let first = Proposal::of(&known, &intent, folder.path());
    let names: Vec<_> = first.files().iter().filter_map(|path| path.file_name()).collect();
    assert_eq!(names, ["dome-2.rig.toml", "dome-take-the-lead.plan.toml"]);
    first.write(&[]).expect("written");
    assert_eq!(std::fs::read_to_string(folder.path().join("dome.rig.toml")).expect("read"), "mine");
    let again = Proposal::of(&known, &intent, folder.path());
    assert!(again.files().is_empty(), "{:?}", again.files());
    assert_eq!(again.plan, first.plan);
    let other = Proposal::of(&known, &Intent { use_name: Some("bench".into()), ..intent }, folder.path());
    assert_eq!(other.plan.file_name(), Some("dome-take-the-lead-2.plan.toml".as_ref()));
}

#[test]
fn rigs_of_the_folder_go_before_those_that_ship_and_broken_ones_are_left_out() {
    let folder = tempfile::tempdir().expect("a folder");
    std::fs::write(folder.path().join("own.rig.toml"), practice::DOME.rig).expect("written");
    std::fs::write(folder.path().join("broken.rig.toml"), "format = ").expect("written");
    let page = Page::read(None, folder.path(), Path::new("/")).expect("a page");
    let names: Vec<(&str, bool)> =
        page.rigs.iter().skip(1).map(|known| (known.rig.name.as_str(), known.origin == Origin::Practice)).collect();
    let all = practice::names().into_iter().map(|name| (name, name != "dome"));
    assert_eq!(names, all.collect::<Vec<_>>());
    assert_eq!(page.rigs[0].origin, Origin::ThisMachine);
    assert!(page.waiting.is_empty() && page.climbs.is_empty());
}

#[test]
fn a_rig_without_room_says_what_it_lacks_and_can_be_proved_and_scored_as_it_is() {
    let text = "format = 1\n[rig]\nname = \"bare\"\n";
    let known = KnownRig::of(Origin::Made, text.into()).expect("a rig");
    let can = |wish: &&Wish| wish.lacks(&known.rig).is_none();
    assert_eq!(Wish::ALL.iter().filter(can).copied().collect::<Vec<_>>(), [Wish::Prove, Wish::Score]);
}

#[test]
fn a_setting_that_somebody_changes_by_hand_can_be_climbed_at_once() {
    let text = "format = 1\n[rig]\nname = \"bare\"\n";
    let answers = ["Bus clock", "MHz", "7", "0,5", "12", "8", "11", "up"].map(str::to_owned);
    let made =
        with_added(text, Way::ByHand, &answers).and_then(|text| KnownRig::of(Origin::Made, text)).expect("a rig");
    let can = |wish: &&Wish| wish.lacks(&made.rig).is_none();
    assert_eq!(Wish::ALL.iter().filter(can).count(), Wish::ALL.len() - 1, "all but less of it");
    let folder = tempfile::tempdir().expect("a folder");
    for intent in intents(&made, Wish::FindLimit) {
        let review = Proposal::of(&made, &intent, folder.path()).review(&made, Path::new("/")).expect("a plan");
        assert!(review.forecast.whole[1].by_hand > 0);
    }
}

#[test]
fn where_somebody_starts_from_a_profile_the_plan_says_what_that_is() {
    let folder = tempfile::tempdir().expect("a folder");
    let mut known = practised().remove(0);
    let rung = known.rig.stock().with("core_clock", 4500.into());
    known.profiles = vec![("evening \"fast\"".to_owned(), rung.clone())];
    for wish in [Wish::Lead, Wish::FindLimit] {
        let (use_name, setting) = (Some("daily".into()), Some("core_clock".into()));
        let start = Some(known.profiles[0].0.clone());
        let intent = Intent { wish, use_name, setting, start, hours: Some(1) };
        let review = Proposal::of(&known, &intent, folder.path()).review(&known, Path::new("/")).expect("a plan");
        let starts = review.briefing.plan.stages.iter().filter(|stage| stage.start == Start::Profile(rung.clone()));
        assert_eq!(starts.count(), 1, "{wish:?}");
    }
}
