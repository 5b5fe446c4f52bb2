//! On-screen buttons and sticks: fingers on them, drawn over a game, and as a picture on the controls
//! screen.

use std::collections::BTreeSet;

use egui::{
    Align2, Color32, Context, CornerRadius, CursorIcon, Event, FontId, Id, Painter, PointerButton,
    Rect, Sense, Stroke, StrokeKind, TouchPhase, Ui, Vec2, pos2, vec2,
};
use swap_knot::input::{MouseFinger, TouchZones};
use swap_knot::screen::{Grip, Spot, Target, TouchView, ZoneView};
use swap_knot::sheet::{ActsOn, Parameter, ParameterPart};
use swap_knot::{EventKind, MouseButton};

use crate::look::{Look, size};
use crate::pen::{Pen, in_sight};

/// How much of the height there is the picture takes at most.
const SHARE: f32 = 0.62;
/// How large a corner is that is dragged: large enough for a finger.
const CORNER: f32 = 26.0;
/// How far a finger that is the mouse has its number from those of screens.
const SCREENS: u32 = 32;

/// Tells zones of the fingers on a window of egui's, and hands on what they mean: feed it as events of
/// the touch screen. Where they are drawn, by [`touch_controls`], call it in every frame.
///
/// It says how large the screen is, in egui's points. Fingers are lifted when the window loses the focus.
/// The mouse is a finger where a game has switched that on; what egui makes of a finger is no mouse.
pub fn fingers(
    ctx: &Context,
    zones: &mut TouchZones,
    mouse: &mut MouseFinger,
    mut feed: impl FnMut(EventKind),
) {
    let screen = ctx.content_rect();
    zones.set_screen([screen.width(), screen.height()]);
    let at = |p: egui::Pos2| [p.x - screen.left(), p.y - screen.top()];
    let (events, touches) = ctx.input(|i| (i.events.clone(), i.any_touches()));
    let id = Id::unique("swap-knot shadow");
    let mut shadow: Shadow = ctx.data_mut(|d| d.get_temp(id)).unwrap_or_default();
    shadow.begin(&events, touches);
    for event in events {
        let is_mouse = !shadow.is_finger(&event);
        match event {
            Event::Touch {
                device_id,
                id,
                phase,
                pos,
                ..
            } => {
                let finger = id.0 ^ device_id.0.rotate_left(SCREENS);
                match phase {
                    TouchPhase::Start => zones.down(finger, at(pos)).for_each(&mut feed),
                    TouchPhase::Move => {
                        zones.moved(finger, at(pos)).into_iter().for_each(&mut feed)
                    }
                    TouchPhase::End | TouchPhase::Cancel => {
                        zones.up(finger).into_iter().for_each(&mut feed);
                    }
                }
            }
            Event::PointerMoved(pos) if is_mouse => {
                mouse.point(at(pos), zones).into_iter().for_each(&mut feed);
            }
            Event::PointerButton {
                pos,
                button: PointerButton::Primary,
                pressed,
                ..
            } if is_mouse => {
                mouse.point(at(pos), zones).into_iter().for_each(&mut feed);
                let touched = mouse.press(MouseButton::Left, pressed, zones);
                touched.into_iter().flatten().for_each(&mut feed);
            }
            Event::WindowFocused(false) => zones.lift().into_iter().for_each(&mut feed),
            _ => {}
        }
    }
    ctx.data_mut(|d| d.insert_temp(id, shadow));
}

/// What egui tells of a pointer while there is a finger is that finger, from event to event.
#[derive(Clone, Debug, Default)]
struct Shadow {
    fingers: BTreeSet<u64>,
    /// There are fingers that came down while nobody asked.
    others: bool,
}

impl Shadow {
    /// A frame with these events, after which there are fingers or not.
    fn begin(&mut self, events: &[Event], touches: bool) {
        let tells = events.iter().any(|e| matches!(e, Event::Touch { .. }));
        self.others = touches && !tells && self.fingers.is_empty();
    }

    /// Whether an event is of a finger; each is asked about once, in order.
    fn is_finger(&mut self, event: &Event) -> bool {
        match event {
            Event::Touch { id, phase, .. } => match phase {
                TouchPhase::Start | TouchPhase::Move => _ = self.fingers.insert(id.0),
                TouchPhase::End | TouchPhase::Cancel => _ = self.fingers.remove(&id.0),
            },
            Event::WindowFocused(false) => self.fingers.clear(),
            _ => {}
        }
        self.others || !self.fingers.is_empty()
    }
}

/// Draws on-screen buttons and sticks over a game: those that do something now, lit while a finger is on
/// them. Their view is [`Controls::touch_view`](swap_knot::Controls::touch_view).
pub fn touch_controls(ctx: &Context, view: &TouchView, look: &Look) {
    let layer = egui::LayerId::new(egui::Order::Foreground, Id::unique("swap-knot touch"));
    let painter = ctx.layer_painter(layer);
    let screen = ctx.content_rect();
    for zone in view.zones.iter().filter(|z| z.does) {
        let [x, y, w, h] = zone.rect;
        let rect = Rect::from_min_size(screen.min + vec2(x, y), vec2(w, h));
        draw(&painter, zone, rect, look, look.text.gamma_multiply(0.75));
    }
}

