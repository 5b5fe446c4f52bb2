//! The plugin: messages in, seats fed and ticked, messages out.

use std::collections::VecDeque;

use bevy_app::{App, First, Plugin, PreUpdate};
use bevy_ecs::change_detection::DetectChangesMut as _;
use bevy_ecs::lifecycle::Remove;
use bevy_ecs::message::{MessageReader, MessageWriter, Messages};
use bevy_ecs::observer::On;
use bevy_ecs::prelude::{
    Added, Entity, IntoScheduleConfigs as _, Local, Query, Res, ResMut, Resource, SystemSet,
};
use bevy_ecs::system::SystemParam;
use bevy_input::InputSystems;
use bevy_input::gamepad::{Gamepad, RawGamepadEvent};
use bevy_input::keyboard::{KeyboardFocusLost, KeyboardInput};
use bevy_input::mouse::{MouseButtonInput, MouseMotion, MouseWheel};
use bevy_input::touch::TouchInput;
use bevy_window::WindowEvent;
use swap_knot::sheet::SituationId;
use swap_knot::{DeviceId, Event, EventKind, Seat, Time};

use crate::SwapKnotClock;
use crate::controls::{PlayerControls, UiTakes};
use crate::devices::SwapKnotDevices;
use crate::seat::{ActionHappened, DeviceKindChanged, PlayerDevices, PlayerSeat, SwapKnotEvent};
use crate::translate::{Translator, usb_id};
use crate::watch::{ScreenViews, watch};

/// What the plugin does in [`PreUpdate`], after Bevy's own input systems and one after the other.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, SystemSet)]
#[non_exhaustive]
pub enum SwapKnotSystems {
    /// Bevy's input becomes [`SwapKnotEvent`]s. What runs between this and the next, a remap menu,
    /// hears them before they are played.
    Hear,
    /// The seats are fed and ticked, and what happened is told.
    Play,
}

/// Feeds Bevy's input to every [`PlayerSeat`] and tells what happened.
///
/// It wants Bevy's `InputPlugin`, which the default plugins bring along; without it, only what a
/// game writes as [`SwapKnotEvent`] is played.
#[derive(Clone, Copy, Debug, Default)]
pub struct SwapKnotPlugin;

