//! The hands of the two sailors: what they press, and the frames that go by.

use std::time::Duration;

use bevy_app::App;
use bevy_time::TimeUpdateStrategy;
use swap_knot::input::Simulated;
use swap_knot::{DeviceId, Event, PadButton, Place, Stick};
use swap_knot_bevy::{KEYBOARD, SwapKnotClock, SwapKnotEvent};

/// The pad that Bo plays with.
pub(crate) const PAD: DeviceId = DeviceId(9);

/// Lets so many frames go by, with what devices do in the first of them.
fn frames(app: &mut App, count: u64, events: &[Event]) {
    for n in 0..count {
        // What comes is stamped with the time of the frame that is under way.
        let at = app.world().resource::<SwapKnotClock>().now();
        for event in events.iter().filter(|_| n == 0) {
            let event = SwapKnotEvent(Event { at, ..*event });
            app.world_mut().write_message(event);
        }
        app.update();
    }
}

/// Both walk, Ada coils, and Bo looks into the menu.
pub(crate) fn play(app: &mut App) {
    let (keys, pad) = (Simulated::new(KEYBOARD), Simulated::new(PAD));
    let frame = Duration::from_millis(20);
    app.insert_resource(TimeUpdateStrategy::ManualDuration(frame));
    app.update();
    let both = [keys.key(Place::KeyW), pad.tilt(Stick::LEFT, [1.0, 0.0])];
    frames(app, 3, &both);
    frames(app, 8, &[keys.key(Place::KeyE)]);
    // Bo walks on when the menu closes; nothing of it was played while it was open.
    frames(app, 4, &[pad.press(PadButton::CenterRight)]);
    let west = [pad.press(PadButton::West), pad.release(PadButton::West)];
    frames(app, 1, &west);
    frames(app, 1, &[pad.release(PadButton::CenterRight)]);
    frames(app, 1, &[pad.press(PadButton::CenterRight)]);
    frames(app, 8, &[pad.press(PadButton::West)]);
}

/// Ada coils with another key.
pub(crate) fn coil_with(app: &mut App, key: Place) {
    frames(app, 8, &[Simulated::new(KEYBOARD).key(key)]);
}
