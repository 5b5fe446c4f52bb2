//! The cases, one by one.

use super::{Engine, Said};
use crate::input::{MouseButton, PadButton, Place, Stick, Time};
use crate::layout::Layout;
use crate::profile::Profile;
use crate::rig::Rig;
use crate::seat::{Edge, Seat};
use crate::sheet::Sheet;

/// What the cases are played on.
const SHEET: &str = r#"
game = "kit"
[actions.key]
bind = "KeyA"
[actions.release]
manner = "release"
bind = "KeyB"
[actions.click]
bind = "mouse:left"
[actions.chord]
bind = "Ctrl+mouse:left"
[actions.further]
bind = ["mouse:back", "mouse:forward"]
[actions.look]
shape = "plane"
bind = "mouse:move"
[actions.notch]
bind = "wheel:up"
[actions.button]
bind = "pad:south"
[actions.let-go]
manner = "release"
bind = "pad:east"
[actions.pull]
shape = "pull"
bind = "pad:trigger-left"
feel.gamepad = { dead-zone = 0 }
[actions.walk]
shape = "plane"
bind = "pad:stick-left"
feel.gamepad = { dead-zone = 0 }
[actions.touch]
bind = "touch:zone"
"#;

/// Why a case came to no end.
pub(super) enum Stopped {
    /// The engine does not tell of such a thing.
    LeftOut,
    /// Something else happened.
    Wrong(String),
}

type Done = Result<(), Stopped>;
type Case<E> = fn(&mut Bench<E>) -> Done;

/// An engine, and a seat that plays what comes of it.
pub(super) struct Bench<E> {
    engine: E,
    seat: Seat,
    now: u64,
}

impl<E: Engine> Bench<E> {
    pub(super) fn new(engine: E) -> Result<Bench<E>, Stopped> {
        let sheet = Sheet::from_toml(SHEET).map_err(|e| Stopped::Wrong(e.to_string()))?;
        let rig = Rig::new(&sheet, &Profile::default(), &Layout::us());
        Ok(Bench {
            engine,
            seat: Seat::new(rig),
            now: 0,
        })
    }

    /// Says something within one frame and plays it.
    fn say(&mut self, said: &[Said]) -> Done {
        self.now += 20;
        let at = Time::from_millis(self.now);
        let events = match said {
            [one] => self.engine.say(one, at),
            all => self.engine.say_all(all, at),
        };
        let events = events.ok_or(Stopped::LeftOut)?;
        events.iter().for_each(|e| self.seat.feed(e));
        self.seat.tick(at);
        Ok(())
    }

    /// What began in the last frame.
    fn began(&self) -> Vec<String> {
        let sheet = self.seat.rig().sheet();
        let began = self.seat.happened().iter();
        let began = began.filter(|h| h.edge == Edge::Began && h.arm.is_none());
        began
            .filter_map(|h| Some(sheet.action(h.action)?.name.clone()))
            .collect()
    }

    fn expect_begins(&self, wanted: &[&str], when: &str) -> Done {
        let began = self.began();
        match began == wanted {
            true => Ok(()),
            false => wrong(format!("{when}, {began:?} began, not {wanted:?}")),
        }
    }

    fn expect_down(&self, name: &str, wanted: bool, when: &str) -> Done {
        let id = self.seat.rig().sheet().find(name);
        match id.is_some_and(|id| self.seat.is_down(id)) == wanted {
            true => Ok(()),
            false if wanted => wrong(format!("{when}, `{name}` is not on")),
            false => wrong(format!("{when}, `{name}` is on")),
        }
    }

    fn expect_plane(&self, name: &str, wanted: [f32; 2], when: &str) -> Done {
        let id = self.seat.rig().sheet().find(name);
        let [x, y] = id.map_or([0.0; 2], |id| self.seat.plane(id));
        let near = (x - wanted[0]).abs() < 1e-3 && (y - wanted[1]).abs() < 1e-3;
        match near {
            true => Ok(()),
            false => wrong(format!("{when}, `{name}` is at {x}, {y}, not {wanted:?}")),
        }
    }
}

fn wrong(why: String) -> Done {
    Err(Stopped::Wrong(why))
}

const fn key(place: Place, down: bool) -> Said {
    Said::Key { place, down }
}

const fn left(down: bool) -> Said {
    let button = MouseButton::Left;
    Said::Mouse { button, down }
}

const fn pad(pad: usize, button: PadButton, value: f32) -> Said {
    Said::PadButton { pad, button, value }
}

const fn axis(axis: usize, value: f32) -> Said {
    let stick = Stick::LEFT;
    Said::PadAxis {
        pad: 0,
        stick,
        axis,
        value,
    }
}

const fn wheel(notches: f32) -> Said {
    Said::Wheel { notches }
}

const BACK: Said = Said::FocusBack { holding: None };

