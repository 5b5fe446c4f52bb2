//! Random worlds: sheets of a few actions on few inputs, and what may happen to them.

use std::collections::BTreeMap;

use proptest::prelude::*;
use swap_knot::input::{HidAxis, HidInput, Platform};
use swap_knot::layout::Resolver;
use swap_knot::sheet::{Parameter, Parameters};
use swap_knot::{
    DeviceId, Event, EventKind, Input, Layout, PadButton, Place, Profile, Rig, Row, Seat, Seats,
    Sheet, Stick, Time,
};

use super::rules::Model;

const PRESS: [&str; 24] = [
    "KeyA",
    "KeyB",
    "ShiftLeft",
    "Shift",
    "Shift+KeyA",
    "ShiftLeft+KeyA",
    "Ctrl+KeyA",
    "Ctrl+Shift+KeyA",
    "KeyB+KeyA",
    "pad:south",
    "pad:shoulder-left",
    "pad:shoulder-left+pad:south",
    "pad:trigger-left",
    "pad:shoulder-left+pad:trigger-left",
    "pad:trigger-left+pad:south",
    "pad:stick-left.up",
    "pad:stick-left.right",
    "pad:shoulder-left+pad:stick-left.up",
    "pad:stick-left.right+pad:stick-left.up",
    "pad:stick-left.up+pad:south",
    "hid:rz+",
    "hid:rz-",
    "pad:stick-left.up+pad:trigger-left",
    "ShiftLeft+KeyB+KeyA",
];
const PULL: [&str; 8] = [
    "KeyA",
    "Shift+KeyA",
    "pad:south",
    "pad:trigger-left",
    "pad:shoulder-left+pad:trigger-left",
    "pad:stick-left.up",
    "hid:rz+",
    "hid:rz-",
];
const ARM: [&str; 8] = [
    "KeyA",
    "KeyB",
    "Shift+KeyB",
    "pad:stick-left.up",
    "pad:stick-left.right",
    "pad:shoulder-left+pad:stick-left.right",
    "pad:trigger-left",
    "hid:rz+",
];
const MANNERS: [&str; 6] = [
    "press",
    "release",
    "hold",
    "tap",
    "double-tap",
    "triple-tap",
];
const SITUATIONS: [&str; 5] = ["deck", "helm", "chart", "hail", "pause"];
/// All of them are over those before, in their own ways.
const STACKS: &str = r#"
[situations.deck]
[situations.helm]
with = "deck"
[situations.chart]
over = ["deck", "helm"]
cover = "used"
[situations.hail]
over = ["deck", "chart"]
cover = "none"
[situations.pause]
over = ["chart", "deck"]
"#;

/// One action as it is drawn.
#[derive(Clone, Debug)]
pub struct Drawn {
    shape: u8,
    bindings: Vec<(usize, usize, bool, bool)>,
    threshold: Option<f32>,
    /// A hold is a press, quick repeats are ignored, held parts are latched.
    eased: (bool, bool, bool),
    situations: Vec<usize>,
    toggle: bool,
    while_paused: bool,
    resume: Option<bool>,
}

#[derive(Clone, Debug)]
pub struct World {
    actions: Vec<Drawn>,
}

impl World {
    pub fn any() -> impl Strategy<Value = World> {
        let action = (
            0..4_u8,
            proptest::collection::vec(
                (
                    any::<usize>(),
                    0..6_usize,
                    prop::bool::weighted(0.1),
                    prop::bool::weighted(0.25),
                ),
                1..4,
            ),
            proptest::option::weighted(0.3, proptest::sample::select(vec![0.3_f32, 0.5, 0.85])),
            proptest::sample::subsequence(vec![0, 1, 2, 3, 4], 0..=2),
            prop::bool::weighted(0.15),
            prop::bool::weighted(0.2),
            proptest::option::weighted(0.2, any::<bool>()),
            (
                prop::bool::weighted(0.1),
                prop::bool::weighted(0.15),
                prop::bool::weighted(0.25),
            ),
        );
        let action = action.prop_map(
            |(shape, bindings, threshold, situations, toggle, while_paused, resume, eased)| Drawn {
                shape,
                bindings,
                threshold,
                eased,
                situations,
                toggle,
                while_paused,
                resume,
            },
        );
        proptest::collection::vec(action, 2..7).prop_map(|actions| World { actions })
    }

