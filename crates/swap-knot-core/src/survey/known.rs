//! What a notice is called, so that a sheet can say that it is known.

use super::{Finding, FindingKind, Forgotten};
use crate::sheet::{ColumnKind, Row, Sheet};

impl Forgotten {
    /// What it is called in `known` of a sheet: one name for each action or arm that it is about, such as
    /// `no-gamepad:talk`. It is known where all of them are.
    pub fn ids(&self, sheet: &Sheet) -> Vec<String> {
        let rows = |word: &str, rows: &[Row]| {
            let id = |row: &Row| format!("{word}:{}", sheet.row_name(*row));
            rows.iter().map(id).collect()
        };
        let without = |kind: &ColumnKind| format!("no-{kind}");
        match self {
            Forgotten::NoBinding(id) => rows("no-binding", &[Row::of(*id)]),
            Forgotten::NotOnDevices { kind, actions } => {
                let all: Vec<Row> = actions.iter().copied().map(Row::of).collect();
                rows(&without(kind), &all)
            }
            Forgotten::ArmMissing { kind, rows: arms } => rows(&without(kind), arms),
            Forgotten::SameTitle(all) => rows("same-title", all),
            Forgotten::EmptySituation(id) => {
                vec![format!("empty:{}", sheet.declared_situation(*id).name)]
            }
            Forgotten::Unhandy { cell, .. } => rows("unhandy", &[cell.row]),
            Forgotten::ShiftTaps(cell) => rows("shift-taps", &[cell.row]),
            Forgotten::Waits { cell, .. } => rows("waits", &[cell.row]),
            Forgotten::TakenBySystem { cell, .. } => rows("system-takes", &[cell.row]),
        }
    }
}

impl Finding {
    /// What it is called in `known` of a sheet, such as `letter-behind:harpoon`.
    pub fn id(&self, sheet: &Sheet) -> String {
        let word = match &self.kind {
            FindingKind::LetterMissing(_) => "letter-missing",
            FindingKind::LetterBehind(..) => "letter-behind",
            FindingKind::PlaceMissing(_) => "key-missing",
            FindingKind::DeadKey(_) => "dead-key",
            FindingKind::Scattered { .. } => "scattered",
            FindingKind::TornApart(_) => "torn-apart",
            FindingKind::Conflict(conflict) => return conflict.id(sheet),
        };
        let rows = self.cells.iter().map(|cell| sheet.row_name(cell.row));
        let mut rows: Vec<String> = rows.collect();
        rows.dedup();
        format!("{word}:{}", rows.join("+"))
    }
}
