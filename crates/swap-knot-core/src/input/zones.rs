//! Touch zones and on-screen sticks that a game lays out.

use super::{EventKind, TouchName};

/// Turns fingers on a screen into named zones and sticks.
///
/// Points are in whatever the game lays out in, x to the right and y down, as screens count. A zone
/// stays touched until the finger that touched it leaves the screen, wherever it slides; a stick
/// follows its finger.
///
/// ```
/// use swap_knot::{EventKind, TouchZones};
///
/// let mut zones = TouchZones::new();
/// zones.add_area("horn".parse()?, [0.0, 0.0], [100.0, 60.0]);
/// zones.add_stick("rudder".parse()?, [400.0, 300.0], 80.0);
///
/// let horn = zones.down(1, [20.0, 30.0]).next().expect("the horn is there");
/// assert!(matches!(horn, EventKind::Touch { down: true, .. }));
/// let rudder = zones.down(2, [440.0, 300.0]).next().expect("the rudder is there");
/// assert!(matches!(rudder, EventKind::TouchStick { x: 0.5, y: 0.0, .. }));
/// assert_eq!(zones.down(3, [900.0, 900.0]).next(), None);
/// # Ok::<(), swap_knot::TouchNameError>(())
/// ```
#[derive(Clone, Debug, Default)]
pub struct TouchZones {
    zones: Vec<(TouchName, Form)>,
    /// Which finger is on which zone.
    fingers: Vec<(u64, usize)>,
}

#[derive(Clone, Copy, Debug)]
enum Form {
    Area { min: [f32; 2], size: [f32; 2] },
    Stick { center: [f32; 2], radius: f32 },
}

impl Form {
    fn contains(&self, [x, y]: [f32; 2]) -> bool {
        match *self {
            Form::Area { min, size } => {
                (min[0]..min[0] + size[0]).contains(&x) && (min[1]..min[1] + size[1]).contains(&y)
            }
            Form::Stick { center, radius } => (x - center[0]).hypot(y - center[1]) <= radius,
        }
    }
}

impl TouchZones {
    /// A screen without zones.
    pub fn new() -> TouchZones {
        TouchZones::default()
    }

    /// Lays out a rectangle from its upper left corner; it lies over those before it.
    pub fn add_area(&mut self, name: TouchName, min: [f32; 2], size: [f32; 2]) {
        self.zones.push((name, Form::Area { min, size }));
    }

    /// Lays out an on-screen stick, full at its radius; it lies over those before it.
    pub fn add_stick(&mut self, name: TouchName, center: [f32; 2], radius: f32) {
        let radius = radius.max(f32::EPSILON);
        self.zones.push((name, Form::Stick { center, radius }));
    }

    /// Takes every zone away, for another layout of the screen. What lay under a finger is let go:
    /// feed what this answers.
    #[must_use = "what lay under a finger stays down otherwise"]
    pub fn clear(&mut self) -> Vec<EventKind> {
        let fingers: Vec<u64> = self.fingers.iter().map(|(finger, _)| *finger).collect();
        let let_go = fingers.into_iter().filter_map(|f| self.up(f)).collect();
        self.zones.clear();
        let_go
    }

    /// A finger touched the screen; what that means, if it is on a zone. Should the system have
    /// lost the moment at which the finger left the screen before, that comes first.
    pub fn down(&mut self, finger: u64, at: [f32; 2]) -> impl Iterator<Item = EventKind> + use<> {
        let lost = self.up(finger);
        let zone = self.zones.iter().rposition(|(_, form)| form.contains(at));
        let touched = zone.map(|zone| {
            self.fingers.push((finger, zone));
            self.event(zone, Some(at))
        });
        [lost, touched].into_iter().flatten()
    }

    /// A finger moved.
    pub fn moved(&mut self, finger: u64, at: [f32; 2]) -> Option<EventKind> {
        let (_, zone) = self.fingers.iter().find(|(f, _)| *f == finger)?;
        let is_stick = matches!(self.zones.get(*zone)?.1, Form::Stick { .. });
        is_stick.then(|| self.event(*zone, Some(at)))
    }

    /// A finger left the screen, or the system took it away.
    pub fn up(&mut self, finger: u64) -> Option<EventKind> {
        let at = self.fingers.iter().position(|(f, _)| *f == finger)?;
        let (_, zone) = self.fingers.remove(at);
        // Another finger may still be on the same zone.
        let held = self.fingers.iter().any(|(_, z)| *z == zone);
        (!held).then(|| self.event(zone, None))
    }

    fn event(&self, zone: usize, at: Option<[f32; 2]>) -> EventKind {
        let (name, form) = self.zones[zone];
        match form {
            Form::Area { .. } => EventKind::Touch {
                name,
                down: at.is_some(),
            },
            Form::Stick { center, radius } => {
                let [dx, dy] = at.map_or([0.0; 2], |at| [at[0] - center[0], center[1] - at[1]]);
                let scale = radius.max(dx.hypot(dy));
                EventKind::TouchStick {
                    name,
                    x: dx / scale,
                    y: dy / scale,
                }
            }
        }
    }
}
