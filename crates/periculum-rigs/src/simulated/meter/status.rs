//! What a meter keeps of its errors and its state (IEEE 488.2, chapter 11; SCPI 1999, volume 2, chapter 21).

use std::collections::VecDeque;

/// No more errors than this are kept; who asks for none loses the newest.
const MOST: usize = 16;

/// What can go wrong with a message, by the numbers of SCPI.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Fault {
    InvalidCharacter,
    DataType,
    ParameterNotAllowed,
    MissingParameter,
    UndefinedHeader,
    OutOfRange,
    TooMuchData,
    QueueOverflow,
}

impl Fault {
    fn told(self) -> &'static str {
        match self {
            Self::InvalidCharacter => "-101,\"Invalid character\"",
            Self::DataType => "-104,\"Data type error\"",
            Self::ParameterNotAllowed => "-108,\"Parameter not allowed\"",
            Self::MissingParameter => "-109,\"Missing parameter\"",
            Self::UndefinedHeader => "-113,\"Undefined header\"",
            Self::OutOfRange => "-222,\"Data out of range\"",
            Self::TooMuchData => "-223,\"Too much data\"",
            Self::QueueOverflow => "-350,\"Queue overflow\"",
        }
    }

    /// The bit of the event register that it sets: a command error, an execution error, or one of the device.
    fn bit(self) -> u8 {
        match self {
            Self::OutOfRange | Self::TooMuchData => 1 << 4,
            Self::QueueOverflow => 1 << 3,
            _ => 1 << 5,
        }
    }
}

/// Bits of the event register and the status byte.
const POWER_ON: u8 = 1 << 7;
const OPERATION_COMPLETE: u8 = 1;
const HAS_ERRORS: u8 = 1 << 2;
const HAS_EVENT: u8 = 1 << 5;
const ASKS_FOR_SERVICE: u8 = 1 << 6;

/// The registers and the queue of errors.
#[derive(Debug)]
pub(super) struct Status {
    errors: VecDeque<Fault>,
    events: u8,
    pub(super) events_enabled: u8,
    pub(super) service_enabled: u8,
}

impl Status {
    /// As it is when the meter has just been switched on.
    pub(super) fn switched_on() -> Self {
        Self { errors: VecDeque::new(), events: POWER_ON, events_enabled: 0, service_enabled: 0 }
    }

    /// Notes a fault; where there is no room for it the newest one is replaced by that news.
    pub(super) fn note(&mut self, fault: Fault) {
        self.events |= fault.bit();
        if self.errors.len() < MOST {
            return self.errors.push_back(fault);
        }
        self.events |= Fault::QueueOverflow.bit();
        if let Some(newest) = self.errors.back_mut() {
            *newest = Fault::QueueOverflow;
        }
    }

    /// The oldest error, which is kept no longer.
    pub(super) fn next_error(&mut self) -> &'static str {
        self.errors.pop_front().map_or("0,\"No error\"", Fault::told)
    }

    pub(super) fn is_complete(&mut self) {
        self.events |= OPERATION_COMPLETE;
    }

    /// The events since they were last asked for.
    pub(super) fn take_events(&mut self) -> u8 {
        std::mem::take(&mut self.events)
    }

    pub(super) fn byte(&self) -> u8 {
        let errors = if self.errors.is_empty() { 0 } else { HAS_ERRORS };
        let event = if self.events & self.events_enabled == 0 { 0 } else { HAS_EVENT };
        let summary = errors | event;
        if summary & self.service_enabled == 0 { summary } else { summary | ASKS_FOR_SERVICE }
    }

    pub(super) fn clear(&mut self) {
        self.errors.clear();
        self.events = 0;
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_full_queue_says_so_in_the_place_of_the_newest() {
        let mut status = Status::switched_on();
        for _ in 0..MOST + 5 {
            status.note(Fault::UndefinedHeader);
        }
        let told: Vec<&str> = (0..=MOST).map(|_| status.next_error()).collect();
        assert!(told[..MOST - 1].iter().all(|error| error.starts_with("-113")));
        assert_eq!(told[MOST - 1..], ["-350,\"Queue overflow\"", "0,\"No error\""]);
        assert_eq!(status.take_events(), POWER_ON | 1 << 5 | 1 << 3);
    }

    #[test]
    fn what_is_enabled_asks_for_service() {
        let mut status = Status::switched_on();
        status.clear();
        assert_eq!(status.byte(), 0);
        status.note(Fault::OutOfRange);
        assert_eq!(status.byte(), HAS_ERRORS);
        (status.events_enabled, status.service_enabled) = (1 << 4, HAS_EVENT);
        assert_eq!(status.byte(), HAS_ERRORS | HAS_EVENT | ASKS_FOR_SERVICE);
    }
}
