//! What editing has to say to a player.

use super::{
    CannotBind, CarriedOver, Change, Draft, GaveWay, Merged, Question, Refusal, RefusedInput,
    SetAside, Way,
};
use crate::sheet::Column;
use crate::words::{Tell, Telling};

impl Draft {
    /// Puts something into words for the player: a refusal, a conflict, a way out of it.
    pub fn tell(&self, what: &(impl Tell + ?Sized)) -> String {
        self.telling().tell(what)
    }

    /// The words, the game and the keyboard that [`Draft::tell`] tells with.
    pub fn telling(&self) -> Telling<'_> {
        Telling::new(&self.words, &self.sheet, &self.on)
    }
}

impl Tell for Refusal {
    fn tell(&self, to: &Telling<'_>) -> String {
        match self {
            Refusal::Unlawful(why) => why.tell(to),
            Refusal::BadSetting(why) => why.tell(to),
            Refusal::NothingToGive(row) => {
                to.say("refused-nothing-to-give", &[("title", &to.titled(row))])
            }
            Refusal::MayNotShare(a, b) => {
                let (first, second) = (to.titled(a), to.titled(b));
                to.say(
                    "refused-may-not-share",
                    &[("first", &first), ("second", &second)],
                )
            }
            Refusal::Full { row, kind } => {
                let (title, column) = (to.titled(row), to.tell(kind));
                let count = Column::LAST.to_string();
                let values = [("title", &*title), ("column", &column), ("count", &count)];
                to.say("refused-full", &values)
            }
        }
    }
}

impl Tell for RefusedInput {
    fn tell(&self, to: &Telling<'_>) -> String {
        match self {
            RefusedInput::Reserved(input) => to.about_input("refused-reserved", &[], *input),
            RefusedInput::OtherColumn(input, kind) => {
                let column = to.tell(kind);
                to.about_input("refused-other-column", &[("column", &column)], *input)
            }
        }
    }
}

impl Tell for CannotBind {
    fn tell(&self, to: &Telling<'_>) -> String {
        match self {
            CannotBind::Fixed => to.say("cannot-fixed", &[]),
            CannotBind::NoInput(_) => to.say("cannot-no-input", &[]),
        }
    }
}

impl Tell for Change {
    fn tell(&self, to: &Telling<'_>) -> String {
        let name = |chord: &Option<_>| match chord {
            Some(chord) => to.chord(chord),
            None => to.say("nothing", &[]),
        };
        let (after, before) = (name(&self.after), name(&self.before));
        let title = to.row(self.cell.row);
        let values = [("title", &*title), ("after", &after), ("before", &before)];
        to.say("change", &values)
    }
}

impl Tell for Question {
    /// What is in the way of the candidate.
    fn tell(&self, to: &Telling<'_>) -> String {
        let Some(conflict) = self.conflict() else {
            return String::new();
        };
        let title = to.row(conflict.second.cell.row);
        to.about("menu-taken", &[("title", &title)], self.chord())
    }
}

impl Tell for Way {
    /// What it would change, a line each, and the conflicts that it would make; or why it is not
    /// offered.
    fn tell(&self, to: &Telling<'_>) -> String {
        if let Some(refusal) = &self.refused {
            return refusal.tell(to);
        }
        if self.effects.is_empty() && self.conflicts.is_empty() {
            return to.say("menu-no-change", &[]);
        }
        let mut lines = to.lines(&self.effects);
        lines.extend(to.lines(&self.conflicts));
        lines.join("\n")
    }
}

impl Tell for SetAside {
    fn tell(&self, to: &Telling<'_>) -> String {
        let title = to.row_named(&self.name);
        let id = match self.is_removed {
            true => "set-aside-removed",
            false => "set-aside-unknown",
        };
        to.say(id, &[("title", &title)])
    }
}

impl Tell for GaveWay {
    fn tell(&self, to: &Telling<'_>) -> String {
        let (title, by) = (to.titled(&self.row), to.titled(&self.by));
        to.about("gave-way", &[("title", &title), ("by", &by)], &self.default)
    }
}

impl Tell for CarriedOver {
    /// A line for another game's profile, and for everything that was set aside, gave way, is in conflict or not in force. That an
    /// action has another name in files now is nothing that a player sees.
    fn tell(&self, to: &Telling<'_>) -> String {
        let mut lines = Vec::new();
        if let Some(game) = &self.other_game {
            let game = to.words().typed(game);
            lines.push(to.say("other-game", &[("game", &game)]));
        }
        lines.extend(to.lines(&self.set_aside));
        lines.extend(to.lines(&self.gave_way));
        lines.extend(to.lines(&self.open));
        lines.extend(to.lines(&self.not_in_force));
        // Nobody reads a thousand lines, and no screen has room for them.
        to.at_most(MOST_LINES, lines).join("\n")
    }
}

/// How many lines a player is told of what was carried over.
const MOST_LINES: usize = 12;

impl Tell for Merged {
    fn tell(&self, to: &Telling<'_>) -> String {
        let mut lines = to.lines(&self.overruled);
        lines.extend(to.lines(&self.conflicts));
        lines.extend(to.lines(&self.not_in_force));
        lines.join("\n")
    }
}
