//! Other controllers by what they report, and touch.

use swap_knot::input::{HidInput, Sign};

use super::{SIZE, way};
use crate::drawing::Drawing;
use crate::pen::{Anchor, Look, Pen, Type};
use crate::text;
use crate::theme::Theme;

pub(super) fn hid(input: HidInput, name: &str, theme: &Theme) -> Drawing {
    let mut pen = Pen::new(SIZE, SIZE);
    match input {
        HidInput::Button(button) => {
            let number = button.number();
            pen.circle(24.0, 24.0, 19.5, Look::edged(theme.cap, theme.edge, 2.4));
            pen.circle(24.0, 24.0, 14.5, Look::filled(theme.accent));
            let style = Type {
                size: if number > 99 { 13.0 } else { 17.0 },
                bold: true,
                color: theme.on_accent,
                anchor: Anchor::Middle,
            };
            pen.text(24.0, 30.0, &number.to_string(), style);
        }
        HidInput::Hat(direction) => {
            pen.circle(24.0, 24.0, 20.0, Look::edged(theme.cap, theme.edge, 2.4));
            pen.circle(24.0, 24.0, 5.0, Look::edged(theme.cap, theme.edge, 2.0));
            let [dx, dy] = way(direction);
            pen.arrow(
                24.0 + dx * 11.5,
                24.0 + dy * 11.5,
                6.5,
                [dx, dy],
                theme.accent,
            );
        }
        HidInput::Axis(axis) => slider(&mut pen, axis.word(), None, theme),
        HidInput::Half(axis, sign) => slider(&mut pen, axis.word(), Some(sign), theme),
        _ => return plain(name, theme),
    }
    pen.finish()
}

/// An axis as a slide with its knob; half of it is marked where half is meant.
fn slider(pen: &mut Pen, axis: &str, half: Option<Sign>, theme: &Theme) {
    pen.rect(
        4.0,
        30.0,
        40.0,
        9.0,
        4.5,
        Look::edged(theme.cap, theme.edge, 2.2),
    );
    let accent = Look::filled(theme.accent);
    match half {
        None => pen.rect(5.5, 31.5, 37.0, 6.0, 3.0, accent),
        Some(Sign::Positive) => pen.rect(24.0, 31.5, 18.5, 6.0, 3.0, accent),
        Some(Sign::Negative) => pen.rect(5.5, 31.5, 18.5, 6.0, 3.0, accent),
    }
    let knob = match half {
        None => 24.0,
        Some(Sign::Positive) => 38.0,
        Some(Sign::Negative) => 10.0,
    };
    pen.rect(
        knob - 4.0,
        26.0,
        8.0,
        17.0,
        3.0,
        Look::edged(theme.cap, theme.ink, 2.2),
    );
    let sign = match half {
        None => "",
        Some(Sign::Positive) => "+",
        Some(Sign::Negative) => "−",
    };
    // The letters of the standard for the short ones, a shortened word for the others.
    let label: String = axis.to_uppercase().chars().take(5).collect();
    let (label, size) = text::fit(&format!("{label}{sign}"), 19.0, 10.0, 44.0, true);
    let style = Type {
        size,
        bold: true,
        color: theme.ink,
        anchor: Anchor::Middle,
    };
    pen.text(24.0, 20.0, &label, style);
}

/// A touch zone: a field with the mark of a finger and its name.
pub(super) fn touch(name: &str, theme: &Theme) -> Drawing {
    let wanted = text::width(name, 14.0, true) + 46.0;
    let width = wanted.clamp(64.0, 150.0);
    let (name, size) = text::fit(name, 14.0, 10.0, width - 44.0, true);
    let mut pen = Pen::new(width, SIZE);
    let field = Look::edged(theme.cap, theme.edge, 2.2).dashed();
    pen.rect(2.0, 4.0, width - 4.0, 40.0, 9.0, field);
    pen.circle(21.0, 24.0, 11.5, Look::edged("none", theme.accent, 2.4));
    pen.circle(21.0, 24.0, 5.5, Look::filled(theme.accent));
    let style = Type {
        size,
        bold: true,
        color: theme.ink,
        anchor: Anchor::Start,
    };
    pen.text(37.0, 24.0 + size * 0.36, &name, style);
    pen.finish()
}

/// A name in a frame, for what has no drawing of its own.
pub(super) fn plain(name: &str, theme: &Theme) -> Drawing {
    let width = (text::width(name, 15.0, true) + 20.0).clamp(SIZE, 150.0);
    let (name, size) = text::fit(name, 15.0, 10.0, width - 14.0, true);
    let mut pen = Pen::new(width, SIZE);
    pen.rect(
        2.0,
        4.0,
        width - 4.0,
        40.0,
        9.0,
        Look::edged(theme.cap, theme.edge, 2.2),
    );
    let style = Type {
        size,
        bold: true,
        color: theme.ink,
        anchor: Anchor::Middle,
    };
    pen.text(width / 2.0, 24.0 + size * 0.36, &name, style);
    pen.finish()
}
