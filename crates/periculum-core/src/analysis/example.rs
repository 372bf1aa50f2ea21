//! A climb over two settings that tests of analyses tell.

use rust_decimal::Decimal;

use crate::engine::Entry;
use crate::files::{Document, Problems, plan_file, rig_file};
use crate::model::moment::{Moment, Span};
use crate::model::pass::{Pass, PassReport, Score};
use crate::model::plan::Plan;
use crate::model::reason::Reason;
use crate::model::rig::Rig;
use crate::model::verdict::Verdict;
use crate::story::Story;

/// A story of trials: clock and voltage of each, its score, and how it ended.
pub(super) fn told(trials: &[(i64, i64, f64, Verdict)]) -> Story {
    let mut story = Story::default();
    for (number, (clock, volts, score, verdict)) in (1..).zip(trials) {
        let rung = [("clock", clock), ("volts", volts)];
        let order = Pass::usual("dense", Span::from_seconds(60));
        let score = Some(Score::of(*score, "GFLOP/s"));
        let entries = [
            Entry::TrialBegan {
                trial: number,
                stage: 0,
                rung: rung.iter().map(|(name, value)| ((*name).to_owned(), Decimal::from(**value))).collect(),
                proof: "quick".into(),
                reason: Reason::Combination { nth: number, of: 9 },
            },
            Entry::PassBegan { trial: number, pass: 0, order, on: vec![] },
            Entry::PassEnded { trial: number, pass: 0, report: PassReport { score, ..PassReport::default() } },
            Entry::TrialEnded { trial: number, verdict: *verdict, incident: None, tested: Span::ZERO, gain: None },
        ];
        entries.iter().for_each(|entry| story.tell(Moment::from_millis(0), entry));
    }
    story
}

/// Its rig and its plan.
pub(super) fn grid() -> (Rig, Plan) {
    let rig = "format = 1\n[rig]\nname = \"r\"\n[setting.clock]\nladder = { from = 40, step = 1, to = 50 }\nstock = 42\n\
        ceiling = { daily = 50 }\nharder = \"up\"\ntakes_effect = \"by-hand\"\n[setting.volts]\n\
        ladder = { from = 110, step = 5, to = 130 }\nstock = 125\nharder = \"down\"\ntakes_effect = \"by-hand\"\n\
        [derived.product]\nformula = \"clock * volts\"\n[derived.fixed]\nformula = \"2 * 3\"\n";
    let plan = "format = 1\n[plan]\nname = \"p\"\nrig = \"r\"\nuse = \"daily\"\n[proof.quick]\n\
        passes = [{ load = \"dense\", for = \"60s\" }]\n[[stage]]\nstrategy = \"grid\"\nproof = \"quick\"\n\
        over = [{ setting = \"clock\", from = 42, to = 44 }, { setting = \"volts\" }]\n";
    let (rig, plan) = (Document::parse(rig).expect("rig"), Document::parse(plan).expect("plan"));
    let problems = Problems::default();
    let rig = rig_file::read(&rig.top(&problems)).expect("a rig");
    let read = plan_file::read(&plan.top(&problems), &rig, &["dense"]);
    let plan = read.unwrap_or_else(|| panic!("{:?}", problems.into_sorted()));
    (rig, plan)
}
