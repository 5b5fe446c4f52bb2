//! What all errors have in common.

use std::fmt;

/// Has an error print its text in `Debug` as well: a `main` that returns it, or an `unwrap` in a test,
/// says what is wrong, where, and what to do, and not how the error is made.
macro_rules! debug_as_text {
    ($error:ty) => {
        impl std::fmt::Debug for $error {
            fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
                std::fmt::Display::fmt(self, f)
            }
        }
    };
}
pub(crate) use debug_as_text;

/// Writes each on a line of its own.
pub(crate) fn write_lines(
    f: &mut fmt::Formatter<'_>,
    lines: impl IntoIterator<Item = impl fmt::Display>,
) -> fmt::Result {
    for (n, line) in lines.into_iter().enumerate() {
        let end = if n == 0 { "" } else { "\n" };
        write!(f, "{end}{line}")?;
    }
    Ok(())
}
