//! A window that is heard: for programs whose window another crate runs.

use std::time::Instant;

use swap_knot::{Event, Time};
use winit::application::ApplicationHandler;
use winit::event::{DeviceEvent, DeviceId, StartCause, WindowEvent};
use winit::event_loop::ActiveEventLoop;
use winit::window::WindowId;

use crate::Adapter;

/// A handler of winit's with an ear on every event: each is translated and handed over, and then goes
/// on to the handler as ever. For one window whose handler is not your own, as that of eframe.
///
/// ```no_run
/// use std::time::Instant;
/// use swap_knot_winit::HeardWindow;
/// # use winit::application::ApplicationHandler;
/// # fn run<H: ApplicationHandler>(handler: H) -> Result<(), winit::error::EventLoopError> {
/// let events = winit::event_loop::EventLoop::new()?;
/// let (send, heard) = std::sync::mpsc::channel();
/// let mut window = HeardWindow::new(handler, Instant::now(), move |event| {
///     let _ = send.send(event);
/// });
/// events.run_app(&mut window)
/// # }
/// ```
pub struct HeardWindow<H, F> {
    inner: H,
    adapter: Adapter,
    started: Instant,
    feed: F,
}

impl<H, F: FnMut(Event)> HeardWindow<H, F> {
    /// Hands what the handler gets to `feed` as well, stamped with the time since `started`.
    pub fn new(inner: H, started: Instant, feed: F) -> HeardWindow<H, F> {
        HeardWindow {
            inner,
            adapter: Adapter::new(),
            started,
            feed,
        }
    }

    /// What translates, for its zones.
    pub const fn adapter_mut(&mut self) -> &mut Adapter {
        &mut self.adapter
    }

    fn now(&self) -> Time {
        Time::from(self.started.elapsed())
    }
}

impl<T: 'static, H: ApplicationHandler<T>, F: FnMut(Event)> ApplicationHandler<T>
    for HeardWindow<H, F>
{
    fn window_event(&mut self, events: &ActiveEventLoop, window: WindowId, event: WindowEvent) {
        let now = self.now();
        self.adapter.window_event(&event, now, &mut self.feed);
        self.inner.window_event(events, window, event);
    }

    fn device_event(&mut self, events: &ActiveEventLoop, device: DeviceId, event: DeviceEvent) {
        let now = self.now();
        self.adapter
            .device_event(device, &event, now, &mut self.feed);
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
