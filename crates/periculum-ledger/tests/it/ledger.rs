//! The ledger keeps what it was given, says what it lost, and is the same when it is made again from its journal.

use std::collections::BTreeMap;
use std::path::Path;

use periculum_core::engine::{ClimbEnd, Entry, Event, Mark, Profile, Said};
use periculum_core::model::moment::{Moment, Span};
use periculum_ledger::{Armed, Attached, ClimbId, Ledger, LedgerError, Line, NewClimb, Store};
use rusqlite::Connection;

use crate::common::{NEW, climb_lines, filled, line, rung};

#[test]
fn what_is_written_is_read_again_after_reopening() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("deep/below/test.ledger");
    let (ledger, climb) = filled(&path);
    drop(ledger);
    let ledger = Ledger::open(&path).expect("a ledger");
    assert_eq!(ledger.dropped(), []);
    assert_eq!(ledger.lines(climb).expect("lines"), climb_lines());
    assert_eq!(ledger.texts(climb).expect("texts"), ("rig text".to_owned(), "plan text".to_owned()));
    let row = ledger.climb(climb).expect("a climb");
    assert_eq!((row.trials, row.falls, row.tested), (1, 1, Span::from_seconds(41)));
    assert_eq!(row.end, Some(ClimbEnd::NothingHeld { stage: 0 }));
    assert_eq!(ledger.unfinished().expect("read"), None);
    let trials = ledger.trials(climb).expect("trials");
    assert_eq!((trials[0].rung.clone(), trials[0].verdict.as_deref()), (rung(), Some("fell")));
    let incidents = ledger.incidents(climb).expect("incidents");
    assert_eq!((incidents.len(), incidents[0].place.as_deref()), (1, Some("core 5")));
}

#[test]
fn a_draft_is_a_ledger_like_others_once_it_has_taken_its_place() {
    let folder = tempfile::tempdir().expect("a folder");
    let [aside, path] = ["aside/draft.ledger", "test.ledger"].map(|name| folder.path().join(name));
    drop(Ledger::open(&path).expect("an empty ledger"));
    let mut draft = Ledger::draft(&aside).expect("a draft");
    let climb = draft.begin_climb(&NEW).expect("a climb");
    for line in climb_lines() {
        draft.append(climb, &line).expect("written");
    }
    draft.take_place_of(&path).expect("placed");
    let left: Vec<_> = std::fs::read_dir(folder.path().join("aside")).expect("a folder").collect();
    assert!(left.is_empty(), "nothing is kept twice, and nothing is left behind: {left:?}");
    let mut ledger = Ledger::open(&path).expect("a ledger");
    assert_eq!(ledger.lines(climb).expect("lines"), climb_lines());
    ledger.begin_climb(&NEW).expect("another climb");
    assert!(folder.path().join("test.ledger.snapshot").exists(), "from now on it is kept twice");
}

#[test]
fn one_climb_is_handed_on_with_its_checksums_and_nothing_of_the_others() {
    let folder = tempfile::tempdir().expect("a folder");
    let [path, alone] = ["test.ledger", "alone.ledger"].map(|name| folder.path().join(name));
    let (mut ledger, first) = filled(&path);
    let second = ledger.begin_climb(&NEW).expect("another");
    let secret = Said::Note { text: "nobody else may read this".into() };
    ledger.append(first, &line(40, Event::OperatorSaid { said: secret }, Vec::new())).expect("written");
    for (at, told) in climb_lines().iter().enumerate() {
        ledger.append(second, told).expect("written");
        let readings = BTreeMap::from([("edge".to_owned(), 60.0 + at as f64)]);
        ledger.add_samples(second, &[(told.at, readings)]).expect("written");
    }
    ledger.extract(second, &alone).expect("written");
    assert!(ledger.extract(9, &folder.path().join("none.ledger")).is_err(), "there is no such climb");
    let mut handed_on = Ledger::open(&alone).expect("a ledger");
    handed_on.check().expect("checked");
    assert_eq!((handed_on.climbs().expect("read").len(), handed_on.dropped()), (1, &[][..]));
    assert_eq!(handed_on.lines(second).expect("read"), climb_lines());
    assert_eq!(handed_on.digest(second).expect("read"), ledger.digest(second).expect("read"));
    assert_eq!(handed_on.samples(second).expect("read"), ledger.samples(second).expect("read"));
    let bytes = std::fs::read(&alone).expect("read");
    assert!(!bytes.windows(11).any(|part| part == b"nobody else"), "not even in free pages");
}