    /// What a player has eased in it.
    pub fn profile(&self) -> Profile {
        let mut profile = Profile::default();
        for (n, action) in self.actions.iter().enumerate() {
            let (press, ignore, latch) = action.eased;
            let mut eased = Parameters::new();
            eased.set(Parameter::Press, press.then_some(true.into()));
            eased.set(Parameter::IgnoreWithin, ignore.then_some(0.1.into()));
            eased.set(Parameter::Latch, latch.then_some(true.into()));
            profile.set_parameters(&*format!("a-{n}"), &eased).unwrap();
        }
        profile
    }

    /// By name: whether quick repeats are ignored, and held parts latched.
    fn eased(&self) -> BTreeMap<String, (bool, bool)> {
        let all = self.actions.iter().enumerate();
        all.map(|(n, a)| (format!("a-{n}"), (a.eased.1, a.eased.2)))
            .collect()
    }

    pub fn text(&self) -> String {
        self.text_in(false)
    }

    /// The sheet; its actions in the other order for one that is swapped in.
    fn text_in(&self, reversed: bool) -> String {
        let mut text = format!("game = \"model\"\n{STACKS}");
        let mut order: Vec<usize> = (0..self.actions.len()).collect();
        if reversed {
            order.reverse();
        }
        for n in order {
            let action = &self.actions[n];
            let names = action
                .situations
                .iter()
                .map(|s| format!("\"{}\"", SITUATIONS[*s]));
            let names: Vec<String> = names.collect();
            text += &format!("[actions.a-{n}]\n");
            if !names.is_empty() {
                text += &format!("situation = [{}]\n", names.join(", "));
            }
            if action.while_paused {
                text += "while-paused = true\n";
            }
            if let Some(resume) = action.resume {
                text += &format!("resume = {resume}\n");
            }
            if let Some(threshold) = action.threshold {
                let feel = format!("{{ threshold = {threshold} }}");
                text += &format!("feel = {{ gamepad = {feel}, other = {feel} }}\n");
            }
            if action.toggle {
                text += "toggle = true\n";
            }
            text += &action.bindings();
        }
        text
    }
}

impl Drawn {
    fn bindings(&self) -> String {
        let on = |pool: &[&str], pick: usize| pool[pick % pool.len()].to_owned();
        let list = |pool: &[&str]| {
            let all = self
                .bindings
                .iter()
                .map(|b| format!("\"{}\"", on(pool, b.0)));
            all.collect::<Vec<_>>().join(", ")
        };
        match self.shape {
            0 => {
                let all = self.bindings.iter().map(|&(pick, manner, strict, together)| {
                    // A toggle is worked by presses, so that each flip has an edge of its own.
                    let manner = if self.toggle { 0 } else { manner };
                    let together = together && on(&PRESS, pick).contains('+');
                    let together = together && !on(&PRESS, pick).starts_with("hid:");
                    format!(
                        "{{ on = \"{}\", manner = \"{}\", strict = {strict}, together = {together} }}",
                        on(&PRESS, pick),
                        MANNERS[manner]
                    )
                });
                let all: Vec<String> = all.collect();
                format!("bind = [{}]\n", all.join(", "))
            }
            1 => format!("shape = \"pull\"\nbind = [{}]\n", list(&PULL)),
            2 => {
                let arms = ["left", "right"].iter().zip(&self.bindings);
                let arms =
                    arms.map(|(arm, b)| format!("{arm} = {{ bind = \"{}\" }}\n", on(&ARM, b.0)));
                let whole = if self.bindings.len() > 2 {
                    "bind = \"hid:rz\"\n"
                } else {
                    ""
                };
                format!("shape = \"line\"\n{whole}{}", arms.collect::<String>())
            }
            _ => {
                let arms = ["up", "right"].iter().zip(&self.bindings);
                let arms =
                    arms.map(|(arm, b)| format!("{arm} = {{ bind = \"{}\" }}\n", on(&ARM, b.0)));
                let whole = match self.bindings[0].3 {
                    true => "[\"pad:stick-left\", \"pad:shoulder-left+pad:stick-left\"]",
                    false => "\"pad:stick-left\"",
                };
                format!(
                    "shape = \"plane\"\nbind = {whole}\n{}",
                    arms.collect::<String>()
                )
            }
        }
    }
}

