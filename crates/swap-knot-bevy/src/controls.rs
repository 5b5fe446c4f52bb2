//! A player with all that is theirs as a component, and who sees an event first.

use std::ops::{Deref, DerefMut};
use std::time::Duration;

#[cfg(feature = "reflect")]
use bevy_ecs::prelude::ReflectResource;
use bevy_ecs::prelude::{Component, Resource};
use swap_knot::play::{Pace, Reading};
use swap_knot::sheet::RowRef;
use swap_knot::{Controls, DeviceKind, Event, Seat};

use crate::PlayerDevices;

/// A player with all that is theirs: profile, layout, words, the controls screen when it is open. Other
/// than a [`PlayerSeat`](crate::PlayerSeat), which is a seat alone, it learns the layout, keeps the profile
/// ([`Controls::saving`]) and has prompts. An entity has the one or the other.
///
/// ```
/// use bevy_app::{App, Update};
/// use bevy_ecs::prelude::*;
/// use bevy_input::InputPlugin;
/// use swap_knot::{Actions, Controls, Layout, Profile, Sheet};
/// use swap_knot_bevy::{PlayerControls, SwapKnotPlugin};
///
/// #[derive(Clone, Copy, Actions)]
/// enum Do { Horn }
///
/// fn play(mut players: Query<&mut PlayerControls>) {
///     for mut player in &mut players {
///         if player.seat().went_down(Do::Horn) { /* sound it */ }
///         let told = player.prompt("{do:horn}").expect("the horn is declared");
///         if let Some(saving) = player.saving() {
///             // On a task pool, where the store takes its time.
///             let done = saving.run();
///             player.saved(done);
///         }
///     }
/// }
///
/// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = [\"KeyH\", \"pad:north\"]")?;
/// let controls = Controls::new(&sheet.typed::<Do>()?, Profile::new("Ada"), Layout::us());
/// let mut app = App::new();
/// app.add_plugins((InputPlugin, SwapKnotPlugin)).add_systems(Update, play);
/// app.world_mut().spawn(PlayerControls::new(controls));
/// app.update();
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Debug, Component)]
pub struct PlayerControls {
    controls: Controls,
    devices: PlayerDevices,
    /// How Bevy's fixed step reads the seat.
    pub(crate) steps: Pace,
    /// The answers as of the last update, to see whether one changed.
    pub(crate) before: u64,
}

impl PlayerControls {
    /// A player whom every device plays for.
    pub fn new(controls: Controls) -> PlayerControls {
        PlayerControls {
            before: controls.seat().fingerprint(),
            controls,
            devices: PlayerDevices::All,
            steps: Pace::new(),
        }
    }

    /// The seat as the fixed step reads it that is running or ran last; see
    /// [`PlayerSeat::step`](crate::PlayerSeat::step).
    pub fn step(&self) -> Reading<'_> {
        self.steps.last(self.controls.seat())
    }

    /// Whether a press came within the last so long that no fixed step has taken yet, see
    /// [`Pace::take_press`].
    pub fn take_press_in_step(&mut self, row: impl Into<RowRef>, within: Duration) -> bool {
        self.steps.take_press(self.controls.seat(), row, within)
    }

    #[cfg(feature = "time")]
    pub(crate) fn read_step(&mut self) {
        let _ = self.steps.read(self.controls.seat());
    }

    /// Which devices play for this player.
    pub fn devices(&self) -> &PlayerDevices {
        &self.devices
    }

    /// Has other devices play for this player. What is held on one that leaves ends with the next
    /// update.
    pub fn set_devices(&mut self, devices: PlayerDevices) {
        let seat: &mut Seat = self.controls.seat_mut();
        seat.keep_devices(|device| devices.has(device));
        self.devices = devices;
    }
}

impl Deref for PlayerControls {
    type Target = Controls;

    fn deref(&self) -> &Controls {
        &self.controls
    }
}

impl DerefMut for PlayerControls {
    fn deref_mut(&mut self) -> &mut Controls {
        &mut self.controls
    }
}

/// What the game's own user interface has of the input just now, and no player plays: a text field with
/// the focus has the keyboard, a widget under the pointer the mouse. Say so before
/// [`SwapKnotSystems::Play`](crate::SwapKnotSystems::Play), in [`PreUpdate`](bevy_app::PreUpdate).
///
/// The controls screen of a [`PlayerControls`] goes before it: while it is open it has everything.
///
/// ```
/// use bevy_app::{App, PreUpdate};
/// use bevy_ecs::prelude::*;
/// use swap_knot_bevy::{SwapKnotPlugin, SwapKnotSystems, UiTakes};
///
/// fn say(mut takes: ResMut<UiTakes>) {
///     takes.keyboard = false; // whether a text field has the focus
///     takes.pointer = false;  // whether the pointer is over a widget, or drags one
/// }
///
/// App::new()
///     .add_plugins(SwapKnotPlugin)
///     .add_systems(PreUpdate, say.before(SwapKnotSystems::Play));
/// ```
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Resource)]
#[cfg_attr(
    feature = "reflect",
    derive(bevy_reflect::Reflect),
    reflect(opaque, Resource, Clone, Debug, PartialEq)
)]
pub struct UiTakes {
    /// Keys are typed into a text field.
    pub keyboard: bool,
    /// Buttons, wheel and motion of the mouse work a widget.
    pub pointer: bool,
}

impl UiTakes {
    /// Whether an event is the user interface's.
    pub(crate) fn takes(self, event: &Event) -> bool {
        match event.what.device_kind() {
            Some(DeviceKind::Keyboard) => self.keyboard,
            Some(DeviceKind::Mouse) => self.pointer,
            _ => false,
        }
    }
}
