//! Feel carried out: dead zones, curves, ramps.

use crate::input::Time;
use crate::sheet::{DeadZone, DeadZoneForm, Feel};

/// One amount: dead zone cut away and the rest stretched, then bent by the curve, which makes it 0
/// to 1, times sensitivity.
#[inline]
pub(crate) fn amount(feel: &Feel, raw: f32) -> f32 {
    let amount = cut(&feel.dead_zone, raw);
    if amount <= 0.0 {
        return 0.0;
    }
    bend(feel, amount) * feel.sensitivity
}

/// Two axes at once: as [`amount`], keeping the direction; and how long that is.
#[inline]
pub(super) fn plane(feel: &Feel, [x, y]: [f32; 2]) -> ([f32; 2], f32) {
    let turned = [
        if feel.invert[0] { -x } else { x },
        if feel.invert[1] { -y } else { y },
    ];
    // Where it points to, how long that is, and how far in it counts.
    let (towards, length, far) = match feel.dead_zone.form {
        DeadZoneForm::Axis => {
            let cut = turned.map(|v| cut(&feel.dead_zone, v.abs()).copysign(v));
            let length = length(cut);
            (cut, length, length)
        }
        DeadZoneForm::Round => {
            let length = length(turned);
            (turned, length, cut(&feel.dead_zone, length))
        }
    };
    if far <= 0.0 {
        return ([0.0; 2], 0.0);
    }
    let wanted = bend(feel, far.min(1.0)) * feel.sensitivity;
    if wanted <= 0.0 {
        return ([0.0; 2], wanted);
    }
    let scale = wanted / length;
    let [x, y] = towards.map(|v| v * scale);
    if feel.sensitivity_y == 1.0 {
        return ([x, y], wanted);
    }
    let to = [x, y * feel.sensitivity_y];
    (to, self::length(to))
}

fn length([x, y]: [f32; 2]) -> f32 {
    (x * x + y * y).sqrt()
}

#[inline]
fn cut(zone: &DeadZone, raw: f32) -> f32 {
    ((raw - zone.inner) / (zone.outer - zone.inner)).clamp(0.0, 1.0)
}

#[inline]
fn bend(feel: &Feel, amount: f32) -> f32 {
    match feel.curve {
        1.0 => amount,
        2.0 => amount * amount,
        curve => amount.powf(curve),
    }
}

/// What a distance of a mouse is multiplied by for the curve, at a speed in counts a second.
pub(super) fn hurried(feel: &Feel, speed: f32) -> f32 {
    if feel.curve == 1.0 {
        return 1.0;
    }
    (speed / Feel::EVEN_SPEED)
        .powf(feel.curve - 1.0)
        .clamp(0.1, 10.0)
}

/// The speed of something that moves in small distances at odd times, as if each had taken its share
/// of the last few milliseconds.
pub(super) fn speed(before: f32, since: f32, by: f32) -> f32 {
    const LATELY: f32 = 0.016;
    before * (-since / LATELY).exp() + by / LATELY
}

/// An amount on its way to a target at a steady pace.
///
/// It is worked out from when it set off, not step by step, so that it does not depend on the
/// frame rate.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(super) struct Ramp {
    pub(super) from: f32,
    pub(super) target: f32,
    pub(super) started: Time,
    /// Seconds from rest to full; 0 is at once.
    pub(super) pace: f32,
}

impl Ramp {
    /// Sets off towards a target.
    #[inline]
    pub(super) fn head_for(&mut self, target: f32, pace: f32, now: Time) {
        self.from = self.at(now);
        self.target = target;
        self.started = now;
        self.pace = pace;
    }

    /// Where it is.
    #[inline]
    pub(super) fn at(&self, now: Time) -> f32 {
        if self.pace <= 0.0 {
            return self.target;
        }
        let gone = now.since(self.started).as_secs_f32() / self.pace;
        if self.target > self.from {
            (self.from + gone).min(self.target)
        } else {
            (self.from - gone).max(self.target)
        }
    }

    /// Whether it rests and goes nowhere.
    pub(super) fn is_at_rest(&self) -> bool {
        self.from == 0.0 && self.target == 0.0
    }

    /// The clock went back by so many microseconds.
    pub(super) fn turn_back(&mut self, micros: u64) {
        self.started = self.started.minus(micros);
    }

    /// When it arrives, if it is on its way.
    pub(super) fn arrives(&self) -> Time {
        let way = (self.target - self.from).abs();
        self.started.plus_secs(way * self.pace.max(0.0))
    }

    /// Whether it has arrived.
    pub(super) fn done(&self, now: Time) -> bool {
        self.at(now) == self.target
    }
}
