//! Working the screen with whatever is in hand.

use std::time::Duration;

use crate::book::Held;
use crate::input::{
    Control, DeviceKind, Direction, Event, EventKind, HidButton, HidInput, Input, Modifier,
    PadButton, Place, Stick, Time,
};
use crate::layout::Resolver;
use crate::words::Words;

/// How long a direction is held before it repeats.
const REPEAT_AFTER: Duration = Duration::from_millis(400);
/// How long it is from one repeat to the next.
const REPEAT_EVERY: Duration = Duration::from_millis(70);
/// How far a stick is pushed to go somewhere, and how far it comes back before it can again.
const PUSHED: f32 = 0.6;
const BACK: f32 = 0.35;
/// The stick that goes somewhere.
const LEFT_STICK: Control = Control::stick(Stick::LEFT);

/// What a player tells the screen, whatever with.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum ScreenCommand {
    /// To what is above, below, left or right; sideways on a number makes it less or more.
    Go(Direction),
    /// Up or down by ten rows.
    GoFar(Direction),
    /// Changes the binding, pushes the button.
    Choose,
    /// Out of a dialog, or of the screen.
    Back,
    /// Takes the binding away.
    Clear,
    /// Back to what the game has there.
    Reset,
    /// Takes the last change back.
    Undo,
    /// Makes it again.
    Redo,
    /// Applies the changes.
    Apply,
    /// Searches by title.
    Search,
    /// The page after this one.
    NextPage,
    /// The page before this one.
    PreviousPage,
}

impl ScreenCommand {
    /// What an event tells the screen, with what else is held, on the player's keyboard, and by the
    /// button that confirms on the pads of their family ([`Words::confirm`]).
    ///
    /// These work whatever is bound, so that nobody can lock themselves out:
    ///
    /// | | keyboard | pad | other controller |
    /// |---|---|---|---|
    /// | go | arrows | cross, left stick | hat |
    /// | ten rows | Page Up, Page Down | triggers | |
    /// | choose | Enter, Space | bottom of the diamond, or the right if that confirms | button 1 |
    /// | back | Escape | the other one of these | button 2 |
    /// | clear | Delete | left of the diamond | button 3 |
    /// | reset | Backspace | top of the diamond | button 4 |
    /// | pages | Tab, Shift+Tab | shoulders | buttons 5 and 6 |
    /// | undo, redo | Ctrl+Z, Ctrl+Y | left centre button | |
    /// | apply | Ctrl+S | right centre button | |
    /// | search | Ctrl+F | | |
    ///
    /// [`Words::confirm`]: crate::Words::confirm
    pub fn of(
        event: &Event,
        held: &Held,
        on: &Resolver,
        confirm: PadButton,
    ) -> Option<ScreenCommand> {
        use ScreenCommand::*;
        Some(match event.what {
            EventKind::Key {
                place, down: true, ..
            } => {
                let has = |m: Modifier| holds(held, m, on);
                if has(Modifier::Ctrl) || has(Modifier::Meta) {
                    let is = |letter: char| on.layout().place_of(letter) == Some(place);
                    return Some(match () {
                        () if is('z') && has(Modifier::Shift) => Redo,
                        () if is('z') => Undo,
                        () if is('y') => Redo,
                        () if is('s') => Apply,
                        () if is('f') => Search,
                        () => return None,
                    });
                }
                match place {
                    Place::ArrowUp => Go(Direction::Up),
                    Place::ArrowDown => Go(Direction::Down),
                    Place::ArrowLeft => Go(Direction::Left),
                    Place::ArrowRight => Go(Direction::Right),
                    Place::PageUp => GoFar(Direction::Up),
                    Place::PageDown => GoFar(Direction::Down),
                    Place::Enter | Place::NumpadEnter | Place::Space => Choose,
                    Place::Escape => Back,
                    Place::Delete => Clear,
                    Place::Backspace => Reset,
                    Place::Tab if has(Modifier::Alt) => return None,
                    Place::Tab if has(Modifier::Shift) => PreviousPage,
                    Place::Tab => NextPage,
                    _ => return None,
                }
            }
            EventKind::PadButton { button, value } if value >= PUSHED => match button {
                PadButton::Up => Go(Direction::Up),
                PadButton::Down => Go(Direction::Down),
                PadButton::Left => Go(Direction::Left),
                PadButton::Right => Go(Direction::Right),
                PadButton::TriggerLeft => GoFar(Direction::Up),
                PadButton::TriggerRight => GoFar(Direction::Down),
                button if button == confirm => Choose,
                PadButton::South | PadButton::East => Back,
                PadButton::West => Clear,
                PadButton::North => Reset,
                PadButton::ShoulderLeft => PreviousPage,
                PadButton::ShoulderRight => NextPage,
                PadButton::CenterLeft => Undo,
                PadButton::CenterRight => Apply,
                _ => return None,
            },
            EventKind::HidHat {
                direction,
                down: true,
            } => Go(direction),
            EventKind::HidButton { button, down: true } => match button.number() {
                1 => Choose,
                2 => Back,
                3 => Clear,
                4 => Reset,
                5 => PreviousPage,
                6 => NextPage,
                _ => return None,
            },
            _ => return None,
        })
    }
}

