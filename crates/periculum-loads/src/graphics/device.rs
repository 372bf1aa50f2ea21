//! The devices that Vulkan offers, and which of them is meant.

use std::path::Path;

use serde::{Deserialize, Serialize};
use wgpu::hal::api::Vulkan;
use wgpu::{Adapter, Backends, DeviceType, Instance, InstanceDescriptor, InstanceFlags};

/// A device that loads can run on.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct GraphicsDevice {
    /// Its number among all, from 0.
    pub number: usize,
    /// The name of its card, as the kernel counts them: `card1`; none where no card stands behind it.
    pub card: Option<String>,
    /// What its driver calls it.
    pub name: String,
    /// Its driver and that one's version.
    pub driver: String,
    /// Its own memory, bytes; the machine's where it has none.
    pub memory: u64,
    /// What kind of device it is.
    pub kind: DeviceKind,
}

/// What kind of device it is, best one first.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum DeviceKind {
    /// A card with memory of its own.
    Discrete,
    /// A part of the processor.
    Integrated,
    /// A part of a card that a virtual machine was given.
    Virtual,
    /// Something else.
    Other,
    /// None: the processor does its work.
    Software,
}

impl DeviceKind {
    /// The size that goes with it, of those of software, of what shares the processor's memory and of cards.
    pub(super) fn pick(self, [software, integrated, discrete]: [u64; 3]) -> u64 {
        match self {
            Self::Software => software,
            Self::Integrated | Self::Virtual | Self::Other => integrated,
            Self::Discrete => discrete,
        }
    }
}

impl From<DeviceType> for DeviceKind {
    fn from(kind: DeviceType) -> Self {
        match kind {
            DeviceType::DiscreteGpu => Self::Discrete,
            DeviceType::IntegratedGpu => Self::Integrated,
            DeviceType::VirtualGpu => Self::Virtual,
            DeviceType::Other => Self::Other,
            DeviceType::Cpu => Self::Software,
        }
    }
}

/// Which device was meant.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Choice {
    /// This one, by its number.
    One(usize),
    /// There is none at all.
    NoneThere,
    /// No device is called so.
    Unknown,
    /// Several are.
    Several,
}

impl GraphicsDevice {
    /// Which of these devices a name means: that of a card, a number, or a part of a device's own name; without a name the best.
    pub fn choose(all: &[Self], wanted: Option<&str>) -> Choice {
        if all.is_empty() {
            return Choice::NoneThere;
        }
        let Some(wanted) = wanted.map(str::trim) else {
            let best = all.iter().min_by_key(|device| (device.kind, device.number));
            return best.map_or(Choice::NoneThere, |device| Choice::One(device.number));
        };
        let exact = all.iter().find(|device| {
            device.card.as_deref() == Some(wanted) || wanted.parse() == Ok(device.number) || device.name == wanted
        });
        if let Some(device) = exact {
            return Choice::One(device.number);
        }
        let wanted = wanted.to_lowercase();
        let mut alike = all.iter().filter(|device| !wanted.is_empty() && device.name.to_lowercase().contains(&wanted));
        match (alike.next(), alike.next()) {
            (None, _) => Choice::Unknown,
            (Some(device), None) => Choice::One(device.number),
            (Some(_), Some(_)) => Choice::Several,
        }
    }
}

/// Every device that Vulkan offers on this machine. A driver may hang or die in this: it belongs into a process of its own.
pub fn list() -> Vec<GraphicsDevice> {
    adapters().iter().enumerate().map(|(number, adapter)| describe(number, adapter)).collect()
}

pub(super) fn adapters() -> Vec<Adapter> {
    let instance = Instance::new(InstanceDescriptor {
        backends: Backends::VULKAN,
        // Drivers that are honest but not certified are drivers all the same.
        flags: InstanceFlags::ALLOW_UNDERLYING_NONCOMPLIANT_ADAPTER,
        ..InstanceDescriptor::new_without_display_handle()
    });
    pollster::block_on(instance.enumerate_adapters(Backends::VULKAN))
}

pub(super) fn describe(number: usize, adapter: &Adapter) -> GraphicsDevice {
    let info = adapter.get_info();
    GraphicsDevice {
        number,
        card: card_of(&info.device_pci_bus_id),
        name: info.name,
        driver: format!("{} {}", info.driver, info.driver_info).trim().to_owned(),
        memory: memory_of(adapter),
        kind: info.device_type.into(),
    }
}

/// The card that stands at this place of the PCI bus, by the kernel's own list of them.
fn card_of(bus_id: &str) -> Option<String> {
    let cards = std::fs::read_dir("/sys/class/drm").ok()?.flatten();
    let mut names = cards.filter_map(|card| {
        let name = card.file_name().into_string().ok()?;
        let is_card = name.strip_prefix("card").is_some_and(|number| number.bytes().all(|byte| byte.is_ascii_digit()));
        let device = std::fs::read_link(card.path().join("device")).ok()?;
        (is_card && Path::new(bus_id).file_name() == device.file_name()).then_some(name)
    });
    names.next()
}

/// The bytes of a device's own memory: its largest heap that is local to it (Vulkan 1.3, `VkMemoryHeap`).
fn memory_of(adapter: &Adapter) -> u64 {
    const DEVICE_LOCAL: u32 = 1;
    // SAFETY: the raw handles are only asked for a property, while the adapter that owns them lives.
    let heaps = unsafe {
        adapter.as_hal::<Vulkan>().map(|adapter| {
            let instance = adapter.shared_instance().raw_instance();
            instance.get_physical_device_memory_properties(adapter.raw_physical_device())
        })
    };
    let Some(heaps) = heaps else { return 0 };
    let known = heaps.memory_heaps.iter().take(heaps.memory_heap_count as usize);
    known.filter(|heap| heap.flags.as_raw() & DEVICE_LOCAL != 0).map(|heap| heap.size).max().unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn device(number: usize, name: &str, kind: DeviceKind) -> GraphicsDevice {
        let card = (kind != DeviceKind::Software).then(|| format!("card{number}"));
        GraphicsDevice { number, card, name: name.into(), driver: "made up".into(), memory: 1 << 30, kind }
    }

    #[test]
    fn a_device_is_meant_by_its_card_its_number_or_a_part_of_its_name() {
        let all = [
            device(0, "slow drawing", DeviceKind::Software),
            device(1, "Lens 4", DeviceKind::Integrated),
            device(2, "Lens 7", DeviceKind::Discrete),
        ];
        let choose = |wanted| GraphicsDevice::choose(&all, wanted);
        assert_eq!(choose(None), Choice::One(2), "the best one");
        assert_eq!(choose(Some("card1")), Choice::One(1));
        assert_eq!(choose(Some(" 0 ")), Choice::One(0));
        assert_eq!(choose(Some("drawing")), Choice::One(0));
        assert_eq!(choose(Some("LENS 7")), Choice::One(2));
        assert_eq!(choose(Some("lens")), Choice::Several);
        for unknown in ["", "card0", "3", "-1", "lens 9"] {
            assert_eq!(choose(Some(unknown)), Choice::Unknown, "{unknown}");
        }
        assert_eq!(GraphicsDevice::choose(&[], None), Choice::NoneThere);
    }
}
