//! How far to turn: mouse and stick as one, rates beyond full, curves, smooth wheels, thresholds; and
//! chords that a movement completes or whose parts come together.

use crate::common::{Hand, chord, small, us, what};
use proptest::prelude::*;
use swap_knot::input::Held;
use swap_knot::play::{Pace, TurnUnits};
use swap_knot::remap::{Heard, Listener, ListenerOptions};
use swap_knot::sheet::ActionId;
use swap_knot::{
    DeviceId, DeviceKind, Event, EventKind, MouseButton, PadButton, Place, Prompt, Seat, Sheet,
    Stick, Time, Words,
};

const UNITS: TurnUnits = TurnUnits {
    a_count: 0.5,
    a_second: 90.0,
};

fn id(sheet: &Sheet, name: &str) -> ActionId {
    sheet.find(name).unwrap()
}

fn event(micros: u64, device: u16, what: EventKind) -> Event {
    Event {
        at: Time::from_micros(micros),
        device: DeviceId(device),
        what,
    }
}

fn stick(x: f32, y: f32) -> EventKind {
    what::stick(Stick::RIGHT, x, y)
}

fn key(place: Place, down: bool) -> EventKind {
    what::key(place, down)
}

fn mouse(x: f32, y: f32) -> EventKind {
    EventKind::MouseMove { x, y }
}

const LOOK: &str = r#"
    [actions.look]
    shape = "plane"
    rate = true
    bind = ["mouse:move", "pad:stick-right"]
    up = { bind = "ArrowUp" }
    right = { bind = "ArrowRight" }
    feel.gamepad = { dead-zone = 0, sensitivity = 2, curve = 2 }
    feel.keyboard = { ramp-up = 0.3, ramp-down = 0.1, sensitivity = 3 }
    feel.mouse = { invert = ["y"] }
"#;

proptest! {
    /// However the time is cut, the turns add up to distance times its unit and deflection times
    /// time, worked out by hand in steps of a tenth of a millisecond.
    #[test]
    fn turns_add_up_to_distance_and_deflection(
        worked in prop::collection::vec((1_u64..90_000, 0..3_u8, -1.0_f32..1.0, any::<bool>()), 1..30),
        ticks in prop::collection::vec(1_000_u64..200_000, 1..20),
    ) {
        let sheet = small(LOOK);
        let look = id(&sheet, "look");
        let (mut seat, mut at) = (Seat::new(us(&sheet)), 0);
        let mut events = Vec::new();
        for (wait, which, far, down) in worked {
            at += wait / 100 * 100;
            events.push(match which {
                0 => event(at, 1, mouse((far * 9.0).round(), 2.0)),
                1 => event(at, 2, stick(far, 0.0)),
                _ => event(at, 0, key(Place::ArrowRight, down)),
            });
        }
        let end = at + 1_000_000;
        // By hand: one axis, the key's ramp, the stick's curve.
        let (mut wanted, mut counts) = (0.0_f64, 0.0_f64);
        let (mut ramp, mut down, mut tilt, mut next) = (0.0_f64, false, 0.0_f32, 0);
        for now in (0..end).step_by(100) {
            while next < events.len() && events[next].at.as_micros() <= now {
                match events[next].what {
                    EventKind::MouseMove { x, .. } => counts += f64::from(x),
                    EventKind::PadStick { x, .. } => tilt = x,
                    EventKind::Key { down: d, .. } => down = d,
                    _ => {}
                }
                next += 1;
            }
            let before = ramp;
            let step = if down { 0.0001 / 0.3 } else { -0.0001 / 0.1 };
            ramp = (ramp + step).clamp(0.0, 1.0);
            let keys = (before + ramp) / 2.0 * 3.0;
            let stick = f64::from(tilt * tilt) * 2.0;
            // Whichever goes further.
            let value = match stick > keys + 1e-5 {
                true => stick.copysign(f64::from(tilt)),
                false => keys,
            };
            wanted += value * 0.0001 * 90.0;
        }
        let (mut sum, mut now, mut next) = (0.0_f64, 0, 0);
        for tick in ticks.iter().cycle() {
            now = (now + tick).min(end);
            while next < events.len() && events[next].at.as_micros() <= now {
                seat.feed(&events[next]);
                next += 1;
            }
            seat.tick(Time::from_micros(now));
            sum += f64::from(seat.turn(look, UNITS)[0]);
            if now == end {
                break;
            }
        }
        let wanted = wanted + counts * 0.5;
        prop_assert!((sum - wanted).abs() < 0.15, "{sum}, not {wanted}");
    }
}

