//! Whether a sheet with its new defaults plays as the old one did with the profile.

use swap_knot::layout::Resolver;
use swap_knot::play::Bound;
use swap_knot::sheet::{ActsOn, Parameter};
use swap_knot::{DeviceKind, Draft, Profile, Sheet};

use crate::numbers::bears;
use crate::{AdoptError, Left};

/// Compares the old sheet with what was adopted of the profile to the new one without any.
pub(crate) fn same(
    sheet: &Sheet,
    profile: &Profile,
    left: &[Left],
    text: &str,
    on: &Resolver,
) -> Result<(), AdoptError> {
    let new = Sheet::from_toml(text)?;
    let mut adopted = profile.clone();
    for Left { setting, .. } in left {
        adopted.forget(setting);
    }
    let mut bare = Profile::default();
    bare.set_preset(adopted.preset());
    let (old, new) = (
        Draft::new(sheet, adopted, on.clone()),
        Draft::new(&new, bare, on.clone()),
    );
    let differs = |of: String, what: &str| {
        let what = what.to_owned();
        Err(AdoptError::NotTheSame { of, what })
    };
    for (id, action) in old.sheet().actions() {
        let of = format!("`{}`", action.name);
        let Some(now) = new.sheet().find(&action.name) else {
            return differs(of, "all");
        };
        // A binding taken out moves those behind it up by a column.
        let bound = |draft: &Draft, id| {
            let own = draft.bindings().iter();
            let own = own.filter(|b: &&Bound| b.cell.row.action == id);
            let key = |b: &Bound| {
                let kind = b.cell.column.kind();
                (
                    b.cell.row.arm,
                    kind,
                    b.chord.clone(),
                    b.manner as u8,
                    b.strict,
                    b.together,
                )
            };
            let mut all: Vec<_> = own.map(key).collect();
            all.sort();
            all.dedup();
            all
        };
        let (is, was) = (new.easing(Some(now)), old.easing(Some(id)));
        // What makes no difference to it may differ.
        let same = |p: Parameter| is.get(p) == was.get(p) || !bears(old.sheet(), id, p);
        if bound(&old, id) != bound(&new, now) {
            return differs(of, "the bindings");
        }
        if let Some(other) = Parameter::of(ActsOn::Actions).find(|p| !same(*p)) {
            return differs(of, &format!("`{}`", other.word()));
        }
        let feels = |k: &DeviceKind| old.feel(Some(id), *k) != new.feel(Some(now), *k);
        if let Some(kind) = DeviceKind::ALL.into_iter().find(feels) {
            return differs(of, &format!("the feel on {kind}"));
        }
    }
    let feels = |k: &DeviceKind| old.feel(None, *k) != new.feel(None, *k);
    match DeviceKind::ALL.into_iter().find(feels) {
        Some(kind) => differs("all actions".to_owned(), &format!("the feel on {kind}")),
        None => Ok(()),
    }
}
