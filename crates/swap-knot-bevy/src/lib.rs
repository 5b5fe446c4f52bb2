//! Swap Knot as a plugin for [Bevy](bevy_app): a [`PlayerSeat`] per player as a component, fed from
//! Bevy's input messages before every update, and messages for what happened.
//!
//! Read [the guide](guide) first.
//!
//! What of Bevy is run by the tests: every message in a headless app, the order of a window's list,
//! gaps, plugs, despawning. What was only read in its source (`bevy_winit` and `bevy_gilrs` 0.20): that
//! a window's input is written to one list and to one for each kind, that presses which winit makes up
//! for held keys are left out, that pads present at the start come by `GamepadConnectionEvent` alone,
//! and that buttons and axes without a name are passed on by the system's code.
//!
//! # Example: one player
//! ```
//! use bevy_app::{App, Update};
//! use bevy_ecs::prelude::*;
//! use bevy_input::InputPlugin;
//! use swap_knot::{Actions, Layout, Profile, Rig, Seat, Sheet};
//! use swap_knot_bevy::{PlayerSeat, SwapKnotPlugin};
//!
//! #[derive(Clone, Copy, Actions)]
//! enum Do { Horn }
//!
//! fn play(seats: Query<&PlayerSeat>) {
//!     for seat in &seats {
//!         if seat.went_down(Do::Horn) { /* sound it */ }
//!     }
//! }
//!
//! let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = [\"KeyH\", \"pad:north\"]")?;
//! let rig = Rig::new(&sheet.typed::<Do>()?, &Profile::default(), Layout::us());
//! let mut app = App::new();
//! app.add_plugins((InputPlugin, SwapKnotPlugin)).add_systems(Update, play);
//! app.world_mut().spawn(PlayerSeat::new(Seat::new(rig)));
//! app.update();
//! # Ok::<(), Box<dyn std::error::Error>>(())
//! ```

#[doc = include_str!("../docs/guide.md")]
pub mod guide {}

mod clock;
mod conditions;
mod controls;
mod devices;
mod keys;
mod plugin;
mod seat;
#[cfg(feature = "asset")]
mod sheet;
#[cfg(feature = "states")]
mod states;
#[cfg(feature = "time")]
mod steps;
mod translate;
mod watch;

#[cfg(feature = "time")]
pub use clock::FollowVirtualTime;
pub use clock::SwapKnotClock;
pub use conditions::{action_is_down, action_went_down, action_went_up};
pub use controls::{PlayerControls, UiTakes};
pub use devices::{KEYBOARD, MOUSE, SwapKnotDevices, TOUCH};
pub use keys::place;
pub use plugin::{SwapKnotPlugin, SwapKnotSystems};
pub use seat::{ActionHappened, DeviceKindChanged, PlayerDevices, PlayerSeat, SwapKnotEvent};
#[cfg(feature = "asset")]
pub use sheet::{FollowSheet, SheetAsset, SheetAssets};
#[cfg(feature = "states")]
pub use states::FollowStates;
#[cfg(feature = "time")]
pub use steps::FixedSteps;
pub use translate::{mouse_button, pad_button};
pub use watch::{Outcomes, ScreenViews};
