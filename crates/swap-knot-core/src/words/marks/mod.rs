//! What families of pads print on their buttons, as the game's own file says it.

mod check;
mod read;

use std::collections::BTreeMap;
use std::sync::Arc;

pub use check::{MarksFinding, MarksFindingKind};
pub use read::MarksError;

use crate::input::{Input, PadButton, UsbFilter, UsbId};

/// What families of pads print on their buttons: a file of the game's, `marks.toml`.
///
/// A family says by which USB numbers its pads are known, and for each input of a pad what is printed
/// on it, what it is called and which picture shows it. What it does not say is as in the family
/// that it is `like`, and otherwise told by place.
///
/// ```toml
/// format = 1
///
/// [families.quayside]
/// title = "Quayside"                      # the player may choose it
/// usb = ["1209:5a01", "1209:5a02"]        # vendor:product, or vendor:*
/// confirm = "pad:south"                   # or "pad:east"; the other one goes back
///
/// [families.quayside.marks]
/// "pad:south" = "K"                       # just what is printed
/// "pad:center-right" = { mark = "≡", name = { en = "Muster button", de = "Mustertaste" } }
/// "pad:east" = { mark = "T", picture = "quayside/t.svg" }
/// ```
///
/// A name is one text for every language, or a text for each of several. For languages that bend it,
/// such a text can be a table of its forms, by the names that they have in Fluent files:
/// `{ name = "Anker", object = "den Anker" }`. Without a name it is called by its mark.
///
/// ```
/// use swap_knot::prompt::Marks;
/// use swap_knot::{Layout, PadButton, Words};
///
/// let marks = Marks::from_toml("format = 1\n[families.quayside]\nusb = [\"1209:*\"]\n\
///     marks = { \"pad:south\" = \"K\" }", "marks.toml")?;
/// let family = marks.family_of("1209:5a01".parse()?).expect("by its vendor");
/// let words = Words::english().with_marks(&marks, Some(family.name()));
/// let south = PadButton::South.into();
/// assert_eq!(words.input_name(south, &Layout::us()), "K");
/// assert_eq!(words.without_marks().input_name(south, &Layout::us()), "bottom button of the four");
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug, Default)]
pub struct Marks(Arc<Vec<Family>>);

/// A family of pads that print the same marks.
#[derive(Clone, Debug)]
pub struct Family {
    name: String,
    /// The line and the column in the file.
    at: (usize, usize),
    title: Said,
    usb: Vec<UsbFilter>,
    confirm: Option<PadButton>,
    like: Option<String>,
    marks: BTreeMap<Input, Mark>,
}

/// What is printed on one input of a pad, what it is called, and what shows it.
#[derive(Clone, Debug)]
struct Mark {
    at: (usize, usize),
    mark: Option<String>,
    name: Said,
    picture: Option<String>,
}

/// A text in one or several languages.
#[derive(Clone, Debug, Default)]
struct Said {
    everywhere: Option<Spoken>,
    by_language: BTreeMap<String, Spoken>,
}

/// A text with the forms that a language bends it into.
#[derive(Clone, Debug, Default)]
pub(super) struct Spoken {
    pub(super) name: String,
    pub(super) forms: Vec<(String, String)>,
}

impl Said {
    /// The text for a language: of that very tag, of its language elsewhere, or of all of them.
    fn of(&self, language: &str) -> Option<&Spoken> {
        let own = self.by_language.get(language);
        let first = language.split('-').next().unwrap_or_default();
        let other = || self.by_language.get(first);
        own.or_else(other).or(self.everywhere.as_ref())
    }
}

impl Marks {
    /// The largest file that is read, in bytes (1 MiB).
    pub const MAX_BYTES: usize = 1 << 20;
    /// The most families.
    pub const MAX_FAMILIES: usize = 256;
    /// The longest mark, in characters: more does not fit on a button.
    pub const MAX_MARK: usize = 12;

    /// Reads the file. Its name is for mistakes.
    ///
    /// # Errors
    /// Every mistake at once, each with its place and what to write instead.
    pub fn from_toml(text: &str, file: &str) -> Result<Marks, MarksError> {
        read::read(text, file).map(|families| Marks(Arc::new(families)))
    }

