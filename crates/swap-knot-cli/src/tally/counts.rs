//! What many profiles have in common, counted one after the other: as much memory for a hundred thousand
//! as for a hundred. What was counted apart adds up to what would have been counted together.

use std::collections::{BTreeMap, HashMap};

use serde::{Deserialize, Serialize};
use swap_knot::keep::{Setting, SettingValue};
use swap_knot::remap::CarriedOver;
use swap_knot::sheet::ParameterValue;
use swap_knot::{Cell, Layout, Profile, Rig, Row, Sheet};

/// The most different texts that one list counts, far more than players come up with; further ones are
/// counted together, so that a hostile file is nothing to fear.
const MOST: usize = 10_000;
/// What stands for those in files: no name of anything.
const OTHER: &str = "(other)";

/// How often each of some texts came.
#[derive(Clone, Debug, Default, Serialize, Deserialize)]
#[serde(transparent)]
pub(super) struct Counts(BTreeMap<String, u64>);

impl Counts {
    fn add(&mut self, text: &str) {
        self.add_many(text, 1);
    }

    fn add_many(&mut self, text: &str, count: u64) {
        let text = match self.0.contains_key(text) || self.0.len() < MOST {
            true => text,
            false => OTHER,
        };
        match self.0.get_mut(text) {
            Some(known) => *known = known.saturating_add(count),
            None => drop(self.0.insert(text.to_owned(), count)),
        }
    }

    fn merge(&mut self, more: &Counts) {
        more.0.iter().for_each(|(text, n)| self.add_many(text, *n));
    }

    /// The texts, the most frequent ones first.
    pub(super) fn sorted(&self) -> Vec<(&str, u64)> {
        let named = self.0.iter().filter(|(text, _)| *text != OTHER);
        let mut all: Vec<(&str, u64)> = named.map(|(t, n)| (&**t, *n)).collect();
        all.sort_by_key(|(text, count)| (std::cmp::Reverse(*count), *text));
        all
    }

    pub(super) fn get(&self, text: &str) -> u64 {
        self.0.get(text).copied().unwrap_or(0)
    }

    /// How many there were beyond those that are told apart.
    pub(super) fn other(&self) -> u64 {
        self.get(OTHER)
    }

    pub(super) fn is_empty(&self) -> bool {
        self.0.is_empty()
    }
}

/// What players changed in one cell.
#[derive(Clone, Debug, Default, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub(super) struct CellCount {
    pub(super) changed: u64,
    pub(super) to: Counts,
    pub(super) by_layout: Counts,
    pub(super) by_preset: Counts,
}

/// How players set something beside the bindings.
#[derive(Clone, Debug, Default, Serialize, Deserialize)]
pub(super) struct SettingCount {
    pub(super) set: u64,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub(super) numbers: Option<Numbers>,
    /// What is no number.
    #[serde(default, skip_serializing_if = "Counts::is_empty")]
    pub(super) values: Counts,
}

/// What is known of many numbers.
#[derive(Clone, Copy, Debug, Serialize, Deserialize)]
pub(super) struct Numbers {
    pub(super) least: f64,
    pub(super) most: f64,
    count: u64,
    /// In millionths: whole numbers add up to the same in any order.
    millionths: i64,
    /// For readers; worked out from the others.
    average: f64,
}

impl Numbers {
    fn of(number: f64) -> Numbers {
        Numbers {
            least: number,
            most: number,
            count: 1,
            millionths: (number * 1e6).round() as i64,
            average: number,
        }
    }

    fn merge(&mut self, more: &Numbers) {
        self.least = self.least.min(more.least);
        self.most = self.most.max(more.most);
        self.count = self.count.saturating_add(more.count);
        self.millionths = self.millionths.saturating_add(more.millionths);
        self.average = self.average();
    }

    pub(super) fn average(&self) -> f64 {
        self.millionths as f64 / 1e6 / self.count.max(1) as f64
    }
}

/// All that is counted.
#[derive(Clone, Debug)]
pub(super) struct Tally {
    sheet: Sheet,
    usual: Layout,
    pub(super) profiles: u64,
    /// Of an older version of the game.
    pub(super) older: u64,
    /// With nothing changed at all.
    pub(super) unchanged: u64,
    pub(super) cells: HashMap<Cell, CellCount>,
    pub(super) unbound: HashMap<Row, u64>,
    pub(super) settings: BTreeMap<Setting, SettingCount>,
    pub(super) layouts: Counts,
    pub(super) presets: Counts,
}

