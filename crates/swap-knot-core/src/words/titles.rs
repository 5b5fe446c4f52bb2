//! The game's own titles: what its Fluent files say for them, or what its sheet does.

use super::Words;
use crate::sheet::{ActionId, Group, GroupId, Preset, Row, Sheet, SituationId, TitledRow, titled};
use crate::text::nearest;

/// What the messages begin with that hold titles of what a sheet declares.
const KINDS: [&str; 4] = ["action-", "group-", "situation-", "preset-"];

/// Whether a message holds a title of the game's, or names a part of its touch screen.
pub(super) fn is_title(id: &str) -> bool {
    GameTitle::is_id(id) || id.starts_with("touch-")
}

/// The situation whose title a group has taken over, if it has.
fn situation_of(sheet: &Sheet, group: &Group) -> Option<SituationId> {
    let situation = sheet.find_situation(&group.name)?;
    let same = sheet.declared_situation(situation).title == group.title;
    same.then_some(situation)
}

/// The message with the line about an action; none where another action is called so.
fn about_id(sheet: &Sheet, action: &str) -> Option<String> {
    let name = format!("{action}-about");
    sheet
        .find(&name)
        .is_none()
        .then(|| format!("action-{name}"))
}

/// A title that the game has for its players, and the message that translates it.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct GameTitle {
    /// The id of the message: `action-walk-up`.
    pub id: String,
    /// The title in the sheet.
    pub text: String,
    /// Whether a language can do without: the title is put together from others.
    pub is_made: bool,
}

impl GameTitle {
    /// Every title of a game, in the order of its sheet; for whoever translates it.
    ///
    /// ```
    /// use swap_knot::Sheet;
    /// use swap_knot::prompt::GameTitle;
    ///
    /// let sheet = Sheet::from_toml("game = \"slack-water\"\n[actions.horn]\nbind = \"KeyH\"")?;
    /// let ids: Vec<String> = GameTitle::all(&sheet).into_iter().map(|t| t.id).collect();
    /// assert_eq!(ids, ["game", "group-general", "action-horn"]);
    /// # Ok::<(), swap_knot::sheet::SheetError>(())
    /// ```
    pub fn all(sheet: &Sheet) -> Vec<GameTitle> {
        let mut all = Vec::new();
        let mut add = |id: String, text: &str, is_made| {
            let text = text.to_owned();
            all.push(GameTitle { id, text, is_made });
        };
        add("game".to_owned(), sheet.title(), false);
        for (_, situation) in sheet.situations() {
            add(
                format!("situation-{}", situation.name),
                &situation.title,
                false,
            );
        }
        for group in sheet.groups() {
            let is_made = situation_of(sheet, group).is_some();
            add(format!("group-{}", group.name), &group.title, is_made);
        }
        for (_, action) in sheet.actions().filter(|(_, action)| !action.off) {
            add(format!("action-{}", action.name), &action.title, false);
            if let Some(about) = &action.about
                && let Some(id) = about_id(sheet, &action.name)
            {
                add(id, about, false);
            }
            for &arm in action.arms() {
                let id = format!("action-{}-{arm}", action.name);
                add(
                    id,
                    action.arm_title(arm),
                    action.own_arm_title(arm).is_none(),
                );
            }
        }
        for preset in sheet.presets() {
            add(format!("preset-{}", preset.name), &preset.title, false);
        }
        all
    }

    /// Whether an id is that of a title, of whatever game: `game`, or one that begins as those of
    /// actions, groups, situations and presets do.
    pub fn is_id(id: &str) -> bool {
        id == "game" || KINDS.iter().any(|kind| id.starts_with(kind))
    }

    /// The title whose id is meant by a misspelt one, if there is one like it.
    pub fn nearest<'a>(all: &'a [GameTitle], id: &str) -> Option<&'a GameTitle> {
        let near = nearest(id, all.iter().map(|t| t.id.as_str()))?;
        all.iter().find(|t| t.id == near)
    }

    /// The message as it stands in a Fluent file, a line.
    pub fn to_fluent(&self) -> String {
        let mut out = format!("{} = ", self.id);
        for (n, c) in self.text.chars().enumerate() {
            match c {
                '{' | '}' => out.extend(["{\"", c.encode_utf8(&mut [0; 4]), "\"}"]),
                // It would begin an attribute or a variant there.
                '.' | '*' | '[' if n == 0 => out.extend(["{\"", c.encode_utf8(&mut [0; 4]), "\"}"]),
                '\n' | '\r' => out.push(' '),
                c => out.push(c),
            }
        }
        out
    }
}

