//! What is said of bundles that were handed on.

use super::sentences;

pub(crate) const ALL_MADE_ANEW: &str = "its report and tables are what its record gives";
pub(crate) const NO_DIRECTORY: &str = "its list of files can't be read";

sentences! {
    another_digest(said, found) = "its record has the digest {found}, and {said} is told of it";
    another_version(version) = "its report and tables were written by version {version}, and are not made anew to compare them";
    changed(name) = "{name} is not what it was when it was bundled";
    damaged(problems) = "{problems} in its record";
    is_no_bundle(path) = "{path} is no bundle of a climb";
    missing(name) = "{name} is missing";
    not_what_its_record_gives(name) = "{name} is not what its record gives";
    too_new(format) = "it has the format {format}, which a newer version wrote";
    too_large(size) = "it holds more than {size}";
    unknown(name) = "{name} does not belong into it";
    whole(path, climb, plan, rig, begun, digest) =
        "{path}: climb {climb}, {plan} on {rig}, begun {begun}: whole and unchanged, SHA-256 {digest}";
    wrong_with(path, why) = "{path}: {why}";
}
