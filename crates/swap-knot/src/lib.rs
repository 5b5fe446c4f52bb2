//! Full remapping of keys and buttons for games: a game declares what its player can *do*, and
//! Swap Knot turns device events into those actions, lets the player move every action to another
//! key, button, stick or chord without tying themselves into a knot, keeps what they chose, and
//! tells the game what to print in every prompt, on the player's own layout and device.
//!
//! # Example: sheet, types, one player's controls, screen, save
//! ```
//! use swap_knot::input::Simulated;
//! use swap_knot::{Controls, DeviceId, Layout, Locker, Place, Slug};
//!
//! // A sheet says what the player can do, and `controls!` makes types of it when the game is compiled.
//! mod controls {
//!     swap_knot::controls!("examples/controls.toml");
//! }
//! use controls::Action;
//!
//! // All of one player: their profile, layout, language, what they hold, and what is asked of it.
//! # let folder = tempfile::tempdir()?;
//! let locker = Locker::open(folder.path())?; // or `Locker::of_user("slack-water")`
//! let name = Slug::from_title("Ada");
//! let mut player = Controls::open_last(&controls::sheet(), locker, &name, Layout::us());
//!
//! // Every frame: events in, from your adapter, then time, then questions.
//! let mut keyboard = Simulated::new(DeviceId(0));
//! player.feed(&keyboard.key(Place::Space));
//! player.tick(keyboard.now());
//! assert!(player.seat().went_down(Action::CastOff));
//!
//! // What the player reads is what they can press, on their keyboard or pad, in their language.
//! assert_eq!(player.prompt("{do:cast-off} to leave")?.to_string(), "Press Space to leave");
//!
//! // All of it is theirs to change, with whatever device they hold. A skin draws the screen.
//! player.open_screen(keyboard.now());
//! assert_eq!(player.screen().map(|s| s.page()), Some(swap_knot::screen::Page::Bindings));
//!
//! // The one step that touches files.
//! player.save();
//! # Ok::<(), Box<dyn std::error::Error>>(())
//! ```
//!
//! # By hand
//! The parts of a [`Controls`] can be had alone: a [`Sheet`] read while the game runs, a [`Rig`] and a
//! [`Seat`] that plays it, a [`Draft`] with its questions, a [`Locker`], a [`Prompt`].
//! ```
//! use swap_knot::{Bind, Draft, Layout, Place, Profile, Prompt, Rig, Seat, Settle, Sheet};
//!
//! let sheet = Sheet::from_toml(r#"
//!     game = "slack-water"
//!     [actions.cast-off]
//!     bind = ["Space", "pad:south"]
//!     [actions.coil-rope]
//!     bind = ["KeyE", "pad:west"]
//! "#)?;
//! let mut seat = Seat::new(Rig::new(&sheet, &Profile::new("Ada"), Layout::us()));
//!
//! // A taken key is a question with worked-out ways to settle it.
//! let mut draft = Draft::new(&sheet, Profile::new("Ada"), Layout::us());
//! let cast_off = sheet.find("cast-off").expect("declared above");
//! let cell = sheet.defaults_of(cast_off)[0].cell;
//! if let Bind::Asks(question) = draft.bind(cell, Place::KeyE.into())? {
//!     draft.answer(question, Settle::Swap)?;
//! }
//! seat.set_rig(draft.apply());
//!
//! let mut prompt = Prompt::new("Press {cast-off} to leave", &sheet)?;
//! let text = prompt.render(seat.rig(), seat.device_kind()).to_string();
//! assert_eq!(text, "Press E to leave");
//! # Ok::<(), Box<dyn std::error::Error>>(())
//! ```
//!
//! # What it does, and what it does not
//! - It reads no device and opens no window: an adapter hands [`Event`]s in. It has no clock: time
//!   comes with events and ticks, so a [`Trace`] replays exactly.
//! - It never panics on bad input. Errors are values that say what is wrong, where, and what to do.
//! - It touches no file but those of a [`Locker`].
//!
//! # Contents
//! - The [`guide`], chapter by chapter. First [declaring](guide::declaring), [together](guide::together),
//!   [the controls screen](guide::screen) and [prompting](guide::prompting); then [everything a sheet can
//!   say](guide::everything), [every input](guide::inputs), [playing](guide::playing), [loops](guide::loops),
//!   [easing](guide::easing), [remapping](guide::remapping), [keeping](guide::keeping), [pads](guide::pads),
//!   [touch](guide::touch), [languages](guide::languages), [layouts](guide::layouts),
//!   [recipes](guide::recipes), [troubles](guide::troubles), [what is proven where](guide::support), [before
//!   shipping](guide::shipping), [moving from hard-wired keys](guide::moving)
//! - What everyday code names stands here; all of it, and the rest, in its chapter:
//!   - [`input`]: what comes in and how it is written: [`Event`], [`Input`], [`Chord`], [`Place`];
//!     touch zones, controllers of unknown numbers, simulated devices for tests
//!   - [`sheet`]: what a game declares: [`Sheet`], its actions, situations, defaults, feel
//!   - [`layout`]: which letter each place types: [`Layout`], found, chosen or learned
//!   - [`play`]: [`Controls`] for one player, [`Players`] for several; by parts [`Rig`], [`Seat`],
//!     [`Seats`]; edges, paces, outcomes, [`Trace`]
//!   - [`remap`]: [`Draft`], listener, conflicts and the ways to settle them, the rows of a menu
//!   - [`keep`]: [`Profile`] and [`Locker`]
//!   - [`prompt`]: [`Prompt`], [`Words`], [`Tell`], marks of gamepads
//!   - [`screen`]: the controls screen without its picture
//!   - [`check`]: a survey of every layout, hands and reach, a self-check for a game's tests
//!   - [`kit`]: what every adapter has to pass
//! - [`controls!`]: a sheet's actions and situations as types

