//! The parent's own view of a load's cores: by what the kernel says of their threads, and not only by what the load says of
//! itself, whose memory may be wrong.
//!
//! A core has to finish round after round. One whose thread neither runs nor would run if it could for longer than its load
//! ever sleeps, or that uses far more processor time than a round takes without finishing one, works no more. One that only
//! waits for a processor that others have is starved, which says nothing about it.

use std::fmt;
use std::time::{Duration, Instant};

use crate::protocol::{CoreProgress, CoreState, Progress};
use crate::thread::{Seen, look};

/// How often threads are looked at.
const EVERY: Duration = Duration::from_millis(200);

/// A look that comes later than this after the one before saw nothing of the time between them.
const LONGEST_STEP: Duration = Duration::from_secs(1);

/// A thread may stand still for so long beside the sleeps of its load.
const STILL: Duration = Duration::from_millis(1500);

/// A thread that is gone may have ended in good order, and its load has not had a processor to say so: it is missed only once the
/// load has said so often since that it works.
const CLAIMS: u32 = 3;

/// A round may take so many times the processor time of the longest one so far.
const LONGER: u32 = 8;

/// The least processor time that is given to a round, and to the first one where nothing is foreseen of it.
const LEAST: Duration = Duration::from_secs(5);
const FIRST: Duration = Duration::from_secs(60);

/// Somebody who looks at the threads of a load.
#[derive(Debug)]
pub struct Witness {
    process: u32,
    /// How long a core may sleep in a round.
    rests: Duration,
    cores: Vec<Watched>,
    looked: Instant,
    silence: Duration,
    /// Processor time that the speaker had used at the last look.
    speaker_used: Duration,
    halted: Duration,
}

/// What is known of one core.
#[derive(Clone, Debug)]
struct Watched {
    core: usize,
    thread: u32,
    state: CoreState,
    rounds: u64,
    /// How long its thread has stood still since its last round.
    still: Duration,
    is_gone: bool,
    /// How often its load said that it works while its thread was gone.
    claims: u32,
    /// Processor time that the thread had used at its last round, and has used by now.
    used_before: Option<Duration>,
    used: Duration,
    /// The longest round so far.
    longest: Option<Duration>,
    is_told: bool,
}

/// A core that works no more.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Stalled {
    /// The processor, as the operating system numbers it.
    pub core: usize,
    /// How that shows.
    pub sign: Sign,
}

/// How it shows that a core works no more.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Sign {
    /// Its thread has stood still for so long.
    Still(Duration),
    /// Its thread is gone.
    Gone,
    /// It has no thread, while the others wait for it.
    Missing,
    /// Its thread has used so much processor time since its last round, where a round never took more than this.
    Spins(Duration, Duration),
}

impl fmt::Display for Sign {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Still(time) => write!(f, "its thread has stood still for {:.1} s", time.as_secs_f64()),
            Self::Gone => f.write_str("its thread is gone"),
            Self::Missing => f.write_str("no thread has begun to work on it, and the others wait"),
            Self::Spins(used, longest) => write!(
                f,
                "its thread has worked for {:.1} s without an end of its round, and no round before took more than {:.1} s",
                used.as_secs_f64(),
                longest.as_secs_f64()
            ),
        }
    }
}

impl Witness {
    /// For the threads of this process on these cores, whose load sleeps for so long in a round and takes about so long for one,
    /// where that is foreseen.
    pub fn new(process: u32, cores: &[usize], rests: Duration, round: Option<Duration>) -> Self {
        let watched = |core: &usize| Watched {
            core: *core,
            thread: 0,
            state: CoreState::Absent,
            rounds: 0,
            still: Duration::ZERO,
            is_gone: false,
            claims: 0,
            used_before: None,
            used: Duration::ZERO,
            longest: round.map(|round| round.saturating_mul(LONGER)),
            is_told: false,
        };
        let cores = cores.iter().map(watched).collect();
        let looked = Instant::now();
        let none = Duration::ZERO;
        Self { process, rests, cores, looked, silence: none, speaker_used: none, halted: none }
    }

    /// Takes in what the load says of itself.
    pub fn hear(&mut self, progress: &Progress) {
        for told in &progress.cores {
            if let Some(core) = self.cores.iter_mut().find(|core| core.core == told.core) {
                core.hear(told);
            }
        }
    }

    /// The load said something.
    pub fn heard(&mut self) {
        self.silence = Duration::ZERO;
    }

    /// How long it has said nothing while it could have.
    pub fn silence(&self) -> Duration {
        self.silence
    }

    /// For how long it was stopped from outside, as by job control.
    pub fn halted(&self) -> Duration {
        self.halted
    }

