//! What is held on every device: the one book that play, listening and the device kind read.
//!
//! It answers what is down on which device, how far it is in, whether it is spent and what is at rest, for
//! every input from its first event on, bound or not. It relies on `input`, and on `sheet` for what counts
//! as rest. A level is always a number within full; a count is that of the devices on which something is
//! down and not spent.
//!
//! - `mod`: the book, and what an event changes in it
//! - `device`: one device of it: what is down, what is spent, the levels
//! - `marks`: what something that is down counts for, and when that changes
//! - `glide`: sticks and triggers whose movements nobody has to judge
//! - `saved`, `bytes`: the book put away as few bytes, and taken out again without trusting them

mod bytes;
mod device;
mod glide;
mod marks;
mod saved;

pub(crate) use self::bytes::{Garbled, Reader, Writer};
use self::device::{Device, Part, TOUCHES, bit, level_of, moved_over};
use self::glide::Gliding;
pub(crate) use self::glide::{Edges, GLIDES, gliding};
use crate::input::{
    Control, DeviceId, Direction, Event, EventKind, HidAxis, Input, Sign, Stick, TouchName,
};
use crate::sheet::LOOSE;

/// From here on a trigger, half axis or button that delivers a number counts as down.
const DOWN_AT: f32 = 0.5;
/// From so many devices on one of which nothing is held makes room for the next.
const MANY_DEVICES: usize = 64;
/// For how many numbers of devices their slots are guessed.
const GUESSES: usize = 16;
/// The most touch names that are followed besides those that a rig knows.
const MAX_STRANGE_TOUCH: usize = 64;

/// What is held on every device: every input is followed from its first event on, bound or not.
///
/// A [`Seat`] keeps one, see [`Seat::held`]. Whoever has events and no seat keeps one of their own,
/// for instance to start a [`Listener`] with.
///
/// An input can be *spent*: it is down, but begins nothing until it has been at rest. An analog input
/// is at rest inside its dead zone.
///
/// [`Seat`]: crate::Seat
/// [`Seat::held`]: crate::Seat::held
/// [`Listener`]: crate::remap::Listener
///
/// ```
/// use swap_knot::input::{Held, Simulated};
/// use swap_knot::{DeviceId, Place};
///
/// let mut held = Held::new();
/// let keyboard = Simulated::new(DeviceId(0));
/// held.feed(&keyboard.key(Place::KeyW));
/// assert_eq!(held.inputs(), ["KeyW".parse()?]);
/// held.feed(&keyboard.key_up(Place::KeyW));
/// assert!(held.inputs().is_empty());
/// # Ok::<(), swap_knot::input::InputError>(())
/// ```
#[derive(Clone, Debug)]
pub struct Held {
    devices: Vec<Device>,
    /// For each control, on how many devices it is down and not spent.
    count: Vec<u16>,
    /// For each control, what counts as its rest, and as down.
    rest: Vec<Rest>,
    /// Those that a rig names come first.
    touch: Vec<TouchName>,
    named_touch: usize,
    glides: [Gliding; GLIDES],
    /// In which slot a device may be, by its number: adapters give small ones out.
    guesses: [u16; GUESSES],
    /// Whether anything is spent anywhere, or unheard.
    has_spent: bool,
    has_unheard: bool,
}

impl PartialEq for Held {
    /// By what is held, whatever was found of how it may move.
    fn eq(&self, other: &Held) -> bool {
        self.devices == other.devices
            && self.count == other.count
            && self.rest == other.rest
            && self.touch == other.touch
            && self.named_touch == other.named_touch
    }
}

/// A device on its way from one book to another.
#[derive(Clone, Debug)]
pub(crate) struct DeviceHeld {
    device: Device,
    touch: Vec<TouchName>,
}

/// What counts as the rest of an analog control, and as down.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Rest {
    pub(crate) inner: f32,
    /// From here on it counts as down, and as up again from a little less on, so that it does not
    /// flutter at the edge.
    pub(crate) down_at: f32,
    pub(crate) up_at: f32,
    /// Each axis by itself, rather than by the distance from the middle.
    pub(crate) by_axis: bool,
}

/// What an event changed on one device.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Change {
    /// Nothing that counts.
    Nothing,
    /// It went down; `first` where no other device has it down.
    Down { first: bool },
    /// It came up; `last` where no other device has it down.
    Up { last: bool },
    /// It was spent and is at rest.
    Rested,
    /// It went down, but is spent since before that.
    Spent,
}

