//! Teaching the mapping of a controller: one part of a pad asked for after another, and kept once the
//! new pad has shown that it works.

use std::collections::BTreeMap;
use std::time::Duration;

use super::answer::Picking;
use super::command::control_of;
use super::typing::{For, Typing};
use super::{
    Busy, ControlsScreen, Dialog, Item, PadView, Role, RowView, ScreenWish, Section, Spot,
};
use crate::input::{Control, DeviceId, DeviceKind, Direction, Event, Input, Time, UsbId};
use crate::locker::Errand;
use crate::mapping::{Controller, Lesson, Mapping, MappingLearner, Mappings, Taught};
use crate::text::spelled;

/// How long the new pad is waited for.
const TIME: Duration = Duration::from_secs(15);
/// How far something is in to count as worked.
const WORKED: f32 = 0.6;

spelled! {
    /// What can be done with a kind of controller.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
    #[non_exhaustive]
    pub enum ControllerCommand {
        /// Teach which of its inputs is which part of a pad.
        Teach = "teach",
        /// Show what was taught as text.
        Export = "export",
        /// Forget what was taught.
        Forget = "forget",
    }
}

/// What is known of controllers that are no pads by themselves.
#[derive(Clone, Debug, Default)]
pub(super) struct Controllers {
    /// Those that are there.
    there: Vec<Controller>,
    mappings: Mappings,
}

/// A mapping that was just taught, on trial.
#[derive(Clone, Debug)]
pub(super) struct Vouching {
    controller: Controller,
    /// What was taught of it before.
    before: Option<Taught>,
    mapping: Mapping,
    /// What is to be worked on the new pad.
    wanted: Input,
    until: Time,
}

impl ControlsScreen {
    /// The controllers that are no pads by themselves, and what was taught of them: for the page of
    /// the pad.
    pub fn set_controllers(&mut self, there: Vec<Controller>, mappings: &Mappings) {
        let mappings = mappings.clone();
        self.controllers = Controllers { there, mappings };
        self.stale = true;
    }

    /// The controller that is being taught: its events are to come as they are, not as the pad that it
    /// was taught to be before.
    pub fn teaches(&self) -> Option<DeviceId> {
        match &self.busy {
            Busy::Teaching(learner) => Some(learner.device()),
            _ => None,
        }
    }

    /// Begins to teach a controller, as [`ScreenWish::Teach`] wants.
    pub fn teach(&mut self, learner: MappingLearner) {
        self.message = None;
        self.begin(Busy::Teaching(Box::new(learner)));
    }

    /// Asks whether a controller is a pad and is to be taught, where the player is at nothing else;
    /// whether it did.
    pub fn offer_teaching(&mut self, controller: Controller) -> bool {
        let asks = matches!(self.busy, Busy::Nothing);
        if asks {
            self.message = None;
            self.ask(Picking::Teach(controller));
        }
        asks
    }

    /// Takes in what works nothing here, and is down all the same.
    pub fn overhear(&mut self, event: &Event) {
        self.now = self.now.max(event.at);
        self.book.feed(event);
        self.trial.overhear(event);
        self.stale = true;
    }

    /// Does not keep what was just taught, if the player has not kept it yet: for when the screen is
    /// closed.
    pub fn give_up_mapping(&mut self) {
        if let Busy::Vouching(vouching) = &self.busy {
            let Vouching {
                controller, before, ..
            } = &**vouching;
            let wish = ScreenWish::Map(controller.kind, before.clone());
            self.wishes.push(wish);
            self.busy = Busy::Nothing;
            self.focus_on(self.before);
        }
    }

