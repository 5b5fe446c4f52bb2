//! A window that is heard: for programs whose window another crate runs.

use std::sync::mpsc::{Receiver, Sender, channel};
use std::time::Instant;

use swap_knot::{Event, Time};
use winit::application::ApplicationHandler;
use winit::event::{DeviceEvent, DeviceId, StartCause, WindowEvent};
use winit::event_loop::ActiveEventLoop;
use winit::window::WindowId;

use crate::Adapter;

/// An ear for a window, and what it hears: events wait in [`Heard`] for the frame that comes next, with
/// its clock.
pub fn ear() -> (Ear, Heard) {
    let (send, events) = channel();
    let started = Instant::now();
    (Ear { send, started }, Heard { events, started })
}

/// Where events go in, see [`ear`]. A copy hears for the same game, so that another thread can add what it
/// has from a pad.
#[derive(Clone, Debug)]
pub struct Ear {
    send: Sender<Event>,
    started: Instant,
}

impl Ear {
    /// Hears an event. One for a game that is gone is dropped.
    pub fn hear(&self, event: Event) {
        let _ = self.send.send(event);
    }

    /// The time since the ear was made, by which events are stamped.
    pub fn now(&self) -> Time {
        Time::from(self.started.elapsed())
    }
}

/// Where events come out, see [`ear`].
#[derive(Debug)]
pub struct Heard {
    events: Receiver<Event>,
    started: Instant,
}

impl Heard {
    /// What came since it was asked last, without waiting.
    pub fn events(&self) -> impl Iterator<Item = Event> + '_ {
        self.events.try_iter()
    }

    /// The time since the ear was made, by which events are stamped.
    pub fn now(&self) -> Time {
        Time::from(self.started.elapsed())
    }
}

/// A handler of winit's with an ear on every event: each is translated and heard, and then goes on to the
/// handler as ever. For one window whose handler is not your own, as that of eframe.
///
/// ```no_run
/// use swap_knot_winit::HeardWindow;
/// # use winit::application::ApplicationHandler;
/// # fn run<H: ApplicationHandler>(handler: H) -> Result<(), winit::error::EventLoopError> {
/// let events = winit::event_loop::EventLoop::new()?;
/// let (ear, heard) = swap_knot_winit::ear();
/// // The handler asks for `heard.events()` in every frame, and for `heard.now()`.
/// events.run_app(&mut HeardWindow::new(handler, ear))
/// # }
/// ```
#[derive(Debug)]
pub struct HeardWindow<H> {
    inner: H,
    adapter: Adapter,
    ear: Ear,
}

impl<H> HeardWindow<H> {
    /// Has the ear hear what the handler gets.
    pub fn new(inner: H, ear: Ear) -> HeardWindow<H> {
        let adapter = Adapter::new();
        HeardWindow {
            inner,
            adapter,
            ear,
        }
    }

    /// What translates, for its zones.
    pub const fn adapter_mut(&mut self) -> &mut Adapter {
        &mut self.adapter
    }
}

impl<T: 'static, H: ApplicationHandler<T>> ApplicationHandler<T> for HeardWindow<H> {
    fn window_event(&mut self, events: &ActiveEventLoop, window: WindowId, event: WindowEvent) {
        let HeardWindow { adapter, ear, .. } = self;
        adapter.window_event(&event, ear.now(), |event| ear.hear(event));
        self.inner.window_event(events, window, event);
    }

    fn device_event(&mut self, events: &ActiveEventLoop, device: DeviceId, event: DeviceEvent) {
        let HeardWindow { adapter, ear, .. } = self;
        adapter.device_event(device, &event, ear.now(), |event| ear.hear(event));
        self.inner.device_event(events, device, event);
    }

    fn resumed(&mut self, events: &ActiveEventLoop) {
        self.inner.resumed(events);
    }

    fn suspended(&mut self, events: &ActiveEventLoop) {
        self.inner.suspended(events);
    }

    fn new_events(&mut self, events: &ActiveEventLoop, cause: StartCause) {
        self.inner.new_events(events, cause);
    }

    fn user_event(&mut self, events: &ActiveEventLoop, event: T) {
        self.inner.user_event(events, event);
    }

    fn about_to_wait(&mut self, events: &ActiveEventLoop) {
        self.inner.about_to_wait(events);
    }

    fn exiting(&mut self, events: &ActiveEventLoop) {
        self.inner.exiting(events);
    }

    fn memory_warning(&mut self, events: &ActiveEventLoop) {
        self.inner.memory_warning(events);
    }
}
