//! Shapes and text as SVG.

use std::fmt::Write as _;

use crate::drawing::Drawing;
use crate::text::FAMILY;

/// Draws onto a drawing. Numbers are pixels of the drawing.
pub(crate) struct Pen {
    drawing: Drawing,
}

/// How a shape is filled and outlined.
#[derive(Clone, Copy)]
pub(crate) struct Look<'a> {
    pub(crate) fill: &'a str,
    pub(crate) stroke: &'a str,
    pub(crate) width: f32,
    pub(crate) dashed: bool,
}

impl<'a> Look<'a> {
    pub(crate) const fn filled(fill: &'a str) -> Look<'a> {
        Look {
            fill,
            stroke: "none",
            width: 0.0,
            dashed: false,
        }
    }

    pub(crate) const fn edged(fill: &'a str, stroke: &'a str, width: f32) -> Look<'a> {
        Look {
            fill,
            stroke,
            width,
            dashed: false,
        }
    }

    pub(crate) const fn dashed(self) -> Look<'a> {
        Look {
            dashed: true,
            ..self
        }
    }
}

impl std::fmt::Display for Look<'_> {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        write!(f, " fill=\"{}\"", self.fill)?;
        if self.width > 0.0 {
            let (stroke, width) = (self.stroke, self.width);
            write!(f, " stroke=\"{stroke}\" stroke-width=\"{width}\"")?;
        }
        if self.dashed {
            f.write_str(" stroke-dasharray=\"5 4\"")?;
        }
        Ok(())
    }
}

/// Where a text stands from its point.
#[derive(Clone, Copy, PartialEq, Eq)]
pub(crate) enum Anchor {
    Start,
    Middle,
    End,
}

/// How a text looks.
#[derive(Clone, Copy)]
pub(crate) struct Type<'a> {
    pub(crate) size: f32,
    pub(crate) bold: bool,
    pub(crate) color: &'a str,
    pub(crate) anchor: Anchor,
}

impl Pen {
    pub(crate) fn new(width: f32, height: f32) -> Pen {
        Pen {
            drawing: Drawing {
                width,
                height,
                body: String::new(),
            },
        }
    }

    pub(crate) fn finish(self) -> Drawing {
        self.drawing
    }

    pub(crate) const fn width(&self) -> f32 {
        self.drawing.width
    }

    pub(crate) fn grow(&mut self, height: f32) {
        self.drawing.height = self.drawing.height.max(height);
    }

    // Writing to a String cannot fail, so what `write!` answers is let go in all of these.

    pub(crate) fn rect(&mut self, x: f32, y: f32, w: f32, h: f32, round: f32, look: Look<'_>) {
        let _ = write!(
            self.drawing.body,
            "<rect x=\"{x:.2}\" y=\"{y:.2}\" width=\"{w:.2}\" height=\"{h:.2}\" rx=\"{round}\"{look}/>"
        );
    }

    pub(crate) fn circle(&mut self, x: f32, y: f32, r: f32, look: Look<'_>) {
        let body = &mut self.drawing.body;
        let _ = write!(
            body,
            "<circle cx=\"{x:.2}\" cy=\"{y:.2}\" r=\"{r:.2}\"{look}/>"
        );
    }

    /// A path in SVG's own words.
    pub(crate) fn path(&mut self, d: &str, look: Look<'_>) {
        let body = &mut self.drawing.body;
        let _ = write!(
            body,
            "<path d=\"{d}\" stroke-linejoin=\"round\" stroke-linecap=\"round\"{look}/>"
        );
    }

    /// A filled triangle whose tip points in a direction, around a point.
    pub(crate) fn arrow(&mut self, x: f32, y: f32, size: f32, way: [f32; 2], color: &str) {
        let [dx, dy] = way.map(|d| d * size);
        let (tip, base) = ((x + dx, y + dy), (x - dx * 0.45, y - dy * 0.45));
        let d = format!(
            "M{:.2} {:.2}L{:.2} {:.2}L{:.2} {:.2}Z",
            tip.0,
            tip.1,
            base.0 - dy,
            base.1 + dx,
            base.0 + dy,
            base.1 - dx
        );
        self.path(&d, Look::filled(color));
    }

    /// A text with its baseline at a point.
    pub(crate) fn text(&mut self, x: f32, y: f32, text: &str, style: Type<'_>) {
        let anchor = match style.anchor {
            Anchor::Start => "start",
            Anchor::Middle => "middle",
            Anchor::End => "end",
        };
        let weight = if style.bold {
            " font-weight=\"bold\""
        } else {
            ""
        };
        let _ = write!(
            self.drawing.body,
            "<text x=\"{x:.2}\" y=\"{y:.2}\" font-family=\"{FAMILY}\" font-size=\"{:.2}\"{weight} fill=\"{}\" text-anchor=\"{anchor}\">{}</text>",
            style.size,
            style.color,
            escaped(text)
        );
    }

    pub(crate) fn put(&mut self, other: &Drawing, x: f32, y: f32, height: f32) {
        self.drawing.put(other, x, y, height);
    }
}

/// Text as it stands in XML.
pub(crate) fn escaped(text: &str) -> String {
    let mut out = String::with_capacity(text.len());
    for character in text.chars() {
        match character {
            '&' => out.push_str("&amp;"),
            '<' => out.push_str("&lt;"),
            '>' => out.push_str("&gt;"),
            '"' => out.push_str("&quot;"),
            // XML 1.0 has no other control characters.
            c if c.is_control() && c != '\n' && c != '\t' => {}
            c => out.push(c),
        }
    }
    out
}