#[test]
fn a_damaged_line_is_dropped_with_those_behind_it_and_the_rest_is_kept() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("test.ledger");
    let (ledger, climb) = filled(&path);
    drop(ledger);
    let (mut ledger, other) = filled(&path);
    ledger.begin_climb(&NEW).expect("another climb");
    drop(ledger);
    let raw = Connection::open(&path).expect("a database");
    let damaged = raw.execute(
        "UPDATE journal SET body = replace(body, 'smells warm', 'smells want') WHERE climb = ? AND line = 1",
        [climb],
    );
    assert_eq!(damaged, Ok(1));
    drop(raw);

    let mut ledger = Ledger::open(&path).expect("a ledger");
    ledger.check().expect("checked");
    let told: Vec<_> =
        ledger.dropped().iter().map(|dropped| (dropped.climb, dropped.line, dropped.why.as_str())).collect();
    assert_eq!(
        told,
        [(climb, 1, "its checksum does not fit its contents"), (climb, 2, "it follows a line that was dropped")]
    );
    assert_eq!(ledger.lines(climb).expect("lines"), climb_lines()[..1]);
    assert_eq!(ledger.lines(other).expect("lines"), climb_lines());
    // The tables say again what the journal says: the trial is open, and nothing has gone wrong in it.
    assert_eq!(ledger.trials(climb).expect("trials")[0].verdict, None);
    assert_eq!(ledger.incidents(climb).expect("incidents"), []);
    drop(ledger);
    assert_eq!(Ledger::open(&path).expect("a ledger").dropped(), []);
}

#[test]
fn damage_to_a_climb_that_was_over_is_found_when_it_is_read_and_mended_when_asked() {
    let changes = ["UPDATE journal SET at = at + 1 WHERE line = 2", "DELETE FROM journal WHERE line = 2"];
    for change in changes {
        let folder = tempfile::tempdir().expect("a folder");
        let path = folder.path().join("test.ledger");
        let (ledger, climb) = filled(&path);
        drop(ledger);
        drop(Ledger::open(&path).expect("it is checked, and sealed"));
        Connection::open(&path).and_then(|raw| raw.execute(change, [])).expect("changed");
        let mut ledger = Ledger::open(&path).expect("a ledger");
        assert_eq!(ledger.dropped(), [], "it was checked before");
        assert!(matches!(ledger.lines(climb), Err(LedgerError::Damaged { .. })), "{change}");
        ledger.check().expect("checked");
        assert_eq!(ledger.lines(climb).expect("lines"), climb_lines()[..2], "{change}");
    }
}

#[test]
fn notes_and_readings_of_an_older_ledger_are_brought_up() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("test.ledger");
    let (ledger, climb) = filled(&path);
    drop(ledger);
    let old = Connection::open(&path).expect("a database");
    old.execute_batch(OF_FORMAT_2).expect("as it was");
    let mut insert = old.prepare("INSERT INTO samples VALUES (?, ?, ?, ?)").expect("a statement");
    for at in 0..5000 {
        insert.execute((climb, "core", at * 500, f64::from(at))).expect("inserted");
    }
    insert.execute((climb, "fan", 700, 1.0)).expect("inserted");
    drop(insert);
    drop(old);
    let ledger = Ledger::open(&path).expect("a ledger");
    let samples = ledger.samples(climb).expect("samples");
    let read: Vec<_> = samples["core"].iter().collect();
    assert_eq!(read.len(), 5000);
    assert_eq!(read[4321], (Moment::from_millis(4321 * 500), 4321.0));
    assert_eq!(samples["fan"].iter().count(), 1);
    let noted: String = Connection::open(&path)
        .and_then(|raw| raw.query_row("SELECT text FROM notes WHERE trial = 1", [], |row| row.get(0)))
        .expect("a note");
    assert_eq!(noted, "smells warm");
}

