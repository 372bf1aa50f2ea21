//! The curve of a graphics driver: points with a clock and a voltage, or an offset of all of them, written together and committed
//! once (kernel documentation, gpu: GPU power and thermal controls, `pp_od_clk_voltage`).

use std::path::{Path, PathBuf};

use periculum_core::Decimal;
use periculum_core::model::curve::Curve;
use periculum_core::model::rung::InForce;

use super::attribute::{lines, numbered, why_unread};
use super::overdrive::{self, Entry, Shape};
use super::targets::Writing;

/// A curve that the kernel lets a program set.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Table {
    /// What a rig file calls it.
    pub(super) name: String,
    /// The attribute.
    pub(super) path: PathBuf,
    pub(super) shape: Shape,
}

/// Every curve below this root.
pub(super) fn find(root: &Path) -> Vec<Table> {
    let of_card = |(card, path): (u32, PathBuf)| {
        let path = path.join("device").join(overdrive::ATTRIBUTE);
        let shape = Shape::of(&lines(&path)?)?;
        Some(Table { name: format!("graphics/card{card}/curve"), path, shape })
    };
    numbered(&root.join("sys/class/drm"), "card").into_iter().filter_map(of_card).collect()
}

impl Table {
    /// The clock in MHz and the voltage in mV of each point of now; none where it can't be read.
    pub(super) fn points(&self) -> Option<Vec<[i64; 2]>> {
        Some(self.shape.points(&lines(&self.path)?))
    }

    /// What stands against a rig's curve that is to be this one, in words.
    pub(super) fn objection(&self, curve: &Curve) -> Option<String> {
        let Table { name, shape, .. } = self;
        if *shape == Shape::Offset {
            let moves_more = curve.flat.is_some() || curve.points.iter().any(|point| point.setting.is_some());
            let why =
                format!("{name} takes an offset of all its points and nothing else: write `levers = [\"offset\"]`");
            return moves_more.then_some(why);
        }
        let points = self.points().unwrap_or_default();
        let is_there = |(point, [_, voltage]): (&periculum_core::model::curve::Point, &[i64; 2])| {
            point.at == Decimal::from(*voltage)
        };
        let are_these = points.len() == curve.points.len() && curve.points.iter().zip(&points).all(is_there);
        let told: Vec<String> = points.iter().map(|[clock, voltage]| format!("[{voltage}, {clock}]")).collect();
        let why = format!("{name} has other points than the rig file says, now `points = [{}]`", told.join(", "));
        (!are_these).then_some(why)
    }

    /// What has to be written, in order, for what the levers ask for; none where it can't be.
    pub(super) fn writings(&self, curve: &Curve, levers: &InForce) -> Option<Vec<Writing>> {
        let whole = |value: Decimal| value.fract().is_zero().then(|| i64::try_from(value).ok()).flatten();
        let value = |name: &str| levers.get(name).copied();
        if self.shape == Shape::Offset {
            let offset = curve.offset.as_deref().and_then(value).unwrap_or_default();
            return self.committed(vec![Entry::ClockOffset.command(&lines(&self.path)?, whole(offset)?)?]);
        }
        let points = self.points()?;
        let asked = curve.asked(value);
        let command = |(index, (clock, [_, voltage])): (usize, (&Decimal, &[i64; 2]))| {
            self.shape.command(index, [whole(*clock)?, *voltage])
        };
        self.committed(asked.iter().zip(&points).enumerate().map(command).collect::<Option<_>>()?)
    }

    /// What has to be written, in order, to bring back what is there now; none where it can't be read.
    pub(super) fn way_back(&self) -> Option<Vec<Writing>> {
        if self.shape == Shape::Offset {
            let table = lines(&self.path)?;
            return self.committed(vec![Entry::ClockOffset.command(&table, Entry::ClockOffset.value(&table)?)?]);
        }
        let command = |(index, point): (usize, &[i64; 2])| self.shape.command(index, *point);
        self.committed(self.points()?.iter().enumerate().map(command).collect::<Option<_>>()?)
    }

    fn committed(&self, commands: Vec<String>) -> Option<Vec<Writing>> {
        let commands = commands.into_iter().chain([overdrive::COMMIT.to_owned()]);
        Some(commands.map(|command| Writing::command(&self.path, command)).collect())
    }

    /// The levers as the driver's points have it: those that were asked for where they make these points, and each point's own value
    /// otherwise.
    ///
    /// # Errors
    /// Why it can't be told, in words.
    pub(super) fn in_force(&self, curve: &Curve, levers: &InForce) -> Result<InForce, String> {
        let unread = || why_unread(&self.path);
        let stock = || curve.flat.iter().map(|flat| (flat.clone(), curve.points[curve.points.len() - 1].at));
        if self.shape == Shape::Offset {
            let offset = lines(&self.path).and_then(|table| Entry::ClockOffset.value(&table)).ok_or_else(unread)?;
            return Ok(curve.offset.iter().map(|name| (name.clone(), offset.into())).collect());
        }
        let points = self.points().filter(|points| points.len() == curve.points.len()).ok_or_else(unread)?;
        let clocks: Vec<Decimal> = points.iter().map(|[clock, _]| Decimal::from(*clock)).collect();
        let own = || curve.points.iter().filter_map(|point| Some((point.setting.clone()?, point.factory)));
        if clocks == curve.asked(|name| levers.get(name).copied()) {
            let offset = curve.offset.iter().map(|offset| (offset.clone(), Decimal::ZERO));
            let mut in_force: InForce = offset.chain(stock()).chain(own()).collect();
            in_force.extend(levers.iter().map(|(name, value)| (name.clone(), *value)));
            return Ok(in_force);
        }
        let shifted: Vec<Decimal> =
            clocks.iter().zip(curve.factory()).map(|(clock, factory)| *clock - factory).collect();
        let is_even = shifted.iter().all(|by| *by == shifted[0]);
        let offset = |by: Decimal| curve.offset.iter().map(move |offset| (offset.clone(), by));
        if is_even && (curve.offset.is_some() || shifted[0].is_zero()) {
            return Ok(offset(shifted[0]).chain(stock()).chain(own()).collect());
        }
        if own().count() != curve.points.len() {
            return Err(format!("{} has points that none of the curve's levers makes", self.path.display()));
        }
        let as_they_are =
            curve.points.iter().zip(clocks).filter_map(|(point, clock)| Some((point.setting.clone()?, clock)));
        Ok(offset(Decimal::ZERO).chain(stock()).chain(as_they_are).collect())
    }
}

