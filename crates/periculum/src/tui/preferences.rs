//! How the interface is to look and to be used, as the user says in a file of their own.

use std::path::Path;

use anyhow::Result;
use periculum_core::files::{Located, Section};

use super::calls::{Calls, Occasion};
use super::habits::Habits;
use super::keymap::{Keymap, Named};
use super::screens::View;
use super::telling::labels::name_of;
use super::theme::Scheme;
use crate::briefing::{SourceFile, read_whole};
use crate::places;
use crate::telling::preferences;

/// What the user wants.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) struct Preferences {
    pub(super) scheme: Scheme,
    /// The view that is shown at first.
    pub(super) view: View,
    /// Whether what changes by itself is drawn once a second.
    pub(super) is_calm: bool,
    pub(super) habits: Habits,
    pub(super) calls: Calls,
    pub(super) keys: Keymap,
}

impl Default for Preferences {
    fn default() -> Self {
        Self {
            scheme: Scheme::default(),
            view: View::Climb,
            is_calm: false,
            habits: Habits::default(),
            calls: Calls::default(),
            keys: Keymap::default(),
        }
    }
}

impl Preferences {
    /// Those of the user; where they have none, the usual ones.
    ///
    /// # Errors
    /// What is wrong in the file, and where.
    pub(crate) fn of_user() -> Result<Self> {
        Self::read(&places::preferences()?)
    }

    /// Those of this file; the usual ones where there is none.
    pub(crate) fn read(path: &Path) -> Result<Self> {
        if path.exists() { read_whole(SourceFile::read(path)?, said) } else { Ok(Self::default()) }
    }
}

const SCHEMES: [(&str, Scheme); 4] =
    [("dark", Scheme::Dark), ("light", Scheme::Light), ("contrast", Scheme::Contrast), ("terminal", Scheme::Terminal)];

/// What decimals stand behind: whether it is a comma.
const DECIMALS: [(&str, bool); 2] = [("point", false), ("comma", true)];

fn said(top: &Section) -> Preferences {
    let usual = Preferences::default();
    let (mut scheme, mut view, mut is_calm, mut habits) = (usual.scheme, usual.view, usual.is_calm, usual.habits);
    if let Some(screen) = top.optional_section("screen") {
        let views = View::ALL.map(|view| (name_of(view), view));
        scheme = word(&screen, "theme", &SCHEMES).unwrap_or(scheme);
        view = word(&screen, "view", &views).unwrap_or(view);
        is_calm = screen.optional_flag("calm").map_or(is_calm, |flag| flag.value);
        habits.has_comma = word(&screen, "decimals", &DECIMALS).unwrap_or(habits.has_comma);
        habits.has_fahrenheit = screen.optional_flag("fahrenheit").map_or(habits.has_fahrenheit, |flag| flag.value);
        screen.finish();
    }
    let calls = top.optional_section("calls").map(|section| read_calls(section, usual.calls.clone()));
    Preferences { scheme, view, is_calm, habits, calls: calls.unwrap_or(usual.calls), keys: read_keys(top) }
}

fn word<T: Copy>(section: &Section, key: &'static str, words: &[(&str, T)]) -> Option<T> {
    if section.has(key) { section.choice(key, words).map(|word| word.value) } else { None }
}

fn read_calls(section: Section, usual: Calls) -> Calls {
    let occasions = |key: &'static str, usual: Vec<Occasion>| match section.optional_texts(key) {
        Some(Located { value, at }) => value.iter().filter_map(|name| occasion(&section, name, at.clone())).collect(),
        None => usual,
    };
    let (bell, notify) = (occasions("bell", usual.bell), occasions("notify", usual.notify));
    let desktop = occasions("desktop", usual.desktop);
    let title = section.optional_flag("title").map_or(usual.title, |flag| flag.value);
    section.finish();
    Calls { bell, notify, desktop, title }
}

fn occasion(section: &Section, name: &str, at: std::ops::Range<usize>) -> Option<Occasion> {
    let found = Occasion::ALL.into_iter().find(|occasion| occasion.name() == name);
    if found.is_none() {
        section.problems().unknown(at, preferences::OCCASION, name, &Occasion::ALL.map(Occasion::name));
    }
    found
}