/// Something that happens.
#[derive(Clone, Debug)]
pub enum Move {
    Key(u16, usize, bool),
    Pad(u16, usize, f32),
    Stick(u16, f32, f32),
    Axis(u16, f32),
    /// The same, but a menu has it.
    Overheard(Box<Move>),
    Lose(Option<u16>),
    Unplug(u16),
    /// The device plays for this player from here on, or for nobody.
    Give(u16, bool),
    Wait(u64),
    Tick,
    Situations(Vec<usize>),
    /// Another chord in one cell, or the default again.
    Rebind(usize, Option<usize>),
    /// The same sheet with its actions in the other order.
    Swap,
    /// The game spends an action.
    Spend(usize),
}

const KEYS: [Place; 5] = [
    Place::KeyA,
    Place::KeyB,
    Place::ShiftLeft,
    Place::ShiftRight,
    Place::ControlLeft,
];
const PADS: [PadButton; 3] = [
    PadButton::South,
    PadButton::ShoulderLeft,
    PadButton::TriggerLeft,
];

impl Move {
    pub fn any() -> impl Strategy<Value = Move> {
        let far = || proptest::sample::select(vec![0.0_f32, 0.1, 0.2, 0.42, 0.45, 0.57, 0.9, 1.0]);
        let signed = || (far(), any::<bool>()).prop_map(|(v, neg)| if neg { -v } else { v });
        let device = || {
            prop_oneof![
                16 => (0..2_u16, 0..5_usize, any::<bool>()).prop_map(|(d, k, down)| Move::Key(d, k, down)),
                12 => (2..4_u16, 0..3_usize, far()).prop_map(|(d, b, v)| Move::Pad(d, b, v)),
                8 => (2..4_u16, signed(), signed()).prop_map(|(d, x, y)| Move::Stick(d, x, y)),
                3 => (2..4_u16, signed()).prop_map(|(d, v)| Move::Axis(d, v)),
            ]
        };
        prop_oneof![
            38 => device(),
            2 => device().prop_map(|m| Move::Overheard(Box::new(m))),
            1 => proptest::option::of(0..4_u16).prop_map(Move::Lose),
            1 => (0..4_u16).prop_map(Move::Unplug),
            2 => (0..4_u16, any::<bool>()).prop_map(|(d, mine)| Move::Give(d, mine)),
            6 => proptest::sample::select(vec![0_u64, 40, 200, 300, 600]).prop_map(Move::Wait),
            6 => Just(Move::Tick),
            3 => proptest::sample::subsequence(vec![0, 1, 2, 3, 4], 0..=3)
                .prop_shuffle()
                .prop_map(Move::Situations),
            2 => (any::<usize>(), proptest::option::of(any::<usize>())).prop_map(|(c, k)| Move::Rebind(c, k)),
            1 => any::<usize>().prop_map(Move::Spend),
            1 => Just(Move::Swap),
        ]
    }
}

/// A device that nothing is heard of.
const UNKNOWN: DeviceId = DeviceId(999);

/// One player to whom every device belongs.
fn alone(rig: &Rig) -> Seats {
    let mut seats = Seats::new();
    seats.add(rig.clone()).unwrap();
    (0..4).for_each(|device| seats.give(DeviceId(device), &[0]));
    seats
}

/// A move of a hand, as seat and model take it.
struct Worked {
    device: u16,
    kind: EventKind,
    whole: Input,
    at: [f32; 2],
    /// For what is only down or up.
    down: Option<bool>,
}

/// The seat and the model side by side.
pub struct Played {
    /// The modelled player, and no other.
    seats: Seats,
    model: Model,
    sheets: [Sheet; 2],
    swapped: bool,
    profile: Profile,
    on: Resolver,
    pub now: u64,
    /// Edges that did not agree.
    pub wrong: Option<String>,
    /// Whether the judge is asked what becomes of inputs; not while a sheet is swapped, which forgets it.
    pub asked: bool,
    pub forgot: bool,
}

