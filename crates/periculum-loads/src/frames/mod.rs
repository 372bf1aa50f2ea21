//! `frames`: a moving pattern over the whole screen of an X server, and a count of what was really shown.
//!
//! It knows no right or wrong of pictures, which only eyes see: what it counts is its score.

mod flips;
mod window;

use std::io;
use std::time::{Duration, Instant};

use flips::Flips;
use window::Window;

use crate::child::{enter, say};
use crate::protocol::{Figure, Message, Progress, Started};

/// What plans call it.
pub const NAME: &str = "frames";

const UNIT: &str = "frames/s";
const UNIT_LATE: &str = "frames";

/// How often progress is told.
const TELLING: Duration = Duration::from_millis(250);

/// Runs it for this long, or until so many frames are shown, and says how it goes on standard output, as the process that it has to itself.
///
/// # Errors
/// When nobody listens any more.
pub fn show_frames(length: Duration, times: Option<u64>, niceness: i32) -> io::Result<()> {
    if !enter(niceness)? {
        return Ok(());
    }
    let mut window = match Window::open() {
        Ok(window) => window,
        Err(why) => return say(&Message::Failed { why }),
    };
    say(&Message::Started(started(&window)))?;
    let began = Instant::now();
    let (mut flips, mut told) = (Flips::default(), began);
    while began.elapsed() < length && times.is_none_or(|times| flips.shown < times) {
        match window.draw().and_then(|()| window.shown()) {
            Ok(flip) => flips.take(flip),
            Err(why) => return say(&Message::DeviceLost { seconds: began.elapsed().as_secs_f64(), why }),
        }
        if told.elapsed() >= TELLING {
            say(&Message::Progress(progress(&flips, began)))?;
            told = Instant::now();
        }
    }
    say(&Message::Ended(progress(&flips, began)))
}

fn started(window: &Window) -> Started {
    Started {
        load: NAME.into(),
        kernel: "Present".into(),
        size: window.pixels(),
        size_name: "pixels".into(),
        bytes: window.bytes(),
        unit: UNIT.into(),
        ..Started::default()
    }
}

fn progress(flips: &Flips, began: Instant) -> Progress {
    let figure = |name: &str, value: f64, unit: &str, less_is_better| Figure {
        name: name.into(),
        value,
        unit: unit.into(),
        less_is_better,
    };
    Progress {
        seconds: began.elapsed().as_secs_f64(),
        rounds: flips.shown,
        rate: flips.rate(),
        figures: vec![
            figure("shown", flips.rate(), UNIT, false),
            figure("refresh", flips.refresh().unwrap_or_default(), "Hz", false),
            figure("skipped", flips.skipped as f64, "pictures", true),
            figure("late", flips.late as f64, UNIT_LATE, true),
        ],
        ..Progress::default()
    }
}
