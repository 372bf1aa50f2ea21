//! A network multimeter in software, whose probes are on a simulated rig: SCPI over a raw TCP socket.

use std::collections::VecDeque;
use std::io::{self, BufRead, BufReader, Read, Write};
use std::net::{TcpListener, TcpStream};
use std::thread;
use std::time::Duration;

/// A question is no longer than this.
const LONGEST: u64 = 256;

/// A questioner that is silent for longer is gone.
const PATIENCE: Duration = Duration::from_secs(600);

/// What SCPI answers where it has no number.
const NOT_A_NUMBER: f64 = 9.91e37;

/// Answers whoever asks, until the listener fails; the voltage is asked for anew with each question.
///
/// # Errors
/// When nobody can connect any more.
pub fn serve(listener: &TcpListener, voltage: impl Fn() -> Option<f64> + Clone + Send + 'static) -> io::Result<()> {
    loop {
        let (stream, _) = listener.accept()?;
        let voltage = voltage.clone();
        // A questioner that goes away in the middle of it is no concern of the others.
        thread::spawn(move || drop(converse(stream, &voltage)));
    }
}

fn converse(mut stream: TcpStream, voltage: &impl Fn() -> Option<f64>) -> io::Result<()> {
    stream.set_read_timeout(Some(PATIENCE))?;
    let mut questions = BufReader::new(stream.try_clone()?);
    let mut errors = VecDeque::new();
    loop {
        let mut question = Vec::new();
        if questions.by_ref().take(LONGEST).read_until(b'\n', &mut question)? == 0 {
            return Ok(());
        }
        let question = String::from_utf8_lossy(&question);
        if let Some(answer) = answer(question.trim(), voltage, &mut errors) {
            stream.write_all(format!("{answer}\n").as_bytes())?;
        }
    }
}

/// The answer to a question; commands have none, and what is not understood is kept as an error.
fn answer(question: &str, voltage: &impl Fn() -> Option<f64>, errors: &mut VecDeque<&'static str>) -> Option<String> {
    let words: Vec<String> = question.trim_start_matches(':').split(':').map(str::to_uppercase).collect();
    let is = |word: &str, short: &str, long: &str| word == short || word == long;
    let words: Vec<&str> = words.iter().map(String::as_str).collect();
    match words[..] {
        ["*IDN?"] => Some("Periculum,Simulated meter,0,1".into()),
        ["*CLS" | "*RST"] => {
            errors.clear();
            None
        }
        ["READ?"] => Some(written(voltage())),
        [measure, volts, direct]
            if is(measure, "MEAS", "MEASURE") && is(volts, "VOLT", "VOLTAGE") && direct == "DC?" =>
        {
            Some(written(voltage()))
        }
        [system, error] if is(system, "SYST", "SYSTEM") && is(error, "ERR?", "ERROR?") => {
            Some(errors.pop_front().unwrap_or("0,\"No error\"").to_owned())
        }
        [""] => None,
        _ => {
            errors.push_back("-113,\"Undefined header\"");
            None
        }
    }
}

/// A number in the form NR3 of IEEE 488.2.
fn written(value: Option<f64>) -> String {
    let text = format!("{:+.8e}", value.unwrap_or(NOT_A_NUMBER));
    let (mantissa, exponent) = text.split_once('e').unwrap_or((&text, "0"));
    let exponent: i32 = exponent.parse().unwrap_or(0);
    format!("{mantissa}E{exponent:+03}")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn questions_of_the_standard_are_answered_and_others_kept_as_errors() {
        let mut errors = VecDeque::new();
        let mut ask = |question: &str| answer(question, &|| Some(1.2487), &mut errors);
        for question in ["MEASure:VOLTage:DC?", "meas:volt:dc?", ":MEAS:VOLT:DC?", "READ?"] {
            assert_eq!(ask(question).as_deref(), Some("+1.24870000E+00"), "{question}");
        }
        assert_eq!(ask("CONF:CURR"), None);
        assert_eq!(ask("SYST:ERR?").as_deref(), Some("-113,\"Undefined header\""));
        assert_eq!(ask("SYSTem:ERRor?").as_deref(), Some("0,\"No error\""));
        assert_eq!(answer("READ?", &|| None, &mut errors).as_deref(), Some("+9.91000000E+37"));
        assert_eq!(written(Some(-0.00015)), "-1.50000000E-04");
    }
}
