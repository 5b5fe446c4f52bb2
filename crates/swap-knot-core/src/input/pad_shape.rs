//! Where the parts of a pad are: a plain shape of our own, for whoever draws one.

use super::{Input, PadButton, Stick};

/// A part of a pad and where it is, seen from above.
///
/// The shape is a plain one: a body with two grips, a cross, a diamond, two sticks, three buttons in the
/// middle, shoulders and triggers before the front edge, and paddles where the fingers are below.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub struct PadPart {
    /// What it is. A stick stands for all of its directions, and has its click in its middle.
    pub input: Input,
    /// The left edge, the upper edge, the width and the height; the pad is [`PadPart::SIZE`] large.
    pub rect: [f32; 4],
    /// By how much its corners are rounded; half of its height for a disc.
    pub round: f32,
}

impl PadPart {
    /// The width and the height of the whole pad.
    pub const SIZE: [f32; 2] = [160.0, 100.0];

    /// The body and its grips: each the left edge, the upper edge, the width, the height and the
    /// rounding. They lie over each other and are one.
    pub const BODY: [[f32; 5]; 5] = [
        [14.0, 20.0, 132.0, 52.0, 24.0],
        [6.0, 40.0, 44.0, 46.0, 21.0],
        [110.0, 40.0, 44.0, 46.0, 21.0],
        [5.0, 58.0, 30.0, 38.0, 15.0],
        [125.0, 58.0, 30.0, 38.0, 15.0],
    ];

    /// Every part, in the order in which they are told: the diamond, the cross, the front edge, the
    /// sticks, the middle, the paddles.
    pub fn all() -> impl Iterator<Item = PadPart> {
        let button = |(button, rect, round): (PadButton, [f32; 4], f32)| PadPart {
            input: Input::PadButton(button),
            rect,
            round,
        };
        let stick = |(stick, x): (Stick, f32)| PadPart {
            input: Input::PadStick(stick),
            rect: [x - 11.5, 51.5, 23.0, 23.0],
            round: 11.5,
        };
        let first = BUTTONS[..12].iter().copied().map(button);
        let sticks = [(Stick::LEFT, 58.0), (Stick::RIGHT, 102.0)].map(stick);
        let last = BUTTONS[12..].iter().copied().map(button);
        first.chain(sticks).chain(last)
    }
}

const fn disc(x: f32, y: f32) -> [f32; 4] {
    [x - 5.5, y - 5.5, 11.0, 11.0]
}

const fn square(x: f32, y: f32) -> [f32; 4] {
    [x - 4.25, y - 4.25, 8.5, 8.5]
}

const BUTTONS: [(PadButton, [f32; 4], f32); 21] = [
    (PadButton::South, disc(125.0, 52.5), 5.5),
    (PadButton::East, disc(136.0, 41.5), 5.5),
    (PadButton::West, disc(114.0, 41.5), 5.5),
    (PadButton::North, disc(125.0, 30.5), 5.5),
    (PadButton::Up, square(35.0, 33.0), 1.5),
    (PadButton::Down, square(35.0, 50.0), 1.5),
    (PadButton::Left, square(26.5, 41.5), 1.5),
    (PadButton::Right, square(43.5, 41.5), 1.5),
    (PadButton::ShoulderLeft, [20.0, 12.5, 40.0, 7.0], 3.0),
    (PadButton::ShoulderRight, [100.0, 12.5, 40.0, 7.0], 3.0),
    (PadButton::TriggerLeft, [25.0, 1.5, 30.0, 9.5], 4.0),
    (PadButton::TriggerRight, [105.0, 1.5, 30.0, 9.5], 4.0),
    (PadButton::StickLeftClick, [54.0, 59.0, 8.0, 8.0], 4.0),
    (PadButton::StickRightClick, [98.0, 59.0, 8.0, 8.0], 4.0),
    (PadButton::CenterLeft, [55.5, 30.5, 16.0, 8.0], 4.0),
    (PadButton::Center, [75.0, 39.0, 10.0, 10.0], 5.0),
    (PadButton::CenterRight, [88.5, 30.5, 16.0, 8.0], 4.0),
    (PadButton::Paddle1, [132.0, 66.0, 12.0, 6.0], 2.5),
    (PadButton::Paddle2, [134.0, 77.0, 12.0, 6.0], 2.5),
    (PadButton::Paddle3, [16.0, 66.0, 12.0, 6.0], 2.5),
    (PadButton::Paddle4, [14.0, 77.0, 12.0, 6.0], 2.5),
];
