//! The driver of a graphics card that there is not, behind files as the kernel documents them (gpu/amdgpu/thermal): a table that
//! is edited by commands and counts once it is committed, and that takes nothing outside its ranges.

use std::collections::BTreeMap;
use std::fmt::Write as _;
use std::path::Path;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};

use crate::served_files::{Served, serve};

/// Where it stands below a root.
pub(crate) const DEVICE: &str = "sys/class/drm/card0/device";

/// How a card lets its core be shaped.
#[derive(Clone, Copy, PartialEq, Eq)]
pub(crate) enum Layout {
    /// By the points of a curve.
    Points,
    /// By one offset of all clocks.
    Offset,
}

/// The numbers of a table: MHz, and mV.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) struct Table {
    pub(crate) curve: [[i64; 2]; 3],
    pub(crate) core_offset: i64,
    pub(crate) memory: i64,
    pub(crate) voltage_offset: i64,
}

/// As the card comes.
const FACTORY: Table =
    Table { curve: [[500, 720], [1300, 800], [2100, 1170]], core_offset: 0, memory: 1000, voltage_offset: 0 };

/// Ranges of clocks, voltages, offsets of both, and the memory's clock.
const CLOCKS: (i64, i64) = (500, 2160);
const VOLTAGES: (i64, i64) = (700, 1200);
const CLOCK_OFFSETS: (i64, i64) = (-500, 60);
const VOLTAGE_OFFSETS: (i64, i64) = (-200, 0);
const MEMORY: (i64, i64) = (674, 1075);

/// A card: what its table says, and what its firmware was told.
pub(crate) struct Card {
    layout: Layout,
    edited: Table,
    pub(crate) in_force: Table,
    pub(crate) commits: usize,
    /// What else it says, by the attributes' names.
    others: BTreeMap<String, String>,
}

/// A card that is served; it is gone when this is.
pub(crate) struct Driver {
    card: Arc<Mutex<Card>>,
    _served: Served,
}

impl Driver {
    /// Serves a card below this root; none where this machine lets nobody do so.
    pub(crate) fn below(root: &Path, layout: Layout) -> Option<Self> {
        let others = [("gpu_busy_percent", "87\n"), ("vendor", "0x1a2b\n"), ("device", "0x5e6f\n")];
        let card = Card {
            layout,
            edited: FACTORY,
            in_force: FACTORY,
            commits: 0,
            others: others.map(|(name, text)| (name.to_owned(), text.to_owned())).into(),
        };
        let card = Arc::new(Mutex::new(card));
        let folder = root.join(DEVICE);
        std::fs::create_dir_all(&folder).expect("made");
        Some(Self { _served: serve(&folder, Arc::clone(&card))?, card })
    }

    /// Has the card told this, by somebody else.
    pub(crate) fn told(&self, commands: &[&str]) {
        commands.iter().for_each(|command| self.card().command(command).expect("taken"));
    }

    pub(crate) fn card(&self) -> MutexGuard<'_, Card> {
        self.card.lock().unwrap_or_else(PoisonError::into_inner)
    }
}

/// What the table's attribute is called.
const TABLE: &str = "pp_od_clk_voltage";

impl crate::served_files::Files for Card {
    fn names(&self) -> Vec<String> {
        self.others.keys().cloned().chain([TABLE.to_owned()]).collect()
    }

    fn text(&self, name: &str) -> Option<String> {
        if name == TABLE { Some(self.table()) } else { self.others.get(name).cloned() }
    }

    fn write(&mut self, name: &str, text: &str) -> Option<()> {
        if name == TABLE { self.command(text) } else { None }
    }
}

impl Card {
    fn table(&self) -> String {
        let Table { curve, core_offset, memory, voltage_offset } = &self.edited;
        let mut out = String::new();
        // Writing to a string can't fail.
        let _ = match self.layout {
            Layout::Points => {
                let _ =
                    write!(out, "OD_SCLK:\n0: {}Mhz\n1: {}Mhz\nOD_MCLK:\n1: {memory}Mhz\n", curve[0][0], curve[2][0]);
                let _ = writeln!(out, "OD_VDDC_CURVE:");
                for (index, [clock, voltage]) in curve.iter().enumerate() {
                    let _ = writeln!(out, "{index}: {clock}MHz {voltage}mV");
                }
                writeln!(out, "OD_RANGE:\nSCLK: {}Mhz {}Mhz", CLOCKS.0, CLOCKS.1)
            }
            Layout::Offset => {
                let _ = write!(out, "OD_SCLK_OFFSET:\n{core_offset}Mhz\nOD_MCLK:\n0: 97Mhz\n1: {memory}MHz\n");
                let _ = writeln!(out, "OD_VDDGFX_OFFSET:\n{voltage_offset}mV\nOD_RANGE:");
                let _ = writeln!(out, "SCLK_OFFSET: {}Mhz {}Mhz", CLOCK_OFFSETS.0, CLOCK_OFFSETS.1);
                writeln!(out, "VDDGFX_OFFSET: {}mv {}mv", VOLTAGE_OFFSETS.0, VOLTAGE_OFFSETS.1)
            }
        };
        let _ = writeln!(out, "MCLK: {}Mhz {}Mhz", MEMORY.0, MEMORY.1);
        out
    }

    /// Takes one command, whole, or nothing of it.
    fn command(&mut self, text: &str) -> Option<()> {
        let words: Vec<&str> = text.split_whitespace().collect();
        let (letter, numbers) = words.split_first()?;
        let numbers: Vec<i64> = numbers.iter().map(|word| word.parse().ok()).collect::<Option<_>>()?;
        let within = |value: &i64, (least, most): (i64, i64)| (least..=most).contains(value).then_some(*value);
        match (self.layout, *letter, &numbers[..]) {
            (Layout::Points, "vc", [index, clock, voltage]) => {
                let point = self.edited.curve.get_mut(usize::try_from(*index).ok()?)?;
                *point = [within(clock, CLOCKS)?, within(voltage, VOLTAGES)?];
            }
            (Layout::Offset, "s", [offset]) => self.edited.core_offset = within(offset, CLOCK_OFFSETS)?,
            (Layout::Offset, "vo", [offset]) => self.edited.voltage_offset = within(offset, VOLTAGE_OFFSETS)?,
            (_, "m", [1, clock]) => self.edited.memory = within(clock, MEMORY)?,
            (_, "r", []) => self.edited = FACTORY,
            (_, "c", []) => {
                self.in_force = self.edited.clone();
                self.commits += 1;
            }
            _ => return None,
        }
        Some(())
    }

    /// What is left of all that was set when the card is reset.
    pub(crate) fn reset(&mut self) {
        self.edited = FACTORY;
        self.in_force = FACTORY;
    }
}
