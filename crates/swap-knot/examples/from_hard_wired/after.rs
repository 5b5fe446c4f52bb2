//! After: the loop asks for actions; keys stand in a sheet that players can change.

use swap_knot::{Actions, Event, Layout, Profile, Prompt, Rig, Seat, Sheet, Time};

use super::Barge;

const SHEET: &str = r#"
    game = "slack-water"
    [actions.throttle]
    shape = "pull"
    bind = ["KeyW", "ArrowUp", "pad:trigger-right"]
    [actions.steer]
    shape = "line"
    left = { title = "Steer to port", bind = ["KeyA", "ArrowLeft", "pad:stick-left.left"] }
    right = { title = "Steer to starboard", bind = ["KeyD", "ArrowRight", "pad:stick-left.right"] }
    [actions.horn]
    bind = ["KeyH", "pad:north"]
"#;

#[derive(Clone, Copy, Actions)]
enum Do {
    Throttle,
    Steer,
    Horn,
}

pub(super) fn play(frames: &[Vec<Event>]) -> Result<(Barge, String), Box<dyn std::error::Error>> {
    let sheet = Sheet::from_toml(SHEET)?.typed::<Do>()?;
    let mut seat = Seat::new(Rig::new(&sheet, &Profile::default(), &Layout::us()));
    let mut barge = Barge::default();
    for (n, events) in frames.iter().enumerate() {
        events.iter().for_each(|event| seat.feed(event));
        seat.tick(Time::from_millis(n as u64 * 16));
        barge.way = seat.value(Do::Throttle);
        barge.x += 0.1 * seat.value(Do::Steer);
        barge.horns += u32::from(seat.went_down(Do::Horn));
    }
    let mut prompt = Prompt::new("{do:horn} to hoot, {steer} to steer", &sheet)?;
    let text = prompt.render(seat.rig(), seat.device_kind()).to_string();
    Ok((barge, text))
}
