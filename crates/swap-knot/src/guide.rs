//! The guide: chapters that are read from top to bottom, with code that is compiled and run.

macro_rules! chapters {
    ($($name:ident),*) => {$(
        #[doc = include_str!(concat!("../docs/guide/", stringify!($name), ".md"))]
        pub mod $name {}
    )*};
}

chapters!(
    declaring, together, screen, prompting, everything, inputs, playing, loops, easing, remapping,
    keeping, pads, touch, languages, layouts, recipes, troubles, support, shipping, moving
);
