//! Actions and situations reached by a type that the compiler checks.

use std::fmt;
use std::sync::Arc as Shared;

use super::{ActionRef, Data, Sheet, SituationRef};

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
/// let seat = Seat::new(Rig::new(&sheet, &Profile::default(), Layout::us()));
/// assert!(!seat.is_down(Do::CastOff));
/// # Ok::<(), Box<dyn std::error::Error>>(())
/// ```
pub trait Actions: Copy + Into<ActionRef> + 'static {
    /// The name of each variant in the sheet, in the order of the variants.
    const NAMES: &'static [&'static str];
    /// Every variant, in order.
    const ALL: &'static [Self];
}

/// An enum that lists every situation of a game; see [`Actions`].
pub trait Situations: Copy + Into<SituationRef> + 'static {
    /// The name of each variant in the sheet, in the order of the variants.
    const NAMES: &'static [&'static str];
    /// Every variant, in order.
    const ALL: &'static [Self];
}

/// Where a type and its sheet disagree: every missing and every surplus name.
#[derive(Clone, PartialEq, Eq)]
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

crate::text::debug_as_text!(TypedError);

impl std::error::Error for TypedError {}

impl Sheet {
    /// Checks a type against the actions: each has what the other has. From here on its variants
    /// are found without a search; they mean the same in a sheet that was not checked.
    ///
    /// # Errors
    /// Every name that only one of the two has.
    pub fn typed<A: Actions>(&self) -> Result<Sheet, TypedError> {
        let have: Vec<&str> = self.0.actions.iter().map(|a| a.name.as_str()).collect();
        let order = order("action", A::NAMES, &have)?;
        let mut data: Data = (*self.0).clone();
        data.typed = order;
        Ok(Sheet(Shared::new(data)))
    }

    /// Checks a type against the situations: each has what the other has.
    ///
    /// # Errors
    /// Every name that only one of the two has.
    pub fn typed_situations<S: Situations>(&self) -> Result<Sheet, TypedError> {
        let have: Vec<&str> = self.0.situations.iter().map(|s| s.name.as_str()).collect();
        order("situation", S::NAMES, &have)?;
        Ok(self.clone())
    }
}

/// For each name of a type its position in the sheet.
fn order(
    kind: &'static str,
    wanted: &'static [&'static str],
    have: &[&str],
) -> Result<Vec<u16>, TypedError> {
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
    let order: Vec<u16> = wanted.iter().filter_map(find).map(|i| i as u16).collect();
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
