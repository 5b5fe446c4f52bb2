//! Actions switched off and on at run time, for games that unlock things.

use std::sync::Arc;

use super::{ActionId, Data, Sheet};

impl Sheet {
    /// The same sheet with actions switched off or on.
    ///
    /// Make a rig and a draft from it: an action that is off is gone from live input, menu, prompts
    /// and conflicts together. What a player bound to it is kept in their profile.
    ///
    /// ```
    /// use swap_knot::Sheet;
    ///
    /// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.crane]\nbind = \"KeyC\"\noff = true")?;
    /// let crane = sheet.find("crane").expect("declared above");
    /// assert!(sheet.action(crane).off);
    /// assert!(!sheet.switched([crane], true).action(crane).off);
    /// # Ok::<(), swap_knot::SheetError>(())
    /// ```
    #[must_use]
    pub fn switched(&self, actions: impl IntoIterator<Item = ActionId>, on: bool) -> Sheet {
        let mut data: Data = (*self.0).clone();
        for id in actions {
            if let Some(action) = data.actions.get_mut(id.index()) {
                action.off = !on;
            }
        }
        Sheet(Arc::new(data))
    }
}