#[test]
fn a_rate_goes_beyond_full_and_a_position_does_not() {
    let position = small(
        "[actions.look]\nshape = \"plane\"\nbind = \"pad:stick-right\"\nfeel.gamepad = { dead-zone = 0, sensitivity = 2 }",
    );
    let rate = small(LOOK);
    for (sheet, value, half) in [(position, 1.0, 1.0), (rate, 2.0, 0.5)] {
        let look = id(&sheet, "look");
        let mut seat = Seat::new(us(&sheet));
        seat.feed(&event(0, 0, stick(1.0, 0.0)));
        seat.tick(Time::from_millis(0));
        assert_eq!(seat.plane(look), [value, 0.0]);
        seat.tick(Time::from_millis(500));
        // Twice as fast at full tilt, however it is declared.
        assert_eq!(seat.turn(look, UNITS), [90.0, 0.0, 0.0]);
        seat.feed(&event(500_000, 0, stick(0.5, 0.0)));
        seat.tick(Time::from_millis(500));
        assert_eq!(seat.plane(look), [half, 0.0]);
    }
}

#[test]
fn two_paces_read_the_same_turn_each() {
    let sheet = small(LOOK);
    let look = id(&sheet, "look");
    let mut seat = Seat::new(us(&sheet));
    let (mut steps, mut slow) = (Pace::new(), Pace::new());
    seat.feed(&event(10_000, 2, stick(0.0, 1.0)));
    seat.feed(&event(25_000, 1, mouse(0.0, 4.0)));
    seat.feed(&event(40_000, 2, stick(0.0, 0.0)));
    let mut turned = [0.0; 5];
    for (n, turned) in turned.iter_mut().enumerate() {
        seat.advance(Time::from_millis(n as u64 * 10 + 10));
        *turned = steps.read(&seat).turn(look, UNITS)[1];
    }
    // Beyond full: two times 90 in a second; the mouse is turned round.
    assert_eq!(turned, [0.0, 1.8, 1.8 - 2.0, 1.8, 0.0]);
    assert_eq!(slow.read(&seat).turn(look, UNITS)[1], 3.4);
    assert_eq!(slow.read(&seat).turn(look, UNITS)[1], 0.0);
}

#[test]
fn the_curve_bends_the_speed_of_a_mouse() {
    let sheet =
        small("[actions.look]\nshape = \"plane\"\nbind = \"mouse:move\"\nfeel.mouse.curve = 2");
    let look = id(&sheet, "look");
    // So many counts, one every so often: slow is finer, fast is bolder, an even speed stays.
    for (every, finer) in [(4_000, 0.25), (1_000, 1.0), (250, 4.0)] {
        let mut seat = Seat::new(us(&sheet));
        let count = 200_000 / every;
        for n in 0..count {
            seat.feed(&event(n * every, 0, mouse(1.0, 0.0)));
        }
        seat.tick(Time::from_millis(100));
        let far = seat.motion(look)[0] / count as f32;
        // It takes a moment to know how fast it is.
        assert!((far / finer - 1.0).abs() < 0.25, "{far} at {every}");
    }
}

#[test]
fn every_movement_can_be_listed_with_its_time() {
    let sheet = small(LOOK);
    let (mut seat, mut pace) = (Seat::new(us(&sheet)), Pace::new());
    seat.feed(&event(1_000, 0, mouse(1.0, 0.0)));
    seat.tick(Time::from_millis(2));
    assert!(seat.moved().is_empty());
    seat.list_motion(true);
    for n in 3..6 {
        seat.feed(&event(n * 1_000, 0, mouse(n as f32, 0.0)));
    }
    seat.advance(Time::from_millis(4));
    let list = |reading: swap_knot::play::Reading<'_>| -> Vec<(u64, f32)> {
        let all = reading.moved().map(|m| (m.at.as_micros(), m.by[0]));
        all.collect()
    };
    assert_eq!(list(pace.read(&seat)), [(3_000, 3.0), (4_000, 4.0)]);
    seat.tick(Time::from_millis(6));
    assert_eq!(list(pace.read(&seat)), [(5_000, 5.0)]);
    assert_eq!(seat.moved().len(), 3);
    seat.tick(Time::from_millis(7));
    assert!(seat.moved().is_empty());
}

