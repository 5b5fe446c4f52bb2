//! What of a controls screen can be focused, pointed at and chosen.

use super::ControllerCommand;
use crate::input::{DeviceId, Input, Place, UsbId};
use crate::mapping::Mappings;
use crate::sheet::{ActsOn, Cell, Parameter, ParameterPart, Sheet};
use crate::text::spelled;

spelled! {
    /// A page of the controls screen.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    #[non_exhaustive]
    pub enum Page {
        /// What works what.
        Bindings = "bindings",
        /// How it feels, and what makes it easier to play with.
        Feel = "feel",
        /// The player's profiles.
        Profiles = "profiles",
        /// The keyboard and what is on it.
        Keyboard = "keyboard",
        /// The pad, whose marks it has and what is on it; and other controllers.
        Pad = "pad",
        /// Where the on-screen buttons and sticks lie; where the game has any.
        Touch = "touch",
        /// A sandbox: every action lit as it is worked.
        Try = "try",
    }
}

spelled! {
    /// A button over the page.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    #[non_exhaustive]
    pub enum Tool {
        /// Plays with the changes from here on, and has them kept.
        Apply = "apply",
        /// Takes the last change back.
        Undo = "undo",
        /// Makes it again.
        Redo = "redo",
        /// Back to the game's own: what is focused, its action, its group, its devices, everything.
        Reset = "reset",
        /// The game's presets, and one made for the other hand.
        Presets = "presets",
        /// Shows what is rarely wanted: the tools that follow here, and how to go back to the game's own.
        More = "more",
        /// Searches by title.
        Search = "search",
        /// Searches by input: what is on this key?
        Find = "find",
        /// Shows conflicts and what is unbound first, or in the game's order again.
        OpenFirst = "open-first",
        /// Ends a search.
        ShowAll = "show-all",
        /// Leaves the screen.
        Leave = "leave",
    }
}

spelled! {
    /// What can be done with a profile.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    #[non_exhaustive]
    pub enum ProfileCommand {
        /// Play with it.
        Switch = "switch",
        /// Make another one like it.
        Copy = "copy",
        /// Give it another name.
        Rename = "rename",
        /// Take it away; it can be brought back.
        Delete = "delete",
        /// Bring it back.
        Undelete = "undelete",
        /// Show it as text.
        Export = "export",
    }
}

/// Something of a controls screen that can be focused, pointed at and chosen.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[non_exhaustive]
pub enum Spot {
    /// The tab of a page.
    Page(Page),
    /// A button over the page.
    Tool(Tool),
    /// A binding.
    Cell(Cell),
    /// What the page of feel is about: all actions or one.
    About,
    /// A part of a setting: of what the page is about, of a device kind or of a touch zone.
    Setting(ActsOn, Parameter, ParameterPart),
    /// Makes a new profile.
    NewProfile,
    /// Takes a profile in that comes as text.
    Import,
    /// A deed on a profile, by its place in the list.
    Profile(u16, ProfileCommand),
    /// The keyboard layout.
    Layout,
    /// Shows what another layout has, or the player's own again.
    Rehearse,
    /// A key of the board.
    Key(Place),
    /// The family whose marks the player's pads have.
    Family,
    /// A part of the pad, or an input of another controller.
    Part(Input),
    /// A deed on a kind of controller that is no pad by itself.
    Controller(Option<UsbId>, ControllerCommand),
    /// Who plays with a device.
    Device(DeviceId),
    /// Takes in what was taught of controllers, as text.
    Controllers,
    /// Where the actions are tried.
    Where,
    /// Begins or ends trying.
    Trying,
    /// An answer of the dialog, by its place.
    Answer(u16),
    /// A letter of the dialog that types, by its place.
    Letter(u16),
}

impl Spot {
    /// The page on which it is a number or a switch that has something to go back to; none of others.
    pub(super) const fn number_is_on(self) -> Option<Page> {
        match self {
            Spot::Setting(ActsOn::Zone(_), ..) => Some(Page::Touch),
            Spot::Setting(..) => Some(Page::Feel),
            _ => None,
        }
    }

    /// A name that stays: `page feel`, `cell walk.up keyboard-1`, `feel gamepad dead-zone`. For tests,
    /// and for arrows that point something out.
    pub fn id(self, sheet: &Sheet) -> String {
        match self {
            Spot::Page(page) => format!("page {}", page.word()),
            Spot::Tool(tool) => format!("tool {}", tool.word()),
            Spot::Cell(cell) => format!("cell {} {}", sheet.row_name(cell.row), cell.column),
            Spot::About => "about".to_owned(),
            Spot::Setting(on, parameter, part) => {
                let word = parameter.part_word(part);
                match on {
                    ActsOn::Inputs(kind) => format!("feel {kind} {word}"),
                    ActsOn::Actions => format!("ease {word}"),
                    ActsOn::Zone(name) => format!("zone {name} {word}"),
                }
            }
            Spot::NewProfile => "new-profile".to_owned(),
            Spot::Import => "import".to_owned(),
            Spot::Profile(n, deed) => format!("profile {} {}", n + 1, deed.word()),
            Spot::Layout => "layout".to_owned(),
            Spot::Rehearse => "rehearse".to_owned(),
            Spot::Key(place) => format!("key {place}"),
            Spot::Family => "family".to_owned(),
            Spot::Part(input) => format!("part {input}"),
            Spot::Controller(kind, deed) => {
                format!("controller {} {}", Mappings::kind_name(kind), deed.word())
            }
            Spot::Controllers => "controllers".to_owned(),
            Spot::Device(device) => format!("device {}", device.0),
            Spot::Where => "where".to_owned(),
            Spot::Trying => "trying".to_owned(),
            Spot::Answer(n) => format!("answer {}", n + 1),
            Spot::Letter(n) => format!("letter {}", n + 1),
        }
    }
}
