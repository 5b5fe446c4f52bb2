//! The plugin: messages in, seats fed and ticked, messages out.

use bevy_app::{App, Plugin, PreUpdate};
use bevy_ecs::message::{MessageReader, MessageWriter, Messages};
use bevy_ecs::prelude::{Entity, IntoScheduleConfigs as _, Query, Res, ResMut, SystemSet};
use bevy_ecs::system::SystemParam;
use bevy_input::InputSystems;
use bevy_input::gamepad::RawGamepadEvent;
use bevy_input::keyboard::{KeyboardFocusLost, KeyboardInput};
use bevy_input::mouse::{MouseButtonInput, MouseMotion, MouseWheel};
use bevy_input::touch::TouchInput;
use swap_knot::{DeviceId, Event, EventKind};

use crate::devices::{KEYBOARD, MOUSE, SwapKnotDevices, TOUCH};
use crate::seat::{ActionHappened, DeviceKindChanged, InputEvent, PlayerSeat};
use crate::{SwapKnotClock, translate::Translator};

/// When the seats are fed and ticked: in [`PreUpdate`], after Bevy's own input systems.
#[derive(Clone, Debug, PartialEq, Eq, Hash, SystemSet)]
pub struct SwapKnotSystems;

/// Feeds Bevy's input to every [`PlayerSeat`] and tells what happened.
///
/// It wants Bevy's `InputPlugin`, which the default plugins bring along; without it, only what a
/// game writes as [`InputEvent`] is played.
#[derive(Clone, Copy, Debug, Default)]
pub struct SwapKnotPlugin;

impl Plugin for SwapKnotPlugin {
    fn build(&self, app: &mut App) {
        app.init_resource::<SwapKnotClock>()
            .init_resource::<SwapKnotDevices>()
            .add_message::<InputEvent>()
            .add_message::<ActionHappened>()
            .add_message::<DeviceKindChanged>()
            .add_message::<KeyboardInput>()
            .add_message::<KeyboardFocusLost>()
            .add_message::<MouseButtonInput>()
            .add_message::<MouseMotion>()
            .add_message::<MouseWheel>()
            .add_message::<TouchInput>()
            .add_message::<RawGamepadEvent>()
            .add_systems(
                PreUpdate,
                (translate, play)
                    .chain()
                    .in_set(SwapKnotSystems)
                    .after(InputSystems),
            );
    }
}

/// Everything that Bevy tells of input.
#[derive(SystemParam)]
struct Theirs<'w, 's> {
    keys: MessageReader<'w, 's, KeyboardInput>,
    focus: MessageReader<'w, 's, KeyboardFocusLost>,
    buttons: MessageReader<'w, 's, MouseButtonInput>,
    motion: MessageReader<'w, 's, MouseMotion>,
    wheel: MessageReader<'w, 's, MouseWheel>,
    touch: MessageReader<'w, 's, TouchInput>,
    pads: MessageReader<'w, 's, RawGamepadEvent>,
}

/// Bevy keeps a list for each kind of input, so the order between kinds within one frame is lost;
/// keys go first, since a chord is held before it is completed.
fn translate(
    mut theirs: Theirs<'_, '_>,
    mut devices: ResMut<'_, SwapKnotDevices>,
    clock: Res<'_, SwapKnotClock>,
    mut events: ResMut<'_, Messages<InputEvent>>,
) {
    let mut translator = Translator {
        devices: &mut devices,
        at: clock.now(),
        out: Vec::new(),
    };
    theirs.keys.read().for_each(|k| translator.key(k));
    theirs
        .buttons
        .read()
        .for_each(|b| translator.mouse_button(b));
    theirs
        .motion
        .read()
        .for_each(|m| translator.mouse_motion(m));
    theirs.wheel.read().for_each(|w| translator.wheel(w));
    theirs.touch.read().for_each(|t| translator.touch(t));
    theirs.pads.read().for_each(|p| translator.pad(p));
    if theirs.focus.read().last().is_some() {
        let (at, what) = (translator.at, EventKind::FocusLost);
        let lost = [KEYBOARD, MOUSE, TOUCH].map(|device| Event { at, device, what });
        translator.out.extend(lost);
    }
    events.write_batch(translator.out.into_iter().map(InputEvent));
}

fn play(
    mut events: MessageReader<'_, '_, InputEvent>,
    mut seats: Query<'_, '_, (Entity, &mut PlayerSeat)>,
    clock: Res<'_, SwapKnotClock>,
    mut happened: MessageWriter<'_, ActionHappened>,
    mut kinds: MessageWriter<'_, DeviceKindChanged>,
) {
    let events: Vec<Event> = events.read().map(|e| e.0).collect();
    for (player, mut seat) in &mut seats {
        for event in &events {
            if event.device == DeviceId::ALL || seat.devices.has(event.device) {
                seat.feed(event);
            }
        }
        seat.tick(clock.now());
        for what in seat.happened() {
            happened.write(ActionHappened {
                player,
                what: *what,
                sheet: seat.rig().sheet().clone(),
            });
        }
        if seat.device_kind_changed() {
            let kind = seat.device_kind();
            kinds.write(DeviceKindChanged { player, kind });
        }
    }
}
