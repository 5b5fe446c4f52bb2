//! Text that is typed: on the keyboard, or letter by letter with whatever else is in hand.

use super::bindings::Filter;
use super::command::holds;
use super::{Busy, ControlsScreen, Dialog, Item, Role, Spot};
use crate::input::{Control, DeviceKind, Event, EventKind, Modifier, Place};
use crate::locker::Slug;

/// The most letters of a name that are taken, and of a profile as text.
const MOST: usize = 64;
const MOST_TEXT: usize = 1 << 20;
/// How many letters stand in a line of the dialog.
const LINE: usize = 12;

/// What a text is typed for.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum For {
    Search,
    NewProfile,
    Copy(Slug),
    Rename(Slug),
    /// A profile as text, most likely from the clipboard.
    Import,
    /// What was taught of controllers, as text.
    Controllers,
    /// Nothing: it is there to be read and taken along.
    Shown,
    /// The same of what was taught of a controller.
    ShownController,
}

impl For {
    /// Whether it is a whole text, most likely from the clipboard, rather than a name.
    const fn is_text(&self) -> bool {
        matches!(self, For::Import | For::Controllers)
    }

    /// Whether it is only shown.
    const fn is_shown(&self) -> bool {
        matches!(self, For::Shown | For::ShownController)
    }
}

/// What is being typed.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Typing {
    what: For,
    text: String,
    /// What is being composed, and not typed yet.
    composed: String,
    /// What it was before.
    before: String,
    /// Whether all of it is selected: the next letter replaces it.
    is_selected: bool,
}

impl Typing {
    pub(super) fn new(what: For, text: String) -> Typing {
        Typing {
            // A name that is proposed is there to be replaced.
            is_selected: !text.is_empty() && matches!(what, For::NewProfile | For::Copy(_)),
            what,
            before: text.clone(),
            text,
            composed: String::new(),
        }
    }

    pub(super) fn search(filter: &Filter) -> Typing {
        Typing::new(For::Search, filter.text.clone())
    }

    /// A text that is only shown.
    pub(super) fn shown(text: String) -> Typing {
        Typing::new(For::Shown, text)
    }

    fn room(&self) -> usize {
        let most = match (self.what.is_text(), self.what.is_shown()) {
            (true, _) => MOST_TEXT,
            (_, true) => 0,
            _ => MOST,
        };
        most.saturating_sub(self.text.chars().count())
    }

    /// The ids of its answers: what is done with the text, and the way out last.
    fn answers(&self) -> &'static [&'static str] {
        match self.what.is_shown() {
            true => &["deed-copy", "typing-done"],
            false => &["typing-done", "typing-delete", "menu-cancel-button"],
        }
    }
}

impl ControlsScreen {
    /// Types a text, as an input method or the clipboard gives it, where text is being typed.
    pub fn type_text(&mut self, text: &str) {
        if let Busy::Typing(typing) = &mut self.busy {
            typing.composed.clear();
            if std::mem::take(&mut typing.is_selected) {
                typing.text.clear();
            }
            let whole = typing.what.is_text();
            let taken = text
                .chars()
                .filter(|c| !c.is_control() || (whole && *c == '\n'));
            let room = typing.room();
            typing.text.extend(taken.take(room));
            self.typed_on();
        }
    }

    /// Shows what an input method composes and has not typed yet.
    pub fn compose(&mut self, text: &str) {
        if let Busy::Typing(typing) = &mut self.busy {
            typing.composed = text.to_owned();
            if std::mem::take(&mut typing.is_selected) {
                typing.text.clear();
            }
            self.stale = true;
        }
    }

    /// Whether text is being typed: keys are letters then, and an input method may help.
    pub const fn is_typing(&self) -> bool {
        matches!(self.busy, Busy::Typing(_))
    }

    /// A text that the player wants in the clipboard, once.
    pub fn take_copied(&mut self) -> Option<String> {
        self.copied.take()
    }

