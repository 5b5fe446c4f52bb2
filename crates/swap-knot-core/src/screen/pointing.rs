//! Pointing at the screen: what is pressed, dragged and clicked, from event to event.
//!
//! A skin tells what the pointer does as it comes, and after every picture where it drew what. Both are
//! needed since a slow picture has a whole click in it, or the press, the way and the end of a drag:
//! each event is judged by where the pointer was *then*, and one that follows something that was worked
//! waits for the next picture, as a hand would. So it does not matter how events fall into pictures.

use std::collections::VecDeque;

use super::touch::Gripped;
use super::{ControlsScreen, Grip, Item, Role, Spot, Waiting, is_click};
use crate::input::{EventKind, MouseButton, TouchName};

/// What a pointer does, at a point in the units in which a skin draws: x to the right, y down.
#[derive(Clone, Copy, Debug, PartialEq)]
#[non_exhaustive]
pub enum PointerEvent {
    /// It is somewhere now.
    Moved([f32; 2]),
    /// A button went down; a finger or a pen is the left one.
    Down(MouseButton, [f32; 2]),
    /// A button went up.
    Up(MouseButton, [f32; 2]),
    /// It left the picture; what it drags it goes on dragging.
    Gone,
    /// What it pressed or dragged is given up, as when the window loses the focus.
    Lost,
}

/// Something that a skin drew where it can be pointed at.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Target {
    rect: [f32; 4],
    what: Pointed,
}

/// What something does that is pointed at.
#[derive(Clone, Copy, Debug, PartialEq)]
enum Pointed {
    /// It is worked by a click.
    Spot(Spot),
    /// A number, dragged from one x to another.
    Track(Spot, [f32; 2]),
    /// A zone in a picture of the game's screen, in which a unit is so many of the layout's.
    Zone(TouchName, Grip, f32),
    /// Nothing, but what lies beneath is not reached.
    Cover,
}

impl Target {
    /// An item drawn at `[left, top, width, height]`: worked by a click. A number ([`Role::Slider`]) is
    /// dragged along its track, `[from, to]` in x, instead.
    pub const fn item(item: &Item, rect: [f32; 4], track: [f32; 2]) -> Target {
        let what = match item.role {
            Role::Slider { .. } => Pointed::Track(item.spot, track),
            _ => Pointed::Spot(item.spot),
        };
        Target { rect, what }
    }

    /// What is worked by a click and is no item, such as a part of the pad.
    pub const fn spot(spot: Spot, rect: [f32; 4]) -> Target {
        let what = Pointed::Spot(spot);
        Target { rect, what }
    }

    /// A zone of the page of touch, or the corner by which it is sized, in a picture of the game's
    /// screen where one unit of the skin's is `scale` units of the game's layout.
    pub const fn zone(name: TouchName, grip: Grip, rect: [f32; 4], scale: f32) -> Target {
        let what = Pointed::Zone(name, grip, scale);
        Target { rect, what }
    }

    /// What hides that which was drawn before it, as a dialog does.
    pub const fn cover(rect: [f32; 4]) -> Target {
        let what = Pointed::Cover;
        Target { rect, what }
    }

    fn contains(&self, at: [f32; 2]) -> bool {
        let [left, top, width, height] = self.rect;
        (left..=left + width).contains(&at[0]) && (top..=top + height).contains(&at[1])
    }

    /// What is worked by a click.
    const fn clicked(&self) -> Option<Spot> {
        match self.what {
            Pointed::Spot(spot) => Some(spot),
            _ => None,
        }
    }
}

/// Where everything was drawn, and what the pointer is doing.
#[derive(Debug, Default)]
pub(super) struct Pointing {
    targets: Vec<Target>,
    /// How many pictures have to come, since something was worked, until they show what came of it.
    awaited: u8,
    /// What waits for the next picture.
    queue: VecDeque<PointerEvent>,
    at: Option<[f32; 2]>,
    hold: Option<Hold>,
    /// Whether the focus is where something was pointed at.
    has_focus: bool,
}

/// What the left button was pressed on, with where that was: the picture may change on the way.
#[derive(Clone, Copy, Debug)]
enum Hold {
    Spot(Spot),
    Track(Spot, [f32; 2]),
    /// With where the pointer was, and how many units of the layout one of the skin's is.
    Zone(Gripped, [f32; 2], f32),
}

impl Pointing {
    /// Whether a skin says what is pointed at.
    pub(super) fn is_in_use(&self) -> bool {
        !self.targets.is_empty()
    }

    /// Whether something waits for the next picture.
    pub(super) fn is_waiting(&self) -> bool {
        !self.queue.is_empty()
    }

    /// The focus went somewhere.
    pub(super) const fn forget_focus(&mut self) {
        self.has_focus = false;
    }

    /// The topmost of what was drawn there.
    fn under(&self, at: [f32; 2]) -> Option<&Target> {
        self.targets.iter().rev().find(|t| t.contains(at))
    }
}

impl ControlsScreen {
    /// Takes in what a pointer does: clicks, numbers and zones that are dragged. Tell every event, in
    /// order, and where everything is by [`set_targets`](ControlsScreen::set_targets).
    ///
    /// All that is dragged until something else happens is one step for undo. While the screen listens
    /// or plays on trial, a mouse button that points at a way out is no input; give the button's own
    /// event to [`event`](ControlsScreen::event) before this one.
    pub fn point(&mut self, event: PointerEvent) {
        self.pointing.queue.push_back(event);
        self.follow_pointer();
    }

