//! A number for all that decides what is bound where without a player.

use super::Sheet;
use crate::text::Fnv;

impl Sheet {
    /// The same for as long as no default, preset, situation or sharing has changed by which another binding could
    /// come to lie on a player's: what a profile remembers of the sheet that it was saved under, so that a
    /// change is noticed whether or not anybody raised the number of the sheet.
    ///
    /// It goes by names and texts, and so is the same on every machine and in every version of this
    /// library.
    pub(crate) fn print_of_defaults(&self) -> u64 {
        let mut hash = Fnv::new();
        let mut add = |text: &str| hash.add(text.bytes().chain([0]));
        for (_, situation) in self.situations() {
            add(&situation.name);
            add(situation.cover.word());
            for other in situation.with.iter().chain(&situation.over) {
                add(&self.declared_situation(*other).name);
            }
        }
        for (id, action) in self.actions() {
            add(&action.name);
            add(if action.off { "off" } else { "on" });
            add(if action.essential { "essential" } else { "" });
            for situation in &action.situations {
                add(&self.declared_situation(*situation).name);
            }
            for other in &action.share {
                add(&self.declared(*other).name);
            }
            for binding in self.defaults_of(id) {
                add(&format!(
                    "{} {}",
                    self.row_name(binding.cell.row),
                    binding.cell.column
                ));
                add(&binding.chord.to_string());
                add(binding.how().manner.word());
            }
        }
        for preset in self.presets() {
            add(&preset.name);
            for (cell, chord) in &preset.cells {
                add(&format!("{} {}", self.row_name(cell.row), cell.column));
                add(&chord.as_ref().map_or(String::new(), ToString::to_string));
            }
        }
        hash.number()
    }
}
