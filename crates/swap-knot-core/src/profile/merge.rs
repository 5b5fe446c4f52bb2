//! One profile changed on two machines, merged against what both started from.

use std::cmp::Ordering;
use std::collections::BTreeSet;
use std::fmt;

use super::setting::Paths;
use super::{Profile, Setting, SettingValue};

/// Which of two profiles was saved later.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Newer {
    /// The one on this machine.
    Ours,
    /// The one from elsewhere.
    Theirs,
}

/// A setting that both sides changed differently, so that one of them was overruled.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct Overruled {
    /// Which setting.
    pub setting: Setting,
    /// What the newer side has, which is in force; none where it left it to the game.
    pub kept: Option<SettingValue>,
    /// What the older side had.
    pub dropped: Option<SettingValue>,
}

impl fmt::Display for Overruled {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let value = |v: &Option<SettingValue>| match v {
            Some(value) => value.to_string(),
            None => "the game's".to_owned(),
        };
        let (kept, dropped) = (value(&self.kept), value(&self.dropped));
        write!(f, "{}: {kept} was kept and {dropped} dropped", self.setting)
    }
}

impl Profile {
    /// Merges this profile with one from elsewhere against what both started from, setting by
    /// setting, those included that this version does not understand.
    ///
    /// What only one side changed is as that side has it. Where both changed the same thing to
    /// different ends, the newer side wins and the other is reported. Two sound sides can still meet
    /// on one key: [`Merged`](crate::remap::Merged) tells of that as well.
    #[must_use]
    pub fn merged(
        &self,
        base: &Profile,
        theirs: &Profile,
        newer: Newer,
    ) -> (Profile, Vec<Overruled>) {
        let mut out = Profile {
            game: self.game.clone().or_else(|| theirs.game.clone()),
            sheet_version: self.sheet_version.max(theirs.sheet_version),
            defaults: match self.sheet_version.cmp(&theirs.sheet_version) {
                Ordering::Greater => self.defaults,
                Ordering::Less => theirs.defaults,
                // Of two that knew other defaults neither may speak for both.
                Ordering::Equal => self.defaults.filter(|_| self.defaults == theirs.defaults),
            },
            ..Profile::default()
        };
        let mut overruled = Vec::new();
        let mut taken = Paths::default();
        let all = self.settings.keys().chain(theirs.settings.keys());
        // What is not understood comes last: it gives way to what stands in its place by then.
        for setting in all.collect::<BTreeSet<&Setting>>() {
            let of = |p: &Profile| p.settings.get(setting).cloned();
            let (base, ours, theirs) = (of(base), of(self), of(theirs));
            let picked = if ours == theirs || theirs == base {
                ours
            } else if ours == base {
                theirs
            } else {
                let (kept, dropped) = match newer {
                    Newer::Ours => (ours, theirs),
                    Newer::Theirs => (theirs, ours),
                };
                overruled.push(Overruled {
                    setting: setting.clone(),
                    kept: kept.clone(),
                    dropped,
                });
                kept
            };
            let is_strange = matches!(setting, Setting::Unread { .. });
            if picked.is_some() && is_strange && taken.block(&setting.path()) {
                overruled.push(Overruled {
                    setting: setting.clone(),
                    kept: None,
                    dropped: picked,
                });
                continue;
            }
            if picked.is_some() {
                taken.take(setting.path());
            }
            out.put(setting.clone(), picked);
        }
        (out, overruled)
    }
}
