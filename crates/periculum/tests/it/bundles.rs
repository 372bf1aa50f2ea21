//! A climb that is handed on: proved where nobody has its ledger, and not when anything of it was changed.

use std::fs;
use std::path::Path;
use std::process::{Command, Output};

use crate::common::{Home, demo, output};

fn bundled() -> Home {
    let home = Home::new();
    output(home.periculum().arg("climb").arg(demo("dome.plan.toml")).args(["--headless", "--seed", "11"]));
    output(home.periculum().arg("climb").arg(demo("quiet.plan.toml")).args(["--headless", "--seed", "3"]));
    output(home.periculum().args(["report", "2", "--bundle", "climb.tar"]));
    home
}

/// Verifies where there is no ledger, in another zone.
fn verified(bundle: &Path) -> Output {
    let elsewhere = Home::new();
    elsewhere.periculum().env("TZ", "Asia/Kathmandu").arg("verify").arg(bundle).output().expect("started")
}

fn told(output: &Output) -> String {
    String::from_utf8_lossy(&output.stdout).into_owned() + &String::from_utf8_lossy(&output.stderr)
}

fn tar(arguments: &[&str], folder: &Path) {
    assert!(Command::new("tar").args(arguments).current_dir(folder).status().expect("started").success());
}

#[test]
fn what_is_handed_on_is_proved_without_a_ledger() {
    let home = bundled();
    let proved = verified(&home.path("climb.tar"));
    let said = told(&proved);
    assert!(proved.status.success(), "{said}");
    assert!(said.contains("climb 2, ") && said.contains("whole and unchanged, SHA-256 "), "{said}");
    assert!(said.contains("its report and tables are what its record gives"), "{said}");
    let again = home.periculum().args(["report", "2", "--bundle", "-"]).output().expect("started");
    assert!(again.stdout.starts_with(b"bundle.json"), "to standard output too");
    // What is in it is read with the usual tools, and its record is a ledger like others.
    fs::create_dir(home.path("open")).expect("made");
    tar(&["xf", "../climb.tar"], &home.path("open"));
    assert!(fs::read_to_string(home.path("open/report.md")).expect("read").starts_with("# "));
    let listed = output(home.periculum().args(["ledger", "--check", "--ledger", "open/climb.ledger"]));
    assert!(listed.contains("0 problems") && listed.lines().count() == 2, "{listed}");
}

#[test]
fn every_change_is_noticed() {
    let home = bundled();
    let changed = |change: &dyn Fn(&Path)| {
        let folder = home.path("open");
        let _ = fs::remove_dir_all(&folder);
        fs::create_dir(&folder).expect("made");
        tar(&["xf", "../climb.tar"], &folder);
        change(&folder);
        tar(&["cf", "../other.tar", "."], &folder);
        let verified = verified(&home.path("other.tar"));
        assert_ne!(verified.status.code(), Some(0), "{}", told(&verified));
        (verified.status.code(), told(&verified))
    };
    let replace = |file: &'static str, from: &'static str, to: &'static str| {
        move |folder: &Path| {
            let path = folder.join(file);
            let text = fs::read_to_string(&path).expect("read");
            assert!(text.contains(from), "{text}");
            fs::write(path, text.replacen(from, to, 1)).expect("written");
        }
    };
    let (code, said) = changed(&replace("report.md", "V", "W"));
    assert!(code == Some(1) && said.contains("report.md is not what it was when it was bundled"), "{said}");
    let (_, said) = changed(&replace("trials.csv", "held", "fell"));
    assert!(said.contains("trials.csv is not what it was"), "{said}");
    let (_, said) = changed(&|folder| fs::remove_file(folder.join("journal.jsonl")).expect("removed"));
    assert!(said.contains("journal.jsonl is missing"), "{said}");
    let (_, said) = changed(&|folder| fs::write(folder.join("more.txt"), "x").expect("written"));
    assert!(said.contains("more.txt does not belong into it"), "{said}");
    let (code, said) = changed(&|folder| fs::write(folder.join("bundle.json"), "{}").expect("written"));
    assert!(code == Some(2) && said.contains("its list of files can't be read"), "{said}");

    // Whoever changes a file and its digest too is found out by the record, …
    let digest = |path: &Path| {
        let told = output(Command::new("sha256sum").arg(path));
        told.split_whitespace().next().expect("a digest").to_owned()
    };
    let forged = |file: &'static str, forge: &dyn Fn(&Path)| {
        changed(&|folder| {
            let before = digest(&folder.join(file));
            forge(&folder.join(file));
            let directory = fs::read_to_string(folder.join("bundle.json")).expect("read");
            let directory = directory.replace(&before, &digest(&folder.join(file)));
            fs::write(folder.join("bundle.json"), directory).expect("written");
        })
    };
    let (_, said) = forged("report.md", &|path| {
        let text = fs::read_to_string(path).expect("read").replacen("held", "HELD", 1);
        fs::write(path, text).expect("written");
    });
    assert!(said.contains("report.md is not what its record gives"), "{said}");
    // … and whoever changes the record by its checksums.
    let (_, said) = forged("climb.ledger", &|path| {
        let record = rusqlite::Connection::open(path).expect("a ledger");
        record.execute("UPDATE journal SET body = replace(body, 'a', 'b') WHERE line = 1", []).expect("changed");
    });
    assert!(said.contains("in its record"), "{said}");
}

#[test]
fn what_is_no_bundle_is_told() {
    let home = Home::new();
    home.write("text.tar", "nothing of the kind");
    home.write("empty.tar", "");
    for (file, why) in [
        ("text.tar", "text.tar is no bundle"),
        ("empty.tar", "its list of files can't be read"),
        ("gone.tar", "No such file"),
    ] {
        let refused = verified(&home.path(file));
        assert!(refused.status.code() == Some(2) && told(&refused).contains(why), "{file}: {}", told(&refused));
    }
    let neither = home.periculum().args(["report", "1"]).output().expect("started");
    assert!(neither.status.code() == Some(2) && told(&neither).contains("--output <FILE>"), "{}", told(&neither));
}
