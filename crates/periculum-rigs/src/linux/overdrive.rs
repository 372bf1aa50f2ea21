//! The overdrive table of graphics drivers: clock and voltage points in one attribute, changed by commands to it
//! (kernel documentation, gpu: GPU power and thermal controls, `pp_od_clk_voltage`).

/// The attribute's name.
pub(super) const ATTRIBUTE: &str = "pp_od_clk_voltage";

/// What makes the changed table count.
pub(super) const COMMIT: &str = "c";

/// Sections of the table: header, name here, command letter, and what its range is called.
const CLOCKS: [(&str, &str, &str, &str); 2] = [("OD_SCLK:", "sclk", "s", "SCLK:"), ("OD_MCLK:", "mclk", "m", "MCLK:")];
const VOLTAGE_OFFSET: &str = "OD_VDDGFX_OFFSET:";
const CLOCK_OFFSET: &str = "OD_SCLK_OFFSET:";
const CURVE: &str = "OD_VDDC_CURVE:";

/// A value in the table.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Entry {
    /// A clock of a section, by the section's place in [`CLOCKS`] and its index there, MHz.
    Clock(usize, u32),
    /// The voltage of a point of the curve, mV.
    Curve(u32),
    /// The offset of all voltages, mV.
    VoltageOffset,
    /// The offset of all core clocks, MHz, which recent drivers have in the place of their points.
    ClockOffset,
}

impl Entry {
    /// Its part of the target's name.
    pub(super) fn name(self) -> String {
        match self {
            Self::Clock(section, index) => format!("{}/{index}", CLOCKS[section].1),
            Self::Curve(index) => format!("voltage/{index}"),
            Self::VoltageOffset => "voltage-offset".into(),
            Self::ClockOffset => "clock-offset".into(),
        }
    }

    /// What people call it.
    pub(super) fn label(self) -> String {
        match self {
            Self::Clock(0, index) => format!("core clock, point {index}"),
            Self::Clock(_, index) => format!("memory clock, point {index}"),
            Self::Curve(index) => format!("voltage, point {index}"),
            Self::VoltageOffset => "voltage offset".into(),
            Self::ClockOffset => "core clock offset".into(),
        }
    }

    /// Its value in a table.
    pub(super) fn value(self, table: &str) -> Option<i64> {
        match self {
            Self::Clock(section, index) => point(table, CLOCKS[section].0, index)?.first().copied(),
            Self::Curve(index) => point(table, CURVE, index)?.get(1).copied(),
            Self::VoltageOffset => amount(lines_of(table, VOLTAGE_OFFSET).first()?),
            Self::ClockOffset => amount(lines_of(table, CLOCK_OFFSET).first()?),
        }
    }

    /// The command that gives it another value; none where the table has no such entry.
    pub(super) fn command(self, table: &str, value: i64) -> Option<String> {
        self.value(table)?;
        Some(match self {
            Self::Clock(section, index) => {
                // Earlier drivers have the voltage behind the clock, and want both.
                let voltage = point(table, CLOCKS[section].0, index)?.get(1).map(|voltage| format!(" {voltage}"));
                format!("{} {index} {value}{}", CLOCKS[section].2, voltage.unwrap_or_default())
            }
            Self::Curve(index) => format!("vc {index} {} {value}", point(table, CURVE, index)?.first()?),
            Self::VoltageOffset => format!("vo {value}"),
            Self::ClockOffset => format!("s {value}"),
        })
    }
}

/// How a table lets the clocks of its core be shaped.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Shape {
    /// By points of a curve, each with a clock and a voltage.
    Points,
    /// By levels, each with a clock and a voltage, as earlier drivers have them.
    Levels,
    /// By one offset of all clocks, as recent drivers have it.
    Offset,
}

impl Shape {
    /// That of a table; none where it has no clocks that go with voltages.
    pub(super) fn of(table: &str) -> Option<Self> {
        let has_points = |shape: &Self| shape.points(table).len() > 1;
        let is_offset = || Entry::ClockOffset.value(table).is_some();
        [Self::Points, Self::Levels].into_iter().find(has_points).or_else(|| is_offset().then_some(Self::Offset))
    }