impl Rest {
    /// Whether something that far from the middle is at rest.
    #[inline]
    pub(crate) fn includes(&self, at: [f32; 2]) -> bool {
        !is_beyond(at, self.inner, self.by_axis)
    }
}

/// Whether something is further from the middle than so much: on either axis, or by its distance.
#[inline]
pub(crate) fn is_beyond([x, y]: [f32; 2], inner: f32, by_axis: bool) -> bool {
    match by_axis {
        true => x.abs() > inner || y.abs() > inner,
        false if y == 0.0 => x.abs() > inner,
        // Without a root: this is asked of every movement of a stick.
        false => x * x + y * y > inner * inner,
    }
}

impl Default for Rest {
    fn default() -> Self {
        Rest {
            inner: LOOSE,
            down_at: DOWN_AT,
            up_at: let_go_at(DOWN_AT),
            by_axis: false,
        }
    }
}

/// Where an input that went down at so much of its way is up again.
pub(crate) fn let_go_at(down_at: f32) -> f32 {
    down_at * 0.8
}

impl Default for Held {
    fn default() -> Self {
        Held::new()
    }
}

impl Held {
    /// Nothing is held.
    pub fn new() -> Held {
        Held {
            devices: Vec::new(),
            count: vec![0; Control::FIXED],
            rest: vec![Rest::default(); Control::FIXED],
            touch: Vec::new(),
            named_touch: 0,
            glides: [Gliding::NONE; GLIDES],
            guesses: [0; GUESSES],
            has_spent: false,
            has_unheard: false,
        }
    }

    /// Takes an event in.
    pub fn feed(&mut self, event: &Event) {
        self.follow(event, |_, _| {});
    }

