//! A small stage on which the actions visibly move something.

use eframe::egui::{Color32, Rect, Sense, Shape, Stroke, Ui, pos2, vec2};
use swap_knot::{ActionId, Seat, Sheet, Time, Words};

const WATER: Color32 = Color32::from_rgb(24, 52, 66);
const DECK: Color32 = Color32::from_rgb(120, 92, 62);
const BRIGHT: Color32 = Color32::from_rgb(255, 226, 150);

/// The barge, the figure on it, and what they are doing.
pub(crate) struct Stage {
    actions: [ActionId; 7],
    /// Where the figure stands, from the middle of the deck.
    figure: [f32; 2],
    heading: f32,
    way: f32,
    moored: bool,
    coils: u32,
}

impl Stage {
    /// The stage of a sheet that declares what Slack Water's does.
    pub(crate) fn new(sheet: &Sheet) -> Option<Stage> {
        let names = [
            "walk",
            "cast-off",
            "coil-rope",
            "lantern",
            "steer",
            "throttle",
            "horn",
        ];
        let actions: Option<Vec<ActionId>> = names.into_iter().map(|n| sheet.find(n)).collect();
        let (figure, heading, way, moored, coils) = ([0.0; 2], 0.0, 0.0, true, 0);
        Some(Stage {
            actions: actions?.try_into().ok()?,
            figure,
            heading,
            way,
            moored,
            coils,
        })
    }

    /// Moves everything by one frame.
    pub(crate) fn play(&mut self, seat: &Seat, seconds: f32) {
        let [walk, cast_off, coil_rope, _, steer, throttle, _] = self.actions;
        let [x, y] = seat.plane(walk);
        self.figure[0] = (self.figure[0] + x * 160.0 * seconds).clamp(-120.0, 120.0);
        self.figure[1] = (self.figure[1] - y * 160.0 * seconds).clamp(-22.0, 22.0);
        self.heading += seat.value(steer) * 0.9 * seconds;
        self.way = seat.value(throttle).max(self.way * 0.97);
        self.moored ^= seat.went_down(cast_off);
        self.coils += u32::from(seat.went_down(coil_rope));
    }

    pub(crate) fn moves(&self) -> bool {
        self.way > 0.01
    }

    fn draw(&self, ui: &mut Ui, seat: &Seat) {
        let [_, _, _, lantern, _, _, horn] = self.actions;
        let (response, painter) = ui.allocate_painter(ui.available_size(), Sense::hover());
        let (area, middle) = (response.rect, response.rect.center());
        painter.rect_filled(area, 6.0, WATER);
        let turn = self.heading.sin() * 0.1;
        let at = |x: f32, y: f32| middle + vec2(x, y + x * turn) * 2.0;
        let hull = [
            (-150.0, -34.0),
            (130.0, -34.0),
            (165.0, 0.0),
            (130.0, 34.0),
            (-150.0, 34.0),
        ];
        let hull = hull.map(|(x, y)| at(x, y)).to_vec();
        painter.add(Shape::convex_polygon(
            hull,
            DECK,
            Stroke::new(2.0, Color32::BLACK),
        ));
        if self.moored {
            let quay = Rect::from_min_max(area.left_top(), pos2(area.right(), area.top() + 18.0));
            painter.rect_filled(quay, 0.0, Color32::GRAY);
            let rope = [at(-110.0, -34.0), pos2(middle.x - 240.0, quay.bottom())];
            painter.line_segment(rope, Stroke::new(4.0, BRIGHT));
        }
        let wake = Stroke::new(4.0 * self.way, Color32::WHITE.gamma_multiply(self.way));
        painter.line_segment([at(-160.0, -18.0), at(-190.0, 18.0)], wake);
        for coil in 0..self.coils.min(6) {
            let spot = at(-120.0 + coil as f32 * 14.0, 18.0);
            painter.circle_stroke(spot, 10.0, Stroke::new(3.0, BRIGHT));
        }
        let light = if seat.is_down(lantern) { 30.0 } else { 8.0 };
        painter.circle_filled(at(110.0, -14.0), light, BRIGHT.gamma_multiply(0.6));
        painter.circle_filled(at(self.figure[0], self.figure[1]), 16.0, Color32::WHITE);
        if seat.is_down(horn) {
            painter.circle_stroke(at(140.0, 0.0), 60.0, Stroke::new(3.0, Color32::WHITE));
        }
    }
}

/// What is on just now, in words.
pub(crate) fn doing(seat: &Seat, words: &Words) -> String {
    let sheet = seat.rig().sheet();
    let on = sheet.actions().filter(|(id, _)| seat.is_down(*id));
    let on: Vec<String> = on
        .map(|(id, _)| words.row_title(sheet, id.into()))
        .collect();
    if on.is_empty() {
        "…".to_owned()
    } else {
        on.join(", ")
    }
}

/// Where the player is, the prompts for that, and the stage.
pub(crate) fn show(ui: &mut Ui, app: &mut crate::App, now: Time) {
    let (layout, words) = (
        app.controls.resolver().layout().clone(),
        app.controls.words().clone(),
    );
    let sheet = app.controls.seat().rig().sheet().clone();
    let here = app.controls.seat().situations().last().copied();
    ui.horizontal_wrapped(|ui| {
        ui.heading(words.game_title(&sheet));
        for (id, situation) in sheet.situations() {
            let title = words.situation_title(&sheet, id);
            let response = ui.selectable_label(here == Some(id), title);
            if let Some(report) = &mut app.report {
                report.place(&format!("go {}", situation.name), response.rect);
            }
            if response.clicked() {
                app.controls.seat_mut().set_situations(&[id]);
            }
        }
        ui.label(format!(
            "{}  {}",
            layout.title(),
            doing(app.controls.seat(), &words)
        ));
    });
    if !app.notes.is_empty() {
        ui.label(&app.notes);
    }
    let name = here
        .and_then(|id| sheet.situation(id))
        .map_or("", |s| &s.name);
    let shown = app.controls.prompt_of(&format!("at-{name}")).ok().cloned();
    let asked = shown.and_then(|shown| {
        if let Some(report) = &mut app.report {
            report.state("prompt", &shown.to_string());
        }
        swap_knot_egui::prompt(ui, &shown, &mut app.glyphs, &layout, &words, 30.0)
    });
    if let Some(row) = asked {
        // A prompt showed an unbound action: the screen opens on that.
        app.controls.open_screen(now);
        app.controls
            .screen_mut()
            .into_iter()
            .for_each(|screen| screen.go_to(row));
    }
    app.stage.draw(ui, app.controls.seat());
}