impl Words {
    /// Whether a message of that id is one of the words for players, or holds a title of some game:
    /// everything else in a game's Fluent file is for the game itself.
    pub fn takes(id: &str) -> bool {
        is_title(id) || Words::english().0.messages.contains_key(id)
    }

    /// The title of a message, if a file of the game's has one.
    fn own(&self, id: &str) -> Option<String> {
        self.0.messages.contains_key(id).then(|| self.fill(id, &[]))
    }

    /// The game's name: the message `game`, or the sheet's title.
    pub fn game_title(&self, sheet: &Sheet) -> String {
        let own = self.own("game");
        own.unwrap_or_else(|| self.untranslated(sheet.title()))
    }

    /// What the player reads for an action or an arm of it: the message `action-walk` or
    /// `action-walk-up`. Without one for the arm it is put together from the action's title and the
    /// direction, unless only the sheet has titles for them.
    pub fn row_title(&self, sheet: &Sheet, row: Row) -> String {
        let action = sheet.declared(row.action);
        let of_action = self.own(&format!("action-{}", action.name));
        let Some(arm) = row.arm else {
            return of_action.unwrap_or_else(|| self.untranslated(&action.title));
        };
        if let Some(own) = self.own(&format!("action-{}-{arm}", action.name)) {
            return own;
        }
        match (of_action, action.own_arm_title(arm)) {
            (None, Some(title)) => self.untranslated(title),
            (of_action, _) => {
                let title = of_action.unwrap_or_else(|| self.untranslated(&action.title));
                let direction = self.fill(&format!("arm-{arm}"), &[]);
                self.fill("arm", &[("title", &title), ("direction", &direction)])
            }
        }
    }

    /// What the player reads about what an action is for: the message `action-walk-about`, or what the
    /// sheet says, where it says something.
    pub fn about_action(&self, sheet: &Sheet, id: ActionId) -> Option<String> {
        let action = sheet.declared(id);
        let about = action.about.as_ref()?;
        let own = about_id(sheet, &action.name).and_then(|id| self.own(&id));
        Some(own.unwrap_or_else(|| self.untranslated(about)))
    }

    /// What the player reads for a heading: the message `group-NAME`. One that the sheet took from a
    /// situation goes by the situation's title.
    pub fn group_title(&self, sheet: &Sheet, id: GroupId) -> String {
        let Some(group) = sheet.group(id) else {
            return sheet.group_title(id).to_owned();
        };
        let own = self.own(&format!("group-{}", group.name));
        let of_situation = || {
            situation_of(sheet, group)?;
            self.own(&format!("situation-{}", group.name))
        };
        own.or_else(of_situation)
            .unwrap_or_else(|| self.untranslated(&group.title))
    }

    /// What the player reads for a situation: the message `situation-NAME`.
    pub fn situation_title(&self, sheet: &Sheet, id: SituationId) -> String {
        let situation = sheet.declared_situation(id);
        let own = self.own(&format!("situation-{}", situation.name));
        own.unwrap_or_else(|| self.untranslated(&situation.title))
    }

    /// What the player reads for a preset: the message `preset-NAME`.
    pub fn preset_title(&self, preset: &Preset) -> String {
        let own = self.own(&format!("preset-{}", preset.name));
        own.unwrap_or_else(|| self.untranslated(&preset.title))
    }

    /// The title of a row that was told of, in this language.
    pub(crate) fn retitled(&self, sheet: &Sheet, row: &TitledRow) -> String {
        match sheet.has_row(row.row) {
            true => self.row_title(sheet, row.row),
            // Of another sheet: all that is known of it is what it was called.
            false => self.untranslated(&row.title),
        }
    }

    /// The title of something that the sheet does not have, by its name in files: an action of
    /// another version, a preset that is gone.
    pub(crate) fn title_of_name(&self, kind: &str, name: &str) -> String {
        let own = self.own(&format!("{kind}-{}", name.replace('.', "-")));
        own.unwrap_or_else(|| self.typed(&titled(&name.replace('.', "-"))))
    }
}
