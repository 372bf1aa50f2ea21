//! A setting that a rig file gets besides: one that this machine offers and that only wants a ceiling, one that somebody
//! changes by hand, or a line of a file that the machine reads when it starts.

use toml_edit::{DocumentMut, InlineTable, Item, Table, Value, value};

/// The ceiling of what is added here is for this use.
pub const USE: &str = "daily";

/// The adapter of what is changed on this machine.
const MACHINE: &str = "linux";

/// How the description of a machine begins the lines of a setting that it offers.
const OFFERED: &str = "# [setting.";

/// How a setting that is added is changed.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Way {
    /// Somebody changes it by hand.
    ByHand,
    /// It is a line of a file that the machine reads when it starts.
    BootLine,
}

/// What is asked of a setting that is added.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Blank {
    /// What people call it.
    Name,
    /// The file of its line, from the root on.
    File,
    /// The key that the line begins with.
    Key,
    /// What stands between the key and the value: nothing for `=`, and the word for a space.
    Between,
    /// Its unit; nothing for a plain number.
    Unit,
    /// The lowest value of its ladder.
    Lowest,
    /// From one value of its ladder to the next.
    Step,
    /// The highest value of its ladder.
    Highest,
    /// Its value when nobody changes it.
    Stock,
    /// The largest value that is ever set.
    Ceiling,
    /// Which way it is harder, `up` or `down`.
    Harder,
}

impl Way {
    /// What is asked, in this order.
    pub const fn blanks(self) -> &'static [Blank] {
        use Blank::{Between, Ceiling, File, Harder, Highest, Key, Lowest, Name, Step, Stock, Unit};
        match self {
            Self::ByHand => &[Name, Unit, Lowest, Step, Highest, Stock, Ceiling, Harder],
            Self::BootLine => &[Name, File, Key, Between, Unit, Lowest, Step, Highest, Stock, Ceiling, Harder],
        }
    }
}

impl Blank {
    /// Whether this can be an answer to it.
    pub fn takes(self, typed: &str) -> bool {
        match self {
            Self::Name => typed.chars().any(char::is_alphanumeric),
            Self::File => typed.starts_with('/') && !typed.ends_with('/'),
            Self::Key => !typed.is_empty() && !typed.contains(char::is_whitespace),
            Self::Unit | Self::Between => true,
            Self::Harder => ["up", "down"].contains(&typed),
            Self::Lowest | Self::Step | Self::Highest | Self::Stock | Self::Ceiling => number(typed).is_some(),
        }
    }
}

/// The names of the settings that the text of a machine offers and does not have.
pub fn offered(text: &str) -> Vec<String> {
    let names = text.lines().filter_map(|line| line.strip_prefix(OFFERED)?.strip_suffix(']'));
    names.map(str::to_owned).collect()
}

/// The text with a setting that it offers, up to this ceiling; none where that is no number, or nothing of that name is offered.
pub fn with_offered(text: &str, name: &str, ceiling: &str) -> Option<String> {
    let head = format!("{OFFERED}{name}]");
    let from = text.lines().position(|line| line == head)?;
    let block = text.lines().skip(from).map_while(|line| line.strip_prefix("# ")).collect::<Vec<_>>().join("\n");
    let mut setting: DocumentMut = block.parse().ok()?;
    setting["setting"][name]["ceiling"] = ceilings(number(ceiling)?);
    with(text, name, setting["setting"][name].clone())
}

/// The text with a setting that is changed this way, given an answer to each of its blanks; none where one of them is none.
pub fn with_added(text: &str, way: Way, answers: &[String]) -> Option<String> {
    let answer = |blank: Blank| way.blanks().iter().position(|one| *one == blank).and_then(|at| answers.get(at));
    let number = |blank| number(answer(blank)?);
    let label = answer(Blank::Name)?.trim();
    let mut ladder = InlineTable::new();
    for (key, blank) in [("from", Blank::Lowest), ("step", Blank::Step), ("to", Blank::Highest)] {
        ladder.insert(key, number(blank)?);
    }
    let mut setting = Table::new();
    setting["label"] = value(label);
    setting["unit"] = value(answer(Blank::Unit)?.trim());
    setting["ladder"] = value(ladder);
    setting["stock"] = value(number(Blank::Stock)?);
    setting["ceiling"] = ceilings(number(Blank::Ceiling)?);
    setting["harder"] = value(answer(Blank::Harder)?.as_str());
    match way {
        Way::ByHand => setting["takes_effect"] = value("by-hand"),
        Way::BootLine => {
            let mut line = InlineTable::new();
            line.insert("file", answer(Blank::File)?.trim().into());
            line.insert("key", answer(Blank::Key)?.trim().into());
            let between = match answer(Blank::Between)?.trim() {
                "" => "=",
                "space" => " ",
                between => between,
            };
            line.insert("between", between.into());
            setting["takes_effect"] = value("next-start");
            setting["adapter"] = value(MACHINE);
            setting["boot"] = value(line);
        }
    }
    let name: String =
        label.to_lowercase().chars().map(|sign| if sign.is_ascii_alphanumeric() { sign } else { '_' }).collect();
    with(text, &name, Item::Table(setting))
}

