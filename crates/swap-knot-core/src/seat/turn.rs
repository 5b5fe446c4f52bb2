//! How far to turn: the distance of a mouse and the deflection of a stick as one answer.

use super::state::State;
use super::{Reading, Seat};
use crate::input::Time;
use crate::rig::Wiring;
use crate::sheet::ActionRef;

/// The units of a game's turning: what one count of a mouse is worth, and a second at full tilt.
///
/// In degrees, radians, metres of zoom or whatever the game turns in. Sensitivity and curve of the
/// player's feel come on top, for each kind of device by itself.
///
/// ```
/// use swap_knot::play::TurnUnits;
///
/// let degrees = TurnUnits { a_count: 0.06, a_second: 180.0 };
/// # let _ = degrees;
/// ```
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct TurnUnits {
    /// How far one count of a mouse turns, or one notch of a wheel.
    pub a_count: f32,
    /// How far a second at full tilt turns, of a stick, a trigger or a key.
    pub a_second: f32,
}

/// How far a rate has come by its deflection, in seconds at full tilt.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(super) struct Turned {
    /// All of it up to `since`.
    pub(super) sum: [f64; 3],
    /// From here on it is as it is now.
    pub(super) since: Time,
}

/// The most ramps that are looked at to cut it where they arrive.
const RAMPS: usize = 12;

impl State {
    /// Something is about to change at this moment: adds up what the rates have come by until now.
    #[inline]
    pub(super) fn add_up_rates(&mut self, wiring: &Wiring) {
        for (n, &action) in wiring.rates.iter().enumerate() {
            // What comes late changes nothing of what was turned already.
            if self.turned[n].since < self.now {
                let sum = self.turned_by(wiring, action, self.now);
                self.turned[n] = Turned {
                    sum,
                    since: self.now,
                };
            }
        }
    }

    /// How far a rate has come at a moment since its last change.
    ///
    /// It depends on that change and the moment alone, not on how often it is asked in between, so
    /// that a game gets the same at any rhythm.
    pub(super) fn turned_by(&self, wiring: &Wiring, index: u16, to: Time) -> [f64; 3] {
        let action = &wiring.actions[usize::from(index)];
        let Some(Turned { sum, since }) = action.rate.map(|n| self.turned[usize::from(n)]) else {
            return [0.0; 3];
        };
        if to <= since {
            return sum;
        }
        let at = |moment: Time| {
            let base = self.base(action, &self.levels(wiring, action, moment), true);
            self.value_of(wiring, action, base, true).map(f64::from)
        };
        let seconds = |from: Time, to: Time| to.since(from).as_secs_f64();
        // Where a ramp arrives there is a corner; between corners the value bends gently.
        let mut corners = [to; RAMPS + 1];
        let mut count = 0;
        let ports = usize::from(action.port)..usize::from(action.port) + usize::from(action.ports);
        let of_ports = self.ports[ports.clone()].iter().map(|p| p.ramp);
        let wires = wiring.port_range[ports].iter().flat_map(|&(start, end)| {
            wiring.port_wires[start as usize..end as usize]
                .iter()
                .copied()
        });
        let of_wires = wires.map(|wire| self.wires[usize::from(wire)].ramp);
        for ramp in of_ports.chain(of_wires) {
            if !ramp.done(since) && count < RAMPS {
                corners[count] = ramp.arrives().min(to);
                count += 1;
            }
        }
        if count == 0 {
            let (value, gone) = (at(since), seconds(since, to));
            return [0, 1, 2].map(|axis| sum[axis] + value[axis] * gone);
        }
        corners[..count].sort_unstable();
        let (mut sum, mut from) = (sum, since);
        for &corner in &corners[..=count] {
            if from < corner {
                let ends = [at(from), at(middle(from, corner)), at(corner)];
                let area = area(&at, [from, corner], ends, DEEPEST);
                sum = [0, 1, 2].map(|axis| sum[axis] + area[axis]);
                from = corner;
            }
        }
        sum
    }

    /// The deflection of an action now, beyond full.
    fn tilt(&self, wiring: &Wiring, index: usize) -> [f32; 3] {
        let action = &wiring.actions[index];
        let base = self.base(action, &self.levels(wiring, action, self.now), true);
        self.value_of(wiring, action, base, true)
    }
}

/// So often a stretch is halved where the value jumps in it, as it does where a key outruns a stick.
const DEEPEST: u32 = 16;

fn middle(from: Time, to: Time) -> Time {
    from.plus(to.since(from) / 2)
}

