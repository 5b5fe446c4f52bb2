//! Playing: down, up and held; chords, manners, situations; nothing stuck, nothing twice.

use crate::common::{Hand, cell, chord, demo, small, what};
use swap_knot::input::Direction;
use swap_knot::sheet::{Parameter, Parameters};
use swap_knot::{
    Draft, EventKind, Layout, MouseButton, PadButton, Place, Profile, Rig, Sheet, Stick,
};

#[test]
fn each_press_is_told_once() {
    let mut hand = Hand::new(&small("[actions.horn]\nbind = \"KeyH\""));
    hand.down(Place::KeyH).tick();
    assert!(hand.went_down("horn") && hand.is_down("horn"));
    // Auto-repeat and doubled events change nothing.
    hand.down(Place::KeyH).down(Place::KeyH).wait(100);
    assert!(!hand.went_down("horn") && hand.is_down("horn"));
    assert_eq!(hand.seat.down_for(hand.action("horn")).as_millis(), 103);
    hand.up(Place::KeyH).up(Place::KeyH).tick();
    assert_eq!(hand.happened(), ["ended horn"]);
    assert!(hand.seat.went_up(hand.action("horn")));
}

#[test]
fn a_press_and_release_within_a_frame_is_not_lost() {
    let mut hand = Hand::new(&small("[actions.horn]\nbind = \"KeyH\""));
    hand.down(Place::KeyH).up(Place::KeyH).tick();
    assert!(hand.went_down("horn") && !hand.is_down("horn"));
    assert_eq!(hand.happened(), ["began horn", "ended horn"]);
}

#[test]
fn four_keys_make_a_plane_no_longer_than_a_stick() {
    let mut hand = Hand::new(&demo());
    hand.down(Place::KeyW).down(Place::KeyD).tick();
    let [x, y] = hand.seat.plane(hand.action("walk"));
    assert!((x.hypot(y) - 1.0).abs() < 1e-6 && x > 0.7 && y > 0.7);
    hand.down(Place::KeyA).tick();
    assert_eq!(hand.seat.plane(hand.action("walk")), [0.0, 1.0]);
    assert_eq!(hand.happened(), ["began walk.left"]);
}

#[test]
fn a_stick_and_keys_work_one_plane() {
    let mut hand = Hand::new(&demo());
    hand.stick(0.1, 0.0).tick();
    assert_eq!(
        hand.seat.plane(hand.action("walk")),
        [0.0, 0.0],
        "drift is rest"
    );
    hand.stick(0.0, -0.5).tick();
    let [_, y] = hand.seat.plane(hand.action("walk"));
    assert!((-0.5..-0.3).contains(&y));
    hand.down(Place::KeyW).tick();
    assert_eq!(
        hand.seat.plane(hand.action("walk")),
        [0.0, 1.0],
        "what goes further has it"
    );
    hand.stick(0.0, 0.0).up(Place::KeyW).tick();
    assert_eq!(hand.happened(), ["ended walk.up", "ended walk"]);
}

#[test]
fn the_longest_satisfied_chord_wins() {
    let mut hand = Hand::new(&small(
        "[actions.stow]\nbind = \"KeyK\"\n[actions.stow-all]\nbind = \"Ctrl+KeyK\"",
    ));
    hand.down(Place::ControlRight).down(Place::KeyK).tick();
    assert_eq!(hand.happened(), ["began stow-all"]);
    // Letting go of a held part ends it, and what is still down stays silent.
    hand.up(Place::ControlRight).wait(50);
    assert_eq!(hand.happened(), ["ended stow-all"]);
    hand.up(Place::KeyK).down(Place::KeyK).tick();
    assert_eq!(hand.happened(), ["began stow"]);
    // Held inputs must be down before the completing one.
    hand.down(Place::ControlLeft).tick();
    assert!(hand.is_down("stow") && !hand.is_down("stow-all"));
}