#[test]
fn a_smooth_wheel_moves_by_fractions_and_works_by_notches() {
    let sheet = small(
        "[actions.zoom]\nshape = \"line\"\nup.bind = \"wheel:up\"\ndown.bind = \"wheel:down\"\n\
         [actions.next]\nbind = \"Ctrl+wheel:up\"",
    );
    let (zoom, next) = (id(&sheet, "zoom"), id(&sheet, "next"));
    let mut hand = Hand::new(&sheet);
    let mut presses = 0;
    let mut far = Vec::new();
    for by in [0.4, 0.4, 0.4, -0.25] {
        hand.feed(0, EventKind::Scroll { x: 0.0, y: by });
        let now = Time::from_millis(hand.now);
        hand.seat.tick(now);
        far.push(hand.seat.motion(zoom)[0]);
        presses += u32::from(hand.seat.went_down(zoom));
    }
    assert_eq!(far, [0.4, 0.4, 0.4, -0.25]);
    assert_eq!(presses, 1);
    // The longest chord has the wheel, its fractions too.
    hand.key(Place::ControlLeft, true);
    hand.feed(0, EventKind::Scroll { x: 0.0, y: 1.5 });
    let now = Time::from_millis(hand.now);
    hand.seat.tick(now);
    assert_eq!(hand.seat.motion(zoom), [0.0; 3]);
    assert!(hand.seat.went_down(next));
}

#[test]
fn a_trigger_works_a_press_where_its_threshold_is() {
    let sheet = small(
        "[actions.aim]\nbind = \"pad:trigger-right\"\nshare = \"fire\"\nfeel.gamepad.threshold = 0.2\n\
         [actions.fire]\nbind = \"pad:trigger-right\"\nfeel.gamepad.threshold = 0.9",
    );
    let (aim, fire) = (id(&sheet, "aim"), id(&sheet, "fire"));
    let mut hand = Hand::new(&sheet);
    let mut seen = Vec::new();
    for value in [0.19, 0.25, 0.89, 0.95, 0.75, 0.7, 0.95, 0.17, 0.1] {
        let button = PadButton::TriggerRight;
        hand.feed(0, EventKind::PadButton { button, value });
        let now = Time::from_millis(hand.now);
        hand.seat.tick(now);
        seen.push((hand.seat.is_down(aim), hand.seat.is_down(fire)));
    }
    let (off, half, full) = ((false, false), (true, false), (true, true));
    assert_eq!(seen, [off, half, half, full, full, half, full, half, off]);
}

fn right(down: bool) -> EventKind {
    what::click(MouseButton::Right, down)
}

#[test]
fn a_movement_completes_a_chord_and_leaves_a_click_its_tap() {
    let sheet = small(
        "[actions.point]\nshape = \"plane\"\nbind = \"mouse:move\"\n\
         [actions.orbit]\nshape = \"plane\"\nbind = \"mouse:right+mouse:move\"\n\
         [actions.menu]\nmanner = \"tap\"\nbind = \"mouse:right\"",
    );
    let [point, orbit, menu] = ["point", "orbit", "menu"].map(|n| id(&sheet, n));
    let mut hand = Hand::new(&sheet);
    let mut told = |events: &[EventKind]| {
        for what in events {
            hand.feed(0, *what);
        }
        hand.now += 1;
        let now = Time::from_millis(hand.now);
        hand.seat.tick(now);
        let far = |a| hand.seat.motion(a)[0];
        (far(point), far(orbit), hand.seat.went_down(menu))
    };
    assert_eq!(told(&[mouse(3.0, 0.0)]), (3.0, 0.0, false));
    // A hand that shakes a little clicks all the same, and nothing moves.
    assert_eq!(
        told(&[right(true), mouse(2.0, 0.0), right(false)]),
        (0.0, 0.0, true)
    );
    // A real movement has all of its way, and the click is used up.
    let dragged = [right(true), mouse(4.0, 0.0), mouse(5.0, 0.0), right(false)];
    assert_eq!(told(&dragged), (0.0, 9.0, false));
    assert_eq!(told(&[mouse(1.0, 0.0)]), (1.0, 0.0, false));
}

#[test]
fn a_stick_completes_a_chord() {
    let sheet = small(
        "[actions.look]\nshape = \"plane\"\nbind = \"pad:stick-right\"\n\
         [actions.crane]\nshape = \"plane\"\nbind = \"pad:shoulder-left+pad:stick-right\"",
    );
    let (look, crane) = (id(&sheet, "look"), id(&sheet, "crane"));
    let mut hand = Hand::new(&sheet);
    let shoulder = |value| what::pad(PadButton::ShoulderLeft, value);
    hand.feed(0, shoulder(1.0)).feed(0, stick(1.0, 0.0)).tick();
    assert_eq!(
        (hand.seat.plane(look), hand.seat.plane(crane)),
        ([0.0; 2], [1.0, 0.0])
    );
    // Values depend on what is held now: the stick has the shorter one again, and the longer one again.
    hand.feed(0, shoulder(0.0)).tick();
    assert_eq!(
        (hand.seat.plane(look), hand.seat.plane(crane)),
        ([1.0, 0.0], [0.0; 2])
    );
    assert_eq!(hand.happened(), ["ended crane", "began look"]);
    hand.feed(0, shoulder(1.0)).tick();
    assert_eq!(
        (hand.seat.plane(look), hand.seat.plane(crane)),
        ([0.0; 2], [1.0, 0.0])
    );
}

