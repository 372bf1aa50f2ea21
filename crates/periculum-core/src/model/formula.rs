//! Formulas of derived values, such as `base_clock * multiplier`: sums, differences and products are exact, and what a division
//! gives has 28 significant digits.
//!
//! ```text
//! sum     = product (("+" | "-") product)*
//! product = factor (("*" | "/") factor)*
//! factor  = "-" factor | number | name | "(" sum ")"
//! ```

use std::fmt;
use std::ops::Range;

use rust_decimal::Decimal;

/// A formula over named values.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Formula {
    text: String,
    root: Node,
}

/// What is wrong with a formula's text, and where, in bytes from its start.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct FormulaError {
    /// The bytes that are wrong.
    pub at: Range<usize>,
    /// What is wrong with them.
    pub what: String,
}

#[derive(Clone, Debug, PartialEq, Eq)]
enum Node {
    Number(Decimal),
    Name(String, Range<usize>),
    Negative(Box<Node>),
    Pair(Operator, Box<Node>, Box<Node>),
}

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Operator {
    Plus,
    Minus,
    Times,
    Over,
}

/// How deep parentheses and signs may nest, so that a hostile file can't exhaust the stack.
const DEEPEST: usize = 64;

/// No formula is longer than this, in bytes.
const LONGEST: usize = 1000;

impl Formula {
    /// Reads a formula.
    ///
    /// # Errors
    /// Points at the first thing that does not fit.
    pub fn parse(text: &str) -> Result<Self, FormulaError> {
        if text.len() > LONGEST {
            let what = format!("a formula has at most {LONGEST} characters, and this one has {}", text.len());
            return Err(FormulaError { at: 0..text.len(), what });
        }
        let mut parser = Parser { text, at: 0, depth: 0 };
        let root = parser.sum()?;
        parser.skip_blanks();
        if parser.at < text.len() {
            return Err(parser.wrong("expected an operator (+ - * /) or the end here"));
        }
        Ok(Self { text: text.trim().to_owned(), root })
    }

    /// Every name in the formula and where it stands, in bytes from the start.
    pub fn names(&self) -> Vec<(&str, Range<usize>)> {
        let mut names = Vec::new();
        self.root.gather_names(&mut names);
        names
    }

    /// The value for these named values; none where a name is missing, a division is by zero or the result
    /// has more digits than a decimal holds.
    pub fn value(&self, named: impl Fn(&str) -> Option<Decimal>) -> Option<Decimal> {
        self.root.value(&named).map(|value| value.normalize())
    }
}

impl fmt::Display for Formula {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.text)
    }
}

impl Node {
    fn gather_names<'a>(&'a self, names: &mut Vec<(&'a str, Range<usize>)>) {
        match self {
            Self::Number(_) => {}
            Self::Name(name, at) => names.push((name, at.clone())),
            Self::Negative(inner) => inner.gather_names(names),
            Self::Pair(_, left, right) => {
                left.gather_names(names);
                right.gather_names(names);
            }
        }
    }

    fn value(&self, named: &impl Fn(&str) -> Option<Decimal>) -> Option<Decimal> {
        match self {
            Self::Number(number) => Some(*number),
            Self::Name(name, _) => named(name),
            Self::Negative(inner) => inner.value(named).map(|value| -value),
            Self::Pair(operator, left, right) => {
                let (left, right) = (left.value(named)?, right.value(named)?);
                match operator {
                    Operator::Plus => left.checked_add(right),
                    Operator::Minus => left.checked_sub(right),
                    Operator::Times => left.checked_mul(right),
                    Operator::Over => left.checked_div(right),
                }
            }
        }
    }
}

struct Parser<'a> {
    text: &'a str,
    at: usize,
    depth: usize,
}