/// Every case, with what is to hold in it.
pub(super) fn all<E: Engine>() -> [(&'static str, Case<E>); 18] {
    [
        ("a key goes down and up", a_key),
        ("a key that the system repeats", repeats),
        ("several things within one frame", one_frame),
        ("a key held over a lost focus", focus),
        ("a lost focus is no release", focus_is_no_release),
        ("a key that comes up while nobody listens", gap),
        ("mouse buttons beyond the first three", further_buttons),
        ("a button held over a lost focus", button_over_focus),
        ("motion counts upwards", motion),
        ("a wheel that turns by fractions", fractions),
        ("a fraction is lost with the focus", fraction_over_focus),
        ("buttons and triggers of a pad", pads),
        ("one axis of a stick at a time", axes),
        ("a pad pulled out and plugged in again", plugs),
        ("a lost focus leaves the pads alone", focus_of_pads),
        ("two pads hold one button", two_pads),
        ("numbers that are none", garbage),
        ("fingers on a zone", fingers),
    ]
}

fn a_key<E: Engine>(b: &mut Bench<E>) -> Done {
    b.say(&[key(Place::KeyA, true)])?;
    b.expect_begins(&["key"], "with A down")?;
    b.say(&[key(Place::KeyA, false)])?;
    b.expect_down("key", false, "with A up")
}

fn repeats<E: Engine>(b: &mut Bench<E>) -> Done {
    let place = Place::KeyA;
    b.say(&[key(place, true)])?;
    for _ in 0..3 {
        b.say(&[Said::Repeat { place }])?;
        b.expect_begins(&[], "repeated")?;
        b.expect_down("key", true, "repeated")?;
    }
    Ok(())
}

fn one_frame<E: Engine>(b: &mut Bench<E>) -> Done {
    let ctrl = Place::ControlLeft;
    b.say(&[key(ctrl, true), left(true), key(ctrl, false), left(false)])?;
    b.expect_begins(&["chord"], "with Ctrl down, a click and Ctrl up")?;
    b.say(&[left(true), key(ctrl, true), left(false), key(ctrl, false)])?;
    b.expect_begins(&["click"], "with a click before Ctrl")
}

fn focus<E: Engine>(b: &mut Bench<E>) -> Done {
    let place = Place::KeyA;
    b.say(&[key(place, true)])?;
    b.say(&[Said::FocusLost])?;
    b.expect_down("key", false, "without the focus")?;
    let holding = Some(place);
    b.say(&[Said::FocusBack { holding }])?;
    b.say(&[Said::Repeat { place }])?;
    b.expect_down("key", false, "held as the focus comes back")?;
    b.say(&[key(place, false)])?;
    b.say(&[key(place, true)])?;
    b.expect_begins(&["key"], "pressed anew")
}

fn focus_is_no_release<E: Engine>(b: &mut Bench<E>) -> Done {
    b.say(&[key(Place::KeyB, true)])?;
    b.say(&[Said::FocusLost])?;
    b.expect_begins(&[], "without the focus")?;
    b.say(&[BACK])?;
    b.say(&[key(Place::KeyB, true)])?;
    b.say(&[key(Place::KeyB, false)])?;
    b.expect_begins(&["release"], "let go later")
}

fn gap<E: Engine>(b: &mut Bench<E>) -> Done {
    b.say(&[key(Place::KeyA, true)])?;
    b.say(&[Said::Gap])?;
    b.expect_down("key", false, "after the gap")?;
    b.say(&[key(Place::KeyA, true)])?;
    b.expect_begins(&["key"], "pressed anew")
}

fn further_buttons<E: Engine>(b: &mut Bench<E>) -> Done {
    for button in [MouseButton::Back, MouseButton::Forward] {
        b.say(&[Said::Mouse { button, down: true }])?;
        b.expect_begins(&["further"], "clicked")?;
        let down = false;
        b.say(&[Said::Mouse { button, down }])?;
    }
    Ok(())
}

fn button_over_focus<E: Engine>(b: &mut Bench<E>) -> Done {
    b.say(&[left(true)])?;
    b.say(&[Said::FocusLost])?;
    b.expect_down("click", false, "without the focus")?;
    b.say(&[BACK])?;
    b.say(&[left(true)])?;
    b.expect_begins(&["click"], "clicked anew")
}

fn motion<E: Engine>(b: &mut Bench<E>) -> Done {
    b.say(&[Said::Motion { x: 3.0, y: 4.0 }])?;
    let id = b.seat.rig().sheet().find("look");
    let [x, y, _] = id.map_or([0.0; 3], |id| b.seat.motion(id));
    match x > 0.0 && y > 0.0 {
        true => Ok(()),
        false => wrong(format!("moved to the right and up, it went by {x}, {y}")),
    }
}

fn fractions<E: Engine>(b: &mut Bench<E>) -> Done {
    for _ in 0..3 {
        b.say(&[wheel(0.25)])?;
        b.expect_begins(&[], "with a part of a notch")?;
    }
    b.say(&[wheel(0.25)])?;
    b.expect_begins(&["notch"], "with the last part of a notch")?;
    b.say(&[wheel(f32::NAN)])?;
    b.say(&[wheel(1.0)])?;
    b.expect_begins(&["notch"], "after something that is no number")
}

fn fraction_over_focus<E: Engine>(b: &mut Bench<E>) -> Done {
    b.say(&[wheel(0.75)])?;
    b.say(&[Said::FocusLost])?;
    b.say(&[BACK])?;
    b.say(&[wheel(0.5)])?;
    b.expect_begins(&[], "with a part of another notch")
}

fn pads<E: Engine>(b: &mut Bench<E>) -> Done {
    b.say(&[Said::PadCame { pad: 0 }])?;
    b.say(&[pad(0, PadButton::South, 1.0)])?;
    b.expect_begins(&["button"], "with the button down")?;
    b.say(&[pad(0, PadButton::South, 0.0)])?;
    b.expect_down("button", false, "with the button up")?;
    b.say(&[pad(0, PadButton::TriggerLeft, 0.25)])?;
    b.expect_plane("pull", [0.25, 0.0], "with the trigger a quarter in")
}

fn axes<E: Engine>(b: &mut Bench<E>) -> Done {
    b.say(&[Said::PadCame { pad: 0 }])?;
    b.say(&[axis(1, 0.8)])?;
    b.expect_plane("walk", [0.0, 0.8], "with one axis")?;
    b.say(&[axis(0, 0.6)])?;
    b.expect_plane("walk", [0.6, 0.8], "with the other axis as well")?;
    b.say(&[axis(1, 0.0)])?;
    b.expect_plane("walk", [0.6, 0.0], "with the first axis at rest")
}

fn plugs<E: Engine>(b: &mut Bench<E>) -> Done {
    b.say(&[Said::PadCame { pad: 0 }])?;
    b.say(&[axis(1, 1.0)])?;
    b.say(&[pad(0, PadButton::East, 1.0)])?;
    b.say(&[Said::PadGone { pad: 0 }])?;
    b.expect_begins(&[], "with the plug pulled")?;
    b.expect_plane("walk", [0.0, 0.0], "with the plug pulled")?;
    b.say(&[Said::PadCame { pad: 0 }])?;
    b.say(&[axis(0, 1.0)])?;
    b.expect_plane("walk", [1.0, 0.0], "plugged in again, with one axis")
}

fn focus_of_pads<E: Engine>(b: &mut Bench<E>) -> Done {
    b.say(&[Said::PadCame { pad: 0 }])?;
    b.say(&[pad(0, PadButton::South, 1.0)])?;
    b.say(&[Said::FocusLost])?;
    b.expect_down("button", true, "without the focus of the keyboard")
}

fn two_pads<E: Engine>(b: &mut Bench<E>) -> Done {
    for n in [0, 1] {
        b.say(&[Said::PadCame { pad: n }])?;
        b.say(&[pad(n, PadButton::South, 1.0)])?;
    }
    b.say(&[pad(0, PadButton::South, 0.0)])?;
    b.expect_down("button", true, "with one of two up")?;
    b.say(&[Said::PadGone { pad: 1 }])?;
    b.expect_down("button", false, "with the other one gone")
}

fn garbage<E: Engine>(b: &mut Bench<E>) -> Done {
    b.say(&[Said::PadCame { pad: 0 }])?;
    for value in [f32::NAN, f32::INFINITY, -1e30] {
        b.say(&[axis(0, value)])?;
        b.say(&[pad(0, PadButton::TriggerLeft, value)])?;
        for name in ["walk", "pull"] {
            let id = b.seat.rig().sheet().find(name);
            let space = id.map_or([0.0; 3], |id| b.seat.space(id));
            if !space.iter().all(|v| v.is_finite() && v.abs() <= 1.0) {
                return wrong(format!("with {value}, `{name}` is at {space:?}"));
            }
        }
    }
    b.say(&[axis(0, 0.5)])?;
    b.expect_plane("walk", [0.5, 0.0], "with a number again")
}

fn fingers<E: Engine>(b: &mut Bench<E>) -> Done {
    let Ok(name) = "zone".parse() else {
        return Err(Stopped::LeftOut);
    };
    b.engine.zones().add_area(name, [0.0; 2], [50.0; 2]);
    let finger = |finger, at, was| Said::Finger { finger, at, was };
    b.say(&[finger(1, Some([10.0, 10.0]), false)])?;
    b.expect_begins(&["touch"], "touched")?;
    b.say(&[finger(2, Some([20.0, 10.0]), false)])?;
    b.say(&[finger(1, None, true)])?;
    b.expect_down("touch", true, "with another finger on it")?;
    b.say(&[finger(2, None, true)])?;
    b.expect_down("touch", false, "let go")
}
