//! What is drawn on: a picture on the device, and its digests.

use wgpu::{
    BindGroup, BindingResource, Buffer, Color, CommandEncoder, CompareFunction, ComputePipeline, DepthStencilState,
    Extent3d, FragmentState, LoadOp, Operations, Origin3d, RenderPassColorAttachment, RenderPassDepthStencilAttachment,
    RenderPassDescriptor, RenderPipeline, RenderPipelineDescriptor, StoreOp, TexelCopyBufferInfo,
    TexelCopyBufferLayout, TexelCopyTextureInfo, Texture, TextureAspect, TextureDescriptor, TextureDimension,
    TextureFormat, TextureUsages, TextureView, VertexState,
};

use crate::digest::IS_CHECKED;
use crate::graphics::gpu::{Gpu, Lost, dispatch};
use crate::graphics::strike::Strike;

/// Whether surfaces leave traces of what nobody sees of them.
#[cfg(not(unchecked))]
const TRACED: &str = "const TRACED = true;";
#[cfg(unchecked)]
const TRACED: &str = "const TRACED = false;";

const SCENE: &str = concat!(include_str!("../mix.wgsl"), include_str!("scene.wgsl"));
const TILES: &str = concat!(include_str!("../mix.wgsl"), include_str!("tiles.wgsl"));

/// A picture's size, pixels; a whole number of tiles both ways.
pub(super) const WIDTH: u32 = 640;
pub(super) const HEIGHT: u32 = 352;

/// Pixels of a tile both ways.
pub(super) const TILE: u32 = 32;
pub(super) const ACROSS: u32 = WIDTH / TILE;
pub(super) const DOWN: u32 = HEIGHT / TILE;

/// Tiles of a picture.
pub(super) const COUNT: usize = (ACROSS * DOWN) as usize;

/// Corners of a ridge's triangles: two for each of its columns.
const CORNERS: u32 = WIDTH / 8 * 6;

const PICTURE: Extent3d = Extent3d { width: WIDTH, height: HEIGHT, depth_or_array_layers: 1 };

/// What draws pictures and takes their digests.
pub(super) struct Painter {
    scene: RenderPipeline,
    tiles: ComputePipeline,
    depth: TextureView,
}

/// A picture on the device.
pub(super) struct Canvas {
    texture: Texture,
    view: TextureView,
    /// What all that was drawn has left, pixel by pixel.
    traces: Buffer,
    /// What to draw, and how.
    order: Buffer,
    seen: BindGroup,
    /// Where its digests go.
    digested: BindGroup,
}

impl Painter {
    pub(super) fn new(gpu: &Gpu) -> Self {
        let shader = gpu.shader(&[TRACED, SCENE].join("\n"));
        let scene = gpu.device().create_render_pipeline(&RenderPipelineDescriptor {
            label: Some("scene"),
            layout: None,
            vertex: VertexState {
                module: &shader,
                entry_point: Some("corner"),
                compilation_options: Default::default(),
                buffers: &[],
            },
            primitive: Default::default(),
            depth_stencil: Some(DepthStencilState {
                format: TextureFormat::Depth32Float,
                depth_write_enabled: Some(true),
                depth_compare: Some(CompareFunction::LessEqual),
                stencil: Default::default(),
                bias: Default::default(),
            }),
            multisample: Default::default(),
            fragment: Some(FragmentState {
                module: &shader,
                entry_point: Some("shade"),
                compilation_options: Default::default(),
                targets: &[Some(TextureFormat::R32Uint.into())],
            }),
            multiview_mask: None,
            cache: None,
        });
        let tiles = gpu.kernel(&gpu.shader(TILES), "digest_tiles");
        let depth = texture(gpu, TextureFormat::Depth32Float, TextureUsages::RENDER_ATTACHMENT);
        Self { scene, tiles, depth: depth.create_view(&Default::default()) }
    }

