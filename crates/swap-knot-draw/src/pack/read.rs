//! Reading a manifest and the files that it names, and nothing else.

use std::collections::BTreeMap;
use std::fs;
use std::path::{Component, Path, PathBuf};

use swap_knot::Input;
use swap_knot::prompt::Marks;
use toml::Spanned;
use toml::de::{DeTable, DeValue};

use super::{Family, MANIFEST, Pack, PackError, PackNote, Picture, picture};

/// The version of the manifest's format that is read; a pack without one is of version 1.
const FORMAT: &str = "1";
/// The largest manifest, in bytes.
const MAX_BYTES: u64 = 1 << 20;
/// How deep folders are searched for files that the manifest does not name.
const MAX_DEPTH: usize = 6;

/// What is wrong, and at which byte of the manifest.
type Wrong = (usize, String);

pub(super) fn open(folder: &Path) -> Result<Pack, PackError> {
    let path = folder.join(MANIFEST);
    let name = path.display().to_string();
    let none = |why: String| PackError::NoManifest {
        path: name.clone(),
        why,
    };
    let length = fs::metadata(&path).map_err(|e| none(e.to_string()))?.len();
    if length > MAX_BYTES {
        return Err(none(format!("{length} bytes are more than {MAX_BYTES}")));
    }
    let text = fs::read_to_string(&path).map_err(|e| none(e.to_string()))?;
    let wrong = |(at, message): Wrong| {
        let before = text.get(..at).unwrap_or(&text);
        let line_start = before.rfind('\n').map_or(0, |i| i + 1);
        PackError::Manifest {
            path: name.clone(),
            line: before.matches('\n').count() + 1,
            column: before[line_start..].chars().count() + 1,
            message,
        }
    };
    let table = DeTable::parse(&text).map_err(|e| {
        let at = e.span().map_or(0, |s| s.start);
        wrong((at, e.message().to_owned()))
    })?;
    let mut reader = Reader {
        folder,
        count: 0,
        notes: Vec::new(),
    };
    let mut pack = reader.pack(table.get_ref()).map_err(wrong)?;
    pack.notes = reader.notes;
    list(folder, folder, 0, &mut pack.found);
    pack.found.sort();
    Ok(pack)
}

/// A pack with the pictures that marks name.
pub(super) fn add_marks(mut pack: Pack, marks: &Marks, folder: &Path) -> Pack {
    let count = pack.families.iter().map(|f| f.files.len()).sum::<usize>() + pack.files.len();
    let mut reader = Reader {
        folder,
        count,
        notes: Vec::new(),
    };
    for (family, input, file) in marks.pictures() {
        let known = pack.families.iter().position(|f| f.name == family.name());
        let at = known.unwrap_or_else(|| {
            pack.families.push(Family {
                name: family.name().to_owned(),
                usb: family.usb().to_vec(),
                files: BTreeMap::new(),
            });
            pack.families.len() - 1
        });
        reader.count += 1;
        if reader.count > Pack::MAX_FILES {
            break;
        }
        match reader.picture(file) {
            Ok(mut picture) => {
                // Of a file in the pack's own folder it is known that it is used.
                let real = |p: &Path| fs::canonicalize(p).ok();
                let whole = real(&folder.join(file)).zip(real(&pack.folder));
                let inside = whole.and_then(|(p, top)| Some(p.strip_prefix(top).ok()?.to_owned()));
                picture.path = inside.unwrap_or(picture.path);
                pack.families[at].files.insert(input, picture);
            }
            Err(message) => reader.notes.push(PackNote {
                file: file.to_owned(),
                message,
            }),
        }
    }
    pack.notes.append(&mut reader.notes);
    pack
}

struct Reader<'a> {
    folder: &'a Path,
    count: usize,
    notes: Vec<PackNote>,
}

