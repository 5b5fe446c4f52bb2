//! "Why did nothing happen?": every trouble is told by the judge, as data and in words; and what a
//! player pastes into a report says nothing of them.

use swap_knot::play::{NotLive, Outcome};
use swap_knot::prompt::Telling;
use swap_knot::{
    Controls, DeviceId, Event, EventKind, Input, Layout, PadButton, Place, Profile, Rig, Row, Seat,
    Sheet, Stick, Time, Words,
};

use crate::common::{Hand, demo, small, what};

/// A hand, and a judge who is asked what becomes of what it does.
struct Desk(Hand);

impl Desk {
    fn new(sheet: &Sheet, profile: &Profile) -> Desk {
        let mut hand = Hand::new(sheet);
        let rig = Rig::new(sheet, profile, &Layout::us());
        hand.seat.set_rig(rig);
        hand.seat.keep_outcomes(64);
        Desk(hand)
    }

    fn feed(&mut self, what: EventKind) -> &mut Desk {
        self.0.wait(10).feed(0, what).tick();
        self
    }

    fn press(&mut self, place: Place) -> &mut Desk {
        self.feed(what::key(place, true))
    }

    /// On a keyboard of which nothing was heard yet.
    fn press_elsewhere(&mut self, place: Place) -> &mut Desk {
        self.0.feed(7, what::key(place, true));
        self.0.tick();
        self
    }

    fn lift(&mut self, place: Place) -> &mut Desk {
        self.feed(what::key(place, false))
    }

    fn enter(&mut self, names: &[&str]) -> &mut Desk {
        self.0.situation(names);
        self
    }

    /// What was told since this was asked last, in words.
    fn told(&mut self) -> Vec<String> {
        let (words, rig) = (Words::english(), self.0.seat.rig().clone());
        let telling = Telling::new(&words, rig.sheet(), rig.resolver());
        let told = self.0.seat.outcomes().map(|t| telling.tell(&t)).collect();
        self.0.seat.keep_outcomes(0);
        self.0.seat.keep_outcomes(64);
        told
    }

    /// The last outcome of a row.
    fn last(&self, row: &str) -> Outcome {
        let row = self.0.seat.rig().sheet().find_row(row).unwrap();
        let mut told = self.0.seat.outcomes().rev();
        told.find(|t| t.row == Some(row)).unwrap().outcome
    }
}

const SHEET: &str = r#"
    [situations.deck]
    [situations.chart]
    over = ["deck"]
    cover = "used"
    [situations.pause]
    over = ["deck", "chart"]
    [actions.rope]
    situation = "deck"
    manner = "hold"
    bind = ["KeyE", "pad:trigger-left"]
    [actions.tie]
    situation = "deck"
    bind = "Ctrl+KeyE"
    [actions.knot]
    situation = "deck"
    manner = "double-tap"
    bind = "KeyK"
    [actions.lamp]
    situation = "deck"
    toggle = true
    bind = ["KeyL", "pad:north"]
    [actions.sail]
    situation = "deck"
    bind = { on = "KeyS", strict = true }
    [actions.zoom]
    situation = "chart"
    bind = "KeyL"
    [actions.walk]
    situation = "deck"
    shape = "plane"
    bind = "pad:stick-left"
    [actions.winch]
    situation = "deck"
    off = true
    bind = "KeyX"
"#;