/// What turns a ledger of the fourth format into one of the second.
const OF_FORMAT_2: &str = "
DROP INDEX climbs_by_id; ALTER TABLE climbs DROP COLUMN id;
ALTER TABLE climbs DROP COLUMN checksum; ALTER TABLE climbs DROP COLUMN texts_checksum;
ALTER TABLE armed DROP COLUMN checksum; DROP TABLE heads;
ALTER TABLE passes DROP COLUMN threads;
DROP TABLE scores;
CREATE TABLE scores (climb INTEGER NOT NULL, trial INTEGER NOT NULL, pass INTEGER NOT NULL, load TEXT NOT NULL,
    value REAL NOT NULL, unit TEXT NOT NULL, PRIMARY KEY (climb, trial, pass)) WITHOUT ROWID;
DROP TABLE tail; DROP TABLE runs; DROP TABLE seals; DROP TABLE notes; DROP TABLE entered; DROP TABLE attached;
CREATE TABLE samples (climb INTEGER NOT NULL, sensor TEXT NOT NULL, at INTEGER NOT NULL, value REAL NOT NULL,
    PRIMARY KEY (climb, sensor, at)) WITHOUT ROWID;
PRAGMA user_version = 2;
";

#[test]
fn readings_are_packed_and_come_back_as_they_were() {
    let folder = tempfile::tempdir().expect("a folder");
    let mut ledger = Ledger::open(&folder.path().join("test.ledger")).expect("a ledger");
    let climb = ledger.begin_climb(&NEW).expect("a climb");
    ledger.append(climb, &climb_lines()[0]).expect("written");
    let set = |at: i64| {
        let fan = (at % 3 == 0).then(|| ("fan".to_owned(), at as f64 / 7.0));
        let all = fan.into_iter().chain([("core".to_owned(), at as f64)]);
        (Moment::from_millis(at * 500), all.collect::<BTreeMap<_, _>>())
    };
    let sets: Vec<_> = (0..7000).map(set).collect();
    // Few at a time, as they come by the wall's clock, and many, as they come from one that runs ahead.
    let (mut rest, mut sizes) = (&sets[..], [1, 7, 64, 20, 500].into_iter().cycle());
    while !rest.is_empty() {
        let (some, others) = rest.split_at(sizes.next().expect("endless").min(rest.len()));
        ledger.add_samples(climb, some).expect("written");
        rest = others;
    }
    let samples = ledger.samples(climb).expect("samples");
    for sensor in ["core", "fan"] {
        let put = sets.iter().filter_map(|(at, set)| Some((*at, *set.get(sensor)?)));
        assert!(samples[sensor].iter().eq(put), "{sensor}");
    }
    let life = ledger.last_life(climb).expect("read").expect("a sign of life");
    assert_eq!(life.at, Moment::from_millis(6999 * 500));
}

/// Whoever writes while another one does waits for them, and is not turned away.
#[test]
fn readings_of_two_climbs_are_written_at_the_same_time() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("test.ledger");
    let write = |many: usize| {
        let mut ledger = Ledger::open(&path).expect("a ledger");
        let climb = ledger.begin_climb(&NEW).expect("a climb");
        for nth in 0..300 {
            let at = |moment: usize| Moment::from_millis((nth * many + moment) as i64);
            let set: Vec<_> =
                (0..many).map(|moment| (at(moment), BTreeMap::from([("core".to_owned(), 1.0)]))).collect();
            ledger.add_samples(climb, &set).expect("written");
        }
        ledger.samples(climb).expect("read")["core"].iter().count()
    };
    std::thread::scope(|scope| {
        let few = scope.spawn(|| write(3));
        assert_eq!((write(64), few.join().expect("no panic")), (64 * 300, 3 * 300));
    });
}

