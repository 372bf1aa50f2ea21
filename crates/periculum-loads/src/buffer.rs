//! Memory for loads: taken once, filled with nothing, aligned, in huge pages where the system has them.

use std::ffi::c_void;
use std::io;
use std::marker::PhantomData;
use std::ops::{Deref, DerefMut};
use std::ptr::NonNull;

use bytemuck::Pod;
use rustix::mm::{Advice, MapFlags, ProtFlags, madvise, mmap_anonymous, munmap};

/// Bytes of a huge page on the processors this runs on.
pub const HUGE_PAGE: usize = 2 << 20;

/// A slice of numbers in pages of its own, which are in memory from the start.
///
/// It is aligned to a page, and to a huge page where it holds one.
pub struct Buffer<T: Pod> {
    mapping: NonNull<c_void>,
    mapped: usize,
    first: NonNull<T>,
    length: usize,
    owns: PhantomData<T>,
}

// SAFETY: the memory belongs to the buffer alone, as a vector's does.
unsafe impl<T: Pod + Send> Send for Buffer<T> {}
// SAFETY: shared references to a buffer only read, as a vector's do.
unsafe impl<T: Pod + Sync> Sync for Buffer<T> {}

/// The pages that a buffer asks for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Pages {
    /// Huge ones where the system gives them.
    Huge,
    /// The smallest.
    Small,
}

impl<T: Pod> Buffer<T> {
    /// Takes this many numbers, all nothing, in huge pages where the system gives them.
    ///
    /// # Errors
    /// When the system has not so much memory.
    pub fn zeroed(length: usize) -> io::Result<Self> {
        Self::with_pages(length, Pages::Huge)
    }

    /// The same in pages of a kind.
    ///
    /// # Errors
    /// When the system has not so much memory.
    pub fn with_pages(length: usize, pages: Pages) -> io::Result<Self> {
        let bytes = length.checked_mul(size_of::<T>()).ok_or(io::ErrorKind::OutOfMemory)?.max(1);
        let spare = if bytes >= HUGE_PAGE { HUGE_PAGE } else { 0 };
        let mapped = bytes.checked_add(spare).ok_or(io::ErrorKind::OutOfMemory)?;
        let access = ProtFlags::READ | ProtFlags::WRITE;
        // SAFETY: the system chooses the place, so that nothing else is there.
        let mapping = unsafe { mmap_anonymous(std::ptr::null_mut(), mapped, access, MapFlags::PRIVATE)? };
        let offset = if spare > 0 { mapping.align_offset(HUGE_PAGE) } else { 0 };
        // SAFETY: the spare part is as long as the longest way to the next huge page.
        let first = unsafe { mapping.byte_add(offset) };
        let advice = match pages {
            Pages::Huge => Advice::LinuxHugepage,
            Pages::Small => Advice::LinuxNoHugepage,
        };
        // An interpreter of this code (Miri) has no pages to choose from.
        if !cfg!(miri) {
            // SAFETY: the range is inside the mapping; a system without huge pages just refuses.
            let _ = unsafe { madvise(first, bytes, advice) };
        }
        let mapping = NonNull::new(mapping).ok_or(io::ErrorKind::OutOfMemory)?;
        let first = NonNull::new(first.cast::<T>()).ok_or(io::ErrorKind::OutOfMemory)?;
        let mut buffer = Self { mapping, mapped, first, length, owns: PhantomData };
        buffer.touch();
        Ok(buffer)
    }

    /// Writes to every page, so that the memory is there before the work begins.
    fn touch(&mut self) {
        const SMALLEST_PAGE: usize = 4096;
        let step = SMALLEST_PAGE.div_ceil(size_of::<T>());
        self.iter_mut().step_by(step).for_each(|number| *number = T::zeroed());
    }
}

impl<T: Pod> Deref for Buffer<T> {
    type Target = [T];

    fn deref(&self) -> &[T] {
        // SAFETY: the mapping holds so many numbers, and any bits are one (they are `Pod`).
        unsafe { std::slice::from_raw_parts(self.first.as_ptr(), self.length) }
    }
}

impl<T: Pod> DerefMut for Buffer<T> {
    fn deref_mut(&mut self) -> &mut [T] {
        // SAFETY: as above, and the buffer is borrowed alone.
        unsafe { std::slice::from_raw_parts_mut(self.first.as_ptr(), self.length) }
    }
}

impl<T: Pod> Drop for Buffer<T> {
    fn drop(&mut self) {
        // SAFETY: the mapping was made by this buffer, and nothing borrows from it any more.
        let _ = unsafe { munmap(self.mapping.as_ptr(), self.mapped) };
    }
}

#[cfg(test)]
mod tests {
    use std::fs::File;
    use std::os::unix::fs::FileExt;

    use super::*;

    /// How many pages of these are in memory (bit 63 of their entries in the page map: pagemap.rst of the Linux kernel).
    fn pages_in_memory(buffer: &Buffer<u64>) -> usize {
        const PAGE: usize = 4096;
        let map = File::open("/proc/self/pagemap").expect("a Linux");
        let mut entries = vec![0u8; buffer.len() * 8 / PAGE * 8];
        map.read_exact_at(&mut entries, (buffer.as_ptr() as usize / PAGE * 8) as u64).expect("a page map");
        entries.as_chunks::<8>().0.iter().filter(|entry| u64::from_ne_bytes(**entry) >> 63 == 1).count()
    }

    #[test]
    fn memory_is_there_at_once_and_as_much_as_was_asked() {
        let asked = 256 << 20;
        let buffer = Buffer::<u64>::zeroed(asked / 8).expect("memory");
        assert_eq!(buffer.as_ptr() as usize % HUGE_PAGE, 0);
        assert_eq!(pages_in_memory(&buffer), asked / 4096);
        // What is mapped besides is never touched.
        assert!(buffer.mapped <= asked + HUGE_PAGE);
        assert!(buffer.iter().all(|word| *word == 0));
    }

    #[test]
    fn more_than_there_can_be_is_refused() {
        assert!(Buffer::<u64>::zeroed(usize::MAX / 4).is_err());
        assert!(Buffer::<u64>::zeroed(1 << 50).is_err());
    }

    #[test]
    fn an_empty_buffer_is_an_empty_slice() {
        assert!(Buffer::<f64>::zeroed(0).expect("memory").is_empty());
    }
}
