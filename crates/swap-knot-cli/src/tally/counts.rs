//! What many profiles have in common, counted one after the other: as much memory for a hundred thousand
//! as for a hundred.

use std::collections::{BTreeMap, HashMap};

use swap_knot::keep::{Setting, SettingValue};
use swap_knot::remap::CarriedOver;
use swap_knot::sheet::ParameterValue;
use swap_knot::{Cell, Layout, Profile, Rig, Row, Sheet};

/// The most different texts that one list counts; further ones are counted together.
const MOST: usize = 500;

/// How often each of some texts came.
#[derive(Debug, Default)]
pub(super) struct Counts {
    of: BTreeMap<String, u64>,
    /// Those beyond the most that are told apart.
    pub(super) other: u64,
}

impl Counts {
    fn add(&mut self, text: &str) {
        if let Some(count) = self.of.get_mut(text) {
            *count += 1;
        } else if self.of.len() < MOST {
            self.of.insert(text.to_owned(), 1);
        } else {
            self.other += 1;
        }
    }

    /// The texts, the most frequent ones first.
    pub(super) fn sorted(&self) -> Vec<(&str, u64)> {
        let mut all: Vec<(&str, u64)> = self.of.iter().map(|(t, n)| (&**t, *n)).collect();
        all.sort_by_key(|(text, count)| (std::cmp::Reverse(*count), *text));
        all
    }

    pub(super) fn get(&self, text: &str) -> u64 {
        self.of.get(text).copied().unwrap_or(0)
    }
}

/// What players changed in one cell.
#[derive(Debug, Default)]
pub(super) struct CellCount {
    pub(super) changed: u64,
    pub(super) to: Counts,
    pub(super) by_layout: Counts,
    pub(super) by_preset: Counts,
}

/// How players set something beside the bindings.
#[derive(Debug, Default)]
pub(super) struct SettingCount {
    pub(super) set: u64,
    /// The least, the most and the sum of its numbers.
    pub(super) numbers: Option<(f64, f64, f64)>,
    /// What is no number.
    pub(super) values: Counts,
}

/// All that is counted.
#[derive(Debug)]
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
        let (least, most, sum) = self.numbers.get_or_insert((number, number, 0.0));
        *least = least.min(number);
        *most = most.max(number);
        *sum += number;
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
