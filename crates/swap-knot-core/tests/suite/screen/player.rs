//! A player before the screen, with a clock.

use crate::common::{THERE, draw_alone, push, what};
use std::time::Duration;

use swap_knot_core::screen::{Item, ScreenView, Spot};
use swap_knot_core::{
    Controls, DeviceId, Event, EventKind, Layout, MouseButton, PadButton, Place, Profile, Sheet,
    Stick, Time,
};

pub(crate) const SHEET: &str = include_str!("../../../../../demo/slack-water.toml");

/// A player before the screen, with a clock.
pub(crate) struct Player {
    pub(crate) sheet: Sheet,
    pub(crate) controls: Controls,
    pub(crate) now: Time,
}

impl Player {
    pub(crate) fn new() -> Player {
        Player::of(Sheet::from_toml(SHEET).unwrap())
    }

    /// In another game.
    pub(crate) fn of(sheet: Sheet) -> Player {
        let mut controls = Controls::new(&sheet, Profile::new("Ada"), &Layout::us());
        if let Some(deck) = sheet.find_situation("deck") {
            controls.seat_mut().enter(deck);
        }
        let mut player = Player {
            sheet,
            controls,
            now: Time::ZERO,
        };
        player.open();
        player
    }

    pub(crate) fn open(&mut self) {
        self.controls.open_screen(self.now);
    }

    pub(crate) fn is_open(&self) -> bool {
        self.controls.screen().is_some()
    }

    pub(crate) fn send(&mut self, what: EventKind) {
        self.now = self.now.plus(Duration::from_millis(20));
        let device = DeviceId(u16::from(what_pad(&what)));
        self.controls.feed(&Event {
            at: self.now,
            device,
            what,
        });
        self.controls.tick(self.now);
    }

    pub(crate) fn wait(&mut self, ms: u64) {
        let until = self.now.plus(Duration::from_millis(ms));
        while self.now < until {
            self.now = self.now.plus(Duration::from_millis(10));
            self.controls.tick(self.now);
        }
    }

    pub(crate) fn hold(&mut self, place: Place, down: bool) {
        self.send(what::key(place, down));
    }

    pub(crate) fn key(&mut self, place: Place) {
        self.hold(place, true);
        self.hold(place, false);
    }

    pub(crate) fn keys(&mut self, places: &[Place]) {
        places.iter().for_each(|p| self.key(*p));
    }

    pub(crate) fn pad(&mut self, button: PadButton) {
        self.send(EventKind::PadButton { button, value: 1.0 });
        self.send(EventKind::PadButton { button, value: 0.0 });
    }

    pub(crate) fn tilt(&mut self, stick: Stick, x: f32, y: f32) {
        self.send(EventKind::PadStick { stick, x, y });
    }

    pub(crate) fn view(&mut self) -> ScreenView {
        self.controls.screen_mut().unwrap().view().clone()
    }

    pub(crate) fn item(&mut self, id: &str) -> Item {
        let view = self.view();
        let item = view.items().find(|i| i.id == id);
        item.unwrap_or_else(|| panic!("no {id}")).clone()
    }

    /// Clicks something.
    pub(crate) fn click(&mut self, id: &str) {
        let spot = self.item(id).spot;
        let screen = self.controls.screen_mut().unwrap();
        draw_alone(screen, Some(spot));
        push(screen, THERE, THERE);
        self.wait(10);
        if let Some(screen) = self.controls.screen_mut() {
            // The next picture, which shows what came of it.
            draw_alone(screen, None);
        }
    }

    /// The left button as a hand works it: pressed on something that is drawn, let go of at a point. The
    /// screen hears of the button, and of the pointer once there is a picture.
    pub(crate) fn mouse(&mut self, on: Option<Spot>, to: [f32; 2]) {
        let (button, device) = (MouseButton::Left, DeviceId(0));
        for down in [true, false] {
            self.now = self.now.plus(Duration::from_millis(3));
            let what = EventKind::MouseButton { button, down };
            let at = self.now;
            self.controls.feed(&Event { at, device, what });
        }
        self.controls.tick(self.now);
        let screen = self.controls.screen_mut().unwrap();
        draw_alone(screen, on);
        push(screen, THERE, to);
        self.wait(10);
    }

    pub(crate) fn focus(&mut self) -> String {
        self.view().focused().unwrap().id.clone()
    }

    pub(crate) fn label(&mut self, id: &str) -> String {
        self.item(id).label
    }

    pub(crate) fn dialog(&mut self) -> String {
        self.view().dialog.map(|d| d.title).unwrap_or_default()
    }

    pub(crate) fn prompt(&mut self, text: &str) -> String {
        self.controls.prompt(text).unwrap().to_string()
    }

    /// Goes to an item step by step, as a player would: up, down, left or right.
    pub(crate) fn go(&mut self, id: &str, [up, down, left, right]: &[EventKind; 4]) {
        for _ in 0..300 {
            let view = self.view();
            let lines = view.lines();
            let find = |is: &dyn Fn(&Item) -> bool| {
                let row = lines.iter().position(|l| l.iter().any(|i| is(i)));
                let row = row.unwrap_or_else(|| panic!("no {id}"));
                (row, lines[row].iter().position(|i| is(i)).unwrap())
            };
            let (here, there) = (find(&|i| i.focused), find(&|i| i.id == id));
            let what = match here.cmp(&there) {
                _ if here == there => return,
                _ if here.0 > there.0 => up,
                _ if here.0 < there.0 => down,
                std::cmp::Ordering::Greater => left,
                _ => right,
            };
            self.send(*what);
            self.send(released(*what));
        }
        panic!("{id} is not reached, {} is", self.focus());
    }
}

pub(crate) fn what_pad(what: &EventKind) -> bool {
    matches!(
        what,
        EventKind::PadButton { .. } | EventKind::PadStick { .. }
    )
}

pub(crate) fn released(what: EventKind) -> EventKind {
    match what {
        EventKind::Key { place, .. } => what::key(place, false),
        EventKind::PadButton { button, .. } => EventKind::PadButton { button, value: 0.0 },
        other => other,
    }
}

pub(crate) const fn down(place: Place) -> EventKind {
    what::key(place, true)
}

pub(crate) const fn pushed(button: PadButton) -> EventKind {
    EventKind::PadButton { button, value: 1.0 }
}

pub(crate) const ARROWS: [EventKind; 4] = [
    down(Place::ArrowUp),
    down(Place::ArrowDown),
    down(Place::ArrowLeft),
    down(Place::ArrowRight),
];
pub(crate) const CROSS: [EventKind; 4] = [
    pushed(PadButton::Up),
    pushed(PadButton::Down),
    pushed(PadButton::Left),
    pushed(PadButton::Right),
];

/// The titles of the rows.
pub(crate) fn rows(player: &mut Player) -> Vec<String> {
    let view = player.view();
    let rows = view.sections.iter().flat_map(|s| &s.rows);
    rows.map(|r| r.title.clone()).collect()
}
