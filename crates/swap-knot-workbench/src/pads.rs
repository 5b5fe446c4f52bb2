//! Gamepads, where the workbench is built with them (feature `pads`).

use swap_knot::{Event, Time};

/// The pads of the machine.
#[cfg(feature = "pads")]
pub(crate) struct Pads(Option<gilrs::Gilrs>, swap_knot_gilrs::Adapter);

#[cfg(feature = "pads")]
impl Pads {
    /// Those that are there; none where the system has no word for pads.
    pub(crate) fn new() -> Pads {
        Pads(gilrs::Gilrs::new().ok(), swap_knot_gilrs::Adapter::new())
    }

    /// What they did since this was asked last.
    pub(crate) fn events(&mut self, now: Time) -> Vec<Event> {
        let Pads(Some(pads), adapter) = self else {
            return Vec::new();
        };
        let mut out = Vec::new();
        while let Some(event) = pads.next_event() {
            let usb = swap_knot_gilrs::usb(pads, event.id);
            adapter.event(&event, usb, now, |event| out.push(event));
        }
        out
    }
}

/// None.
#[cfg(not(feature = "pads"))]
pub(crate) struct Pads;

#[cfg(not(feature = "pads"))]
impl Pads {
    pub(crate) const fn new() -> Pads {
        Pads
    }

    pub(crate) const fn events(&mut self, _: Time) -> Vec<Event> {
        Vec::new()
    }
}