#[test]
fn attached_readings_stand_beside_the_others_until_they_are_taken_off() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("test.ledger");
    let (mut ledger, climb) = filled(&path);
    let own = [(Moment::from_millis(500), BTreeMap::from([("core".to_owned(), 61.0)]))];
    ledger.add_samples(climb, &own).expect("written");
    let meter = Attached {
        sensor: "wall_power".into(),
        label: "wall power".into(),
        unit: "W".into(),
        decimals: 1,
        source: "meter.csv".into(),
    };
    let readings: Vec<(Moment, f64)> =
        (0..5000).map(|nth| (Moment::from_millis(nth * 1_000_003), nth as f64 / 8.0)).collect();
    let digest = ledger.digest(climb).expect("read");
    let fan = Attached { sensor: "fan".into(), label: "fan".into(), ..meter.clone() };
    ledger.attach(climb, &[(meter.clone(), readings.clone())]).expect("attached");
    let again = [(fan, readings.clone()), (meter.clone(), readings.clone())];
    ledger.attach(climb, &again).expect_err("one of them is there already, so neither is written");
    let ledger = Ledger::open(&path).expect("a ledger");
    assert_eq!(ledger.attached(climb).expect("read"), [meter]);
    let samples = ledger.samples(climb).expect("samples");
    assert!(samples["wall_power"].iter().eq(readings));
    assert_eq!((samples["core"].iter().count(), ledger.digest(climb).expect("read")), (1, digest));
    let mut ledger = ledger;
    assert!(!ledger.detach(climb, "core").expect("written"), "what the rig read itself stays");
    assert!(ledger.detach(climb, "wall_power").expect("written"));
    assert_eq!(ledger.samples(climb).expect("samples").keys().collect::<Vec<_>>(), ["core"]);
    assert!(ledger.attached(climb).expect("read").is_empty());
}

#[test]
fn every_column_of_a_line_is_under_its_checksum() {
    for change in ["at = at + 1", "wall = wall + 1", "boot = 'boot-2'", "checksum = x'00'", "body = x'ff'", "line = 9"]
    {
        let folder = tempfile::tempdir().expect("a folder");
        let path = folder.path().join("test.ledger");
        let (ledger, climb) = filled(&path);
        drop(ledger);
        let raw = Connection::open(&path).expect("a database");
        let changed = raw.execute(&format!("UPDATE journal SET {change} WHERE climb = ? AND line = 2"), [climb]);
        drop(raw);
        assert_eq!(changed, Ok(1), "{change}");
        assert_eq!(Ledger::open(&path).expect("a ledger").dropped().len(), 1, "{change}");
    }
}

#[test]
fn a_sample_is_a_sign_of_life() {
    let folder = tempfile::tempdir().expect("a folder");
    let mut ledger = Ledger::open(&folder.path().join("test.ledger")).expect("a ledger");
    let climb = ledger.begin_climb(&NEW).expect("a climb");
    assert_eq!(ledger.last_life(climb).expect("read"), None);
    ledger.append(climb, &climb_lines()[0]).expect("written");
    let readings: BTreeMap<String, f64> = [("core".to_owned(), 71.5), ("broken".to_owned(), f64::NAN)].into();
    ledger.add_samples(climb, &[(Moment::from_millis(900), readings)]).expect("written");
    let life = ledger.last_life(climb).expect("read").expect("a sign of life");
    assert_eq!((life.at, life.boot.as_str()), (Moment::from_millis(900), "boot-1"));
    assert_eq!(life.wall, Moment::from_millis(905));
    let samples = ledger.samples(climb).expect("read");
    assert_eq!(samples.keys().collect::<Vec<_>>(), ["core"], "what is no number is not kept");
    assert_eq!(samples["core"].span(), Some((Moment::from_millis(900), Moment::from_millis(900))));
}

#[test]
fn only_one_process_climbs_at_a_time() {
    let folder = tempfile::tempdir().expect("a folder");
    let ledger = Ledger::open(&folder.path().join("test.ledger")).expect("a ledger");
    let claim = ledger.claim("dome").expect("free");
    assert!(matches!(ledger.claim("dome"), Err(LedgerError::Claimed { .. })));
    ledger.claim("vault").expect("another rig is free");
    ledger.claim(&"dome".repeat(100)).expect("however long its name is");
    drop(claim);
    ledger.claim("dome").expect("free again");
}

