//! The published schema says what the reader says: what one takes the other takes.

#![allow(clippy::unwrap_used, clippy::panic)]

use swap_knot::Sheet;

const SCHEMA: &str = include_str!("../../../docs/sheet.schema.json");
const DEMO: &str = include_str!("../../../demo/slack-water.toml");

/// The schema, to be asked of values.
struct Schema {
    all: boon::Schemas,
    root: boon::SchemaIndex,
}

impl Schema {
    /// What it has against a value; none if it takes it.
    fn wrong(&self, value: &serde_json::Value) -> Option<String> {
        let checked = self.all.validate(value, self.root);
        checked.err().map(|e| e.to_string())
    }
}

fn schema() -> Schema {
    let (mut all, mut compiler) = (boon::Schemas::new(), boon::Compiler::new());
    let place = "schema.json";
    let schema = serde_json::from_str(SCHEMA).unwrap();
    compiler.add_resource(place, schema).unwrap();
    let root = compiler.compile(place, &mut all).unwrap();
    Schema { all, root }
}

fn json(toml: &str) -> serde_json::Value {
    serde_json::to_value(toml.parse::<toml::Table>().unwrap()).unwrap()
}

/// A sheet that uses every key there is.
const EVERYTHING: &str = r#"
format = 1
game = "everything"
title = "Everything"
version = 2
reserved = "Escape"
removed = ["pump"]
renamed = { old = "horn" }
hold-after = 0.4
tap-within = 0.2
double-tap-within = 0.3
together-within = 0.1
groups = { main = "Main" }
feel.other = { dead-zone = 0.1, sensitivity = 2, invert = true, curve = 1.5, threshold = 0.6, gyro = 8, ramp-up = 0, ramp-down = 1 }
[situations.deck]
title = "Deck"
[situations.helm]
with = "deck"
[situations.menu]
over = ["deck"]
cover = "used"
typing = true
[actions.horn]
title = "Horn"
group = "main"
situation = ["deck", "helm"]
shape = "press"
manner = "tap"
essential = true
fixed = false
off = false
while-paused = true
while-typing = true
resume = true
toggle = false
share = "fly"
hold-after = 1
tap-within = 0.1
double-tap-within = 0.2
together-within = 0.05
bind = ["KeyH", { on = "KeyJ+KeyK", together = true }, { on = "Ctrl+KeyJ", manner = "hold", strict = true, column = 3 }]
[actions.fly]
shape = "space"
rate = true
ease = false
opposite = "first"
left = { title = "Left", bind = "KeyA" }
right = { bind = [] }
up.bind = "KeyR"
down.bind = "KeyF"
back.bind = "KeyS"
forward.bind = "KeyW"
feel.gamepad = { dead-zone = { inner = 0.1, outer = 0.9, form = "axis" }, invert = ["y"] }
[presets.left]
title = "Left"
bind = { horn = { keyboard-1 = "KeyL" }, "fly.up" = { keyboard-2 = "unbound" } }
"#;

#[test]
fn what_the_reader_takes_the_schema_takes() {
    let schema = schema();
    let starter = include_str!("../starter/controls.toml").replace("{name}", "harbour");
    let scattered = include_str!("../../../demo/checks/scattered.toml");
    let small = "game = \"x\"\n[actions.a]";
    for text in [DEMO, EVERYTHING, &starter, scattered, small] {
        Sheet::from_toml(text).unwrap_or_else(|e| panic!("{e}"));
        let value = json(text);
        assert_eq!(schema.wrong(&value), None);
    }
}

/// Every key of a sheet, with the tables it stands in.
fn keys(value: &serde_json::Value, path: &[String], out: &mut Vec<Vec<String>>) {
    if let Some(table) = value.as_object() {
        for (key, value) in table {
            let path = [path, std::slice::from_ref(key)].concat();
            keys(value, &path, out);
            out.push(path);
        }
    }
}

#[test]
fn every_key_misspelt_is_refused_by_both() {
    let schema = schema();
    let whole = json(EVERYTHING);
    let mut all = Vec::new();
    keys(&whole, &[], &mut all);
    // Names that a game gives are not misspelt keys.
    let named = |p: &[String]| {
        let table = p.len().checked_sub(2).map_or("", |i| p[i].as_str());
        let own = [
            "groups",
            "situations",
            "actions",
            "presets",
            "renamed",
            "bind",
        ];
        own.contains(&table)
    };
    for path in all.iter().filter(|p| !named(p)) {
        let mut bad = whole.clone();
        let (last, tables) = path.split_last().unwrap();
        let mut table = &mut bad;
        for name in tables {
            table = &mut table[name.as_str()];
        }
        let value = table.as_object_mut().unwrap().remove(last).unwrap();
        table[format!("{last}x")] = value;
        let text = toml::to_string(&bad).unwrap();
        assert!(
            Sheet::from_toml(&text).is_err(),
            "the reader takes {path:?} misspelt"
        );
        assert!(
            schema.wrong(&bad).is_some(),
            "the schema takes {path:?} misspelt"
        );
    }
    assert!(all.len() > 60);
}

#[test]
fn every_key_of_the_schema_is_in_the_sheet_that_has_everything() {
    let schema: serde_json::Value = serde_json::from_str(SCHEMA).unwrap();
    let mut all = Vec::new();
    keys(&json(EVERYTHING), &[], &mut all);
    let used = |key: &str| {
        all.iter().any(|p| p.last().is_some_and(|k| k == key))
            || EVERYTHING.contains(&format!("{key} ="))
    };
    let tables = schema["$defs"]
        .as_object()
        .unwrap()
        .values()
        .chain([&schema]);
    for table in tables {
        for key in table["properties"]
            .as_object()
            .into_iter()
            .flat_map(|p| p.keys())
        {
            if !["keyboard", "mouse", "touch"].contains(&key.as_str()) {
                assert!(
                    used(key),
                    "`{key}` is in the schema and not in the test's sheet"
                );
            }
        }
    }
}
