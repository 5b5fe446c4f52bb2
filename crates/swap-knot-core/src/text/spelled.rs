//! Small words: enums that stand in files, options and ids.

/// Declares an enum each of whose variants is spelled by a word: all of them in order, the word, the way
/// back from it, and `Display`, each told once.
macro_rules! spelled {
    (
        $(#[$meta:meta])*
        pub enum $name:ident {
            $($(#[$doc:meta])* $variant:ident = $word:literal,)*
        }
    ) => {
        $(#[$meta])*
        pub enum $name {
            $($(#[$doc])* $variant,)*
        }

        impl $name {
            /// Every one, in order.
            pub const ALL: [$name; [$($word),*].len()] = [$($name::$variant),*];

            /// The word for it in files, options and ids.
            pub const fn word(self) -> &'static str {
                match self {
                    $($name::$variant => $word,)*
                }
            }

            /// The one of that word.
            pub fn from_word(word: &str) -> Option<$name> {
                $name::ALL.into_iter().find(|one| one.word() == word)
            }
        }

        impl std::fmt::Display for $name {
            fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
                f.write_str(self.word())
            }
        }
    };
}
pub(crate) use spelled;