/// What drives a climb knows nothing of files and numbers.
fn driven_in(store: &mut dyn Store) -> Result<(), LedgerError> {
    let row = store.begin(&NEW)?;
    for line in climb_lines() {
        store.append(&row.id, &line)?;
    }
    store.add_samples(&row.id, &[(Moment::from_millis(15), [("core".to_owned(), 61.5)].into())])?;
    assert_eq!(store.journal(&row.id)?, climb_lines());
    assert_eq!(store.files(&row.id)?, ("rig text".to_owned(), "plan text".to_owned()));
    assert!(store.row(&row.id)?.end.is_some() && store.readings(&row.id)?.contains_key("core"));
    assert_eq!(store.heard_of(&row.id)?.map(|life| life.boot), Some("boot-1".to_owned()));
    assert_eq!(store.list()?.last().map(|row| row.id.clone()), Some(row.id));
    let nobody = ClimbId::written("0".repeat(32));
    assert!(matches!(store.journal(&nobody), Err(LedgerError::UnknownClimb { id }) if id == nobody));
    Ok(())
}

#[test]
fn climbs_are_driven_in_a_store_and_known_by_identifiers_of_their_own() {
    let folder = tempfile::tempdir().expect("a folder");
    let mut ids = std::collections::BTreeSet::new();
    for file in ["one.ledger", "two.ledger"] {
        let path = folder.path().join(file);
        let mut ledger = Ledger::open(&path).expect("a ledger");
        driven_in(&mut ledger).expect("driven");
        driven_in(&mut ledger).expect("driven");
        drop(ledger);
        let rows = Ledger::open(&path).expect("a ledger").climbs().expect("read");
        ids.extend(rows.into_iter().map(|row| row.id));
    }
    assert_eq!(ids.len(), 4, "the same numbers in two ledgers are other climbs");
    assert!(ids.iter().all(|id| id.as_str().len() == 32), "{ids:?}");
}

#[test]
fn what_goes_on_next_is_what_nobody_drives() {
    let folder = tempfile::tempdir().expect("a folder");
    let mut ledger = Ledger::open(&folder.path().join("test.ledger")).expect("a ledger");
    for rig in ["dome", "vault"] {
        ledger.begin_climb(&NewClimb { rig, ..NEW }).expect("begun");
    }
    let next = |ledger: &Ledger| ledger.unfinished().expect("read").expect("one").rig;
    assert_eq!(next(&ledger), "vault", "the newest");
    let _vault = ledger.claim("vault").expect("free");
    assert_eq!(next(&ledger), "dome");
    let _dome = ledger.claim("dome").expect("free");
    assert_eq!(next(&ledger), "vault", "and then it is told who has it");
    assert!(ledger.climbs().expect("read").iter().all(|row| ledger.is_driven(row)));
}

#[test]
fn each_climb_begins_with_a_snapshot_of_what_was_before() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("test.ledger");
    let (mut ledger, climb) = filled(&path);
    ledger.begin_climb(&NEW).expect("another climb");
    let snapshot = Ledger::open(&folder.path().join("test.ledger.snapshot")).expect("a ledger");
    assert_eq!(snapshot.climbs().expect("climbs").len(), 1);
    assert_eq!(snapshot.lines(climb).expect("lines"), climb_lines());
}

#[test]
fn files_that_are_no_ledger_of_ours_are_refused_and_left_alone() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("test.ledger");
    std::fs::write(&path, "this is a shopping list, not a database, and long enough to show it").expect("written");
    assert!(matches!(Ledger::open(&path), Err(LedgerError::Unreadable { .. })));
    assert!(std::fs::read_to_string(&path).expect("read").starts_with("this is a shopping list"));

    let newer = folder.path().join("newer.ledger");
    Connection::open(&newer).expect("a database").pragma_update(None, "user_version", 99).expect("set");
    assert!(matches!(Ledger::open(&newer), Err(LedgerError::TooNew { found: 99, .. })));
}

/// A line that saves a profile whose mark, in trial 1, held a soak or not.
fn saving(name: &str, soaked: bool) -> Line {
    let mark = Mark { rung: rung(), setting: "core_clock".into(), proof: "night".into(), trial: 1, stage: 0 };
    let profile = Profile { name: name.into(), rung: rung(), mark: Some(mark.clone()), soaked };
    line(40, Event::TIME_PASSED, vec![Entry::MarkSet { mark }, Entry::ProfileSaved { profile }])
}