impl Parser<'_> {
    fn sum(&mut self) -> Result<Node, FormulaError> {
        let mut left = self.product()?;
        while let Some(operator) = self.operator(&[('+', Operator::Plus), ('-', Operator::Minus)]) {
            left = Node::Pair(operator, Box::new(left), Box::new(self.product()?));
        }
        Ok(left)
    }

    fn product(&mut self) -> Result<Node, FormulaError> {
        let mut left = self.factor()?;
        while let Some(operator) = self.operator(&[('*', Operator::Times), ('/', Operator::Over)]) {
            left = Node::Pair(operator, Box::new(left), Box::new(self.factor()?));
        }
        Ok(left)
    }

    fn factor(&mut self) -> Result<Node, FormulaError> {
        self.depth += 1;
        if self.depth > DEEPEST {
            return Err(self.wrong("this formula nests too deeply"));
        }
        self.skip_blanks();
        let node = match self.peek() {
            Some('-') => {
                self.at += 1;
                Node::Negative(Box::new(self.factor()?))
            }
            Some('(') => {
                self.at += 1;
                let inner = self.sum()?;
                self.skip_blanks();
                if self.peek() != Some(')') {
                    return Err(self.wrong("expected `)` here"));
                }
                self.at += 1;
                inner
            }
            Some(c) if c.is_ascii_digit() || c == '.' => self.number()?,
            Some(c) if c.is_alphabetic() || c == '_' => {
                let at = self.take_while(|c| c.is_alphanumeric() || c == '_');
                Node::Name(self.text[at.clone()].to_owned(), at)
            }
            _ => return Err(self.wrong("expected a number, a name or `(` here")),
        };
        self.depth -= 1;
        Ok(node)
    }

    fn number(&mut self) -> Result<Node, FormulaError> {
        let at = self.take_while(|c| c.is_ascii_digit() || c == '.');
        let number = self.text[at.clone()].parse();
        number.map(Node::Number).map_err(|_| FormulaError { at, what: "this is not a decimal number".into() })
    }

    fn operator(&mut self, known: &[(char, Operator)]) -> Option<Operator> {
        self.skip_blanks();
        let next = self.peek()?;
        let (_, operator) = known.iter().find(|(sign, _)| *sign == next)?;
        self.at += 1;
        Some(*operator)
    }

    fn peek(&self) -> Option<char> {
        self.text[self.at..].chars().next()
    }

    fn skip_blanks(&mut self) {
        self.take_while(char::is_whitespace);
    }

    fn take_while(&mut self, wanted: impl Fn(char) -> bool) -> Range<usize> {
        let rest = &self.text[self.at..];
        let length = rest.find(|c| !wanted(c)).unwrap_or(rest.len());
        let taken = self.at..self.at + length;
        self.at = taken.end;
        taken
    }

    fn wrong(&self, what: &str) -> FormulaError {
        let width = self.peek().map_or(0, char::len_utf8);
        FormulaError { at: self.at..self.at + width, what: what.to_owned() }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn value(text: &str) -> Option<String> {
        let formula = Formula::parse(text).expect("a formula");
        let named = |name: &str| match name {
            "base_clock" => Some(Decimal::new(10025, 2)),
            "multiplier" => Some(Decimal::from(47)),
            _ => None,
        };
        formula.value(named).map(|value| value.to_string())
    }

    #[test]
    fn formulas_follow_the_usual_order_and_are_exact() {
        assert_eq!(value("base_clock * multiplier").as_deref(), Some("4711.75"));
        assert_eq!(value("1 + 2 * 3 - 4 / 2").as_deref(), Some("5"));
        assert_eq!(value("-(2 - 5) * 0.1").as_deref(), Some("0.3"));
        assert_eq!(value("8 / 2 / 2").as_deref(), Some("2"));
        assert_eq!(value("multiplier / (1 - 1)"), None);
        assert_eq!(value("unknown + 1"), None);
    }

    #[test]
    fn errors_point_at_the_place() {
        let at = |text: &str| Formula::parse(text).expect_err("not a formula").at;
        assert_eq!(at("2 * "), 4..4);
        assert_eq!(at("(1 + 2"), 6..6);
        assert_eq!(at("a b"), 2..3);
        assert_eq!(at("1 % 2"), 2..3);
        assert_eq!(at("1.2.3"), 0..5);
        assert!(Formula::parse(&"(".repeat(10_000)).is_err());
    }

    #[test]
    fn names_are_found_where_they_stand() {
        let formula = Formula::parse("a * (b + a)").expect("a formula");
        assert_eq!(formula.names(), [("a", 0..1), ("b", 5..6), ("a", 9..10)]);
    }

    proptest! {
        #[test]
        fn any_text_is_read_or_refused_without_a_panic(text in "[-+*/() a-z0-9._é]{0,40}") {
            if let Err(error) = Formula::parse(&text) {
                prop_assert!(error.at.end <= text.len());
            }
        }
    }
}