/// What stands for a player who chose no preset or layout.
pub(super) const NONE: &str = "-";

impl Tally {
    pub(super) fn new(sheet: &Sheet) -> Tally {
        Tally {
            sheet: sheet.clone(),
            usual: Layout::us(),
            profiles: 0,
            older: 0,
            unchanged: 0,
            cells: HashMap::new(),
            unbound: HashMap::new(),
            settings: BTreeMap::new(),
            layouts: Counts::default(),
            presets: Counts::default(),
        }
    }

    /// Counts what was counted of others by the same sheet.
    pub(super) fn merge(&mut self, more: &Tally) {
        let sums = [
            (&mut self.profiles, more.profiles),
            (&mut self.older, more.older),
            (&mut self.unchanged, more.unchanged),
        ];
        sums.into_iter()
            .for_each(|(sum, more)| *sum = sum.saturating_add(more));
        for (cell, more) in &more.cells {
            let own = self.cells.entry(*cell).or_default();
            own.changed = own.changed.saturating_add(more.changed);
            own.to.merge(&more.to);
            own.by_layout.merge(&more.by_layout);
            own.by_preset.merge(&more.by_preset);
        }
        for (row, more) in &more.unbound {
            let own = self.unbound.entry(*row).or_default();
            *own = own.saturating_add(*more);
        }
        for (setting, more) in &more.settings {
            let own = self.settings.entry(setting.clone()).or_default();
            own.set = own.set.saturating_add(more.set);
            own.values.merge(&more.values);
            match (&mut own.numbers, &more.numbers) {
                (Some(own), Some(more)) => own.merge(more),
                (own, more) => *own = own.or(*more),
            }
        }
        self.layouts.merge(&more.layouts);
        self.presets.merge(&more.presets);
    }

    /// Counts one player's.
    pub(super) fn add(&mut self, profile: Profile) {
        self.profiles += 1;
        // What an older version called something else counts as what it is called now.
        let profile = match profile.sheet_version() == Some(self.sheet.version()) {
            true => profile,
            false => {
                self.older += 1;
                CarriedOver::new(&self.sheet, &profile, &self.usual).profile
            }
        };
        let layout = profile.layout().unwrap_or(NONE).to_owned();
        let preset = profile.preset().unwrap_or(NONE).to_owned();
        self.layouts.add(&layout);
        self.presets.add(&preset);
        let changes = profile.changes(&self.sheet);
        let mut touched: Vec<Row> = Vec::new();
        for (cell, chord) in &changes {
            let count = self.cells.entry(*cell).or_default();
            count.changed += 1;
            match chord {
                Some(chord) => count.to.add(&chord.to_string()),
                None => {
                    count.to.add(UNBOUND);
                    touched.push(cell.row);
                }
            }
            count.by_layout.add(&layout);
            count.by_preset.add(&preset);
        }
        touched.dedup();
        if !touched.is_empty() {
            // What is left there is what is played with, by the law of the sheet.
            let rig = Rig::new(&self.sheet, &profile, &self.usual);
            touched.retain(|row| rig.bindings_of(*row).is_empty());
        }
        for row in touched {
            *self.unbound.entry(row).or_default() += 1;
        }
        let mut is_changed = !changes.is_empty();
        for (setting, value) in profile.settings() {
            let is_other = !matches!(
                setting,
                Setting::Bind { .. } | Setting::Title | Setting::Unread { .. }
            );
            if is_other {
                is_changed = true;
                self.settings.entry(setting.clone()).or_default().add(value);
            }
        }
        self.unchanged += u64::from(!is_changed);
    }
}

/// The word for what is bound to nothing.
pub(super) const UNBOUND: &str = "unbound";

impl SettingCount {
    fn add(&mut self, value: &SettingValue) {
        self.set += 1;
        let number = match value {
            SettingValue::Parameter(ParameterValue::Number(n) | ParameterValue::Seconds(n)) => {
                as_written(*n)
            }
            other => return self.values.add(&text(other)),
        };
        match &mut self.numbers {
            Some(numbers) => numbers.merge(&Numbers::of(number)),
            none => *none = Some(Numbers::of(number)),
        }
    }
}

/// A number as it stands in files, rather than the nearest one that a machine has.
fn as_written(number: f32) -> f64 {
    number.to_string().parse().unwrap_or(f64::from(number))
}

/// What is no number, as it stands in files.
fn text(value: &SettingValue) -> String {
    match value {
        SettingValue::Text(text) => text.clone(),
        SettingValue::Parameter(value) => value.to_string(),
        _ => "other".to_owned(),
    }
}
