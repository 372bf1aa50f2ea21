//! One device, and the few things that loads do with it.

use std::fmt;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;

use wgpu::{
    Adapter, BindGroup, BindGroupDescriptor, BindGroupEntry, BindGroupLayout, BindingResource, Buffer,
    BufferDescriptor, BufferUsages, CommandEncoder, ComputePassDescriptor, ComputePipeline, ComputePipelineDescriptor,
    Device, DeviceDescriptor, MapMode, MemoryHints, PollType, Queue, ShaderModule, ShaderModuleDescriptor,
    ShaderSource, SubmissionIndex,
};

use super::strike::Strike;

/// A device that takes longer than this for what it was given hangs: drivers give up earlier by themselves.
const LONGEST_WAIT: Duration = Duration::from_secs(30);

/// Flips bits of one word.
const FLIP: &str = include_str!("flip.wgsl");

/// The device answers no more, or has refused what it was asked for.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Lost {
    /// It is gone: its driver has reset it, or it hangs.
    Gone(String),
    /// It has not so much memory, or can't do what it was asked for.
    Refused(String),
}

impl fmt::Display for Lost {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Gone(why) => write!(f, "the device is gone: {why}"),
            Self::Refused(why) => write!(f, "the device refuses: {why}"),
        }
    }
}

/// What the driver has said against the device or what it was asked for, first things first.
type Trouble = Arc<Mutex<Option<Lost>>>;

/// An open device.
pub struct Gpu {
    device: Device,
    queue: Queue,
    trouble: Trouble,
    flip: ComputePipeline,
}

impl Gpu {
    /// Opens a device with everything that it can.
    pub(super) fn open(adapter: &Adapter) -> Result<Self, Lost> {
        let wanted = DeviceDescriptor {
            required_limits: adapter.limits(),
            memory_hints: MemoryHints::MemoryUsage,
            ..DeviceDescriptor::default()
        };
        let opened = pollster::block_on(adapter.request_device(&wanted));
        let (device, queue) = opened.map_err(|error| Lost::Refused(error.to_string()))?;
        let trouble = Trouble::default();
        let note = |trouble: &Trouble, lost: Lost| {
            trouble.lock().unwrap_or_else(PoisonError::into_inner).get_or_insert(lost);
        };
        let gone = Arc::clone(&trouble);
        device.set_device_lost_callback(move |_, why| note(&gone, Lost::Gone(why)));
        let refused = Arc::clone(&trouble);
        device
            .on_uncaptured_error(Arc::new(move |error: wgpu::Error| note(&refused, Lost::Refused(error.to_string()))));
        let flip = kernel(&device, &shader(&device, FLIP), "flip");
        Ok(Self { device, queue, trouble, flip })
    }

    /// The device, to make what only one load needs.
    pub(super) fn device(&self) -> &Device {
        &self.device
    }

    /// The largest buffer that a kernel can see, bytes.
    pub(super) fn largest(&self) -> u64 {
        let limits = self.device.limits();
        limits.max_storage_buffer_binding_size.min(limits.max_buffer_size)
    }

    /// Whether everything went well so far.
    pub(super) fn is_well(&self) -> Result<(), Lost> {
        let trouble = self.trouble.lock().unwrap_or_else(PoisonError::into_inner);
        trouble.clone().map_or(Ok(()), Err)
    }

    pub(super) fn shader(&self, source: &str) -> ShaderModule {
        shader(&self.device, source)
    }

    pub(super) fn kernel(&self, shader: &ShaderModule, entry: &str) -> ComputePipeline {
        kernel(&self.device, shader, entry)
    }

    /// A buffer of so many words.
    pub(super) fn words(&self, count: u64) -> Buffer {
        self.device.create_buffer(&BufferDescriptor {
            label: None,
            size: count * 4,
            usage: BufferUsages::STORAGE | BufferUsages::COPY_SRC | BufferUsages::COPY_DST,
            mapped_at_creation: false,
        })
    }

    /// A buffer with these words in it.
    pub(super) fn filled(&self, words: &[u32]) -> Buffer {
        let buffer = self.words(words.len() as u64);
        self.write(&buffer, words);
        buffer
    }

    /// Few numbers that a kernel is called with.
    pub(super) fn numbers(&self, numbers: &[u32]) -> Buffer {
        let buffer = self.device.create_buffer(&BufferDescriptor {
            label: None,
            size: numbers.len() as u64 * 4,
            usage: BufferUsages::UNIFORM | BufferUsages::COPY_DST,
            mapped_at_creation: false,
        });
        self.write(&buffer, numbers);
        buffer
    }

    /// Puts words into a buffer, before anything that is submitted later.
    pub(super) fn write(&self, buffer: &Buffer, words: &[u32]) {
        self.queue.write_buffer(buffer, 0, bytemuck::cast_slice(words));
    }

