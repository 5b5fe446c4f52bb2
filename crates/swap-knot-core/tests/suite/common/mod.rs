//! What several tests need: the demo sheet, events, a hand on a seat.

pub mod disk;
pub mod what;

use swap_knot::screen::{ControlsScreen, Item, PointerEvent, Spot, Target};
use swap_knot::sheet::ActionId;
use swap_knot::{
    Cell, Chord, Controls, DeviceId, Event, EventKind, Layout, MouseButton, PadButton, Place,
    Profile, Rig, Seat, Sheet, Stick, Time,
};

pub const DEMO: &str = include_str!("../../../../../demo/slack-water.toml");

/// How many random worlds a test plays, or how large it makes them: a small part, since somebody waits for
/// it, or all with `scripts/test --full`.
pub fn worlds(all: u32) -> u32 {
    match std::env::var_os("SWAP_KNOT_FULL") {
        Some(_) => all,
        None => all.div_ceil(24),
    }
}

/// Holds that a page of `docs` is what a test makes of it; with `SWAP_KNOT_WRITE` it is written anew.
pub fn is_current(file: &str, page: &str) {
    let path = format!("{}/../../docs/{file}", env!("CARGO_MANIFEST_DIR"));
    if std::env::var_os("SWAP_KNOT_WRITE").is_some() {
        std::fs::write(&path, page).unwrap();
    }
    let there = std::fs::read_to_string(&path).unwrap_or_default();
    let differs = there.lines().zip(page.lines()).find(|(a, b)| a != b);
    assert!(
        there == page,
        "docs/{file} is old; SWAP_KNOT_WRITE=1 writes it anew: {differs:?}"
    );
}

pub fn demo() -> Sheet {
    sheet(DEMO)
}

pub fn sheet(text: &str) -> Sheet {
    Sheet::from_toml(text).unwrap_or_else(|e| panic!("{e}"))
}

/// A sheet of a game called `test` with these lines in it.
pub fn small(lines: &str) -> Sheet {
    sheet(&format!("game = \"test\"\n{lines}"))
}

pub fn us(sheet: &Sheet) -> Rig {
    Rig::new(sheet, &Profile::default(), &Layout::us())
}

pub fn chord(text: &str) -> Chord {
    text.parse().unwrap_or_else(|e| panic!("{e}"))
}

/// The cell that a text such as `walk.up keyboard-1` names.
pub fn cell(sheet: &Sheet, text: &str) -> Cell {
    let (row, column) = text.split_once(' ').unwrap();
    let row = sheet
        .find_row(row)
        .unwrap_or_else(|| panic!("no row {row}"));
    row.cell(column.parse().unwrap())
}

/// The controls screen that a player has open.
pub fn screen(controls: &mut Controls) -> &mut ControlsScreen {
    controls.screen_mut().unwrap()
}

/// Chooses what stands there under an id.
pub fn press(controls: &mut Controls, id: &str) {
    let screen = screen(controls);
    let found = screen.view().items().find(|i| i.id == id);
    let spot = found.unwrap_or_else(|| panic!("no {id}")).spot;
    screen.press(spot);
}

/// Where [`draw_alone`] puts what it draws, and beside it.
pub const THERE: [f32; 2] = [5.0, 5.0];
pub const BESIDE: [f32; 2] = [50.0, 5.0];

/// Draws one thing where it can be pointed at, or something that is nothing.
pub fn draw_alone(screen: &mut ControlsScreen, spot: Option<Spot>) {
    let rect = [0.0, 0.0, 10.0, 10.0];
    let target = spot.map_or(Target::cover(rect), |spot| Target::spot(spot, rect));
    screen.set_targets([target]);
}

/// Presses the left button at one point and lets go of it at another.
pub fn push(screen: &mut ControlsScreen, from: [f32; 2], to: [f32; 2]) {
    screen.point(PointerEvent::Down(MouseButton::Left, from));
    screen.point(PointerEvent::Up(MouseButton::Left, to));
}

