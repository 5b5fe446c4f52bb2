//! Touch zones and on-screen sticks that a game lays out.

use super::{EventKind, Placement, TouchName};

/// Turns fingers on a screen into named zones and sticks.
///
/// Points are in whatever the game lays out in, x to the right and y down, as screens count. A zone
/// stays touched until the last finger that touched it leaves the screen, wherever it slides; a stick
/// follows the finger that came to it last.
///
/// The game lays everything out again when the screen changes: [`TouchZones::clear`], then all zones.
/// Where the player moved them is kept ([`TouchZones::place`]), and wants to know how large the screen
/// is ([`TouchZones::set_screen`]).
///
/// ```
/// use swap_knot::EventKind;
/// use swap_knot::input::TouchZones;
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
/// # Ok::<(), swap_knot::input::TouchNameError>(())
/// ```
#[derive(Clone, Debug, Default, PartialEq)]
pub struct TouchZones {
    screen: Option<[f32; 2]>,
    zones: Vec<Laid>,
    placements: Vec<(TouchName, Placement)>,
    hidden: Vec<TouchName>,
    /// Which finger is on which zone, and where; in the order in which they came.
    fingers: Vec<(u64, usize, [f32; 2])>,
}

/// A zone or an on-screen stick where it lies now: what there is to draw.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub struct TouchZone {
    /// Its name.
    pub name: TouchName,
    /// The upper left corner, in the units of the layout.
    pub min: [f32; 2],
    /// The width and the height; of a stick both are twice its radius.
    pub size: [f32; 2],
    /// Whether it is a stick.
    pub is_stick: bool,
    /// Whether it is not there for fingers, see [`TouchZones::hide`].
    pub hidden: bool,
    /// Whether a finger is on it.
    pub touched: bool,
    /// How far a stick is pushed: right and up positive, −1 to 1.
    pub at: [f32; 2],
}

#[derive(Clone, Copy, Debug, PartialEq)]
struct Laid {
    name: TouchName,
    is_stick: bool,
    hidden: bool,
    /// Where the game has it: its upper left corner and its size.
    own: Rect,
    /// Where it lies.
    rect: Rect,
}

#[derive(Clone, Copy, Debug, PartialEq)]
struct Rect {
    min: [f32; 2],
    size: [f32; 2],
}

impl Rect {
    fn center(&self) -> [f32; 2] {
        [0, 1].map(|n| self.min[n] + self.size[n] / 2.0)
    }

    /// The same where a player put it; all of it on the screen.
    fn placed(self, placement: Placement, screen: Option<[f32; 2]>) -> Rect {
        let Some(screen) = screen.filter(|_| placement != Placement::default()) else {
            return self;
        };
        let room = |n: usize| screen[n] / self.size[n].max(f32::MIN_POSITIVE);
        let factor = placement.size().min(room(0)).min(room(1));
        let size = self.size.map(|s| s * factor);
        let center = self.center();
        let min = [0, 1].map(|n| {
            let least = center[n] + placement.shift()[n] * screen[n] - size[n] / 2.0;
            least.min(screen[n] - size[n]).max(0.0)
        });
        Rect { min, size }
    }
}

impl Laid {
    fn contains(&self, at: [f32; 2]) -> bool {
        let Rect { min, size } = self.rect;
        match self.is_stick {
            true => {
                let [x, y] = self.rect.center();
                (at[0] - x).hypot(at[1] - y) <= self.radius()
            }
            false => (0..2).all(|n| (min[n]..min[n] + size[n]).contains(&at[n])),
        }
    }

    fn radius(&self) -> f32 {
        self.rect.size[0] / 2.0
    }

    /// How far a stick is pushed by a finger.
    fn pushed(&self, finger: Option<[f32; 2]>) -> [f32; 2] {
        let Some(at) = finger else { return [0.0; 2] };
        let [x, y] = self.rect.center();
        let [dx, dy] = [at[0] - x, y - at[1]];
        let scale = self.radius().max(dx.hypot(dy));
        [dx / scale, dy / scale]
    }
}