impl Played {
    pub fn new(world: &World) -> Option<Played> {
        let sheets = [false, true].map(|r| Sheet::from_toml(&world.text_in(r)).ok());
        let [Some(sheet), Some(other)] = sheets else {
            return None;
        };
        let on = Resolver::new(&Layout::us(), Platform::Other);
        let profile = world.profile();
        let rig = Rig::new(&sheet, &profile, &on);
        Some(Played {
            seats: alone(&rig),
            model: Model::new(&rig, world.eased()),
            sheets: [sheet, other],
            swapped: false,
            profile,
            on,
            now: 0,
            wrong: None,
            asked: false,
            forgot: false,
        })
    }

    pub fn seat(&self) -> &Seat {
        self.seats.get(0).unwrap()
    }

    pub fn seat_mut(&mut self) -> &mut Seat {
        self.seats.get_mut(0).unwrap()
    }

    fn event(&mut self, device: u16, what: EventKind) -> Event {
        self.now += 1;
        self.model.wait_until(self.now);
        Event {
            at: Time::from_millis(self.now),
            device: DeviceId(device),
            what,
        }
    }

    fn feed(&mut self, device: u16, what: EventKind) {
        let event = self.event(device, what);
        let _ = self.seats.feed(&event);
        if self.model.elsewhere.contains_key(&device) {
            // The player hears nothing of it; that time goes by they do.
            let (device, what) = (UNKNOWN, EventKind::Unplugged);
            self.seat_mut().feed(&Event {
                device,
                what,
                ..event
            });
        }
        self.judge();
    }

    /// The model judges what it hears at once.
    fn judge(&mut self) {
        self.seats.advance(Time::from_millis(self.now));
    }

    /// Something is worked on a device, for the game or for a menu that the game overhears.
    fn work(&mut self, what: &Worked, overheard: bool) {
        let &Worked {
            device,
            kind,
            whole,
            at,
            down,
        } = what;
        if self.model.elsewhere.contains_key(&device) {
            self.feed(device, kind);
            self.model.follow_elsewhere(device, whole, at, down);
            return;
        }
        let event = self.event(device, kind);
        if overheard {
            self.seat_mut().overhear(&event);
            self.judge();
            self.model.overhear(device, whole, at, down);
            return;
        }
        let _ = self.seats.feed(&event);
        self.judge();
        let was_down = self.model.book.is_down(whole);
        match down {
            Some(down) => self.model.button(device, whole, down),
            None => self.model.analog(device, whole, at),
        }
        if self.asked && down == Some(true) && !was_down && self.model.book.is_down(whole) {
            self.compare_press(whole);
        }
    }

    /// What a move of a hand is to the seat and to the model.
    fn worked(&self, what: &Move) -> Option<Worked> {
        let at = |device, kind, whole, at| Worked {
            device,
            kind,
            whole,
            at,
            down: None,
        };
        Some(match *what {
            Move::Key(device, key, down) => {
                let (place, text) = (KEYS[key], None);
                Worked {
                    down: Some(down),
                    ..at(
                        device,
                        EventKind::Key { place, down, text },
                        Input::Key(place),
                        [0.0; 2],
                    )
                }
            }
            Move::Pad(device, n, value) => {
                let (button, whole) = (PADS[n], Input::PadButton(PADS[n]));
                let kind = EventKind::PadButton { button, value };
                let was = self.model.is_button_down(device, whole);
                let down = if was { value > 0.4 } else { value >= 0.5 };
                Worked {
                    down: (!button.is_trigger()).then_some(down),
                    ..at(device, kind, whole, [value, 0.0])
                }
            }
            Move::Stick(device, x, y) => {
                let stick = Stick::LEFT;
                let kind = EventKind::PadStick { stick, x, y };
                at(device, kind, Input::PadStick(stick), [x, y])
            }
            Move::Axis(device, value) => {
                let axis = HidAxis::Rz;
                let kind = EventKind::HidAxis { axis, value };
                at(device, kind, Input::Hid(HidInput::Axis(axis)), [value, 0.0])
            }
            _ => return None,
        })
    }

    fn set_rig(&mut self) {
        let rig = Rig::new(
            &self.sheets[usize::from(self.swapped)],
            &self.profile,
            &self.on,
        );
        self.seat_mut().set_rig(rig.clone());
        self.model.set_rig(&rig);
    }

