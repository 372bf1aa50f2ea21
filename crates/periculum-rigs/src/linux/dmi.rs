//! Memory modules as the firmware lists them (DMTF DSP0134, System Management BIOS, structure type 17).

use std::fs::File;
use std::io::Read;
use std::path::Path;

use periculum_core::model::quantity::harmless;

/// Tables are no longer than this.
const LONGEST: u64 = 1 << 18;

/// The structure type of a memory device.
const MEMORY_DEVICE: u8 = 17;

/// A module in its slot.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Module {
    /// What the slot is called.
    pub(super) slot: String,
    /// Its size, MiB.
    pub(super) mebibytes: u32,
    /// Transfers in a second that it is rated for, and those it runs at, in millions; 0 where nobody says.
    pub(super) rated: u16,
    pub(super) runs_at: u16,
    /// Its maker and model.
    pub(super) model: String,
    /// Which one of its model.
    pub(super) serial: String,
}

/// The modules of the machine below this root; none where the table can't be read.
pub(super) fn modules(root: &Path) -> Vec<Module> {
    let mut table = Vec::new();
    let read = File::open(root.join("sys/firmware/dmi/tables/DMI"))
        .and_then(|file| file.take(LONGEST).read_to_end(&mut table));
    if read.is_ok() { in_table(&table) } else { Vec::new() }
}

/// Walks the structures: type, length, handle, the rest of the fixed part, then its strings and an empty one.
fn in_table(mut table: &[u8]) -> Vec<Module> {
    let mut modules = Vec::new();
    while let [kind, length, ..] = *table {
        let Some((fixed, rest)) = table.split_at_checked(usize::from(length)).filter(|_| length >= 4) else { break };
        let Some(end) = rest.windows(2).position(|pair| pair == [0, 0]) else { break };
        let strings: Vec<&[u8]> = rest[..end].split(|byte| *byte == 0).collect();
        if kind == MEMORY_DEVICE {
            modules.extend(module(fixed, &strings));
        }
        table = &rest[end + 2..];
    }
    modules
}

/// A memory device; none where its slot is empty.
fn module(fixed: &[u8], strings: &[&[u8]]) -> Option<Module> {
    let word = |at: usize| Some(u16::from_le_bytes([*fixed.get(at)?, *fixed.get(at + 1)?]));
    let text = |at: usize| {
        let index = usize::from(*fixed.get(at)?).checked_sub(1)?;
        Some(harmless(String::from_utf8_lossy(strings.get(index)?).trim()))
    };
    let mebibytes = match word(0x0c)? {
        0 | 0xffff => return None,
        0x7fff => u32::from(word(0x1c)?) | u32::from(word(0x1e)?) << 16,
        size if size & 0x8000 != 0 => u32::from(size & 0x7fff) / 1024,
        size => u32::from(size),
    };
    let model = [text(0x17), text(0x1a)].into_iter().flatten().collect::<Vec<_>>().join(" ");
    Some(Module {
        slot: text(0x10).unwrap_or_default(),
        mebibytes,
        rated: word(0x15).unwrap_or(0),
        runs_at: word(0x20).unwrap_or(0),
        model,
        serial: text(0x18).unwrap_or_default(),
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn structure(kind: u8, fixed: &[(usize, &[u8])], strings: &[&str]) -> Vec<u8> {
        let mut bytes = vec![0; 0x28];
        (bytes[0], bytes[1]) = (kind, 0x28);
        for (at, part) in fixed {
            bytes[*at..at + part.len()].copy_from_slice(part);
        }
        strings.iter().for_each(|text| bytes.extend([text.as_bytes(), &[0]].concat()));
        bytes.extend(if strings.is_empty() { &[0, 0][..] } else { &[0] });
        bytes
    }

    #[test]
    fn modules_are_listed_and_empty_slots_are_not() {
        let names: [(usize, &[u8]); 4] = [(0x10, &[1]), (0x17, &[2]), (0x18, &[3]), (0x1a, &[4])];
        let rest: [(usize, &[u8]); 3] =
            [(0x0c, &16384u16.to_le_bytes()), (0x15, &6000u16.to_le_bytes()), (0x20, &4800u16.to_le_bytes())];
        let strings = ["Slot A2", "Norrvind", "0012AF", "NV6-16"];
        let huge: [(usize, &[u8]); 2] = [(0x0c, &0x7fffu16.to_le_bytes()), (0x1c, &65536u32.to_le_bytes())];
        let table = [
            structure(1, &[], &["a system"]),
            structure(MEMORY_DEVICE, &[names, [rest[0], rest[1], rest[2], rest[0]]].concat(), &strings),
            structure(MEMORY_DEVICE, &[], &[]),
            structure(MEMORY_DEVICE, &huge, &[]),
        ];
        let found = in_table(&table.concat());
        let first = Module {
            slot: "Slot A2".into(),
            mebibytes: 16384,
            rated: 6000,
            runs_at: 4800,
            model: "Norrvind NV6-16".into(),
            serial: "0012AF".into(),
        };
        assert_eq!(found.len(), 2);
        assert_eq!((&found[0], found[1].mebibytes), (&first, 65536));
    }

    proptest! {
        #[test]
        fn any_bytes_are_a_table_without_harm(mut bytes in prop::collection::vec(any::<u8>(), 0..200), kind in any::<bool>()) {
            if let Some(first) = bytes.first_mut().filter(|_| kind) {
                *first = MEMORY_DEVICE;
            }
            prop_assert!(in_table(&bytes).iter().all(|module| !module.model.chars().any(char::is_control)));
        }
    }
}
