//! A network multimeter in software, whose probes are on a simulated rig: SCPI over a raw TCP socket.

mod message;
mod status;

use std::io::{self, BufRead, BufReader, Read, Write};
use std::net::{TcpListener, TcpStream};
use std::thread;
use std::time::Duration;

use message::{Unit, units};
use status::{Fault, Status};

/// A message is no longer than this.
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
    let mut messages = BufReader::new(stream.try_clone()?);
    let mut meter = Meter { voltage, status: Status::switched_on() };
    loop {
        let mut message = Vec::new();
        if messages.by_ref().take(LONGEST).read_until(b'\n', &mut message)? == 0 {
            return Ok(());
        }
        if message.len() as u64 == LONGEST && !message.ends_with(b"\n") {
            meter.status.note(Fault::TooMuchData);
            messages.skip_until(b'\n')?;
            continue;
        }
        if let Some(answer) = meter.answer(&String::from_utf8_lossy(&message)) {
            stream.write_all(format!("{answer}\n").as_bytes())?;
        }
    }
}

/// A meter as one questioner has it.
struct Meter<F> {
    voltage: F,
    status: Status,
}

impl<F: Fn() -> Option<f64>> Meter<F> {
    /// The answers to a message, as one; none where it asks nothing.
    fn answer(&mut self, message: &str) -> Option<String> {
        let mut answers = Vec::new();
        for unit in units(message) {
            match unit.and_then(|unit| self.obey(&unit)) {
                Ok(answer) => answers.extend(answer),
                Err(fault) => self.status.note(fault),
            }
        }
        (!answers.is_empty()).then(|| answers.join(";"))
    }

    /// Does what a unit says, and answers where it asks.
    fn obey(&mut self, unit: &Unit) -> Result<Option<String>, Fault> {
        let path: Vec<&str> = unit.path.iter().map(String::as_str).collect();
        match path[..] {
            ["READ?" | "FETC?" | "FETCH?"] => return unit.alone().map(|()| self.measured()),
            ["MEAS" | "MEASURE", "VOLT?" | "VOLTAGE?"] | ["MEAS" | "MEASURE", "VOLT" | "VOLTAGE", "DC?"] => {
                return unit.range_and_resolution().map(|()| self.measured());
            }
            ["CONF" | "CONFIGURE", "VOLT" | "VOLTAGE"] | ["CONF" | "CONFIGURE", "VOLT" | "VOLTAGE", "DC"] => {
                return unit.range_and_resolution().map(|()| None);
            }
            ["*ESE"] => return unit.register().map(|value| self.status.events_enabled = value).map(|()| None),
            ["*SRE"] => return unit.register().map(|value| self.status.service_enabled = value).map(|()| None),
            _ => {}
        }
        let answer = match path[..] {
            ["*IDN?"] => "Periculum,Simulated meter,0,1".to_owned(),
            ["*OPC?"] => "1".into(),
            ["*TST?"] => "0".into(),
            ["*ESR?"] => self.status.take_events().to_string(),
            ["*ESE?"] => self.status.events_enabled.to_string(),
            ["*SRE?"] => self.status.service_enabled.to_string(),
            ["*STB?"] => self.status.byte().to_string(),
            ["SYST" | "SYSTEM", "VERS?" | "VERSION?"] => "1999.0".into(),
            ["SYST" | "SYSTEM", "ERR?" | "ERROR?"] | ["SYST" | "SYSTEM", "ERR" | "ERROR", "NEXT?"] => {
                self.status.next_error().into()
            }
            ["*CLS"] => return unit.alone().map(|()| self.status.clear()).map(|()| None),
            ["*OPC"] => return unit.alone().map(|()| self.status.is_complete()).map(|()| None),
            // It has nothing to put back, and nothing that takes time.
            ["*RST" | "*WAI"] => return unit.alone().map(|()| None),
            _ => return Err(Fault::UndefinedHeader),
        };
        unit.alone().map(|()| Some(answer))
    }

    fn measured(&self) -> Option<String> {
        Some(written((self.voltage)()))
    }
}

impl Unit {
    fn alone(&self) -> Result<(), Fault> {
        if self.parameters.is_empty() { Ok(()) } else { Err(Fault::ParameterNotAllowed) }
    }

