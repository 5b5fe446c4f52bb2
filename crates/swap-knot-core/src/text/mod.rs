//! Reading text: what every reader of a file needs, whatever the file says.
//!
//! It answers where in a text something stands, which valid word is nearest to a misspelt one, what can
//! be a name, and how a table of TOML is read field by field with every mistake in it. It relies on
//! nothing else of the crate.
//!
//! - `fields`: a table of TOML, read with all its mistakes
//! - `mistake`: one of them, with its place
//! - `place`: line and column as people count
//! - `nearest`: the word that was meant
//! - `names`: what can be called something
//! - `spelled`: enums that stand in files, each with its word
//! - `shown`: what strangers wrote, fit to stand among other texts
//! - `hash`: a number for a text, the same everywhere
//! - `failure`: what all errors have in common

mod failure;
mod fields;
mod hash;
mod mistake;
mod names;
mod nearest;
mod place;
mod shown;
mod spelled;

pub(crate) use failure::{debug_as_text, write_lines};
pub(crate) use fields::{
    Fields, Report, boolean, integer, number, number_in, texts, unknown, wrong_type,
};
pub(crate) use hash::Fnv;
pub use mistake::Mistake;
pub(crate) use names::is_name;
pub(crate) use nearest::nearest;
pub(crate) use place::line_and_column;
pub(crate) use shown::shown;
pub(crate) use spelled::spelled;
