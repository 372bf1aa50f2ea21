//! The lines of a climb together: none may be missing, and none may be another than was written.

use sha2::{Digest, Sha256};

use super::line::{Flaw, Kept};

/// A line that was not what had been written, or that stood behind such a line.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Dropped {
    /// The climb it belonged to.
    pub climb: i64,
    /// Its number in the climb, from 0.
    pub line: i64,
    /// What is wrong with it.
    pub why: String,
}

/// A line that a newer version wrote: its checksum fits, and what it says is not known here.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Newer {
    /// The climb it belongs to.
    pub climb: i64,
    /// Its number in the climb, from 0.
    pub line: i64,
    /// What is not known.
    pub what: String,
}

/// What a check of lines found.
#[derive(Debug, Default, PartialEq, Eq)]
pub(crate) struct Checked {
    pub(crate) dropped: Vec<Dropped>,
    pub(crate) newer: Vec<Newer>,
}

/// How many lines a climb has, and a digest of each line's checksum and the digest before.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub(crate) struct Head {
    pub(crate) lines: i64,
    pub(crate) digest: Vec<u8>,
}

impl Head {
    /// The head once a line of this checksum stands behind it.
    pub(crate) fn behind(&self, checksum: &[u8]) -> Self {
        let digest = Sha256::new().chain_update(&self.digest).chain_update(checksum).finalize();
        Self { lines: self.lines + 1, digest: digest.to_vec() }
    }
}

/// A check of a climb's lines, one after the other in their order.
#[derive(Debug)]
pub(crate) struct Inspection {
    climb: i64,
    expected: i64,
    is_behind_one: bool,
    head: Head,
    found: Checked,
}

impl Inspection {
    pub(crate) fn of(climb: i64) -> Self {
        Self { climb, expected: 0, is_behind_one: false, head: Head::default(), found: Checked::default() }
    }

    /// Looks at the next line, which was stored under this number; whether there is any sense in looking at the next one.
    pub(crate) fn look_at(&mut self, number: i64, line: Result<Kept, Flaw>) -> bool {
        let climb = self.climb;
        let why = if self.is_behind_one {
            Some("it follows a line that was dropped".to_owned())
        } else if number != self.expected {
            Some(format!("line {} before it is missing", self.expected))
        } else {
            match line.and_then(|line| line.read().map(|_| line.checksum)) {
                Ok(checksum) => {
                    self.head = self.head.behind(&checksum);
                    None
                }
                Err(Flaw::Damaged(why)) => Some(why),
                Err(Flaw::Newer(what)) => {
                    self.found.newer.push(Newer { climb, line: number, what });
                    return false;
                }
            }
        };
        self.is_behind_one |= why.is_some();
        self.found.dropped.extend(why.map(|why| Dropped { climb, line: number, why }));
        self.expected = number + 1;
        true
    }

    /// What was found, given how many lines there should be.
    pub(crate) fn end(mut self, known: &Head) -> Checked {
        let is_whole = self.is_behind_one || !self.found.newer.is_empty() || *known == self.head;
        if !is_whole {
            let why = match known.lines - self.expected {
                1.. => format!("{} lines were written, and those from {} on are missing", known.lines, self.expected),
                _ => "the journal is not as long as was noted, or others than was noted".to_owned(),
            };
            self.found.dropped.push(Dropped { climb: self.climb, line: self.expected, why });
        }
        self.found
    }
}

#[cfg(test)]
mod tests {
    use super::super::line::tests::kept;
    use super::*;

    fn head(lines: i64) -> Head {
        (0..lines).fold(Head::default(), |head, number| head.behind(&kept(number).checksum))
    }

    fn checked(lines: impl IntoIterator<Item = Kept>, known: &Head) -> Vec<(i64, String)> {
        let mut inspection = Inspection::of(3);
        for line in lines {
            assert!(inspection.look_at(line.number, Ok(line)));
        }
        inspection.end(known).dropped.into_iter().map(|dropped| (dropped.line, dropped.why)).collect()
    }

    #[test]
    fn whole_lines_are_kept_and_nothing_behind_a_damaged_one() {
        assert_eq!(checked((0..4).map(kept), &head(4)), []);
        let damaged = Kept { at: 1, ..kept(1) };
        let dropped = checked([kept(0), damaged, kept(2), kept(3)], &head(4));
        assert_eq!(dropped.iter().map(|(line, _)| *line).collect::<Vec<_>>(), [1, 2, 3]);
        assert!(dropped[2].1.contains("follows"), "{dropped:?}");
    }

    #[test]
    fn missing_lines_are_missed_wherever_they_were() {
        let dropped = checked([kept(0), kept(2)], &head(3));
        assert_eq!(dropped, [(2, "line 1 before it is missing".to_owned())]);
        let cut = checked((0..2).map(kept), &head(4));
        assert_eq!(cut, [(2, "4 lines were written, and those from 2 on are missing".to_owned())]);
        let other = Head { digest: vec![7], ..head(2) };
        assert!(checked((0..2).map(kept), &other)[0].1.contains("others than was noted"));
    }

    #[test]
    fn behind_what_a_newer_version_wrote_nothing_is_judged() {
        let mut inspection = Inspection::of(3);
        assert!(inspection.look_at(0, Ok(kept(0))));
        assert!(!inspection.look_at(1, Err(Flaw::Newer("x".into()))));
        let found = inspection.end(&head(9));
        assert_eq!(found.newer, [Newer { climb: 3, line: 1, what: "x".into() }]);
        assert_eq!(found.dropped, []);
    }
}
