//! The published schema says what the reader says: what one takes the other takes.

#![allow(clippy::unwrap_used, clippy::panic)]

use swap_knot::sheet::{ActsOn, Parameter};
use swap_knot::{DeviceKind, Sheet};

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

/// The page of the guide with every key, and a sheet that uses all of them.
const PAGE: &str = include_str!("../../swap-knot/docs/guide/everything.md");

/// That sheet.
fn everything() -> &'static str {
    PAGE.split("```").nth(1).unwrap().trim_start_matches("toml")
}

#[test]
fn what_the_reader_takes_the_schema_takes() {
    let schema = schema();
    let starter = include_str!("../starter/controls.toml").replace("{name}", "harbour");
    let scattered = include_str!("../../../demo/checks/scattered.toml");
    let small = "game = \"x\"\n[actions.a]";
    for text in [DEMO, everything(), &starter, scattered, small] {
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
    let whole = json(everything());
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
            "action-feel",
            "action-ease",
            "toggle",
            "touch",
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
    keys(&json(everything()), &[], &mut all);
    let used = |key: &str| {
        all.iter().any(|p| p.last().is_some_and(|k| k == key))
            || everything().contains(&format!("{key} ="))
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
            assert!(
                used(key),
                "`{key}` is in the schema and not in the page's sheet"
            );
        }
    }
}

#[test]
fn the_schema_has_the_settings_of_the_table_with_their_ranges() {
    let schema: serde_json::Value = serde_json::from_str(SCHEMA).unwrap();
    let table = |on: ActsOn| match on {
        ActsOn::Inputs(_) => &schema["$defs"]["feel"],
        ActsOn::Actions => &schema["$defs"]["easing"],
        ActsOn::Zone(_) => &schema["$defs"]["touch-zone"],
    };
    let zone = ActsOn::Zone("horn".parse().unwrap());
    for on in [ActsOn::Inputs(DeviceKind::Gamepad), ActsOn::Actions, zone] {
        let properties = table(on)["properties"].as_object().unwrap();
        let mut words: Vec<&str> = properties.keys().map(String::as_str).collect();
        let mut wanted: Vec<&str> = Parameter::of(on).map(Parameter::word).collect();
        words.sort_unstable();
        wanted.sort_unstable();
        assert_eq!(words, wanted);
        for parameter in Parameter::of(on) {
            let said = &properties[parameter.word()];
            let said = match said["$ref"].as_str() {
                Some(_) => &schema["$defs"]["seconds"],
                None => said,
            };
            // Of several forms the plain number is the first.
            let said = said["anyOf"].get(0).unwrap_or(said);
            let bound = |key: &str| said[key].as_f64().map(|n| n as f32);
            let range = parameter.range().map(|r| (*r.start(), *r.end()));
            let said = bound("minimum").zip(bound("maximum"));
            assert_eq!(said, range, "{parameter}");
        }
    }
}

/// The tables of keys on the page: under which heading, and each key with its row.
fn tables() -> Vec<(&'static str, Vec<(&'static str, &'static str)>)> {
    let chapters = PAGE.split("\n## ").skip(1);
    let table = |chapter: &'static str| {
        let rows = chapter.lines().filter_map(|line| {
            let (key, row) = line.strip_prefix("| `")?.split_once('`')?;
            Some((key, row))
        });
        (chapter.lines().next().unwrap(), rows.collect())
    };
    chapters.map(table).collect()
}

#[test]
fn the_page_of_the_guide_and_the_schema_have_the_same_keys_and_words() {
    let schema: serde_json::Value = serde_json::from_str(SCHEMA).unwrap();
    let of = |name: &str| schema["$defs"][name].clone();
    let in_the_schema = [
        ("At the top", schema.clone()),
        ("A situation", of("situation")),
        ("An action", of("action")),
        ("An arm", of("arm")),
        ("A binding", of("binding")["anyOf"][1].clone()),
        ("Feel, by kind of device", of("feel-by-kind")),
        ("Feel", of("feel")),
        (
            "A dead zone",
            of("feel")["properties"]["dead-zone"]["anyOf"][1].clone(),
        ),
        ("A preset", of("preset")),
        ("How actions are worked", of("easing")),
        ("A touch zone", of("touch-zone")),
    ];
    let tables = tables();
    let headings: Vec<&str> = tables.iter().map(|(heading, _)| *heading).collect();
    let wanted: Vec<&str> = in_the_schema.iter().map(|(heading, _)| *heading).collect();
    assert_eq!(headings, wanted);
    for ((heading, rows), (_, table)) in tables.iter().zip(&in_the_schema) {
        let mut keys: Vec<&str> = rows.iter().map(|(key, _)| *key).collect();
        keys.sort_unstable();
        let properties = table["properties"].as_object().unwrap();
        let mut wanted: Vec<&str> = properties.keys().map(String::as_str).collect();
        wanted.sort_unstable();
        assert_eq!(keys, wanted, "{heading}");
        for (key, row) in rows {
            let property = &properties[*key];
            let of_ref = property["$ref"]
                .as_str()
                .map(|r| of(r.rsplit('/').next().unwrap()));
            let words = of_ref.as_ref().map_or(&property["enum"], |d| &d["enum"]);
            for word in words.as_array().into_iter().flatten() {
                let word = format!("`{}`", word.as_str().unwrap());
                assert!(row.contains(&word), "{heading}: {key} can be {word}");
            }
            // What is asked for has no "left out".
            let asked = table["required"]
                .as_array()
                .is_some_and(|r| r.iter().any(|r| r == key));
            assert_eq!(
                row.contains("it has to be there"),
                asked,
                "{heading}: {key}"
            );
        }
    }
}
