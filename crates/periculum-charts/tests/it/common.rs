//! A rig with a clock and a voltage, a plan that climbs its clock, and stories of it told by hand.

use periculum_charts::{Figure, Shape};
use periculum_core::Decimal;
use periculum_core::engine::{Entry, Mark};
use periculum_core::files::{Document, Problems, plan_file, rig_file};
use periculum_core::model::incident::Incident;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{Pass, PassReport, Score};
use periculum_core::model::plan::Plan;
use periculum_core::model::reason::Reason;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::Rung;
use periculum_core::model::verdict::Verdict;
use periculum_core::story::Story;
use periculum_core::story::series::Series;

const RIG: &str = r#"format = 1
[rig]
name = "bench \"one\""
summary = "a made-up machine"
cooling = "water"
[[part]]
kind = "processor"
model = "Veltra Octo 42"
specimen = "A-1"
[setting.clock]
label = "core clock"
unit = "MHz"
ladder = { from = 4000, step = 50, to = 5000 }
stock = 4200
ceiling = { daily = 4800 }
harder = "up"
takes_effect = "by-hand"
[setting.volts]
label = "core voltage"
unit = "mV"
ladder = { from = 1000, step = 10, to = 1300 }
stock = 1200
ceiling = { daily = 1250 }
harder = "down"
takes_effect = "by-hand"
[sensor.heat]
label = "hottest core"
unit = "°C"
decimals = 1
cut_off = 95
adapter = "simulated"
source = "hottest-core"
[sensor.fan]
label = "fan"
unit = "rpm"
adapter = "simulated"
source = "fan"
"#;

const PLAN: &str = r#"format = 1
[plan]
name = "up"
rig = "bench"
use = "daily"
[proof.quick]
passes = [{ load = "dense", for = "60s" }]
[[stage]]
strategy = "baseline"
proof = "quick"
[[stage]]
strategy = "ascend"
setting = "clock"
step = 50
proof = "quick"
"#;

/// What a climb is told of.
pub(crate) fn rig_and_plan() -> (Rig, Plan) {
    let problems = Problems::default();
    let (rig, plan) = (Document::parse(RIG).expect("a rig"), Document::parse(PLAN).expect("a plan"));
    let rig = rig_file::read(&rig.top(&problems));
    let plan = rig.as_ref().and_then(|rig| plan_file::read(&plan.top(&problems), rig, &["dense"]));
    rig.zip(plan).unwrap_or_else(|| panic!("{:?}", problems.into_sorted()))
}

/// Each trial takes so long from its beginning to that of the next.
pub(crate) const TRIAL: i64 = 100_000;

pub(crate) fn moment(millis: i64) -> Moment {
    Moment::from_millis(millis)
}

pub(crate) fn rung(clock: i64, volts: i64) -> Rung {
    [("clock", clock), ("volts", volts)]
        .into_iter()
        .map(|(name, value)| (name.to_owned(), Decimal::from(value)))
        .collect()
}

/// Trials of one pass each, told one by one.
#[derive(Default)]
pub(crate) struct Teller {
    pub(crate) story: Story,
}

impl Teller {
    pub(crate) fn new() -> Self {
        let mut teller = Self::default();
        for (stage, strategy) in ["baseline", "ascend"].into_iter().enumerate() {
            teller.tell(0, &Entry::StageBegan { stage, strategy: strategy.into() });
        }
        teller
    }

    pub(crate) fn tell(&mut self, at: i64, entry: &Entry) {
        self.story.tell(moment(at), entry);
    }

    /// The next trial: it begins `TRIAL` after the one before it, and its pass runs for 60 s.
    pub(crate) fn trial(&mut self, rung: (i64, i64), score: f64, verdict: Verdict) -> u32 {
        self.trial_of(1, rung, score, verdict)
    }

    /// The same of the baseline.
    pub(crate) fn at_stock(&mut self, score: f64) -> u32 {
        self.trial_of(0, (4200, 1200), score, Verdict::Held)
    }