#[test]
fn either_side_of_a_modifier_holds_a_chord() {
    let mut hand = Hand::new(&small("[actions.map]\nbind = \"Shift+KeyE\""));
    hand.down(Place::ShiftLeft)
        .down(Place::ShiftRight)
        .down(Place::KeyE)
        .tick();
    hand.up(Place::ShiftLeft).tick();
    assert!(hand.is_down("map"));
    hand.up(Place::ShiftRight).tick();
    assert!(!hand.is_down("map"));
}

#[test]
fn a_plain_binding_is_not_blocked_by_modifiers_unless_strict() {
    let mut hand = Hand::new(&small(
        "[actions.walk]\nbind = \"KeyW\"\n[actions.wave]\nbind = { on = \"KeyV\", strict = true }",
    ));
    hand.down(Place::ShiftLeft)
        .down(Place::KeyW)
        .down(Place::KeyV)
        .tick();
    assert!(hand.is_down("walk") && !hand.is_down("wave"));
}

#[test]
fn chords_of_pad_and_mouse_parts() {
    let mut hand = Hand::new(&small(
        "[actions.a]\nbind = \"pad:trigger-left+pad:south\"\n[actions.b]\nbind = \"mouse:right+KeyE\"",
    ));
    hand.pad(PadButton::TriggerLeft, 0.8)
        .pad(PadButton::South, 1.0)
        .tick();
    hand.click(MouseButton::Right, true)
        .down(Place::KeyE)
        .tick();
    assert!(hand.is_down("a") && hand.is_down("b"));
    hand.pad(PadButton::TriggerLeft, 0.45).tick();
    assert!(hand.is_down("a"), "it does not flutter at the edge");
    hand.pad(PadButton::TriggerLeft, 0.1)
        .click(MouseButton::Right, false)
        .tick();
    assert!(!hand.is_down("a") && !hand.is_down("b"));
}

#[test]
fn tap_and_hold_share_a_key() {
    let mut hand = Hand::new(&small(
        "[actions.peek]\nmanner = \"tap\"\nbind = \"KeyR\"\n[actions.coil]\nmanner = \"hold\"\nbind = \"KeyR\"",
    ));
    hand.down(Place::KeyR).wait(100);
    let coil = hand.action("coil");
    assert!((hand.seat.hold_progress(coil) - 0.2).abs() < 0.01);
    hand.up(Place::KeyR).tick();
    assert_eq!(hand.happened(), ["began peek", "ended peek"]);

    hand.down(Place::KeyR).wait(499);
    assert_eq!(hand.happened(), [""; 0]);
    hand.wait(10);
    assert_eq!(hand.happened(), ["began coil"]);
    hand.up(Place::KeyR).tick();
    assert_eq!(hand.happened(), ["ended coil"]);
}

#[test]
fn release_and_double_tap() {
    let mut hand = Hand::new(&small(
        "[actions.drop]\nmanner = \"release\"\nbind = \"KeyX\"\n[actions.dash]\nmanner = \"double-tap\"\nbind = \"KeyC\"",
    ));
    hand.down(Place::KeyX).tick();
    assert!(!hand.is_down("drop"));
    hand.up(Place::KeyX).tick();
    assert_eq!(hand.happened(), ["began drop", "ended drop"]);

    hand.down(Place::KeyC)
        .up(Place::KeyC)
        .wait(100)
        .down(Place::KeyC)
        .tick();
    assert_eq!(hand.happened(), ["began dash"]);
    hand.up(Place::KeyC).tick();
    hand.wait(1000).down(Place::KeyC).tick();
    assert!(!hand.is_down("dash"), "a slow second press is a first one");
}

#[test]
fn a_chord_uses_up_the_tap_of_its_held_part() {
    let mut hand = Hand::new(&small(
        "[actions.crouch]\nmanner = \"tap\"\nbind = \"ShiftLeft\"\n[actions.map]\nbind = \"Shift+KeyE\"",
    ));
    hand.down(Place::ShiftLeft)
        .down(Place::KeyE)
        .up(Place::KeyE)
        .up(Place::ShiftLeft)
        .tick();
    assert_eq!(hand.happened(), ["began map", "ended map"]);
}

