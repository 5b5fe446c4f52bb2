//! A pad that is turned in the hands: how far, while what is held, and never by itself.

use crate::common::{cell, chord, small, us};
use proptest::prelude::*;
use swap_knot::input::Held;
use swap_knot::play::TurnUnits;
use swap_knot::remap::{Heard, Listener};
use swap_knot::sheet::{Feel, Parameter, Parameters};
use swap_knot::{
    Bind, DeviceId, DeviceKind, Draft, Event, EventKind, Layout, PadButton, Profile, Prompt, Rig,
    Seat, Sheet, Stick, Time, Trace,
};

const SHEET: &str = r#"
    [situations.deck]
    [situations.chart]
    over = ["deck"]
    cover = "used"
    [actions.look]
    situation = "deck"
    shape = "plane"
    rate = true
    bind = ["mouse:move", "pad:stick-right", "pad:shoulder-left+pad:gyro"]
    [actions.tilt]
    situation = "deck"
    shape = "space"
    bind = "pad:gyro"
"#;

const UNITS: TurnUnits = TurnUnits {
    a_count: 0.0625,
    a_second: 180.0,
};

fn world() -> Sheet {
    small(SHEET)
}

struct Hands {
    sheet: Sheet,
    seat: Seat,
    now: u64,
}

impl Hands {
    fn new(profile: Profile) -> Hands {
        let sheet = world();
        let rig = Rig::new(&sheet, &profile, &Layout::us());
        let mut seat = Seat::new(rig);
        seat.set_situations(&[sheet.find_situation("deck").unwrap()]);
        Hands {
            sheet,
            seat,
            now: 0,
        }
    }

    fn feed(&mut self, what: EventKind) -> &mut Self {
        self.now += 4;
        self.seat.feed(&Event {
            at: Time::from_millis(self.now),
            device: DeviceId(5),
            what,
        });
        self
    }

    fn turn(&mut self, yaw: f32, pitch: f32, roll: f32) -> &mut Self {
        self.feed(EventKind::PadGyro { yaw, pitch, roll })
    }

    fn hold(&mut self, down: bool) -> &mut Self {
        let button = PadButton::ShoulderLeft;
        let value = f32::from(down);
        self.feed(EventKind::PadButton { button, value })
    }

    fn tick(&mut self) -> &mut Self {
        self.now += 4;
        self.seat.tick(Time::from_millis(self.now));
        self
    }

    fn turned(&self, action: &str) -> [f32; 3] {
        self.seat.turn(self.sheet.find(action).unwrap(), UNITS)
    }
}

#[test]
fn a_view_turns_as_the_pad_does_while_what_is_held_says_so() {
    let mut hands = Hands::new(Profile::default());
    // Sixteen counts a degree, and a sixteenth of a degree a count.
    hands.turn(3.0, -1.5, 0.5).tick();
    assert_eq!(hands.turned("tilt"), [3.0, -1.5, 0.5]);
    assert_eq!(hands.turned("look"), [0.0; 3]);
    hands
        .hold(true)
        .turn(2.0, 1.0, 7.0)
        .turn(2.0, 0.0, 0.0)
        .tick();
    assert_eq!(hands.turned("look"), [4.0, 1.0, 0.0], "a plane has no roll");
    assert_eq!(hands.turned("tilt"), [0.0; 3], "the longer chord has it");
    hands.hold(false).turn(1.0, 0.0, 0.0).tick();
    assert_eq!(hands.turned("look"), [0.0; 3]);
    assert_eq!(hands.turned("tilt"), [1.0, 0.0, 0.0]);
}

#[test]
fn its_feel_is_its_own() {
    let mut profile = Profile::new("Ada");
    let own = Parameters::new()
        .with(Parameter::Gyro, 32.0)
        .with(Parameter::Sensitivity, 5.0)
        .with(Parameter::Invert, [false, true, false]);
    profile.set_parameters(DeviceKind::Gamepad, &own).unwrap();
    let mut hands = Hands::new(profile.clone());
    hands.turn(1.0, 1.0, 1.0).tick();
    assert_eq!(hands.turned("tilt"), [2.0, -2.0, 2.0]);
    assert_eq!(Profile::from_toml(&profile.to_toml()).unwrap(), profile);
    let wild = own.with(Parameter::Gyro, 201.0);
    let refused = profile.set_parameters(DeviceKind::Gamepad, &wild);
    assert!(refused.unwrap_err().to_string().contains("gyro"));
    assert_eq!(Feel::default().gyro, 16.0);
    let sheet =
        small("[feel.gamepad]\ngyro = 0\n[actions.tilt]\nshape = \"space\"\nbind = \"pad:gyro\"");
    let mut seat = Seat::new(us(&sheet));
    let what = EventKind::PadGyro {
        yaw: 9.0,
        pitch: 9.0,
        roll: 9.0,
    };
    seat.feed(&Event {
        at: Time::ZERO,
        device: DeviceId(1),
        what,
    });
    seat.tick(Time::from_millis(10));
    assert_eq!(seat.motion(sheet.find("tilt").unwrap()), [0.0; 3]);
}

#[test]
fn a_hand_that_is_not_still_plays_and_says_nothing_by_itself() {
    let mut hands = Hands::new(Profile::default());
    for _ in 0..1000 {
        hands.turn(0.4, -0.2, 0.1);
    }
    hands.tick();
    assert_eq!(hands.seat.device_kind(), DeviceKind::Keyboard);
    assert!(hands.seat.device_in_use().is_none());
    assert!(hands.seat.happened().is_empty());
    // Numbers that are none are none.
    hands.turn(f32::NAN, f32::INFINITY, 0.0).tick();
    assert!(hands.turned("tilt").iter().all(|v| v.is_finite()));
}

