//! Keycaps with the player's legend.

use swap_knot::input::Direction;
use swap_knot::{Input, Layout, Place, Words};

use super::{SIZE, way};
use crate::drawing::Drawing;
use crate::pen::{Anchor, Look, Pen, Type};
use crate::text;
use crate::theme::Theme;

/// The widest cap; longer names are cut short.
const WIDEST: f32 = 132.0;

pub(super) fn draw(input: Input, layout: &Layout, words: &Words, theme: &Theme) -> Drawing {
    if let Input::Key(place) = input
        && let Some(direction) = arrow(place)
    {
        let mut pen = blank(SIZE, theme);
        pen.arrow(24.0, 21.5, 10.0, way(direction), theme.ink);
        return pen.finish();
    }
    let legend = words.short_name(input, layout);
    let second = match input {
        Input::Key(place) => layout.second_legend(place),
        _ => None,
    };
    let single = text::letters(&legend) == 1;
    if single {
        return letter(&legend, second, theme);
    }
    let size = if text::letters(&legend) == 2 {
        20.0
    } else {
        16.5
    };
    let wanted = text::width(&legend, size, true) + 20.0;
    let width = wanted.clamp(SIZE, WIDEST);
    let (legend, size) = text::fit(&legend, size, 11.0, width - 14.0, true);
    let mut pen = blank(width, theme);
    let style = Type {
        size,
        bold: true,
        color: theme.ink,
        anchor: Anchor::Middle,
    };
    pen.text(width / 2.0, 22.0 + size * 0.36, &legend, style);
    pen.finish()
}

/// One letter, large; what else is printed on the key below it.
fn letter(legend: &str, second: Option<char>, theme: &Theme) -> Drawing {
    let mut pen = blank(SIZE, theme);
    let style = |size, color| Type {
        size,
        bold: true,
        color,
        anchor: Anchor::Middle,
    };
    match second {
        None => pen.text(24.0, 30.5, legend, style(24.0, theme.ink)),
        Some(second) => {
            pen.text(17.0, 25.5, legend, style(20.0, theme.ink));
            pen.text(34.0, 34.5, &second.to_string(), style(14.5, theme.ink));
        }
    }
    pen.finish()
}

/// A cap with nothing on it: a side and a top.
fn blank(width: f32, theme: &Theme) -> Pen {
    let mut pen = Pen::new(width, SIZE);
    let side = Look::edged(theme.edge, theme.edge, 2.0);
    pen.rect(2.0, 2.5, width - 4.0, 43.0, 8.0, side);
    let top = Look::filled(theme.cap);
    pen.rect(3.5, 4.0, width - 7.0, 35.5, 6.5, top);
    pen
}

fn arrow(place: Place) -> Option<Direction> {
    Some(match place {
        Place::ArrowUp => Direction::Up,
        Place::ArrowDown => Direction::Down,
        Place::ArrowLeft => Direction::Left,
        Place::ArrowRight => Direction::Right,
        _ => return None,
    })
}
