//! The built-in drawings of single inputs and chords.

mod keycap;
mod mouse;
mod other;
mod pad;
mod sheet;

use swap_knot::input::Direction;
use swap_knot::{Chord, Input, Layout, Words};

use crate::drawing::Drawing;
use crate::pen::{Anchor, Pen, Type};
use crate::theme::Theme;

/// How high a glyph is, in its own pixels. Its lines stay clear at half of that.
pub(crate) const SIZE: f32 = 48.0;

/// Draws inputs in the colours of a theme.
#[derive(Clone, Debug)]
pub struct Glyphs {
    theme: Theme,
}

impl Glyphs {
    /// Glyphs in the colours of a theme.
    pub fn new(theme: &Theme) -> Glyphs {
        Glyphs {
            theme: theme.clone(),
        }
    }

    /// The drawing of an input: a keycap with the player's legend, a mouse with the part marked, a
    /// pad by what is printed on it where the words have its marks, or else by place. It is 48 high and readable from 24; keycaps grow wider with what is on them.
    pub fn input(&self, input: Input, layout: &Layout, words: &Words) -> Drawing {
        let theme = &self.theme;
        match input {
            Input::Modifier(_) | Input::Key(_) | Input::Letter(_) => {
                keycap::draw(input, layout, words, theme)
            }
            Input::MouseButton(button) => mouse::button(button, theme),
            Input::MouseMove => mouse::motion(theme),
            Input::Wheel(direction) => mouse::wheel(direction, theme),
            Input::PadButton(button) => match words.mark(input) {
                Some(mark) => pad::marked(button, mark, theme),
                None => pad::button(button, theme),
            },
            Input::PadStick(stick) => pad::stick(stick, None, theme),
            Input::PadStickHalf(stick, direction) => pad::stick(stick, Some(direction), theme),
            Input::PadGyro => pad::gyro(theme),
            Input::Hid(hid) => other::hid(hid, &words.short_name(input, layout), theme),
            Input::Touch(_) => other::touch(&words.short_name(input, layout), theme),
            other => other::plain(&words.short_name(other, layout), theme),
        }
    }

    /// The drawing of a chord: its parts with a plus between them.
    pub fn chord(&self, chord: &Chord, layout: &Layout, words: &Words) -> Drawing {
        const GAP: f32 = 22.0;
        let parts: Vec<Drawing> = chord
            .inputs()
            .map(|input| self.input(input, layout, words))
            .collect();
        let gaps = GAP * (parts.len() - 1) as f32;
        let width = parts.iter().map(Drawing::width).sum::<f32>() + gaps;
        let mut pen = Pen::new(width, SIZE);
        let mut x = 0.0;
        for (i, part) in parts.iter().enumerate() {
            if i > 0 {
                let plus = Type {
                    size: 24.0,
                    bold: true,
                    color: self.theme.ink,
                    anchor: Anchor::Middle,
                };
                pen.text(x + GAP / 2.0, SIZE / 2.0 + 8.5, "+", plus);
                x += GAP;
            }
            pen.put(part, x, 0.0, SIZE);
            x += part.width();
        }
        pen.finish()
    }
}

/// A direction on paper, where down is positive.
const fn way(direction: Direction) -> [f32; 2] {
    match direction {
        Direction::Up => [0.0, -1.0],
        Direction::Down => [0.0, 1.0],
        Direction::Left => [-1.0, 0.0],
        Direction::Right => [1.0, 0.0],
    }
}
