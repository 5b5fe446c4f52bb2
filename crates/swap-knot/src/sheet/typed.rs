//! Actions and situations reached by a type that the compiler checks.

use std::fmt;
use std::sync::Arc as Shared;

use super::{ActionId, Arm, Cell, Data, Row, Sheet, SituationId};

/// An enum that lists every action of a game, so that a misspelt one does not compile.
///
/// Derive it (feature `derive`, on by default): each variant stands for the action of its name in
/// kebab case, or of the name in `#[knot("name")]`. `swap-knot types SHEET` writes such an enum.
///
/// # Example: no string on the way from a key to the game
/// ```
/// use swap_knot::{Actions, Layout, Profile, Rig, Seat, Sheet};
///
/// #[derive(Clone, Copy, Actions)]
/// enum Do { CastOff, CoilRope }
///
/// let sheet = Sheet::from_toml(r#"
///     game = "slack-water"
///     [actions.coil-rope]
///     bind = "KeyE"
///     [actions.cast-off]
///     bind = "Space"
/// "#)?;
/// let sheet = sheet.typed::<Do>()?;
/// let seat = Seat::new(Rig::new(&sheet, &Profile::default(), &Layout::us()));
/// assert!(!seat.is_down(Do::CastOff));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
pub trait Actions: Copy + Into<ActionId> + 'static {
    /// The name of each variant in the sheet, in the order of the variants.
    const NAMES: &'static [&'static str];
    /// Every variant, in order.
    const ALL: &'static [Self];
}

/// An enum that lists every situation of a game; see [`Actions`].
pub trait Situations: Copy + Into<SituationId> + 'static {
    /// The name of each variant in the sheet, in the order of the variants.
    const NAMES: &'static [&'static str];
    /// Every variant, in order.
    const ALL: &'static [Self];
}

impl<A: Actions> From<(A, Arm)> for Row {
    fn from((action, arm): (A, Arm)) -> Self {
        Row::arm(action.into(), arm)
    }
}

/// Where a type and its sheet disagree: every missing and every surplus name.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct TypedError {
    kind: &'static str,
    missing: Vec<String>,
    surplus: Vec<String>,
}

impl TypedError {
    /// What the type lists and the sheet does not declare.
    pub fn missing(&self) -> &[String] {
        &self.missing
    }

    /// What the sheet declares and the type does not list.
    pub fn surplus(&self) -> &[String] {
        &self.surplus
    }
}

impl fmt::Display for TypedError {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let list = |names: &[String]| {
            let quoted: Vec<String> = names.iter().map(|n| format!("`{n}`")).collect();
            quoted.join(", ")
        };
        let kind = self.kind;
        if !self.missing.is_empty() {
            write!(f, "the sheet declares no {kind} {}", list(&self.missing))?;
        }
        if !self.missing.is_empty() && !self.surplus.is_empty() {
            f.write_str("; ")?;
        }
        if !self.surplus.is_empty() {
            write!(f, "the type lists no {kind} {}", list(&self.surplus))?;
        }
        f.write_str("; `swap-knot types` writes the type from the sheet")
    }
}

impl std::error::Error for TypedError {}

impl Sheet {
    /// Checks a type against the actions, and puts these in its order so that each variant is its
    /// own id. Menus keep the order of the file.
    ///
    /// # Errors
    /// Every name that only one of the two has.
    pub fn typed<A: Actions>(&self) -> Result<Sheet, TypedError> {
        let have: Vec<&str> = self.0.actions.iter().map(|a| a.name.as_str()).collect();
        let order = order("action", A::NAMES, &have)?;
        Ok(self.with_actions_in(&order))
    }

    /// Checks a type against the situations, and puts these in its order so that each variant is
    /// its own id.
    ///
    /// # Errors
    /// Every name that only one of the two has.
    pub fn typed_situations<S: Situations>(&self) -> Result<Sheet, TypedError> {
        let have: Vec<&str> = self.0.situations.iter().map(|s| s.name.as_str()).collect();
        let order = order("situation", S::NAMES, &have)?;
        Ok(self.with_situations_in(&order))
    }

    /// The same sheet with its actions in another order: `order[new]` is the old position.
    fn with_actions_in(&self, order: &[usize]) -> Sheet {
        let mut data: Data = (*self.0).clone();
        let new = inverse(order);
        let moved = |id: ActionId| ActionId::new(new[id.index()]);
        let moved_cell = |cell: Cell| Cell {
            row: Row {
                action: moved(cell.row.action),
                ..cell.row
            },
            ..cell
        };
        data.actions = order.iter().map(|&i| self.0.actions[i].clone()).collect();
        for action in &mut data.actions {
            for other in &mut action.share {
                *other = moved(*other);
            }
        }
        for id in data.by_name.values_mut() {
            *id = moved(*id);
        }
        for default in &mut data.defaults {
            default.cell = moved_cell(default.cell);
        }
        data.defaults.sort();
        data.ranges = super::read::ranges(&data.defaults, data.actions.len());
        for preset in &mut data.presets {
            for (cell, _) in &mut preset.cells {
                *cell = moved_cell(*cell);
            }
        }
        data.menu_order = self.0.menu_order.iter().map(|&id| moved(id)).collect();
        Sheet(Shared::new(data))
    }

    /// The same sheet with its situations in another order.
    fn with_situations_in(&self, order: &[usize]) -> Sheet {
        let mut data: Data = (*self.0).clone();
        let new = inverse(order);
        let moved = |id: &mut SituationId| *id = SituationId::new(new[id.index()]);
        data.situations = order
            .iter()
            .map(|&i| self.0.situations[i].clone())
            .collect();
        for situation in &mut data.situations {
            situation.with.iter_mut().for_each(moved);
            situation.over.iter_mut().for_each(moved);
        }
        for action in &mut data.actions {
            action.situations.iter_mut().for_each(moved);
        }
        moved_first(&mut data.first_situation, moved);
        data.meets = super::situation::meeting_table(&data.situations);
        Sheet(Shared::new(data))
    }
}

fn moved_first(first: &mut Option<SituationId>, moved: impl Fn(&mut SituationId)) {
    if let Some(first) = first {
        moved(first);
    }
}

/// For each name of a type its position in the sheet.
fn order(
    kind: &'static str,
    wanted: &'static [&'static str],
    have: &[&str],
) -> Result<Vec<usize>, TypedError> {
    let find = |name: &&str| have.iter().position(|h| h == name);
    let owned = |names: Vec<&str>| names.into_iter().map(str::to_owned).collect::<Vec<_>>();
    let missing = owned(
        wanted
            .iter()
            .copied()
            .filter(|n| find(n).is_none())
            .collect(),
    );
    let surplus = owned(
        have.iter()
            .copied()
            .filter(|h| !wanted.contains(h))
            .collect(),
    );
    let order: Vec<usize> = wanted.iter().filter_map(find).collect();
    // A name that is listed twice leaves the lengths unequal.
    if missing.is_empty() && surplus.is_empty() && order.len() == have.len() {
        return Ok(order);
    }
    Err(TypedError {
        kind,
        missing,
        surplus,
    })
}

fn inverse(order: &[usize]) -> Vec<u16> {
    let mut new = vec![0; order.len()];
    for (at, &old) in order.iter().enumerate() {
        new[old] = at as u16;
    }
    new
}
