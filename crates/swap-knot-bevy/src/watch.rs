//! What a picture and a developer want to see of the players, as resources.

use std::collections::HashMap;

use bevy_ecs::change_detection::DetectChangesMut as _;
use bevy_ecs::prelude::{Entity, Query, ResMut, Resource};
use swap_knot::Words;
use swap_knot::prompt::Telling;
use swap_knot::screen::ScreenView;

use crate::{PlayerControls, PlayerSeat};

/// What became of the last inputs of every player, a line each, and why nothing where nothing happened.
/// There once a game has inserted it; without it nothing is kept and nothing paid.
///
/// Of a [`PlayerControls`] the lines are in the player's language, of a [`PlayerSeat`] in English. As data
/// they are what [`Seat::outcomes`](swap_knot::Seat::outcomes) has.
///
/// ```
/// use bevy_app::{App, Update};
/// use bevy_ecs::prelude::*;
/// use swap_knot_bevy::{Outcomes, SwapKnotPlugin};
///
/// fn why(outcomes: Res<Outcomes>, players: Query<Entity, With<swap_knot_bevy::PlayerSeat>>) {
///     for player in &players {
///         for line in outcomes.of(player) { /* show it */ }
///     }
/// }
///
/// App::new()
///     .add_plugins(SwapKnotPlugin)
///     .insert_resource(Outcomes::new(64))
///     .add_systems(Update, why);
/// ```
#[derive(Clone, Debug, Resource)]
pub struct Outcomes {
    kept: usize,
    of: HashMap<Entity, Vec<String>>,
}

impl Outcomes {
    /// Has so many outcomes kept of each player.
    pub fn new(kept: usize) -> Outcomes {
        let of = HashMap::new();
        Outcomes { kept, of }
    }

    /// A player's, the oldest first.
    pub fn of(&self, player: Entity) -> &[String] {
        self.of.get(&player).map_or(&[], Vec::as_slice)
    }
}

/// What is to be seen and heard of every open controls screen, for whatever draws the game.
#[derive(Clone, Debug, Default, Resource)]
pub struct ScreenViews {
    of: HashMap<Entity, ScreenView>,
}

impl ScreenViews {
    /// A player's, while their screen is open.
    pub fn of(&self, player: Entity) -> Option<&ScreenView> {
        self.of.get(&player)
    }

    /// All that are open.
    pub fn iter(&self) -> impl Iterator<Item = (Entity, &ScreenView)> {
        self.of.iter().map(|(player, view)| (*player, view))
    }
}

/// Looks at the players when the frame is closed.
pub(crate) fn watch(
    mut seats: Query<'_, '_, (Entity, &mut PlayerSeat)>,
    mut players: Query<'_, '_, (Entity, &mut PlayerControls)>,
    outcomes: Option<ResMut<'_, Outcomes>>,
    mut views: ResMut<'_, ScreenViews>,
) {
    let mut open: Vec<Entity> = Vec::new();
    for (player, mut controls) in &mut players {
        if let Some(screen) = controls.bypass_change_detection().screen_mut() {
            open.push(player);
            let view = screen.view();
            // Changed only where something else is to be seen.
            if views.of.get(&player) != Some(view) {
                views.of.insert(player, view.clone());
            }
        }
    }
    if views.of.keys().any(|player| !open.contains(player)) {
        views.of.retain(|player, _| open.contains(player));
    }
    let Some(mut outcomes) = outcomes else {
        return;
    };
    let kept = outcomes.kept;
    outcomes.of.clear();
    let english = Words::english();
    for (player, mut seat) in &mut seats {
        let seat = seat.bypass_change_detection();
        if seat.keeps_outcomes() != (kept > 0) {
            seat.keep_outcomes(kept);
        }
        let rig = seat.rig();
        let telling = Telling::new(&english, rig.sheet(), rig.resolver());
        let told = seat.outcomes().map(|told| telling.tell(&told)).collect();
        outcomes.of.insert(player, told);
    }
    for (player, mut controls) in &mut players {
        let controls = controls.bypass_change_detection();
        if controls.seat().keeps_outcomes() != (kept > 0) {
            controls.seat_mut().keep_outcomes(kept);
        }
        let told = controls.seat().outcomes();
        let told = told.map(|told| controls.tell(&told)).collect();
        outcomes.of.insert(player, told);
    }
}
