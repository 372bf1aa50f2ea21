//! A curve: a family of settings that move together, as the clocks that a graphics card takes at each of its voltages.
//!
//! A rung has no points of a curve but the levers that move them: what shifts all of it, the point from which on it is flat, and each
//! point's own value. What is asked for at each point follows, and all of it is applied at once.

use rust_decimal::Decimal;

use crate::model::illegal::{Illegal, Window};
use crate::model::quantity::with_unit;
use crate::model::sensor::Sensor;

/// Points that are asked for together; a lever that a curve does not have is none of the rig's settings.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Curve {
    /// The name that plans use.
    pub name: String,
    /// The name that people read.
    pub label: String,
    /// The unit of what is asked for at a point.
    pub unit: String,
    /// The unit that points are told by.
    pub across: String,
    /// The points, from the lowest to the highest; two at least.
    pub points: Vec<Point>,
    /// The setting that is added to every point.
    pub offset: Option<String>,
    /// The setting that says from which point on the curve rises no more.
    pub flat: Option<String>,
    /// The most that is asked for at any point, by use.
    pub ceilings: Vec<(String, Decimal)>,
    /// The sensors that tell where it sits.
    pub sits: Sits,
}

/// One point of a curve.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Point {
    /// Where it is, in the curve's unit across.
    pub at: Decimal,
    /// What the curve has there when nobody changes it.
    pub factory: Decimal,
    /// The setting that is its own value.
    pub setting: Option<String>,
}

/// The sensors that tell where on its curve a device is now, by name.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Sits {
    /// What it has across, in the curve's unit there or a thousand of them.
    pub across: Option<String>,
    /// What it reaches.
    pub reached: Option<String>,
    /// What keeps it from a higher point.
    pub limit: Option<String>,
}

impl Curve {
    /// What is asked for at each point, by the values of the levers; one without a value is as it comes.
    pub fn asked(&self, value: impl Fn(&str) -> Option<Decimal>) -> Vec<Decimal> {
        let of = |lever: &Option<String>| lever.as_deref().and_then(&value);
        let offset = of(&self.offset).unwrap_or_default();
        let own = |point: &Point| of(&point.setting).unwrap_or(point.factory) + offset;
        let flat = of(&self.flat).and_then(|flat| self.points.iter().find(|point| point.at == flat));
        let asked = |point: &Point| match flat {
            Some(flat) if point.at > flat.at => own(flat),
            _ => own(point),
        };
        self.points.iter().map(asked).collect()
    }

    /// What the curve has at each point when nobody changes it.
    pub fn factory(&self) -> Vec<Decimal> {
        self.points.iter().map(|point| point.factory).collect()
    }

    /// The names of the settings that move it.
    pub fn levers(&self) -> impl Iterator<Item = &str> {
        let points = self.points.iter().map(|point| &point.setting);
        [&self.offset, &self.flat].into_iter().chain(points).flatten().map(String::as_str)
    }

    /// The point at this place.
    pub fn point(&self, at: Decimal) -> Option<&Point> {
        self.points.iter().find(|point| point.at == at)
    }

    /// The point nearest to a reading across, by its place in the curve.
    pub fn nearest(&self, across: f64) -> usize {
        let distance = |point: &Point| (f64::try_from(point.at).unwrap_or(f64::MAX) - across).abs();
        let near =
            self.points.iter().enumerate().min_by(|(_, one), (_, other)| distance(one).total_cmp(&distance(other)));
        near.map_or(0, |(nth, _)| nth)
    }

    /// How many of the curve's unit across are one of what a sensor reads: 1000 for volts where points are told by millivolts; none
    /// where the two are not of a kind.
    pub fn across_by(&self, sensor: &Sensor) -> Option<f64> {
        if sensor.unit == self.across {
            return Some(1.0);
        }
        let is_thousandth = self.across.strip_prefix('m').is_some_and(|unit| unit == sensor.unit && !unit.is_empty());
        is_thousandth.then_some(1000.0)
    }

    /// What a point is called.
    pub fn called(&self, point: &Point) -> String {
        format!("{} at {}", self.label, with_unit(point.at, &self.across))
    }

