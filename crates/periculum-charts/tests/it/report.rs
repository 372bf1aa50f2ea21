//! The report: what it claims, what that rests on, and what it must not leave out.

use std::collections::BTreeMap;

use periculum_charts::{Block, Reported, Sheet, report_markdown, report_pdf};
use periculum_core::engine::{ClimbEnd, Entry, Said};
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::Span;
use periculum_core::model::plan::Plan;
use periculum_core::model::rig::Rig;
use periculum_core::model::verdict::Verdict;
use periculum_core::story::Story;
use periculum_core::story::series::Series;

use crate::common::{TRIAL, Teller, every_second, moment, rig_and_plan};

struct Told {
    rig: Rig,
    plan: Plan,
    story: Story,
    traces: BTreeMap<String, Series>,
}

impl Told {
    fn of(teller: Teller) -> Self {
        let (rig, plan) = rig_and_plan();
        Self { rig, plan, story: teller.story, traces: BTreeMap::new() }
    }

    fn reported(&self) -> Reported<'_> {
        Reported {
            number: 7,
            seed: None,
            begun: "2031-05-04 21:00 UTC",
            story: &self.story,
            rig: &self.rig,
            plan: &self.plan,
            traces: &self.traces,
            digest: [0xab; 32],
            version: "9.9",
        }
    }

    fn blocks(&self) -> Vec<Block> {
        self.reported().blocks().expect("drawn")
    }

    fn markdown(&self) -> String {
        report_markdown(&self.blocks())
    }
}

/// Two trials that held and one that fell between them, the first with a mark.
fn climb() -> Teller {
    let mut teller = Teller::new();
    let held = teller.trial((4300, 1200), 100.0, Verdict::Held);
    let fell = teller.trial((4350, 1200), 101.0, Verdict::Fell);
    let wrong = Incident::new(IncidentKind::WrongResult, "expected 1, found 2").at("core 3");
    teller.incident(TRIAL + 41_000, Some(fell), wrong.into_pass(Span::from_seconds(41)));
    teller.trial((4300, 1200), 100.2, Verdict::Held);
    teller.mark(held);
    teller
}

fn table<'a>(blocks: &'a [Block], column: &str) -> Option<&'a Sheet> {
    let sheets = blocks.iter().filter_map(|block| if let Block::Table(sheet) = block { Some(sheet) } else { None });
    sheets.into_iter().find(|sheet| sheet.head.iter().any(|name| name == column))
}

fn captions(blocks: &[Block]) -> Vec<&str> {
    let caption = |block: &Block| matches!(block, Block::Picture { .. });
    let pictures = blocks.iter().filter(|block| caption(block));
    pictures.map(|block| if let Block::Picture { caption, .. } = block { caption.as_str() } else { "" }).collect()
}

#[test]
fn a_mark_is_told_with_what_it_rests_on() {
    let text = Told::of(climb()).markdown();
    assert!(text.starts_with("# Climb 7: up on bench \"one\"\n"), "{text}");
    assert!(text.contains("3 trials: 2 held, 0 slipped, 1 fell"), "{text}");
    assert!(text.contains("Mark: 4 300 MHz"), "{text}");
    assert!(text.contains("7 rounds without a wrong one"), "{text}");
    assert!(text.contains("this rung held in 1 of 1 other trials"), "{text}");
    assert!(text.contains("trial 2 at 4 350 MHz") && text.contains("expected 1, found 2"), "{text}");
    assert!(text.contains(&"ab".repeat(32)), "the digest: {text}");
}

#[test]
fn the_gain_that_is_handed_over_is_that_of_the_mark() {
    let mut teller = Teller::new();
    [100.0, 100.2].iter().for_each(|score| _ = teller.at_stock(*score));
    let marked = teller.trial((4300, 1200), 102.1, Verdict::Held);
    teller.trial((4350, 1200), 110.0, Verdict::Held);
    teller.mark(marked);
    let text = Told::of(teller).markdown();
    assert!(text.contains("| gain | +2.0 "), "what is harder and not claimed gains more: {text}");
}

#[test]
fn a_mark_at_stock_gains_nothing() {
    let mut teller = Teller::new();
    let marked = teller.trial((4200, 1200), 100.0, Verdict::Held);
    teller.trial((4300, 1200), 102.0, Verdict::Held);
    teller.mark(marked);
    let text = Told::of(teller).markdown();
    assert!(text.contains("| gain | none: the mark is stock |"), "{text}");
}

#[test]
fn a_rung_that_fell_again_is_not_hidden_behind_its_mark() {
    let mut teller = climb();
    teller.trial((4300, 1200), 90.0, Verdict::Fell);
    assert!(Told::of(teller).markdown().contains("this rung held in 1 of 2 other trials"));
}

#[test]
fn without_a_mark_it_says_so_and_promises_no_evidence() {
    let mut teller = Teller::new();
    teller.trial((4300, 1200), 100.0, Verdict::Fell);
    let text = Told::of(teller).markdown();
    assert!(text.contains("No mark stands."), "{text}");
    assert!(!text.contains("What the marks rest on"), "{text}");
    assert!(text.contains("The climb is not finished."), "{text}");
}