#[test]
fn a_toggle_stays_when_the_focus_goes_and_the_player_may_not_want_it() {
    let sheet = demo();
    let mut hand = Hand::new(&sheet);
    hand.down(Place::KeyF).feed(0, EventKind::FocusLost).tick();
    assert!(hand.is_down("lantern"));
    let mut profile = Profile::new("Ada");
    profile
        .set_parameters("lantern", &Parameters::new().with(Parameter::Toggle, false))
        .unwrap();
    hand.seat.set_rig(Rig::new(&sheet, &profile, &Layout::us()));
    hand.down(Place::KeyF).up(Place::KeyF).tick();
    assert!(!hand.is_down("lantern"));
}

#[test]
fn toggling_is_on_until_the_next_press() {
    let mut hand = Hand::new(&small("[actions.lantern]\ntoggle = true\nbind = \"KeyF\""));
    hand.down(Place::KeyF).up(Place::KeyF).tick();
    assert!(hand.is_down("lantern"));
    hand.down(Place::KeyF).up(Place::KeyF).tick();
    assert_eq!(hand.happened(), ["ended lantern"]);
}

const STACK: &str = r#"
[situations.deck]
[situations.helm]
with = "deck"
[situations.chart]
over = ["deck", "helm"]
cover = "used"
[situations.hail]
over = ["deck", "helm"]
cover = "none"
typing = true
[situations.pause]
over = ["deck", "helm", "chart"]
[actions.walk]
situation = "deck"
bind = "KeyW"
[actions.horn]
situation = "helm"
bind = "KeyH"
[actions.pan]
situation = "chart"
bind = "KeyW"
[actions.send]
situation = "hail"
bind = "Enter"
[actions.photo]
situation = "deck"
while-paused = true
bind = "F9"
[actions.quit]
bind = "Ctrl+KeyQ"
"#;

#[test]
fn situations_cover_those_below() {
    let mut hand = Hand::new(&small(STACK));
    hand.situation(&["deck", "helm", "chart"]);
    hand.down(Place::KeyW).down(Place::KeyH).tick();
    assert_eq!(
        hand.happened(),
        ["began pan", "began horn"],
        "only what it uses is taken"
    );

    hand.situation(&["deck", "helm", "pause"]).tick();
    assert_eq!(hand.happened(), ["ended horn", "ended pan"]);
    hand.down(Place::F9)
        .down(Place::ControlLeft)
        .down(Place::KeyQ)
        .tick();
    assert_eq!(hand.happened(), ["began photo", "began quit"]);

    // What is held while a situation comes back stays silent until it is pressed again.
    hand.situation(&["deck"]).tick();
    assert!(!hand.is_down("walk"));
    hand.up(Place::KeyW).down(Place::KeyW).tick();
    assert!(hand.is_down("walk"));
}

#[test]
fn typing_does_not_steer_the_ship() {
    let mut hand = Hand::new(&small(STACK));
    hand.situation(&["deck", "hail"]);
    hand.down(Place::KeyW)
        .down(Place::Enter)
        .down(Place::F9)
        .tick();
    assert_eq!(hand.happened(), ["began send", "began photo"]);
}

#[test]
fn losing_focus_and_a_pulled_plug_end_everything_once() {
    let mut hand = Hand::new(&demo());
    hand.down(Place::KeyW).stick(1.0, 0.0).tick();
    // It is about the keyboard: the stick walks on.
    hand.feed(0, EventKind::FocusLost).tick();
    assert_eq!(hand.happened(), ["ended walk.up"]);
    hand.feed(u16::MAX, EventKind::FocusLost).tick();
    assert_eq!(hand.happened(), ["ended walk"], "and of everything");
    hand.up(Place::KeyW).tick();
    assert_eq!(hand.happened(), [""; 0], "the late release is nothing");

    hand.pad(PadButton::South, 1.0).tick();
    assert!(hand.is_down("cast-off"));
    assert!(
        hand.is_down("walk"),
        "the pad is heard of again, and its stick is still out"
    );
    hand.feed(2, EventKind::Unplugged).tick();
    assert_eq!(hand.happened(), ["ended cast-off", "ended walk"]);
}

