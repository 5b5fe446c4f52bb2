//! What is set beside the bindings, and by whom.

use super::Draft;
use crate::input::DeviceKind;
use crate::law::{Origin, Upheld, uphold};
use crate::profile::{Profile, Setting};
use crate::sheet::{Action, ActionId, Ease, Easing, Feel, Knob, Shape, Timing};

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
        let bound = self.bindings().iter();
        let bound = bound.filter(|b| b.cell.row.action == action);
        let mut kinds: Vec<DeviceKind> = bound.map(|b| b.chord.input().device_kind()).collect();
        kinds.sort_unstable();
        kinds.dedup();
        let name = || Some(declared.name.clone());
        let feels = kinds.into_iter().flat_map(|kind| {
            let (feel, usual) = (self.feel(Some(action), kind), Feel::usual(kind));
            // Of a press nothing counts but how far in it begins.
            let is_press = declared.shape == Shape::Press;
            let bears = move |knob: &Knob| !is_press || *knob == Knob::Threshold;
            let set = Knob::ALL.into_iter().filter(bears).filter(move |&knob| {
                feel.knob(knob) != usual.knob(knob) || self.sets_feel(declared, kind, knob)
            });
            let action = name();
            set.map(move |knob| Setting::Feel {
                action: action.clone(),
                kind,
                knob,
            })
        });
        let (easing, usual) = (self.easing(Some(action)), usual_easing());
        let eases = Ease::ALL.into_iter().filter(|&ease| {
            easing.get(ease) != usual.get(ease) || self.sets_ease(&declared.name, ease)
        });
        let eases = eases.map(|ease| match (ease, name()) {
            (Ease::Toggle, Some(action)) => Setting::Toggle { action },
            (ease, action) => Setting::Ease { action, ease },
        });
        self.setting_rows(feels.chain(eases))
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

    /// Who has the last word on a setting: the player, for the action or for all, or the game.
    fn set_by(&self, setting: &Setting) -> Origin {
        let lawful = &self.upheld.lawful;
        let general = match setting {
            Setting::Feel { kind, knob, .. } => Some(Setting::Feel {
                action: None,
                kind: *kind,
                knob: *knob,
            }),
            Setting::Ease { ease, .. } => Some(Setting::Ease {
                action: None,
                ease: *ease,
            }),
            _ => None,
        };
        let is_set = |s: &Setting| lawful.setting(s).is_some();
        match is_set(setting) || general.as_ref().is_some_and(is_set) {
            true => Origin::Profile,
            false => Origin::Default,
        }
    }

    fn sets_feel(&self, action: &Action, kind: DeviceKind, knob: Knob) -> bool {
        let own = |action: Option<&str>| self.profile.feel(action, kind).knob(knob).is_some();
        action.feel[kind as usize].knob(knob).is_some() || own(Some(&action.name)) || own(None)
    }

    fn sets_ease(&self, action: &str, ease: Ease) -> bool {
        let own = |action: Option<&str>| self.profile.easing(action).get(ease).is_some();
        own(Some(action)) || own(None)
    }
}

/// What nobody has eased.
fn usual_easing() -> Easing {
    Easing {
        toggle: Some(false),
        latch: Some(false),
        press: Some(false),
        ignore_within: Some(0.0),
        ..Easing::of(Timing::default())
    }
}