    /// Its families, in the order of the file.
    pub fn families(&self) -> impl ExactSizeIterator<Item = &Family> {
        self.0.iter()
    }

    /// A family by its name.
    pub fn family(&self, name: &str) -> Option<&Family> {
        self.0.iter().find(|f| f.name == name)
    }

    /// The family of a pad; one that names the product goes before one that takes every product of
    /// the vendor.
    pub fn family_of(&self, usb: UsbId) -> Option<&Family> {
        let families = self.0.iter();
        let all = families.flat_map(|family| family.usb.iter().map(move |f| (f, family)));
        UsbFilter::best(all, usb)
    }

    /// The family to go by: the one that the player chose, where it is among these, or what was found.
    pub(crate) fn in_force<'a>(
        &self,
        chosen: Option<&'a str>,
        found: Option<&'a str>,
    ) -> Option<&'a str> {
        self.known(chosen).or(found)
    }

    /// A name that is a family's here; one of another version of the game is not.
    pub(crate) fn known<'a>(&self, name: Option<&'a str>) -> Option<&'a str> {
        name.filter(|name| self.family(name).is_some())
    }

    /// A family and those that it is like, itself first: where one says nothing the next is asked.
    pub fn line(&self, name: &str) -> impl Iterator<Item = &Family> + Clone {
        let next = |family: &&Family| family.like.as_deref().and_then(|like| self.family(like));
        // Reading refuses a circle.
        std::iter::successors(self.family(name), next)
    }

    /// What a family prints on an input of a pad; none where it is not known.
    pub fn mark(&self, family: &str, input: Input) -> Option<&str> {
        let all = self.line(family).filter_map(|f| f.marks.get(&input));
        all.filter_map(|m| m.mark.as_deref()).next()
    }

    /// The picture of an input for a family: a file, from the folder in which the marks are.
    pub fn picture(&self, family: &str, input: Input) -> Option<&str> {
        let all = self.line(family).filter_map(|f| f.marks.get(&input));
        all.filter_map(|m| m.picture.as_deref()).next()
    }

    /// Every picture that is named: by family and input.
    pub fn pictures(&self) -> impl Iterator<Item = (&Family, Input, &str)> {
        self.0.iter().flat_map(|family| {
            let all = family.marks.iter();
            all.filter_map(move |(input, mark)| Some((family, *input, mark.picture.as_deref()?)))
        })
    }

    /// The button that confirms on a family's pads: [`PadButton::South`] unless it says otherwise.
    pub fn confirm(&self, family: &str) -> PadButton {
        let said = self.line(family).find_map(|f| f.confirm);
        said.unwrap_or(PadButton::South)
    }

    /// The inputs of which a family says something, and what: the mark, and the name in a language.
    pub(super) fn said(
        &self,
        family: &str,
        language: &str,
    ) -> Vec<(Input, Option<&str>, Option<&Spoken>)> {
        let line = self.line(family);
        let mut inputs: Vec<Input> = line.clone().flat_map(|f| f.marks.keys().copied()).collect();
        inputs.sort_unstable();
        inputs.dedup();
        let name = |input| {
            // The name belongs to the mark: a family with a mark of its own has not the other's name.
            let mut of = line.clone().filter_map(|f| f.marks.get(&input));
            let first = of.find(|m| m.mark.is_some() || m.name.of(language).is_some());
            first.and_then(|m| m.name.of(language))
        };
        let said = |input| (input, self.mark(family, input), name(input));
        inputs.into_iter().map(said).collect()
    }
}

impl PartialEq for Marks {
    /// Whether they were read from the same file at once.
    fn eq(&self, other: &Marks) -> bool {
        Arc::ptr_eq(&self.0, &other.0)
    }
}

impl Family {
    /// Its name in files.
    pub fn name(&self) -> &str {
        &self.name
    }

    /// What the player reads for it, in a language by its BCP 47 tag.
    pub fn title(&self, language: &str) -> &str {
        self.title.of(language).map_or(&self.name, |s| &s.name)
    }

    /// By which numbers its pads are known.
    pub fn usb(&self) -> &[UsbFilter] {
        &self.usb
    }

    /// The family that it is like, where it says nothing itself.
    pub fn like(&self) -> Option<&str> {
        self.like.as_deref()
    }
}
