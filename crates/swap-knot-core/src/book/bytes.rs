//! Small numbers as few bytes, for what is sent or kept compactly.

use crate::input::Time;

/// Text that ends too soon, or holds what cannot be.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) struct Garbled;

/// Puts numbers behind each other.
#[derive(Debug)]
pub(crate) struct Writer<'a> {
    pub(crate) out: &'a mut Vec<u8>,
    /// What times are told from.
    pub(crate) now: Time,
}

/// Takes them out again, without trusting any of them.
#[derive(Debug)]
pub(crate) struct Reader<'a> {
    pub(crate) left: &'a [u8],
    pub(crate) now: Time,
}

impl Writer<'_> {
    /// Seven bits a byte, the lowest first.
    pub(crate) fn number(&mut self, mut n: u64) {
        while n >= 0x80 {
            self.out.push(n as u8 | 0x80);
            n >>= 7;
        }
        self.out.push(n as u8);
    }

    pub(crate) fn flag(&mut self, flag: bool) {
        self.out.push(u8::from(flag));
    }

    pub(crate) fn float(&mut self, v: f32) {
        self.out.extend(v.to_bits().to_le_bytes());
    }

    pub(crate) fn double(&mut self, v: f64) {
        self.out.extend(v.to_bits().to_le_bytes());
    }

    /// By how long ago it was, or how far ahead it lies.
    pub(crate) fn time(&mut self, at: Time) {
        let ago = self.now.as_micros().wrapping_sub(at.as_micros()) as i64;
        self.number((ago.wrapping_shl(1) ^ (ago >> 63)) as u64);
    }

    pub(crate) fn text(&mut self, text: &str) {
        self.number(text.len() as u64);
        self.out.extend(text.bytes());
    }

    /// A number that lies shortly before another one.
    pub(crate) fn before(&mut self, n: u32, latest: u32) {
        self.number(u64::from(latest.wrapping_sub(n)));
    }

    /// Which of many are not as they are at first, and what they are.
    pub(crate) fn sparse<T: PartialEq + Default>(
        &mut self,
        all: &[T],
        mut write: impl FnMut(&mut Self, &T),
    ) {
        let first = T::default();
        let told = || all.iter().enumerate().filter(|(_, one)| **one != first);
        self.number(told().count() as u64);
        let mut next = 0;
        for (at, one) in told() {
            self.number((at - next) as u64);
            next = at + 1;
            write(self, one);
        }
    }
}

impl Reader<'_> {
    fn byte(&mut self) -> Result<u8, Garbled> {
        let (&byte, left) = self.left.split_first().ok_or(Garbled)?;
        self.left = left;
        Ok(byte)
    }

    pub(crate) fn number(&mut self) -> Result<u64, Garbled> {
        let mut n = 0;
        for shift in (0..64).step_by(7) {
            let byte = self.byte()?;
            n |= u64::from(byte & 0x7f) << shift;
            if byte < 0x80 {
                return Ok(n);
            }
        }
        Err(Garbled)
    }

    pub(crate) fn text(&mut self) -> Result<&str, Garbled> {
        let len = self.up_to(self.left.len())?;
        let (text, left) = self.left.split_at_checked(len).ok_or(Garbled)?;
        self.left = left;
        std::str::from_utf8(text).map_err(|_| Garbled)
    }

    /// A number that is at most so high.
    pub(crate) fn up_to(&mut self, most: usize) -> Result<usize, Garbled> {
        let n = self.number()?;
        usize::try_from(n)
            .ok()
            .filter(|n| *n <= most)
            .ok_or(Garbled)
    }

    pub(crate) fn small(&mut self) -> Result<u32, Garbled> {
        u32::try_from(self.number()?).map_err(|_| Garbled)
    }

    pub(crate) fn flag(&mut self) -> Result<bool, Garbled> {
        match self.byte()? {
            0 => Ok(false),
            1 => Ok(true),
            _ => Err(Garbled),
        }
    }

    fn bytes<const N: usize>(&mut self) -> Result<[u8; N], Garbled> {
        let (bytes, left) = self.left.split_first_chunk::<N>().ok_or(Garbled)?;
        self.left = left;
        Ok(*bytes)
    }

    /// A number that is one.
    pub(crate) fn float(&mut self) -> Result<f32, Garbled> {
        let v = f32::from_bits(u32::from_le_bytes(self.bytes()?));
        if v.is_finite() { Ok(v) } else { Err(Garbled) }
    }

    pub(crate) fn double(&mut self) -> Result<f64, Garbled> {
        let v = f64::from_bits(u64::from_le_bytes(self.bytes()?));
        if v.is_finite() { Ok(v) } else { Err(Garbled) }
    }

    pub(crate) fn time(&mut self) -> Result<Time, Garbled> {
        let n = self.number()?;
        let ago = (n >> 1) as i64 ^ -((n & 1) as i64);
        Ok(Time::from_micros(
            self.now.as_micros().wrapping_sub(ago as u64),
        ))
    }

    pub(crate) fn before(&mut self, latest: u32) -> Result<u32, Garbled> {
        Ok(latest.wrapping_sub(self.small()?))
    }

    pub(crate) fn sparse<T: Default>(
        &mut self,
        all: &mut [T],
        mut read: impl FnMut(&mut Self) -> Result<T, Garbled>,
    ) -> Result<(), Garbled> {
        let count = self.up_to(all.len())?;
        all.iter_mut().for_each(|one| *one = T::default());
        let mut next = 0;
        for _ in 0..count {
            let at = next + self.up_to(all.len())?;
            *all.get_mut(at).ok_or(Garbled)? = read(self)?;
            next = at + 1;
        }
        Ok(())
    }
}
