//! What this program is made of may be passed on by anybody: every crate that it is built from has a permissive licence.

use std::process::Command;

use serde_json::Value;

use crate::common::output;

/// Licences that ask for no more than their own text to be passed on (SPDX identifiers).
const PERMISSIVE: [&str; 14] = [
    "0BSD",
    "Apache-2.0",
    "Apache-2.0 WITH LLVM-exception",
    "BSD-2-Clause",
    "BSD-3-Clause",
    "BSL-1.0",
    "CC0-1.0",
    "ISC",
    "MIT",
    "MIT-0",
    "Unicode-3.0",
    "Unicode-DFS-2016",
    "WTFPL",
    "Zlib",
];

/// Whether one of the choices that an expression of licences gives is permissive in all its parts.
fn is_permissive(expression: &str) -> bool {
    let is_known = |part: &str| PERMISSIVE.contains(&part.trim().trim_matches(['(', ')']));
    // Older crates separate their choices by a stroke.
    let choices = expression.replace('/', " OR ");
    // In `(A OR B) AND C` whatever stands behind is asked for beside each choice.
    let (choices, beside) = match choices.split_once(") AND ") {
        Some((choices, beside)) => (choices.to_owned(), beside.to_owned()),
        None => (choices, "MIT".to_owned()),
    };
    let all = |choice: &str| choice.split(" AND ").all(is_known);
    choices.split(" OR ").any(all) && beside.split(" OR ").any(all)
}

#[test]
fn expressions_are_read() {
    for good in ["MIT", "MIT/Apache-2.0", "GPL-3.0 OR MIT", "(MIT OR GPL-2.0) AND Unicode-3.0", "Apache-2.0 AND ISC"] {
        assert!(is_permissive(good), "{good}");
    }
    for bad in ["GPL-3.0-only", "MIT AND GPL-3.0-only", "(MIT OR ISC) AND MPL-2.0", ""] {
        assert!(!is_permissive(bad), "{bad}");
    }
}

#[test]
fn the_list_for_other_tools_is_the_same() {
    let path = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../../deny.toml");
    let text = std::fs::read_to_string(path).expect("read");
    let list = text.split_once("allow = [").and_then(|(_, rest)| rest.split_once("\n]")).expect("a list").0;
    let listed: Vec<&str> = list.split('"').skip(1).step_by(2).collect();
    assert_eq!(listed, PERMISSIVE);
}

#[test]
fn every_crate_may_be_passed_on() {
    let mut asked = Command::new(env!("CARGO"));
    asked.args(["metadata", "--format-version", "1", "--locked", "--offline", "--filter-platform"]);
    asked.arg("x86_64-unknown-linux-gnu").current_dir(env!("CARGO_MANIFEST_DIR"));
    let told: Value = serde_json::from_str(&output(&mut asked)).expect("json");
    let packages = told["packages"].as_array().expect("packages");
    assert!(packages.len() > 100, "{}", packages.len());
    let used: Vec<&Value> =
        told["resolve"]["nodes"].as_array().expect("nodes").iter().map(|node| &node["id"]).collect();
    for package in packages.iter().filter(|package| used.contains(&&package["id"])) {
        // From this workspace, or from the registry: nothing else is built.
        let source = package["source"].as_str();
        assert!(source.is_none_or(|source| source.starts_with("registry+")), "{}: {source:?}", package["name"]);
        let licence = package["license"].as_str().unwrap_or_default();
        assert!(is_permissive(licence), "{} is licensed as `{licence}`", package["name"]);
    }
}
