//! The page of the pad: whose marks it has, and what each of its parts does; and other controllers.

use std::collections::BTreeMap;

use super::answer::Picking;
use super::{
    ControlsScreen, Item, Live, PadPartView, PadView, Page, Role, RowView, ScreenView, Section,
    Spot,
};
use crate::input::{Chord, Control, DeviceKind, HidInput, Input, PadButton, PadPart};
use crate::words::Words;

impl ControlsScreen {
    /// Shows everything in another language from here on, and by the marks that these words have.
    pub fn set_words(&mut self, words: &Words) {
        self.draft.set_words(words);
        self.rows.forget();
        self.stale = true;
        self.follow_family();
    }

    /// The family that the pad in hand says it is; none where nothing is known. The one that the
    /// player chose goes before it.
    pub fn find_family(&mut self, family: Option<&str>) {
        if self.found_family.as_deref() != family {
            self.found_family = family.map(str::to_owned);
            self.stale = true;
        }
    }

    /// Tells pads by the family that is chosen or found now.
    pub(super) fn follow_family(&mut self) {
        let words = self.draft.words();
        let Some(marks) = words.marks() else { return };
        let family = marks.in_force(self.draft.family(), self.found_family.as_deref());
        if words.family() != family {
            let words = words.with_marks(marks, family);
            self.draft.set_words(&words);
            self.rows.forget();
        }
    }

    pub(super) fn view_pad(&self, view: &mut ScreenView) {
        view.tools = self.common_tools(self.tools_for_controllers());
        view.sections.extend(self.view_sharing());
        if let Some(marks) = self.draft.words().marks() {
            let chosen = self.draft.family();
            let known = marks.known(chosen);
            let label = self.family_title(known);
            let mut row = self.choice(Spot::Family, "setting-family", label);
            // One of another version of the game is kept, and said not to be followed.
            row.text = chosen.filter(|_| known.is_none()).map(|name| {
                let name = self.draft.words().untranslated(name);
                self.draft.words().say("family-gone", &[("name", &name)])
            });
            view.sections.push(Section {
                rows: vec![row],
                ..Section::default()
            });
        }
        let on = self.titles_on_pads();
        view.pad = Some(self.pad_view(&on));
        let is_shown = |part: &PadPart| !is_paddle(part.input) || on.contains_key(&part.input);
        let mut inputs: Vec<Input> = PadPart::all().filter(is_shown).map(|p| p.input).collect();
        inputs.extend(on.contains_key(&Input::PadGyro).then_some(Input::PadGyro));
        let rows = inputs.into_iter().map(|input| self.part_row(input, &on));
        view.sections.push(Section {
            rows: rows.collect(),
            ..Section::default()
        });
        view.sections.extend(self.view_controllers());
        view.sections.extend(self.other_controllers());
    }

    /// What a family is called; one that is not chosen with that it was found.
    fn family_title(&self, chosen: Option<&str>) -> String {
        let words = self.draft.words();
        let title = |name: &str| words.untranslated(words.family_title(name));
        if let Some(name) = chosen {
            return title(name);
        }
        let here = match self.found_family.as_deref() {
            Some(name) => title(name),
            None => self.text("family-unknown"),
        };
        words.say("value-found", &[("name", &here)])
    }

    /// What each part of a pad has a part in; a direction of a stick is of that stick.
    fn titles_on_pads(&self) -> BTreeMap<Input, Vec<String>> {
        let inputs = |chord: &Chord| -> Vec<Input> {
            let all = chord
                .inputs()
                .filter(|i| i.device_kind() == DeviceKind::Gamepad);
            all.map(Input::whole).collect()
        };
        self.titles_on(&self.draft, inputs)
    }

    pub(super) fn pad_view(&self, on: &BTreeMap<Input, Vec<String>>) -> PadView {
        let words = self.draft.words();
        let part = |part: PadPart| {
            let control = Control::of_fixed(part.input);
            let level = control.map_or([0.0; 2], |c| self.book.level(c));
            PadPartView {
                spot: Spot::Part(part.input),
                rect: part.rect,
                round: part.round,
                mark: words.mark(part.input).map(|m| words.untranslated(m)),
                does: on.contains_key(&part.input),
                down: control.is_some_and(|c| self.book.is_down(c)),
                asked: false,
                at: level,
            }
        };
        PadView {
            size: PadPart::SIZE,
            body: PadPart::BODY.to_vec(),
            parts: PadPart::all().map(part).collect(),
        }
    }

