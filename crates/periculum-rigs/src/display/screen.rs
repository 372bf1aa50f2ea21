//! Outputs and their modes, through RandR (The X Resize, Rotate and Reflect Extension, version 1.6).

use periculum_core::Decimal;
use x11rb::connection::Connection as _;
use x11rb::protocol::randr::{
    Connection, ConnectionExt as _, GetCrtcInfoReply, GetOutputInfoReply, ModeFlag, ModeInfo, SetConfig,
};
use x11rb::protocol::xproto::{AtomEnum, ConnectionExt as _};
use x11rb::rust_connection::RustConnection;

use super::limits::Limits;
use super::timings::{Timings, Totals};

/// What modes that are made here are called, before the rate.
const OWN: &str = "periculum ";

/// A mode that is there already serves a rate that it is this near to, Hz.
const NEAR: Decimal = Decimal::from_parts(5, 0, 0, false, 2);

/// Words of a screen's own description at the most.
const EDID_WORDS: u32 = 64;

/// An X server that answers.
pub(super) struct Screen {
    connection: RustConnection,
    root: u32,
}

/// An output with a picture on it.
pub(super) struct Output {
    pub(super) id: u32,
    pub(super) name: String,
    info: GetOutputInfoReply,
    crtc: GetCrtcInfoReply,
    modes: Vec<ModeInfo>,
}

fn told(error: impl std::fmt::Display) -> String {
    format!("the X server refuses: {error}")
}

impl Screen {
    /// The server that the environment names.
    pub(super) fn open() -> Result<Self, String> {
        let named = std::env::var("DISPLAY").unwrap_or_default();
        if named.is_empty() {
            return Err(
                "no X server is there (DISPLAY is not set), and compositors of the other kind let no program set modes"
                    .into(),
            );
        }
        let (connection, number) =
            x11rb::connect(None).map_err(|error| format!("the X server {named} does not answer: {error}"))?;
        let root = connection.setup().roots[number].root;
        let version = connection.randr_query_version(1, 5).map_err(told)?.reply().map_err(told)?;
        if (version.major_version, version.minor_version) < (1, 3) {
            return Err(format!(
                "the X server {named} knows too little of modes: RandR {}.{}",
                version.major_version, version.minor_version
            ));
        }
        Ok(Self { connection, root })
    }

    /// Every output that shows a picture.
    pub(super) fn outputs(&self) -> Result<Vec<Output>, String> {
        let there =
            self.connection.randr_get_screen_resources_current(self.root).map_err(told)?.reply().map_err(told)?;
        let mut outputs = Vec::new();
        for id in there.outputs {
            let info = self.connection.randr_get_output_info(id, 0).map_err(told)?.reply().map_err(told)?;
            if info.connection != Connection::CONNECTED || info.crtc == 0 {
                continue;
            }
            let crtc = self.connection.randr_get_crtc_info(info.crtc, 0).map_err(told)?.reply().map_err(told)?;
            if crtc.mode == 0 {
                continue;
            }
            let modes = there.modes.iter().filter(|mode| info.modes.contains(&mode.id) || mode.id == crtc.mode);
            let name = String::from_utf8_lossy(&info.name).into_owned();
            outputs.push(Output { id, name, modes: modes.copied().collect(), info, crtc });
        }
        Ok(outputs)
    }

    /// The output of this name.
    pub(super) fn output(&self, name: &str) -> Result<Output, String> {
        let outputs = self.outputs()?;
        let known: Vec<String> = outputs.iter().map(|output| output.name.clone()).collect();
        let missing = || match &known[..] {
            [] => format!("no output is called `{name}`, and none shows a picture"),
            known => format!("no output is called `{name}`: there are {}", known.join(", ")),
        };
        outputs.into_iter().find(|output| output.name == name).ok_or_else(missing)
    }

    /// How far the screen on an output says that it goes.
    pub(super) fn limits(&self, output: &Output) -> Option<Limits> {
        let atom = self.connection.intern_atom(true, b"EDID").ok()?.reply().ok()?.atom;
        let asked =
            self.connection.randr_get_output_property(output.id, atom, AtomEnum::ANY, 0, EDID_WORDS, false, false);
        Limits::of(&asked.ok()?.reply().ok()?.data)
    }

