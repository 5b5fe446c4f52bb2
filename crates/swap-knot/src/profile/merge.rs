//! One profile changed on two machines, merged against what both started from.

use std::collections::BTreeSet;

use super::{Profile, Setting};
use crate::input::DeviceKind;
use crate::sheet::Column;

/// Which of two profiles was saved later.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Newer {
    /// The one on this machine.
    Ours,
    /// The one from elsewhere.
    Theirs,
}

/// Something that both sides changed differently, so that one of them was overruled.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct Overruled {
    /// What it is: an action or arm with its column, or the name of another setting.
    pub what: String,
    /// What the newer side has, which is in force.
    pub kept: String,
    /// What the older side had.
    pub dropped: String,
}

impl Profile {
    /// Merges this profile with one from elsewhere against what both started from.
    ///
    /// What only one side changed is as that side has it. Where both changed the same thing to
    /// different ends, the newer side wins and the other is reported. Two sound sides can still meet
    /// on one key: [`Sheet::merge`](crate::Sheet::merge) tells of that as well.
    #[must_use]
    pub fn merged(
        &self,
        base: &Profile,
        theirs: &Profile,
        newer: Newer,
    ) -> (Profile, Vec<Overruled>) {
        let mut merge = Merge {
            newer,
            overruled: Vec::new(),
        };
        let mut out = self.clone();
        out.title = merge.pick("title", &base.title, &self.title, &theirs.title, |t| {
            t.clone()
        });
        let name = |n: &Option<String>| n.clone().unwrap_or_else(|| "none".to_owned());
        out.preset = merge.pick("preset", &base.preset, &self.preset, &theirs.preset, name);
        out.layout = merge.pick("layout", &base.layout, &self.layout, &theirs.layout, name);
        out.sheet_version = self.sheet_version.max(theirs.sheet_version);
        merge.cells(&mut out, base, self, theirs);
        merge.feel(&mut out, base, self, theirs);
        for name in keys([&base.toggle, &self.toggle, &theirs.toggle]) {
            let get = |p: &Profile| p.toggle(&name);
            let show = |t: &Option<bool>| t.map_or("the game's".to_owned(), |t| t.to_string());
            let what = format!("toggle of {name}");
            let picked = merge.pick(&what, &get(base), &get(self), &get(theirs), show);
            out.set_toggle(&name, picked);
        }
        // What no side of this version understands is kept from both.
        for (key, value) in &theirs.kept {
            out.kept.entry(key.clone()).or_insert_with(|| value.clone());
        }
        for (key, value) in &theirs.kept_rows {
            out.kept_rows
                .entry(key.clone())
                .or_insert_with(|| value.clone());
        }
        (out, merge.overruled)
    }

    fn setting(&self, row: &str, column: Column) -> Option<&Setting> {
        self.cells.get(row)?.get(&column)
    }
}

fn keys<'a, T: 'a>(
    maps: impl IntoIterator<Item = &'a std::collections::BTreeMap<String, T>>,
) -> BTreeSet<String> {
    maps.into_iter()
        .flat_map(|map| map.keys().cloned())
        .collect()
}

struct Merge {
    newer: Newer,
    overruled: Vec<Overruled>,
}

impl Merge {
    /// The one of two values that was changed; the newer one where both were.
    fn pick<T: PartialEq + Clone>(
        &mut self,
        what: &str,
        base: &T,
        ours: &T,
        theirs: &T,
        show: impl Fn(&T) -> String,
    ) -> T {
        if ours == theirs || theirs == base {
            return ours.clone();
        }
        if ours == base {
            return theirs.clone();
        }
        let (kept, dropped) = match self.newer {
            Newer::Ours => (ours, theirs),
            Newer::Theirs => (theirs, ours),
        };
        self.overruled.push(Overruled {
            what: what.to_owned(),
            kept: show(kept),
            dropped: show(dropped),
        });
        kept.clone()
    }

    fn cells(&mut self, out: &mut Profile, base: &Profile, ours: &Profile, theirs: &Profile) {
        let show = |setting: &Option<&Setting>| match setting {
            None => "the default".to_owned(),
            Some(setting) => setting
                .to_value()
                .as_str()
                .unwrap_or("something newer")
                .to_owned(),
        };
        for row in keys([&base.cells, &ours.cells, &theirs.cells]) {
            let columns: BTreeSet<Column> = [base, ours, theirs]
                .into_iter()
                .filter_map(|p| p.cells.get(&row))
                .flat_map(|columns| columns.keys().copied())
                .collect();
            for column in columns {
                let get = |p| Profile::setting(p, &row, column);
                let what = format!("{row} {column}");
                let picked = self.pick(&what, &get(base), &get(ours), &get(theirs), show);
                let own = out.cells.entry(row.clone()).or_default();
                match picked {
                    Some(setting) => own.insert(column, setting.clone()),
                    None => own.remove(&column),
                };
                if own.is_empty() {
                    out.cells.remove(&row);
                }
            }
        }
    }

    fn feel(&mut self, out: &mut Profile, base: &Profile, ours: &Profile, theirs: &Profile) {
        let names = keys([&base.action_feel, &ours.action_feel, &theirs.action_feel]);
        let actions = std::iter::once(None).chain(names.iter().map(|n| Some(n.as_str())));
        for action in actions {
            for kind in DeviceKind::ALL {
                let get = |p: &Profile| p.feel(action, kind);
                let of = action.map_or(String::new(), |a| format!(" of {a}"));
                let what = format!("feel{of} on {kind}");
                let show = |_: &_| "its own".to_owned();
                let picked = self.pick(&what, &get(base), &get(ours), &get(theirs), show);
                out.set_feel(action, kind, picked);
            }
        }
    }
}
