//! How a number is slid.

/// How far a slider goes, which may be less than a file may say, and by how much one push of a key or
/// button moves it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Slider {
    pub(crate) least: f32,
    pub(crate) most: f32,
    pub(crate) step: f32,
    /// Whether each step is a share of what is there rather than an amount.
    pub(crate) by_share: bool,
}

impl Slider {
    /// Where a number stands on the slider.
    pub(crate) fn at(&self, number: f32) -> f32 {
        let at = match self.by_share {
            true => (number / self.least).ln() / (self.most / self.least).ln(),
            false => (number - self.least) / (self.most - self.least),
        };
        at.clamp(0.0, 1.0)
    }

    /// The number at a place of the slider.
    pub(crate) fn number(&self, at: f32) -> f32 {
        let at = if at.is_nan() { 0.0 } else { at.clamp(0.0, 1.0) };
        let number = match self.by_share {
            true => self.least * (self.most / self.least).powf(at),
            false => self.least + at * (self.most - self.least),
        };
        self.round(number)
    }

    /// The next number in a direction; one that a file has beyond the slider stays where it is.
    pub(crate) fn next(&self, from: f32, up: bool) -> f32 {
        let to = match (self.by_share, up) {
            (true, true) => (from * (1.0 + self.step)).max(from + 0.01),
            (true, false) => (from / (1.0 + self.step)).min(from - 0.01),
            (false, true) => from + self.step,
            (false, false) => from - self.step,
        };
        let (least, most) = (self.least.min(from), self.most.max(from));
        self.round(to).clamp(least, most)
    }

    fn round(&self, number: f32) -> f32 {
        (number * 100.0).round() / 100.0
    }
}
