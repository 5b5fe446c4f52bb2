//! How a game says which action, row or situation it means: by id, or by a variant of a type that
//! the compiler checks. A variant stands for a name, never for a number, so that it means the same
//! whatever the order in the file.

use super::{ActionId, Arm, Row, Sheet, SituationId};

macro_rules! refs {
    ($($(#[$doc:meta])* $name:ident of $id:ident),*) => {$(
        $(#[$doc])*
        #[derive(Clone, Copy, Debug, PartialEq, Eq)]
        pub struct $name(Which<$id>);

        impl $name {
            /// The one of that name; found at once where the name stands at `hint` in the type that
            /// the sheet was checked against.
            #[inline]
            pub const fn named(name: &'static str, hint: u16) -> Self {
                Self(Which::Named(name, hint))
            }
        }

        impl From<$id> for $name {
            #[inline]
            fn from(id: $id) -> Self {
                Self(Which::Id(id))
            }
        }
    )*};
}

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Which<Id> {
    Id(Id),
    Named(&'static str, u16),
}

refs! {
    /// Which action is meant: an [`ActionId`], or a variant of a type with [`Actions`].
    ///
    /// [`Actions`]: crate::Actions
    ActionRef of ActionId,
    /// Which situation is meant: a [`SituationId`], or a variant of a type with [`Situations`].
    ///
    /// [`Situations`]: crate::Situations
    SituationRef of SituationId
}

/// Which row is meant: an action, or an arm of it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct RowRef {
    action: ActionRef,
    arm: Option<Arm>,
}

impl ActionRef {
    /// The id, where it is meant by id.
    #[inline]
    pub(crate) const fn as_id(self) -> Option<ActionId> {
        match self.0 {
            Which::Id(id) => Some(id),
            Which::Named(..) => None,
        }
    }
}

impl RowRef {
    /// The row of a whole action, or of one arm of it.
    #[inline]
    pub const fn new(action: ActionRef, arm: Option<Arm>) -> RowRef {
        RowRef { action, arm }
    }

    /// The id, where a whole action is meant, and by id.
    #[inline]
    pub(crate) const fn as_id(self) -> Option<ActionId> {
        match (self.action.0, self.arm) {
            (Which::Id(id), None) => Some(id),
            _ => None,
        }
    }

    #[inline]
    pub(crate) const fn parts(self) -> (ActionRef, Option<Arm>) {
        (self.action, self.arm)
    }
}

impl From<ActionRef> for RowRef {
    #[inline]
    fn from(action: ActionRef) -> Self {
        RowRef { action, arm: None }
    }
}

impl From<ActionId> for RowRef {
    #[inline]
    fn from(action: ActionId) -> Self {
        ActionRef::from(action).into()
    }
}

impl From<Row> for RowRef {
    #[inline]
    fn from(row: Row) -> Self {
        RowRef {
            action: row.action.into(),
            arm: row.arm,
        }
    }
}

impl<A: Into<ActionRef>> From<(A, Arm)> for RowRef {
    #[inline]
    fn from((action, arm): (A, Arm)) -> Self {
        RowRef {
            action: action.into(),
            arm: Some(arm),
        }
    }
}

impl Sheet {
    /// The id of an action; none where the sheet does not have it.
    #[inline]
    pub fn id_of(&self, action: impl Into<ActionRef>) -> Option<ActionId> {
        let index = self.index_of(action.into())?;
        Some(self.action_id(index))
    }

    /// The id of a situation; none where the sheet does not have it.
    pub fn situation_id_of(&self, situation: impl Into<SituationRef>) -> Option<SituationId> {
        match situation.into().0 {
            Which::Id(id) => id.of(self.0.stamp).map(|_| id),
            Which::Named(name, _) => self.find_situation(name),
        }
    }

    /// A row of this sheet; none where it does not have the action, or the action not the arm.
    #[inline]
    pub fn row_of(&self, row: impl Into<RowRef>) -> Option<Row> {
        let RowRef { action, arm } = row.into();
        let row = Row {
            action: self.id_of(action)?,
            arm,
        };
        self.has_row(row).then_some(row)
    }

    /// Whether a row is of this sheet, and its action has the arm.
    #[inline]
    pub(crate) fn has_row(&self, row: Row) -> bool {
        let Some(index) = row.action.of(self.0.stamp) else {
            return false;
        };
        row.arm
            .is_none_or(|arm| self.0.actions[index].arms().contains(&arm))
    }

    /// The position of an action; none where the sheet does not have it.
    #[inline]
    pub(crate) fn index_of(&self, action: ActionRef) -> Option<usize> {
        match action.0 {
            Which::Id(id) => id.of(self.0.stamp),
            Which::Named(name, hint) => {
                let hint =
                    usize::from(self.0.typed.get(usize::from(hint)).copied().unwrap_or(hint));
                match self.0.actions.get(hint) {
                    Some(action) if action.name == name => Some(hint),
                    _ => self.0.by_name.get(name).map(|id| id.index()),
                }
            }
        }
    }
}
