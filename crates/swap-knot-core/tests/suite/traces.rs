//! What is recorded reads back: over every kind of event, with whatever an adapter may hand in.

use std::time::Duration;

use crate::common::{demo, us};
use proptest::prelude::*;
use proptest::sample::select;
use swap_knot::input::{Direction, HidAxis, HidButton, Platform, TouchName};
use swap_knot::layout::Resolver;
use swap_knot::play::{Edge, TraceEntry};
use swap_knot::sheet::ActionId;
use swap_knot::{
    DeviceId, DeviceKind, Event, EventKind, Layout, MouseButton, PadButton, Place, Profile, Rig,
    Seat, Stick, Time, Trace,
};

/// Numbers as broken drivers send them.
fn number() -> impl Strategy<Value = f32> {
    prop_oneof![
        4 => -1.0_f32..=1.0,
        2 => any::<f32>(),
        1 => select(vec![f32::NAN, f32::INFINITY, f32::NEG_INFINITY, f32::MIN_POSITIVE, -0.0, 1e30]),
    ]
}

fn text() -> impl Strategy<Value = Option<char>> {
    let odd = select(vec![
        '#',
        ' ',
        '\u{a0}',
        '\u{2028}',
        '\n',
        '\r',
        '\0',
        '\u{1b}',
        '"',
        'U',
        '+',
        '-',
        '\u{301}',
        '\u{202e}',
        '\u{feff}',
        '\u{e000}',
        '\u{10ffff}',
    ]);
    proptest::option::of(prop_oneof![odd, any::<char>()])
}

fn name() -> impl Strategy<Value = TouchName> {
    let names = [
        "horn",
        "walk",
        "down",
        "up",
        "nan",
        "x-1",
        "a23456789012345678901b",
    ];
    select(names.map(|n| n.parse().unwrap()).to_vec())
}

/// Every kind of event; the numbers are whatever fits the type.
fn what() -> impl Strategy<Value = EventKind> {
    let button = prop_oneof![
        select(MouseButton::NAMED.to_vec()),
        (6..=MouseButton::LAST).prop_filter_map("a button", MouseButton::from_number),
    ];
    let place = || select(Place::ALL.to_vec());
    let direction = || select(Direction::ALL.to_vec());
    let stick = select(Stick::ALL.to_vec());
    prop_oneof![
        (place(), any::<bool>(), text()).prop_map(|(place, down, text)| EventKind::Key {
            place,
            down,
            text
        }),
        place().prop_map(|place| EventKind::KeyHeld { place }),
        (button, any::<bool>()).prop_map(|(button, down)| EventKind::MouseButton { button, down }),
        (number(), number()).prop_map(|(x, y)| EventKind::MouseMove { x, y }),
        direction().prop_map(|direction| EventKind::Wheel { direction }),
        (number(), number()).prop_map(|(x, y)| EventKind::Scroll { x, y }),
        (place(), text().prop_filter_map("a character", |c| c))
            .prop_map(|(place, plain)| EventKind::KeyTypes { place, plain }),
        (select(PadButton::ALL.to_vec()), number())
            .prop_map(|(button, value)| EventKind::PadButton { button, value }),
        (stick, number(), number()).prop_map(|(stick, x, y)| EventKind::PadStick { stick, x, y }),
        (select(HidButton::all().collect::<Vec<_>>()), any::<bool>())
            .prop_map(|(button, down)| EventKind::HidButton { button, down }),
        (direction(), any::<bool>())
            .prop_map(|(direction, down)| EventKind::HidHat { direction, down }),
        (select(HidAxis::ALL.to_vec()), number())
            .prop_map(|(axis, value)| EventKind::HidAxis { axis, value }),
        (name(), any::<bool>()).prop_map(|(name, down)| EventKind::Touch { name, down }),
        (name(), number(), number()).prop_map(|(name, x, y)| EventKind::TouchStick { name, x, y }),
        Just(EventKind::Unplugged),
        Just(EventKind::Plugged {
            usb: "1209:5a01".parse().ok()
        }),
        Just(EventKind::Plugged { usb: None }),
        (number(), number(), number()).prop_map(|(yaw, pitch, roll)| EventKind::PadGyro {
            yaw,
            pitch,
            roll
        }),
        Just(EventKind::FocusLost),
    ]
}

/// A line to be recorded; the times fall as often as they rise.
#[derive(Clone, Debug)]
enum Line {
    Event(Event),
    Situations(Time, Vec<String>),
}