#[test]
fn two_devices_of_one_kind_hold_a_key_together() {
    let mut hand = Hand::new(&small("[actions.horn]\nbind = \"KeyH\""));
    let key = |down| what::key(Place::KeyH, down);
    hand.feed(0, key(true))
        .feed(7, key(true))
        .feed(0, key(false))
        .tick();
    assert!(hand.is_down("horn"));
    hand.feed(7, EventKind::Unplugged).tick();
    assert!(!hand.is_down("horn"));
}

#[test]
fn a_new_rig_leaves_no_key_stuck() {
    let sheet = demo();
    let mut draft = Draft::new(&sheet, Profile::default(), &Layout::us());
    let mut hand = Hand::on(draft.rig());
    hand.down(Place::ShiftLeft).stick(1.0, 0.0).tick();
    let free = crate::common::cell(&sheet, "hurry keyboard-1");
    let done = draft.bind(free, chord("KeyG")).unwrap();
    assert!(matches!(done, swap_knot::Bind::Done));
    hand.seat.set_rig(draft.apply());
    hand.tick();
    assert_eq!(hand.happened(), ["ended hurry"]);
    // The stick is bound as before: walking goes on without an edge.
    hand.stick(0.9, 0.0).tick();
    assert_eq!(hand.happened(), [""; 0]);
    assert!(hand.is_down("walk"));
    hand.up(Place::ShiftLeft).down(Place::ShiftLeft).tick();
    assert!(hand.is_down("walk") && !hand.is_down("hurry"));
}

#[test]
fn letters_follow_the_layout_and_places_stay() {
    let sheet = demo();
    let profile = Profile::default();
    let mut hand = Hand::new(&sheet);
    hand.down(Place::KeyM).tick();
    assert!(hand.is_down("map-table"));
    let fr = Layout::shipped("fr").unwrap();
    hand.seat.set_rig(Rig::new(&sheet, &profile, &fr));
    hand.up(Place::KeyM).down(Place::KeyM).tick();
    assert!(!hand.is_down("map-table"));
    hand.down(Place::Semicolon).down(Place::KeyW).tick();
    assert!(hand.is_down("map-table") && hand.is_down("walk.up"));
}

#[test]
fn opposite_arms_are_settled_as_the_sheet_says() {
    let text = |opposite: &str| -> Sheet {
        small(&format!(
            "[actions.steer]\nshape = \"line\"\nopposite = \"{opposite}\"\nleft = {{ bind = \"KeyA\" }}\nright = {{ bind = \"KeyD\" }}"
        ))
    };
    for (opposite, wanted) in [("neither", 0.0), ("latest", 1.0), ("first", -1.0)] {
        let mut hand = Hand::new(&text(opposite));
        hand.down(Place::KeyA).down(Place::KeyD).tick();
        assert_eq!(hand.seat.value(hand.action("steer")), wanted, "{opposite}");
        assert!(hand.is_down("steer.left") && hand.is_down("steer.right"));
    }
}

#[test]
fn ramps_do_not_depend_on_the_frame_rate() {
    let sheet = small(
        "[actions.throttle]\nshape = \"pull\"\nbind = \"KeyW\"\nfeel = { keyboard = { ramp-up = 1.0, ramp-down = 0.5 } }",
    );
    let value_after = |ticks: u64, millis: u64| {
        let mut hand = Hand::new(&sheet);
        hand.down(Place::KeyW);
        for _ in 0..ticks {
            hand.wait(millis / ticks);
        }
        hand.seat.value(hand.action("throttle"))
    };
    assert!((value_after(1, 600) - 0.6).abs() < 1e-4);
    assert_eq!(value_after(1, 600), value_after(60, 600));
    assert_eq!(value_after(10, 2000), 1.0);
}

