//! A mouse with the part marked.

use swap_knot::MouseButton;
use swap_knot::input::Direction;

use super::{SIZE, way};
use crate::drawing::Drawing;
use crate::pen::{Anchor, Look, Pen, Type};
use crate::theme::Theme;

/// The left and right button, as areas of the body.
const LEFT: &str = "M22.5 5.5H22A11.5 11.5 0 0 0 10.5 17V21H22.5Z";
const RIGHT: &str = "M25.5 5.5H26A11.5 11.5 0 0 1 37.5 17V21H25.5Z";

pub(super) fn button(button: MouseButton, theme: &Theme) -> Drawing {
    let mut pen = body(theme);
    let mark = Look::edged(theme.accent, theme.accent, 1.0);
    match button {
        MouseButton::Left => pen.path(LEFT, mark),
        MouseButton::Right => pen.path(RIGHT, mark),
        MouseButton::Middle => wheel_bar(&mut pen, theme.accent, 1.6),
        MouseButton::Back => pen.rect(4.5, 29.0, 9.0, 8.5, 2.5, mark),
        MouseButton::Forward => pen.rect(4.5, 18.5, 9.0, 8.5, 2.5, mark),
        MouseButton::Further(button) => {
            let style = Type {
                size: 16.0,
                bold: true,
                color: theme.on_accent,
                anchor: Anchor::Middle,
            };
            pen.circle(24.0, 33.0, 9.8, Look::filled(theme.accent));
            pen.text(24.0, 38.7, &button.number().to_string(), style);
        }
    }
    if button != MouseButton::Middle {
        wheel_bar(&mut pen, theme.edge, 1.0);
    }
    pen.finish()
}

pub(super) fn motion(theme: &Theme) -> Drawing {
    let mut pen = Pen::new(SIZE, SIZE);
    let look = Look::edged(theme.cap, theme.edge, 2.2);
    pen.rect(15.5, 11.5, 17.0, 25.0, 8.0, look);
    pen.path("M24 12V19", Look::edged("none", theme.edge, 2.2));
    for direction in Direction::ALL {
        let [dx, dy] = way(direction);
        let (x, y) = (24.0 + dx * 15.5, 24.0 + dy * 18.5);
        pen.arrow(x, y, 4.6, [dx, dy], theme.accent);
    }
    pen.finish()
}

pub(super) fn wheel(direction: Direction, theme: &Theme) -> Drawing {
    let mut pen = body(theme);
    wheel_bar(&mut pen, theme.accent, 1.3);
    let [dx, dy] = way(direction);
    let (x, y) = match direction {
        // Beside the wheel there is room; above it there is the edge.
        Direction::Up | Direction::Down => (24.0, 32.5),
        Direction::Left | Direction::Right => (24.0, 33.0),
    };
    pen.arrow(x, y, 7.5, [dx, dy], theme.accent);
    pen.finish()
}

fn body(theme: &Theme) -> Pen {
    let mut pen = Pen::new(SIZE, SIZE);
    let look = Look::edged(theme.cap, theme.edge, 2.2);
    pen.rect(9.0, 4.0, 30.0, 40.0, 13.5, look);
    pen.path("M9 22H39M24 4.5V22", Look::edged("none", theme.edge, 2.0));
    pen
}

fn wheel_bar(pen: &mut Pen, color: &str, scale: f32) {
    let (w, h) = (6.0 * scale, 9.5 * scale);
    let (x, y) = (24.0 - w / 2.0, 13.0 - h / 2.0);
    pen.rect(x, y, w, h, w / 2.0, Look::filled(color));
}
