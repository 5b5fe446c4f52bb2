//! The two questions that the crate `sdl3` has no safe form for.

#![allow(unsafe_code)]

use sdl3::keyboard::Scancode;
use sdl3::sys;
use swap_knot::Time;

/// Marks of keycodes that stand for no character (`SDLK_SCANCODE_MASK`, `SDLK_EXTENDED_MASK`).
const NO_CHARACTER: u32 = 1 << 30 | 1 << 29;

/// The time of now as SDL counts it, from its start: that of its events.
pub fn now() -> Time {
    // SAFETY: it takes nothing and only reads a clock.
    let nanos = unsafe { sys::timer::SDL_GetTicksNS() };
    Time::from_micros(nanos / 1000)
}

/// The character that a key types by itself on the player's layout.
pub(crate) fn legend(scancode: Scancode) -> Option<char> {
    typed(scancode, sys::keycode::SDL_KMOD_NONE)
}

/// The character that a key types with these modifiers.
pub(crate) fn typed(scancode: Scancode, modifiers: sys::keycode::SDL_Keymod) -> Option<char> {
    let scancode = sys::scancode::SDL_Scancode(scancode.to_i32());
    // SAFETY: it takes numbers, of which every one is allowed, and looks into a table.
    let code = unsafe { sys::keyboard::SDL_GetKeyFromScancode(scancode, modifiers, false) };
    let is_character = code.0 != 0 && code.0 & NO_CHARACTER == 0;
    let typed = is_character.then(|| char::from_u32(code.0)).flatten();
    typed.filter(|c| !c.is_control())
}
