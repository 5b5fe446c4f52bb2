//! Which settings are in force, of all that have a say in it.

use super::Origin;
use crate::input::{DeviceKind, Placement, TouchName};
use crate::profile::Profile;
use crate::sheet::{
    Action, ActsOn, Easing, Feel, Parameter, ParameterValue, Parameters, Scope, Shape, Sheet,
};

/// Who says what of what acts on such, for one action or for what is no action in particular, from the first
/// to whoever has the last word: the player's comes over the preset's and that over the game's; of the same
/// hand, what is said of the action comes over what is said of all. Of an action that must not be eased only
/// the game's counts.
fn layers(
    sheet: &Sheet,
    lawful: &Profile,
    on: ActsOn,
    action: Option<&Action>,
) -> Vec<(Origin, Parameters)> {
    let games = action.map_or(sheet.settings(), |action| &action.settings);
    let mut out = vec![(Origin::Default, games.of(on).clone())];
    if on == ActsOn::Actions && action.is_some_and(|action| !action.ease) {
        return out;
    }
    let of_all = |mut all: Parameters| {
        if action.is_some_and(|action| action.shape == Shape::Press) {
            // For all at once it is about what has a value: a jump that toggles helps nobody.
            all.set(Parameter::Toggle, None);
        }
        all
    };
    let general = Scope::new(on, None);
    let own = action.map(|action| Scope::new(on, Some(&action.name)));
    if let Some(preset) = lawful.preset().and_then(|name| sheet.preset(name)) {
        let said = |scope: &Scope| preset.settings.get(scope).cloned().unwrap_or_default();
        out.push((Origin::Preset, of_all(said(&general))));
        out.extend(own.iter().map(|own| (Origin::Preset, said(own))));
    }
    out.push((Origin::Profile, of_all(lawful.parameters(&general))));
    out.extend(
        own.iter()
            .map(|own| (Origin::Profile, lawful.parameters(own))),
    );
    out
}

/// What is in force of what acts on such, as far as anybody says something.
pub(crate) fn said(
    sheet: &Sheet,
    lawful: &Profile,
    on: ActsOn,
    action: Option<&Action>,
) -> Parameters {
    let all = layers(sheet, lawful, on, action).into_iter();
    let all = all.map(|(_, said)| said);
    all.fold(Parameters::new(), |under, over| under.overlaid_by(&over))
}

/// Who has the last word on a parameter in a scope.
pub(crate) fn said_by(
    sheet: &Sheet,
    lawful: &Profile,
    scope: &Scope,
    parameter: Parameter,
) -> Origin {
    let all = layers(sheet, lawful, scope.on, named(sheet, scope)).into_iter();
    let mut saying = all.rev().filter(|(_, said)| said.get(parameter).is_some());
    saying.next().map_or(Origin::Default, |(origin, _)| origin)
}

/// The action that a scope is of, if it is there.
fn named<'s>(sheet: &'s Sheet, scope: &Scope) -> Option<&'s Action> {
    let id = scope.action.as_deref().and_then(|name| sheet.find(name));
    id.map(|id| sheet.declared(id))
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
    let said = said(sheet, lawful, scope.on, named(sheet, scope)).get(parameter);
    said.unwrap_or_else(|| parameter.usual(scope.on))
}

/// What everything is that acts on such, of each action and of none: where that is the same, nothing has
/// changed.
pub(crate) fn all(sheet: &Sheet, lawful: &Profile, on: ActsOn) -> Vec<Parameters> {
    let mut usual = Parameters::new();
    for parameter in Parameter::of(on) {
        usual.set(parameter, Some(parameter.usual(on)));
    }
    let of = |action| usual.clone().overlaid_by(&said(sheet, lawful, on, action));
    let actions = sheet.actions().map(|(_, action)| Some(action));
    actions.chain([None]).map(of).collect()
}
