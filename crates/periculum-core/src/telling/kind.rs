//! What earlier climbs say of rigs of a kind, as a sentence.

use rust_decimal::Decimal;
use rust_decimal::prelude::FromPrimitive;

use crate::model::kind::Kind;
use crate::model::quantity::{counted, with_unit};
use crate::model::rig::Rig;

/// As `5 earlier climbs of its kind: core clock fails once in ten minutes at 4 950 ± 60 MHz`.
pub fn kind_words(kind: &Kind, rig: &Rig) -> String {
    let climbs = counted(kind.climbs as usize, "earlier climb");
    let Some(setting) = rig.setting(&kind.setting) else { return format!("{climbs} of its kind") };
    let on_ladder = |value: f64| {
        let value = Decimal::from_f64(value).unwrap_or_default();
        setting.ladder.rescaled(value.round_dp(setting.ladder.rescaled(setting.stock).scale()))
    };
    let limit = setting.written_short(on_ladder(kind.limit.mean));
    let off = with_unit(on_ladder(kind.limit.spread), &setting.unit);
    format!("{climbs} of its kind: {} fails once in ten minutes at {limit} ± {off}", setting.label)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::files::{Document, Problems, rig_file};
    use crate::model::kind::Expected;
    use crate::model::rung::Rung;

    #[test]
    fn limits_of_a_kind_are_told_in_the_units_of_their_setting() {
        let expected = |mean, spread| Expected { mean, spread };
        let kind = Kind {
            setting: "clock".into(),
            loads: ["dense".to_owned()].into(),
            beside: Rung::default(),
            limit: expected(147.4, 3.2),
            slope: expected(-1.0, 0.1),
            mechanisms: Vec::new(),
            climbs: 1,
        };
        let text = "format = 1\n[rig]\nname = \"r\"\n[setting.clock]\nunit = \"MHz\"\nladder = { from = 100, step = 1, to = 200 }\n\
                    stock = 100\nceiling = { daily = 150 }\nharder = \"up\"\ntakes_effect = \"by-hand\"\n";
        let document = Document::parse(text).expect("a document");
        let rig = rig_file::read(&document.top(&Problems::default())).expect("a rig");
        let told = kind_words(&kind, &rig);
        assert_eq!(told, "1 earlier climb of its kind: clock fails once in ten minutes at 147 ± 3 MHz");
        assert_eq!(kind_words(&Kind { climbs: 4, ..kind }, &Rig::bare("other")), "4 earlier climbs of its kind");
    }
}
