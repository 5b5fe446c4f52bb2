//! Sheets as assets, read again when their file changes.

use bevy_app::{App, Plugin, PreUpdate};
use bevy_asset::io::Reader;
use bevy_asset::{Asset, AssetApp as _, AssetEvent, AssetLoader, Assets, Handle, LoadContext};
use bevy_ecs::change_detection::DetectChanges as _;
use bevy_ecs::error::BevyError;
use bevy_ecs::message::MessageReader;
use bevy_ecs::prelude::{Commands, Component, Entity, IntoScheduleConfigs as _, Query, Ref, Res};
use bevy_reflect::TypePath;
use swap_knot::sheet::TypedError;
use swap_knot::{Actions, Layout, Profile, Rig, Seat, Sheet, Situations};

use crate::{PlayerControls, PlayerSeat, SwapKnotSystems};

/// A sheet that Bevy loads (feature `asset`): `assets.load::<SheetAsset>("controls.toml")`.
///
/// A sheet with a mistake is not loaded: Bevy says where the mistake is, and what was loaded before
/// goes on playing.
#[derive(Clone, Debug, Asset, TypePath)]
pub struct SheetAsset {
    sheet: Sheet,
}

impl SheetAsset {
    /// The sheet, tied to the types that the [`SheetAssets`] name.
    pub fn sheet(&self) -> &Sheet {
        &self.sheet
    }
}

impl From<Sheet> for SheetAsset {
    fn from(sheet: Sheet) -> SheetAsset {
        SheetAsset { sheet }
    }
}

/// Has Bevy load sheets, and players follow them (feature `asset`). It comes after Bevy's
/// `AssetPlugin`, which the default plugins bring along.
///
/// ```
/// use bevy_app::App;
/// use bevy_asset::AssetPlugin;
/// use swap_knot::Actions;
/// use swap_knot_bevy::{SheetAssets, SwapKnotPlugin};
///
/// #[derive(Clone, Copy, Actions)]
/// enum Do { Walk, Horn }
///
/// App::new().add_plugins((
///     AssetPlugin::default(),
///     SwapKnotPlugin,
///     SheetAssets::default().typed::<Do>(),
/// ));
/// ```
#[derive(Clone, Debug, Default)]
pub struct SheetAssets {
    types: Vec<Types>,
}

/// Ties a sheet to one type.
type Types = fn(&Sheet) -> Result<Sheet, TypedError>;

impl SheetAssets {
    /// Every sheet is tied to that type of actions; one that does not fit it is not loaded.
    #[must_use]
    pub fn typed<A: Actions>(mut self) -> SheetAssets {
        self.types.push(|sheet| sheet.typed::<A>());
        self
    }

    /// Every sheet is tied to that type of situations; one that does not fit it is not loaded.
    #[must_use]
    pub fn typed_situations<S: Situations>(mut self) -> SheetAssets {
        self.types.push(|sheet| sheet.typed_situations::<S>());
        self
    }
}

impl Plugin for SheetAssets {
    fn build(&self, app: &mut App) {
        app.init_asset::<SheetAsset>()
            .register_asset_loader(Loader {
                types: self.types.clone(),
            })
            .add_systems(PreUpdate, follow.before(SwapKnotSystems::Play));
    }
}

#[derive(TypePath)]
struct Loader {
    types: Vec<Types>,
}

impl AssetLoader for Loader {
    type Asset = SheetAsset;
    type Settings = ();
    type Error = BevyError;

    async fn load(
        &self,
        reader: &mut dyn Reader,
        _: &(),
        context: &mut LoadContext<'_>,
    ) -> Result<SheetAsset, BevyError> {
        let mut bytes = Vec::new();
        reader.read_to_end(&mut bytes).await?;
        let file = context.path().to_string();
        let mut sheet = Sheet::from_toml_named(std::str::from_utf8(&bytes)?, &file)?;
        for tie in &self.types {
            sheet = tie(&sheet)?;
        }
        Ok(SheetAsset { sheet })
    }

    fn extensions(&self) -> &[&str] {
        &["controls.toml"]
    }
}

/// Has a player follow a sheet, a profile and a layout (feature `asset`): whenever one of them
/// changes, the entity's [`PlayerSeat`] plays by it, without an edge for what is bound as before.
///
/// A player who is to play from the first frame is spawned with a [`PlayerSeat`] of the sheet that
/// was compiled in; without one, it is put on the entity as soon as the sheet is loaded, for all
/// devices. Of a [`PlayerControls`] the sheet alone is followed: it has a profile and a layout of its own.
#[derive(Clone, Debug, Component)]
pub struct FollowSheet {
    /// The sheet.
    pub sheet: Handle<SheetAsset>,
    /// What the player changed.
    pub profile: Profile,
    /// What their keyboard types.
    pub layout: Layout,
}

type Following<'a> = (
    Entity,
    Ref<'a, FollowSheet>,
    Option<&'a mut PlayerSeat>,
    Option<&'a mut PlayerControls>,
);

fn follow(
    mut commands: Commands<'_, '_>,
    mut players: Query<'_, '_, Following<'_>>,
    mut changes: MessageReader<'_, '_, AssetEvent<SheetAsset>>,
    sheets: Res<'_, Assets<SheetAsset>>,
) {
    let changes: Vec<_> = changes.read().collect();
    for (entity, follow, seat, controls) in &mut players {
        let is_about = |change: &&AssetEvent<SheetAsset>| {
            change.is_added(&follow.sheet) || change.is_modified(&follow.sheet)
        };
        if !follow.is_changed() && !changes.iter().any(is_about) {
            continue;
        }
        let Some(asset) = sheets.get(&follow.sheet) else {
            continue;
        };
        if let Some(mut controls) = controls {
            controls.follow_sheet(asset.sheet());
            continue;
        }
        let rig = Rig::new(asset.sheet(), &follow.profile, &follow.layout);
        match seat {
            Some(mut seat) => seat.set_rig(rig),
            None => {
                let seat = PlayerSeat::new(Seat::new(rig));
                commands.entity(entity).insert(seat);
            }
        }
    }
}