impl Plugin for SwapKnotPlugin {
    fn build(&self, app: &mut App) {
        app.init_resource::<SwapKnotClock>()
            .init_resource::<SwapKnotDevices>()
            .init_resource::<Updates>()
            .init_resource::<Stepped>()
            .add_message::<SwapKnotEvent>()
            .add_message::<WindowEvent>()
            .add_message::<ActionHappened>()
            .add_message::<DeviceKindChanged>()
            .add_message::<KeyboardInput>()
            .add_message::<KeyboardFocusLost>()
            .add_message::<MouseButtonInput>()
            .add_message::<MouseMotion>()
            .add_message::<MouseWheel>()
            .add_message::<TouchInput>()
            .add_message::<RawGamepadEvent>()
            .add_observer(leave)
            .add_observer(leave_controls)
            .init_resource::<UiTakes>()
            .init_resource::<ScreenViews>()
            .add_systems(First, count)
            .add_systems(
                PreUpdate,
                (
                    translate.in_set(SwapKnotSystems::Hear),
                    (
                        feed,
                        (close, watch)
                            .chain()
                            .run_if(|stepped: Res<'_, Stepped>| !stepped.0),
                    )
                        .chain()
                        .in_set(SwapKnotSystems::Play),
                ),
            )
            .configure_sets(
                PreUpdate,
                (SwapKnotSystems::Hear, SwapKnotSystems::Play)
                    .chain()
                    .after(InputSystems),
            );
        #[cfg(feature = "reflect")]
        app.register_type::<PlayerSeat>()
            .register_type::<SwapKnotClock>()
            .register_type::<UiTakes>()
            .register_type::<SwapKnotEvent>()
            .register_type::<ActionHappened>()
            .register_type::<DeviceKindChanged>();
    }
}

/// Counts updates, whether or not anybody listens, so that a gap is noticed.
#[derive(Debug, Default, Resource)]
struct Updates(u64);

fn count(mut updates: ResMut<'_, Updates>) {
    updates.0 += 1;
}

/// Everything that Bevy tells of input.
#[derive(SystemParam)]
struct Theirs<'w, 's> {
    windows: MessageReader<'w, 's, WindowEvent>,
    keys: MessageReader<'w, 's, KeyboardInput>,
    focus: MessageReader<'w, 's, KeyboardFocusLost>,
    buttons: MessageReader<'w, 's, MouseButtonInput>,
    motion: MessageReader<'w, 's, MouseMotion>,
    wheel: MessageReader<'w, 's, MouseWheel>,
    touch: MessageReader<'w, 's, TouchInput>,
    pads: MessageReader<'w, 's, RawGamepadEvent>,
    new_pads: Query<'w, 's, (Entity, &'static Gamepad), Added<Gamepad>>,
}

/// Translates what came since the last update, in its order: Bevy's windows tell all kinds of input
/// in one list, and a list for each kind besides. What is only in those, as a test or a game writes
/// it, comes after.
fn translate(
    mut theirs: Theirs<'_, '_>,
    mut devices: ResMut<'_, SwapKnotDevices>,
    clock: Res<'_, SwapKnotClock>,
    updates: Res<'_, Updates>,
    mut last: Local<'_, Option<u64>>,
    mut events: ResMut<'_, Messages<SwapKnotEvent>>,
) {
    let mut translator = Translator {
        devices: &mut devices,
        at: clock.now(),
        out: Vec::new(),
    };
    let before = last.replace(updates.0);
    if before.is_some_and(|before| updates.0 > before + 1) {
        translator.gap();
    }
    for (entity, pad) in &theirs.new_pads {
        translator.came(entity, usb_id(pad.vendor_id(), pad.product_id()));
    }
    let mut told = Told::default();
    for event in theirs.windows.read() {
        match event {
            WindowEvent::KeyboardInput(key) => {
                told.keys.push_back(key.clone());
                translator.key(key);
            }
            WindowEvent::MouseButtonInput(button) => {
                told.buttons.push_back(*button);
                translator.mouse_button(button);
            }
            WindowEvent::MouseMotion(motion) => {
                told.motion.push_back(*motion);
                translator.mouse_motion(motion);
            }
            WindowEvent::MouseWheel(wheel) => {
                told.wheel.push_back(*wheel);
                translator.wheel(wheel);
            }
            WindowEvent::TouchInput(touch) => {
                told.touch.push_back(*touch);
                translator.touch(touch);
            }
            WindowEvent::CursorMoved(moved) => {
                let at = [moved.position.x, moved.position.y];
                translator.pointed(moved.window, at);
            }
            WindowEvent::WindowResized(size) => {
                translator.resized(size.window, [size.width, size.height]);
            }
            WindowEvent::KeyboardFocusLost(_) => {
                told.focus = true;
                translator.focus_lost();
            }
            _ => {}
        }
    }
    let Told {
        keys,
        buttons,
        motion,
        wheel,
        touch,
        focus,
    } = &mut told;
    untold(theirs.keys.read(), keys, |k| translator.key(k));
    untold(theirs.buttons.read(), buttons, |b| {
        translator.mouse_button(b)
    });
    untold(theirs.motion.read(), motion, |m| translator.mouse_motion(m));
    untold(theirs.wheel.read(), wheel, |w| translator.wheel(w));
    untold(theirs.touch.read(), touch, |t| translator.touch(t));
    theirs.pads.read().for_each(|p| translator.pad(p));
    if theirs.focus.read().last().is_some() && !*focus {
        translator.focus_lost();
    }
    events.write_batch(translator.out.into_iter().map(SwapKnotEvent));
}

/// What the list of a window told already.
#[derive(Default)]
struct Told {
    keys: VecDeque<KeyboardInput>,
    buttons: VecDeque<MouseButtonInput>,
    motion: VecDeque<MouseMotion>,
    wheel: VecDeque<MouseWheel>,
    touch: VecDeque<TouchInput>,
    focus: bool,
}

/// Hands on what was not told already.
fn untold<'m, M: PartialEq + 'm>(
    all: impl Iterator<Item = &'m M>,
    told: &mut VecDeque<M>,
    mut each: impl FnMut(&M),
) {
    for message in all {
        match told.front() == Some(message) {
            true => drop(told.pop_front()),
            false => each(message),
        }
    }
}

/// Whether Bevy's fixed steps read the seats, so that a frame is closed only after them.
#[derive(Debug, Default, Resource)]
pub(crate) struct Stepped(pub(crate) bool);

/// Hands the events of a frame to the players.
fn feed(
    mut events: MessageReader<'_, '_, SwapKnotEvent>,
    mut seats: Query<'_, '_, &mut PlayerSeat>,
    mut players: Query<'_, '_, &mut PlayerControls>,
    ui: Res<'_, UiTakes>,
) {
    let events: Vec<Event> = events.read().map(|e| e.0).collect();
    let is_for = |event: &Event, devices: &PlayerDevices| {
        event.device == DeviceId::ALL || devices.has(event.device)
    };
    for mut seat in &mut seats {
        // Said to have changed when the frame is closed, and only if an answer has.
        let own = seat.bypass_change_detection();
        for event in &events {
            if is_for(event, own.devices()) {
                own.hear(event, *ui);
            }
        }
    }
    for mut player in &mut players {
        let own = player.bypass_change_detection();
        for event in &events {
            if is_for(event, own.devices()) {
                // The controls screen has everything while it is open.
                let open = own.screen().is_some();
                own.offer(event, |event, _| !open && ui.takes(event));
            }
        }
    }
}

/// Closes the frame and tells what happened.
pub(crate) fn close(
    mut seats: Query<'_, '_, (Entity, &mut PlayerSeat)>,
    mut players: Query<'_, '_, (Entity, &mut PlayerControls)>,
    clock: Res<'_, SwapKnotClock>,
    mut happened: MessageWriter<'_, ActionHappened>,
    mut kinds: MessageWriter<'_, DeviceKindChanged>,
) {
    let mut tell = |player: Entity, seat: &Seat| {
        for what in seat.happened() {
            happened.write(ActionHappened::of(player, *what, seat));
        }
        if seat.device_kind_changed() {
            let kind = seat.device_kind();
            kinds.write(DeviceKindChanged { player, kind });
        }
        seat.fingerprint()
    };
    for (player, mut seat) in &mut seats {
        let own = seat.bypass_change_detection();
        own.close(clock.now());
        let now = tell(player, own);
        if std::mem::replace(&mut own.before, now) != now {
            seat.set_changed();
        }
    }
    for (player, mut controls) in &mut players {
        let own = controls.bypass_change_detection();
        own.tick(clock.now());
        let now = tell(player, own.seat());
        if std::mem::replace(&mut own.before, now) != now {
            controls.set_changed();
        }
    }
}

/// A player who leaves in the middle of something: it ends, and that is told.
fn leave(
    gone: On<'_, '_, Remove<PlayerSeat>>,
    seats: Query<'_, '_, &PlayerSeat>,
    clock: Res<'_, SwapKnotClock>,
    mut happened: MessageWriter<'_, ActionHappened>,
) {
    let player = gone.entity;
    if let Ok(seat) = seats.get(player) {
        end(player, seat, clock.now(), &mut happened);
    }
}

/// The same of one with all that is theirs.
fn leave_controls(
    gone: On<'_, '_, Remove<PlayerControls>>,
    players: Query<'_, '_, &PlayerControls>,
    clock: Res<'_, SwapKnotClock>,
    mut happened: MessageWriter<'_, ActionHappened>,
) {
    let player = gone.entity;
    if let Ok(controls) = players.get(player) {
        end(player, controls.seat(), clock.now(), &mut happened);
    }
}

fn end(player: Entity, seat: &Seat, at: Time, happened: &mut MessageWriter<'_, ActionHappened>) {
    let mut last = seat.clone();
    let (device, what) = (DeviceId::ALL, EventKind::FocusLost);
    last.feed(&Event { at, device, what });
    last.advance(at);
    // What toggles is held by nobody, and ends with the player all the same.
    last.set_situations::<SituationId>(&[]);
    last.tick(at);
    for what in last.happened() {
        happened.write(ActionHappened::of(player, *what, &last));
    }
}