    /// Looks at every thread where it is time to, and tells the cores that work no more, each once.
    pub fn look(&mut self) -> Vec<Stalled> {
        let step = self.looked.elapsed();
        if step < EVERY {
            return Vec::new();
        }
        self.looked = Instant::now();
        let process = self.process;
        // The thread that speaks for all of them has the number of its process.
        let speaker = look(process, process);
        self.after(step.min(LONGEST_STEP), speaker, |thread| look(process, thread))
    }

    /// What is to be said after a stretch of time at whose end the speaker and the other threads were seen like this.
    fn after(&mut self, step: Duration, speaker: Option<Seen>, see: impl Fn(u32) -> Option<Seen>) -> Vec<Stalled> {
        if speaker.is_some_and(|seen| seen.is_halted) {
            self.halted += step;
            return Vec::new();
        }
        // Who waits for a processor can't speak.
        let is_starved = speaker.is_some_and(|seen| seen.is_runnable && seen.used == self.speaker_used);
        self.speaker_used = speaker.map_or(self.speaker_used, |seen| seen.used);
        let unheard = if is_starved { Duration::ZERO } else { step };
        self.silence += unheard;
        let rests = self.rests;
        let is_awaited = self.cores.iter().any(|core| core.state == CoreState::Ready);
        let cores = self.cores.iter_mut().filter(|core| !core.is_told);
        let stalled = |core: &mut Watched| {
            let sign =
                if core.thread == 0 { core.missing(unheard, is_awaited) } else { core.after(step, rests, &see) }?;
            core.is_told = true;
            Some(Stalled { core: core.core, sign })
        };
        cores.filter_map(stalled).collect()
    }
}

impl Watched {
    fn hear(&mut self, told: &CoreProgress) {
        let goes_on = told.rounds != self.rounds || told.state != self.state || told.thread != self.thread;
        if told.thread != self.thread {
            (self.used_before, self.used, self.is_gone, self.claims) = (None, Duration::ZERO, false, 0);
        }
        self.claims += u32::from(self.is_gone);
        if told.rounds > self.rounds
            && let Some(before) = self.used_before
        {
            self.longest = self.longest.max(Some(self.used.saturating_sub(before)));
        }
        if goes_on {
            (self.still, self.used_before) = (Duration::ZERO, None);
        }
        (self.thread, self.state, self.rounds) = (told.thread, told.state, told.rounds);
    }

    /// A core that nobody works on so far.
    fn missing(&mut self, step: Duration, is_awaited: bool) -> Option<Sign> {
        self.still = if is_awaited { self.still + step } else { Duration::ZERO };
        (self.still > LEAST).then_some(Sign::Missing)
    }

    fn after(&mut self, step: Duration, rests: Duration, see: impl Fn(u32) -> Option<Seen>) -> Option<Sign> {
        if !matches!(self.state, CoreState::Prepares | CoreState::Works) {
            return None;
        }
        match see(self.thread) {
            Some(seen) => {
                self.used = seen.used;
                self.used_before.get_or_insert(seen.used);
                if seen.is_runnable {
                    self.still = Duration::ZERO;
                } else {
                    self.still += step;
                }
            }
            None => (self.still, self.is_gone) = (self.still + step, true),
        }
        self.sign(rests)
    }

