//! A window with a moving pattern, shown frame by frame through the Present extension (version 1.2).

use x11rb::connection::Connection as _;
use x11rb::protocol::Event;
use x11rb::protocol::present::{CompleteKind, ConnectionExt as _, EventMask};
use x11rb::protocol::xproto::{ChangeGCAux, ConnectionExt as _, CreateGCAux, CreateWindowAux, Rectangle, WindowClass};
use x11rb::rust_connection::RustConnection;
use x11rb::{COPY_DEPTH_FROM_PARENT, NONE};

use super::flips::Flip;

/// Pictures that take turns: one is shown, one waits, and one is drawn.
const PICTURES: usize = 3;

/// Squares of the ground, and the width of the bar that moves over it, pixels.
const SQUARE: u16 = 32;
const BAR: i16 = 48;

/// How far the bar moves in a frame, pixels.
const STEP: u64 = 8;

const GROUND: u32 = 0x0010_1822;
const SQUARES: u32 = 0x0024_3a4c;
const MOVING: u32 = 0x00e8_c070;

/// The window.
pub(super) struct Window {
    connection: RustConnection,
    id: u32,
    pen: u32,
    pictures: [u32; PICTURES],
    size: (u16, u16),
    /// How many frames were drawn.
    drawn: u64,
}

fn told(error: impl std::fmt::Display) -> String {
    format!("the X server refuses: {error}")
}

impl Window {
    /// A window over the whole screen of the server that the environment names.
    pub(super) fn open() -> Result<Self, String> {
        let (connection, number) = x11rb::connect(None).map_err(|error| format!("no X server answers: {error}"))?;
        let screen = &connection.setup().roots[number];
        let (root, depth, visual) = (screen.root, screen.root_depth, screen.root_visual);
        let size = (screen.width_in_pixels, screen.height_in_pixels);
        connection.present_query_version(1, 2).map_err(told)?.reply().map_err(told)?;
        let new = || connection.generate_id().map_err(told);
        let (id, pen, events) = (new()?, new()?, new()?);
        let pictures = [new()?, new()?, new()?];
        let wanted = CreateWindowAux::new().override_redirect(1).background_pixel(GROUND);
        connection
            .create_window(
                COPY_DEPTH_FROM_PARENT,
                id,
                root,
                0,
                0,
                size.0,
                size.1,
                0,
                WindowClass::INPUT_OUTPUT,
                visual,
                &wanted,
            )
            .map_err(told)?;
        for picture in pictures {
            connection.create_pixmap(depth, picture, id, size.0, size.1).map_err(told)?;
        }
        connection.create_gc(pen, id, &CreateGCAux::new().graphics_exposures(0)).map_err(told)?;
        connection.present_select_input(events, id, EventMask::COMPLETE_NOTIFY).map_err(told)?;
        connection.map_window(id).map_err(told)?.check().map_err(told)?;
        Ok(Self { connection, id, pen, pictures, size, drawn: 0 })
    }

    /// Its size, pixels.
    pub(super) fn pixels(&self) -> u64 {
        u64::from(self.size.0) * u64::from(self.size.1)
    }

    /// Memory of the server that its pictures hold, bytes.
    pub(super) fn bytes(&self) -> u64 {
        self.pixels() * 4 * PICTURES as u64
    }

    /// Draws the next frame and gives it to the server, for the next picture that the screen shows.
    pub(super) fn draw(&mut self) -> Result<(), String> {
        let picture = self.pictures[self.drawn as usize % PICTURES];
        let whole = [Rectangle { x: 0, y: 0, width: self.size.0, height: self.size.1 }];
        self.fill(picture, GROUND, &whole)?;
        self.fill(picture, SQUARES, &self.squares())?;
        let at = (self.drawn * STEP % u64::from(self.size.0)) as i16;
        self.fill(picture, MOVING, &[Rectangle { x: at, y: 0, width: BAR as u16, height: self.size.1 }])?;
        self.drawn += 1;
        let serial = self.drawn as u32;
        let (id, none) = (self.id, NONE);
        self.connection
            .present_pixmap(id, picture, serial, none, none, 0, 0, none, none, none, 0, 0, 1, 0, &[])
            .map_err(told)?;
        self.connection.flush().map_err(told)
    }

    fn squares(&self) -> Vec<Rectangle> {
        let (columns, rows) = (self.size.0.div_ceil(SQUARE), self.size.1.div_ceil(SQUARE));
        let all = (0..rows).flat_map(|row| (0..columns).map(move |column| (column, row)));
        let dark = all.filter(|(column, row)| (column + row) % 2 == 0);
        let square = |(column, row)| Rectangle {
            x: (column * SQUARE) as i16,
            y: (row * SQUARE) as i16,
            width: SQUARE,
            height: SQUARE,
        };
        dark.map(square).collect()
    }

    fn fill(&self, picture: u32, colour: u32, what: &[Rectangle]) -> Result<(), String> {
        self.connection.change_gc(self.pen, &ChangeGCAux::new().foreground(colour)).map_err(told)?;
        self.connection.poly_fill_rectangle(picture, self.pen, what).map_err(told)?;
        Ok(())
    }

    /// Waits until a frame is shown.
    pub(super) fn shown(&self) -> Result<Flip, String> {
        loop {
            match self.connection.wait_for_event().map_err(|error| format!("the X server is gone: {error}"))? {
                Event::PresentCompleteNotify(done) if done.kind == CompleteKind::PIXMAP => {
                    return Ok(Flip { number: done.msc, micros: done.ust });
                }
                Event::Error(error) => return Err(told(format!("{error:?}"))),
                _ => {}
            }
        }
    }
}