    pub fn play(&mut self, what: &Move) {
        let (hand, overheard) = match what {
            Move::Overheard(hand) => (&**hand, true),
            hand => (hand, false),
        };
        if let Some(worked) = self.worked(hand) {
            self.work(&worked, overheard);
            return;
        }
        match *what {
            Move::Lose(device) => {
                self.feed(device.unwrap_or(DeviceId::ALL.0), EventKind::FocusLost);
                if device.is_none_or(|d| !self.model.elsewhere.contains_key(&d)) {
                    self.model.lose(device, false);
                    self.model.lose_latches(device);
                }
            }
            Move::Unplug(device) => {
                self.feed(device, EventKind::Unplugged);
                self.model.unplug(device);
            }
            Move::Give(device, mine) => {
                self.seats
                    .give(DeviceId(device), if mine { &[0] } else { &[] });
                self.model.give(device, mine);
            }
            Move::Wait(time) => {
                self.now += time;
                self.tick();
            }
            Move::Tick => self.tick(),
            Move::Situations(ref list) => {
                let sheet = self.seat().rig().sheet().clone();
                let ids = list
                    .iter()
                    .map(|s| sheet.find_situation(SITUATIONS[*s]).unwrap());
                let ids: Vec<_> = ids.collect();
                self.seat_mut().set_situations(&ids);
                self.model.set_stack(ids);
            }
            Move::Rebind(cell, pick) => {
                let sheet = self.sheets[usize::from(self.swapped)].clone();
                let Some(default) = sheet.defaults().get(cell % sheet.defaults().len()) else {
                    return;
                };
                let chord = pick.map_or(default.chord.clone(), |p| {
                    PRESS[p % PRESS.len()].parse().unwrap()
                });
                self.profile.set(&sheet, default.cell, Some(chord));
                self.set_rig();
            }
            Move::Spend(nth) => {
                let sheet = self.seat().rig().sheet().clone();
                let (id, action) = sheet.actions().nth(nth % sheet.actions().len()).unwrap();
                self.seat_mut().spend(id);
                self.model.spend(&action.name);
            }
            Move::Swap => {
                self.forgot = true;
                self.swapped = !self.swapped;
                self.set_rig();
            }
            _ => {}
        }
    }

    fn tick(&mut self) {
        self.now += 1;
        self.model.wait_until(self.now);
        self.seats.tick(Time::from_millis(self.now));
        let told: Vec<String> = self
            .seat()
            .happened()
            .iter()
            .map(|h| self.edge(h))
            .collect();
        let mut wanted = std::mem::take(&mut self.model.edges);
        let mut told = told;
        wanted.sort();
        told.sort();
        if told != wanted {
            self.wrong
                .get_or_insert(format!("edges {told:?}, not {wanted:?}"));
        }
        if self.asked {
            self.compare_outcomes();
        }
    }

    fn edge(&self, h: &swap_knot::play::Happened) -> String {
        let row = Row {
            action: h.action,
            arm: h.arm,
        };
        format!("{:?} {}", h.edge, self.seat().rig().sheet().row_name(row)).to_lowercase()
    }

    /// Everything is let go; nothing may stay on but toggles.
    pub fn end(&mut self) {
        self.play(&Move::Lose(None));
        self.play(&Move::Tick);
    }

    pub fn agree(&mut self) -> Result<(), String> {
        if let Some(why) = self.wrong.take() {
            return Err(why);
        }
        // A row is on in one where it is in the other.
        let sheet = self.seat().rig().sheet().clone();
        let on = self.model.on();
        for (id, action) in sheet.actions() {
            let rows =
                std::iter::once(Row::of(id)).chain(action.arms().iter().map(|a| Row::arm(id, *a)));
            for row in rows {
                let name = sheet.row_name(row);
                if self.seat().is_down(row) != on.contains(&name) {
                    return Err(format!("{name} is on: {}", self.seat().is_down(row)));
                }
            }
        }
        if self.seat().happened().len() > 1000 {
            return Err("more happens than can".to_owned());
        }
        let mut still = self.seat().clone();
        still.tick(Time::from_millis(self.now));
        for (id, action) in sheet.actions() {
            let (is, wanted) = (still.space(id), self.model.value(&action.name));
            if is.iter().zip(wanted).any(|(a, b)| (a - b).abs() > 1e-4) {
                return Err(format!("{} is at {is:?}, not {wanted:?}", action.name));
            }
        }
        Ok(())
    }
}
