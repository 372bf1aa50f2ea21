//! The last words of a load that is struck by its own code: which core's thread raised the signal, and about which address.

use std::mem::MaybeUninit;
use std::ptr;
use std::sync::atomic::{AtomicU64, Ordering};

use rustix::thread::gettid;

/// The signals that code raises where wrong numbers led it astray.
const SIGNALS: [i32; 6] = [libc::SIGSEGV, libc::SIGBUS, libc::SIGILL, libc::SIGFPE, libc::SIGTRAP, libc::SIGABRT];

/// Which thread works on which core: the thread's number above the core's, and 0 for nothing. A place is found by the thread's
/// number, since whoever was struck can't search or wait.
static THREADS: [AtomicU64; 4096] = [const { AtomicU64::new(0) }; 4096];

/// Room for the handler: the thread's own stack may be what it fell over.
const STACK: usize = 64 << 10;

/// From now on says who was struck, and dies of it.
pub(crate) fn listen() {
    for signal in SIGNALS {
        // SAFETY: an action of all zeros is a valid one, and all that matters of it is set.
        let mut action: libc::sigaction = unsafe { MaybeUninit::zeroed().assume_init() };
        action.sa_sigaction = on_struck as *const () as usize;
        // Whatever strikes again while this is told, or after it, ends the process.
        action.sa_flags = libc::SA_SIGINFO | libc::SA_ONSTACK | libc::SA_RESETHAND;
        // SAFETY: the handler only reads what it is given and atomics, and makes system calls.
        let _ = unsafe { libc::sigaction(signal, &raw const action, ptr::null_mut()) };
    }
}

/// The room in which the thread that asked for it tells that it was struck, as long as this is kept.
pub(crate) struct Room {
    _bytes: Box<[u8]>,
}

impl Drop for Room {
    fn drop(&mut self) {
        let none = libc::stack_t { ss_sp: ptr::null_mut(), ss_flags: libc::SS_DISABLE, ss_size: 0 };
        // SAFETY: nothing runs on the room when its thread gives it back.
        let _ = unsafe { libc::sigaltstack(&raw const none, ptr::null_mut()) };
    }
}

/// Lets the calling thread, which works on this core, be told by name.
#[must_use]
pub(crate) fn stand_by(core: usize) -> Room {
    let thread = own_thread();
    if let Some(place) = THREADS.get(thread as usize % THREADS.len()) {
        place.store(u64::from(thread) << 32 | core as u64 & 0xffff_ffff, Ordering::Relaxed);
    }
    let mut bytes = vec![0u8; STACK].into_boxed_slice();
    let stack = libc::stack_t { ss_sp: bytes.as_mut_ptr().cast(), ss_flags: 0, ss_size: STACK };
    // SAFETY: the room is nobody else's, and is given back when it is no longer used.
    let _ = unsafe { libc::sigaltstack(&raw const stack, ptr::null_mut()) };
    Room { _bytes: bytes }
}

fn own_thread() -> u32 {
    gettid().as_raw_nonzero().get().unsigned_abs()
}

/// The core that a thread works on.
fn core_of(thread: u32) -> Option<u32> {
    let place = THREADS.get(thread as usize % THREADS.len())?.load(Ordering::Relaxed);
    (place >> 32 == u64::from(thread)).then_some(place as u32)
}

extern "C" fn on_struck(signal: i32, about: *mut libc::siginfo_t, _: *mut libc::c_void) {
    // SAFETY: the kernel hands over what it knows of the signal.
    if let Some(address) = unsafe { address_of(about) } {
        let mut line = Words::default();
        line.write(core_of(own_thread()), signal, address);
        // SAFETY: `write` may be called by a signal's handler (signal-safety(7)).
        let _ = unsafe { libc::write(libc::STDOUT_FILENO, line.bytes.as_ptr().cast(), line.length) };
    }
    // SAFETY: so may `raise`; it is delivered when this returns, and ends the process now.
    unsafe { libc::raise(signal) };
}

/// The address that a signal is about, or 0 where a thread of this process sent it to itself, as `abort` does; none where it
/// came from elsewhere.
unsafe fn address_of(about: *mut libc::siginfo_t) -> Option<u64> {
    // SAFETY: as the caller says.
    let about = unsafe { about.as_ref() }?;
    match about.si_code {
        // SAFETY: signals of the processor come with an address.
        1.. => Some(unsafe { about.si_addr() } as u64),
        // SAFETY: signals that were sent come with their sender.
        libc::SI_TKILL if unsafe { about.si_pid() } == unsafe { libc::getpid() } => Some(0),
        _ => None,
    }
}

/// A line that is put together without memory from anywhere.
struct Words {
    bytes: [u8; 160],
    length: usize,
}

impl Default for Words {
    fn default() -> Self {
        Self { bytes: [0; 160], length: 0 }
    }
}

impl Words {
    /// The message, on a line of its own whatever another thread was about to say.
    fn write(&mut self, core: Option<u32>, signal: i32, address: u64) {
        self.text("\n{\"says\":\"struck\",\"core\":");
        match core {
            Some(core) => self.number(core.into()),
            None => self.text("null"),
        }
        self.text(",\"signal\":");
        self.number(signal.unsigned_abs().into());
        self.text(",\"address\":");
        self.number(address);
        self.text("}\n");
    }

    fn text(&mut self, text: &str) {
        for byte in text.bytes() {
            if let Some(place) = self.bytes.get_mut(self.length) {
                *place = byte;
                self.length += 1;
            }
        }
    }

    fn number(&mut self, number: u64) {
        let mut digits = [0u8; 20];
        let (mut rest, mut count) = (number, 0);
        loop {
            digits[19 - count] = b'0' + (rest % 10) as u8;
            (rest, count) = (rest / 10, count + 1);
            if rest == 0 {
                break;
            }
        }
        self.text(str::from_utf8(&digits[20 - count..]).unwrap_or("0"));
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::protocol::Message;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn last_words_are_a_message(core in prop::option::of(any::<u32>()), signal in 1i32..64, address in any::<u64>()) {
            let mut words = Words::default();
            words.write(core, signal, address);
            let text = str::from_utf8(&words.bytes[..words.length]).expect("text");
            prop_assert!(text.starts_with('\n') && text.ends_with('\n'), "{}", text);
            let told: Message = serde_json::from_str(text).expect("a message");
            prop_assert_eq!(told, Message::Struck { core: core.map(|core| core as usize), signal, address });
        }
    }

    #[test]
    fn a_thread_is_known_by_its_core() {
        let known = std::thread::spawn(|| {
            let _room = stand_by(7);
            core_of(own_thread())
        });
        assert_eq!(known.join().expect("no panic"), Some(7));
        assert_eq!(core_of(u32::MAX), None);
    }
}