/// A zone: what it does on a ground that lets the game through, with an edge that stands out from light
/// and dark.
fn draw(painter: &Painter, zone: &ZoneView, rect: Rect, look: &Look, edge: Color32) {
    let fill = match zone.touched {
        true => look.here.gamma_multiply(0.55),
        false => look.ground.gamma_multiply(0.55),
    };
    let (dark, light) = (
        Stroke::new(4.0, look.ground.gamma_multiply(0.8)),
        Stroke::new(2.0, edge),
    );
    if zone.is_stick {
        let (center, radius) = (rect.center(), rect.width() / 2.0);
        painter.circle(center, radius, fill, dark);
        painter.circle_stroke(center, radius, light);
        let [x, y] = zone.at;
        let knob = radius * 0.38;
        let at = center + vec2(x, -y) * (radius - knob);
        painter.circle(at, knob, look.cell.gamma_multiply(0.9), light);
    } else {
        let round = CornerRadius::same((rect.height() * 0.2).min(30.0) as u8);
        painter.rect(rect, round, fill, dark, StrokeKind::Middle);
        painter.rect_stroke(rect, round, light, StrokeKind::Inside);
    }
    // Below the middle of a stick, whose knob is there.
    let (place, align) = match zone.is_stick {
        true => (
            pos2(rect.center().x, rect.bottom() - 8.0),
            Align2::CENTER_BOTTOM,
        ),
        false => (rect.center(), Align2::CENTER_CENTER),
    };
    let room = rect.width() - 10.0;
    let font = FontId::proportional(size::TEXT);
    let galley = painter.layout(zone.title.clone(), font, look.text, room.max(30.0));
    let fits = |room: f32, wanted: f32| (room / wanted.max(1.0)).min(1.0);
    let scale = fits(room, galley.size().x).min(fits(rect.height() - 6.0, galley.size().y));
    let font = FontId::proportional((size::TEXT * scale).max(9.0));
    let galley = painter.layout(zone.title.clone(), font, look.text, room.max(30.0));
    let text = align.anchor_size(place, galley.size());
    painter.rect_filled(text.expand(2.0), 3.0, look.ground.gamma_multiply(0.6));
    painter.galley(text.min, galley, look.text);
}

/// The game's screen, small, with its zones to be dragged. A screen reader hears the rows below it.
pub(crate) fn picture(pen: &mut Pen<'_>, ui: &mut Ui, view: &TouchView, height: f32) {
    let Some([wide, high]) = view.size else {
        return;
    };
    let unit = ((ui.available_width() - 8.0) / wide).min(height * SHARE / high);
    ui.add_space(size::GAP);
    let (_, all) = ui.allocate_space(vec2(ui.available_width(), high * unit));
    let screen = Rect::from_min_size(
        pos2(all.center().x - wide * unit / 2.0, all.top()),
        vec2(wide, high) * unit,
    );
    let look = pen.look;
    let edge = Stroke::new(look.line.max(1.5), look.edge);
    ui.painter()
        .rect(screen, 4.0, look.raised, edge, StrokeKind::Outside);
    // The corners last: where zones lie over each other, each of them can be reached.
    for grip in [Grip::Middle, Grip::Corner] {
        for zone in &view.zones {
            let [x, y, w, h] = zone.rect;
            let from = screen.min + vec2(x, y) * unit;
            let whole = Rect::from_min_size(from, vec2(w, h) * unit);
            let room = Vec2::splat(CORNER.min(whole.width()));
            let (word, rect, cursor) = match grip {
                Grip::Corner => {
                    let corner = Rect::from_center_size(whole.right_bottom(), room);
                    ("corner", corner, CursorIcon::ResizeNwSe)
                }
                _ => ("zone", whole, CursorIcon::Grab),
            };
            pen.places.push((format!("{word} {}", zone.name), rect));
            let target = Target::zone(zone.name, grip, in_sight(ui, rect), unit.recip());
            pen.targets.push(target);
            let id = Id::unique(("swap-knot", word, zone.name));
            let held = ui.interact(rect, id, Sense::drag());
            if held.contains_pointer() {
                let (on, part) = (ActsOn::Zone(zone.name), ParameterPart::Whole);
                pen.hover = Some(Spot::Setting(on, Parameter::ShiftX, part));
            }
            let is_told = matches!(pen.told, Some(Spot::Setting(ActsOn::Zone(name), ..)) if name == zone.name);
            let is_meant = is_told || held.dragged();
            let edge = if is_meant { look.here } else { look.text };
            match grip {
                Grip::Corner => {
                    let stroke = Stroke::new(2.0, edge);
                    ui.painter().circle(rect.center(), 6.0, look.cell, stroke);
                }
                _ => draw(ui.painter(), zone, rect, &look, edge),
            }
            held.on_hover_cursor(cursor);
        }
    }
}
