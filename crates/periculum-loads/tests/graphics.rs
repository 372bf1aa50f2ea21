//! Loads on the graphics processor, on whatever device this machine offers: one in software is enough.
#![cfg(feature = "graphics")]

use std::path::PathBuf;
use std::time::Duration;

use periculum_loads::frame::{FaultKind, SEED, Stop};
use periculum_loads::graphics::{DeviceKind, Extent, GraphicsOrder, LOADS, NoStrike, Strike, find, list, run};
use periculum_loads::protocol::{Message, Progress, Wrong};

fn order(times: u64) -> GraphicsOrder {
    GraphicsOrder {
        device: None,
        extent: Extent::Usual,
        length: Duration::from_secs(600),
        times: Some(times),
        warm_up: Duration::ZERO,
        seed: SEED,
        stop: Stop::Never,
        pictures: None,
    }
}

fn told(load: &str, order: &GraphicsOrder, strike: &dyn Strike) -> Vec<Message> {
    let mut told = Vec::new();
    run(find(load).expect("a load"), order, strike, |message| told.push(message));
    told
}

fn wrongs(told: &[Message]) -> Vec<&Wrong> {
    told.iter().filter_map(|message| if let Message::Wrong(wrong) = message { Some(wrong) } else { None }).collect()
}

fn end(told: &[Message]) -> &Progress {
    match told.last() {
        Some(Message::Ended(progress)) => progress,
        other => panic!("it did not end: {other:?}"),
    }
}

/// Flips these bits of a word of what is used in this round.
struct Flip {
    what: &'static str,
    round: u64,
    word: u64,
    bits: u32,
}

impl Strike for Flip {
    fn flips(&self, round: u64, what: &'static str) -> Option<(u64, u32)> {
        (what == self.what && round == self.round).then_some((self.word, self.bits))
    }
}

/// A round in which every load knows what is right, and one in which it has long noticed what was wrong in that.
const STRUCK: u64 = 10;
const NOTICED: u64 = 14;

/// What is told of one flip.
fn struck(load: &str, what: &'static str, word: u64, bits: u32) -> Wrong {
    let told = told(load, &order(NOTICED), &Flip { what, round: STRUCK, word, bits });
    let wrongs = wrongs(&told);
    assert_eq!(wrongs.len(), 1, "{told:#?}");
    assert_eq!((end(&told).rounds, end(&told).errors), (NOTICED, 1), "what follows is right again: {told:#?}");
    wrongs[0].clone()
}

#[test]
fn a_device_is_there_and_says_what_it_is() {
    let devices = list();
    let device = devices.first().expect("a device: this needs a Vulkan driver");
    assert!(!device.name.is_empty() && !device.driver.is_empty() && device.memory > 64 << 20, "{device:?}");
    assert_eq!(device.card.is_none(), device.kind == DeviceKind::Software, "{device:?}");
}

#[test]
fn every_load_runs_and_finds_nothing_on_a_good_device() {
    for load in LOADS {
        let name = load.about().name;
        let told = told(name, &order(6), &NoStrike);
        assert_eq!(wrongs(&told), Vec::<&Wrong>::new(), "{name}");
        let end = end(&told);
        assert_eq!((end.rounds, end.errors), (6, 0), "{name}");
        assert!(end.rate > 0.0, "{name}: {end:?}");
        let Message::Started(started) = &told[0] else { panic!("{name} did not say what it does") };
        assert_eq!((started.load.as_str(), started.unit.as_str()), (name, load.about().unit));
        assert!(started.kernel.ends_with("Vulkan") && started.bytes == load.bytes(started.size));
    }
}

