//! What is exported, in the hands of other people's readers: an XML parser, PDF tools and an OpenMetrics parser.

use std::process::Command;

use crate::common::{Home, demo, output};

/// Reads OpenMetrics text and prints how many samples each metric has. Older versions of the parser hold 7.0 s for
/// earlier than 6.5 s, since they compare the parts of a second apart.
const OPEN_METRICS: &str = "
import sys
from prometheus_client.openmetrics.parser import text_fd_to_metric_families
from prometheus_client.samples import Timestamp
Timestamp.__gt__ = lambda self, other: (self.sec, self.nsec) > (other.sec, other.nsec)
for family in text_fd_to_metric_families(open(sys.argv[1])):
    print(family.name, family.type, len(family.samples))
";

fn climbed(plans: &[&str]) -> Home {
    let home = Home::new();
    for plan in plans {
        output(home.periculum().arg("climb").arg(demo(plan)).args(["--headless", "--seed", "11"]));
    }
    home
}

#[test]
fn every_picture_is_xml_and_pdf_that_others_read() {
    let home = climbed(&["dome.plan.toml", "pays.plan.toml"]);
    let pictures: [(&str, &[&str], &str); 8] = [
        ("ascent", &[], "ceiling 5 100"),
        ("map", &[], "core voltage, V"),
        ("scores", &[], "stock"),
        ("scores", &["--benchmark", "integer"], "integer, GB/s"),
        ("traces", &["--trial", "15"], "hottest core, °C"),
        ("traces", &["--trial", "12,15"], "2 trial 15"),
        ("cores", &[], "wrong-result"),
        ("compare", &["--with", "2"], "climb 2"),
    ];
    for (picture, options, says) in pictures {
        for file in ["x.svg", "x.pdf"] {
            output(home.periculum().args(["report", "1", "-o", file, "--picture", picture]).args(options));
        }
        let labels = output(Command::new("xmllint").args(["--xpath", "//@aria-label"]).arg(home.path("x.svg")));
        assert!(labels.contains(says), "{picture}: {labels}");
        let text = output(Command::new("pdftotext").arg(home.path("x.pdf")).arg("-"));
        assert!(text.contains(says), "{picture}: {text}");
    }
}

#[test]
fn the_report_is_a_few_pages_with_its_fonts_in_it() {
    let home = climbed(&["dome.plan.toml"]);
    output(home.periculum().args(["report", "1", "-o", "x.pdf"]));
    let about = output(Command::new("pdfinfo").arg(home.path("x.pdf")));
    let pages = about.lines().find_map(|line| line.strip_prefix("Pages:")).map(|pages| pages.trim().parse::<u32>());
    assert!(matches!(pages, Some(Ok(3..=8))), "{about}");
    let fonts = output(Command::new("pdffonts").arg(home.path("x.pdf")));
    assert!(fonts.lines().skip(2).count() >= 2, "{fonts}");
    assert!(fonts.lines().skip(2).all(|font| font.contains(" yes yes ")), "not embedded and subset: {fonts}");
    let text = output(Command::new("pdftotext").arg("-layout").arg(home.path("x.pdf")).arg("-"));
    for part in
        ["What was found", "4 700 MHz at 1.230 V", "What the marks rest on", "wrong-result on core 4", "SHA-256"]
    {
        assert!(text.contains(part), "{part}: {text}");
    }
    for fact in ["Creator:         Periculum", "CreationDate:", "Tagged:          yes"] {
        assert!(about.contains(fact), "{fact}: {about}");
    }
    let structure = output(Command::new("pdfinfo").arg("-struct-text").arg(home.path("x.pdf")));
    for element in ["H1 \"", "H2 \"What was found\"", "Figure", "Table", "TH", "TD", "LI", "Caption"] {
        assert!(structure.contains(element), "{element}: {structure}");
    }
    let raw = std::fs::read(home.path("x.pdf")).expect("read");
    let has = |what: &[u8]| raw.windows(what.len()).any(|bytes| bytes == what);
    assert!(has(b"/Lang(en)") && has(b"/Outlines"), "its language, and an outline of its headings");
    output(home.periculum().args(["report", "1", "-o", "again.pdf"]));
    let read = |name: &str| std::fs::read(home.path(name)).expect("read");
    assert_eq!(read("x.pdf"), read("again.pdf"), "the same climb gives the same bytes");
}

#[test]
fn a_page_needs_nothing_else_and_its_pictures_can_be_searched() {
    let home = climbed(&["dome.plan.toml"]);
    output(home.periculum().args(["report", "1", "-o", "x.html"]));
    let count = |what: &str| output(Command::new("xmllint").args(["--xpath", what]).arg(home.path("x.html")));
    let svg = "*[local-name()='svg']";
    assert_eq!(count("count(//*[local-name()='h1'])").trim(), "1");
    assert!(count(&format!("count(//{svg})")).trim().parse::<u32>().expect("a number") >= 2);
    assert_eq!(count(&format!("count(//{svg}//*[local-name()='text'][.='ceiling 5 100'])")).trim(), "1");
    assert_eq!(count("count(//@src)").trim(), "0", "nothing is fetched");
}

#[test]
fn marks_and_readings_are_open_metrics() {
    let home = climbed(&["dome.plan.toml"]);
    for (what, says) in [("marks", "periculum_mark gauge 2"), ("samples", "periculum_reading gauge ")] {
        output(home.periculum().args(["export", "1", what, "-o", "x.om"]));
        // The system's own Python, for which the parser is installed.
        let families = output(Command::new("/usr/bin/python3").args(["-c", OPEN_METRICS]).arg(home.path("x.om")));
        assert!(families.contains(says), "{families}");
    }
}

#[test]
fn what_can_not_be_drawn_is_told() {
    let home = climbed(&["dome.plan.toml"]);
    let refused: [(&[&str], &str); 8] = [
        (&["-o", "x.png"], "end it in .pdf, .html, .md or .svg"),
        (&["-o", "x.md", "--picture", "map"], "end it in .svg or .pdf"),
        (&["-o", "x.svg", "--picture", "scores", "--benchmark", "render"], "it has those of: integer, dense"),
        (&["-o", "x.svg", "--picture", "traces", "--trial", "99"], "there is no trial 99; there are 24"),
        (&["-o", "x.svg", "--picture", "compare"], "as in --with 2,5"),
        (&["-o", "x.svg", "--picture", "map", "--trial", "12,14"], "--trial is for --picture traces"),
        (&["-o", "x.pdf", "--picture", "cores", "--with", "2"], "--with is for --picture compare"),
        (&["-o", "nowhere/x.svg"], "can't write nowhere/x.svg"),
    ];
    for (arguments, said) in refused {
        let answer = home.periculum().args(["report", "1"]).args(arguments).output().expect("started");
        assert!(!answer.status.success(), "{arguments:?}");
        let told = String::from_utf8_lossy(&answer.stderr);
        assert!(told.contains(said), "{arguments:?}: {told}");
    }
}
