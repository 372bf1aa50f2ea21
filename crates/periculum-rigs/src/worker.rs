//! Something that may hang, in a thread of its own: whoever asks it waits only so long.

use std::sync::mpsc::{Sender, channel, sync_channel};
use std::thread;
use std::time::Duration;

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

    /// What comes of a task; none where it, or one before it, is not done within this time. A task that is late is done all
    /// the same, and its outcome lost.
    pub(crate) fn ask<R: Send + 'static>(
        &self,
        at_most: Duration,
        task: impl FnOnce(&mut T) -> R + Send + 'static,
    ) -> Option<R> {
        let (sender, outcome) = sync_channel(1);
        let task = move |of: &mut T| drop(sender.send(task(of)));
        self.tasks.send(Box::new(task)).ok()?;
        outcome.recv_timeout(at_most).ok()
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

    #[test]
    fn who_hangs_keeps_nobody_waiting_and_works_on_when_it_can() {
        let worker = Worker::on(1);
        assert_eq!(worker.ask(Duration::from_secs(60), |number| *number + 1), Some(2));
        let (go_on, held) = channel::<()>();
        let hangs = worker.ask(Duration::from_millis(1), move |number| {
            // Until it is let go.
            let _ = held.recv();
            *number = 5;
        });
        assert_eq!(hangs, None);
        assert_eq!(worker.ask(Duration::from_millis(1), |number| *number), None, "it still hangs");
        go_on.send(()).expect("held");
        assert_eq!(worker.ask(Duration::from_secs(60), |number| *number), Some(5));
    }
}