    fn sign(&self, rests: Duration) -> Option<Sign> {
        if self.is_gone {
            return (self.still > STILL && self.claims >= CLAIMS).then_some(Sign::Gone);
        }
        if self.still > STILL + rests.mul_f64(1.5) {
            return Some(Sign::Still(self.still));
        }
        let (used, longest) = (self.used.saturating_sub(self.used_before?), self.longest.unwrap_or(FIRST));
        let is_too_long = self.state == CoreState::Works && used > longest.saturating_mul(LONGER).max(LEAST);
        is_too_long.then_some(Sign::Spins(used, longest))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const STEP: Duration = Duration::from_millis(250);

    fn seconds(seconds: f64) -> Duration {
        Duration::from_secs_f64(seconds)
    }

    fn witness(rests: f64) -> Witness {
        Witness::new(1, &[4, 5], seconds(rests), Some(seconds(0.1)))
    }

    fn told(rounds: [u64; 2], state: CoreState) -> Progress {
        let core = |(index, rounds): (usize, u64)| CoreProgress {
            core: 4 + index,
            thread: 40 + index as u32,
            state,
            rounds,
            ..CoreProgress::default()
        };
        Progress { cores: rounds.into_iter().enumerate().map(core).collect(), ..Progress::default() }
    }

    fn seen(is_runnable: bool, used: f64) -> Option<Seen> {
        Some(Seen { is_runnable, is_halted: false, used: seconds(used) })
    }

    /// What is told within so many seconds in which core 4 finishes a round at every look and core 5 none.
    fn within(
        witness: &mut Witness,
        time: f64,
        state: CoreState,
        mut of_5: impl FnMut(f64) -> Option<Seen>,
    ) -> Vec<Stalled> {
        let mut stalled = Vec::new();
        for step in 0..(time / STEP.as_secs_f64()) as u64 {
            witness.hear(&told([step + 1, 7], state));
            let at = step as f64 * STEP.as_secs_f64();
            let of_5 = of_5(at);
            stalled.extend(witness.after(
                STEP,
                seen(false, at),
                |thread| if thread == 41 { of_5 } else { seen(true, at) },
            ));
        }
        stalled
    }

    #[test]
    fn a_thread_that_stands_still_is_told_once_with_its_core() {
        let stalled = within(&mut witness(0.0), 5.0, CoreState::Works, |_| seen(false, 1.0));
        assert_eq!(stalled, [Stalled { core: 5, sign: Sign::Still(seconds(1.75)) }]);
    }

    #[test]
    fn a_load_may_sleep_as_long_as_it_does() {
        let stalled = |time| within(&mut witness(2.0), time, CoreState::Works, |_| seen(false, 1.0));
        assert_eq!((stalled(4.25), stalled(6.0).len()), (Vec::new(), 1));
    }

    #[test]
    fn who_is_starved_of_the_processor_is_not_condemned() {
        let stalled = within(&mut witness(0.0), 600.0, CoreState::Works, |at| seen(true, at * 0.001));
        assert_eq!(stalled, []);
    }

    #[test]
    fn a_thread_that_works_without_end_is_told() {
        let stalled = within(&mut witness(0.0), 60.0, CoreState::Works, |at| seen(true, at));
        assert!(matches!(stalled[..], [Stalled { core: 5, sign: Sign::Spins(..) }]), "{stalled:?}");
    }

    #[test]
    fn a_long_round_may_be_long() {
        let mut long = Witness::new(1, &[4, 5], Duration::ZERO, Some(seconds(30.0)));
        assert_eq!(within(&mut long, 900.0, CoreState::Works, |at| seen(true, at)), []);
    }

    #[test]
    fn a_thread_that_is_gone_is_told_unless_it_was_done() {
        let stalled = within(&mut witness(9.0), 5.0, CoreState::Works, |_| None);
        assert_eq!(stalled, [Stalled { core: 5, sign: Sign::Gone }]);
        assert_eq!(within(&mut witness(0.0), 5.0, CoreState::Done, |_| None), []);
    }

    #[test]
    fn a_thread_that_ended_in_good_order_is_not_missed_before_its_load_could_say_so() {
        let mut starved = witness(0.0);
        starved.hear(&told([1, 1], CoreState::Works));
        for _ in 0..100 {
            assert_eq!(starved.after(STEP, seen(true, 0.0), |_| None), []);
        }
        starved.hear(&told([1, 1], CoreState::Done));
        assert_eq!(starved.after(STEP, seen(true, 0.1), |_| None), []);
    }

    #[test]
    fn who_waits_for_the_others_does_not_stand_still() {
        assert_eq!(within(&mut witness(0.0), 60.0, CoreState::Ready, |_| seen(false, 0.0)), []);
    }

    #[test]
    fn what_was_halted_from_outside_counts_neither_as_silence_nor_as_standing_still() {
        let mut halted = witness(0.0);
        halted.hear(&told([1, 1], CoreState::Works));
        for _ in 0..240 {
            let stopped = Some(Seen { is_runnable: false, is_halted: true, used: Duration::ZERO });
            assert_eq!(halted.after(STEP, stopped, |_| seen(false, 0.0)), []);
        }
        assert_eq!((halted.silence(), halted.halted()), (Duration::ZERO, seconds(60.0)));
    }

    #[test]
    fn silence_is_counted_until_something_is_said() {
        let mut silent = witness(0.0);
        silent.after(STEP, seen(false, 0.0), |_| None);
        silent.after(STEP, None, |_| None);
        assert_eq!(silent.silence(), 2 * STEP);
        silent.after(STEP, seen(true, 1.0), |_| None);
        assert_eq!(silent.silence(), 3 * STEP, "it ran, and said nothing");
        silent.after(STEP, seen(true, 1.0), |_| None);
        assert_eq!(silent.silence(), 3 * STEP, "it had no processor to say anything on");
        silent.heard();
        assert_eq!(silent.silence(), Duration::ZERO);
    }

    #[test]
    fn a_core_without_a_thread_of_its_own_is_watched_only_where_others_wait_for_it() {
        let after = |state| {
            let mut witness = witness(0.0);
            let mut progress = told([0, 0], state);
            progress.cores[1] = CoreProgress { core: 5, ..CoreProgress::default() };
            witness.hear(&progress);
            (0..100).flat_map(|_| witness.after(STEP, seen(false, 0.0), |_| seen(true, 0.0))).collect::<Vec<_>>()
        };
        assert_eq!(after(CoreState::Works), []);
        assert_eq!(after(CoreState::Ready), [Stalled { core: 5, sign: Sign::Missing }]);
    }
}