    /// The devices that were heard of and are plugged in.
    pub fn devices(&self) -> impl Iterator<Item = DeviceId> + '_ {
        self.devices.iter().filter_map(|d| d.id)
    }

    /// Every input that is down or away from rest, spent or not.
    pub fn inputs(&self) -> Vec<Input> {
        let touch = self.touch.iter().enumerate();
        let touch = touch.map(|(n, name)| (Control::touch(n), Input::Touch(*name)));
        (Control::all_fixed().chain(touch))
            .filter(|(control, _)| self.devices.iter().any(|d| self.is_away(d, *control)))
            .map(|(_, input)| input)
            .collect()
    }

    /// Takes an event in and tells of each control that went down or came up.
    pub(crate) fn follow(&mut self, event: &Event, mut each: impl FnMut(Control, Change)) {
        let device = event.device;
        match event.what.in_range() {
            EventKind::FocusLost => self.spend(device),
            EventKind::KeyHeld { place } => self.hold_spent(device, Control::key(place)),
            EventKind::Unplugged => self.unplug(device),
            EventKind::PadStick { stick, x, y } => {
                let slot = self.slot(device);
                self.set_level(slot, Control::stick(stick), [x, y]);
                for half in Direction::ALL.map(|d| Control::stick_half(stick, d)) {
                    each(half, self.pulled(slot, half));
                }
                each(
                    Control::stick(stick),
                    self.moved(slot, Control::stick(stick)),
                );
            }
            EventKind::HidAxis { axis, value } => {
                let slot = self.slot(device);
                self.set_level(slot, Control::hid_axis(axis), [value, 0.0]);
                for half in [Sign::Positive, Sign::Negative].map(|s| Control::hid_half(axis, s)) {
                    each(half, self.pulled(slot, half));
                }
                each(
                    Control::hid_axis(axis),
                    self.moved(slot, Control::hid_axis(axis)),
                );
            }
            EventKind::PadButton { button, value } => {
                let (slot, control) = (self.slot(device), Control::pad(button));
                if button.is_trigger() {
                    self.set_level(slot, control, [value, 0.0]);
                    each(control, self.pulled(slot, control));
                } else if let Some(down) = self.pressed(slot, control, value) {
                    each(control, self.button(slot, control, down));
                }
            }
            EventKind::TouchStick { name, x, y } => {
                let slot = self.slot(device);
                if let Some(control) = self.touch_control(name) {
                    self.set_level(slot, control, [x, y]);
                    each(control, self.pulled(slot, control));
                }
            }
            EventKind::Touch { name, down } => {
                let slot = self.slot(device);
                if let Some(control) = self.touch_control(name) {
                    each(control, self.button(slot, control, down));
                }
            }
            other => {
                if let Some((control, down)) = other.as_button() {
                    let slot = self.slot(device);
                    each(control, self.button(slot, control, down));
                }
            }
        }
    }

    /// Counts analog inputs as down from one point on and as up, and at rest, up to another, or further
    /// out where their own dead zone reaches further: what rests in play rests here.
    pub(crate) fn with_thresholds(mut self, down_at: f32, up_at: f32) -> Held {
        // A half rests where its stick or axis does, whichever of them something is bound to.
        let halves = |stick| {
            Direction::ALL
                .map(|way| Control::stick_half(stick, way))
                .to_vec()
        };
        let sticks = Stick::ALL.map(|stick| (Control::stick(stick), halves(stick)));
        let axes = HidAxis::ALL.iter().map(|&axis| {
            let halves = [Sign::Positive, Sign::Negative].map(|s| Control::hid_half(axis, s));
            (Control::hid_axis(axis), halves.to_vec())
        });
        for (whole, halves) in sticks.into_iter().chain(axes) {
            let all = || halves.iter().copied().chain([whole]);
            let inner = all().map(|c| self.rest[c.index()].inner);
            let furthest = inner.fold(0.0, f32::max);
            all().for_each(|c| self.rest[c.index()].inner = furthest);
        }
        for rest in &mut self.rest {
            rest.inner = rest.inner.max(up_at);
            rest.up_at = rest.inner;
            // A quarter of what is left of its way, where its rest reaches far.
            rest.down_at = down_at.max(rest.inner + (1.0 - rest.inner) / 4.0);
        }
        self
    }

    /// Takes over what rests where, and the touch inputs of a rig in its order; what is held stays.
    pub(crate) fn rewire(&mut self, touch: &[TouchName], rest: Vec<Rest>) {
        self.end_glides();
        let mut names = touch.to_vec();
        let strange = self.touch.iter().enumerate().filter(|(n, name)| {
            let away = |d: &Device| self.is_away(d, Control::touch(*n));
            !touch.contains(name) && self.devices.iter().any(away)
        });
        names.extend(strange.map(|(_, name)| *name));
        let old = std::mem::replace(&mut self.touch, names);
        self.named_touch = touch.len();
        let controls = Control::FIXED + self.touch.len();
        for device in &mut self.devices {
            let was = std::mem::replace(device, Device::new(DeviceId(0), controls));
            *device = moved_over(was, &old, &self.touch);
        }
        self.rest = rest;
        self.rest.resize(controls, Rest::default());
        self.count_anew();
    }

    fn count_anew(&mut self) {
        self.count.clear();
        self.count.resize(Control::FIXED + self.touch.len(), 0);
        for device in &self.devices {
            for control in (0..self.count.len()).map(|n| Control(n as u16)) {
                if device.is_down(control) && !device.is_spent(control) {
                    self.count[control.index()] += 1;
                }
            }
        }
    }

    /// The slot of a device, made if it is new.
    #[inline]
    pub(crate) fn slot(&mut self, id: DeviceId) -> usize {
        let guess = usize::from(self.guesses[usize::from(id.0) % GUESSES]);
        match self.devices.get(guess) {
            Some(device) if device.id == Some(id) => guess,
            _ => self.find_slot(id),
        }
    }

    #[cold]
    fn find_slot(&mut self, id: DeviceId) -> usize {
        let found = self.devices.iter().position(|d| d.id == Some(id));
        let slot = found.unwrap_or_else(|| self.new_slot(id));
        self.guesses[usize::from(id.0) % GUESSES] = slot as u16;
        slot
    }

    fn new_slot(&mut self, id: DeviceId) -> usize {
        let is_crowded = self.devices.len() >= MANY_DEVICES;
        let is_free = |d: &Device| d.id.is_none() || is_crowded && d.is_at_rest();
        if let Some(at) = self.devices.iter().position(is_free) {
            self.end_glides();
            let device = &mut self.devices[at];
            device.id = Some(id);
            device.wheel = [0.0; 2];
            return at;
        }
        self.devices.push(Device::new(id, self.count.len()));
        self.devices.len() - 1
    }

    /// The touch inputs that are followed, in the order of their controls.
    pub(crate) fn touch_names(&self) -> &[TouchName] {
        &self.touch
    }

    /// The control of a touch name that is followed already.
    pub(crate) fn find_touch(&self, name: TouchName) -> Option<Control> {
        let at = self.touch.iter().position(|n| *n == name)?;
        Some(Control::touch(at))
    }

    /// The control of a touch name; none where there are too many that no rig knows.
    pub(crate) fn touch_control(&mut self, name: TouchName) -> Option<Control> {
        if let Some(control) = self.find_touch(name) {
            return Some(control);
        }
        if self.touch.len() - self.named_touch >= MAX_STRANGE_TOUCH {
            return None;
        }
        self.touch.push(name);
        self.count.push(0);
        self.rest.push(Rest::default());
        let words = self.count.len().div_ceil(64);
        for device in &mut self.devices {
            device
                .bits()
                .into_iter()
                .for_each(|bits| bits.resize(words, 0));
        }
        Some(Control::touch(self.touch.len() - 1))
    }

    /// A button went down or up.
    #[inline(always)]
    pub(crate) fn button(&mut self, slot: usize, control: Control, down: bool) -> Change {
        let (word, bit) = bit(control);
        let device = &mut self.devices[slot];
        let before = device.down[word];
        let after = if down { before | bit } else { before & !bit };
        if before == after {
            return Change::Nothing;
        }
        device.down[word] = after;
        if device.spent[word] & bit != 0 {
            // A zone that is a stick as well may have been away without being down.
            let device = &self.devices[slot];
            return match self.is_away(device, control) {
                true => Change::Nothing,
                false => self.rested(slot, control),
            };
        }
        let count = &mut self.count[control.index()];
        if down {
            *count += 1;
            Change::Down { first: *count == 1 }
        } else {
            *count -= 1;
            Change::Up { last: *count == 0 }
        }
    }

    /// The wheel of a device turned; answers how many whole notches that makes, to the right and up.
    pub(crate) fn turn(&mut self, slot: usize, by: [f32; 2]) -> [i8; 2] {
        let wheel = &mut self.devices[slot].wheel;
        let mut notches = [0; 2];
        for ((left, by), whole) in wheel.iter_mut().zip(by).zip(&mut notches) {
            // Turning back begins anew: nobody means the rest of a notch the other way.
            *left = if *left * by < 0.0 { by } else { *left + by };
            *whole = left.trunc() as i8;
            *left = left.fract();
        }
        notches
    }

    /// Whether a button that delivers a number is down or up with it; none where it says neither.
    pub(crate) fn pressed(&self, slot: usize, control: Control, value: f32) -> Option<bool> {
        let is_down = self.devices[slot].is_down(control);
        let rest = &self.rest[control.index()];
        let down = if is_down {
            value > rest.up_at
        } else {
            value >= rest.down_at
        };
        (down != is_down).then_some(down)
    }

    /// Notes where a whole analog control of a device is; answers whether the device had told of
    /// any such control before.
    pub(crate) fn set_level(&mut self, slot: usize, control: Control, level: [f32; 2]) -> bool {
        let Some((at, _)) = level_of(control) else {
            return false;
        };
        self.end_glide(at);
        let device = &mut self.devices[slot];
        let known = !device.levels.is_empty();
        if device.levels.len() <= at {
            device.levels.resize(at.max(TOUCHES - 1) + 1, [0.0; 2]);
        }
        device.levels[at] = level;
        known
    }

    /// What the level of a device means for a trigger, a half axis or an on-screen stick.
    pub(crate) fn pulled(&mut self, slot: usize, control: Control) -> Change {
        let device = &self.devices[slot];
        let level = device.level(control);
        let rest = &self.rest[control.index()];
        let rests = rest.includes(level);
        let far = match level {
            [x, 0.0] => x.abs(),
            [x, y] => x.hypot(y),
        };
        let is_down = device.is_down(control);
        let down = !rests
            && if is_down {
                far > rest.up_at
            } else {
                far >= rest.down_at
            };
        if device.is_spent(control) {
            if rests {
                return self.rested(slot, control);
            }
            Device::set(&mut self.devices[slot].down, control, down);
            return match down && !is_down {
                true => Change::Spent,
                false => Change::Nothing,
            };
        }
        match down == is_down {
            true => Change::Nothing,
            false => self.button(slot, control, down),
        }
    }

    /// What the level of a device means for a whole stick or axis, which is never down.
    pub(crate) fn moved(&mut self, slot: usize, control: Control) -> Change {
        let device = &self.devices[slot];
        let rests = || self.rest[control.index()].includes(device.level(control));
        match device.is_spent(control) && rests() {
            true => self.rested(slot, control),
            false => Change::Nothing,
        }
    }

    /// Where an analog control is over all devices that have a value: that which is furthest from the
    /// middle, and of equals that of the lower number, whichever was heard of first.
    #[inline]
    pub(crate) fn level(&self, control: Control) -> [f32; 2] {
        let Some((at, part)) = level_of(control) else {
            return [0.0; 2];
        };
        let alone = self.glided_to(at).map(|to| part.of(to));
        alone.unwrap_or_else(|| self.furthest(at, part, |d| !d.is_silent(control)))
    }

    /// The same for what begins by it, where what is spent counts for nothing.
    #[inline]
    pub(crate) fn fresh_level(&self, control: Control) -> [f32; 2] {
        match level_of(control) {
            Some((at, part)) if self.has_spent => {
                self.furthest(at, part, |d| !d.is_spent(control) && !d.is_silent(control))
            }
            _ => self.level(control),
        }
    }

    #[inline(never)]
    fn furthest(&self, at: usize, part: Part, counts: impl Fn(&Device) -> bool) -> [f32; 2] {
        let square = |[x, y]: [f32; 2]| x * x + y * y;
        let (mut best, mut by) = ([0.0; 2], None);
        for device in &self.devices {
            if let Some(level) = device.levels.get(at)
                && counts(device)
            {
                let level = part.of(*level);
                let (far, farthest) = (square(level), square(best));
                if far > farthest || (far == farthest && far > 0.0 && device.id < by) {
                    (best, by) = (level, device.id);
                }
            }
        }
        best
    }

    /// Whether a control is away from rest on some device where it has a value.
    pub(crate) fn is_worked(&self, control: Control) -> bool {
        self.is_followed(control) || !self.rest[control.index()].includes(self.level(control))
    }

    fn is_away(&self, device: &Device, control: Control) -> bool {
        device.is_down(control) || !self.rest[control.index()].includes(device.level(control))
    }

    /// A device is gone, or all are, with whatever was held on it.
    pub(crate) fn unplug(&mut self, device: DeviceId) {
        self.end_glides();
        for slot in 0..self.devices.len() {
            let id = self.devices[slot].id;
            if id.is_some() && (device == DeviceId::ALL || id == Some(device)) {
                self.spend_slot(slot);
                let empty = &mut self.devices[slot];
                empty.id = None;
                empty.bits().into_iter().for_each(|bits| bits.fill(0));
                empty.levels.fill([0.0; 2]);
            }
        }
        self.note_marks();
    }

    /// A device as it is held, to be joined to another book.
    pub(crate) fn device(&self, id: DeviceId) -> Option<DeviceHeld> {
        let device = self.devices.iter().find(|d| d.id == Some(id))?.clone();
        let touch = self.touch.clone();
        Some(DeviceHeld { device, touch })
    }

    /// Where something is on a device.
    pub(crate) fn level_on(&self, id: DeviceId, control: Control) -> [f32; 2] {
        let device = self.devices.iter().find(|d| d.id == Some(id));
        device.map_or([0.0; 2], |d| d.level(control))
    }

    /// Whether something is down on a device, or away from rest.
    pub(crate) fn is_device_worked(&self, id: DeviceId) -> bool {
        let device = self.devices.iter().find(|d| d.id == Some(id));
        device.is_some_and(|d| d.down.iter().any(|word| *word != 0))
    }

    /// Takes a device in. What is held on it is spent: it was not held for this player.
    pub(crate) fn join(&mut self, id: DeviceId, held: &DeviceHeld) {
        self.end_glides();
        for name in &held.touch {
            self.touch_control(*name);
        }
        let slot = self.slot(id);
        self.devices[slot] = moved_over(held.device.clone(), &held.touch, &self.touch);
        self.devices[slot].id = Some(id);
        let [_, marks @ ..] = self.devices[slot].bits();
        marks.into_iter().for_each(|bits| bits.fill(0));
        self.count_anew();
        self.spend_slot(slot);
        self.note_marks();
    }
}

/// The directions that notches to the right and up are, one for each notch.
pub(crate) fn notched([x, y]: [i8; 2]) -> impl Iterator<Item = Direction> {
    let way = |n: i8, positive, negative| {
        let direction = if n > 0 { positive } else { negative };
        std::iter::repeat_n(direction, usize::from(n.unsigned_abs()))
    };
    way(x, Direction::Right, Direction::Left).chain(way(y, Direction::Up, Direction::Down))
}
