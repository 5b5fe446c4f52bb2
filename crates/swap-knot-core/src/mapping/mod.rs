//! What the inputs of a controller without a known mapping are on a pad, as its player taught it.

mod file;
mod learner;
mod mapper;

use std::collections::{BTreeMap, BTreeSet};

pub use file::MappingsError;
pub use learner::{Lesson, MappingLearner};
pub use mapper::{Controller, Mapper};

use crate::input::{
    Direction, HidAxis, HidButton, HidInput, Input, PadButton, Sign, Stick, UsbId, UsbIdError,
};

/// The kind of those that do not say their numbers.
const UNKNOWN: &str = "unknown";

/// What the inputs of one kind of controller are on a pad.
///
/// ```
/// use swap_knot::PadButton;
/// use swap_knot::input::{HidButton, Mapping, PadSource};
///
/// let mut mapping = Mapping::new();
/// let second = PadSource::Button(HidButton::new(2).expect("from 1 on"));
/// mapping.set(PadButton::South.into(), second)?;
/// let taken = mapping.set(PadButton::East.into(), second);
/// assert_eq!(taken.unwrap_err().to_string(), "`hid:button-2` is `pad:south` already");
/// # Ok::<(), swap_knot::input::MappingError>(())
/// ```
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Mapping {
    parts: BTreeMap<Input, PadSource>,
    /// What moves along with something that is mapped, and says nothing by itself.
    silent: BTreeSet<HidInput>,
}

/// What works a part of a pad.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[non_exhaustive]
pub enum PadSource {
    /// A button.
    Button(HidButton),
    /// A direction of the hat switch.
    Hat(Direction),
    /// One half of an axis that rests in its middle.
    Half(HidAxis, Sign),
    /// A whole axis, from the end at which it rests to the other end, towards which it is worked: many
    /// triggers rest at −1 and go to 1.
    Whole(HidAxis, Sign),
}

/// Why a part of a pad cannot be worked by something.
#[derive(Clone, Copy, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum MappingError {
    /// It is no single part of a pad.
    #[error(
        "`{0}` is no part of a pad that something works; write one such as `pad:south` or `pad:stick-left.up`"
    )]
    NoPart(Input),
    /// It works another part.
    #[error("`{}` is `{part}` already", Input::Hid(by.input()))]
    Taken {
        /// What is wanted.
        by: PadSource,
        /// What it works already.
        part: Input,
    },
}

impl PadSource {
    /// The input of the controller; of a whole axis, whichever end it rests at.
    pub const fn input(self) -> HidInput {
        match self {
            PadSource::Button(button) => HidInput::Button(button),
            PadSource::Hat(direction) => HidInput::Hat(direction),
            PadSource::Half(axis, sign) => HidInput::Half(axis, sign),
            PadSource::Whole(axis, _) => HidInput::Axis(axis),
        }
    }

    /// The axis that it is on.
    const fn axis(self) -> Option<HidAxis> {
        match self {
            PadSource::Half(axis, _) | PadSource::Whole(axis, _) => Some(axis),
            PadSource::Button(_) | PadSource::Hat(_) => None,
        }
    }

    /// Whether one movement works both.
    fn meets(self, other: PadSource) -> bool {
        let is_half = |s: PadSource| matches!(s, PadSource::Half(..));
        match (self.axis(), other.axis()) {
            (Some(a), Some(b)) if a == b => !(is_half(self) && is_half(other)) || self == other,
            _ => self == other,
        }
    }

    /// How far it is in where its axis stands, 0 to 1.
    fn pulled(self, at: f32) -> f32 {
        let towards = |sign| match sign {
            Sign::Positive => at,
            Sign::Negative => -at,
        };
        match self {
            PadSource::Half(_, sign) => towards(sign).max(0.0),
            PadSource::Whole(_, sign) => towards(sign) / 2.0 + 0.5,
            PadSource::Button(_) | PadSource::Hat(_) => 0.0,
        }
    }
}

impl Mapping {
    /// One in which nothing works anything yet.
    pub fn new() -> Mapping {
        Mapping::default()
    }

    /// Has a part of a pad worked by something: a button, a trigger, or a direction of a stick.
    ///
    /// # Errors
    /// When that is no such part, or something of it works another one.
    pub fn set(&mut self, part: Input, source: PadSource) -> Result<(), MappingError> {
        if !is_part(part) {
            return Err(MappingError::NoPart(part));
        }
        match self.worked_by(source, Some(part)) {
            Some(part) => Err(MappingError::Taken { by: source, part }),
            None => {
                self.parts.insert(part, source);
                Ok(())
            }
        }
    }

    /// Has an input say nothing: it moves along with one that is mapped, as the button at the end of a
    /// trigger does.
    pub fn silence(&mut self, input: HidInput) {
        self.silent.insert(input);
    }

    /// What works a part of the pad.
    pub fn source(&self, part: Input) -> Option<PadSource> {
        self.parts.get(&part).copied()
    }

    /// Every part of a pad that is worked, and by what.
    pub fn parts(&self) -> impl ExactSizeIterator<Item = (Input, PadSource)> {
        self.parts.iter().map(|(part, source)| (*part, *source))
    }

    /// What says nothing.
    pub fn silent(&self) -> impl ExactSizeIterator<Item = HidInput> {
        self.silent.iter().copied()
    }

    /// Whether no part of a pad is worked.
    pub fn is_empty(&self) -> bool {
        self.parts.is_empty()
    }

