//! The page of touch: where the on-screen buttons and sticks lie, and how large they are.

use super::{
    ControlsScreen, Item, Page, Role, RowView, ScreenView, Section, Spot, TouchView, ZoneView,
};
use crate::input::{Input, Placement, TouchName, TouchZones};
use crate::law::Bound;
use crate::sheet::{ActsOn, ColumnKind, Parameter, ParameterPart, Parameters, Scope};
use crate::words::Telling;

/// By which part a zone is dragged.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum Grip {
    /// Anywhere on it: it is moved.
    Middle,
    /// Its lower right corner: it is sized.
    Corner,
}

/// A zone that is dragged, as it was when that began.
#[derive(Clone, Copy, Debug)]
pub(super) struct Gripped {
    name: TouchName,
    grip: Grip,
    size: [f32; 2],
    screen: [f32; 2],
    placement: Placement,
}

impl ControlsScreen {
    /// The zones that the game has laid out: with any there is a page for them.
    pub fn set_zones(&mut self, zones: &TouchZones) {
        if self.zones != *zones {
            self.zones = zones.clone();
            self.stale = true;
        }
    }

    /// The pages that there are for this game.
    pub(super) fn pages(&self) -> impl Iterator<Item = Page> {
        let has_zones = self.zones.zones().len() > 0;
        let all = Page::ALL.into_iter();
        all.filter(move |page| *page != Page::Touch || has_zones)
    }

    /// A zone as it is taken hold of.
    pub(super) fn grip(&self, name: TouchName, grip: Grip) -> Option<Gripped> {
        let zones = self.zones_as_edited();
        let zone = zones.zones().find(|z| z.name == name)?;
        Some(Gripped {
            name,
            grip,
            size: zone.size,
            screen: zones.screen()?,
            placement: self.draft.placement(name),
        })
    }

    /// A zone was dragged by so much in all, in the units of the game's layout; answers whether it can
    /// be.
    pub(super) fn drag_zone(&mut self, held: &Gripped, by: [f32; 2]) -> bool {
        let can_be = self.page == Page::Touch && self.is_idle();
        if !can_be || !by.into_iter().all(f32::is_finite) {
            return false;
        }
        let (shift, size) = (held.placement.shift(), held.placement.size());
        let (parameter, placement) = match held.grip {
            Grip::Middle => {
                let shift = [0, 1].map(|n| shift[n] + by[n] / held.screen[n]);
                (Parameter::ShiftX, Placement::new(shift, size))
            }
            Grip::Corner => {
                let far = |n: usize| (1.0 + 2.0 * by[n] / held.size[n].max(f32::EPSILON)).abs();
                (
                    Parameter::Size,
                    Placement::new(shift, size * far(0).max(far(1))),
                )
            }
        };
        let spot = Spot::Setting(ActsOn::Zone(held.name), parameter, ParameterPart::Whole);
        self.focus_on(spot);
        self.place(spot, held.name, placement);
        true
    }

    /// Puts a zone somewhere, which goes on being one step for undo.
    pub(super) fn place(&mut self, spot: Spot, name: TouchName, placement: Placement) {
        let placement = self.zones.within(name, placement);
        self.in_one_step(spot, |screen| {
            let to = Parameters::of_placement(placement);
            screen.draft.set_parameters(&Scope::zone(name), &to)
        });
    }

    /// The zones where the draft has them.
    fn zones_as_edited(&self) -> TouchZones {
        let mut zones = self.zones.clone();
        for name in self.zones.laid_names() {
            zones.place(name, self.draft.placement(name));
        }
        zones
    }

    pub(super) fn view_touch(&self, view: &mut ScreenView) {
        view.tools = self.common_tools(Vec::new());
        let shown = self.touch_view();
        let place = self.tried_in().map(|place| {
            let words = self.draft.words();
            let label = words.situation_title(self.draft.sheet(), place);
            self.choice(Spot::Where, "try-where", label)
        });
        let rows = shown.zones.iter().map(|zone| self.zone_row(zone));
        view.sections.push(Section {
            text: Some(self.text("touch-text")),
            rows: place.into_iter().chain(rows).collect(),
            ..Section::default()
        });
        view.touch = Some(shown);
    }

    /// The zones that do something where the player looks, and those that do nothing anywhere.
    fn touch_view(&self) -> TouchView {
        let zones = self.zones_as_edited();
        let mut view = TouchView::new(&zones, &self.draft.telling(), |input| {
            self.titles_there(input)
        });
        let is_elsewhere = |zone: &ZoneView| {
            let anywhere = self.titles_if_any(Input::Touch(zone.name));
            !zone.does && anywhere.is_some()
        };
        view.zones.retain(|zone| !is_elsewhere(zone));
        for zone in &mut view.zones {
            // The book has heard of fingers on whatever device.
            zone.touched |= self.is_touched(zone.name);
        }
        view
    }

    pub(super) fn zone_title(&self, name: TouchName) -> String {
        self.draft.telling().chord(&Input::Touch(name).into())
    }

    fn is_touched(&self, name: TouchName) -> bool {
        let down = self.book.inputs();
        down.contains(&Input::Touch(name))
    }

    /// What an input works in the situation that the player looks at; none where that is nothing.
    fn titles_there(&self, input: Input) -> Option<String> {
        let (sheet, place) = (self.draft.sheet(), self.tried_in());
        let is_live = |b: &&Bound| {
            let own = &sheet.declared(b.cell.row.action).situations;
            own.is_empty() || own.iter().any(|s| Some(*s) == place)
        };
        let all = self.draft.bindings().iter();
        let on = all.filter(|b| b.chord.inputs().any(|i| i == input));
        let live = on.filter(is_live).map(|b| b.cell.row);
        self.draft.telling().rows(live)
    }

    fn zone_row(&self, zone: &ZoneView) -> RowView {
        let on = ActsOn::Zone(zone.name);
        let item = |parameter| self.view_number((on, parameter, ParameterPart::Whole));
        let title = self.zone_title(zone.name);
        RowView {
            title: match zone.does {
                true => {
                    let values = [("title", &*title), ("setting", &zone.title)];
                    self.draft.words().say("setting-of", &values)
                }
                false => title,
            },
            items: Parameter::of(on).map(item).collect(),
            lit: zone.touched,
            ..RowView::default()
        }
    }

    /// The zones as answers, where the player is asked for one: whoever has no finger on the screen
    /// chooses it by name.
    pub(super) fn zones_to_choose(&self, kind: ColumnKind) -> Vec<TouchName> {
        match kind {
            ColumnKind::Touch => self.zones.zones().map(|z| z.name).collect(),
            _ => Vec::new(),
        }
    }

    pub(super) fn zone_answer(&self, n: usize, name: TouchName) -> Item {
        self.item(Spot::Answer(n as u16), self.zone_title(name), Role::Button)
    }
}

impl TouchView {
    /// The zones as they lie, with what each does; one that does nothing is called by its name.
    pub(crate) fn new(
        zones: &TouchZones,
        to: &Telling<'_>,
        does: impl Fn(Input) -> Option<String>,
    ) -> TouchView {
        let all = zones.zones().map(|zone| {
            let input = Input::Touch(zone.name);
            let title = does(input);
            ZoneView {
                name: zone.name,
                rect: [zone.min[0], zone.min[1], zone.size[0], zone.size[1]],
                is_stick: zone.is_stick,
                does: title.is_some(),
                title: title.unwrap_or_else(|| to.chord(&input.into())),
                touched: zone.touched,
                at: zone.at,
            }
        });
        TouchView {
            size: zones.screen(),
            zones: all.collect(),
        }
    }
}