impl TouchZones {
    /// A screen without zones.
    pub fn new() -> TouchZones {
        TouchZones::default()
    }

    /// How large the screen is, in the units of the layout; the adapters tell it. What the player moved
    /// stays on it.
    pub fn set_screen(&mut self, size: [f32; 2]) {
        let fits = |v: f32| v.is_finite() && v > 0.0;
        if size.into_iter().all(fits) {
            self.screen = Some(size);
            self.lay();
        }
    }

    /// How large the screen is, as far as it was told.
    pub const fn screen(&self) -> Option<[f32; 2]> {
        self.screen
    }

    /// Lays out a rectangle from its upper left corner; it lies over those before it.
    pub fn add_area(&mut self, name: TouchName, min: [f32; 2], size: [f32; 2]) {
        self.add(name, Rect { min, size }, false);
    }

    /// Lays out an on-screen stick, full at its radius; it lies over those before it.
    pub fn add_stick(&mut self, name: TouchName, center: [f32; 2], radius: f32) {
        let radius = radius.max(f32::EPSILON);
        let (min, size) = (center.map(|c| c - radius), [2.0 * radius; 2]);
        self.add(name, Rect { min, size }, true);
    }

    fn add(&mut self, name: TouchName, own: Rect, is_stick: bool) {
        let rect = own.placed(self.placement(name), self.screen);
        self.zones.push(Laid {
            name,
            is_stick,
            hidden: self.hidden.contains(&name),
            own,
            rect,
        });
    }

    /// Puts a zone where the player has it. [`Controls::arrange`](crate::Controls::arrange) does it for
    /// all of them.
    pub fn place(&mut self, name: TouchName, placement: Placement) {
        if self.placement(name) != placement {
            self.placements.retain(|(n, _)| *n != name);
            self.placements.push((name, placement));
            self.lay();
        }
    }

    /// Where the player put a zone.
    pub fn placement(&self, name: TouchName) -> Placement {
        let mut all = self.placements.iter();
        let found = all.find(|(n, _)| *n == name);
        found.map_or_else(Placement::default, |(_, placement)| *placement)
    }

    /// Has a zone there for fingers or not: what is not drawn takes none, and those below it do. A finger
    /// that is on it stays on it. [`Controls::arrange`](crate::Controls::arrange) hides what does nothing
    /// just now.
    pub fn hide(&mut self, name: TouchName, hidden: bool) {
        if self.hidden.contains(&name) == hidden {
            return;
        }
        match hidden {
            true => self.hidden.push(name),
            false => self.hidden.retain(|n| *n != name),
        }
        let own = self.zones.iter_mut().filter(|z| z.name == name);
        own.for_each(|zone| zone.hidden = hidden);
    }

    fn lay(&mut self) {
        for n in 0..self.zones.len() {
            let Laid { name, own, .. } = self.zones[n];
            self.zones[n].rect = own.placed(self.placement(name), self.screen);
        }
    }

    /// Every zone where it lies now; those that lie over others come after them.
    pub fn zones(&self) -> impl ExactSizeIterator<Item = TouchZone> {
        self.zones.iter().enumerate().map(|(n, zone)| {
            let finger = self.finger_on(n);
            TouchZone {
                name: zone.name,
                min: zone.rect.min,
                size: zone.rect.size,
                is_stick: zone.is_stick,
                hidden: zone.hidden,
                touched: finger.is_some(),
                at: match zone.is_stick {
                    true => zone.pushed(finger.map(|(_, at)| at)),
                    false => [0.0; 2],
                },
            }
        })
    }