#[test]
fn mouse_and_wheel_are_motion() {
    let sheet = small(
        "[actions.pan]\nshape = \"plane\"\nbind = \"mouse:move\"\nfeel = { mouse = { sensitivity = 2.0, invert = [\"y\"] } }\n[actions.zoom]\nshape = \"line\"\nup = { bind = \"wheel:up\" }\ndown = { bind = \"wheel:down\" }",
    );
    let mut hand = Hand::new(&sheet);
    hand.feed(1, EventKind::MouseMove { x: 3.0, y: 2.0 });
    hand.feed(1, EventKind::MouseMove { x: 1.0, y: 0.0 });
    let up = EventKind::Wheel {
        direction: swap_knot::input::Direction::Up,
    };
    hand.feed(1, up).feed(1, up).tick();
    assert_eq!(hand.seat.motion(hand.action("pan")), [8.0, -4.0, 0.0]);
    assert_eq!(hand.seat.motion(hand.action("zoom")), [2.0, 0.0, 0.0]);
    assert!(hand.went_down("zoom.up") && !hand.is_down("zoom"));
    hand.tick();
    assert_eq!(hand.seat.motion(hand.action("pan")), [0.0; 3]);
}

/// Up and down may be more or less sensitive than left and right, whatever works them.
#[test]
fn the_second_axis_has_a_sensitivity_of_its_own() {
    let sheet = small(
        "feel.mouse = { sensitivity = 2, sensitivity-y = 0.5, invert = [\"y\"] }\nfeel.gamepad = { dead-zone = 0, sensitivity-y = 0.5 }\nfeel.keyboard.sensitivity-y = 0.5\n[actions.pan]\nshape = \"plane\"\nbind = [\"mouse:move\", \"pad:stick-right\"]\nup = { bind = \"wheel:up\" }\nright = { bind = \"wheel:right\" }\n[actions.walk]\nshape = \"plane\"\nup = { bind = [\"pad:stick-left.up\", \"KeyW\"] }\nright = { bind = [\"pad:stick-left.right\", \"KeyD\"] }\n[actions.climb]\nshape = \"line\"\nup = { bind = \"pad:trigger-left\" }\n[actions.turn]\nrate = true\nshape = \"plane\"\nbind = \"pad:stick-right\"\nfeel.gamepad = { dead-zone = 0, sensitivity-y = 4 }",
    );
    let mut hand = Hand::new(&sheet);
    let plane = |hand: &Hand, name: &str| hand.seat.plane(hand.action(name));
    let right = |x, y| EventKind::PadStick {
        stick: Stick::RIGHT,
        x,
        y,
    };
    hand.feed(1, EventKind::MouseMove { x: 3.0, y: 2.0 }).tick();
    assert_eq!(hand.seat.motion(hand.action("pan")), [6.0, -2.0, 0.0]);
    for direction in [Direction::Up, Direction::Right] {
        hand.feed(1, EventKind::Wheel { direction });
    }
    hand.tick();
    assert_eq!(hand.seat.motion(hand.action("pan")), [2.0, -1.0, 0.0]);
    hand.feed(2, right(0.4, 0.8)).tick();
    assert_eq!(plane(&hand, "pan"), [0.4, 0.4]);
    // A deflection stays within full, a rate does not.
    assert_eq!(plane(&hand, "turn"), [0.4, 3.2]);
    hand.stick(0.4, 0.8).tick();
    assert_eq!(plane(&hand, "walk"), [0.4, 0.4]);
    hand.stick(0.0, 0.0);
    hand.down(Place::KeyW).down(Place::KeyD).tick();
    let [x, y] = plane(&hand, "walk");
    assert!((y / x - 0.5).abs() < 1e-6, "{x} {y}");
    // A line has one axis, and what is up on it is no second one.
    let pull = EventKind::PadButton {
        button: PadButton::TriggerLeft,
        value: 0.8,
    };
    hand.feed(2, pull).tick();
    assert_eq!(hand.seat.value(hand.action("climb")), 0.8);
    // Where it makes no difference it is not offered.
    let bears = |cell_of: &str, on: &str| {
        sheet.bears(Parameter::SensitivityY, cell(&sheet, cell_of), &chord(on))
    };
    assert!(
        bears("pan gamepad-1", "pad:stick-right")
            && bears("walk.up gamepad-1", "pad:stick-left.up")
    );
    assert!(!bears("walk.right gamepad-1", "pad:stick-left.right"));
    assert!(
        !bears("climb.up gamepad-1", "pad:trigger-left") && !bears("walk.up keyboard-1", "KeyW")
    );
}