    /// Whether what the levers ask for rises from point to point, and stays below the ceiling of the use.
    pub(super) fn permit(&self, value: impl Fn(&str) -> Option<Decimal>, use_name: &str) -> Result<(), Illegal> {
        let asked = self.asked(value);
        let ceiling = self.ceilings.iter().find(|(name, _)| name == use_name).map(|(_, ceiling)| *ceiling);
        for (nth, point) in self.points.iter().enumerate() {
            let next = asked.get(nth + 1).copied();
            let highest = [next, ceiling].into_iter().flatten().min();
            if highest.is_some_and(|highest| asked[nth] > highest) {
                return Err(Illegal::OutsideWindow {
                    derived: self.called(point),
                    value: with_unit(asked[nth], &self.unit),
                    window: Window::up_to(highest),
                });
            }
        }
        Ok(())
    }
}

#[cfg(test)]
pub(crate) mod tests {
    use super::*;
    use proptest::prelude::*;

    /// Four points, with every lever.
    pub(crate) fn curve() -> Curve {
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
            points: [(700, 1200), (800, 1500), (900, 1700), (1000, 1800)].map(point).to_vec(),
            offset: Some("core_offset".into()),
            flat: Some("core_flat".into()),
            ceilings: vec![("daily".into(), 2000.into())],
            sits: Sits::default(),
        }
    }

    fn asked(levers: &[(&str, i64)]) -> Vec<i64> {
        let value =
            |name: &str| levers.iter().find(|(lever, _)| *lever == name).map(|(_, value)| Decimal::from(*value));
        curve().asked(value).into_iter().map(|clock| i64::try_from(clock).expect("whole")).collect()
    }

    #[test]
    fn levers_shift_lift_and_flatten() {
        assert_eq!(asked(&[]), [1200, 1500, 1700, 1800]);
        assert_eq!(asked(&[("core_offset", 45)]), [1245, 1545, 1745, 1845]);
        assert_eq!(asked(&[("core_flat", 800)]), [1200, 1500, 1500, 1500]);
        assert_eq!(asked(&[("core_flat", 800), ("core_800", 1650)]), [1200, 1650, 1650, 1650]);
        assert_eq!(asked(&[("core_700", 1300), ("core_offset", -50)]), [1250, 1450, 1650, 1750]);
    }

    #[test]
    fn a_curve_rises_and_stays_below_its_ceiling() {
        let permit = |levers: &[(&str, i64)]| {
            let value =
                |name: &str| levers.iter().find(|(lever, _)| *lever == name).map(|(_, value)| Decimal::from(*value));
            curve().permit(value, "daily").map_err(|illegal| illegal.to_string())
        };
        assert_eq!(permit(&[("core_offset", 200)]), Ok(()));
        assert_eq!(
            permit(&[("core_offset", 215)]),
            Err("core at 1 000 mV would be 2 015 MHz, outside its window open … 2000".into())
        );
        assert_eq!(
            permit(&[("core_800", 1715)]),
            Err("core at 800 mV would be 1 715 MHz, outside its window open … 1700".into())
        );
        assert_eq!(permit(&[("core_800", 1715), ("core_flat", 800)]), Ok(()), "what lies above it is lifted with it");
    }

    #[test]
    fn a_reading_belongs_to_the_point_next_to_it() {
        assert_eq!([640.0, 700.0, 749.0, 751.0, 5000.0].map(|at| curve().nearest(at)), [0, 0, 0, 1, 3]);
    }

    proptest! {
        #[test]
        fn what_is_permitted_rises(offset in -300i64..300, flat in 0usize..4, own in prop::array::uniform4(1000i64..2100)) {
            let curve = curve();
            let value = |name: &str| match name {
                "core_offset" => Some(Decimal::from(offset)),
                "core_flat" => Some(curve.points[flat].at),
                name => {
                    let nth = curve.points.iter().position(|point| point.setting.as_deref() == Some(name))?;
                    Some(own[nth].into())
                }
            };
            let asked = curve.asked(value);
            prop_assert!(asked[flat..].iter().all(|clock| *clock == asked[flat]), "flat from its point on");
            let rises = asked.is_sorted() && asked.iter().all(|clock| *clock <= Decimal::from(2000));
            prop_assert_eq!(curve.permit(value, "daily").is_ok(), rises);
        }
    }
}