    /// The clock in MHz and the voltage in mV of each point that has both, in order.
    pub(super) fn points(self, table: &str) -> Vec<[i64; 2]> {
        let header = match self {
            Self::Points => CURVE,
            Self::Levels => CLOCKS[0].0,
            Self::Offset => return Vec::new(),
        };
        // Commands count points from 0 on, without a gap.
        let pair = |(index, nth)| (index == nth).then(|| point(table, header, index)?.try_into().ok()).flatten();
        indices(table, header).into_iter().zip(0..).map_while(pair).collect()
    }

    /// The command that gives a point this clock and voltage; none where there are no points.
    pub(super) fn command(self, index: usize, [clock, voltage]: [i64; 2]) -> Option<String> {
        match self {
            Self::Points => Some(format!("vc {index} {clock} {voltage}")),
            Self::Levels => Some(format!("s {index} {clock} {voltage}")),
            Self::Offset => None,
        }
    }
}

/// A value that can be changed.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Adjustable {
    pub(super) entry: Entry,
    pub(super) unit: &'static str,
    /// The least and the most that the driver takes, where it says so.
    pub(super) range: Option<(i64, i64)>,
}

/// Every value of a table that can be changed.
pub(super) fn entries(table: &str) -> Vec<Adjustable> {
    let mut found = Vec::new();
    for (section, (header, _, _, range)) in CLOCKS.into_iter().enumerate() {
        for index in indices(table, header) {
            found.push(Adjustable { entry: Entry::Clock(section, index), unit: "MHz", range: range_of(table, range) });
        }
    }
    for index in indices(table, CURVE) {
        let range = range_of(table, &format!("VDDC_CURVE_VOLT[{index}]:"));
        found.push(Adjustable { entry: Entry::Curve(index), unit: "mV", range });
    }
    let offsets = [(Entry::VoltageOffset, "mV", "VDDGFX_OFFSET:"), (Entry::ClockOffset, "MHz", "SCLK_OFFSET:")];
    found.extend(offsets.map(|(entry, unit, range)| Adjustable { entry, unit, range: range_of(table, range) }));
    found.retain(|found| found.entry.value(table).is_some());
    found
}

/// The lines between a header and the next one.
fn lines_of<'a>(table: &'a str, header: &str) -> Vec<&'a str> {
    let is_header = |line: &&str| line.starts_with("OD_");
    table.lines().skip_while(|line| line.trim() != header).skip(1).take_while(|line| !is_header(line)).collect()
}

fn indices(table: &str, header: &str) -> Vec<u32> {
    lines_of(table, header).iter().filter_map(|line| line.split_once(':')?.0.trim().parse().ok()).collect()
}

/// The amounts of `INDEX: AMOUNT AMOUNT`.
fn point(table: &str, header: &str, index: u32) -> Option<Vec<i64>> {
    let is_it = |line: &&&str| line.split_once(':').is_some_and(|(at, _)| at.trim().parse() == Ok(index));
    let lines = lines_of(table, header);
    let (_, amounts) = lines.iter().find(is_it)?.split_once(':')?;
    amounts.split_whitespace().map(amount).collect()
}

/// A whole number with its unit behind it, as in `2100Mhz` or `-20mV`.
fn amount(text: &str) -> Option<i64> {
    text.trim().trim_end_matches(|sign: char| sign.is_ascii_alphabetic()).parse().ok()
}