#[test]
fn the_device_kind_follows_what_is_meant_and_not_drift() {
    use swap_knot::DeviceKind;
    let mut hand = Hand::new(&demo());
    for _ in 0..50 {
        hand.stick(0.2, 0.1)
            .feed(1, EventKind::MouseMove { x: 1.0, y: 0.0 });
    }
    hand.tick();
    assert_eq!(hand.seat.device_kind(), DeviceKind::Keyboard);
    hand.stick(0.9, 0.0).tick();
    assert_eq!(hand.seat.device_kind(), DeviceKind::Gamepad);
    assert!(hand.seat.device_kind_changed());
    hand.tick();
    assert!(!hand.seat.device_kind_changed());
    hand.seat.force_device_kind(Some(DeviceKind::Touch));
    hand.down(Place::KeyW).tick();
    assert_eq!(hand.seat.device_kind(), DeviceKind::Touch);
}

/// A binding that becomes strict is not bound as before: what it holds ends, as whatever else changes.
#[test]
fn a_binding_that_becomes_strict_is_another_one() {
    let of = |strict: bool| {
        small(&format!(
            "[actions.horn]\nbind = {{ on = \"KeyH\", strict = {strict} }}"
        ))
    };
    let mut hand = Hand::new(&of(false));
    hand.down(Place::KeyH).tick();
    assert!(hand.is_down("horn"));
    let same = Rig::new(&of(false), &Profile::default(), Layout::us());
    hand.seat.set_rig(same);
    hand.tick();
    assert!(hand.is_down("horn"), "it is bound as before");
    let strict = Rig::new(&of(true), &Profile::default(), Layout::us());
    hand.seat.set_rig(strict);
    hand.tick();
    assert!(!hand.is_down("horn"));
    hand.up(Place::KeyH).down(Place::KeyH).tick();
    assert!(hand.is_down("horn"));
}

/// An event that comes late is judged by its own stamp, over another rig too.
#[test]
fn another_rig_does_not_put_the_clock_back() {
    let sheet = small("[actions.use]\nmanner = \"tap\"\nbind = \"KeyE\"");
    let told = |another: bool| {
        let mut hand = Hand::new(&sheet);
        hand.seat.keep_outcomes(8);
        hand.down(Place::KeyE).wait(400);
        if another {
            let rig = Rig::new(&sheet, &Profile::default(), Layout::us());
            hand.seat.set_rig(rig);
        }
        hand.seat.feed(&swap_knot::Event {
            at: swap_knot::Time::from_millis(100),
            device: swap_knot::DeviceId(0),
            what: EventKind::Key {
                place: Place::KeyE,
                down: false,
                text: None,
            },
        });
        hand.tick();
        let last = hand.seat.outcomes().last();
        last.map(|t| t.outcome)
    };
    assert_eq!(told(true), Some(swap_knot::play::Outcome::Worked));
    assert_eq!(told(true), told(false));
}
