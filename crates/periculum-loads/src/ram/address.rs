//! Where a word stands: its virtual address and, where the kernel tells this process, its physical one.

use std::fs::File;
use std::os::unix::fs::FileExt;

/// Bytes of the pages that the page map counts in.
const PAGE: u64 = 4096;

/// A page is in memory, and its frame's number, in an entry of `/proc/self/pagemap` (pagemap.rst of the Linux kernel).
const PRESENT: u64 = 1 << 63;
const FRAME: u64 = (1 << 55) - 1;

/// The physical address of a virtual one; none where the page is not in memory, or this process may not know.
pub(super) fn physical(address: u64) -> Option<u64> {
    let mut entry = [0; 8];
    File::open("/proc/self/pagemap").ok()?.read_exact_at(&mut entry, address / PAGE * 8).ok()?;
    let entry = u64::from_ne_bytes(entry);
    // Who may not know gets frames of number 0.
    let frame = entry & FRAME;
    (entry & PRESENT != 0 && frame != 0).then_some(frame * PAGE + address % PAGE)
}

/// The address in words, as `virtual 7f…, physical 3c…`.
pub(super) fn written(address: u64) -> String {
    match physical(address) {
        Some(physical) => format!("address {address:x}, physical {physical:x}"),
        None => format!("address {address:x}"),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_word_keeps_its_offset_in_its_page() {
        let word = Box::new(7u64);
        let address = &raw const *word as u64;
        if let Some(physical) = physical(address) {
            assert_eq!(physical % PAGE, address % PAGE);
        }
        assert!(written(address).starts_with(&format!("address {address:x}")));
    }
}