#[test]
fn a_wrong_pixel_is_an_artefact_in_its_tile_and_its_picture_is_kept() {
    let folder = tempfile::tempdir().expect("a folder");
    let order = GraphicsOrder { pictures: Some(folder.path().join("pictures")), ..order(NOTICED) };
    // Column 380 and row 333 lie in tile 12, 11.
    let told =
        told("graphics-render", &order, &Flip { what: "picture", round: STRUCK, word: 333 * 640 + 380, bits: 1 << 5 });
    let wrongs = wrongs(&told);
    let [wrong] = wrongs[..] else { panic!("{told:#?}") };
    assert_eq!((wrong.kind, wrong.repeats), (FaultKind::Artefact, Some(false)));
    assert!(wrong.part.as_deref().is_some_and(|part| part.ends_with("tile 12, 11 (pixels from 352, 320)")), "{wrong}");
    assert_eq!(wrong.found, "1 pixel of another colour");
    let picture = PathBuf::from(wrong.picture.as_ref().expect("a picture"));
    assert!(std::fs::read(picture).expect("kept").starts_with(b"\x89PNG"));
    assert_eq!(end(&told).rounds, NOTICED);
}

#[test]
fn a_changed_table_of_the_scene_is_told_as_memory() {
    let wrong = struck("graphics-render", "grain", 77, 1 << 3);
    assert_eq!(wrong.kind, FaultKind::Memory);
    assert_eq!(wrong.part.as_deref(), Some("byte 308 of the scene's grain"));
}

#[test]
fn a_wrong_digest_of_a_right_picture_is_told_as_that() {
    let wrong = struck("graphics-render", "digests", 4, 1);
    assert_eq!((wrong.kind, wrong.found.as_str()), (FaultKind::Artefact, "another digest of the same colours"));
}

#[test]
fn wrong_numbers_are_told_where_they_are() {
    let wrong = struck("graphics-compute", "factors", 5, 1 << 20);
    assert_eq!((wrong.kind, wrong.part.as_deref()), (FaultKind::Memory, Some("byte 20 of the factors of the chains")));
    let wrong = struck("graphics-compute", "product", 9, 1 << 30);
    assert_eq!(
        (wrong.kind, wrong.part.as_deref()),
        (FaultKind::Memory, Some("byte 36 of the left operand of the product"))
    );
    let wrong = struck("graphics-compute", "digests", 2, 1);
    assert_eq!((wrong.kind, wrong.part.as_deref()), (FaultKind::Result, Some("tile 1, 2 of the product")));
    let wrong = struck("graphics-swing", "factors", 5, 1 << 20);
    assert_eq!(wrong.kind, FaultKind::Memory);
}

#[test]
fn a_flipped_bit_of_memory_is_told_with_its_place() {
    let wrong = struck("graphics-memory", "memory", 1000, 1 << 17);
    assert_eq!(wrong.kind, FaultKind::Memory);
    assert_eq!(wrong.part.as_deref(), Some("byte 0xfa0 of what it holds, bit 17"));
    assert_eq!(wrong.repeats, Some(true), "it is still so when it is read again");
}

struct Loses;

impl Strike for Loses {
    fn flips(&self, _: u64, _: &'static str) -> Option<(u64, u32)> {
        None
    }

    fn loses(&self, round: u64) -> bool {
        round == 3
    }
}

#[test]
fn a_lost_device_is_told_and_ends_it() {
    for load in LOADS {
        let told = told(load.about().name, &order(8), &Loses);
        let lost = matches!(told.last(), Some(Message::DeviceLost { .. }));
        assert!(lost, "{}: {told:?}", load.about().name);
    }
}

#[test]
fn a_device_that_is_not_there_is_told() {
    let nobody = GraphicsOrder { device: Some("card77".into()), ..order(1) };
    let told = told("graphics-compute", &nobody, &NoStrike);
    let [Message::Failed { why }] = &told[..] else { panic!("{told:?}") };
    assert_eq!(why, "no device is called `card77`");
}

#[test]
fn a_load_ends_at_the_first_error_where_it_is_to() {
    let first = GraphicsOrder { stop: Stop::AtFirstError, ..order(100) };
    let told = told("graphics-memory", &first, &Flip { what: "memory", round: 3, word: 3, bits: 1 });
    assert_eq!((end(&told).rounds, end(&told).errors), (3, 1));
}
