//! The run of a load on a device: rounds one after the other, and what is told of them.

use std::io;
use std::path::PathBuf;
use std::thread::sleep;
use std::time::{Duration, Instant, SystemTime};

use super::album::Album;
use super::device::{Choice, DeviceKind, GraphicsDevice, adapters, describe};
use super::gpu::{Gpu, Lost};
use super::load::{Found, GraphicsLoad, Picture, Round, Work};
use super::order::{Extent, GraphicsOrder};
use super::strike::{NoStrike, Strike};
use crate::child::{enter, saying};
use crate::frame::Stop;
use crate::protocol::{Message, Progress, Started, Wrong};

/// How often progress is told.
const TELLING: Duration = Duration::from_millis(250);

/// What is wrong is told at most once in so long, with its number.
const WRONG_TELLING: Duration = Duration::from_secs(1);

/// The part of its time that a device works in the warm-up.
const LIGHT: f64 = 0.5;

/// Runs the load and says how it goes on standard output, as the process that it has to itself.
///
/// # Errors
/// When nobody listens any more.
pub fn run_on_device(load: &'static dyn GraphicsLoad, order: &GraphicsOrder, niceness: i32) -> io::Result<()> {
    if !enter(niceness)? {
        return Ok(());
    }
    saying(|tell| run(load, order, &NoStrike, tell))
}

/// Runs a load on its device and tells how it goes.
pub fn run(load: &'static dyn GraphicsLoad, order: &GraphicsOrder, strike: &dyn Strike, mut tell: impl FnMut(Message)) {
    match begin(load, order, &mut tell) {
        Err(why) => tell(Message::Failed { why }),
        Ok((gpu, work)) => Run::new(load, order, strike, tell).work(&gpu, work),
    }
}

/// Opens the device and gets everything ready.
fn begin(
    load: &'static dyn GraphicsLoad,
    order: &GraphicsOrder,
    tell: &mut impl FnMut(Message),
) -> Result<(Gpu, Box<dyn Work>), String> {
    let adapters = adapters();
    let devices: Vec<_> = adapters.iter().enumerate().map(|(number, adapter)| describe(number, adapter)).collect();
    let number = match GraphicsDevice::choose(&devices, order.device.as_deref()) {
        Choice::One(number) => number,
        _ => return Err(no_device(order.device.as_deref())),
    };
    let device = &devices[number];
    let size = size(load, order.extent, device);
    tell(Message::Started(Started {
        load: load.about().name.into(),
        kernel: kernel_name(device),
        cores: Vec::new(),
        size,
        size_name: load.about().size_name.into(),
        bytes: load.bytes(size),
        round_seconds: None,
        unit: load.about().unit.into(),
        less_is_better: false,
    }));
    let refused = |lost: Lost| format!("{} can't run {}: {lost}", device.name, load.about().name);
    let gpu = Gpu::open(&adapters[number]).map_err(refused)?;
    let work = load.begin(&gpu, size, order.seed).map_err(refused)?;
    Ok((gpu, work))
}

fn kernel_name(device: &GraphicsDevice) -> String {
    let kind = if device.kind == DeviceKind::Software { "software " } else { "" };
    format!("{}, {kind}Vulkan", device.name)
}

/// Who started this has looked before: the device has gone since then.
fn no_device(wanted: Option<&str>) -> String {
    wanted.map_or("no device offers Vulkan".into(), |wanted| format!("no device is called `{wanted}`"))
}

fn size(load: &dyn GraphicsLoad, extent: Extent, device: &GraphicsDevice) -> u64 {
    match extent {
        Extent::Usual => load.nearest(load.usual_size(device)),
        Extent::Size(size) => load.nearest(size),
        Extent::Share(percent) => load.nearest(load.size_for(device.memory / 100 * u64::from(percent))),
        Extent::Bytes(bytes) => load.nearest(load.size_for(bytes)),
    }
}

/// What a run keeps as it goes along.
struct Run<'a, T> {
    load: &'static dyn GraphicsLoad,
    order: &'a GraphicsOrder,
    strike: &'a dyn Strike,
    tell: T,
    began: Instant,
    rounds: u64,
    errors: u64,
    /// Work since the warm-up, and when that was over.
    done: f64,
    since: Instant,
    told: Instant,
    /// When something wrong was last told, and how much has not been since then.
    told_wrong: Option<Instant>,
    untold: Option<Wrong>,
    album: Album,
}

