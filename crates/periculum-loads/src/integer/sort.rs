//! Sorting by merging, with a branch at every comparison (Knuth, The art of computer programming, vol. 3, 5.2.4).

/// Sorts, with room for as many words.
pub(super) fn sort(words: &mut [u64], room: &mut [u64]) {
    let mut width = 1;
    while width < words.len() {
        for (from, to) in words.chunks(2 * width).zip(room.chunks_mut(2 * width)) {
            let (left, right) = from.split_at(width.min(from.len()));
            merge(left, right, to);
        }
        words.copy_from_slice(room);
        width *= 2;
    }
}

fn merge<'a>(mut left: &'a [u64], mut right: &'a [u64], to: &mut [u64]) {
    for place in to {
        let takes_left = match (left.first(), right.first()) {
            (Some(left), Some(right)) => left <= right,
            (left, _) => left.is_some(),
        };
        let from = if takes_left { &mut left } else { &mut right };
        if let Some((first, rest)) = from.split_first() {
            (*place, *from) = (*first, rest);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn words_are_sorted(mut words in prop::collection::vec(any::<u64>(), 0..200)) {
            let mut expected = words.clone();
            expected.sort_unstable();
            let mut room = words.clone();
            sort(&mut words, &mut room);
            prop_assert_eq!(words, expected);
        }
    }
}
