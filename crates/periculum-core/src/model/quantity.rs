//! Numbers as people read them: grouped by thousands, with the unit once.

use rust_decimal::Decimal;

/// The number with its whole part in groups of three: `4 700`, `12 345.5`; four digits are grouped too.
pub fn grouped(value: Decimal) -> String {
    group_text(&value.to_string())
}

/// A measured number with this many decimals, grouped like [`grouped`].
pub fn measured(value: f64, decimals: usize) -> String {
    group_text(&format!("{value:.decimals$}"))
}

/// So many of something whose plural ends in s, as in `1 trial` and `1 200 trials`.
pub fn counted<T: std::fmt::Display + PartialEq + From<u8> + Copy>(count: T, one: &str) -> String {
    let plural = if count == T::from(1) { "" } else { "s" };
    format!("{} {one}{plural}", group_text(&count.to_string()))
}

/// A score with as many decimals as give one of this size three digits or more.
pub fn scored(score: f64, size: f64) -> String {
    measured(score, score_decimals(size))
}

/// How many decimals give a score of this size three digits or more.
pub fn score_decimals(size: f64) -> usize {
    match size.abs() {
        ..0.1 => 4,
        ..1.0 => 3,
        ..10.0 => 2,
        ..1000.0 => 1,
        _ => 0,
    }
}

/// The number, grouped, and its unit behind it; a unit of nothing leaves the number alone.
pub fn with_unit(value: Decimal, unit: &str) -> String {
    if unit.is_empty() { grouped(value) } else { format!("{} {unit}", grouped(value)) }
}

fn group_text(text: &str) -> String {
    let (sign, digits) = text.strip_prefix('-').map_or(("", text), |rest| ("-", rest));
    let (whole, fraction) = digits.find('.').map_or((digits, ""), |dot| digits.split_at(dot));
    let mut grouped = String::from(sign);
    for (index, digit) in whole.chars().enumerate() {
        if index > 0 && (whole.len() - index) % 3 == 0 {
            grouped.push(' ');
        }
        grouped.push(digit);
    }
    grouped + fraction
}

/// Text from a file, a child or an instrument with a sign in the place of each character that could steer a terminal, turn
/// text around or hide in it.
pub fn harmless(text: &str) -> String {
    text.chars().map(|c| if steers(c) { '\u{fffd}' } else { c }).collect()
}

/// The same of several lines, whose ends stay.
pub fn harmless_lines(text: &str) -> String {
    text.chars().map(|c| if steers(c) && c != '\n' { '\u{fffd}' } else { c }).collect()
}

/// Control characters; marks, embeddings, overrides and isolates of the bidirectional algorithm (Unicode Standard Annex 9);
/// separators of lines; and what has no width or is a tag (Unicode Technical Standard 39).
fn steers(c: char) -> bool {
    let is_unseen = matches!(
        c,
        '\u{61c}' | '\u{200b}'..='\u{200f}' | '\u{2028}'..='\u{202e}' | '\u{2060}'..='\u{206f}' | '\u{feff}'
            | '\u{fff9}'..='\u{fffb}' | '\u{e0000}'..='\u{e007f}'
    );
    c.is_control() || is_unseen
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn thousands_are_grouped_and_fractions_left_alone() {
        let text = |value: &str| grouped(value.parse().expect("a number"));
        assert_eq!(
            [text("4700"), text("-1234567.25"), text("1.2650"), text("0")],
            ["4 700", "-1 234 567.25", "1.2650", "0"]
        );
        assert_eq!(with_unit(Decimal::from(4700), "MHz"), "4 700 MHz");
        assert_eq!(measured(1234.567, 1), "1 234.6");
    }

    proptest! {
        #[test]
        fn grouping_changes_nothing_but_spaces(mantissa in any::<i64>(), scale in 0u32..10) {
            let value = Decimal::new(mantissa, scale);
            prop_assert_eq!(grouped(value).replace(' ', ""), value.to_string());
        }

        #[test]
        fn harmless_text_can_not_steer_a_terminal(text in any::<String>()) {
            prop_assert!(!harmless(&text).chars().any(steers));
            prop_assert!(!harmless_lines(&text).chars().any(|c| steers(c) && c != '\n'));
        }
    }
}
