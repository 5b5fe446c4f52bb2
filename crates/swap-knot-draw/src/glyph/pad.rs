//! A pad by place: a diamond with one corner marked, a cross, shoulders, triggers, sticks.

use swap_knot::input::{Direction, Side};
use swap_knot::{PadButton, Stick};

use super::{SIZE, way};
use crate::drawing::Drawing;
use crate::pen::{Anchor, Look, Pen, Type};
use crate::text;
use crate::theme::Theme;

/// The widest of them.
const WIDEST: f32 = 120.0;

pub(super) fn button(button: PadButton, theme: &Theme) -> Drawing {
    use PadButton::*;
    let mut pen = Pen::new(SIZE, SIZE);
    match button {
        South => diamond(&mut pen, Direction::Down, theme),
        East => diamond(&mut pen, Direction::Right, theme),
        West => diamond(&mut pen, Direction::Left, theme),
        North => diamond(&mut pen, Direction::Up, theme),
        Up => cross(&mut pen, Direction::Up, theme),
        Down => cross(&mut pen, Direction::Down, theme),
        Left => cross(&mut pen, Direction::Left, theme),
        Right => cross(&mut pen, Direction::Right, theme),
        ShoulderLeft => shoulders(&mut pen, Side::Left, false, theme),
        ShoulderRight => shoulders(&mut pen, Side::Right, false, theme),
        TriggerLeft => shoulders(&mut pen, Side::Left, true, theme),
        TriggerRight => shoulders(&mut pen, Side::Right, true, theme),
        CenterLeft => center(&mut pen, -1.0, theme),
        CenterRight => center(&mut pen, 1.0, theme),
        Center => center(&mut pen, 0.0, theme),
        StickLeftClick => click(&mut pen, Side::Left, theme),
        StickRightClick => click(&mut pen, Side::Right, theme),
        Paddle1 => paddle(&mut pen, 1, theme),
        Paddle2 => paddle(&mut pen, 2, theme),
        Paddle3 => paddle(&mut pen, 3, theme),
        Paddle4 => paddle(&mut pen, 4, theme),
        // A place that a later version adds: the pad without a mark.
        _ => outline(&mut pen, theme),
    }
    pen.finish()
}

/// A button by what is printed on it, in a shape that says which kind of button it is.
pub(super) fn marked(button: PadButton, mark: &str, theme: &Theme) -> Drawing {
    use PadButton::*;
    // From wide ones downwards: how far the mark may reach, and the height of its middle.
    let look = Look::edged(theme.accent, theme.accent, 2.0);
    let wanted = text::width(mark, 19.0, true);
    let (mut pen, room, y) = match button {
        South | East | West | North => {
            let mut pen = Pen::new(SIZE, SIZE);
            pen.circle(24.0, 24.0, 20.5, look);
            (pen, 32.0, 24.0)
        }
        // The front edge is curved, and a trigger is the deeper one.
        ShoulderLeft | ShoulderRight | TriggerLeft | TriggerRight => {
            let width = (wanted + 24.0).clamp(SIZE, WIDEST);
            let mut pen = Pen::new(width, SIZE);
            let (top, end) = if button.is_trigger() {
                (4.0, 44.0)
            } else {
                (11.0, 40.0)
            };
            let (near, far) = (2.0, width - 2.0);
            let d = match button {
                ShoulderLeft | TriggerLeft => format!(
                    "M{near} {end}V{:.1}Q{near} {top} {:.1} {top}H{far:.1}V{end}Z",
                    top + 16.0,
                    near + 16.0
                ),
                _ => format!(
                    "M{far:.1} {end}V{:.1}Q{far:.1} {top} {:.1} {top}H{near}V{end}Z",
                    top + 16.0,
                    far - 16.0
                ),
            };
            pen.path(&d, look);
            (pen, width - 16.0, f32::midpoint(top, end) + 1.0)
        }
        _ => {
            let width = (wanted + 24.0).clamp(SIZE, WIDEST);
            let mut pen = Pen::new(width, SIZE);
            pen.rect(2.0, 8.0, width - 4.0, 32.0, 16.0, look);
            (pen, width - 16.0, 24.0)
        }
    };
    let most = if text::letters(mark) == 1 { 26.0 } else { 19.0 };
    let (mark, size) = text::fit(mark, most, 9.0, room, true);
    let style = Type {
        size,
        bold: true,
        color: theme.on_accent,
        anchor: Anchor::Middle,
    };
    let middle = pen.width() / 2.0;
    pen.text(middle, y + size * 0.36, &mark, style);
    pen.finish()
}