#[test]
fn only_what_held_a_soak_is_armed_and_nothing_whose_mark_was_withdrawn() {
    let folder = tempfile::tempdir().expect("a folder");
    let mut ledger = Ledger::open(&folder.path().join("test.ledger")).expect("a ledger");
    let quick = ledger.begin_climb(&NEW).expect("a climb");
    ledger.append(quick, &saving("quick", false)).expect("appended");
    let daily = ledger.begin_climb(&NEW).expect("a climb");
    ledger.append(daily, &saving("daily", true)).expect("appended");

    let find = |ledger: &Ledger, name| ledger.profile(name, None).expect("read").expect("a profile");
    assert!(matches!(ledger.arm(&find(&ledger, "quick")), Err(LedgerError::NotSoaked { .. })));
    ledger.arm(&find(&ledger, "daily")).expect("armed");
    let armed = |ledger: &Ledger| ledger.armed().expect("read");
    assert_eq!(
        armed(&ledger),
        [("a rig".to_owned(), Armed { climb: daily, name: "daily".into(), is_starting: false })]
    );
    ledger.note_start("a rig", true).expect("noted");
    assert!(armed(&ledger)[0].1.is_starting);
    assert!(ledger.disarm("a rig").expect("disarmed") && armed(&ledger).is_empty());

    let Some(Entry::MarkSet { mark }) = saving("daily", true).entries.into_iter().next() else { panic!("a mark") };
    let withdrawn = line(50, Event::TIME_PASSED, vec![Entry::MarkWithdrawn { mark, trial: 2 }]);
    ledger.append(daily, &withdrawn).expect("appended");
    let profile = find(&ledger, "daily");
    assert_eq!((profile.soaked, profile.proof), (false, None));
    assert_eq!(ledger.profiles().expect("read").len(), 2);
}

#[test]
fn a_ledger_of_the_first_format_is_brought_up_and_keeps_everything() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("test.ledger");
    let (ledger, climb) = filled(&path);
    drop(ledger);
    let old = Connection::open(&path).expect("a database");
    old.execute_batch(OF_FORMAT_2).expect("as it was");
    old.execute_batch("DROP TABLE profiles; DROP TABLE armed; PRAGMA user_version = 1").expect("as it was");
    drop(old);
    let ledger = Ledger::open(&path).expect("a ledger");
    assert_eq!(ledger.lines(climb).expect("lines"), climb_lines());
    assert!(ledger.profiles().expect("read").is_empty());
}