    fn part_row(&self, input: Input, on: &BTreeMap<Input, Vec<String>>) -> RowView {
        let telling = self.draft.telling();
        let does = on.get(&input).cloned().unwrap_or_default();
        let (title, spoken) = (telling.chord(&input.into()), telling.spoken(&input.into()));
        let told = self.listed(does.iter().cloned());
        let mut item = self.item(Spot::Part(input), self.titles_of(input), Role::Button);
        let values = [("title", &*spoken), ("setting", &told)];
        item.spoken = self.draft.words().say("setting-of", &values);
        item.text = does;
        let control = Control::of_fixed(input);
        RowView {
            title,
            lit: control.is_some_and(|c| self.book.is_down(c)),
            live: control.and_then(|c| self.live_of(input, c)),
            items: vec![item],
            ..RowView::default()
        }
    }

    /// The titles of what a part works, whatever is live.
    fn titles_of(&self, input: Input) -> String {
        self.titles_if_any(input)
            .unwrap_or_else(|| self.text("key-free"))
    }

    /// The same; none where that is nothing.
    pub(super) fn titles_if_any(&self, input: Input) -> Option<String> {
        let is_on = |chord: &Chord| chord.inputs().any(|i| i.whole() == input);
        let all = self.draft.bindings().iter();
        let own = all.filter(|b| is_on(&b.chord)).map(|b| b.cell.row);
        self.draft.telling().rows(own)
    }

    /// Where a stick, a trigger or an axis is right now.
    fn live_of(&self, input: Input, control: Control) -> Option<Live> {
        let feel = self.draft.feel(None, input.device_kind());
        let at = self.book.level(control);
        match input {
            Input::PadStick(_) => Some(Live::Stick {
                at,
                inner: feel.dead_zone.inner,
                outer: feel.dead_zone.outer,
            }),
            Input::PadButton(button) if button.is_trigger() => Some(Live::Pull {
                at: at[0],
                mark: feel.threshold,
            }),
            // From one end to the other, with its middle marked.
            Input::Hid(HidInput::Axis(_)) => Some(Live::Pull {
                at: at[0] / 2.0 + 0.5,
                mark: 0.5,
            }),
            _ => None,
        }
    }

    /// The numbered inputs of other controllers that are bound or worked right now.
    fn other_controllers(&self) -> Option<Section> {
        let own = |input: &Input| input.device_kind() == DeviceKind::Other;
        let bound = |chord: &Chord| -> Vec<Input> {
            chord.inputs().filter(own).map(Input::whole).collect()
        };
        let on = self.titles_on(&self.draft, bound);
        let mut inputs: Vec<Input> = self.book.inputs().into_iter().filter(own).collect();
        inputs = inputs.into_iter().map(Input::whole).collect();
        inputs.extend(on.keys().copied());
        inputs.sort_unstable();
        inputs.dedup();
        let rows: Vec<RowView> = inputs.into_iter().map(|i| self.part_row(i, &on)).collect();
        (!rows.is_empty()).then(|| Section {
            title: self
                .draft
                .words()
                .column_name(crate::sheet::ColumnKind::Other),
            rows,
            ..Section::default()
        })
    }

    /// Shows what is on a part, among the bindings.
    pub(super) fn show_part(&mut self, input: Input) {
        self.filter.on = Some(input.into());
        self.turn_to(Page::Bindings);
    }

    /// Every family to choose from: as it is found, and those of the marks, in their order.
    fn families(&self) -> Vec<Option<String>> {
        let marks = self.draft.words().marks();
        let all = marks.into_iter().flat_map(|m| m.families());
        let names = all.map(|f| Some(f.name().to_owned()));
        [None].into_iter().chain(names).collect()
    }

    pub(super) fn view_families(&self) -> Vec<Item> {
        let chosen = self.draft.family();
        let radio = |(n, family): (usize, Option<String>)| {
            let label = match family.as_deref() {
                Some(name) => self.family_title(Some(name)),
                None => self.text("family-found"),
            };
            let selected = chosen == family.as_deref();
            self.item(Spot::Answer(n as u16), label, Role::Radio { selected })
        };
        self.families().into_iter().enumerate().map(radio).collect()
    }

    pub(super) fn pick_family(&mut self, n: usize) {
        if let Some(family) = self.families().get(n) {
            self.draft.choose_family(family.as_deref());
            self.stale = true;
        }
    }

    pub(super) fn ask_for_family(&mut self) {
        self.ask(Picking::Families);
    }
}

const fn is_paddle(input: Input) -> bool {
    matches!(
        input,
        Input::PadButton(
            PadButton::Paddle1 | PadButton::Paddle2 | PadButton::Paddle3 | PadButton::Paddle4
        )
    )
}
