//! Who sees an event first: a widget of egui's, or the game.

use egui::Context;
use swap_knot::{DeviceKind, Event};

/// Whether an event belongs to a widget of egui's rather than to the game: keys while a text field has
/// the focus, the mouse while it is over a widget or drags one.
///
/// Hand it to [`Controls::offer`](swap_knot::Controls::offer) with every event. While the controls
/// screen is open it has everything, and there is nothing to ask.
///
/// ```no_run
/// # fn feed(ctx: &egui::Context, controls: &mut swap_knot::Controls, event: &swap_knot::Event) {
/// let open = controls.screen().is_some();
/// controls.offer(event, |event, _| !open && swap_knot_egui::wants(ctx, event));
/// # }
/// ```
pub fn wants(ctx: &Context, event: &Event) -> bool {
    match event.what.device_kind() {
        Some(DeviceKind::Keyboard) => ctx.egui_wants_keyboard_input(),
        Some(DeviceKind::Mouse) => ctx.egui_wants_pointer_input(),
        _ => false,
    }
}