    /// A range and a resolution, which may be left out: there is one of each.
    fn range_and_resolution(&self) -> Result<(), Fault> {
        let is_known = |word: &str| {
            let is_word = ["MIN", "MINIMUM", "MAX", "MAXIMUM", "DEF", "DEFAULT"].contains(&word);
            is_word || word.parse::<f64>().is_ok_and(f64::is_finite)
        };
        match &self.parameters[..] {
            [] | [_] | [_, _] if self.parameters.iter().all(|one| is_known(&one.to_ascii_uppercase())) => Ok(()),
            [] | [_] | [_, _] => Err(Fault::DataType),
            _ => Err(Fault::ParameterNotAllowed),
        }
    }

    /// The value of a register of eight bits.
    fn register(&self) -> Result<u8, Fault> {
        match &self.parameters[..] {
            [] => Err(Fault::MissingParameter),
            [one] => {
                let value: f64 = one.parse().map_err(|_| Fault::DataType)?;
                let fits = (0.0..=255.0).contains(&value.round());
                if fits { Ok(value.round() as u8) } else { Err(Fault::OutOfRange) }
            }
            _ => Err(Fault::ParameterNotAllowed),
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

    fn meter() -> Meter<impl Fn() -> Option<f64>> {
        Meter { voltage: || Some(1.2487), status: Status::switched_on() }
    }

    #[test]
    fn questions_of_the_standard_are_answered_and_others_kept_as_errors() {
        let mut meter = meter();
        let mut ask = |message: &str| meter.answer(message);
        for question in ["MEASure:VOLTage:DC?", "meas:volt? 10,DEF", ":MEAS:VOLT:DC?\r\n", "READ?", "fetch?"] {
            assert_eq!(ask(question).as_deref(), Some("+1.24870000E+00"), "{question}");
        }
        assert_eq!(ask("CONF:CURR"), None);
        assert_eq!(ask("SYST:ERR?").as_deref(), Some("-113,\"Undefined header\""));
        assert_eq!(ask("SYSTem:ERRor:NEXT?").as_deref(), Some("0,\"No error\""));
        assert_eq!(written(Some(-0.00015)), "-1.50000000E-04");
        assert_eq!(written(None), "+9.91000000E+37");
    }

    #[test]
    fn the_common_commands_are_there_and_joined_messages_have_one_answer() {
        let mut meter = meter();
        let mut ask = |message: &str| meter.answer(message);
        assert_eq!(ask("*ESR?").as_deref(), Some("128"), "it was switched on");
        assert_eq!(ask("*CLS;*ESE 32;*SRE 32;*ESE?;*SRE?;*STB?").as_deref(), Some("32;32;0"));
        assert_eq!(ask("*OPC?;*TST?;READ?;*WAI;*RST").as_deref(), Some("1;0;+1.24870000E+00"));
        assert_eq!(ask("*OPC;*ESR?").as_deref(), Some("1"));
        assert_eq!(ask("WHAT:NOW;*STB?").as_deref(), Some("100"), "an error, its event, and a request for service");
        assert_eq!(ask("SYST:ERR?;ERR?;VERS?").as_deref(), Some("-113,\"Undefined header\";0,\"No error\";1999.0"));
    }

    #[test]
    fn what_the_standard_refuses_is_refused() {
        let mut meter = meter();
        let mut refused = |message: &str| {
            assert_eq!(meter.answer(message), None, "{message}");
            let told = meter.answer("SYST:ERR?").expect("an answer");
            told.split(',').next().and_then(|number| number.parse::<i32>().ok()).expect("a number")
        };
        for (message, number) in [
            ("*ESE", -109),
            ("*ESE 1,2", -108),
            ("*ESE 256", -222),
            ("*ESE many", -104),
            ("*IDN? 1", -108),
            ("READ? 10", -108),
            ("MEAS:VOLT:DC? 10,1,3", -108),
            ("MEAS:VOLT:DC? wide", -104),
            ("MEAS:VOLT:DC", -113),
            ("ME\u{a3}S?", -101),
        ] {
            assert_eq!(refused(message), number, "{message}");
        }
    }

    #[test]
    fn a_message_without_an_end_is_too_much_and_the_next_one_is_heard() {
        let listener = TcpListener::bind("127.0.0.1:0").expect("bound");
        let address = listener.local_addr().expect("an address");
        thread::spawn(move || serve(&listener, || Some(1.0)));
        let mut stream = TcpStream::connect(address).expect("connected");
        stream.write_all(&[vec![b'A'; 1000], b"\nSYST:ERR?\n".to_vec()].concat()).expect("written");
        let mut answer = String::new();
        BufReader::new(stream).read_line(&mut answer).expect("read");
        assert_eq!(answer, "-223,\"Too much data\"\n");
    }
}