/// Keys that lie elsewhere, as `s = "F12"`.
fn read_keys(top: &Section) -> Keymap {
    let problems = top.problems();
    let mut moves = Vec::new();
    let mut places = Vec::new();
    for (from, to) in top.named_texts("keys") {
        let Some(meant) = Named::of(&from.value).filter(|key| key.can_be_moved()) else {
            problems.advise(from.at, preferences::no_key_to_move(&from.value), preferences::KEYS_TO_MOVE);
            continue;
        };
        let Some(pressed) = Named::of(&to.value) else {
            problems.advise(to.at, preferences::no_key(&to.value), preferences::KEYS_TO_PRESS);
            continue;
        };
        moves.push((meant, pressed));
        places.push((to.value, to.at));
    }
    Keymap::of(moves).unwrap_or_else(|at| {
        let (name, at) = places.swap_remove(at);
        problems.advise(at, preferences::is_taken(&name), preferences::MOVE_THAT_TOO);
        Keymap::default()
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::complaint::BadFile;
    use ratatui::crossterm::event::KeyCode;

    fn read(text: &str) -> Result<Preferences> {
        let folder = tempfile::tempdir().expect("a folder");
        let path = folder.path().join("config.toml");
        std::fs::write(&path, text).expect("written");
        Preferences::read(&path)
    }

    #[test]
    fn a_file_says_what_is_wanted_and_all_else_is_as_usual() {
        let wanted = read(
            "format = 1\n[screen]\ntheme = \"light\"\nview = \"map\"\ncalm = true\ndecimals = \"comma\"\n\
             fahrenheit = true\n[calls]\nbell = [\"fall\", \"question\"]\n\
             notify = [\"end\"]\ndesktop = [\"mark\"]\ntitle = false\n[keys]\ns = \"!\"\n",
        );
        let wanted = wanted.expect("nothing is wrong");
        assert_eq!((wanted.scheme, wanted.view, wanted.is_calm), (Scheme::Light, View::Map, true));
        assert_eq!(wanted.habits, Habits { has_comma: true, has_fahrenheit: true });
        assert_eq!(wanted.calls.bell, [Occasion::Fall, Occasion::Question]);
        assert_eq!((&wanted.calls.notify[..], wanted.calls.title), (&[Occasion::End][..], false));
        assert_eq!(wanted.calls.desktop, [Occasion::Mark]);
        assert_eq!(wanted.keys.meant(KeyCode::Char('!')), Some(KeyCode::Char('s')));
        assert_eq!(read("format = 1\n").expect("nothing is wrong"), Preferences::default());
        assert_eq!(Preferences::read(Path::new("/nowhere/config.toml")).expect("no file"), Preferences::default());
    }

    #[test]
    fn what_is_wrong_is_told_where_it_stands() {
        for (text, told) in [
            ("[screen]\ntheme = \"lite\"", "light"),
            ("[screen]\nview = \"mapp\"", "map"),
            ("[screen]\ncolour = 3", "colour"),
            ("[screen]\ndecimals = \"commas\"", "comma"),
            ("[screen]\nfahrenheit = \"yes\"", "true or false"),
            ("[calls]\nbell = [\"fail\"]", "fall"),
            ("[calls]\nbell = \"fall\"", "a list of texts"),
            ("[keys]\n\"+\" = \"!\"", "`+`"),
            ("[keys]\ns = \"escape\"", "`escape`"),
            ("[keys]\ns = 3", "must be a text"),
            ("[keys]\ns = \"e\"", "means something else"),
            ("[sceen]\n", "screen"),
        ] {
            let error = read(&format!("format = 1\n{text}\n")).expect_err(text);
            let bad = error.downcast::<BadFile>().expect("problems of a file");
            let words = |problem: &periculum_core::files::Problem| format!("{} {:?}", problem.what, problem.help);
            let all: String = bad.problems.iter().map(words).collect();
            assert!(bad.problems.len() == 1 && all.contains(told), "{text}: {all}");
        }
    }
}
