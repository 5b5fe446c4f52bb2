//! The program: a sheet in a window.

use std::path::PathBuf;
use std::process::ExitCode;

use clap::Parser;
use eframe::egui;
use swap_knot::{Layout, Profile};
use swap_knot_winit::HeardWindow;
use swap_knot_workbench::{Bench, Workbench, player};

/// A developer's window on any sheet.
#[derive(Debug, Parser)]
#[command(name = "swap-knot-workbench", version, max_term_width = 100)]
struct Args {
    /// The sheet; it is read again whenever it is saved.
    sheet: PathBuf,
    /// A player's profile to begin with. It is not written.
    #[arg(long, value_name = "FILE")]
    profile: Option<PathBuf>,
    /// The layout to begin with; without it, the system's.
    #[arg(long, value_name = "NAME")]
    layout: Option<String>,
    /// Check these layouts, separated by commas; without it, the widely used ones.
    #[arg(long, value_name = "NAMES", value_delimiter = ',')]
    layouts: Vec<String>,
}

fn main() -> ExitCode {
    match run(&Args::parse()) {
        Ok(()) => ExitCode::SUCCESS,
        Err(e) => {
            eprintln!("error: {e}");
            ExitCode::from(2)
        }
    }
}

fn run(args: &Args) -> Result<(), Box<dyn std::error::Error>> {
    let profile = args.profile.as_ref().map(|file| {
        let wrong = |why: String| format!("{}: {why}", file.display());
        let text = std::fs::read_to_string(file).map_err(|e| wrong(e.to_string()))?;
        Profile::from_toml(&text).map_err(|e| wrong(e.to_string()))
    });
    let profile = profile.transpose()?;
    let layout = match &args.layout {
        Some(name) => shipped(name)?,
        None => swap_knot_winit::system_layout().unwrap_or_else(Layout::us),
    };
    let checked: Vec<Layout> = match args.layouts.is_empty() {
        true => Layout::widely_used().collect(),
        false => args
            .layouts
            .iter()
            .map(|n| shipped(n))
            .collect::<Result<_, _>>()?,
    };
    let (ear, heard) = swap_knot_winit::ear();
    let event_loop = winit::event_loop::EventLoop::with_user_event().build()?;
    let size = egui::ViewportBuilder::default().with_inner_size([1280.0, 800.0]);
    let title = format!("{} – workbench", args.sheet.display());
    let options = eframe::NativeOptions {
        viewport: size.with_title(title).with_position([0.0, 0.0]),
        ..Default::default()
    };
    // A file that cannot be read is said where it was asked for, not in a window.
    std::fs::metadata(&args.sheet).map_err(|e| format!("{}: {e}", args.sheet.display()))?;
    let file = args.sheet.clone();
    let start: eframe::AppCreator<'_> = Box::new(move |cc| {
        let ctx = cc.egui_ctx.clone();
        let mut bench = Bench::open(&file, move || ctx.request_repaint())?;
        let controls = player(&bench.sheet()?, profile, &layout);
        Ok(Box::new(Workbench::new(bench, controls, heard, checked)))
    });
    let window = eframe::create_native("swap-knot-workbench", options, start, &event_loop);
    Ok(event_loop.run_app(&mut HeardWindow::new(window, ear))?)
}

fn shipped(name: &str) -> Result<Layout, String> {
    let layout = Layout::shipped(name);
    layout.ok_or_else(|| format!("there is no layout `{name}`; `swap-knot layouts` lists them"))
}
