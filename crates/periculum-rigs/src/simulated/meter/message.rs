//! A message as a meter takes it apart: units between semicolons, each a header and its parameters (IEEE 488.2, chapter 7).

use super::status::Fault;

/// One unit of a message.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Unit {
    /// The header's nodes from the root, in capitals, the last one with its question mark.
    pub(super) path: Vec<String>,
    /// What stands behind it, between commas.
    pub(super) parameters: Vec<String>,
}

/// The units of a message, up to the first that can't be read. A header that does not begin with a colon goes on where the one
/// before it stood (SCPI 1999, volume 1, 6.2.4).
pub(super) fn units(message: &str) -> Vec<Result<Unit, Fault>> {
    let mut base: Vec<String> = Vec::new();
    let mut units = Vec::new();
    for text in message.split(';').map(str::trim).filter(|text| !text.is_empty()) {
        let unit = unit(text, &base);
        match &unit {
            // Common commands stand outside the tree.
            Ok(Unit { path, .. }) if path[0].starts_with('*') => {}
            Ok(Unit { path, .. }) => base = path[..path.len() - 1].to_vec(),
            Err(_) => {
                units.push(unit);
                break;
            }
        }
        units.push(unit);
    }
    units
}

fn unit(text: &str, base: &[String]) -> Result<Unit, Fault> {
    let (header, rest) = text.split_once(char::is_whitespace).unwrap_or((text, ""));
    let is_known = |sign: char| sign.is_ascii_alphanumeric() || matches!(sign, ':' | '*' | '?' | '_');
    if !header.chars().all(is_known) {
        return Err(Fault::InvalidCharacter);
    }
    let nodes = header.trim_start_matches(':').split(':').map(str::to_ascii_uppercase);
    let is_from_root = header.starts_with([':', '*']);
    let path = if is_from_root { nodes.collect() } else { base.iter().cloned().chain(nodes).collect() };
    let parameters = rest.split(',').map(|one| one.trim().to_owned()).filter(|one| !one.is_empty()).collect();
    Ok(Unit { path, parameters })
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn paths(message: &str) -> Vec<String> {
        units(message).into_iter().filter_map(|unit| unit.ok().map(|unit| unit.path.join(":"))).collect()
    }

    #[test]
    fn a_header_goes_on_where_the_one_before_it_stood() {
        assert_eq!(
            paths("syst:err?;err:next?;*opc?;vers?"),
            ["SYST:ERR?", "SYST:ERR:NEXT?", "*OPC?", "SYST:ERR:VERS?"]
        );
        assert_eq!(paths(":syst:err?;:meas:volt:dc? 10, 0.001"), ["SYST:ERR?", "MEAS:VOLT:DC?"]);
        let both = units("meas:volt:dc? 10, 0.001").remove(0).expect("right");
        assert_eq!(both.parameters, ["10", "0.001"]);
        assert_eq!(units("*opc?;m£as?;*opc?").last(), Some(&Err(Fault::InvalidCharacter)), "the rest is left");
        assert!(units(" ; ;").is_empty());
    }

    proptest! {
        #[test]
        fn any_message_is_taken_apart(message in "\\PC{0,60}") {
            let _ = units(&message);
        }
    }
}
