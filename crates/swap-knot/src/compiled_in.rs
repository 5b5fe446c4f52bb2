//! What `controls!` calls: a sheet that was read and found sound when the game was compiled.

use swap_knot_core::{Actions, Sheet};

/// # Panics
/// Never: the macro reads the same files with the same reader, and makes the type from them.
#[expect(
    clippy::panic,
    reason = "the sheet was read when the game was compiled"
)]
pub fn compiled_in<A: Actions>(files: &[(&str, &str)]) -> Sheet {
    let sheet = match Sheet::join(files) {
        Ok(sheet) => sheet,
        Err(e) => panic!("a sheet that was sound when compiled: {e}"),
    };
    match sheet.typed::<A>() {
        Ok(sheet) => sheet,
        Err(e) => panic!("a type that was made from its sheet: {e}"),
    }
}