#[test]
fn how_it_ended_is_said_in_a_sentence() {
    let mut teller = climb();
    let tested = Span::from_seconds(180);
    teller.tell(
        4 * TRIAL,
        &Entry::Ended {
            end: ClimbEnd::Stopped,
            marks: Vec::new(),
            trials: 3,
            falls: 1,
            tested,
            test_hours: tested.hours(),
            not_at_stock: Vec::new(),
            left_at: None,
        },
    );
    assert!(Told::of(teller).markdown().contains("The climb is over: the operator stopped it; "));
}

#[test]
fn the_limits_of_the_use_are_told() {
    let told = Told::of(climb());
    let blocks = told.blocks();
    let limits = table(&blocks, "ceiling").expect("limits");
    assert_eq!(limits.rows[0], ["core clock", "4 200 MHz", "4 000 MHz", "4 800 MHz"]);
    assert!(told.markdown().contains("hottest core 95 °C"), "{}", told.markdown());
}

#[test]
fn only_settings_that_moved_have_a_column() {
    let told = Told::of(climb());
    let blocks = told.blocks();
    let trials = table(&blocks, "why").expect("trials");
    assert!(trials.head.iter().any(|name| name.starts_with("core clock")), "{:?}", trials.head);
    assert!(!trials.head.iter().any(|name| name.starts_with("core voltage")), "{:?}", trials.head);
    assert!(told.markdown().contains("All of them at core voltage 1 200 mV."));
    assert_eq!(trials.rows.len(), 3);
    assert_eq!(trials.rows[1][..2], ["✕", "2"]);
}

#[test]
fn notes_are_told_with_their_time_and_can_do_no_harm() {
    let mut teller = climb();
    let text = "the fan rattles \u{202e}\u{1b}[2J *loudly*".to_owned();
    teller.tell(90_000, &Entry::Operator { said: Said::Note { text } });
    let text = Told::of(teller).markdown();
    assert!(text.contains("## Notes") && text.contains("into the climb: the fan rattles"), "{text}");
    assert!(!text.contains(['\u{202e}', '\u{1b}']) && text.contains("\\*loudly\\*"), "{text}");
}

#[test]
fn a_climb_without_notes_has_no_heading_for_them() {
    assert!(!Told::of(climb()).markdown().contains("Notes"));
}

#[test]
fn a_simulated_specimen_is_no_hardware() {
    let told = Told::of(climb());
    let simulated = Reported { seed: Some(42), ..told.reported() }.blocks().expect("drawn");
    let words = "simulated specimen 42: no hardware was involved";
    assert!(report_markdown(&simulated).contains(words));
    assert!(!told.markdown().contains("simulated specimen"), "and what is none is not called one");
}

#[test]
fn sensors_that_read_nothing_are_named() {
    let text = Told::of(climb()).markdown();
    assert!(text.contains("Sensors that read nothing: hottest core, fan."), "{text}");
}

#[test]
fn of_many_falls_the_last_are_drawn_and_the_others_counted() {
    let mut teller = Teller::new();
    for _ in 0..15 {
        let trial = teller.trial((4350, 1200), 100.0, Verdict::Fell);
        let at = i64::from(trial - 1) * TRIAL + 30_000;
        teller.incident(at, Some(trial), Incident::new(IncidentKind::WrongResult, "a residual"));
    }
    let mut told = Told::of(teller);
    let falls = |told: &Told| captions(&told.blocks()).iter().filter(|caption| caption.contains("a residual")).count();
    assert_eq!(falls(&told), 0, "nothing was read, so that there is nothing to draw");
    told.traces = BTreeMap::from([("heat".to_owned(), every_second((0..1500).map(f64::from)))]);
    assert_eq!(falls(&told), 12);
    assert!(told.markdown().contains("The last 12; 3 earlier ones are in the record."));
    let blocks = told.blocks();
    let last = captions(&blocks).into_iter().rfind(|caption| caption.contains("a residual"));
    assert!(last.is_some_and(|caption| caption.starts_with("trial 15 ")), "{last:?}");
}

#[test]
fn a_picture_needs_enough_to_show() {
    let curves = |teller| {
        let blocks = Told::of(teller).blocks();
        captions(&blocks).iter().filter(|caption| caption.starts_with("Scores of")).count()
    };
    let mut long = climb();
    long.trial((4400, 1200), 102.0, Verdict::Held);
    assert_eq!((curves(climb()), curves(long)), (0, 1), "two values are no curve, three are");
}

#[test]
fn an_empty_climb_is_reported_too() {
    let told = Told::of(Teller::default());
    let text = told.markdown();
    assert!(text.contains("0 trials: 0 held, 0 slipped, 0 fell"), "{text}");
    assert!(text.contains("## Incidents\n\nNone."), "{text}");
    report_pdf(&told.reported().title(), &told.blocks(), moment(0)).expect("a file");
}

#[test]
fn the_same_climb_gives_the_same_file() {
    let told = Told::of(climb());
    let file = |at| report_pdf(&told.reported().title(), &told.blocks(), moment(at)).expect("a file");
    assert!(file(0).starts_with(b"%PDF-"));
    assert!(file(0) == file(0));
    assert!(file(0) != file(86_400_000), "its date is that of its climb");
}
