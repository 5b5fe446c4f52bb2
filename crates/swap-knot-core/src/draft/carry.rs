//! A profile carried over from an older sheet: nothing of the player's is lost, and what was
//! changed is reported.

use std::collections::BTreeSet;
use std::fmt;

use crate::conflict::{Conflict, unsettled};
use crate::input::Chord;
use crate::law::{NotInForce, Origin, Unlawful, uphold};
use crate::layout::Resolver;
use crate::profile::{Profile, bind};
use crate::sheet::{Sheet, TitledRow};
use crate::text::shown;

/// A profile carried over to a sheet from an older one, and what that did.
///
/// Renamed actions are followed with all that is set of them, what is unknown is kept aside, and a
/// new default that lands on an input the player chose for something else gives way. A newer
/// profile is left as it is: the newer game finds it again.
///
/// ```
/// use swap_knot::remap::CarriedOver;
/// use swap_knot::{Layout, Profile, Sheet};
///
/// let sheet = Sheet::from_toml(r#"
///     game = "slack-water"
///     version = 2
///     renamed = { unmoor = "cast-off" }
///     [actions.cast-off]
///     bind = "Space"
/// "#)?;
/// let old = Profile::from_toml("format = 1\nsheet = 1\n[bind.unmoor]\nkeyboard-1 = \"KeyG\"")?;
/// let carried = CarriedOver::new(&sheet, &old, Layout::us());
/// assert_eq!(carried.moved, [("unmoor".to_owned(), "cast-off".to_owned())]);
/// assert!(carried.profile.to_toml().contains("[bind.cast-off]"));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct CarriedOver {
    /// The profile for the sheet.
    pub profile: Profile,
    /// The game that it was made in, where that is another one than the sheet's.
    pub other_game: Option<String>,
    /// Actions that have another name now: what they were called, and what they are.
    pub moved: Vec<(String, String)>,
    /// Rows and actions that this sheet does not have. They are kept for a version that has them.
    pub set_aside: Vec<SetAside>,
    /// Defaults that gave way because the player had chosen their input for something else.
    pub gave_way: Vec<GaveWay>,
    /// Conflicts between the player's choices and what the game has, that could not be mended by giving
    /// way: an essential action would have lost its last binding, or the player set something there
    /// that is not in force, which nothing writes over.
    pub open: Vec<Conflict>,
    /// What of it is not in force in this version.
    pub not_in_force: Vec<NotInForce>,
}

/// A row or action of a profile that the sheet does not have.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct SetAside {
    /// Its name.
    pub name: String,
    /// Whether the sheet says that it was removed; otherwise it knows nothing of it.
    pub is_removed: bool,
}

/// A new default that gave way to a choice of the player's.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct GaveWay {
    /// The row that gives its default up.
    pub row: TitledRow,
    /// The default.
    pub default: Chord,
    /// The row that the player chose its input for.
    pub by: TitledRow,
}

impl fmt::Display for SetAside {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let why = match self.is_removed {
            true => "gone from the game",
            false => "unknown to this version",
        };
        let name = shown(&self.name);
        write!(f, "`{name}` is {why}; its bindings are kept aside")
    }
}

impl fmt::Display for GaveWay {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let GaveWay { row, default, by } = self;
        write!(f, "{row} gives up its default {default}, which {by} has")
    }
}

/// How much of it a log is told.
const MOST_LOGGED: usize = 100;

impl CarriedOver {
    /// Carries a profile over to a sheet; conflicts are judged on that layout.
    pub fn new(sheet: &Sheet, profile: &Profile, on: impl Into<Resolver>) -> CarriedOver {
        let on = on.into();
        let mut out = CarriedOver {
            profile: profile.clone(),
            other_game: (profile.game())
                .filter(|game| *game != sheet.game())
                .map(str::to_owned),
            moved: Vec::new(),
            set_aside: Vec::new(),
            gave_way: Vec::new(),
            open: Vec::new(),
            not_in_force: Vec::new(),
        };
        if out.other_game.is_some() {
            // It is told once: from here on it is of this game.
            out.profile.move_to(sheet);
        }
        let version = profile.sheet_version();
        let is_newer = version.is_some_and(|v| v > sheet.version());
        if !is_newer {
            out.follow_names(sheet);
        }
        out.tell_set_aside(sheet);
        if profile.may_meet_new_defaults(sheet) {
            out.give_way(sheet, &on);
        }
        out.not_in_force = uphold(sheet, &out.profile, &on).not_in_force;
        // What this sheet does not have is told of as set aside.
        out.not_in_force.retain(|n| n.why != Unlawful::NoSuchRow);
        out
    }

