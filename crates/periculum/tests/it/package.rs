//! What is installed: a Debian package, put on a copy of this very system, used, and taken away again.

use std::path::Path;
use std::process::{Command, Output};

use assert_cmd::cargo::cargo_bin;

use crate::common::Home;

/// Runs a script with this system's files below `$1/system`, to be changed at will: whatever is written stays in memory. Its package
/// is `$2`.
const ON_A_COPY: &str = r#"
set -e
mount -t tmpfs copy "$1"
mkdir "$1/written" "$1/work" "$1/system"
mount -t overlay copy -o "lowerdir=/,upperdir=$1/written,workdir=$1/work" "$1/system"
mount --rbind /dev "$1/system/dev"
cp "$2" "$1/system/root/periculum.deb"
exec chroot "$1/system" env -i PATH="$PATH" HOME=/root LC_ALL=C sh -ec "$3"
"#;

const USED: &str = r#"
dpkg --no-triggers --install /root/periculum.deb >/dev/null 2>&1
cd /root
getent group periculum
/usr/bin/periculum --version
/usr/bin/periculum check /usr/share/doc/periculum/demo/dome.plan.toml
/usr/bin/periculum climb /usr/share/doc/periculum/demo/dome.plan.toml --headless | tail -1
test -r /usr/share/man/man1/periculum-climb.1.gz
bash -c '. /usr/share/bash-completion/completions/periculum && complete -p periculum'
grep -h ExecStart= /usr/lib/systemd/user/periculum-*.service
mkdir fan && cd fan && echo 128 >pwm1 && echo 2 >pwm1_enable && chmod 644 pwm1 pwm1_enable && cd ..
/usr/lib/periculum/grant "$PWD/fan" 'pwm[0-9]' 'pwm[0-9]_enable' 'power[0-9]_cap'
stat -c '%n %G %a' fan/pwm1 fan/pwm1_enable
dpkg --no-triggers --purge periculum >/dev/null 2>&1
test ! -e /usr/bin/periculum && test ! -e /usr/share/doc/periculum && ! getent group periculum && echo gone
"#;

fn packaged(into: &Path) -> Output {
    let mut script = Command::new(Path::new(env!("CARGO_MANIFEST_DIR")).join("../../scripts/package.sh"));
    // What is packed has to be right here, and not small.
    script
        .env("PERICULUM_PACKAGES", into)
        .env("DPKG_DEB_COMPRESSOR_TYPE", "gzip")
        .env("DPKG_DEB_COMPRESSOR_LEVEL", "1");
    script.env("SOURCE_DATE_EPOCH", "1795900000").arg(cargo_bin("periculum")).output().expect("started")
}

#[test]
fn a_package_is_installed_used_and_removed() {
    let home = Home::new();
    let made = packaged(&home.path("packages"));
    assert!(made.status.success(), "{}", String::from_utf8_lossy(&made.stderr));
    let again = packaged(&home.path("again"));
    assert_eq!(String::from_utf8_lossy(&made.stdout), String::from_utf8_lossy(&again.stdout), "the same bytes");
    let package = std::fs::read_dir(home.path("packages")).expect("made").flatten().map(|entry| entry.path());
    let package = package.into_iter().find(|path| path.extension().is_some_and(|it| it == "deb")).expect("a package");

    let copy = home.path("copy");
    std::fs::create_dir(&copy).expect("made");
    let on_a_copy = |script: &str| {
        let mut sandbox = Command::new("unshare");
        sandbox.args(["--mount", "sh", "-c", ON_A_COPY, "sh"]).args([&copy, &package]).arg(script);
        sandbox.output().expect("started")
    };
    if !on_a_copy("true").status.success() {
        eprintln!("skipped: nobody here can make a copy of this system to install it on");
        return;
    }
    let used = on_a_copy(USED);
    let told = String::from_utf8_lossy(&used.stdout).into_owned();
    assert!(used.status.success(), "{told}{}", String::from_utf8_lossy(&used.stderr));
    for said in [
        "periculum:x:",
        concat!("periculum ", env!("CARGO_PKG_VERSION")),
        "-F _periculum periculum",
        "every stage is done: 24 trials",
        "ExecStart=/usr/bin/periculum profile start",
        "ExecStart=/usr/bin/periculum resume --unattended",
        "fan/pwm1 periculum 664",
        "fan/pwm1_enable periculum 664",
    ] {
        assert!(told.contains(said), "{said}\n{told}");
    }
    assert!(told.ends_with("gone\n"), "{told}");
    assert!(!Path::new("/usr/bin/periculum").exists(), "this system is as it was");
}
