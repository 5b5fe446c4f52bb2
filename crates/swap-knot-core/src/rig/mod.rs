//! Sheet, preset, profile and layout, worked out and ready to play.

mod cover;
mod fingerprint;
mod note;
mod routes;
mod silent;
mod tell;
mod wiring;

use std::fmt;
use std::sync::{Arc, OnceLock};

pub use cover::NotLive;
pub(crate) use cover::{Placed, Together, Uses, blocked, neighbours, silenced, together};
pub use note::RigNote;
pub(crate) use silent::Silent;
pub(crate) use wiring::{ActionWiring, Alone, Part, Wire, Wiring};

use crate::input::{Input, Place, Platform};
use crate::law::{Bound, NotInForce, Upheld, uphold};
use crate::layout::{Layout, Resolver};
use crate::profile::Profile;
use crate::sheet::{ActionId, Cell, Row, Sheet};

/// Sheet, preset, profile and layout, worked out and ready to play.
///
/// Making one resolves every name once; playing it works on small integers only. Cheap to clone
/// and to compare: two rigs are equal when they are the same one.
///
/// ```
/// use swap_knot::{Layout, Profile, Rig, Sheet};
///
/// let sheet = Sheet::from_toml(r#"
///     game = "slack-water"
///     [actions.map-table]
///     bind = "letter:m"
/// "#)?;
/// let fr = Layout::shipped("fr").expect("fr is shipped");
/// let rig = Rig::new(&sheet, &Profile::default(), &fr);
/// let bound = &rig.bindings()[0];
/// assert_eq!(rig.place_of(bound.chord.input()).unwrap().to_string(), "Semicolon");
/// # Ok::<(), swap_knot::sheet::SheetError>(())
/// ```
#[derive(Clone)]
pub struct Rig(Arc<Data>);

struct Data {
    sheet: Sheet,
    profile: Profile,
    resolver: Resolver,
    /// Ordered by cell.
    bindings: Vec<Bound>,
    not_in_force: Vec<NotInForce>,
    notes: Vec<RigNote>,
    wiring: Wiring,
    /// What a seat tells rigs apart by, once it was asked for.
    fingerprint: OnceLock<u64>,
}

impl Rig {
    /// Works out what a player with this profile plays with on a layout; on another platform than
    /// this one where a [`Resolver`] says so.
    pub fn new(sheet: &Sheet, profile: &Profile, on: impl Into<Resolver>) -> Rig {
        let resolver = on.into();
        Rig::of(sheet, profile, &uphold(sheet, profile, &resolver), resolver)
    }

    /// The same of a profile that was judged already.
    pub(crate) fn of(sheet: &Sheet, profile: &Profile, upheld: &Upheld, resolver: Resolver) -> Rig {
        let stand_ins = upheld.stand_ins.iter();
        let mut notes: Vec<RigNote> = stand_ins.map(|&cell| RigNote::StandsIn { cell }).collect();
        let (lawful, bindings) = (&upheld.lawful, &upheld.bindings);
        let mut wiring = wiring::wire(sheet, lawful, bindings, &resolver, &mut notes);
        wiring.silent = silent::silent(sheet, upheld, &resolver);
        Rig(Arc::new(Data {
            sheet: sheet.clone(),
            profile: profile.clone(),
            resolver,
            bindings: bindings.clone(),
            not_in_force: upheld.not_in_force.clone(),
            notes,
            wiring,
            fingerprint: OnceLock::new(),
        }))
    }

    /// The sheet it was made from.
    pub fn sheet(&self) -> &Sheet {
        &self.0.sheet
    }

    /// The profile it was made from, with what is not in force.
    pub fn profile(&self) -> &Profile {
        &self.0.profile
    }

    /// The layout it was made for.
    pub fn layout(&self) -> &Layout {
        self.0.resolver.layout()
    }

    /// The platform it was made for.
    pub fn platform(&self) -> Platform {
        self.0.resolver.platform()
    }

    /// What inputs are on its layout and platform.
    pub fn resolver(&self) -> &Resolver {
        &self.0.resolver
    }

    /// Every binding there is, ordered by cell.
    pub fn bindings(&self) -> &[Bound] {
        &self.0.bindings
    }

    /// What of the profile the law of the sheet does not let stand, and why. What the preset or the
    /// sheet has in its place is played with; the profile keeps it.
    pub fn not_in_force(&self) -> &[NotInForce] {
        &self.0.not_in_force
    }

    /// What could not be played as it is bound, and what was done instead.
    pub fn notes(&self) -> &[RigNote] {
        &self.0.notes
    }

    /// The bindings of a row, in the order of their columns.
    pub fn bindings_of(&self, row: Row) -> &[Bound] {
        self.slice(|b| b.cell.row.cmp(&row))
    }

    /// The bindings of an action and all its arms, in the order of their cells.
    pub fn bindings_of_action(&self, action: ActionId) -> &[Bound] {
        self.slice(|b| b.cell.row.action.cmp(&action))
    }

    /// The binding in a cell.
    pub fn binding_in(&self, cell: Cell) -> Option<&Bound> {
        self.bindings_of(cell.row).iter().find(|b| b.cell == cell)
    }

    /// Where the key of an input is on this rig's layout: its place, or that of its letter.
    pub fn place_of(&self, input: Input) -> Option<Place> {
        self.resolver().place_of(input)
    }

    /// A number that no other rig has while this one is there; never 0.
    #[inline]
    pub(crate) fn number(&self) -> usize {
        Arc::as_ptr(&self.0) as usize
    }

    pub(crate) fn wiring(&self) -> &Wiring {
        &self.0.wiring
    }

    fn slice(&self, order: impl Fn(&Bound) -> std::cmp::Ordering) -> &[Bound] {
        let all = self.bindings();
        let start = all.partition_point(|b| order(b).is_lt());
        let len = all[start..].partition_point(|b| order(b).is_eq());
        &all[start..start + len]
    }
}

impl PartialEq for Rig {
    fn eq(&self, other: &Self) -> bool {
        Arc::ptr_eq(&self.0, &other.0)
    }
}

impl fmt::Debug for Rig {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.debug_struct("Rig")
            .field("game", &self.sheet().game())
            .field("layout", self.layout())
            .field("bindings", &self.bindings().len())
            .finish()
    }
}
