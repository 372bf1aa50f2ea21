//! x
pub fn ascent_svg(_: &periculum_core::profile::AscentProfile) -> Result<String, std::fmt::Error> {
    Ok(String::new())
}
pub fn report_markdown(
    _: &periculum_core::story::Story,
    _: &periculum_core::rig::Rig,
    _: &periculum_core::plan::Plan,
    _: i64,
    _: Option<u64>,
) -> String {
    String::new()
}
