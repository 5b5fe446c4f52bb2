//! On which bindings a setting has a bearing at all.

use super::Parameter;
use crate::input::{Chord, DeviceKind, Input};
use crate::sheet::{Cell, How, Shape, Sheet};

impl Sheet {
    /// Whether a setting makes a difference to a chord in a cell, worked as the sheet wants that cell
    /// worked. What it does not bear on need not be shown, and is no difference.
    pub fn bears(&self, parameter: Parameter, cell: Cell, chord: &Chord) -> bool {
        let How {
            manner, together, ..
        } = self.how_of(cell);
        let (shape, kind) = (
            self.declared(cell.row.action).shape,
            chord.input().device_kind(),
        );
        let is_value = shape != Shape::Press;
        let is_key = kind == DeviceKind::Keyboard;
        // What a player deflects, and what comes back to rest by itself.
        let rests = matches!(kind, DeviceKind::Gamepad | DeviceKind::Other);
        match parameter {
            Parameter::Sensitivity | Parameter::Curve => is_value && !is_key,
            Parameter::SensitivityY => {
                let turns = chord.input() == Input::PadGyro;
                let moves = cell.row.arm.is_none_or(|arm| arm.axis() == 1);
                matches!(shape, Shape::Plane | Shape::Space) && moves && !is_key && !turns
            }
            Parameter::DeadZone => is_value && rests,
            Parameter::Invert => is_value && !is_key && shape != Shape::Pull,
            Parameter::Threshold => rests,
            Parameter::Gyro => chord.input() == Input::PadGyro,
            Parameter::RampUp | Parameter::RampDown => is_value && is_key,
            Parameter::Latch => !chord.is_plain(),
            Parameter::Press => manner.gesture().is_eased_to_press(),
            Parameter::HoldAfter | Parameter::TapWithin | Parameter::DoubleTapWithin => {
                manner.gesture().goes_by(parameter)
            }
            Parameter::TogetherWithin => together,
            Parameter::Toggle
            | Parameter::IgnoreWithin
            | Parameter::ShiftX
            | Parameter::ShiftY
            | Parameter::Size => true,
        }
    }
}