impl<'a, T: FnMut(Message)> Run<'a, T> {
    fn new(load: &'static dyn GraphicsLoad, order: &'a GraphicsOrder, strike: &'a dyn Strike, tell: T) -> Self {
        let now = Instant::now();
        Self {
            load,
            order,
            strike,
            tell,
            began: now,
            rounds: 0,
            errors: 0,
            done: 0.0,
            since: now,
            told: now,
            told_wrong: None,
            untold: None,
            album: Album::default(),
        }
    }

    fn work(mut self, gpu: &Gpu, mut work: Box<dyn Work>) {
        let ended = self.stint(gpu, work.as_mut(), self.order.warm_up, true).and_then(|goes_on| {
            // The first round finds what all others are compared with: it is no work like theirs.
            (self.done, self.since) = (0.0, Instant::now());
            if goes_on { self.stint(gpu, work.as_mut(), self.order.length, false) } else { Ok(false) }
        });
        self.tell_untold();
        match ended {
            Err(lost) => {
                let seconds = self.began.elapsed().as_secs_f64();
                (self.tell)(Message::DeviceLost { seconds, why: lost.to_string() });
            }
            Ok(_) => {
                let progress = self.progress(false);
                (self.tell)(Message::Ended(progress));
            }
        }
    }

    /// Works until this long after the beginning; says whether to go on.
    fn stint(&mut self, gpu: &Gpu, work: &mut dyn Work, until: Duration, warms_up: bool) -> Result<bool, Lost> {
        while self.began.elapsed() < until && self.order.times.is_none_or(|times| self.rounds < times) {
            let began = Instant::now();
            self.rounds += 1;
            if self.strike.loses(self.rounds) {
                gpu.lose();
            }
            let round = work.round(gpu, self.rounds, self.strike)?;
            let goes_on = self.take(round);
            if self.told.elapsed() >= TELLING {
                let progress = self.progress(warms_up);
                (self.tell)(Message::Progress(progress));
                self.told = Instant::now();
            }
            if !goes_on {
                return Ok(false);
            }
            if warms_up {
                sleep(began.elapsed().mul_f64(1.0 / LIGHT - 1.0).min(TELLING));
            }
        }
        Ok(true)
    }

    /// Takes what a round has done; says whether to go on.
    fn take(&mut self, round: Round) -> bool {
        if self.rounds == 1 {
            // It found what all others are compared with.
            self.since = Instant::now();
        } else {
            self.done += round.work;
        }
        for found in round.found {
            self.errors += 1;
            self.hear(found);
        }
        self.errors == 0 || self.order.stop == Stop::Never
    }

    fn hear(&mut self, found: Found) {
        let picture = found.picture.and_then(|picture| self.keep(&picture));
        let wrong = Wrong {
            core: None,
            round: self.rounds,
            seconds: self.began.elapsed().as_secs_f64(),
            kind: found.fault.kind,
            part: found.fault.part,
            expected: found.fault.expected,
            found: found.fault.found,
            nth: self.errors,
            repeats: found.fault.repeats,
            picture,
        };
        let is_due = self.told_wrong.is_none_or(|told| told.elapsed() >= WRONG_TELLING);
        // What has a picture to show is told rather than what has none.
        if wrong.picture.is_some() || self.untold.as_ref().is_none_or(|untold| untold.picture.is_none()) {
            self.untold = Some(wrong);
        }
        if is_due {
            self.tell_untold();
        }
    }

    fn tell_untold(&mut self) {
        if let Some(mut wrong) = self.untold.take() {
            wrong.nth = self.errors;
            self.told_wrong = Some(Instant::now());
            (self.tell)(Message::Wrong(wrong));
        }
    }

    /// Keeps a wrong picture; tells where. A picture that can't be kept is no reason to stop.
    fn keep(&mut self, picture: &Picture) -> Option<String> {
        let folder = self.order.pictures.as_ref().filter(|_| self.album.takes(picture))?;
        let seconds = SystemTime::now().duration_since(SystemTime::UNIX_EPOCH).unwrap_or_default().as_secs();
        let name = format!("{seconds}-{}-round-{}.png", self.load.about().name, self.rounds);
        let path: PathBuf = folder.join(name);
        std::fs::create_dir_all(folder).and_then(|()| std::fs::write(&path, &picture.png)).ok()?;
        Some(path.display().to_string())
    }

    fn progress(&self, warms_up: bool) -> Progress {
        let rate = if self.done > 0.0 { self.done / self.since.elapsed().as_secs_f64().max(1e-9) } else { 0.0 };
        Progress {
            seconds: self.began.elapsed().as_secs_f64(),
            warms_up,
            rounds: self.rounds,
            errors: self.errors,
            rate,
            over_time: rate,
            ..Progress::default()
        }
    }
}
