//! A prompt with glyphs.

use egui::{Image, Response, RichText, Ui};
use swap_knot::prompt::{Piece, Rendered};
use swap_knot::{Chord, Layout, Row, Words};

use crate::GlyphTextures;

/// Shows a prompt as a line of text with glyphs in it, so many points high; answers the row of an
/// unbound action that the player clicked, so that the game can open the menu there.
///
/// A screen reader is told the spoken form.
pub fn prompt(
    ui: &mut Ui,
    shown: &Rendered,
    glyphs: &mut GlyphTextures,
    layout: &Layout,
    words: &Words,
    height: f32,
) -> Option<Row> {
    let mut asked = None;
    let line = ui.horizontal_wrapped(|ui| {
        ui.spacing_mut().item_spacing.x = 0.0;
        ui.set_row_height(height);
        let size = height * 0.68;
        let text = |text: &str| RichText::new(text).size(size);
        for piece in shown.pieces() {
            match piece {
                Piece::Text(words) => {
                    ui.label(text(words));
                }
                Piece::Input(input) => {
                    let chords = std::slice::from_ref(&input.chord);
                    all(
                        ui,
                        chords,
                        &text(&input.name),
                        glyphs,
                        layout,
                        words,
                        height,
                    );
                }
                Piece::Group { chords, name, .. } => {
                    all(ui, chords, &text(name), glyphs, layout, words, height);
                }
                Piece::Unbound { row, text: words } => {
                    let link = ui.link(text(words));
                    asked = link.clicked().then_some(*row).or(asked);
                }
                _ => {}
            }
        }
    });
    say(&line.response, shown);
    asked
}

/// The glyphs of chords, or their name where one cannot be drawn.
fn all(
    ui: &mut Ui,
    chords: &[Chord],
    name: &RichText,
    glyphs: &mut GlyphTextures,
    layout: &Layout,
    words: &Words,
    height: f32,
) {
    for each in chords {
        if !chord(ui, each, glyphs, layout, words, height) {
            ui.label(name.clone().strong());
            return;
        }
    }
}

fn say(line: &Response, shown: &Rendered) {
    let spoken = shown.spoken();
    line.widget_info(|| egui::WidgetInfo::labeled(egui::Role::Label, true, spoken.clone()));
}

/// Shows the glyphs of a chord; `false` when one of them cannot be drawn.
pub(crate) fn chord(
    ui: &mut Ui,
    chord: &Chord,
    glyphs: &mut GlyphTextures,
    layout: &Layout,
    words: &Words,
    height: f32,
) -> bool {
    let ctx = ui.ctx().clone();
    let mut all = Vec::new();
    for input in chord.inputs() {
        match glyphs.get(&ctx, input, height, layout, words) {
            Some(glyph) => all.push((glyph, words.spoken_name(input, layout))),
            None => return false,
        }
    }
    for (n, ((texture, size), name)) in all.into_iter().enumerate() {
        if n > 0 {
            ui.label(RichText::new("+").size(height * 0.55).strong());
        }
        ui.add(Image::new((texture, size)).alt_text(name));
    }
    true
}
