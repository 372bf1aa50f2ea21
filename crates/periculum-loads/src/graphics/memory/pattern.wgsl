// Patterns over one chunk of the device's memory: written, and every word compared where it lies.

const NOTED = 30u;

struct Order {
    kind: u32,
    salt: u32,
    // The number of the chunk's first word among all.
    first: u32,
    spare: u32,
}

struct Notes {
    wrong: atomic<u32>,
    looked: atomic<u32>,
    // Word, expected, found, and nothing.
    noted: array<vec4<u32>, 30>,
}

@group(0) @binding(0) var<storage, read_write> chunk: array<vec4<u32>>;
@group(0) @binding(1) var<uniform> order: Order;
@group(0) @binding(2) var<storage, read_write> notes: Notes;

fn word(at: u32) -> u32 {
    switch order.kind {
        case 0u: { return at; }
        case 1u: { return mix(at ^ order.salt); }
        case 2u: { return ~mix(at ^ order.salt); }
        case 3u: { return select(0x55555555u, 0xaaaaaaaau, ((at ^ order.salt) & 1u) == 1u); }
        default: { return 1u << ((at + order.salt) & 31u); }
    }
}

fn words(quad: u32) -> vec4<u32> {
    let at = order.first + quad * 4u;
    return vec4<u32>(word(at), word(at + 1u), word(at + 2u), word(at + 3u));
}

@compute @workgroup_size(256)
fn fill(@builtin(global_invocation_id) id: vec3<u32>, @builtin(num_workgroups) groups: vec3<u32>) {
    for (var quad = id.x; quad < arrayLength(&chunk); quad += groups.x * 256u) {
        chunk[quad] = words(quad);
    }
}

@compute @workgroup_size(256)
fn check(@builtin(global_invocation_id) id: vec3<u32>, @builtin(num_workgroups) groups: vec3<u32>) {
    var looked = 0u;
    for (var quad = id.x; quad < arrayLength(&chunk); quad += groups.x * 256u) {
        let expected = words(quad);
        let found = chunk[quad];
        looked += 1u;
        if (all(expected == found)) { continue; }
        for (var i = 0u; i < 4u; i++) {
            if (expected[i] == found[i]) { continue; }
            let nth = atomicAdd(&notes.wrong, 1u);
            if (nth < NOTED) {
                notes.noted[nth] = vec4<u32>(order.first + quad * 4u + i, expected[i], found[i], 0u);
            }
        }
    }
    // One sum for many: what looks at nothing has compared nothing.
    if (looked > 0u) { atomicAdd(&notes.looked, looked); }
}
