//! `encode` as the frame sees it.

use std::io;

use super::coder::Codec;
use super::movie::{HEIGHT, Picture, WIDTH, draw};
use crate::digest::digest_bytes;
use crate::frame::{About, Fault, Load, Touch, Work};
use crate::kernel::Kernel;

/// A moving picture coded and decoded.
pub struct Encode;

struct Movie {
    seed: u64,
    frames: Vec<Picture>,
    bytes: Vec<u8>,
    digests: Vec<u64>,
    sender: Codec,
    receiver: Codec,
}

const ABOUT: About = About {
    name: "encode",
    stresses: "a mix, memory; benchmark",
    size_name: "frames",
    unit: "frames/s",
    usual_size: 4,
    sizes: (1, 1 << 16),
    adds_up: true,
};

impl Load for Encode {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn bytes(&self, size: u64) -> u64 {
        let picture = (WIDTH * HEIGHT) as u64;
        (size + 6) * picture + 16 * size
    }

    fn work(&self, size: u64) -> f64 {
        size as f64
    }

    fn begin(&self, _: Kernel, size: u64, seed: u64) -> io::Result<Box<dyn Work>> {
        let picture = WIDTH * HEIGHT;
        let frames = vec![vec![0; picture]; size as usize];
        let bytes = Vec::with_capacity(2 * picture);
        let (sender, receiver) = (Codec::new(), Codec::new());
        Ok(Box::new(Movie { seed, frames, bytes, digests: vec![0; size as usize], sender, receiver }))
    }
}

impl Work for Movie {
    fn restart(&mut self) {
        for (index, frame) in self.frames.iter_mut().enumerate() {
            draw(index, self.seed, frame);
        }
    }

    fn inputs(&self) -> u64 {
        self.frames.iter().fold(0, |state, frame| digest_bytes(frame, state))
    }

    fn size(&self) -> u64 {
        self.frames.len() as u64
    }

    fn round(&mut self, touch: &mut Touch) -> Option<Fault> {
        let Self { frames, bytes, digests, sender, receiver, .. } = self;
        sender.renew();
        receiver.renew();
        for (index, frame) in frames.iter_mut().enumerate() {
            touch.at("frame", frame);
            *bytes = sender.encode(frame, std::mem::take(bytes));
            let digest = digest_bytes(bytes, 0);
            touch.at("bit stream", bytes);
            let is_readable = receiver.decode(bytes);
            touch.at("decoded picture", receiver.picture());
            let (sent, received) = (digest_bytes(sender.picture(), digest), digest_bytes(receiver.picture(), digest));
            if !is_readable || sent != received {
                let fault = Fault::result(format!("picture {sent:016x}"), format!("picture {received:016x}"));
                return Some(fault.in_part(self.part(index)));
            }
            digests[index] = received;
        }
        None
    }

    fn digests(&self) -> &[u64] {
        &self.digests
    }

    fn digests_mut(&mut self) -> &mut [u64] {
        &mut self.digests
    }

    fn part(&self, index: usize) -> String {
        format!("frame {}", index + 1)
    }
}