    /// The part that some of this works, besides one.
    fn worked_by(&self, source: PadSource, but: Option<Input>) -> Option<Input> {
        let mut parts = self.parts();
        let taken = parts.find(|(part, own)| Some(*part) != but && own.meets(source));
        taken.map(|(part, _)| part)
    }
}

/// Whether it is a part of a pad that can be worked by itself.
fn is_part(input: Input) -> bool {
    matches!(input, Input::PadButton(_) | Input::PadStickHalf(..))
}

/// The parts of a pad, in the order in which they are asked for; each stick by its directions.
fn parts() -> impl Iterator<Item = Input> {
    use PadButton as B;
    let buttons = |all: &'static [B]| all.iter().copied().map(Input::PadButton);
    let stick = |stick| Direction::ALL.map(|way| Input::PadStickHalf(stick, way));
    buttons(&[
        B::South,
        B::East,
        B::West,
        B::North,
        B::Up,
        B::Down,
        B::Left,
        B::Right,
        B::ShoulderLeft,
        B::ShoulderRight,
        B::TriggerLeft,
        B::TriggerRight,
    ])
    .chain(stick(Stick::LEFT))
    .chain(buttons(&[B::StickLeftClick]))
    .chain(stick(Stick::RIGHT))
    .chain(buttons(&[
        B::StickRightClick,
        B::CenterLeft,
        B::CenterRight,
        B::Center,
        B::Paddle1,
        B::Paddle2,
        B::Paddle3,
        B::Paddle4,
    ]))
}

/// What was taught of a kind of controller.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub enum Taught {
    /// It is a pad, worked so.
    Pad(Mapping),
    /// It is no pad: a flight stick, a wheel. It is not asked about again.
    NoPad,
}

/// What was taught of each kind of controller: a file of its own beside the profiles.
///
/// A kind is known by its USB numbers; controllers that do not say theirs are one kind, written
/// `unknown`. Which number a button or an axis has depends on the system library that reads it: what
/// was taught with one adapter holds for that one.
///
/// ```toml
/// format = 1
///
/// [controllers."1209:5a03"]
/// "pad:south" = "hid:button-2"
/// "pad:up" = "hid:hat-up"
/// "pad:stick-left.up" = "hid:y-"                           # half an axis
/// "pad:trigger-left" = "hid:z"                             # a whole one, that rests at −1
/// "pad:trigger-right" = { input = "hid:rz", rests = 1 }    # or at 1
/// silent = ["hid:button-7"]                                # moves along with something
///
/// [controllers."1209:5a04"]
/// gamepad = false                                          # no pad, and not asked about again
/// ```
///
/// ```
/// use swap_knot::PadButton;
/// use swap_knot::input::{Mappings, Taught};
///
/// let text = "format = 1\n\n[controllers.\"1209:5a03\"]\n\"pad:south\" = \"hid:button-2\"\n";
/// let mappings = Mappings::from_toml(text, "mappings")?;
/// let kind = "1209:5a03".parse().ok();
/// assert!(matches!(mappings.of(kind), Some(Taught::Pad(_))));
/// assert_eq!(mappings.to_toml(), text);
/// # Ok::<(), swap_knot::input::MappingsError>(())
/// ```
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Mappings(BTreeMap<Option<UsbId>, Taught>);

impl Mappings {
    /// The largest file that is read, in bytes (1 MiB).
    pub const MAX_BYTES: usize = 1 << 20;

    /// Where nothing was taught.
    pub fn new() -> Mappings {
        Mappings::default()
    }

    /// What was taught of a kind of controller; of those that do not say their numbers by none.
    pub fn of(&self, kind: Option<UsbId>) -> Option<&Taught> {
        self.0.get(&kind)
    }

    /// Every kind of which something was taught, in the order of their numbers.
    pub fn kinds(&self) -> impl ExactSizeIterator<Item = (Option<UsbId>, &Taught)> {
        self.0.iter().map(|(kind, taught)| (*kind, taught))
    }

    /// Takes in what was taught of a kind, in the place of what was before; none forgets that.
    pub fn set(&mut self, kind: Option<UsbId>, taught: Option<Taught>) {
        match taught {
            Some(taught) => drop(self.0.insert(kind, taught)),
            None => drop(self.0.remove(&kind)),
        }
    }

    /// Whether nothing was taught.
    pub fn is_empty(&self) -> bool {
        self.0.is_empty()
    }

    /// How a kind of controller is written: by its numbers, or `unknown` for those that do not say theirs.
    pub fn kind_name(kind: Option<UsbId>) -> String {
        kind.map_or_else(|| UNKNOWN.to_owned(), |usb| usb.to_string())
    }

    /// The kind of controller that is written so.
    ///
    /// ```
    /// use swap_knot::input::Mappings;
    ///
    /// assert_eq!(Mappings::kind_named("unknown")?, None);
    /// assert!(Mappings::kind_named("1209:5a03")?.is_some());
    /// # Ok::<(), swap_knot::input::KindNameError>(())
    /// ```
    ///
    /// # Errors
    /// When it is neither USB numbers nor `unknown`.
    pub fn kind_named(name: &str) -> Result<Option<UsbId>, KindNameError> {
        match name {
            UNKNOWN => Ok(None),
            name => name.parse().map(Some).map_err(KindNameError),
        }
    }
}

/// A text that is no kind of controller.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("{0}, or `{UNKNOWN}`")]
pub struct KindNameError(UsbIdError);