fn with(text: &str, name: &str, setting: Item) -> Option<String> {
    let mut document: DocumentMut = text.parse().ok()?;
    let settings = document.entry("setting").or_insert(Item::Table(Table::new())).as_table_mut()?;
    settings.set_implicit(true);
    settings.insert(name, setting);
    Some(document.to_string())
}

fn ceilings(ceiling: Value) -> Item {
    let mut ceilings = InlineTable::new();
    ceilings.insert(USE, ceiling);
    value(ceilings)
}

/// A number as TOML has it, whole where it is whole; a decimal comma is a point.
fn number(typed: &str) -> Option<Value> {
    let typed = typed.trim().replace(',', ".");
    if let Ok(whole) = typed.parse::<i64>() {
        return Some(whole.into());
    }
    typed.parse::<f64>().ok().filter(|number| number.is_finite()).map(Value::from)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::files::{Document, Problems, rig_file};

    const OFFERING: &str = "# What can be set here.\n#\n# [setting.fan]\n# label = \"fan\"\n# unit = \"\"\n\
        # ladder = { from = 0, step = 5, to = 255 }\n# stock = 100\n# harder = \"down\"\n# takes_effect = \"at-once\"\n\
        # adapter = \"linux\"\n# target = \"fan\"\n#\n# [setting.other]\n# label = \"other\"\nformat = 1\n\n[rig]\nname = \"r\"\n";

    #[test]
    fn what_a_machine_offers_is_there_once_it_has_a_ceiling() {
        assert_eq!(offered(OFFERING), ["fan", "other"]);
        let text = with_offered(OFFERING, "fan", "200").expect("a rig file");
        assert!(text.contains("ceiling = { daily = 200 }") && text.contains("\n[setting.fan]\n"), "{text}");
        for (name, ceiling) in [("fan", "much"), ("none", "3"), ("fan", "")] {
            assert_eq!(with_offered(OFFERING, name, ceiling), None, "{name} {ceiling}");
        }
    }

    #[test]
    fn a_line_of_a_boot_file_makes_a_setting_of_the_next_start() {
        let text = "format = 1\n[rig]\nname = \"board\"\n";
        let typed =
            ["Core clock", "/boot/config.txt", "core_mhz", "=", "MHz", "1500", "25", "2400", "1500", "2000", "up"];
        let text = with_added(text, Way::BootLine, &typed.map(str::to_owned)).expect("a rig file");
        let (document, problems) = (Document::parse(&text).expect("TOML"), Problems::default());
        let rig = rig_file::read(&document.top(&problems)).expect("a rig");
        let setting = rig.setting("core_clock").expect("the setting");
        let line = setting.boot_line.as_ref().expect("a line");
        assert_eq!(
            (line.file.as_str(), line.key.as_str(), line.between.as_str()),
            ("/boot/config.txt", "core_mhz", "=")
        );
        assert!(setting.needs_start() && problems.into_sorted().is_empty());
        for (blank, wrong) in
            [(Blank::File, "config.txt"), (Blank::File, "/boot/"), (Blank::Key, "core mhz"), (Blank::Key, "")]
        {
            assert!(!blank.takes(wrong), "{blank:?}");
        }
    }

    #[test]
    fn what_somebody_sets_by_hand_makes_a_rig_that_can_be_climbed() {
        let text = "format = 1\n[rig]\nname = \"relay \\\" board\"\n";
        let answers = ["Bus clock", "MHz", "7", "0,5", "12", "8", "11", "up"].map(str::to_owned);
        let text = with_added(text, Way::ByHand, &answers).expect("a rig file");
        let (document, problems) = (Document::parse(&text).expect("TOML"), Problems::default());
        let rig = rig_file::read(&document.top(&problems)).expect("a rig");
        let setting = rig.setting("bus_clock").expect("the setting");
        assert_eq!((setting.written(setting.stock).as_str(), setting.ceiling(USE)), ("8.0 MHz", 11.into()));
        for (blank, wrong) in [(Blank::Name, " "), (Blank::Step, "x"), (Blank::Harder, "left"), (Blank::Stock, "")] {
            assert!(!blank.takes(wrong), "{blank:?}");
        }
    }
}