#[test]
fn every_trouble_has_an_outcome_of_its_own() {
    let sheet = small(SHEET);
    let mut desk = Desk::new(&sheet, &Profile::default());
    desk.enter(&["deck"]);
    let row = |name: &str| sheet.find_row(name).unwrap();
    let ctrl = Input::Key(Place::ControlLeft);

    // A hold: waiting, too short; and at its time.
    desk.press(Place::KeyE);
    assert!(
        matches!(desk.last("rope"), Outcome::Waiting { until: Some(at) } if at > Time::from_millis(200))
    );
    assert!(matches!(
        desk.last("tie"),
        Outcome::NotHeld(Input::Key(Place::ControlLeft))
    ));
    desk.lift(Place::KeyE);
    assert_eq!(desk.last("rope"), Outcome::TooShort);
    // A longer chord; one whose parts come the wrong way round; a part that is spent.
    desk.press(Place::ControlLeft).press(Place::KeyE);
    assert_eq!(desk.last("rope"), Outcome::LongerChord(row("tie")));
    assert_eq!(desk.last("tie"), Outcome::Worked);
    desk.lift(Place::ControlLeft).press(Place::ControlLeft);
    assert_eq!(desk.last("tie"), Outcome::WrongOrder(ctrl));
    desk.lift(Place::KeyE);
    desk.feed(EventKind::FocusLost).press_elsewhere(Place::KeyE);
    assert_eq!(desk.last("tie"), Outcome::PartSpent(ctrl));
    // What is waiting comes to nothing.
    desk.0.feed(7, EventKind::Unplugged).tick();
    desk.lift(Place::KeyE).lift(Place::ControlLeft);
    assert!(matches!(desk.last("rope"), Outcome::BrokenOff(_)));
    // A double tap: the second one too late, or held too long.
    desk.press(Place::KeyK).lift(Place::KeyK);
    desk.0.wait(2_000);
    desk.press(Place::KeyK);
    let told = desk
        .0
        .seat
        .outcomes()
        .filter(|t| t.row == Some(row("knot")));
    let told: Vec<Outcome> = told.map(|t| t.outcome).collect();
    assert_eq!(told[told.len() - 2], Outcome::SecondTooLate);
    desk.0.wait(2_000);
    desk.lift(Place::KeyK);
    assert_eq!(desk.last("knot"), Outcome::TooLong);
    // A toggle, and what holds it beside.
    desk.press(Place::KeyL);
    assert_eq!(desk.last("lamp"), Outcome::Worked);
    desk.lift(Place::KeyL).press(Place::KeyL);
    assert_eq!(desk.last("lamp"), Outcome::ToggledOff);
    desk.lift(Place::KeyL);
    // Strict.
    desk.press(Place::ShiftRight).press(Place::KeyS);
    assert_eq!(
        desk.last("sail"),
        Outcome::Strict(Input::Key(Place::ShiftRight))
    );
    // Switched off; bound to nothing.
    desk.press(Place::KeyX).press(Place::KeyP);
    assert_eq!(desk.last("winch"), Outcome::SwitchedOff);
    let last = desk.0.seat.outcomes().next_back().unwrap();
    assert_eq!((last.outcome, last.row), (Outcome::NotBound, None));
    // Covered by what is used, by all, and elsewhere.
    desk.enter(&["deck", "chart"])
        .press(Place::KeyL)
        .lift(Place::KeyL);
    let chart = sheet.find_situation("chart").unwrap();
    assert_eq!(desk.last("lamp"), Outcome::NotLive(NotLive::Covered(chart)));
    assert_eq!(desk.last("zoom"), Outcome::Worked);
    desk.enter(&["deck", "pause"])
        .press(Place::KeyL)
        .lift(Place::KeyL);
    let pause = sheet.find_situation("pause").unwrap();
    assert_eq!(desk.last("lamp"), Outcome::NotLive(NotLive::Covered(pause)));
    assert_eq!(desk.last("zoom"), Outcome::NotLive(NotLive::Elsewhere));
    // Nothing of a trigger and a stick, one step however much they tremble.
    desk.enter(&["deck"]);
    desk.0.seat.keep_outcomes(0);
    desk.0.seat.keep_outcomes(64);
    let (button, stick) = (PadButton::TriggerLeft, Stick::LEFT);
    for n in 1..=20_u8 {
        let value = f32::from(n) * 0.02;
        desk.feed(EventKind::PadButton { button, value });
        let x = f32::from(n) * 0.001;
        desk.feed(EventKind::PadStick { stick, x, y: 0.0 });
    }
    assert_eq!(desk.last("walk"), Outcome::AtRest);
    assert_eq!(desk.last("rope"), Outcome::NotFarEnough);
    assert!(desk.0.seat.outcomes().count() <= 4, "{:?}", desk.told());
    let trembled = desk
        .0
        .seat
        .outcomes()
        .find(|t| t.row == Some(row("walk")))
        .unwrap();
    assert_eq!(trembled.times, 20);
    desk.feed(EventKind::PadStick {
        stick,
        x: 0.9,
        y: 0.0,
    });
    assert_eq!(desk.last("walk"), Outcome::Worked);
    // And what is down when the game does not hear it is spent.
    desk.press(Place::KeyS).feed(EventKind::FocusLost);
    desk.lift(Place::KeyS);
    let place = Place::KeyS;
    desk.feed(EventKind::KeyHeld { place }).press(Place::KeyS);
    let told = desk.told();
    assert_eq!(told.last().unwrap(), "S: let go first");
}

