//! What systems do with keys besides what the player does: a naive system of each kind, and what is heard
//! of it.

use std::collections::BTreeSet;

use proptest::prelude::*;
use swap_knot::input::{KeyQuirks, Platform};
use swap_knot::layout::Resolver;
use swap_knot::{Controls, DeviceId, Event, EventKind, Layout, Place, Profile, Time};

use crate::common::{answers, press, screen, small, what};

const KEYS: [Place; 6] = [
    Place::ControlLeft,
    Place::AltRight,
    Place::MetaLeft,
    Place::MetaRight,
    Place::KeyE,
    Place::ShiftLeft,
];

fn event(ms: u64, place: Place, down: bool) -> Event {
    let (at, device) = (Time::from_millis(ms), DeviceId(0));
    Event {
        at,
        device,
        what: what::key(place, down),
    }
}

/// What a system tells of a press or release, with what is held physically before it.
fn told(
    platform: Platform,
    layout: &Layout,
    held: &BTreeSet<Place>,
    place: Place,
    down: bool,
) -> Vec<(Place, bool)> {
    let with_alt_gr = layout.has_alt_gr() && place == Place::AltRight;
    let command = [Place::MetaLeft, Place::MetaRight]
        .iter()
        .any(|m| held.contains(m));
    let is_modifier = place != Place::KeyE;
    match platform {
        Platform::Windows if with_alt_gr => vec![(Place::ControlLeft, down), (place, down)],
        Platform::Mac if command && !down && !is_modifier => Vec::new(),
        _ => vec![(place, down)],
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(crate::common::worlds(400)))]

    /// What is heard is what the player holds: at once on Windows, and on a Mac as soon as no Command is
    /// held any more.
    #[test]
    fn what_is_heard_is_what_the_player_does(
        platform in prop::sample::select(Platform::ALL.to_vec()),
        layout in prop::sample::select(vec!["us", "de", "fr", "pl", "ru"]),
        deeds in prop::collection::vec((0..KEYS.len(), 0..40u64), 0..60),
    ) {
        let layout = Layout::shipped(layout).unwrap();
        let on = Resolver::new(&layout, platform);
        let mut quirks = KeyQuirks::default();
        let (mut held, mut heard) = (BTreeSet::new(), BTreeSet::new());
        let mut last = Time::ZERO;
        let mut now = 10;
        for (key, later) in deeds {
            let place = KEYS[key];
            let down = !held.contains(&place);
            // Whose Control that is cannot be known by anybody.
            let both = [Place::ControlLeft, Place::AltRight];
            if platform == Platform::Windows && both.contains(&place) && both.iter().any(|b| *b != place && held.contains(b)) {
                continue;
            }
            now += 3 + later;
            let all = told(platform, &layout, &held, place, down);
            match down {
                true => held.insert(place),
                false => held.remove(&place),
            };
            let mut hear = |e: &Event| {
                assert!(e.at >= last, "they keep their order");
                last = e.at;
                if let EventKind::Key { place, down, .. } = e.what {
                    match down {
                        true => heard.insert(place),
                        false => heard.remove(&place),
                    };
                }
            };
            for (place, down) in all {
                quirks.event(&event(now, place, down), &on, &mut hear);
            }
            quirks.settle(|e, taken| {
                assert!(!taken, "no menu was there");
                hear(e);
            });
            let command = [Place::MetaLeft, Place::MetaRight].iter().any(|m| held.contains(m));
            match platform {
                Platform::Mac if command => {}
                // What is still held when Command comes up was let go as far as anybody is told.
                Platform::Mac => {
                    prop_assert!(heard.is_subset(&held), "{heard:?} of {held:?}");
                    let modifiers = held.iter().filter(|p| **p != Place::KeyE);
                    for place in modifiers {
                        prop_assert!(heard.contains(place));
                    }
                }
                _ => prop_assert_eq!(&heard, &held),
            }
        }
    }
}

struct Desk {
    controls: Controls,
    now: u64,
}