/// What is under a value between two moments, by Simpson's rule, in halves until they add up.
fn area(
    at: &impl Fn(Time) -> [f64; 3],
    [from, to]: [Time; 2],
    ends: [[f64; 3]; 3],
    deeper: u32,
) -> [f64; 3] {
    let simpson = |from: Time, to: Time, ends: [[f64; 3]; 3]| {
        let width = to.since(from).as_secs_f64() / 6.0;
        [0, 1, 2].map(|axis| (ends[0][axis] + 4.0 * ends[1][axis] + ends[2][axis]) * width)
    };
    let half = middle(from, to);
    let whole = simpson(from, to, ends);
    let left = [ends[0], at(middle(from, half)), ends[1]];
    let right = [ends[1], at(middle(half, to)), ends[2]];
    let halves = [simpson(from, half, left), simpson(half, to, right)];
    let both = [0, 1, 2].map(|axis| halves[0][axis] + halves[1][axis]);
    let agrees = (0..3).all(|axis| (both[axis] - whole[axis]).abs() < 1e-7);
    if agrees || deeper == 0 || half <= from {
        return both;
    }
    let [left, right] = [([from, half], left), ([half, to], right)]
        .map(|(stretch, ends)| area(at, stretch, ends, deeper - 1));
    [0, 1, 2].map(|axis| left[axis] + right[axis])
}

impl TurnUnits {
    /// A distance and the seconds at full tilt, in these units.
    fn turn(self, distance: [f32; 3], tilted: [f64; 3]) -> [f32; 3] {
        [0, 1, 2].map(|axis| {
            distance[axis] * self.a_count + (tilted[axis] * f64::from(self.a_second)) as f32
        })
    }
}

impl Seat {
    /// How far to turn since the tick before the last one, whatever the player turns with: the
    /// distance that a mouse or wheel went, and the time that a stick, a trigger or a key was in.
    ///
    /// Right, up and forward are positive; a line has its turn first. Sensitivity goes beyond full
    /// here: 2 turns twice as fast at full tilt. For an action with `rate = true` each moment counts
    /// with the deflection that it had; for any other the deflection of now counts for all the time.
    ///
    /// ```
    /// use swap_knot::play::TurnUnits;
    /// use swap_knot::{DeviceId, Event, EventKind, Layout, Profile, Rig, Seat, Sheet, Time};
    ///
    /// let sheet = Sheet::from_toml(r#"
    ///     game = "slack-water"
    ///     [actions.look]
    ///     shape = "plane"
    ///     rate = true
    ///     bind = ["mouse:move", "pad:stick-right"]
    /// "#)?;
    /// let look = sheet.find("look").expect("declared above");
    /// let mut seat = Seat::new(Rig::new(&sheet, &Profile::default(), Layout::us()));
    /// let degrees = TurnUnits { a_count: 0.5, a_second: 180.0 };
    ///
    /// let at = Time::from_millis(5);
    /// seat.feed(&Event { at, device: DeviceId(0), what: EventKind::MouseMove { x: 6.0, y: 0.0 } });
    /// seat.tick(Time::from_millis(10));
    /// assert_eq!(seat.turn(look, degrees), [3.0, 0.0, 0.0]);
    /// # Ok::<(), swap_knot::sheet::SheetError>(())
    /// ```
    pub fn turn(&self, action: impl Into<ActionRef>, units: TurnUnits) -> [f32; 3] {
        let action = action.into();
        let Some(index) = self.action_index(action) else {
            return [0.0; 3];
        };
        let wiring = self.rig.wiring();
        let tilted = match wiring.actions[index].rate {
            Some(n) => self.state.turned_in_frame[usize::from(n)],
            None => {
                let [from, to] = self.state.ticks;
                let tilt = self.state.tilt(wiring, index);
                tilt.map(|v| f64::from(v) * to.since(from).as_secs_f64())
            }
        };
        units.turn(self.motion(action), tilted)
    }
}

impl Reading<'_> {
    /// How far to turn since the last reading; see [`Seat::turn`].
    pub fn turn(&self, action: impl Into<ActionRef>, units: TurnUnits) -> [f32; 3] {
        let action = action.into();
        let (seat, pace) = (self.seat(), self.pace());
        let Some(index) = seat.action_index(action) else {
            return [0.0; 3];
        };
        let wiring = seat.rig.wiring();
        let tilted = match wiring.actions[index].rate {
            Some(n) => pace.turned(usize::from(n)),
            None => {
                let tilt = seat.state.tilt(wiring, index);
                tilt.map(|v| f64::from(v) * pace.took().as_secs_f64())
            }
        };
        units.turn(self.motion(action), tilted)
    }
}
