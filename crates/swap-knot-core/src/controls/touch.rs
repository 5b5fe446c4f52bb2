//! On-screen buttons and sticks: where the player has them, and what they do right now.

use super::Controls;
use crate::input::{Input, TouchZones};
use crate::law::{Bound, force};
use crate::screen::TouchView;

impl Controls {
    /// Puts the zones of the game where the player has them, hides those that do nothing in the situations
    /// of now, and tells the controls screen of all of them, so that it has a page on which they are moved
    /// and sized. Call it in every frame, with the adapter's zones.
    ///
    /// While the screen is open, they lie as they are being edited, and all of them are there.
    pub fn arrange(&mut self, zones: &mut TouchZones) {
        let laid = zones.laid_names();
        for name in laid {
            let placement = match &self.screen {
                Some(screen) => screen.draft().placement(name),
                None => force::placement(&self.sheet, &self.profile, name),
            };
            zones.place(name, placement);
            let input = Input::Touch(name);
            let is_on = |b: &Bound| b.chord.inputs().any(|i| i == input);
            let works = self.screen.is_some() || self.seat.live_bindings().any(is_on);
            zones.hide(name, !works);
        }
        if let Some(screen) = &mut self.screen {
            screen.set_zones(zones);
        }
    }

    /// What there is to draw of the on-screen buttons and sticks: where each lies, what it does in the
    /// situations of now, and whether a finger is on it. One that does nothing now says so, and is best
    /// left out.
    ///
    /// ```
    /// use swap_knot::input::TouchZones;
    /// use swap_knot::{Controls, Layout, Profile, Sheet};
    ///
    /// let sheet = Sheet::from_toml("game = \"x\"\n[actions.horn]\ntitle = \"Horn\"\nbind = \"touch:horn\"")?;
    /// let controls = Controls::new(&sheet, Profile::default(), Layout::us());
    /// let mut zones = TouchZones::new();
    /// zones.set_screen([1280.0, 800.0]);
    /// zones.add_area("horn".parse()?, [1100.0, 600.0], [120.0, 120.0]);
    /// let view = controls.touch_view(&zones);
    /// assert_eq!((&*view.zones[0].title, view.zones[0].does), ("Horn", true));
    /// # Ok::<(), Box<dyn std::error::Error>>(())
    /// ```
    pub fn touch_view(&self, zones: &TouchZones) -> TouchView {
        let to = self.telling();
        TouchView::new(zones, &to, |input| {
            let is_on = |b: &&Bound| b.chord.inputs().any(|i| i == input);
            let live = self.seat.live_bindings().filter(is_on);
            to.rows(live.map(|b| b.cell.row))
        })
    }
}
