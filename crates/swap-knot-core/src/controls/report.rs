//! What a player should be told of their controls.

use super::HiddenDefault;
use crate::conflict::Conflict;
use crate::draft::CarriedOver;
use crate::input::DeviceKind;
use crate::law::NotInForce;
use crate::locker::{ErrandDone, LoadNote, LockerError, Saved};
use crate::mapping::Controller;
use crate::profile::Overruled;
use crate::rig::RigNote;
use crate::words::{Tell, Telling};

/// Something that happened to a player's controls and that they did not do themselves.
///
/// Show it by [`Controls::tell`](crate::Controls::tell), in their language; what it holds has the
/// paths and names for a log.
#[derive(Debug)]
#[non_exhaustive]
pub enum Report {
    /// The profile could not be read as it should.
    Load(LoadNote),
    /// It came from an older version of the game, or does not go with this one in all.
    CarriedOver(Box<CarriedOver>),
    /// It was saved, and something had changed underneath or was set aside.
    Saved(Box<Saved>),
    /// It could not be saved. It is played on, and tried again later.
    CannotSave(LockerError),
    /// What came of an [`Errand`](crate::keep::Errand) that was sent while no controls screen is open,
    /// which would tell it: with it the profiles that there are now, or the text that was asked for.
    /// There is nothing to show of one that is just done.
    Errand(Box<ErrandDone>),
    /// What was changed beneath a draft gave way to what the player edited.
    Overruled(Overruled),
    /// A change from elsewhere, or another layout, brings two bindings together.
    Conflict(Box<Conflict>),
    /// The same takes a setting of the player's out of force.
    NotInForce(NotInForce),
    /// The sheet was edited while the game runs, and the profile in play hides what was edited.
    HiddenDefault(Box<HiddenDefault>),
    /// A letter of the sheet's has no key of its own on the player's layout.
    Note(RigNote),
    /// A device that the player used was unplugged. It plays for them again when it comes back.
    Unplugged(DeviceKind),
    /// It came back.
    PluggedAgain(DeviceKind),
    /// A controller was used that is no pad by itself, and of which nothing was taught: the controls
    /// screen teaches it.
    Untaught(Controller),
}

impl Tell for Report {
    fn tell(&self, to: &Telling<'_>) -> String {
        let of_device = |id: &str, kind: DeviceKind| {
            let device = to.words().device_name(kind);
            to.say(id, &[("device", &device)])
        };
        match self {
            Report::Load(note) => note.tell(to),
            Report::CarriedOver(carried) => carried.tell(to),
            Report::Saved(saved) => saved.tell(to),
            Report::CannotSave(error) => error.tell(to),
            Report::Errand(done) => done.tell(to),
            Report::Overruled(overruled) => overruled.tell(to),
            Report::Conflict(conflict) => conflict.tell(to),
            Report::NotInForce(not) => not.tell(to),
            Report::HiddenDefault(hidden) => hidden.tell(to),
            Report::Note(note) => note.tell(to),
            Report::Unplugged(kind) => of_device("device-unplugged", *kind),
            Report::PluggedAgain(kind) => of_device("device-back", *kind),
            Report::Untaught(_) => {
                let page = to.say("page-pad", &[]);
                to.say("controller-untaught", &[("page", &page)])
            }
        }
    }
}
