//! Small numbers that stand for names; good for one sheet.

macro_rules! ids {
    ($($(#[$doc:meta])* $name:ident),*) => {$(
        $(#[$doc])*
        #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
        pub struct $name(u16);

        impl $name {
            /// The id at a position of the sheet's list.
            pub const fn new(index: u16) -> Self {
                Self(index)
            }

            /// Its position in the sheet's list.
            pub const fn index(self) -> usize {
                self.0 as usize
            }
        }
    )*};
}

ids! {
    /// An action of a sheet.
    ActionId,
    /// A situation of a sheet.
    SituationId,
    /// A menu heading of a sheet.
    GroupId
}
