//! Notifications by the desktop's own service (Desktop Notifications Specification 1.2, over the session's D-Bus).

use std::collections::HashMap;
use std::thread;
use std::time::Duration;

use anyhow::{Context, Result, bail};
use crossbeam_channel::{Receiver, Sender, unbounded};
use rustbus::connection::Timeout;
use rustbus::connection::ll_conn::force_finish_on_error;
use rustbus::message_builder::{MarshalledMessage, MessageType};
use rustbus::wire::marshal::traits::Variant;
use rustbus::{MessageBuilder, RpcConn};

use super::telling;
use super::telling::labels::PROGRAM;

/// What is said in the meantime matters more than an answer that takes longer.
const PATIENCE: Timeout = Timeout::Duration(Duration::from_secs(5));

/// How long a notification stays is for the desktop to say.
const AS_IS_USUAL: i32 = -1;

/// The desktop, which is told things in a thread of its own.
pub(super) struct Desktop {
    troubles: (Sender<String>, Receiver<String>),
    has_complained: bool,
}

impl Default for Desktop {
    fn default() -> Self {
        Self { troubles: unbounded(), has_complained: false }
    }
}

impl Desktop {
    /// Has it show a notification.
    pub(super) fn notify(&self, text: String) {
        let troubles = self.troubles.0.clone();
        thread::spawn(move || {
            if let Err(why) = tell(&text) {
                tracing::warn!("the desktop was not told `{text}`: {why:#}");
                // An interface that is closed hears nothing more.
                let _ = troubles.send(telling::desktop_not_told(&why));
            }
        });
    }

    /// Why it could not be told something comes here.
    pub(super) fn troubles(&self) -> Receiver<String> {
        self.troubles.1.clone()
    }

    /// The same once: who has no such service knows that then.
    pub(super) fn complain(&mut self, why: String) -> Option<String> {
        let is_first = !std::mem::replace(&mut self.has_complained, true);
        is_first.then_some(why)
    }
}

fn tell(text: &str) -> Result<()> {
    let mut connection = RpcConn::session_conn(PATIENCE).context(telling::NO_SESSION_BUS)?;
    let mut call = notification(text)?;
    let serial = connection.send_message(&mut call)?.write_all().map_err(force_finish_on_error)?;
    let answer = connection.wait_response(serial, PATIENCE)?;
    if answer.typ == MessageType::Error {
        bail!(telling::NO_NOTIFICATIONS);
    }
    Ok(())
}

fn notification(text: &str) -> Result<MarshalledMessage> {
    const SERVICE: &str = "org.freedesktop.Notifications";
    let call = MessageBuilder::new().call("Notify").with_interface(SERVICE);
    let mut call = call.on("/org/freedesktop/Notifications").at(SERVICE).build();
    let (replaces, icon, actions) = (0u32, "", Vec::<&str>::new());
    let hints = HashMap::<&str, Variant<u8>>::new();
    call.body.push_param3(PROGRAM, replaces, icon)?;
    // A summary is plain text; the body, which may be marked up, has nothing to add.
    call.body.push_param3(text, "", actions)?;
    call.body.push_param2(hints, AS_IS_USUAL)?;
    Ok(call)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_notification_has_the_types_that_the_specification_wants() {
        let call = notification("the hill: a mark <b>").expect("a message");
        assert_eq!(call.get_sig(), "susssasa{sv}i");
        let mut parser = call.body.parser();
        let read: (&str, u32, &str, &str) = (
            parser.get().expect("a name"),
            parser.get().expect("a number"),
            parser.get().expect("an icon"),
            parser.get().expect("a summary"),
        );
        assert_eq!(read, (PROGRAM, 0, "", "the hill: a mark <b>"));
    }

    #[test]
    fn who_has_no_such_service_is_told_once() {
        let mut desktop = Desktop::default();
        assert_eq!(desktop.complain("no bus".into()), Some("no bus".into()));
        assert_eq!(desktop.complain("no bus".into()), None);
    }
}
