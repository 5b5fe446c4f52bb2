//! The deck and what lies over it, drawn with what SDL has: rectangles, lines and its plain letters.

use sdl3::Error;
use sdl3::pixels::Color;
use sdl3::render::{BlendMode, FPoint, FRect, WindowCanvas};
use swap_knot::screen::{TouchView, ZoneView};

use crate::deck::Deck;

const WATER: Color = Color::RGB(24, 52, 66);
const PLANKS: Color = Color::RGB(120, 92, 62);
const BRIGHT: Color = Color::RGB(255, 226, 150);
const TEXT: Color = Color::RGB(242, 244, 246);
const GLASS: Color = Color::RGBA(19, 24, 29, 150);
const HELD: Color = Color::RGBA(242, 184, 75, 150);
/// How wide and high SDL's letters are, and by how much they are drawn larger.
const LETTER: f32 = 8.0;
const LARGER: f32 = 2.0;

/// One frame: the deck, the prompt, and the on-screen controls where they are wanted.
pub(crate) fn frame(
    canvas: &mut WindowCanvas,
    deck: &Deck,
    prompt: &str,
    touch: Option<&TouchView>,
) -> Result<(), Error> {
    canvas.set_blend_mode(BlendMode::Blend);
    canvas.set_draw_color(WATER);
    canvas.clear();
    let (wide, high) = canvas.output_size()?;
    let [x, y] = [wide as f32 / 2.0, high as f32 / 2.0];
    canvas.set_draw_color(PLANKS);
    canvas.fill_rect(FRect::new(x - 300.0, y - 70.0, 600.0, 140.0))?;
    canvas.set_draw_color(BRIGHT);
    if deck.moored {
        canvas.draw_line(
            FPoint::new(x - 220.0, y - 70.0),
            FPoint::new(x - 260.0, 60.0),
        )?;
    }
    for coil in 0..deck.coils.min(8) {
        let at = FRect::new(x - 280.0 + coil as f32 * 30.0, y + 30.0, 22.0, 22.0);
        canvas.draw_rect(at)?;
    }
    let light = if deck.lit { 30.0 } else { 8.0 };
    disc(canvas, [x + 240.0, y - 30.0], light)?;
    canvas.set_draw_color(TEXT);
    disc(canvas, [x + deck.figure[0], y + deck.figure[1]], 16.0)?;
    text(canvas, prompt, [24.0, 24.0], LARGER)?;
    for zone in touch.iter().flat_map(|view| &view.zones) {
        if zone.does {
            draw_zone(canvas, zone)?;
        }
    }
    canvas.present();
    // Where the screen does not set the pace.
    std::thread::sleep(std::time::Duration::from_millis(8));
    Ok(())
}

fn draw_zone(canvas: &mut WindowCanvas, zone: &ZoneView) -> Result<(), Error> {
    let [left, top, wide, high] = zone.rect;
    let middle = [left + wide / 2.0, top + high / 2.0];
    canvas.set_draw_color(if zone.touched { HELD } else { GLASS });
    if zone.is_stick {
        let radius = wide / 2.0;
        disc(canvas, middle, radius)?;
        canvas.set_draw_color(TEXT);
        ring(canvas, middle, radius)?;
        let [x, y] = zone.at;
        let knob = radius * 0.38;
        let far = radius - knob;
        disc(canvas, [middle[0] + x * far, middle[1] - y * far], knob)?;
    } else {
        canvas.fill_rect(FRect::new(left, top, wide, high))?;
        canvas.set_draw_color(TEXT);
        canvas.draw_rect(FRect::new(left, top, wide, high))?;
    }
    let long = zone.title.chars().count() as f32 * LETTER;
    let scale = (wide / (long + LETTER)).min(LARGER);
    let below = if zone.is_stick { high * 0.38 } else { 0.0 };
    let at = [middle[0] - long * scale / 2.0, middle[1] + below - LETTER];
    text(canvas, &zone.title, at, scale)
}

/// SDL's letters are ASCII; others are left out here, as no game of yours does.
fn text(canvas: &mut WindowCanvas, text: &str, [x, y]: [f32; 2], scale: f32) -> Result<(), Error> {
    let plain: String = text.chars().filter(char::is_ascii).collect();
    canvas.set_scale(scale, scale)?;
    let drawn = canvas.draw_debug_text(&plain, FPoint::new(x / scale, y / scale));
    canvas.set_scale(1.0, 1.0)?;
    drawn.map(drop)
}

fn disc(canvas: &mut WindowCanvas, [x, y]: [f32; 2], radius: f32) -> Result<(), Error> {
    let lines = -(radius as i32)..=radius as i32;
    let rows: Vec<FRect> = lines
        .map(|line| {
            let down = line as f32;
            let half = (radius * radius - down * down).max(0.0).sqrt();
            FRect::new(x - half, y + down, 2.0 * half, 1.0)
        })
        .collect();
    canvas.fill_rects(&rows)
}

fn ring(canvas: &mut WindowCanvas, [x, y]: [f32; 2], radius: f32) -> Result<(), Error> {
    const CORNERS: usize = 72;
    let point = |n: usize| {
        let turn = n as f32 / CORNERS as f32 * std::f32::consts::TAU;
        FPoint::new(x + turn.cos() * radius, y + turn.sin() * radius)
    };
    let points: Vec<FPoint> = (0..=CORNERS).map(point).collect();
    canvas.draw_lines(&*points)
}