    /// Where a skin drew everything that can be pointed at, what lies on top last. Say it after every
    /// picture.
    pub fn set_targets(&mut self, targets: impl IntoIterator<Item = Target>) {
        self.pointing.targets.clear();
        self.pointing.targets.extend(targets);
        self.pointing.awaited = self.pointing.awaited.saturating_sub(1);
        self.follow_pointer();
        if !self.pointing.is_waiting() {
            // Buttons of which no pointer tells, such as a sixth one.
            let points = self.pointing.at.is_some_and(|at| self.is_way_out(at));
            let all = self.waiting.len();
            self.take_waiting(all, points);
        }
    }

    /// Whether the focus is on what was pointed at: a list need not be moved to bring that into sight, and
    /// is not to be moved under a hand.
    pub const fn is_pointed_at(&self) -> bool {
        self.pointing.has_focus
    }

    /// Works what can be judged by the last picture.
    fn follow_pointer(&mut self) {
        while self.pointing.hold.is_some() || self.pointing.awaited == 0 {
            let Some(event) = self.pointing.queue.pop_front() else {
                return;
            };
            match event {
                PointerEvent::Moved(at) => self.pointer_moved(at),
                PointerEvent::Down(button, at) => {
                    self.pointer_moved(at);
                    self.pointer_means(button, true, at);
                    if button == MouseButton::Left {
                        self.grasp(at);
                    }
                }
                PointerEvent::Up(button, at) => {
                    self.pointer_moved(at);
                    self.pointer_means(button, false, at);
                    if button == MouseButton::Left {
                        self.let_go_at(at);
                    }
                }
                PointerEvent::Gone => self.pointing.at = None,
                PointerEvent::Lost => self.pointing.hold = None,
            }
        }
    }

    fn pointer_moved(&mut self, at: [f32; 2]) {
        if !at.into_iter().all(f32::is_finite) || self.pointing.at.replace(at) == Some(at) {
            return;
        }
        let worked = match self.pointing.hold {
            Some(Hold::Track(spot, track)) => self.drag(spot, along(track, at)),
            Some(Hold::Zone(held, from, scale)) => {
                let by = [0, 1].map(|n| (at[n] - from[n]) * scale);
                self.drag_zone(&held, by)
            }
            Some(Hold::Spot(_)) | None => false,
        };
        self.dragged(worked);
    }

    /// Something was worked that the next picture shows; a wish is carried out before the one after it.
    fn await_picture(&mut self) {
        self.pointing.awaited = 1 + u8::from(!self.wishes.is_empty());
    }

    /// Something was worked by dragging, which has the focus now.
    fn dragged(&mut self, worked: bool) {
        if worked {
            self.await_picture();
            self.pointing.has_focus = true;
        }
    }

    /// Takes the button's own event, and what came before it, now that it is known what it points at.
    fn pointer_means(&mut self, button: MouseButton, down: bool, at: [f32; 2]) {
        let what = EventKind::MouseButton { button, down };
        let own = self.waiting.iter().position(|w| w.event.what == what);
        if let Some(own) = own {
            let points = self.is_way_out(at);
            // What is heard or tried changes what is shown.
            let is_heard = self.takes_all() && !points;
            self.take_waiting(own + 1, points);
            if is_heard {
                self.await_picture();
            }
        }
    }

    fn grasp(&mut self, at: [f32; 2]) {
        self.stroke = None;
        let under = self.pointing.under(at).map(|target| target.what);
        self.pointing.hold = match under {
            Some(Pointed::Spot(spot)) => Some(Hold::Spot(spot)),
            Some(Pointed::Track(spot, track)) => {
                let worked = self.drag(spot, along(track, at));
                self.dragged(worked);
                Some(Hold::Track(spot, track))
            }
            Some(Pointed::Zone(name, grip, scale)) => {
                let held = self.grip(name, grip);
                held.map(|held| Hold::Zone(held, at, scale))
            }
            Some(Pointed::Cover) | None => None,
        };
    }

    /// A click is one where it was let go over what it was pressed on.
    fn let_go_at(&mut self, at: [f32; 2]) {
        let under = self.pointing.under(at).and_then(Target::clicked);
        if let Some(Hold::Spot(spot)) = self.pointing.hold.take()
            && under == Some(spot)
        {
            self.press(spot);
            self.await_picture();
            self.pointing.has_focus |= self.focus == spot;
        }
    }

    /// Whether there is something by which the mouse gets out of listening or playing on trial.
    fn is_way_out(&self, at: [f32; 2]) -> bool {
        let under = self.pointing.under(at).and_then(Target::clicked);
        matches!(under, Some(Spot::Answer(_) | Spot::Trying))
    }

    /// Takes the first of what waited to know what is pointed at; a button that points is left out.
    pub(super) fn take_waiting(&mut self, many: usize, points: bool) {
        let taken: Vec<Waiting> = self.waiting.drain(..many).collect();
        for Waiting { event, .. } in taken {
            self.stale = true;
            self.take(&event, points && is_click(&event));
        }
    }
}

/// How far along its track a number is put.
fn along([from, to]: [f32; 2], at: [f32; 2]) -> f32 {
    (at[0] - from) / (to - from)
}
