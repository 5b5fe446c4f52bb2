//! The page of feel: how inputs feel, and what makes the game easier to play with.

use super::{ControlsScreen, Dial, Item, Live, Role, RowView, ScreenView, Section, Spot};
use crate::draft::{Bind, Draft, Refusal};
use crate::input::{Control, DeviceKind, Direction, HidInput, Input, Stick, ZoneKnob};
use crate::law::Bound;
use crate::profile::Setting;
use crate::sheet::{
    ActionId, DeadZone, Ease, EaseValue, Easing, Feel, FeelPatch, Knob, KnobValue, Manner, Shape,
};

/// How far a slider goes, and by how much one push of a key or button moves it.
struct Scale {
    least: f32,
    most: f32,
    step: f32,
    /// Whether each step is a share of what is there rather than an amount.
    by_share: bool,
}

impl Dial {
    const fn knob(self) -> Knob {
        match self {
            Dial::Sensitivity => Knob::Sensitivity,
            Dial::DeadZone | Dial::Full => Knob::DeadZone,
            Dial::Curve => Knob::Curve,
            Dial::Threshold => Knob::Threshold,
            Dial::Gyro => Knob::Gyro,
            Dial::InvertX | Dial::InvertY | Dial::InvertZ => Knob::Invert,
            Dial::RampUp => Knob::RampUp,
            Dial::RampDown => Knob::RampDown,
        }
    }

    /// None for what is on or off.
    const fn scale(self) -> Option<Scale> {
        let (least, most, step) = match self {
            Dial::InvertX | Dial::InvertY | Dial::InvertZ => return None,
            Dial::Sensitivity => (0.1, 10.0, 0.1),
            Dial::DeadZone => (0.0, 0.9, 0.01),
            Dial::Full => (0.1, 1.0, 0.01),
            Dial::Curve => (0.2, 5.0, 0.1),
            Dial::Threshold => (0.05, 1.0, 0.05),
            Dial::Gyro => (0.0, 80.0, 1.0),
            Dial::RampUp | Dial::RampDown => (0.0, 3.0, 0.05),
        };
        Some(Scale {
            least,
            most,
            step,
            by_share: matches!(self, Dial::Sensitivity),
        })
    }

    fn number(self, feel: &Feel) -> f32 {
        match self {
            Dial::Sensitivity => feel.sensitivity,
            Dial::DeadZone => feel.dead_zone.inner,
            Dial::Full => feel.dead_zone.outer,
            Dial::Curve => feel.curve,
            Dial::Threshold => feel.threshold,
            Dial::Gyro => feel.gyro,
            Dial::RampUp => feel.ramp_up,
            Dial::RampDown => feel.ramp_down,
            Dial::InvertX => f32::from(feel.invert[0]),
            Dial::InvertY => f32::from(feel.invert[1]),
            Dial::InvertZ => f32::from(feel.invert[2]),
        }
    }

    /// What its knob is turned to for a number; what else the knob holds stays as it feels now.
    fn turned(self, feel: &Feel, to: f32) -> KnobValue {
        let zone = feel.dead_zone;
        let on = to > 0.5;
        match self {
            Dial::DeadZone => KnobValue::DeadZone(DeadZone { inner: to, ..zone }),
            Dial::Full => KnobValue::DeadZone(DeadZone { outer: to, ..zone }),
            Dial::InvertX => KnobValue::Axes([on, feel.invert[1], feel.invert[2]]),
            Dial::InvertY => KnobValue::Axes([feel.invert[0], on, feel.invert[2]]),
            Dial::InvertZ => KnobValue::Axes([feel.invert[0], feel.invert[1], on]),
            _ => KnobValue::Number(to),
        }
    }
}

/// How far what is eased goes; none where it is a switch.
const fn scale_of(ease: Ease) -> Option<Scale> {
    let (least, most) = match ease {
        Ease::Toggle | Ease::Latch | Ease::Press => return None,
        Ease::IgnoreWithin => (0.0, 1.0),
        _ => (0.05, 2.0),
    };
    Some(Scale {
        least,
        most,
        step: 0.05,
        by_share: false,
    })
}

impl Scale {
    /// Where a number stands on the slider.
    fn at(&self, number: f32) -> f32 {
        let at = match self.by_share {
            true => (number / self.least).ln() / (self.most / self.least).ln(),
            false => (number - self.least) / (self.most - self.least),
        };
        at.clamp(0.0, 1.0)
    }