/// Whether a modifier is down on either side.
pub(super) fn holds(held: &Held, modifier: Modifier, on: &Resolver) -> bool {
    let mut places = modifier.places(on.platform()).into_iter();
    places.any(|p| held.is_down(Control::key(p)))
}

/// What an event presses or lets go, triggers and pad buttons included.
pub(super) fn control_of(event: &Event) -> Option<Control> {
    match event.what {
        EventKind::PadButton { button, .. } => Some(Control::pad(button)),
        what => what.as_button().map(|(control, _)| control),
    }
}

/// What is held to go on going somewhere, and when it goes on.
#[derive(Clone, Debug, Default)]
pub(super) struct Steering {
    /// What is held, and when it works again.
    held: Option<(Control, ScreenCommand, Time)>,
    /// Whether the stick is pushed.
    pushed: bool,
}

impl Steering {
    /// What an event tells, the stick included; nothing for what is down already.
    pub(super) fn command(
        &mut self,
        event: &Event,
        is_fresh: bool,
        held: &Held,
        words: &Words,
        on: &Resolver,
    ) -> Option<ScreenCommand> {
        if let EventKind::PadStick {
            stick: Stick::LEFT,
            x,
            y,
        } = event.what.in_range()
        {
            let was = self.pushed;
            self.pushed = x.hypot(y) >= if was { BACK } else { PUSHED };
            if was || !self.pushed {
                return None;
            }
            let way = match (x.abs() > y.abs(), x > 0.0, y > 0.0) {
                (true, true, _) => Direction::Right,
                (true, false, _) => Direction::Left,
                (false, _, true) => Direction::Up,
                (false, _, false) => Direction::Down,
            };
            let command = ScreenCommand::Go(way);
            self.held = Some((LEFT_STICK, command, event.at.plus(REPEAT_AFTER)));
            return Some(command);
        }
        let command = ScreenCommand::of(event, held, on, words.confirm()).filter(|_| is_fresh)?;
        if let (Some(control), ScreenCommand::Go(_) | ScreenCommand::GoFar(_)) =
            (control_of(event), command)
        {
            self.held = Some((control, command, event.at.plus(REPEAT_AFTER)));
        }
        Some(command)
    }

    /// What goes on, if anything does. What is not held any more does not.
    pub(super) fn tick(&mut self, now: Time, held: &Held) -> Option<ScreenCommand> {
        let (control, command, due) = self.held?;
        let is_held = match control == LEFT_STICK {
            true => self.pushed,
            false => held.is_down(control),
        };
        if !is_held {
            self.held = None;
            return None;
        }
        if now < due {
            return None;
        }
        self.held = Some((control, command, now.plus(REPEAT_EVERY)));
        Some(command)
    }

    /// Does not go on, whatever is held.
    pub(super) fn stop(&mut self) {
        self.held = None;
    }

    /// Whether something is held that will go on.
    pub(super) const fn is_going(&self) -> bool {
        self.held.is_some()
    }
}

/// What works the screen with a kind of device, and the message that says what it does.
pub(super) fn hints(kind: DeviceKind, confirm: PadButton) -> Vec<(Input, &'static str)> {
    const DOES: [&str; 6] = [
        "hint-choose",
        "hint-back",
        "hint-clear",
        "hint-reset",
        "hint-adjust",
        "hint-next-page",
    ];
    let inputs: Vec<Input> = match kind {
        DeviceKind::Keyboard => [
            Place::Enter,
            Place::Escape,
            Place::Delete,
            Place::Backspace,
            Place::ArrowRight,
            Place::Tab,
        ]
        .map(Input::Key)
        .to_vec(),
        DeviceKind::Gamepad => [
            confirm,
            match confirm {
                PadButton::East => PadButton::South,
                _ => PadButton::East,
            },
            PadButton::West,
            PadButton::North,
            PadButton::Right,
            PadButton::ShoulderRight,
        ]
        .map(Input::PadButton)
        .to_vec(),
        DeviceKind::Other => {
            let buttons = [1, 2, 3, 4].into_iter().filter_map(HidButton::new);
            let buttons = buttons.map(HidInput::Button);
            let right = HidInput::Hat(Direction::Right);
            let next = HidButton::new(6).map(HidInput::Button);
            buttons.chain([right]).chain(next).map(Input::Hid).collect()
        }
        // Everything that these do is to be seen.
        DeviceKind::Mouse | DeviceKind::Touch => Vec::new(),
    };
    inputs.into_iter().zip(DOES).collect()
}
