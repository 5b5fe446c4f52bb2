//! What became of an input for a binding, as it is told.

use super::{Cause, Seat};
use crate::input::{DeviceId, Input, Time};
use crate::law::Bound;
use crate::rig::{NotLive, blocked};
use crate::sheet::{Row, RowRef};

/// What became of an input for one binding, or for all where nothing is bound to it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum Outcome {
    /// It worked the action: there is an edge, or a motion.
    Worked,
    /// It holds an action that something else had begun already.
    AlreadyOn,
    /// The action toggles, and this press ended it.
    ToggledOff,
    /// It is not decided yet: until then where that is known, of a hold when it begins.
    Waiting {
        /// Until when; none where the player decides it by letting go.
        until: Option<Time>,
    },
    /// Nothing is bound to it.
    NotBound,
    /// The game has switched the action off.
    SwitchedOff,
    /// The player bound it so, and the sheet does not let that stand, see
    /// [`Rig::not_in_force`](crate::Rig::not_in_force).
    NotInForce,
    /// The action is not live now.
    NotLive(NotLive),
    /// This part of the chord was not held.
    NotHeld(Input),
    /// This part of the chord is down, and counts for nothing until it has been at rest.
    PartSpent(Input),
    /// This part of the chord came after the input that completes it.
    WrongOrder(Input),
    /// A longer chord has it, which works this.
    LongerChord(Row),
    /// The press is the last one of a double or triple tap, which works this and has it for itself.
    OtherManner(Row),
    /// The binding is strict, and this modifier was held that is not part of it.
    Strict(Input),
    /// The parts of the chord did not come together in time.
    NotTogether,
    /// It moved, and stayed inside the dead zone.
    AtRest,
    /// A trigger or half axis was not in far enough for it.
    NotFarEnough,
    /// It was let go too soon for a hold.
    TooShort,
    /// It was held too long for a tap.
    TooLong,
    /// The second press of a double tap came too late; it may be a first one.
    SecondTooLate,
    /// The input is spent: it counts for nothing until it has been at rest.
    Spent,
    /// It came again within the time in which quick repeats are ignored.
    TooSoon,
    /// It was not decided yet, and came to nothing.
    BrokenOff(Cause),
}

impl Outcome {
    /// The outcome as a word, the same in every version: `worked`, `not-held`. Players read the texts of
    /// [`Telling`](crate::prompt::Telling).
    pub const fn id(self) -> &'static str {
        match self {
            Outcome::Worked => "worked",
            Outcome::AlreadyOn => "already-on",
            Outcome::ToggledOff => "toggled-off",
            Outcome::Waiting { .. } => "waiting",
            Outcome::NotBound => "not-bound",
            Outcome::SwitchedOff => "switched-off",
            Outcome::NotInForce => "not-in-force",
            Outcome::NotLive(why) => why.id(),
            Outcome::NotHeld(_) => "not-held",
            Outcome::PartSpent(_) => "part-spent",
            Outcome::WrongOrder(_) => "wrong-order",
            Outcome::LongerChord(_) => "longer-chord",
            Outcome::OtherManner(_) => "other-manner",
            Outcome::Strict(_) => "strict",
            Outcome::NotTogether => "not-together",
            Outcome::AtRest => "at-rest",
            Outcome::NotFarEnough => "not-far-enough",
            Outcome::TooShort => "too-short",
            Outcome::TooLong => "too-long",
            Outcome::SecondTooLate => "second-too-late",
            Outcome::Spent => "spent",
            Outcome::TooSoon => "too-soon",
            Outcome::BrokenOff(cause) => match cause {
                Cause::LetGo => "broken-let-go",
                Cause::ChordBroken => "broken-chord",
                Cause::Focus => "broken-focus",
                Cause::Unplugged => "broken-unplugged",
                Cause::Rig => "broken-rig",
                Cause::Situation => "broken-situation",
                Cause::Spent => "broken-spent",
            },
        }
    }
}

/// An [`Outcome`] with what it is about.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub struct Told<'a> {
    /// When.
    pub at: Time,
    /// When it was so last, of a movement that goes on.
    pub last: Time,
    /// How many movements in a row; 1 for anything that is pressed.
    pub times: u32,
    /// On which device; that of an event long ago for what time decided.
    pub device: DeviceId,
    /// What was worked.
    pub input: Input,
    /// The action or arm; none where nothing is bound to the input.
    pub row: Option<Row>,
    /// The binding; none where there is none that counts.
    pub binding: Option<&'a Bound>,
    /// What became of it.
    pub outcome: Outcome,
}

impl Seat {
    /// Why nothing can work an action or arm now, and so what would have to change; none where some
    /// binding of it is live.
    ///
    /// ```
    /// use swap_knot::play::NotLive;
    /// use swap_knot::{Layout, Profile, Rig, Seat, Sheet};
    ///
    /// let sheet = Sheet::from_toml(r#"
    ///     game = "slack-water"
    ///     [situations.deck]
    ///     [situations.helm]
    ///     [actions.horn]
    ///     situation = "helm"
    ///     bind = "KeyH"
    /// "#)?;
    /// let mut seat = Seat::new(Rig::new(&sheet, &Profile::default(), Layout::us()));
    /// let horn = sheet.find("horn").expect("it is declared");
    /// assert_eq!(seat.why_not_live(horn), Some(NotLive::Elsewhere));
    /// seat.enter(sheet.find_situation("helm").expect("it is declared"));
    /// assert_eq!(seat.why_not_live(horn), None);
    /// # Ok::<(), swap_knot::sheet::SheetError>(())
    /// ```
    pub fn why_not_live(&self, row: impl Into<RowRef>) -> Option<NotLive> {
        let (sheet, wiring) = (self.rig.sheet(), self.rig.wiring());
        let Some(row) = sheet.row_of(row) else {
            return Some(NotLive::NoSuchRow);
        };
        if sheet.declared(row.action).off {
            return Some(NotLive::SwitchedOff);
        }
        let mut why = NotLive::Unbound;
        for (index, at) in wiring.of.iter().enumerate() {
            let Some(bound) = self.rig.bindings().get(*at) else {
                continue;
            };
            let is_own = bound.cell.row.action == row.action
                && (row.arm.is_none() || bound.cell.row.arm.is_none() || bound.cell.row == row);
            if !is_own {
                continue;
            }
            let silenced = |s| wiring.silenced(index as u16, s);
            why = blocked(sheet, &self.state.stack, row.action, silenced)?;
        }
        Some(why)
    }
}