#[cfg(test)]
mod tests {
    use super::super::attribute::tests::tree;
    use super::*;
    use periculum_core::model::curve::{Point, Sits};

    const TABLE: &str =
        "OD_SCLK:\n0: 500Mhz\n1: 2100Mhz\nOD_VDDC_CURVE:\n0: 500Mhz 720mV\n1: 1300Mhz 800mV\n2: 2100Mhz 1170mV\n";

    fn curve() -> Curve {
        let point = |(at, factory): (i64, i64)| Point {
            at: at.into(),
            factory: factory.into(),
            setting: Some(format!("core_{at}")),
        };
        Curve {
            name: "core".into(),
            label: "core".into(),
            unit: "MHz".into(),
            across: "mV".into(),
            points: [(720, 500), (800, 1300), (1170, 2100)].map(point).to_vec(),
            offset: Some("core_offset".into()),
            flat: Some("core_flat".into()),
            ceilings: Vec::new(),
            sits: Sits::default(),
        }
    }

    fn table(name: &str, text: &str) -> Table {
        let root = tree(name, &[("sys/class/drm/card1/device/pp_od_clk_voltage", text)]);
        find(&root).pop().expect("a table")
    }

    fn levers(levers: &[(&str, i64)]) -> InForce {
        levers.iter().map(|(name, value)| ((*name).to_owned(), Decimal::from(*value))).collect()
    }

    #[test]
    fn all_points_are_written_and_committed_once() {
        let table = table("curve-points", TABLE);
        assert_eq!(table.name, "graphics/card1/curve");
        assert_eq!(table.objection(&curve()), None);
        let writings = table.writings(&curve(), &levers(&[("core_flat", 800), ("core_800", 1350)])).expect("possible");
        let texts: Vec<&str> = writings.iter().map(|writing| writing.text.as_str()).collect();
        assert_eq!(texts, ["vc 0 500 720", "vc 1 1350 800", "vc 2 1350 1170", "c"]);
        let back: Vec<String> = table.way_back().expect("readable").into_iter().map(|writing| writing.text).collect();
        assert_eq!(back, ["vc 0 500 720", "vc 1 1300 800", "vc 2 2100 1170", "c"]);
    }

    #[test]
    fn what_is_read_back_is_what_was_asked_or_point_by_point() {
        let asked = levers(&[("core_flat", 800), ("core_800", 1350)]);
        let read = |name: &str, clocks: [i64; 3]| {
            let [first, second, third] = clocks;
            let text = format!("OD_VDDC_CURVE:\n0: {first}Mhz 720mV\n1: {second}Mhz 800mV\n2: {third}Mhz 1170mV\n");
            table(name, &text).in_force(&curve(), &asked).expect("readable")
        };
        let all = |values: [i64; 5]| {
            let names = ["core_offset", "core_flat", "core_720", "core_800", "core_1170"];
            levers(&names.into_iter().zip(values).collect::<Vec<_>>())
        };
        assert_eq!(read("curve-asked", [500, 1350, 1350]), all([0, 800, 500, 1350, 2100]));
        assert_eq!(read("curve-reset", [500, 1300, 2100]), all([0, 1170, 500, 1300, 2100]), "the driver forgot it");
        assert_eq!(read("curve-shifted", [550, 1350, 2150]), all([50, 1170, 500, 1300, 2100]));
        assert_eq!(read("curve-other", [500, 1340, 1350]), all([0, 1170, 500, 1340, 1350]), "it took something else");
    }

    #[test]
    fn what_a_driver_can_not_do_is_told() {
        let offset = table("curve-offset", "OD_SCLK_OFFSET:\n0Mhz\nOD_RANGE:\nSCLK_OFFSET: -500Mhz 1000Mhz\n");
        assert!(offset.objection(&curve()).is_some_and(|why| why.contains("levers = [\"offset\"]")));
        let points = curve().points.into_iter().map(|point| Point { setting: None, ..point }).collect();
        let shifted = Curve { points, flat: None, ..curve() };
        assert_eq!(offset.objection(&shifted), None);
        let writings = offset.writings(&shifted, &levers(&[("core_offset", 75)])).expect("possible");
        assert_eq!(writings.iter().map(|writing| writing.text.as_str()).collect::<Vec<_>>(), ["s 75", "c"]);
        assert_eq!(offset.in_force(&shifted, &InForce::new()), Ok(levers(&[("core_offset", 0)])));
        let other = table("curve-others", "OD_VDDC_CURVE:\n0: 500Mhz 700mV\n1: 1300Mhz 800mV\n");
        let why = other.objection(&curve()).expect("other points");
        assert!(why.ends_with("now `points = [[700, 500], [800, 1300]]`"), "{why}");
    }
}