/// Every column of every table, changed in one place: it is noticed on reading what it concerns, or on the check of the whole.
#[test]
fn a_change_anywhere_is_noticed() {
    let folder = tempfile::tempdir().expect("a folder");
    let whole = folder.path().join("whole.ledger");
    let (mut ledger, climb) = filled(&whole);
    let readings = [(Moment::from_millis(15), BTreeMap::from([("core".to_owned(), 61.5)]))];
    ledger.add_samples(climb, &readings).expect("written");
    let entered = periculum_ledger::Entered {
        what: "dense".into(),
        value: 5.0,
        unit: "GFLOP/s".into(),
        specimen: String::new(),
        source: "a friend".into(),
    };
    ledger.enter(&entered, Moment::from_millis(5)).expect("written");
    let of =
        Attached { sensor: "wall".into(), label: "wall".into(), unit: "W".into(), decimals: 1, source: "m.csv".into() };
    ledger.attach(climb, &[(of, vec![(Moment::from_millis(16), 90.0)])]).expect("attached");
    drop(ledger);
    // Once more, so that the climb is sealed.
    drop(Ledger::open(&whole).expect("a ledger"));
    let connection = Connection::open(&whole).expect("opened");
    connection.execute_batch("PRAGMA wal_checkpoint(TRUNCATE)").expect("written back");
    let names = |sql: &str| -> Vec<String> {
        let mut statement = connection.prepare(sql).expect("sql");
        statement.query_map([], |row| row.get(0)).expect("rows").collect::<Result<_, _>>().expect("names")
    };
    let tables = names("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT IN ('dropped', 'armed')");
    let reads_all = |path: &Path| -> Result<(), LedgerError> {
        let mut ledger = Ledger::open(path)?;
        if !ledger.dropped().is_empty() {
            return Err(LedgerError::NoSuchClimb { climb: 0 });
        }
        let numbers: Vec<i64> = ledger.climbs()?.iter().map(|row| row.climb).collect();
        if numbers != [climb] {
            return Err(LedgerError::NoSuchClimb { climb });
        }
        ledger.texts(climb)?;
        ledger.lines(climb)?;
        ledger.trials(climb)?;
        ledger.incidents(climb)?;
        let (samples, attached) = (ledger.samples(climb)?, ledger.attached(climb)?);
        if samples.len() != 2 || attached.len() != 1 || ledger.entered()?.len() != 1 {
            return Err(LedgerError::NoSuchClimb { climb });
        }
        ledger.check()?;
        if ledger.dropped().is_empty() { Ok(()) } else { Err(LedgerError::NoSuchClimb { climb }) }
    };
    reads_all(&whole).expect("whole");
    let mut changed = 0;
    for table in &tables {
        for column in names(&format!("SELECT name FROM pragma_table_info('{table}')")) {
            let path = folder.path().join(format!("{table}-{column}.ledger"));
            std::fs::copy(&whole, &path).expect("copied");
            let other = Connection::open(&path).expect("opened");
            other.pragma_update(None, "foreign_keys", false).expect("set");
            let sql = format!(
                "UPDATE {table} SET {column} = CASE typeof({column}) WHEN 'integer' THEN {column} + 1000 WHEN 'real' THEN \
                 {column} * 2 WHEN 'text' THEN {column} || 'x' WHEN 'blob' THEN zeroblob(16) END WHERE {column} IS NOT NULL"
            );
            let rows = other.execute(&sql, []).expect("changed");
            drop(other);
            if rows > 0 {
                changed += 1;
                assert!(reads_all(&path).is_err(), "{table}.{column} was changed, and nobody noticed");
            }
        }
    }
    assert!(changed > 60, "{changed} columns");
}

#[test]
fn the_loss_of_the_end_is_seen_and_a_seal_is_not_overwritten() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("test.ledger");
    let mut ledger = Ledger::open(&path).expect("a ledger");
    let climb = ledger.begin_climb(&NEW).expect("a climb");
    climb_lines()[..2].iter().for_each(|line| ledger.append(climb, line).expect("written"));
    drop(ledger);
    Connection::open(&path).and_then(|it| it.execute("DELETE FROM journal WHERE line = 1", [])).expect("lost");
    let ledger = Ledger::open(&path).expect("a ledger");
    assert!(
        ledger.dropped()[0].why.contains("2 lines were written, and those from 1 on are missing"),
        "{:?}",
        ledger.dropped()
    );
    drop(ledger);
    assert_eq!(Ledger::open(&path).expect("a ledger").dropped(), [], "told once");

    let sealed = folder.path().join("sealed.ledger");
    drop(filled(&sealed));
    drop(Ledger::open(&sealed).expect("a ledger"));
    Connection::open(&sealed).and_then(|it| it.execute("UPDATE seals SET digest = zeroblob(32)", [])).expect("changed");
    for _ in 0..2 {
        let mut ledger = Ledger::open(&sealed).expect("a ledger");
        ledger.check().expect("checked");
        assert!(ledger.dropped().iter().any(|it| it.why.contains("when it was sealed")), "{:?}", ledger.dropped());
    }
}

#[test]
fn a_ledger_that_is_removed_while_it_is_written_to_is_told() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("test.ledger");
    let mut ledger = Ledger::open(&path).expect("a ledger");
    let climb = ledger.begin_climb(&NEW).expect("a climb");
    std::fs::remove_file(&path).expect("removed");
    let told = ledger.append(climb, &climb_lines()[0]).expect_err("gone");
    assert!(told.to_string().contains("removed or replaced"), "{told}");
}
