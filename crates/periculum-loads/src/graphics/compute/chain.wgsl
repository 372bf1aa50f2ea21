// Chains of fused multiply-adds in registers, eight side by side in each invocation: nothing but arithmetic.
// Numbers stay between 1 and 2: each step halves what came before and adds a number between 1/2 and 1.

struct Order {
    seed: u32,
    steps: u32,
    // Which slot of the digests this is for, in groups.
    first: u32,
    spare: u32,
}

@group(0) @binding(0) var<storage, read> factors: array<vec4<f32>>;
@group(0) @binding(1) var<storage, read_write> digests: array<vec2<u32>>;
@group(0) @binding(2) var<uniform> order: Order;

var<workgroup> sums: array<atomic<u32>, 2>;

@compute @workgroup_size(64)
fn chain(@builtin(workgroup_id) group: vec3<u32>, @builtin(local_invocation_index) lane: u32) {
    let start = group.x * 64u + lane;
    let count = arrayLength(&factors);
    let a = factors[mix(start ^ order.seed) % count];
    let b = factors[mix(start ^ order.seed ^ 0x5bd1e995u) % count];
    // Factors lie in [1/2, 1); half of one is a multiplier, one is what is added.
    let by = a * 0.5;
    var x0 = a; var x1 = b; var x2 = a.yzwx; var x3 = b.yzwx;
    for (var step = 0u; step < order.steps; step++) {
        x0 = fma(x0, by, b);
        x1 = fma(x1, by, a);
        x2 = fma(x2, by, b);
        x3 = fma(x3, by, a);
    }
    var low = 0u;
    var high = 0u;
    let all = array<vec4<u32>, 4>(
        bitcast<vec4<u32>>(x0), bitcast<vec4<u32>>(x1), bitcast<vec4<u32>>(x2), bitcast<vec4<u32>>(x3));
    for (var i = 0u; i < 4u; i++) {
        for (var j = 0u; j < 4u; j++) {
            let place = mix(start * 16u + i * 4u + j);
            low += mix(all[i][j] ^ place);
            high += mix(all[i][j] + place);
        }
    }
    // Sums come to the same in whatever order they are made.
    atomicAdd(&sums[0], low);
    atomicAdd(&sums[1], high);
    workgroupBarrier();
    if (lane == 0u) {
        digests[order.first + group.x] = vec2<u32>(atomicLoad(&sums[0]), atomicLoad(&sums[1]));
    }
}
