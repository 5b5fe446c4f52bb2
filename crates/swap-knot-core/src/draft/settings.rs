//! What is set beside the bindings, and by whom.

use super::Draft;
use crate::input::Input;
use crate::law::{Bound, Origin, Upheld, force, uphold};
use crate::profile::{Profile, Setting, parameter_of};
use crate::sheet::{Action, ActionId, ActsOn, Parameter, Scope};

/// A setting beside the bindings, as it is in force, in words.
#[derive(Clone, Debug, PartialEq)]
#[non_exhaustive]
pub struct SettingRow {
    /// Which setting.
    pub setting: Setting,
    /// What it is called.
    pub title: String,
    /// What it comes to.
    pub now: String,
    /// What it would come to without the player's settings.
    pub games: String,
    /// Who set it.
    pub origin: Origin,
    /// Why it is not in force, if the law of the sheet does not let it stand.
    pub not_in_force: Option<String>,
}

impl Draft {
    /// Whatever the profile sets beside the bindings: feel, toggles and times, preset, layout, what this
    /// version does not understand.
    pub fn own_settings(&self) -> Vec<SettingRow> {
        let other = |s: &&Setting| !matches!(s, Setting::Bind { .. } | Setting::Title);
        let own = self.profile.settings().map(|(setting, _)| setting);
        self.setting_rows(own.filter(other).cloned())
    }

    /// Whatever is set of how an action feels and how it is eased, by the game or by the player, on the
    /// devices that it is bound on.
    pub fn settings_of(&self, action: ActionId) -> Vec<SettingRow> {
        let Some(declared) = self.sheet.action(action) else {
            return Vec::new();
        };
        let name = Some(declared.name.as_str());
        let scopes = ActsOn::in_sheets().map(|on| Scope::new(on, name));
        let rows = scopes.flat_map(|scope| {
            let own = self.bindings_on(scope.on, Some(action));
            let bears = |parameter: &Parameter| {
                own.iter()
                    .any(|b| self.sheet.bears(*parameter, b.cell, &b.chord))
            };
            let is_set = |parameter: &Parameter| {
                self.parameter(&scope, *parameter) != parameter.usual(scope.on)
                    || self.says(declared, &scope, *parameter)
            };
            let set = Parameter::of(scope.on).filter(|p| bears(p) && is_set(p));
            set.map(|parameter| parameter_of(&scope, parameter))
                .collect::<Vec<_>>()
        });
        self.setting_rows(rows)
    }

    /// The bindings that what acts on such can have a bearing on, of one action or of all.
    pub(crate) fn bindings_on(&self, on: ActsOn, action: Option<ActionId>) -> Vec<&Bound> {
        let is_meant = |b: &&Bound| match on {
            _ if action.is_some_and(|id| b.cell.row.action != id) => false,
            ActsOn::Inputs(kind) => b.chord.input().device_kind() == kind,
            ActsOn::Actions => true,
            ActsOn::Zone(name) => b.chord.input() == Input::Touch(name),
        };
        self.bindings().iter().filter(is_meant).collect()
    }

    fn setting_rows(&self, all: impl Iterator<Item = Setting>) -> Vec<SettingRow> {
        let to = self.telling();
        let bare = uphold(&self.sheet, &Profile::default(), &self.on);
        let row = |setting: Setting| {
            let value = |upheld: &Upheld| self.value(&to, upheld, &setting);
            let why = self.not_in_force().find(|n| n.setting == setting);
            SettingRow {
                title: to.tell(&setting),
                now: value(&self.upheld),
                games: value(&bare),
                origin: self.set_by(&setting),
                not_in_force: why.map(|n| to.tell(&n.why)),
                setting,
            }
        };
        all.map(row).collect()
    }

    /// Who has the last word on a setting: the player, for the action or for all, the preset, or the game.
    fn set_by(&self, setting: &Setting) -> Origin {
        let lawful = &self.upheld.lawful;
        match setting {
            Setting::Parameter { scope, parameter } => {
                force::said_by(&self.sheet, lawful, scope, *parameter)
            }
            other if lawful.setting(other).is_some() => Origin::Profile,
            _ => Origin::Default,
        }
    }

    /// Whether somebody says something of it, if only what it is anyway.
    fn says(&self, action: &Action, scope: &Scope, parameter: Parameter) -> bool {
        let own = |scope: &Scope| self.profile.parameters(scope).get(parameter).is_some();
        let by_game = action.settings.of(scope.on).get(parameter).is_some();
        by_game || own(scope) || own(&Scope::new(scope.on, None))
    }
}
