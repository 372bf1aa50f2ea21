//! A wrong picture beside what it should be, as a PNG that shows where to look.

/// What a comparison has found.
pub(super) struct Compared {
    /// How many pixels differ.
    pub(super) pixels: usize,
    /// The wrong picture, darkened, with what differs in its own colours, and a frame round all of it.
    pub(super) png: Vec<u8>,
}

/// The colour of the frame round what differs.
const FRAME: [u8; 3] = [255, 80, 60];

/// How far it stands off, pixels.
const APART: usize = 6;

/// Compares pictures of this width and height, pixels of red, green and blue from the lowest byte on.
pub(super) fn compare(found: &[u32], right: &[u32], (width, height): (u32, u32)) -> Compared {
    let columns = width as usize;
    let differ: Vec<usize> = (0..found.len()).filter(|at| found[*at] != right[*at]).collect();
    let mut colours: Vec<u8> = found.iter().flat_map(|pixel| rgb(*pixel).map(|part| part / 2)).collect();
    for at in &differ {
        colours[3 * at..3 * at + 3].copy_from_slice(&rgb(found[*at]));
    }
    if let Some(bounds) = bounds(&differ, (columns, height as usize)) {
        for at in bounds.outline(columns) {
            colours[3 * at..3 * at + 3].copy_from_slice(&FRAME);
        }
    }
    Compared { pixels: differ.len(), png: encode(&colours, width, height) }
}

fn rgb(pixel: u32) -> [u8; 3] {
    let [red, green, blue, _] = pixel.to_le_bytes();
    [red, green, blue]
}

/// A rectangle of pixels, its edges within it.
#[derive(Debug, PartialEq, Eq)]
struct Bounds {
    left: usize,
    top: usize,
    right: usize,
    bottom: usize,
}

/// The smallest one round these pixels, a little apart from them.
fn bounds(pixels: &[usize], (columns, rows): (usize, usize)) -> Option<Bounds> {
    let along = |of: fn(usize, usize) -> usize| {
        let places = pixels.iter().map(|at| of(*at, columns));
        Some((places.clone().min()?, places.max()?))
    };
    let (left, right) = along(|at, columns| at % columns)?;
    let (top, bottom) = along(|at, columns| at / columns)?;
    Some(Bounds {
        left: left.saturating_sub(APART),
        top: top.saturating_sub(APART),
        right: (right + APART).min(columns - 1),
        bottom: (bottom + APART).min(rows - 1),
    })
}

impl Bounds {
    fn outline(&self, columns: usize) -> impl Iterator<Item = usize> {
        let Self { left, top, right, bottom } = *self;
        let across = (left..=right).flat_map(move |x| [top * columns + x, bottom * columns + x]);
        let down = (top..=bottom).flat_map(move |y| [y * columns + left, y * columns + right]);
        across.chain(down)
    }
}

fn encode(colours: &[u8], width: u32, height: u32) -> Vec<u8> {
    let mut bytes = Vec::new();
    let mut encoder = png::Encoder::new(&mut bytes, width, height);
    encoder.set_color(png::ColorType::Rgb);
    encoder.set_depth(png::BitDepth::Eight);
    let written = encoder.write_header().and_then(|mut writer| writer.write_image_data(colours));
    written.expect("nothing refuses bytes that are written to memory, and there are as many as were announced");
    bytes
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_differs_is_counted_kept_bright_and_framed() {
        let right = vec![0x00ff_ffff; 32 * 20];
        let mut found = right.clone();
        found[10 * 32 + 14] = 0x0000_00ff;
        found[11 * 32 + 16] = 0x0000_00ff;
        let Compared { pixels, png } = compare(&found, &right, (32, 20));
        assert_eq!(pixels, 2);
        let mut reader = png::Decoder::new(std::io::Cursor::new(png)).read_info().expect("a picture");
        let mut colours = vec![0; reader.output_buffer_size().expect("a size")];
        reader.next_frame(&mut colours).expect("a picture");
        let at = |x: usize, y: usize| &colours[3 * (y * 32 + x)..3 * (y * 32 + x) + 3];
        assert_eq!(at(14, 10), [255, 0, 0], "as it was found");
        assert_eq!(at(0, 0), [127, 127, 127], "darkened");
        assert_eq!((at(8, 4), at(22, 17)), (&FRAME[..], &FRAME[..]));
        assert_eq!(compare(&right, &right, (32, 20)).pixels, 0);
    }

    #[test]
    fn the_frame_stays_within_the_picture() {
        assert_eq!(bounds(&[0, 31], (32, 20)), Some(Bounds { left: 0, top: 0, right: 31, bottom: 6 }));
        assert_eq!(bounds(&[], (32, 20)), None);
    }
}