    /// Takes a key that types; whether it did.
    pub(super) fn type_key(&mut self, event: &Event) -> bool {
        let EventKind::Key {
            place,
            down: true,
            text,
        } = event.what
        else {
            return false;
        };
        // What is pressed with Ctrl types nothing, but where AltGr comes with a Ctrl of its own.
        let held = |modifier| holds(&self.book, modifier, self.draft.resolver());
        let alt_gr = self.book.is_down(Control::key(Place::AltRight));
        let is_command = (held(Modifier::Ctrl) || held(Modifier::Meta)) && !alt_gr;
        let Busy::Typing(typing) = &mut self.busy else {
            return false;
        };
        match (place, text) {
            _ if is_command => return false,
            // The input method has it.
            _ if !typing.composed.is_empty() => {}
            (Place::Backspace, _) => self.delete_letter(),
            (Place::Escape, _) => return false,
            // What was pointed at or gone to is meant, otherwise the text is done.
            (Place::Enter | Place::NumpadEnter, _) => return false,
            // Some systems give it no character.
            (Place::Space, _) => self.type_text(" "),
            (_, Some(c)) if !c.is_control() => self.type_text(c.encode_utf8(&mut [0; 4])),
            _ => return false,
        }
        true
    }

    pub(super) fn delete_letter(&mut self) {
        if let Busy::Typing(typing) = &mut self.busy
            && !typing.what.is_shown()
        {
            match std::mem::take(&mut typing.is_selected) {
                true => typing.text.clear(),
                false => drop(typing.text.pop()),
            }
            self.typed_on();
        }
    }

    pub(super) fn type_letter(&mut self, n: usize) {
        if let Some(letter) = self.letters().get(n) {
            self.type_text(&letter.to_string());
        }
    }

    /// A list follows what is typed.
    fn typed_on(&mut self) {
        if let Busy::Typing(typing) = &self.busy
            && typing.what == For::Search
        {
            self.filter.text = typing.text.trim().to_owned();
        }
        self.stale = true;
    }

    /// An answer of the dialog.
    pub(super) fn typed(&mut self, n: usize) {
        let Busy::Typing(typing) = &self.busy else {
            return;
        };
        let Typing {
            what, text, before, ..
        } = typing.clone();
        match typing.answers().get(n) {
            Some(&"typing-delete") => self.delete_letter(),
            Some(&"deed-copy") => {
                self.copied = Some(text);
                self.calm();
            }
            Some(&"typing-done") => {
                self.calm();
                if what != For::Search {
                    self.profile_typed(what, &text);
                } else if !self.filter.text.is_empty() {
                    let first = self.first_spot();
                    self.focus_on(first);
                }
            }
            _ => {
                if what == For::Search {
                    self.filter.text = before;
                }
                self.calm();
            }
        }
    }

    /// Out of typing, with everything as it was before.
    pub(super) fn leave_typing(&mut self) {
        self.typed(usize::MAX);
    }

    /// The letters of the player's keyboard, digits, and a space.
    fn letters(&self) -> Vec<char> {
        let layout = self.draft.layout();
        let keys = layout.board().keys().iter().map(|k| k.place);
        let writing = keys.filter(|p| p.is_writing());
        let legends = writing.filter_map(|p| layout.legend(p));
        let mut letters: Vec<char> = legends.filter_map(|l| l.chars().next()).collect();
        letters.retain(|c| c.is_alphanumeric());
        letters.sort_unstable();
        letters.dedup();
        letters.push(' ');
        letters
    }

    pub(super) fn view_typing(&self, typing: &Typing) -> Dialog {
        let mut lines: Vec<Vec<Item>> = Vec::new();
        // Who has a keyboard in hand needs none to be shown.
        let by_letter = !typing.what.is_shown() && !typing.what.is_text();
        if by_letter && self.hand() != DeviceKind::Keyboard {
            let letters = self.letters().into_iter().enumerate().map(|(n, c)| {
                let label = match c {
                    ' ' => self.text("key-Space"),
                    c => self.draft.words().untranslated(&c.to_string()),
                };
                self.item(Spot::Letter(n as u16), label, Role::Button)
            });
            let letters: Vec<Item> = letters.collect();
            lines.extend(letters.chunks(LINE).map(<[Item]>::to_vec));
        }
        let answers = typing.answers().iter().enumerate();
        let answers = answers.map(|(n, id)| self.button(n, self.text(id)));
        lines.push(answers.collect());
        let title = match typing.what {
            For::Search => "menu-search",
            For::NewProfile | For::Copy(_) | For::Rename(_) => "profile-name",
            For::Import => "profile-paste",
            For::Controllers => "teach-paste",
            For::Shown => "profile-text",
            For::ShownController => "teach-text",
        };
        Dialog {
            title: self.text(title),
            lines,
            field: Some(format!("{}{}", typing.text, typing.composed)),
            is_selected: typing.is_selected,
            ..Dialog::default()
        }
    }
}