pub(super) fn stick(stick: Stick, direction: Option<Direction>, theme: &Theme) -> Drawing {
    let mut pen = Pen::new(SIZE, SIZE);
    outline(&mut pen, theme);
    let x = two_sticks(&mut pen, stick.0, theme);
    match direction {
        Some(direction) => {
            let [dx, dy] = way(direction);
            pen.arrow(x, STICK_Y, 6.8, [dx, dy], theme.on_accent);
        }
        None => {
            for direction in Direction::ALL {
                let [dx, dy] = way(direction);
                pen.arrow(
                    x + dx * 6.6,
                    STICK_Y + dy * 6.6,
                    3.0,
                    [dx, dy],
                    theme.on_accent,
                );
            }
        }
    }
    pen.finish()
}

/// The pad with the ways in which it is turned.
pub(super) fn gyro(theme: &Theme) -> Drawing {
    let mut pen = Pen::new(SIZE, SIZE);
    let small =
        "M16 17H32Q39 17 39 26Q39 36 35 36Q32 36 30 33H18Q16 36 13 36Q9 36 9 26Q9 17 16 17Z";
    pen.path(small, Look::edged(theme.cap, theme.edge, 2.2));
    // An arch over it and one beside it, each with its tips.
    let bow = Look::edged("none", theme.accent, 2.6);
    pen.path("M12 9.5Q24 3.5 36 9.5", bow);
    pen.arrow(37.5, 10.6, 4.2, [0.85, 0.52], theme.accent);
    pen.arrow(10.5, 10.6, 4.2, [-0.85, 0.52], theme.accent);
    let bow = Look::edged("none", theme.accent, 2.6);
    pen.path("M24 40.5V44", bow);
    pen.arrow(24.0, 43.2, 3.6, [0.0, 1.0], theme.accent);
    pen.arrow(24.0, 26.0, 5.0, [0.0, -1.0], theme.accent);
    pen.finish()
}

/// Where the sticks are, in the middle of the pad's outline.
const STICK_Y: f32 = 25.0;

/// The four buttons on the right, one of them marked.
fn diamond(pen: &mut Pen, marked: Direction, theme: &Theme) {
    for direction in Direction::ALL {
        let [dx, dy] = way(direction);
        let (x, y) = (24.0 + dx * 13.5, 24.0 + dy * 13.5);
        if direction == marked {
            pen.circle(x, y, 9.3, Look::filled(theme.accent));
        } else {
            pen.circle(x, y, 7.2, Look::edged(theme.cap, theme.edge, 2.4));
        }
    }
}

/// The cross on the left, one arm marked.
fn cross(pen: &mut Pen, marked: Direction, theme: &Theme) {
    let shape = "M17.5 4H30.5V17.5H44V30.5H30.5V44H17.5V30.5H4V17.5H17.5Z";
    pen.path(shape, Look::edged(theme.cap, theme.edge, 2.4));
    let (x, y) = match marked {
        Direction::Up => (17.5, 4.0),
        Direction::Down => (17.5, 27.5),
        Direction::Left => (4.0, 17.5),
        Direction::Right => (27.5, 17.5),
    };
    let upright = matches!(marked, Direction::Up | Direction::Down);
    let (w, h) = if upright { (13.0, 16.5) } else { (16.5, 13.0) };
    pen.rect(x, y, w, h, 2.0, Look::filled(theme.accent));
    let [dx, dy] = way(marked);
    let (x, y) = (24.0 + dx * 12.0, 24.0 + dy * 12.0);
    pen.arrow(x, y, 4.4, [dx, dy], theme.on_accent);
}

