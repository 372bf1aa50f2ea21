//! A display in software: what its link carries, what its panel shows, and what it does when it can't.

use periculum_core::files::Section;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::Rung;

use crate::simulated::device::{Device, Strained, Work};
use crate::simulated::names::{optional_setting, setting};
use crate::simulated::numbers::{positive_or, to_float};
use crate::simulated::random::{Purpose, Stream};

/// Failures in a second at a margin of nothing, and the margin over which that falls by a factor of e, as a share.
const HAZARD: (f64, f64) = (1.0 / 90.0, 0.004);

/// How far specimens differ: the link's limit and the panel's, as shares.
const SPREAD: [f64; 2] = [0.006, 0.015];

/// So far beyond what the link carries there is no picture at all, as a share.
const NO_PICTURE: f64 = 0.03;

/// Lines and columns of a usual blanking, beside those that are seen.
const BLANKING: [f64; 2] = [0.12, 0.05];

/// A display, and which of the rig's settings drive it; specimens differ by seed.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::simulated) struct Spec {
    /// The setting that is the refresh rate, Hz.
    refresh: String,
    /// The setting that is how much of the usual blanking there is, in percent, where one is.
    blanking: Option<String>,
    /// Columns and lines that are seen.
    size: [f64; 2],
    /// What the link carries, MHz of pixels.
    link: f64,
    /// Up to where the panel shows every frame, Hz.
    panel: f64,
}

impl Spec {
    /// Reads its keys of a section, for this rig; problems go where the section's problems go.
    pub(in crate::simulated) fn read(section: &Section, rig: &Rig, _room: f64) -> Option<Self> {
        let (refresh, blanking) = (setting(section, "refresh", rig), optional_setting(section, "blanking", rig));
        let size = [positive_or(section, "columns", 2560.0), positive_or(section, "lines", 1440.0)];
        let link = positive_or(section, "link", 586.0);
        let panel = positive_or(section, "panel", 162.0);
        Some(Self { refresh: refresh?, blanking, size, link, panel })
    }
}

/// One specimen of a display with its cable.
#[derive(Clone, Debug)]
pub(in crate::simulated) struct Panel {
    spec: Spec,
    /// MHz of pixels.
    link: f64,
    /// Hz.
    panel: f64,
    /// Hz.
    refresh: f64,
    /// A share of the usual.
    blanking: f64,
    works: bool,
}

impl Panel {
    /// The specimen that this seed makes, with this rung.
    pub(in crate::simulated) fn new(spec: Spec, seed: u64, rung: &Rung) -> Self {
        let mut random = Stream::new(seed, Purpose::Specimen);
        let [link, panel] = [(spec.link, SPREAD[0]), (spec.panel, SPREAD[1])]
            .map(|(usual, spread)| usual * (1.0 + spread * random.normal()));
        let mut made = Self { link, panel, refresh: 60.0, blanking: 1.0, works: false, spec };
        made.set(rung);
        made
    }

    /// The clock of the pixels, MHz.
    fn pixel_clock(&self) -> f64 {
        let [columns, lines] = self.spec.size;
        let [beside, below] = BLANKING.map(|share| 1.0 + share * self.blanking);
        columns * beside * lines * below * self.refresh / 1e6
    }

    /// What is left of the link, as a share; too short a blanking is hard on it too.
    fn link_margin(&self) -> f64 {
        let hurried = (0.45 - self.blanking).max(0.0) * 0.4;
        self.link / self.pixel_clock() - 1.0 - hurried
    }

    /// What is left of the panel, as a share.
    fn panel_margin(&self) -> f64 {
        self.panel / self.refresh - 1.0
    }

    /// The share of frames that it skips.
    fn skipped(&self) -> f64 {
        (-self.panel_margin()).clamp(0.0, 0.5)
    }
}

impl Panel {
    /// Frames that are seen in a second; none where there is no picture.
    fn shown(&self) -> f64 {
        if self.link_margin() < -NO_PICTURE { 0.0 } else { self.refresh * (1.0 - self.skipped()) }
    }
}

impl Device for Panel {
    fn settings(&self) -> Vec<&str> {
        [&self.spec.refresh].into_iter().chain(&self.spec.blanking).map(String::as_str).collect()
    }