fn line() -> impl Strategy<Value = Line> {
    let micros = || prop_oneof![4 => 0..3_000_000_u64, 1 => any::<u64>(), 1 => Just(u64::MAX)];
    let at = || micros().prop_map(Time::from_micros);
    let device = prop_oneof![4 => 0..3_u16, 1 => any::<u16>(), 1 => Just(DeviceId::ALL.0)];
    let event = (at(), device, what()).prop_map(|(at, device, what)| {
        let device = DeviceId(device);
        Line::Event(Event { at, device, what })
    });
    let names = proptest::collection::vec("deck|helm|[a-z]{1,3}|\\PC{0,4}|# x|-|situation", 0..3);
    let situations = (at(), names).prop_map(|(at, names)| Line::Situations(at, names));
    prop_oneof![9 => event, 1 => situations]
}

fn record(lines: &[Line]) -> Trace {
    let mut trace = Trace::new();
    for line in lines {
        match line {
            Line::Event(event) => trace.record(event),
            Line::Situations(at, names) => trace.record_situations(*at, names.iter().cloned()),
        }
    }
    trace
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(1000)))]

    #[test]
    fn what_is_recorded_reads_back_to_the_last_bit(
        lines in proptest::collection::vec(line(), 0..12),
    ) {
        let trace = record(&lines);
        let text = trace.to_string();
        let back: Trace = text.parse().map_err(|e| TestCaseError::fail(format!("{e}\n{text}")))?;
        prop_assert_eq!(&back, &trace);
        prop_assert_eq!(back.to_string(), text);
    }

    #[test]
    fn what_was_played_is_what_its_record_plays(
        mut lines in proptest::collection::vec(line(), 0..12),
    ) {
        // A seat lives in the order of its events.
        let time = |l: &Line| match l {
            Line::Event(e) => e.at,
            Line::Situations(at, _) => *at,
        };
        let real = |l: &Line| matches!(l, Line::Event(_));
        lines.retain(|l| real(l) && time(l) < Time::from_millis(4000));
        lines.sort_by_key(time);
        let (mut seat, mut again) = (Seat::new(us(&demo())), Seat::new(us(&demo())));
        for line in &lines {
            if let Line::Event(event) = line {
                seat.feed(event);
                seat.tick(event.at);
            }
        }
        for entry in record(&lines).entries() {
            if let TraceEntry::Event(event) = entry {
                again.feed(event);
                again.tick(event.at);
            }
        }
        let inputs = |seat: &Seat| seat.inputs_down();
        prop_assert_eq!(inputs(&seat), inputs(&again));
        prop_assert_eq!(seat.device_kind(), again.device_kind());
        for (id, _) in seat.rig().sheet().actions() {
            prop_assert_eq!(seat.space(id).map(f32::to_bits), again.space(id).map(f32::to_bits));
            prop_assert!(seat.space(id).iter().all(|v| v.is_finite()));
        }
    }

    #[test]
    fn any_text_is_read_or_refused_and_what_is_read_can_be_replayed(
        text in "((0|1|2|99999999999999|18446744073709.551615)(\\.5)? (0|1|-|65535|70000|situation) (KeyW|pad:south|mouse:move|touch:horn|deck|focus-lost|hid:rz|mouse:38|hid:button-200)( (down|up|held|1|-1e9|NaN|w|#)){0,2}\n){0,6}",
    ) {
        if let Ok(trace) = text.parse::<Trace>() {
            prop_assert_eq!(&trace.to_string().parse::<Trace>().unwrap(), &trace);
            let mut seat = Seat::new(us(&demo()));
            let mut steps = 0_usize;
            let played = seat.replay(&trace, Duration::from_millis(16), |_, _| steps += 1);
            prop_assert!(played.is_ok() || trace.to_string().contains("situation"));
            prop_assert!(steps < 100_000, "{steps} steps");
        }
    }
}

