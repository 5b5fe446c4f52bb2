//! What some systems do with keys, put right before anybody hears of it.

use super::Resolver;
use crate::input::{DeviceId, Event, EventKind, Modifier, Place, Platform};

/// How soon AltGr comes after the Control that a system presses with it, in microseconds: both are told
/// at one moment, by a clock of milliseconds.
const AT_ONCE: u64 = 2_000;

/// Puts right what systems do with keys besides what a player does:
///
/// - **Windows** presses the left Control with AltGr on layouts that have one
///   ([`Layout::has_alt_gr`](crate::Layout::has_alt_gr)), and lets go of it with AltGr. That Control is
///   nobody's: it is left out. A Control waits for the next event or tick to be told from it, and keeps its
///   time.
/// - **macOS** tells no release of a key that is let go while Command is held. So whatever is down when
///   Command comes up counts as let go then: better that a key is pressed once more than that one is stuck.
///
/// [`Controls`](crate::Controls) has it; a game that feeds a seat by itself puts it before that. Whatever
/// an engine puts right already passes unchanged.
///
/// ```
/// use swap_knot::input::{KeyQuirks, Platform};
/// use swap_knot::layout::Resolver;
/// use swap_knot::{DeviceId, Event, EventKind, Layout, Place, Time};
///
/// let german = Layout::shipped("de").expect("it ships");
/// let on = Resolver::new(&german, Platform::Windows);
/// let mut quirks = KeyQuirks::default();
/// let mut heard = Vec::new();
/// for place in [Place::ControlLeft, Place::AltRight] {
///     let what = EventKind::Key { place, down: true, text: None };
///     let event = Event { at: Time::from_millis(5), device: DeviceId(0), what };
///     quirks.event(&event, &on, |e| heard.push(e.what));
/// }
/// assert!(matches!(heard[..], [EventKind::Key { place: Place::AltRight, .. }]));
/// ```
#[derive(Clone, Debug, Default)]
pub struct KeyQuirks {
    /// A Control of which it is not known yet whose it is, and whether a menu took it when it came.
    waits: Option<(Event, bool)>,
    /// The keyboard on which AltGr is held with a Control of its own.
    phantom: Option<DeviceId>,
    /// What is down on a Mac's keyboards, as far as that is told.
    down: Vec<(DeviceId, Place)>,
}

impl KeyQuirks {
    /// Takes an event in, and hands on what the player did.
    pub fn event(&mut self, event: &Event, on: &Resolver, mut feed: impl FnMut(&Event)) {
        self.offer(event, on, |_| false, |event, _| feed(event));
    }

    /// The same where a menu may have the event first. A key that waits is whose it was when it came:
    /// `takes` is asked of it then, and the answer handed on with it; of any other event, handed on with
    /// `None`, whoever hears it asks.
    pub fn offer(
        &mut self,
        event: &Event,
        on: &Resolver,
        takes: impl FnOnce(&Event) -> bool,
        mut feed: impl FnMut(&Event, Option<bool>),
    ) {
        let EventKind::Key { place, down, .. } = event.what else {
            self.forget(event);
            self.settle(|event, taken| feed(event, Some(taken)));
            feed(event, None);
            return;
        };
        if on.platform() == Platform::Windows && self.is_phantom(event, place, down, on) {
            return;
        }
        self.settle(|event, taken| feed(event, Some(taken)));
        let waits = on.platform() == Platform::Windows && on.layout().has_alt_gr();
        if waits && place == Place::ControlLeft && down && self.phantom.is_none() {
            self.waits = Some((*event, takes(event)));
            return;
        }
        feed(event, None);
        if on.platform() == Platform::Mac {
            self.let_go(event, place, down, &mut |event| feed(event, None));
        }
    }

    /// Time goes by: a Control that waits was meant. Call it before a tick. With it comes whether a menu
    /// took it when it came.
    pub fn settle(&mut self, feed: impl FnOnce(&Event, bool)) {
        if let Some((event, taken)) = self.waits.take() {
            feed(&event, taken);
        }
    }

    /// Whether an event is that of a Control which nobody pressed, or of AltGr that shows that it is one.
    fn is_phantom(&mut self, event: &Event, place: Place, down: bool, on: &Resolver) -> bool {
        let device = event.device;
        match (place, down) {
            (Place::AltRight, true) if on.layout().has_alt_gr() => {
                let near = |(w, _): &mut (Event, bool)| {
                    let apart = event.at.as_micros().abs_diff(w.at.as_micros());
                    w.device == device && apart <= AT_ONCE
                };
                if self.waits.take_if(near).is_some() {
                    self.phantom = Some(device);
                }
                false
            }
            (Place::AltRight, false) => {
                self.phantom.take_if(|d| *d == device);
                false
            }
            (Place::ControlLeft, _) => self.phantom == Some(device),
            _ => false,
        }
    }

    /// Follows what is down, and lets go of it when Command comes up.
    fn let_go(&mut self, event: &Event, place: Place, down: bool, feed: &mut impl FnMut(&Event)) {
        let key = (event.device, place);
        self.down.retain(|k| *k != key);
        if down {
            self.down.push(key);
            return;
        }
        // The other Command still keeps releases back.
        if !is_command(place) || self.down.iter().any(|k| k.0 == key.0 && is_command(k.1)) {
            return;
        }
        // Modifiers are told of by themselves.
        let is_kept = |k: &(DeviceId, Place)| k.0 != key.0 || Modifier::of_place(k.1).is_some();
        let (kept, gone) = std::mem::take(&mut self.down)
            .into_iter()
            .partition(is_kept);
        self.down = kept;
        let gone: Vec<(DeviceId, Place)> = gone;
        for (_, place) in gone {
            let (down, text) = (false, None);
            let what = EventKind::Key { place, down, text };
            feed(&Event { what, ..*event });
        }
    }

    /// A keyboard that is gone or not heard any more holds nothing.
    fn forget(&mut self, event: &Event) {
        if matches!(event.what, EventKind::Unplugged | EventKind::FocusLost) {
            let is_own = |device: DeviceId| [device, DeviceId::ALL].contains(&event.device);
            self.phantom.take_if(|d| is_own(*d));
            self.down.retain(|(d, _)| !is_own(*d));
        }
    }
}

fn is_command(place: Place) -> bool {
    Modifier::of_place(place) == Some(Modifier::Meta)
}
