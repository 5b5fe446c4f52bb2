//! Places that are the same wherever the player lives.

use crate::input::Place;
use crate::layout::Layout;

/// The places that have a key with the same legend on all of the layouts and their boards, writing
/// places first; on boards for two scripts the Latin legend counts.
///
/// ```
/// use swap_knot::check::same_places;
/// use swap_knot::{Layout, Place};
///
/// let layouts = ["us", "fr", "ru"].map(|name| Layout::shipped(name).expect("shipped"));
/// let same = same_places(&layouts);
/// assert!(same.contains(&Place::KeyE) && !same.contains(&Place::KeyW));
/// assert!(same.contains(&Place::F5) && !same.contains(&Place::KanaMode));
/// ```
pub fn same_places(layouts: &[Layout]) -> Vec<Place> {
    let Some((first, others)) = layouts.split_first() else {
        return Vec::new();
    };
    let writes_the_same = |place: &Place| {
        let wanted = legends(first, *place);
        let mut both = others.iter().map(|l| legends(l, *place));
        wanted
            .iter()
            .flatten()
            .any(|w| both.clone().all(|b| b.contains(&Some(*w))))
            || (*place == Place::Space && both.all(|_| true))
    };
    let on_all = |place: &Place| layouts.iter().all(|l| l.board().key(*place).is_some());
    let others_write = |p: &Place| !Place::WRITING.contains(p);
    (Place::WRITING.into_iter().filter(writes_the_same))
        .chain(Place::ALL.iter().copied().filter(others_write))
        .filter(on_all)
        .collect()
}

fn legends(layout: &Layout, place: Place) -> [Option<char>; 2] {
    let legend = layout.legend(place);
    [
        legend.and_then(|l| l.chars().next()),
        layout.second_legend(place),
    ]
}