impl Desk {
    fn new(layout: &str, platform: Platform) -> Desk {
        let sheet = small(
            "[actions.crouch]\ntitle = \"Crouch\"\nbind = \"ControlLeft\"\n[actions.horn]\ntitle = \"Horn\"\nbind = \"KeyH\"",
        );
        let on = Resolver::new(&Layout::shipped(layout).unwrap(), platform);
        Desk {
            controls: Controls::new(&sheet, Profile::new("Ada"), on),
            now: 100,
        }
    }

    fn feed(&mut self, keys: &[(Place, bool)]) {
        self.now += 5;
        for (place, down) in keys {
            self.controls.feed(&event(self.now, *place, *down));
        }
    }

    fn tick(&mut self) -> usize {
        self.now += 11;
        self.controls.tick(Time::from_millis(self.now));
        self.controls.seat().happened().len()
    }
}

#[test]
fn alt_gr_presses_no_control_and_a_control_is_not_late() {
    let alt_gr = |down| [(Place::ControlLeft, down), (Place::AltRight, down)];
    let mut desk = Desk::new("de", Platform::Windows);
    desk.feed(&alt_gr(true));
    assert_eq!(desk.tick(), 0);
    // The system repeats what is held.
    desk.feed(&alt_gr(true));
    desk.feed(&alt_gr(false));
    assert_eq!(desk.tick(), 0);
    assert!(desk.controls.seat().inputs_down().is_empty());
    // One that is pressed is heard in the same frame, at its own time.
    desk.feed(&[(Place::ControlLeft, true)]);
    let pressed = Time::from_millis(desk.now);
    assert_eq!(desk.tick(), 1);
    assert_eq!(desk.controls.seat().happened()[0].at, pressed);
    // Where the right Alt key is none, both were pressed.
    for (layout, platform) in [("us", Platform::Windows), ("de", Platform::Other)] {
        let mut desk = Desk::new(layout, platform);
        desk.feed(&alt_gr(true));
        assert_eq!(desk.tick(), 1, "{layout} {platform:?}");
    }
}

#[test]
fn alt_gr_is_bound_without_its_control_and_what_a_system_keeps_is_said() {
    let mut desk = Desk::new("de", Platform::Windows);
    desk.controls.open_screen(Time::from_millis(desk.now));
    let cell = "cell horn keyboard-1";
    press(&mut desk.controls, cell);
    desk.tick();
    desk.feed(&[(Place::ControlLeft, true), (Place::AltRight, true)]);
    desk.tick();
    desk.feed(&[(Place::ControlLeft, false), (Place::AltRight, false)]);
    desk.tick();
    let item = |desk: &mut Desk| {
        let view = screen(&mut desk.controls).view().clone();
        let found = view.items().find(|i| i.id == cell).cloned();
        (found.unwrap(), view.message)
    };
    assert_eq!(item(&mut desk).0.label, "AltGr");
    press(&mut desk.controls, cell);
    desk.tick();
    assert_eq!(answers(&mut desk.controls).len(), 3);
    desk.feed(&[(Place::AltLeft, true), (Place::F4, true)]);
    desk.tick();
    let (item, message) = item(&mut desk);
    let told = "Your system may react to this first: Alt+F4";
    assert_eq!(
        (message.as_deref(), &item.text[..]),
        (Some(told), &[told.to_owned()][..])
    );
}

#[test]
fn a_control_that_waits_is_whose_it_was_when_it_was_pressed() {
    // Told apart by a tick, or by the next key.
    for (taken, ticks) in [(true, true), (true, false), (false, true), (false, false)] {
        let mut desk = Desk::new("de", Platform::Windows);
        let control = event(desk.now, Place::ControlLeft, true);
        desk.controls.offer(&control, |_, _| taken);
        if ticks {
            desk.tick();
        }
        let other = event(desk.now, Place::KeyX, true);
        desk.controls.offer(&other, |_, _| !taken);
        desk.tick();
        let crouch = desk.controls.seat().rig().sheet().find("crouch").unwrap();
        assert_eq!(desk.controls.seat().is_down(crouch), !taken, "{ticks}");
    }
}
