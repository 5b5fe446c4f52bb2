//! What the pointer does on the controls screen.

use egui::{Event, PointerButton, Pos2, TouchPhase, Ui};
use swap_knot::MouseButton;
use swap_knot::screen::{ControlsScreen, PointerEvent};

/// What the pointer does, in the order in which it did it: a slow frame has much of it in it.
pub(crate) fn tell(ui: &Ui, screen: &mut ControlsScreen) {
    let at = |pos: Pos2| [pos.x, pos.y];
    let is_ours = |pos: Pos2| {
        let topmost = ui.ctx().layer_id_at(pos);
        topmost.is_none_or(|layer| layer == ui.layer_id())
    };
    for event in ui.input(|i| i.events.clone()) {
        let event = match event {
            Event::PointerMoved(pos) => PointerEvent::Moved(at(pos)),
            Event::PointerButton {
                pos,
                button,
                pressed: true,
                ..
            } if is_ours(pos) => PointerEvent::Down(button_of(button), at(pos)),
            Event::PointerButton {
                pos,
                button,
                pressed: false,
                ..
            } => PointerEvent::Up(button_of(button), at(pos)),
            Event::PointerGone => PointerEvent::Gone,
            Event::WindowFocused(false)
            | Event::Touch {
                phase: TouchPhase::Cancel,
                ..
            } => PointerEvent::Lost,
            _ => continue,
        };
        screen.point(event);
        ui.ctx().request_repaint();
    }
}

const fn button_of(button: PointerButton) -> MouseButton {
    match button {
        PointerButton::Primary => MouseButton::Left,
        PointerButton::Secondary => MouseButton::Right,
        PointerButton::Middle => MouseButton::Middle,
        PointerButton::Extra1 => MouseButton::Back,
        PointerButton::Extra2 => MouseButton::Forward,
    }
}