    /// Shows a mode of these timings: one that is there where it is near enough, with the same totals where they are wanted, else a
    /// new one.
    pub(super) fn show(&self, output: &Output, timings: Timings, wants_totals: bool) -> Result<(), String> {
        let rate = timings.rate();
        let is_near = |mode: &&ModeInfo| {
            let known = timings_of(mode);
            known.is_like(&timings, wants_totals) && (known.rate() - rate).abs() <= NEAR
        };
        // What is shown now comes before what is like it.
        let now = output.modes.iter().filter(|mode| mode.id == output.crtc.mode);
        let known = now.chain(&output.modes).find(is_near).map(|mode| mode.id);
        let mode = match known {
            Some(mode) => mode,
            None => self.make(output, timings)?,
        };
        self.set(output, mode)?;
        self.forget_own(output, mode);
        Ok(())
    }

    fn make(&self, output: &Output, timings: Timings) -> Result<u32, String> {
        let name = format!("{OWN}{}x{} {}", timings.across.shown, timings.down.shown, timings.rate());
        let Timings { clock, across, down, flags } = timings.with_signs();
        let info = ModeInfo {
            id: 0,
            width: across.shown,
            height: down.shown,
            dot_clock: clock,
            hsync_start: across.pulse_from,
            hsync_end: across.pulse_to,
            htotal: across.total,
            hskew: 0,
            vsync_start: down.pulse_from,
            vsync_end: down.pulse_to,
            vtotal: down.total,
            name_len: name.len() as u16,
            mode_flags: ModeFlag::from(flags),
        };
        let made = self.connection.randr_create_mode(self.root, info, name.as_bytes()).map_err(told)?;
        let mode = made.reply().map_err(told)?.mode;
        let added = self.connection.randr_add_output_mode(output.id, mode).map_err(told)?.check();
        if let Err(error) = added {
            // It serves nobody.
            let _ = self.connection.randr_destroy_mode(mode).map(|sent| sent.check());
            return Err(told(error));
        }
        Ok(mode)
    }

    /// Shows a mode that the output has.
    pub(super) fn set(&self, output: &Output, mode: u32) -> Result<(), String> {
        let GetCrtcInfoReply { x, y, rotation, outputs, .. } = &output.crtc;
        let sent = self.connection.randr_set_crtc_config(output.info.crtc, 0, 0, *x, *y, mode, *rotation, outputs);
        let status = sent.map_err(told)?.reply().map_err(told)?.status;
        if status == SetConfig::SUCCESS { Ok(()) } else { Err(format!("the output takes no such mode: {status:?}")) }
    }

    /// Takes away the modes that were made here and are shown no more.
    fn forget_own(&self, output: &Output, shown: u32) {
        let Ok(asked) = self.connection.randr_get_screen_resources_current(self.root) else { return };
        let Ok(there) = asked.reply() else { return };
        let mut names = &there.names[..];
        for mode in &there.modes {
            let (name, rest) = names.split_at(usize::from(mode.name_len).min(names.len()));
            names = rest;
            if mode.id != shown && name.starts_with(OWN.as_bytes()) {
                // One that another output shows stays.
                let _ = self.connection.randr_delete_output_mode(output.id, mode.id).map(|sent| sent.check());
                let _ = self.connection.randr_destroy_mode(mode.id).map(|sent| sent.check());
            }
        }
    }
}

impl Output {
    /// The mode that is shown.
    pub(super) fn mode(&self) -> u32 {
        self.crtc.mode
    }

    /// Its timings.
    pub(super) fn timings(&self) -> Option<Timings> {
        self.modes.iter().find(|mode| mode.id == self.crtc.mode).map(timings_of)
    }
}

fn timings_of(mode: &ModeInfo) -> Timings {
    Timings {
        clock: mode.dot_clock,
        across: Totals {
            shown: mode.width,
            pulse_from: mode.hsync_start,
            pulse_to: mode.hsync_end,
            total: mode.htotal,
        },
        down: Totals { shown: mode.height, pulse_from: mode.vsync_start, pulse_to: mode.vsync_end, total: mode.vtotal },
        flags: u32::from(mode.mode_flags),
    }
}