/// Drags a number along its track, which is ten wide.
pub fn drag(controls: &mut Controls, spot: Spot, to: f32) {
    let screen = screen(controls);
    let items: Vec<Item> = screen.view().items().cloned().collect();
    let item = items.iter().find(|i| i.spot == spot);
    let shown = item.map(|i| Target::item(i, [0.0, 0.0, 10.0, 10.0], [0.0, 10.0]));
    screen.set_targets(shown);
    screen.point(PointerEvent::Down(MouseButton::Left, THERE));
    screen.point(PointerEvent::Moved([to * 10.0, 5.0]));
    screen.point(PointerEvent::Up(MouseButton::Left, [to * 10.0, 5.0]));
}

/// What the dialog offers.
pub fn answers(controls: &mut Controls) -> Vec<Item> {
    let dialog = screen(controls).view().dialog.iter();
    dialog
        .flat_map(|d| d.lines.iter().flatten())
        .cloned()
        .collect()
}

/// Chooses what the dialog offers under a label.
pub fn answer(controls: &mut Controls, label: &str) {
    let all = answers(controls);
    let found = all.iter().find(|i| i.label == label);
    let spot = found
        .unwrap_or_else(|| panic!("no {label} in {all:?}"))
        .spot;
    screen(controls).press(spot);
}

/// A seat with hands on every device; each step takes a millisecond.
pub struct Hand {
    pub seat: Seat,
    pub now: u64,
}

impl Hand {
    pub fn new(sheet: &Sheet) -> Hand {
        Hand::on(us(sheet))
    }

    pub fn on(rig: Rig) -> Hand {
        Hand {
            seat: Seat::new(rig),
            now: 0,
        }
    }

    pub fn feed(&mut self, device: u16, what: EventKind) -> &mut Self {
        self.now += 1;
        self.seat.feed(&Event {
            at: Time::from_millis(self.now),
            device: DeviceId(device),
            what,
        });
        self
    }

    pub fn key(&mut self, place: Place, down: bool) -> &mut Self {
        self.feed(
            0,
            EventKind::Key {
                place,
                down,
                text: None,
            },
        )
    }

    pub fn down(&mut self, place: Place) -> &mut Self {
        self.key(place, true)
    }

    pub fn up(&mut self, place: Place) -> &mut Self {
        self.key(place, false)
    }

    pub fn click(&mut self, button: MouseButton, down: bool) -> &mut Self {
        self.feed(1, EventKind::MouseButton { button, down })
    }

    pub fn pad(&mut self, button: PadButton, value: f32) -> &mut Self {
        self.feed(2, EventKind::PadButton { button, value })
    }

    pub fn stick(&mut self, x: f32, y: f32) -> &mut Self {
        let stick = Stick::LEFT;
        self.feed(2, EventKind::PadStick { stick, x, y })
    }

    pub fn tick(&mut self) -> &mut Self {
        self.wait(1)
    }

    /// Lets so many milliseconds go by, then ticks.
    pub fn wait(&mut self, millis: u64) -> &mut Self {
        self.now += millis;
        self.seat.tick(Time::from_millis(self.now));
        self
    }

    pub fn action(&self, name: &str) -> ActionId {
        let found = self.seat.rig().sheet().find(name);
        found.unwrap_or_else(|| panic!("no action {name}"))
    }

    pub fn is_down(&self, row: &str) -> bool {
        self.seat
            .is_down(self.seat.rig().sheet().find_row(row).unwrap())
    }

    pub fn went_down(&self, row: &str) -> bool {
        self.seat
            .went_down(self.seat.rig().sheet().find_row(row).unwrap())
    }

    /// What happened since the tick before the last, as `began walk.up`.
    pub fn happened(&self) -> Vec<String> {
        let sheet = self.seat.rig().sheet();
        let line = |h: &swap_knot::play::Happened| {
            let row = swap_knot::Row {
                action: h.action,
                arm: h.arm,
            };
            format!("{:?} {}", h.edge, sheet.row_name(row)).to_lowercase()
        };
        self.seat.happened().iter().map(line).collect()
    }

    pub fn situation(&mut self, names: &[&str]) -> &mut Self {
        let sheet = self.seat.rig().sheet().clone();
        let ids: Vec<_> = names
            .iter()
            .map(|n| sheet.find_situation(n).unwrap())
            .collect();
        self.seat.set_situations(&ids);
        self
    }
}