    /// The number at a place of the slider.
    fn number(&self, at: f32) -> f32 {
        let at = if at.is_nan() { 0.0 } else { at.clamp(0.0, 1.0) };
        let number = match self.by_share {
            true => self.least * (self.most / self.least).powf(at),
            false => self.least + at * (self.most - self.least),
        };
        self.round(number)
    }

    /// The next number in a direction; one that a file has beyond the slider stays where it is.
    fn next(&self, from: f32, up: bool) -> f32 {
        let to = match (self.by_share, up) {
            (true, true) => (from * (1.0 + self.step)).max(from + 0.01),
            (true, false) => (from / (1.0 + self.step)).min(from - 0.01),
            (false, true) => from + self.step,
            (false, false) => from - self.step,
        };
        let (least, most) = (self.least.min(from), self.most.max(from));
        self.round(to).clamp(least, most)
    }

    fn round(&self, number: f32) -> f32 {
        (number * 100.0).round() / 100.0
    }
}

impl ControlsScreen {
    pub(super) fn view_feel(&self, view: &mut ScreenView) {
        view.tools = self.common_tools(Vec::new());
        let about = self.about_title(self.about);
        view.sections.push(Section {
            rows: vec![self.choice(Spot::About, "about-title", about)],
            ..Section::default()
        });
        for kind in DeviceKind::ALL {
            let dials = self.dials(kind);
            if !dials.is_empty() {
                view.sections.push(Section {
                    title: self
                        .draft
                        .words()
                        .capital(&self.draft.words().device_name(kind)),
                    rows: dials.into_iter().map(|d| self.view_dial(kind, d)).collect(),
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

    /// What is bound on a kind of device, for what the page is about.
    fn bound_on(&self, kind: DeviceKind) -> impl Iterator<Item = &Bound> {
        let is_meant = move |b: &&Bound| {
            let of = |id| b.cell.row.action == id;
            b.chord.device_kind() == kind && self.about.is_none_or(of)
        };
        self.draft.bindings().iter().filter(is_meant)
    }

    /// The numbers that say something of a kind of device, for what the page is about.
    fn dials(&self, kind: DeviceKind) -> Vec<Dial> {
        let sheet = self.draft.sheet();
        let shapes: Vec<Shape> = self
            .bound_on(kind)
            .map(|b| sheet.declared(b.cell.row.action).shape)
            .collect();
        let values = shapes.iter().any(|s| *s != Shape::Press);
        let planes = shapes
            .iter()
            .any(|s| matches!(s, Shape::Plane | Shape::Space));
        let lines = planes || shapes.contains(&Shape::Line);
        if shapes.is_empty() {
            return Vec::new();
        }
        let mut dials = Vec::new();
        if kind == DeviceKind::Keyboard {
            if values {
                dials.extend([Dial::RampUp, Dial::RampDown]);
            }
            return dials;
        }
        let has_rest = matches!(kind, DeviceKind::Gamepad | DeviceKind::Other);
        if values {
            dials.push(Dial::Sensitivity);
            if has_rest {
                dials.extend([Dial::DeadZone, Dial::Full]);
            }
            dials.push(Dial::Curve);
        }
        if has_rest {
            dials.push(Dial::Threshold);
        }
        if (self.bound_on(kind)).any(|b| b.chord.input() == Input::PadGyro) {
            dials.push(Dial::Gyro);
        }
        if lines {
            dials.push(Dial::InvertX);
        }
        if planes || (lines && self.about.is_none()) {
            dials.push(Dial::InvertY);
        }
        if shapes.contains(&Shape::Space) {
            dials.push(Dial::InvertZ);
        }
        dials
    }

    pub(super) fn setting(&self, spot: Spot) -> Option<Setting> {
        let name = |id| self.draft.sheet().declared(id).name.clone();
        let action = self.about.map(name);
        match (spot, action) {
            (Spot::Dial(kind, dial), action) => Some(Setting::Feel {
                action,
                kind,
                knob: dial.knob(),
            }),
            (Spot::Ease(Ease::Toggle), Some(action)) => Some(Setting::Toggle { action }),
            (Spot::Ease(ease), action) => Some(Setting::Ease { action, ease }),
            (Spot::Zone(name, knob), _) => Some(Setting::Zone { name, knob }),
            _ => None,
        }
    }

    fn view_dial(&self, kind: DeviceKind, dial: Dial) -> RowView {
        let feel = self.draft.feel(self.about, kind);
        let spot = Spot::Dial(kind, dial);
        RowView {
            items: vec![self.view_number(spot)],
            live: self.live(kind, dial, &feel),
            title: self.knob_title(spot),
            ..RowView::default()
        }
    }

    /// A slider, or a switch where there is no scale.
    pub(super) fn view_number(&self, spot: Spot) -> Item {
        let (number, scale) = self.number(spot).unwrap_or((0.0, None));
        let words = self.draft.words();
        let on = number > 0.5;
        let label = match (&scale, spot) {
            (None, _) => self.text(if on { "value-on" } else { "value-off" }),
            (_, Spot::Ease(_) | Spot::Dial(_, Dial::RampUp | Dial::RampDown)) => {
                words.say("value-seconds", &[("seconds", &words.number(number))])
            }
            _ => words.say("value-number", &[("number", &words.number(number))]),
        };
        // Several stand in one row.
        let label = match spot {
            Spot::Zone(..) => {
                let values = [("title", &*self.knob_title(spot)), ("setting", &label)];
                words.say("setting-of", &values)
            }
            _ => label,
        };
        let role = match scale {
            Some(scale) => Role::Slider {
                at: scale.at(number),
            },
            None => Role::Switch { on },
        };
        let mut item = self.item(spot, label, role);
        let title = match spot {
            Spot::Zone(name, _) => self.zone_title(name),
            _ => self.knob_title(spot),
        };
        let values = [("title", &*title), ("setting", &item.label)];
        item.spoken = words.say("setting-of", &values);
        let setting = self.setting(spot);
        item.changed = setting.is_some_and(|s| self.draft.changes_setting(&s));
        if item.changed {
            let changed = self.text("cell-changed");
            item.spoken = words.say("list", &[("first", &item.spoken), ("last", &changed)]);
        }
        item
    }

    pub(super) fn knob_title(&self, spot: Spot) -> String {
        match spot {
            Spot::Dial(_, dial) => self.text(&format!("knob-{}", dial.word())),
            Spot::Ease(ease) => self.text(&format!("ease-{}", ease.word())),
            Spot::Zone(_, knob) => self.text(&format!("zone-{}", knob.word())),
            _ => String::new(),
        }
    }

    /// What eases what the page is about, as far as it changes anything there.
    fn eases(&self) -> Vec<Ease> {
        let sheet = self.draft.sheet();
        let meant = |id: ActionId| match self.about {
            Some(about) => about == id,
            None => sheet.declared(id).ease && !sheet.declared(id).fixed,
        };
        let own = || {
            self.draft
                .bindings()
                .iter()
                .filter(|b| meant(b.cell.row.action))
        };
        // As the sheet has them: one that is eased to a press can be eased back.
        let has = |manner| own().any(|b| sheet.how_of(b.cell).manner == manner);
        let valued = |id| sheet.declared(id).shape != Shape::Press;
        Ease::ALL
            .into_iter()
            .filter(|ease| match ease {
                Ease::Toggle => self.about.is_some() || own().any(|b| valued(b.cell.row.action)),
                Ease::Latch => own().any(|b| !b.chord.is_plain()),
                Ease::Press => has(Manner::Hold) || has(Manner::DoubleTap),
                Ease::IgnoreWithin => true,
                Ease::HoldAfter => has(Manner::Hold),
                Ease::TapWithin => has(Manner::Tap),
                Ease::DoubleTapWithin => has(Manner::DoubleTap),
                Ease::TogetherWithin => own().any(|b| b.together),
            })
            .collect()
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
        let rows = self.eases().into_iter().map(|ease| {
            let spot = Spot::Ease(ease);
            RowView {
                title: self.knob_title(spot),
                items: vec![self.view_number(spot)],
                ..RowView::default()
            }
        });
        Section {
            title,
            rows: rows.collect(),
            ..Section::default()
        }
    }

    /// What the device says right now beside the number that it is about.
    fn live(&self, kind: DeviceKind, dial: Dial, feel: &Feel) -> Option<Live> {
        let zone = feel.dead_zone;
        let inputs: Vec<Input> = self.bound_on(kind).map(|b| b.chord.input()).collect();
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
        match dial {
            Dial::DeadZone | Dial::Full => match furthest(sticks()) {
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
            Dial::Threshold => {
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
        let focus = self.focus;
        let Some((number, scale)) = self.number(focus) else {
            return match focus {
                Spot::About => self.next_about(up),
                Spot::Where => self.next_place(up),
                _ => false,
            };
        };
        let to = match scale {
            Some(scale) => scale.next(number, up),
            None => f32::from(up),
        };
        self.set(focus, to);
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
    pub(super) fn flip(&mut self, spot: Spot) {
        if let Some((number, None)) = self.number(spot) {
            self.set(spot, 1.0 - number);
            self.stroke = None;
        }
    }

    pub(super) fn slide(&mut self, spot: Spot, at: f32) {
        if let Some((_, Some(scale))) = self.number(spot) {
            self.set(spot, scale.number(at));
        }
    }

    /// What a number is now, and how far it goes.
    fn number(&self, spot: Spot) -> Option<(f32, Option<Scale>)> {
        match spot {
            Spot::Dial(kind, dial) => {
                let feel = self.draft.feel(self.about, kind);
                Some((dial.number(&feel), dial.scale()))
            }
            Spot::Ease(ease) => match self.draft.easing(self.about).get(ease)? {
                EaseValue::Seconds(seconds) => Some((seconds, scale_of(ease))),
                EaseValue::Flag(on) => Some((f32::from(on), None)),
            },
            Spot::Zone(name, knob) => {
                let scale = Scale {
                    least: *knob.range().start(),
                    most: *knob.range().end(),
                    step: 0.02,
                    by_share: matches!(knob, ZoneKnob::Size),
                };
                Some((self.draft.placement(name).get(knob), Some(scale)))
            }
            _ => None,
        }
    }

    /// Sets a number. What goes on being pushed or dragged is one step for undo.
    fn set(&mut self, spot: Spot, to: f32) {
        match spot {
            Spot::Dial(kind, dial) => self.in_one_step(spot, |screen| {
                screen.turn_dial(kind, dial, to).map(|()| Bind::Done)
            }),
            Spot::Ease(ease) => self.in_one_step(spot, |screen| screen.ease(ease, to)),
            Spot::Zone(name, knob) => {
                let placement = self.draft.placement(name).with(knob, to);
                self.place(spot, name, placement);
            }
            _ => {}
        }
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

    fn turn_dial(&mut self, kind: DeviceKind, dial: Dial, to: f32) -> Result<(), Refusal> {
        let action = self.action_name();
        let feel = self.draft.feel(self.about, kind);
        let mut patch: FeelPatch = self.draft.profile().feel(action.as_deref(), kind);
        patch.turn(dial.knob(), Some(dial.turned(&feel, to)));
        self.draft.set_feel(action.as_deref(), kind, patch)
    }

    fn ease(&mut self, ease: Ease, to: f32) -> Result<Bind, Refusal> {
        let action = self.action_name();
        let mut easing: Easing = self.draft.profile().easing(action.as_deref());
        let value = match scale_of(ease) {
            Some(_) => EaseValue::Seconds(to),
            None => EaseValue::Flag(to > 0.5),
        };
        easing.set(ease, Some(value));
        self.draft.ease(action.as_deref(), easing)
    }

    /// Back to what the game has, for one number.
    pub(super) fn reset_knob(&mut self, spot: Spot) {
        let mut draft = self.draft.clone();
        let done = match spot {
            Spot::Ease(ease) => self.unease(&mut draft, ease),
            _ => self.reset_knob_of(&mut draft, spot).map(|()| Bind::Done),
        };
        self.draft = draft;
        self.after(done);
    }

    /// The same in a draft of one's own; what it would ask about is left open.
    pub(super) fn reset_knob_of(&self, draft: &mut Draft, spot: Spot) -> Result<(), Refusal> {
        let action = self.action_name();
        match spot {
            Spot::Dial(kind, dial) => {
                let mut patch = draft.profile().feel(action.as_deref(), kind);
                patch.turn(dial.knob(), None);
                draft.set_feel(action.as_deref(), kind, patch)
            }
            Spot::Ease(ease) => self.unease(draft, ease).map(drop),
            Spot::Zone(name, knob) => {
                let placement = draft.placement(name).with(knob, knob.own());
                draft.place_zone(name, placement);
                Ok(())
            }
            _ => Ok(()),
        }
    }

    fn unease(&self, draft: &mut Draft, ease: Ease) -> Result<Bind, Refusal> {
        let action = self.action_name();
        let mut easing = draft.profile().easing(action.as_deref());
        easing.set(ease, None);
        draft.ease(action.as_deref(), easing)
    }
}
