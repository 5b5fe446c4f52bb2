//! Before: keys in the loop, a flag for each, and the mistakes that come with them.

use swap_knot::{Event, EventKind, Place};

use super::Barge;

#[derive(Default)]
struct Keys {
    forward: bool,
    left: bool,
    right: bool,
    horn: bool,
    horn_pressed: bool,
}

pub(super) fn play(frames: &[Vec<Event>]) -> Barge {
    let (mut barge, mut keys) = (Barge::default(), Keys::default());
    for events in frames {
        keys.horn_pressed = false;
        for event in events {
            let EventKind::Key { place, down, .. } = event.what else {
                continue;
            };
            match place {
                Place::KeyW | Place::ArrowUp => keys.forward = down,
                Place::KeyA | Place::ArrowLeft => keys.left = down,
                Place::KeyD | Place::ArrowRight => keys.right = down,
                Place::KeyH => {
                    // Without this, a held key hoots again with every repeat.
                    keys.horn_pressed |= down && !keys.horn;
                    keys.horn = down;
                }
                _ => {}
            }
        }
        barge.way = if keys.forward { 1.0 } else { 0.0 };
        if keys.left {
            barge.x -= 0.1;
        }
        if keys.right {
            barge.x += 0.1;
        }
        barge.horns += u32::from(keys.horn_pressed);
    }
    barge
}
