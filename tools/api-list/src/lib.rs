//! The public API of a crate as a list of lines, read from its sources: what whoever builds on it can
//! name, and so what a change of it can break.

mod lines;
mod spelled;
mod tree;

use std::io;
use std::path::Path;

use self::tree::Tree;

/// The list of the crate in a folder, a line for each thing that can be named, in the order of its
/// modules.
///
/// # Errors
/// When a file of it cannot be read or is no Rust.
pub fn list(krate: &Path) -> io::Result<Vec<String>> {
    Ok(lines::of(&Tree::read(&krate.join("src/lib.rs"))?))
}