fn range_of(table: &str, name: &str) -> Option<(i64, i64)> {
    let line = lines_of(table, "OD_RANGE:").into_iter().find_map(|line| line.trim().strip_prefix(name))?;
    let mut ends = line.split_whitespace().map(amount);
    Some((ends.next()??, ends.next()??))
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    const TABLE: &str = "OD_SCLK:\n0: 500Mhz\n1: 2100Mhz\nOD_MCLK:\n1: 1000Mhz\nOD_VDDC_CURVE:\n0: 500Mhz 720mV\n\
                         2: 2100MHz 1120mV\nOD_VDDGFX_OFFSET:\n-20mV\nOD_RANGE:\nSCLK:     500Mhz       2600Mhz\n\
                         VDDC_CURVE_VOLT[2]:     750mV        1200mV";

    #[test]
    fn a_table_is_read_and_changed_by_commands() {
        let told: Vec<_> = entries(TABLE).into_iter().map(|it| (it.entry.name(), it.range)).collect();
        let range = Some((500, 2600));
        let named = |name: &str, range| (name.to_owned(), range);
        assert_eq!(
            told,
            [
                named("sclk/0", range),
                named("sclk/1", range),
                named("mclk/1", None),
                named("voltage/0", None),
                named("voltage/2", Some((750, 1200))),
                named("voltage-offset", None),
            ]
        );
        assert_eq!(Entry::Clock(0, 1).value(TABLE), Some(2100));
        assert_eq!(Entry::Clock(0, 1).command(TABLE, 2175).as_deref(), Some("s 1 2175"));
        assert_eq!(Entry::Clock(1, 1).command(TABLE, 1050).as_deref(), Some("m 1 1050"));
        assert_eq!(Entry::Curve(2).command(TABLE, 1090).as_deref(), Some("vc 2 2100 1090"));
        assert_eq!(Entry::VoltageOffset.command(TABLE, -60).as_deref(), Some("vo -60"));
        assert_eq!(Entry::Clock(0, 7).command(TABLE, 1), None);
    }

    #[test]
    fn recent_tables_have_an_offset_of_the_core_clock() {
        let table = "OD_SCLK_OFFSET:\n0Mhz\nOD_MCLK:\n0: 97Mhz\n1: 1259MHz\nOD_VDDGFX_OFFSET:\n0mV\nOD_RANGE:\n\
                     SCLK_OFFSET:    -500Mhz       1000Mhz\nMCLK:     97Mhz       1500Mhz\nVDDGFX_OFFSET:    -200mv          0mv";
        let offset = entries(table).into_iter().find(|it| it.entry == Entry::ClockOffset).expect("there");
        assert_eq!(
            (offset.entry.name().as_str(), offset.unit, offset.range),
            ("clock-offset", "MHz", Some((-500, 1000)))
        );
        assert_eq!(Entry::ClockOffset.value(table), Some(0));
        assert_eq!(Entry::ClockOffset.command(table, -75).as_deref(), Some("s -75"));
        assert_eq!(Entry::ClockOffset.command(TABLE, -75), None, "older tables have points");
    }

    const LEVELS: &str = "OD_SCLK:\n0:        300MHz        750mV\n1:        852MHz        800mV\n2:       1630MHz       1200mV\n\
                          OD_MCLK:\n0: 167MHz 800mV\n";

    #[test]
    fn clocks_are_shaped_by_points_levels_or_an_offset() {
        let curve = "OD_SCLK:\n0: 500Mhz\nOD_VDDC_CURVE:\n0: 500Mhz 720mV\n1: 2100MHz 1120mV\n";
        assert_eq!(Shape::of(curve), Some(Shape::Points));
        assert_eq!(Shape::Points.points(curve), [[500, 720], [2100, 1120]]);
        assert_eq!(Shape::of(LEVELS), Some(Shape::Levels));
        assert_eq!(Shape::Levels.points(LEVELS), [[300, 750], [852, 800], [1630, 1200]]);
        assert_eq!(Shape::Levels.command(1, [900, 800]), Some("s 1 900 800".into()));
        assert_eq!(Entry::Clock(0, 1).command(LEVELS, 900), Some("s 1 900 800".into()));
        assert_eq!(Shape::of("OD_SCLK_OFFSET:\n0Mhz\nOD_RANGE:\nSCLK_OFFSET: -500Mhz 1000Mhz\n"), Some(Shape::Offset));
        assert_eq!(Shape::of("OD_SCLK:\n0: 500Mhz\n1: 2100Mhz\n"), None, "nothing says at which voltage");
    }

    proptest! {
        #[test]
        fn garbage_is_no_table_and_no_panic(text in "(OD_SCLK:|OD_RANGE:|OD_VDDC_CURVE:|[0-9: -]{0,6}|mV|\\PC{0,4}|\n){0,20}") {
            for Adjustable { entry, .. } in entries(&text) {
                prop_assert!(entry.value(&text).is_some() && entry.command(&text, 1).is_some());
            }
        }
    }
}
