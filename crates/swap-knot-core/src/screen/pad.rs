//! Whose marks the screen tells pads by.

use super::ControlsScreen;
use crate::prompt::Words;

impl ControlsScreen {
    /// Shows everything in another language from here on, and by the marks that these words have.
    pub fn set_words(&mut self, words: &Words) {
        self.draft.set_words(words);
        self.rows.forget();
        self.stale = true;
        self.follow_family();
    }

    /// The family that the pad in hand says it is; none where nothing is known. The one that the
    /// player chose goes before it.
    pub fn find_family(&mut self, family: Option<&str>) {
        if self.found_family.as_deref() != family {
            self.found_family = family.map(str::to_owned);
            self.stale = true;
        }
    }

    /// Tells pads by the family that is chosen or found now.
    pub(super) fn follow_family(&mut self) {
        let words = self.draft.words();
        let Some(marks) = words.marks() else { return };
        let known = |name: &&str| marks.family(name).is_some();
        let found = self.found_family.as_deref();
        let family = self.draft.family().filter(known).or(found);
        if words.family() != family {
            let words = words.with_marks(marks, family);
            self.draft.set_words(&words);
            self.rows.forget();
        }
    }
}
