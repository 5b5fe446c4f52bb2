//! Situations that follow the states of a game.

use bevy_app::App;
use bevy_ecs::change_detection::DetectChanges as _;
use bevy_ecs::prelude::{IntoScheduleConfigs as _, Query, Res};
use bevy_state::prelude::{State, StateTransition, States};
use bevy_state::state::StateTransitionSystems;
use swap_knot::sheet::SituationRef;

use crate::{PlayerControls, PlayerSeat};

/// Has the situations of every player follow a state of the game (feature `states`).
///
/// ```
/// use bevy_app::App;
/// use bevy_state::prelude::*;
/// use swap_knot::Situations;
/// use swap_knot_bevy::{FollowStates as _, SwapKnotPlugin};
///
/// #[derive(States, Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
/// enum Game { #[default] Playing, Paused }
///
/// #[derive(Clone, Copy, Situations)]
/// enum In { Deck, Pause }
///
/// let mut app = App::new();
/// app.add_plugins((bevy_state::app::StatesPlugin, SwapKnotPlugin))
///     .init_state::<Game>()
///     .follow_states(|game: &Game| match game {
///         Game::Playing => vec![In::Deck],
///         Game::Paused => vec![In::Deck, In::Pause],
///     });
/// app.update();
/// ```
pub trait FollowStates {
    /// Says which situations are live in which state, lowest first. They change right after the
    /// state does; a player who comes later gets those of the state there is.
    fn follow_states<S: States, I: Into<SituationRef>>(
        &mut self,
        situations: impl Fn(&S) -> Vec<I> + Send + Sync + 'static,
    ) -> &mut Self;
}

impl FollowStates for App {
    fn follow_states<S: States, I: Into<SituationRef>>(
        &mut self,
        situations: impl Fn(&S) -> Vec<I> + Send + Sync + 'static,
    ) -> &mut Self {
        let follow = move |state: Res<'_, State<S>>,
                           mut seats: Query<'_, '_, &mut PlayerSeat>,
                           mut players: Query<'_, '_, &mut PlayerControls>| {
            let changed = state.is_changed();
            let live = || -> Vec<SituationRef> {
                let live = situations(state.get()).into_iter();
                live.map(Into::into).collect()
            };
            for mut seat in seats.iter_mut().filter(|s| changed || s.is_added()) {
                seat.set_situations(&live());
            }
            for mut player in players.iter_mut().filter(|p| changed || p.is_added()) {
                player.seat_mut().set_situations(&live());
            }
        };
        let after = StateTransitionSystems::EnterSchedules;
        self.add_systems(StateTransition, follow.after(after))
    }
}
