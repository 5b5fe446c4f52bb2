//! All drawings on one page, to look at them.

use swap_knot::{Input, Layout, Words};

use super::{Glyphs, SIZE};
use crate::drawing::Drawing;
use crate::pen::{Anchor, Look, Pen, Type};
use crate::text;

const WIDTH: f32 = 1280.0;
const MARGIN: f32 = 20.0;
const COLUMNS: usize = 10;
const HEIGHT: f32 = 72.0;
/// The size at which a glyph still has to be readable, shown beside the large one.
const SMALL: f32 = 24.0;

impl Glyphs {
    /// A page with the drawings of inputs, large and small, and their names.
    pub fn sheet(
        &self,
        inputs: impl IntoIterator<Item = Input>,
        layout: &Layout,
        words: &Words,
    ) -> Drawing {
        let inputs: Vec<Input> = inputs.into_iter().collect();
        let lines = inputs.len().div_ceil(COLUMNS);
        let height = 2.0 * MARGIN + lines as f32 * HEIGHT;
        let cell = (WIDTH - 2.0 * MARGIN) / COLUMNS as f32;
        let mut pen = Pen::new(WIDTH, height);
        pen.rect(0.0, 0.0, WIDTH, height, 0.0, Look::filled(self.theme.paper));
        for (n, input) in inputs.into_iter().enumerate() {
            let x = MARGIN + (n % COLUMNS) as f32 * cell;
            let y = MARGIN + (n / COLUMNS) as f32 * HEIGHT;
            let glyph = self.input(input, layout, words);
            let scale = ((cell - 12.0) / (glyph.width() * (1.0 + SMALL / SIZE) + 8.0)).min(0.9);
            pen.put(&glyph, x, y, SIZE * scale);
            let small = x + glyph.width() * scale + 8.0;
            let room = (SMALL / SIZE).min(scale) * SIZE;
            pen.put(&glyph, small, y + SIZE * scale - room, room);
            let name = words.input_name(input, layout);
            let (name, size) = text::fit(&name, 10.5, 7.5, cell - 8.0, false);
            let style = Type {
                size,
                bold: false,
                color: self.theme.quiet,
                anchor: Anchor::Start,
            };
            pen.text(x, y + 58.0, &name, style);
        }
        pen.finish()
    }
}
