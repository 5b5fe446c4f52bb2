//! What all errors have in common.

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
