//! The devices that loads on the graphics processor run on.

use super::sentences;

pub(crate) const DISPLAYS: &str = "# Displays, for a refresh rate with `adapter = \"display\"` and `output = \"…\"`.";
pub(crate) const DRIVER_DIED: &str = "a driver of Vulkan died when it was asked for its devices";
pub(crate) const DRIVER_HANGS: &str = "a driver of Vulkan hangs when it is asked for its devices";
pub(crate) const HEAD: &str = "# Devices for passes of the loads `graphics-…`, as in `device = \"card1\"`; without one the best of them is taken.";
pub(crate) const IN_SOFTWARE: &str = ", in software: the processor does its work";
pub(crate) const SERVER_HANGS: &str = "the X server hangs when it is asked for its outputs";
pub(crate) const NONE_THERE: &str = "no device here offers Vulkan: install its driver";

sentences! {
    device(called, name) = "`{called}` ({name})";
    display(name, width, height, rate, clock, highest) =
        "#   {name:<6} {width} × {height} at {rate} Hz, {clock:.1} MHz of pixels{highest}";
    fills_the_screen(load) = "`{load}` fills the screen: leave `size` and `memory` out";
    has_no_device(load) = "`{load}` runs on the display of the X server: leave `device` out";
    has_no_reserve(load) = "`{load}` takes memory of a device, and none of this machine's: leave `reserve` out";
    memory_is_fixed(load, size_name) = "`{load}` takes the same memory whatever it does: leave `memory` out, or give it a size in {size_name}";
    line(called, name, memory, driver, kind) = "#   {called:<6} {name}, {memory}, driver {driver}{kind}";
    none(why) = "# No device for the loads `graphics-…`: {why}.";
    not_asked(error) = "the process that asks for devices could not be started: {error}";
    not_on_device(load) = "`{load}` runs on processors: leave `device` out";
    on_no_threads(load) = "`{load}` runs on a device, and not on threads of processors: leave `threads` out";
    says_up_to(rate) = "; the screen says up to {rate} Hz";
    several(wanted, all) = "several devices are called `{wanted}`: name one of {all}";
    unknown(wanted, all) = "no device is called `{wanted}`: there are {all}";
}
