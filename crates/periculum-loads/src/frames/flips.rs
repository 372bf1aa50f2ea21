//! When frames were really shown, counted by the server's own clock.

/// A frame is late where it came so many times as long after the one before as they come in the mean.
const LATE: f64 = 1.5;

/// What was shown so far.
#[derive(Clone, Debug, Default, PartialEq)]
pub(super) struct Flips {
    first: Option<Flip>,
    last: Option<Flip>,
    /// Frames behind the first.
    pub(super) shown: u64,
    /// Pictures that the screen showed once more, since no frame was there.
    pub(super) skipped: u64,
    pub(super) late: u64,
}

/// A picture that the screen has begun to show.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Flip {
    /// Which one, as the server counts them.
    pub(super) number: u64,
    /// When, µs.
    pub(super) micros: u64,
}

impl Flips {
    /// Takes a frame that was shown.
    pub(super) fn take(&mut self, flip: Flip) {
        if let Some(last) = self.last {
            self.shown += 1;
            self.skipped += flip.number.saturating_sub(last.number).saturating_sub(1);
            let mean = self.refresh().map(|refresh| 1e6 / refresh);
            let waited = flip.micros.saturating_sub(last.micros) as f64;
            self.late += u64::from(mean.is_some_and(|mean| waited > LATE * mean));
        }
        self.first.get_or_insert(flip);
        self.last = Some(flip);
    }

    /// Pictures a second, as they were counted: none before there are two.
    pub(super) fn refresh(&self) -> Option<f64> {
        let (first, last) = self.first.zip(self.last)?;
        self.a_second(last.number.saturating_sub(first.number))
    }

    /// Frames a second.
    pub(super) fn rate(&self) -> f64 {
        self.a_second(self.shown).unwrap_or_default()
    }

    fn a_second(&self, count: u64) -> Option<f64> {
        let (first, last) = self.first.zip(self.last)?;
        let micros = last.micros.saturating_sub(first.micros);
        (micros > 0).then(|| count as f64 * 1e6 / micros as f64)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn flips(all: &[(u64, u64)]) -> Flips {
        let mut flips = Flips::default();
        all.iter().for_each(|(number, micros)| flips.take(Flip { number: *number, micros: *micros }));
        flips
    }

    #[test]
    fn every_picture_with_a_frame_is_shown() {
        let all: Vec<(u64, u64)> = (0..=60).map(|nth| (100 + nth, 5_000_000 + nth * 16_667)).collect();
        let flips = flips(&all);
        assert_eq!((flips.shown, flips.skipped, flips.late), (60, 0, 0));
        assert!((flips.rate() - 59.998).abs() < 0.01 && flips.refresh() == Some(flips.rate()));
    }

    #[test]
    fn pictures_without_a_frame_are_skipped_and_the_next_is_late() {
        let flips = flips(&[(1, 0), (2, 10_000), (3, 20_000), (6, 50_000), (7, 60_000)]);
        assert_eq!((flips.shown, flips.skipped, flips.late), (4, 2, 1));
        assert!((flips.refresh().expect("counted") - 100.0).abs() < 1e-9);
        assert!((flips.rate() - 66.7).abs() < 0.1);
    }

    #[test]
    fn one_frame_says_nothing() {
        assert_eq!((flips(&[(1, 5)]).refresh(), flips(&[]).rate()), (None, 0.0));
    }
}