#[test]
fn it_is_heard_told_and_recorded() {
    let sheet = world();
    let draft = Draft::new(&sheet, Profile::default(), &Layout::us());
    let mut listener = Listener::new(
        draft.listens_for(cell(&sheet, "look gamepad-1")),
        &Held::new(),
    );
    let mut at = 0;
    let mut hear = |what| {
        at += 10;
        listener.tick(Time::from_millis(at));
        listener.hear(&Event {
            at: Time::from_millis(at),
            device: DeviceId(5),
            what,
        })
    };
    let button = PadButton::TriggerLeft;
    let _ = hear(EventKind::PadButton { button, value: 1.0 });
    let turn = |yaw| EventKind::PadGyro {
        yaw,
        pitch: 0.0,
        roll: 0.0,
    };
    // Pressing turns it a little.
    assert_eq!(hear(turn(8.0)), Heard::Nothing);
    assert_eq!(hear(turn(-40.0)), Heard::Nothing);
    let heard = hear(turn(60.0));
    assert_eq!(heard, Heard::Chord(chord("pad:trigger-left+pad:gyro")));

    let text = "{do:look:gamepad}, {tilt:gamepad}";
    let mut sheet_of_one = small(&SHEET.replace("\"pad:stick-right\", ", ""));
    let shown = Prompt::new(text, &sheet_of_one)
        .unwrap()
        .render(&us(&sheet_of_one), DeviceKind::Gamepad)
        .to_string();
    assert_eq!(
        shown,
        "Hold the left bumper and move the gamepad, motion of the gamepad"
    );
    sheet_of_one = small("[actions.steer]\nshape = \"line\"\nleft.bind = \"KeyA\"");
    let mut draft = Draft::new(&sheet_of_one, Profile::default(), &Layout::us());
    let row = sheet_of_one.find_row("steer.left").unwrap();
    let refused = draft.bind(row.cell("gamepad-1".parse().unwrap()), chord("pad:gyro"));
    assert!(refused.unwrap_err().to_string().contains("three axes"));
    let text = "format 3\n0.004000 2 pad:gyro 0.25 -0.1 0\n";
    assert_eq!(text.parse::<Trace>().unwrap().to_string(), text);
    // Two actions on it meet.
    let sheet = small(
        "[actions.a]\nshape = \"plane\"\nbind = \"pad:gyro\"\n[actions.b]\nshape = \"plane\"",
    );
    let mut draft = Draft::new(&sheet, Profile::default(), &Layout::us());
    let b = sheet
        .find_row("b")
        .unwrap()
        .cell("gamepad-1".parse().unwrap());
    assert!(matches!(
        draft.bind(b, chord("pad:gyro")),
        Ok(Bind::Asks(_))
    ));
}

/// What a player does with a pad.
#[derive(Clone, Debug)]
enum Does {
    Turn([f32; 3]),
    Hold(bool),
    Stick(f32),
    Chart(bool),
    Unplug,
    Tick,
}

proptest! {
    /// Turned at random, beside sums made by hand.
    #[test]
    fn what_is_turned_adds_up(all in prop::collection::vec(prop_oneof![
        4 => prop::array::uniform3(-9_i16..9).prop_map(|v| Does::Turn(v.map(f32::from))),
        1 => any::<bool>().prop_map(Does::Hold),
        1 => (-1.0_f32..1.0).prop_map(Does::Stick),
        1 => any::<bool>().prop_map(Does::Chart),
        1 => Just(Does::Unplug),
        2 => Just(Does::Tick),
    ], 1..60)) {
        let mut hands = Hands::new(Profile::default());
        let deck = hands.sheet.find_situation("deck").unwrap();
        let chart = hands.sheet.find_situation("chart").unwrap();
        let (mut look, mut tilt) = ([0.0_f32; 3], [0.0_f32; 3]);
        // Whether the shoulder is down and was pressed while the deck was live: the chart uses neither.
        let mut held = false;
        for does in all {
            match does {
                Does::Turn(by) => {
                    hands.turn(by[0], by[1], by[2]);
                    let sum = if held { &mut look } else { &mut tilt };
                    for axis in 0..3 {
                        // A plane has no roll.
                        if !(held && axis == 2) {
                            sum[axis] += by[axis];
                        }
                    }
                }
                Does::Hold(down) => {
                    hands.hold(down);
                    held = down;
                }
                Does::Stick(x) => {
                    hands.feed(EventKind::PadStick { stick: Stick::LEFT, x, y: 0.0 });
                }
                Does::Chart(on) => {
                    let both = [deck, chart];
                    let at = Time::from_millis(hands.now);
                    hands.seat.advance(at);
                    hands.seat.set_situations(if on { &both[..] } else { &both[..1] });
                }
                Does::Unplug => {
                    hands.feed(EventKind::Unplugged);
                    held = false;
                }
                Does::Tick => {
                    hands.tick();
                    let counts = |v: [f32; 3]| v.map(|v| v * 16.0);
                    let motion = |action| hands.seat.motion(hands.sheet.find(action).unwrap());
                    prop_assert_eq!(motion("look"), counts(look));
                    prop_assert_eq!(motion("tilt"), counts(tilt));
                    (look, tilt) = ([0.0; 3], [0.0; 3]);
                }
            }
        }
    }
}