/// What a game does to a seat.
#[derive(Clone, Debug)]
enum Does {
    Feed(u64, u16, EventKind, bool),
    Tick(u64),
    Advance(u64),
    Stack(Vec<&'static str>),
    Rig(Option<&'static str>, &'static str),
}

fn does() -> impl Strategy<Value = Does> {
    prop_oneof![
        // Some events come late, and some are stamped ahead; some a menu has.
        12 => (0_u64..60_000, 0..3_u16, what(), prop::bool::weighted(0.2))
            .prop_map(|(t, d, w, o)| Does::Feed(t, d, w, o)),
        4 => (0_u64..30_000).prop_map(Does::Tick),
        3 => (0_u64..30_000).prop_map(Does::Advance),
        2 => proptest::sample::subsequence(vec!["deck", "helm", "chart", "pause"], 0..3)
            .prop_map(Does::Stack),
        1 => (proptest::option::of(select(vec!["KeyG", "Space", "unbound"])), select(vec!["us", "fr"]))
            .prop_map(|(key, layout)| Does::Rig(key, layout)),
    ]
}

proptest! {
    #![proptest_config(ProptestConfig { cases: crate::common::worlds(128), ..ProptestConfig::default() })]

    /// What was recorded replays as it was played, tick by tick, and so does its text.
    #[test]
    fn a_recording_replays_as_it_was_played(all in prop::collection::vec(does(), 1..80)) {
        let sheet = demo();
        let mut live = Seat::new(us(&sheet));
        let (mut played, mut now) = (Vec::new(), 0_u64);
        let rows = |seat: &Seat| -> Vec<(ActionId, Edge)> {
            seat.happened().iter().map(|h| (h.action, h.edge)).collect()
        };
        live.start_recording();
        for does in &all {
            match does {
                Does::Feed(ahead, device, what, overheard) => {
                    let at = Time::from_micros((now + ahead).saturating_sub(30_000));
                    let event = Event { at, device: DeviceId(*device), what: *what };
                    // What a menu hears of a keyboard is not recorded.
                    let is_keyboard = what.device_kind() == Some(DeviceKind::Keyboard);
                    match *overheard && !is_keyboard {
                        true => live.overhear(&event),
                        false => live.feed(&event),
                    }
                }
                Does::Tick(later) => {
                    now += later;
                    live.tick(Time::from_micros(now));
                    played.push((now, live.fingerprint(), rows(&live)));
                }
                Does::Advance(later) => {
                    now += later;
                    live.advance(Time::from_micros(now));
                }
                Does::Stack(names) => {
                    let ids: Vec<_> = names.iter().filter_map(|n| sheet.find_situation(n)).collect();
                    live.set_situations(&ids);
                }
                Does::Rig(key, layout) => {
                    let mut text = "format = 1\n".to_owned();
                    if let Some(key) = key {
                        text += &format!("bind.horn.keyboard-1 = \"{key}\"\n");
                    }
                    let profile = Profile::from_toml(&text).unwrap();
                    let on = Resolver::new(&Layout::shipped(layout).unwrap(), Platform::Other);
                    live.set_rig(Rig::new(&sheet, &profile, on));
                }
            }
        }
        let trace = live.stop_recording().unwrap();
        prop_assert!(live.stop_recording().is_none());
        let read: Trace = trace.to_string().parse().unwrap();
        prop_assert_eq!(&read, &trace);
        let mut again = Seat::new(us(&sheet));
        let mut told = Vec::new();
        again.replay(&read, Duration::from_millis(1), |seat, at| {
            told.push((at.as_micros(), seat.fingerprint(), rows(seat)));
        }).unwrap();
        prop_assert_eq!(told, played);
    }
}

#[test]
fn what_is_typed_is_not_recorded_and_what_is_held_is_played_on() {
    let sheet = demo();
    let situation = |name: &str| sheet.find_situation(name).unwrap();
    let walk = sheet.find("walk").unwrap();
    let profile = Profile::new("Ada of Harbour Lane");
    let mut live = Seat::new(Rig::new(&sheet, &profile, &Layout::us()));
    live.start_recording();
    let key = |seat: &mut Seat, place, down, ms| {
        let (device, text) = (DeviceId(0), Some('s'));
        let at = Time::from_millis(ms);
        let what = EventKind::Key { place, down, text };
        seat.feed(&Event { at, device, what });
        seat.tick(at);
    };
    live.set_situations(&[situation("deck"), situation("hail")]);
    for (n, place) in [Place::KeyS, Place::KeyO, Place::KeyS]
        .into_iter()
        .enumerate()
    {
        key(&mut live, place, true, 10 + 20 * n as u64);
        key(&mut live, place, false, 20 + 20 * n as u64);
    }
    key(&mut live, Place::Enter, true, 100);
    key(&mut live, Place::Enter, false, 110);
    key(&mut live, Place::KeyW, true, 120);
    live.set_situations(&[situation("deck")]);
    // The keyboard repeats itself.
    key(&mut live, Place::KeyW, true, 140);
    assert!(live.is_down(walk));
    // A menu hears a name being typed.
    let (at, device) = (Time::from_millis(150), DeviceId(0));
    let (place, text) = (Place::KeyO, Some('o'));
    for down in [true, false] {
        let what = EventKind::Key { place, down, text };
        live.overhear(&Event { at, device, what });
    }
    key(&mut live, Place::KeyW, false, 160);
    let trace = live.stop_recording().unwrap();
    let text = trace.to_string();
    for private in ["KeyS", "KeyO", "Ada", "down s", "down o"] {
        assert!(!text.contains(private), "{private}: {text}");
    }
    assert!(text.contains("Enter down"), "{text}");
    let mut again = Seat::new(us(&sheet));
    let mut walked = Vec::new();
    again
        .replay(&trace, Duration::from_millis(1), |seat, at| {
            walked.push((at.as_micros() / 1000, seat.is_down(walk)));
        })
        .unwrap();
    assert_eq!(walked[walked.len() - 2..], [(140, true), (160, false)]);
}

#[test]
fn a_trace_that_cannot_be_replayed_says_why() {
    let why = |text: &str| {
        let trace: Trace = text.parse().unwrap();
        let mut seat = Seat::new(us(&demo()));
        let played = seat.replay(&trace, Duration::from_millis(1), |_, _| ());
        played.unwrap_err().to_string()
    };
    assert_eq!(
        why("0 situation galley"),
        "the trace enters the situation `galley`, which the sheet does not have"
    );
    assert!(why("0 rig klingon other\n| format = 1").contains("the layout `klingon`"));
    assert!(why("0 rig us other\n| nothing").contains("the profile in the trace cannot be read"));
    let wrong = |text: &str| text.parse::<Trace>().unwrap_err().to_string();
    assert_eq!(
        wrong("| format = 1"),
        "line 1: a line of a profile belongs behind `rig`"
    );
    assert_eq!(
        wrong("0 rig us"),
        "line 1: `rig` wants a platform behind the layout: `mac` or `other`"
    );
    assert!(wrong("2 0 KeyA down\n1 0 KeyA up").contains("times only go up"));
    // With ticks everything stands as it came.
    assert!("2 tick\n1 0 KeyA up".parse::<Trace>().is_ok());
}

/// A layout's name may be anything that a file can be called, and a rig lies where the line above it does.
#[test]
fn a_rig_of_any_name_reads_back_wherever_it_is_recorded() {
    let sheet = demo();
    for name in ["my board", "two\nlines # 3", "back\\slash", "Ł"] {
        let text = format!("name = {name:?}\nbase = \"us\"").replace('Ł', "\\u0141");
        let layout = Layout::from_toml(&text).unwrap();
        let on = Resolver::new(&layout, Platform::Other);
        let mut trace = Trace::new();
        let at = Time::from_millis(9);
        trace.record_situations(at, ["deck".to_owned()]);
        trace.record_rig(Time::from_millis(2), &Profile::new("Ada"), &on);
        let read: Trace = trace
            .to_string()
            .parse()
            .unwrap_or_else(|e| panic!("{name}: {e}"));
        assert_eq!(read, trace);
        let mut seat = Seat::new(us(&sheet));
        let why = seat.replay(&read, Duration::from_millis(16), |_, _| {});
        assert!(
            why.unwrap_err().to_string().contains(name),
            "it is told by its name"
        );
    }
}

/// A menu's keyboard is pulled out with a key down: pressed again on it, that key is in the recording.
#[test]
fn a_key_of_a_keyboard_that_was_pulled_out_is_recorded_again() {
    let mut seat = Seat::new(us(&demo()));
    seat.start_recording();
    let event = |at: u64, what| Event {
        at: Time::from_millis(at),
        device: DeviceId(0),
        what,
    };
    let (place, text) = (Place::KeyW, None);
    let key = |down| EventKind::Key { place, down, text };
    seat.overhear(&event(1, key(true)));
    seat.feed(&event(2, EventKind::Unplugged));
    seat.feed(&event(3, key(true)));
    let trace = seat.stop_recording().unwrap();
    let last = trace.entries().last();
    assert_eq!(last, Some(&TraceEntry::Event(event(3, key(true)))));
}
