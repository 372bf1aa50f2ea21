//! A load process may say and do anything: its parent stays right and kills it at once.

use std::path::Path;
use std::time::{Duration, Instant};

use periculum_loads::process::{Death, LoadProcess, News};
use periculum_loads::protocol::Message;

fn shell(script: &str) -> LoadProcess {
    let arguments = ["-c", script].map(Into::into);
    LoadProcess::spawn(Path::new("/bin/sh"), arguments).expect("a shell")
}

fn death(process: &mut LoadProcess) -> Death {
    let deadline = Instant::now() + Duration::from_secs(20);
    while Instant::now() < deadline {
        if let Some(News::Died(death)) = process.next(Duration::from_millis(50)) {
            return death;
        }
    }
    panic!("it never died");
}

#[test]
fn any_way_to_die_is_told() {
    assert_eq!(death(&mut shell("exit 3")), Death::Exited(3));
    for signal in [4, 6, 8, 9, 11, 15] {
        assert_eq!(death(&mut shell(&format!("kill -{signal} $$"))), Death::Signalled(signal));
    }
}

#[test]
fn words_are_heard_and_garbage_is_not_taken_for_words() {
    let mut process = shell(
        r#"echo '{"says":"ended","seconds":1.5,"warms_up":false,"rounds":7,"errors":0,"rate":2,"cores":[]}'; echo '{"says":'"#,
    );
    let first = process.next(Duration::from_secs(10));
    assert!(matches!(first, Some(News::Said(Message::Ended(progress))) if progress.rounds == 7));
    assert_eq!(process.next(Duration::from_secs(10)), Some(News::Garbage("{\"says\":".into())));
    assert_eq!(death(&mut process), Death::Exited(0));
    assert_eq!(process.next(Duration::from_millis(1)), None);
}

#[test]
fn a_flood_is_heard_at_the_listeners_pace_and_can_be_ended() {
    let mut process = shell("yes | tr -d '\\n'");
    let begun = Instant::now();
    while begun.elapsed() < Duration::from_millis(300) {
        match process.next(Duration::from_millis(20)) {
            Some(News::Garbage(text)) => assert!(text.len() <= 200),
            other => assert_eq!(other, None),
        }
    }
    process.kill();
    assert_eq!(death(&mut process), Death::Signalled(9));
}

#[test]
fn who_is_killed_does_not_end_well_before_because_its_helpers_died_first() {
    for _ in 0..40 {
        let mut process = shell("sleep 300 | cat; exit 0");
        std::thread::sleep(Duration::from_millis(10));
        process.kill();
        assert_eq!(death(&mut process), Death::Signalled(9));
    }
}

#[test]
fn killing_takes_what_the_load_started_along() {
    let mut process = shell("sleep 300 & echo $!; wait");
    let Some(News::Garbage(child)) = process.next(Duration::from_secs(10)) else { panic!("no word") };
    let child = format!("/proc/{child}/stat");
    assert!(Path::new(&child).exists());
    process.kill();
    death(&mut process);
    let is_dead = || match std::fs::read_to_string(&child) {
        Ok(stat) => stat.contains(") Z"),
        Err(_) => true,
    };
    let deadline = Instant::now() + Duration::from_secs(10);
    while !is_dead() {
        assert!(Instant::now() < deadline, "{child} lives on");
        std::thread::sleep(Duration::from_millis(5));
    }
}