    /// What an event does while a controller is taught or shows that it was taught right; whether it is
    /// one of that controller.
    pub(super) fn hear_of_controller(&mut self, event: &Event, is_fresh: bool) -> bool {
        use crate::input::EventKind::Unplugged;
        let own = match &self.busy {
            Busy::Teaching(learner) => learner.device(),
            Busy::Vouching(vouching) => vouching.controller.device,
            _ => return false,
        };
        if ![own, DeviceId::ALL].contains(&event.device) {
            return false;
        }
        if event.what == Unplugged {
            self.calm();
            let words = self.draft.words();
            let device = words.device_name(DeviceKind::Other);
            self.message = Some(words.say("device-unplugged", &[("device", &device)]));
            return true;
        }
        match &mut self.busy {
            Busy::Teaching(learner) => {
                let lesson = learner.event(event);
                self.take_lesson(lesson);
            }
            Busy::Vouching(vouching) => {
                let wanted = vouching.wanted;
                let is_it = match wanted {
                    Input::PadStickHalf(stick, way) => {
                        let at = self.book.level(Control::stick(stick));
                        way.part_of(at) >= WORKED
                    }
                    wanted => {
                        let control = control_of(event);
                        is_fresh && control.and_then(Control::input) == Some(wanted)
                    }
                };
                if is_it {
                    self.keep_mapping();
                }
            }
            _ => {}
        }
        true
    }

    /// Lets time go by while a controller is taught or shows that it was taught right.
    pub(super) fn wait_for_controller(&mut self) {
        match &mut self.busy {
            Busy::Teaching(learner) => {
                let lesson = learner.tick(self.now);
                self.stale = true;
                self.take_lesson(lesson);
            }
            Busy::Vouching(vouching) => {
                let is_over = self.now >= vouching.until;
                self.stale = true;
                if is_over {
                    self.forgo_mapping();
                }
            }
            _ => {}
        }
    }

    fn take_lesson(&mut self, lesson: Lesson) {
        match lesson {
            Lesson::Waits => {}
            Lesson::Learned | Lesson::Skipped => self.message = None,
            Lesson::IsAlready(part) => {
                let part = self.part_name(part);
                let words = self.draft.words();
                self.message = Some(words.say("teach-is-already", &[("input", &part)]));
            }
            Lesson::Done => self.finish_teaching(),
        }
        self.stale = true;
    }

    /// An answer of the dialog that teaches.
    pub(super) fn answer_teaching(&mut self, n: usize) {
        let Busy::Teaching(learner) = &mut self.busy else {
            return;
        };
        match n {
            0 => {
                let lesson = learner.skip();
                self.take_lesson(lesson);
            }
            1 => {
                learner.back();
                self.message = None;
            }
            2 => self.finish_teaching(),
            _ => self.calm(),
        }
    }

    /// One part back, or out of teaching where there is none before.
    pub(super) fn back_in_teaching(&mut self) {
        let Busy::Teaching(learner) = &mut self.busy else {
            return;
        };
        self.message = None;
        if !learner.back() {
            self.calm();
        }
    }

    /// Everything was asked for, or the rest is not there: plays with it on trial.
    fn finish_teaching(&mut self) {
        let Busy::Teaching(learner) = &self.busy else {
            return;
        };
        let mapping = learner.mapping();
        let (device, kind) = (learner.device(), learner.kind());
        // What confirms is what a player wants most; where it was not taught, whatever was.
        let confirm = Input::from(self.draft.words().confirm());
        let all = || mapping.parts().map(|(part, _)| part);
        let wanted = all().find(|part| *part == confirm).or(all().next());
        let Some(wanted) = wanted else {
            self.calm();
            self.message = Some(self.text("teach-nothing"));
            return;
        };
        let before = self.controllers.mappings.of(kind).cloned();
        let now = Some(Taught::Pad(mapping.clone()));
        self.calm();
        self.message = None;
        self.wishes.push(ScreenWish::Map(kind, now));
        self.begin(Busy::Vouching(Box::new(Vouching {
            controller: Controller { device, kind },
            before,
            mapping,
            wanted,
            until: self.now.plus(TIME),
        })));
    }

    fn keep_mapping(&mut self) {
        let Busy::Vouching(vouching) = std::mem::replace(&mut self.busy, Busy::Nothing) else {
            return;
        };
        self.focus_on(self.before);
        let taught = Taught::Pad(vouching.mapping);
        self.keep_taught(vouching.controller.kind, taught);
        self.message = Some(self.text("teach-kept"));
    }

    pub(super) fn forgo_mapping(&mut self) {
        self.give_up_mapping();
        self.message = Some(self.text("teach-not-kept"));
    }

    /// Keeps what was taught, where anything is kept of this player.
    fn keep_taught(&mut self, kind: Option<UsbId>, taught: Taught) {
        let mut one = Mappings::new();
        one.set(kind, Some(taught));
        self.send_if_kept(Errand::Teach(one));
    }

