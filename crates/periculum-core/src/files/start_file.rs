//! `[profile.NAME]` of a plan file: rungs that stages start from.

use rust_decimal::Decimal;

use crate::files::section::{Located, Section};
use crate::model::rig::Rig;
use crate::model::rung::Rung;

/// A profile as it stands in the file.
struct Raw {
    name: Located<String>,
    /// The profile that it differs from; stock where there is none.
    from: Option<Located<String>>,
    set: Vec<(Located<String>, Located<Decimal>)>,
}

/// Reads every profile, of a rig with the ceilings of this use.
pub(super) fn read(top: &Section, rig: &Rig, use_name: &str) -> Vec<(String, Rung)> {
    let read = |(name, section): (Located<String>, Section)| {
        let from = section.optional_text("from");
        let set = section.named_numbers("set", "");
        section.finish();
        Raw { name, from, set }
    };
    let raw: Vec<Raw> = top.named_sections("profile").into_iter().map(read).collect();
    raw.iter().filter_map(|one| Some((one.name.value.clone(), resolve(one, &raw, rig, use_name, top)?))).collect()
}

/// The rung of a profile: that of the profile it differs from, with its own values set.
fn resolve(profile: &Raw, all: &[Raw], rig: &Rig, use_name: &str, top: &Section) -> Option<Rung> {
    let chain = chain(profile, all, top)?;
    let mut rung = rig.stock();
    for one in chain.iter().rev() {
        for (name, value) in &one.set {
            rung = rung.with(&check(name, value, rig, use_name, top)?, value.value);
        }
    }
    match rig.permit(&rung, use_name) {
        Ok(()) => Some(rung),
        Err(illegal) => {
            top.problems().add(profile.name.at.clone(), format!("this rung may not be applied: {illegal}"));
            None
        }
    }
}

/// The profile, the one it differs from, and so on.
fn chain<'a>(profile: &'a Raw, all: &'a [Raw], top: &Section) -> Option<Vec<&'a Raw>> {
    let mut chain = vec![profile];
    while let Some(from) = &chain[chain.len() - 1].from {
        let Some(next) = all.iter().find(|one| one.name.value == from.value) else {
            let known: Vec<&str> = all.iter().map(|one| one.name.value.as_str()).collect();
            top.problems().unknown(from.at.clone(), "profile", &from.value, &known);
            return None;
        };
        if chain.iter().any(|one| one.name.value == next.name.value) {
            let names: Vec<&str> = chain.iter().chain([&next]).map(|one| one.name.value.as_str()).collect();
            let what = format!("this goes round in a circle: {}", names.join(" → "));
            top.problems().advise(
                from.at.clone(),
                what,
                "leave `from` out of one of them, so that it differs from stock",
            );
            return None;
        }
        chain.push(next);
    }
    Some(chain)
}

/// The name of a setting that may have this value.
fn check(name: &Located<String>, value: &Located<Decimal>, rig: &Rig, use_name: &str, top: &Section) -> Option<String> {
    let problems = top.problems();
    let Some(setting) = rig.setting(&name.value) else {
        let known: Vec<&str> = rig.settings.iter().map(|setting| setting.name.as_str()).collect();
        problems.unknown(name.at.clone(), "setting", &name.value, &known);
        return None;
    };
    let (floor, ceiling) = (setting.floor, setting.ceiling(use_name));
    if !setting.ladder.contains(value.value) {
        let near = setting.ladder.nearest(value.value);
        problems.advise(
            value.at.clone(),
            format!("{} is not on the ladder", value.value),
            format!("the nearest value is {near}"),
        );
        return None;
    }
    if value.value > ceiling || value.value < floor {
        let what = format!(
            "{} is outside {} … {}, which is allowed for {use_name}",
            setting.written(value.value),
            setting.written(floor),
            setting.written(ceiling)
        );
        problems.advise(value.at.clone(), what, "choose a value within, or raise the ceiling with a reason");
        return None;
    }
    Some(setting.name.clone())
}