    /// Whether there is nothing to tell.
    pub fn is_empty(&self) -> bool {
        self.other_game.is_none()
            && self.moved.is_empty()
            && self.set_aside.is_empty()
            && self.gave_way.is_empty()
            && self.open.is_empty()
            && self.not_in_force.is_empty()
    }

    /// What happened, a line each, for logs; of very much only the first lines, and how many more.
    pub fn describe(&self, sheet: &Sheet) -> Vec<String> {
        let other = self.other_game.as_deref().map(|game| {
            let game = shown(game);
            format!("it is a profile of another game, `{game}`; what fits this one is used")
        });
        let moved = (self.moved.iter()).map(|(old, new)| format!("`{old}` is called `{new}` now"));
        let open = (self.open.iter()).map(|c| format!("conflict: {}", c.describe(sheet)));
        let mut lines: Vec<String> = (other.into_iter())
            .chain(moved)
            .chain(self.set_aside.iter().map(ToString::to_string))
            .chain(self.gave_way.iter().map(ToString::to_string))
            .chain(open)
            .chain(self.not_in_force.iter().map(ToString::to_string))
            .collect();
        if let Some(more) = lines.len().checked_sub(MOST_LOGGED).filter(|n| *n > 0) {
            lines.truncate(MOST_LOGGED);
            lines.push(format!("and {more} more"));
        }
        lines
    }

    /// Moves what is set of renamed actions to their new names.
    fn follow_names(&mut self, sheet: &Sheet) {
        let unknown: BTreeSet<String> = (self.profile.settings())
            .filter_map(|(s, _)| s.action())
            .filter(|name| sheet.find(name).is_none())
            .map(str::to_owned)
            .collect();
        for old in unknown {
            let new = sheet.renamed(&old).filter(|new| sheet.find(new).is_some());
            if let Some(new) = new
                && self.profile.rename(&old, new)
            {
                self.moved.push((old, new.to_owned()));
            }
        }
    }

    fn tell_set_aside(&mut self, sheet: &Sheet) {
        let rows = self.profile.row_names().map(str::to_owned);
        let others = self.profile.settings().filter_map(|(s, _)| s.action());
        let others = others.filter(|name| sheet.find(name).is_none());
        let mut names: BTreeSet<String> =
            rows.filter(|row| sheet.find_row(row).is_none()).collect();
        // An action of which rows are told is not told again.
        let told: BTreeSet<String> = (names.iter())
            .filter_map(|row| row.split('.').next().map(str::to_owned))
            .collect();
        names.extend(
            others
                .filter(|name| !told.contains(*name))
                .map(str::to_owned),
        );
        self.set_aside = names
            .into_iter()
            .map(|name| SetAside {
                is_removed: sheet.is_removed(name.split('.').next().unwrap_or(&name)),
                name,
            })
            .collect();
    }

    /// Has defaults give way that the player's choices are in the way of, until none is left that can:
    /// what one gives up may bring another one back. Nothing that the player set themselves gives way, in
    /// force or not.
    fn give_way(&mut self, sheet: &Sheet, on: &Resolver) {
        loop {
            let before = uphold(sheet, &self.profile, on);
            let origin = |cell| {
                let mut all = before.bindings.iter();
                all.find(|b| b.cell == cell).map(|b| b.origin)
            };
            let all = unsettled(sheet, &before.bindings, on);
            // Between a choice of the player's and what is none, in that order.
            let met = all.into_iter().filter_map(|conflict| {
                let own = [&conflict.first, &conflict.second]
                    .map(|party| origin(party.cell) == Some(Origin::Profile));
                match own {
                    [true, false] => Some((conflict.clone(), conflict.first, conflict.second)),
                    [false, true] => Some((conflict.clone(), conflict.second, conflict.first)),
                    _ => None,
                }
            });
            let met: Vec<_> = met.collect();
            let told = self.gave_way.len();
            for (_, own, default) in &met {
                // What gave way for another one before is gone already.
                if self.profile.setting(&bind(sheet, default.cell)).is_some() {
                    continue;
                }
                let mut without = self.profile.clone();
                without.give_way(sheet, default.cell);
                let after = uphold(sheet, &without, on);
                if after.not_in_force.len() > before.not_in_force.len() {
                    continue;
                }
                self.gave_way.push(GaveWay {
                    row: sheet.titled(default.cell.row),
                    default: default.chord.clone(),
                    by: sheet.titled(own.cell.row),
                });
                self.profile = without;
            }
            if self.gave_way.len() == told {
                self.open = met.into_iter().map(|(conflict, ..)| conflict).collect();
                return;
            }
        }
    }
}