    /// What comes of the question whether a controller is a pad.
    pub(super) fn answer_offer(&mut self, controller: Controller, n: usize) {
        match n {
            0 => self.wishes.push(ScreenWish::Teach(controller.device)),
            1 => {
                let kind = controller.kind;
                self.wishes.push(ScreenWish::Map(kind, Some(Taught::NoPad)));
                self.keep_taught(kind, Taught::NoPad);
            }
            _ => {}
        }
    }

    pub(super) fn work_controller(&mut self, kind: Option<UsbId>, deed: ControllerCommand) {
        match deed {
            ControllerCommand::Teach => {
                let there = self.controllers.there.iter().find(|c| c.kind == kind);
                let wish = there.map(|c| ScreenWish::Teach(c.device));
                self.wishes.extend(wish);
            }
            ControllerCommand::Export => {
                let mut one = Mappings::new();
                one.set(kind, self.controllers.mappings.of(kind).cloned());
                let text = one.to_toml();
                self.begin(Busy::Typing(Typing::new(For::ShownController, text)));
            }
            ControllerCommand::Forget => {
                self.wishes.push(ScreenWish::Map(kind, None));
                self.send_if_kept(Errand::Forget(kind));
            }
        }
    }

    pub(super) fn ask_for_controllers(&mut self) {
        self.begin(Busy::Typing(Typing::new(For::Controllers, String::new())));
    }

    /// What was taught elsewhere came as text.
    pub(super) fn take_controllers(&mut self, text: &str) {
        let taught = match Mappings::from_toml(text, "text") {
            Ok(taught) if !taught.is_empty() => taught,
            Err(e) if e.is_newer() => {
                self.message = Some(self.text("mappings-newer"));
                return;
            }
            _ => {
                self.message = Some(self.text("teach-no-text"));
                return;
            }
        };
        for (kind, taught) in taught.kinds() {
            self.wishes
                .push(ScreenWish::Map(kind, Some(taught.clone())));
        }
        self.message = Some(self.text("teach-taken-in"));
        self.send_if_kept(Errand::Teach(taught));
    }

    /// What a part of a pad is called, whatever it is on.
    fn part_name(&self, part: Input) -> String {
        self.draft.telling().chord(&part.into())
    }

    /// The page's rows of controllers: those that are there, and those of which something was taught.
    pub(super) fn view_controllers(&self) -> Option<Section> {
        let Controllers { there, mappings } = &self.controllers;
        let mut kinds: Vec<Option<UsbId>> = there.iter().map(|c| c.kind).collect();
        kinds.extend(mappings.kinds().map(|(kind, _)| kind));
        kinds.sort_unstable();
        kinds.dedup();
        let rows: Vec<RowView> = kinds.into_iter().map(|k| self.controller_row(k)).collect();
        (!rows.is_empty()).then(|| Section {
            title: self.text("section-controllers"),
            text: Some(self.text("controllers-text")),
            rows,
        })
    }

    fn kind_title(&self, kind: Option<UsbId>) -> String {
        match kind {
            Some(_) => {
                let usb = Mappings::kind_name(kind);
                self.draft.words().say("controller-kind", &[("usb", &usb)])
            }
            None => self.text("controller-unknown"),
        }
    }

    fn controller_row(&self, kind: Option<UsbId>) -> RowView {
        let taught = self.controllers.mappings.of(kind);
        let is_there = self.controllers.there.iter().any(|c| c.kind == kind);
        let (state, teach) = match taught {
            None => ("controller-new", "teach-begin"),
            Some(Taught::Pad(_)) => ("controller-pad", "teach-again"),
            Some(Taught::NoPad) => ("controller-no-pad", "teach-begin"),
        };
        let title = self.kind_title(kind);
        let item = |deed: ControllerCommand, id: &str| {
            let label = self.text(id);
            let mut item = self.item(Spot::Controller(kind, deed), label, Role::Button);
            let values = [("title", &*title), ("setting", &item.label)];
            item.spoken = self.draft.words().say("setting-of", &values);
            item
        };
        let mut items = Vec::new();
        if is_there {
            items.push(item(ControllerCommand::Teach, teach));
        }
        if matches!(taught, Some(Taught::Pad(_))) {
            items.push(item(ControllerCommand::Export, "deed-export"));
        }
        if taught.is_some() {
            items.push(item(ControllerCommand::Forget, "teach-forget"));
        }
        let state = self.text(state);
        RowView {
            text: Some(match is_there {
                true => state,
                false => self.listed([state, self.text("controller-gone")]),
            }),
            title,
            items,
            ..RowView::default()
        }
    }

