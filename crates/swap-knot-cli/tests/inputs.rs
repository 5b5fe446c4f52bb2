//! `swap-knot inputs`, and names from habit in a sheet.

#![allow(clippy::unwrap_used)]

mod common;

use std::fmt::Write as _;

use common::{says, swap_knot};
use snapbox::str;
use swap_knot::MouseButton;
use swap_knot::input::{HidButton, MAX_HELD};

#[test]
fn inputs_are_found_by_name_legend_and_habit() {
    snapbox::assert_data_eq!(
        says(&["inputs", "x"]),
        str![[r#"
NAME       DEVICE     GIVES        PLAYERS READ
KeyX       keyboard   down or up   X
letter:x   keyboard   down or up   X

"#]]
    );
    snapbox::assert_data_eq!(
        says(&["inputs", "left trigger", "--language", "de"]),
        str![[r#"
NAME               DEVICE    GIVES    PLAYERS READ
pad:trigger-left   gamepad   0 to 1   linker Trigger

"#]]
    );
    // By what is printed on the key there, and by what is read in that language.
    assert!(says(&["inputs", "ü", "--layout", "de"]).contains("\nBracketLeft"));
    assert!(says(&["inputs", "leer", "--language", "de"]).contains("\nSpace "));
    assert!(!says(&["inputs", "up", "--device", "mouse"]).contains("Arrow"));
    swap_knot(&["inputs", "anchor"])
        .assert()
        .code(1)
        .stdout_eq(str![[r#"
nothing is called `anchor`; without a word, `swap-knot inputs` lists everything

"#]]);
    swap_knot(&["inputs", "--device", "pad"]).assert().code(2);
}

#[test]
fn every_input_that_is_listed_reads_back() {
    let json = says(&["inputs", "--json"]);
    let list: Vec<serde_json::Value> = serde_json::from_str(&json).unwrap();
    assert!(list.len() > 400, "{}", list.len());
    for entry in &list {
        let name = entry["name"].as_str().unwrap();
        let input: swap_knot::Input = name.parse().unwrap();
        assert_eq!(input.to_string(), name);
        assert_eq!(entry["device"], input.device_kind().word());
        assert!(!entry["reads"].as_str().unwrap().is_empty(), "{name}");
    }
}

#[test]
fn ten_names_from_habit_in_a_sheet_are_met_at_once() {
    let folder = tempfile::tempdir().unwrap();
    let words = [
        "Esc",
        "Return",
        "LMB",
        "x",
        "up",
        "pad:a",
        "RT",
        "Num 4",
        "LeftShift",
        "win",
    ];
    let sheet: String = (words.iter().enumerate())
        .map(|(n, word)| format!("[actions.a{n}]\nbind = \"{word}\"\n"))
        .collect();
    let path = folder.path().join("sheet.toml");
    std::fs::write(&path, format!("game = \"slack-water\"\n{sheet}")).unwrap();
    let out = swap_knot(&["check", path.to_str().unwrap()])
        .output()
        .unwrap();
    assert_eq!(out.status.code(), Some(2));
    let said = String::from_utf8(out.stderr).unwrap();
    let told: Vec<&str> = said
        .lines()
        .filter_map(|l| l.split_once("is not an input; "))
        .map(|(_, t)| t)
        .collect();
    assert_eq!(
        told,
        [
            "did you mean `Escape`?",
            "did you mean `Enter`?",
            "did you mean `mouse:left`?",
            "did you mean `KeyX` or `letter:x`?",
            "did you mean `ArrowUp`, `pad:up` or `wheel:up`?",
            "did you mean `pad:south`, `pad:east`, `pad:west` or `pad:north`?",
            "did you mean `pad:trigger-right`?",
            "did you mean `Numpad4`?",
            "did you mean `ShiftLeft`?",
            "did you mean `Meta`?",
        ]
    );
}

/// The page of the guide with every input: what is written by hand, and below it what the command says.
fn page(there: &str) -> String {
    const END: &str = "of `swap-knot-cli`. -->\n";
    let (by_hand, _) = there.split_once(END).unwrap();
    let mut out = format!("{by_hand}{END}");
    for (device, title) in [
        ("keyboard", "Keyboard, as a US board prints it"),
        ("mouse", "Mouse"),
        (
            "gamepad",
            "Gamepad, as its parts are called where no family is known",
        ),
        ("other", "Other controllers"),
    ] {
        let said = says(&["inputs", "--device", device, "--json"]);
        let all: serde_json::Value = serde_json::from_str(&said).unwrap();
        let head = "| name | gives | players read |\n|---|---|---|";
        write!(out, "\n## {title}\n\n{head}\n").unwrap();
        for input in all.as_array().unwrap() {
            let [name, gives, reads] =
                ["name", "gives", "reads"].map(|k| input[k].as_str().unwrap());
            // Those that are numbered are told by hand.
            let numbered = ["hid:button-", "mouse:"].iter().any(|kind| {
                let number = name.strip_prefix(kind);
                number.is_some_and(|n| n.parse::<u8>().is_ok())
            });
            if !numbered {
                let reads = match reads {
                    "`" => "`` ` ``".to_owned(),
                    "\\" | "[" | "]" | "<" => format!("`{reads}`"),
                    _ => reads.replace('|', "\\|"),
                };
                writeln!(out, "| `{name}` | {gives} | {reads} |").unwrap();
            }
        }
    }
    out
}

#[test]
fn the_page_of_inputs_says_what_the_command_says() {
    let file = concat!(
        env!("CARGO_MANIFEST_DIR"),
        "/../swap-knot/docs/guide/inputs.md"
    );
    let there = std::fs::read_to_string(file).unwrap();
    let page = page(&there);
    // What is told by hand of numbers is so.
    for last in [
        format!("`mouse:{}`", MouseButton::LAST),
        format!("`hid:button-{}`", HidButton::LAST),
        format!(
            "up to {} of them",
            ["", "one", "two", "three", "four"][MAX_HELD]
        ),
    ] {
        assert!(page.contains(&last), "{last}");
    }
    if std::env::var_os("SWAP_KNOT_WRITE").is_some() {
        std::fs::write(file, &page).unwrap();
    } else {
        assert!(
            there == page,
            "guide/inputs.md is old; SWAP_KNOT_WRITE=1 writes it anew"
        );
    }
}
