// A night over hills with domes, drawn in layers from back to front: the sky first, then one ridge of hills after the other.
// Colours are made of whole numbers only, so that a picture has one right answer on a device. What a colour rounds off, and what
// is drawn over later, would be seen by nobody: a surface makes a trace of all its numbers as well. Its last byte is that of the
// pixel, and every fourth surface, others in each picture, adds it to what its pixel has of others, which comes to the same in
// whatever order that is done.

const WIDTH = 640u;
const HEIGHT = 352u;
// A ridge is a strip of columns of so many pixels.
const STEP = 8u;
// Surfaces are rough by noise of so many scales.
const SCALES = 3u;

struct Order {
    // Which picture of the turn.
    frame: u32,
    // How many ridges lie in front of the sky.
    ridges: u32,
    seed: u32,
    spare: u32,
}

@group(0) @binding(0) var<storage, read> grain: array<u32>;
@group(0) @binding(1) var<uniform> order: Order;
@group(0) @binding(2) var<storage, read_write> traces: array<atomic<u32>>;

// The trace of the surface that is being shaded.
var<private> trace: u32;

struct Corner {
    @builtin(position) at: vec4<f32>,
    @location(0) @interpolate(flat) layer: u32,
}

// A number from 0 to 255 that belongs to a cell: one of the four bytes of a word, so that every bit of the grain is seen.
fn at_corner(x: u32, y: u32, key: u32) -> u32 {
    let place = (x * 0x9e37u + y * 0x85ebu) ^ key;
    return (grain[(place ^ (place >> 10u)) & 1023u] >> ((place >> 7u) & 24u)) & 255u;
}

// Smooth noise: 0 to 255, from numbers at the corners of cells of 2^bits pixels.
fn smooth_noise(x: u32, y: u32, bits: u32, key: u32) -> u32 {
    let cell = vec2<u32>(x >> bits, y >> bits);
    let size = 1u << bits;
    let within = vec2<u32>(x & (size - 1u), y & (size - 1u));
    let north = at_corner(cell.x, cell.y, key) * (size - within.x) + at_corner(cell.x + 1u, cell.y, key) * within.x;
    let south = at_corner(cell.x, cell.y + 1u, key) * (size - within.x) + at_corner(cell.x + 1u, cell.y + 1u, key) * within.x;
    let all = north * (size - within.y) + south * within.y;
    trace = (trace ^ all) * 0x9e3779b1u;
    return all >> (2u * bits);
}

// Half the width of a dome of this radius at this height over its foot.
fn root(square: u32) -> u32 {
    var r = 0u;
    for (var bit = 64u; bit > 0u; bit >>= 1u) {
        if ((r + bit) * (r + bit) <= square) { r += bit; }
    }
    return r;
}

fn drift(layer: u32) -> u32 {
    return order.frame * (layer * 12u / order.ridges + 1u);
}

// The row in which a ridge begins in this column of the picture.
fn crest(layer: u32, column: u32) -> u32 {
    let far = HEIGHT * 9u / 20u + layer * (HEIGHT * 9u / 20u) / order.ridges;
    let x = column * STEP + drift(layer);
    let key = mix(order.seed + layer);
    let up = smooth_noise(x, layer * 64u, 6u, key) / 6u + smooth_noise(x, layer * 64u, 4u, key) / 20u;
    var row = far - min(up, far);
    // Every eighth ridge bears a dome.
    if (layer % 8u == 3u) {
        let middle = mix(layer + order.seed) % (WIDTH - 150u) + 75u;
        let beside = max(column * STEP, middle) - min(column * STEP, middle);
        if (beside < 36u) { row -= min(row, root(36u * 36u - beside * beside) + 9u); }
    }
    return row;
}

@vertex
fn corner(@builtin(vertex_index) index: u32, @builtin(instance_index) layer: u32) -> Corner {
    let column = index / 6u;
    // Two triangles: of which corners by a table of bits, right and lower ones.
    let right = (0x1au >> (index % 6u)) & 1u;
    let lower = (0x34u >> (index % 6u)) & 1u;
    var row = HEIGHT;
    if (lower == 0u) {
        row = 0u;
        if (layer > 0u) { row = min(crest(layer, column + right), HEIGHT); }
    }
    let x = f32((column + right) * STEP) / f32(WIDTH / 2u) - 1.0;
    let y = 1.0 - f32(row) / f32(HEIGHT / 2u);
    let depth = 1.0 - f32(layer) / f32(order.ridges + 1u);
    return Corner(vec4<f32>(x, y, depth, 1.0), layer);
}

fn sky(x: u32, y: u32) -> vec3<u32> {
    let glow = y * y / 750u;
    var colour = vec3<u32>(10u + glow / 2u, 14u + glow / 3u, 34u + glow / 5u);
    var cloud = 0u;
    for (var scale = 0u; scale < SCALES; scale++) {
        cloud += smooth_noise(x + order.frame * 3u, y * 2u, 7u - scale, order.seed + scale) >> (scale + 1u);
    }
    colour += vec3<u32>(max(cloud, 110u) - 110u) / vec3<u32>(3u, 3u, 2u);
    let star = mix(x + y * 4096u + order.seed);
    if (star % 1201u == 0u) { colour += vec3<u32>(100u + star % 100u); }
    let moon = vec2<i32>(i32(x) - 490, i32(y) - 66);
    if (moon.x * moon.x + moon.y * moon.y < 23 * 23) {
        colour = vec3<u32>(200u + smooth_noise(x, y, 3u, 5u) / 8u);
    }
    return min(colour, vec3<u32>(255u));
}

fn hill(x: u32, y: u32, layer: u32) -> vec3<u32> {
    var rough = 0u;
    for (var scale = 0u; scale < SCALES; scale++) {
        rough += smooth_noise(x + drift(layer), y + layer * 32u, 5u - scale, order.seed + layer * 8u + scale) >> (scale + 1u);
    }
    // The farther away the more of the sky's own light.
    let near = layer * 255u / order.ridges;
    let base = vec3<u32>(96u, 84u, 104u) * (255u - near) / 255u + vec3<u32>(14u, 30u, 26u) * near / 255u;
    return base * (150u + rough / 2u) / 255u;
}

@fragment
fn shade(corner: Corner) -> @location(0) u32 {
    let x = u32(corner.at.x);
    let y = u32(corner.at.y);
    var colour: vec3<u32>;
    trace = corner.layer;
    if (corner.layer == 0u) { colour = sky(x, y); } else { colour = hill(x, y, corner.layer); }
    let all = trace ^ (trace >> 15u);
    if (TRACED && ((corner.layer ^ order.frame) & 3u) == 0u) { atomicAdd(&traces[y * WIDTH + x], all); }
    return colour.x | (colour.y << 8u) | (colour.z << 16u) | (all << 24u);
}
