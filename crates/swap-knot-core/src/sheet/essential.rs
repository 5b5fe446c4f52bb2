//! Which rows must keep a binding, and which of them have none.

use super::{Cell, ColumnKind, Preset, Row, Sheet};

/// The rows of essential actions that have no binding on devices where the sheet or the chosen
/// preset gives them one; `bound` are the cells that have a binding which can be worked, in order.
///
/// Counted for each kind of device by itself: a binding on a pad is no help to a player who has
/// none. An arm counts as bound where the whole action is, and the whole where every arm is.
pub(crate) fn lacking(
    sheet: &Sheet,
    preset: Option<&Preset>,
    bound: &[Cell],
) -> Vec<(Row, ColumnKind)> {
    let mut out = Vec::new();
    for (id, action) in sheet.actions().filter(|(_, a)| a.essential && !a.off) {
        let start = bound.partition_point(|c| c.row.action < id);
        let own = &bound[start..];
        let own = &own[..own.partition_point(|c| c.row.action == id)];
        let given = sheet.defaults_of(id).iter().map(|b| b.cell);
        let preset = preset.into_iter().flat_map(|p| &p.cells);
        let preset = preset.filter(|(cell, chord)| cell.row.action == id && chord.is_some());
        let mut wanted: Vec<(Row, ColumnKind)> = given
            .chain(preset.map(|(cell, _)| *cell))
            .map(|cell| (cell.row, cell.column.kind()))
            .collect();
        wanted.sort_unstable();
        wanted.dedup();
        wanted.retain(|&(row, kind)| {
            let has = |arm| {
                let mut of_kind = own.iter().filter(|c| c.column.kind() == kind);
                of_kind.any(|c| c.row.arm == arm)
            };
            let every_arm = || {
                let arms = action.arms();
                row.arm.is_none() && !arms.is_empty() && arms.iter().all(|&arm| has(Some(arm)))
            };
            !(has(row.arm) || has(None) || every_arm())
        });
        out.extend(wanted);
    }
    out
}
