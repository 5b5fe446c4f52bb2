//! The page of feel: how inputs feel, and what makes the game easier to play with.

use super::{ControlsScreen, Item, Live, Role, RowView, ScreenView, Section, Spot};
use crate::draft::{Bind, Draft, Refusal};
use crate::input::{Control, DeviceKind, Direction, HidInput, Input, Stick};
use crate::law::Bound;
use crate::profile::{Setting, parameter_of};
use crate::sheet::{
    ActionId, ActsOn, Parameter, ParameterPart, ParameterValue, Parameters, Scope, Shape, Slider,
};

/// A part of a setting that the page shows.
type Shown = (ActsOn, Parameter, ParameterPart);

impl ControlsScreen {
    pub(super) fn view_feel(&self, view: &mut ScreenView) {
        view.tools = self.common_tools(Vec::new());
        let about = self.about_title(self.about);
        view.sections.push(Section {
            rows: vec![self.choice(Spot::About, "about-title", about)],
            ..Section::default()
        });
        for kind in DeviceKind::ALL {
            let on = ActsOn::Inputs(kind);
            let rows: Vec<RowView> = self
                .shown(on)
                .map(|shown| self.view_setting(shown))
                .collect();
            if !rows.is_empty() {
                let words = self.draft.words();
                view.sections.push(Section {
                    title: words.capital(&words.device_name(kind), false),
                    rows,
                    ..Section::default()
                });
            }
        }
        view.sections.push(self.view_easing());
    }

    /// What the page can be about: all actions, or one that a player may change.
    pub(super) fn abouts(&self) -> Vec<Option<ActionId>> {
        let own = self.draft.sheet().actions();
        let own = own.filter(|(_, a)| !a.off && !a.fixed);
        [None]
            .into_iter()
            .chain(own.map(|(id, _)| Some(id)))
            .collect()
    }

    pub(super) fn about_title(&self, about: Option<ActionId>) -> String {
        match about {
            Some(id) => self.draft.row_title(id.into()),
            None => self.text("all-actions"),
        }
    }

