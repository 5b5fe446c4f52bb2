//! The curve of a number that bends what a stick or trigger says.

use super::{ControlsScreen, Curve, Live, Spot};
use crate::input::DeviceKind;
use crate::seat::shaped;
use crate::sheet::{ActsOn, Feel, Parameter};

/// In how many steps it is drawn.
const STEPS: usize = 48;

impl ControlsScreen {
    /// The curve that a number on the page of feel bends; none of what bends no curve from rest to full.
    pub(super) fn curve(&self, spot: Spot) -> Option<Curve> {
        let Spot::Setting(ActsOn::Inputs(kind), parameter, _) = spot else {
            return None;
        };
        let bends = match parameter {
            Parameter::DeadZone | Parameter::Threshold => true,
            Parameter::Curve | Parameter::Sensitivity => has_rest(kind),
            _ => false,
        };
        if !bends {
            return None;
        }
        let feel = self.draft.feel(self.about, kind);
        let before = points(&self.draft.applied_feel(self.about, kind));
        let points = points(&feel);
        // Where a trigger is drawn with its press, that of the threshold is meant.
        let press = matches!(parameter, Parameter::Threshold).then_some(feel.threshold);
        let level = self
            .live(ActsOn::Inputs(kind), Parameter::DeadZone)
            .or_else(|| self.live(ActsOn::Inputs(kind), Parameter::Threshold))
            .map(|live| match live {
                Live::Stick { at: [x, y], .. } => x.hypot(y),
                Live::Pull { at, .. } => at,
            });
        let level = level.map(|level| level.min(1.0)).filter(|l| *l > 0.0);
        Some(Curve {
            before: if before == points { Vec::new() } else { before },
            points,
            rest: feel.dead_zone.inner,
            full: feel.dead_zone.outer,
            press,
            live: level.map(|level| point(&feel, level)),
            titles: ["curve-hand", "curve-game", "manner-press"].map(|id| self.text(id)),
        })
    }

    /// Where it is right now, in words.
    pub(super) fn told_of(&self, curve: &Curve) -> Option<String> {
        let words = self.draft.words();
        let [from, to] = curve.live?.map(|part| {
            let number = (part * 100.0).round().to_string();
            words.say("value-percent", &[("number", &number)])
        });
        Some(words.say("curve-spoken", &[("from", &from), ("to", &to)]))
    }

    /// The devices that a number is about.
    pub(super) fn device_of(&self, spot: Spot) -> String {
        let words = self.draft.words();
        match spot {
            Spot::Setting(ActsOn::Inputs(kind), ..) => {
                words.capital(&words.device_name(kind), false)
            }
            _ => String::new(),
        }
    }
}

/// Whether its sensitivity and curve go from rest to full: a mouse has no full, and a key is on or off.
const fn has_rest(kind: DeviceKind) -> bool {
    !matches!(kind, DeviceKind::Keyboard | DeviceKind::Mouse)
}

fn points(feel: &Feel) -> Vec<[f32; 2]> {
    let steps = (0..=STEPS).map(|n| n as f32 / STEPS as f32);
    // Its corners are where they are, wherever the steps fall.
    let corners = [feel.dead_zone.inner, feel.dead_zone.outer];
    let mut all: Vec<f32> = steps.chain(corners).collect();
    all.sort_by(f32::total_cmp);
    all.dedup();
    all.into_iter().map(|raw| point(feel, raw)).collect()
}

fn point(feel: &Feel, raw: f32) -> [f32; 2] {
    [raw, shaped(feel, raw).min(1.0)]
}
