//! The names that depend on nothing but the language and the platform, worked out once.

use std::collections::HashMap;

use super::Words;
use super::names::{Form, On, Saying};
use crate::input::{Input, Place, Platform};
use crate::layout::Layout;

/// Every form of every such name.
pub(super) type Table = HashMap<Input, Named>;

/// The names of one input: most of its forms are the same text.
#[derive(Debug)]
pub(super) struct Named {
    texts: Vec<Box<str>>,
    /// Which text a form is, written and spoken.
    of: [[u8; Form::ALL.len()]; 2],
}

impl Named {
    pub(super) fn get(&self, saying: Saying) -> &str {
        let at = self.of[usize::from(saying.aloud)][saying.form as usize];
        &self.texts[usize::from(at)]
    }
}

/// Whether the keyboard's layout has a say in what an input is called, or the game.
fn depends(input: Input) -> bool {
    match input {
        Input::Key(
            Place::AltRight
            | Place::Convert
            | Place::NonConvert
            | Place::KanaMode
            | Place::Lang1
            | Place::Lang2,
        ) => true,
        Input::Key(place) => place.is_writing() && place != Place::Space,
        Input::Letter(_) | Input::Touch(_) => true,
        _ => false,
    }
}

/// Works out the names of all inputs that have one.
pub(super) fn table(words: &Words, platform: Platform) -> Table {
    let layout = Layout::us();
    let on = On {
        layout: &layout,
        platform,
    };
    let named = |input: Input| {
        let mut named = Named {
            texts: Vec::new(),
            of: [[0; Form::ALL.len()]; 2],
        };
        for aloud in [false, true] {
            for form in Form::ALL {
                let text = words.made(input, on, Saying { form, aloud });
                let there = named.texts.iter().position(|t| **t == *text);
                let at = there.unwrap_or_else(|| {
                    named.texts.push(text.into());
                    named.texts.len() - 1
                });
                named.of[usize::from(aloud)][form as usize] = at as u8;
            }
        }
        (input, named)
    };
    let all = Input::all_named().filter(|input| !depends(*input));
    all.map(named).collect()
}