    /// A picture whose digests begin at this place.
    pub(super) fn canvas(&self, gpu: &Gpu, grain: &Buffer, (digests, first): (&Buffer, u32)) -> Canvas {
        let usage = TextureUsages::RENDER_ATTACHMENT
            | TextureUsages::TEXTURE_BINDING
            | TextureUsages::COPY_SRC
            | TextureUsages::COPY_DST;
        let texture = texture(gpu, TextureFormat::R32Uint, usage);
        let view = texture.create_view(&Default::default());
        let order = gpu.numbers(&[0; 4]);
        let layout = self.scene.get_bind_group_layout(0);
        let traces = gpu.words(u64::from(WIDTH) * u64::from(HEIGHT));
        let seen = gpu.seen(&layout, &[grain, &order, &traces].map(Buffer::as_entire_binding));
        let place = gpu.numbers(&[first, 0, 0, 0]);
        let [digests, place, left] = [digests, &place, &traces].map(Buffer::as_entire_binding);
        let digested = gpu.bind(&self.tiles, &[BindingResource::TextureView(&view), digests, place, left]);
        Canvas { texture, view, traces, order, seen, digested }
    }

    /// Draws a picture.
    pub(super) fn draw(&self, encoder: &mut CommandEncoder, canvas: &Canvas, ridges: u32) {
        encoder.clear_buffer(&canvas.traces, 0, None);
        let mut pass = encoder.begin_render_pass(&RenderPassDescriptor {
            color_attachments: &[Some(RenderPassColorAttachment {
                view: &canvas.view,
                depth_slice: None,
                resolve_target: None,
                ops: Operations { load: LoadOp::Clear(Color::BLACK), store: StoreOp::Store },
            })],
            depth_stencil_attachment: Some(RenderPassDepthStencilAttachment {
                view: &self.depth,
                depth_ops: Some(Operations { load: LoadOp::Clear(1.0), store: StoreOp::Discard }),
                stencil_ops: None,
            }),
            ..RenderPassDescriptor::default()
        });
        pass.set_pipeline(&self.scene);
        pass.set_bind_group(0, &canvas.seen, &[]);
        pass.draw(0..CORNERS, 0..ridges + 1);
    }

    /// Takes the digests of a picture.
    pub(super) fn digest(&self, encoder: &mut CommandEncoder, canvas: &Canvas) {
        if IS_CHECKED {
            dispatch(encoder, &self.tiles, &canvas.digested, [ACROSS, DOWN, 1]);
        }
    }
}

impl Canvas {
    /// Says what is to be drawn next.
    pub(super) fn order(&self, gpu: &Gpu, frame: u32, ridges: u32, seed: u32) {
        gpu.write(&self.order, &[frame, ridges, seed, 0]);
    }

    /// Lets something disturb the picture.
    pub(super) fn touch(&self, gpu: &Gpu, strike: &dyn Strike, round: u64) -> Result<(), Lost> {
        let Some((pixel, bits)) = strike.flips(round, "picture") else { return Ok(()) };
        let mut pixels = self.pixels(gpu)?;
        let at = pixel as usize % pixels.len();
        pixels[at] ^= bits;
        let mut encoder = gpu.encoder();
        encoder.copy_buffer_to_texture(in_buffer(&gpu.filled(&pixels)), self.whole(), PICTURE);
        gpu.submit(encoder);
        Ok(())
    }

    /// Its pixels row by row: red in the lowest byte, then green and blue.
    pub(super) fn pixels(&self, gpu: &Gpu) -> Result<Vec<u32>, Lost> {
        let buffer = gpu.words(u64::from(WIDTH) * u64::from(HEIGHT));
        let mut encoder = gpu.encoder();
        encoder.copy_texture_to_buffer(self.whole(), in_buffer(&buffer), PICTURE);
        gpu.submit(encoder);
        gpu.read(&buffer)
    }

    fn whole(&self) -> TexelCopyTextureInfo<'_> {
        TexelCopyTextureInfo {
            texture: &self.texture,
            mip_level: 0,
            origin: Origin3d::ZERO,
            aspect: TextureAspect::All,
        }
    }
}

fn in_buffer(buffer: &Buffer) -> TexelCopyBufferInfo<'_> {
    let layout = TexelCopyBufferLayout { offset: 0, bytes_per_row: Some(WIDTH * 4), rows_per_image: Some(HEIGHT) };
    TexelCopyBufferInfo { buffer, layout }
}

fn texture(gpu: &Gpu, format: TextureFormat, usage: TextureUsages) -> Texture {
    gpu.device().create_texture(&TextureDescriptor {
        label: None,
        size: PICTURE,
        mip_level_count: 1,
        sample_count: 1,
        dimension: TextureDimension::D2,
        format,
        usage,
        view_formats: &[],
    })
}