    fn loads(&self) -> Vec<&'static str> {
        vec!["sweep"]
    }

    fn sources(&self) -> Vec<String> {
        ["pixel-clock", "refresh", "skipped", "shown"].map(str::to_owned).to_vec()
    }

    fn set(&mut self, rung: &Rung) {
        self.refresh = rung.get(&self.spec.refresh).map_or(60.0, to_float);
        let percent = self.spec.blanking.as_ref().and_then(|name| rung.get(name));
        self.blanking = percent.map_or(1.0, |percent| to_float(percent) / 100.0);
    }

    /// The machine behind it lives whatever it shows.
    fn is_alive(&self) -> bool {
        true
    }

    fn work(&mut self, work: Option<Work>) -> Option<&'static str> {
        self.works = work.is_some_and(|work| work.load == "sweep");
        self.works.then_some("frames/s")
    }

    fn clocks(&self) -> Vec<f64> {
        if self.works { vec![self.pixel_clock()] } else { Vec::new() }
    }

    fn tick(&mut self, _seconds: f64, parts: &mut Vec<Strained>) -> Option<String> {
        if self.works {
            let (at_nothing, width) = HAZARD;
            let margin = self.link_margin().min(self.panel_margin() + 0.06);
            let hazard = at_nothing * (-margin / width).min(40.0).exp();
            parts.push(Strained { hazard, work: self.shown() });
        }
        None
    }

    fn reading(&self, source: &str, _noise: f64) -> Option<f64> {
        match source {
            "pixel-clock" => Some(self.pixel_clock()),
            "refresh" => Some(self.refresh),
            "skipped" => Some(100.0 * self.skipped()),
            "shown" => Some(self.shown()),
            _ => None,
        }
    }

    /// It falls back to what it showed before, by itself.
    fn failure(&self, _part: usize, random: &mut Stream) -> Incident {
        if self.link_margin() < -NO_PICTURE {
            let why = "no picture: the link does not carry it, and the display fell back by itself";
            return Incident::new(IncidentKind::NoPicture, why);
        }
        if self.panel_margin() + 0.06 < self.link_margin() || random.unit() < 0.3 {
            return Incident::new(IncidentKind::NoPicture, "it went dark after a moment and fell back by itself");
        }
        Incident::new(IncidentKind::Artefact, "glittering dots along the lines")
    }

    fn loses_on(&self, kind: IncidentKind) -> bool {
        kind == IncidentKind::NoPicture
    }

    fn copy(&self) -> Box<dyn Device> {
        Box::new(self.clone())
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use periculum_core::Decimal;
    use periculum_core::model::pass::Threads;
    use proptest::prelude::*;

    fn at(seed: u64, refresh: i64, blanking: i64) -> Panel {
        let spec = Spec {
            refresh: "refresh".into(),
            blanking: Some("blanking".into()),
            size: [2560.0, 1440.0],
            link: 586.0,
            panel: 162.0,
        };
        let rung = [("refresh".to_owned(), Decimal::from(refresh)), ("blanking".to_owned(), Decimal::from(blanking))];
        let mut panel = Panel::new(spec, seed, &rung.into_iter().collect());
        panel.work(Some(Work { load: "sweep", threads: Threads::All })).expect("a load");
        panel
    }

    fn did(panel: &Panel) -> Strained {
        let mut parts = Vec::new();
        panel.clone().tick(0.25, &mut parts);
        parts[0]
    }

    #[test]
    fn the_link_gives_out_first_and_less_blanking_is_worth_some() {
        for seed in 0..8 {
            assert!(did(&at(seed, 60, 100)).hazard < 1e-9, "specimen {seed}");
            assert!(did(&at(seed, 144, 100)).hazard > 1.0);
            assert!(did(&at(seed, 144, 60)).hazard < did(&at(seed, 144, 100)).hazard);
            assert!(did(&at(seed, 144, 10)).hazard > did(&at(seed, 144, 60)).hazard, "too little is hard on it");
        }
        let mut random = Stream::new(1, Purpose::Pass { trial: 1, index: 0 });
        assert_eq!(at(1, 180, 100).failure(0, &mut random).kind, IncidentKind::NoPicture);
        assert!(at(1, 180, 100).is_alive() && at(1, 60, 100).loses_on(IncidentKind::NoPicture));
    }

    #[test]
    fn a_panel_beyond_its_own_rate_skips_frames() {
        let fast = at(2, 190, 60);
        assert!(fast.skipped() > 0.1 && did(&fast).work < 170.0);
        let limits: Vec<f64> = (0..5).map(|seed| at(seed, 60, 100).panel).collect();
        assert!(limits.windows(2).all(|pair| (pair[0] - pair[1]).abs() > 0.01), "{limits:?}");
    }

    proptest! {
        #[test]
        fn a_higher_rate_is_never_safer(seed in any::<u64>(), refresh in 50i64..200, blanking in 50i64..120) {
            prop_assert!(did(&at(seed, refresh + 1, blanking)).hazard >= did(&at(seed, refresh, blanking)).hazard);
        }
    }
}