impl Reader<'_> {
    fn pack(&mut self, table: &DeTable<'_>) -> Result<Pack, Wrong> {
        known(table, &["format", "title", "files", "families"])?;
        if let Some(format) = table.get("format") {
            let number = format.get_ref().as_integer().map(|n| n.as_str());
            if number != Some(FORMAT) {
                let said = number.unwrap_or("something else");
                let message = format!("written in format {said}, and this version reads {FORMAT}");
                return Err((format.span().start, message));
            }
        }
        let mut families = Vec::new();
        if let Some(all) = table.get("families") {
            for (name, value) in table_of(all, "families")? {
                families.push(self.family(name.get_ref(), table_of(value, name.get_ref())?)?);
            }
        }
        Ok(Pack {
            folder: self.folder.to_owned(),
            title: text_of(table, "title")?.unwrap_or("glyphs").to_owned(),
            files: self.files(table)?,
            families,
            notes: Vec::new(),
            found: Vec::new(),
        })
    }

    fn family(&mut self, name: &str, table: &DeTable<'_>) -> Result<Family, Wrong> {
        known(table, &["title", "usb", "files"])?;
        let mut usb = Vec::new();
        if let Some(value) = table.get("usb") {
            let wrong = |at| {
                (
                    at,
                    "`usb` is a list such as `[\"1209:0001\", \"1209:*\"]`".to_owned(),
                )
            };
            let list = value.get_ref().as_array();
            for number in list.ok_or_else(|| wrong(value.span().start))? {
                let at = number.span().start;
                let text = number.get_ref().as_str().ok_or_else(|| wrong(at))?;
                usb.push(text.parse().map_err(|e| (at, format!("{e}")))?);
            }
        }
        Ok(Family {
            name: name.to_owned(),
            usb,
            files: self.files(table)?,
        })
    }

    fn files(&mut self, table: &DeTable<'_>) -> Result<BTreeMap<Input, Picture>, Wrong> {
        let mut files = BTreeMap::new();
        let Some(value) = table.get("files") else {
            return Ok(files);
        };
        for (input, value) in table_of(value, "files")? {
            let at = input.span().start;
            let input: Input = input.get_ref().parse().map_err(|e| (at, format!("{e}")))?;
            let file = value.get_ref().as_str().ok_or_else(|| {
                let message = format!("the picture of `{input}` is a file name in quotes");
                (value.span().start, message)
            })?;
            self.count += 1;
            if self.count > Pack::MAX_FILES {
                let most = Pack::MAX_FILES;
                return Err((at, format!("a pack names at most {most} files")));
            }
            match self.picture(file) {
                Ok(picture) => {
                    files.insert(input, picture);
                }
                Err(message) => self.notes.push(PackNote {
                    file: file.to_owned(),
                    message,
                }),
            }
        }
        Ok(files)
    }

    /// A picture by its name in the manifest.
    ///
    /// # Errors
    /// Why it cannot be used.
    fn picture(&self, file: &str) -> Result<Picture, String> {
        let path = Path::new(file);
        let inside = |c: Component<'_>| matches!(c, Component::Normal(_));
        if file.is_empty() || !path.components().all(inside) {
            return Err("leads out of the pack; name a file inside its folder".to_owned());
        }
        let real = |p: &Path| fs::canonicalize(p).map_err(|e| e.to_string());
        let (folder, whole) = (real(self.folder)?, real(&self.folder.join(path))?);
        if !whole.starts_with(&folder) {
            return Err("is a link out of the pack; put the file itself there".to_owned());
        }
        let about = fs::metadata(&whole).map_err(|e| e.to_string())?;
        if !about.is_file() {
            return Err("is no file".to_owned());
        }
        if about.len() > Pack::MAX_FILE_BYTES {
            let (length, most) = (about.len(), Pack::MAX_FILE_BYTES);
            return Err(format!(
                "{length} bytes are too many; at most {most} are read"
            ));
        }
        let bytes = fs::read(&whole).map_err(|e| e.to_string())?;
        picture::judge(path, &bytes)?;
        Ok(Picture {
            path: path.to_owned(),
            bytes,
        })
    }
}

fn known(table: &DeTable<'_>, keys: &[&str]) -> Result<(), Wrong> {
    for key in table.keys() {
        if !keys.contains(&&**key.get_ref()) {
            let known = keys.join("`, `");
            let message = format!("there is no `{}` here; there are `{known}`", key.get_ref());
            return Err((key.span().start, message));
        }
    }
    Ok(())
}

fn table_of<'t, 'i>(value: &'t Spanned<DeValue<'i>>, name: &str) -> Result<&'t DeTable<'i>, Wrong> {
    let wrong = || (value.span().start, format!("`{name}` is a table"));
    value.get_ref().as_table().ok_or_else(wrong)
}

fn text_of<'t>(table: &'t DeTable<'_>, key: &str) -> Result<Option<&'t str>, Wrong> {
    let Some(value) = table.get(key) else {
        return Ok(None);
    };
    let wrong = || (value.span().start, format!("`{key}` is a text in quotes"));
    value.get_ref().as_str().map(Some).ok_or_else(wrong)
}

/// Every file below a folder but the manifest; links are not followed.
fn list(top: &Path, folder: &Path, depth: usize, out: &mut Vec<PathBuf>) {
    let Ok(entries) = fs::read_dir(folder) else {
        return;
    };
    for entry in entries.flatten() {
        let path = entry.path();
        match entry.file_type() {
            Ok(kind) if kind.is_dir() && depth < MAX_DEPTH => list(top, &path, depth + 1, out),
            Ok(kind) if kind.is_file() => {
                let from_top = path.strip_prefix(top).unwrap_or(&path);
                if from_top != Path::new(MANIFEST) && out.len() < Pack::MAX_FILES {
                    out.push(from_top.to_owned());
                }
            }
            _ => {}
        }
    }
}
