//! Bench instruments as sensors, through SCPI over a raw TCP socket (Standard Commands for Programmable Instruments,
//! 1999; IEEE 488.2 for the form of numbers).

use std::collections::BTreeMap;
use std::io::{self, BufRead, BufReader, Read, Write};
use std::net::{TcpStream, ToSocketAddrs};
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::thread;
use std::time::Duration;

use periculum_core::model::quantity::harmless;
use periculum_core::model::rig::Sensor;

use crate::bench::Sensed;
use crate::latest::{FRESH, Latest, NO_ANSWER};

/// The name of the adapter that rig files use.
pub const ADAPTER: &str = "scpi";

/// How long an instrument may take to answer where its sensor does not say.
const PATIENCE: Duration = Duration::from_millis(1500);

/// How long after a failure it is tried again, and how long it rests between two rounds of questions.
const AFTER_FAILURE: Duration = Duration::from_secs(1);
const BETWEEN: Duration = Duration::from_millis(250);

/// An answer is no longer than this.
const LONGEST: u64 = 256;

/// What SCPI answers where it has no number.
const NOT_A_NUMBER: f64 = 9.9e37;

/// Where a sensor's source leads: `HOST:PORT QUESTION`, as in `127.0.0.1:5025 MEASure:VOLTage:DC?`.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Source<'a> {
    /// Host and port.
    pub address: &'a str,
    /// What is asked.
    pub question: &'a str,
}

impl<'a> Source<'a> {
    /// Reads a source; none where it has no port or asks nothing.
    pub fn parse(source: &'a str) -> Option<Self> {
        let (address, question) = source.trim().split_once(' ')?;
        let (host, port) = address.rsplit_once(':')?;
        let is_question = question.trim().ends_with('?') && !question.contains(['\n', '\r']);
        let is_right = !host.is_empty() && port.parse::<u16>().is_ok_and(|port| port > 0) && is_question;
        is_right.then(|| Self { address, question: question.trim() })
    }

    /// Whether it asks for a plain measurement, or who the instrument is: that changes nothing, so that nobody has to allow
    /// it. Parameters are numbers, words and the rest of SCPI's own signs, and there is one message only.
    pub fn is_plain(&self) -> bool {
        let question = self.question.trim_start_matches(':').to_ascii_uppercase();
        let (header, parameters) = question.split_once('?').unwrap_or((&question, ""));
        let is_measurement = matches!(header, "READ" | "FETC" | "FETCH" | "*IDN")
            || header.split(':').next().is_some_and(|first| matches!(first, "MEAS" | "MEASURE"));
        let is_harmless = |text: &str, more: &str| text.chars().all(|c| c.is_ascii_alphanumeric() || more.contains(c));
        is_measurement && is_harmless(header, ":*") && is_harmless(parameters, " ,.+-@()")
    }
}

/// What an instrument is asked for a sensor, and how long it may take.
#[derive(Clone, Debug)]
struct Question {
    sensor: String,
    text: String,
    patience: Duration,
}

/// The threads that ask instruments; they end when it is dropped.
#[derive(Debug)]
pub struct Instruments {
    latest: Latest,
    is_over: Arc<AtomicBool>,
}

impl Instruments {
    /// Asks for those of these sensors that are instruments' from now on, each instrument in a thread of its own.
    pub fn start(sensors: &[Sensor]) -> Self {
        let (latest, is_over) = (Latest::default(), Arc::new(AtomicBool::new(false)));
        let mut instruments: BTreeMap<String, Vec<Question>> = BTreeMap::new();
        for sensor in sensors.iter().filter(|sensor| sensor.adapter == ADAPTER) {
            if let Some(Source { address, question }) = Source::parse(&sensor.source) {
                let questions = instruments.entry(address.to_owned()).or_default();
                let patience = sensor.patience.map_or(PATIENCE, |patience| Duration::from_millis(patience.millis()));
                latest.miss(&sensor.name, NO_ANSWER);
                questions.push(Question { sensor: sensor.name.clone(), text: question.to_owned(), patience });
            }
        }
        for (address, questions) in instruments {
            let (latest, is_over) = (latest.clone(), Arc::clone(&is_over));
            thread::spawn(move || ask_on(&address, &questions, &latest, &is_over));
        }
        Self { latest, is_over }
    }

