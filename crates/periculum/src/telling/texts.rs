//! Finds the texts in code, so that a test can tell whether words stand where they belong.

/// A text in quotation marks, without what is put into it, and the code of its statement before it.
pub(crate) struct Text {
    pub(crate) statement: String,
    pub(crate) text: String,
}

impl Text {
    pub(crate) fn words(&self) -> usize {
        self.text.split(|sign: char| !sign.is_alphabetic()).filter(|word| word.chars().count() > 2).count()
    }

    /// For those who look after the program: a line of its log, or why it can't be.
    pub(crate) fn is_for_developers(&self) -> bool {
        ["tracing::", "warn!(", ".expect(", "panic!(", "#["].iter().any(|sign| self.statement.contains(sign))
    }
}

/// The texts of a file of code, without those of its tests.
pub(crate) fn texts(code: &str) -> Vec<Text> {
    let code = code.split("#[cfg(test)]\nmod").next().unwrap_or_default();
    let (mut found, mut statement, mut rest) = (Vec::new(), String::new(), code.chars().peekable());
    while let Some(sign) = rest.next() {
        match sign {
            '/' if rest.peek() == Some(&'/') => {
                rest.by_ref().find(|&sign| sign == '\n');
            }
            '\'' => skip_sign(&mut rest),
            '"' => found.push(Text { statement: statement.clone(), text: text(&mut rest) }),
            ';' | '{' | '}' => statement.clear(),
            _ => statement.push(sign),
        }
    }
    found
}

/// Skips what is left of a sign in quotation marks; a lifetime has no second one.
fn skip_sign(rest: &mut std::iter::Peekable<std::str::Chars>) {
    let mut ahead = rest.clone();
    let is_escaped = ahead.next() == Some('\\');
    if ahead.next() == Some('\'') || is_escaped {
        rest.nth(usize::from(is_escaped));
        rest.find(|&sign| sign == '\'');
    }
}

fn text(rest: &mut impl Iterator<Item = char>) -> String {
    let (mut text, mut depth) = (String::new(), 0);
    while let Some(sign) = rest.next() {
        match sign {
            '"' => break,
            // What follows is no sign of the text itself.
            '\\' => _ = rest.next(),
            '{' => depth += 1,
            '}' => depth -= 1,
            sign if depth == 0 => text.push(sign),
            _ => {}
        }
    }
    text
}