/// The front edge seen from above: shoulders as bars, triggers as the deeper shapes before them.
fn shoulders(pen: &mut Pen, side: Side, trigger: bool, theme: &Theme) {
    let body = "M4 34Q4 26 12 26H36Q44 26 44 34V45H4Z";
    pen.path(body, Look::edged(theme.cap, theme.edge, 2.2));
    for (each, x) in [(Side::Left, 5.0), (Side::Right, 27.0)] {
        let marked = each == side;
        let look = |on: bool| match on {
            true => Look::edged(theme.accent, theme.accent, 2.0),
            false => Look::edged(theme.cap, theme.edge, 2.0),
        };
        let (trigger_on, shoulder_on) = (marked && trigger, marked && !trigger);
        let d = format!(
            "M{} 14V8Q{} 3 {} 3H{}V14Z",
            x + 1.0,
            x + 1.0,
            x + 6.0,
            x + 15.0
        );
        pen.path(&d, look(trigger_on));
        pen.rect(x, 17.0, 16.0, 7.5, 3.5, look(shoulder_on));
    }
}

/// The pad from above.
fn outline(pen: &mut Pen, theme: &Theme) {
    let shape = "M13 9H35Q45.5 9 45.5 24Q45.5 40.5 39 40.5Q35 40.5 32 36H16Q13 40.5 9 40.5Q2.5 40.5 2.5 24Q2.5 9 13 9Z";
    pen.path(shape, Look::edged(theme.cap, theme.edge, 2.2));
}

/// Both sticks, the marked one large; answers its middle.
fn two_sticks(pen: &mut Pen, side: Side, theme: &Theme) -> f32 {
    let (marked, other) = match side {
        Side::Left => (16.0, 37.0),
        Side::Right => (32.0, 11.0),
    };
    pen.circle(other, STICK_Y, 4.6, Look::edged(theme.cap, theme.edge, 2.2));
    pen.circle(marked, STICK_Y, 12.2, Look::filled(theme.accent));
    marked
}

fn click(pen: &mut Pen, side: Side, theme: &Theme) {
    outline(pen, theme);
    let x = two_sticks(pen, side, theme);
    // Pressed in: a ring, and a stick that went down in it.
    pen.circle(x, STICK_Y, 7.6, Look::edged("none", theme.on_accent, 2.0));
    pen.circle(x, STICK_Y, 3.6, Look::filled(theme.on_accent));
}

/// The three in the middle; `at` is -1, 0 or 1.
fn center(pen: &mut Pen, at: f32, theme: &Theme) {
    outline(pen, theme);
    for (each, y) in [(-1.0, 19.0), (0.0, 28.0), (1.0, 19.0)] {
        let x = 24.0 + each * 10.5;
        if each == at {
            pen.circle(x, y, 6.4, Look::filled(theme.accent));
        } else {
            pen.circle(x, y, 3.0, Look::edged(theme.cap, theme.edge, 2.0));
        }
    }
}

/// The back with its four paddles, numbered from the top right.
fn paddle(pen: &mut Pen, number: u8, theme: &Theme) {
    outline(pen, theme);
    for each in 1..=4_u8 {
        let (x, y) = match each {
            1 => (29.0, 14.0),
            2 => (29.0, 25.0),
            3 => (9.0, 14.0),
            _ => (9.0, 25.0),
        };
        let look = match each == number {
            true => Look::edged(theme.accent, theme.accent, 2.0),
            false => Look::edged(theme.cap, theme.edge, 1.8),
        };
        pen.rect(x, y, 10.0, 8.0, 3.0, look);
    }
    let style = Type {
        size: 13.0,
        bold: true,
        color: theme.ink,
        anchor: Anchor::Middle,
    };
    pen.text(24.0, 28.0, &number.to_string(), style);
}
