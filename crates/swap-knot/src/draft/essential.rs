//! The player cannot lock themselves out.

use crate::rig::Bound;
use crate::sheet::{ColumnKind, Row, Sheet};

/// The first row of an essential action that has no binding on devices where the sheet gives it
/// one.
///
/// Counted for each kind of device by itself: a binding on a pad is no help to a player who has
/// none. An arm counts as bound where the whole action is.
pub(super) fn first_unbound(sheet: &Sheet, bindings: &[Bound]) -> Option<(Row, ColumnKind)> {
    let essential = sheet.actions().filter(|(_, a)| a.essential && !a.off);
    for (id, _) in essential {
        let start = bindings.partition_point(|b| b.cell.row.action < id);
        let own = bindings[start..]
            .iter()
            .take_while(|b| b.cell.row.action == id);
        let own: Vec<&Bound> = own.collect();
        for default in sheet.defaults_of(id) {
            let (row, kind) = (default.cell.row, default.cell.column.kind);
            let works = |b: &&&Bound| {
                b.cell.column.kind == kind && (b.cell.row == row || b.cell.row.arm.is_none())
            };
            let arms_instead = || {
                let arms = sheet.declared(id).arms();
                row.arm.is_none()
                    && !arms.is_empty()
                    && arms.iter().all(|&arm| {
                        let on =
                            |b: &&Bound| b.cell.column.kind == kind && b.cell.row.arm == Some(arm);
                        own.iter().any(on)
                    })
            };
            if own.iter().find(works).is_none() && !arms_instead() {
                return Some((row, kind));
            }
        }
    }
    None
}
