//! Which settings are in force, of all that have a say in it.

use crate::input::{DeviceKind, Placement, TouchName};
use crate::profile::Profile;
use crate::sheet::{
    Action, ActsOn, Easing, Feel, Parameter, ParameterValue, Parameters, Scope, Shape, Sheet,
};

/// What is set of what acts on such, for one action or for what is no action in particular: the player's
/// comes over the preset's and that over the game's; of the same hand, what is said of the action comes
/// over what is said of all. Of an action that must not be eased only the game's counts.
pub(crate) fn said(
    sheet: &Sheet,
    lawful: &Profile,
    on: ActsOn,
    action: Option<&Action>,
) -> Parameters {
    let said = action.map_or(sheet.settings(), |action| &action.settings);
    let mut out = said.of(on).clone();
    if on == ActsOn::Actions && action.is_some_and(|action| !action.ease) {
        return out;
    }
    let general = Scope::new(on, None);
    let own = action.map(|action| Scope::new(on, Some(&action.name)));
    let preset = lawful.preset().and_then(|name| sheet.preset(name));
    let by_preset = |scope: &Scope| preset.and_then(|p| p.settings.get(scope).cloned());
    let layers = [
        (by_preset(&general), true),
        (own.as_ref().and_then(by_preset), false),
        (Some(lawful.parameters(&general)), true),
        (own.as_ref().map(|own| lawful.parameters(own)), false),
    ];
    for (layer, is_of_all) in layers {
        let mut layer = layer.unwrap_or_default();
        if is_of_all && action.is_some_and(|action| action.shape == Shape::Press) {
            // For all at once it is about what has a value: a jump that toggles helps nobody.
            layer.set(Parameter::Toggle, None);
        }
        out = out.over_by(&layer);
    }
    out
}

/// The feel of an action on a device kind, or of what works no action.
pub(crate) fn feel(
    sheet: &Sheet,
    lawful: &Profile,
    action: Option<&Action>,
    kind: DeviceKind,
) -> Feel {
    Feel::usual(kind).with(&said(sheet, lawful, ActsOn::Inputs(kind), action))
}

/// How an action is worked, or what is no action in particular.
pub(crate) fn easing(sheet: &Sheet, lawful: &Profile, action: Option<&Action>) -> Easing {
    Easing::default().with(&said(sheet, lawful, ActsOn::Actions, action))
}

/// Where a touch zone lies, beside where the game has it.
pub(crate) fn placement(sheet: &Sheet, lawful: &Profile, name: TouchName) -> Placement {
    said(sheet, lawful, ActsOn::Zone(name), None).placement()
}

/// What one parameter is in a scope; of an action that is not there, what it is for all.
pub(crate) fn value(
    sheet: &Sheet,
    lawful: &Profile,
    scope: &Scope,
    parameter: Parameter,
) -> ParameterValue {
    let named = scope.action.as_deref().and_then(|name| sheet.find(name));
    let action = named.map(|id| sheet.declared(id));
    let said = said(sheet, lawful, scope.on, action).get(parameter);
    said.unwrap_or_else(|| parameter.usual(scope.on))
}

/// What everything is that acts on such, of each action and of none: where that is the same, nothing has
/// changed.
pub(crate) fn all(sheet: &Sheet, lawful: &Profile, on: ActsOn) -> Vec<Parameters> {
    let mut usual = Parameters::new();
    for parameter in Parameter::of(on) {
        usual.set(parameter, Some(parameter.usual(on)));
    }
    let of = |action| usual.clone().over_by(&said(sheet, lawful, on, action));
    let actions = sheet.actions().map(|(_, action)| Some(action));
    actions.chain([None]).map(of).collect()
}
