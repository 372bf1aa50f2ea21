//! What the processor offers, chosen at run time and named in every record.

/// A set of vector instructions that the loads have code for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Kernel {
    /// AVX-512 with its F, BW, DQ and VL parts: eight numbers at a time.
    Avx512,
    /// AVX2 and FMA: four numbers at a time.
    Avx2,
    /// Any processor; slow where it has no fused multiply-add.
    Portable,
}

impl Kernel {
    /// Every kernel, fastest first.
    pub const ALL: [Self; 3] = [Self::Avx512, Self::Avx2, Self::Portable];

    /// The fastest kernel that this processor can run.
    pub fn best() -> Self {
        Self::available().next().unwrap_or(Self::Portable)
    }

    /// The kernels that this processor can run, fastest first; those it can't are named on standard error, so
    /// that nobody takes a path for tested that never ran.
    pub fn available_loudly() -> impl Iterator<Item = Self> {
        Self::ALL.into_iter().filter(|kernel| {
            if !kernel.is_available() {
                eprintln!("skipped: this processor can't run the {} kernel", kernel.name());
            }
            kernel.is_available()
        })
    }

    fn available() -> impl Iterator<Item = Self> {
        Self::ALL.into_iter().filter(|kernel| kernel.is_available())
    }

    /// Whether this processor can run it.
    #[cfg(target_arch = "x86_64")]
    pub fn is_available(self) -> bool {
        match self {
            Self::Avx512 => {
                is_x86_feature_detected!("avx512f")
                    && is_x86_feature_detected!("avx512bw")
                    && is_x86_feature_detected!("avx512dq")
                    && is_x86_feature_detected!("avx512vl")
            }
            Self::Avx2 => is_x86_feature_detected!("avx2") && is_x86_feature_detected!("fma"),
            Self::Portable => true,
        }
    }

    /// Whether this processor can run it.
    #[cfg(not(target_arch = "x86_64"))]
    pub fn is_available(self) -> bool {
        self == Self::Portable
    }

    /// The kernel for now and then a few vectors among other work: registers of 512 bits lower the clock of many processors for most of a
    /// millisecond after each use. docs/figures.md has what that cost.
    pub(crate) fn now_and_then(self) -> Self {
        if self == Self::Avx512 && Self::Avx2.is_available() { Self::Avx2 } else { self }
    }

    /// The kernel's name, as records show it.
    pub fn name(self) -> &'static str {
        match self {
            Self::Avx512 => "avx512",
            Self::Avx2 => "avx2",
            Self::Portable => "portable",
        }
    }
}

/// Asks for a place in memory that will be used soon; it may be anywhere.
#[inline(always)]
pub(crate) fn prefetch<T>(place: *const T) {
    #[cfg(target_arch = "x86_64")]
    // SAFETY: a prefetch reads nothing that the program could see, wherever it points.
    unsafe {
        std::arch::x86_64::_mm_prefetch::<{ std::arch::x86_64::_MM_HINT_T0 }>(place.cast());
    }
    #[cfg(not(target_arch = "x86_64"))]
    let _ = place;
}

/// Defines a function that takes a [`Kernel`] first and runs the generic function of the same arguments,
/// `$body::<L>`, compiled with that kernel's instructions and its [`crate::lanes::Lanes`].
macro_rules! for_each_kernel {
    ($(#[$about:meta])* $visibility:vis fn $name:ident($($argument:ident: $type:ty),* $(,)?) $(-> $result:ty)? = $body:ident;) => {
        $(#[$about])*
        #[allow(clippy::too_many_arguments, reason = "a kernel's arguments are its body's and the kernel")]
        $visibility fn $name(kernel: $crate::kernel::Kernel, $($argument: $type),*) $(-> $result)? {
            #[cfg(target_arch = "x86_64")]
            #[target_feature(enable = "avx512f,avx512bw,avx512dq,avx512vl,avx2,fma")]
            fn avx512($($argument: $type),*) $(-> $result)? {
                $body::<$crate::lanes::Avx512>($($argument),*)
            }
            #[cfg(target_arch = "x86_64")]
            #[target_feature(enable = "avx2,fma")]
            fn avx2($($argument: $type),*) $(-> $result)? {
                $body::<$crate::lanes::Avx2>($($argument),*)
            }
            match kernel {
                #[cfg(target_arch = "x86_64")]
                $crate::kernel::Kernel::Avx512 if kernel.is_available() => {
                    // SAFETY: the processor has the features, as was just asked.
                    unsafe { avx512($($argument),*) }
                }
                #[cfg(target_arch = "x86_64")]
                $crate::kernel::Kernel::Avx2 if kernel.is_available() => {
                    // SAFETY: the processor has the features, as was just asked.
                    unsafe { avx2($($argument),*) }
                }
                _ => $body::<$crate::lanes::Portable>($($argument),*),
            }
        }
    };
}

pub(crate) use for_each_kernel;
