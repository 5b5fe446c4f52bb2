//! Names from habit: what people write who know other games, systems and libraries.

use swap_knot_core::{Chord, Input};

/// Each name, and what is meant by it: one input, or the few that it may be; nothing where it is no input.
const JUDGED: &str = include_str!("names_from_habit.txt");

#[test]
fn names_from_habit_are_answered_by_what_is_meant() {
    let judged: Vec<(&str, &str)> = (JUDGED.lines())
        .map(|line| line.split_once(" =").unwrap())
        .collect();
    assert!(judged.len() >= 150, "{}", judged.len());
    for (name, wanted) in judged {
        let meant = Input::from_habit(name);
        let names: Vec<String> = meant.iter().map(Input::to_string).collect();
        assert_eq!(names.join(" "), wanted.trim(), "{name}");
        assert!(meant.len() <= 4, "{name}");
        // In a sheet it is told with the same, unless it is one of ours.
        if let Err(error) = name.parse::<Chord>()
            && !name.contains('+')
            && !meant.is_empty()
        {
            let told = error.suggestions();
            assert!(told == names || told.is_empty(), "{name}: {told:?}");
        }
    }
}