    /// What they measured of late.
    pub fn sensed(&self) -> Sensed {
        self.latest.sensed()
    }
}

impl Drop for Instruments {
    fn drop(&mut self) {
        self.is_over.store(true, Ordering::Relaxed);
    }
}

/// The answer of an instrument to one question.
///
/// # Errors
/// When it can't be reached, or does not answer in this time.
pub(crate) fn ask(address: &str, question: &str, patience: Duration) -> io::Result<String> {
    let stream = connect(address)?;
    stream.set_read_timeout(Some(patience))?;
    let mut answers = BufReader::new(stream.try_clone()?);
    (&stream).write_all(format!("{question}\n").as_bytes())?;
    let answer = line(&mut answers)?;
    Ok(String::from_utf8_lossy(&answer).into_owned())
}

/// Tells an instrument something, and waits until it has done it (IEEE 488.2, `*OPC?`).
///
/// # Errors
/// When it can't be reached, or is not done in this time.
pub(crate) fn tell(address: &str, command: &str, patience: Duration) -> io::Result<()> {
    ask(address, &format!("{command};*OPC?"), patience).map(drop)
}

fn ask_on(address: &str, questions: &[Question], latest: &Latest, is_over: &AtomicBool) {
    while !is_over.load(Ordering::Relaxed) {
        if let Err(error) = connect(address).and_then(|stream| ask_until(stream, questions, latest, is_over)) {
            tracing::warn!(address, %error, "an instrument does not answer");
            questions.iter().for_each(|question| latest.miss(&question.sensor, &format!("{address}: {error}")));
            thread::sleep(AFTER_FAILURE);
        }
    }
}

fn connect(address: &str) -> io::Result<TcpStream> {
    let resolved = address.to_socket_addrs()?.next().ok_or_else(|| io::Error::other("no such address"))?;
    let stream = TcpStream::connect_timeout(&resolved, PATIENCE)?;
    stream.set_write_timeout(Some(PATIENCE))?;
    stream.set_nodelay(true)?;
    Ok(stream)
}

/// Asks until something fails: an answer that comes too late would be taken for that of the next question, so that
/// the connection is given up then.
fn ask_until(stream: TcpStream, questions: &[Question], latest: &Latest, is_over: &AtomicBool) -> io::Result<()> {
    let mut answers = BufReader::new(stream.try_clone()?);
    let mut questioner = stream;
    // Until it is asked again, an instrument may take as long as all its answers may.
    let fresh_for = FRESH + questions.iter().map(|question| question.patience).sum::<Duration>();
    while !is_over.load(Ordering::Relaxed) {
        for Question { sensor, text, patience } in questions {
            // What is left over belongs to no question any more.
            empty(&mut answers)?;
            questioner.set_read_timeout(Some(*patience))?;
            questioner.write_all(format!("{text}\n").as_bytes())?;
            let answer = line(&mut answers)?;
            match number(&answer) {
                Some(reading) => latest.put_for(sensor, reading, fresh_for),
                None => latest.miss(sensor, &format!("its answer is no number: {}", shown(&answer))),
            }
        }
        thread::sleep(BETWEEN);
    }
    Ok(())
}

/// Takes away whatever has come without being asked for.
fn empty(answers: &mut BufReader<TcpStream>) -> io::Result<()> {
    answers.consume(answers.buffer().len());
    answers.get_ref().set_nonblocking(true)?;
    let mut surplus = [0; 256];
    let emptied = loop {
        match answers.get_mut().read(&mut surplus) {
            Ok(0) => break Err(io::Error::from(io::ErrorKind::UnexpectedEof)),
            Ok(_) => {}
            Err(error) if error.kind() == io::ErrorKind::WouldBlock => break Ok(()),
            Err(error) => break Err(error),
        }
    };
    answers.get_ref().set_nonblocking(false)?;
    emptied
}

