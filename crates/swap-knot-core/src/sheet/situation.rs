//! What is going on in the game, which decides what is live together.

use std::sync::LazyLock;

use super::{Sheet, SituationId};
use crate::text::spelled;

spelled! {
    /// What a situation does to those it is laid over.
    #[derive(Clone, Copy, Debug, PartialEq, Eq)]
    pub enum Cover {
        /// Nothing: both are live.
        None = "none",
        /// It takes the inputs that it uses; the others still reach those below.
        Used = "used",
        /// Those below are silent, but for actions that go on while paused.
        All = "all",
    }
}

/// What is going on in the game: decides which actions are live together.
#[derive(Clone, Debug, PartialEq, Eq)]
#[non_exhaustive]
pub struct Situation {
    /// Its name in files and code.
    pub name: String,
    /// What the player reads.
    pub title: String,
    /// Those that can be live beside it.
    pub with: Vec<SituationId>,
    /// Those that it can be laid over.
    pub over: Vec<SituationId>,
    /// What it does to those below.
    pub cover: Cover,
    /// Whether the player types text in it, so that keys that write do not reach those below.
    pub typing: bool,
}

impl Situation {
    /// What stands for a situation of another sheet.
    pub(super) fn unknown() -> &'static Situation {
        static UNKNOWN: LazyLock<Situation> = LazyLock::new(|| Situation {
            name: "?".to_owned(),
            title: "?".to_owned(),
            with: Vec::new(),
            over: Vec::new(),
            cover: Cover::None,
            typing: false,
        });
        &UNKNOWN
    }
}

impl Sheet {
    /// Whether two situations can be live beside each other.
    pub(crate) fn are_beside(&self, a: SituationId, b: SituationId) -> bool {
        let lists = |a: SituationId, b| self.declared_situation(a).with.contains(&b);
        lists(a, b) || lists(b, a)
    }

    /// Whether a situation is laid over another one, by itself or by way of others that it is laid
    /// over.
    pub(crate) fn is_over(&self, upper: SituationId, lower: SituationId) -> bool {
        self.way_down(upper, lower, |_| true)
    }

    /// Whether two situations can stand on one stack.
    pub(crate) fn may_stand_with(&self, a: SituationId, b: SituationId) -> bool {
        a == b || self.are_beside(a, b) || self.is_over(a, b) || self.is_over(b, a)
    }

    /// Whether there is a way down from a situation to one that it is laid over, stepping only on
    /// those that `may` says, the first included.
    pub(crate) fn way_down(
        &self,
        upper: SituationId,
        lower: SituationId,
        may: impl Fn(SituationId) -> bool,
    ) -> bool {
        let mut seen = vec![false; self.situations().len()];
        let mut open = vec![upper];
        while let Some(at) = open.pop() {
            let known = seen.get_mut(at.index());
            if known.is_none_or(|seen| std::mem::replace(seen, true)) || !may(at) {
                continue;
            }
            let below = &self.declared_situation(at).over;
            if below.contains(&lower) {
                return true;
            }
            open.extend(below);
        }
        false
    }

    /// The first two situations of a stack, the lower one first, that the sheet does not let stand
    /// on one stack like this: neither beside each other, nor the upper one over the lower one by
    /// itself or by way of others on the stack.
    pub fn unforeseen(&self, stack: &[SituationId]) -> Option<(SituationId, SituationId)> {
        (1..stack.len()).find_map(|at| {
            let (below, upper) = (&stack[..at], stack[at]);
            let on_stack = |s| stack[..=at].contains(&s);
            let lower = below.iter().find(|&&lower| {
                !self.are_beside(upper, lower) && !self.way_down(upper, lower, on_stack)
            });
            lower.map(|&lower| (lower, upper))
        })
    }
}

/// A situation that is laid over itself by way of others, if there is one.
pub(super) fn covering_cycle(situations: &[Situation]) -> Option<Vec<usize>> {
    // Depth first; `state` is 0 unseen, 1 on the path, 2 done.
    fn visit(at: usize, situations: &[Situation], state: &mut [u8], path: &mut Vec<usize>) -> bool {
        path.push(at);
        state[at] = 1;
        for below in &situations[at].over {
            let b = below.index();
            if state[b] == 1 {
                path.push(b);
                return true;
            }
            if state[b] == 0 && visit(b, situations, state, path) {
                return true;
            }
        }
        state[at] = 2;
        path.pop();
        false
    }
    let mut state = vec![0; situations.len()];
    let mut path = Vec::new();
    for at in 0..situations.len() {
        if state[at] == 0 && visit(at, situations, &mut state, &mut path) {
            let last = path[path.len() - 1];
            let start = path.iter().position(|s| *s == last).unwrap_or(0);
            return Some(path.split_off(start));
        }
    }
    None
}