    /// Taking them in as text, for who has such a controller.
    pub(super) fn tools_for_controllers(&self) -> Vec<Item> {
        let Controllers { there, mappings } = &self.controllers;
        let wanted = !there.is_empty() || !mappings.is_empty();
        let tool = || self.item(Spot::Controllers, self.text("teach-import"), Role::Button);
        wanted.then(tool).into_iter().collect()
    }

    pub(super) fn view_offer(&self, controller: Controller, dialog: &mut Dialog) -> Vec<Item> {
        dialog.title = self.text("teach-offer");
        dialog.text = vec![self.kind_title(controller.kind)];
        let ids = ["teach-begin", "teach-no-pad", "teach-later"];
        let all = ids.iter().enumerate();
        all.map(|(n, id)| self.button(n, self.text(id))).collect()
    }

    pub(super) fn view_teaching(&self, learner: &MappingLearner) -> Dialog {
        let words = self.draft.words();
        let Some(asked) = learner.asked() else {
            return Dialog::default();
        };
        let part = self.part_name(asked);
        let (at, count) = learner.progress();
        let (at, count) = ((at + 1).to_string(), count.to_string());
        let left = learner.time_left().map(Self::whole);
        let seconds = left.unwrap_or_default().as_secs().to_string();
        let values = [("at", &*at), ("count", &*count), ("seconds", &*seconds)];
        let ids = [
            "teach-skip",
            "teach-back",
            "teach-done",
            "menu-cancel-button",
        ];
        let answers = ids.iter().enumerate();
        let can = |n: usize| match n {
            1 => learner.progress().0 > 0,
            2 => !learner.mapping().is_empty(),
            _ => true,
        };
        let answer = |(n, id): (usize, &&str)| self.button(n, self.text(id)).enabled(can(n));
        Dialog {
            title: words.say("teach-ask", &[("input", &part)]),
            text: vec![self.text("teach-how"), words.say("teach-progress", &values)],
            lines: vec![answers.map(answer).collect()],
            time_left: left,
            pad: Some(self.asking_pad(asked, &learner.mapping())),
            ..Dialog::default()
        }
    }

    pub(super) fn view_vouching(&self, vouching: &Vouching) -> Dialog {
        let words = self.draft.words();
        let part = self.part_name(vouching.wanted);
        let left = Self::whole(vouching.until.since(self.now));
        let seconds = left.as_secs().to_string();
        Dialog {
            title: self.text("teach-keep"),
            text: vec![
                words.say("teach-keep-by", &[("input", &part)]),
                words.say("teach-keep-seconds", &[("seconds", &seconds)]),
            ],
            lines: vec![vec![self.button(0, self.text("teach-keep-not"))]],
            time_left: Some(left),
            pad: Some(self.asking_pad(vouching.wanted, &vouching.mapping)),
            ..Dialog::default()
        }
    }

    /// The pad with one part asked for, a direction by its stick, pushed that way; what is taught
    /// already does something.
    fn asking_pad(&self, asked: Input, taught: &Mapping) -> PadView {
        let mut pad = self.pad_view(&BTreeMap::new());
        for part in &mut pad.parts {
            let own = |(taught, _): (Input, _)| part.spot == Spot::Part(taught.whole());
            part.does = taught.parts().any(own);
            part.asked = part.spot == Spot::Part(asked.whole());
            if part.asked
                && let Input::PadStickHalf(_, way) = asked
            {
                part.at = match way {
                    Direction::Up => [0.0, 1.0],
                    Direction::Down => [0.0, -1.0],
                    Direction::Left => [-1.0, 0.0],
                    Direction::Right => [1.0, 0.0],
                };
            }
        }
        pad
    }
}
