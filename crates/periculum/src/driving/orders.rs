//! The orders that a bench has not answered so far.

use periculum_rigs::bench::{Number, Order};

/// What was ordered and is waited for. One thing is done to a rig at a time, so that an order takes the place of the one before:
/// whatever comes of that is no answer any more.
#[derive(Debug, Default)]
pub(crate) struct Orders {
    last: Number,
    open: Option<(Number, Order)>,
}

impl Orders {
    /// A number that no order had.
    pub(super) fn next(&mut self) -> Number {
        self.last += 1;
        self.last
    }

    /// Waits for the answer to this order from now on; tells its number.
    pub(super) fn open(&mut self, order: &Order) -> Number {
        let number = self.next();
        self.open = Some((number, order.clone()));
        number
    }

    /// Whether an answer is waited for.
    pub(super) fn are_open(&self) -> bool {
        self.open.is_some()
    }

    /// The order of this number, which is answered; none where nobody waits for that.
    pub(super) fn close(&mut self, number: Number) -> Option<Order> {
        self.open.take_if(|(open, _)| *open == number).map(|(_, order)| order)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_order_takes_the_place_of_the_one_before_and_is_answered_once() {
        let mut orders = Orders::default();
        let first = orders.open(&Order::ReadBack);
        let second = orders.open(&Order::PutBack);
        assert_eq!(orders.close(first), None, "nobody waits for it any more");
        assert!(orders.are_open());
        assert_eq!(orders.close(second), Some(Order::PutBack));
        assert_eq!(orders.close(second), None);
        assert!(!orders.are_open() && orders.next() > second);
    }
}