pub mod guide;

#[doc(no_inline)]
pub use swap_knot_core::*;
// Each thing has one page, in its chapter.
#[doc(inline)]
pub use swap_knot_core::{check, input, keep, kit, layout, play, prompt, remap, screen, sheet};

#[cfg(feature = "controls")]
mod compiled_in;
#[cfg(feature = "controls")]
#[doc(hidden)]
pub use compiled_in::compiled_in;

/// Reads a sheet when the game is compiled: its actions, situations, presets and groups as enums,
/// and `sheet()`, which cannot fail.
///
/// The path is that of the sheet from the folder of the game's `Cargo.toml`; of several, each is
/// laid over those before it ([`Sheet::join`]). Where it stands come to be:
/// - `enum Action` ([`Actions`]), `enum Situation` ([`Situations`]), `enum Preset` and `enum Group`
///   (with `name()`), each variant with its title as docs; those that the sheet has none of are left
///   out;
/// - `fn sheet() -> Sheet`, tied to these types;
/// - `fn sheet_with_mods(&[(name, text)]) -> Result<Sheet, SheetError>`, see [`Sheet::with_mods`].
///
/// A mistake in the sheet is an error of the compiler, with the line of the sheet and the nearest
/// valid word. To add an action, add it to the sheet: nothing else wants an edit, and Cargo builds
/// again by itself.
///
/// # Example
/// ```
/// use swap_knot::{Layout, Profile, Rig, Seat};
///
/// mod controls {
///     swap_knot::controls!("examples/controls.toml");
/// }
/// use controls::Action;
///
/// let rig = Rig::new(&controls::sheet(), &Profile::default(), Layout::us());
/// let seat = Seat::new(rig);
/// assert!(!seat.is_down(Action::CastOff));
/// ```
///
/// A misspelt action does not compile:
/// ```compile_fail,E0599
/// mod controls {
///     swap_knot::controls!("examples/controls.toml");
/// }
/// let wrong = controls::Action::CastOf;
/// ```
#[cfg(feature = "controls")]
#[doc(inline)]
pub use swap_knot_controls::controls;

/// The code of the README, compiled and run with the tests.
#[cfg(doctest)]
#[doc = include_str!("../../../README.md")]
struct Readme;