#[test]
fn whether_an_action_is_live_is_asked_without_pressing_anything() {
    let sheet = small(SHEET);
    let mut desk = Desk::new(&sheet, &Profile::default());
    let pause = sheet.find_situation("pause").unwrap();
    let why = |desk: &Desk, name: &str| desk.0.seat.why_not_live(sheet.find(name).unwrap());
    desk.enter(&["deck"]);
    assert_eq!(why(&desk, "lamp"), None);
    assert_eq!(why(&desk, "zoom"), Some(NotLive::Elsewhere));
    assert_eq!(why(&desk, "winch"), Some(NotLive::SwitchedOff));
    // The chart takes the key, and not the pad.
    desk.enter(&["deck", "chart"]);
    assert_eq!(why(&desk, "lamp"), None);
    desk.enter(&["deck", "chart", "pause"]);
    assert_eq!(why(&desk, "lamp"), Some(NotLive::Covered(pause)));
    let words = Words::english();
    let rig = desk.0.seat.rig();
    let telling = Telling::new(&words, &sheet, rig.resolver());
    let row = Row::of(sheet.find("zoom").unwrap());
    assert_eq!(
        NotLive::Elsewhere.tell_of(Some(row), &telling),
        "works only here: Chart"
    );
}

#[test]
fn what_is_told_outlasts_a_rig_and_not_a_sheet() {
    let sheet = small(SHEET);
    let mut desk = Desk::new(&sheet, &Profile::default());
    desk.enter(&["deck"]).press(Place::KeyL).lift(Place::KeyL);
    let profile = Profile::from_toml("format = 1\n[bind.lamp]\nkeyboard-1 = \"KeyO\"").unwrap();
    desk.0
        .seat
        .set_rig(Rig::new(&sheet, &profile, &Layout::us()));
    let told: Vec<String> = desk.told();
    assert_eq!(told, ["L: Lamp", "L: Zoom – works only here: Chart"]);
    desk.press(Place::KeyL);
    let told = desk.told();
    assert_eq!(told, ["L: Zoom – works only here: Chart"]);
    desk.press(Place::KeyO);
    let other = small("[actions.lamp]\nbind = \"KeyL\"");
    desk.0
        .seat
        .set_rig(Rig::new(&other, &Profile::default(), &Layout::us()));
    assert!(desk.told().is_empty());
}

#[test]
fn what_does_not_stand_is_told_where_it_is_pressed() {
    let text = "format = 1\n[bind.lamp]\nkeyboard-1 = \"F12\"";
    let sheet = small(&format!("reserved = \"F12\"\n{SHEET}"));
    let mut desk = Desk::new(&sheet, &Profile::from_toml(text).unwrap());
    desk.enter(&["deck"]).press(Place::F12);
    assert_eq!(desk.told(), ["F12: Lamp – this setting has no effect"]);
}

#[test]
fn nothing_is_paid_while_nobody_asks() {
    let sheet = demo();
    let mut seat = Seat::new(Rig::new(&sheet, &Profile::default(), &Layout::us()));
    let at = Time::from_millis(1);
    seat.feed(&Event {
        at,
        device: DeviceId(0),
        what: what::key(Place::KeyW, true),
    });
    seat.tick(Time::from_millis(2));
    assert_eq!(seat.outcomes().count(), 0);
    assert!(!seat.is_recording());
}

#[test]
fn a_report_says_what_there_is_and_nothing_of_the_player() {
    let sheet = demo();
    let text = "format = 1\ntitle = \"Ada of Harbour Lane\"\n[feel.gamepad]\nsensitivity = 1.5\n[bind.resume]\nkeyboard-1 = \"unbound\"";
    let profile = Profile::from_toml(text).unwrap();
    let mut controls = Controls::new(&sheet, profile, &Layout::us());
    controls.seat_mut().keep_outcomes(64);
    let hail = ["deck", "hail"].map(|n| sheet.find_situation(n).unwrap());
    let mut now = 0;
    let mut press = |controls: &mut Controls, place| {
        for down in [true, false] {
            now += 10;
            let (at, device) = (Time::from_millis(now), DeviceId(0));
            controls.feed(&Event {
                at,
                device,
                what: what::key(place, down),
            });
            controls.tick(at);
        }
    };
    press(&mut controls, Place::KeyH);
    controls.seat_mut().set_situations(&hail);
    for place in [Place::KeyP, Place::KeyO, Place::KeyW] {
        press(&mut controls, place);
    }
    let usb = "1209:5a01".parse().ok();
    let (at, device) = (Time::from_millis(now), DeviceId(4));
    let what = EventKind::Plugged { usb };
    controls.feed(&Event { at, device, what });
    controls.tick(at);
    let report = controls.bug_report();
    for there in [
        "game: slack-water, version 3 of its controls",
        "layout: us (found)",
        "situations, lowest first: deck, hail",
        "device 4: plugged in, USB 1209:5a01",
        "sensitivity = 1.5",
        "not in force:\n",
        "H: Horn – works only here: At the helm",
    ] {
        assert!(report.contains(there), "{there}: {report}");
    }
    for private in ["Ada", "P:", "O:", "W:", "KeyW"] {
        assert!(!report.contains(private), "{private}: {report}");
    }
}