#[test]
fn parts_pressed_together_come_in_any_order_within_their_time() {
    let sheet = small(
        "together-within = 0.05\n[actions.dodge]\nbind = { on = \"KeyJ+KeyK\", together = true }\n\
         [actions.block]\nbind = \"KeyL+KeyK\"",
    );
    let dodge = id(&sheet, "dodge");
    let works = |first: Place, later: Place, after: u64| {
        let mut seat = Seat::new(us(&sheet));
        seat.feed(&event(1_000, 0, key(first, true)));
        seat.feed(&event(1_000 + after, 0, key(later, true)));
        seat.tick(Time::from_millis(200));
        let began = seat.is_down(dodge);
        // Whichever part is let go ends it.
        seat.feed(&event(300_000, 0, key(first, false)));
        seat.tick(Time::from_millis(301));
        assert_eq!(seat.was_let_go(dodge), began);
        began
    };
    assert!(works(Place::KeyJ, Place::KeyK, 50_000));
    assert!(works(Place::KeyK, Place::KeyJ, 50_000));
    assert!(!works(Place::KeyJ, Place::KeyK, 51_000));
    let e =
        Sheet::from_toml("game = \"x\"\n[actions.a]\nbind = { on = \"KeyJ\", together = true }");
    assert_eq!(
        e.unwrap_err().to_string(),
        "sheet:3:16: `KeyJ` cannot be pressed together; that wants two or more keys, buttons or triggers, as in `KeyJ+KeyK`"
    );
}

#[test]
fn a_listener_hears_a_movement_with_what_is_held() {
    let mut options = ListenerOptions::default();
    options.planes = true;
    let hear = |events: &[EventKind]| {
        let mut listener = Listener::new(options.clone(), &Held::new());
        let heard = events
            .iter()
            .enumerate()
            .map(|(n, what)| listener.hear(&event(n as u64 * 1_000, 0, *what)));
        heard.last().unwrap()
    };
    let moved = [right(true), mouse(40.0, 0.0), mouse(40.0, 0.0)];
    assert_eq!(hear(&moved), Heard::Chord(chord("mouse:right+mouse:move")));
    assert_eq!(hear(&moved[1..]), Heard::Chord(chord("mouse:move")));
    let button = PadButton::ShoulderLeft;
    let pad = [EventKind::PadButton { button, value: 1.0 }, stick(0.9, 0.0)];
    assert_eq!(
        hear(&pad),
        Heard::Chord(chord("pad:shoulder-left+pad:stick-right"))
    );
}

#[test]
fn a_prompt_says_how_such_chords_are_worked() {
    let sheet = small(
        "[actions.orbit]\nshape = \"plane\"\nbind = [\"mouse:right+mouse:move\", \"pad:shoulder-left+pad:stick-right\"]\n\
         [actions.dodge]\nbind = { on = \"KeyJ+KeyK\", together = true }",
    );
    let rig = us(&sheet);
    let says = |text: &str, language: &str, kind| {
        let words = Words::shipped(language).unwrap();
        let mut prompt = Prompt::new(text, &sheet).unwrap().with_words(&words);
        let shown = prompt.render(&rig, kind);
        (shown.to_string(), shown.spoken())
    };
    let (text, spoken) = says("{do:orbit}", "en", DeviceKind::Keyboard);
    assert_eq!(text, "Hold the right mouse button and move the mouse");
    assert_eq!(spoken, text);
    let (text, _) = says("{do:orbit}", "de", DeviceKind::Gamepad);
    assert_eq!(
        text,
        "Halte die linke Schultertaste gedrückt und bewege den rechten Stick"
    );
    assert_eq!(
        says("{do:dodge}", "en", DeviceKind::Keyboard).0,
        "Press J+K together"
    );
    // As a name it is no phrase.
    let (text, _) = says("Orbit: {orbit}", "en", DeviceKind::Keyboard);
    assert_eq!(text, "Orbit: right mouse button + mouse");
}