    fn trial_of(&mut self, stage: usize, (clock, volts): (i64, i64), score: f64, verdict: Verdict) -> u32 {
        let number = self.story.trials.len() as u32 + 1;
        let at = i64::from(number - 1) * TRIAL;
        let length = Span::from_seconds(60);
        let report =
            PassReport { ran: length, rounds: 7, score: Some(Score::of(score, "GFLOP/s")), ..PassReport::default() };
        let entries = [
            (
                0,
                Entry::TrialBegan {
                    trial: number,
                    stage,
                    rung: rung(clock, volts),
                    proof: "quick".into(),
                    reason: Reason::Harder { setting: "clock".into(), from: (clock - 50).into() },
                },
            ),
            (0, Entry::PassBegan { trial: number, pass: 0, order: Pass::usual("dense", length), on: Vec::new() }),
            (60_000, Entry::PassEnded { trial: number, pass: 0, report }),
            (60_000, Entry::TrialEnded { trial: number, verdict, incident: None, tested: length, gain: None }),
        ];
        for (later, entry) in entries {
            self.tell(at + later, &entry);
        }
        number
    }

    /// Something that goes wrong so many milliseconds into the climb.
    pub(crate) fn incident(&mut self, at: i64, trial: Option<u32>, incident: Incident) {
        self.tell(at, &Entry::Incident { trial, pass: trial.map(|_| 0), incident });
    }

    /// A mark on a trial that was told.
    pub(crate) fn mark(&mut self, trial: u32) {
        let rung = self.story.trials[trial as usize - 1].rung.clone();
        let mark = Mark { rung, setting: "clock".into(), proof: "quick".into(), trial, stage: 1 };
        self.tell(i64::from(trial) * TRIAL - 1, &Entry::MarkSet { mark });
    }
}

/// A reading a second, as long as there are any.
pub(crate) fn every_second(readings: impl IntoIterator<Item = f64>) -> Series {
    let mut series = Series::default();
    for (second, reading) in (0..).zip(readings) {
        series.push(moment(second * 1000), reading);
    }
    series
}

/// What the texts of a picture say.
pub(crate) fn texts(figure: &Figure) -> Vec<&str> {
    figure.shapes.iter().filter_map(as_text).collect()
}

fn as_text(shape: &Shape) -> Option<&str> {
    match shape {
        Shape::Text { text, .. } => Some(text),
        _ => None,
    }
}

/// The lines of a picture in this colour and of this width.
pub(crate) fn lines(figure: &Figure, wanted: (u8, u8, u8), wide: u32) -> Vec<&[(i32, i32)]> {
    let mut lines = Vec::new();
    for shape in &figure.shapes {
        match shape {
            Shape::Line { points, colour, width } if colour.rgb == wanted && *width == wide => {
                lines.push(points.as_slice());
            }
            _ => {}
        }
    }
    lines
}

/// How many circles of a picture have this colour.
pub(crate) fn circles(figure: &Figure, wanted: (u8, u8, u8)) -> usize {
    figure.shapes.iter().filter(|shape| matches!(shape, Shape::Circle { colour, .. } if colour.rgb == wanted)).count()
}

/// Where something is drawn beyond the edges of a picture; texts may end where they want.
pub(crate) fn outside(figure: &Figure) -> Vec<(i32, i32)> {
    let (width, height) = (figure.size.0 as i32, figure.size.1 as i32);
    let places = figure.shapes.iter().flat_map(|shape| match shape {
        Shape::Line { points, .. } | Shape::Polygon { points, .. } => points.clone(),
        Shape::Circle { at, .. } => vec![*at],
        Shape::Text { at: (x, y), .. } => vec![(*x as i32, *y as i32)],
    });
    places.filter(|(x, y)| !(0..=width).contains(x) || !(0..=height).contains(y)).collect()
}