    /// What of the settings that act on such makes a difference to what the page is about, part by part.
    fn shown(&self, on: ActsOn) -> impl Iterator<Item = Shown> + use<'_> {
        let sheet = self.draft.sheet();
        let meant = |b: &&Bound| {
            let action = sheet.declared(b.cell.row.action);
            // For all actions nothing is eased that is not the player's to ease.
            on != ActsOn::Actions || self.about.is_some() || (action.ease && !action.fixed)
        };
        let own = self.draft.bindings_on(on, self.about);
        let own: Vec<&Bound> = own.into_iter().filter(meant).collect();
        let shape = |b: &Bound| sheet.declared(b.cell.row.action).shape;
        let has = |wanted: &[Shape]| own.iter().any(|b| wanted.contains(&shape(b)));
        let planes = has(&[Shape::Plane, Shape::Space]);
        // For all actions at once a toggle is about what has a value.
        let toggles = self.about.is_some() || own.iter().any(|b| shape(b) != Shape::Press);
        let about_all = self.about.is_none();
        let third = has(&[Shape::Space]);
        let bears = move |parameter: &Parameter| match parameter {
            // They say something of an action whatever it is bound to.
            Parameter::Toggle | Parameter::IgnoreWithin => true,
            _ => own
                .iter()
                .any(|b| sheet.bears(*parameter, b.cell, &b.chord)),
        };
        let parts = move |parameter: Parameter| {
            let is_there = move |part: &ParameterPart| match part {
                ParameterPart::Whole => parameter != Parameter::Toggle || toggles,
                ParameterPart::Full | ParameterPart::X => true,
                ParameterPart::Y => planes || about_all,
                ParameterPart::Z => third,
            };
            let parts = parameter.parts().iter().copied().filter(is_there);
            parts.map(move |part| (on, parameter, part))
        };
        Parameter::of(on).filter(bears).flat_map(parts)
    }

    /// What a setting on this page is for.
    fn scope(&self, on: ActsOn) -> Scope {
        match on {
            ActsOn::Zone(name) => Scope::zone(name),
            _ => Scope::new(on, self.action_name().as_deref()),
        }
    }

    pub(super) fn setting(&self, spot: Spot) -> Option<Setting> {
        match spot {
            Spot::Setting(on, parameter, _) => Some(parameter_of(&self.scope(on), parameter)),
            _ => None,
        }
    }

    pub(super) fn setting_title(&self, spot: Spot) -> String {
        match spot {
            Spot::Setting(_, parameter, part) => self.draft.telling().parameter(parameter, part),
            _ => String::new(),
        }
    }

    fn view_setting(&self, shown: Shown) -> RowView {
        let (on, parameter, part) = shown;
        RowView {
            items: vec![self.view_number(shown)],
            live: self.live(on, parameter),
            title: self.draft.telling().parameter(parameter, part),
            ..RowView::default()
        }
    }

    /// A slider, or a switch where there is no scale.
    pub(super) fn view_number(&self, shown: Shown) -> Item {
        let (on, parameter, part) = shown;
        let (number, slider) = self.number(shown);
        let (words, to) = (self.draft.words(), self.draft.telling());
        let is_on = number > 0.5;
        let value = match slider {
            None => ParameterValue::Flag(is_on),
            Some(_) if parameter.is_time() => ParameterValue::Seconds(number),
            Some(_) => ParameterValue::Number(number),
        };
        let (label, own) = (to.tell(&value), to.parameter(parameter, part));
        // Several stand in one row.
        let (label, title) = match on {
            ActsOn::Zone(name) => {
                let values = [("title", &*own), ("setting", &label)];
                (words.say("setting-of", &values), self.zone_title(name))
            }
            _ => (label, own),
        };
        let role = match slider {
            Some(slider) => Role::Slider {
                at: slider.at(number),
            },
            None => Role::Switch { on: is_on },
        };
        let spot = Spot::Setting(on, parameter, part);
        let mut item = self.item(spot, label, role);
        let values = [("title", &*title), ("setting", &item.label)];
        item.spoken = words.say("setting-of", &values);
        let setting = self.setting(spot);
        // Of a setting of several parts, those that are another number.
        let before = self.draft.applied_parameter(&self.scope(on), parameter);
        let is_other = before.number(part) != number || parameter.parts().len() == 1;
        item.changed = is_other && setting.is_some_and(|s| self.draft.changes_setting(&s));
        if item.changed {
            let changed = self.text("cell-changed");
            item.spoken = words.say("list", &[("first", &item.spoken), ("last", &changed)]);
        }
        item
    }

    fn view_easing(&self) -> Section {
        let title = self.text("section-easing");
        let forbidden = self
            .about
            .filter(|id| !self.draft.sheet().declared(*id).ease);
        if let Some(id) = forbidden {
            let title_of = self.draft.row_title(id.into());
            let text = self
                .draft
                .words()
                .say("refused-not-eased", &[("title", &title_of)]);
            return Section {
                title,
                text: Some(text),
                ..Section::default()
            };
        }
        let rows = self
            .shown(ActsOn::Actions)
            .map(|shown| self.view_setting(shown));
        Section {
            title,
            rows: rows.collect(),
            ..Section::default()
        }
    }

    /// What the device says right now beside the number that it is about.
    pub(super) fn live(&self, on: ActsOn, parameter: Parameter) -> Option<Live> {
        let ActsOn::Inputs(kind) = on else {
            return None;
        };
        let feel = self.draft.feel(self.about, kind);
        let zone = feel.dead_zone;
        let own = self.draft.bindings_on(on, self.about);
        let inputs: Vec<Input> = own.iter().map(|b| b.chord.input()).collect();
        let far = |[x, y]: [f32; 2]| x.hypot(y);
        let furthest = |controls: Vec<Control>| {
            let levels = controls.into_iter().map(|c| self.book.level(c));
            levels.max_by(|a, b| far(*a).total_cmp(&far(*b)))
        };
        let stick = |i: &Input| match *i {
            Input::PadStick(stick) | Input::PadStickHalf(stick, _) => Some(Control::stick(stick)),
            _ => None,
        };
        let sticks = || -> Vec<Control> {
            let own: Vec<Control> = inputs.iter().filter_map(stick).collect();
            match self.about {
                Some(_) => own,
                None => Stick::ALL.map(Control::stick).to_vec(),
            }
        };
        let pulls = || -> Vec<Control> {
            let pull = |i: &Input| match *i {
                Input::PadButton(button) => Some(Control::pad(button)).filter(|c| c.is_pull()),
                Input::Hid(HidInput::Axis(axis) | HidInput::Half(axis, _)) => {
                    Some(Control::hid_axis(axis))
                }
                _ => None,
            };
            inputs.iter().filter_map(pull).collect()
        };
        match parameter {
            Parameter::DeadZone => match furthest(sticks()) {
                Some(at) => Some(Live::Stick {
                    at,
                    inner: zone.inner,
                    outer: zone.outer,
                }),
                None => furthest(pulls()).map(|at| Live::Pull {
                    at: far(at),
                    mark: zone.inner,
                }),
            },
            Parameter::Threshold => {
                let at = furthest(pulls())?;
                Some(Live::Pull {
                    at: far(at),
                    mark: feel.threshold,
                })
            }
            _ => None,
        }
    }

    /// Makes what is focused less or more, where it is a number or one of several; whether it is.
    pub(super) fn nudge(&mut self, way: Direction) -> bool {
        let up = match way {
            Direction::Left => false,
            Direction::Right => true,
            _ => return false,
        };
        let shown = match self.focus {
            Spot::Setting(on, parameter, part) => (on, parameter, part),
            Spot::About => return self.next_about(up),
            Spot::Where => return self.next_place(up),
            _ => return false,
        };
        let (number, slider) = self.number(shown);
        let to = match slider {
            Some(slider) => slider.next(number, up),
            None => f32::from(up),
        };
        self.set(shown, to);
        true
    }

    fn next_about(&mut self, up: bool) -> bool {
        let all = self.abouts();
        let at = all.iter().position(|a| *a == self.about).unwrap_or(0);
        let to = if up {
            (at + 1).min(all.len() - 1)
        } else {
            at.saturating_sub(1)
        };
        self.about = all[to];
        true
    }

    /// Switches what is on or off; a number stays as it is.
    pub(super) fn flip(&mut self, shown: Shown) {
        if let (number, None) = self.number(shown) {
            self.set(shown, 1.0 - number);
            self.stroke = None;
        }
    }

    pub(super) fn slide(&mut self, spot: Spot, at: f32) {
        if let Spot::Setting(on, parameter, part) = spot
            && let (_, Some(slider)) = self.number((on, parameter, part))
        {
            self.set((on, parameter, part), slider.number(at));
        }
    }

    /// What a part of a setting is now, and how far it goes.
    fn number(&self, (on, parameter, part): Shown) -> (f32, Option<Slider>) {
        let value = self.draft.parameter(&self.scope(on), parameter);
        (value.number(part), parameter.slider(part))
    }

    /// Sets a number; what else the setting holds stays as it is. What goes on being pushed or dragged is
    /// one step for undo.
    fn set(&mut self, (on, parameter, part): Shown, to: f32) {
        let (spot, scope) = (Spot::Setting(on, parameter, part), self.scope(on));
        let value = self.draft.parameter(&scope, parameter).with(part, to);
        if let ActsOn::Zone(name) = on {
            let all = Parameters::of_placement(self.draft.placement(name)).with(parameter, value);
            return self.place(spot, name, all.placement());
        }
        self.in_one_step(spot, |screen| {
            screen.draft.set_parameter(&scope, parameter, value)
        });
    }

    /// Edits the draft; what goes on at one spot is one step for undo.
    pub(super) fn in_one_step(
        &mut self,
        spot: Spot,
        edit: impl FnOnce(&mut Self) -> Result<Bind, Refusal>,
    ) {
        let goes_on = self.stroke == Some((spot, self.draft.revision()));
        if goes_on {
            self.draft.undo();
        }
        let before = self.draft.revision();
        let done = edit(self);
        if goes_on && done.is_err() {
            self.draft.redo();
        }
        let changed = self.draft.revision() != before;
        self.after(done);
        self.stroke = changed.then(|| (spot, self.draft.revision()));
    }

    fn action_name(&self) -> Option<String> {
        self.about
            .map(|id| self.draft.sheet().declared(id).name.clone())
    }

    /// Back to what the game has, for one setting.
    pub(super) fn reset_setting(&mut self, spot: Spot) {
        let mut draft = self.draft.clone();
        let done = self.reset_setting_of(&mut draft, spot);
        self.draft = draft;
        self.after(done);
    }

    /// The same in a draft of one's own; what it would ask about is left open.
    pub(super) fn reset_setting_of(&self, draft: &mut Draft, spot: Spot) -> Result<Bind, Refusal> {
        match spot {
            Spot::Setting(on, parameter, _) => draft.reset_parameter(self.scope(on), parameter),
            _ => Ok(Bind::Done),
        }
    }
}
