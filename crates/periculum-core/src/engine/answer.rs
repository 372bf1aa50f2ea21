//! What can be answered.

use strum::{IntoStaticStr, VariantArray};

/// An answer to a question.
#[derive(Clone, Copy, Debug, PartialEq, Eq, IntoStaticStr, VariantArray)]
#[strum(serialize_all = "kebab-case")]
pub enum Answer {
    /// It is made, and the rig runs.
    Done,
    /// It was made, and the rig did not start.
    NoStart,
    /// The rig started, but with its defaults in force.
    Defaults,
    /// The rig hung.
    Hung,
    /// The picture was wrong.
    WrongPicture,
    /// Another day: what is asked stands until then.
    NotToday,
    /// Try what is suggested.
    Take,
    /// Try these values.
    Try,
    /// Go back to what held last, and try it again.
    Back,
    /// What held last is a mark.
    Mark,
    /// Save what held last by a name.
    Save,
    /// It is enough.
    End,
}

impl Answer {
    /// Every answer.
    pub const ALL: &[Self] = Self::VARIANTS;

    /// The word that gives it, in lines and scripts.
    pub fn word(self) -> &'static str {
        self.into()
    }
}
