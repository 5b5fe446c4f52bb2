//! What was counted, as JSON, and read again to be added up.

use std::error::Error;
use std::fs;
use std::path::PathBuf;

use serde::{Deserialize, Serialize};
use swap_knot::Sheet;
use swap_knot::keep::Setting;
use swap_knot::sheet::Column;

use super::counts::{CellCount, Counts, SettingCount, Tally};

/// What was counted of some players, by names instead of places in a sheet.
#[derive(Debug, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub(super) struct TallyFile {
    game: String,
    version: u32,
    profiles: u64,
    unchanged: u64,
    older: u64,
    not_read: u64,
    bindings: Vec<Binding>,
    left_unbound: Vec<LeftUnbound>,
    settings: Vec<OfSetting>,
    layouts: Counts,
    presets: Counts,
}

#[derive(Debug, Serialize, Deserialize)]
struct Binding {
    row: String,
    column: String,
    #[serde(flatten)]
    count: CellCount,
}

#[derive(Debug, Serialize, Deserialize)]
struct LeftUnbound {
    row: String,
    profiles: u64,
}

#[derive(Debug, Serialize, Deserialize)]
struct OfSetting {
    setting: String,
    #[serde(flatten)]
    count: SettingCount,
}

impl TallyFile {
    /// With what comes most first.
    pub(super) fn new(tally: &Tally, sheet: &Sheet, not_read: u64) -> TallyFile {
        let mut cells: Vec<_> = tally.cells.iter().collect();
        cells.sort_by_key(|(cell, c)| (std::cmp::Reverse(c.changed), **cell));
        let bindings = cells.into_iter().map(|(cell, count)| Binding {
            row: sheet.row_name(cell.row),
            column: cell.column.to_string(),
            count: count.clone(),
        });
        let mut unbound: Vec<_> = tally.unbound.iter().collect();
        unbound.sort_by_key(|(row, n)| (std::cmp::Reverse(**n), **row));
        let left_unbound = unbound.into_iter().map(|(row, profiles)| LeftUnbound {
            row: sheet.row_name(*row),
            profiles: *profiles,
        });
        let mut settings: Vec<_> = tally.settings.iter().collect();
        settings.sort_by_key(|(_, s)| std::cmp::Reverse(s.set));
        let settings = settings.into_iter().map(|(setting, count)| OfSetting {
            setting: setting.path().join("."),
            count: count.clone(),
        });
        TallyFile {
            game: sheet.game().to_owned(),
            version: sheet.version(),
            profiles: tally.profiles,
            unchanged: tally.unchanged,
            older: tally.older,
            not_read,
            bindings: bindings.collect(),
            left_unbound: left_unbound.collect(),
            settings: settings.collect(),
            layouts: tally.layouts.clone(),
            presets: tally.presets.clone(),
        }
    }

    /// What several files have counted, together, and how many profiles they could not read.
    pub(super) fn add_up(files: &[PathBuf], sheet: &Sheet) -> Result<(Tally, u64), Box<dyn Error>> {
        let (mut all, mut not_read) = (Tally::new(sheet), 0_u64);
        for path in files {
            let of = |why: String| format!("{}: {why}; nothing was added up", path.display());
            let text = fs::read_to_string(path).map_err(|e| of(e.to_string()))?;
            let file: TallyFile = serde_json::from_str(&text)
                .map_err(|e| of(format!("it is no tally as `--json` prints one: {e}")))?;
            not_read = not_read.saturating_add(file.not_read);
            all.merge(&file.tally(sheet).map_err(of)?);
        }
        Ok((all, not_read))
    }

    fn tally(self, sheet: &Sheet) -> Result<Tally, String> {
        let (game, version) = (sheet.game(), sheet.version());
        if self.game != game || self.version != version {
            return Err(format!(
                "it was counted by the sheet of `{}`, version {}, and this one is of `{game}`, version {version}",
                self.game, self.version
            ));
        }
        let unknown = |name: &str| format!("it counts `{name}`, which this sheet does not have");
        let find = |name: &str| sheet.find_row(name).ok_or_else(|| unknown(name));
        let mut tally = Tally::new(sheet);
        (tally.profiles, tally.unchanged, tally.older) =
            (self.profiles, self.unchanged, self.older);
        for Binding { row, column, count } in self.bindings {
            let column: Column = column.parse().map_err(|_| unknown(&column))?;
            tally.cells.insert(find(&row)?.cell(column), count);
        }
        for LeftUnbound { row, profiles } in self.left_unbound {
            tally.unbound.insert(find(&row)?, profiles);
        }
        for OfSetting { setting, count } in self.settings {
            let path: Vec<&str> = setting.split('.').collect();
            let known = Setting::at(&path).ok_or_else(|| unknown(&setting))?;
            tally.settings.insert(known, count);
        }
        (tally.layouts, tally.presets) = (self.layouts, self.presets);
        Ok(tally)
    }
}