/// An answer up to its end, which is a line feed, a carriage return or both.
fn line(answers: &mut impl BufRead) -> io::Result<Vec<u8>> {
    let mut answer = Vec::new();
    for byte in answers.by_ref().take(LONGEST).bytes() {
        match byte? {
            // The second part of the end before, or nothing yet.
            b'\n' | b'\r' if answer.is_empty() => {}
            b'\n' | b'\r' => return Ok(answer),
            byte => answer.push(byte),
        }
    }
    Err(io::Error::other("an answer without an end"))
}

/// The number of an answer, as instruments send it (IEEE 488.2, NR1 to NR3): in quotes, behind a word, before a unit or a
/// semicolon too, and the first one where several are separated by commas; none where it is no number, or where a comma may be
/// that of a decimal.
fn number(answer: &[u8]) -> Option<f64> {
    let text = str::from_utf8(answer).ok()?.trim().trim_end_matches(';').trim().trim_matches('"').trim();
    let is_ambiguous = |(whole, rest): (&str, &str)| {
        let digits = |text: &str| !text.is_empty() && text.bytes().all(|byte| byte.is_ascii_digit());
        digits(whole.trim_start_matches(['+', '-'])) && digits(rest)
    };
    if text.split_once(',').is_some_and(is_ambiguous) {
        return None;
    }
    let first = text.split(',').next()?.trim();
    // A word in front, as in `VOLT 1.25`, and a unit behind, as in `1.25V`.
    let first = first.rsplit_once(' ').filter(|(word, _)| word.parse::<f64>().is_err()).map_or(first, |(_, rest)| rest);
    let first = first.split(' ').next()?.trim_end_matches(|c: char| c.is_alphabetic() || matches!(c, '%' | '°'));
    let number: f64 = first.parse().ok()?;
    (number.is_finite() && number.abs() < NOT_A_NUMBER).then_some(number)
}