    /// A placement of a zone as far as it can be seen: one that reaches beyond the screen ends at its
    /// edge. To a thousandth.
    pub(crate) fn within(&self, name: TouchName, placement: Placement) -> Placement {
        let zone = self.zones.iter().find(|z| z.name == name);
        let (Some(zone), Some(screen)) = (zone, self.screen) else {
            return placement;
        };
        let rect = zone.own.placed(placement, self.screen);
        let (own, now) = (zone.own.center(), rect.center());
        let round = |v: f32| (v * 1000.0).round() / 1000.0;
        let shift = [0, 1].map(|n| round((now[n] - own[n]) / screen[n]));
        let factor = rect.size[0] / zone.own.size[0].max(f32::MIN_POSITIVE);
        Placement::new(shift, round(factor))
    }

    /// The names of the zones, for whoever places them.
    pub(crate) fn laid_names(&self) -> Vec<TouchName> {
        self.zones.iter().map(|z| z.name).collect()
    }

    /// Takes every zone away, for another layout of the screen. What lay under a finger is let go:
    /// feed what this answers.
    #[must_use = "what lay under a finger stays down otherwise"]
    pub fn clear(&mut self) -> Vec<EventKind> {
        let let_go = self.lift();
        self.zones.clear();
        let_go
    }

    /// Takes every finger off the screen: for when nobody tells of them any more. What lay under one is
    /// let go: feed what this answers.
    #[must_use = "what lay under a finger stays down otherwise"]
    pub fn lift(&mut self) -> Vec<EventKind> {
        let fingers: Vec<u64> = self.fingers.iter().map(|(finger, ..)| *finger).collect();
        fingers.into_iter().filter_map(|f| self.up(f)).collect()
    }

    /// A finger touched the screen; what that means, if it is on a zone. Should the system have
    /// lost the moment at which the finger left the screen before, that comes first.
    pub fn down(&mut self, finger: u64, at: [f32; 2]) -> impl Iterator<Item = EventKind> + use<> {
        let lost = self.up(finger);
        let is_there = |zone: &Laid| !zone.hidden && zone.contains(at);
        let zone = self.zones.iter().rposition(is_there);
        let touched = zone.and_then(|zone| {
            // A second finger on a button changes nothing.
            let is_told = self.zones[zone].is_stick || self.finger_on(zone).is_none();
            self.fingers.push((finger, zone, at));
            is_told.then(|| self.event(zone))
        });
        [lost, touched].into_iter().flatten()
    }

    /// A finger moved.
    pub fn moved(&mut self, finger: u64, at: [f32; 2]) -> Option<EventKind> {
        let found = self.fingers.iter_mut().find(|(f, ..)| *f == finger)?;
        found.2 = at;
        let zone = found.1;
        let follows = self.zones.get(zone)?.is_stick && self.finger_on(zone)?.0 == finger;
        follows.then(|| self.event(zone))
    }

    /// A finger left the screen, or the system took it away.
    pub fn up(&mut self, finger: u64) -> Option<EventKind> {
        let at = self.fingers.iter().position(|(f, ..)| *f == finger)?;
        let (_, zone, _) = self.fingers[at];
        let was_followed = self.finger_on(zone).is_some_and(|(f, _)| f == finger);
        self.fingers.remove(at);
        // Another finger may still be on the same zone: a stick follows it from here on.
        let is_told = match self.zones.get(zone)?.is_stick {
            true => was_followed,
            false => self.finger_on(zone).is_none(),
        };
        is_told.then(|| self.event(zone))
    }

    /// The finger that came to a zone last, and where it is.
    fn finger_on(&self, zone: usize) -> Option<(u64, [f32; 2])> {
        let mut all = self.fingers.iter().rev();
        let last = all.find(|(_, z, _)| *z == zone);
        last.map(|(finger, _, at)| (*finger, *at))
    }

    /// What a zone says now.
    fn event(&self, zone: usize) -> EventKind {
        let laid = &self.zones[zone];
        let (name, finger) = (laid.name, self.finger_on(zone));
        match laid.is_stick {
            true => {
                let [x, y] = laid.pushed(finger.map(|(_, at)| at));
                EventKind::TouchStick { name, x, y }
            }
            false => EventKind::Touch {
                name,
                down: finger.is_some(),
            },
        }
    }
}
