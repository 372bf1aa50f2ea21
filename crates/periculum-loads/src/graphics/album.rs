//! Which wrong pictures of a pass are kept: the first ones, and of the others each that is twice as wrong as any before. So the
//! worst is there within a factor of two, none that was told is ever replaced, and a pass has a few dozen at most.

use super::load::Picture;

/// So many are kept however little is wrong with them.
const FIRST: usize = 4;

/// The pictures that were kept so far.
#[derive(Debug, Default)]
pub(super) struct Album {
    kept: usize,
    /// Wrong pixels of the worst.
    worst: usize,
}

impl Album {
    /// Whether a picture belongs into it, which it is in from then on.
    pub(super) fn takes(&mut self, picture: &Picture) -> bool {
        let is_taken = self.kept < FIRST || picture.pixels >= 2 * self.worst;
        if is_taken {
            self.kept += 1;
            self.worst = self.worst.max(picture.pixels);
        }
        is_taken
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn taken(pixels: &[usize]) -> Vec<usize> {
        let mut album = Album::default();
        let taken = pixels.iter().filter(|pixels| album.takes(&Picture { png: Vec::new(), pixels: **pixels }));
        taken.copied().collect()
    }

    #[test]
    fn the_first_are_kept_and_what_is_far_worse() {
        assert_eq!(taken(&[5, 3, 1, 1, 9, 10, 12, 19, 20]), [5, 3, 1, 1, 10, 20]);
    }

    proptest! {
        #[test]
        fn the_worst_is_there_within_a_factor_of_two(pixels in proptest::collection::vec(1_usize..=640 * 352, 1..200)) {
            let kept = taken(&pixels);
            prop_assert!(kept.len() <= FIRST + 18);
            prop_assert!(2 * kept.iter().max().expect("the first") > *pixels.iter().max().expect("one"));
        }
    }
}
