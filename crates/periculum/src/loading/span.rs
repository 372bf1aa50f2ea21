//! What loads tell, as incidents have it.

use periculum_core::model::moment::Span;

pub(super) fn span(seconds: f64) -> Span {
    Span::from_millis((seconds.max(0.0) * 1000.0) as u64)
}
