//! Plans that are changed line by line: what is not changed stays as it was, to the byte.

use periculum_core::files::outline::{Line, LineKind, Turn, add, copy, line_of, lines, remove, set, shift};
use periculum_core::files::{Document, Problems};
use proptest::prelude::*;

const PLAN: &str = r#"# First light.
format = 1

[plan]
name = "first light"   # what it is called
use = "daily"

[proof.quick]
passes = [
    { load = "integer", for = "20s" },  # cheap ones first
    { load = "dense", for = "90s" },
]

# Know it first.
[[stage]]
strategy = "baseline"
proof = "quick"

# Then climb.
[[stage]]
strategy = "ascend"
setting = "core_clock"
step = [100, 25]
proof = "quick"
"#;

fn told(text: &str) -> Vec<String> {
    let line = |line: &Line| {
        let name = match line.path.last() {
            Some(Turn::Key(key)) => key.clone(),
            Some(Turn::Nth(nth)) => nth.to_string(),
            None => String::new(),
        };
        match &line.kind {
            LineKind::Section(comment) => format!("[{name}] {comment}"),
            LineKind::Value(value) => format!("{name} = {value}"),
            LineKind::Element(value) => format!("{name}: {value}"),
        }
    };
    lines(text).expect("toml").iter().map(line).collect()
}

fn find(text: &str, told_as: &str) -> Line {
    let index = told(text).iter().position(|line| line == told_as).expect(told_as);
    lines(text).expect("toml").swap_remove(index)
}

#[test]
fn a_plan_has_a_line_for_each_thing_that_can_be_changed() {
    let expected = [
        "[plan] ",
        "name = first light",
        "use = daily",
        "[quick] ",
        "passes = ",
        "0: { load = \"integer\", for = \"20s\" }",
        "1: { load = \"dense\", for = \"90s\" }",
        "[0] Know it first.",
        "strategy = baseline",
        "proof = quick",
        "[1] Then climb.",
        "strategy = ascend",
        "setting = core_clock",
        "step = [100, 25]",
        "proof = quick",
    ];
    assert_eq!(told(PLAN), expected);
}

#[test]
fn a_value_changes_and_nothing_else() {
    let changed = set(PLAN, &find(PLAN, "name = first light"), "second light").expect("changed");
    assert_eq!(changed, PLAN.replace("\"first light\"", "\"second light\""));
    let changed = set(PLAN, &find(PLAN, "step = [100, 25]"), "12.50").expect("changed");
    assert_eq!(changed, PLAN.replace("[100, 25]", "12.50"), "numbers stay as they were written");
    let pass = find(PLAN, "0: { load = \"integer\", for = \"20s\" }");
    let changed = set(PLAN, &pass, "{ load = \"transform\", for = \"1h\" }").expect("changed");
    assert_eq!(
        changed,
        PLAN.replace("{ load = \"integer\", for = \"20s\" }", "{ load = \"transform\", for = \"1h\" }")
    );
    let refused = set(PLAN, &pass, "{ load = ").expect_err("no TOML");
    assert!(refused.to_string().starts_with("this is not TOML"), "{refused}");
    assert!(set(PLAN, &find(PLAN, "[plan] "), "x").is_err());
}

#[test]
fn stages_are_copied_moved_and_removed_with_their_comments() {
    let second = find(PLAN, "[1] Then climb.");
    let earlier = shift(PLAN, &second, false).expect("moved");
    assert!(earlier.find("Then climb.").expect("there") < earlier.find("Know it first.").expect("there"), "{earlier}");
    assert_eq!(shift(&earlier, &find(&earlier, "[0] Then climb."), true).expect("moved"), PLAN);
    assert_eq!(shift(PLAN, &second, true).expect_err("the last").to_string(), "it is the last already");
    let copied = copy(PLAN, &second).expect("copied");
    assert_eq!(copied.matches("Then climb.").count(), 2);
    assert_eq!(remove(&copied, &find(&copied, "[2] Then climb.")).expect("removed"), PLAN);
    let pass = find(PLAN, "1: { load = \"dense\", for = \"90s\" }");
    let swapped = shift(PLAN, &pass, false).expect("moved");
    assert!(swapped.find("dense").expect("there") < swapped.find("integer").expect("there"), "{swapped}");
    assert!(told(&copy(PLAN, &pass).expect("copied")).contains(&"2: { load = \"dense\", for = \"90s\" }".to_owned()));
    assert!(copy(PLAN, &find(PLAN, "use = daily")).is_err());
}

#[test]
fn keys_and_sections_are_added() {
    let line = find(PLAN, "setting = core_clock");
    let longer = add(PLAN, Some(&line), "back = 2").expect("added");
    assert!(longer.ends_with("proof = \"quick\"\nback = 2\n"), "{longer}");
    assert!(add(&longer, Some(&line), "back = 3").expect_err("there").to_string().contains("there already"));
    assert!(add(PLAN, Some(&line), "back").expect_err("no value").to_string().contains("`key = value`"));
    let longer = add(PLAN, None, "[proof.night]").expect("added");
    assert!(told(&longer).contains(&"[night] ".to_owned()));
    assert!(add(PLAN, None, "[plan]").is_err(), "twice");
}

#[test]
fn a_problem_belongs_to_the_line_that_it_is_in() {
    let text = PLAN.replace("format = 1", "format = 7").replace("core_clock", "core clock");
    let document = Document::parse(&text).expect("toml");
    let problems = Problems::default();
    document.top(&problems);
    let all = lines(&text).expect("toml");
    let problem = &problems.into_sorted()[0];
    assert_eq!(line_of(&all, problem), None, "the format's number has no line");
    let at = text.find("core clock").expect("there");
    let index = line_of(&all, &periculum_core::files::Problem { at: at..at + 4, ..problem.clone() }).expect("a line");
    assert_eq!(all[index].kind, LineKind::Value("core clock".into()));
}

proptest! {
    /// Whatever is written into a line is there afterwards, and the other lines are as they were.
    #[test]
    fn what_is_written_is_read_again(words in "[a-zA-Z0-9 .:#\"'=\\[\\]{}-]{1,20}", nth in 0usize..15) {
        let before = lines(PLAN).expect("toml");
        if let Ok(text) = set(PLAN, &before[nth], &words) {
            let after = lines(&text).expect("still TOML");
            prop_assert!(after.len() + 2 >= before.len());
            for (index, (now, then)) in after.iter().zip(&before).enumerate().take(nth) {
                prop_assert_eq!(&now.kind, &then.kind, "line {}", index);
            }
            prop_assert!(text.contains("# cheap ones first") || nth == 4 || nth == 5, "{}", text);
        }
    }
}
