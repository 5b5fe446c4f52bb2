//! Actions switched off and on at run time, for games that unlock things.

use std::sync::Arc;

use super::{ActionRef, Data, Sheet};

impl Sheet {
    /// The same sheet with actions switched off or on.
    ///
    /// Make a rig and a draft from it: an action that is off is gone from live input, menu, prompts
    /// and conflicts together. Actions that the sheet does not have are passed over. What a player bound to it is kept in their profile.
    ///
    /// ```
    /// use swap_knot::Sheet;
    ///
    /// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.crane]\nbind = \"KeyC\"\noff = true")?;
    /// let crane = sheet.find("crane").expect("declared above");
    /// assert!(sheet.action(crane).expect("declared above").off);
    /// assert!(!sheet.switched([crane], true).action(crane).expect("declared above").off);
    /// # Ok::<(), swap_knot::sheet::SheetError>(())
    /// ```
    #[must_use]
    pub fn switched<A: Into<ActionRef>>(
        &self,
        actions: impl IntoIterator<Item = A>,
        on: bool,
    ) -> Sheet {
        let mut data: Data = (*self.0).clone();
        for action in actions {
            if let Some(index) = self.index_of(action.into()) {
                data.actions[index].off = !on;
            }
        }
        Sheet(Arc::new(data))
    }
}
