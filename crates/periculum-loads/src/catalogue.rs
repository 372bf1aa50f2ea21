//! Every load on processors, and the names of all there are.

use crate::dense::Dense;
use crate::digits::Digits;
use crate::division::Division;
use crate::encode::Encode;
use crate::frame::Load;
use crate::integer::Integer;
use crate::pauses::{Idle, Swing};
use crate::product::Product;
use crate::pulse::Pulse;
use crate::ram::{COPY, IN_HUGE_PAGES, IN_SMALL_PAGES, Memory, READ, WRITE};
use crate::render::Render;
use crate::transform::Transform;

/// Every load, in the order they are listed in.
pub static LOADS: [&dyn Load; 17] = [
    &Dense,
    &Product,
    &Transform,
    &Integer,
    &Division,
    &Memory,
    &Swing,
    &Idle,
    &Render,
    &Encode,
    &Digits,
    &READ,
    &WRITE,
    &COPY,
    &IN_HUGE_PAGES,
    &IN_SMALL_PAGES,
    &Pulse,
];

/// The names of all loads, those on the graphics processor last.
pub fn names() -> Vec<&'static str> {
    let on_processors = LOADS.iter().map(|load| load.about().name);
    #[cfg(feature = "graphics")]
    let on_devices = {
        let on_graphics = crate::graphics::LOADS.iter().map(|load| load.about().name);
        on_graphics.chain([crate::frames::NAME])
    };
    #[cfg(not(feature = "graphics"))]
    let on_devices = std::iter::empty();
    on_processors.chain(on_devices).collect()
}

/// The load of this name that runs on processors.
pub fn find(name: &str) -> Option<&'static dyn Load> {
    LOADS.into_iter().find(|load| load.about().name == name)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_load_is_found_by_its_own_name() {
        for load in LOADS {
            assert_eq!(find(load.about().name).map(|found| found.about().stresses), Some(load.about().stresses));
        }
        assert!(find("").is_none());
    }

    #[test]
    fn sizes_fit_into_the_memory_they_are_chosen_for() {
        for load in LOADS {
            let (smallest, largest) = load.about().sizes;
            assert!((smallest..=largest).contains(&load.about().usual_size), "{}", load.about().name);
            for bytes in [0, 1 << 16, 100 << 20, 3 << 30] {
                let size = load.size_for(bytes);
                assert_eq!(load.nearest(size), size, "{}", load.about().name);
                let is_fixed = load.bytes(smallest) == load.bytes(largest);
                let fits = load.bytes(size) <= bytes || size == load.nearest(smallest) || is_fixed;
                assert!(fits, "{} in {bytes}", load.about().name);
            }
        }
    }
}
