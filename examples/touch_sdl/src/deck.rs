//! What the actions move.

use swap_knot::sheet::ActionId;
use swap_knot::{Seat, Sheet};

/// A figure on a deck, a rope, and coils of it.
pub(crate) struct Deck {
    walk: ActionId,
    cast_off: ActionId,
    coil: ActionId,
    lantern: ActionId,
    /// Where the figure stands, from the middle of the deck.
    pub(crate) figure: [f32; 2],
    pub(crate) moored: bool,
    pub(crate) coils: u32,
    pub(crate) lit: bool,
}

impl Deck {
    pub(crate) fn new(sheet: &Sheet) -> Option<Deck> {
        Some(Deck {
            walk: sheet.find("walk")?,
            cast_off: sheet.find("cast-off")?,
            coil: sheet.find("coil-rope")?,
            lantern: sheet.find("lantern")?,
            figure: [0.0; 2],
            moored: true,
            coils: 0,
            lit: false,
        })
    }

    /// Moves everything by one frame.
    pub(crate) fn play(&mut self, seat: &Seat) {
        const STEP: f32 = 4.0;
        let [x, y] = seat.plane(self.walk);
        self.figure[0] = (self.figure[0] + x * STEP).clamp(-240.0, 240.0);
        self.figure[1] = (self.figure[1] - y * STEP).clamp(-50.0, 50.0);
        self.moored ^= seat.went_down(self.cast_off);
        self.coils += u32::from(seat.went_down(self.coil));
        self.lit = seat.is_down(self.lantern);
    }
}
