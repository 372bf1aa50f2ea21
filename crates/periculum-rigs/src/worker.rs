//! Something that may hang, in a thread of its own: whoever asks it goes on, and hears later.

use std::sync::mpsc::{Receiver, RecvTimeoutError, Sender, channel, sync_channel};
use std::thread;
use std::time::{Duration, Instant};

type Task<T> = Box<dyn FnOnce(&mut T) + Send>;

/// A thread that does what it is asked to, one thing after the other; it ends when this is dropped and it does not hang.
#[derive(Debug)]
pub(crate) struct Worker<T> {
    tasks: Sender<Task<T>>,
}

impl<T: Send + 'static> Worker<T> {
    /// A worker on this.
    pub(crate) fn on(mut of: T) -> Self {
        let (tasks, waiting) = channel::<Task<T>>();
        thread::spawn(move || waiting.into_iter().for_each(|task| task(&mut of)));
        Self { tasks }
    }

    /// Has it do a task, whose outcome comes later.
    pub(crate) fn begin<R: Send + 'static>(
        &self,
        at_most: Duration,
        task: impl FnOnce(&mut T) -> R + Send + 'static,
    ) -> Pending<R> {
        let (sender, outcome) = sync_channel(1);
        let task = move |of: &mut T| drop(sender.send(task(of)));
        // A worker whose thread is gone answers nothing, as one that hangs.
        let _ = self.tasks.send(Box::new(task));
        Pending { outcome, until: Instant::now() + at_most }
    }
}

/// The outcome of a task that is under way.
#[derive(Debug)]
pub(crate) struct Pending<R> {
    outcome: Receiver<R>,
    until: Instant,
}

/// How it stands with a task.
#[derive(Debug, PartialEq, Eq)]
pub(crate) enum Outcome<R> {
    /// It is done.
    Done(R),
    /// There is still time.
    NotYet,
    /// It, or one before it, was not done in its time. It is done all the same when that can be, and its outcome lost.
    TooLate,
}

impl<R> Pending<R> {
    /// The outcome of nobody's task, which is too late already.
    pub(crate) fn over() -> Self {
        Self { outcome: sync_channel(1).1, until: Instant::now() }
    }

    /// How it stands, having waited at most this long.
    pub(crate) fn wait(&self, at_most: Duration) -> Outcome<R> {
        match self.outcome.recv_timeout(at_most) {
            Ok(outcome) => Outcome::Done(outcome),
            Err(RecvTimeoutError::Timeout) if Instant::now() < self.until => Outcome::NotYet,
            Err(_) => Outcome::TooLate,
        }
    }
}

/// What comes of work that may hang, in a thread of its own; none where it is not done within this time. That thread is left to
/// itself then.
pub fn within<T: Send + 'static>(at_most: Duration, work: impl FnOnce() -> T + Send + 'static) -> Option<T> {
    let (sender, outcome) = sync_channel(1);
    thread::spawn(move || drop(sender.send(work())));
    outcome.recv_timeout(at_most).ok()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn work_that_hangs_is_left() {
        assert_eq!(within(Duration::from_secs(60), || 3), Some(3));
        let (_go_on, held) = channel::<()>();
        assert_eq!(within(Duration::from_millis(1), move || held.recv()), None);
    }

    const LONG: Duration = Duration::from_secs(60);

    #[test]
    fn who_hangs_keeps_nobody_waiting_and_works_on_when_it_can() {
        let worker = Worker::on(1);
        assert_eq!(worker.begin(LONG, |number| *number + 1).wait(LONG), Outcome::Done(2));
        let (go_on, held) = channel::<()>();
        let hangs = worker.begin(Duration::ZERO, move |number| {
            // Until it is let go.
            let _ = held.recv();
            *number = 5;
        });
        let behind = worker.begin(LONG, |number| *number);
        assert_eq!(hangs.wait(Duration::ZERO), Outcome::TooLate);
        assert_eq!(behind.wait(Duration::ZERO), Outcome::NotYet, "it still hangs");
        go_on.send(()).expect("held");
        assert_eq!(behind.wait(LONG), Outcome::Done(5));
    }
}
