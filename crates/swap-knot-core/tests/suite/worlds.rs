//! Rules that hold for any finger, any keyboard and any set of layouts.

use std::collections::HashMap;

use proptest::prelude::*;
use swap_knot::check::{Survey, same_places};
use swap_knot::input::{Platform, Simulated, TouchZones};
use swap_knot::layout::{LayoutLearner, Level};
use swap_knot::{DeviceId, EventKind, Layout, Place, Profile, Rig, Seat, Sheet, Time, Trace};

fn names() -> Vec<&'static str> {
    Layout::shipped_names().collect()
}

fn zones() -> TouchZones {
    let mut zones = TouchZones::new();
    zones.add_area("left".parse().unwrap(), [0.0, 0.0], [60.0, 100.0]);
    zones.add_area("over".parse().unwrap(), [40.0, 0.0], [40.0, 50.0]);
    zones.add_stick("stick".parse().unwrap(), [80.0, 80.0], 15.0);
    zones
}

/// A finger that goes down, moves or comes up somewhere.
fn fingers() -> impl Strategy<Value = Vec<(u8, u64, f32, f32)>> {
    proptest::collection::vec(
        (0..3_u8, 0..4_u64, -10.0..110.0_f32, -10.0..110.0_f32),
        0..60,
    )
}

proptest! {
    #[test]
    fn fingers_press_and_release_in_turn_and_sticks_stay_within_full(fingers in fingers()) {
        let mut zones = zones();
        let mut down: HashMap<String, bool> = HashMap::new();
        let mut lifted = fingers.clone();
        // In the end every finger leaves the screen.
        lifted.extend((0..4).map(|finger| (2, finger, 0.0, 0.0)));
        for (what, finger, x, y) in lifted {
            let events: Vec<EventKind> = match what {
                0 => zones.down(finger, [x, y]).collect(),
                1 => zones.moved(finger, [x, y]).into_iter().collect(),
                _ => zones.up(finger).into_iter().collect(),
            };
            for event in events {
                match event {
                    EventKind::Touch { name, down: now } => {
                        down.insert(name.to_string(), now);
                    }
                    EventKind::TouchStick { name, x, y } => {
                        prop_assert!(x.hypot(y) <= 1.001, "{x} {y}");
                        down.insert(name.to_string(), x != 0.0 || y != 0.0);
                    }
                    other => prop_assert!(false, "{other:?}"),
                }
            }
        }
        // Also where the system lost a finger that left, and it came down again elsewhere.
        prop_assert!(down.values().all(|d| !d), "{down:?}");
    }

    #[test]
    fn a_learner_agrees_with_what_was_typed_last(
        name in proptest::sample::select(names()),
        start in proptest::sample::select(names()),
        keys in proptest::collection::vec((0..Place::WRITING.len(), any::<bool>()), 1..40),
    ) {
        let truth = Layout::shipped(name).unwrap();
        let mut learner = LayoutLearner::new(Layout::shipped(start).unwrap());
        for (key, shift) in keys {
            let (place, level) = (Place::WRITING[key], if shift { Level::Shift } else { Level::Plain });
            let Some(typed) = truth.typed(place, level).filter(|t| !t.dead) else { continue };
            let before = learner.layout().clone();
            let changed = learner.learn(place, typed.character);
            let types = |l: &Layout, levels: &[Level]| levels.iter().any(|&level| l.typed(place, level) == Some(typed));
            let bare = |l: &Layout, levels| types(l, &Level::ALL[..levels]);
            // Only a press that is not of the key alone on the layout in use changes it, to one that has
            // it there without AltGr.
            if let Some(now) = &changed {
                prop_assert!(!bare(&before, 1) && bare(now, 2), "{} for {name}", now.name());
            }
            // And one that it explains in no way always does, unless a dead key can have made it.
            let dead = |l: &Layout| Place::WRITING.iter().any(|&p| Level::ALL.iter().any(|&level| l.typed(p, level).is_some_and(|t| t.dead)));
            let explained = types(&before, &Level::ALL) || dead(&before);
            prop_assert!(changed.is_some() || explained, "{} for {name}", before.name());
        }
    }

    #[test]
    fn what_is_the_same_everywhere_is_the_same_on_each(picked in proptest::sample::subsequence(names(), 1..6)) {
        let layouts: Vec<Layout> = picked.iter().map(|n| Layout::shipped(n).unwrap()).collect();
        let same = same_places(&layouts);
        for (i, one) in layouts.iter().enumerate() {
            // Fewer layouts have more in common, never less.
            let fewer = same_places(&layouts[..=i]);
            prop_assert!(same.iter().all(|p| fewer.contains(p)));
            prop_assert!(same.iter().all(|p| one.board().key(*p).is_some()));
        }
    }

    #[test]
    fn findings_name_layouts_that_were_looked_at_and_none_is_told_twice(
        picked in proptest::sample::subsequence(names(), 1..12),
        bound in proptest::collection::vec((0..26_u8, any::<bool>()), 1..8),
    ) {
        let mut text = String::from("game = \"x\"\n");
        for (n, (letter, by_letter)) in bound.iter().enumerate() {
            let c = char::from(b'a' + letter);
            let input = if *by_letter { format!("letter:{c}") } else { format!("Key{}", c.to_ascii_uppercase()) };
            text += &format!("[actions.a-{n}]\nbind = \"{input}\"\n");
        }
        let sheet = Sheet::from_toml(&text).unwrap();
        let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
        let layouts: Vec<Layout> = picked.iter().map(|n| Layout::shipped(n).unwrap()).collect();
        let survey = Survey::new(&sheet, rig.bindings(), &layouts, Platform::Other);
        let mut told: Vec<String> = Vec::new();
        for finding in survey.findings() {
            prop_assert!(!finding.layouts.is_empty() && !finding.remedy.is_empty());
            prop_assert!(finding.layouts.iter().all(|l| picked.contains(&l.as_str())));
            told.push(finding.describe(&sheet));
        }
        // Bound by place alone, no layout brings a conflict of its own.
        let by_place = bound.iter().all(|(_, letter)| !letter);
        prop_assert!(!by_place || survey.layouts_with_problems().is_empty());
        let count = told.len();
        told.sort();
        told.dedup();
        prop_assert_eq!(told.len(), count);
    }
}

#[test]
fn a_recorded_device_is_played_again() {
    let sheet =
        Sheet::from_toml("game = \"x\"\n[actions.horn]\nmanner = \"hold\"\nbind = \"KeyH\"")
            .unwrap();
    let horn = sheet.find("horn").unwrap();
    let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
    let mut keyboard = Simulated::new(DeviceId(4));
    let mut trace = Trace::new();
    trace.record(&keyboard.key_typing(Place::KeyH, 'h'));
    keyboard.wait(std::time::Duration::from_millis(700));
    trace.record(&keyboard.key_up(Place::KeyH));
    // Written down and read, it does what it did.
    let again: Trace = trace.to_string().parse().unwrap();
    assert_eq!(again.entries(), trace.entries());
    let mut seat = Seat::new(rig);
    for entry in again.entries() {
        if let swap_knot::play::TraceEntry::Event(event) = entry {
            seat.feed(event);
        }
    }
    seat.tick(Time::from_millis(800));
    assert!(seat.went_down(horn) && seat.went_up(horn));
}
