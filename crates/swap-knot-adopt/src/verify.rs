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
    let differs = |name: &str| Err(AdoptError::NotTheSame(format!("`{name}`")));
    for (id, action) in old.sheet().actions() {
        let Some(now) = new.sheet().find(&action.name) else {
            return differs(&action.name);
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
        let feels = DeviceKind::ALL;
        if bound(&old, id) != bound(&new, now)
            || !Parameter::of(ActsOn::Actions).all(same)
            || feels
                .into_iter()
                .any(|k| old.feel(Some(id), k) != new.feel(Some(now), k))
        {
            return differs(&action.name);
        }
    }
    let feels = DeviceKind::ALL.into_iter();
    match feels
        .into_iter()
        .any(|k| old.feel(None, k) != new.feel(None, k))
    {
        true => Err(AdoptError::NotTheSame("the feel of all actions".to_owned())),
        false => Ok(()),
    }
}
