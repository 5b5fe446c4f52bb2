//! Small numbers that stand for names. Each knows which sheet's list it counts in, so that one of
//! another sheet means nothing rather than something else.

use crate::text::Fnv;

/// Stands for the names of a sheet's actions and situations in their order: ids with the same
/// stamp mean the same.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub(crate) struct Stamp(u32);

impl Stamp {
    /// The stamp of these names in this order.
    pub(super) fn of<'n>(
        situations: impl IntoIterator<Item = &'n str>,
        actions: impl IntoIterator<Item = &'n str>,
    ) -> Stamp {
        // The same on every machine and in every version, so that ids stay comparable.
        let mut hash = Fnv::new();
        for name in situations {
            hash.add(name.bytes().chain([b'\n']));
        }
        hash.add([b'\t']);
        for name in actions {
            hash.add(name.bytes().chain([b'\n']));
        }
        Stamp(hash.number() as u32)
    }
}

macro_rules! ids {
    ($($(#[$doc:meta])* $name:ident),*) => {$(
        $(#[$doc])*
        ///
        /// One of another sheet means nothing to this one: whoever is asked about it answers as for
        /// what is not there.
        #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
        pub struct $name {
            index: u16,
            stamp: Stamp,
        }

        impl $name {
            #[inline]
            pub(crate) const fn new(index: u16, stamp: Stamp) -> Self {
                Self { index, stamp }
            }

            /// Its position in the sheet's list.
            pub const fn index(self) -> usize {
                self.index as usize
            }

            /// Its position, if it is of the sheet with that stamp.
            #[inline]
            pub(crate) fn of(self, stamp: Stamp) -> Option<usize> {
                (self.stamp == stamp).then_some(self.index as usize)
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