/// An answer as it can be shown.
fn shown(answer: &[u8]) -> String {
    harmless(&String::from_utf8_lossy(answer)).chars().take(40).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use periculum_core::model::moment::Span;
    use proptest::prelude::*;
    use std::net::TcpListener;
    use std::time::Instant;

    #[test]
    fn sources_and_answers_are_read() {
        let source = Source::parse("meter.local:5025 MEAS:VOLT:DC?").expect("right");
        assert_eq!((source.address, source.question), ("meter.local:5025", "MEAS:VOLT:DC?"));
        for wrong in ["meter MEAS?", "meter:0 MEAS?", "meter:5025", "meter:5025 MEAS", ":5025 MEAS?", "a:99999 M?"] {
            assert_eq!(Source::parse(wrong), None, "{wrong}");
        }
        let is_plain = |question: &str| Source { address: "a:1", question }.is_plain();
        assert!(["MEASure:VOLTage:DC?", ":meas:curr? 10,0.001", "READ?", "FETCh?", "*IDN?"].into_iter().all(is_plain));
        assert!(
            !["*TST?", "OUTP ON;READ?", "READ?;OUTP ON", "SOUR:VOLT 9;MEAS?", "SYST:ERR?"].into_iter().any(is_plain)
        );
        assert_eq!(number(b"+1.24870000E+00\r\n"), Some(1.2487));
        assert_eq!(number(b"1.2, 3\n"), Some(1.2));
        for odd in ["1.25 V", "1.25V", "VOLT 1.25", "\"1.25\"", "+1.25E+00;", " 1.25 ,3", "1.25,3.5"] {
            assert_eq!(number(odd.as_bytes()), Some(1.25), "{odd}");
        }
        assert_eq!(number(b"1,2345"), None, "nobody knows what that comma is");
        for none in [&b"9.90000000E+37\n"[..], b"\n", b"volts\n", b"\xff\n", b"nan\n"] {
            assert_eq!(number(none), None);
        }
    }

    /// An instrument that gives one answer after the other, and goes away or keeps silent where there is none.
    fn instrument(answers: &'static [Option<&'static [u8]>]) -> String {
        let listener = TcpListener::bind("127.0.0.1:0").expect("bound");
        let address = listener.local_addr().expect("an address").to_string();
        thread::spawn(move || {
            let mut answers = answers.iter().cycle();
            for stream in listener.incoming().flatten() {
                let mut questions = BufReader::new(stream.try_clone().expect("cloned"));
                let mut stream = stream;
                let mut line = String::new();
                while questions.read_line(&mut line).is_ok_and(|read| read > 0) {
                    let Some(answer) = answers.next().expect("a cycle") else { break };
                    if stream.write_all(answer).is_err() {
                        break;
                    }
                }
            }
        });
        address
    }

    fn read_once(address: &str) -> Option<f64> {
        let source = format!("{address} MEASure:VOLTage:DC?");
        let sensor = Sensor { source, adapter: ADAPTER.into(), ..Sensor::plain("die") };
        let instruments = Instruments::start(&[sensor]);
        let began = Instant::now();
        while instruments.sensed().readings.is_empty() && began.elapsed() < Duration::from_secs(60) {
            thread::sleep(Duration::from_millis(10));
        }
        instruments.sensed().readings.get("die").copied()
    }

    #[test]
    fn an_instrument_that_answers_garbage_and_goes_away_is_read_when_it_is_back() {
        let address = instrument(&[Some(b"\xfe\xff garbage\n"), None, Some(b"+1.25E+00\n")]);
        assert_eq!(read_once(&address), Some(1.25));
    }

    #[test]
    fn an_answer_that_comes_in_pieces_and_without_an_end_costs_only_that_reading() {
        let address = instrument(&[Some(b"+1.2"), None, Some(b"+1.31E+00\n")]);
        assert_eq!(read_once(&address), Some(1.31));
    }

    #[test]
    fn a_surplus_line_costs_one_reading_and_no_more() {
        // Before anything else it says what nobody asked for; then each answer belongs to its question.
        let address = instrument(&[Some(b"+9.99E+00\n+1.25E+00\n"), Some(b"+1.31E+00\r"), Some(b"+1.31E+00\n")]);
        let source = format!("{address} MEASure:VOLTage:DC?");
        let sensor = Sensor { source, adapter: ADAPTER.into(), ..Sensor::plain("die") };
        let instruments = Instruments::start(&[sensor]);
        let began = Instant::now();
        while instruments.sensed().readings.get("die") != Some(&1.31) && began.elapsed() < Duration::from_secs(60) {
            thread::sleep(Duration::from_millis(10));
        }
        assert_eq!(instruments.sensed().readings.get("die"), Some(&1.31));
    }

    #[test]
    fn a_slow_instrument_is_waited_for_as_long_as_its_sensor_says() {
        let listener = TcpListener::bind("127.0.0.1:0").expect("bound");
        let address = listener.local_addr().expect("an address").to_string();
        thread::spawn(move || {
            let (stream, _) = listener.accept().expect("asked");
            let mut questions = BufReader::new(stream.try_clone().expect("cloned"));
            let mut line = String::new();
            questions.read_line(&mut line).expect("a question");
            thread::sleep(PATIENCE + Duration::from_millis(300));
            (&stream).write_all(b"1.25\n").expect("answered");
            // Its connection is the only one.
            let _ = questions.read_line(&mut line);
        });
        let (source, patience) = (format!("{address} READ?"), Some(Span::from_seconds(30)));
        let sensor = Sensor { source, patience, adapter: ADAPTER.into(), ..Sensor::plain("die") };
        let instruments = Instruments::start(&[sensor]);
        let began = Instant::now();
        while instruments.sensed().readings.is_empty() && began.elapsed() < Duration::from_secs(60) {
            thread::sleep(Duration::from_millis(10));
        }
        assert_eq!(instruments.sensed().readings.get("die"), Some(&1.25));
    }

    proptest! {
        #[test]
        fn no_answer_can_harm(answer in prop::collection::vec(any::<u8>(), 0..40), source in "\\PC{0,30}") {
            prop_assert!(number(&answer).is_none_or(f64::is_finite));
            let _ = Source::parse(&source);
        }
    }
}
