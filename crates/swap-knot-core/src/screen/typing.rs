//! Text that is typed: on the keyboard, or letter by letter with whatever else is in hand.

use super::bindings::Filter;
use super::{Busy, ControlsScreen, Dialog, Item, Role, Spot};
use crate::input::{DeviceKind, Event, EventKind, Place};

/// The most letters that are taken.
const MOST: usize = 64;
/// How many letters stand in a line of the dialog.
const LINE: usize = 12;

/// What is being typed.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Typing {
    text: String,
    /// What is being composed, and not typed yet.
    composed: String,
    /// What it was before.
    before: String,
}

impl Typing {
    pub(super) fn search(filter: &Filter) -> Typing {
        Typing {
            text: filter.text.clone(),
            composed: String::new(),
            before: filter.text.clone(),
        }
    }
}

impl ControlsScreen {
    /// Types a text, as an input method or the clipboard gives it, where text is being typed.
    pub fn type_text(&mut self, text: &str) {
        if let Busy::Typing(typing) = &mut self.busy {
            typing.composed.clear();
            let free = MOST.saturating_sub(typing.text.chars().count());
            let plain = text.chars().filter(|c| !c.is_control());
            typing.text.extend(plain.take(free));
            self.typed_on();
        }
    }

    /// Shows what an input method composes and has not typed yet.
    pub fn compose(&mut self, text: &str) {
        if let Busy::Typing(typing) = &mut self.busy {
            typing.composed = text.to_owned();
            self.stale = true;
        }
    }

    /// Whether text is being typed: keys are letters then, and an input method may help.
    pub const fn is_typing(&self) -> bool {
        matches!(self.busy, Busy::Typing(_))
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
        let Busy::Typing(typing) = &mut self.busy else {
            return false;
        };
        match (place, text) {
            // The input method has it.
            _ if !typing.composed.is_empty() => {}
            (Place::Backspace, _) => self.delete_letter(),
            (Place::Enter | Place::NumpadEnter, _) if self.hand == DeviceKind::Keyboard => {
                self.typed(0);
            }
            (Place::Escape, _) => return false,
            (_, Some(c)) if !c.is_control() => self.type_text(c.encode_utf8(&mut [0; 4])),
            _ => return false,
        }
        true
    }

    pub(super) fn delete_letter(&mut self) {
        if let Busy::Typing(typing) = &mut self.busy {
            typing.text.pop();
            self.typed_on();
        }
    }

    pub(super) fn type_letter(&mut self, n: usize) {
        if let Some(letter) = self.letters().get(n) {
            self.type_text(&letter.to_string());
        }
    }

    /// The list follows what is typed.
    fn typed_on(&mut self) {
        if let Busy::Typing(typing) = &self.busy {
            self.filter.text = typing.text.trim().to_owned();
        }
        self.stale = true;
    }

    /// An answer: done, or not at all.
    pub(super) fn typed(&mut self, n: usize) {
        if let Busy::Typing(typing) = &self.busy {
            match n {
                0 => self.typed_on(),
                1 => return self.delete_letter(),
                _ => self.filter.text = typing.before.clone(),
            }
        }
        self.calm();
        if self.filter.text.is_empty() {
            return;
        }
        let first = self.first_spot();
        self.focus_on(first);
    }

    /// The letters of the player's keyboard, digits, and a space.
    fn letters(&self) -> Vec<char> {
        let layout = self.draft.layout();
        let of_row = |row: &[Place]| -> Vec<char> {
            let all = row.iter().filter_map(|p| layout.legend(*p));
            all.filter_map(|l| l.chars().next()).collect()
        };
        let keys = layout.board().keys().iter();
        let writing: Vec<Place> = keys.map(|k| k.place).filter(|p| p.is_writing()).collect();
        let mut letters = of_row(&writing);
        letters.retain(|c| c.is_alphanumeric());
        letters.sort_unstable();
        letters.dedup();
        letters.push(' ');
        letters
    }

    pub(super) fn view_typing(&self, typing: &Typing) -> Dialog {
        let mut lines: Vec<Vec<Item>> = Vec::new();
        // Who has a keyboard in hand needs none to be shown.
        if self.hand != DeviceKind::Keyboard {
            let letters: Vec<Item> = self
                .letters()
                .into_iter()
                .enumerate()
                .map(|(n, c)| {
                    let label = match c {
                        ' ' => self.text("key-Space"),
                        c => self.draft.words().untranslated(&c.to_string()),
                    };
                    self.item(Spot::Letter(n as u16), label, Role::Button)
                })
                .collect();
            lines.extend(letters.chunks(LINE).map(<[Item]>::to_vec));
        }
        let ids = ["typing-done", "typing-delete", "menu-cancel-button"];
        let answers = ids.iter().enumerate();
        lines.push(
            answers
                .map(|(n, id)| self.button(n, self.text(id)))
                .collect(),
        );
        Dialog {
            title: self.text("menu-search"),
            lines,
            field: Some(format!("{}{}", typing.text, typing.composed)),
            ..Dialog::default()
        }
    }
}