    /// What a kernel sees, in the order of its bindings.
    pub(super) fn bind(&self, kernel: &ComputePipeline, what: &[BindingResource]) -> BindGroup {
        self.seen(&kernel.get_bind_group_layout(0), what)
    }

    /// What something of this layout sees, in the order of its bindings.
    pub(super) fn seen(&self, layout: &BindGroupLayout, what: &[BindingResource]) -> BindGroup {
        let entries =
            what.iter().zip(0..).map(|(resource, binding)| BindGroupEntry { binding, resource: resource.clone() });
        self.device.create_bind_group(&BindGroupDescriptor {
            label: None,
            layout,
            entries: &entries.collect::<Vec<_>>(),
        })
    }

    /// Work to be done in this order.
    pub(super) fn encoder(&self) -> CommandEncoder {
        self.device.create_command_encoder(&Default::default())
    }

    /// Gives work to the device.
    pub(super) fn submit(&self, encoder: CommandEncoder) -> SubmissionIndex {
        self.queue.submit([encoder.finish()])
    }

    /// Waits until the device has done this, or everything where nothing is named.
    ///
    /// # Errors
    /// When it does not come to an end, or the device is gone.
    pub(super) fn wait(&self, submission: Option<SubmissionIndex>) -> Result<(), Lost> {
        let waited = self.device.poll(PollType::Wait { submission_index: submission, timeout: Some(LONGEST_WAIT) });
        self.is_well()?;
        waited.map(drop).map_err(|error| Lost::Gone(error.to_string()))
    }

    /// The words of a buffer, once everything before is done.
    ///
    /// # Errors
    /// When the device is gone.
    pub(super) fn read(&self, buffer: &Buffer) -> Result<Vec<u32>, Lost> {
        let landing = self.landing(buffer.size());
        let mut encoder = self.encoder();
        encoder.copy_buffer_to_buffer(buffer, 0, &landing, 0, buffer.size());
        let submission = self.submit(encoder);
        landing.map_async(MapMode::Read, .., drop);
        self.wait(Some(submission))?;
        self.landed(&landing)
    }

    /// A buffer in which the host can read what is copied there.
    pub(super) fn landing(&self, bytes: u64) -> Buffer {
        self.device.create_buffer(&BufferDescriptor {
            label: None,
            size: bytes,
            usage: BufferUsages::MAP_READ | BufferUsages::COPY_DST,
            mapped_at_creation: false,
        })
    }

    /// The words of a landing that was asked for, and waited for.
    ///
    /// # Errors
    /// When the device is gone.
    pub(super) fn landed(&self, landing: &Buffer) -> Result<Vec<u32>, Lost> {
        self.is_well()?;
        let view = landing.get_mapped_range(..).map_err(|error| Lost::Gone(error.to_string()))?;
        let words = bytemuck::pod_collect_to_vec(&view);
        drop(view);
        landing.unmap();
        Ok(words)
    }

    /// Lets something disturb a buffer that is about to be used.
    pub(super) fn touch(&self, strike: &dyn Strike, round: u64, what: &'static str, buffer: &Buffer) {
        let Some((word, bits)) = strike.flips(round, what) else { return };
        let numbers = self.numbers(&[u32::try_from(word).unwrap_or_default(), bits, 0, 0]);
        let seen = self.bind(&self.flip, &[buffer.as_entire_binding(), numbers.as_entire_binding()]);
        let mut encoder = self.encoder();
        dispatch(&mut encoder, &self.flip, &seen, [1, 1, 1]);
        self.submit(encoder);
    }

    /// Has the device lost, as a driver does that resets it.
    pub(super) fn lose(&self) {
        self.device.destroy();
        // The news of it comes with the next look.
        let _ = self.device.poll(PollType::Poll);
    }
}

fn shader(device: &Device, source: &str) -> ShaderModule {
    device.create_shader_module(ShaderModuleDescriptor { label: None, source: ShaderSource::Wgsl(source.into()) })
}

fn kernel(device: &Device, shader: &ShaderModule, entry: &str) -> ComputePipeline {
    device.create_compute_pipeline(&ComputePipelineDescriptor {
        label: Some(entry),
        layout: None,
        module: shader,
        entry_point: Some(entry),
        compilation_options: Default::default(),
        cache: None,
    })
}

/// Has a kernel work in so many groups.
pub(super) fn dispatch(encoder: &mut CommandEncoder, kernel: &ComputePipeline, seen: &BindGroup, groups: [u32; 3]) {
    let mut pass = encoder.begin_compute_pass(&ComputePassDescriptor::default());
    pass.set_pipeline(kernel);
    pass.set_bind_group(0, seen, &[]);
    pass.dispatch_workgroups(groups[0], groups[1], groups[2]);
}
