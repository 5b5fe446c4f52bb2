//! A pack of a game's own art: a folder with a manifest and pictures.

#[cfg(feature = "png")]
mod atlas;
mod check;
mod picture;
mod read;

use std::collections::BTreeMap;
use std::fmt;
use std::path::{Path, PathBuf};

use swap_knot::input::{UsbFilter, UsbId};
use swap_knot::prompt::Marks;
use swap_knot::{Input, Words};

#[cfg(feature = "png")]
pub use atlas::{Atlas, AtlasPlace};
pub use check::PackReport;

/// The name of the manifest in its folder.
const MANIFEST: &str = "glyphs.toml";

/// A pack of pictures for inputs, by family of pads, falling back on those for any family.
///
/// Where a game has a file of [`Marks`], that says which families there are, and may name their
/// pictures: see [`Pack::with_marks`] and [`Pack::picture_for`].
///
/// The manifest `glyphs.toml` names the pack and its files, and each family with the USB vendor and
/// product numbers of its pads (four hexadecimal digits each, `*` for every product):
///
/// ```toml
/// title = "Brass and rope"
/// [files]
/// "pad:south" = "south.svg"
/// [families.quayside]
/// usb = ["1209:0001", "1209:*"]
/// [families.quayside.files]
/// "pad:south" = "quayside/south.png"
/// ```
///
/// Nothing outside of the folder is read, and what cannot be used is told and left out, so that a
/// game always has something to show: see [`Pack::picture`].
#[derive(Clone, Debug)]
pub struct Pack {
    folder: PathBuf,
    title: String,
    /// For any family.
    files: BTreeMap<Input, Picture>,
    families: Vec<Family>,
    notes: Vec<PackNote>,
    /// Every file in the folder, from there.
    found: Vec<PathBuf>,
}

#[derive(Clone, Debug)]
struct Family {
    name: String,
    usb: Vec<UsbFilter>,
    files: BTreeMap<Input, Picture>,
}

/// A picture of the pack, read and checked.
#[derive(Clone, Debug)]
struct Picture {
    path: PathBuf,
    bytes: Vec<u8>,
}

/// Something in a pack that cannot be used.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct PackNote {
    /// The file, from the pack's folder.
    pub file: String,
    /// What is wrong and what to do.
    pub message: String,
}

impl fmt::Display for PackNote {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}: {}", self.file, self.message)
    }
}

/// A pack that cannot be opened at all.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum PackError {
    /// There is no manifest, or it cannot be read.
    #[error("{path}: {why}; a pack is a folder with a `glyphs.toml` in it")]
    NoManifest {
        /// The manifest.
        path: String,
        /// Why.
        why: String,
    },
    /// The manifest is no TOML, or not such as it should be.
    #[error("{path}:{line}:{column}: {message}")]
    Manifest {
        /// The manifest.
        path: String,
        /// The line, from 1.
        line: usize,
        /// The column in characters, from 1.
        column: usize,
        /// What is wrong and what to write instead.
        message: String,
    },
}

impl Pack {
    /// The largest file of a pack, in bytes (1 MiB).
    pub const MAX_FILE_BYTES: u64 = 1 << 20;
    /// The longest side of a picture, in pixels.
    pub const MAX_SIDE: u32 = 2048;
    /// The most files that a manifest names.
    pub const MAX_FILES: usize = 4096;

    /// Opens the pack in a folder: reads its manifest and every picture that it names.
    ///
    /// # Errors
    /// When there is no manifest or it is broken. Single files that cannot be used are listed in
    /// [`Pack::notes`].
    pub fn open(folder: impl AsRef<Path>) -> Result<Pack, PackError> {
        read::open(folder.as_ref())
    }

    /// What the pack is called.
    pub fn title(&self) -> &str {
        &self.title
    }

    /// The folder it is in.
    pub fn folder(&self) -> &Path {
        &self.folder
    }

    /// What cannot be used, and why.
    pub fn notes(&self) -> &[PackNote] {
        &self.notes
    }

    /// The names of its families.
    pub fn families(&self) -> impl Iterator<Item = &str> {
        self.families.iter().map(|f| f.name.as_str())
    }

    /// The family of a pad by its USB vendor and product numbers; a family that names the product
    /// goes before one that takes every product of the vendor.
    pub fn family_of(&self, usb: UsbId) -> Option<&str> {
        let families = self.families.iter();
        let all = families.flat_map(|family| family.usb.iter().map(move |f| (f, family)));
        UsbFilter::best(all, usb).map(|family| &*family.name)
    }

    /// The same pack with the pictures that a game's marks name; they are looked for from the folder
    /// in which the marks are. What cannot be used is among the [`Pack::notes`].
    #[must_use]
    pub fn with_marks(self, marks: &Marks, folder: impl AsRef<Path>) -> Pack {
        read::add_marks(self, marks, folder.as_ref())
    }

    /// A pack of nothing but the pictures that a game's marks name.
    pub fn of_marks(marks: &Marks, folder: impl AsRef<Path>) -> Pack {
        let pack = Pack {
            folder: folder.as_ref().to_owned(),
            title: "marks".to_owned(),
            files: BTreeMap::new(),
            families: Vec::new(),
            notes: Vec::new(),
            found: Vec::new(),
        };
        pack.with_marks(marks, folder)
    }

    /// The picture of an input by the family whose marks the words have, or by one that it is like;
    /// else the one for any family, unless it is known what is printed there, which tells more: the
    /// built-in drawing has that on it.
    pub fn picture_for(&self, input: Input, words: &Words) -> Option<&[u8]> {
        Some(&self.found_for(input, words)?.bytes)
    }

    fn found_for(&self, input: Input, words: &Words) -> Option<&Picture> {
        let own = |name| {
            let family = self.families.iter().find(|f| f.name == name)?;
            family.files.get(&input)
        };
        let for_any = || {
            self.files
                .get(&input)
                .filter(|_| words.mark(input).is_none())
        };
        words.families().find_map(own).or_else(for_any)
    }

    /// The picture of an input: the family's, else the one for any family, else nothing, where the
    /// built-in drawing or the name does. The bytes of an SVG or PNG file.
    pub fn picture(&self, input: Input, family: Option<&str>) -> Option<&[u8]> {
        Some(&self.find(input, family)?.bytes)
    }

    fn find(&self, input: Input, family: Option<&str>) -> Option<&Picture> {
        let family = family.and_then(|name| self.families.iter().find(|f| f.name == name));
        let own = family.and_then(|f| f.files.get(&input));
        own.or_else(|| self.files.get(&input))
    }
}
