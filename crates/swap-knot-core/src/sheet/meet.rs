//! Which actions can be live together, whatever is bound.

use super::{Action, ActionRef, Cover, Sheet};

impl Sheet {
    /// Whether two actions can be live together on some stack that the sheet allows, whatever is
    /// bound. The conflict check knows more: a situation may take an input from one of them.
    pub fn can_meet(&self, a: impl Into<ActionRef>, b: impl Into<ActionRef>) -> bool {
        let (Some(a), Some(b)) = (self.action(a), self.action(b)) else {
            return false;
        };
        if a.off || b.off {
            return false;
        }
        if a.situations.is_empty() || b.situations.is_empty() {
            return true;
        }
        let reaches = |upper, lower, below: &Action| {
            self.way_down(upper, lower, |s| {
                let covers_all = self.declared_situation(s).cover == Cover::All;
                !covers_all || below.while_paused || below.situations.contains(&s)
            })
        };
        let both = |x, y| x == y || self.are_beside(x, y) || reaches(x, y, b) || reaches(y, x, a);
        a.situations
            .iter()
            .any(|&x| b.situations.iter().any(|&y| both(x, y)))
    }
}
