//! What is down while the menu is open, so that a listener can wait until it is up.

use swap_knot::{Direction, Event, EventKind, HidInput, Input, Sign};

/// An analog input that is further in than this does not rest.
const REST: f32 = 0.25;

/// The inputs that are down or away from rest.
#[derive(Clone, Debug, Default)]
pub(crate) struct HeldInputs(Vec<Input>);

impl HeldInputs {
    pub(crate) fn get(&self) -> Vec<Input> {
        self.0.clone()
    }

    pub(crate) fn track(&mut self, event: &Event) {
        match event.what {
            EventKind::Key { place, down, .. } => self.set(Input::Key(place), down),
            EventKind::MouseButton { button, down } => self.set(Input::MouseButton(button), down),
            EventKind::PadButton { button, value } => {
                self.set(Input::PadButton(button), value >= REST);
            }
            EventKind::PadStick { stick, x, y } => {
                let parts = [y, -y, -x, x];
                for (direction, part) in Direction::ALL.into_iter().zip(parts) {
                    self.set(Input::PadStickHalf(stick, direction), part >= REST);
                }
                self.set(Input::PadStick(stick), x.hypot(y) >= REST);
            }
            EventKind::HidButton { number, down } => {
                self.set(Input::Hid(HidInput::Button(number)), down);
            }
            EventKind::HidHat { direction, down } => {
                self.set(Input::Hid(HidInput::Hat(direction)), down);
            }
            EventKind::HidAxis { axis, value } => {
                for (sign, part) in [(Sign::Positive, value), (Sign::Negative, -value)] {
                    self.set(Input::Hid(HidInput::Half(axis, sign)), part >= REST);
                }
            }
            EventKind::Touch { name, down } => self.set(Input::Touch(name), down),
            EventKind::FocusLost | EventKind::Unplugged => self.0.clear(),
            // Notches and motion are over when they are told; the rest is not listened for.
            _ => {}
        }
    }

    fn set(&mut self, input: Input, down: bool) {
        self.0.retain(|i| *i != input);
        if down {
            self.0.push(input);
        }
    }
}
