//! What a rig did before anybody climbed it, as a sentence.

use crate::model::history::History;
use crate::model::quantity::counted;
use crate::model::rig::Rig;

/// As `before, as its file says: 180 h at stock under full load without a failure`.
pub fn history_words(history: &History, rig: &Rig) -> String {
    let History { rung, loaded, failures } = history;
    let at = if *rung == rig.stock() { "stock".to_owned() } else { rig.written(rung) };
    format!("before, as its file says: {loaded} at {at} under full load {}", failed_words(*failures))
}

/// How often something failed.
pub(super) fn failed_words(failures: u32) -> String {
    match failures {
        0 => "without a failure".into(),
        failures => format!("with {}", counted(failures as usize, "failure")),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::model::moment::Span;
    use crate::model::rung::Rung;

    #[test]
    fn failures_are_told_with_the_time_that_they_took() {
        let history = |failures| History { rung: Rung::default(), loaded: Span::from_seconds(648_000), failures };
        let told = |failures| history_words(&history(failures), &Rig::bare("r"));
        assert_eq!(told(0), "before, as its file says: 180 h at stock under full load without a failure");
        assert_eq!(told(1), "before, as its file says: 180 h at stock under full load with 1 failure");
        assert_eq!(told(3), "before, as its file says: 180 h at stock under full load with 3 failures");
    }
}
